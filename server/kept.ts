import { AsyncLocalStorage } from 'node:async_hooks'
import { performance } from 'node:perf_hooks'
import { deserialize, getHeapStatistics, serialize } from 'node:v8'
import { freeze } from '../core/lists/freeze'
import type { ClubScope } from '../db/connect'
import { type Changes, changesUpTo, hasLogged, isTransaction, logChangesUpTo } from '../db/noted-writes'
import { type StoredEvent, eventsOfSessions } from '../db/queries/log'
import { Answers, answersHere, readForKeeping, readOnce } from '../db/read-once'
import { breathe } from './breathe'
import { BySession } from './by-session'
import { noteLook } from './keep-up'
import { workOutLater } from './later'
import { type Told, wayToOthers } from './told'

interface Kept {
	/** How often what it was made of had changed. */
	of: Changes
	value: Promise<unknown>
	/** Of how many objects it is, once it is made. */
	parts: number
	/** Begins it at once where it waits for its turn. */
	start?: () => void
	/** Ends its waiting with what another process has made of the same. */
	settle?: (packed: Uint8Array) => void
	/** When it was first asked for and something had changed. */
	outdatedAt?: number
}
/** Values kept in this process, the last ones asked for. */
const values = new Map<string, Kept>()
/** Values that are being worked out while the one of before is still shown. */
const underWay = new Map<string, Kept>()
const MOST_VALUES = 2_000
/** What this process may hold; a part is some 100 bytes, an event some 1000: a twentieth of it, and an eighth. */
const HEAP = getHeapStatistics().heap_size_limit
const MOST_PARTS = HEAP / 2_000
const BYTES_A_PART = 100
const FOR_EVER = { day: '9999-12-31', marks: '9999-12-31' }
/** For what goes by records, and by what is planned and said, and not by plain marks. */
export const NO_MARKS = { day: FOR_EVER.day, marks: '' }
/** What has been out of date for longer is waited for. */
const MOST_LATE_MS = 180_000

/** Set while a value is being made: what is asked for there is a part of something that has its turn, and is never late. */
const making = new AsyncLocalStorage<true>()
/** Scopes of pages that may be a moment behind, and whether they were shown something of before. */
const lateScopes = new WeakMap<ClubScope, { isBehind: boolean }>()

/**
 * A scope of a page that only shows: of what is kept it is given what was worked out before, when nothing but plain marks
 * has come in since, which is made anew meanwhile. Where it was, `isBehind` says so, and the page has to.
 */
export function mayBeLate(scope: ClubScope): ClubScope {
	const late = { ...scope }
	lateScopes.set(late, { isBehind: false })
	return late
}
export const isBehind = (scope: ClubScope): boolean => lateScopes.get(scope)?.isBehind ?? false

/**
 * What was worked out of a club's records, as long as nothing it was made of has changed; asked for twice at once, it is
 * worked out once. Frozen, because it is shared. In a transaction, which may have written, it is worked out anew.
 *
 * @param name what it is, with everything else it depends on: ids, the day it is
 * @param make reads by the scope it is given, which is never late: what is kept is made of what stands
 * @param upTo what is logged of sessions after this day is not looked at, nor plain marks after theirs; all are where it is not said
 */
export const keptFor = <T>(
	scope: ClubScope,
	name: readonly unknown[],
	make: (scope: ClubScope) => Promise<T>,
	upTo: { day: string; marks: string } = FOR_EVER,
): Promise<T> => kept(scope, name, make, upTo, false)

/**
 * `keptFor`, of what is sent as it is: where several processes serve, the others are told and need not work it out.
 * Nothing but data may be in it, and nobody may ask whether a part of it is the same object as something else.
 */
export const keptPage: typeof keptFor = (scope, name, make, upTo = FOR_EVER) => {
	// A part of something is made anew with the whole, and a transaction is over by then.
	if (!making.getStore() && !isTransaction(scope.db))
		noteLook(keyOf(scope, name), scope.clubId, () => againIfEdited(scope, name, make, upTo))
	return kept(scope, name, make, upTo, true)
}

