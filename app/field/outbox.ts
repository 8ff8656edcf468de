import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { EventAnswer, LogEvent } from '#core/events/schema'

/** An event on this device: written here before the screen says so, sent in the background. */
export interface Kept {
	event: LogEvent
	status: 'waiting' | 'safe' | 'refused'
	reason?: string
}

interface OutboxDb extends DBSchema {
	events: { key: string; value: Kept & { id: string; sessionId: string; seq: number }; indexes: { bySession: string; byStatus: string } }
	device: { key: string; value: string | number }
}

/** What the field screen asks of a store; the same log can be kept in memory where the browser has no database. */
export interface Outbox {
	/** False when nothing survives a reload. */
	lasting: boolean
	deviceId: string
	/** Writes events with the next sequence numbers, all or none. */
	add: (make: (deviceSeq: number) => LogEvent[]) => Promise<LogEvent[]>
	ofSession: (sessionId: string) => Promise<Kept[]>
	waiting: (limit: number) => Promise<LogEvent[]>
	settle: (answers: readonly EventAnswer[]) => Promise<void>
	/** A refused event stays until somebody takes it off by hand. */
	dismiss: (id: string) => Promise<void>
}

const NAME = 'dromos-field'

export async function openOutbox(newId: () => string): Promise<Outbox> {
	try {
		return await openLasting(newId)
	} catch {
		return memoryOutbox(newId)
	}
}

async function openLasting(newId: () => string): Promise<Outbox> {
	// A new version gets a new case below; one that has shipped is never edited.
	const db: IDBPDatabase<OutboxDb> = await openDB<OutboxDb>(NAME, 1, {
		upgrade(made, oldVersion) {
			if (oldVersion < 1) {
				const events = made.createObjectStore('events', { keyPath: 'id' })
				events.createIndex('bySession', 'sessionId')
				events.createIndex('byStatus', 'status')
				made.createObjectStore('device')
			}
		},
		blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
	})
	const claim = db.transaction('device', 'readwrite')
	const known = await claim.store.get('id')
	const deviceId = typeof known === 'string' ? known : newId()
	if (known === undefined) await claim.store.put(deviceId, 'id')
	await claim.done

	return {
		lasting: true,
		deviceId,
		async add(make) {
			const tx = db.transaction(['events', 'device'], 'readwrite', { durability: 'strict' })
			const next = Number((await tx.objectStore('device').get('seq')) ?? 0)
			const events = make(next)
			await tx.objectStore('device').put(next + events.length, 'seq')
			for (const event of events) await tx.objectStore('events').add({ id: event.id, sessionId: event.sessionId, seq: event.deviceSeq, event, status: 'waiting' })
			await tx.done
			return events
		},
		async ofSession(sessionId) {
			return (await db.getAllFromIndex('events', 'bySession', sessionId)).sort((a, b) => a.seq - b.seq)
		},
		async waiting(limit) {
			return (await db.getAllFromIndex('events', 'byStatus', 'waiting')).sort((a, b) => a.seq - b.seq).slice(0, limit).map((row) => row.event)
		},
		async settle(answers) {
			const tx = db.transaction('events', 'readwrite')
			for (const answer of answers) {
				const row = await tx.store.get(answer.id)
				if (row) await tx.store.put({ ...row, ...settled(answer) })
			}
			await tx.done
		},
		async dismiss(id) {
			await db.delete('events', id)
		},
	}
}

const settled = (answer: EventAnswer): Pick<Kept, 'status' | 'reason'> =>
	answer.outcome === 'refused' ? { status: 'refused', reason: `${answer.field ? `${answer.field}: ` : ''}${answer.reason}` } : { status: 'safe' }

export function memoryOutbox(newId: () => string): Outbox {
	const rows: Kept[] = []
	let seq = 0
	return {
		lasting: false,
		deviceId: newId(),
		add: (make) => {
			const events = make(seq)
			seq += events.length
			rows.push(...events.map((event): Kept => ({ event, status: 'waiting' })))
			return Promise.resolve(events)
		},
		ofSession: (sessionId) => Promise.resolve(rows.filter((row) => row.event.sessionId === sessionId)),
		waiting: (limit) => Promise.resolve(rows.filter((row) => row.status === 'waiting').slice(0, limit).map((row) => row.event)),
		settle: (answers) => {
			for (const answer of answers) {
				const row = rows.find((candidate) => candidate.event.id === answer.id)
				if (row) Object.assign(row, settled(answer))
			}
			return Promise.resolve()
		},
		dismiss: (id) => {
			const at = rows.findIndex((row) => row.event.id === id)
			if (at >= 0) rows.splice(at, 1)
			return Promise.resolve()
		},
	}
}
