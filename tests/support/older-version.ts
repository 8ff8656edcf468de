import { randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { brotliDecompressSync } from 'node:zlib'
import mysql from 'mysql2/promise'
import type { Family } from '../../core/vocabulary/words'
import { connect } from '../../db/connect'
import { keyOlderMarks } from '../../server/marks/keep-marks'
import { migrateDatabase } from '../../db/migrate'
import { installLibraryEverywhere } from '../../db/queries/library'
import { closePool } from './use-database'

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

/** The kept club in a database of its own, migrated; the application's pool points at it from here on. */
export async function openOlderClub(
	/** What happened in it before the new version came. */
	before: (connection: mysql.Connection) => Promise<void> = async () => {},
): Promise<{ open: ReturnType<typeof connect>; scope: { db: ReturnType<typeof connect>['db']; clubId: string } }> {
	const url = new URL(`${process.env.TEST_DATABASE_URL}dromos_test_older_${randomBytes(4).toString('hex')}`)
	const name = url.pathname.slice(1)
	const server = new URL(url)
	server.pathname = '/'
	const connection = await mysql.createConnection({ uri: server.toString(), multipleStatements: true })
	await connection.query(
		`create database \`${name}\` character set utf8mb4 collate utf8mb4_uca1400_ai_ci; use \`${name}\``,
	)
	await connection.query(keptVersion().dump.replace(/^\/\*M?!.*sandbox.*$/m, ''))
	await before(connection)
	await connection.end()
	await migrateDatabase(url.toString())
	await closePool()
	process.env.DATABASE_URL = url.toString()
	const open = connect(url.toString())
	await installLibraryEverywhere(open.db, new Date('2026-05-20T10:00:00Z'))
	await keyOlderMarks(open.db)
	const [clubs] = await open.pool.query<mysql.RowDataPacket[]>('select id from club')
	return { open, scope: { db: open.db, clubId: String(clubs[0]!.id) } }
}
