import { runCommand } from './run-command'
import { ROOT } from './root.mjs'
import { runTied } from './tied.mjs'

/** npm run mutants -- FILE…: changes the given files of the core in small ways, one at a time, and says which changes no test notices. */
await runCommand(async () => {
	const files = process.argv.slice(2)
	process.exitCode = await runTied(
		'npx',
		['stryker', 'run', ...(files.length > 0 ? ['--mutate', files.join(',')] : [])],
		{ cwd: ROOT },
	)
})
