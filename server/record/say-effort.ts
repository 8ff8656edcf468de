import { foldEvents } from '../../core/events/fold'
import type { Draft, Write } from '../../core/field/session/writes'
import { effortsOf } from '../../core/record/effort'
import { eventsOfSessions } from '../../db/queries/log'
import { readSession } from '../../db/queries/sessions'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'
import { told } from '../field/read-pack'
import { sendFromDesk } from './write-done'

/** How many were kept, and how many not: by role, or because the number is none. */
export interface Said {
	kept: number
	refused: number
}

/**
 * How hard athletes found a session, 0 to 10, over so many minutes: of a squad by its coach, of their own by an
 * athlete. What was said before is corrected, so that a session loads once.
 *
 * @returns null for a stranger's session
 */
export async function sayEfforts(
	who: SignedIn,
	sessionId: string,
	given: readonly { athleteId: string; rpe: number }[],
	minutes: number,
	now: Date,
): Promise<Said | null> {
	const scope = scopeOf(who.clubId)
	if (!(await readSession(scope, sessionId))) return null
	const { current } = foldEvents(await told(scope, await eventsOfSessions(scope, [sessionId])))
	const writes = given.map(({ athleteId, rpe }): Write => {
		const value = { rpe, minutes }
		const before = effortsOf(current, athleteId).get(sessionId)
		return before
			? { correct: before, change: { value, deviceTime: now.toISOString() } }
			: { add: { athleteId, type: 'observation', kind: 'effort', value } as Draft }
	})
	const refused = (await sendFromDesk(who, sessionId, writes, now)).filter(({ outcome }) => outcome === 'refused')
	return { kept: given.length - refused.length, refused: refused.length }
}
