import { type Level, METHOD_NAMES, type Method } from '../vocabulary/words'
import type { Rung } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import { FALL_PERCENT, contactCeilingS } from './read-criterion'
import { writeMark } from '../words/write-numbers'

/** The finest method there is a number by. */
const finest = <T>(by: Partial<Record<Method, T>>): [Method, T] | undefined => {
	const order: Method[] = [
		'gate',
		'mat',
		'gate-signal',
		'phone',
		'tape',
		'film-240',
		'gate-hand',
		'film-120',
		'reach',
		'stopwatch',
	]
	return (Object.entries(by) as [Method, T][]).sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))[0]
}

/**
 * What a line aims at, in words: "3.12 s or better (within 3 % of the usual 3.03 s, gate)".
 *
 * @param usuals of marks made as the line says, by method, in the mark's unit
 * @param measured there is one such session at least
 */
export function targetOf(
	rung: Rung | null,
	level: Level,
	school: School,
	usuals: Partial<Record<Method, number>>,
	measured: boolean,
): string {
	if (!rung || rung.pass.kind === 'quality') return 'good by eye'
	const { pass } = rung
	if (pass.kind === 'contact-ceiling')
		return `contact ${writeMark({ kind: 'contact', value: contactCeilingS(level, school) })} or less`
	if (pass.kind === 'comfort') return 'comfortable, no braking, no discomfort'
	const kind = pass.kind === 'time-within' ? 'sprint' : pass.of
	const percent = pass.kind === 'time-within' ? pass.percent : FALL_PERCENT
	const [method, usual] = finest(usuals) ?? []
	if (method === undefined || usual === undefined)
		return measured
			? 'one more session measured this way makes a usual'
			: `a first ${kind === 'sprint' ? 'time' : kind} to compare with`
	const limit = usual * (1 + ((kind === 'sprint' ? 1 : -1) * percent) / 100)
	return `${writeMark({ kind, value: limit })} or ${kind === 'sprint' ? 'better' : 'more'} (within ${percent} % of the usual ${writeMark({ kind, value: usual })}, ${METHOD_NAMES[method]})`
}

/** What a step of the way back aims at: its share of the best before, or by feel where none is known. */
export function returnTargetOf(effortPercent: number, bests: Partial<Record<Method, number>>): string {
	const best = finest(bests)
	const asked = best
		? `${writeMark({ kind: 'sprint', value: best[1] / (effortPercent / 100) })}, ${effortPercent} % of own best (${METHOD_NAMES[best[0]]})`
		: `${effortPercent} % by feel: no best over this distance is known`
	return `${asked}; discomfort of 1 or more ends the day`
}
