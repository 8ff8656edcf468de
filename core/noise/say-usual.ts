import { sayChance } from '../words/say-chance'
import { METHOD_NAMES, type Method } from '../vocabulary/words'
import { writeMark } from '../words/write-numbers'
import type { AgainstUsual, DayMean, Settle } from './against-usual'
import type { MarkKind } from './typical-error'
import type { Usual } from './usual'

export const NO_USUAL_YET = 'no usual yet: one more session measured this way'

const REPS: Record<MarkKind, readonly [one: string, more: string]> = {
	sprint: ['time', 'times'],
	contact: ['contact', 'contacts'],
	height: ['height', 'heights'],
	distance: ['distance', 'distances'],
}

/** "9 more times would settle it", as far as anything would. */
export function saySettle(settle: Settle | null, kind: MarkKind, method: Method): string {
	if (settle === null) return 'too close to the limit for anything to settle it'
	if ('reps' in settle)
		return `${settle.reps} more ${REPS[kind][settle.reps === 1 ? 0 : 1]} by ${METHOD_NAMES[method]} would settle it`
	if ('method' in settle) return `measuring by ${METHOD_NAMES[settle.method as Method]} would settle it`
	return 'another day would settle it'
}

/** "3.06 s is 1.0 % over the usual 3.03 s, within what a day moves it." without the stop. */
export function sayAgainstUsual(
	reading: AgainstUsual,
	usual: Usual,
	today: DayMean,
	percent: number,
	kind: MarkKind,
	method: Method,
): string {
	const off = (100 * (today.mean - usual.value)) / usual.value
	const usually = `the usual ${writeMark({ kind, value: usual.value })}`
	const mean = writeMark({ kind, value: today.mean })
	const shown =
		Math.abs(off) < 0.05 ? `is ${usually}` : `is ${Math.abs(off).toFixed(1)} % ${off > 0 ? 'over' : 'under'} ${usually}`
	const moved = (100 * Math.hypot(usual.betweenSd, usual.withinSd / Math.sqrt(today.n))) / usual.value
	if (reading.outcome === 'miss')
		return `${mean} ${shown}, more than a day moves it: over ${percent} % is ${sayChance(reading.probabilityFallOver)}`
	if (reading.outcome === 'unclear')
		return `${mean} ${shown}: it may be the day or a fall of over ${percent} %; ${saySettle(reading.settle, kind, method)}`
	if (reading.fallPercent < -moved) return `${mean} ${shown}, better than a day moves it`
	return `${mean} ${shown}, within what a day moves it`
}
