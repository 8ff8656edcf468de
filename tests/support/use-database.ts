import { database } from '../../server/database'

/** Points this process's one pool at a database for some work, and leaves none open behind: the next use opens its own. */
export async function withDatabaseAt<T>(url: string, work: () => Promise<T>): Promise<T> {
	const kept = globalThis as { dromosConnection?: unknown }
	const before = process.env.DATABASE_URL
	if (kept.dromosConnection) await database().pool.end()
	kept.dromosConnection = undefined
	process.env.DATABASE_URL = url
	try {
		return await work()
	} finally {
		if (kept.dromosConnection) await database().pool.end()
		kept.dromosConnection = undefined
		if (before === undefined) delete process.env.DATABASE_URL
		else process.env.DATABASE_URL = before
	}
}
