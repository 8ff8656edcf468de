import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { Follower } from './follow-changes'

beforeEach(() => {
	vi.useFakeTimers()
	vi.stubGlobal('document', { visibilityState: 'visible' })
})
afterEach(() => {
	vi.useRealTimers()
	vi.unstubAllGlobals()
})

/** A follower whose first question is never answered, and how often it has asked. */
function following(first: () => Promise<void>) {
	let asked = 0
	const follower = new Follower(
		's',
		'd',
		() => Promise.resolve(),
		first,
		() => {
			asked++
			return new Promise(() => {})
		},
	)
	void follower.follow()
	return () => asked
}

it('asks what others did once what waits here is sent', async () => {
	let sent = () => {}
	const asked = following(() => new Promise((resolve) => (sent = resolve)))
	await vi.advanceTimersByTimeAsync(1400)
	expect(asked()).toBe(0)
	sent()
	await vi.advanceTimersByTimeAsync(0)
	expect(asked()).toBe(1)
})

it('asks at once where nothing waits, and on a slow line after a second and a half', async () => {
	const asked = following(() => Promise.resolve())
	await vi.advanceTimersByTimeAsync(0)
	expect(asked()).toBe(1)
	const onASlowLine = following(() => new Promise(() => {}))
	await vi.advanceTimersByTimeAsync(1499)
	expect(onASlowLine()).toBe(0)
	await vi.advanceTimersByTimeAsync(1)
	expect(onASlowLine()).toBe(1)
})
