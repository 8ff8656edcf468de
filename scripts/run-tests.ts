import { type SpawnSyncReturns, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { firstExisting, installDebianPackages } from './debian-packages'
import { ROOT } from './ensure-packages.mjs'
import { PlainError } from './plain-error'

const bin = (name: string) => path.join(ROOT, 'node_modules', '.bin', name)
const RESULTS = path.join(ROOT, 'test-results')

interface Tally {
	passed: number
	failed: number
}

function step(name: string, program: string, ...args: string[]): SpawnSyncReturns<Buffer> {
	const began = Date.now()
	console.log(`\n— ${name}`)
	const run = spawnSync(program, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, CI: 'true', FORCE_COLOR: '0' } })
	console.log(`— ${name}: ${run.status === 0 ? 'passed' : 'failed'}, ${Math.round((Date.now() - began) / 1000)} s`)
	return run
}

/** A check that passes or fails as one. */
const check = (name: string, program: string, ...args: string[]): Tally => (step(name, program, ...args).status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 })

/** A runner's own count; a runner that broke before it could count is one failure. */
function counted(name: string, report: string, read: (json: unknown) => Tally, program: string, ...args: string[]): Tally {
	const run = step(name, program, ...args)
	const tally = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : { passed: 0, failed: 1 }
	return run.status !== 0 && tally.failed === 0 ? { ...tally, failed: 1 } : tally
}

function main(): void {
	// Debian's browser and database; the same packages the application itself is run with.
	if (!firstExisting(process.env.CHROMIUM ?? '/usr/bin/chromium')) installDebianPackages(['chromium'], 'Chromium, the browser of the end-to-end tests,')
	mkdirSync(RESULTS, { recursive: true })
	const unit = path.join(RESULTS, 'unit.json')
	const tallies = [
		check('route types', bin('react-router'), 'typegen'),
		check('type check', bin('tsc'), '--noEmit'),
		check('lint and layer rule', bin('eslint'), '.'),
		counted('unit tests', unit, (json) => {
			const { numPassedTests, numFailedTests, numFailedTestSuites } = json as { numPassedTests: number; numFailedTests: number; numFailedTestSuites: number }
			return { passed: numPassedTests, failed: Math.max(numFailedTests, numFailedTestSuites > 0 ? 1 : 0) }
		}, bin('vitest'), 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`),
		counted('end-to-end tests', path.join(RESULTS, 'e2e.json'), (json) => {
			const { stats } = json as { stats: { expected: number; unexpected: number; flaky: number } }
			return { passed: stats.expected, failed: stats.unexpected + stats.flaky }
		}, bin('playwright'), 'test'),
	]
	const total = tallies.reduce((sum, tally) => ({ passed: sum.passed + tally.passed, failed: sum.failed + tally.failed }))
	console.log(`\n${total.passed} passed, ${total.failed} failed`)
	process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1)
}

try {
	main()
} catch (error) {
	console.error(error instanceof PlainError ? `\n${error.message}` : error)
	process.exit(1)
}
