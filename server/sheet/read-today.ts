import { addDays } from '../../core/calendar/day-count'
import { reviewHead, sayReviewHead } from '../../core/record/review-head'
import { readProposals } from '../review/propose'
import { wantsALook } from '../review/read-review'
import type { ClubScope } from '../../db/connect'
import { type ListedSession, sessionsBetween, sessionsToReview } from '../../db/queries/sessions'
import { listMembers, listSquads } from '../../db/queries/squads'
import { verdictsOfSession } from '../../db/queries/verdicts'
import { type Sheet, readSheet } from './read-sheet'

export interface Waiting {
	session: ListedSession
	/** Who is behind its open verdicts, in one line. */
	words: string
}
export interface Today {
	/** The session of today, else the next one. */
	main: Sheet | null
	week: ListedSession[]
	waiting: Waiting[]
}

/** What is on, what changes for whom, and what waits for a decision. */
export async function readToday(scope: ClubScope, today: string, withVerdicts: boolean): Promise<Today> {
	const week = await sessionsBetween(scope, today, addDays(today, 8))
	const first = week.find((session) => session.reviewedAt === null) ?? week[0]
	const main = first ? await readSheet(scope, first.id) : null
	const waiting: Waiting[] = []
	if (withVerdicts) {
		for (const session of (await sessionsToReview(scope)).slice(0, 4)) {
			const done = new Set(
				(await verdictsOfSession(scope, session.id)).map((row) => `${row.athleteId}/${row.ladderId}`),
			)
			const open = (await readProposals(scope, session.id, session.day)).filter(
				(proposal) => !done.has(`${proposal.athleteId}/${proposal.ladderId}`),
			)
			waiting.push({
				session,
				words: sayReviewHead(reviewHead(open.map((proposal) => ({ ...proposal, needsYou: wantsALook(proposal) })))),
			})
		}
	}
	return { main, week, waiting }
}

/** What a club lacks before it can plan: a squad, somebody in this one; null where it lacks nothing. */
export type Missing = 'a squad' | { id: string; name: string }
export async function readMissing(scope: ClubScope): Promise<Missing | null> {
	const squads = await listSquads(scope)
	const [first] = squads
	if (!first) return 'a squad'
	return (await listMembers(scope)).length === 0 ? { id: first.id, name: first.name } : null
}
