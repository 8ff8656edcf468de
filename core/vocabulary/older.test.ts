import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { drillFromKept, ladderFromKept, restOfOlder, templateFromKept, tuningFromKept, schoolFromKept } from './older'
import { isSound } from './sound'
import { SessionTemplate } from './template'

// One number meant: between sets, and after every rep in one set or in what rests after each (runs, turns, throws).
describe('one rest as two', () => {
	it.each([
		['one set of jumps', [60, 1, 'plyometric', false], { repsS: 60, setsS: 60 }],
		['two sets of jumps', [60, 2, 'plyometric', false], { repsS: 0, setsS: 60 }],
		['sets of rebounds', [150, 5, 'plyometric', true], { repsS: 8, setsS: 150 }],
		['one set of rebounds', [150, 1, 'plyometric', true], { repsS: 150, setsS: 150 }],
		['sets of runs', [120, 2, 'sprint', false], { repsS: 120, setsS: 120 }],
		['sets of turns', [60, 3, 'agility', false], { repsS: 60, setsS: 60 }],
		['sets of throws', [75, 2, 'throw', false], { repsS: 75, setsS: 75 }],
		['sets of holds', [30, 3, 'tissue', false], { repsS: 0, setsS: 30 }],
		['sets of what nobody knows', [45, 2, null, false], { repsS: 0, setsS: 45 }],
	] as const)('%s', (_what, [restS, sets, family, shock], rest) => {
		expect(restOfOlder(restS, sets, family, shock)).toEqual(rest)
	})
})

describe('documents of the version before', () => {
	const pogo = STARTER_LIBRARY.drills.pogo!
	const kept = { ...pogo, version: 2, defaults: { sets: 3, reps: 15, restS: 60, repS: 0.6 } }
	it('a drill: its numbers in their places, its parameters beside them', () => {
		expect(drillFromKept(kept)).toEqual({
			...pogo,
			version: 2,
			defaults: { dose: { sets: 3, reps: 15 }, rest: { repsS: 0, setsS: 60 }, parameters: {}, repS: 0.6 },
		})
		const jump = {
			...STARTER_LIBRARY.drills['depth-jump']!,
			defaults: { sets: 5, reps: 2, restS: 150, repS: 8, heightCm: 30 },
		}
		expect(drillFromKept(jump).defaults).toEqual({
			dose: { sets: 5, reps: 2 },
			rest: { repsS: 8, setsS: 150 },
			parameters: { heightCm: 30 },
			repS: 8,
		})
	})
	it('a ladder: rung by rung, rebounds by their phase', () => {
		const rung = {
			id: 'a',
			name: 'A',
			level: 1 as const,
			drillId: 'pogo',
			parameters: {},
			pass: { kind: 'quality' as const },
		}
		const ladder = {
			id: 'own',
			version: 1001,
			name: 'Own',
			family: 'plyometric' as const,
			about: 'Ours.',
			rungs: [
				{ ...rung, dose: { sets: 3, reps: 15 }, restS: 60, gates: [] },
				{ ...rung, id: 'b', dose: { sets: 5, reps: 2 }, restS: 150, gates: [{ kind: 'depth-phase' as const }] },
			],
		}
		const read = ladderFromKept(ladder)
		expect(read.rungs.map((one) => one.rest)).toEqual([
			{ repsS: 0, setsS: 60 },
			{ repsS: 8, setsS: 150 },
		])
		expect(JSON.stringify(read)).not.toContain('restS')
	})
	it('today’s documents as they are', () => {
		for (const drill of Object.values(STARTER_LIBRARY.drills)) expect(drillFromKept(drill)).toBe(drill)
		for (const ladder of Object.values(STARTER_LIBRARY.ladders)) expect(ladderFromKept(ladder)).toEqual(ladder)
	})
	it('the forms for levels of an entry; what has none, and no tuning, as it is', () => {
		const form = { drillId: 'broad-jump', dose: { sets: 2, reps: 3 }, parameters: {} }
		const now = { ...form, rest: { repsS: 5, setsS: 60 } }
		const older = { variants: { 1: { ...form, restS: 60 }, 2: now }, strict: true } as never
		expect(tuningFromKept(older, 'plyometric')).toEqual({
			variants: { 1: { ...form, rest: { repsS: 0, setsS: 60 } }, 2: now },
			strict: true,
		})
		expect(tuningFromKept(null, 'sprint')).toBeNull()
		expect(tuningFromKept({ strict: true }, 'sprint')).toEqual({ strict: true })
	})
})

