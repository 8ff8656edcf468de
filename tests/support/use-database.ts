import type { Connection } from '../../db/connect'

/** Ends this process's one pool, so that the next use opens its own where DATABASE_URL points then. */
export async function closePool(): Promise<void> {
	const kept = globalThis as { dromosPool?: Connection['pool'] }
	await kept.dromosPool?.end()
	kept.dromosPool = undefined
}
