import { getTableColumns, getTableName, sql } from 'drizzle-orm'
import type { MySqlTable } from 'drizzle-orm/mysql-core'
import mysql from 'mysql2/promise'
import type { Queryable } from './connect'

/** Many rows in one statement; a row whose id stands already changes nothing. */
export const bulkInsertOnce = <T extends MySqlTable>(
	db: Queryable,
	table: T,
	rows: readonly T['$inferInsert'][],
): Promise<void> => insert(db, table, rows, ' on duplicate key update id = id')

/** Many rows in one statement. Throws, and writes none of them, where one stands already. */
export const bulkInsert = <T extends MySqlTable>(
	db: Queryable,
	table: T,
	rows: readonly T['$inferInsert'][],
): Promise<void> => insert(db, table, rows, '')

/**
 * The schema says how each value is written and the driver escapes it; a statement object for each value, as an
 * ordinary insert makes it, costs more than the rows themselves where hundreds come at once.
 */
async function insert<T extends MySqlTable>(
	db: Queryable,
	table: T,
	rows: readonly T['$inferInsert'][],
	whereThere: string,
): Promise<void> {
	if (rows.length === 0) return
	const columns = Object.entries(getTableColumns(table))
	const values = rows.map((row) =>
		columns.map(([key, column]) => {
			const said = (row as Record<string, unknown>)[key]
			// What a row does not say is as the schema has it; no table that is written here computes its defaults.
			const value = said === undefined ? column.default : said
			return value === undefined || value === null
				? null
				: (column.mapToDriverValue(value) as string | number | boolean)
		}),
	)
	await db.execute(
		sql.raw(
			mysql.format(
				`insert into ?? (??) values ?${whereThere}`,
				[String(getTableName(table)), columns.map(([, column]) => column.name), values],
				false,
				'Z',
			),
		),
	)
}
