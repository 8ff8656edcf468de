import type { Queryable } from './connect'

/**
 * A statement that every request asks: it is put together once for each database, which takes longer than asking it. A
 * transaction is a connection of its own and puts its own together.
 *
 * @param build the statement, prepared, with placeholders for what differs
 */
export function prepared<T extends object>(build: (db: Queryable) => T): (db: Queryable) => T {
	const made = new WeakMap<Queryable, T>()
	return (db) => {
		const known = made.get(db)
		if (known) return known
		const statement = build(db)
		made.set(db, statement)
		return statement
	}
}
