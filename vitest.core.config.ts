import { defineConfig } from 'vitest/config'

/** Tests of pure code, quick to ask again for each change that is tried on it. */
export default defineConfig({
	test: {
		name: 'core',
		include: ['{core,lint}/**/*.test.ts'],
		isolate: false,
		testTimeout: 30_000 * Number(process.env.LAW_RUNS ?? 1),
	},
})
