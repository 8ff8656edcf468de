import { v7 as newId } from 'uuid'
import { inTransaction } from '../../db/connect'
import { insertCareEvent } from '../../db/queries/care'
import { readAthletes } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'

/** What closes everything: a blow to the head, or a chest that hurts. */
const KINDS = ['head', 'chest'] as const

/** Says that somebody's head or chest is not right: everything is closed at once, until a doctor has cleared it. */
export async function reportCare(
	who: SignedIn,
	athleteId: string,
	typed: { kind: string; note: string },
	now: Date,
): Promise<{ reported: true } | { problems: Problems }> {
	const kind = KINDS.find((one) => one === typed.kind)
	if (!kind) return { problems: { pain: 'Pick where it hurts.' } }
	if (!may(who.role, 'pain:write') && who.athleteId !== athleteId) return { problems: { pain: 'Only about yourself.' } }
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return { problems: { pain: 'No such athlete.' } }
		const today = todayAt(who.timeZone, now)
		await insertCareEvent(scope, {
			id: newId(),
			athleteId,
			sessionId: null,
			drillId: null,
			kind,
			region: null,
			side: null,
			score: null,
			redFlag: true,
			asked: false,
			day: today,
			note: typed.note.trim().slice(0, 500),
			isVoid: false,
			authorId: who.personId,
			receivedAt: now,
		})
		await rewriteUpcoming(scope, [athleteId], today, now)
		return { reported: true as const }
	})
}
