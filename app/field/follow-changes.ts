import type { KeptReading } from '#core/devices/schema'
import type { BodyLimits } from '#core/field/over-today'
import type { ToldEvent } from '#core/field/pack'

export interface Heard {
	events: ToldEvent[]
	readings: KeptReading[]
	/** What limits each athlete's body by now. */
	limits: Record<string, BodyLimits>
}
const LONGEST_WAIT_MS = 20_000
/** Somebody may have been hurt meanwhile: on a slow line what is sent is not waited for. */
const HEAD_START_MS = 1500

/**
 * Follows what others add to a session: one request after the other is held open by the server until
 * there is something. Stops while the page is hidden, waits longer after each failure.
 */
export class Follower {
	private stopped = false
	private since: string | null = null
	private readonly recent = new Map<string, number>()
	private running = false
	private failures = 0
	private abort: AbortController | null = null

	constructor(
		private readonly sessionId: string,
		/** What this device has sent itself need not be told to it. */
		private readonly deviceId: string,
		private readonly hear: (heard: Heard, clockOffsetMs: number) => Promise<void>,
		/** What goes first: to work out who is limited by what keeps the server from taking what waits here. */
		private readonly first: () => Promise<void>,
		private readonly post: (body: string, signal: AbortSignal) => Promise<Response> = (body, signal) =>
			fetch('/api/field/changes', { method: 'POST', headers: { 'content-type': 'application/json' }, body, signal }),
	) {}

	async follow(): Promise<void> {
		if (this.running) return
		this.running = true
		while (!this.stopped && document.visibilityState === 'visible') {
			await Promise.race([this.first(), new Promise((resolve) => setTimeout(resolve, HEAD_START_MS))])
			const asked = Date.now()
			try {
				this.abort = new AbortController()
				const timer = setTimeout(() => this.abort?.abort(), 30_000)
				const response = await this.post(
					JSON.stringify({
						sessionId: this.sessionId,
						since: this.since,
						deviceId: this.deviceId,
						seen: [...this.recent.keys()],
					}),
					this.abort.signal,
				)
				clearTimeout(timer)
				if (!response.ok) throw new Error(`the server answered ${response.status}`)
				const answer = (await response.json()) as Heard & { serverNow: string; heard: string[] }
				const serverNow = Date.parse(answer.serverNow)
				for (const id of [...answer.heard, ...answer.readings.map((one) => one.id)]) this.recent.set(id, serverNow)
				for (const [id, at] of this.recent) if (at < serverNow - 60_000) this.recent.delete(id)
				await this.hear(answer, serverNow - Date.now())
				this.since = answer.serverNow
				this.failures = 0
			} catch {
				this.failures += 1
				if (!this.stopped)
					await new Promise((resolve) =>
						setTimeout(
							resolve,
							Math.max(0, Math.min(LONGEST_WAIT_MS, 1000 * 2 ** (this.failures - 1)) - (Date.now() - asked)),
						),
					)
			}
		}
		this.running = false
	}

	stop(): void {
		this.stopped = true
		this.abort?.abort()
	}
}
