import { describe, expect, it } from 'vitest'
import { refusedField } from '../../../tests/support/refused-field'
import { readSteps, stepAdvice } from './steps'
import { ladderOfWeakPart, weakPartInWords, whereTimeGoes } from './where-time-goes'

describe('steps of an athlete’s own reps', () => {
	it('are counted over up to 400 m, on legs of a person', () => {
		const fields = [
			{ distanceM: 0, timeS: 4, steps: 15 },
			{ distanceM: 400.5, timeS: 60, steps: 200 },
			{ distanceM: 30, timeS: 4, steps: 0 },
			{ distanceM: 30, timeS: 4, steps: 15, legLengthM: 0.29 },
			{ distanceM: 30, timeS: 4, steps: 15, legLengthM: 1.41 },
			{ distanceM: 30, timeS: 4, steps: 15, legLengthM: 0.3 },
			{ distanceM: 30, timeS: 4, steps: 15, legLengthM: 1.4 },
		].map((input) => refusedField(() => readSteps(input)))
		expect(fields).toEqual(['distanceM', 'distanceM', 'steps', 'legLengthM', 'legLengthM', null, null])
	})

	/** Reps from 7 m/s on in three sessions, whose step grows with so large a share of the speed. */
	const reps = (count: number, share: number) =>
		Array.from({ length: count }, (_, at) => {
			const speedMps = 7 + at * 0.2
			return { sessionId: `session ${at % 3}`, speedMps, stepLengthM: 1.6 * (speedMps / 7) ** share }
		})

	it('say nothing below eight reps in three sessions', () => {
		expect(stepAdvice(reps(7, 1))).toEqual({
			push: null,
			sentence: 'Not enough to say: 7 reps in 3 sessions; 8 reps in 3 sessions would do.',
		})
		expect(stepAdvice(reps(8, 1)).push).toBe('length')
		expect(
			stepAdvice(reps(8, 1).map((rep) => ({ ...rep, sessionId: rep.sessionId.replace('2', '1') }))).push,
		).toBeNull()
	})

	it('say which of the two the gain came with, and how much of it', () => {
		expect(stepAdvice(reps(9, 0.75))).toMatchObject({
			push: 'length',
			sentence: expect.stringContaining('75 % of the gain in speed came with longer steps') as string,
		})
		expect(stepAdvice(reps(9, 0.1))).toMatchObject({
			push: 'frequency',
			sentence: expect.stringContaining('90 % of the gain in speed came with quicker steps') as string,
		})
		for (const share of [0.42, 0.58]) expect(stepAdvice(reps(9, share)).push, String(share)).toBeNull()
	})
})

describe('where the time goes', () => {
	const splits = [
		{ distanceM: 10, timeS: 2 },
		{ distanceM: 20, timeS: 3.25 },
		{ distanceM: 30, timeS: 4.25 },
	]
	/** Against a curve that each segment is so much slower than, by gates good to a hundredth. */
	const slower = (...seconds: readonly number[]) => {
		let sum = 0
		const fittedS = splits.map(({ timeS }, at) => timeS - (sum += seconds[at]!))
		return whereTimeGoes(splits, { fittedS }, 0.01)
	}

	it('calls a segment weak beyond twice the error of two beams', () => {
		// 2 · √2 · 0.01 = 0.0283.
		expect(slower(0, 0.027, 0.03).map(({ weak }) => weak)).toEqual([false, false, true])
	})

	it('names the weakest of them, wherever it stands, and the ladder it asks for', () => {
		const late = slower(0.03, 0.04, 0.06)
		expect(weakPartInWords(late)).toBe('20–30 m is 0.06 s slower than your own curve.')
		expect(ladderOfWeakPart(late)).toBe('top-speed')
		const middle = slower(0.03, 0.06, 0.04)
		expect(weakPartInWords(middle)).toBe('10–20 m is 0.06 s slower than your own curve.')
		expect(ladderOfWeakPart(middle)).toBe('acceleration')
		expect(ladderOfWeakPart(slower(0.02, 0.02, 0.02))).toBeNull()
	})
})
