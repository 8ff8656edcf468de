import type { Browser } from '@playwright/test'
import type { App } from '../tests/support/app-test'
import { signInToDemo } from '../tests/support/sign-in'

const RUNS = 9
/** A phone at the edge of a field. */
const LINE = { offline: false, latency: 150, downloadThroughput: 1.6e6 / 8, uploadThroughput: 0.75e6 / 8 }
const SLOWDOWN = 4

/** Today, opened by a phone that has nothing of it yet: how long until it can be used. */
export async function benchSlowLine(browser: Browser, app: App): Promise<void> {
	const first = await browser.newContext({ baseURL: app.address })
	const page = await first.newPage()
	await signInToDemo(page, app)
	await page.goto('/')
	const signedIn = await first.storageState()
	await first.close()
	const times: number[] = []
	let bytes = 0
	for (let run = 0; run < RUNS; run++) {
		const context = await browser.newContext({
			baseURL: app.address,
			viewport: { width: 390, height: 844 },
			storageState: signedIn,
			serviceWorkers: 'block',
		})
		const phone = await context.newPage()
		const devtools = await context.newCDPSession(phone)
		await devtools.send('Network.enable')
		await devtools.send('Network.emulateNetworkConditions', LINE)
		await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWDOWN })
		bytes = 0
		devtools.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength))
		const began = performance.now()
		await phone.goto('/', { waitUntil: 'commit' })
		// What is drawn is the page's own from the moment the scripts have taken it over.
		await phone.waitForFunction(() =>
			Object.keys(document.querySelector('main') ?? {}).some((name) => name.startsWith('__reactFiber')),
		)
		times.push(performance.now() - began)
		await phone.waitForLoadState('load')
		await context.close()
	}
	times.sort((a, b) => a - b)
	console.log(
		`Today on 1.6 Mbit/s with ${LINE.latency} ms to the server, processor slowed ${SLOWDOWN} times, ${(bytes / 1000).toFixed(0)} kB: usable after ${times[Math.floor(RUNS / 2)]!.toFixed(0)} ms, the median of ${RUNS}, ${times[0]!.toFixed(0)} to ${times.at(-1)!.toFixed(0)} (aim: under 3000)`,
	)
}
