import type { ClubScope } from '../db/connect'
import { changesUpTo, hasLogged, isTransaction, logChangesUpTo } from '../db/noted-writes'
import { type StoredEvent, eventsOfSessions } from '../db/queries/log'

/** Values kept in this process, the last ones asked for: what they were made of, counted, and the value. */
const values = new Map<string, { of: number; value: Promise<unknown> }>()
const MOST_VALUES = 400
const FOR_EVER = '9999-12-31'

/**
 * What was worked out of a club's records, as long as nothing it was made of has changed; asked for twice at once, it is
 * worked out once. Frozen, because it is shared. In a transaction, which may have written, it is worked out anew.
 *
 * @param name what it is, with everything else it depends on: ids, the day it is
 * @param upTo marks and reports of sessions after this day are not looked at; all are where it is not said
 */
export async function keptFor<T>(
	scope: ClubScope,
	name: readonly unknown[],
	make: () => Promise<T>,
	upTo: string = FOR_EVER,
): Promise<T> {
	if (isTransaction(scope.db)) return make()
	const key = JSON.stringify([scope.clubId, ...name])
	// Counted first: what changes meanwhile makes the value one of before, which is not taken again.
	const of = await changesUpTo(scope.db, scope.clubId, upTo)
	const known = values.get(key)
	values.delete(key)
	if (known?.of === of) {
		values.set(key, known)
		return known.value as Promise<T>
	}
	const value = make().then(frozen)
	values.set(key, { of, value })
	if (values.size > MOST_VALUES) values.delete(values.keys().next().value!)
	value.catch(() => {
		if (values.get(key)?.value === value) values.delete(key)
	})
	return value
}

/**
 * After a transaction whose change touches a known part of a kept value: the value of before it, with that part made
 * anew, stands as made after it. Where anything else was changed meanwhile the counts differ, and it is worked out whole.
 *
 * @param before how often the club had changed, as the transaction saw it; its own change is counted once
 */
export function mendKept<T>(
	scope: ClubScope,
	name: readonly unknown[],
	before: number,
	mend: (value: T) => Promise<T>,
): void {
	const key = JSON.stringify([scope.clubId, ...name])
	const known = values.get(key)
	if (known?.of !== before) return
	const value = (known.value as Promise<T>).then(mend).then(frozen)
	values.set(key, { of: before + 1, value })
	value.catch(() => {
		if (values.get(key)?.value === value) values.delete(key)
	})
}

/** Events kept in this process by club and session, the last ones asked for. */
const logs = new Map<string, { of: number; events: readonly StoredEvent[] }>()
const MOST_EVENTS = 200_000
let eventsHeld = 0

/** All events of some sessions, replaced ones too, as `eventsOfSessions` reads them; those of sessions nobody has written to since are not read again. Frozen. */
export async function keptEvents(
	scope: ClubScope,
	sessions: readonly { id: string; day: string }[],
): Promise<StoredEvent[]> {
	if (sessions.length === 0) return []
	if (hasLogged(scope.db))
		return eventsOfSessions(
			scope,
			sessions.map(({ id }) => id),
		)
	const changes = await logChangesUpTo(scope.db, scope.clubId)
	const known = new Map<string, readonly StoredEvent[]>()
	const missing: { id: string; of: number }[] = []
	for (const { id, day } of sessions) {
		const [key, of] = [`${scope.clubId}/${id}`, changes(day)]
		const one = logs.get(key)
		if (one?.of !== of) missing.push({ id, of })
		else {
			logs.delete(key)
			logs.set(key, one)
			known.set(id, one.events)
		}
	}
	const read = new Map<string, StoredEvent[]>(missing.map(({ id }) => [id, []]))
	for (const event of await eventsOfSessions(scope, [...read.keys()])) read.get(event.sessionId)!.push(frozen(event))
	for (const { id, of } of missing) {
		const [key, events] = [`${scope.clubId}/${id}`, Object.freeze(read.get(id)!)]
		eventsHeld += events.length - (logs.get(key)?.events.length ?? 0)
		logs.delete(key)
		logs.set(key, { of, events })
		known.set(id, events)
	}
	for (const [key, { events }] of logs) {
		if (eventsHeld <= MOST_EVENTS) break
		logs.delete(key)
		eventsHeld -= events.length
	}
	return sessions.flatMap(({ id }) => known.get(id) ?? [])
}

/** Shared by all who ask: whoever wants another value makes one. */
function frozen<T>(value: T): T {
	if (typeof value === 'object' && value !== null && !Object.isFrozen(value) && !ArrayBuffer.isView(value)) {
		Object.freeze(value)
		for (const part of Object.values(value)) frozen(part)
	}
	return value
}
