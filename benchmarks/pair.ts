import type { ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { connect } from '../db/connect'
import { migrateDatabase } from '../db/migrate'
import { installDebianPackages } from '../scripts/debian-packages'
import { freePort, startLocalDatabase } from '../scripts/local-database'
import { PlainError } from '../scripts/plain-error'
import { spawnTied } from '../scripts/tied.mjs'
import { loadDemo } from '../server/demo/load-demo'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'
import { keptOf, percentile, post, statusOf } from './load'
import { Site, doneMarks } from './site'

const SERVER = '/usr/sbin/mariadbd'
const PROVIDER = '/usr/lib/galera/libgalera_smm.so'
const ARBITRATOR = '/usr/bin/garbd'
const PROXY = '/usr/sbin/haproxy'
const NEEDED = {
	[PROVIDER]: 'galera-4',
	[ARBITRATOR]: 'galera-arbitrator-4',
	[PROXY]: 'haproxy',
	'/usr/bin/rsync': 'rsync',
}
const DATABASE = 'dromos_pair'
const PHONES = 10
const COACHES = 10
const SEND_EVERY_MS = 300
const THINK_MS = 500
const BEFORE_MS = 15_000
const AFTER_MS = 45_000
/** A member that says nothing for so long is suspected, and after as long again taken for gone [our setting; theirs are 5 and 15 s]. */
const SUSPECT_S = 2

/**
 * Two database servers that hold the same, an arbitrator that has a vote and no data, and a proxy that sends everything
 * to the first of the two that answers; all on loopback, from Debian's packages. The first is ended by SIGKILL under
 * load: how long nothing is acknowledged, and whether all that was is on the other.
 */
export async function benchPair(): Promise<void> {
	const missing = Object.entries(NEEDED).flatMap(([file, name]) => (existsSync(file) ? [] : [name]))
	if (missing.length > 0) installDebianPackages(missing, 'What a pair of databases needs')
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-pair-'))
	const started: ChildProcess[] = []
	try {
		await pair(home, started)
	} finally {
		for (const child of started) child.kill('SIGKILL')
		await wait(500)
		rmSync(home, { recursive: true, force: true })
	}
}

async function pair(home: string, started: ChildProcess[]): Promise<void> {
	const seed = await startLocalDatabase(home)
	await migrateDatabase(seed.url(DATABASE))
	const demo = connect(seed.url(DATABASE))
	await loadDemo(demo.db, new Date())
	await demo.pool.end()
	await seed.stop()
	// What hands the state over belongs to nobody when it is started by root.
	for (const folder of [home, path.join(home, 'mariadb')]) chmodSync(folder, 0o777)

	const start = (program: string, args: readonly string[]): ChildProcess => {
		const child = spawnTied(program, args, { stdio: 'ignore' })
		started.push(child)
		return child
	}
	const at = new URL(seed.url(DATABASE))
	const urlAt = (port: number): string => {
		at.port = String(port)
		return at.toString()
	}
	const [first, second] = [await Member.make(home, 'mariadb'), await Member.make(home, 'second')]

	// Started alone once, its data know the group; the other one is begun with the same data and asks for the rest.
	const alone = start(SERVER, first.args('gcomm://', true))
	await synced(urlAt(first.port), alone)
	await ended(alone)
	cpSync(first.data, second.data, { recursive: true })
	chmodSync(second.data, 0o777)
	for (const file of ['galera.cache', 'gvwstate.dat']) rmSync(path.join(second.data, file), { force: true })
	const one = start(SERVER, first.args('gcomm://', true))
	await synced(urlAt(first.port), one)
	const group = `gcomm://127.0.0.1:${first.group},127.0.0.1:${second.group}`
	const other = start(SERVER, second.args(group, false))
	await synced(urlAt(second.port), other)
	const vote = await freePort()
	start(ARBITRATOR, ['-a', group, '-g', 'dromos', '-o', `gmcast.listen_addr=tcp://127.0.0.1:${vote};${PATIENCE}`])
	await until('three members', async () => (await sizeAt(urlAt(second.port))) === 3)

	const door = await freePort()
	writeFileSync(path.join(home, 'proxy.cfg'), proxyOf(door, first.port, second.port))
	start(PROXY, ['-f', path.join(home, 'proxy.cfg'), '-db'])
	await until('the proxy', async () => (await sizeAt(urlAt(door))) === 3)
	const bench = { url: () => urlAt(door), databasePid: one.pid!, locks: path.join(home, 'locks') }
	mkdirSync(bench.locks)
	const site = await Site.start(bench, DATABASE, ['--workers', '2'])
	try {
		await load(site, one, urlAt(second.port))
	} finally {
		site.connection.destroy()
		site.app.kill('SIGTERM')
		await new Promise((resolve) => site.app.once('exit', resolve))
	}
}

const PATIENCE = `evs.keepalive_period=PT0.5S;evs.suspect_timeout=PT${SUSPECT_S}S;evs.inactive_timeout=PT${2 * SUSPECT_S}S`

/** One of the two servers: where its data are, and where it listens to whom. */
class Member {
	private constructor(
		readonly data: string,
		private readonly home: string,
		private readonly name: string,
		readonly port: number,
		readonly group: number,
		private readonly state: readonly [number, number],
	) {}
	static async make(home: string, name: string): Promise<Member> {
		const ports: [number, number, number, number] = [
			await freePort(),
			await freePort(),
			await freePort(),
			await freePort(),
		]
		mkdirSync(path.join(home, `${name}.tmp`), { recursive: true })
		return new Member(path.join(home, name), home, name, ports[0], ports[1], [ports[2], ports[3]])
	}
	args = (group: string, isNew: boolean): string[] => [
		'--no-defaults',
		`--datadir=${this.data}`,
		`--tmpdir=${path.join(this.home, `${this.name}.tmp`)}`,
		`--socket=${path.join(this.home, `${this.name}.sock`)}`,
		`--log-error=${path.join(this.home, `${this.name}.log`)}`,
		`--port=${this.port}`,
		'--bind-address=127.0.0.1',
		'--skip-name-resolve',
		'--max-allowed-packet=64M',
		'--innodb-buffer-pool-size=512M',
		'--character-set-server=utf8mb4',
		'--collation-server=utf8mb4_uca1400_ai_ci',
		// The proxy looks in twice a second and says nothing.
		'--max-connect-errors=1000000000',
		'--binlog-format=ROW',
		'--innodb-autoinc-lock-mode=2',
		'--wsrep-on=ON',
		`--wsrep-provider=${PROVIDER}`,
		'--wsrep-cluster-name=dromos',
		`--wsrep-cluster-address=${group}`,
		`--wsrep-node-name=${this.name}`,
		`--wsrep-node-address=127.0.0.1:${this.group}`,
		'--wsrep-sst-method=rsync',
		`--wsrep-sst-receive-address=127.0.0.1:${this.state[0]}`,
		`--wsrep-provider-options=base_host=127.0.0.1;base_port=${this.group};gmcast.listen_addr=tcp://127.0.0.1:${this.group};ist.recv_addr=127.0.0.1:${this.state[1]};${PATIENCE}`,
		...(isNew ? ['--wsrep-new-cluster'] : []),
		...(process.getuid?.() === 0 ? ['--user=root'] : []),
	]
}

/** One writes, whoever asks; the other one stands by, and whoever was with the first is let go when that is gone. */
const proxyOf = (door: number, first: number, second: number): string => `global
	maxconn 500
defaults
	mode tcp
	timeout connect 2s
	timeout client 10m
	timeout server 10m
listen writer
	bind 127.0.0.1:${door}
	default-server check inter 500ms fall 2 on-marked-down shutdown-sessions
	server first 127.0.0.1:${first}
	server second 127.0.0.1:${second} backup
`

async function until(what: string, isSo: () => Promise<boolean>): Promise<void> {
	for (let tries = 0; tries < 240; tries++) {
		if (await isSo()) return
		await wait(250)
	}
	throw new PlainError(`${what} did not come within a minute.`)
}
/** What a server says of itself, "Synced"; null while it does not answer. */
async function statusAt(url: string, name: string): Promise<string | null> {
	try {
		const connection = await mysql.createConnection({ uri: url, connectTimeout: 1000 })
		const [rows] = await connection.query<RowDataPacket[]>(`show status like '${name}'`)
		await connection.end()
		return rows[0] ? String(rows[0].Value) : null
	} catch {
		return null
	}
}
const sizeAt = async (url: string): Promise<number> => Number(await statusAt(url, 'wsrep_cluster_size'))
const synced = (url: string, server: ChildProcess): Promise<void> =>
	until('A member of the pair', async () => {
		if (server.exitCode !== null) throw new PlainError('A member of the pair has ended at once.')
		return (await statusAt(url, 'wsrep_local_state_comment')) === 'Synced'
	})
async function ended(server: ChildProcess): Promise<void> {
	const gone = new Promise((resolve) => server.once('exit', resolve))
	server.kill('SIGTERM')
	await gone
}

async function load(site: Site, first: ChildProcess, survivor: string): Promise<void> {
	const lines = await site.connection.query<RowDataPacket[]>(
		'select l.id as lineId, l.entry_id as entryId, l.athlete_id as athleteId, l.session_id as sessionId from line l join session s on s.club_id = l.club_id and s.id = l.session_id where s.started_at is null and l.blocked is null order by s.day, l.id limit 1',
	)
	const line = lines[0][0] as { lineId: string; entryId: string; athleteId: string; sessionId: string }
	const cookie = await site.signIn(DEMO_SIGN_IN)
	const pages = ['/_.data', '/squads.data', '/plan.data', `/sessions/${line.sessionId}.data`]
	for (const page of pages) await statusOf(site.address + page, cookie)
	const acknowledged: { id: string; at: number }[] = []
	const shown: { at: number; ms: number; isGood: boolean }[] = []
	const devices: string[] = []
	const failed = { marks: 0 }
	let going = true
	const phone = async (i: number) => {
		const device = { id: randomUUID(), seq: 0 }
		devices.push(device.id)
		await wait((SEND_EVERY_MS * i) / PHONES)
		while (going) {
			const events = doneMarks(1, line, device)
			for (let isIn = false; going && !isIn; ) {
				const { status, body } = await post(site, '/api/events', cookie, { events })
				isIn = status === 200
				if (isIn)
					for (const { id, outcome } of body.answers as { id: string; outcome: string }[])
						if (outcome === 'accepted' || outcome === 'replayed') acknowledged.push({ id, at: performance.now() })
				if (!isIn) {
					failed.marks++
					await wait(500)
				}
			}
			await wait(SEND_EVERY_MS)
		}
	}
	const coach = async (i: number) => {
		await wait((THINK_MS * i) / COACHES)
		for (let look = i; going; look++) {
			const began = performance.now()
			const status = await statusOf(site.address + pages[look % pages.length]!, cookie)
			shown.push({ at: began, ms: performance.now() - began, isGood: status === 200 })
			await wait(THINK_MS)
		}
	}
	const work = [
		...Array.from({ length: PHONES }, (_, i) => phone(i)),
		...Array.from({ length: COACHES }, (_, i) => coach(i)),
	]
	await wait(BEFORE_MS)
	const killed = performance.now()
	first.kill('SIGKILL')
	await wait(AFTER_MS)
	going = false
	await Promise.all(work)

	const before = acknowledged.filter(({ at }) => at < killed)
	const after = acknowledged.filter(({ at }) => at >= killed).map(({ at }) => at - killed)
	const good = (from: number, to: number) => shown.filter(({ at, isGood }) => isGood && at >= from && at < to)
	const bad = shown.filter(({ isGood }) => !isGood)
	console.log(
		`A pair of databases, an arbitrator and a proxy, two processes of the application, ${PHONES} phones, ${COACHES} coaches; one database is ended by SIGKILL after ${BEFORE_MS / 1000} s:\n`,
	)
	console.log(
		`before: ${before.length} marks, ${good(0, killed).length} pages, median ${percentile(
			good(0, killed).map(({ ms }) => ms),
			0.5,
		)}`,
	)
	// What was on its way when it ended may still come in: the pause is the longest stretch without a mark.
	const pauses = [0, ...after, AFTER_MS].sort((a, b) => a - b)
	const pause = Math.max(...pauses.slice(1).map((at, i) => at - pauses[i]!))
	const firstGood = Math.min(...good(killed, Infinity).map(({ at, ms }) => at + ms - killed))
	const lastBad = bad.length === 0 ? null : Math.max(...bad.map(({ at, ms }) => at + ms - killed))
	console.log(
		`after: no mark is acknowledged for ${(pause / 1000).toFixed(1)} s, then ${after.length} more; the first page after ${(firstGood / 1000).toFixed(1)} s, ${lastBad === null ? 'none failed' : `the last that failed after ${(lastBad / 1000).toFixed(1)} s`}; ${bad.length} looks and ${failed.marks} sendings failed meanwhile`,
	)
	const connection = await mysql.createConnection(survivor)
	const kept = await keptOf(connection, devices)
	await connection.end()
	const lost = acknowledged.filter(({ id }) => kept.get(id) !== 1).length
	console.log(
		`${acknowledged.length} marks acknowledged in all, ${lost} of them not once on the one that is left (aim: 0)`,
	)
}
