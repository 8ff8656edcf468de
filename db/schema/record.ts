import { boolean, foreignKey, index, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import type { BatteryItem, Every } from '../../core/record/battery'
import type { Condition, TrialEntries, TrialKind, TrialPlan } from '../../core/record/trial'
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

/** Does something help these athletes? The question, and how it is asked. */
export const trial = mysqlTable(
	'trial',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		squadId: uuid('squad_id').notNull(),
		question: words('question', 200).notNull(),
		kind: code<TrialKind>('kind', 20).notNull(),
		plan: jsonOf<TrialPlan>('plan').notNull(),
		openedBy: uuid('opened_by').notNull(),
		openedAt: instant('opened_at').notNull(),
		/** Null while it goes on. */
		closedAt: instant('closed_at'),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({ name: 'trial_squad', columns: [t.clubId, t.squadId], foreignColumns: [squad.clubId, squad.id] }),
		index('trial_by_squad').on(t.clubId, t.squadId),
	],
)

/** A session of a trial, with the entries that stand for before, the treatment and after. */
export const trialSession = mysqlTable(
	'trial_session',
	{
		clubId: uuid('club_id').notNull(),
		trialId: uuid('trial_id').notNull(),
		sessionId: uuid('session_id').notNull(),
		entries: jsonOf<TrialEntries>('entries').notNull(),
		/** Who is with it and who without that day, by athlete. */
		conditions: jsonOf<Record<string, Condition>>('conditions').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.trialId, t.sessionId] }),
		index('trial_of_session').on(t.clubId, t.sessionId),
		foreignKey({
			name: 'trial_with_session',
			columns: [t.clubId, t.trialId],
			foreignColumns: [trial.clubId, trial.id],
		}),
		foreignKey({
			name: 'session_of_trial',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}).onDelete('cascade'),
	],
)

/** What a trial says of an athlete so far; made anew from the marks whenever they change. */
export const trialAnswer = mysqlTable(
	'trial_answer',
	{
		clubId: uuid('club_id').notNull(),
		trialId: uuid('trial_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		/** Opens what waits for an own trial. */
		helps: boolean('helps').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.trialId, t.athleteId] }),
		foreignKey({ name: 'answer_of_trial', columns: [t.clubId, t.trialId], foreignColumns: [trial.clubId, trial.id] }),
		index('answer_by_athlete').on(t.clubId, t.athleteId),
	],
)
