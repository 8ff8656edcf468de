import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import mysql from 'mysql2/promise'
import { afterEach, expect, it } from 'vitest'
import { ROOT } from './ensure-packages.mjs'
import { freePort } from './local-database'

const homes: string[] = []
afterEach(() => {
	for (const home of homes.splice(0)) rmSync(home, { recursive: true, force: true })
})
const newHome = () => {
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-start-'))
	homes.push(home)
	return home
}

interface Started {
	child: ChildProcess
	printed: () => string
	ended: Promise<number | null>
}
function start(home: string, port: number, ...options: string[]): Started {
	const env: NodeJS.ProcessEnv = { ...process.env, DROMOS_HOME: home, PORT: String(port), HOST: '' }
	delete env.DATABASE_URL
	const child = spawn(process.execPath, ['scripts/start.mjs', ...options], { cwd: ROOT, env, stdio: ['ignore', 'pipe', 'pipe'] })
	let printed = ''
	child.stdout.on('data', (chunk: Buffer) => (printed += chunk.toString()))
	child.stderr.on('data', (chunk: Buffer) => (printed += chunk.toString()))
	return { child, printed: () => printed, ended: new Promise((resolve) => child.on('exit', resolve)) }
}
async function until(started: Started, words: string): Promise<void> {
	for (let i = 0; i < 1500 && !started.printed().includes(words); i++) {
		if (started.child.exitCode !== null) throw new Error(`ended with ${started.child.exitCode}:\n${started.printed()}`)
		await new Promise((resolve) => setTimeout(resolve, 100))
	}
	expect(started.printed()).toContain(words)
}
const running = (home: string) => spawnSync('pgrep', ['-fa', home], { encoding: 'utf8' }).stdout.split('\n').filter((line) => line.includes('mariadbd'))

it('starts on loopback, keeps a second start off, and ends all it started on SIGTERM', async () => {
	const [home, port] = [newHome(), await freePort()]
	const first = start(home, port, '--empty')
	await until(first, 'Ctrl-C ends it.')
	expect(first.printed()).toContain(`http://127.0.0.1:${port}/first?code=`)
	expect(running(home).join()).toContain('--bind-address=127.0.0.1')
	expect((await fetch(`http://127.0.0.1:${port}/health`)).status).toBe(200)

	// The database takes nobody without the password kept in the owner's directory.
	const database = /--port=(\d+)/.exec(running(home).join())?.[1]
	for (const [user, password] of [['root', ''], ['dromos', 'guess'], ['', '']]) {
		await expect(mysql.createConnection({ host: '127.0.0.1', port: Number(database), user, password })).rejects.toThrow(/[Aa]ccess denied|not allowed/)
	}
	expect(readFileSync(path.join(home, 'mariadb.password'), 'utf8')).toMatch(/^[0-9a-f]{48}$/)

	const second = start(home, await freePort(), '--empty')
	expect(await second.ended).toBe(1)
	expect(second.printed()).toContain('Dromos already runs from this directory')
	const taken = start(newHome(), port)
	expect(await taken.ended).toBe(1)
	expect(taken.printed()).toContain(`Port ${port} on 127.0.0.1 is taken by another program. Choose another: PORT=${port + 1} npm start`)
	expect(taken.printed()).not.toContain('    at ')

	first.child.kill('SIGTERM')
	expect(await first.ended).toBe(0)
	expect(running(home)).toEqual([])
	expect(existsSync(path.join(home, 'start.pid'))).toBe(false)
	await expect(fetch(`http://127.0.0.1:${port}/health`)).rejects.toThrow()
}, 180_000)

it('says in a sentence what is wrong: half-made directory, bad port, unknown option, unreachable server', async () => {
	const half = newHome()
	mkdirSync(path.join(half, 'mariadb'))
	const broken = start(half, await freePort(), '--empty')
	expect(await broken.ended).toBe(1)
	expect(broken.printed()).toContain('was left half made by an interrupted start')
	expect(broken.printed()).toContain(`rm -rf ${path.join(half, 'mariadb')}`)

	const bad = start(newHome(), Number.NaN)
	expect(await bad.ended).toBe(1)
	expect(bad.printed()).toContain('PORT: "NaN" is not a port')
	const unknown = start(newHome(), await freePort(), '--emtpy')
	expect(await unknown.ended).toBe(1)
	expect(unknown.printed()).toContain('--emtpy: not known. The only option is --empty')

	const closed = await freePort()
	const child = spawnSync(process.execPath, ['scripts/start.mjs', '--empty'], { cwd: ROOT, encoding: 'utf8', env: { ...process.env, DROMOS_HOME: newHome(), PORT: String(await freePort()), DATABASE_URL: `mysql://a:b@127.0.0.1:${closed}/dromos` } })
	expect(child.status).toBe(1)
	expect(child.stderr).toContain('The database at DATABASE_URL cannot be used')
	expect(`${broken.printed()}${bad.printed()}${unknown.printed()}${child.stderr}`).not.toContain('    at ')
}, 180_000)
