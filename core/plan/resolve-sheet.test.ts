import { describe, expect, it } from 'vitest'
import { ADVANCED, BEGINNER, PLAIN_DAY, PLAIN_FACTS, TRAINED, plainAthlete } from '../../tests/support/plain-squad'
import { repsOf } from '../library/scale-dose'
import { STARTER_LIBRARY } from '../library/starter-library'
import { type PlainFacts, concludeFor } from '../permit/plain-facts'
import type { PlannedLine } from '../vocabulary/line'
import { previewSheet } from './preview-sheet'
import { ENOUGH, type SheetEntry, capDose, countOf, reached, resolveSheet, tuningForAnotherDay } from './resolve-sheet'
import { quantitiesOf, targetOf } from './targets'

const library = STARTER_LIBRARY
const [ana, bo] = [plainAthlete('Ana', 2, TRAINED), plainAthlete('Bo', 1, BEGINNER)]
let made = 0
const entry = (drillId: string, change: Partial<SheetEntry> = {}): SheetEntry => {
	const drill = library.drills[drillId]!
	const { dose, rest, parameters } = drill.defaults
	return {
		id: `e${(made += 1)}`,
		part: drill.name,
		family: drill.family,
		drillId,
		ladderId: null,
		dose,
		parameters,
		rest,
		doseFactor: 1,
		lanes: 1,
		together: 1,
		tuning: null,
		...change,
	}
}
const jumps = {
	variants: {
		1: { drillId: 'broad-jump', dose: { sets: 2, reps: 3 }, parameters: {}, rest: { repsS: 60, setsS: 60 } },
		2: { drillId: 'repeated-broad-jump', dose: { sets: 3, reps: 2 }, parameters: {}, rest: { repsS: 90, setsS: 90 } },
	},
}
const contacts = (part = 1) => ({ quantity: 'contacts' as const, targets: { 1: 40, 2: 60, 3: 80 }, part })
const costOf = (entries: SheetEntry[], athlete = ana) =>
	quantitiesOf(
		[...resolveSheet(entries, athlete, library).values()].reduce(
			(sum, line) => (line.blocked === null ? addUp(sum, countOf(line, athlete, library)) : sum),
			countOf({ drillId: 'none', parameters: {}, dose: { sets: 1, reps: 1 } }, athlete, library),
		),
	)
