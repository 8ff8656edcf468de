import { char, customType, index, int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import { code, instant, jsonOf, uuid } from './columns'

const bytes = customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'mediumblob' })

/** A form as it was sent, and what was answered: sent twice it is one. Kept for two days. */
export const submission = mysqlTable(
	'submission',
	{
		clubId: uuid('club_id').notNull(),
		/** Hash of who sent what where: the form's own submission id is part of it. */
		hash: char('hash', { length: 64 }).notNull(),
		at: instant('at').notNull(),
		/** Null while it is being worked on. */
		status: int('status'),
		headers: jsonOf<[string, string][]>('headers'),
		body: bytes('body'),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.hash] }), index('submission_by_time').on(t.clubId, t.at)],
)

export type RecordKind =
	| 'session'
	| 'athlete'
	| 'squad'
	| 'school'
	| 'drill'
	| 'ladder'
	| 'level'
	| 'contact'
	| 'place'
	| 'person'
	| 'ground'
	| 'club'

/** How often an editable record was saved, and by whom last: a form that was filled from an older version is asked first. */
export const recordVersion = mysqlTable(
	'record_version',
	{
		clubId: uuid('club_id').notNull(),
		kind: code<RecordKind>('kind', 20).notNull(),
		recordId: code('record_id', 64).notNull(),
		version: int('version').notNull(),
		changedBy: uuid('changed_by').notNull(),
		changedAt: instant('changed_at').notNull(),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.kind, t.recordId] })],
)
