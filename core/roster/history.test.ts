import { describe, expect, it } from 'vitest'
import { placeByMarks } from './place-by-marks'
import { readLength } from '../measure/read-length'
import { type HistoryDrill, guessDrill, guessHistoryColumns, readHistory, readTime, unfold } from './read-history'

describe('a length as people write it', () => {
	// Foot, inch and yard: international yard and pound agreement, 1959 (0.3048 m, 0.0254 m, 0.9144 m).
	it.each([
		['2.45', 2.45],
		['2,45 m', 2.45],
		['245 cm', 2.45],
		['2450mm', 2.45],
		['8 ft', 2.438],
		['8 ft 2 in', 2.489],
		['8\' 2"', 2.489],
		["8'2", 2.489],
		['98 in', 2.489],
		['40 yd', 36.576],
		['10 yards', 9.144],
		['0', 0],
	])('%s', (text, metres) => {
		expect(readLength(text)).toBe(metres)
	})
	it('takes a number that stands alone for what it is told', () => {
		expect(readLength('36', 'cm')).toBe(0.36)
		expect(readLength('36 m', 'cm')).toBe(36)
	})
	it.each(['', 'far', '2.45 x', '8 ft 12 in', '2 m 45', 'm', '1.2.3'])('is none: “%s”', (text) => {
		expect(readLength(text)).toBeNull()
	})
})

describe('a time', () => {
	it.each([
		['1.85', 1.85],
		['1,85 s', 1.85],
		['62.3', 62.3],
		['1:02.3', 62.3],
		['0:59.99', 59.99],
		['1.23456', 1.2346],
	])('%s', (text, seconds) => {
		expect(readTime(text)).toBe(seconds)
	})
	it.each(['', '1:60', '1:2:3', 'fast', '1.85 m', '-1'])('is none: “%s”', (text) => {
		expect(readTime(text)).toBeNull()
	})
})

const DRILLS: HistoryDrill[] = [
	{
		drillId: 'standing',
		name: 'Standing start',
		kind: 'sprint',
		varies: { name: 'distanceM', unit: 'm' },
		isSided: false,
	},
	{ drillId: 'flying', name: 'Flying', kind: 'sprint', varies: { name: 'distanceM', unit: 'm' }, isSided: false },
	{ drillId: 'broad', name: 'Broad jump', kind: 'distance', varies: null, isSided: false },
	{ drillId: 'hop', name: 'Single-leg hop', kind: 'distance', varies: null, isSided: true },
	{ drillId: 'stick', name: 'Broad jump and stick', kind: 'distance', varies: null, isSided: false },
	{
		drillId: 'throw',
		name: 'Overhead throw',
		kind: 'distance',
		varies: { name: 'ballKg', unit: 'kg' },
		isSided: false,
	},
	{ drillId: 'drop', name: 'Depth jump', kind: 'contact', varies: { name: 'heightCm', unit: 'cm' }, isSided: false },
	{ drillId: 'jump', name: 'Jump', kind: 'height', varies: null, isSided: false },
]

describe('the drill that words mean', () => {
	it.each([
		['Standing start 10 m', 'standing'],
		['10m standing start', 'standing'],
		['BROAD JUMP', 'broad'],
		['Broad jump and stick', 'stick'],
		['single leg hop', 'hop'],
		['3 kg overhead throw', 'throw'],
		['40 yd', null],
		['sled', null],
		['', null],
	])('%s', (words, drillId) => {
		expect(guessDrill(words, DRILLS)).toBe(drillId)
	})
	it('is asked where two fit alike', () => {
		expect(guessDrill('flying jump', DRILLS)).toBeNull()
	})
})

