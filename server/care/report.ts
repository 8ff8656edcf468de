import { v7 as newId } from 'uuid'
import { addDays } from '../../core/calendar/day-count'
import { REGIONS, type Region, SIDES } from '../../core/vocabulary/words'
import { inTransaction } from '../../db/connect'
import { insertCareEvent } from '../../db/queries/care'
import { readAthletes } from '../../db/queries/squads'
import { recentSessionsOf } from '../../db/queries/sessions'
import type { careEvent } from '../../db/schema/care'
import type { Problems } from '../access/join'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database, scopeOf } from '../database'
import { acceptEvents } from '../log/accept-events'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { openCare } from './care-records'

/** What can be said of a body away from the field; a movement that is not trusted has a form of its own. */
export const SAID_AT_THE_DESK = ['pain', 'soreness', 'head', 'chest', 'unwell'] as const

export interface ReportTyped {
	kind: string
	region: string
	side: string
	score: string
	moment: string
	redFlag: boolean
	note: string
}
/** How far back an answer to "how was it?" finds the session it is about, days. */
const ASKED_DAYS = 60
const NOTE_LENGTH = 500

/** The coach, an assistant and a clinician report of anybody; an athlete of themselves, a guardian of theirs. */
export const mayReport = (who: SignedIn, athleteId: string): boolean =>
	may(who.role, 'pain:write') || who.athleteId === athleteId

const scoreOf = (typed: string): number | null => {
	const score = Number(typed)
	return typed.trim() !== '' && Number.isInteger(score) && score >= 0 && score <= 10 ? score : null
}
const regionOf = (typed: string): Region | null => REGIONS.find((one) => one === typed) ?? null
const sideOf = (typed: string) => SIDES.find((one) => one === typed) ?? ('both' as const)

/**
 * Takes what is said of an athlete's body away from the field. Pain of a session today, or said the morning after
 * one, belongs to that session's log; everything else is of the day it is said on.
 *
 * @param sessionId the session a pain is said of, where that is known
 * @returns null for a stranger's id
 */
export async function report(
	who: SignedIn,
	athleteId: string,
	typed: ReportTyped,
	now: Date,
	sessionId: string | null = null,
): Promise<{ reported: true } | { problems: Problems } | null> {
	const problem = (pain: string) => ({ problems: { pain } })
	if (!mayReport(who, athleteId)) return problem('Only about yourself.')
	const kind = SAID_AT_THE_DESK.find((one) => one === typed.kind)
	if (!kind) return problem('Pick what it is.')
	const note = typed.note.trim().slice(0, NOTE_LENGTH)
	if (kind === 'unwell') {
		const typed = { kind: 'illness', region: '', pattern: '', drillId: '', note, setBy: '', setByRole: '' }
		const opened = await openCare(who, athleteId, typed, now)
		return opened && 'problems' in opened ? opened : opened && { reported: true }
	}
	if (kind === 'head' || kind === 'chest') return keep(who, athleteId, { kind, redFlag: true, note }, now)
	const region = regionOf(typed.region)
	if (!region) return problem('Pick where it hurts.')
	if (kind === 'soreness') return keep(who, athleteId, { kind, region, side: 'both', note }, now)
	const score = scoreOf(typed.score)
	if (score === null) return problem(`“${typed.score}”: a whole number from 0 to 10 is expected.`)
	const [side, { redFlag }] = [sideOf(typed.side), typed]
	const moment = typed.moment === 'before' || typed.moment === 'next-day' ? typed.moment : 'during'
	const session = sessionId ?? (await sessionSaidOf(who, athleteId, moment, now))
	if (session === null) return keep(who, athleteId, { kind, region, side, score, moment, redFlag, note }, now)
	const value = { region, side, score, moment, redFlag, ...(note === '' ? {} : { note }) }
	const answer = await sayInLog(who, session, athleteId, { kind, value }, now)
	return answer?.outcome === 'refused' ? problem(`${answer.field}: ${answer.reason}`) : { reported: true }
}

/** The session a pain is said of: one of today, or yesterday's the morning after; null when it is of the day itself. */
async function sessionSaidOf(who: SignedIn, athleteId: string, moment: string, now: Date): Promise<string | null> {
	const today = todayAt(who.timeZone, now)
	const [last] = await recentSessionsOf(scopeOf(who.clubId), [athleteId], today, 2)
	if (!last) return null
	const { day, id } = last.session
	return day === today || (moment === 'next-day' && day === addDays(today, -1)) ? id : null
}

/** Keeps a report of the day it is said on; the lines ahead are written anew at once. */
async function keep(
	who: SignedIn,
	athleteId: string,
	said: Pick<typeof careEvent.$inferInsert, 'kind' | 'note'> & Partial<typeof careEvent.$inferInsert>,
	now: Date,
): Promise<{ reported: true } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return null
		const today = todayAt(who.timeZone, now)
		await insertCareEvent(scope, {
			redFlag: false,
			...said,
			id: newId(),
			athleteId,
			asked: false,
			day: today,
			isVoid: false,
			authorId: who.personId,
			receivedAt: now,
		})
		await rewriteUpcoming(scope, [athleteId], today, now)
		return { reported: true as const }
	})
}

/** The answer to "how was it?" after the easy form or a step: up to 1 it ends sparing a region, 2 or more is a report. */
export async function answerAsked(
	who: SignedIn,
	athleteId: string,
	typed: { region: string; side: string; score: string },
	now: Date,
): Promise<{ kept: true } | { problems: Problems }> {
	const [region, score] = [regionOf(typed.region), scoreOf(typed.score)]
	if (!region) return { problems: { asked: 'Say which region was asked about.' } }
	if (score === null) return { problems: { asked: `“${typed.score}”: a whole number from 0 to 10 is expected.` } }
	const [last] = await recentSessionsOf(scopeOf(who.clubId), [athleteId], todayAt(who.timeZone, now), ASKED_DAYS)
	if (!last) return { problems: { asked: 'There is no session yet in which the easy form was done.' } }
	const value = { region, side: sideOf(typed.side), score }
	const answer = await sayInLog(who, last.session.id, athleteId, { kind: 'quiet', value }, now)
	return answer?.outcome === 'refused' ? { problems: { asked: answer.reason } } : { kept: true }
}

/** Puts an observation said at the desk into the log of a session; a person's desk counts as one device. */
export async function sayInLog(
	who: SignedIn,
	sessionId: string,
	athleteId: string,
	said: { kind: string; value: object; replacesId?: string; void?: boolean; entryId?: string; lineId?: string },
	now: Date,
) {
	const [answer] = await acceptEvents(
		who,
		[
			{
				id: newId(),
				sessionId,
				athleteId,
				deviceId: who.personId,
				deviceSeq: 0,
				deviceTime: now.toISOString(),
				type: 'observation',
				...said,
			},
		],
		now,
	)
	return answer
}
