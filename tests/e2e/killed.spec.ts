import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { expect, test } from '@playwright/test'
import { startApp } from '../support/app-test'
import { phonesOf } from '../support/phone'
import { migrateDatabase } from '../../db/migrate'
import { startLocalDatabase } from '../../scripts/local-database'

/** Kills in one run; a hundred with KILL_ROUNDS=100. Every third is the database, the others the application. */
const ROUNDS = Number(process.env.KILL_ROUNDS ?? 3)
const PHONES = 3

test('application and database are killed again and again under three phones: nothing acknowledged is missing, nothing is double', async ({
	playwright,
}) => {
	test.setTimeout(180_000 + ROUNDS * 30_000)
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-killed-'))
	// A server of its own, which keeps what it has said it kept: the other tests' server may forget a second.
	const server = await startLocalDatabase(home)
	await migrateDatabase(server.url('dromos_empty'))
	const app = await startApp(server.url(''), 'dromos_empty')
	try {
		const { phones } = await phonesOf(playwright, app, PHONES)
		let isOver = false
		const working = phones.map((phone) => phone.work(() => isOver))
		const known = () => phones.reduce((sum, phone) => sum + phone.acknowledged.size, 0)
		for (let round = 1; round <= ROUNDS; round++) {
			const [before, lost] = [known(), phones.map((phone) => phone.lost)]
			await expect.poll(known, { intervals: [5], timeout: 60_000 }).toBeGreaterThan(before + 100)
			if (round % 3 === 0) {
				// It comes back by itself, where it was; what was asked meanwhile may only have taken longer.
				process.kill(Number(readFileSync(path.join(home, 'mariadb.pid'), 'utf8')), 'SIGKILL')
				await expect.poll(() => server.isUp(), { intervals: [5] }).toBe(false)
				await expect.poll(() => server.isUp(), { intervals: [20], timeout: 60_000 }).toBe(true)
			} else {
				await app.cutPower()
				await expect.poll(() => phones.every((phone, at) => phone.lost > lost[at]!), { intervals: [20] }).toBe(true)
				await app.powerOn()
			}
		}
		isOver = true
		await Promise.all(working)

		for (const phone of phones) await phone.expectAllKept(app.databaseUrl)
		if (process.env.KILL_ROUNDS) console.log(`${ROUNDS} kills, ${known()} acknowledged, 0 lost, 0 double`)
	} finally {
		await app.stop()
		await server.stop()
		rmSync(home, { recursive: true, force: true })
	}
})

/** Processes that serve for an application. */
const workersOf = (pid: number) =>
	spawnSync('pgrep', ['-P', String(pid)], { encoding: 'utf8' })
		.stdout.split('\n')
		.filter(Boolean)
		.map(Number)

test('of two processes behind one port one is killed under load, twice: pages go on, another comes, nothing acknowledged is missing', async ({
	playwright,
}) => {
	const app = await startApp(process.env.TEST_DATABASE_URL!, 'dromos_empty', ['--workers', '2'])
	try {
		const { phones, request } = await phonesOf(playwright, app, 2)
		let isOver = false
		const working = phones.map((phone) => phone.work(() => isOver))
		const known = () => phones.reduce((sum, phone) => sum + phone.acknowledged.size, 0)
		for (let kill = 1; kill <= 2; kill++) {
			const before = known()
			await expect.poll(known, { intervals: [5] }).toBeGreaterThan(before + 50)
			const workers = workersOf(app.pid())
			expect(workers).toHaveLength(2)
			process.kill(workers[0]!, 'SIGKILL')
			// The other one answers while the next is on its way.
			const page = () =>
				request.get('/club', { timeout: 10_000 }).then(
					(answer) => answer.status(),
					// What was on its way to the one that was killed is asked again, as a browser does.
					() => 0,
				)
			await expect.poll(page, { timeout: 20_000 }).toBe(200)
			await expect.poll(() => workersOf(app.pid()).filter((pid) => !workers.includes(pid))).toHaveLength(1)
			const then = known()
			await expect.poll(known).toBeGreaterThan(then + 50)
		}
		isOver = true
		await Promise.all(working)
		for (const phone of phones) await phone.expectAllKept(app.databaseUrl)
		const left = workersOf(app.pid())
		expect(left).toHaveLength(2)
		await app.cutPower()
		const alive = () => left.filter((pid) => spawnSync('ps', ['-o', 'stat=', '-p', String(pid)]).stdout.length > 0)
		await expect.poll(alive).toEqual([])
	} finally {
		await app.stop()
	}
})
