import { useEffect, useMemo, useRef } from 'react'
import type { KeptReading } from '#core/devices/schema'
import { type FeedQuestion, placeReadings } from '#core/field/session/readings'
import type { Stand } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'

/**
 * Gives what the devices saw to whoever is on the line, one at a time: after each the line moves on. What does not fit is
 * a question. While a number is half typed or the watch runs (`busy`), the line stays where it is and readings wait.
 */
export function useDeviceFeed(
	stand: Stand,
	readings: readonly KeptReading[],
	since: number | null,
	busy: boolean,
	tap: (tap: Tap) => Promise<boolean>,
): FeedQuestion[] {
	const { plain, questions } = useMemo(() => placeReadings(stand, readings, since), [stand, readings, since])
	const writing = useRef(new Set<string>())
	const next = plain.find(({ source }) => !writing.current.has(source))
	useEffect(() => {
		if (busy || !next || writing.current.has(next.source)) return
		const { source, mark, words } = next
		writing.current.add(source)
		// What could not be kept is asked about again.
		void tap({ tap: 'reading', mark, words }).then((kept) => kept || writing.current.delete(source))
	})
	return questions
}
