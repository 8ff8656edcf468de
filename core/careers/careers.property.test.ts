import tCdf from '@stdlib/stats-base-dists-t-cdf'
import { mean, sampleVariance } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import type { CareerAsk } from './career'
import { simulateCareers } from './simulate-careers'

const ask = (more: Partial<CareerAsk>): CareerAsk => ({
	scenario: 'steady',
	method: 'gate',
	school: 'quality-first',
	careers: 80,
	sessions: 26,
	seed: 5,
	...more,
})

describe('simulated careers', () => {
	it('come out the same from the same seed, and otherwise from another', () => {
		const falling = ask({ scenario: 'falling', careers: 10 })
		expect(simulateCareers(falling)).toEqual(simulateCareers(falling))
		expect(simulateCareers({ ...falling, seed: 6 })).not.toEqual(simulateCareers(falling))
	})
	it('who is steady is left alone and passes; who improves is never eased', () => {
		const steady = simulateCareers(ask({}))
		expect(steady.anyEase).toBeLessThanOrEqual(0.02)
		expect(steady.passedWithin5).toBeGreaterThanOrEqual(0.9)
		expect(simulateCareers(ask({ scenario: 'improving' })).neverEased).toBeGreaterThanOrEqual(0.95)
	})
	it('who falls by 5 % is seen within three sessions; a slow fall by its own rule', () => {
		expect(simulateCareers(ask({ scenario: 'falling' })).missWithin3).toBeGreaterThanOrEqual(0.9)
		const slow = simulateCareers(ask({ scenario: 'falling', fallSessions: 20, sessions: 44, careers: 60 }))
		expect(slow.slowFallSaid).toBeGreaterThanOrEqual(0.9)
		expect(slow.anyEase).toBeLessThanOrEqual(0.05)
	})
	it('who is hurt and says so is not judged by times: the pain decides', () => {
		const hurt = simulateCareers(ask({ scenario: 'hurt', fallPercent: 8, careers: 40 }))
		expect(hurt.anyEase).toBe(0)
	})
	it('on the boxes who is steady ends within one rung of what true ability passes, by the goal as by the ceiling', () => {
		for (const [school, careers] of [
			['quality-first', 100],
			['jump-ladder', 40],
		] as const) {
			const { withinOneRung, advancedUnable } = simulateCareers(
				ask({ method: 'film-240', school, careers, sessions: 40, seed: 17 }),
			)
			expect(withinOneRung, school).toBeGreaterThanOrEqual(0.9)
			expect(advancedUnable, school).toBeLessThanOrEqual(0.05)
		}
		expect(simulateCareers(ask({ careers: 5 })).withinOneRung).toBeNull()
	})
	it('a typing error inside the plausible range changes at most one session in fifty', () => {
		const steady = simulateCareers(ask({ method: 'stopwatch' }))
		expect(steady.changedByTyping).toBeGreaterThan(0)
		expect(steady.changedByTyping).toBeLessThanOrEqual(0.02)
		expect(steady.changedWhenTyped).toBeGreaterThan(steady.changedByTyping)
	})
	it('names the field of what cannot be asked', () => {
		for (const [more, field] of [
			[{ careers: 0 }, 'careers'],
			[{ sessions: 11 }, 'sessions'],
			[{ seed: -1 }, 'seed'],
			[{ fallPercent: 31 }, 'fallPercent'],
			[{ trueSpreadPercent: 11 }, 'trueSpreadPercent'],
			[{ fallSessions: 101 }, 'fallSessions'],
			[{ school: 'none' }, 'school'],
			[{ method: 'reach' }, 'method'],
		] as const)
			expect(() => simulateCareers(ask(more))).toThrow(field)
	})
})

/**
 * The same careers in a few lines of their own, over a general statistics package: what page and code say of the
 * usual and of a miss, written again, with its own source of chance and nothing of the product.
 */
describe('three cells computed again', () => {
	let state = 12345
	const uniform = () => {
		state = (Math.imul(1664525, state) + 1013904223) >>> 0
		return (state + 0.5) / 4294967296
	}
	const normal = (sd: number) => sd * Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
	/** One athlete of 3.05 s over 20 m by an error of one rep, 1 % from day to day: which of the sessions after the fall are passes and misses. */
	function again(error: number, fall: number, sessions: number, falls: number) {
		const done: number[][] = []
		const read: ('pass' | 'miss' | 'unclear' | null)[] = []
		for (let session = 0; session < sessions; session++) {
			const truth = 3.05 * (1 + (session >= falls ? fall : 0)) * (1 + normal(0.01))
			const marks = Array.from({ length: 6 }, () => truth + normal(error))
			const used = done.slice(-8)
			if (used.length < 2) read.push(null)
			else {
				const means = used.map((some) => mean(some))
				const kept = means.length < 5 ? means : [...means].sort((a, b) => a - b).slice(1, -1)
				const usual = mean(kept)
				const freedom = used.length - 1
				const within =
					(8 * error ** 2 + 5 * used.length * mean(used.map((some) => sampleVariance(some)))) / (8 + 5 * used.length)
				const own = Math.max(0, sampleVariance(means) - within / 6)
				const between = (8 * (0.01 * usual) ** 2 + freedom * own) / (8 + freedom)
				const trimming = { 5: 1.134, 6: 1.099, 7: 1.08, 8: 1.07 }[used.length] ?? 1
				const spread = Math.sqrt(between + within / 6 + ((between + within / 6) * trimming) / used.length)
				const over = tCdf((mean(marks) - usual * 1.03) / spread, 8 + freedom)
				read.push(over >= 0.8 ? 'miss' : over <= 0.2 ? 'pass' : 'unclear')
			}
			done.push(marks)
		}
		return read
	}
	const share = (turns: number, of: () => boolean) => Array.from({ length: turns }, of).filter(Boolean).length / turns
	const twice = (read: readonly unknown[], word: string) =>
		read.some((one, at) => at > 0 && one === word && read[at - 1] === word)
	const within = (found: number, again: number) => expect(Math.abs(found - again)).toBeLessThan(0.06)

	it('gates, a fall of 5 %: a miss within three sessions', () => {
		const found = simulateCareers(ask({ scenario: 'falling', careers: 200, sessions: 26 })).missWithin3
		within(
			found,
			share(1000, () => again(0.02, 0.05, 16, 13).slice(13).includes('miss')),
		)
	})
	it('phone, a fall of 4 %: a miss within three sessions', () => {
		const found = simulateCareers(
			ask({ scenario: 'falling', method: 'phone', fallPercent: 4, careers: 200, sessions: 26 }),
		).missWithin3
		within(
			found,
			share(1000, () => again(0.04, 0.04, 16, 13).slice(13).includes('miss')),
		)
	})
	it('stopwatch, steady: passed twice running within five sessions of a usual', () => {
		const found = simulateCareers(ask({ method: 'stopwatch', careers: 200, sessions: 12 })).passedWithin5
		within(
			found,
			share(1000, () => twice(again(0.1, 0, 7, 99).slice(2), 'pass')),
		)
	})
})
