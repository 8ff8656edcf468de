import { type ClubScope, type Connection, openPool, over } from '../db/connect'

const kept = globalThis as typeof globalThis & { dromosPool?: Connection['pool'] }
let own: Connection | undefined

/**
 * The one pool of this thread; kept across hot reloads in development. What counts the writes is this module's own: the
 * start command and the application it serves are built apart, and one does not know the other's transactions.
 */
export function database(): Connection {
	const url = process.env.DATABASE_URL
	if (!url) throw new Error('DATABASE_URL is not set: the start command sets it')
	kept.dromosPool ??= openPool(url)
	if (own?.pool !== kept.dromosPool) own = over(kept.dromosPool)
	return own
}

export const scopeOf = (clubId: string): ClubScope => ({ db: database().db, clubId })
