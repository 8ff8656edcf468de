import { type MySql2Database, drizzle } from 'drizzle-orm/mysql2'
import mysql from 'mysql2/promise'
import { asking } from './asking'
import { isOf, notingDatabase } from './noted-writes'

export type Database = MySql2Database<Record<string, never>>
/** A transaction offers the same queries. */
export type Queryable = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>

/** A club's part of the database: what every query asks for first, so that none can be written without a club. */
export interface ClubScope {
	db: Queryable
	clubId: string
}

export interface Connection {
	db: Database
	pool: mysql.Pool
}

/**
 * Opens a pool. Instants travel as UTC whatever zone the process or the server has, bad values are
 * errors instead of being bent, and a replayed insert counts as 0 affected rows.
 */
export function openPool(url: string): mysql.Pool {
	const pool = mysql.createPool({
		uri: url,
		timezone: 'Z',
		flags: ['-FOUND_ROWS'],
		connectionLimit: 10,
		enableKeepAlive: true,
	})
	pool.pool.on('connection', (connection) => {
		connection.query(
			"set session time_zone = '+00:00', session sql_mode = 'TRADITIONAL,ONLY_FULL_GROUP_BY,NO_ENGINE_SUBSTITUTION'",
		)
	})
	return pool
}

/** Queries over a pool, which count what they write. */
export const over = (pool: mysql.Pool): Connection => ({
	db: notingDatabase(drizzle({ client: asking(pool) }) as unknown as Database),
	pool,
})

export const connect = (url: string): Connection => over(openPool(url))

/** The numbers MariaDB gives the errors that are acted on. */
export const DUPLICATE_KEY = 1062
const DEADLOCK = 1213
const LOCK_WAIT = 1205

export function errorNumber(error: unknown): number | undefined {
	for (let at: unknown = error; at instanceof Error; at = at.cause) {
		if ('errno' in at && typeof at.errno === 'number') return at.errno
	}
	return undefined
}

/** Runs work in one transaction; a deadlock or a lock wait rolls back whole and is tried again. */
export async function inTransaction<T>(
	db: Database,
	clubId: string,
	work: (scope: ClubScope) => Promise<T>,
): Promise<T> {
	for (let tries = 1; ; tries++) {
		try {
			return await db.transaction(async (tx) => {
				isOf(tx, clubId)
				return await work({ db: tx, clubId })
			})
		} catch (error) {
			const errno = errorNumber(error)
			if (tries >= 4 || (errno !== DEADLOCK && errno !== LOCK_WAIT)) throw error
		}
	}
}
