import type { RuleId } from '../../core/rules/rule'
import { boolean, char, decimal, foreignKey, index, int, mysqlTable, primaryKey, unique } from 'drizzle-orm/mysql-core'
import type { Aid, CarriedLoad, Dose, Parameters, Rest, SideDoses } from '../../core/vocabulary/dose'
import type { Family, Phase, Surface } from '../../core/vocabulary/words'
import type { Piece } from '../../core/vocabulary/dose'
import type { EntryTuning } from '../../core/vocabulary/entry'
import type { ThemeId } from '../../core/vocabulary/ids'
import type { DayRole } from '../../core/vocabulary/session'
import type { VerdictWord } from '../../core/judge/types'
import { code, day, instant, jsonOf, uuid, words } from './columns'
import { athlete, club } from './people'
import { squad } from './squads'

export const session = mysqlTable(
	'session',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		squadId: uuid('squad_id').notNull(),
		day: day('day').notNull(),
		startTime: char('start_time', { length: 5 }).notNull(),
		timeZone: code('time_zone', 64).notNull(),
		title: words('title').notNull(),
		place: words('place').notNull(),
		phase: code<Phase>('phase', 20).notNull(),
		/** What is under foot, when somebody has said so. */
		surface: code<Surface>('surface', 20),
		plannedMinutes: int('planned_minutes').notNull(),
		/** The block it was made by; null when it was made alone. */
		blockId: uuid('block_id'),
		/** What its day is for, and its share of the block's heaviest week; a session made alone is a whole hard one. */
		role: code<DayRole>('role', 10).notNull().default('hard'),
		/** What a hard day is about; null where it is for everything a little. */
		theme: code<ThemeId>('theme'),
		share: decimal('share', { precision: 3, scale: 2, mode: 'number' }).notNull().default(1),
		/** Set by the first download or the first mark: from then on the sheet is a frozen version. */
		startedAt: instant('started_at'),
		/** The day its lines were last written on: read on a later one, they are written anew, because what was planned in between may not have been done. */
		linesFor: day('lines_for'),
		/** Set when every verdict of the session has been decided. */
		reviewedAt: instant('reviewed_at'),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({ name: 'session_squad', columns: [t.clubId, t.squadId], foreignColumns: [squad.clubId, squad.id] }),
		index('session_by_day').on(t.clubId, t.day),
		index('session_by_squad').on(t.clubId, t.squadId, t.day),
		index('session_by_block').on(t.clubId, t.blockId),
	],
)

export const sessionAthlete = mysqlTable(
	'session_athlete',
	{
		clubId: uuid('club_id').notNull(),
		sessionId: uuid('session_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		/** Order in the queue. */
		position: int('position').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.sessionId, t.athleteId] }),
		foreignKey({
			name: 'attending_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		foreignKey({
			name: 'attending_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('attending_by_athlete').on(t.clubId, t.athleteId),
	],
)

/** Entries are never deleted or reused: one taken off the sheet is retired. */
export const entry = mysqlTable(
	'entry',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		sessionId: uuid('session_id').notNull(),
		part: words('part', 60).notNull(),
		family: code<Family>('family', 20).notNull(),
		position: int('position').notNull(),
		drillId: code('drill_id').notNull(),
		drillVersion: int('drill_version').notNull(),
		ladderId: code('ladder_id'),
		dose: jsonOf<Dose>('dose').notNull(),
		parameters: jsonOf<Parameters>('parameters').notNull(),
		rest: jsonOf<Rest>('rest').notNull(),
		sides: jsonOf<SideDoses>('sides'),
		pieces: jsonOf<Piece[]>('pieces'),
		carried: jsonOf<CarriedLoad>('carried'),
		aid: jsonOf<Aid>('aid'),
		doseFactor: decimal('dose_factor', { precision: 3, scale: 2, mode: 'number' }).notNull(),
		/** Turns side by side, and how many start together on each. */
		lanes: int('lanes').notNull().default(1),
		together: int('together').notNull().default(1),
		/** Forms by level, topping up to a target, and who does less of it. */
		tuning: jsonOf<EntryTuning>('tuning'),
		retired: boolean('retired').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'entry_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		index('entry_by_session').on(t.clubId, t.sessionId, t.position),
	],
)

/** What changed against the athlete's last line on that ladder or drill, and why. */
export interface LineChange {
	verdict: VerdictWord | null
	from: string
	to: string
	why: string
	firmness: string
	/** The rule whose verdict `why` tells; null when the day alone says it, absent in changes of before. */
	rule?: RuleId | null
}

/** One version of one athlete's line. A change is a new version; marks cite the version they were done under. */
export const line = mysqlTable(
	'line',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		sessionId: uuid('session_id').notNull(),
		entryId: uuid('entry_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		version: int('version').notNull(),
		/** The newest version of this athlete's line for this entry. */
		current: boolean('current').notNull(),
		origin: code<'resolved' | 'hand-set'>('origin', 20).notNull(),
		/** Set when no line may be written, with the reason; the fields below are then empty. */
		blocked: words('blocked'),
		drillId: code('drill_id'),
		drillVersion: int('drill_version'),
		ladderId: code('ladder_id'),
		rungId: code('rung_id'),
		dose: jsonOf<Dose>('dose').notNull(),
		parameters: jsonOf<Parameters>('parameters').notNull(),
		rest: jsonOf<Rest>('rest').notNull(),
		sides: jsonOf<SideDoses>('sides'),
		pieces: jsonOf<Piece[]>('pieces'),
		carried: jsonOf<CarriedLoad>('carried'),
		aid: jsonOf<Aid>('aid'),
		change: jsonOf<LineChange>('change'),
		/** For a hand-set line: what the verdict would have written. */
		wouldBe: words('would_be'),
		createdAt: instant('created_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		unique('line_version').on(t.clubId, t.entryId, t.athleteId, t.version),
		foreignKey({ name: 'line_entry', columns: [t.clubId, t.entryId], foreignColumns: [entry.clubId, entry.id] }),
		foreignKey({
			name: 'line_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('line_by_session_athlete').on(t.clubId, t.sessionId, t.current, t.athleteId),
		index('line_by_athlete').on(t.clubId, t.athleteId, t.ladderId),
	],
)
