import { and, asc, eq } from 'drizzle-orm'
import type { CauseId } from '../../core/record/why'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { battery, batterySession, namedCause, trial, trialAnswer, trialSession } from '../schema/record'
import { sessionMean } from '../schema/log'
import { session } from '../schema/sessions'
import { type KeptMean, keptMeanOf } from './marks'

/** What coaches said made days of an athlete flat or good, with the day; by the primary key. */
export async function causesNamed(
	{ db, clubId }: ClubScope,
	athleteId: string,
): Promise<{ sessionId: string; cause: CauseId; day: string }[]> {
	return db
		.select({ sessionId: namedCause.sessionId, cause: namedCause.cause, day: session.day })
		.from(namedCause)
		.innerJoin(session, and(eq(session.clubId, namedCause.clubId), eq(session.id, namedCause.sessionId)))
		.where(and(eq(namedCause.clubId, clubId), eq(namedCause.athleteId, athleteId)))
}
/** Said twice, by two at once, is said once. */
export async function nameCause({ db, clubId }: ClubScope, row: Omit<typeof namedCause.$inferInsert, 'clubId'>) {
	await db
		.insert(namedCause)
		.values({ ...row, clubId })
		.onDuplicateKeyUpdate({ set: { personId: row.personId, at: row.at } })
}
export async function unnameCause(
	{ db, clubId }: ClubScope,
	{ athleteId, sessionId, cause }: { athleteId: string; sessionId: string; cause: CauseId },
) {
	await db
		.delete(namedCause)
		.where(
			and(
				eq(namedCause.clubId, clubId),
				eq(namedCause.athleteId, athleteId),
				eq(namedCause.sessionId, sessionId),
				eq(namedCause.cause, cause),
			),
		)
}

export type BatteryRow = typeof battery.$inferSelect
/** A squad's batteries, those taken off too; index `battery_by_squad`. */
export const batteriesOf = async ({ db, clubId }: ClubScope, squadId: string): Promise<BatteryRow[]> =>
	db
		.select()
		.from(battery)
		.where(and(eq(battery.clubId, clubId), eq(battery.squadId, squadId)))
		.orderBy(asc(battery.madeAt))
export async function readBattery({ db, clubId }: ClubScope, id: string): Promise<BatteryRow | null> {
	const [row] = await db
		.select()
		.from(battery)
		.where(and(eq(battery.clubId, clubId), eq(battery.id, id)))
	return row ?? null
}
export async function insertBattery({ db, clubId }: ClubScope, row: Omit<typeof battery.$inferInsert, 'clubId'>) {
	await db.insert(battery).values({ ...row, clubId })
}
/** Taken off, or put back. @returns false where there is none */
export async function retireBattery({ db, clubId }: ClubScope, id: string, retired: boolean): Promise<boolean> {
	const [result] = await db
		.update(battery)
		.set({ retired })
		.where(and(eq(battery.clubId, clubId), eq(battery.id, id)))
	return result.affectedRows > 0
}
export async function addBatterySession({ db, clubId }: ClubScope, batteryId: string, sessionId: string) {
	await db.insert(batterySession).values({ clubId, batteryId, sessionId }).onDuplicateKeyUpdate({ set: { batteryId } })
}
/** Sessions of some batteries, oldest first. */
export async function sessionsOfBatteries(
	{ db, clubId }: ClubScope,
	batteryIds: string[],
): Promise<{ batteryId: string; sessionId: string; day: string; startedAt: Date | null }[]> {
	if (batteryIds.length === 0) return []
	return db
		.select({
			batteryId: batterySession.batteryId,
			sessionId: batterySession.sessionId,
			day: session.day,
			startedAt: session.startedAt,
		})
		.from(batterySession)
		.innerJoin(session, and(eq(session.clubId, batterySession.clubId), eq(session.id, batterySession.sessionId)))
		.where(and(eq(batterySession.clubId, clubId), among(batterySession.batteryId, batteryIds)))
		.orderBy(asc(session.day), asc(session.startTime))
}
/** What was measured in some sessions, session by session; index `session_mean_by_session`. */
export async function meansOfSessions({ db, clubId }: ClubScope, sessionIds: string[]): Promise<KeptMean[]> {
	if (sessionIds.length === 0) return []
	const rows = await db
		.select()
		.from(sessionMean)
		.where(and(eq(sessionMean.clubId, clubId), among(sessionMean.sessionId, sessionIds)))
	return rows.map(keptMeanOf)
}

