import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { v7 as newId } from 'uuid'
import { foldEvents } from '#core/events/fold'
import type { LogEvent } from '#core/events/schema'
import { type Kept, type Outbox, openOutbox } from './outbox'
import { type SendState, Sender } from './send-waiting'

type Distribute<T> = T extends LogEvent ? Omit<T, 'id' | 'sessionId' | 'deviceId' | 'deviceSeq' | 'deviceTime'> : never
/** What the screen knows of an event; the log adds id, session, device, order and time. */
export type NewEvent = Distribute<LogEvent>

export interface SessionLog {
	/** False until the device's store has been read. */
	ready: boolean
	lasting: boolean
	current: LogEvent[]
	/** Corrections that contradict each other: a question for whoever holds the phone. */
	conflicts: LogEvent[][]
	waiting: number
	safe: number
	refused: Kept[]
	state: SendState
	/** Resolves when the events are on the device. Throws when the device cannot keep them. */
	write: (events: NewEvent[]) => Promise<LogEvent[]>
	takeBack: (events: readonly LogEvent[]) => Promise<void>
	dismiss: (id: string) => Promise<void>
}

/** The session's log on this device: what the server knew, and what was tapped here. */
export function useSessionLog(sessionId: string, fromServer: readonly LogEvent[]): SessionLog {
	const outbox = useRef<Outbox | null>(null)
	const sender = useRef<Sender | null>(null)
	const [kept, setKept] = useState<Kept[]>([])
	const [ready, setReady] = useState(false)
	const [lasting, setLasting] = useState(true)
	const [state, setState] = useState<SendState>('idle')

	const reread = useCallback(async () => {
		if (outbox.current) setKept(await outbox.current.ofSession(sessionId))
	}, [sessionId])

	useEffect(() => {
		let gone = false
		const wake = () => void sender.current?.send()
		void openOutbox(newId).then(async (opened) => {
			if (gone) return
			outbox.current = opened
			sender.current = new Sender(opened, (next) => {
				setState(next)
				void reread()
			})
			setLasting(opened.lasting)
			await reread()
			setReady(true)
			wake()
		})
		window.addEventListener('online', wake)
		return () => {
			gone = true
			window.removeEventListener('online', wake)
			sender.current?.stop()
		}
	}, [reread])

	const put = useCallback(async (make: (deviceId: string, seq: number) => LogEvent[]) => {
		const store = outbox.current
		if (!store) throw new Error('the device’s store is not open yet')
		const written = await store.add((seq) => make(store.deviceId, seq))
		await reread()
		void sender.current?.send()
		return written
	}, [reread])

	const write = useCallback((events: NewEvent[]) => put((deviceId, seq) => events.map((event, index) => ({
		...event, id: newId(), sessionId, deviceId, deviceSeq: seq + index, deviceTime: new Date().toISOString(),
	}) as LogEvent)), [put, sessionId])

	const takeBack = useCallback(async (events: readonly LogEvent[]) => {
		await put((deviceId, seq) => events.map((event, index) => ({ ...event, id: newId(), replacesId: event.id, void: true, deviceId, deviceSeq: seq + index, deviceTime: new Date().toISOString() })))
	}, [put])

	const dismiss = useCallback(async (id: string) => {
		await outbox.current?.dismiss(id)
		await reread()
	}, [reread])

	const folded = useMemo(() => foldEvents([...fromServer, ...kept.filter((row) => row.status !== 'refused').map((row) => row.event)]), [fromServer, kept])
	return {
		ready, lasting, state, write, takeBack, dismiss,
		current: folded.current,
		conflicts: folded.conflicts,
		waiting: kept.filter((row) => row.status === 'waiting').length,
		safe: kept.filter((row) => row.status === 'safe').length + fromServer.filter((event) => !kept.some((row) => row.event.id === event.id)).length,
		refused: kept.filter((row) => row.status === 'refused'),
	}
}
