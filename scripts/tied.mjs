// Plain JavaScript on Node alone: it runs before any package is installed.
import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'

const SETPRIV = '/usr/bin/setpriv'

/**
 * Spawns a program that does not outlive this process, however this process ends: the kernel sends it
 * SIGTERM then. setpriv belongs to Debian's util-linux, which is always there; it becomes the program, so
 * that the process id is the program's own.
 *
 * @param {string} program
 * @param {readonly string[]} args
 * @param {import('node:child_process').SpawnOptions} [options]
 */
export function spawnTied(program, args, options = {}) {
	if (!existsSync(SETPRIV)) return spawn(program, args, options)
	return spawn(SETPRIV, ['--pdeathsig', 'TERM', program, ...args], options)
}

/**
 * The exit code of a tied program; one that a signal ended counts as failed. Output goes where ours goes,
 * unless the options say otherwise.
 *
 * @param {string} program
 * @param {readonly string[]} args
 * @param {import('node:child_process').SpawnOptions} [options]
 * @returns {Promise<number>}
 */
export function runTied(program, args, options = {}) {
	return new Promise((resolve, reject) => {
		const child = spawnTied(program, args, { stdio: ['ignore', 'inherit', 'inherit'], ...options })
		child.once('error', reject)
		child.once('exit', (code) => resolve(code ?? 1))
	})
}

/**
 * Calls back once when this process is asked to end, or when the npm that started it has ended: npm and
 * its shell pass no signal on, and without this watch they would end alone.
 *
 * @param {() => void} end
 */
export function onEnd(end) {
	let begun = false
	const once = () => {
		if (begun) return
		begun = true
		end()
	}
	for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, once)
	const parent = process.ppid
	if (process.env.npm_lifecycle_event) setInterval(() => process.ppid !== parent && once(), 250).unref()
}
