import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import { v7 as newId } from 'uuid'
import type { EventAnswer, LogEvent } from '#core/vocabulary/events'
import type { BodyLimits } from '#core/field/over-today'
import type { Pack, PackAnswer } from '#core/field/pack'

/** An event on this device: written here before the screen says so, sent in the background. */
export interface Kept {
	event: LogEvent
	status: 'waiting' | 'safe' | 'refused'
	reason?: string
	/** Who logged it; null while nobody was known on this device yet. */
	personId: string | null
}
/** A session with what the server knew of it, and when it was fetched. */
export interface KeptPack extends Pack {
	id: string
	fetchedAt: number
}
export interface Setting {
	seq: number
	person: PackAnswer['person']
	/** Server clock minus this device's, ms. */
	clockOffsetMs: number
	/** What limits the athletes of the session that was followed last, as the server said it last. */
	limits: { sessionId: string; limits: Record<string, BodyLimits> }
	lanes: number
	sound: boolean
	vibration: boolean
	tick: boolean
	/** White on black, for the evening. */
	dusk: boolean
	gates: number[]
	/** When the coach let devices log on this one, by the server's clock, ms; null while not. */
	feedSince: number | null
	/** Questions answered on this device: pairs of marks that are two reps, device readings that are none. */
	settled: string[]
}

interface FieldDb extends DBSchema {
	events: {
		key: string
		value: Kept & { id: string; sessionId: string; seq: number }
		indexes: { bySession: string; byStatus: string; inOrder: [string, number] }
	}
	device: { key: string; value: unknown }
	packs: { key: string; value: KeptPack }
	/** What others logged since the pack was fetched. */
	remote: { key: string; value: { id: string; sessionId: string; event: LogEvent }; indexes: { bySession: string } }
}

/** What the field screen asks of a store; the same can be kept in memory where the browser has no database. */
export interface DeviceStore {
	/** False when nothing survives a reload. */
	lasting: boolean
	deviceId: string
	/** Writes events with the next sequence numbers, all or none. */
	add: (personId: string | null, make: (deviceSeq: number) => LogEvent[]) => Promise<Kept[]>
	ofSession: (sessionId: string) => Promise<Kept[]>
	/** The oldest that were not sent, of one person, after a place in the device's order. */
	waiting: (limit: number, personId: string | null, afterSeq?: number) => Promise<LogEvent[]>
	/** How many wait, whoever logged them. */
	waitingCount: () => Promise<number>
	/** Writes down how events that were sent were answered. */
	settle: (sent: readonly LogEvent[], personId: string | null, answers: readonly EventAnswer[]) => Promise<void>
	/** What waits of others who used this device is from now on somebody's to send; how many that were. */
	handOver: (personId: string) => Promise<number>
	/** A refused event stays until somebody takes it off by hand. */
	dismiss: (id: string) => Promise<void>
	packs: () => Promise<KeptPack[]>
	pack: (sessionId: string) => Promise<KeptPack | null>
	putPacks: (packs: readonly Pack[], at: number) => Promise<void>
	/** Adds what others logged, so that it is there without a connection too. */
	addRemote: (sessionId: string, events: readonly LogEvent[]) => Promise<void>
	read: <K extends keyof Setting>(key: K) => Promise<Setting[K] | undefined>
	write: <K extends keyof Setting>(key: K, value: Setting[K]) => Promise<void>
	/** Takes the squads' data off the device; events the server has not taken stay, those it refused too. */
	clear: () => Promise<void>
}

/** The sessions a device holds, the next one first. */
export const sessionsOn = async (store: DeviceStore) =>
	(await store.packs())
		.map(({ id, sheet, fetchedAt }) => ({ id, session: sheet.session, athletes: sheet.athletes.length, fetchedAt }))
		.sort((a, b) => (a.session.day + a.session.startTime < b.session.day + b.session.startTime ? -1 : 1))

const NAME = 'dromos-field'
/** A device holds its squads' data this long. */
const KEEP_MS = 7 * 86_400_000

let opened: Promise<DeviceStore> | undefined
/** The device's one store; in memory where the browser gives none. */
export function openDeviceStore(): Promise<DeviceStore> {
	opened ??= openLasting().catch(() => memoryStore())
	return opened
}

