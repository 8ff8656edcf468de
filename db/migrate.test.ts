import { readdirSync } from 'node:fs'
import type mysql from 'mysql2/promise'
import { expect, it } from 'vitest'
import { freshDatabase } from '../tests/support/test-club'
import { connect } from './connect'
import { NewerDatabase, migrateDatabase } from './migrate'

const fresh = () => `${process.env.TEST_DATABASE_URL}dromos_test_migrate_${Math.random().toString(36).slice(2, 10)}`

it('migrates once when three processes start at the same moment', async () => {
	const url = fresh()
	await Promise.all([migrateDatabase(url), migrateDatabase(url), migrateDatabase(url)])
	const { pool } = connect(url)
	const [rows] = await pool.query<mysql.RowDataPacket[]>('select count(*) as n from __drizzle_migrations')
	const written = readdirSync(new URL('./migrations', import.meta.url)).filter((file) => file.endsWith('.sql'))
	expect(rows[0]?.n).toBe(written.length)
	await pool.end()
})

it('finishes a migration that was broken off half way', async () => {
	const url = fresh()
	await migrateDatabase(url)
	const { pool } = connect(url)
	await pool.query('drop table clearance')
	await pool.query('alter table verdict drop foreign key verdict_session')
	await pool.query('delete from __drizzle_migrations')
	await migrateDatabase(url)
	expect((await pool.query<mysql.RowDataPacket[]>("show tables like 'clearance'"))[0]).toHaveLength(1)
	await pool.end()
})

it('refuses a database of a newer version with a sentence', async () => {
	const url = await freshDatabase()
	const { pool } = connect(url)
	await pool.query("insert into __drizzle_migrations (hash, created_at) values ('later', 99999999999999)")
	await pool.end()
	await expect(migrateDatabase(url)).rejects.toThrow(NewerDatabase)
	await expect(migrateDatabase(url)).rejects.toThrow('newer version of Dromos')
})

it('refuses a database name that is not a plain word', async () => {
	await expect(migrateDatabase(`${process.env.TEST_DATABASE_URL}a%60b`)).rejects.toThrow(
		'DATABASE_URL: the database name',
	)
})
