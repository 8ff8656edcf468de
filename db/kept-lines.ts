import { and, eq, getTableColumns, sql } from 'drizzle-orm'
import { freeze } from '../core/lists/freeze'
import { among } from './among'
import type { ClubScope } from './connect'
import { line } from './schema/sessions'

type LineRow = typeof line.$inferSelect

/** A line that was found, as the database has it: what it holds, as one number. */
export interface FoundLine {
	id: string
	stamp: number
}

const { clubId: _club, id: _id, ...held } = getTableColumns(line)
/** What is selected of lines to find them. Hardly any is ever written to again. */
export const found = {
	id: line.id,
	stamp: sql<number>`crc32(concat_ws('|', ${sql.join(
		Object.values(held).map((column) => sql`coalesce(${column}, '-')`),
		sql`, `,
	)}))`.mapWith(Number),
}

/** Lines this process has read, the last ones asked for; some 2 kB each. */
const kept = new Map<string, { stamp: number; row: LineRow }>()
const MOST_KEPT = 30_000

/**
 * The lines that were found, in their order; those that are as they were read before are not read again. What is in them
 * is frozen, because it is shared; the rows are copies, because to spread a frozen one takes fifteen times as long.
 */
export async function readFound({ db, clubId }: ClubScope, lines: readonly FoundLine[]): Promise<LineRow[]> {
	const known = new Map<string, LineRow>()
	const missing: string[] = []
	for (const { id, stamp } of lines) {
		const one = kept.get(id)
		if (one?.stamp !== stamp || one.row.clubId !== clubId) {
			missing.push(id)
			continue
		}
		known.set(id, one.row)
		kept.delete(id)
		kept.set(id, one)
	}
	if (missing.length > 0) {
		// As it is now, which may be a moment after it was found: it is kept by what it holds.
		const rows = await db
			.select({ row: line, stamp: found.stamp })
			.from(line)
			.where(and(eq(line.clubId, clubId), among(line.id, missing)))
		for (const { row, stamp } of rows) {
			for (const part of Object.values(row)) freeze(part)
			known.set(row.id, row)
			kept.set(row.id, { stamp, row })
		}
	}
	for (const [old] of kept) {
		if (kept.size <= MOST_KEPT) break
		kept.delete(old)
	}
	return lines.flatMap(({ id }) => {
		const row = known.get(id)
		return row ? [{ ...row }] : []
	})
}
