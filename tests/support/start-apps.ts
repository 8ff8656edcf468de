import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { ROOT } from '../../scripts/ensure-packages.mjs'
import { freePort, startLocalDatabase } from '../../scripts/local-database'

/** Starts the application the way the start command does and waits for its last line. */
export async function startApp(url: string, home: string, options: string[] = [], at?: number): Promise<{ process: ChildProcess; address: string; port: number; printed: string }> {
	const port = at ?? (await freePort())
	const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/serve.ts', ...options], {
		cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, DATABASE_URL: url, DROMOS_HOME: home, PORT: String(port), HOST: '127.0.0.1' },
	})
	let printed = ''
	await new Promise<void>((resolve, reject) => {
		const read = (chunk: Buffer) => {
			printed += chunk.toString()
			if (printed.includes('Ctrl-C ends it.')) resolve()
		}
		child.stdout.on('data', read)
		child.stderr.on('data', read)
		child.on('exit', (code) => reject(new Error(`the app ended with ${code}:\n${printed}`)))
	})
	return { process: child, address: `http://127.0.0.1:${port}`, port, printed }
}

/** Ends an app as a power cut would: at once, with everything it started. The database, which it did not start, goes on. */
export async function cutPower({ process: child }: { process: ChildProcess }): Promise<void> {
	const ended = new Promise((resolve) => child.once('exit', resolve))
	// The web server is a process group of its own, so that its supervisor's end would not end it.
	const web = spawnSync('pgrep', ['-P', String(child.pid), '-f', 'web-server'], { encoding: 'utf8' }).stdout.trim().split('\n').filter(Boolean).map(Number)
	child.kill('SIGKILL')
	for (const pid of web) process.kill(pid, 'SIGKILL')
	await ended
}

/** One app with the demo club, one empty; both on a database server of the tests' own. */
export default async function startApps() {
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-e2e-'))
	const database = await startLocalDatabase(home)
	const demo = await startApp(database.url('dromos_demo'), path.join(home, 'demo'))
	const empty = await startApp(database.url('dromos_empty'), path.join(home, 'empty'), ['--empty'])
	process.env.DEMO_APP = demo.address
	process.env.DEMO_DATABASE = database.url('dromos_demo')
	process.env.EMPTY_APP = empty.address
	process.env.EMPTY_FIRST = /http:\S+\/first\?code=\S+/.exec(empty.printed)?.[0] ?? ''
	return async () => {
		for (const app of [demo, empty]) {
			const ended = new Promise((resolve) => app.process.once('exit', resolve))
			app.process.kill('SIGTERM')
			await ended
		}
		await database.stop()
		rmSync(home, { recursive: true, force: true })
	}
}
