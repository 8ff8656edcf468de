import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { buildApp } from './build-app'
import { freePort, startLocalDatabase } from './local-database'
import { ROOT } from './root.mjs'

/** What one test starts and where: the tests wait on processes side by side, so nothing of one is another's. */
interface Hand {
	/** An empty directory. */
	newHome: () => string
	/** A data directory as a first start leaves it, made once and copied. */
	usedHome: () => string
	start: (home: string, port: number, how?: 'npm' | 'node', more?: NodeJS.ProcessEnv) => Started
}
interface Started {
	child: ChildProcess
	printed: () => string
	ended: Promise<number | null>
}
let made = ''
beforeAll(async () => {
	// Not by several starts at the same moment.
	await buildApp()
	made = mkdtempSync(path.join(tmpdir(), 'dromos-start-'))
	await (await startLocalDatabase(made)).stop()
}, 120_000)
afterAll(() => rmSync(made, { recursive: true, force: true }))

const beside = (name: string, work: (hand: Hand) => Promise<void>) => it.concurrent(name, inHand(work), 180_000)
/** Not beside others: it has to be quick with a signal. */
const alone = (name: string, work: (hand: Hand) => Promise<void>) => it(name, inHand(work), 180_000)
const inHand = (work: (hand: Hand) => Promise<void>) => async () => {
	const homes: string[] = []
	const started: Started[] = []
	const newHome = () => {
		const home = mkdtempSync(path.join(tmpdir(), 'dromos-start-'))
		homes.push(home)
		return home
	}
	const usedHome = () => {
		const home = newHome()
		cpSync(made, home, { recursive: true })
		return home
	}
	try {
		await work({
			newHome,
			usedHome,
			start: (...how) => {
				const one = start(...how)
				started.push(one)
				return one
			},
		})
	} finally {
		for (const one of started) {
			for (const pid of [one.child.pid!, ...below(one.child.pid!)]) if (alive(pid)) process.kill(pid, 'SIGKILL')
			await one.ended
		}
		for (const home of homes) rmSync(home, { recursive: true, force: true })
	}
}

function start(home: string, port: number, how: 'npm' | 'node' = 'node', more: NodeJS.ProcessEnv = {}): Started {
	const env: NodeJS.ProcessEnv = { ...process.env, DROMOS_HOME: home, PORT: String(port), HOST: '', ...more }
	if (!more.DATABASE_URL) delete env.DATABASE_URL
	delete env.npm_lifecycle_event
	const [program, args] =
		how === 'npm' ? ['npm', ['start', '--', '--empty']] : [process.execPath, ['scripts/run.mjs', 'start', '--empty']]
	const child = spawn(program, args, { cwd: ROOT, env, stdio: ['ignore', 'pipe', 'pipe'] })
	let printed = ''
	for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (printed += chunk.toString()))
	return {
		child,
		printed: () => printed,
		// Ended is when what it printed was read, too.
		ended: new Promise((resolve) => child.on('close', resolve)),
	}
}
async function until(one: Started, words: string): Promise<void> {
	for (let i = 0; i < 3000 && !one.printed().includes(words); i++) {
		if (one.child.exitCode !== null) throw new Error(`ended with ${one.child.exitCode}:\n${one.printed()}`)
		await new Promise((resolve) => setTimeout(resolve, 50))
	}
	expect(one.printed()).toContain(words)
}
const alive = (pid: number) =>
	/^[^Z]/.test(spawnSync('ps', ['-o', 'stat=', '-p', String(pid)], { encoding: 'utf8' }).stdout)
/** Every process that was started from a process, as they stand now. */
function below(pid: number): number[] {
	const own = spawnSync('pgrep', ['-P', String(pid)], { encoding: 'utf8' })
		.stdout.split('\n')
		.filter(Boolean)
		.map(Number)
	return own.flatMap((child) => [child, ...below(child)])
}
async function allGone(pids: number[]): Promise<void> {
	for (let i = 0; i < 400 && pids.some(alive); i++) await new Promise((resolve) => setTimeout(resolve, 50))
	expect(
		pids.filter(alive).map((pid) => spawnSync('ps', ['-o', 'args=', '-p', String(pid)], { encoding: 'utf8' }).stdout),
	).toEqual([])
}
const databaseOf = (home: string) =>
	spawnSync('pgrep', ['-fa', home], { encoding: 'utf8' })
		.stdout.split('\n')
		.filter((line) => line.includes('mariadbd'))
		.join()