/** The store in the browser’s own database. */
export async function openLasting(): Promise<DeviceStore> {
	// A new version gets a new case below; one that has shipped is never edited.
	const db: IDBPDatabase<FieldDb> = await openDB<FieldDb>(NAME, 2, {
		upgrade(made, oldVersion, _newVersion, tx) {
			if (oldVersion < 1) {
				const events = made.createObjectStore('events', { keyPath: 'id' })
				events.createIndex('bySession', 'sessionId')
				events.createIndex('byStatus', 'status')
				made.createObjectStore('device')
			}
			if (oldVersion < 2) {
				tx.objectStore('events').createIndex('inOrder', ['status', 'seq'])
				made.createObjectStore('packs', { keyPath: 'id' })
				made.createObjectStore('remote', { keyPath: 'id' }).createIndex('bySession', 'sessionId')
			}
		},
		blocking: (_current, _blocked, event) => {
			;(event.target as IDBDatabase).close()
			opened = undefined
		},
		terminated: () => {
			opened = undefined
		},
	})
	const claim = db.transaction('device', 'readwrite')
	const known = await claim.store.get('id')
	const deviceId = typeof known === 'string' ? known : newId()
	if (known === undefined) await claim.store.put(deviceId, 'id')
	await claim.done
	await dropOld(db)

	return {
		lasting: true,
		deviceId,
		async add(personId, make) {
			const tx = db.transaction(['events', 'device'], 'readwrite', { durability: 'strict' })
			const next = Number((await tx.objectStore('device').get('seq')) ?? 0)
			const rows = make(next).map((event): Kept => ({ event, status: 'waiting', personId }))
			const writes = [
				tx.objectStore('device').put(next + rows.length, 'seq'),
				...rows.map((row) =>
					tx
						.objectStore('events')
						.add({ ...row, id: row.event.id, sessionId: row.event.sessionId, seq: row.event.deviceSeq }),
				),
			]
			await Promise.all([...writes, tx.done])
			return rows
		},
		async ofSession(sessionId) {
			return (await db.getAllFromIndex('events', 'bySession', sessionId)).sort((a, b) => a.seq - b.seq)
		},
		async waiting(limit, personId, afterSeq = -1) {
			const oldest = async (most?: number) =>
				(
					await db.getAllFromIndex(
						'events',
						'inOrder',
						IDBKeyRange.bound(['waiting', afterSeq], ['waiting', Infinity], true),
						most,
					)
				).filter((row) => (row.personId ?? personId) === personId)
			const rows = await oldest(limit)
			// Only where somebody else's entries stand in front are all of them looked through.
			return (rows.length > 0 ? rows : await oldest()).slice(0, limit).map((row) => row.event)
		},
		waitingCount: () => db.countFromIndex('events', 'byStatus', 'waiting'),
		async settle(sent, personId, answers) {
			const byId = new Map(answers.map((answer) => [answer.id, answer]))
			const tx = db.transaction('events', 'readwrite')
			// What was sent is at hand: nothing is read again, only written.
			await Promise.all([
				...sent.flatMap((event) => {
					const answer = byId.get(event.id)
					return answer
						? [
								tx.store.put({
									id: event.id,
									sessionId: event.sessionId,
									seq: event.deviceSeq,
									event,
									personId,
									...settled(answer),
								}),
							]
						: []
				}),
				tx.done,
			])
		},
		async handOver(personId) {
			const tx = db.transaction('events', 'readwrite', { durability: 'strict' })
			const others = (await tx.store.index('byStatus').getAll('waiting')).filter(
				(row) => row.personId !== null && row.personId !== personId,
			)
			await Promise.all([...others.map((row) => tx.store.put({ ...row, personId })), tx.done])
			return others.length
		},
		dismiss: (id) => db.delete('events', id),
		packs: () => db.getAll('packs'),
		async pack(sessionId) {
			const pack = await db.get('packs', sessionId)
			if (!pack) return null
			const known = new Set(pack.events.map((event) => event.id))
			const since = (await db.getAllFromIndex('remote', 'bySession', sessionId))
				.map((row) => row.event)
				.filter((event) => !known.has(event.id))
			return { ...pack, events: [...pack.events, ...since] }
		},
		async putPacks(packs, at) {
			const tx = db.transaction('packs', 'readwrite')
			await Promise.all([
				...packs.map((pack) => tx.store.put({ ...pack, id: pack.sheet.session.id, fetchedAt: at })),
				tx.done,
			])
		},
		async addRemote(sessionId, events) {
			const tx = db.transaction('remote', 'readwrite')
			await Promise.all([...events.map((event) => tx.store.put({ id: event.id, sessionId, event })), tx.done])
		},
		read: async (key) => (await db.get('device', key)) as never,
		async write(key, value) {
			await db.put('device', value, key)
		},
		async clear() {
			const tx = db.transaction(['events', 'packs', 'remote', 'device'], 'readwrite')
			await tx.objectStore('packs').clear()
			await tx.objectStore('remote').clear()
			await tx.objectStore('device').delete('person')
			await tx.objectStore('device').delete('limits')
			for (const row of await tx.objectStore('events').getAll())
				if (row.status === 'safe') await tx.objectStore('events').delete(row.id)
			await tx.done
		},
	}
}

