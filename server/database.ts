import { type ClubScope, type Connection, connect } from '../db/connect'

const kept = globalThis as typeof globalThis & { dromosConnection?: Connection }

/** The one pool of this process; kept across hot reloads in development. */
export function database(): Connection {
	const url = process.env.DATABASE_URL
	if (!url) throw new Error('DATABASE_URL is not set: the start command sets it')
	kept.dromosConnection ??= connect(url)
	return kept.dromosConnection
}

export const scopeOf = (clubId: string): ClubScope => ({ db: database().db, clubId })
