import { describe, expect, it } from 'vitest'
import { ATHLETES, ENTRIES, Phone, fourBySheet } from '../../../tests/support/afternoon'
import type { KeptReading } from '../../devices/schema'
import type { FieldLine } from '../pack'
import { placeReadings } from './readings'
import { expectRun, whoseRun } from './whose-run'

const START = Date.UTC(2026, 2, 12, 18)
let ids = 0
const reading = (kind: 'beam' | 'mat' | 'ball', afterS: number, value: object): KeptReading =>
	({
		id: `0000000c-0000-7000-8000-${String(ids++).padStart(12, '0')}`,
		kind,
		time: new Date(START + Math.round(afterS * 1000)).toISOString(),
		at: new Date(START + Math.round(afterS * 1000)).toISOString(),
		receivedAt: new Date(START).toISOString(),
		deviceId: 'd',
		value,
	}) as KeptReading
/** A run from a second on, by its times at distances. */
const run = (fromS: number, times: Record<number, number>, lane = 1): KeptReading[] => [
	reading('beam', fromS, { distanceM: 0, lane }),
	...Object.entries(times).map(([distanceM, timeS]) =>
		reading('beam', fromS + timeS, { distanceM: Number(distanceM), lane }),
	),
]
/** Ilka and Noor run 3.10, Amaru 3.60, Tove 3.30 over 20 m on a usual day. */
const USUAL = [3.1, 3.6, 3.3, 3.1]
const [ILKA, AMARU, TOVE, NOOR] = ATHLETES.map(({ id }) => id) as [string, string, string, string]
function phone(change: (line: FieldLine, index: number) => Partial<FieldLine> = () => ({})) {
	const sheet = fourBySheet()
	const lines = sheet.lines.map((line) => {
		const index = ATHLETES.findIndex(({ id }) => id === line.athleteId)
		const own =
			line.entryId === ENTRIES[0]!.id ? { usuals: { gate: USUAL[index]! }, bests: { gate: USUAL[index]! - 0.05 } } : {}
		return { ...line, ...own, ...change(line, index) }
	})
	return new Phone({ ...sheet, lines })
}
const placed = (one: Phone, readings: KeptReading[], since: number | null = START - 1) =>
	placeReadings(one.stand, readings, since)

