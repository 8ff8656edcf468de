import type { Level, Rung, School } from '../library/types'
import type { Expectation } from '../measure/read-digits'
import { METHOD_NAMES, type Method } from '../noise/typical-error'
import { contactCeilingS } from './read-criterion'
import { writeMark } from './write-numbers'

/** What a line aims at, in words: "3.17 s or better (within 3 % of 3.08 s, gate)". */
export function targetOf(rung: Rung | null, level: Level, school: School, bests: Partial<Record<Method, number>>): string {
	if (!rung || rung.pass.kind === 'quality') return 'good by eye'
	if (rung.pass.kind === 'contact-ceiling') return `contact ${writeMark({ kind: 'contact', value: contactCeilingS(level, school) })} or less`
	if (rung.pass.kind === 'comfort') return 'comfortable, no braking, no discomfort'
	if (rung.pass.kind === 'not-below') return `${rung.pass.of} not below the last time`
	const [best] = Object.entries(bests).sort(([a], [b]) => (a === 'gate' ? -1 : b === 'gate' ? 1 : 0)) as [Method, number][]
	if (!best) return 'a first time to compare with'
	const [method, time] = best
	return `${writeMark({ kind: 'sprint', value: time * (1 + rung.pass.percent / 100) })} or better (own best ${writeMark({ kind: 'sprint', value: time })}, ${METHOD_NAMES[method]})`
}

/** What a step of the way back aims at: its share of the best before, or by feel where none is known. */
export function returnTargetOf(effortPercent: number, bests: Partial<Record<Method, number>>): string {
	const [best] = Object.entries(bests).sort(([a], [b]) => (a === 'gate' ? -1 : b === 'gate' ? 1 : 0)) as [Method, number][]
	const asked = best ? `${writeMark({ kind: 'sprint', value: best[1] / (effortPercent / 100) })}, ${effortPercent} % of own best (${METHOD_NAMES[best[0]]})` : `${effortPercent} % by feel: no best over this distance is known`
	return `${asked}; discomfort of 1 or more ends the day`
}

/** What digits typed for a mark are expected to mean, in the unit typed: s, ms, cm or m. */
export function expectationOf(kind: 'sprint' | 'contact' | 'flight' | 'height' | 'distance', distanceM: number | undefined, best: number | undefined): Expectation {
	if (kind === 'contact') return { low: 80, high: 400, decimals: 0 }
	if (kind === 'flight') return { low: 200, high: 750, decimals: 0 }
	if (kind === 'height') return { low: 10, high: 70, decimals: 1 }
	if (kind === 'distance') return best === undefined ? { low: 1, high: 20, decimals: 2 } : { low: best * 0.8, high: best * 1.1, decimals: 2 }
	if (best !== undefined) return { low: best * 0.95, high: best * 1.12, decimals: 2 }
	const metres = distanceM ?? 10
	// A beginner to an expert from a standing start, roughly [our setting].
	return { low: 0.75 + metres / 9.5, high: 1.2 + metres / 6, decimals: 2 }
}