beside(
	'starts on loopback, keeps a second start off, and ends all it started on SIGTERM',
	async ({ newHome, usedHome, start }) => {
		const [home, port] = [usedHome(), await freePort()]
		const first = start(home, port)
		await until(first, 'Ctrl-C ends it.')
		expect(first.printed()).toContain(`http://127.0.0.1:${port}/first?code=`)
		expect(databaseOf(home)).toContain('--bind-address=127.0.0.1')
		expect((await fetch(`http://127.0.0.1:${port}/health`)).status).toBe(200)
		expect(await (await fetch(`http://127.0.0.1:${port}/sign-in`)).text()).toContain('Password')

		// The database takes nobody without the password kept in the owner's directory.
		const database = /--port=(\d+)/.exec(databaseOf(home))?.[1]
		for (const [user, password] of [
			['root', ''],
			['dromos', 'guess'],
			['', ''],
		])
			await expect(
				mysql.createConnection({ host: '127.0.0.1', port: Number(database), user, password }),
			).rejects.toThrow(/[Aa]ccess denied|not allowed/)
		expect(readFileSync(path.join(home, 'mariadb.password'), 'utf8')).toMatch(/^[0-9a-f]{48}$/)

		const second = start(home, await freePort())
		expect(await second.ended).toBe(1)
		expect(second.printed()).toContain('Dromos already runs from this directory')
		const taken = start(newHome(), port)
		expect(await taken.ended).toBe(1)
		expect(taken.printed()).toContain(
			`Port ${port} on 127.0.0.1 is taken by another program. Choose another: PORT=${port + 1} npm start`,
		)
		expect(taken.printed()).not.toContain('    at ')

		const all = [first.child.pid!, ...below(first.child.pid!)]
		expect(all.length).toBeGreaterThan(1)
		first.child.kill('SIGTERM')
		expect(await first.ended).toBe(0)
		await allGone(all)
		expect(existsSync(path.join(home, 'start.pid'))).toBe(false)
	},
)

beside(
	'ends whole when npm is ended by a service manager or a closed terminal, and when it is killed; the next start is whole',
	async ({ usedHome, start }) => {
		const home = usedHome()
		for (const signal of ['SIGTERM', 'SIGHUP', 'SIGINT', 'SIGKILL'] as const) {
			const one = start(home, await freePort(), 'npm')
			await until(one, 'Ctrl-C ends it.')
			const all = [one.child.pid!, ...below(one.child.pid!)]
			// npm, the application and the database at least.
			expect(all.length, signal).toBeGreaterThanOrEqual(3)
			one.child.kill(signal)
			await allGone(all)
		}
	},
)

beside('leaves no database behind when it is killed itself, and starts again', async ({ usedHome, start }) => {
	const home = usedHome()
	const killed = start(home, await freePort())
	await until(killed, 'Ctrl-C ends it.')
	const all = [killed.child.pid!, ...below(killed.child.pid!)]
	killed.child.kill('SIGKILL')
	await allGone(all)
	const again = start(home, await freePort())
	await until(again, 'Ctrl-C ends it.')
})

/** Ctrl-C reaches every process of the terminal at once; the database is kept out of that. */
alone('says nothing but the end when Ctrl-C comes while it begins', async ({ newHome, start }) => {
	const home = newHome()
	const one = start(home, await freePort())
	const served = () =>
		spawnSync('pgrep', ['-P', String(one.child.pid), '-f', 'serve.mjs'], { encoding: 'utf8' })
			.stdout.split('\n')
			.filter(Boolean)
			.map(Number)
	// The database is there, and its tables are being made.
	await expect.poll(() => existsSync(path.join(home, 'mariadb.port')), { interval: 10, timeout: 60_000 }).toBe(true)
	const all = [one.child.pid!, ...below(one.child.pid!)]
	for (const pid of [one.child.pid!, ...served()]) process.kill(pid, 'SIGINT')
	expect(await one.ended).toBe(0)
	await allGone(all)
	expect(one.printed().trim()).toBe('Making the database directory …')
})

alone('ends whole in the middle of a first start, and the next one goes on', async ({ newHome, start }) => {
	const [home, port] = [newHome(), await freePort()]
	const broken = start(home, port, 'npm')
	await until(broken, 'Making the database directory')
	const all = [broken.child.pid!, ...below(broken.child.pid!)]
	broken.child.kill('SIGTERM')
	await allGone(all)
	expect(existsSync(path.join(home, 'mariadb'))).toBe(false)
	expect(readdirSync(home).some((name) => name.startsWith('mariadb.making'))).toBe(true)
	const whole = start(home, port)
	await until(whole, 'Ctrl-C ends it.')
})

beside(
	'says in a sentence what is wrong: bad port, unknown option, unreachable server, unusable certificate',
	async ({ newHome, start }) => {
		const bad = start(newHome(), Number.NaN)
		expect(await bad.ended).toBe(1)
		expect(bad.printed()).toContain('PORT: "NaN" is not a port')
		const unknown = spawnSync(process.execPath, ['scripts/run.mjs', 'start', '--emtpy'], {
			cwd: ROOT,
			encoding: 'utf8',
		})
		expect(unknown.status).toBe(1)
		expect(unknown.stderr).toContain('--emtpy: not known. The options are --empty')

		const url = `mysql://a:b@127.0.0.1:${await freePort()}/dromos`
		const unreachable = start(newHome(), await freePort(), 'node', { DATABASE_URL: url })
		expect(await unreachable.ended).toBe(1)
		expect(unreachable.printed()).toContain('The database at DATABASE_URL cannot be used')
		const lonely = start(newHome(), await freePort(), 'node', { TLS_CERT: '/nowhere.pem' })
		expect(await lonely.ended).toBe(1)
		expect(lonely.printed()).toContain('TLS_CERT and TLS_KEY belong together')
		for (const one of [bad, unreachable, lonely]) expect(one.printed()).not.toContain('    at ')
	},
)

beside('does not trust a lock that a killed process left, whoever has its number now', async ({ usedHome, start }) => {
	const home = usedHome()
	mkdirSync(home, { recursive: true })
	const lock = path.join(home, 'start.pid')
	cpSync('/proc/self/comm', lock)
	const one = start(home, await freePort())
	await until(one, 'Ctrl-C ends it.')
	expect(readFileSync(lock, 'utf8')).toBe(String(one.child.pid))
})