describe('what devices saw', () => {
	it('goes to whoever is on the line, with its splits, when it is like them', () => {
		const one = phone()
		const readings = run(10, { 10: 1.8, 20: 3.12 })
		const { plain, questions } = placed(one, readings)
		expect(questions).toEqual([])
		expect(plain).toMatchObject([
			{
				words: '3.12 s over 20 m, lane 1',
				mark: {
					athleteId: ILKA,
					kind: 'sprint',
					setNo: 1,
					repNo: 1,
					source: readings[0]!.id,
					value: {
						method: 'gate',
						splits: [
							{ distanceM: 10, timeS: 1.8 },
							{ distanceM: 20, timeS: 3.12 },
						],
					},
				},
			},
		])
		// Once it is a mark it is nothing more to place; nor is what came before devices might log here, or is no rep.
		one.tap({ tap: 'reading', mark: plain[0]!.mark, words: '' })
		expect(placed(one, readings)).toEqual({ plain: [], questions: [] })
		expect(placed(phone(), readings, START + 60_000)).toEqual({ plain: [], questions: [] })
		expect(placed(phone(), readings, null)).toEqual({ plain: [], questions: [] })
		expect(placeReadings({ ...phone().stand, settled: new Set([readings[0]!.id]) }, readings, START - 1).plain).toEqual(
			[],
		)
	})
	it('that is more like somebody else is asked about, likeliest first, with the chance', () => {
		const one = phone()
		one.tap({ tap: 'pick', athleteId: AMARU })
		const { plain, questions } = placed(one, run(10, { 20: 3.31 }))
		expect(plain).toEqual([])
		expect(questions).toHaveLength(1)
		const [first] = questions[0]!.chances
		expect(first!.progress.line.athleteId).toBe(TOVE)
		expect(first!.chance).toBeGreaterThan(0.5)
		expect(questions[0]!.words).toMatch(/^3\.31 s over 20 m, lane 1: /)
	})
	it('after a question waits for its answer, in its own lane', () => {
		const one = phone()
		one.tap({ tap: 'pick', athleteId: AMARU })
		const readings = [...run(10, { 20: 3.31 }), ...run(70, { 20: 3.6 })]
		const { plain, questions } = placed(one, readings)
		expect(plain).toEqual([])
		expect(questions.map(({ words }) => words)).toEqual([
			expect.stringContaining('3.31 s'),
			'3.60 s over 20 m, lane 1: the one before it is not placed',
		])
		// Two lanes: the other one goes on.
		one.lanes = 2
		one.tap({ tap: 'pick', athleteId: ILKA })
		const lanes = placed(one, [...run(10, { 20: 9 }, 1), ...run(11, { 20: 3.6 }, 2)])
		expect(lanes.plain.map(({ mark }) => mark.athleteId)).toEqual([AMARU])
		expect(lanes.questions).toHaveLength(1)
	})
	it('without a finish is a turn without a time, for whoever it was', () => {
		const one = phone()
		// Somebody ran through all the beams before, so that they are known to stand there.
		const readings = [...run(10, { 10: 1.8, 20: 3.1 }), ...run(70, { 10: 2.0 })]
		one.tap({ tap: 'reading', mark: placed(one, readings).plain[0]!.mark, words: '' })
		const { plain, questions } = placed(one, readings)
		expect(plain).toEqual([])
		expect(questions[0]!.words).toBe('2.00 s over 10 m, lane 1: the beam at 20 m saw nothing')
		const mark = questions[0]!.markFor(one.stand.queue[1]!)
		expect(mark).toMatchObject({
			athleteId: AMARU,
			kind: 'missed',
			value: { reason: 'no-time' },
			source: readings[3]!.id,
		})
	})
	it('to a shorter distance is whole for who runs no further', () => {
		const one = phone((line, index) =>
			line.entryId === ENTRIES[0]!.id && index === 1
				? { parameters: { distanceM: 10 }, usuals: { gate: 2.0 }, bests: {} }
				: {},
		)
		one.tap({ tap: 'pick', athleteId: AMARU })
		const readings = [...run(10, { 10: 2.0 }), ...run(90, { 10: 1.8, 20: 3.3 })]
		const { plain } = placed(one, readings)
		expect(plain[0]).toMatchObject({ mark: { athleteId: AMARU, value: { splits: [{ distanceM: 10, timeS: 2 }] } } })
	})
	it('of another kind than the line takes is a question, with nobody named', () => {
		const one = phone().at(3)
		const { plain, questions } = placed(one, run(10, { 20: 3.1 }))
		expect(plain).toEqual([])
		expect(questions[0]!.words).toContain('it does not go with the drill on the line')
		expect(questions[0]!.markFor(one.stand.queue[0]!)).toBeNull()
		expect(
			placed(phone(), [reading('beam', 10, { distanceM: 20, lane: 1 }), ...run(60, { 20: 3.1 })]).questions[0]!.words,
		).toContain('no start goes with it')
	})
	it('on the mat is a contact with its flight, or a height where that is taken', () => {
		const feet = (state: 'down' | 'up', afterS: number) => reading('mat', afterS, { feet: state })
		const hop = [feet('down', 10), feet('up', 10.18), feet('down', 10.68), feet('up', 13)]
		const one = phone().at(1)
		expect(placed(one, hop).plain[0]).toMatchObject({
			words: 'contact 180 ms, flight 500 ms',
			mark: { kind: 'contact', value: { contactS: 0.18, flightS: 0.5, method: 'mat' } },
		})
		// h = g t² / 8: 30.6 cm from half a second in the air.
		const high = phone((line) => (line.entryId === ENTRIES[1]!.id ? { logs: 'height' } : {})).at(1)
		expect(placed(high, hop).plain[0]).toMatchObject({
			mark: { kind: 'height', value: { heightM: 0.306, method: 'mat' } },
		})
	})
	it('of a ball goes to a throw alone', () => {
		const ball = [reading('ball', 10, { releaseMps: 12.34 })]
		const thrown = phone((line) => (line.entryId === ENTRIES[2]!.id ? { family: 'throw' } : {})).at(2)
		expect(placed(thrown, ball).plain[0]).toMatchObject({
			words: 'ball 12.3 m/s',
			mark: { kind: 'release', value: { speedMps: 12.34, method: 'ball-sensor' } },
		})
		expect(placed(phone().at(2), ball).questions).toHaveLength(1)
	})
	it('of a side by turn says the side', () => {
		const one = phone(() => ({ sided: 'each' }))
		expect(placed(one, run(10, { 20: 3.12 })).plain[0]!.mark).toMatchObject({ side: 'left' })
	})
})

