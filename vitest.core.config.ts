import { defineConfig } from 'vitest/config'

/** Tests of pure code, quick to ask again for each change that is tried on it. */
export default defineConfig({
	test: {
		name: 'core',
		include: ['{core,lint}/**/*.test.ts'],
		setupFiles: ['tests/support/same-cases.ts'],
		isolate: false,
		// A cap, not a wait: thousands of random cases on a machine that others share have taken half a minute.
		testTimeout: 120_000 * Number(process.env.LAW_RUNS ?? 1),
	},
})
