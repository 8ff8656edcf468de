import { spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { expect } from '@playwright/test'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { ROOT } from '../../scripts/root.mjs'
import { startApp, test } from '../support/app-test'

/** What no backup holds: columns by table; where none is named the table comes back empty. */
const WITHOUT: Record<string, string | null> = {
	person: 'password_hash',
	invitation: 'token_hash',
	device: 'token_hash',
	sign_in: null,
	sign_in_failure: null,
	known_device: null,
	pairing_code: null,
}

/** One of the project's commands on a database. */
function command(name: 'backup' | 'restore', file: string, databaseUrl: string) {
	const ended = spawnSync(process.execPath, ['scripts/run.mjs', name, file], {
		cwd: ROOT,
		encoding: 'utf8',
		env: { ...process.env, DATABASE_URL: databaseUrl, npm_lifecycle_event: '' },
	})
	return { code: ended.status, said: `${ended.stdout}${ended.stderr}` }
}

test('a backup of a running club reads back to the same rows, every page answers on it, and nothing in it opens anything', async ({
	app,
	page,
}) => {
	const folder = mkdtempSync(path.join(tmpdir(), 'dromos-backup-'))
	const file = path.join(folder, 'club.sql.gz')
	const name = `dromos_${randomBytes(6).toString('hex')}`
	const server = app.databaseUrl.replace(/\/[^/]*$/, '')
	const restoredUrl = `${server}/${name}`
	// What a backup must carry: every byte that text can have, and the edges of numbers.
	const odd = `a 'quote', a "double", a \\ back, a\nline, a tab\t, \u0000, 🏃, ${'é'.repeat(50)}`
	await app.rows('update athlete_identity set name = ? limit 1', [odd])
	const secrets = (await app.rows('select password_hash as secret from person')).map(({ secret }) => String(secret))

	expect(command('backup', file, app.databaseUrl)).toMatchObject({ code: 0 })
	// A second one does not write over it.
	expect(command('backup', file, app.databaseUrl)).toMatchObject({
		code: 1,
		said: expect.stringContaining('is there already'),
	})
	const text = gunzipSync(readFileSync(file)).toString('utf8')
	for (const secret of secrets) expect(text).not.toContain(secret)
	expect(text).not.toContain('scrypt$')

	// Cut off, or with one letter changed, it is not read at all.
	const broken = path.join(folder, 'broken.sql.gz')
	for (const bytes of [
		readFileSync(file).subarray(0, 5000),
		gzipSync(text.replace('three-point-start', 'three-point-startx')),
		gzipSync('-- something else\n'),
	]) {
		writeFileSync(broken, bytes)
		expect(command('restore', broken, restoredUrl).code).toBe(1)
	}

	const restored = command('restore', file, restoredUrl)
	expect(restored).toMatchObject({ code: 0 })
	expect(command('restore', file, restoredUrl)).toMatchObject({ code: 1, said: expect.stringContaining('not empty') })

	const connection = await mysql.createConnection({ uri: server, timezone: 'Z' })
	try {
		const ask = async (sql: string) => (await connection.query<RowDataPacket[]>(sql))[0]
		const original = new URL(app.databaseUrl).pathname.slice(1)
		const tables = (await ask(`show tables from \`${original}\``)).map((row) => String(Object.values(row)[0]))
		expect(tables.length).toBeGreaterThan(40)
		expect((await ask(`show tables from \`${name}\``)).map((row) => String(Object.values(row)[0]))).toEqual(tables)
		for (const table of tables) {
			const rows = async (database: string) => {
				const found = await ask(`select * from \`${database}\`.\`${table}\``)
				for (const row of found) if (WITHOUT[table]) delete row[WITHOUT[table]]
				return found.map((row) => JSON.stringify(row)).sort()
			}
			const [before, after] = [await rows(original), await rows(name)]
			// The command that reads back makes a link for the coach, and writes down that it did.
			if (table === 'invitation' || table === 'deed') expect(after).toEqual(expect.arrayContaining(before))
			else expect(after, table).toEqual(WITHOUT[table] === null ? [] : before)
		}
		const own = await startApp(server, name)
		try {
			// The old password is worth nothing; the link that was printed is.
			const link = /\/join\/\S+/.exec(restored.said)![0]
			await page.goto(`${own.address}${link}`)
			await page.getByLabel('Password').fill('violin harbour spoon')
			await page.getByRole('button', { name: 'Set it and sign in' }).click()
			await expect(page.getByRole('link', { name: 'Go to the field' })).toBeVisible()
			const squad = (await own.rows('select id from squad limit 1'))[0]!.id as string
			for (const place of [
				'/',
				'/squads',
				'/plan',
				'/review',
				'/library',
				'/club',
				'/club/record',
				`/squads/${squad}/week`,
			])
				expect((await page.goto(`${own.address}${place}`))!.status(), place).toBe(200)
		} finally {
			await own.stop()
		}
	} finally {
		await connection.query(`drop database if exists \`${name}\``)
		await connection.end()
		rmSync(folder, { recursive: true, force: true })
	}
})
