import { v7 as newId } from 'uuid'
import { isDay } from '../../core/calendar/day-count'
import { type Placing, moveTo, placingKey } from '../../core/judge/overrule'
import { entryState } from '../../core/judge/resolve-line'
import { concludeFor } from '../../core/permit/plain-facts'
import { type ClubScope, inTransaction } from '../../db/connect'
import { insertMove } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
import { readStates, squadsOf, stateKey, writeState } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { readFacts } from '../facts/read-facts'
import { documentsOf } from '../review/gather'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'

/**
 * Puts athletes on rungs by the coach's hand, all or none, with the reason kept; null for a stranger's id. Only a block
 * refuses one; a rung that waits for another that is set in the same breath is looked at after it.
 *
 * @param trainedOn the day last trained; empty is today
 */
export async function moveByHand(
	who: SignedIn,
	placings: readonly Placing[],
	reason: string,
	trainedOn: string,
	now: Date,
): Promise<{ moved: number } | { problems: Problems } | null> {
	const today = todayAt(who.timeZone, now)
	if (reason.trim().length < 3) return { problems: { reason: 'Say why, in a few words.' } }
	if (trainedOn !== '' && !(isDay(trainedOn) && trainedOn <= today))
		return { problems: { trainedOn: `“${trainedOn}”: the day last trained is expected, today or before.` } }
	try {
		return await inTransaction(database().db, who.clubId, async (scope) => {
			const athleteIds = [...new Set(placings.map((one) => one.athleteId))]
			let open = [...placings]
			let refused: Problems = {}
			while (open.length > 0) {
				const tried = await tryEach(scope, who, open, { reason, trainedOn: trainedOn || today, today, now })
				if (tried === null) throw new NotOurs()
				refused = tried
				const left = open.filter((one) => placingKey(one) in tried)
				if (left.length === open.length) throw new Refused(refused)
				open = left
			}
			await rewriteUpcoming(scope, athleteIds, today, now)
			return { moved: placings.length }
		})
	} catch (error) {
		// What was placed before the refused one is taken back with the transaction.
		if (error instanceof Refused) return { problems: error.problems }
		if (error instanceof NotOurs) return null
		throw error
	}
}
class NotOurs extends Error {}
class Refused extends Error {
	constructor(readonly problems: Problems) {
		super('refused')
	}
}

/** Writes what is not refused, each by what is known of the athlete at the beginning; null for a stranger's id. */
async function tryEach(
	scope: ClubScope,
	who: SignedIn,
	placings: readonly Placing[],
	{ reason, trainedOn, today, now }: { reason: string; trainedOn: string; today: string; now: Date },
): Promise<Problems | null> {
	const library = await readLibrary(scope)
	const problems: Problems = {}
	for (const athleteId of new Set(placings.map((one) => one.athleteId))) {
		const squad = (await squadsOf(scope, [athleteId])).get(athleteId)?.[0]
		const schoolId = squad?.schoolId ?? 'quality-first'
		const moment = {
			day: today,
			startTime: squad?.startTime ?? '17:30',
			phase: squad?.phase ?? ('accumulate' as const),
			surface: null,
		}
		const known = (await readFacts(scope, moment, { schoolId }, [athleteId], library, today)).get(athleteId)
		if (!known) return null
		const { facts } = concludeFor(known, library)
		const states = await readStates(scope, [athleteId], true)
		for (const placing of placings.filter((one) => one.athleteId === athleteId)) {
			const ladder = library.ladders[placing.ladderId]
			if (!ladder || ladder.path) return null
			const before = states.get(stateKey(athleteId, ladder.id))?.state ?? entryState(library, ladder.id)
			const outcome = moveTo(placing.rungId, before, documentsOf(library, ladder.id, schoolId), facts)
			if ('refused' in outcome) {
				problems[placingKey(placing)] = outcome.refused
				continue
			}
			await insertMove(scope, {
				id: newId(),
				athleteId,
				ladderId: ladder.id,
				before,
				after: outcome.next,
				reason: reason.trim().slice(0, 500),
				personId: who.personId,
				at: now,
			})
			await writeState(scope, athleteId, outcome.next, today, now, trainedOn)
		}
	}
	return problems
}
