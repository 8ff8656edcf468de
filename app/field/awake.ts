import { useEffect } from 'react'

/** What of a browser keeps a screen on. */
export interface Screen {
	/** Absent where the browser cannot. */
	lock?: () => Promise<{ release: () => Promise<unknown>; onLost: (lost: () => void) => void }>
	visible: () => boolean
	onVisible: (seen: () => void) => () => void
}

/** Keeps the screen on until told otherwise. A lock the browser takes away is taken again as soon as the page is seen. */
export function keepAwake(screen: Screen): () => void {
	let held: { release: () => Promise<unknown> } | null = null
	let asking = false
	let over = false
	const hold = () => {
		if (over || asking || held || !screen.lock || !screen.visible()) return
		asking = true
		screen.lock().then(
			(lock) => {
				asking = false
				if (over) return void lock.release()
				held = lock
				lock.onLost(() => {
					held = null
					hold()
				})
			},
			// Low battery or the browser's own rules may refuse; the screen then goes dark as usual, until the page is seen anew.
			() => {
				asking = false
			},
		)
	}
	hold()
	const forget = screen.onVisible(hold)
	return () => {
		over = true
		forget()
		void held?.release()
	}
}

const ofBrowser = (): Screen => ({
	...('wakeLock' in navigator
		? {
				lock: async () => {
					const lock = await navigator.wakeLock.request('screen')
					return {
						release: () => lock.release(),
						onLost: (lost: () => void) => lock.addEventListener('release', lost, { once: true }),
					}
				},
			}
		: {}),
	visible: () => document.visibilityState === 'visible',
	onVisible: (seen) => {
		document.addEventListener('visibilitychange', seen)
		return () => document.removeEventListener('visibilitychange', seen)
	},
})

/** Keeps the screen on while the field is open, where the browser can. */
export function useAwake(): void {
	useEffect(() => keepAwake(ofBrowser()), [])
}
