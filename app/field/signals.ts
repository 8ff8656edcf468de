/** What a phone can be heard and felt by. */
export interface SignalDevice {
	/** Absent where the device cannot. */
	vibrate?: (ms: number) => void
	tone: (hertz: number, seconds: number) => void
}
export interface SignalSettings {
	/** A short knock for every tap that is kept. */
	tick: boolean
	sound: boolean
	vibration: boolean
}

/** Somebody's rest is over: a short tone and a short buzz, as the coach has set them. */
export function restIsOver({ sound, vibration }: SignalSettings, device: SignalDevice = ofBrowser()): void {
	if (vibration) device.vibrate?.(120)
	if (sound) device.tone(880, 0.35)
}

/** A tap is on the device: felt where the phone can, heard where it cannot. */
export function tapIsKept({ tick }: SignalSettings, device: SignalDevice = ofBrowser()): void {
	if (!tick) return
	if (device.vibrate) device.vibrate(15)
	else device.tone(1400, 0.03)
}

const ofBrowser = (): SignalDevice => ({
	...('vibrate' in navigator ? { vibrate: (ms: number) => void navigator.vibrate(ms) } : {}),
	tone: (hertz, seconds) => {
		const audio = new AudioContext()
		const tone = audio.createOscillator()
		const volume = audio.createGain()
		tone.frequency.value = hertz
		volume.gain.setValueAtTime(0.25, audio.currentTime)
		volume.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + seconds)
		tone.connect(volume).connect(audio.destination)
		tone.start()
		tone.stop(audio.currentTime + seconds + 0.05)
		tone.onended = () => void audio.close()
	},
})
