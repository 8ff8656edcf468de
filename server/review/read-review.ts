import type { LadderState } from '../../core/progress/types'
import type { ClubScope } from '../../db/connect'
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
}
export interface Review {
	sheet: Sheet
	rows: ReviewRow[]
}

/** Everything the review of one session shows; null for a stranger's id. */
export async function readReview(scope: ClubScope, sessionId: string): Promise<Review | null> {
	const sheet = await readSheet(scope, sessionId)
	const squad = sheet && (await readSquad(scope, sheet.session.squadId))
	if (!sheet || !squad) return null
	const proposals = await proposeVerdicts(scope, sheet.session, squad, sheet.library)
	const decided = new Map((await verdictsOfSession(scope, sessionId)).map((row) => [`${row.athleteId}/${row.ladderId}`, row]))
	const rows = proposals.map((proposal): ReviewRow => {
		const row = decided.get(`${proposal.athleteId}/${proposal.ladderId}`) ?? null
		return {
			...proposal,
			name: sheet.athletes.find((athlete) => athlete.id === proposal.athleteId)?.name ?? '',
			ladderName: sheet.library.ladders[proposal.ladderId]?.name ?? proposal.ladderId,
			decided: row,
			needsYou: row === null && !['hold', 'advance'].includes(proposal.judgement.verdict) && !(proposal.judgement.verdict === 'stop' && proposal.judgement.decidedBy === 'S2'),
			after: row?.after ?? proposal.judgement.next,
		}
	})
	return { sheet, rows }
}
