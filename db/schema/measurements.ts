import { boolean, char, foreignKey, index, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import { code, day, instant, jsonOf, uuid } from './columns'
import { athlete } from './people'

/**
 * What was measured outside a session, at the bench: the input of one calculation and how it was taken.
 * Append-only like the log: taking one back is a new row that names it. The result is not stored, it
 * follows from the input.
 */
export const measurement = mysqlTable(
	'measurement',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		authorId: uuid('author_id').notNull(),
		takenOn: day('taken_on').notNull(),
		calculation: code('calculation', 40).notNull(),
		method: code('method', 20).notNull(),
		input: jsonOf<Record<string, unknown>>('input').notNull(),
		/** The rep it was taken of; null at the bench itself. No foreign key: a rep may be corrected under a new id. */
		markId: uuid('mark_id'),
		replacesId: uuid('replaces_id'),
		isVoid: boolean('is_void').notNull(),
		contentHash: char('content_hash', { length: 64 }).notNull(),
		receivedAt: instant('received_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'measurement_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('measurement_by_athlete').on(t.clubId, t.athleteId, t.takenOn),
		index('measurement_of_mark').on(t.clubId, t.markId),
		index('measurement_replaces').on(t.clubId, t.replacesId),
	],
)