describe('a template of the first version', () => {
	const familyOf = ({ drillId, ladderId }: { drillId?: string | undefined; ladderId?: string | undefined }) =>
		ladderId === 'cut' ? ('agility' as const) : drillId === 'broad-jump' ? ('plyometric' as const) : null
	const read = (kept: unknown) => templateFromKept(kept, familyOf, (id) => (id === 'cut' ? 'wide-cut' : null))
	const entry = { part: 'Part', dose: { sets: 2, reps: 3 }, parameters: {}, doseFactor: 1, lanes: 1, together: 1 }
	const older = (entries: unknown) => ({ format: 'dromos-session', version: 1, name: 'Old', minutes: 45, entries })
	it('is read as one of today', () => {
		const template = read(
			older([
				{ ...entry, drillId: 'broad-jump', restS: 60 },
				{ ...entry, ladderId: 'cut', restS: 45 },
				{
					...entry,
					drillId: 'broad-jump',
					restS: 60,
					fill: { quantity: 'throws', targets: { 1: 1, 2: 2, 3: 3 }, part: 1 },
				},
			]),
		)
		expect(isSound(SessionTemplate, template)).toBe(true)
		expect(template).toMatchObject({
			version: 2,
			entries: [
				{ drillId: 'broad-jump', ladderId: null, rest: { repsS: 0, setsS: 60 }, tuning: null },
				{ drillId: 'wide-cut', ladderId: 'cut', rest: { repsS: 45, setsS: 45 }, tuning: null },
				{ tuning: { fill: { quantity: 'throws' } } },
			],
		})
	})
	it('what is none is left to the schema', () => {
		for (const kept of [null, 'x', 7, { version: 2, entries: [] }, { version: 1, entries: 'x' }])
			expect(read(kept)).toBe(kept)
		expect(isSound(SessionTemplate, read(older([null])))).toBe(false)
		expect(isSound(SessionTemplate, read(older([{ ...entry, ladderId: 'moonwalk', restS: 60 }])))).toBe(false)
		expect(isSound(SessionTemplate, read(older([{ part: 'Part', drillId: 'broad-jump', restS: 60 }])))).toBe(false)
	})
})

it('a school of before ran free on the way back, by the clock, with fewer for beginners and all take-offs; what it said since stands', () => {
	const kept = (more: object, others: object = {}) =>
		schoolFromKept({ choices: { volume: 'skill', ...more }, numbers: { rampPercent: 15 }, ...others } as never)
	expect(kept({})).toEqual({
		choices: {
			volume: 'skill',
			slowWork: 'everybody',
			returnPulls: 'free',
			shapes: 'clock',
			assisted: 'none',
			beginners: 'fewer',
			plants: 'all',
			finisher: 'none',
		},
		numbers: { rampPercent: 15 },
		plants: ['two-lr', 'two-rl', 'left', 'right'],
	})
	const said = {
		shapes: 'eye',
		returnPulls: 'pulls-first',
		assisted: 'to-20',
		beginners: 'more-easy',
		plants: 'one',
		finisher: 'throws',
	}
	expect(kept(said, { plants: ['left'], numbers: { assistedCapPercent: 5 } })).toMatchObject({
		choices: said,
		plants: ['left'],
		numbers: {},
	})
})
it('its cap of assisted speed is never read as more, and its finisher as the kind it conditions by', () => {
	const cap = (assistedCapPercent: number) =>
		schoolFromKept({ choices: {}, numbers: { assistedCapPercent } } as never).choices.assisted
	expect([0, 9.9, 10, 15, 19.9, 20].map(cap)).toEqual(['none', 'none', 'to-10', 'to-10', 'to-10', 'to-20'])
	const finisher = (has: boolean, conditioning: string) =>
		schoolFromKept({ choices: { conditioning }, numbers: {}, finisher: has } as never)
	expect(finisher(true, 'long-runs').choices.finisher).toBe('runs')
	expect(finisher(true, 'shuttles').choices.finisher).toBe('shuttles')
	expect(finisher(false, 'shuttles').choices.finisher).toBe('none')
	expect(finisher(true, 'shuttles')).not.toHaveProperty('finisher')
})
