import { getTableName } from 'drizzle-orm'
import { type MySql2Database, drizzle } from 'drizzle-orm/mysql2'
import mysql from 'mysql2/promise'
import { isOf, notingDatabase } from './noted-writes'
import { answersHere } from './read-once'
import { changeCount } from './schema/changes'

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

interface Asked {
	sql: string
	rowsAsArray?: boolean
}
/** What is counted all the time, because others write meanwhile. */
const COUNTS = getTableName(changeCount)

/**
 * What the queries ask. They would read days and instants as text by a function that is called for every value of every
 * row, half of what a row takes; the driver does the same when it is told once. What is read in rows while one value is
 * worked out is asked once.
 */
function asking(pool: mysql.Pool): mysql.Pool {
	const ask =
		(client: Pick<mysql.Connection, 'query'>) =>
		({ sql, rowsAsArray }: Asked, values: unknown[]) =>
			client.query({ sql, rowsAsArray, dateStrings: true }, values)
	const onConnection = (connection: mysql.PoolConnection) => replaced(connection, { query: ask(connection) })
	const onPool = (asked: Asked, values: unknown[]) => {
		const answers = asked.rowsAsArray && !asked.sql.includes(COUNTS) ? answersHere() : undefined
		return answers
			? answers.get(`${asked.sql}\n${JSON.stringify(values)}`, () => ask(pool)(asked, values))
			: ask(pool)(asked, values)
	}
	return replaced(pool, { query: onPool, getConnection: async () => onConnection(await pool.getConnection()) })
}
/** An object with some methods of its own instead. */
const replaced = <T extends object>(target: T, own: object): T =>
	new Proxy(target, {
		get(of, name) {
			const value: unknown = name in own ? own[name as keyof typeof own] : Reflect.get(of, name, of)
			return typeof value === 'function' ? (value as (...args: unknown[]) => unknown).bind(of) : value
		},
	})

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