/** Makes a page anew that is kept, unless nothing but plain marks has come in: they are worked off as they are asked for. */
async function againIfEdited(
	{ db, clubId }: ClubScope,
	name: readonly unknown[],
	make: (scope: ClubScope) => Promise<unknown>,
	upTo: { day: string; marks: string },
): Promise<void> {
	const known = values.get(keyOf({ db, clubId }, name))
	if (!known) return
	const { butMarks } = await changesUpTo(db, clubId, upTo.day, upTo.marks)
	if (known.of.butMarks !== butMarks) await kept({ db, clubId }, name, make, upTo, true)
}

const keyOf = ({ clubId }: ClubScope, name: readonly unknown[]) => JSON.stringify([clubId, ...name])

async function kept<T>(
	scope: ClubScope,
	name: readonly unknown[],
	make: (scope: ClubScope) => Promise<T>,
	upTo: { day: string; marks: string },
	isPage: boolean,
): Promise<T> {
	if (isTransaction(scope.db)) return make(scope)
	const key = keyOf(scope, name)
	// Counted first: what changes meanwhile makes the value one of before, which is not taken again.
	const of = await changesUpTo(scope.db, scope.clubId, upTo.day, upTo.marks)
	const known = values.get(key)
	values.delete(key)
	const isPart = making.getStore() ?? false
	if (known?.of.all === of.all) {
		values.set(key, known)
		if (isPart) known.start?.()
		return known.value as Promise<T>
	}
	const around = answersHere()
	const begin = (isWaitedFor: boolean) =>
		begun(
			key,
			of,
			() => make({ db: scope.db, clubId: scope.clubId }),
			isPage && isWaitedFor,
			answersFor(scope, of, around),
		)
	const late = isPart ? undefined : lateScopes.get(scope)
	if (late && known?.of.butMarks === of.butMarks) {
		known.outdatedAt ??= Date.now()
		if (Date.now() - known.outdatedAt < MOST_LATE_MS) {
			values.set(key, known)
			late.isBehind = true
			workOutLater(key, async () => {
				// Another process has made it meanwhile.
				if (values.get(key) !== known) return
				const anew = begin(false)
				underWay.set(key, anew)
				await anew.value.finally(() => underWay.delete(key))
				// Whatever was made meanwhile is of later, or of the same.
				if (values.get(key) === known) values.set(key, anew)
			})
			return known.value as Promise<T>
		}
	}
	const coming = underWay.get(key)
	const one = coming?.of.all === of.all ? coming : begin(true)
	if (isPart) one.start?.()
	values.set(key, one)
	makeRoom()
	return one.value as Promise<T>
}

/** Lets go of what was not asked for the longest. */
function makeRoom(): void {
	let parts = 0
	for (const one of values.values()) parts += one.parts
	for (const [key, one] of values) {
		if (values.size <= MOST_VALUES && parts <= MOST_PARTS) return
		values.delete(key)
		parts -= one.parts
	}
}

/** What waits for its turn, in the order it came. */
const waiting = new Set<() => void>()
let atWork = 0
/** More at once would take no less time together, and pages that are kept would wait for all of them. */
const AT_ONCE = 2
/** One that is still at work then, as when a database has gone and no answer will come, is no reason for the others to wait. */
const LONGEST_TURN_MS = 30_000

function startNext(): void {
	while (atWork < AT_ONCE) {
		const [start] = waiting
		if (!start) return
		start()
	}
}

/** What is read for a value: a part of another one reads with it as long as nothing has changed since that was begun. */
function answersFor({ clubId }: ClubScope, { total }: Changes, around?: Answers): { answers: Answers; isOwn: boolean } {
	const of = `${clubId}/${total}`
	return around?.of === of ? { answers: around, isOwn: false } : { answers: new Answers(of), isOwn: true }
}

