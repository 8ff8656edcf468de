import { defineConfig } from 'vitest/config'

/** The cases of the core without its property tests, which would run for seconds against each change. */
export default defineConfig({
	test: {
		include: ['core/**/*.test.ts'],
		exclude: ['core/**/*.property.test.ts', 'node_modules'],
		setupFiles: ['tests/support/few-runs.ts'],
		testTimeout: 60_000,
	},
})
