import { useEffect, useEffectEvent, useState } from 'react'

const TICK_MS = 1000

/** The clock as state, a tick a second; 0 until the first, so that nothing is shown that the server could not know. */
export function useNow(clock: () => number): number {
	const [now, setNow] = useState(0)
	const tick = useEffectEvent(() => setNow(clock()))
	useEffect(() => {
		tick()
		const timer = setInterval(() => tick(), TICK_MS)
		return () => clearInterval(timer)
	}, [])
	return now
}
