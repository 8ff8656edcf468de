import type { Dose, Rest } from '../vocabulary/dose'

/** @example writeClock(80) // "1:20" */
export const writeClock = (seconds: number): string =>
	`${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`

/**
 * Seconds from "1:20" or "80"; null when it is neither.
 *
 * @example readClock('1:20') // 80
 */
export function readClock(text: string): number | null {
	const [, minutes, seconds] = /^\s*(?:(\d{1,2}):(?=[0-5]\d\s*$))?(\d{1,4})\s*$/.exec(text) ?? []
	return seconds === undefined ? null : Number(minutes ?? 0) * 60 + Number(seconds)
}

/**
 * The rests of a line as coaches say them, as far as the dose has any; empty where nothing is rested.
 *
 * @example writeRest({ repsS: 8, setsS: 150 }, { sets: 5, reps: 2 }) // "rest 0:08, 2:30 between sets"
 */
export function writeRest({ repsS, setsS }: Rest, { sets, reps }: Dose): string {
	const [between, after] = [reps > 1 ? repsS : 0, sets > 1 ? setsS : 0]
	if (between === 0 && after === 0) return ''
	if (sets <= 1) return `rest ${writeClock(between)}`
	if (reps <= 1 || between === after) return `rest ${writeClock(after)}`
	return between === 0
		? `straight on, ${writeClock(after)} between sets`
		: `rest ${writeClock(between)}, ${writeClock(after)} between sets`
}
