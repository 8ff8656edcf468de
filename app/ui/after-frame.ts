import { startTransition, useEffect, useState } from 'react'

/**
 * A value as it was when it was last drawn: what takes long is worked out from it after the frame that shows what was
 * typed, and once for keys that follow each other quickly.
 */
export function useAfterFrame<T>(value: T): T {
	const [drawn, setDrawn] = useState(value)
	useEffect(() => {
		let timer: ReturnType<typeof setTimeout> | undefined
		const frame = requestAnimationFrame(() => {
			// The frame is handed on when this has returned.
			timer = setTimeout(() => startTransition(() => setDrawn(() => value)))
		})
		return () => {
			cancelAnimationFrame(frame)
			clearTimeout(timer)
		}
	}, [value])
	return drawn
}
