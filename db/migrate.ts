import { readFileSync } from 'node:fs'
import path from 'node:path'
import { drizzle } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { MIGRATIONS } from './migrations-folder'

export class NewerDatabase extends Error {}

/**
 * Makes the database when it is missing and brings its tables up to date, under a lock so that two
 * processes starting at once do not meet. Every statement can be run again, because MariaDB commits
 * each one at once and a broken-off migration starts over.
 *
 * @param beforeChange called before the first statement that changes a table, when there is one; what it throws stops everything
 * @throws NewerDatabase when the database was made by a later version of the program
 */
export async function migrateDatabase(url: string, beforeChange?: () => void): Promise<void> {
	const target = new URL(url)
	const name = decodeURIComponent(target.pathname.slice(1))
	if (!/^\w+$/.test(name))
		throw new RangeError(
			`DATABASE_URL: the database name ${JSON.stringify(name)} must be letters, digits and underscores`,
		)
	target.pathname = '/'
	const connection = await mysql.createConnection({ uri: target.toString(), timezone: 'Z' })
	try {
		const [found] = await connection.query<RowDataPacket[]>(
			'select 1 from information_schema.schemata where schema_name = ?',
			[name],
		)
		if (found.length === 0)
			await connection.query(
				`create database if not exists \`${name}\` character set utf8mb4 collate utf8mb4_uca1400_ai_ci`,
			)
		await connection.query(`use \`${name}\``)
		const [[lock]] = await connection.query<RowDataPacket[]>('select get_lock(?, 60) as got', [
			`dromos:migrate:${name}`,
		])
		if (lock?.got !== 1)
			throw new Error('another process is migrating the database and has not finished within a minute')
		if (await isOlder(connection)) beforeChange?.()
		await migrate(drizzle({ client: connection }), { migrationsFolder: MIGRATIONS })
	} finally {
		await connection.end()
	}
}

/** Whether something is to be changed. */
async function isOlder(connection: mysql.Connection): Promise<boolean> {
	const [tables] = await connection.query<RowDataPacket[]>("show tables like '\\_\\_drizzle\\_migrations'")
	if (tables.length === 0) return true
	const [[newest]] = await connection.query<RowDataPacket[]>(
		'select max(created_at) as applied from __drizzle_migrations',
	)
	const journal = JSON.parse(readFileSync(path.join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as {
		entries: { when: number }[]
	}
	const known = Math.max(...journal.entries.map((entry) => entry.when))
	const applied = Number(newest?.applied ?? 0)
	if (applied > known) {
		throw new NewerDatabase(
			'The database was made by a newer version of Dromos. Update the program, or use the database that belongs to this version.',
		)
	}
	return applied < known
}
