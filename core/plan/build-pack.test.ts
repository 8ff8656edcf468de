import { describe, expect, it } from 'vitest'
import { emptyCount } from '../dose/dose-count'
import type { DayDose, RampQuantity } from '../dose/ramp'
import type { Level } from '../vocabulary/words'
import { PLAIN_FACTS } from '../../tests/support/plain-squad'
import { startingAt } from '../judge/resolve-line'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import { type BuildPack, type PlannedDay, limitedAthletes, requestOf, roomsOn } from './build-pack'

// S7 on a day ahead. Level 2 may start 16 times in a week whatever came before, and more than that by the ramp's
// percentage over the mean of the last trained weeks. Monday 9 March to Sunday 15 March.

const none: Record<RampQuantity, DayDose[]> = { hardContacts: [], sharpCuts: [], maximalStarts: [], fastMetres: [] }
const did = (day: string, value: number) => ({ ...none, maximalStarts: [{ day, unloading: false, value }] })
const planned = (day: string, maximalStarts: number, more: Partial<PlannedDay> = {}): PlannedDay => ({
	day,
	startTime: '17:30',
	phase: 'accumulate',
	count: { ...emptyCount(), maximalStarts },
	...more,
})
const starts = (day: string, those: PlannedDay[], done: Record<RampQuantity, DayDose[]> = none, level: Level = 2) =>
	roomsOn({ day, startTime: '17:30' }, done, those, () => level, 15).maximalStarts

describe('what the week’s ramp leaves a session', () => {
	it.each([
		['nothing else in the week', [], 16],
		['less what is planned before it', [planned('2026-03-10', 6)], 10],
		['less what is planned after it, to the Sunday', [planned('2026-03-15', 6)], 10],
		['not what is planned the Monday after', [planned('2026-03-16', 6)], 16],
		['less both', [planned('2026-03-10', 6), planned('2026-03-15', 7)], 3],
		['nothing, never less', [planned('2026-03-10', 10), planned('2026-03-15', 10)], 0],
		['less what is planned that morning', [planned('2026-03-12', 6, { startTime: '09:00' })], 10],
		['less what is planned that evening', [planned('2026-03-12', 6, { startTime: '19:00' })], 10],
	])('%s', (_, those, left) => expect(starts('2026-03-12', those)).toBe(left))

	it('an excess before it counts as no more than was left', () => {
		// 30 of 16 in the week before make a week of 16: 15 % more are 18.4; of 30 they would be 34.5.
		expect(starts('2026-03-12', [planned('2026-03-03', 30)])).toBeCloseTo(18.4)
		expect(starts('2026-03-12', [planned('2026-03-03', 16)])).toBeCloseTo(18.4)
		// Two of that week together, whatever order they stand in.
		for (const those of [
			[planned('2026-03-02', 10), planned('2026-03-05', 10)],
			[planned('2026-03-05', 10), planned('2026-03-02', 10)],
		])
			expect(starts('2026-03-12', those)).toBeCloseTo(18.4)
	})
	it('weeks grow from each other in the order they come, however they are handed in', () => {
		// 18 after a week of 16 is within the 18.4 that may be: a mean of 17, and 15 % more are 19.55.
		const [first, second] = [planned('2026-03-02', 16), planned('2026-03-09', 18)]
		expect(starts('2026-03-19', [first, second])).toBeCloseTo(19.55)
		expect(starts('2026-03-19', [second, first])).toBeCloseTo(19.55)
	})
	it('what is planned later in the week counts whole, also where less is left for it by then', () => {
		// Ten on the Sunday before are in the seven days of Thursday and of Saturday: six are left by those, none by the week.
		expect(starts('2026-03-12', [planned('2026-03-14', 16)], did('2026-03-08', 10))).toBe(0)
		expect(starts('2026-03-12', [planned('2026-03-14', 9)], did('2026-03-08', 10))).toBe(6)
	})
	it('what loads nothing makes no week an unloading one', () => {
		const throws = planned('2026-03-05', 0, { phase: 'unloading' })
		expect(starts('2026-03-12', [throws], did('2026-03-03', 20))).toBeCloseTo(23)
	})
	it('an unloading week ahead is none of those it grows from', () => {
		const week = did('2026-02-23', 20)
		expect(starts('2026-03-12', [planned('2026-03-03', 4, { phase: 'unloading' })], week)).toBeCloseTo(23)
		expect(starts('2026-03-12', [planned('2026-03-03', 4)], week)).toBe(16)
	})
	it('each quantity by the level of its own family', () => {
		const levels = { plyometric: 1, agility: 2, sprint: 3 } as const
		const rooms = roomsOn(
			{ day: '2026-03-12', startTime: '17:30' },
			none,
			[],
			(family) => levels[family as keyof typeof levels],
			15,
		)
		expect(rooms).toEqual({ hardContacts: 20, sharpCuts: 20, maximalStarts: 24, fastMetres: 180 })
	})
	it('what was done is left as it is handed in', () => {
		const done = did('2026-03-09', 2)
		expect(starts('2026-03-12', [planned('2026-03-10', 6)], done)).toBe(8)
		expect(done.maximalStarts).toHaveLength(1)
	})
})

