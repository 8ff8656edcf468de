import { boolean, foreignKey, index, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import type { BatteryItem, Every } from '../../core/record/battery'
import type { CauseId } from '../../core/record/why'
import { code, instant, jsonOf, uuid, words } from './columns'
import { athlete } from './people'
import { session } from './sessions'
import { squad } from './squads'

/** A squad's tests; taken off it stays with its results. */
export const battery = mysqlTable(
	'battery',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		squadId: uuid('squad_id').notNull(),
		name: words('name', 80).notNull(),
		every: code<Every>('every', 10).notNull(),
		/** In the order they are done. */
		items: jsonOf<BatteryItem[]>('items').notNull(),
		retired: boolean('retired').notNull(),
		madeBy: uuid('made_by').notNull(),
		madeAt: instant('made_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({ name: 'battery_squad', columns: [t.clubId, t.squadId], foreignColumns: [squad.clubId, squad.id] }),
		index('battery_by_squad').on(t.clubId, t.squadId),
	],
)

/** Sessions in which a battery is done; whatever is measured in them that it asks for is its result. */
export const batterySession = mysqlTable(
	'battery_session',
	{
		clubId: uuid('club_id').notNull(),
		batteryId: uuid('battery_id').notNull(),
		sessionId: uuid('session_id').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.batteryId, t.sessionId] }),
		foreignKey({
			name: 'battery_of_session',
			columns: [t.clubId, t.batteryId],
			foreignColumns: [battery.clubId, battery.id],
		}),
		foreignKey({
			name: 'session_of_battery',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}).onDelete('cascade'),
	],
)

/** What a coach said made a day of an athlete flat or good; unsaid, the row goes. */
export const namedCause = mysqlTable(
	'named_cause',
	{
		clubId: uuid('club_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		sessionId: uuid('session_id').notNull(),
		cause: code<CauseId>('cause', 20).notNull(),
		personId: uuid('person_id').notNull(),
		at: instant('at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.athleteId, t.sessionId, t.cause] }),
		foreignKey({
			name: 'named_cause_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		foreignKey({
			name: 'named_cause_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
	],
)
