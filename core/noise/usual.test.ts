import fc from 'fast-check'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { addDays } from '../calendar/day-count'
import { Random } from '../chance/random'
import { againstUsual, chanceUnderCeiling, settleUnderCeiling } from './against-usual'
import { sayAgainstUsual, saySettle } from './say-usual'
import { readSlowFall } from './slow-fall'
import { finerMethod, typicalErrorOf } from './typical-error'
import {
	type SessionMean,
	type Usual,
	bestsOf,
	defaultsFrom,
	ownDayPercent,
	sessionMeanOf,
	spreadsOf,
	usualOf,
} from './usual'

const DAY = '2026-06-30'
/** Sessions ending the day before, one a day, oldest first. */
const sessions = (means: readonly number[], more: Partial<SessionMean> = {}): SessionMean[] =>
	means.map((value, at) => ({
		day: addDays(DAY, at - means.length),
		n: 4,
		mean: value,
		squares: 0,
		best: value,
		...more,
	}))
const gate = (some: readonly SessionMean[], day = DAY) => usualOf(some, day, 'sprint', 'gate')

describe('what a session keeps of its marks', () => {
	it('their number, mean, squares and best, by what is better', () => {
		expect(sessionMeanOf({ day: DAY }, [3, 3.1, 3.2], 'lower')).toEqual({
			day: DAY,
			n: 3,
			mean: expect.closeTo(3.1, 10) as number,
			squares: expect.closeTo(0.02, 10) as number,
			best: 3,
		})
		expect(sessionMeanOf({ day: DAY, unusual: true }, [0.3, 0.4], 'higher')).toMatchObject({ best: 0.4, unusual: true })
		expect(sessionMeanOf({ day: DAY }, [], 'lower')).toBeNull()
	})
})

