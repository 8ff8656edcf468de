import { foreignKey, index, int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import type { BlockPlan } from '../../core/plan/block'
import { day, instant, jsonOf, uuid } from './columns'
import { squad } from './squads'

/** A block as it was made; its sessions name it and then live their own lives. */
export const block = mysqlTable('block', {
	clubId: uuid('club_id').notNull(),
	id: uuid('id').notNull(),
	squadId: uuid('squad_id').notNull(),
	start: day('start_day').notNull(),
	weeks: int('weeks').notNull(),
	plan: jsonOf<BlockPlan>('plan').notNull(),
	madeBy: uuid('made_by').notNull(),
	madeAt: instant('made_at').notNull(),
}, (t) => [
	primaryKey({ columns: [t.clubId, t.id] }),
	foreignKey({ name: 'block_squad', columns: [t.clubId, t.squadId], foreignColumns: [squad.clubId, squad.id] }),
	index('block_by_squad').on(t.clubId, t.squadId, t.start),
])
