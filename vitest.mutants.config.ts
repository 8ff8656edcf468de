import { defineConfig } from 'vitest/config'

/** The cases of the core without its property tests, which would run for seconds against each change. */
export default defineConfig({
	test: {
		// What the calculations answer is checked through the command that asks them.
		include: ['core/**/*.test.ts', 'server/calc/run-calculation.test.ts'],
		exclude: ['core/**/*.property.test.ts', 'node_modules'],
		setupFiles: ['tests/support/few-runs.ts'],
		testTimeout: 60_000,
	},
})
