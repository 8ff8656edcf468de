import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react'
import { v7 as newId } from 'uuid'
import type { KeptReading } from '#core/devices/schema'
import { foldEvents } from '#core/events/fold'
import type { BodyLimits } from '#core/field/over-today'
import { type Write, stampWrite } from '#core/field/session/writes'
import type { ToldEvent } from '#core/field/pack'
import type { LogEvent } from '#core/vocabulary/events'
import type { DeviceStore, Kept } from './device-store'
import { Follower } from './follow-changes'
import { NOTHING, type OnDevice, answered, withRows } from './on-device'
import { type SendState, Sender } from './send-waiting'

export interface SessionLog {
	/** False until the device's store has been read. */
	ready: boolean
	current: LogEvent[]
	/** Every event known, replaced ones too: the history of a mark. */
	all: ToldEvent[]
	/** Corrections that contradict each other: a question for whoever holds the phone. */
	conflicts: LogEvent[][]
	readings: KeptReading[]
	/** What limits each athlete's body, as the server last said it: by anybody, from anywhere. */
	limits: Record<string, BodyLimits>
	waiting: number
	/** Of them those that somebody else logged who used this phone before. */
	ofOthers: number
	safe: number
	refused: Kept[]
	state: SendState
	/** This device's clock, put right by the server's. */
	now: () => number
	/** Resolves when all of it is on the device; all or nothing. Throws when the device cannot keep it. */
	write: (writes: readonly Write[]) => Promise<LogEvent[]>
	/** Sends what somebody else logged here as whoever is signed in. */
	handOver: () => Promise<void>
	dismiss: (id: string) => Promise<void>
	send: () => void
}

/** The session's log on this device: what the server knew, what others add, and what was tapped here. */
export function useSessionLog(
	store: DeviceStore,
	sessionId: string,
	fromPack: readonly ToldEvent[],
	personId: string | null,
): SessionLog {
	const sender = useRef<Sender | null>(null)
	const offsetMs = useRef(0)
	const person = useRef(personId)
	const [{ rows: kept, events: own }, setKept] = useReducer(
		(before: OnDevice, change: (rows: readonly Kept[]) => readonly Kept[]) => withRows(before, change(before.rows)),
		NOTHING,
	)
	const [remote, setRemote] = useState<readonly ToldEvent[]>([])
	const [readings, setReadings] = useState<KeptReading[]>([])
	const [limits, setLimits] = useState<Record<string, BodyLimits>>({})
	const [ready, setReady] = useState(false)
	const [state, setState] = useState<SendState>('idle')

	useEffect(() => {
		person.current = personId
	}, [personId])

	useEffect(() => {
		let gone = false
		const sending = new Sender(
			store,
			() => person.current,
			(next, answers) => {
				setState(next)
				if (answers.length > 0) setKept((rows) => answered(rows, answers))
			},
		)
		sender.current = sending
		const follower = new Follower(
			sessionId,
			store.deviceId,
			async ({ events, readings: heard, limits: told }, offset) => {
				offsetMs.current = offset
				await store.write('clockOffsetMs', offset)
				if (events.length > 0) {
					await store.addRemote(sessionId, events)
					setRemote((known) => [...known, ...events])
				}
				if (heard.length > 0) setReadings((known) => [...known, ...heard])
				await store.write('limits', { sessionId, limits: told })
				// Asked again and again, it is mostly the same.
				setLimits((known) => (JSON.stringify(known) === JSON.stringify(told) ? known : told))
				void sending.send()
			},
			() => sending.over(),
		)
		const wake = () => {
			void sending.send()
			void follower.follow()
		}
		void (async () => {
			offsetMs.current = (await store.read('clockOffsetMs')) ?? 0
			const rows = await store.ofSession(sessionId)
			const kept = await store.read('limits')
			if (!gone && kept?.sessionId === sessionId) setLimits(kept.limits)
			if (gone) return
			setKept(() => rows)
			setReady(true)
			wake()
		})()
		window.addEventListener('online', wake)
		document.addEventListener('visibilitychange', wake)
		return () => {
			gone = true
			window.removeEventListener('online', wake)
			document.removeEventListener('visibilitychange', wake)
			sending.stop()
			follower.stop()
		}
	}, [store, sessionId])

	const write = useCallback(
		async (writes: readonly Write[]) => {
			const deviceTime = new Date(Date.now() + offsetMs.current).toISOString()
			const rows = await store.add(person.current, (seq) =>
				writes.map((one, index) =>
					stampWrite(one, {
						id: newId() as LogEvent['id'],
						sessionId: sessionId as LogEvent['sessionId'],
						deviceId: store.deviceId as LogEvent['deviceId'],
						deviceSeq: seq + index,
						deviceTime,
					}),
				),
			)
			// For the measuring of how long a tap takes to be safe on the device.
			performance.mark('field:stored')
			setKept((known) => [...known, ...rows])
			void sender.current?.send()
			return rows.map((row) => row.event)
		},
		[store, sessionId],
	)

	const handOver = useCallback(async () => {
		const mine = person.current
		if (mine === null) return
		await store.handOver(mine)
		setKept((rows) =>
			rows.map((row) => (row.status === 'waiting' && row.personId !== null ? { ...row, personId: mine } : row)),
		)
		void sender.current?.send()
	}, [store])

	const dismiss = useCallback(
		async (id: string) => {
			await store.dismiss(id)
			setKept((rows) => rows.filter((row) => row.event.id !== id))
		},
		[store],
	)

	const all = useMemo(() => {
		const byId = new Map<string, ToldEvent>()
		for (const event of [...fromPack, ...remote, ...own]) byId.set(event.id, event)
		return [...byId.values()]
	}, [fromPack, remote, own])
	const folded = useMemo(() => foldEvents(all), [all])
	const waiting = kept.filter((row) => row.status === 'waiting').length
	const ofOthers = kept.filter(
		(row) => row.status === 'waiting' && row.personId !== null && personId !== null && row.personId !== personId,
	).length
	return {
		ready,
		state,
		write,
		dismiss,
		readings,
		limits,
		all,
		current: folded.current,
		conflicts: folded.conflicts.filter((heads) => heads[0]?.kind !== 'queue'),
		waiting,
		ofOthers,
		handOver,
		safe: all.length - waiting,
		refused: kept.filter((row) => row.status === 'refused'),
		now: () => Date.now() + offsetMs.current,
		send: () => void sender.current?.send(),
	}
}
