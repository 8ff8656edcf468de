import { firstExisting, installDebianPackages } from './debian-packages'

/** The browser of tests, benchmarks and pictures: Debian's Chromium without a window, which needs a fifth less time than the whole one. */
export const BROWSER = process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell'

/** Installs it where it is missing. */
export function ensureBrowser(): void {
	if (!firstExisting(BROWSER))
		installDebianPackages(['chromium-headless-shell'], 'Chromium, the browser of the end-to-end tests,')
}
