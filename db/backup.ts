import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream, readFileSync, renameSync, rmSync } from 'node:fs'
import path from 'node:path'
import { createInterface } from 'node:readline'
import { Transform } from 'node:stream'
import { finished } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import mysql from 'mysql2'
import type { RowDataPacket } from 'mysql2/promise'
import { migrateDatabase } from './migrate'
import { MIGRATIONS } from './migrations-folder'

const FIRST_LINE = '-- Dromos backup 1'
/** Worth something to a thief and nothing after a restore: their tables come back empty. */
const LEFT_OUT = new Set(['sign_in', 'sign_in_failure', 'known_device', 'pairing_code'])
/** Hashes of what opens something: another value stands for each, which opens nothing. */
const MASKED: Record<string, string> = { person: 'password_hash', invitation: 'token_hash', device: 'token_hash' }
/** Characters of one line of values, so that no line is longer than a server takes. */
const LINE = 250_000
/** Statements of a restore that reach the disk together: one by one each would wait for it. */
const COMMITTED_AT_ONCE = 100

export class BackupProblem extends Error {}

const knownMigrations = (): number =>
	(JSON.parse(readFileSync(path.join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as { entries: unknown[] }).entries
		.length
const nothing = (table: string, id: string) => createHash('sha256').update(`left out: ${table} ${id}`).digest('hex')
const quoted = (name: string) => `\`${name.replaceAll('`', '``')}\``

/**
 * Writes everything of a database into one file, as it stood at one moment, while it is in use: gzip of SQL, a statement a
 * line, the last line a checksum of all before it. Passwords, sign-ins and links are not in it.
 *
 * @returns rows and tables written
 * @throws whatever the database or the disk says; no half file is left
 */
export async function writeBackup(url: string, file: string, now: Date): Promise<{ rows: number; tables: number }> {
	const connection = mysql.createConnection({ uri: url, timezone: 'Z', supportBigNumbers: true })
	const asked = connection.promise()
	const draft = `${file}.${process.pid}.part`
	const hash = createHash('sha256')
	const gzip = createGzip()
	const out = createWriteStream(draft, { mode: 0o600 })
	gzip.pipe(out)
	const failed = new Promise<never>((_, reject) => out.once('error', reject))
	failed.catch(() => undefined)
	const say = async (line: string) => {
		hash.update(`${line}\n`)
		if (!gzip.write(`${line}\n`)) await Promise.race([new Promise((resolve) => gzip.once('drain', resolve)), failed])
	}
	try {
		await asked.query("set session time_zone = '+00:00'")
		await asked.query('start transaction with consistent snapshot, read only')
		const [found] = await asked.query<RowDataPacket[]>(
			"select table_name as name from information_schema.tables where table_schema = database() and table_type = 'BASE TABLE' order by table_name",
		)
		const tables = found.map(({ name }) => String(name))
		const [[applied]] = await asked.query<RowDataPacket[]>('select count(*) as n from __drizzle_migrations')
		await say(`${FIRST_LINE}, ${now.toISOString()}, ${applied!.n} migrations`)
		await say('-- Plain SQL for MariaDB, a statement a line: zcat FILE | less. Read back with npm run restore -- FILE.')
		await say('-- Passwords, sign-ins, links and codes are not in it.')
		await say('set names utf8mb4;')
		let rows = 0
		for (const table of tables) {
			const [[made]] = await asked.query<RowDataPacket[]>(`show create table ${quoted(table)}`)
			await say(`${String(made!['Create Table']).replaceAll('\n', ' ')};`)
			if (LEFT_OUT.has(table)) continue
			let values = ''
			const flush = async () => {
				if (values !== '') await say(`insert into ${quoted(table)} values ${values};`)
				values = ''
			}
			const query = connection.query({
				sql: `select * from ${quoted(table)}`,
				rowsAsArray: true,
				typeCast: (field) => field.string(),
			})
			let columns: string[] = []
			query.on('fields', (fields: { name: string }[]) => (columns = fields.map(({ name }) => name)))
			for await (const row of query.stream({ highWaterMark: 200 }) as AsyncIterable<(string | null)[]>) {
				const masked = MASKED[table] === undefined ? -1 : columns.indexOf(MASKED[table])
				const id = row[columns.indexOf('id')] ?? ''
				const written = row.map((value, index) => mysql.escape(index === masked ? nothing(table, id) : value))
				values += `${values === '' ? '' : ','}(${written.join(',')})`
				rows++
				if (values.length > LINE) await flush()
			}
			await flush()
		}
		gzip.end(`-- sha256 ${hash.digest('hex')}\n`)
		await Promise.race([finished(out), failed])
		renameSync(draft, file)
		return { rows, tables: tables.length }
	} catch (error) {
		gzip.destroy()
		out.destroy()
		rmSync(draft, { force: true })
		throw error
	} finally {
		connection.destroy()
	}
}

const linesOf = (file: string): AsyncIterable<string> => {
	const gunzip = createGunzip()
	const lines = new Transform({ transform: (chunk, _encoding, done) => done(null, chunk) })
	const read = createReadStream(file)
	for (const stream of [read, gunzip]) stream.on('error', (error: Error) => lines.destroy(error))
	read.pipe(gunzip).pipe(lines)
	return createInterface({ input: lines, crlfDelay: Infinity })
}

/** Reads a backup through before anything is written of it. @throws BackupProblem when it is none, cut off or changed */
async function checkBackup(file: string): Promise<void> {
	const hash = createHash('sha256')
	let [before, first]: (string | null)[] = [null, null]
	try {
		for await (const line of linesOf(file)) {
			first ??= line
			if (before !== null) hash.update(`${before}\n`)
			before = line
		}
	} catch (error) {
		throw new BackupProblem(`${file} cannot be read to its end: ${(error as Error).message}.`)
	}
	if (!first?.startsWith(FIRST_LINE)) throw new BackupProblem(`${file} is no backup of Dromos.`)
	if (before !== `-- sha256 ${hash.digest('hex')}`)
		throw new BackupProblem(`${file} is not as it was written: its checksum is another. Take an older one.`)
	const migrations = Number(/, (\d+) migrations$/.exec(first)?.[1])
	if (!(migrations <= knownMigrations()))
		throw new BackupProblem(`${file} was made by a newer version of Dromos. Update the program first.`)
}

/**
 * Reads a backup into an empty database and brings it up to this version. Nobody is signed in afterwards, and no password
 * stands: whoever restores makes links for new ones.
 *
 * @throws BackupProblem when the file is not whole, or the database is not empty
 */
export async function restoreBackup(url: string, file: string): Promise<void> {
	await checkBackup(file)
	const target = new URL(url)
	const name = decodeURIComponent(target.pathname.slice(1))
	target.pathname = '/'
	const connection = await mysql.createConnection({ uri: target.toString(), timezone: 'Z' }).promise()
	try {
		await connection.query(
			`create database if not exists ${quoted(name)} character set utf8mb4 collate utf8mb4_uca1400_ai_ci`,
		)
		await connection.query(`use ${quoted(name)}`)
		const [[held]] = await connection.query<RowDataPacket[]>(
			'select count(*) as n from information_schema.tables where table_schema = ?',
			[name],
		)
		if (held!.n > 0) throw new BackupProblem('The database is not empty. A backup is read into an empty one only.')
		await connection.query(
			"set session time_zone = '+00:00', foreign_key_checks = 0, unique_checks = 0, autocommit = 0",
		)
		let read = 0
		for await (const line of linesOf(file)) {
			if (line === '' || line.startsWith('--')) continue
			await connection.query(line)
			if (++read % COMMITTED_AT_ONCE === 0) await connection.query('commit')
		}
		await connection.query('commit')
	} finally {
		await connection.end()
	}
	await migrateDatabase(url)
}
