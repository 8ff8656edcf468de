import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import path from 'node:path'
import { ensureBrowser } from './browser'
import { buildApp } from './build-app'
import { runCommand } from './run-command'
import { ROOT } from './root.mjs'
import { onEnd, runTied } from './tied.mjs'

const bin = (name: string) => path.join(ROOT, 'node_modules', '.bin', name)
const RESULTS = path.join(ROOT, 'test-results')

interface Tally {
	passed: number
	failed: number
}

async function step(name: string, work: () => Promise<Tally>): Promise<Tally> {
	const began = Date.now()
	console.log(`\n— ${name}`)
	const tally = await work()
	const seconds = ((Date.now() - began) / 1000).toFixed(1)
	console.log(`— ${name}: ${tally.failed === 0 ? 'passed' : 'failed'}, ${seconds} s`)
	return tally
}

const run = (program: string, ...args: string[]) =>
	runTied(program, args, { cwd: ROOT, env: { ...process.env, CI: 'true', FORCE_COLOR: '0' } })

/** A check that passes or fails as one. */
const check = (name: string, program: string, ...args: string[]): Promise<Tally> =>
	step(name, async () => ((await run(program, ...args)) === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 }))

/** A runner's own count; a runner that broke before it could count is one failure. */
const counted = (name: string, report: string, read: (json: unknown) => Tally, program: string, ...args: string[]) =>
	step(name, async () => {
		rmSync(report, { force: true })
		const code = await run(program, ...args)
		const tally = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : { passed: 0, failed: 1 }
		return code !== 0 && tally.failed === 0 ? { ...tally, failed: 1 } : tally
	})

async function main(): Promise<void> {
	onEnd(() => process.exit(1))
	ensureBrowser()
	mkdirSync(RESULTS, { recursive: true })
	const unit = path.join(RESULTS, 'unit.json')
	const browser = path.join(RESULTS, 'e2e.json')
	const tallies = [
		await check('format', bin('biome'), 'format'),
		await check('route types', bin('react-router'), 'typegen'),
		// One core each; nothing else runs beside what measures time.
		...(await Promise.all([
			check('lint, layers and types', bin('oxlint')),
			step('build', async () => {
				await buildApp()
				return { passed: 1, failed: 0 }
			}),
		])),
		await counted(
			'unit tests',
			unit,
			(json) => {
				const { numPassedTests, numFailedTests, numFailedTestSuites } = json as {
					numPassedTests: number
					numFailedTests: number
					numFailedTestSuites: number
				}
				return { passed: numPassedTests, failed: Math.max(numFailedTests, numFailedTestSuites > 0 ? 1 : 0) }
			},
			bin('vitest'),
			'run',
			'--reporter=default',
			'--reporter=json',
			`--outputFile.json=${unit}`,
		),
		await counted(
			'browser tests',
			browser,
			(json) => {
				const { stats } = json as { stats: { expected: number; unexpected: number; flaky: number } }
				return { passed: stats.expected, failed: stats.unexpected + stats.flaky }
			},
			bin('playwright'),
			'test',
		),
	]
	const total = tallies.reduce((sum, tally) => ({
		passed: sum.passed + tally.passed,
		failed: sum.failed + tally.failed,
	}))
	console.log(`\n${total.passed} passed, ${total.failed} failed`)
	process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1)
}

await runCommand(main)
