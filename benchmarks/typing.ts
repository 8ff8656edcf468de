import { chromium } from '@playwright/test'
import { addDays } from '../core/calendar/day-count'
import { BROWSER } from '../scripts/browser'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'
import { YOUNG, fillBigClub } from './big-club'
import { Site, withBench } from './site'

const NUMBERS = 40
/** A phone of some years. */
const SLOWDOWN = 4
/** From a tap into a field to the key, and on to the next field. */
const PAUSE_MS = 200
/** From one key of a number to its next: typed quickly, and a little slower from number to number. */
const betweenMs = (number: number) => 60 + 20 * (number % 12)

/** Keys in the builder with forty athletes, on a slow machine: from the key to the frame that shows it. */
export async function benchTyping(): Promise<void> {
	const today = new Date().toISOString().slice(0, 10)
	await withBench(async (bench) => {
		await fillBigClub(bench.url('dromos_young'), today, YOUNG)
		const site = await Site.start(bench, 'dromos_young')
		const browser = await chromium.launch({
			executablePath: BROWSER,
			args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), '--disable-gpu', '--disable-background-networking'],
		})
		const squad = await site.one<{ id: string; club: string }>(
			"select s.id, s.club_id as club from squad s join person p on p.club_id = s.club_id where p.email = ? and s.name like 'Open%'",
			[DEMO_SIGN_IN.email],
		)
		// Everybody of the club in one squad, until this is over.
		const since = addDays(today, -1000)
		await site.connection.query(
			`insert into squad_member (club_id, squad_id, athlete_id, since)
				select a.club_id, ?, a.id, ? from athlete a where a.club_id = ? and not exists
				(select 1 from squad_member m where m.club_id = a.club_id and m.squad_id = ? and m.athlete_id = a.id)`,
			[squad.id, since, squad.club, squad.id],
		)
		try {
			await site.changed()
			const context = await browser.newContext({
				baseURL: site.address,
				viewport: { width: 1280, height: 800 },
				serviceWorkers: 'block',
			})
			const [name, value] = (await site.signIn(DEMO_SIGN_IN)).split('=', 2)
			await context.addCookies([{ name: name!, value: value!, url: site.address, httpOnly: true }])
			const page = await context.newPage()
			await page.goto('/sessions/new')
			await page.getByLabel('Squad').selectOption(squad.id)
			await page.getByLabel('Day', { exact: true }).fill(addDays(today, 60))
			await page.getByLabel('Minutes').fill('150')
			await page.getByRole('button', { name: 'Propose the session' }).click()
			await page.getByText(/\d+ drills in \d+ minutes\./).waitFor()
			const people =
				(await page
					.getByRole('table', { name: 'Totals of each athlete against the target' })
					.getByRole('row')
					.count()) - 1
			const drills = await page.getByLabel(/^Part, entry/).count()
			await (await context.newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: SLOWDOWN })
			await page.evaluate(() => {
				const times: number[] = []
				Object.assign(window, { times })
				document.addEventListener(
					'keydown',
					({ timeStamp }) =>
						requestAnimationFrame(() => {
							// The next task comes when the frame has been handed on.
							const channel = new MessageChannel()
							channel.port1.onmessage = () => times.push(performance.now() - timeStamp)
							channel.port2.postMessage(null)
						}),
					{ capture: true },
				)
			})
			const fields = page.getByLabel(/^(Sets|Reps), entry/)
			const typed = await fields.count()
			for (let number = 0; number < NUMBERS; number++) {
				const field = fields.nth(number % typed)
				await field.click()
				await field.selectText()
				await page.waitForTimeout(PAUSE_MS)
				await page.keyboard.press('1')
				await page.waitForTimeout(betweenMs(number))
				await page.keyboard.press(String(2 + (number % 3)))
				await page.waitForTimeout(PAUSE_MS)
			}
			const times = await page.evaluate(() => (window as unknown as { times: number[] }).times)
			times.sort((a, b) => a - b)
			const at = (share: number) => times[Math.floor((times.length - 1) * share)]!.toFixed(0)
			console.log(
				`a key in the builder, ${drills} drills, ${people} athletes, processor slowed ${SLOWDOWN} times, until the next frame: median ${at(0.5)} ms, 95th percentile ${at(0.95)}, the slowest of ${times.length} ${at(1)} (aim: under 50)`,
			)
		} finally {
			await site.connection.query('delete from squad_member where club_id = ? and squad_id = ? and since = ?', [
				squad.club,
				squad.id,
				since,
			])
			await site.changed()
			await browser.close()
			await site.stop()
		}
	})
}
