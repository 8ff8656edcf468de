import { describe, expect, it } from 'vitest'
import { Random } from '../../core/chance/random'
import type { KeptReading, Reading } from '../../core/devices/schema'
import type { FieldLine, FieldSheet } from '../../core/field/pack'
import { orderBreak } from '../../core/field/session/order-break'
import { placeReadings } from '../../core/field/session/readings'
import { timeAtDistance } from '../../core/measure/sprint/sprint-curve'
import { ENTRIES, Phone, fourBySheet, lineOf } from '../../tests/support/afternoon'
import { DEMO_ATHLETES } from '../demo/scenario'
import { beamsOfRun } from '../demo/stand-in-readings'

// Groups through one pair of gates, by the noise of the stand-ins: beams that saw nothing, that were broken twice, and
// whoever runs out of turn. A coach answers what is asked with who it was.

const START = Date.UTC(2026, 2, 12, 18)
const kept = (reading: Reading): KeptReading => ({
	...reading,
	deviceId: 'd',
	at: reading.time,
	receivedAt: reading.time,
})
/** Runs a minute apart, in one lane. */
const APART_MS = 60_000

interface Runner {
	athlete: (typeof DEMO_ATHLETES)[number]
	id: string
	distanceM: number
}

function sheetOf(runners: readonly Runner[]): FieldSheet {
	const sheet = fourBySheet()
	return {
		...sheet,
		entries: sheet.entries.slice(0, 1),
		athletes: runners.map(({ id, athlete }) => ({ ...sheet.athletes[0]!, id, name: athlete.name })),
		lines: runners.map(({ id, athlete, distanceM }, index): FieldLine => {
			// The usual is what the model runs on a usual day, start included.
			const usual = (timeAtDistance(athlete.mss, athlete.tau, distanceM) + 0.06) * 1.01
			return {
				...lineOf(0, 0),
				id: `line-${index}`,
				entryId: ENTRIES[0]!.id,
				athleteId: id,
				parameters: { distanceM },
				dose: { sets: 1, reps: 2 },
				usuals: { gate: usual },
				bests: { gate: usual * 0.985 },
			}
		}),
	}
}

type Break = 'none' | 'one does not run' | 'two change places'

/** One group, run by run, on a phone that gives the runs to athletes; how often it asked, and how often it was wrong. */
function group(seed: number, mixed: boolean, what: Break) {
	const random = new Random(seed)
	const people = [...DEMO_ATHLETES].sort(() => random.next() - 0.5).slice(0, 8)
	const runners = people.map(
		(athlete, index): Runner => ({
			athlete,
			id: `athlete-${index}`,
			distanceM: mixed && index % 3 === 2 ? 10 : 20,
		}),
	)
	const phone = new Phone(sheetOf(runners))
	phone.tap({ tap: 'pick', athleteId: runners[0]!.id })
	const order = [...runners]
	const at = 1 + Math.floor(random.next() * 5)
	if (what === 'one does not run') order.splice(at, 1)
	if (what === 'two change places') order.splice(at, 2, order[at + 1]!, order[at]!)
	const readings: KeptReading[] = []
	const settled = new Set<string>()
	let asked = 0
	/** Whose each run was, by the reading it came from. */
	const truth = new Map<string, string>()
	for (const [turn, runner] of order.entries()) {
		const from = readings.length
		readings.push(
			...beamsOfRun(
				runner.athlete,
				START + turn * APART_MS,
				runner.distanceM === 10 ? [0, 10] : [0, 10, 20],
				1,
				random,
			).map(kept),
		)
		truth.set(readings[from]!.id, runner.id)
		for (let guard = 0; guard < 5; guard++) {
			const { plain, questions } = placeReadings({ ...phone.stand, settled }, readings, START - 1)
			const [first] = plain
			const [question] = questions
			if (first) {
				phone.tap({ tap: 'reading', mark: first.mark, words: first.words })
				continue
			}
			if (!question) break
			asked += 1
			const progress = phone.stand.queue.find(({ line }) => line.athleteId === runner.id)!
			const mark = question.markFor(progress)
			if (mark) phone.tap({ tap: 'reading', mark, words: question.words })
			else settled.add(question.source)
		}
		// A coach says yes to what is right, and no to the rest.
		for (let broken = orderBreak(phone.stand, settled); broken; broken = orderBreak(phone.stand, settled)) {
			asked += 1
			const right = broken.moves.every(({ mark, to }) => truth.get(mark.source ?? '') === to.line.athleteId)
			if (right) phone.tap({ tap: 'reorder', moves: broken.moves })
			else settled.add(broken.key)
		}
	}
	const wrong = phone.current.filter(
		(event) => event.type === 'mark' && event.source && truth.get(event.source) !== event.athleteId,
	).length
	return { asked, wrong, runs: order.length }
}
const groups = (count: number, mixed: boolean, what: Break, from = 0) => {
	const all = Array.from({ length: count }, (_, index) => group(1000 * from + index + 1, mixed, what))
	const sum = (of: (one: (typeof all)[number]) => number) => all.reduce((total, one) => total + of(one), 0)
	return {
		wrong: sum(({ wrong }) => wrong),
		asked: sum(({ asked }) => asked),
		runs: sum(({ runs }) => runs),
		unasked: all.filter((one) => one.asked === 0).length,
	}
}

describe('a group through the gates', () => {
	it('that keeps its order is given out without a wrong one, and asked about only where a beam saw nothing', () => {
		const { wrong, asked, runs } = groups(200, false, 'none', 1)
		expect(runs).toBe(1600)
		expect(wrong).toBe(0)
		// About 48 of 1,600 runs have no finish (3 % of the beams see nothing); the rest is asked for nothing.
		expect(asked).toBeLessThanOrEqual(70)
	})
	it('with lines of 10 and 20 m is asked about no more often', () => {
		expect(groups(200, true, 'none', 1).asked).toBeLessThanOrEqual(60)
	})
	it('whose order breaks is put right by the questions, but for neighbours who run alike', () => {
		// Measured: 42 of 1,400 runs with somebody else in the end, and 161 of 1,600; without looking back 152 and 353.
		const out = groups(200, false, 'one does not run', 1)
		expect(out.wrong).toBeLessThanOrEqual(55)
		expect(out.unasked).toBeLessThanOrEqual(5)
		expect(groups(200, false, 'two change places', 1).wrong).toBeLessThanOrEqual(190)
	}, 60_000)
})
