import { type SQL, and, asc, count, eq, gte, isNotNull, lt, max, min, sql, sum } from 'drizzle-orm'
import { MARK_KINDS, type Stamp } from '../../core/marks/keep-session'
import type { SessionMean } from '../../core/noise/usual'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { workDay } from '../schema/care'
import { mark, sessionMean } from '../schema/log'
import { markEventOf, type StoredMark } from './log'

const NUMBERED: string[] = [...MARK_KINDS, 'release']

/**
 * Every mark with a number of some athletes in one session, replaced ones too, and whatever replaced them: the
 * fold decides what stands. Indexes `mark_by_session`, `mark_replaces`.
 */
export async function marksAbout(
	{ db, clubId }: ClubScope,
	sessionId: string,
	athleteIds: string[],
): Promise<StoredMark[]> {
	if (athleteIds.length === 0) return []
	const own = await db
		.select()
		.from(mark, { forceIndex: 'mark_by_session' })
		.where(
			and(
				eq(mark.clubId, clubId),
				eq(mark.sessionId, sessionId),
				among(mark.athleteId, athleteIds),
				among(mark.kind, NUMBERED),
			),
		)
	if (own.length === 0) return []
	const ids = new Set(own.map((row) => row.id))
	const moved = await db
		.select()
		.from(mark, { forceIndex: 'mark_replaces' })
		.where(and(eq(mark.clubId, clubId), among(mark.replacesId, [...ids])))
	return [...own, ...moved.filter((row) => !ids.has(row.id))].map(markEventOf)
}

/** Writes keys onto marks; by the primary key, in one statement for many. */
export async function stampMarks({ db, clubId }: ClubScope, stamps: ReadonlyMap<string, Stamp>): Promise<void> {
	const all = [...stamps]
	for (let from = 0; from < all.length; from += 500) {
		const some = all.slice(from, from + 500)
		const keyed = sql.join(
			some.map(([id, { key }]) => sql`when ${id} then ${key}`),
			sql` `,
		)
		const aside = some.filter(([, { setAside }]) => setAside).map(([id]) => id)
		await db
			.update(mark)
			.set({
				markKey: sql`case ${mark.id} ${keyed} end`,
				setAside: aside.length === 0 ? false : sql`${mark.id} in ${aside}`,
			})
			.where(
				and(
					eq(mark.clubId, clubId),
					among(
						mark.id,
						some.map(([id]) => id),
					),
				),
			)
	}
}

export interface KeptMean extends SessionMean {
	athleteId: string
	key: string
	sessionId: string
}

/** Puts one session's means of some athletes in the place of what was kept. Index `session_mean_by_session`. */
export async function replaceMeans(
	{ db, clubId }: ClubScope,
	sessionId: string,
	athleteIds: string[],
	rows: readonly KeptMean[],
): Promise<void> {
	if (athleteIds.length === 0) return
	await db
		.delete(sessionMean)
		.where(
			and(
				eq(sessionMean.clubId, clubId),
				eq(sessionMean.sessionId, sessionId),
				among(sessionMean.athleteId, athleteIds),
			),
		)
	await insertMeans({ db, clubId }, rows)
}
export async function insertMeans({ db, clubId }: ClubScope, rows: readonly KeptMean[]): Promise<void> {
	if (rows.length === 0) return
	await db
		.insert(sessionMean)
		.values(rows.map(({ key, unusual, ...row }) => ({ ...row, clubId, markKey: key, unusual: unusual ?? false })))
}

/** Session means of some athletes from a day on and before another. One query; index `session_mean_by_day`. */
export async function meansOf(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	from: string,
	before: string,
): Promise<KeptMean[]> {
	if (athleteIds.length === 0) return []
	const rows = await db
		.select()
		.from(sessionMean)
		.where(
			and(
				eq(sessionMean.clubId, clubId),
				among(sessionMean.athleteId, athleteIds),
				gte(sessionMean.day, from),
				lt(sessionMean.day, before),
			),
		)
	return rows.map(keptMeanOf)
}
export const keptMeanOf = (row: typeof sessionMean.$inferSelect): KeptMean => ({
	athleteId: row.athleteId,
	key: row.markKey,
	sessionId: row.sessionId,
	day: row.day,
	n: row.n,
	mean: row.mean,
	squares: row.squares,
	best: row.best,
	...(row.unusual ? { unusual: true } : null),
})

