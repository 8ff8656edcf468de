import { boolean, decimal, foreignKey, index, int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import type { StoredPlan } from '../../core/plan/block'
import type { Placement } from '../../core/field-map/types'
import type { SessionTemplate } from '../../core/vocabulary/template'
import type { Surface } from '../../core/vocabulary/words'
import { code, day, instant, jsonOf, uuid, words } from './columns'
import { club } from './people'
import { session } from './sessions'
import { squad } from './squads'

/** A block as it was made; its sessions name it and then live their own lives. */
export const block = mysqlTable(
	'block',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		squadId: uuid('squad_id').notNull(),
		start: day('start_day').notNull(),
		weeks: int('weeks').notNull(),
		plan: jsonOf<StoredPlan>('plan').notNull(),
		madeBy: uuid('made_by').notNull(),
		madeAt: instant('made_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({ name: 'block_squad', columns: [t.clubId, t.squadId], foreignColumns: [squad.clubId, squad.id] }),
		index('block_by_squad').on(t.clubId, t.squadId, t.start),
	],
)

/** Sessions kept for another day, as open documents with nobody's name in them. */
export const sessionTemplate = mysqlTable(
	'session_template',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		name: words('name').notNull(),
		content: jsonOf<SessionTemplate>('content').notNull(),
		madeBy: uuid('made_by').notNull(),
		madeAt: instant('made_at').notNull(),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] })],
)

/** The club's grounds, paced out. */
export const ground = mysqlTable(
	'ground',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		name: words('name').notNull(),
		lengthM: decimal('length_m', { precision: 5, scale: 1, mode: 'number' }).notNull(),
		widthM: decimal('width_m', { precision: 5, scale: 1, mode: 'number' }).notNull(),
		surface: code<Surface>('surface', 20).notNull(),
		/** Taken off the club's page; the plans made on it stay, and it can be brought back. */
		off: boolean('off').notNull().default(false),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] })],
)

/** Where a session's stations stand on a ground; one plan for each ground it may be held on. */
export const layout = mysqlTable(
	'layout',
	{
		clubId: uuid('club_id').notNull(),
		sessionId: uuid('session_id').notNull(),
		groundId: uuid('ground_id').notNull(),
		placements: jsonOf<Placement[]>('placements').notNull(),
		changedAt: instant('changed_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.sessionId, t.groundId] }),
		foreignKey({
			name: 'layout_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		foreignKey({ name: 'layout_ground', columns: [t.clubId, t.groundId], foreignColumns: [ground.clubId, ground.id] }),
	],
)

/** Where help has to come to: the address of a place that squads and sessions name. */
export const placeAddress = mysqlTable(
	'place_address',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		/** As squads and sessions write it. */
		place: words('place').notNull(),
		address: words('address', 300).notNull(),
		changedBy: uuid('changed_by').notNull(),
		changedAt: instant('changed_at').notNull(),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.place] })],
)

/** What was taken off the calendar before it began, whole, so that it can be brought back. */
export const takenOff = mysqlTable(
	'taken_off',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		title: words('title').notNull(),
		sessionIds: jsonOf<string[]>('session_ids').notNull(),
		/** Rows by table, as they stood. */
		rows: jsonOf<Record<string, Record<string, unknown>[]>>('rows').notNull(),
		personId: uuid('person_id').notNull(),
		at: instant('at').notNull(),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] })],
)
