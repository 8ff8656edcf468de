import { useCallback, useEffect, useRef } from 'react'

/**
 * One function from drawing to drawing, which does what the newest would: a part of a page that is drawn when what it is
 * given changes is not drawn for it. To be called from what a person does, not while drawing.
 */
export function useSame<Given extends unknown[]>(newest: (...given: Given) => void): (...given: Given) => void {
	const kept = useRef(newest)
	useEffect(() => {
		kept.current = newest
	})
	return useCallback((...given) => kept.current(...given), [])
}
