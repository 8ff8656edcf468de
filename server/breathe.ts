import { performance } from 'node:perf_hooks'
import { setImmediate as next } from 'node:timers/promises'

/** So long a piece of work may have the process to itself. */
const MOST_MS = 12
let heldSince = 0

/** Said between the pieces of long work: when others have waited long enough, what they have asked for goes first. */
export async function breathe(): Promise<void> {
	if (performance.now() - heldSince < MOST_MS) return
	await next()
	heldSince = performance.now()
}