describe('the usual', () => {
	it('asks for two sessions', () => {
		expect(gate(sessions([3]))).toBeNull()
		expect(gate(sessions([3, 3.1]))).toMatchObject({ value: expect.closeTo(3.05, 10) as number, sessions: 2 })
	})
	it('is the mean of the session means, not of the marks', () => {
		const uneven = [...sessions([3, 3.1]), { day: addDays(DAY, -3), n: 20, mean: 3.2, squares: 0, best: 3.2 }]
		expect(gate(uneven)?.value).toBeCloseTo(3.1, 10)
	})
	it('leaves out the highest and the lowest from five on', () => {
		expect(gate(sessions([3, 3.1, 3.2, 9]))?.value).toBeCloseTo(4.575, 10)
		expect(gate(sessions([3, 3.1, 3.2, 3.3, 9]))?.value).toBeCloseTo(3.2, 10)
	})
	it('looks at the last eight within twelve weeks, before the day', () => {
		expect(gate(sessions([9, 9, 3, 3, 3, 3, 3, 3, 3, 3]))).toMatchObject({ value: 3, sessions: 8 })
		const at = (days: number, value: number): SessionMean => ({
			day: addDays(DAY, -days),
			n: 4,
			mean: value,
			squares: 0,
			best: value,
		})
		expect(gate([at(84, 3), at(1, 3.2)])).toMatchObject({ value: expect.closeTo(3.1, 10) as number, sessions: 2 })
		expect(gate([at(85, 3), at(1, 3.2)])).toBeNull()
		expect(gate([at(0, 3), at(1, 3.2)])).toBeNull()
		// The first day back and an unloading week are no part of it.
		expect(gate([at(5, 3), { ...at(4, 9), unusual: true }, at(3, 3.2)])?.value).toBeCloseTo(3.1, 10)
	})
	it('shrinks the spreads towards the method’s, by the freedom there is', () => {
		// Four marks a session, squares 0.0012 each: within² = 0.0036 / 9 = 0.0004, as the gate's 0.02 s.
		// Means 3.00, 3.03, 3.06: 0.0009, less 0.0004 / 4, against (1 % of 3.03)²: (8 · 0.00091809 + 2 · 0.0008) / 10.
		const own = gate(sessions([3, 3.03, 3.06], { squares: 0.0012 }))!
		expect(own.withinSd).toBeCloseTo(0.02, 10)
		expect(own.betweenSd).toBeCloseTo(0.029908, 6)
		expect(own.freedom).toBe(10)
		// √((0.000894472 + 0.0001) / 3)
		expect(own.standardError).toBeCloseTo(0.018207, 6)
	})
	it('takes the squad’s spreads for the method’s where they are known', () => {
		const own = usualOf(sessions([3, 3]), DAY, 'sprint', 'gate', { betweenSd: 0.09, withinSd: 0.06 })!
		// (8 · 0.0081 + 1 · 0) / 9 and (8 · 0.0036 + 6 · 0) / 14
		expect(own.betweenSd ** 2).toBeCloseTo(0.0072, 10)
		expect(own.withinSd ** 2).toBeCloseTo(0.0288 / 14, 10)
	})
	it('has a day move times by 1 %, all else by 2.5 %, until more is known', () => {
		const one = [{ day: DAY, n: 1, mean: 2, squares: 0, best: 2 }]
		expect(spreadsOf(one, 2, 'sprint', 'gate').betweenSd).toBeCloseTo(0.02, 10)
		for (const [kind, method] of [
			['contact', 'mat'],
			['height', 'mat'],
			['distance', 'tape'],
		] as const)
			expect(spreadsOf(one, 2, kind, method).betweenSd).toBeCloseTo(0.05, 10)
		expect(spreadsOf([], 2, 'sprint', 'gate')).toMatchObject({
			freedom: 8,
			withinSd: expect.closeTo(0.02, 10) as number,
		})
	})
	it('a trimmed mean scatters by what normal order statistics say, against the simulation of normals', () => {
		const random = new Random(5)
		for (const [k, turns] of [
			[5, 40_000],
			[8, 40_000],
		] as const) {
			const trimmed = Array.from({ length: turns }, () => {
				const values = Array.from({ length: k }, () => random.normal(1)).sort((a, b) => a - b)
				return mean(values.slice(1, -1))
			})
			const measured = sampleStandardDeviation(trimmed)
			const known = usualOf(sessions(Array.from({ length: k }, () => 100)), DAY, 'sprint', 'gate', {
				betweenSd: Math.sqrt((8 + k - 1) / 8),
				withinSd: 1e-9,
			})!
			expect(known.standardError / measured).toBeGreaterThan(0.98)
			expect(known.standardError / measured).toBeLessThan(1.02)
		}
	})
	it('comes out the same in other units', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 0.3, max: 0.6, noNaN: true }), { minLength: 2, maxLength: 9 }),
				fc.constantFrom(100, 1000),
				(means, factor) => {
					const spreads = (f: number) => ({ betweenSd: 0.01 * f, withinSd: 0.02 * f })
					const metres = usualOf(sessions(means), DAY, 'height', 'mat', spreads(1))!
					const other = usualOf(sessions(means.map((one) => one * factor)), DAY, 'height', 'mat', spreads(factor))!
					expect(other.value / factor).toBeCloseTo(metres.value, 9)
					expect(other.standardError / factor).toBeCloseTo(metres.standardError, 9)
				},
			),
			{ numRuns: 50 },
		)
	})
})

describe('bests are records', () => {
	it('of all days before and of half a year', () => {
		const of = (day: string, best: number): SessionMean => ({ day, n: 1, mean: best, squares: 0, best })
		const some = [of(addDays(DAY, -183), 2.9), of(addDays(DAY, -182), 2.95), of(addDays(DAY, -1), 3), of(DAY, 2)]
		expect(bestsOf(some, DAY, 'lower')).toEqual({ best: 2.9, seasonBest: 2.95 })
		expect(bestsOf(some, DAY, 'higher')).toEqual({ best: 3, seasonBest: 3 })
		expect(bestsOf([], DAY, 'lower')).toEqual({ best: null, seasonBest: null })
	})
})

// Spread of four reps against it: √(0.0009 + 0.0004 / 4 + 0.0001) = 0.0331662.
const USUAL: Usual = { value: 3, betweenSd: 0.03, withinSd: 0.02, standardError: 0.01, freedom: 10, sessions: 8 }
const against = (value: number, more: Partial<Usual> = {}, finer: Parameters<typeof againstUsual>[4] = null) =>
	againstUsual({ ...USUAL, ...more }, { n: 4, mean: value }, 3, 'lower', finer)

