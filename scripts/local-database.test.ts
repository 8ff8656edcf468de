import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import mysql from 'mysql2/promise'
import { expect, it, vi } from 'vitest'
import { poolMegabytes, startLocalDatabase } from './local-database'

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

it.each([
	[0.5, 256],
	[1, 256],
	[2, 512],
	[8, 2048],
	[24, 4096],
])('of %d GiB of memory the tables get %d MB', (gib, megabytes) =>
	expect(poolMegabytes(gib * 1024 ** 3)).toBe(megabytes),
)
