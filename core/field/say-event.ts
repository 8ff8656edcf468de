import { markEvidence } from '../judge/gather-exposure'
import type { LogEvent } from '../vocabulary/events'
import { REGION_NAMES } from '../vocabulary/words'
import { writeMark } from '../words/write-numbers'
import { type LineProgress, restLeft } from './line-progress'

const MISSED = { aborted: 'aborted', 'false-start': 'false start', 'no-time': 'no time taken' } as const

/** An event in a breath: "3.12 s", "pain 3 of 10", "good". */
export function sayEvent(event: LogEvent): string {
	if (event.void) return 'taken back'
	const evidence = markEvidence(event, undefined)
	if (evidence) return writeMark(evidence)
	switch (event.kind) {
		case 'done':
			return `${event.value.reps} ${event.value.reps === 1 ? 'rep' : 'reps'}`
		case 'missed':
			return event.value.reason ? MISSED[event.value.reason] : 'missed'
		case 'release':
			return `${event.value.speedMps.toFixed(1)} m/s`
		case 'pain':
			return `pain ${event.value.score} of 10`
		case 'head':
			return 'head: get help'
		case 'chest':
			return 'chest: get help'
		case 'quiet':
			return `asked, ${event.value.score} of 10`
		case 'worry':
			return `worry, ${REGION_NAMES[event.value.region]}`
		case 'comfort':
			return `comfort ${event.value.worst} of 5${event.value.braking ? ', braking' : ''}`
		case 'effort':
			return `effort ${event.value.rpe} of 10`
		case 'quality':
			return event.value.grade.replace('-', ' ')
		case 'attendance':
			return event.value.present ? 'here' : 'not here'
		case 'end-set':
			return 'set ended'
		default:
			return event.kind.replace('-', ' ')
	}
}

/** Rest left as "1:05", "ready" or "done"; a clock that is not known yet reads as ready. */
export function restLabel(progress: LineProgress, now: number): string {
	if (progress.finished) return 'done'
	const left = now === 0 ? 0 : restLeft(progress, now)
	return left === 0 ? 'ready' : `${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')}`
}

/** "Ada L." */
export const shortName = (name: string) => name.replace(/^(\S+)\s+(\S).*$/, '$1 $2.')