/** A value that is being worked out, or will be when it is its turn; one that fails is not kept. */
function begun<T>(
	key: string,
	of: Changes,
	make: () => Promise<T>,
	isToBeTold: boolean,
	{ answers, isOwn }: ReturnType<typeof answersFor>,
): Kept {
	let start = () => {}
	let settle = (_packed: Uint8Array) => {}
	let beganAt = 0
	const made = new Promise<T>((resolve, reject) => {
		settle = (packed) => {
			if (waiting.delete(start)) resolve(open(packed) as T)
		}
		start = () => {
			if (!waiting.delete(start)) return
			atWork++
			beganAt = performance.now()
			let hasTurn = true
			const giveUpTurn = () => {
				if (!hasTurn) return
				hasTurn = false
				clearTimeout(longest)
				atWork--
				startNext()
			}
			const longest = setTimeout(giveUpTurn, LONGEST_TURN_MS)
			making
				.run(true, () => readOnce(answers, make))
				.finally(() => isOwn && answers.end())
				.then(resolve, reject)
				.finally(giveUpTurn)
		}
	})
	waiting.add(start)
	const kept: Kept = { of, value: made, parts: 0, start, settle }
	startNext()
	kept.value = kept.value.then((value) => {
		kept.parts = freeze(value)
		if (isToBeTold && beganAt > 0 && performance.now() - beganAt >= WORTH_TELLING_MS) tellOthers(key, of, value)
		return value
	})
	kept.value.catch(() => {
		if (values.get(key) === kept) values.delete(key)
	})
	return kept
}

/**
 * What took less is made again in every process. What nobody waits for is, too: while a group trains it is made anew all
 * the time, and to pack and open it for each other cost pages more than it saved.
 */
const WORTH_TELLING_MS = 40

const others = wayToOthers()
function tellOthers(key: string, of: Changes, value: unknown): void {
	if (!others) return
	try {
		others.postMessage({ keptAs: key, of, packed: serialize(value) } satisfies Told)
	} catch {
		// Who asked for the page has it all the same; the others work it out themselves.
	}
}
others?.on('message', takeTold)
// It is no reason to go on for a thread that has ended its work.
others?.unref()

/** Keeps what another process has worked out, unless something later is known here; opened when somebody asks for it. */
export function takeTold({ keptAs, of, packed }: Told): void {
	const known = values.get(keptAs)
	if (known && known.of.all >= of.all) {
		if (known.of.all === of.all) known.settle?.(packed)
		return
	}
	let opened: Promise<unknown> | undefined
	values.delete(keptAs)
	values.set(keptAs, {
		of,
		parts: packed.length / BYTES_A_PART,
		get value() {
			return (opened ??= Promise.resolve(open(packed)))
		},
	})
	makeRoom()
}
function open(packed: Uint8Array): unknown {
	const value: unknown = deserialize(packed)
	freeze(value)
	return value
}

/**
 * After a transaction whose change touches a known part of a kept value: the value of before it, with that part made
 * anew, stands as made after it. Where anything else was changed meanwhile the counts differ, and it is worked out whole.
 *
 * @param before how often the club had changed, as the transaction saw it; its own change, which is no mark, is counted once
 */
export function mendKept<T>(
	scope: ClubScope,
	name: readonly unknown[],
	before: Changes,
	mend: (value: T) => Promise<T>,
): void {
	const key = keyOf(scope, name)
	const known = values.get(key)
	if (known?.of.all !== before.all) return
	const after = { total: before.total + 1, all: before.all + 1, butMarks: before.butMarks + 1 }
	values.set(
		key,
		begun(
			key,
			after,
			async () => {
				// It would wait for its turn behind this one.
				known.start?.()
				return mend((await known.value) as T)
			},
			false,
			answersFor(scope, after),
		),
	)
}

/** Events of sessions. */
const logs = new BySession<readonly StoredEvent[]>(HEAP / 8_000, (events) => events.length)
/** Thousands of rows in one answer would keep everybody else waiting: twenty sessions of forty athletes held a process for two seconds. */
const SESSIONS_AT_ONCE = 6

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
		const of = changes(day)
		const events = logs.get(scope, id, of)
		if (events) known.set(id, events)
		else missing.push({ id, of })
	}
	const read = new Map<string, StoredEvent[]>(missing.map(({ id }) => [id, []]))
	const ids = [...read.keys()]
	for (let from = 0; from < ids.length; from += SESSIONS_AT_ONCE) {
		const some = ids.slice(from, from + SESSIONS_AT_ONCE)
		for (const event of await readForKeeping(() => eventsOfSessions(scope, some))) {
			freeze(event)
			read.get(event.sessionId)!.push(event)
		}
		await breathe()
	}
	for (const { id, of } of missing) {
		const events = Object.freeze(read.get(id)!)
		logs.put(scope, id, of, events)
		known.set(id, events)
	}
	return sessions.flatMap(({ id }) => known.get(id) ?? [])
}
