// Plain JavaScript on Node alone: it runs before any package is installed.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { ROOT } from './root.mjs'

const LOOK_EVERY_MS = 100

/**
 * Does something that only one command may do at a time in this checkout. Others wait, and then look for themselves
 * whether it is still to be done; one that was killed in the middle does not hold them up.
 *
 * @template T
 * @param {string} name
 * @param {() => Promise<T>} work
 * @param {string} [folder] where the mark of it stands
 * @returns {Promise<T>}
 */
export async function alone(name, work, folder = path.join(ROOT, '.alone')) {
	mkdirSync(folder, { recursive: true })
	const mark = path.join(folder, name)
	while (!taken(mark)) await wait(LOOK_EVERY_MS)
	try {
		return await work()
	} finally {
		rmSync(mark, { force: true })
	}
}

/** @param {string} mark */
function taken(mark) {
	try {
		writeFileSync(mark, String(process.pid), { flag: 'wx' })
		return true
	} catch (error) {
		if (/** @type {NodeJS.ErrnoException} */ (error).code !== 'EEXIST') throw error
		if (!lives(mark)) rmSync(mark, { force: true })
		return false
	}
}

/** @param {string} mark */
function lives(mark) {
	try {
		const pid = Number(readFileSync(mark, 'utf8'))
		// Just made, and not written yet.
		return pid === 0 || isRunning(pid)
	} catch {
		return false
	}
}

/** @param {number} pid @returns {boolean} whether there is such a process, somebody else's too */
export function isRunning(pid) {
	try {
		process.kill(pid, 0)
		return true
	} catch (error) {
		return /** @type {NodeJS.ErrnoException} */ (error).code === 'EPERM'
	}
}
