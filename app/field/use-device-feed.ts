import { useEffect, useMemo, useRef } from 'react'
import type { KeptReading } from '#core/devices/schema'
import { type FeedQuestion, placeReadings } from '#core/field/session/readings'
import type { Afternoon } from './use-afternoon'

/** What could not be kept is not tried again before, ms [our setting]. */
const AGAIN_MS = 2000

/**
 * Gives what the devices saw to whoever is on the line, one at a time: after each the line moves on, and whose the next
 * one is is said by the screen that follows. What does not fit is a question. While a number is half typed or the watch
 * runs (`busy`), the line stays where it is and readings wait.
 */
export function useDeviceFeed(
	readings: readonly KeptReading[],
	since: number | null,
	busy: boolean,
	{ stand, tap, turns }: Afternoon,
): FeedQuestion[] {
	const { plain, questions } = useMemo(() => placeReadings(stand, readings, since), [stand, readings, since])
	const [next] = plain
	const notBefore = useRef(0)
	useEffect(() => {
		if (busy || !next || !turns.idle || performance.now() < notBefore.current) return
		void tap({ tap: 'reading', mark: next.mark, words: next.words }).then((kept) => {
			if (!kept) notBefore.current = performance.now() + AGAIN_MS
		})
	})
	return questions
}
