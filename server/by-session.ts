import { freeze } from '../core/lists/freeze'
import { addTo } from '../core/lists/group-by'
import type { ClubScope } from '../db/connect'
import { hasLogged, logChangesUpTo } from '../db/noted-writes'
import { readForKeeping } from '../db/read-once'

/**
 * What this process keeps of single sessions, the last ones asked for: nearly every day has been written to for the last
 * time, and is not read again for one that is.
 */
export class BySession<T> {
	private readonly kept = new Map<string, { of: number; value: T; size: number }>()
	private held = 0

	/**
	 * @param most that is held of them all
	 * @param sizeOf how much of it one is
	 */
	constructor(
		private readonly most: number,
		private readonly sizeOf: (value: T) => number,
	) {}

	/** @param of how often the session's log has changed (`logChangesUpTo`) */
	get({ clubId }: ClubScope, sessionId: string, of: number): T | undefined {
		const key = `${clubId}/${sessionId}`
		const one = this.kept.get(key)
		if (one?.of !== of) return undefined
		this.kept.delete(key)
		this.kept.set(key, one)
		return one.value
	}

	put({ clubId }: ClubScope, sessionId: string, of: number, value: T): void {
		const key = `${clubId}/${sessionId}`
		const size = this.sizeOf(value)
		this.held += size - (this.kept.get(key)?.size ?? 0)
		this.kept.delete(key)
		this.kept.set(key, { of, value, size })
		for (const [old, { size: freed }] of this.kept) {
			if (this.held <= this.most) return
			this.kept.delete(old)
			this.held -= freed
		}
	}
}

/** What is read of athletes in sessions. */
interface InSession {
	sessionId: string
	athleteId: string
}
/** What was read of one session, of each athlete that was asked about: an empty list for who has nothing in it. */
type OfAthletes<T> = ReadonlyMap<string, readonly T[]>

/**
 * What athletes have in sessions, kept of each session that nobody writes to any more.
 *
 * @param mostAthletes that are kept, of all sessions together
 * @param read all of it of some athletes in some sessions, in its order; what it goes by may be written in the log alone,
 * or never once it is written
 */
export function keptInSessions<T extends InSession>(
	mostAthletes: number,
	read: (scope: ClubScope, athleteIds: string[], sessionIds: string[]) => Promise<readonly T[]>,
) {
	const kept = new BySession<OfAthletes<T>>(mostAthletes, (athletes) => athletes.size)

	async function readAnew(scope: ClubScope, athleteIds: string[], sessionIds: string[]) {
		const bySession = new Map(
			sessionIds.map((id) => [id, new Map<string, T[]>(athleteIds.map((athleteId) => [athleteId, []]))]),
		)
		if (sessionIds.length === 0) return bySession
		for (const one of await readForKeeping(() => read(scope, athleteIds, sessionIds))) {
			freeze(one)
			addTo(bySession.get(one.sessionId)!, one.athleteId, one)
		}
		return bySession
	}

	/** By session and athlete; in a transaction that has logged, what it sees. */
	return async (
		scope: ClubScope,
		athleteIds: string[],
		sessions: readonly { id: string; day: string }[],
	): Promise<Map<string, OfAthletes<T>>> => {
		if (hasLogged(scope.db))
			return readAnew(
				scope,
				athleteIds,
				sessions.map(({ id }) => id),
			)
		const changes = await logChangesUpTo(scope.db, scope.clubId)
		const known = new Map<string, OfAthletes<T>>()
		for (const { id, day } of sessions) known.set(id, kept.get(scope, id, changes(day)) ?? new Map<string, never>())
		const missing = sessions.filter(({ id }) => !athleteIds.every((athleteId) => known.get(id)!.has(athleteId)))
		const anew = await readAnew(
			scope,
			athleteIds,
			missing.map(({ id }) => id),
		)
		for (const { id, day } of missing) {
			const both = new Map([...known.get(id)!, ...anew.get(id)!])
			kept.put(scope, id, changes(day), both)
			known.set(id, both)
		}
		return known
	}
}
