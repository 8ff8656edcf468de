import { type SQL, StringChunk, Table, and, eq, getTableName, inArray, is, lte, ne, or, sql } from 'drizzle-orm'
import type { Database, Queryable } from './connect'
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
	deviceReading,
	pairingCode,
	submission,
)
/** Stands for the club where a write names none. */
const EVERY = 'every'

/** What was written so far in one transaction. */
class Written {
	/** Whose it is, where that was said. */
	clubId = EVERY
	rest = false
	log = false
	/** Days of the sessions the log was written of, where whoever wrote said so. */
	readonly days = new Set<string>()

	note(table: string): void {
		if (OF_THE_LOG.has(table)) this.log = true
		else if (!OF_NOTHING_KEPT.has(table)) this.rest = true
	}
	get counts(): string[] {
		const log = !this.log ? [] : this.days.size > 0 ? [...this.days] : ['log']
		return [...(this.rest ? ['rest'] : []), ...log].sort()
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

/** Says of which sessions' day a transaction logs: what was worked out for days before stands. */
export function logsOn(db: Queryable, day: string): void {
	writtenBy.get(db)?.days.add(day)
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

/** How often anything of a club was changed, but for what was logged on days after one. It only ever rises. */
export async function changesUpTo(db: Queryable, clubId: string, day: string): Promise<number> {
	const [row] = await db
		.select({ n: sql<string>`coalesce(sum(${changeCount.n}), 0)` })
		.from(changeCount)
		.where(
			or(
				eq(changeCount.clubId, EVERY),
				and(eq(changeCount.clubId, clubId), or(inArray(changeCount.of, ['rest', 'log']), lte(changeCount.of, day))),
			),
		)
	return Number(row?.n ?? 0)
}
/** How often the log of a club was written up to a day: a correction may change what stands in a later session, never in an earlier one. */
export async function logChangesUpTo(db: Queryable, clubId: string): Promise<(day: string) => number> {
	const rows = await db
		.select({ of: changeCount.of, n: changeCount.n })
		.from(changeCount)
		.where(and(inArray(changeCount.clubId, [clubId, EVERY]), ne(changeCount.of, 'rest')))
	// What was logged with no day named may be of any.
	const sums = rows.map(({ of, n }): [string, number] => [of === 'log' ? '' : of, n]).sort()
	return (day) => sums.reduce((sum, [from, n]) => (from <= day ? sum + n : sum), 0)
}
