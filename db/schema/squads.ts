import { boolean, char, foreignKey, index, int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import type { Family, Level, Phase } from '../../core/vocabulary/words'
import type { LadderState } from '../../core/judge/types'
import { code, day, instant, jsonOf, uuid, words } from './columns'
import { athlete, club } from './people'

export const squad = mysqlTable(
	'squad',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		id: uuid('id').notNull(),
		name: words('name').notNull(),
		schoolId: code('school_id').notNull(),
		schoolVersion: int('school_version').notNull(),
		phase: code<Phase>('phase', 20).notNull(),
		/** 1 Monday … 7 Sunday. */
		trainingDays: jsonOf<number[]>('training_days').notNull(),
		/** Local time, "17:30". */
		startTime: char('start_time', { length: 5 }).notNull(),
		place: words('place').notNull(),
		/** Their matches and practice are full of hard jumps. */
		jumpingSport: boolean('jumping_sport').notNull().default(false),
		/** What the block drives on and what it only keeps, by ladder; a ladder not named is neither. */
		focus: jsonOf<Record<string, 'priority' | 'kept'>>('focus'),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.id] })],
)

export const squadMember = mysqlTable(
	'squad_member',
	{
		clubId: uuid('club_id').notNull(),
		squadId: uuid('squad_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		since: day('since').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.squadId, t.athleteId] }),
		foreignKey({ name: 'member_squad', columns: [t.clubId, t.squadId], foreignColumns: [squad.clubId, squad.id] }),
		foreignKey({
			name: 'member_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('member_by_athlete').on(t.clubId, t.athleteId),
	],
)

/** Level by family; no row means level 1. */
export const athleteLevel = mysqlTable(
	'athlete_level',
	{
		clubId: uuid('club_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		family: code<Family>('family', 20).notNull(),
		level: int('level').$type<Level>().notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.athleteId, t.family] }),
		foreignKey({
			name: 'level_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
	],
)

/** Drills, ladders, schools and themes as immutable documents: a change is a new version, never an edit. */
export const libraryDocument = mysqlTable(
	'library_document',
	{
		clubId: uuid('club_id')
			.notNull()
			.references(() => club.id),
		kind: code<'drill' | 'ladder' | 'school' | 'theme'>('kind', 10).notNull(),
		id: code('id').notNull(),
		version: int('version').notNull(),
		contentHash: char('content_hash', { length: 64 }).notNull(),
		content: jsonOf<{ id: string; version: number }>('content').notNull(),
		/** Set when somebody of the club wrote it; empty for what the program ships with. */
		writtenBy: uuid('written_by'),
		createdAt: instant('created_at').notNull(),
	},
	(t) => [primaryKey({ columns: [t.clubId, t.kind, t.id, t.version] })],
)

/** Where an athlete stands on a ladder: one row, over all squads. The way there is in the verdicts. */
export const ladderState = mysqlTable(
	'ladder_state',
	{
		clubId: uuid('club_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		ladderId: code('ladder_id').notNull(),
		state: jsonOf<LadderState>('state').notNull(),
		/** The session whose verdict was applied last, so that an older one accepted late changes nothing. */
		asOf: day('as_of').notNull(),
		/** The day last trained, as the coach said with the first placing; null when nobody placed the athlete by hand. */
		trainedOn: day('trained_on'),
		updatedAt: instant('updated_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.athleteId, t.ladderId] }),
		foreignKey({
			name: 'state_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
	],
)
