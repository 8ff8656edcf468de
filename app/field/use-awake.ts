import { useEffect } from 'react'

/** Keeps the screen on while the field is open, where the browser can. */
export function useAwake(): void {
	useEffect(() => {
		let lock: WakeLockSentinel | null = null
		const hold = () => {
			if (!('wakeLock' in navigator) || document.visibilityState !== 'visible') return
			// Low battery or the browser's own rules may refuse; the screen then goes dark as usual.
			navigator.wakeLock.request('screen').then(
				(held) => {
					lock = held
				},
				() => undefined,
			)
		}
		hold()
		document.addEventListener('visibilitychange', hold)
		return () => {
			document.removeEventListener('visibilitychange', hold)
			void lock?.release()
		}
	}, [])
}

/** A short tone and a short buzz, as the coach has set them. */
export function signal({ sound, vibration }: { sound: boolean; vibration: boolean }): void {
	if (vibration && 'vibrate' in navigator) navigator.vibrate(120)
	if (!sound) return
	const audio = new AudioContext()
	const tone = audio.createOscillator()
	const volume = audio.createGain()
	tone.frequency.value = 880
	volume.gain.setValueAtTime(0.25, audio.currentTime)
	volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.35)
	tone.connect(volume).connect(audio.destination)
	tone.start()
	tone.stop(audio.currentTime + 0.4)
	tone.onended = () => void audio.close()
}
