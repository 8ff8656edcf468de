import { defineConfig } from 'vitest/config'

export default defineConfig({
	test: {
		include: ['core/**/*.test.ts', 'db/**/*.test.ts', 'server/**/*.test.ts', 'scripts/**/*.test.ts', 'app/**/*.test.ts'],
		globalSetup: ['tests/support/start-database.ts'],
		testTimeout: 30_000,
		hookTimeout: 60_000,
	},
})
