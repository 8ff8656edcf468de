import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { describe, expect, it } from 'vitest'
import type { LogEvent } from '#core/vocabulary/events'
import type { Pack } from '#core/field/pack'
import { type DeviceStore, memoryStore, openLasting } from './device-store'

// One contract for both stores: what the field screen may count on, whichever of them keeps.

/** A browser that was never here before. */
const freshBrowser = () => {
	globalThis.indexedDB = new IDBFactory()
}

const event = (n: number, deviceSeq: number, change: Partial<LogEvent> = {}): LogEvent =>
	({
		id: `e${n}`,
		sessionId: 's',
		deviceId: 'd',
		deviceSeq,
		type: 'mark',
		kind: 'done',
		value: { reps: n },
		...change,
	}) as LogEvent
const pack = (id: string, events: LogEvent[] = []) => ({ sheet: { session: { id } }, events }) as unknown as Pack
const ids = (events: readonly { id: string }[]) => events.map(({ id }) => id)

describe.each<[string, () => Promise<DeviceStore>]>([
	['the browser’s database', openLasting],
	['memory', () => Promise.resolve(memoryStore())],
])('a store in %s', (_name, open) => {
	const opened = () => {
		freshBrowser()
		return open()
	}
	const add = (store: DeviceStore, n: number, personId: string | null = 'p', change: Partial<LogEvent> = {}) =>
		store.add(personId, (seq) => [event(n, seq, change)])

	it('gives each event the next place in the device’s order, several at once too', async () => {
		const store = await opened()
		await add(store, 1)
		await store.add('p', (seq) => [event(2, seq), event(3, seq + 1)])
		await add(store, 4)
		expect((await store.ofSession('s')).map(({ event: one }) => [one.id, one.deviceSeq])).toEqual([
			['e1', 0],
			['e2', 1],
			['e3', 2],
			['e4', 3],
		])
		expect(await store.waitingCount()).toBe(4)
	})
	it('keeps all of what one tap writes, or none', async () => {
		const store = await opened()
		await add(store, 1)
		await expect(
			store.add('p', () => {
				throw new Error('no room')
			}),
		).rejects.toThrow('no room')
		expect(await store.ofSession('s')).toHaveLength(1)
		// The place is not used up.
		const [next] = await add(store, 2)
		expect(next!.event.deviceSeq).toBe(1)
	})
	it('names what waits, oldest first, of one person, after a place, at most so many', async () => {
		const store = await opened()
		await add(store, 1, 'a')
		await add(store, 2, 'b')
		await add(store, 3, null)
		await add(store, 4, 'a')
		expect(ids(await store.waiting(10, 'a'))).toEqual(['e1', 'e3', 'e4'])
		expect(ids(await store.waiting(10, 'b'))).toEqual(['e2', 'e3'])
		// Batch after batch, none longer than asked for, all are named once.
		const walked: string[] = []
		for (let batch = await store.waiting(2, 'a'); batch.length > 0; ) {
			expect(batch.length).toBeLessThanOrEqual(2)
			walked.push(...ids(batch))
			batch = await store.waiting(2, 'a', batch.at(-1)!.deviceSeq)
		}
		expect(walked).toEqual(['e1', 'e3', 'e4'])
		expect(ids(await store.waiting(10, 'a', 0))).toEqual(['e3', 'e4'])
		// Somebody else’s in front do not hide one’s own.
		expect(ids(await store.waiting(1, 'b'))).toEqual(['e2'])
		// What nobody was known for belongs to whoever is signed in.
		expect(ids(await store.waiting(10, 'c'))).toEqual(['e3'])
	})
	it('writes down the answers: safe, refused with the reason; what was not answered waits on', async () => {
		const store = await opened()
		for (const n of [1, 2, 3]) await add(store, n)
		const sent = await store.waiting(10, 'p')
		await store.settle(sent, 'p', [
			{ id: 'e1', outcome: 'accepted' },
			{ id: 'e2', outcome: 'refused', field: 'value.reps', reason: 'too many' },
		])
		const rows = await store.ofSession('s')
		expect(rows.map(({ status, reason }) => [status, reason])).toEqual([
			['safe', undefined],
			['refused', 'value.reps: too many'],
			['waiting', undefined],
		])
		expect(rows.map(({ personId }) => personId)).toEqual(['p', 'p', 'p'])
		expect(await store.waitingCount()).toBe(1)
		await store.dismiss('e2')
		expect(ids((await store.ofSession('s')).map((row) => row.event))).toEqual(['e1', 'e3'])
	})
	it('hands over what waits of others, and nothing that was answered', async () => {
		const store = await opened()
		await add(store, 1, 'gone')
		await add(store, 2, 'p')
		await add(store, 3, null)
		await add(store, 4, 'gone')
		await store.settle([(await store.waiting(1, 'gone'))[0]!], 'gone', [{ id: 'e1', outcome: 'accepted' }])
		expect(await store.handOver('p')).toBe(1)
		expect(ids(await store.waiting(10, 'p'))).toEqual(['e2', 'e3', 'e4'])
		expect((await store.ofSession('s')).map(({ personId }) => personId)).toEqual(['gone', 'p', null, 'p'])
		expect(await store.handOver('p')).toBe(0)
	})
	it('tells sessions apart', async () => {
		const store = await opened()
		await add(store, 1)
		await add(store, 2, 'p', { sessionId: 't' as never })
		expect(ids((await store.ofSession('t')).map((row) => row.event))).toEqual(['e2'])
		expect(await store.ofSession('nobody’s')).toEqual([])
	})
	it('keeps packs with what others added since, each event once', async () => {
		const store = await opened()
		const now = Date.now()
		await store.putPacks([pack('s', [event(1, 0)]), pack('t')], now)
		await store.addRemote('s', [event(1, 0), event(2, 0)])
		expect(ids((await store.pack('s'))!.events)).toEqual(['e1', 'e2'])
		expect((await store.pack('s'))!.fetchedAt).toBe(now)
		expect((await store.packs()).map(({ id }) => id).sort()).toEqual(['s', 't'])
		expect(await store.pack('u')).toBeNull()
		// Fetched anew it has them itself.
		await store.putPacks([pack('s', [event(1, 0), event(2, 0), event(3, 0)])], now + 1)
		expect(ids((await store.pack('s'))!.events)).toEqual(['e1', 'e2', 'e3'])
	})
	it('keeps settings, and forgets the squads’ data but nothing that was not sent', async () => {
		const store = await opened()
		await store.write('lanes', 2)
		await store.write('person', { id: 'p', name: 'P', role: 'coach', clubName: 'C' })
		await store.putPacks([pack('s')], Date.now())
		await add(store, 1)
		await add(store, 2)
		await add(store, 3)
		await store.settle(await store.waiting(3, 'p'), 'p', [
			{ id: 'e1', outcome: 'accepted' },
			{ id: 'e3', outcome: 'refused', field: 'lineId', reason: 'no such line' },
		])
		await store.clear()
		expect(await store.read('lanes')).toBe(2)
		expect(await store.read('person')).toBeUndefined()
		expect(await store.packs()).toEqual([])
		expect((await store.ofSession('s')).map(({ event: { id }, status }) => [id, status])).toEqual([
			['e2', 'waiting'],
			['e3', 'refused'],
		])
	})
})

