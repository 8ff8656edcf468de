import type { LadderState, VerdictWord } from '../../core/judge/types'
import { type Ask, toAsk } from '../../core/field/to-ask'
import { isOfBody } from '../../core/vocabulary/event-kinds'
import type { EventKey, LogEvent } from '../../core/vocabulary/events'
import { sayReport } from '../../core/care/say-report'
import type { ClubScope } from '../../db/connect'
import { heldOfSession } from '../../db/queries/log'
import { sessionsToReview } from '../../db/queries/sessions'
import { type VerdictRow, decisionsOfSession } from '../../db/queries/verdicts'
import { type BodyNow, asksOf, bodyOf } from '../../core/field/body-now'
import { keptFor } from '../kept'
import { type Sheet, knownOf, readSheet } from '../sheet/read-sheet'
import { type Proposal, differs, readProposals } from './propose'

export interface ReviewRow extends Proposal {
	name: string
	ladderName: string
	/** Set when it has been decided. */
	decided: VerdictRow | null
	/** Ease, swap, stop and re-enter want a look; holds, advances and what is long closed read well. */
	needsYou: boolean
	after: LadderState
	/** What the verdict would be on what is known now, when that differs from what was decided on. */
	wouldNowBe: { verdict: VerdictWord; sentence: string } | null
}
/** What a session leaves to be seen of one athlete's body. */
export interface ReviewBody extends BodyNow {
	athleteId: string
	name: string
	/** Said in this session, newest last; for who reads it. */
	said: { id: string; words: string }[]
	/** Nobody has asked yet how it was. */
	asks: Ask[]
}
export interface Review {
	sheet: Sheet
	rows: ReviewRow[]
	/** Earlier decisions of what was decided anew, by athlete and ladder, the oldest first. */
	before: { athleteId: string; ladderId: string; word: VerdictWord; reason: string | null; at: string }[]
	bodies: ReviewBody[]
	/** Corrections that do not stand: refused, or still without what they correct. */
	held: { id: string; author: string; key: EventKey; athlete: string | null; refused: string | null }[]
}

/** Sessions that are over and wait for their verdicts. */
export const listToReview = (scope: ClubScope) => sessionsToReview(scope)

/** Ease, swap, stop and a first step back want a look, and what comes with a caution; holds, advances, what goes on as before and what is long closed read well. */
export function wantsALook({ judgement, input }: Proposal): boolean {
	const { verdict, decidedBy } = judgement
	if (judgement.cautions.length > 0) return true
	if (verdict === 'hold' || verdict === 'advance') return false
	// What was closed or spared before the session reads well: it was looked at when it came.
	if ((decidedBy === 'S1' || decidedBy === 'S2') && !saidInSession(input)) return false
	// A step back that moves on reads well; one that is repeated wants a look.
	if (decidedBy === 'RE' && verdict === 're-enter' && judgement.next.reentry?.rungId !== input.state.reentry?.rungId)
		return false
	return !(decidedBy === 'P7' && input.state.substitute)
}
const saidInSession = (input: Proposal['input']): boolean =>
	input.pains.some((one) => one.sessionId === input.sessionId && one.score > 0) ||
	(input.closures ?? []).some((one) => one.grade !== 'noted' && one.since >= input.day) ||
	input.restrictions.some((one) => one.since >= input.day)

/** Whom something was said of in the session, is closed or spared, or who is still to be asked; the most closed first. */
async function readReviewBodies(scope: ClubScope, sheet: Sheet): Promise<ReviewBody[]> {
	const { session, athletes, events } = sheet
	const all = await knownOf(scope, sheet)
	const weight = ({ said, asks, weight: closed }: ReviewBody) =>
		3 * closed + (asks.length > 0 ? 2 : said.length > 0 ? 1 : 0)
	return athletes
		.map(({ id, name, lines }): ReviewBody => {
			const { plain, concluded } = all.get(id)!
			const own = events.filter((event) => event.athleteId === id)
			const done = lines.map((line) => {
				const reps = own.flatMap((event) =>
					event.type === 'mark' && event.entryId === line.entryId && event.kind !== 'missed' ? [event] : [],
				)
				// The session is over: whatever was begun is all there will be.
				return { drill: line.drill ?? undefined, repsDone: reps.length, finished: true }
			})
			return {
				athleteId: id,
				name,
				...bodyOf(concluded, plain.sessions ?? [], session.day),
				said: own.flatMap((event) => (isOfBody(event) ? [{ id: event.id, words: sayReport(event) }] : [])),
				asks: toAsk({ id, ask: asksOf(concluded, session.day) }, done, own as LogEvent[]),
			}
		})
		.filter((body) => weight(body) > 0)
		.sort((a, b) => weight(b) - weight(a) || a.name.localeCompare(b.name))
}

/** Everything the review of one session shows, kept as long as nothing changes; null for a stranger's id. */
export const readReview = (scope: ClubScope, sessionId: string): Promise<Review | null> =>
	keptFor(scope, ['review', sessionId], (scope) => workOutReview(scope, sessionId))
async function workOutReview(scope: ClubScope, sessionId: string): Promise<Review | null> {
	const sheet = await readSheet(scope, sessionId)
	if (!sheet) return null
	const proposals = await readProposals(scope, sessionId, sheet.session.day)
	const decisions = await decisionsOfSession(scope, sessionId)
	// The newest of each comes last.
	const decided = new Map(decisions.map((row) => [`${row.athleteId}/${row.ladderId}`, row]))
	const rows = proposals.map((proposal): ReviewRow => {
		const row = decided.get(`${proposal.athleteId}/${proposal.ladderId}`) ?? null
		return {
			...proposal,
			name: sheet.athletes.find((athlete) => athlete.id === proposal.athleteId)?.name ?? '',
			ladderName: sheet.library.ladders[proposal.ladderId]?.name ?? proposal.ladderId,
			decided: row,
			needsYou: row === null && wantsALook(proposal),
			after: row?.after ?? proposal.judgement.next,
			wouldNowBe:
				row &&
				row.rulesVersion === proposal.input.rulesVersion &&
				row.inputHash !== proposal.inputHash &&
				differs(row, proposal)
					? { verdict: proposal.judgement.verdict, sentence: proposal.judgement.sentence }
					: null,
		}
	})
	const held = (await heldOfSession(scope, sessionId)).map(({ id, author, event, refused }) => ({
		id,
		author,
		key: `${event.type}/${event.kind}` as EventKey,
		athlete: sheet.athletes.find((athlete) => athlete.id === event.athleteId)?.name ?? null,
		refused,
	}))
	const before = decisions
		.filter((row) => decided.get(`${row.athleteId}/${row.ladderId}`) !== row)
		.map(({ athleteId, ladderId, decided: word, reason, decidedAt }) => ({
			athleteId,
			ladderId,
			word,
			reason,
			at: decidedAt.toISOString().slice(0, 16).replace('T', ' '),
		}))
	return { sheet, rows, before, bodies: await readReviewBodies(scope, sheet), held }
}
