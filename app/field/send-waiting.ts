import { MAX_BATCH, MAX_CHARACTERS } from '#core/vocabulary/event-kinds'
import type { EventAnswer, LogEvent } from '#core/vocabulary/events'
import type { DeviceStore } from './device-store'

export type SendState = 'idle' | 'sending' | 'no-connection' | 'sign-in-again' | 'somebody-else'

/** A connection that has just come back often fails the first that is asked of it: the next try comes before a look at the screen. */
const FIRST_WAIT_MS = 200
const LONGEST_WAIT_MS = 30_000
/**
 * How many go last of a long queue. What was answered last is written down on the device while nothing else is left to do,
 * a fifth of a millisecond each; what was answered before, while the next ones are on their way.
 */
const LAST = 300

/** Sends what waits, in order, in batches; retries slower after each failure. */
export class Sender {
	private underWay: Promise<void> | null = null
	private again = false
	private failures = 0
	private timer: ReturnType<typeof setTimeout> | undefined
	private stopped = false

	constructor(
		private readonly store: Pick<DeviceStore, 'waiting' | 'settle'>,
		private readonly personId: () => string | null,
		private readonly tell: (state: SendState, answers: readonly EventAnswer[]) => void,
		private readonly post: (body: string) => Promise<Response> = (body) =>
			fetch('/api/events', {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body,
				signal: AbortSignal.timeout(20_000),
			}),
	) {}

	/** Asks for a round now; a round already under way takes the new events with it. Resolves when it is over. */
	send(): Promise<void> {
		if (this.stopped) return Promise.resolve()
		if (this.underWay) this.again = true
		else this.underWay = this.round()
		return this.underWay
	}

	/** Resolves when no round is under way. */
	over(): Promise<void> {
		return this.underWay ?? Promise.resolve()
	}

	private async round(): Promise<void> {
		clearTimeout(this.timer)
		try {
			do {
				this.again = false
				await this.sendAll()
			} while (this.again)
			this.failures = 0
			this.tell('idle', [])
		} catch (error) {
			this.failures += 1
			this.tell(error instanceof Refused ? error.state : 'no-connection', [])
			// Somebody signing in again, or the right one, is told by a reload; asking on costs little.
			this.timer = setTimeout(
				() => void this.send(),
				Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (this.failures - 1)),
			)
		} finally {
			this.underWay = null
		}
	}

	stop(): void {
		this.stopped = true
		clearTimeout(this.timer)
	}

	/** The next batch is on its way while the answers of the last one are written down; whatever happens then is sent again, which changes nothing. */
	private async sendAll(): Promise<void> {
		let settling: Promise<void> = Promise.resolve()
		try {
			const personId = this.personId()
			let events = await this.store.waiting(MAX_BATCH + LAST, personId)
			while (events.length > 0) {
				const { sent, body } = fitting(nextOf(events), personId)
				this.tell('sending', [])
				const posting = this.post(body)
				// Read before the answers are written: the store does one thing after the other.
				const [response, next] = await Promise.all([
					posting,
					this.store.waiting(MAX_BATCH + LAST, personId, sent.at(-1)!.deviceSeq),
				])
				if (response.status === 401) throw new Refused('sign-in-again')
				if (response.status === 409) throw new Refused('somebody-else')
				if (!response.ok) throw new Error(`the server answered ${response.status}`)
				const { answers } = (await response.json()) as { answers: EventAnswer[] }
				// An answer that settles nothing would be asked for for ever.
				if (!answers.some((answer) => sent.some((event) => event.id === answer.id)))
					throw new Error('the server answered nothing that was asked')
				settling = settling.then(async () => {
					await this.store.settle(sent, personId, answers)
					this.tell('sending', answers)
				})
				events = next
			}
		} finally {
			await settling
		}
	}
}

/** Those that go next of the oldest that wait. */
const nextOf = (events: readonly LogEvent[]): readonly LogEvent[] =>
	events.length > 2 * LAST ? events.slice(0, Math.min(MAX_BATCH, events.length - LAST)) : events

/** As many of the events as one request may hold, the first whatever its length: what the server finds too long it would never take. */
function fitting(events: readonly LogEvent[], personId: string | null): { sent: readonly LogEvent[]; body: string } {
	const body = JSON.stringify({ events, ...(personId ? { personId } : {}) })
	return body.length <= MAX_CHARACTERS || events.length === 1
		? { sent: events, body }
		: fitting(events.slice(0, Math.ceil(events.length / 2)), personId)
}

class Refused extends Error {
	constructor(readonly state: 'sign-in-again' | 'somebody-else') {
		super(state)
	}
}