describe('a day against the usual', () => {
	it('passes, misses or is unclear at a chance of 0.8: t(0.80; 10) = 0.879 of the table of Student’s t', () => {
		// NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2. 3.09 ∓ 0.879 · 0.0331662 = 3.06085 and 3.11915.
		expect(against(3.0606)).toMatchObject({ outcome: 'pass', settle: null })
		expect(against(3.0611).outcome).toBe('unclear')
		expect(against(3.1189).outcome).toBe('unclear')
		expect(against(3.1194)).toMatchObject({ outcome: 'miss', settle: null })
		expect(against(3.09).probabilityFallOver).toBeCloseTo(0.5, 10)
		expect(against(3.03).fallPercent).toBeCloseTo(1, 10)
	})
	it('for what is better higher, a fall is downwards', () => {
		const jump = { ...USUAL, value: 0.4, betweenSd: 0.004, withinSd: 0.008, standardError: 0.002 }
		expect(againstUsual(jump, { n: 4, mean: 0.41 }, 5, 'higher')).toMatchObject({ outcome: 'pass' })
		expect(againstUsual(jump, { n: 4, mean: 0.36 }, 5, 'higher')).toMatchObject({ outcome: 'miss' })
		expect(againstUsual(jump, { n: 4, mean: 0.38 }, 5, 'higher').fallPercent).toBeCloseTo(5, 10)
	})
	it('says what would settle it: more reps under eight, a finer method, another day, or nothing', () => {
		// 0.035 / 0.879 squared is 0.0015855; of it 0.0009 + 0.0001 are there already: 0.0036 / n, n = 7, three more.
		expect(against(3.055, { withinSd: 0.06 }).settle).toEqual({ reps: 3 })
		// 0.0305: 0.0036 / 0.00020399 = 17.6, fourteen more.
		expect(against(3.0595, { withinSd: 0.06 }, { name: 'gate', withinSd: 0.02 }).settle).toEqual({ method: 'gate' })
		expect(against(3.0595, { withinSd: 0.06 }, { name: 'gate', withinSd: 0.06 }).settle).toEqual({ anotherDay: true })
		expect(against(3.0595, { withinSd: 0.06 }).settle).toEqual({ anotherDay: true })
		expect(against(3.09, { withinSd: 0.06 }).settle).toBeNull()
		// 3.0565: 0.0335 / 0.879 squared is 0.0014524: 0.0036 / 0.0004524 = 7.96, four more; 3.057 asks 0.0036 / 0.0004095 = 8.8, five.
		expect([against(3.0565, { withinSd: 0.06 }).settle, against(3.057, { withinSd: 0.06 }).settle]).toEqual([
			{ reps: 4 },
			{ reps: 5 },
		])
		// Seven more are said, eight are not.
		expect(against(3.0579, { withinSd: 0.06 }).settle).toEqual({ reps: 7 })
		expect(against(3.0585, { withinSd: 0.06 }).settle).toEqual({ anotherDay: true })
	})
	it('is certain without any spread', () => {
		const still = { betweenSd: 0, withinSd: 0, standardError: 0 }
		expect([against(3.09, still).outcome, against(3.0901, still).outcome]).toEqual(['pass', 'miss'])
	})
	it('a rep worse than the limit and than all others never turns it into a pass', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 2.8, max: 3.3, noNaN: true }), { minLength: 1, maxLength: 8 }),
				fc.double({ min: 0, max: 0.3, noNaN: true }),
				(marks, worse) => {
					const of = (some: number[]) => againstUsual(USUAL, { n: some.length, mean: mean(some) }, 3, 'lower').outcome
					if (of(marks) !== 'pass') expect(of([...marks, Math.max(...marks, 3.09) + worse])).not.toBe('pass')
				},
			),
			{ numRuns: 200 },
		)
	})
	it('a best ever in the history, before the last eight sessions or twelve weeks, changes nothing', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 2.95, max: 3.05, noNaN: true }), { minLength: 8, maxLength: 8 }),
				fc.double({ min: 2.98, max: 3.2, noNaN: true }),
				(means, today) => {
					const read = (some: SessionMean[]) => againstUsual(gate(some)!, { n: 4, mean: today }, 3, 'lower')
					const record = { n: 4, mean: 2.5, squares: 0, best: 2.5 }
					expect(read([{ ...record, day: addDays(DAY, -9) }, ...sessions(means)])).toEqual(read(sessions(means)))
					const few = sessions(means.slice(0, 3))
					expect(read([{ ...record, day: addDays(DAY, -85) }, ...few])).toEqual(read(few))
				},
			),
			{ numRuns: 100 },
		)
	})
})

