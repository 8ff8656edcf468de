import { describe, expect, it } from 'vitest'
import { ADVANCED, TRAINED, plainAthlete } from '../../tests/support/plain-squad'
import type { RampQuantity } from '../dose/ramp'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { School } from '../vocabulary/school'
import { type SheetAhead, type SheetLineAhead, orderForFreshness, sheetClashes } from './sheet-clashes'

// What the rules say about sheets that nobody has begun: S5 order, S7 the week, S8 gates, S10 ground, each with what
// would repair it. Monday 9 March to Sunday 15 March. Level 2 may start 16 times in a week whatever came before.

const library = STARTER_LIBRARY
const [ana, bo] = [plainAthlete('Ana', 2, TRAINED), plainAthlete('Bo', 2, TRAINED)]

const line = (drillId: string, reps: number, more: Partial<SheetLineAhead> = {}): SheetLineAhead => ({
	entryId: drillId,
	drill: library.drills[drillId]!,
	parameters: library.drills[drillId]!.defaults.parameters,
	dose: { sets: 1, reps },
	ladderId: null,
	rungId: null,
	handSet: false,
	...more,
})
const starts = (reps: number, more: Partial<SheetLineAhead> = {}) => line('standing-start', reps, more)
const sheet = (day: string, lines: SheetLineAhead[], more: Partial<SheetAhead> = {}): SheetAhead => ({
	sessionId: day,
	day,
	startTime: '17:30',
	phase: 'accumulate',
	surface: null,
	athlete: ana,
	lines,
	...more,
})
type Done = Parameters<typeof sheetClashes>[1]
const none = { hardContacts: [], sharpCuts: [], maximalStarts: [], fastMetres: [] }
const did = (day: string, value: number, quantity: RampQuantity = 'maximalStarts'): Done =>
	new Map([['Ana', { ...none, [quantity]: [{ day, unloading: false, value }] }]])
const found = (sheets: SheetAhead[], done: Done = new Map()) => sheetClashes(sheets, done, library)
const said = (sheets: SheetAhead[], done: Done = new Map()) =>
	found(sheets, done).map(({ sessionId, sentence }) => [sessionId, sentence])
const over = (reps: number, left: number) => `${reps} maximal starts, and the week’s ramp leaves ${left}.`

describe('the order for freshness', () => {
	const order = (...drills: string[]) =>
		orderForFreshness(
			drills.map((id, position) => ({
				id,
				family: library.drills[id]!.family,
				drill: library.drills[id]!,
				position,
			})),
		).map((one) => one.id)
	it.each([
		[
			['easy-run', 'overhead-throw', 'shuttle-repeat', 'standing-start', 'easy-close'],
			['easy-run', 'standing-start', 'overhead-throw', 'shuttle-repeat', 'easy-close'],
		],
		[
			['calf-hold', 'shuttle-repeat', 'broad-jump', 'standing-start'],
			['broad-jump', 'standing-start', 'shuttle-repeat', 'calf-hold'],
		],
		[
			['standing-start', 'broad-jump'],
			['standing-start', 'broad-jump'],
		],
		[
			['broad-jump', 'standing-start', 'depth-jump'],
			['broad-jump', 'standing-start', 'depth-jump'],
		],
	])('%j becomes %j', (asked, expected) => expect(order(...asked)).toEqual(expected))
	it('what cites no drill any more stays among the work', () => {
		const gone = [
			{ id: 'gone', family: 'sprint' as const, drill: null, position: 0 },
			{ id: 'easy-close', family: 'prepare' as const, drill: null, position: 1 },
		]
		expect(orderForFreshness(gone).map(({ id }) => id)).toEqual(['gone', 'easy-close'])
	})
	it('S5 is said once for everybody, and mended by another order where one mends it', () => {
		const lines = [line('shuttle-repeat', 2), starts(2)]
		expect(
			found([sheet('2026-03-09', lines), sheet('2026-03-09', lines, { athlete: bo })]).filter(
				({ rule }) => rule === 'S5',
			),
		).toMatchObject([{ names: ['Ana', 'Bo'], repair: 'reorder', sentence: expect.stringContaining('comes after') }])
		expect(found([sheet('2026-03-09', [starts(2), line('shuttle-repeat', 2)])])).toEqual([])
	})
})

