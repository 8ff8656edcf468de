import type { LadderState, VerdictWord } from '../../core/judge/types'
import type { EventKey } from '../../core/vocabulary/events'
import type { ClubScope } from '../../db/connect'
import { heldOfSession } from '../../db/queries/log'
import { sessionsToReview } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import { type VerdictRow, verdictsOfSession } from '../../db/queries/verdicts'
import { type Sheet, readSheet } from '../sheet/read-sheet'
import { type Proposal, proposeVerdicts } from './propose'

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
export interface Review {
	sheet: Sheet
	rows: ReviewRow[]
	/** Corrections that do not stand: refused, or still without what they correct. */
	held: { id: string; author: string; key: EventKey; athlete: string | null; refused: string | null }[]
}

/** Sessions that are over and wait for their verdicts. */
export const listToReview = (scope: ClubScope) => sessionsToReview(scope)

/** Ease, swap, stop and a first step back want a look, and what comes with a caution; holds, advances, what goes on as before and what is long closed read well. */
function wantsALook({ judgement, input }: Proposal): boolean {
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

const differs = (row: VerdictRow, { judgement }: Proposal): boolean =>
	row.proposed !== judgement.verdict ||
	row.judgement.next.rungId !== judgement.next.rungId ||
	row.judgement.decidedBy !== judgement.decidedBy

/** Everything the review of one session shows; null for a stranger's id. */
export async function readReview(scope: ClubScope, sessionId: string): Promise<Review | null> {
	const sheet = await readSheet(scope, sessionId)
	const squad = sheet && (await readSquad(scope, sheet.session.squadId))
	if (!sheet || !squad) return null
	const proposals = await proposeVerdicts(scope, sheet.session, squad, sheet.library)
	const decided = new Map(
		(await verdictsOfSession(scope, sessionId)).map((row) => [`${row.athleteId}/${row.ladderId}`, row]),
	)
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
	return { sheet, rows, held }
}
