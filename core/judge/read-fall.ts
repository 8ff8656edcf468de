import type { Drill } from '../vocabulary/drill'
import type { School } from '../vocabulary/school'
import { betterOf } from '../marks/keep-session'
import { contactRisePercent } from '../library/contact-rise'
import { type StopReading, readStop } from '../noise/one-more'
import type { Method } from '../vocabulary/words'
import { type OwnErrors, typicalErrorOf } from '../noise/typical-error'
import { majorityMarks } from './majority-marks'
import type { MarkEvidence } from './types'

/**
 * Drop-off within one line's marks, in the kind of the first mark and the method most were taken with.
 * A weaker leg is not a tired one: each side is followed on its own, the one that falls first speaks; while none has
 * fallen, that of the last mark.
 */
export function readFall(
	marks: readonly MarkEvidence[],
	limitPercent: number,
	errors?: OwnErrors,
): { reading: StopReading; method: Method } | null {
	const kind = marks[0]?.kind
	if (kind === undefined) return null
	const { marks: kept, method } = majorityMarks(marks, kind)
	if (method === null) return null
	const read = (values: number[]) =>
		readStop(values, betterOf(kind), limitPercent, typicalErrorOf(kind, method, errors), method)
	const sides = (kept.at(-1)?.side === 'right' ? (['right', 'left'] as const) : (['left', 'right'] as const)).map(
		(side) => kept.filter((mark) => mark.side === side).map((mark) => mark.value),
	)
	const readings = sides.some((values) => values.length === 0)
		? [read(kept.map((mark) => mark.value))]
		: sides.map(read)
	const [first] = readings
		.filter((reading) => reading !== null)
		.sort((a, b) => (a.repsBeforeFall ?? Number.POSITIVE_INFINITY) - (b.repsBeforeFall ?? Number.POSITIVE_INFINITY))
	return first ? { reading: first, method } : null
}

/** The school's limit for a kind of mark, percent. A throw's is set in release speed, which goes with the root of the distance. */
export function dropOffLimit(
	kind: MarkEvidence['kind'],
	drill: Pick<Drill, 'family' | 'repeatSpeed'>,
	{ numbers }: School,
): number {
	if (kind === 'sprint') return drill.repeatSpeed ? numbers.dropOffRepeatPercent : numbers.dropOffSpeedPercent
	if (kind === 'contact') return contactRisePercent(numbers)
	if (kind === 'distance' && drill.family === 'throw') return 100 * (1 - (1 - numbers.ballSpeedLossPercent / 100) ** 2)
	return numbers.dropOffJumpPercent
}
