import { describe, expect, it, vi } from 'vitest'
import type { EventAnswer, LogEvent } from '#core/vocabulary/events'
import { type DeviceStore, memoryStore } from './device-store'
import { Sender } from './send-waiting'

let seq = 0
const rep = (repNo: number, change: Partial<LogEvent>): LogEvent =>
	({
		sessionId: 's',
		athleteId: 'a',
		deviceId: 'd',
		deviceTime: new Date(Date.UTC(2026, 2, 12, 18, repNo % 60)).toISOString(),
		entryId: 'entry',
		lineId: 'line-a',
		setNo: 1,
		repNo,
		type: 'mark',
		kind: 'sprint',
		value: { splits: [{ distanceM: 20, timeS: 3.1 }], method: 'gate' },
		...change,
	}) as LogEvent

describe('sending', () => {
	const newId = () => `00000000-0000-4000-8000-${String(seq++).padStart(12, '0')}`
	const reply = (
		events: LogEvent[],
		answer: (event: LogEvent) => EventAnswer = ({ id }) => ({ id, outcome: 'accepted' }),
	) => new Response(JSON.stringify({ answers: events.map(answer) }))
	const sent = (body: string) => (JSON.parse(body) as { events: LogEvent[] }).events
	async function storeWith(n: number) {
		const store = memoryStore()
		for (let i = 0; i < n; i++) await store.add('p', (deviceSeq) => [rep(i + 1, { deviceSeq, id: newId() })])
		return store
	}
	const statuses = async (store: DeviceStore) => (await store.ofSession('s')).map((kept) => kept.status)

	it('sends no more at once than the server takes, however long the notes are', async () => {
		const store = memoryStore()
		const note = { type: 'observation', kind: 'note', value: { text: 'x'.repeat(9_000) } } as Partial<LogEvent>
		await store.add('p', (deviceSeq) =>
			Array.from({ length: 300 }, (_, i) => rep(i + 1, { ...note, deviceSeq: deviceSeq + i, id: newId() })),
		)
		const lengths: number[] = []
		const sender = new Sender(
			store,
			() => 'p',
			() => {},
			(body) => {
				lengths.push(body.length)
				return Promise.resolve(reply(sent(body)))
			},
		)
		await sender.send()
		// 300 notes of 9,000 characters are 2.8 million: one request may hold two.
		expect(lengths).toHaveLength(2)
		expect(Math.max(...lengths)).toBeLessThanOrEqual(2_000_000)
		expect(await store.waitingCount()).toBe(0)
	})
	it('sends in order, in batches, and settles event by event', async () => {
		const store = await storeWith(1060)
		const batches: number[][] = []
		const sender = new Sender(
			store,
			() => 'p',
			() => {},
			(body) => {
				batches.push(sent(body).map((event) => event.deviceSeq))
				return Promise.resolve(
					reply(sent(body), ({ id, deviceSeq }) =>
						deviceSeq === 3
							? { id, outcome: 'refused', field: 'lineId', reason: 'no such line' }
							: { id, outcome: 'accepted' },
					),
				)
			},
		)
		await sender.send()
		expect(batches.map((batch) => batch.length)).toEqual([760, 300])
		expect(batches.flat()).toEqual(Array.from({ length: 1060 }, (_, i) => i))
		expect((await statuses(store)).filter((status) => status === 'refused')).toHaveLength(1)
		expect((await store.ofSession('s'))[3]).toMatchObject({ status: 'refused', reason: 'lineId: no such line' })
		expect(await store.waiting(9, 'p')).toEqual([])
	})

	it.each([
		[1, [1]],
		[600, [600]],
		[601, [301, 300]],
		[1000, [700, 300]],
		[1300, [1000, 300]],
		[1301, [1000, 301]],
		[2000, [1000, 700, 300]],
	])('sends %i in as few as the server takes, a small one last', async (queued, sizes) => {
		const store = await storeWith(queued)
		const batches: number[] = []
		const sender = new Sender(
			store,
			() => 'p',
			() => {},
			(body) => {
				batches.push(sent(body).length)
				return Promise.resolve(reply(sent(body)))
			},
		)
		await sender.send()
		expect(batches).toEqual(sizes)
		expect(await store.waitingCount()).toBe(0)
	})

	it('is over when the round is, and whoever asks meanwhile waits for the same one', async () => {
		const store = await storeWith(1)
		let answer = () => {}
		const sender = new Sender(
			store,
			() => 'p',
			() => {},
			(body) => new Promise((resolve) => (answer = () => resolve(reply(sent(body))))),
		)
		const done: string[] = []
		await sender.over().then(() => done.push('nothing under way'))
		void sender.send().then(() => done.push('sent'))
		void sender.over().then(() => done.push('over'))
		void sender.send().then(() => done.push('asked again'))
		await vi.waitFor(() => expect(String(answer)).toContain('resolve'))
		expect(done).toEqual(['nothing under way'])
		answer()
		await sender.over()
		expect(done).toEqual(['nothing under way', 'sent', 'over', 'asked again'])
		expect(await store.waitingCount()).toBe(0)
		await sender.over()
	})

	it('keeps everything and tries again, slower each time, until the server answers', async () => {
		vi.useFakeTimers()
		const store = await storeWith(2)
		const states: string[] = []
		let tries = 0
		const sender = new Sender(
			store,
			() => 'p',
			(state) => states.push(state),
			(body) => {
				tries += 1
				return tries < 4 ? Promise.reject(new Error('offline')) : Promise.resolve(reply(sent(body)))
			},
		)
		await sender.send()
		expect(await statuses(store)).toEqual(['waiting', 'waiting'])
		// A fifth of a second after the first, then twice as long each time.
		for (const [ms, expected] of [
			[199, 1],
			[1, 2],
			[399, 2],
			[1, 3],
			[799, 3],
			[1, 4],
		] as const) {
			await vi.advanceTimersByTimeAsync(ms)
			expect(tries).toBe(expected)
		}
		expect(await statuses(store)).toEqual(['safe', 'safe'])
		expect(states.at(-1)).toBe('idle')
		sender.stop()
		vi.useRealTimers()
	})

	it('asks to sign in again and keeps the queue', async () => {
		const store = await storeWith(1)
		const states: string[] = []
		const sender = new Sender(
			store,
			() => 'p',
			(state) => states.push(state),
			() => Promise.resolve(new Response('{}', { status: 401 })),
		)
		await sender.send()
		sender.stop()
		expect(states.at(-1)).toBe('sign-in-again')
		expect(await statuses(store)).toEqual(['waiting'])
	})

	it('does not ask for ever when an answer settles nothing', async () => {
		const store = await storeWith(1)
		let tries = 0
		const sender = new Sender(
			store,
			() => 'p',
			() => {},
			() => {
				tries += 1
				return Promise.resolve(new Response('{"answers":[]}'))
			},
		)
		await sender.send()
		sender.stop()
		expect(tries).toBe(1)
		expect(await statuses(store)).toEqual(['waiting'])
	})
})