function addUp<T>(a: T, b: T): T {
	if (typeof a === 'number') return ((a as number) + (b as number)) as T
	return Object.fromEntries(
		Object.keys(a as object).map((key) => [
			key,
			addUp((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
		]),
	) as T
}

describe('a sheet’s lines', () => {
	it('top up to the target of each level by what the rest has left open', () => {
		const sheet = [
			entry('drop-landing', { dose: { sets: 2, reps: 5 } }),
			entry('broad-jump', { tuning: { ...jumps, fill: contacts() } }),
		]
		// Ten landings, and 50 or 30 contacts to go: 3 a rep at level 2, 1 at level 1.
		expect(costOf(sheet, ana).contacts).toBeGreaterThanOrEqual(58)
		expect(costOf(sheet, ana).contacts).toBeLessThanOrEqual(62)
		expect(costOf(sheet, bo).contacts).toBe(40)
	})
	it('share what is missing between two that top up', () => {
		const sheet = [
			entry('broad-jump', { tuning: { ...jumps, fill: contacts(0.5) } }),
			entry('broad-jump', { tuning: { ...jumps, fill: contacts(1) } }),
		]
		const [first, second] = [...resolveSheet(sheet, bo, library).values()]
		expect(first?.blocked === null && repsOf(first.dose)).toBe(20)
		expect(second?.blocked === null && repsOf(second.dose)).toBe(20)
	})
	it('are left out where the rest gives enough', () => {
		const sheet = [
			entry('broad-jump', { dose: { sets: 8, reps: 10 } }),
			entry('broad-jump', { tuning: { ...jumps, fill: contacts() } }),
		]
		expect([...resolveSheet(sheet, bo, library).values()][1]).toEqual({ blocked: ENOUGH, ladderId: null })
	})
	it('take the next lower form where the own one is not reached', () => {
		const lateral = {
			variants: {
				1: { drillId: 'lateral-stick', dose: { sets: 2, reps: 4 }, parameters: {}, rest: { repsS: 60, setsS: 60 } },
				2: { drillId: 'lateral-reach', dose: { sets: 2, reps: 4 }, parameters: {}, rest: { repsS: 75, setsS: 75 } },
			},
		}
		const drillOf = (athlete: typeof ana) => {
			const [line] = [...resolveSheet([entry('lateral-stick', { tuning: lateral })], athlete, library).values()]
			return line!.blocked === null ? line!.drillId : null
		}
		expect(drillOf(ana)).toBe('lateral-stick')
		expect(drillOf(plainAthlete('Cy', 2, { ...TRAINED, 'lateral-bound': 'lateral-reach' }))).toBe('lateral-reach')
		expect(reached('cut-90', bo, library)).toBe(false)
		expect(reached('broad-jump', bo, library)).toBe(true)
	})
	it('count a line set by hand in place of its own', () => {
		const hand = entry('drop-landing', { dose: { sets: 2, reps: 5 } })
		const sheet = [hand, entry('broad-jump', { tuning: { ...jumps, fill: contacts() } })]
		const set: PlannedLine = {
			drillId: 'drop-landing',
			drillVersion: 1,
			ladderId: null,
			rungId: null,
			dose: { sets: 3, reps: 10 },
			parameters: { heightCm: 15 },
			rest: { repsS: 60, setsS: 60 },
		}
		const line = resolveSheet(sheet, bo, library, new Map([[hand.id, set]])).get(sheet[1]!.id)!
		expect(line.blocked === null && repsOf(line.dose)).toBe(10)
	})
	it('keep to a cap, with its reason, and to none at all', () => {
		const capped = (reps: number) =>
			[
				...resolveSheet(
					[
						entry('standing-start', {
							dose: { sets: 1, reps: 8 },
							tuning: { caps: { Ana: { reps, why: 'the week’s ramp' } } },
						}),
					],
					ana,
					library,
				).values(),
			][0]!
		expect(capped(5)).toMatchObject({ blocked: null, dose: { sets: 1, reps: 5 }, note: 'the week’s ramp' })
		expect(capped(0)).toEqual({ blocked: 'the week’s ramp', ladderId: null })
		expect(capped(8)).toMatchObject({ dose: { sets: 1, reps: 8 }, note: null })
		expect(capDose({ sets: 3, reps: 5 }, 11)).toEqual({ sets: 2, reps: 5 })
		expect(capDose({ sets: 3, reps: 5 }, 4)).toEqual({ sets: 1, reps: 4 })
		expect(tuningForAnotherDay({ caps: { Ana: { reps: 1, why: 'x' } }, strict: true })).toBeNull()
		expect(tuningForAnotherDay({ ...jumps, caps: {} })).toEqual(jumps)
	})
})

describe('targets, by hand from the ranges', () => {
	const request = { share: 1, phase: 'accumulate', role: 'hard', priority: null, kept: [], surface: null } as const
	it.each([
		['contacts', 1, {}, 90],
		['contacts', 2, {}, 110],
		['contacts', 3, { priority: 'plyometric' }, 140],
		['contacts', 2, { phase: 'intensify' }, 83],
		['contacts', 1, { surface: 'gravel' }, 72],
		['contacts', 2, { kept: ['plyometric'] }, 73],
		['contacts', 2, { phase: 'unloading' }, 66],
		['contacts', 2, { role: 'light' }, 55],
		['fastMetres', 1, { share: 0.83 }, 70],
		['fastMetres', 3, { role: 'light' }, 0],
		['cuts60', 2, { priority: 'agility' }, 20],
		['throws', 1, { role: 'test' }, 0],
	] as const)('%s at level %i with %o is %i', (quantity, level, change, wanted) => {
		expect(targetOf(quantity, level, { ...request, ...change })).toBe(wanted)
	})
	it('refuses a share that is none', () =>
		expect(() => targetOf('contacts', 1, { ...request, share: 0 })).toThrow('share: 0'))
})

describe('a sheet as it is edited', () => {
	const context = {
		library,
		school: library.schools['quality-first']!,
		day: PLAIN_DAY,
		startTime: '17:30',
		surface: null,
		target: { share: 1, phase: 'accumulate' as const, role: 'hard' as const, priority: null, kept: [], surface: null },
	}
	const shown = (...those: SheetEntry[]) => those.map((one) => ({ ...one, name: one.drillId, lanes: 1, together: 1 }))
	it('says order and ramp by name, and counts the minutes of the group', () => {
		// A turn of 180° asks for the dead stop from 10 m.
		const [tired, bo] = [
			{ ...plainAthlete('Ana', 3, ADVANCED), rooms: { maximalStarts: 2 } },
			plainAthlete('Bo', 3, ADVANCED),
		]
		const sheet = shown(entry('shuttle-repeat'), entry('standing-start', { dose: { sets: 1, reps: 4 } }))
		const preview = previewSheet(sheet, [tired, bo], context)
		expect(preview.cautions.map(({ rule, names }) => [rule, names])).toEqual([
			['S5', ['Ana', 'Bo']],
			['S7', ['Ana']],
		])
		expect(preview.athletes[0]!.planned.fastMetres).toBe(40)
		const alone = previewSheet(sheet, [bo], context).minutes
		expect(preview.minutes).toBeGreaterThanOrEqual(alone)
		const wider = previewSheet(
			sheet.map((one) => ({ ...one, lanes: 2 })),
			[tired, bo],
			context,
		).minutes
		expect(wider).toBeLessThanOrEqual(preview.minutes)
	})
})

describe('a complex on the sheet', () => {
	const heavyFree = library.ladders.contrast!.rungs[0]!
	const asked = () =>
		entry('contrast-start', {
			dose: heavyFree.dose,
			parameters: heavyFree.parameters,
			rest: heavyFree.rest,
			pieces: heavyFree.pieces!,
		})
	const lineFor = (athlete: typeof ana, one = asked()) => resolveSheet([one], athlete, library).get(one.id)!
	/** Who is on the contrast ladder, with more of what is known. */
	const knowing = (more: Partial<PlainFacts>) => {
		const plain = plainAthlete('Cy', 3, { ...ADVANCED, contrast: 'heavy-free-10' })
		const { facts } = plain.concluded
		return {
			...plain,
			concluded: concludeFor(
				{
					...PLAIN_FACTS,
					levels: { sprint: 3, agility: 3, plyometric: 3, throw: 3 },
					passed: facts.passed,
					contrastHelps: true,
					...more,
				},
				library,
			),
		}
	}
	it('is written whole where every piece is permitted', () => {
		const line = lineFor(knowing({}))
		expect(line.blocked === null && [line.drillId, line.pieces?.length, line.note]).toEqual(['contrast-start', 2, null])
		// Two pulls of 10 m at tempo and two free starts of 10 m: 20 m at full effort.
		expect(quantitiesOf(countOf(line as PlannedLine, ana, library)).fastMetres).toBe(20)
	})
	it('is the judged piece alone where another one is not, and says why', () => {
		// Rebounds from a box are closed while work accumulates; a broad jump after one is open.
		const rest = { repsS: 0, setsS: 0 }
		const rebound = { drillId: 'depth-jump', reps: 2, parameters: { heightCm: 30 }, rest, judged: false }
		const jump = { drillId: 'broad-jump', reps: 2, parameters: {}, rest, judged: true }
		const line = lineFor(
			knowing({}),
			entry('broad-jump', { dose: { sets: 3, reps: 1 }, pieces: [rebound, jump] as never }),
		)
		if (line.blocked !== null) throw new Error(line.blocked)
		expect([line.drillId, line.pieces, line.dose]).toEqual(['broad-jump', undefined, { sets: 3, reps: 2 }])
		expect(line.note).toMatch(/^without depth jump: /)
	})
	it('gives up what belongs to a drill when another one stands in', () => {
		const line = lineFor(
			knowing({
				reports: [{ kind: 'pain', region: 'back-thigh', side: 'left', score: 6, redFlag: false, day: PLAIN_DAY }],
			}),
		)
		if (line.blocked !== null) throw new Error(line.blocked)
		expect(library.drills[line.drillId]!.regions['back-thigh'] ?? 0).toBe(0)
		expect(line.pieces).toBeUndefined()
	})
	it('is done in fewer rounds where there is less of it', () => {
		const line = lineFor(knowing({ phase: 'unloading' }), { ...asked(), dose: { sets: 4, reps: 1 } })
		// Three fifths of four rounds, rounded down.
		expect(line.blocked === null && [line.dose, line.pieces?.length]).toEqual([{ sets: 2, reps: 1 }, 2])
	})
})

describe('a weight on the sheet', () => {
	const worn = (loadG: number) => entry('carried-run', { parameters: { distanceM: 30, loadG } })
	const able = plainAthlete('Ed', 3, { ...ADVANCED, 'carried-load': 'run-400' })
	it('is worn where the drill has it, whatever wrote the line, and once a day', () => {
		const [first, second] = [worn(100), worn(100)]
		const lines = resolveSheet([first, second], able, library)
		const line = lines.get(first.id)!
		expect(line.blocked === null && line.carried).toEqual({ segment: 'shank', fromJointCm: 10, grams: 100 })
		const again = lines.get(second.id)!
		expect(again.blocked === null ? library.drills[again.drillId]!.carriesLoad : again.blocked).not.toBe(true)
		expect(again.blocked ?? again.note).toContain('a weight is worn that day already: once a day')
	})
	it('is as heavy as the line says after it was made lighter', () => {
		const low = plainAthlete('Flo', 3, { ...ADVANCED, 'carried-load': 'run-100' })
		const one = worn(400)
		const line = resolveSheet([one], low, library).get(one.id)!
		expect(line.blocked === null && [line.parameters.loadG, line.carried?.grams]).toEqual([100, 100])
	})
})
