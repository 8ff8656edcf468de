import { boolean, char, decimal, double, foreignKey, index, int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import type { CarriedLoad } from '../../core/vocabulary/dose'
import type { LogEvent } from '../../core/vocabulary/events'
import type { SparseCount } from '../../core/dose/sparse-count'
import { code, day, instant, jsonOf, uuid, words } from './columns'
import { athlete } from './people'
import { session } from './sessions'

/**
 * The append-only log, in three typed tables. Rows are never changed: a correction is a new row that
 * names the one it replaces. `replaces_id` has no foreign key, because a correction may arrive first.
 */
const eventColumns = () => ({
	clubId: uuid('club_id').notNull(),
	id: uuid('id').notNull(),
	sessionId: uuid('session_id').notNull(),
	athleteId: uuid('athlete_id').notNull(),
	authorId: uuid('author_id').notNull(),
	deviceId: uuid('device_id').notNull(),
	deviceSeq: int('device_seq').notNull(),
	deviceTime: instant('device_time').notNull(),
	receivedAt: instant('received_at').notNull(),
	replacesId: uuid('replaces_id'),
	isVoid: boolean('is_void').notNull(),
	contentHash: char('content_hash', { length: 64 }).notNull(),
	kind: code('kind', 20).notNull(),
	value: jsonOf<Record<string, unknown>>('value').notNull(),
})

export const MARK_KEY_LENGTH = 190

export const mark = mysqlTable(
	'mark',
	{
		...eventColumns(),
		entryId: uuid('entry_id').notNull(),
		lineId: uuid('line_id').notNull(),
		setNo: int('set_no').notNull(),
		repNo: int('rep_no').notNull(),
		side: code<'left' | 'right'>('side', 5),
		/** Stamped on arrival, so that a later library never re-counts or re-reads history. */
		drillId: code('drill_id').notNull(),
		start: code('start', 20),
		distanceM: decimal('distance_m', { precision: 8, scale: 3, mode: 'number' }),
		timeS: decimal('time_s', { precision: 8, scale: 4, mode: 'number' }),
		method: code('method', 20),
		/** The device run it was made from. */
		source: uuid('source'),
		/** Of a complex. */
		piece: int('piece'),
		/** Worn, when it was not what the line says. */
		carried: jsonOf<CarriedLoad>('carried'),
		/** Set when it was done as another drill than the line's: the version is the one it was counted by. */
		asDrillVersion: int('as_drill_version'),
		counts: jsonOf<SparseCount>('counts').notNull(),
		/** Said to be what was seen, although it can hardly be. */
		kept: boolean('kept').notNull().default(false),
		/** What it may be compared with, with the version of the keys; made anew by a correction of side or ground. */
		markKey: code('mark_key', MARK_KEY_LENGTH),
		/** Cannot be, and nobody has said that it is. */
		setAside: boolean('set_aside').notNull().default(false),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'mark_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		foreignKey({
			name: 'mark_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('mark_by_session').on(t.clubId, t.sessionId),
		index('mark_by_athlete').on(t.clubId, t.athleteId, t.sessionId),
		index('mark_replaces').on(t.clubId, t.replacesId),
		index('mark_set_aside').on(t.clubId, t.setAside, t.athleteId),
		// Best and first times are read from this alone: no row of a career is touched.
		index('mark_times').on(
			t.clubId,
			t.athleteId,
			t.kind,
			t.isVoid,
			t.sessionId,
			t.start,
			t.distanceM,
			t.method,
			t.timeS,
		),
	],
)

/**
 * What one session says of one athlete by one comparison key, kept: made whole in the transaction that takes a
 * mark, never added to. The usual of a squad is read from this alone.
 */
export const sessionMean = mysqlTable(
	'session_mean',
	{
		clubId: uuid('club_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		markKey: code('mark_key', MARK_KEY_LENGTH).notNull(),
		sessionId: uuid('session_id').notNull(),
		day: day('day').notNull(),
		n: int('n').notNull(),
		/** In the mark's unit: s or m. */
		mean: double('mean').notNull(),
		squares: double('squares').notNull(),
		best: double('best').notNull(),
		/** The first day back or an unloading week. */
		unusual: boolean('unusual').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.athleteId, t.markKey, t.sessionId] }),
		foreignKey({
			name: 'session_mean_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		foreignKey({
			name: 'session_mean_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('session_mean_by_session').on(t.clubId, t.sessionId, t.athleteId),
		// Weeks of them are read from this alone: their rows lie by key, all years of it together.
		index('session_mean_by_day').on(
			t.clubId,
			t.athleteId,
			t.day,
			t.markKey,
			t.sessionId,
			t.n,
			t.mean,
			t.squares,
			t.best,
			t.unusual,
		),
		// The best of a career stands first or last of its key: the server reads two rows of it and goes on to the next.
		index('session_mean_bests').on(t.clubId, t.athleteId, t.markKey, t.best, t.day),
	],
)

export const observation = mysqlTable(
	'observation',
	{
		...eventColumns(),
		/** Null for words about the whole session. */
		athleteId: uuid('athlete_id'),
		entryId: uuid('entry_id'),
		lineId: uuid('line_id'),
		setNo: int('set_no'),
		repNo: int('rep_no'),
		side: code<'left' | 'right'>('side', 5),
		piece: int('piece'),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'observation_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		foreignKey({
			name: 'observation_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('observation_by_session_athlete').on(t.clubId, t.sessionId, t.athleteId),
		index('observation_by_athlete').on(t.clubId, t.athleteId, t.kind),
		index('observation_replaces').on(t.clubId, t.replacesId),
	],
)

export const decision = mysqlTable(
	'decision',
	{
		...eventColumns(),
		/** Null for what concerns the whole session, as wind and ground do. */
		athleteId: uuid('athlete_id'),
		entryId: uuid('entry_id'),
		lineId: uuid('line_id'),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'decision_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		foreignKey({
			name: 'decision_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('decision_by_session').on(t.clubId, t.sessionId),
		index('decision_replaces').on(t.clubId, t.replacesId),
	],
)

/**
 * Corrections that do not stand: those that came before what they correct, until it comes, and those that
 * were not theirs to make, with the reason. Nothing of the log reads them.
 */
export const heldCorrection = mysqlTable(
	'held_correction',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		sessionId: uuid('session_id').notNull(),
		replacesId: uuid('replaces_id').notNull(),
		authorId: uuid('author_id').notNull(),
		receivedAt: instant('received_at').notNull(),
		contentHash: char('content_hash', { length: 64 }).notNull(),
		event: jsonOf<LogEvent>('event').notNull(),
		/** Why it was not taken; null while it waits. */
		refused: words('refused', 300),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		index('held_by_target').on(t.clubId, t.replacesId),
		index('held_by_session').on(t.clubId, t.sessionId),
	],
)