describe('columns', () => {
	it('are told by their heading, each field once', () => {
		expect(
			guessHistoryColumns(['Name', 'Test date', 'Drill', 'Time (s)', 'Distance', 'Timing', 'Leg', 'Notes']),
		).toEqual(['name', 'day', 'drill', 'value', 'distance', 'method', 'side', 'ignore'])
		expect(guessHistoryColumns(['Athlete', 'Date', 'Result', 'Time'])).toEqual(['name', 'day', 'value', 'ignore'])
	})
	it('one for each test are as many rows; an empty cell is none', () => {
		expect(
			unfold(
				['Name', 'Date', '10 m', 'Broad jump'],
				[
					['Ada', '2026-01-05', '1.85', ''],
					['Bo', '2026-01-05', '1.90', '2.10'],
				],
			)?.rows,
		).toEqual([
			{ line: 2, cells: ['Ada', '2026-01-05', '10 m', '1.85'] },
			{ line: 3, cells: ['Bo', '2026-01-05', '10 m', '1.90'] },
			{ line: 3, cells: ['Bo', '2026-01-05', 'Broad jump', '2.10'] },
		])
		expect(unfold(['Name', 'Date', 'Drill', 'Result'], [])).toBeNull()
		expect(unfold(['10 m', 'Broad jump'], [])).toBeNull()
		expect(unfold(['Name', 'Date'], [])).toBeNull()
	})
})

describe('rows', () => {
	const asked = {
		columns: ['name', 'day', 'drill', 'value', 'distance', 'method', 'side'] as const,
		order: 'day-first' as const,
		today: '2026-03-14',
		known: [
			{ id: 'ada', name: 'Ada Lund' },
			{ id: 'bo', name: 'Bo' },
			{ id: 'bo-2', name: 'Bo ' },
		],
		drills: DRILLS,
		drillFor: (words: string) => (words === 'sled' ? '' : (guessDrill(words, DRILLS) ?? 'asked')),
		methods: { sprint: 'stopwatch', contact: 'mat', height: 'mat', distance: 'tape' } as const,
		firstLine: 2,
	}
	const read = (...cells: string[]) => readHistory([cells], asked)[0]!
	const day = '14.3.2026'
	it.each([
		[
			['ada lund', day, 'Standing start 10 m', '1,85'],
			'standing',
			{ distanceM: 10 },
			{ splits: [{ distanceM: 10, timeS: 1.85 }], method: 'stopwatch' },
		],
		[
			['Ada Lund', day, 'Standing start', '5.2', '40 yd', 'gate'],
			'standing',
			{ distanceM: 36.576 },
			{ splits: [{ distanceM: 36.576, timeS: 5.2 }], method: 'gate' },
		],
		[['Ada Lund', day, 'Broad jump', '8 ft 2 in'], 'broad', {}, { distanceM: 2.489, method: 'tape' }],
		[['Ada Lund', day, 'Overhead throw 3kg', '11.8'], 'throw', { ballKg: 3 }, { distanceM: 11.8, method: 'tape' }],
		[['Ada Lund', day, 'Overhead throw', '11.8', '4'], 'throw', { ballKg: 4 }, { distanceM: 11.8, method: 'tape' }],
		[
			['Ada Lund', day, 'Depth jump 30 cm', '146/512'],
			'drop',
			{ heightCm: 30 },
			{ contactS: 0.146, flightS: 0.512, method: 'mat' },
		],
		[['Ada Lund', day, 'Jump', '36'], 'jump', {}, { heightM: 0.36, method: 'mat' }],
		[['Ada Lund', day, 'Jump', '0.36 m'], 'jump', {}, { heightM: 0.36, method: 'mat' }],
	])('are read: %o', (cells, drillId, parameters, value) => {
		expect(read(...cells)).toMatchObject({
			problems: [],
			mark: { athleteId: 'ada', day: '2026-03-14', drillId, parameters, value, side: null },
		})
	})
	it('have the side their drill asks for', () => {
		expect(read('Ada Lund', day, 'Single-leg hop', '1.9', '', '', 'L').mark?.side).toBe('left')
		expect(read('Ada Lund', day, 'Single-leg hop', '1.9').problems).toEqual([
			{ column: 6, words: 'left or right? Each has results of its own.' },
		])
		expect(read('Ada Lund', day, 'Broad jump', '1.9', '', '', 'both').problems).toEqual([
			{ column: 6, words: '“both”: left or right is expected.' },
		])
	})
	it.each([
		[['Cy', day, 'Broad jump', '2.1'], 0, '“Cy”: nobody of this name is in the squad.'],
		[['bo', day, 'Broad jump', '2.1'], 0, '“bo”: 2 of this name are in the squad.'],
		[
			['Ada Lund', '15.3.2026', 'Broad jump', '2.1'],
			1,
			'“15.3.2026”: a day like 2026-05-31, not after today, is expected.',
		],
		[['Ada Lund', day, 'Hurdles', '2.1'], 2, '“Hurdles”: pick the drill it is.'],
		[['Ada Lund', day, 'Broad jump', '151'], 3, '“151”: a length like 2.45 m or 8 ft 2 in, up to 150 m, is expected.'],
		[['Ada Lund', day, 'Broad jump', '0'], 3, '“0”: a length like 2.45 m or 8 ft 2 in, up to 150 m, is expected.'],
		[['Ada Lund', day, 'Jump', '2.01 m'], 3, '“2.01 m”: a height like 36 cm, up to 2 m, is expected.'],
		[
			['Ada Lund', day, 'Depth jump 30 cm', '146'],
			3,
			'“146”: contact and flight, as 0.146/0.512 or 146/512, is expected.',
		],
		[
			['Ada Lund', day, 'Standing start', '1.85'],
			4,
			'how many m? Write it in the drill’s words or a column of its own.',
		],
		[['Ada Lund', day, 'Standing start 10 m', '600.1'], 3, '“600.1”: a time like 1.85, up to 600 s, is expected.'],
		[
			['Ada Lund', day, 'Broad jump', '2.1', '', 'stopwatch'],
			5,
			'“stopwatch”: one of tape, reach, contact mat is expected.',
		],
	])('with a fault say it at the cell: %o', (cells, column, words) => {
		const row = read(...cells)
		expect(row.mark).toBeNull()
		expect(row.problems).toEqual([{ column, words }])
		expect(row.line).toBe(2)
	})
	it('of a drill that is not taken are none, without a fault', () => {
		expect(read('Nobody', 'never', 'sled', '?')).toMatchObject({ mark: null, problems: [] })
	})
})

