import { type Column, type SQL, inArray, sql } from 'drizzle-orm'

/** Ids, codes and days: nothing that a statement could take for anything else. */
const PLAIN = /^[\w-]+$/

/**
 * Whether a column holds one of some values; none of an empty list. Written as one piece: an object for each of forty or
 * a thousand ids, put together and asked what it is, costs more than the question.
 */
export function among(column: Column | SQL, values: readonly string[]): SQL {
	return values.length > 0 && values.every((value) => PLAIN.test(value))
		? sql`${column} in (${sql.raw(`'${values.join("','")}'`)})`
		: inArray(column as SQL, [...values])
}
