import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Random } from '../chance/random'
import { readStop } from './one-more'
import { typicalErrorOf } from './typical-error'

const many = (value: number, reps: number) => Array.from({ length: reps }, () => value)
/** Reps around 100 with an error of 1, of which a fall of 1 % matters: only chance decides. */
const stop = (values: number[], limit = 1) => readStop(values, 'lower', limit, 1)?.stopAfter

describe('one more, or stop', () => {
	it('3.00, 3.09, 3.18 by gates over 20 m with a limit of 3 %: after the last', () => {
		expect(readStop([3, 3.09], 'lower', 3, 0.02, 'gate')?.stopAfter).toBeNull()
		expect(readStop([3, 3.09, 3.18], 'lower', 3, 0.02, 'gate')).toMatchObject({
			stopAfter: 3,
			repsBeforeFall: 1,
			best: 3,
		})
	})
	it('asks for the limit, reached at equality', () => {
		expect(readStop([3, 3, 3.09, 3.09], 'lower', 3, 0.02)?.stopAfter).toBe(4)
		expect(readStop([3, 3, 3.089, 3.089], 'lower', 3, 0.02)?.stopAfter).toBeNull()
		expect(readStop([0.4, 0.4, 0.38, 0.38], 'higher', 5, 0.002)?.stopAfter).toBe(4)
		expect(readStop([0.4, 0.4, 0.381, 0.381], 'higher', 5, 0.002)?.stopAfter).toBeNull()
		expect(readStop([0.4, 0.4, 0.42, 0.42], 'higher', 5, 0.002)?.stopAfter).toBeNull()
	})
	it('asks for more than chance, by the number of reps', () => {
		// Two after two: √(1/2 + 1/2) = 1, times 3.4. Two after one: √1.5 = 1.2247, 4.164.
		expect([stop([...many(100, 2), ...many(103.41, 2)]), stop([...many(100, 2), ...many(103.39, 2)])]).toEqual([
			4,
			null,
		])
		expect([stop([100, ...many(104.17, 2)]), stop([100, ...many(104.15, 2)])]).toEqual([3, null])
		// Two after three: 0.91287 · 3.3 = 3.0125; after four and more √0.75 = 0.86603.
		expect([stop([...many(100, 3), ...many(103.02, 2)]), stop([...many(100, 3), ...many(103, 2)])]).toEqual([5, null])
		for (const [before, least, just] of [
			[4, 2.7, 2.67], // 3.1 · 0.86603 = 2.6847
			[5, 2.61, 2.59], // 3.0: 2.5981
			[6, 2.57, 2.54], // 2.95: 2.5548
			[7, 2.71, 2.69], // 2.95 + 1.45 ln(9/8) = 3.1208: 2.7027
			[8, 2.85, 2.82], // 3.2736: 2.8350
			[18, 3.72, 3.7], // 2.95 + 1.45 ln(20/8) = 4.2786: 3.7054
		] as const)
			expect([
				before,
				stop([...many(100, before), ...many(100 + least, 2)]),
				stop([...many(100, before), ...many(100 + just, 2)]),
			]).toEqual([before, before + 2, null])
	})
	it('sees a small fall that lasts three or four reps', () => {
		// Three after four: √(1/3 + 1/4) · 3 = 2.2913. Four after four: √0.5 · 2.95 = 2.0860.
		expect([stop([...many(100, 4), ...many(102.3, 3)]), stop([...many(100, 4), ...many(102.28, 3)])]).toEqual([7, null])
		expect([stop([...many(100, 4), ...many(102.1, 4)]), stop([...many(100, 4), ...many(102.07, 4)])]).toEqual([8, null])
	})
	it('holds the last reps against the best stretch of four, wherever in the line it was', () => {
		// The first four are slow, the best stretch comes later, in another set.
		expect(readStop([...many(105, 4), ...many(100, 4), ...many(103, 2)], 'lower', 1, 1)).toMatchObject({
			stopAfter: 10,
			repsBeforeFall: 8,
		})
		// One lucky rep is no stretch.
		expect(stop([102.5, 102.5, 102.5, 99.5, 102.5, 102.5, 102.5])).toBeNull()
	})
	it('cannot see it by reach, without an error, or with one over 4.4 %', () => {
		const coarse = (error: number | null, method?: 'reach' | 'mat') =>
			readStop([100, ...many(150, 6)], 'lower', 3, error, method)
		expect(coarse(4.4)).toMatchObject({ tooCoarse: false, seesLittle: true, stopAfter: 3 })
		expect(coarse(4.41)).toMatchObject({ tooCoarse: true, seesLittle: false, stopAfter: null, falseStopRate: 0 })
		expect(coarse(null)).toMatchObject({ tooCoarse: true, stopAfter: null })
		expect(coarse(1, 'reach')).toMatchObject({ tooCoarse: true, stopAfter: null })
		expect([coarse(3, 'mat')?.seesLittle, coarse(3.01, 'mat')?.seesLittle]).toEqual([false, true])
		// Stopwatch over 10 m: 0.1 s of 1.9.
		expect(readStop(many(1.9, 3), 'lower', 3, typicalErrorOf('sprint', 'stopwatch'))?.tooCoarse).toBe(true)
	})
	it('shows each rep against the best before it, and says nothing of none', () => {
		const percents = readStop([3.15, 3, 3.06], 'lower', 3, 0.02)!.percents
		expect(percents.map((one) => Math.round(one * 100) / 100)).toEqual([0, 0, 2])
		expect(readStop([0.4, 0.38], 'higher', 5, 0.01)!.percents[1]).toBeCloseTo(5, 10)
		expect(readStop([], 'lower', 3, 0.02)).toBeNull()
		expect(() => readStop([0, 3], 'lower', 3, 0.02)).toThrow('above 0')
		expect(() => readStop([3], 'lower', 0, 0.02)).toThrow('limitPct')
		expect(() => readStop([3], 'lower', 3, 0)).toThrow('typicalError')
	})
	it('says again what it said, whatever comes later', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 2.8, max: 3.4, noNaN: true }), { minLength: 1, maxLength: 14 }),
				(values) => {
					let said: number | null = null
					for (let reps = 1; reps <= values.length; reps++) {
						const now = readStop(values.slice(0, reps), 'lower', 3, 0.02)!.stopAfter
						if (said !== null) expect(now).toBe(said)
						if (now !== null && said === null) expect(now).toBe(reps)
						said = now
					}
				},
			),
			{ numRuns: 200 },
		)
	})
})