describe('whose run', () => {
	const at = (timeS: number) => (distanceM: number) => (distanceM === 20 ? timeS : null)
	const runners = (one: Phone) =>
		one.stand.queue.map((progress) => ({
			progress,
			athlete: { curve: null as { mssMps: number; tauS: number } | null },
		}))
	const chanceOf = (one: Phone, timeS: number) =>
		Object.fromEntries(
			whoseRun(runners(one), at(timeS)).map(({ progress, chance }) => [progress.line.athleteId, chance]),
		)

	it('is by order where two run alike: 96 to half a percent, fourth in the row', () => {
		const chances = chanceOf(phone(), 3.1)
		expect(chances[ILKA]! / chances[NOOR]!).toBeCloseTo(0.96 / 0.005, 3)
		expect(chances[ILKA]).toBeGreaterThan(0.98)
	})
	it('is by time where it is far from the one whose turn it is', () => {
		expect(chanceOf(phone(), 3.6)[AMARU]).toBeGreaterThan(0.9)
		// What none of them runs is nobody's.
		const none = chanceOf(phone(), 9)
		expect(Object.values(none).reduce((sum, chance) => sum + chance, 0)).toBeLessThan(0.01)
	})
	it('is nobody’s who has no time at their distance, and of the next four at most', () => {
		const one = phone((_line, index) => (index === 0 ? { parameters: { distanceM: 10 } } : {}))
		expect(chanceOf(one, 3.6)[ILKA]).toBe(0)
		const five = [...runners(phone()), ...runners(phone())]
		expect(whoseRun(five, at(3.1))).toHaveLength(4)
		expect(whoseRun([], at(3.1))).toEqual([])
	})
	it('is expected by the reps of today, else by the usual, else by the curve, else by what people run', () => {
		const one = phone()
		const ilka = () => one.stand.queue[0]!
		const none = { curve: null }
		expect(expectRun(ilka(), none, 20)).toEqual({ timeS: 3.1, sdS: Math.hypot(0.02, 0.012 * 3.1) })
		one.tap({ tap: 'reading', mark: placed(one, run(10, { 10: 1.8, 20: 3.2 })).plain[0]!.mark, words: '' })
		expect(expectRun(ilka(), none, 20)).toEqual({ timeS: 3.2, sdS: Math.hypot(0.02, 0.008 * 3.2) })
		expect(expectRun(ilka(), none, 10).timeS).toBe(1.8)
		const new_ = phone(() => ({ usuals: {} })).stand.queue[0]!
		// 8 m/s and 1 s: 20 m where v·(t − τ(1 − e^(−t/τ))) = 20, from memory of the model, checked by substitution.
		const { timeS, sdS } = expectRun(new_, { curve: { mssMps: 8, tauS: 1 } }, 20)
		expect(8 * (timeS - (1 - Math.exp(-timeS)))).toBeCloseTo(20, 6)
		expect(sdS).toBeCloseTo(Math.hypot(0.02, 0.05 * timeS), 9)
		// 0.75 + 20/9.5 to 1.2 + 20/6 s.
		expect(expectRun(new_, none, 20).timeS).toBeCloseTo((0.75 + 20 / 9.5 + 1.2 + 20 / 6) / 2, 9)
	})
})
