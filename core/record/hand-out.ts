import { mean } from 'simple-statistics'
import { type DayMean, chanceOfFallOver } from '../noise/against-usual'
import type { MarkKind } from '../noise/typical-error'
import type { Usual } from '../noise/usual'
import { betterOf } from '../marks/keep-session'
import { capital, writeMark } from '../words/write-numbers'

/** A line of one athlete as it was done, for a page in words. */
export interface LineDone {
	/** "Three-point start 20 m" */
	what: string
	planned: number
	done: number
	/** By key: what was measured, and what was usual before; empty where the eye decides. */
	measured: { kind: MarkKind; side: string | null; values: readonly number[]; usual: Usual | null }[]
	/** Reps by how they looked. */
	good: number
	notYet: number
	poor: number
	/** Notes on it, as they were written. */
	notes: readonly string[]
}

/** A chance from which a day is called better or worse than usual [as of a single key of a day]. */
const CALLED = 0.95

/** What a line came to, in words an athlete understands. @example "6 of 6. Best 3.12 s, on the whole 3.15 s: about as usual." */
export function sayLineDone({ planned, done, measured, good, notYet, poor, notes }: LineDone): string {
	if (done === 0) return planned === 0 ? 'Not asked of you.' : 'Nothing is logged of it.'
	const parts = [
		planned === 0 ? `${done} done.` : done >= planned ? `All ${done} done.` : `${done} of ${planned} done.`,
		...measured.map((one) => sayMeasured(one)),
	]
	const looked = [
		...(good > 0 ? [`${good} good`] : []),
		...(notYet > 0 ? [`${notYet} not yet`] : []),
		...(poor > 0 ? [`${poor} not good`] : []),
	]
	if (looked.length > 0) parts.push(`How they looked: ${looked.join(', ')}.`)
	return [...parts, ...notes.map((note) => `“${note}”`)].join(' ')
}

function sayMeasured({ kind, side, values, usual }: LineDone['measured'][number]): string {
	const best = betterOf(kind) === 'lower' ? Math.min(...values) : Math.max(...values)
	const whole = mean([...values])
	const write = (value: number) => writeMark({ kind, value })
	const which = side === null ? '' : `${side}: `
	const numbers = values.length === 1 ? write(best) : `best ${write(best)}, on the whole ${write(whole)}`
	return `${capital(`${which}${numbers}`)}${usual ? `: ${against(usual, { n: values.length, mean: whole }, kind)}` : ''}.`
}
function against(usual: Usual, today: DayMean, kind: MarkKind): string {
	const worse = chanceOfFallOver(usual, today, 0, betterOf(kind))
	return worse >= CALLED ? 'below your usual' : worse <= 1 - CALLED ? 'better than your usual' : 'about as usual'
}
