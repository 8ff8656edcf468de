import { and, asc, eq } from 'drizzle-orm'
import type { Ground, Placement } from '../../core/field-map/types'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { mark } from '../schema/log'
import { ground, layout } from '../schema/plan'

export async function listGrounds({ db, clubId }: ClubScope): Promise<Ground[]> {
	const rows = await db
		.select()
		.from(ground)
		.where(and(eq(ground.clubId, clubId), eq(ground.off, false)))
		.orderBy(asc(ground.name))
	return rows.map(({ clubId: _clubId, off: _off, ...one }) => one)
}
export async function insertGround({ db, clubId }: ClubScope, row: Ground) {
	await db.insert(ground).values({ ...row, clubId })
}
/** Grounds that were taken off, by name. */
export async function listGroundsOff({ db, clubId }: ClubScope): Promise<{ id: string; name: string }[]> {
	return db
		.select({ id: ground.id, name: ground.name })
		.from(ground)
		.where(and(eq(ground.clubId, clubId), eq(ground.off, true)))
		.orderBy(asc(ground.name))
}
export async function updateGround(
	{ db, clubId }: ClubScope,
	id: string,
	change: Partial<Omit<Ground, 'id'>> & { off?: boolean },
) {
	await db
		.update(ground)
		.set(change)
		.where(and(eq(ground.clubId, clubId), eq(ground.id, id)))
}

export async function readLayouts(
	{ db, clubId }: ClubScope,
	sessionId: string,
): Promise<{ groundId: string; placements: Placement[] }[]> {
	return db
		.select({ groundId: layout.groundId, placements: layout.placements })
		.from(layout)
		.where(and(eq(layout.clubId, clubId), eq(layout.sessionId, sessionId)))
}
export async function writeLayout(
	{ db, clubId }: ClubScope,
	sessionId: string,
	groundId: string,
	placements: Placement[],
	changedAt: Date,
) {
	await db
		.insert(layout)
		.values({ clubId, sessionId, groundId, placements, changedAt })
		.onDuplicateKeyUpdate({ set: { placements, changedAt } })
}

/** Measured distances of some drills by some athletes, replaced ones too, for the fold. */
export async function distanceMarks({ db, clubId }: ClubScope, athleteIds: string[], drillIds: string[]) {
	if (athleteIds.length === 0 || drillIds.length === 0) return []
	return db
		.select({ id: mark.id, replacesId: mark.replacesId, void: mark.isVoid, value: mark.value })
		.from(mark)
		.where(
			and(
				eq(mark.clubId, clubId),
				eq(mark.kind, 'distance'),
				among(mark.athleteId, athleteIds),
				among(mark.drillId, drillIds),
			),
		)
}