describe('the week', () => {
	it('is held to the ramp, what is planned earlier counted as done', () => {
		expect(found([sheet('2026-03-09', [starts(10)]), sheet('2026-03-12', [starts(10)])])).toEqual([
			{ rule: 'S7', sessionId: '2026-03-12', sentence: over(10, 6), names: ['Ana'], repair: 'trim' },
		])
		expect(found([sheet('2026-03-09', [starts(8)]), sheet('2026-03-12', [starts(8)])])).toEqual([])
	})
	it('goes by the days, in whatever order the sheets come; two of a day by their start', () => {
		const [mon, thu] = [sheet('2026-03-09', [starts(10)]), sheet('2026-03-12', [starts(10)])]
		expect(said([thu, mon])).toEqual([['2026-03-12', over(10, 6)]])
		const [morning, evening] = [
			sheet('2026-03-09', [starts(9)], { sessionId: 'morning', startTime: '09:00' }),
			sheet('2026-03-09', [starts(9)], { sessionId: 'evening', startTime: '18:00' }),
		]
		expect(said([morning, evening])).toEqual([['evening', over(9, 7)]])
		expect(said([evening, morning])).toEqual([['evening', over(9, 7)]])
	})
	it('each athlete has their own', () => {
		expect(found([sheet('2026-03-09', [starts(10)]), sheet('2026-03-12', [starts(10)], { athlete: bo })])).toEqual([])
	})
	it('an excess is said once: no more than what was left is taken as done', () => {
		// 10 of 6 that are left on Thursday make a week of 16, not of 20: 15 % more are 18.4, and a Monday in the seven days
		// after Thursday has what the 6 leave of them.
		const weeks = [sheet('2026-03-09', [starts(10)]), sheet('2026-03-12', [starts(10)])]
		expect(said([...weeks, sheet('2026-03-21', [starts(18)])])).toEqual([['2026-03-12', over(10, 6)]])
		expect(said([...weeks, sheet('2026-03-21', [starts(19)])])).toEqual([
			['2026-03-12', over(10, 6)],
			['2026-03-21', over(19, 18)],
		])
		expect(said([...weeks, sheet('2026-03-16', [starts(12)])])).toEqual([['2026-03-12', over(10, 6)]])
	})
	it('an unloading week is none of those it grows from', () => {
		// Without it the mean is 20 and 23 are allowed; with its two starts it would be 11, and the floor of 16 would hold.
		const phases = (phase: SheetAhead['phase']) =>
			said([sheet('2026-03-09', [starts(2)], { phase }), sheet('2026-03-16', [starts(23)])], did('2026-03-02', 20))
		expect(phases('unloading')).toEqual([])
		expect(phases('accumulate')).toEqual([['2026-03-16', over(23, 16)]])
	})
	it('a match that is known takes its share of it, whether it lies before or after the session', () => {
		// 16 less the match's 4 leave 12 for Thursday, whenever it is in that week.
		const thursday = [sheet('2026-03-12', [starts(14)])]
		for (const day of ['2026-03-10', '2026-03-15'])
			expect(said(thursday, did(day, 4))).toEqual([['2026-03-12', over(14, 12)]])
		expect(said(thursday, did('2026-03-16', 4))).toEqual([])
	})
	it('who is in two squads grows by what the stricter one allows', () => {
		// A mean of 20 a week: 23 with 15 %, 22 with 10.
		const of = (rampPercent: number): School => ({
			...QUALITY_FIRST,
			numbers: { ...QUALITY_FIRST.numbers, rampPercent },
		})
		const inSquads = (...schools: [School, ...School[]]) => {
			const { facts } = ana.concluded
			const athlete = { ...ana, concluded: { ...ana.concluded, facts: { ...facts, schools } } }
			return said([sheet('2026-03-12', [starts(23)], { athlete })], did('2026-03-02', 20))
		}
		expect(inSquads(of(15))).toEqual([])
		expect(inSquads(of(15), of(10))).toEqual([['2026-03-12', over(23, 22)]])
		expect(inSquads(of(10), of(15))).toEqual([['2026-03-12', over(23, 22)]])
	})
	it('the sentence is of whom it hits hardest, whoever comes first; a line set by hand takes the repair from all', () => {
		const [few, many] = [sheet('2026-03-09', [starts(18)]), sheet('2026-03-09', [starts(20)], { athlete: bo })]
		expect(found([few, many])).toMatchObject([{ sentence: over(20, 16), names: ['Ana', 'Bo'], repair: 'trim' }])
		expect(found([many, few])).toMatchObject([{ sentence: over(20, 16), names: ['Bo', 'Ana'], repair: 'trim' }])
		const byHand = sheet('2026-03-09', [starts(18, { handSet: true }), line('easy-close', 1)])
		expect(found([byHand])).toMatchObject([{ sentence: over(18, 16), repair: null }])
		expect(found([byHand, many])).toMatchObject([{ names: ['Ana', 'Bo'], repair: null }])
		expect(found([many, byHand])).toMatchObject([{ names: ['Bo', 'Ana'], repair: null }])
	})
	it('sessions and quantities stand apart', () => {
		// Ten turns of 90°: ten sharp cuts, and ten plants among the hard contacts; level 2 has room for 20 and 40.
		const lines = [starts(17), line('cut-90', 21)]
		expect(said([sheet('2026-03-09', lines)]).map(([, sentence]) => sentence)).toEqual([
			'21 cuts of 90° and more, and the week’s ramp leaves 20.',
			over(17, 16),
		])
	})
})

