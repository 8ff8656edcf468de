import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import mysql from 'mysql2/promise'
import { expect, it, vi } from 'vitest'
import { poolMegabytes, startLocalDatabase, whyNotMade } from './local-database'

it('a database that somebody ends is started again with all it had acknowledged, and stays ended when we end it', async () => {
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-db-'))
	const database = await startLocalDatabase(home)
	const ask = async (sql: string) => {
		const connection = await mysql.createConnection(database.url(''))
		const [rows] = await connection.query(sql)
		await connection.end()
		return rows
	}
	try {
		expect(database.isUp()).toBe(true)
		await ask('create database dromos')
		await ask('create table dromos.kept (n int primary key)')
		await ask('insert into dromos.kept values (7)')
		for (const signal of ['SIGKILL', 'SIGTERM'] as const) {
			const before = readFileSync(path.join(home, 'mariadb.pid'), 'utf8')
			process.kill(Number(before), signal)
			await vi.waitFor(() => expect(database.isUp()).toBe(false), { timeout: 20_000, interval: 5 })
			await vi.waitFor(() => expect(database.isUp()).toBe(true), { timeout: 30_000, interval: 20 })
			expect(readFileSync(path.join(home, 'mariadb.pid'), 'utf8')).not.toBe(before)
			expect(await ask('select n from dromos.kept')).toEqual([{ n: 7 }])
		}
	} finally {
		await database.stop()
	}
	await expect(ask('select 1')).rejects.toThrow()
	rmSync(home, { recursive: true, force: true })
}, 90_000)

it('neither making a database nor starting it clears away what another server keeps among the temporary files', async () => {
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-db-'))
	const shared = mkdtempSync(path.join(tmpdir(), 'dromos-shared-'))
	const others = path.join(shared, '#sql-temptable-77-1-3.MAD')
	writeFileSync(others, 'a table of another server')
	vi.stubEnv('TMPDIR', shared)
	try {
		const database = await startLocalDatabase(home)
		await database.stop()
		expect(existsSync(others)).toBe(true)
		expect(readdirSync(home).filter((name) => name.includes('making'))).toEqual([])
	} finally {
		vi.unstubAllEnvs()
		for (const folder of [home, shared]) rmSync(folder, { recursive: true, force: true })
	}
}, 60_000)

it('why a database could not be made is what was wrong, not the advice after it', () => {
	const advice = 'Installation of system tables failed!\n\nPlease check all of the above\nat an address'
	expect(whyNotMade(`Installing …\nERROR: 1051  Unknown table\n12:00 0 [ERROR] Aborting\n${advice}\n`)).toBe(
		'ERROR: 1051  Unknown table\n12:00 0 [ERROR] Aborting',
	)
	expect(whyNotMade('one\ntwo\nthree\nfour\nfive\n')).toBe('two\nthree\nfour\nfive')
})

it.each([
	[0.5, 256],
	[1, 256],
	[2, 512],
	[8, 2048],
	[24, 4096],
])('of %d GiB of memory the tables get %d MB', (gib, megabytes) =>
	expect(poolMegabytes(gib * 1024 ** 3)).toBe(megabytes),
)