describe('where somebody stands by what they have done', () => {
	const rung = (id: string, drillId: string, parameters: object) => ({ id, drillId, parameters })
	const ladder = {
		rungs: [
			rung('a', 'standing', { distanceM: 10 }),
			rung('b', 'standing', { distanceM: 20 }),
			rung('c', 'three-point', { distanceM: 20 }),
		],
	} as unknown as Parameters<typeof placeByMarks>[0]
	const done = (drillId: string, distanceM: number, day = '2026-03-01') => ({ drillId, parameters: { distanceM }, day })
	it.each<[string, ReturnType<typeof done>[], string[], string | null]>([
		['nothing', [], [], null],
		['the lowest', [done('standing', 10)], [], 'a'],
		['the highest of two', [done('standing', 20), done('standing', 10)], [], 'b'],
		['another distance is another form', [done('standing', 15)], [], null],
		['another drill too', [done('rolling', 20)], [], null],
		['one that is closed is not proposed', [done('three-point', 20), done('standing', 20)], ['c'], 'b'],
		['nor anything where that was all', [done('three-point', 20)], ['c'], null],
	])('%s', (_what, forms, closed, rungId) => {
		expect(placeByMarks(ladder, forms, closed)?.rungId ?? null).toBe(rungId)
	})
	it('says when it was done last', () => {
		expect(placeByMarks(ladder, [done('standing', 10, '2026-02-01'), done('standing', 10, '2026-03-02')], [])).toEqual({
			rungId: 'a',
			day: '2026-03-02',
		})
	})
})