/** Everything kept of some keys of one athlete before a day: a trend of years is one read by the primary key. */
export async function meansOfKeys(
	{ db, clubId }: ClubScope,
	athleteId: string,
	keys: string[],
	before: string,
): Promise<KeptMean[]> {
	if (keys.length === 0) return []
	const rows = await db
		.select()
		.from(sessionMean)
		.where(
			and(
				eq(sessionMean.clubId, clubId),
				eq(sessionMean.athleteId, athleteId),
				among(sessionMean.markKey, keys),
				lt(sessionMean.day, before),
			),
		)
	return rows.map(keptMeanOf)
}

/** The mean of some keys over a span of days, by athlete and key. Index `session_mean_by_day`. */
export async function levelsOfKeys(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	keys: string[],
	from: string,
	before: string,
): Promise<{ athleteId: string; key: string; mean: number }[]> {
	if (athleteIds.length === 0 || keys.length === 0) return []
	return db
		.select({
			athleteId: sessionMean.athleteId,
			key: sessionMean.markKey,
			mean: sql<number>`avg(${sessionMean.mean})`.mapWith(Number),
		})
		.from(sessionMean)
		.where(
			and(
				eq(sessionMean.clubId, clubId),
				among(sessionMean.athleteId, athleteIds),
				among(sessionMean.markKey, keys),
				gte(sessionMean.day, from),
				lt(sessionMean.day, before),
			),
		)
		.groupBy(sessionMean.athleteId, sessionMean.markKey)
}

/** What some athletes' session means of one key come to over a span of days. */
export interface KeyScatter {
	key: string
	sessions: number
	/** Reps beside the first of each session, and the sum of their squared distances from its mean. */
	pairs: number
	squares: number
	/** Sums over the session means: of them, of their squares, and of what one over the reps is. */
	sum: number
	sumOfSquares: number
	sumOfShares: number
}
/** How far reps scatter around their session's mean and means around their athlete's, by athlete and key. Index `session_mean_by_day`. */
export async function scatterOf(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	from: string,
	before: string,
): Promise<KeyScatter[]> {
	if (athleteIds.length === 0) return []
	const { mean, n } = sessionMean
	const rows = await db
		.select({
			key: sessionMean.markKey,
			sessions: count(),
			pairs: sum(sql`${n} - 1`),
			squares: sum(sessionMean.squares),
			sum: sum(mean),
			sumOfSquares: sum(sql`${mean} * ${mean}`),
			sumOfShares: sum(sql`1 / ${n}`),
		})
		// By itself the server reads every year of them, because their keys lie in the order of the groups.
		.from(sessionMean, { forceIndex: 'session_mean_by_day' })
		.where(
			and(
				eq(sessionMean.clubId, clubId),
				among(sessionMean.athleteId, athleteIds),
				gte(sessionMean.day, from),
				lt(sessionMean.day, before),
				eq(sessionMean.unusual, false),
			),
		)
		.groupBy(sessionMean.athleteId, sessionMean.markKey)
	return rows.map(({ key, ...sums }) => {
		const numbers = Object.fromEntries(Object.entries(sums).map(([name, value]) => [name, Number(value)]))
		return { key, ...numbers } as unknown as KeyScatter
	})
}

export interface KeyBests {
	athleteId: string
	key: string
	lowest: number
	highest: number
}
/**
 * The lowest and highest mark of each key before a day, as records. What stands of a whole career is found at the two ends
 * of each key (index `session_mean_bests`); only a key of which marks since may be one of the ends is read through.
 */
export async function bestsBefore(scope: ClubScope, athleteIds: string[], day: string): Promise<KeyBests[]> {
	if (athleteIds.length === 0) return []
	const theirs = among(sessionMean.athleteId, athleteIds)
	const ever = await endsOf(scope, 'session_mean_bests', theirs)
	const nameOf = ({ athleteId, key }: KeyBests) => `${athleteId} ${key}`
	const since = new Map(
		(await endsOf(scope, 'session_mean_by_day', and(theirs, gte(sessionMean.day, day)))).map((one) => [
			nameOf(one),
			one,
		]),
	)
	const open = ever.filter((one) => {
		const later = since.get(nameOf(one))
		return later !== undefined && (later.lowest <= one.lowest || later.highest >= one.highest)
	})
	if (open.length === 0) return ever
	const names = new Set(open.map(nameOf))
	const before = await endsOf(
		scope,
		'session_mean_bests',
		and(
			among(sessionMean.athleteId, [...new Set(open.map(({ athleteId }) => athleteId))]),
			among(sessionMean.markKey, [...new Set(open.map(({ key }) => key))]),
			lt(sessionMean.day, day),
		),
	)
	return [...ever.filter((one) => !names.has(nameOf(one))), ...before.filter((one) => names.has(nameOf(one)))]
}
/** The lowest and highest of each key among some means. The club is named in the groups: without it the server reads every row. */
async function endsOf({ db, clubId }: ClubScope, forceIndex: string, which: SQL | undefined): Promise<KeyBests[]> {
	const rows = await db
		.select({
			athleteId: sessionMean.athleteId,
			key: sessionMean.markKey,
			lowest: min(sessionMean.best),
			highest: max(sessionMean.best),
		})
		.from(sessionMean, { forceIndex })
		.where(and(eq(sessionMean.clubId, clubId), which))
		.groupBy(sessionMean.clubId, sessionMean.athleteId, sessionMean.markKey)
	return rows.map((row) => ({ ...row, lowest: Number(row.lowest), highest: Number(row.highest) }))
}

