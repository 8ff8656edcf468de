import { type Level, METHOD_NAMES, type Method } from '../vocabulary/words'
import type { Rung } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import { contactCeilingS } from './read-criterion'
import { writeMark } from '../words/write-numbers'

/** What a line aims at, in words: "3.17 s or better (within 3 % of 3.08 s, gate)". */
export function targetOf(
	rung: Rung | null,
	level: Level,
	school: School,
	bests: Partial<Record<Method, number>>,
): string {
	if (!rung || rung.pass.kind === 'quality') return 'good by eye'
	if (rung.pass.kind === 'contact-ceiling')
		return `contact ${writeMark({ kind: 'contact', value: contactCeilingS(level, school) })} or less`
	if (rung.pass.kind === 'comfort') return 'comfortable, no braking, no discomfort'
	if (rung.pass.kind === 'not-below') return `${rung.pass.of} not below the last time`
	const [best] = Object.entries(bests).sort(([a], [b]) => (a === 'gate' ? -1 : b === 'gate' ? 1 : 0)) as [
		Method,
		number,
	][]
	if (!best) return 'a first time to compare with'
	const [method, time] = best
	return `${writeMark({ kind: 'sprint', value: time * (1 + rung.pass.percent / 100) })} or better (own best ${writeMark({ kind: 'sprint', value: time })}, ${METHOD_NAMES[method]})`
}

/** What a step of the way back aims at: its share of the best before, or by feel where none is known. */
export function returnTargetOf(effortPercent: number, bests: Partial<Record<Method, number>>): string {
	const [best] = Object.entries(bests).sort(([a], [b]) => (a === 'gate' ? -1 : b === 'gate' ? 1 : 0)) as [
		Method,
		number,
	][]
	const asked = best
		? `${writeMark({ kind: 'sprint', value: best[1] / (effortPercent / 100) })}, ${effortPercent} % of own best (${METHOD_NAMES[best[0]]})`
		: `${effortPercent} % by feel: no best over this distance is known`
	return `${asked}; discomfort of 1 or more ends the day`
}