describe('its rates, simulated', () => {
	/** Share of exposures stopped; `rise` percent a rep from the fourth. */
	const share = (turns: number, reps: number, errorPercent: number, rise: number, limit: number, seed: number) => {
		const random = new Random(seed)
		let stopped = 0
		for (let turn = 0; turn < turns; turn++) {
			const values = Array.from(
				{ length: reps },
				(_, at) => 100 + Math.max(0, at - 2) * rise + random.normal(errorPercent),
			)
			if (readStop(values, 'lower', limit, errorPercent)!.stopAfter !== null) stopped++
		}
		return stopped / turns
	}
	it('at most 2 % of exposures without fatigue are stopped, of any length', () => {
		// The limit out of the way: chance alone keeps it.
		for (const reps of [6, 8, 12, 30]) expect(share(4000, reps, 3, 0, 0.01, reps)).toBeLessThanOrEqual(0.02)
		for (const [reps, rate] of [
			[8, 0.01],
			[10, 0.014],
			[30, 0.02],
		] as const)
			expect(readStop(many(100, reps), 'lower', 3, 1)!.falseStopRate).toBe(rate)
	})
	it('a fall of 1.5 % a rep from the fourth on is called by the eighth as often as the method can', () => {
		// Errors as shares of a usual time: 20 m in 3.1 s, 10 m in 1.9 s, a flying 10 m in 1.1 s.
		for (const [error, least] of [
			[(100 * 0.02) / 3.1, 0.85],
			[(100 * 0.02) / 1.9, 0.85],
			[(100 * 0.02) / 1.1, 0.85],
			[(100 * 0.04) / 3.1, 0.9],
			[(100 * 0.04) / 1.9, 0.7],
			[(100 * 0.1) / 3.1, 0.3],
			[(100 * 0.04) / 1.1, 0.25],
		] as const)
			expect([error, share(2000, 8, error, 1.5, 3, 17)]).toEqual([
				error,
				expect.toSatisfy((found: number) => found >= least),
			])
		// Heights: 2 % a rep, a mat at 35 cm.
		expect(share(2000, 8, (100 * 0.01) / 0.35, 2, 5, 18)).toBeGreaterThanOrEqual(0.7)
	})
})
