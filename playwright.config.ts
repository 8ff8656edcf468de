import { defineConfig } from '@playwright/test'

export default defineConfig({
	testDir: 'tests/e2e',
	globalSetup: './tests/support/start-apps.ts',
	workers: 1,
	timeout: 120_000,
	expect: { timeout: 10_000 },
	reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
	use: {
		browserName: 'chromium',
		viewport: { width: 1280, height: 800 },
		locale: 'en-GB',
		trace: 'retain-on-failure',
		launchOptions: {
			executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
			// Root, as in a container, has no sandbox; the rest keeps the browser from calling home.
			args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
		},
	},
})
