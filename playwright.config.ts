import { defineConfig } from '@playwright/test'
import { BROWSER } from './scripts/browser'
import './tests/support/own-clock.mjs'

export default defineConfig({
	testDir: 'tests/e2e',
	outputDir: 'test-results/browser',
	globalSetup: './tests/support/start-apps.ts',
	workers: 2,
	fullyParallel: true,
	timeout: 120_000,
	// A cap, not a wait: the first pack of a day on two busy cores has taken eleven seconds.
	expect: { timeout: 25_000 },
	reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
	use: {
		browserName: 'chromium',
		viewport: { width: 1280, height: 800 },
		locale: 'en-GB',
		// It fetches every script for a day without a connection: a second of a core for each browser. Tests about phones have it.
		serviceWorkers: 'block',
		// Recording a trace of each test costs time; TRACE=1 keeps those of failed ones.
		trace: process.env.TRACE ? 'retain-on-failure' : 'off',
		screenshot: 'only-on-failure',
		launchOptions: {
			executablePath: BROWSER,
			// Root, as in a container, has no sandbox; the rest keeps the browser from calling home.
			args: [
				...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
				'--disable-gpu',
				// Letters where the font puts them, on paper too: rounded to the screen's pixels a time is read as two words.
				'--font-render-hinting=none',
				'--disable-quic',
				'--no-first-run',
				'--disable-background-networking',
				'--disable-component-update',
				'--disable-sync',
			],
		},
	},
})
