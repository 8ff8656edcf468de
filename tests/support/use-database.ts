import { database } from '../../server/database'

/** Ends this process's one pool, so that the next use opens its own where DATABASE_URL points then. */
export async function closePool(): Promise<void> {
	const kept = globalThis as { dromosConnection?: unknown }
	if (kept.dromosConnection) await database().pool.end()
	kept.dromosConnection = undefined
}
