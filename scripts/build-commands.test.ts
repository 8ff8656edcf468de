import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { afterEach, expect, it } from 'vitest'
import { builtCommands } from './build-commands.mjs'
import { ROOT } from './root.mjs'

const POINTER = path.join(ROOT, '.commands', 'built.json')
const OTHER = path.join(ROOT, '.commands', 'of-other-sources')
afterEach(() => rmSync(OTHER, { recursive: true, force: true }))

it('what was built before a source was saved is not run, although whoever built it went by a clock a day ahead', async () => {
	const folder = await builtCommands()
	rmSync(POINTER)
	const { status } = spawnSync(
		process.execPath,
		['--import', path.join(ROOT, 'tests/support/own-clock.mjs'), 'scripts/run.mjs', 'calc', '--list'],
		{ cwd: ROOT, env: { ...process.env, TEST_CLOCK_AHEAD_MS: '86400000' } },
	)
	expect(status).toBe(0)
	mkdirSync(OTHER, { recursive: true })
	writeFileSync(POINTER, readFileSync(POINTER, 'utf8').replace(path.basename(folder), path.basename(OTHER)))
	const now = new Date()
	utimesSync(path.join(ROOT, 'scripts', 'root.mjs'), now, now)
	expect(await builtCommands()).toBe(folder)
	expect(JSON.parse(readFileSync(POINTER, 'utf8'))).toMatchObject({ hash: path.basename(folder) })
})
