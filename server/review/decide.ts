import { v7 as newId } from 'uuid'
import { walkTogether } from '../../core/judge/walk-together'
import type { LadderState } from '../../core/judge/types'
import { type OverruleWord, OVERRULE_WORDS, overrule } from '../../core/judge/overrule'
import type { Library } from '../../core/vocabulary/library'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { type SessionRow, lockSession, unstartedAfter, updateSession } from '../../db/queries/sessions'
import { type WrittenState, readSquad, readStates, stateKey, writeStates } from '../../db/queries/squads'
import { insertVerdicts, verdictsOfSession } from '../../db/queries/verdicts'
import type { SignedIn } from '../access/sign-in'
import { database, scopeOf } from '../database'
import { copyForward } from '../sheet/save-session'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { documentsOf } from './gather'
import {
	type Proposal,
	changesOfProposals,
	differs,
	keepOtherProposals,
	linesToJudge,
	proposeVerdicts,
} from './propose'

export interface CoachDecision {
	athleteId: string
	ladderId: string
	/** What the coach saw: a verdict on other evidence is not accepted blindly. */
	inputHash: string
	/** Set to decide once more: what late evidence has changed, or what the coach takes back. The turn of the decision that was seen; it stays in the history. */
	instead?: number
	/** Set to overrule the proposal. */
	overrule?: { word: string; reason: string }
}

export interface Decided {
	decided: number
	refused: { athleteId: string; ladderId: string; reason: string }[]
	nextSession: { id: string; day: string; made: boolean } | null
}

/**
 * Accepts or overrules verdicts of one session in one transaction: ladder states move, the lines of
 * every unstarted session are written anew from them, and the squad's next session is made when
 * there is none. Null for a stranger's id.
 */
export async function decideVerdicts(
	who: SignedIn,
	sessionId: string,
	decisions: CoachDecision[],
	now: Date,
): Promise<Decided | null> {
	let keepOthers = () => {}
	const decided = await inTransaction(database().db, who.clubId, async (scope) => {
		keepOthers = () => {}
		const session = await lockSession(scope, sessionId)
		if (!session) return null
		const changes = await changesOfProposals(scope, session.day)
		const squad = await readSquad(scope, session.squadId)
		if (!squad) return null
		const library = await readLibrary(scope)
		const states = await readStates(
			scope,
			decisions.map((decision) => decision.athleteId),
			true,
		)
		const proposals = new Map(
			(
				await proposeVerdicts(scope, session, squad, library, {
					only: new Set(decisions.map(({ athleteId }) => athleteId)),
				})
			).map((proposal) => [stateKey(proposal.athleteId, proposal.ladderId), proposal]),
		)
		const already = new Map(
			(await verdictsOfSession(scope, sessionId)).map((row) => [stateKey(row.athleteId, row.ladderId), row]),
		)
		const decidedNow = new Set<string>()
		const refused: Decided['refused'] = []
		const moved = new Set<string>()
		const verdicts: Parameters<typeof insertVerdicts>[1] = []
		const written: WrittenState[] = []
		const walks: { athleteId: string; before: LadderState; after: LadderState }[] = []
		for (const decision of decisions) {
			const key = stateKey(decision.athleteId, decision.ladderId)
			const refuse = (reason: string) =>
				refused.push({ athleteId: decision.athleteId, ladderId: decision.ladderId, reason })
			const proposal = proposals.get(key)
			const standing = already.get(key)
			// Late evidence may be decided on at any time; a mere change of mind only while nothing was built on it.
			const isAsItWas = standing !== undefined && proposal !== undefined && !differs(standing, proposal)
			if (!proposal) refuse('There is no line for this athlete and ladder.')
			else if (decidedNow.has(key) || standing?.turn !== decision.instead) refuse('Somebody has decided this already.')
			else if (isAsItWas && wordOf(decision, proposal) === standing.decided)
				refuse('Nothing has changed since this was decided.')
			else if (isAsItWas && (states.get(key)?.asOf ?? '') > session.day)
				refuse('A later session was judged on this: move the athlete by hand, on the ladder’s page.')
			else if (proposal.inputHash !== decision.inputHash)
				refuse('New marks came in since this page was read. Look again.')
			else {
				const outcome = choose(decision, proposal, documentsOf(library, decision.ladderId, squad.schoolId))
				if ('refused' in outcome) {
					refuse(outcome.refused)
					continue
				}
				verdicts.push({
					id: newId(),
					sessionId,
					athleteId: decision.athleteId,
					ladderId: decision.ladderId,
					turn: (standing?.turn ?? -1) + 1,
					day: session.day,
					proposed: proposal.judgement.verdict,
					decided: outcome.word,
					reason: outcome.reason,
					sentence: proposal.judgement.sentence,
					judgement: proposal.judgement,
					before: proposal.input.state,
					after: outcome.next,
					input: proposal.input,
					inputHash: proposal.inputHash,
					rulesVersion: proposal.input.rulesVersion,
					decidedBy: who.personId,
					decidedAt: now,
				})
				decidedNow.add(key)
				// A verdict on an older session, decided late, is kept but moves nobody back.
				if ((states.get(key)?.asOf ?? '') <= session.day) {
					written.push({ athleteId: decision.athleteId, state: outcome.next, asOf: session.day })
					walks.push({ athleteId: decision.athleteId, before: proposal.input.state, after: outcome.next })
					moved.add(decision.athleteId)
				}
			}
		}
		await insertVerdicts(scope, verdicts)
		const standing = new Map(states)
		for (const { athleteId, state, asOf } of written)
			standing.set(stateKey(athleteId, state.ladderId), { state, asOf, trainedOn: null })
		for (const athleteId of moved) {
			const own = [...standing].flatMap(([key, one]) => (key.startsWith(`${athleteId}/`) ? [one] : []))
			for (const state of walkTogether(
				own.map((one) => one.state),
				walks.filter((walk) => walk.athleteId === athleteId),
				library,
				session.day,
			)) {
				const { asOf } = standing.get(stateKey(athleteId, state.ladderId))!
				written.push({ athleteId, state, asOf: asOf > session.day ? asOf : session.day })
			}
		}
		await writeStates(scope, written, now)
		if (
			(await linesToJudge(scope, sessionId)).every(({ athleteId, ladderId }) => {
				const key = stateKey(athleteId, ladderId)
				return already.has(key) || decidedNow.has(key)
			})
		)
			await updateSession(scope, sessionId, { reviewedAt: now })
		const nextSession = moved.size === 0 ? null : await writeNext(scope, session, [...moved], library, now)
		// Everybody is judged for the session that comes next.
		if (!nextSession?.made) {
			const athleteIds = new Set(decisions.map(({ athleteId }) => athleteId))
			keepOthers = () => keepOtherProposals(scopeOf(who.clubId), session, athleteIds, changes)
		}
		return { decided: decisions.length - refused.length, refused, nextSession }
	})
	keepOthers()
	return decided
}