describe('the browser’s database alone', () => {
	it('is there again after a reload: events, order, device', async () => {
		freshBrowser()
		const before = await openLasting()
		await before.add('p', (seq) => [event(1, seq)])
		const again = await openLasting()
		expect(again.deviceId).toBe(before.deviceId)
		const [row] = await again.add('p', (seq) => [event(2, seq)])
		expect(row!.event.deviceSeq).toBe(1)
		expect(await again.waitingCount()).toBe(2)
		expect([before.lasting, memoryStore().lasting]).toEqual([true, false])
	})
	it('drops what nobody has fetched for a week, and never what was not sent', async () => {
		freshBrowser()
		const before = await openLasting()
		const day = 86_400_000
		await before.putPacks([pack('old')], Date.now() - 8 * day)
		await before.putPacks([pack('new')], Date.now() - 6 * day)
		for (const [n, sessionId] of [
			[1, 'old'],
			[2, 'old'],
			[3, 'new'],
		] as const)
			await before.add('p', (seq) => [event(n, seq, { sessionId: sessionId as never })])
		await before.settle(
			(await before.waiting(10, 'p')).filter(({ id }) => id !== 'e2'),
			'p',
			[
				{ id: 'e1', outcome: 'accepted' },
				{ id: 'e3', outcome: 'accepted' },
			],
		)
		const again = await openLasting()
		expect((await again.packs()).map(({ id }) => id)).toEqual(['new'])
		expect((await again.ofSession('old')).map((row) => row.event.id)).toEqual(['e2'])
		expect((await again.ofSession('new')).map((row) => row.event.id)).toEqual(['e3'])
	})
})
