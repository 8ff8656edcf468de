import { defineConfig } from 'vitest/config'

/** Short lives: a larger nursery and code that is compiled at once save a tenth of the time. A project inherits neither. */
export const SHORT_LIVES = ['--max-semi-space-size=64', '--always-sparkplug']

/** Tests of pure code, quick to ask again for each change that is tried on it. */
export default defineConfig({
	test: {
		name: 'core',
		include: ['{core,lint}/**/*.test.ts'],
		setupFiles: ['tests/support/same-cases.ts'],
		isolate: false,
		execArgv: SHORT_LIVES,
		// A cap, not a wait: thousands of random cases on a machine that others share have taken half a minute.
		testTimeout: 120_000 * Number(process.env.LAW_RUNS ?? 1),
	},
})
