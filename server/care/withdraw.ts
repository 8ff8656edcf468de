import { v7 as newId } from 'uuid'
import { SLIP_MS } from '../../core/care/said'
import { closuresOn } from '../../core/care/closures'
import { QUALITY_FIRST } from '../../core/library/schools'
import { isOfBody } from '../../core/vocabulary/event-kinds'
import { type ClubScope, inTransaction } from '../../db/connect'
import { type CareEventRow, deskReport, insertCareEvent, withdrawCareEvent } from '../../db/queries/care'
import { eventsById } from '../../db/queries/log'
import { readLibrary } from '../../db/queries/library'
import { readAthletes } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database, scopeOf } from '../database'
import { readFacts } from '../facts/read-facts'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { sayInLog } from './report'

export interface Withdrawal {
	id: string
	from: string
	reason: string
	/** Whose report it was instead; empty: nobody's. */
	athleteId: string
}
type Withdrawn = { withdrawn: true } | { problems: Problems } | null

/** A report is put right by whoever made it, a clinician or the coach. */
export const mayWithdraw = (who: SignedIn, authorId: string): boolean =>
	who.personId === authorId || may(who.role, 'care:write')

/**
 * Takes a report back, or moves it to the athlete it was about, with a reason that stays to be read. What had closed
 * somebody still wants its clearance, unless its author takes it back within two minutes; what was another
 * athlete's is theirs alone.
 *
 * @returns null for an id that is not this athlete's
 */
export async function withdrawReport(
	who: SignedIn,
	athleteId: string,
	typed: Withdrawal,
	now: Date,
): Promise<Withdrawn> {
	const reason = typed.reason.trim().slice(0, 500)
	if (reason.length < 3) return { problems: { [typed.id]: 'Why? A reason is expected.' } }
	return typed.from === 'desk'
		? withdrawAtDesk(who, athleteId, { ...typed, reason }, now)
		: withdrawInLog(who, athleteId, { ...typed, reason }, now)
}

async function withdrawInLog(who: SignedIn, athleteId: string, typed: Withdrawal, now: Date): Promise<Withdrawn> {
	const [target] = await eventsById(scopeOf(who.clubId), [typed.id])
	if (!target || !isOfBody(target) || target.athleteId !== athleteId) return null
	const { sessionId, kind, value } = target
	const answer = await sayInLog(
		who,
		sessionId,
		typed.athleteId || athleteId,
		{
			kind,
			replacesId: typed.id,
			...(typed.athleteId ? { value } : { value: { ...value, note: typed.reason }, void: true }),
			// A worry is about the line it was said on.
			...(kind === 'worry' ? { entryId: target.entryId, lineId: target.lineId } : {}),
		},
		now,
	)
	return answer?.outcome === 'refused' ? { problems: { [typed.id]: answer.reason } } : { withdrawn: true }
}

async function withdrawAtDesk(who: SignedIn, athleteId: string, typed: Withdrawal, now: Date): Promise<Withdrawn> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const row = await deskReport(scope, typed.id)
		if (!row || row.athleteId !== athleteId) return null
		if (!mayWithdraw(who, row.authorId))
			return { problems: { [typed.id]: 'Only its author, a clinician or the coach puts a report right.' } }
		if (row.withdrawnAt) return { problems: { [typed.id]: 'It was taken back already.' } }
		const moved = typed.athleteId !== '' && typed.athleteId !== athleteId
		if (moved && (await readAthletes(scope, [typed.athleteId])).length === 0) return null
		const slip = who.personId === row.authorId && now.getTime() - row.receivedAt.getTime() <= SLIP_MS
		const today = todayAt(who.timeZone, now)
		await withdrawCareEvent(scope, typed.id, {
			withdrawnBy: who.personId,
			withdrawnAt: now,
			withdrawnReason: typed.reason,
			isVoid: moved || slip || !(await closes(scope, row, today)),
		})
		if (moved) {
			const { clubId: _club, withdrawnBy: _by, withdrawnAt: _at, withdrawnReason: _reason, ...said } = row
			await insertCareEvent(scope, { ...said, id: newId(), athleteId: typed.athleteId })
		}
		await rewriteUpcoming(scope, moved ? [athleteId, typed.athleteId] : [athleteId], today, now)
		return { withdrawn: true as const }
	})
}

/** Whether somebody is closed by a report of the desk: everything, or a place that would not be closed without it. */
async function closes(scope: ClubScope, row: CareEventRow, today: string): Promise<boolean> {
	if (row.kind === 'head' || row.kind === 'chest') return true
	const { athleteId } = row
	const library = await readLibrary(scope)
	const moment = { day: today, startTime: '12:00', phase: 'accumulate' as const, surface: null }
	const facts = await readFacts(scope, moment, { schoolId: QUALITY_FIRST.id }, [athleteId], library, today)
	const known = facts.get(athleteId)!
	const own = known.reports.findIndex(
		(one) =>
			one.kind === row.kind &&
			one.region === row.region &&
			one.score === (row.score ?? undefined) &&
			one.day === row.day,
	)
	const shutBy = (reports: typeof known.reports) =>
		closuresOn({ ...known, reports }, today).filter(({ grade }) => grade === 'closed' || grade === 'everything').length
	return shutBy(known.reports) > shutBy(known.reports.filter((_, index) => index !== own))
}
