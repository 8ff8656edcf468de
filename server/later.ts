import { performance } from 'node:perf_hooks'
import { setTimeout as wait } from 'node:timers/promises'

const later = new Map<string, () => Promise<unknown>>()
let isWorking = false
const PAUSE_TIMES = 2

/**
 * Work that nobody waits for, one piece after another. After each of them others have the thread to themselves for twice
 * as long as it took: while a group trains there is always a next one.
 *
 * @param key work that waits under the same key is not done; this is
 */
export function workOutLater(key: string, work: () => Promise<unknown>): void {
	later.set(key, work)
	if (!isWorking) void workOff()
}
async function workOff(): Promise<void> {
	isWorking = true
	for (let next = later.entries().next(); !next.done; next = later.entries().next()) {
		const [key, work] = next.value
		later.delete(key)
		const began = performance.now()
		// What fails is tried again when somebody asks.
		await work().catch(() => undefined)
		await wait(PAUSE_TIMES * (performance.now() - began))
	}
	isWorking = false
}
