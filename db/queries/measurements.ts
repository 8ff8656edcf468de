import { and, asc, desc, eq, gte, notExists, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { measurement } from '../schema/measurements'

export type MeasurementRow = typeof measurement.$inferSelect

export async function measurementHash({ db, clubId }: ClubScope, id: string): Promise<string | null> {
	const [row] = await db
		.select({ hash: measurement.contentHash })
		.from(measurement)
		.where(and(eq(measurement.clubId, clubId), eq(measurement.id, id)))
	return row?.hash ?? null
}

export async function readMeasurement({ db, clubId }: ClubScope, id: string): Promise<MeasurementRow | null> {
	const [row] = await db
		.select()
		.from(measurement)
		.where(and(eq(measurement.clubId, clubId), eq(measurement.id, id)))
	return row ?? null
}

/** True when the row is new; false when the same id stands already. */
export async function insertMeasurement(
	{ db, clubId }: ClubScope,
	row: Omit<typeof measurement.$inferInsert, 'clubId'>,
): Promise<boolean> {
	const [result] = await db
		.insert(measurement)
		.values({ ...row, clubId })
		.onDuplicateKeyUpdate({ set: { id: sql`id` } })
	return result.affectedRows === 1
}

const later = alias(measurement, 'later')
const replaced = ({ db, clubId }: ClubScope) =>
	db
		.select({ one: sql`1` })
		.from(later)
		.where(and(eq(later.clubId, clubId), eq(later.replacesId, measurement.id)))

/** What stands for some athletes of some calculations from a day on, newest first. Index `measurement_by_athlete`. */
export async function measurementsSince(
	scope: ClubScope,
	athleteIds: string[],
	calculations: readonly string[],
	from: string,
): Promise<MeasurementRow[]> {
	if (athleteIds.length === 0) return []
	return scope.db
		.select()
		.from(measurement)
		.where(
			and(
				eq(measurement.clubId, scope.clubId),
				among(measurement.athleteId, athleteIds),
				among(measurement.calculation, [...calculations]),
				gte(measurement.takenOn, from),
				eq(measurement.isVoid, false),
				notExists(replaced(scope)),
			),
		)
		.orderBy(desc(measurement.takenOn), desc(measurement.receivedAt), asc(measurement.id))
}

/** What stands for an athlete, newest first: neither taken back nor replaced. Index `measurement_by_athlete`. */
export async function measurementsOf(scope: ClubScope, athleteId: string, limit: number): Promise<MeasurementRow[]> {
	return scope.db
		.select()
		.from(measurement)
		.where(
			and(
				eq(measurement.clubId, scope.clubId),
				eq(measurement.athleteId, athleteId),
				eq(measurement.isVoid, false),
				notExists(replaced(scope)),
			),
		)
		.orderBy(desc(measurement.takenOn), desc(measurement.receivedAt), asc(measurement.id))
		.limit(limit)
}

/** What stands of some reps, oldest first. Index `measurement_of_mark`. */
export async function measurementsOfMarks(scope: ClubScope, markIds: string[]): Promise<MeasurementRow[]> {
	if (markIds.length === 0) return []
	return scope.db
		.select()
		.from(measurement, { forceIndex: 'measurement_of_mark' })
		.where(
			and(
				eq(measurement.clubId, scope.clubId),
				among(measurement.markId, markIds),
				eq(measurement.isVoid, false),
				notExists(replaced(scope)),
			),
		)
		.orderBy(asc(measurement.receivedAt), asc(measurement.id))
}
