import { bigint, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import { code } from './columns'

/**
 * How often what a club has on record was changed: a row counts what was logged in the sessions of a day, another what was
 * logged elsewhere, a third everything else. What was worked out of the records stands as long as its counts stand.
 */
export const changeCount = mysqlTable(
	'change_count',
	{
		/** A club’s id, or `every` for what was written with no club named. */
		clubId: code('club_id').notNull(),
		/** `rest`, `log`, `begun`, the day of a session, or that day and ` marks` or ` work` where nothing but marks was logged. */
		of: code('of', 16).notNull(),
		n: bigint('n', { mode: 'number' }).notNull(),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.of] })],
)