/** Athletes with a mark in a session. Index `mark_by_session`. */
export const athletesMarked = async ({ db, clubId }: ClubScope, sessionId: string): Promise<string[]> =>
	(
		await db
			.selectDistinct({ athleteId: mark.athleteId })
			.from(mark)
			.where(and(eq(mark.clubId, clubId), eq(mark.sessionId, sessionId)))
	).map((row) => row.athleteId)

/** What is kept of the log of one session, as a text that another time can be held against. */
export async function keptOfSession(
	{ db, clubId }: ClubScope,
	sessionId: string,
	day: string,
	athleteIds: string[],
): Promise<string> {
	if (athleteIds.length === 0) return ''
	const [marks, means, days] = [
		await db
			.select({ id: mark.id, key: mark.markKey, setAside: mark.setAside })
			.from(mark)
			.where(and(eq(mark.clubId, clubId), eq(mark.sessionId, sessionId)))
			.orderBy(asc(mark.id)),
		await db
			.select()
			.from(sessionMean)
			.where(and(eq(sessionMean.clubId, clubId), eq(sessionMean.sessionId, sessionId)))
			.orderBy(asc(sessionMean.athleteId), asc(sessionMean.markKey)),
		await db
			.select()
			.from(workDay)
			.where(and(eq(workDay.clubId, clubId), eq(workDay.day, day), among(workDay.athleteId, athleteIds)))
			.orderBy(asc(workDay.athleteId), asc(workDay.family)),
	]
	// Summed in another order the last digits of a double are others.
	const rounded = (value: number) => Number(value.toPrecision(9))
	const sums = means.map((row) => ({ ...row, mean: rounded(row.mean), squares: rounded(row.squares) }))
	return JSON.stringify([marks, sums, days])
}

/** Who has a mark in which of some sessions, each once. Index `mark_by_session`. */
export async function athletesMarkedIn(
	{ db, clubId }: ClubScope,
	sessionIds: string[],
): Promise<{ sessionId: string; athleteId: string }[]> {
	if (sessionIds.length === 0) return []
	return db
		.selectDistinct({ sessionId: mark.sessionId, athleteId: mark.athleteId })
		.from(mark)
		.where(and(eq(mark.clubId, clubId), among(mark.sessionId, sessionIds), eq(mark.isVoid, false)))
}

/** Sessions with a mark that has no key of this version; replaced and void marks carry the version alone. */
export async function sessionsToKey(
	db: ClubScope['db'],
	version: number,
): Promise<{ clubId: string; sessionId: string; athleteId: string }[]> {
	return db
		.selectDistinct({ clubId: mark.clubId, sessionId: mark.sessionId, athleteId: mark.athleteId })
		.from(mark)
		.where(
			and(among(mark.kind, NUMBERED), sql`(${mark.markKey} is null or ${mark.markKey} not like ${`${version}|%`})`),
		)
}

/** Marks that cannot be, of a session or an athlete, newest first; what replaced them is left to the fold. Index `mark_set_aside`. */
export async function setAsideOf(
	{ db, clubId }: ClubScope,
	of: { athleteIds?: string[]; sessionIds?: string[] },
): Promise<StoredMark[]> {
	if (of.athleteIds?.length === 0 || of.sessionIds?.length === 0) return []
	const rows = await db
		.select()
		.from(mark, { forceIndex: 'mark_set_aside' })
		.where(
			and(
				eq(mark.clubId, clubId),
				eq(mark.setAside, true),
				isNotNull(mark.markKey),
				of.athleteIds ? among(mark.athleteId, of.athleteIds) : undefined,
				of.sessionIds ? among(mark.sessionId, of.sessionIds) : undefined,
			),
		)
	return rows.map(markEventOf)
}