export type TrialRow = typeof trial.$inferSelect
export type TrialSessionRow = typeof trialSession.$inferSelect
/** A squad's trials, oldest first; index `trial_by_squad`. */
export const trialsOf = async ({ db, clubId }: ClubScope, squadId: string): Promise<TrialRow[]> =>
	db
		.select()
		.from(trial)
		.where(and(eq(trial.clubId, clubId), eq(trial.squadId, squadId)))
		.orderBy(asc(trial.openedAt))
export async function readTrialRow({ db, clubId }: ClubScope, id: string): Promise<TrialRow | null> {
	const [row] = await db
		.select()
		.from(trial)
		.where(and(eq(trial.clubId, clubId), eq(trial.id, id)))
	return row ?? null
}
export async function insertTrial({ db, clubId }: ClubScope, row: Omit<typeof trial.$inferInsert, 'clubId'>) {
	await db.insert(trial).values({ ...row, clubId })
}
export async function closeTrialRow({ db, clubId }: ClubScope, id: string, closedAt: Date | null) {
	await db
		.update(trial)
		.set({ closedAt })
		.where(and(eq(trial.clubId, clubId), eq(trial.id, id)))
}
export async function insertTrialSession(
	{ db, clubId }: ClubScope,
	row: Omit<typeof trialSession.$inferInsert, 'clubId'>,
) {
	await db.insert(trialSession).values({ ...row, clubId })
}
/** Sessions of some trials with their days, oldest first. */
export async function sessionsOfTrials(
	{ db, clubId }: ClubScope,
	trialIds: string[],
): Promise<(TrialSessionRow & { day: string; startedAt: Date | null })[]> {
	if (trialIds.length === 0) return []
	const rows = await db
		.select({ row: trialSession, day: session.day, startedAt: session.startedAt })
		.from(trialSession)
		.innerJoin(session, and(eq(session.clubId, trialSession.clubId), eq(session.id, trialSession.sessionId)))
		.where(and(eq(trialSession.clubId, clubId), among(trialSession.trialId, trialIds)))
		.orderBy(asc(session.day), asc(session.startTime))
	return rows.map(({ row, day, startedAt }) => ({ ...row, day, startedAt }))
}
/** Trials some sessions belong to; index `trial_of_session`. */
export const trialsOfSessions = async ({ db, clubId }: ClubScope, sessionIds: string[]): Promise<string[]> =>
	sessionIds.length === 0
		? []
		: (
				await db
					.selectDistinct({ trialId: trialSession.trialId })
					.from(trialSession)
					.where(and(eq(trialSession.clubId, clubId), among(trialSession.sessionId, sessionIds)))
			).map(({ trialId }) => trialId)
/** What a session is of the trials it belongs to; index `trial_of_session`. */
export const trialDaysOf = async ({ db, clubId }: ClubScope, sessionId: string): Promise<TrialSessionRow[]> =>
	db
		.select()
		.from(trialSession)
		.where(and(eq(trialSession.clubId, clubId), eq(trialSession.sessionId, sessionId)))
/** What a trial says of whom, as it was kept last. */
export async function answersOfTrial(
	{ db, clubId }: ClubScope,
	trialId: string,
): Promise<{ athleteId: string; helps: boolean }[]> {
	return db
		.select({ athleteId: trialAnswer.athleteId, helps: trialAnswer.helps })
		.from(trialAnswer)
		.where(and(eq(trialAnswer.clubId, clubId), eq(trialAnswer.trialId, trialId)))
}
export async function keepTrialAnswers(
	{ db, clubId }: ClubScope,
	trialId: string,
	answers: { athleteId: string; helps: boolean }[],
) {
	for (const { athleteId, helps } of answers)
		await db.insert(trialAnswer).values({ clubId, trialId, athleteId, helps }).onDuplicateKeyUpdate({ set: { helps } })
}
/** Of some athletes those whose own trial of heavy before fast says that it helps; index `answer_by_athlete`. */
export async function helpedByHeavy({ db, clubId }: ClubScope, athleteIds: string[]): Promise<Set<string>> {
	if (athleteIds.length === 0) return new Set()
	const rows = await db
		.select({ athleteId: trialAnswer.athleteId })
		.from(trialAnswer)
		.innerJoin(trial, and(eq(trial.clubId, trialAnswer.clubId), eq(trial.id, trialAnswer.trialId)))
		.where(
			and(
				eq(trialAnswer.clubId, clubId),
				among(trialAnswer.athleteId, athleteIds),
				eq(trialAnswer.helps, true),
				eq(trial.kind, 'heavy-before'),
			),
		)
	return new Set(rows.map(({ athleteId }) => athleteId))
}
