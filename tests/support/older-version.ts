import { readFileSync } from 'node:fs'
import { brotliDecompressSync } from 'node:zlib'
import type { Family } from '../../core/vocabulary/words'

export interface Said {
	tables: Record<string, number>
	folded: Record<string, { current: string[]; conflicts: string[][] }>
	states: [string, unknown][]
	/** Id, drill, dose, parameters, the one rest. */
	lines: [string, string | null, { sets: number; reps: number }, object, number][]
	/** Id, part, family, drill, ladder, dose, parameters, the one rest, tuning. */
	entries: [string, string, Family, string, string | null, { sets: number; reps: number }, object, number, unknown][]
}

const unpacked = (file: URL): string => brotliDecompressSync(readFileSync(file)).toString()

/**
 * A club as the version of November 2026 kept it: a fortnight of the demo with corrections, a contradiction, a
 * correction before its target, an own drill, an own ladder and a template. Beside it stands what that version
 * read out of it. Kept with mariadb-dump on 20 May 2026 of the demo's calendar.
 */
export const keptVersion = (): { dump: string; said: Said } => ({
	dump: unpacked(new URL('../fixtures/older/2026-11.sql.br', import.meta.url)),
	said: JSON.parse(unpacked(new URL('../fixtures/older/2026-11.json.br', import.meta.url))) as Said,
})
