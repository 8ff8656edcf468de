import { v7 as newId } from 'uuid'
import { moveTo } from '../../core/judge/overrule'
import { entryState } from '../../core/judge/resolve-line'
import { inTransaction } from '../../db/connect'
import { insertMove } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
import { readStates, squadsOf, stateKey, writeState } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { documentsOf } from '../review/gather'
import { concludeFor } from '../../core/permit/plain-facts'
import { readFacts } from '../facts/read-facts'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'

/** Puts an athlete on a rung by the coach's hand, with the reason kept; null for a stranger's id. Only a block refuses it. */
export async function moveByHand(
	who: SignedIn,
	athleteId: string,
	ladderId: string,
	rungId: string,
	reason: string,
	/** The day last trained; empty is today. */
	trainedOn: string,
	now: Date,
): Promise<{ moved: true } | { problems: Problems } | null> {
	if (reason.trim().length < 3) return { problems: { [`move-${ladderId}`]: 'Say why, in a few words.' } }
	if (trainedOn !== '' && !/^\d{4}-\d{2}-\d{2}$/.test(trainedOn))
		return { problems: { [`move-${ladderId}`]: `“${trainedOn}”: the day last trained is expected.` } }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const library = await readLibrary(scope)
		const squad = (await squadsOf(scope, [athleteId])).get(athleteId)?.[0]
		const ladder = library.ladders[ladderId]
		if (!ladder || ladder.path) return null
		const schoolId = squad?.schoolId ?? 'quality-first'
		const documents = documentsOf(library, ladderId, schoolId)
		const today = todayAt(who.timeZone, now)
		const moment = {
			day: today,
			startTime: squad?.startTime ?? '17:30',
			phase: squad?.phase ?? ('accumulate' as const),
			surface: null,
		}
		const known = (await readFacts(scope, moment, { schoolId }, [athleteId], library, today)).get(athleteId)
		if (!known) return null
		const before =
			(await readStates(scope, [athleteId], true)).get(stateKey(athleteId, ladderId))?.state ??
			entryState(library, ladderId)
		const outcome = moveTo(rungId, before, documents, concludeFor(known, library).facts)
		if ('refused' in outcome) return { problems: { [`move-${ladderId}`]: outcome.refused } }
		await insertMove(scope, {
			id: newId(),
			athleteId,
			ladderId,
			before,
			after: outcome.next,
			reason: reason.trim().slice(0, 500),
			personId: who.personId,
			at: now,
		})
		await writeState(scope, athleteId, outcome.next, today, now, trainedOn || today)
		await rewriteUpcoming(scope, [athleteId], today, now)
		return { moved: true as const }
	})
}
