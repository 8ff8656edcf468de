import { startTransition, useCallback, useEffect, useRef } from 'react'

/** From the last key: what is typed in one go is drawn once, and no key waits for it. */
const QUIET_MS = 200

/**
 * Does what was asked last, once, when no more keys come; what it draws gives way to the next key. Nothing of it is done
 * once the page is gone.
 */
export function useWhenQuiet(): (work: () => void) => void {
	const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
	useEffect(() => () => clearTimeout(timer.current), [])
	return useCallback((work) => {
		clearTimeout(timer.current)
		timer.current = setTimeout(() => startTransition(work), QUIET_MS)
	}, [])
}
