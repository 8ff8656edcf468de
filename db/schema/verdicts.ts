import { boolean, char, foreignKey, index, int, mysqlTable, primaryKey, unique } from 'drizzle-orm/mysql-core'
import type { Clearance, ClearingRole, ReportSide } from '../../core/vocabulary/care'
import type { Judgement, LadderState, VerdictInput, VerdictWord } from '../../core/judge/types'
import { code, day, instant, jsonOf, packedJsonOf, uuid, words } from './columns'
import { athlete } from './people'
import { session } from './sessions'

/** A decided verdict with its whole input, so that it can be replayed; never altered afterwards. Decided anew, it is another row. */
export const verdict = mysqlTable(
	'verdict',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		sessionId: uuid('session_id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		ladderId: code('ladder_id').notNull(),
		/** 0 the first decision, 1 the one decided anew after late evidence, and so on: the highest stands. */
		turn: int('turn').notNull().default(0),
		day: day('day').notNull(),
		proposed: code<VerdictWord>('proposed', 20).notNull(),
		decided: code<VerdictWord>('decided', 20).notNull(),
		/** Empty when the proposal was accepted. */
		reason: words('reason', 500),
		sentence: words('sentence', 1000).notNull(),
		judgement: packedJsonOf<Judgement>('judgement').notNull(),
		before: jsonOf<LadderState>('state_before').notNull(),
		after: jsonOf<LadderState>('state_after').notNull(),
		input: packedJsonOf<VerdictInput>('input').notNull(),
		inputHash: char('input_hash', { length: 64 }).notNull(),
		rulesVersion: int('rules_version').notNull(),
		decidedBy: uuid('decided_by').notNull(),
		decidedAt: instant('decided_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		unique('verdict_turn').on(t.clubId, t.sessionId, t.athleteId, t.ladderId, t.turn),
		foreignKey({
			name: 'verdict_session',
			columns: [t.clubId, t.sessionId],
			foreignColumns: [session.clubId, session.id],
		}),
		foreignKey({
			name: 'verdict_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
		index('verdict_by_athlete').on(t.clubId, t.athleteId, t.ladderId, t.day),
		// The newest of years of them, and no other is read.
		index('verdict_newest').on(t.clubId, t.athleteId, t.day, t.turn),
		index('verdict_by_day').on(t.clubId, t.day),
	],
)

/** Who cleared a closed region, in what role, when: the only thing that opens it again. */
export const clearance = mysqlTable(
	'clearance',
	{
		clubId: uuid('club_id').notNull(),
		id: uuid('id').notNull(),
		athleteId: uuid('athlete_id').notNull(),
		/** A region, or everything after head or chest. */
		region: code<Clearance['region']>('region', 20).notNull(),
		/** Null: both sides of the region. */
		side: code<ReportSide>('side', 5),
		clearedBy: words('cleared_by').notNull(),
		clearedByRole: words('cleared_by_role').notNull(),
		/** What the role comes to: health professionals clear, everything only a doctor. */
		role: code<ClearingRole>('role', 20).notNull(),
		/** Null when nobody said whether it was an injury. */
		injury: boolean('injury'),
		clearedOn: day('cleared_on').notNull(),
		recordedBy: uuid('recorded_by').notNull(),
		recordedAt: instant('recorded_at').notNull(),
	},
	(t) => [
		primaryKey({ columns: [t.clubId, t.id] }),
		foreignKey({
			name: 'clearance_athlete',
			columns: [t.clubId, t.athleteId],
			foreignColumns: [athlete.clubId, athlete.id],
		}),
	],
)