describe('a ceiling', () => {
	it('stays where it is; the noise is the day’s and the reps’', () => {
		// √(0.004² + 0.006² / 4) = 0.005; 0.150 − 0.879 · 0.005 = 0.145605.
		const spreads = { betweenSd: 0.004, withinSd: 0.006, freedom: 10 }
		expect(chanceUnderCeiling(spreads, { n: 4, mean: 0.145605 }, 0.15)).toBeCloseTo(0.8, 3)
		expect(chanceUnderCeiling(spreads, { n: 4, mean: 0.15 }, 0.15)).toBeCloseTo(0.5, 10)
		const still = { betweenSd: 0, withinSd: 0, freedom: 8 }
		expect(chanceUnderCeiling(still, { n: 1, mean: 0.15 }, 0.15)).toBe(1)
		expect(chanceUnderCeiling(still, { n: 1, mean: 0.151 }, 0.15)).toBe(0)
	})
})

describe('what would settle a ceiling', () => {
	const settle = (mean: number, spreads = { betweenSd: 0.003, withinSd: 0.012, freedom: 10 }) =>
		settleUnderCeiling(spreads, { n: 4, mean }, 0.15)
	it('more reps under eight, another day, or nothing', () => {
		// 4.5 ms short: (4.5 / 0.879)² = 26.21; less 9 is 17.21: 144 / 17.21 = 8.4, five more.
		expect(settle(0.1455)).toEqual({ reps: 5 })
		// 4.2 ms: 22.83 − 9 = 13.83: 10.4, seven more. 4 ms: 20.71 − 9 = 11.71: 12.3, nine more, so another day: 9 / 2 + 144 / 8 = 22.5 is too much still.
		expect(settle(0.1458)).toEqual({ reps: 7 })
		expect(settle(0.146)).toBeNull()
		// A day moves 6 ms and a rep little: 36 / 2 + 16 / 8 = 20 under 20.71.
		expect(settle(0.146, { betweenSd: 0.006, withinSd: 0.004, freedom: 10 })).toEqual({ anotherDay: true })
		// Over it likewise.
		expect(settle(0.1545)).toEqual({ reps: 5 })
	})
})

describe('a squad’s own spreads', () => {
	it('how far a day moves its athletes stands in from 20 days on, shrunk towards the default by their number', () => {
		expect(ownDayPercent('height', 0.0001, 0, 19)).toBeNull()
		// 1 % against the default's 2.5 %, 20 days each: √((6.25 + 1) / 2).
		expect(ownDayPercent('height', 0.0001, 0, 20)).toBeCloseTo(1.903943, 6)
		// 180 days: √((20 · 6.25 + 180 · 1) / 200).
		expect(ownDayPercent('height', 0.0001, 0, 180)).toBeCloseTo(1.234909, 6)
		// What the reps leave is taken off, never more than there is: √((20 · 1 + 180 · 0.5) / 200), √(20 / 200).
		expect(ownDayPercent('sprint', 0.0001, 0.00005, 180)).toBeCloseTo(0.74162, 5)
		expect(ownDayPercent('sprint', 0.0001, 0.0002, 180)).toBeCloseTo(0.316228, 6)
	})
	it('is what an athlete’s own is shrunk towards; without it the method’s default is', () => {
		const errors = {
			'sprint/gate': { sd: 0.03, pairs: 40, dayPercent: 0.5, days: 30 },
			'sprint/phone': { sd: 0.05, pairs: 40 },
		}
		expect(defaultsFrom(errors, 'sprint', 'gate')).toEqual({ withinSd: 0.03, betweenPercent: 0.5 })
		expect(defaultsFrom(errors, 'sprint', 'phone')).toEqual({ withinSd: 0.05, betweenPercent: undefined })
		expect(defaultsFrom(errors, 'sprint', 'stopwatch')).toEqual({})
		expect(defaultsFrom(undefined, 'sprint', 'gate')).toEqual({})
		// Two sessions of 3.00 and nothing else: eight of nine parts of the day are the squad's.
		const of = (defaults: object) => usualOf(sessions([3, 3]), DAY, 'sprint', 'gate', defaults)!.betweenSd
		expect(of({ betweenPercent: 0.5 })).toBeCloseTo(Math.sqrt((8 * 0.015 ** 2) / 9), 10)
		expect(of({})).toBeCloseTo(Math.sqrt((8 * 0.03 ** 2) / 9), 10)
		// A spread in the mark's own unit goes before.
		expect(of({ betweenSd: 0.02, betweenPercent: 0.5 })).toBeCloseTo(Math.sqrt((8 * 0.02 ** 2) / 9), 10)
	})
})

