import {
	type SQL,
	StringChunk,
	Table,
	and,
	eq,
	getTableName,
	is,
	like,
	lt,
	lte,
	ne,
	not,
	notInArray,
	or,
	sql,
} from 'drizzle-orm'
import { among } from './among'
import type { Database, Queryable } from './connect'
import { prepared } from './prepared'
import { changeCount } from './schema/changes'
import { decision, heldCorrection, mark, observation, sessionMean } from './schema/log'
import { workDay } from './schema/care'
import { device, deviceReading, pairingCode } from './schema/devices'
import { deed, invitation, knownDevice, signIn, signInFailure } from './schema/people'
import { submission } from './schema/submissions'

const named = (...tables: Table[]): ReadonlySet<string> => new Set(tables.map((table) => getTableName(table)))
/** What is logged, and what is kept of it session by session. */
const OF_THE_LOG = named(mark, observation, decision, heldCorrection, sessionMean, workDay)
/** Keys, devices and the bookkeeping of forms: nothing that is worked out of the records looks at them. */
const OF_NOTHING_KEPT = named(
	changeCount,
	signIn,
	signInFailure,
	knownDevice,
	deed,
	invitation,
	device,
	pairingCode,
	submission,
)
/** What devices send: phones on the field are told of it, nothing is worked out of it. */
const OF_DEVICES = named(deviceReading)
const READINGS = 'readings'
/** Stands for the club where a write names none. */
const EVERY = 'every'

/** That a session has begun, with its first mark: for every day, but no more urgent than the mark. */
const BEGUN = 'begun'

/** What was written so far in one transaction. */
class Written {
	/** Whose it is, where that was said. */
	clubId = EVERY
	rest = false
	log = false
	begun = false
	readings = false
	/** Whether what is written just now says that a session has begun. */
	isBeginning = false
	/** Days of the sessions the log was written of, where whoever wrote said so; with ` marks` behind it where that was all. */
	readonly days = new Set<string>()

	note(table: string): void {
		if (OF_THE_LOG.has(table)) this.log = true
		else if (OF_NOTHING_KEPT.has(table)) return
		else if (OF_DEVICES.has(table)) this.readings = true
		else if (this.isBeginning) this.begun = true
		else this.rest = true
	}
	get counts(): string[] {
		const log = !this.log ? [] : this.days.size > 0 ? [...this.days] : ['log']
		return [
			...(this.rest ? ['rest'] : []),
			...(this.begun ? [BEGUN] : []),
			...(this.readings ? [READINGS] : []),
			...log,
		].sort()
	}
}
const writtenBy = new WeakMap<object, Written>()

