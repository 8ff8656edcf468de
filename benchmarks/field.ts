import { readFileSync } from 'node:fs'
import path from 'node:path'
import { gzipSync } from 'node:zlib'
import { chromium, expect } from '@playwright/test'
import { startApp } from '../tests/support/app-test'
import { startTemplates } from '../tests/support/start-apps'
import { FieldHand } from '../tests/support/field-hand'
import { openDemoField } from '../tests/support/sign-in'
import { fieldFiles } from '../scripts/build-service-worker'
import { ROOT } from '../scripts/root.mjs'
import { BROWSER } from '../scripts/browser'
import { benchSlowLine } from './slow-line'

const QUEUED = 2000
const TAPS = 80
/** Entries logged before memory is looked at, and while it is. */
const WARM = 200
const LOGGED = 1000
/** A phone of some years ago, against this machine's cores. */
const SLOWDOWN = 4

const percentile = (values: number[], share: number): number =>
	[...values].sort((a, b) => a - b)[Math.ceil(values.length * share) - 1]!

/** The field client, measured in Chromium against an application of its own: size, a tap to the device's store, and a long queue sent at once. */
export async function benchField(): Promise<void> {
	const stopTemplates = await startTemplates({ throwaway: false })
	const app = await startApp(process.env.TEST_DATABASE_URL!, 'dromos_demo')
	const client = path.join(ROOT, 'build/client')
	const { shown, onDemand } = await fieldFiles(client)
	const kilobytes = (files: string[]) =>
		files
			.filter((file) => file.endsWith('.js'))
			.reduce((sum, file) => sum + gzipSync(readFileSync(path.join(client, file)), { level: 9 }).length / 1000, 0)
			.toFixed(0)
	console.log(
		`\nfield client: ${kilobytes(shown)} kB of scripts gzipped (aim: under 200), ${kilobytes(onDemand)} kB more once it stands`,
	)

	const browser = await chromium.launch({
		executablePath: BROWSER,
		args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), '--disable-gpu', '--disable-background-networking'],
	})
	try {
		const context = await browser.newContext({ baseURL: app.address, viewport: { width: 390, height: 844 } })
		const page = await context.newPage()
		await openDemoField(page, app)
		const hand = new FieldHand(page, app)
		await hand.goTo('Broad jump and stick')

		const devtools = await context.newCDPSession(page)
		await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWDOWN })
		await page.evaluate(() => {
			const taps: number[] = []
			Object.assign(window, { taps })
			// The tap is the moment the finger lifts, before any code of the page has run.
			document.addEventListener('click', (event) => taps.push(event.timeStamp), { capture: true })
		})
		const times: number[] = []
		const pad = page.getByRole('group', { name: 'Number pad' })
		// Who is on the line, at which rep, and what could be taken back: the next look is at the screen after a tap.
		const turn = page
			.getByRole('region', { name: 'On the line' })
			.getByText(/^rep \d/)
			.or(page.getByRole('button', { name: 'Undo' }))
			.or(hand.onTheLine())
		const screen = async () => (await turn.allInnerTexts()).join(' ')
		const goneOn = (before: string) => expect.poll(screen).not.toBe(before)
		while (times.length < TAPS) {
			const before = await screen()
			// Somebody whose line is another drill is ticked off by eye.
			if (!(await pad.isVisible())) {
				await hand.press('Done, not judged')
				await goneOn(before)
				continue
			}
			const i = times.length
			await hand.type(String(200 + (i % 50)))
			await page.evaluate(() => performance.clearMarks('field:stored'))
			await page.getByRole('button', { name: 'Save', exact: true }).click()
			times.push(
				await page.evaluate(async () => {
					for (;;) {
						const [mark] = performance.getEntriesByName('field:stored')
						if (mark) return mark.startTime - (window as unknown as { taps: number[] }).taps.at(-1)!
						await new Promise((resolve) => setTimeout(resolve, 5))
					}
				}),
			)
			await goneOn(before)
		}
		console.log(
			`tap to stored on the device, ${TAPS} taps, processor slowed ${SLOWDOWN} times: median ${percentile(times, 0.5).toFixed(0)} ms, 95th percentile ${percentile(times, 0.95).toFixed(0)} ms (aim: under 50)`,
		)
		await devtools.send('Emulation.setCPUThrottlingRate', { rate: 1 })
		await hand.allSafe()

		await hand.goTo('Relaxed skip')
		// A mark and its taking back by turns: a sheet has no room for a thousand reps.
		const log = async (events: number) => {
			await page.evaluate(async (count) => {
				for (let i = 0; i < count; i++) {
					performance.clearMarks('field:stored')
					const button = [...document.querySelectorAll('button')].find(({ textContent }) =>
						textContent?.startsWith(i % 2 === 0 ? 'Done, not judged' : 'Undo'),
					)
					button!.click()
					while (performance.getEntriesByName('field:stored').length === 0)
						await new Promise((resolve) => setTimeout(resolve, 1))
					// The screen draws what was kept before the next tap.
					await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)))
				}
			}, events)
			await hand.allSafe()
		}
		await devtools.send('Performance.enable')
		const held = async () => {
			await devtools.send('HeapProfiler.collectGarbage')
			const { metrics } = await devtools.send('Performance.getMetrics')
			const of = (name: string) => metrics.find((metric) => metric.name === name)!.value
			return { bytes: of('JSHeapUsedSize'), nodes: of('Nodes'), listeners: of('JSEventListeners') }
		}
		await log(WARM)
		const before = await held()
		await log(LOGGED)
		const after = await held()
		console.log(
			`memory over ${LOGGED} entries, marks and their taking back by turns: ${(before.bytes / 1e6).toFixed(1)} to ${(after.bytes / 1e6).toFixed(1)} MB, ${((after.bytes - before.bytes) / LOGGED / 1000).toFixed(1)} kB each (the log itself stays in it), nodes ${before.nodes} to ${after.nodes}, listeners ${before.listeners} to ${after.listeners}`,
		)

		// A queue as a long day without a connection leaves it, put into the device's store.
		await context.setOffline(true)
		await page.evaluate(async (count) => {
			const asked = indexedDB.open('dromos-field')
			const database = await new Promise<IDBDatabase>((resolve, reject) => {
				asked.onsuccess = () => resolve(asked.result)
				asked.onerror = () => reject(new Error('the store does not open'))
			})
			const tx = database.transaction(['events', 'packs', 'device'], 'readwrite')
			const rows = tx.objectStore('events').getAll()
			const packs = tx.objectStore('packs').getAll()
			packs.onsuccess = () => {
				const [like] = rows.result as { event: { sessionId: string; deviceTime: string }; personId: string }[]
				const pack = (
					packs.result as {
						id: string
						sheet: { lines: { id: string; entryId: string; athleteId: string; blocked: string | null }[] }
					}[]
				).find((one) => one.id === like!.event.sessionId)!
				const lines = pack.sheet.lines.filter((line) => line.blocked === null)
				for (let i = 0; i < count; i++) {
					const [id, seq, line] = [crypto.randomUUID(), 100_000 + i, lines[i % lines.length]!]
					const event = {
						...like!.event,
						id,
						deviceSeq: seq,
						deviceTime: new Date(Date.parse(like!.event.deviceTime) + i * 61_000).toISOString(),
						athleteId: line.athleteId,
						entryId: line.entryId,
						lineId: line.id,
						setNo: 1,
						repNo: 1 + Math.floor(i / lines.length),
						type: 'mark',
						kind: 'done',
						value: { reps: 1 },
					}
					tx.objectStore('events').add({
						id,
						sessionId: event.sessionId,
						seq,
						event,
						status: 'waiting',
						personId: like!.personId,
					})
				}
				tx.objectStore('device').put(200_000, 'seq')
			}
			await new Promise<void>((resolve) => {
				tx.oncomplete = () => resolve()
			})
			database.close()
		}, QUEUED)
		await page.reload()
		const status = page.getByLabel('Where the marks are')
		await status.filter({ hasText: `${QUEUED} only on this device` }).waitFor()
		const began = Date.now()
		await context.setOffline(false)
		await page.waitForFunction(
			() => /^0 only/.test(document.querySelector('[aria-label="Where the marks are"]')?.textContent ?? ''),
			undefined,
			{ polling: 10, timeout: 60_000 },
		)
		const took = Date.now() - began
		const requests = await page.evaluate(() =>
			performance
				.getEntriesByType('resource')
				.filter((entry) => entry.name.endsWith('/api/events'))
				.map((entry) => Math.round(entry.duration)),
		)
		console.log(
			`${QUEUED} queued marks sent and settled after the connection came back: ${took} ms (aim: under 1000); requests of ${requests.join(', ')} ms`,
		)
		await context.close()
		await benchSlowLine(browser, app)
	} finally {
		await browser.close()
		await app.stop()
		await stopTemplates()
	}
}