describe('a slow fall', () => {
	const read = (before: number[], now: number, between = 3) =>
		readSlowFall(
			sessions([...before, ...Array.from({ length: 4 }, () => between), ...Array.from({ length: 4 }, () => now)]),
			DAY,
			'sprint',
			'gate',
			'lower',
		)
	const eight = Array.from({ length: 8 }, () => 3)
	it('asks for eight, four between and four', () => {
		expect(readSlowFall(sessions(Array.from({ length: 15 }, () => 3)), DAY, 'sprint', 'gate', 'lower')).toBeNull()
		expect(read(eight, 3)).toMatchObject({ fallen: false, percent: 0 })
	})
	it('is over 2 %', () => {
		expect(read(eight, 3.06)).toMatchObject({ fallen: false })
		expect(read(eight, 3.061)).toMatchObject({ fallen: true })
		expect(read(eight, 2.9)).toMatchObject({ fallen: false })
		// What lies between is not looked at.
		expect(read(eight, 3.061, 9)).toMatchObject({ fallen: true, before: 3 })
	})
	it('is beyond three standard errors', () => {
		// Between 2.94 and 3.06: variance 0.0041143, less 0.0001 / 4; against 0.0009: 0.0023883. Errors 0.030083.
		const swings = [2.94, 3.06, 2.94, 3.06, 2.94, 3.06, 2.94, 3.06]
		expect(read(swings, 3.0898)?.fallen).toBe(false)
		expect(read(swings, 3.0907)?.fallen).toBe(true)
	})
	it('is percent of the earlier eight, in standard errors, whatever the order they come in', () => {
		const means = [3.0, 3.02, 2.98, 3.01, 2.99, 3.0, 3.02, 2.98, 9, 9, 9, 9, 3.1, 3.12, 3.08, 3.1]
		const some = sessions(means)
		const found = readSlowFall([...some].reverse(), DAY, 'sprint', 'gate', 'lower')!
		expect(found.before).toBeCloseTo(3, 10)
		expect(found.now).toBeCloseTo(3.1, 10)
		expect(found.percent).toBeCloseTo(3.33333, 4)
		// Eight means: squares 0.0018 over 7; reps all alike: variance of one (8 · 0.0004 + 24 · 0) / 32 = 0.0001, a
		// quarter of it 0.000025 off. Days: 0.00023214 against (3.00 · 1 %)² = 0.0009: (8 · 0.0009 + 7 · 0.00023214) / 15.
		// One mean 0.00058833 + 0.000025; error √(0.00061333 · (1/4 + 1/8)) = 0.0151657.
		expect(found.standardErrors).toBeCloseTo(0.1 / 0.0151657, 2)
		expect(found.fallen).toBe(true)
		// A session before the sixteen is not looked at.
		expect(readSlowFall(sessions([9, ...means]), DAY, 'sprint', 'gate', 'lower')).toEqual(
			readSlowFall(some, DAY, 'sprint', 'gate', 'lower'),
		)
	})
	it('of reps that differ in number weighs each session’s own', () => {
		// Half of the sessions have one rep, half four: the mean of 1/n is 0.625.
		const some = sessions([...eight, 3, 3, 3, 3, 3.1, 3.1, 3.1, 3.1]).map((one, at) => ({
			...one,
			n: at % 2 === 0 ? 1 : 4,
		}))
		const found = readSlowFall(some, DAY, 'sprint', 'gate', 'lower')!
		// Reps of the eight: 12 beside the first, all alike: (8 · 0.0004) / 20 = 0.00016. Days: no scatter of their own:
		// 8 · 0.0009 / 15 = 0.00048. One mean: 0.00048 + 0.00016 · 0.625 = 0.00058; error √(0.00058 · 0.375).
		expect(found.standardErrors).toBeCloseTo(0.1 / Math.sqrt(0.00058 * 0.375), 6)
	})
	it('without any scatter a fall is beyond all errors, and none is none', () => {
		const none = { betweenSd: 0, withinSd: 0 }
		const of = (now: number) =>
			readSlowFall(sessions([...eight, 3, 3, 3, 3, now, now, now, now]), DAY, 'sprint', 'gate', 'lower', none)!
		expect(of(3.1)).toMatchObject({ standardErrors: Number.POSITIVE_INFINITY, fallen: true })
		expect(of(3)).toMatchObject({ standardErrors: 0, fallen: false })
		expect(of(2.9)).toMatchObject({ standardErrors: 0, fallen: false })
	})
	it('of heights is downwards, and leaves out what is unusual and what comes later', () => {
		const jumps = [...eight.map(() => 0.4), ...[0.4, 0.4, 0.4, 0.4], ...[0.37, 0.37, 0.37, 0.37]]
		expect(readSlowFall(sessions(jumps), DAY, 'height', 'mat', 'higher')?.fallen).toBe(true)
		expect(readSlowFall(sessions(jumps), DAY, 'height', 'mat', 'lower')?.fallen).toBe(false)
		expect(readSlowFall(sessions(jumps), addDays(DAY, -2), 'height', 'mat', 'higher')).toBeNull()
		expect(
			readSlowFall(
				sessions(jumps).map((one, at) => (at === 15 ? { ...one, unusual: true } : one)),
				DAY,
				'height',
				'mat',
				'higher',
			),
		).toBeNull()
	})
})