describe('a request of a pack', () => {
	const library = STARTER_LIBRARY
	const pack: BuildPack = {
		day: '2026-03-10',
		startTime: '17:30',
		phase: 'intensify',
		surface: 'grass',
		share: 0.8,
		role: 'hard',
		priority: 'sprint',
		kept: ['throw', 'agility'],
		theme: null,
		school: QUALITY_FIRST,
		priorityLadders: ['start'],
		athletes: [
			{
				id: 'ana',
				name: 'Ana',
				legLengthM: 0.9,
				type: null,
				levels: { sprint: 3, agility: 2, plyometric: 1, throw: 2, prepare: 1, tissue: 1 },
				states: { cut: startingAt(library, 'cut', 'wide') },
				keptLadders: ['brake'],
				work: [],
				rooms: { maximalStarts: 5 },
				facts: PLAIN_FACTS,
			},
		],
	}
	const asked = { minutes: 75, mostLanes: 3, kit: null }
	it('is for the pack’s day, as its block wants it', () => {
		const { athletes, target, context, ...rest } = requestOf(pack, library, asked)
		expect(athletes.map(({ id, name }) => [id, name])).toEqual([['ana', 'Ana']])
		expect(rest).toEqual({ minutes: 75, mostLanes: 3, priorityLadders: ['start'] })
		expect(target).toMatchObject({ share: 0.8, phase: 'intensify', role: 'hard', priority: 'sprint', surface: 'grass' })
		expect(target.kept).toEqual(['throw', 'agility'])
		expect(target.theme?.main).toBeNull()
		expect(context).toMatchObject({ day: '2026-03-10', startTime: '17:30', surface: 'grass', kit: null, roomM: null })
		expect(context.school.id).toBe('quality-first')
	})
	it('asks for what is said instead; a priority is not only kept', () => {
		const { target, context } = requestOf(pack, library, { ...asked, role: 'light', priority: 'throw', roomM: 40 })
		expect(target).toMatchObject({ role: 'light', priority: 'throw', kept: ['agility'] })
		expect(context.roomM).toBe(40)
		const [theme] = Object.values(library.themes).filter(({ role, main }) => role === 'hard' && main === 'throw')
		expect(requestOf(pack, library, { ...asked, theme: theme!.id }).target.theme).toBe(theme)
	})
	it('on other ground permits what that ground does', () => {
		const groundOf = (surface?: 'wet-grass') => {
			const { athletes, target, context } = requestOf(pack, library, surface ? { ...asked, surface } : asked)
			return [athletes[0]!.concluded.facts.surface, target.surface, context.surface]
		}
		const onGrass = {
			...pack,
			athletes: pack.athletes.map((one) => ({ ...one, facts: { ...PLAIN_FACTS, surface: pack.surface } })),
		}
		expect(requestOf(onGrass, library, asked).athletes[0]!.concluded.facts.surface).toBe('grass')
		expect(groundOf('wet-grass')).toEqual(['wet-grass', 'wet-grass', 'wet-grass'])
		expect(pack.athletes[0]!.facts.surface).toBeNull()
	})
	it('knows each athlete’s levels, places, and what is only kept', () => {
		const [ana] = limitedAthletes(pack, library)
		expect(ana).toMatchObject({ id: 'ana', name: 'Ana', legLengthM: 0.9, type: null, rooms: { maximalStarts: 5 } })
		expect([ana!.levelOf('sprint'), ana!.levelOf('plyometric')]).toEqual([3, 1])
		expect([ana!.stateOf('cut')?.rungId, ana!.stateOf('brake')]).toEqual(['wide', null])
		expect([ana!.kept('brake'), ana!.kept('cut')]).toEqual([true, false])
	})
})
