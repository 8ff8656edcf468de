import { STARTER_LIBRARY } from '../library/starter-library'
import { describe, expect, it } from 'vitest'
import { rampValue } from '../dose/ramp'
import { BEGINNER, TRAINED, plainAthlete, plainRequest, costOf, linesOf } from '../../tests/support/plain-squad'
import { proposeSession, sayShortfall, sayShortfalls } from './propose-session'
import { resolveSheet } from './resolve-sheet'
import type { LimitedAthlete } from './session-limits'
import { quantitiesOf } from './targets'

const library = STARTER_LIBRARY
const KIT = [...new Set(Object.values(library.drills).flatMap((drill) => drill.kit))].sort()

describe('Tuesday’s session', () => {
	const squad = [plainAthlete('Ana', 2, TRAINED), plainAthlete('Bo', 1, BEGINNER)]
	it('gives each level its target: the middle of the published ranges, 110 and 90 contacts', () => {
		const proposal = proposeSession(plainRequest(squad))
		const [ana, bo] = squad.map((one) => quantitiesOf(costOf(proposal, one)))
		expect(ana!.contacts).toBeGreaterThanOrEqual(104)
		expect(ana!.contacts).toBeLessThanOrEqual(116)
		expect(bo!.contacts).toBeGreaterThanOrEqual(85)
		expect(bo!.contacts).toBeLessThanOrEqual(95)
		expect(ana).toMatchObject({ fastMetres: 150, cuts60: 10, throws: 15 })
		expect(bo).toMatchObject({ fastMetres: 90, throws: 10 })
		// The beginner has not reached sharp cuts: said, not forced.
		expect(proposal.shortfalls.map((one) => sayShortfall(one, (id) => id))).toEqual([
			'Agility: Bo 0 of 5: not reached yet on its ladder.',
		])
	})
	it('warms up first and throws last, and puts the priority before the rest', () => {
		const parts = (priority: 'sprint' | 'plyometric' | 'agility') => [
			...new Set(
				proposeSession(plainRequest(squad, { target: { ...plainRequest(squad).target, priority } })).entries.map(
					(entry) => entry.family,
				),
			),
		]
		expect(parts('sprint')).toEqual(['prepare', 'plyometric', 'sprint', 'agility', 'throw'])
		expect(parts('agility').indexOf('agility')).toBeLessThan(parts('agility').indexOf('sprint'))
		expect(proposeSession(plainRequest(squad)).entries.at(-1)!.drillId).toBe('easy-close')
	})
	it('rests before every try of a test', () => {
		const { entries } = proposeSession(plainRequest(squad, { target: { ...plainRequest(squad).target, role: 'test' } }))
		const tests = entries.filter((entry) => entry.part === 'Tests')
		expect(tests.map((entry) => entry.drillId)).toEqual([
			'countermovement-jump',
			'broad-jump',
			'standing-start',
			'overhead-throw',
		])
		for (const { dose, rest } of tests) {
			expect(dose.sets).toBe(1)
			expect(rest.repsS).toBeGreaterThanOrEqual(60)
		}
	})
	it('has one theme with a form for each level', () => {
		const proposal = proposeSession(plainRequest(squad))
		const entry = proposal.entries.find((one) => one.part === 'Jumps' && one.tuning?.variants)!
		const drillOf = (one: LimitedAthlete) => {
			const line = resolveSheet(proposal.entries, one, library).get(entry.id)!
			return line.blocked === null ? line.drillId : line.blocked
		}
		expect(squad.map(drillOf)).toEqual(['repeated-broad-jump', 'broad-jump'])
	})
	it('leaves out what has no kit, and says what that costs', () => {
		const proposal = proposeSession(
			plainRequest(squad, {
				context: { ...plainRequest(squad).context, kit: new Set(KIT.filter((item) => item !== 'medicine ball')) },
			}),
		)
		expect(
			proposal.entries.some(
				(entry) => entry.family === 'throw' && linesOf(proposal, squad[0]!).some((line) => line.entryId === entry.id),
			),
		).toBe(false)
		expect(proposal.shortfalls.find((one) => one.quantity === 'throws')).toMatchObject({
			why: 'no medicine ball at hand',
		})
	})
	it('keeps to what the week’s ramp leaves', () => {
		const tired = plainAthlete('Ana', 2, TRAINED, { rooms: { maximalStarts: 3 } })
		const proposal = proposeSession(plainRequest([tired]))
		expect(rampValue(costOf(proposal, tired), 'maximalStarts')).toBeLessThanOrEqual(3)
		expect(proposal.shortfalls.find((one) => one.quantity === 'fastMetres')?.why).toContain('ramp')
	})
	it('in 40 minutes the least important goes first and the minutes are blamed', () => {
		const proposal = proposeSession(
			plainRequest(squad, {
				minutes: 40,
				target: { ...plainRequest(squad).target, priority: 'sprint', kept: ['throw'] },
			}),
		)
		expect(proposal.minutes).toBeLessThanOrEqual(40)
		const of = (quantity: string) =>
			proposal.shortfalls
				.find((one) => one.quantity === quantity && one.why === 'the minutes')
				?.athletes.find((one) => one.id === 'Ana')
		const left = (quantity: string) => {
			const one = of(quantity)
			return one ? one.planned / one.target : 1
		}
		expect(left('throws')).toBeLessThanOrEqual(left('fastMetres'))
		expect(of('contacts')).toBeDefined()
	})
	it.each([
		['athletes', { athletes: [] }],
		['minutes', { minutes: 5 }],
		['mostLanes', { mostLanes: 0 }],
	] as const)('refuses wrong %s', (name, wrong) => {
		expect(() => proposeSession({ ...plainRequest(squad), ...wrong })).toThrow(new RegExp(name))
	})
})