/** Packs nobody has fetched anew for a week, and the events of them that are safe. What was not sent is never dropped. */
async function dropOld(db: IDBPDatabase<FieldDb>): Promise<void> {
	const tx = db.transaction(['packs', 'remote', 'events'], 'readwrite')
	const oldest = Date.now() - KEEP_MS
	for (const pack of await tx.objectStore('packs').getAll())
		if (pack.fetchedAt < oldest) await tx.objectStore('packs').delete(pack.id)
	const kept = new Set(await tx.objectStore('packs').getAllKeys())
	for (const row of await tx.objectStore('remote').getAll())
		if (!kept.has(row.sessionId)) await tx.objectStore('remote').delete(row.id)
	for (const row of await tx.objectStore('events').getAll())
		if (row.status === 'safe' && !kept.has(row.sessionId)) await tx.objectStore('events').delete(row.id)
	await tx.done
}

/** How an event stands that was answered. */
export const settled = (answer: EventAnswer): Pick<Kept, 'status' | 'reason'> =>
	answer.outcome === 'refused'
		? { status: 'refused', reason: `${answer.field ? `${answer.field}: ` : ''}${answer.reason}` }
		: { status: 'safe' }

export function memoryStore(): DeviceStore {
	const rows: Kept[] = []
	const packs = new Map<string, KeptPack>()
	const settings = new Map<string, unknown>()
	let seq = 0
	return {
		lasting: false,
		deviceId: newId(),
		add: async (personId, make) => {
			const added = make(seq).map((event): Kept => ({ event, status: 'waiting', personId }))
			seq += added.length
			rows.push(...added)
			return await Promise.resolve(added)
		},
		ofSession: (sessionId) =>
			Promise.resolve(rows.filter((row) => row.event.sessionId === sessionId).map((row) => ({ ...row }))),
		waiting: (limit, personId, afterSeq = -1) =>
			Promise.resolve(
				rows
					.filter(
						(row) =>
							row.status === 'waiting' && row.event.deviceSeq > afterSeq && (row.personId ?? personId) === personId,
					)
					.slice(0, limit)
					.map((row) => row.event),
			),
		waitingCount: () => Promise.resolve(rows.filter((row) => row.status === 'waiting').length),
		settle: (_sent, _personId, answers) => {
			for (const answer of answers) {
				const row = rows.find((candidate) => candidate.event.id === answer.id)
				if (row) Object.assign(row, settled(answer))
			}
			return Promise.resolve()
		},
		handOver: (personId) => {
			const others = rows.filter(
				(row) => row.status === 'waiting' && row.personId !== null && row.personId !== personId,
			)
			for (const row of others) row.personId = personId
			return Promise.resolve(others.length)
		},
		dismiss: (id) => {
			const at = rows.findIndex((row) => row.event.id === id)
			if (at >= 0) rows.splice(at, 1)
			return Promise.resolve()
		},
		packs: () => Promise.resolve([...packs.values()]),
		pack: (sessionId) => Promise.resolve(packs.get(sessionId) ?? null),
		putPacks: (added, at) => {
			for (const pack of added) packs.set(pack.sheet.session.id, { ...pack, id: pack.sheet.session.id, fetchedAt: at })
			return Promise.resolve()
		},
		addRemote: (sessionId, events) => {
			const pack = packs.get(sessionId)
			const known = new Set(pack?.events.map(({ id }) => id))
			const fresh = events.filter(({ id }) => !known.has(id))
			if (pack) packs.set(sessionId, { ...pack, events: [...pack.events, ...fresh] })
			return Promise.resolve()
		},
		read: (key) => Promise.resolve(settings.get(key) as never),
		write: (key, value) => {
			settings.set(key, value)
			return Promise.resolve()
		},
		clear: () => {
			packs.clear()
			settings.delete('person')
			settings.delete('limits')
			rows.splice(0, rows.length, ...rows.filter((row) => row.status !== 'safe'))
			return Promise.resolve()
		},
	}
}
