import { runCommand } from './run-command'
import { ROOT } from './root.mjs'
import { runTied } from './tied.mjs'

/** A pattern names files of the core, never the cases that hold them. */
const NO_TESTS = '!**/*.test.ts'

/** npm run mutants -- FILE…: changes the given files of the core in small ways, one at a time, and says which changes no test notices. */
await runCommand(async () => {
	const files = process.argv.slice(2)
	process.exitCode = await runTied(
		'npx',
		['stryker', 'run', ...(files.length > 0 ? ['--mutate', [...files, NO_TESTS].join(',')] : [])],
		{ cwd: ROOT },
	)
})