/** What a statement in SQL writes to; null where it only reads. */
function writes(query: SQL | string): string | null {
	let text = ''
	if (typeof query === 'string') text = query
	else
		for (const chunk of query.queryChunks) {
			if (is(chunk, StringChunk)) text += chunk.value.join('')
			else if (is(chunk, Table)) text += getTableName(chunk)
			else text += ' ? '
			if (text.length > 200) break
		}
	const [, verb, table] =
		/^\s*(insert\s+(?:ignore\s+)?into|replace\s+into|update|delete\s+from|truncate(?:\s+table)?)\s+`?(\w+)/i.exec(
			text,
		) ?? []
	return verb && table ? table : null
}

/** A connection that notes what is written by it; `after` is called when a statement that counts is done. */
function noting<T extends Queryable>(db: T, written: Written, after?: () => Promise<void>): T {
	const counted = <R extends object>(statement: R): R => (after ? thenCounted(statement, after) : statement)
	return new Proxy(db, {
		get(target, name, self) {
			const value: unknown = Reflect.get(target, name, self)
			if (typeof value !== 'function') return value
			if (name === 'insert' || name === 'update' || name === 'delete')
				return (table: Table) => {
					written.note(getTableName(table))
					const statement = (value as (table: Table) => object).call(target, table)
					return OF_NOTHING_KEPT.has(getTableName(table)) ? statement : counted(statement)
				}
			if (name === 'execute')
				return (query: SQL) => {
					const table = writes(query)
					if (table !== null) written.note(table)
					const statement = (value as (query: SQL) => object).call(target, query)
					return table === null || OF_NOTHING_KEPT.has(table) ? statement : counted(statement)
				}
			return (value as (...args: unknown[]) => unknown).bind(target)
		},
	})
}

/** A statement that is being put together; whoever waits for it waits for the count too. */
function thenCounted<T extends object>(statement: T, after: () => Promise<void>): T {
	return new Proxy(statement, {
		get(target, name) {
			const value: unknown = Reflect.get(target, name, target)
			if (typeof value !== 'function') return value
			if (name === 'then')
				return (done: (result: unknown) => unknown, failed: (error: unknown) => unknown) =>
					Promise.resolve(target as unknown as PromiseLike<unknown>)
						.then(async (result) => {
							await after()
							return result
						})
						.then(done, failed)
			return (...args: unknown[]) => {
				const next = (value as (...args: unknown[]) => unknown).apply(target, args)
				return typeof next === 'object' && next !== null ? thenCounted(next, after) : next
			}
		},
	})
}

/**
 * A database that counts what is written to it. A transaction counts as the last thing it does, so that whoever sees the
 * count sees what was written; a statement outside of one when it is done, for every club.
 */
export function notingDatabase<T extends Database>(db: T): T {
	const noted = noting(db, new Written(), () => count(db, EVERY, ['rest', 'log']))
	return new Proxy(noted, {
		get(target, name, self) {
			if (name !== 'transaction') return Reflect.get(target, name, self) as unknown
			return <R>(work: (tx: Queryable) => Promise<R>) =>
				db.transaction(async (tx) => {
					const written = new Written()
					const own = noting(tx as Queryable, written)
					writtenBy.set(own, written)
					const done = await work(own)
					if (written.counts.length > 0) await count(tx, written.clubId, written.counts)
					return done
				})
		},
	})
}

/** Says whose a transaction is: what it writes is another club's nothing. */
export function isOf(tx: Queryable, clubId: string): void {
	const written = writtenBy.get(tx)
	if (written) written.clubId = clubId
}

const PLAIN_MARKS = ' marks'
const FIRST_MARKS = ' work'

/**
 * Says of which sessions' day a transaction logs: what was worked out for days before stands.
 *
 * @param what `marks` where it logs nothing but plain marks: they correct nothing, were made with no load worn, and are
 * not the first of their kind of work on somebody's day; `first marks` where that is all they are beside it
 */
export function logsOn(db: Queryable, day: string, what: 'marks' | 'first marks' | 'all'): void {
	writtenBy.get(db)?.days.add(day + { marks: PLAIN_MARKS, 'first marks': FIRST_MARKS, all: '' }[what])
}

async function count(db: Queryable, clubId: string, of: readonly string[]): Promise<void> {
	await db
		.insert(changeCount)
		.values(of.map((one) => ({ clubId, of: one, n: 1 })))
		.onDuplicateKeyUpdate({ set: { n: sql`${changeCount.n} + 1` } })
}

/** Whether a connection has logged nothing that is not counted yet, so that what it reads of the log may be kept. */
export const hasLogged = (db: Queryable): boolean => writtenBy.get(db)?.log ?? false
/** Whether it is a transaction. */
export const isTransaction = (db: Queryable): boolean => writtenBy.has(db)

/** Writes, as a part of a transaction that logs, that a session has begun. */
export async function begins(db: Queryable, write: () => Promise<unknown>): Promise<void> {
	const written = writtenBy.get(db)
	if (written) written.isBeginning = true
	await write()
	if (written) written.isBeginning = false
}

/** How often something was changed. It only ever rises. */
export interface Changes {
	/** Whatever it was and of whichever day. */
	total: number
	/** As far as was asked. */
	all: number
	/** Without plain marks, those that are the first of a day and sessions that begin with one. */
	butMarks: number
}

/**
 * How often anything of a club was changed, but for what was logged on days after one.
 *
 * @param marksUpTo the day up to which plain marks count, where it is another one
 */
export async function changesUpTo(db: Queryable, clubId: string, day: string, marksUpTo = day): Promise<Changes> {
	const upTo = { clubId, firstMarks: day + FIRST_MARKS, marks: marksUpTo + PLAIN_MARKS }
	const [row] = await countedUpTo(db).execute(upTo)
	return { total: Number(row?.total ?? 0), all: Number(row?.all ?? 0), butMarks: Number(row?.butMarks ?? 0) }
}
const isPlain = like(changeCount.of, `%${PLAIN_MARKS}`)
/** What a page may show a moment late. */
const isLate = or(isPlain, like(changeCount.of, `%${FIRST_MARKS}`), eq(changeCount.of, BEGUN))!
const countedUpTo = prepared((db) => {
	const { clubId, of, n } = changeCount
	const isUpTo = or(
		eq(clubId, EVERY),
		among(of, ['rest', 'log', BEGUN]),
		and(lte(of, sql.placeholder('firstMarks')), not(isPlain)),
		and(lte(of, sql.placeholder('marks')), isPlain),
	)
	const sumIf = (condition: SQL | undefined) => sql<string>`coalesce(sum(if(${condition}, ${n}, 0)), 0)`
	return db
		.select({
			total: sql<string>`coalesce(sum(${n}), 0)`,
			all: sumIf(isUpTo),
			butMarks: sumIf(and(isUpTo, not(isLate))),
		})
		.from(changeCount)
		.where(or(eq(clubId, EVERY), eq(clubId, sql.placeholder('clubId'))))
		.prepare()
})
/** How often anything of some clubs was changed, what devices sent too. */
export const changesOfClubs = (db: Queryable, clubIds: readonly string[]): Promise<(clubId: string) => number> =>
	sumOfClubs(db, clubIds, undefined)

/** How often anything of some clubs was changed that is waited for: plain marks may be late, and devices say nothing to pages. */
export const editsOfClubs = (db: Queryable, clubIds: readonly string[]): Promise<(clubId: string) => number> =>
	sumOfClubs(db, clubIds, and(not(isLate), ne(changeCount.of, READINGS)))

async function sumOfClubs(db: Queryable, clubIds: readonly string[], isMeant: SQL | undefined) {
	const rows = await db
		.select({ clubId: changeCount.clubId, n: sql<string>`sum(${changeCount.n})` })
		.from(changeCount)
		.where(and(among(changeCount.clubId, [...clubIds, EVERY]), isMeant))
		.groupBy(changeCount.clubId)
	const sums = new Map(rows.map(({ clubId, n }) => [clubId, Number(n)]))
	return (clubId: string) => (sums.get(clubId) ?? 0) + (sums.get(EVERY) ?? 0)
}

/** How often the log of a club was written up to a day: a correction may change what stands in a later session, never in an earlier one. */
export async function logChangesUpTo(db: Queryable, clubId: string): Promise<(day: string) => number> {
	const rows = await db
		.select({ of: changeCount.of, n: changeCount.n })
		.from(changeCount)
		.where(and(among(changeCount.clubId, [clubId, EVERY]), notInArray(changeCount.of, ['rest', BEGUN, READINGS])))
	// What was logged with no day named may be of any.
	const sums = rows
		.map(({ of, n }): [string, number] => [of === 'log' ? '' : of.slice(0, '2026-03-12'.length), n])
		.sort()
	return (day) => sums.reduce((sum, [from, n]) => (from <= day ? sum + n : sum), 0)
}

/**
 * Puts the counts of days before one together: of years of sessions there are no more rows than of some weeks. They count
 * for every day from then on, so that what goes by days before is worked out once more.
 */
export async function foldCounts(db: Database, before: string): Promise<void> {
	const old = lt(changeCount.of, before)
	await db.transaction(async (tx) => {
		// All at once and first of all: two who lock them by and by wait for each other.
		const rows = await tx.select().from(changeCount).where(old).for('update')
		const sums = new Map<string, number>()
		for (const { clubId, n } of rows) sums.set(clubId, (sums.get(clubId) ?? 0) + n)
		if (sums.size === 0) return
		await tx.delete(changeCount).where(old)
		for (const [clubId, n] of sums)
			await tx
				.insert(changeCount)
				.values({ clubId, of: 'log', n })
				.onDuplicateKeyUpdate({ set: { n: sql`${changeCount.n} + ${n}` } })
	})
}