const wordOf = ({ overrule }: CoachDecision, { judgement }: Proposal): string => overrule?.word ?? judgement.verdict

type Chosen =
	| { word: Proposal['judgement']['verdict']; next: Proposal['judgement']['next']; reason: string | null }
	| { refused: string }

function choose(decision: CoachDecision, proposal: Proposal, documents: ReturnType<typeof documentsOf>): Chosen {
	if (!decision.overrule) return { word: proposal.judgement.verdict, next: proposal.judgement.next, reason: null }
	const { word, reason } = decision.overrule
	if (!(OVERRULE_WORDS as readonly string[]).includes(word))
		return { refused: `“${word}” is not one of ${OVERRULE_WORDS.join(', ')}.` }
	if (reason.trim().length < 3) return { refused: 'Say why, in a few words.' }
	const outcome = overrule(word as OverruleWord, proposal.judgement, proposal.input, documents)
	return 'refused' in outcome
		? outcome
		: { word: word as OverruleWord, next: outcome.next, reason: reason.trim().slice(0, 500) }
}

/** Lines of every unstarted session the athletes are down for, whichever squad; and the squad's own next one. */
async function writeNext(
	scope: ClubScope,
	session: SessionRow,
	athleteIds: string[],
	library: Library,
	now: Date,
): Promise<Decided['nextSession']> {
	const squad = await readSquad(scope, session.squadId)
	if (!squad) return null
	const [planned] = await unstartedAfter(scope, session)
	const next = planned ?? (await copyForward(scope, session, squad, library, now))
	await rewriteUpcoming(scope, athleteIds, session.day, now, session.id)
	return { id: next.id, day: next.day, made: !planned }
}

/**
 * Closes a session with nothing left to decide: one without ladders, whose pains have been looked at. False when
 * something is still open; null for a stranger's id.
 */
export async function closeReview(who: SignedIn, sessionId: string, now: Date): Promise<boolean | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		if (!session) return null
		const decided = new Set(
			(await verdictsOfSession(scope, sessionId)).map((row) => stateKey(row.athleteId, row.ladderId)),
		)
		const open = (await linesToJudge(scope, sessionId)).some(
			({ athleteId, ladderId }) => !decided.has(stateKey(athleteId, ladderId)),
		)
		if (open) return false
		if (session.reviewedAt === null) await updateSession(scope, sessionId, { reviewedAt: now })
		return true
	})
}
