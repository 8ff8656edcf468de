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
	it('and was seen before a number was saved by hand is asked about: with it the line has moved on', () => {
		const one = phone()
		// The phone of these tests saves 20 s after the start.
		const saved = {
			tap: 'mark',
			measured: { kind: 'sprint', value: { splits: [{ distanceM: 20, timeS: 3.1 }], method: 'stopwatch' } },
			label: '',
		} as const
		one.tap(saved)
		expect(one.name).toBe('Amaru Fenn')
		const before = placed(one, run(16.4, { 20: 3.6 }))
		expect(before.plain).toEqual([])
		expect(before.questions.map(({ words }) => words)).toEqual([
			'3.60 s over 20 m, lane 1: it was seen before Ilka M.’s 3.10 s was saved',
		])
		expect(placed(one, run(16.401, { 20: 3.6 })).plain.map(({ mark }) => mark.athleteId)).toEqual([AMARU])
		// The last one counts, in whatever order they came to this phone.
		one.tap({ tap: 'pick', athleteId: AMARU })
		one.tap(saved)
		for (const all of [one.all, one.all.toReversed()])
			expect(placed(new Phone(one.sheet, one.deviceId, all), run(30, { 20: 3.3 })).questions[0]!.words).toContain(
				'it was seen before Amaru F.’s 3.10 s was saved',
			)
		// What a device logged, and what another phone did, does not move this line by hand; nor does another drill.
		const other = phone()
		other.tap({ tap: 'reading', mark: placed(other, run(10, { 20: 3.1 })).plain[0]!.mark, words: '' })
		expect(placed(other, run(16.4, { 20: 3.6 })).plain.map(({ mark }) => mark.athleteId)).toEqual([AMARU])
		const second = new Phone(one.sheet, '00000005-0000-7000-8000-000000000002', one.all)
		second.tap({ tap: 'pick', athleteId: AMARU })
		expect(placed(second, run(16.4, { 20: 3.6 })).questions).toEqual([])
		one.at(2).tap({ ...saved, measured: { kind: 'distance', value: { distanceM: 2, method: 'tape' } } })
		one.at(0).tap({ tap: 'pick', athleteId: AMARU })
		expect(placed(one, run(80, { 20: 3.6 })).questions).toEqual([])
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
	it('past the line’s distance is its time there: what came after is none of it', () => {
		const one = phone((line) =>
			line.entryId === ENTRIES[0]!.id ? { parameters: { distanceM: 10 }, usuals: { gate: 1.8 }, bests: {} } : {},
		)
		const { plain, questions } = placed(one, run(10, { 10: 1.8, 20: 3.1 }))
		expect(questions).toEqual([])
		expect(plain[0]!.mark).toMatchObject({ kind: 'sprint', value: { splits: [{ distanceM: 10, timeS: 1.8 }] } })
		expect((plain[0]!.mark as { value: { splits: unknown[] } }).value.splits).toHaveLength(1)
	})
	it('only past the line’s distance is a turn without a time', () => {
		const one = phone()
		const { plain, questions } = placed(one, run(10, { 30: 4.2 }))
		expect(plain).toEqual([])
		expect(questions[0]!.words).toBe('4.20 s over 30 m, lane 1: the beam at 20 m saw nothing')
		expect(questions[0]!.markFor(one.stand.queue[0]!)).toMatchObject({ kind: 'missed', value: { reason: 'no-time' } })
	})
	it('for a line without a distance is all of it', () => {
		const one = phone((line) => (line.entryId === ENTRIES[0]!.id ? { parameters: {}, usuals: {}, bests: {} } : {}))
		const [question] = placed(one, run(10, { 10: 1.8, 20: 3.1 })).questions
		expect(question!.markFor(one.stand.queue[0]!)).toMatchObject({
			kind: 'sprint',
			value: {
				splits: [
					{ distanceM: 10, timeS: 1.8 },
					{ distanceM: 20, timeS: 3.1 },
				],
			},
		})
	})
	it('that would surprise is asked about in the words of what surprises, its full stop left out', () => {
		const { questions } = placed(phone(), run(10, { 20: 2.4 }))
		expect(questions[0]!.words).toMatch(/^2\.40 s over 20 m, lane 1: .*[^.]$/)
		expect(questions[0]!.words).toMatch(/\d\.\d\d s.*\d\.\d\d/)
	})
	it('of another kind than the line takes is a question, with nobody named', () => {
		const one = phone().at(3)
		const { plain, questions } = placed(one, run(10, { 20: 3.1 }))
		expect(plain).toEqual([])
		expect(questions[0]!.words).toContain('it does not go with the drill on the line')
		expect(questions[0]!.markFor(one.stand.queue[0]!)).toBeNull()
		expect(
			placed(phone(), [reading('beam', 10, { distanceM: 20, lane: 1 }), ...run(60, { 20: 3.1 })]).questions[0]!.words,
		).toBe('the beam at 20 m was broken and no start goes with it')
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

describe('where a reading goes', () => {
	const kindOf = (one: Phone, readings: KeptReading[]) => placed(one, readings).plain.map(({ mark }) => mark.kind)
	it('in the order they were seen, whatever device saw them and whatever came in first', () => {
		const one = phone((line) => (line.entryId === ENTRIES[2]!.id ? { family: 'throw' } : {})).at(2)
		const [early, late] = [reading('ball', 10, { releaseMps: 11 }), reading('ball', 20, { releaseMps: 12 })]
		expect(placed(one, [late, early]).plain.map(({ words }) => words)).toEqual(['ball 11.0 m/s', 'ball 12.0 m/s'])
		// A throw and a run between two throws: the run is the question, seen between them.
		const mixed = placed(one, [late, ...run(14, { 20: 3.1 }), early])
		expect([...mixed.plain, ...mixed.questions].map(({ words }) => words.slice(0, 6))).toContain('3.10 s')
		expect(mixed.questions.map(({ at }) => at)).toEqual([...mixed.questions.map(({ at }) => at)].sort())
	})
	it('from the very moment devices may log here', () => {
		const readings = run(10, { 20: 3.12 })
		const ended = START + 13_120
		expect(placed(phone(), readings, ended).plain).toHaveLength(1)
		expect(placed(phone(), readings, ended + 1)).toEqual({ plain: [], questions: [] })
	})
	it('with the drill that was swapped in, and nowhere when that takes no number', () => {
		const one = phone()
		const other = { id: 'three-point-start' as never, version: 99, name: 'Older' }
		one.tap({ tap: 'swap', drill: other, who: 'one' })
		expect(placed(one, run(10, { 20: 3.12 })).plain[0]?.mark).toMatchObject({
			asDrill: { drillId: 'three-point-start', drillVersion: 99 },
		})
	})
	it('that is no contact, no run and no throw of the line is none', () => {
		// A foot that came down and went up, and never came down again: nothing was measured.
		const feet = (state: 'down' | 'up', afterS: number) => reading('mat', afterS, { feet: state })
		expect(placed(phone().at(1), [feet('down', 10), feet('up', 10.18)])).toEqual({ plain: [], questions: [] })
		const hop = [feet('down', 10), feet('up', 10.18), feet('down', 10.68), feet('up', 13)]
		expect(kindOf(phone(), hop)).toEqual([])
		expect(placed(phone(), hop).questions[0]!.words).toBe(
			'contact 180 ms, flight 500 ms: it does not go with the drill on the line',
		)
	})
	it('of a line that is done is asked about, and of a lane nobody stands on', () => {
		const one = phone((line) => (line.entryId === ENTRIES[0]!.id ? { dose: { sets: 1, reps: 1 } } : {}))
		for (const athleteId of [ILKA, AMARU, TOVE, NOOR]) {
			one.tap({ tap: 'pick', athleteId })
			one.tap({ tap: 'untimed' })
		}
		one.tap({ tap: 'pick', athleteId: ILKA })
		expect(placed(one, run(300, { 20: 3.12 })).questions[0]!.words).toContain(
			'it does not go with the drill on the line',
		)
		// One at a time: whatever lane the beams say, it is theirs. Two at a time: the third lane is nobody's.
		expect(placed(phone(), run(10, { 20: 3.12 }, 3)).plain).toHaveLength(1)
		const two = phone()
		two.lanes = 2
		expect(placed(two, run(10, { 20: 3.12 }, 3)).plain).toEqual([])
		expect(placed(two, run(10, { 20: 3.12 }, 3)).questions[0]!.chances).toEqual([])
	})
	it('names who it is more like, or that nobody runs like that', () => {
		const one = phone(() => ({ bests: {} }))
		one.tap({ tap: 'pick', athleteId: AMARU })
		expect(placed(one, run(10, { 20: 3.31 })).questions[0]!.words).toBe(
			'3.31 s over 20 m, lane 1: it is more like Tove B',
		)
		const none = phone((_line, index) => ({ bests: {}, usuals: { gate: index === 0 ? 3.1 : 6 } }))
		// 3.9 s is nobody's of these, and no number that would be asked about by itself.
		const odd = placed(none, run(10, { 20: 3.9 })).questions[0]
		expect(odd?.words).toBe('3.90 s over 20 m, lane 1: nobody of the next ones runs like that')
	})
	it('weighs those who come next round the queue, and who was passed over, and nobody who is done', () => {
		const namesOf = (one: Phone, timeS: number) =>
			placed(one, run(10, { 20: timeS }))
				.questions[0]!.chances.map(({ progress }) => progress.line.athleteId)
				.sort()
		const one = phone()
		one.tap({ tap: 'pick', athleteId: TOVE })
		expect(namesOf(one, 3.9)).toEqual([ILKA, AMARU, TOVE, NOOR].sort())
		one.tap({ tap: 'pick', athleteId: AMARU })
		one.tap({ tap: 'end', reason: 'coach', who: 'one' })
		one.tap({ tap: 'pick', athleteId: TOVE })
		expect(namesOf(one, 3.9)).toEqual([ILKA, TOVE, NOOR].sort())
	})
})

describe('whose run', () => {
	it('may be of who was passed over: as twice to once of the third in the row', () => {
		const one = phone()
		const [ilka, ...others] = runners(one)
		const like = [...others, ilka!].map(({ progress }) => ({ progress, athlete: { curve: null } }))
		// Noor and Ilka run alike: one is third in the row, the other was passed over.
		const chances = whoseRun(like.slice(0, 3), at(3.1), [like[3]!])
		const of = (athleteId: string) => chances.find(({ progress }) => progress.line.athleteId === athleteId)!.chance
		expect(of(ILKA) / of(NOOR)).toBeCloseTo(2, 6)
		// At most so many of them, and nobody without having been passed over.
		expect(whoseRun(like.slice(0, 3), at(3.1)).map(({ progress }) => progress.line.athleteId)).not.toContain(ILKA)
		expect(chances.reduce((sum, { chance }) => sum + chance, 0)).toBeLessThan(1)
	})
	it('is nobody’s at a distance nobody asked, and without a distance', () => {
		const one = phone(() => ({ parameters: {} }))
		expect(whoseRun(runners(one), at(3.1)).map(({ chance }) => chance)).toEqual([0, 0, 0, 0])
	})
	it('is expected by gate reps of today over that distance alone, and by their mean', () => {
		const one = phone()
		const hand = { splits: [{ distanceM: 20, timeS: 3.4 }], method: 'stopwatch' }
		one.tap({ tap: 'mark', measured: { kind: 'sprint', value: hand }, label: '' })
		expect(expectRun(one.stand.queue[0]!, { curve: null }, 20).timeS).toBe(3.1)
		for (const timeS of [3.2, 3.3]) {
			one.tap({ tap: 'pick', athleteId: ILKA })
			const value = { splits: [{ distanceM: 20, timeS }], method: 'gate' }
			one.tap({ tap: 'mark', measured: { kind: 'sprint', value }, label: '' })
		}
		expect(expectRun(one.stand.queue[0]!, { curve: null }, 20).timeS).toBeCloseTo(3.25, 9)
		// The usual of 20 m says nothing of 10 m: 0.75 + 10/9.5 to 1.2 + 10/6 s, and a quarter of that apart.
		const ten = expectRun(phone().stand.queue[0]!, { curve: null }, 10)
		expect(ten.timeS).toBeCloseTo((0.75 + 10 / 9.5 + 1.2 + 10 / 6) / 2, 9)
		expect(ten.sdS).toBeCloseTo((1.2 + 10 / 6 - 0.75 - 10 / 9.5) / 4, 9)
	})
	it('has a bell with heavy sides: a rep four spreads off is still somebody’s', () => {
		// Two who are expected alike but for four spreads: the heavy share decides, not the bell alone.
		const sd = Math.hypot(0.02, 0.012 * 3.1)
		const bell = (x: number, spread: number) =>
			Math.exp(-(x ** 2) / (2 * spread ** 2)) / (spread * Math.sqrt(2 * Math.PI))
		const density = (x: number) => 0.92 * bell(x, sd) + 0.08 * bell(x, sd * 3)
		const one = phone()
		const [ilka] = runners(one)
		const nobody = 0.005 / (1.2 + 20 / 6)
		expect(whoseRun([ilka!], at(3.1 + 4 * sd))[0]!.chance).toBeCloseTo(
			(0.96 * density(4 * sd)) / (0.96 * density(4 * sd) + nobody),
			6,
		)
	})
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