describe('the words', () => {
	const say = (value: number, n = 4) => {
		const reading = againstUsual(USUAL, { n, mean: value }, 3, 'lower')
		return sayAgainstUsual(reading, USUAL, { n, mean: value }, 3, 'sprint', 'gate')
	}
	it('say how far from the usual, and whether a day moves it as far', () => {
		expect(say(3.03)).toBe('3.03 s is 1.0 % over the usual 3.00 s, within what a day moves it')
		expect(say(3)).toBe('3.00 s is the usual 3.00 s, within what a day moves it')
		expect(say(2.9)).toBe('2.90 s is 3.3 % under the usual 3.00 s, better than a day moves it')
		expect(say(3.2)).toBe(
			'3.20 s is 6.7 % over the usual 3.00 s, more than a day moves it: over 3 % is virtually certain, 99 % or more',
		)
		expect(say(3.09)).toBe(
			'3.09 s is 3.0 % over the usual 3.00 s: it may be the day or a fall of over 3 %; too close to the limit for anything to settle it',
		)
	})
	it('say what would settle it', () => {
		expect(saySettle({ reps: 1 }, 'sprint', 'gate')).toBe('1 more time by gate would settle it')
		expect(saySettle({ reps: 3 }, 'height', 'mat')).toBe('3 more heights by contact mat would settle it')
		expect(saySettle({ method: 'gate' }, 'sprint', 'stopwatch')).toBe('measuring by gate would settle it')
		expect(saySettle({ anotherDay: true }, 'contact', 'mat')).toBe('another day would settle it')
		expect(saySettle(null, 'distance', 'tape')).toBe('too close to the limit for anything to settle it')
	})
	it('name the method that errs least', () => {
		expect(finerMethod('sprint', 'stopwatch')).toEqual({ name: 'gate', withinSd: 0.02 })
		expect(finerMethod('sprint', 'gate')).toBeNull()
		expect(finerMethod('contact', 'film-120')?.name).toBe('mat')
		expect(finerMethod('height', 'tape')).toEqual({ name: 'mat', withinSd: typicalErrorOf('height', 'mat') })
	})
})
