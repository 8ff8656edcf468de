import { getTableName } from 'drizzle-orm'
import type mysql from 'mysql2/promise'
import { Answers, answersHere } from './read-once'
import { changeCount } from './schema/changes'

interface Asked {
	sql: string
	/** Set where rows are read. */
	rowsAsArray?: boolean
}
type Ask = (asked: Asked, values: unknown[]) => Promise<unknown>

/** What is counted all the time, because others write meanwhile. */
const COUNTS = getTableName(changeCount)

/**
 * A pool as the queries ask it. They would read days and instants as text by a function that is called for every value of
 * every row: the driver does the same when it is told once. What is read of the database while
 * one value is worked out is asked once, and in a transaction once until it writes.
 */
export function asking(pool: mysql.Pool): mysql.Pool {
	const onPool = asText(pool)
	const query: Ask = (asked, values) => {
		const answers = asked.rowsAsArray && !asked.sql.includes(COUNTS) ? answersHere() : undefined
		return answers ? answers.get(questionOf(asked, values), () => onPool(asked, values)) : onPool(asked, values)
	}
	return replaced(pool, { query, getConnection: async () => inTransaction(await pool.getConnection()) })
}

/** A connection that was taken for a transaction: it sees the database as it was at its first question, and what it writes itself. */
function inTransaction(connection: mysql.PoolConnection): mysql.PoolConnection {
	const ask = asText(connection)
	let answers = new Answers('')
	const query: Ask = (asked, values) => {
		const isRead = asked.rowsAsArray && !/ for update\b/.test(asked.sql)
		if (isRead) return answers.get(questionOf(asked, values), () => ask(asked, values))
		answers = new Answers('')
		return ask(asked, values)
	}
	return replaced(connection, { query })
}

const asText =
	(client: Pick<mysql.Connection, 'query'>): Ask =>
	({ sql, rowsAsArray }, values) =>
		client.query({ sql, rowsAsArray, dateStrings: true }, values)
const questionOf = ({ sql }: Asked, values: unknown[]): string => `${sql}\n${JSON.stringify(values)}`

/** An object with some methods of its own instead. */
const replaced = <T extends object>(target: T, own: object): T =>
	new Proxy(target, {
		get(of, name) {
			const value: unknown = name in own ? own[name as keyof typeof own] : Reflect.get(of, name, of)
			return typeof value === 'function' ? (value as (...args: unknown[]) => unknown).bind(of) : value
		},
	})