describe('what did not fit', () => {
	const of = (quantity: 'fastMetres' | 'contacts', why: string, ...ids: string[]) => ({
		quantity,
		why,
		athletes: ids.map((id) => ({ id, planned: 10, target: 20 })),
	})
	it('is one line: how many of each quality, and what holds most', () => {
		expect(
			sayShortfalls([
				of('fastMetres', 'the minutes', 'a', 'b', 'c'),
				of('fastMetres', 'a light day', 'c', 'd'),
				of('contacts', 'a light day', 'a'),
			]),
		).toBe('sprint for 4, jumps for 1; mostly: the minutes.')
		expect(sayShortfalls([of('contacts', 'the minutes', 'a', 'b')])).toBe('jumps for 2; the minutes.')
		expect(sayShortfalls([])).toBe('')
	})
})

describe('a finisher', () => {
	const of = (finisher: 'none' | 'runs' | 'shuttles' | 'throws', more: object = {}, target: object = {}) => {
		const asked = plainRequest([plainAthlete('Ana', 2, TRAINED)], { minutes: 120, ...more })
		const { school } = asked.context
		const theme = STARTER_LIBRARY.themes.acceleration!
		return proposeSession({
			...asked,
			target: { ...asked.target, theme, ...target },
			context: { ...asked.context, school: { ...school, choices: { ...school.choices, finisher } } },
		}).entries.map(({ part, drillId, ladderId }) => [part, ladderId ?? drillId])
	}
	it('is the school’s, last before the close, with a theme and without', () => {
		for (const target of [{}, { theme: null }]) {
			expect(of('none', {}, target).map(([part]) => part)).not.toContain('Finisher')
			expect(of('runs', {}, target).slice(-2)).toEqual([
				['Finisher', 'capacity'],
				['Close', 'easy-close'],
			])
			expect(of('shuttles', {}, target).at(-2)).toEqual(['Finisher', 'repeat-speed'])
			expect(of('throws', {}, target).at(-2)).toEqual(['Finisher', 'floor-slam'])
		}
	})
	it('goes first when minutes are short, and belongs to hard days alone', () => {
		const parts = (minutes: number) => of('runs', { minutes }).map(([part]) => part)
		expect(parts(45)).not.toContain('Finisher')
		expect(parts(45)).toContain('Acceleration')
		for (const role of ['light', 'tissue', 'test'])
			expect(of('runs', {}, { role, theme: null }).map(([part]) => part)).not.toContain('Finisher')
	})
})
