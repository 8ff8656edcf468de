import { CAUSE_NAMES, type CauseId } from '../../core/record/why'
import { inTransaction } from '../../db/connect'
import { causesNamed, nameCause, unnameCause } from '../../db/queries/record'
import { recentSessionsOf } from '../../db/queries/sessions'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'

/** Days can be named that far back. */
const NAMED_DAYS = 84

/**
 * What a coach says made a day of an athlete flat or good: these causes and no others.
 *
 * @returns null for a session the athlete was not down for, that has not begun, or that lies further back than twelve weeks
 */
export async function nameCauses(
	who: SignedIn,
	athleteId: string,
	sessionId: string,
	causes: readonly string[],
	now: Date,
): Promise<{ named: number } | { problems: Record<string, string> } | null> {
	const known = causes.filter((cause): cause is CauseId => Object.hasOwn(CAUSE_NAMES, cause))
	if (known.length !== causes.length) return { problems: { cause: 'One of these is no cause that is known here.' } }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const sessions = await recentSessionsOf(scope, [athleteId], todayAt(who.timeZone, now), NAMED_DAYS)
		if (!sessions.some(({ session }) => session.id === sessionId && session.startedAt !== null)) return null
		const before = (await causesNamed(scope, athleteId)).filter((one) => one.sessionId === sessionId)
		for (const { cause } of before)
			if (!known.includes(cause)) await unnameCause(scope, { athleteId, sessionId, cause })
		for (const cause of known) await nameCause(scope, { athleteId, sessionId, cause, personId: who.personId, at: now })
		return { named: known.length }
	})
}
