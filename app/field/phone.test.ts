import { describe, expect, it } from 'vitest'
import { type Screen, keepAwake } from './awake'
import { type SignalDevice, type SignalSettings, restIsOver, tapIsKept } from './signals'

const settings = (change: Partial<SignalSettings> = {}): SignalSettings => ({
	tick: false,
	sound: false,
	vibration: false,
	...change,
})
function device(canVibrate = true) {
	const said: string[] = []
	const stub: SignalDevice = {
		...(canVibrate ? { vibrate: (ms: number) => void said.push(`buzz ${ms}`) } : {}),
		tone: (hertz, seconds) => void said.push(`tone ${hertz} ${seconds}`),
	}
	return { said, stub }
}

describe('what is heard and felt', () => {
	it('at the end of a rest is what the coach has set', () => {
		const tried = (change: Partial<SignalSettings>, canVibrate = true) => {
			const { said, stub } = device(canVibrate)
			restIsOver(settings(change), stub)
			return said
		}
		expect(tried({})).toEqual([])
		expect(tried({ vibration: true })).toEqual(['buzz 120'])
		expect(tried({ sound: true })).toEqual(['tone 880 0.35'])
		expect(tried({ sound: true, vibration: true })).toEqual(['buzz 120', 'tone 880 0.35'])
		// A device that cannot buzz is silent rather than wrong.
		expect(tried({ vibration: true }, false)).toEqual([])
		expect(tried({ tick: true })).toEqual([])
	})
	it('for a tap is a knock, or a click where the phone cannot knock', () => {
		const tried = (change: Partial<SignalSettings>, canVibrate: boolean) => {
			const { said, stub } = device(canVibrate)
			tapIsKept(settings(change), stub)
			return said
		}
		expect(tried({ tick: true }, true)).toEqual(['buzz 15'])
		expect(tried({ tick: true }, false)).toEqual(['tone 1400 0.03'])
		expect(tried({ sound: true, vibration: true }, true)).toEqual([])
	})
})

function screen(can = true) {
	const state = {
		visible: true,
		asked: 0,
		released: 0,
		refuse: false,
		lose: [] as (() => void)[],
		seen: [] as (() => void)[],
	}
	const stub: Screen = {
		...(can
			? {
					lock: () => {
						state.asked += 1
						if (state.refuse) return Promise.reject(new Error('battery'))
						return Promise.resolve({
							release: () => Promise.resolve((state.released += 1)),
							onLost: (lost: () => void) => void state.lose.push(lost),
						})
					},
				}
			: {}),
		visible: () => state.visible,
		onVisible: (seen) => {
			state.seen.push(seen)
			return () => void state.seen.splice(0)
		},
	}
	return { state, stub }
}
const settle = () => new Promise((resolve) => setTimeout(resolve, 0))

describe('the screen', () => {
	it('is kept on, and given back at the end', async () => {
		const { state, stub } = screen()
		const stop = keepAwake(stub)
		await settle()
		expect(state.asked).toBe(1)
		stop()
		expect(state.released).toBe(1)
		expect(state.seen).toEqual([])
	})
	it('is taken again when the browser lets go of it: at once when it is seen, else when it is seen again', async () => {
		const { state, stub } = screen()
		keepAwake(stub)
		await settle()
		state.lose[0]!()
		await settle()
		expect(state.asked).toBe(2)
		state.visible = false
		state.lose[1]!()
		await settle()
		expect(state.asked).toBe(2)
		state.visible = true
		state.seen[0]!()
		await settle()
		expect(state.asked).toBe(3)
		// Held already: nothing is asked for twice.
		state.seen[0]!()
		await settle()
		expect(state.asked).toBe(3)
	})
	it('that was refused is asked for again when it is seen anew, and a lock that comes too late is given back', async () => {
		const { state, stub } = screen()
		state.refuse = true
		const stop = keepAwake(stub)
		await settle()
		state.refuse = false
		state.seen[0]!()
		stop()
		await settle()
		expect([state.asked, state.released]).toEqual([2, 1])
	})
	it('of a browser that cannot is left as it is', async () => {
		const { state, stub } = screen(false)
		keepAwake(stub)()
		await settle()
		expect(state.asked).toBe(0)
	})
})
