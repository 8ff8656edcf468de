import { boolean, decimal, foreignKey, index, int, mysqlTable, primaryKey, unique, char } from 'drizzle-orm/mysql-core'
import type { REPORT_MOMENTS, ReportKind, ReportSide, Restriction } from '../../core/vocabulary/care'
import type { Family, Pattern, Region } from '../../core/vocabulary/words'
import type { Lift, OutsideKind } from '../../core/judge/outside-load'
import type { LadderState } from '../../core/judge/types'
import type { RuleId } from '../../core/rules/rule'
import { code, day, instant, jsonOf, uuid, words } from './columns'
import { athlete } from './people'
import { session } from './sessions'

/** `known`: a discomfort of 1 or 2 that a health professional accepts on the way back. */
export type CareKind = 'restriction' | 'worry' | 'illness' | 'known'

/**
 * What stands in the way of an athlete, or is accepted: a restriction, a worry about a movement, an illness. It is opened
 * once and ended once, each with who said so; nothing else about it ever changes.
 */
export const careRecord = mysqlTable(
	'care_record',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		kind: code<CareKind>('kind', 20).notNull(),
		/** Everything only where it was closed by hand. */
		region: code<Restriction['region'] & string>('region', 20),
		pattern: code<Pattern>('pattern', 20),
		/** The movement a worry is about, or that was closed by hand. */
		drillId: code('drill_id'),
		note: words('note', 500).notNull(),
		fromDay: day('from_day').notNull(),
		setBy: words('set_by').notNull(),
		setByRole: words('set_by_role').notNull(),
		recordedBy: uuid('recorded_by').notNull(),
		recordedAt: instant('recorded_at').notNull(),
		endedOn: day('ended_on'),
		endedBy: words('ended_by'),
		endedByRole: words('ended_by_role'),
		endRecordedBy: uuid('end_recorded_by'),
		endRecordedAt: instant('end_recorded_at'),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'care_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('care_by_athlete').on(t.clubId, t.athleteId),
	],
)

/** What is said of an athlete's body away from a session's log: head, chest, soreness. What was pressed by mistake is void. */
export const careEvent = mysqlTable(
	'care_event',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		sessionId: uuid('session_id'),
		drillId: code('drill_id'),
		kind: code<ReportKind>('kind', 20).notNull(),
		region: code<Region>('region', 20),
		side: code<ReportSide>('side', 5),
		score: int('score'),
		/** Before, during, or the day after. */
		moment: code<(typeof REPORT_MOMENTS)[number]>('moment', 10),
		redFlag: boolean('red_flag').notNull(),
		asked: boolean('asked').notNull(),
		day: day('day').notNull(),
		note: words('note', 500).notNull(),
		/** Does not count: a slip, another athlete's, or taken back before it had closed anything. */
		isVoid: boolean('is_void').notNull(),
		authorId: uuid('author_id').notNull(),
		receivedAt: instant('received_at').notNull(),
		/** Taken back by whom and why; what had closed somebody counts on until it is cleared. */
		withdrawnBy: uuid('withdrawn_by'),
		withdrawnAt: instant('withdrawn_at'),
		withdrawnReason: words('withdrawn_reason', 500),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'care_event_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('care_event_by_athlete').on(t.clubId, t.athleteId, t.day),
	],
)

/** Days on which work of a family was done: kept beside the log, made anew in the transaction that changes it. */
export const workDay = mysqlTable(
	'work_day',
	{
		clubId: uuid('club_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		family: code<Family>('family', 20).notNull(),
		day: day('day').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.athleteId, t.family, t.day] }),
		foreignKey({
			name: 'work_day_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
	],
)

/** Matches, practice and gym outside the sessions of this program; taking one back marks it void. */
export const outsideLoad = mysqlTable(
	'outside_load',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		kind: code<OutsideKind>('kind', 20).notNull(),
		day: day('day').notNull(),
		startTime: char('start_time', { length: 5 }).notNull(),
		minutes: int('minutes').notNull(),
		rpe: decimal('rpe', { precision: 3, scale: 1, mode: 'number' }),
		hardRunning: boolean('hard_running').notNull(),
		hardCutting: boolean('hard_cutting').notNull(),
		hardJumping: boolean('hard_jumping').notNull().default(false),
		/** Of the gym; null where nobody said. */
		lifts: jsonOf<readonly Lift[] | null>('lifts'),
		isVoid: boolean('is_void').notNull(),
		recordedBy: uuid('recorded_by').notNull(),
		recordedAt: instant('recorded_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		/** Entered twice for one day and time is entered once. */
		unique('outside_once').on(t.clubId, t.athleteId, t.kind, t.day, t.startTime),
		foreignKey({
			name: 'outside_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('outside_by_athlete').on(t.clubId, t.athleteId, t.day),
	],
)

/** A caution a coach has seen and answered, by name and time, before going on. */
export const acknowledgement = mysqlTable(
	'acknowledgement',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		sessionId: uuid('session_id').notNull(),
		rule: code<RuleId>('rule', 5).notNull(),
		/** What it was an answer to; empty in rows of before, which have only the sentence. */
		finding: words('finding', 300).notNull().default(''),
		/** The sentence that was shown. */
		sentence: words('sentence', 500).notNull(),
		reason: words('reason', 500).notNull(),
		personId: uuid('person_id').notNull(),
		at: instant('at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'acknowledged_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		index('acknowledged_by_session').on(t.clubId, t.sessionId),
	],
)

/** A move on a ladder by a coach's hand, with the reason; verdicts hold the others. */
export const ladderMove = mysqlTable(
	'ladder_move',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		ladderId: code('ladder_id').notNull(),
		before: jsonOf<LadderState>('state_before').notNull(),
		after: jsonOf<LadderState>('state_after').notNull(),
		reason: words('reason', 500).notNull(),
		personId: uuid('person_id').notNull(),
		at: instant('at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'move_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('move_by_athlete').on(t.clubId, t.athleteId),
	],
)
