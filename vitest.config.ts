import path from 'node:path'
import { defineConfig } from 'vitest/config'
import { SHORT_LIVES } from './vitest.core.config'

export default defineConfig({
	test: {
		maxWorkers: 2,
		execArgv: SHORT_LIVES,
		testTimeout: 60_000,
		hookTimeout: 120_000,
		projects: [
			// What needs nothing but the code shares its workers: nothing in it keeps state between files.
			'vitest.core.config.ts',
			{
				extends: true,
				// The browser tests look for the true one in the database.
				resolve: {
					alias: [{ find: /^\.\/password-cost$/, replacement: path.resolve('tests/support/password-cost.ts') }],
				},
				test: {
					name: 'server',
					// Each file has a database of its own; the modules are read once.
					isolate: false,
					include: ['{app,db,server,scripts,tests}/**/*.test.ts'],
					setupFiles: ['tests/support/same-cases.ts'],
					globalSetup: ['tests/support/start-database.ts'],
				},
			},
		],
	},
})
