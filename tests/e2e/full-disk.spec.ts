import { execFileSync, spawnSync } from 'node:child_process'
import { closeSync, mkdtempSync, openSync, rmSync, statfsSync, truncateSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { expect, test } from '@playwright/test'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { migrateDatabase } from '../../db/migrate'
import { freePort, startLocalDatabase } from '../../scripts/local-database'
import { ROOT } from '../../scripts/root.mjs'
import { startApp } from '../support/app-test'
import { phonesOf } from '../support/phone'

const MB = 1024 * 1024

/** A disk of a size of its own, in memory; null where none may be mounted: only root may, and not everywhere. */
function makeDisk(megabytes: number) {
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-disk-'))
	if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', home]).status !== 0) {
		rmSync(home, { recursive: true, force: true })
		return null
	}
	const filler = path.join(home, 'filler')
	return {
		home,
		/** Fills it up to so many bytes. */
		leave: (bytes: number) => {
			rmSync(filler, { force: true })
			const { bavail, bsize } = statfsSync(home)
			const file = openSync(filler, 'w')
			try {
				const part = Buffer.alloc(MB)
				let left = Math.max(0, bavail * bsize - bytes)
				for (; left > 0; left -= part.length) writeSync(file, part, 0, Math.min(left, part.length))
			} finally {
				closeSync(file)
			}
		},
		free: () => truncateSync(filler, 0),
		gone: () => {
			execFileSync('umount', [home])
			rmSync(home, { recursive: true, force: true })
		},
	}
}

test('a disk that fills up in the middle of a migration and of a sync: both go on where they were once there is room', async ({
	playwright,
}) => {
	test.setTimeout(420_000)
	const disk = makeDisk(400)
	test.skip(disk === null, 'no small disk may be mounted here')
	if (!disk) return
	let server = await startLocalDatabase(disk.home)
	try {
		// A little more room at each try, so that it breaks off in another place each time. What could not be changed ends
		// the start, and the database with it.
		let brokenOff = 0
		for (let room = MB / 2; ; room += 6 * MB) {
			disk.leave(room)
			const whole = await migrateDatabase(server.url('dromos_empty')).then(
				() => true,
				() => false,
			)
			if (whole) break
			brokenOff += 1
			await server.stop()
			server = await startLocalDatabase(disk.home)
		}
		expect(brokenOff).toBeGreaterThan(3)
		disk.free()
		const undisturbed = server.url('dromos_undisturbed')
		await migrateDatabase(undisturbed)
		expect(await structureOf(server.url('dromos_empty'))).toEqual(await structureOf(undisturbed))

		const app = await startApp(server.url(''), 'dromos_empty')
		try {
			const phone = (await phonesOf(playwright, app, 1)).phones[0]!
			let isOver = false
			const working = phone.work(() => isOver)
			await expect.poll(() => phone.acknowledged.size, { intervals: [5] }).toBeGreaterThan(100)
			disk.leave(0)
			await expect.poll(() => phone.lost, { intervals: [20], timeout: 120_000 }).toBeGreaterThan(3)
			disk.free()
			const known = phone.acknowledged.size
			// The database server looks for room once a minute, and two of its writes may wait one after the other.
			await expect.poll(() => phone.acknowledged.size, { timeout: 200_000 }).toBeGreaterThan(known + 100)
			isOver = true
			await working
			await phone.expectAllKept(app.databaseUrl)
		} finally {
			await app.stop()
		}
	} finally {
		await server.stop()
		disk.gone()
	}
})

test('a start that would change the database refuses a disk that is nearly full, and says what it needs', async () => {
	const disk = makeDisk(700)
	test.skip(disk === null, 'no small disk may be mounted here')
	if (!disk) return
	const port = await freePort()
	const start = () =>
		spawnSync(process.execPath, ['scripts/run.mjs', 'start', '--empty'], {
			cwd: ROOT,
			encoding: 'utf8',
			timeout: 60_000,
			env: {
				...process.env,
				DATABASE_URL: undefined,
				DROMOS_HOME: disk.home,
				PORT: String(port),
				npm_lifecycle_event: '',
			},
		})
	try {
		// The server's own files first: they take as much as that themselves.
		await (await startLocalDatabase(disk.home)).stop()
		disk.leave(250 * MB)
		const refused = start()
		expect(refused.status).toBe(1)
		expect(refused.stderr).toMatch(/ 2\d\d MB are free .* 2\d\d MB are needed\. Nothing was changed/)
		const server = await startLocalDatabase(disk.home)
		const connection = await mysql.createConnection(server.url('dromos'))
		expect((await connection.query<RowDataPacket[]>('show tables'))[0]).toEqual([])
		await connection.end()
		await server.stop()
	} finally {
		disk.gone()
	}
})

/** Every column, key and default of a database. */
async function structureOf(url: string): Promise<unknown> {
	const connection = await mysql.createConnection(url)
	const ask = async (sql: string) => (await connection.query<RowDataPacket[]>(sql))[0]
	try {
		return [
			await ask(
				'select table_name, column_name, column_type, is_nullable, column_default, collation_name, generation_expression from information_schema.columns where table_schema = database() order by 1, 2',
			),
			await ask(
				'select table_name, index_name, seq_in_index, column_name, non_unique from information_schema.statistics where table_schema = database() order by 1, 2, 3',
			),
			await ask(
				'select table_name, constraint_name, constraint_type from information_schema.table_constraints where table_schema = database() order by 1, 2',
			),
			await ask('select hash from __drizzle_migrations order by id'),
		]
	} finally {
		await connection.end()
	}
}