describe('a gate that is shut', () => {
	// Aggressive wide cuts open after several steps to a stop from 10 m.
	const early = plainAthlete('Cy', 2, { ...TRAINED, brake: 'stop-10' })
	const rung = library.ladders.cut!.rungs.find(({ id }) => id === 'sharp-wide')!
	const cut = (more: Partial<SheetLineAhead> = {}) =>
		line('sharp-wide-cut', 2, { parameters: rung.parameters, ladderId: 'cut', rungId: 'sharp-wide', ...more })
	const gates = (athlete: SheetAhead['athlete'], ...lines: SheetLineAhead[]) =>
		found([sheet('2026-03-09', lines, { athlete })]).filter(({ rule }) => rule === 'S8')
	it('is said of the rung, the rung below mends it; not where a hand set the line', () => {
		const sentence = 'Aggressive wide cut 60°: opens after several steps to a stop, 10 m.'
		expect(gates(early, cut())).toMatchObject([{ sentence, names: ['Cy'], repair: 'lower' }])
		expect(gates(early, cut({ handSet: true }))).toMatchObject([{ sentence, repair: null }])
		expect(gates(ana, cut())).toEqual([])
	})
	it('is none of a line on no ladder, nor of another drill in the rung’s place', () => {
		expect(gates(early, cut({ ladderId: null, rungId: null }))).toEqual([])
		expect(gates(early, line('wide-cut', 2, { ladderId: 'cut', rungId: 'sharp-wide' }))).toEqual([])
	})
})

describe('hard ground', () => {
	// Level 2: four fifths of 120 contacts are 96. A bound is 2.1 leg lengths: 21 m are 10 steps for a leg of 1 m; a step that is begun is a contact.
	const bounds = (legLengthM: number | null, reps: number, more: Partial<SheetLineAhead> = {}) =>
		found([
			sheet('2026-03-09', [line('alternate-bounds', reps, { parameters: { distanceM: 21 }, ...more })], {
				surface: 'gravel',
				athlete: { ...ana, legLengthM },
			}),
		]).filter(({ rule }) => rule === 'S10')
	it('counts contacts by the athlete’s own legs', () => {
		expect(bounds(1, 9)).toEqual([])
		expect(bounds(1, 10)).toMatchObject([
			{ sentence: '100 contacts on gravel: 96 are allowed there, four fifths of the usual.', repair: 'trim' },
		])
		expect(bounds(1.15, 10)).toEqual([])
		// Unknown, a leg is 0.9 m: twelve steps.
		expect(bounds(null, 9)).toMatchObject([{ sentence: expect.stringContaining('108 contacts') }])
		expect(bounds(1, 10, { handSet: true })).toMatchObject([{ repair: null }])
	})
})

it('says nothing of sheets that keep to everything', () => {
	const grown = plainAthlete('Dee', 3, ADVANCED)
	const lines = [line('easy-run', 1), starts(6), line('broad-jump', 6), line('easy-close', 1)]
	expect(found([sheet('2026-03-09', lines, { athlete: grown, surface: 'grass' })])).toEqual([])
})
