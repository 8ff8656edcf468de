import { chromium, expect } from '@playwright/test'
import { test } from '../support/app-test'
import { FieldHand } from '../support/field-hand'
import { openDemoField } from '../support/sign-in'
import { waking } from '../support/waking'

test('what was tapped without a connection is kept over a reload and sent later', async ({ app, page, context }) => {
	await page.setViewportSize({ width: 390, height: 844 })
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Broad jump and stick')
	const name = await hand.onTheLine().textContent()

	await page.route('**/api/events', (route) => route.abort())
	await hand.save('231')
	await expect(page.getByLabel('Where the marks are')).toContainText('1 only on this device')
	await expect(page.getByLabel('Where the marks are')).toContainText('no connection')
	await page.reload()
	await hand.goTo('Broad jump and stick')
	await expect(page.getByLabel('Where the marks are')).toContainText('1 only on this device')
	await hand.pick(name!)
	await expect(hand.marks()).toContainText('2.31 m')

	await page.unroute('**/api/events')
	await hand.allSafe()

	// An expired sign-in asks again and loses nothing.
	const cookies = await context.cookies()
	await context.clearCookies()
	await hand.save('228')
	await expect(page.getByRole('link', { name: /Sign in again; 1 wait here/ })).toBeVisible()
	await context.addCookies(cookies)
	await hand.allSafe()
	await hand.pick(name!)
})

test('a time that would surprise is asked about once', async ({ app, page }) => {
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Acceleration')
	await hand.pick('Amaru Fenn')
	await page.getByTestId('value-1').click()
	await hand.save('435')
	await expect(hand.suggestion()).toContainText(/4\.35 s for \d+ m would be the best by/)
	await expect(hand.onTheLine()).toHaveText('Amaru Fenn')
	await page.getByRole('button', { name: 'Keep', exact: true }).click()
	await expect(hand.onTheLine()).not.toHaveText('Amaru Fenn')
	await page.getByRole('button', { name: /^Undo/ }).click()
	await expect(hand.onTheLine()).toHaveText('Amaru Fenn')
	await expect(hand.marks()).not.toContainText('4.35')
})

test('a time that can hardly be is put right in one tap, or kept and said to have been seen', async ({ app, page }) => {
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Acceleration')
	await hand.pick('Amaru Fenn')
	const stored = async () =>
		(
			await app.rows(
				"select time_s, kept, set_aside from mark where kind = 'sprint' and is_void = 0 order by received_at desc, device_seq desc limit 1",
			)
		)[0]
	await page.getByTestId('value-1').click()
	await hand.save('370')
	await expect(hand.suggestion()).toContainText(/3\.70 s can hardly be: the usual is 4\.\d\d s/)
	await page.getByRole('button', { name: '4.70 s', exact: true }).click()
	await hand.allSafe()
	expect(await stored()).toMatchObject({ time_s: '4.7000', kept: 0, set_aside: 0 })
	await hand.pick('Amaru Fenn')
	await hand.save('370')
	await expect(hand.suggestion()).toContainText('can hardly be')
	await page.getByRole('button', { name: 'Keep', exact: true }).click()
	await hand.allSafe()
	expect(await stored()).toMatchObject({ time_s: '3.7000', kept: 1, set_aside: 0 })
})

test('a mark of an earlier drill is found among all marks, given to whose it was, put right and taken back', async ({
	app,
	page,
}) => {
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Acceleration')
	await hand.pick('Amaru Fenn')
	await page.getByTestId('value-1').click()
	await hand.save('471')
	await hand.goTo('Broad jump and stick')
	await hand.save('215')
	await hand.allSafe()
	const [first] = await app.rows(
		"select id, athlete_id from mark where kind = 'sprint' order by received_at desc limit 1",
	)
	/** The mark and everything that replaced it, newest first. */
	const chain = () =>
		app.rows(
			`with recursive chain as (
				select id, athlete_id, time_s, is_void, 0 as turn from mark where id = ?
				union all
				select m.id, m.athlete_id, m.time_s, m.is_void, turn + 1 from mark m join chain on m.replaces_id = chain.id
			) select a.name, time_s, is_void from chain join athlete_identity a on a.athlete_id = chain.athlete_id order by turn desc`,
			[first!.id],
		)

	await page.getByRole('button', { name: 'More' }).click()
	await page.getByRole('button', { name: 'All marks of this session' }).click()
	const all = page.getByRole('dialog', { name: 'All marks' })
	await all.getByRole('button', { name: 'Amaru Fenn, 4.71 s, set 1, rep 1: correct it' }).click()
	await page
		.getByRole('dialog', { name: /, 4\.71 s/ })
		.getByRole('button', { name: 'Sefa Lindqvist' })
		.click()
	await expect(all.getByRole('button', { name: /^Sefa Lindqvist, 4\.71 s/ })).toBeVisible()
	await expect(all.getByRole('button', { name: /^Amaru Fenn, 4\.71 s/ })).toHaveCount(0)

	await all.getByRole('button', { name: /^Sefa Lindqvist, 4\.71 s/ }).click()
	const one = page.getByRole('dialog', { name: /, 4\.71 s/ })
	await expect(one).toContainText('4.71 s → ')
	await one.getByRole('textbox').last().fill('4.17')
	await one.getByRole('button', { name: 'Correct', exact: true }).click()
	await all.getByRole('button', { name: /^Sefa Lindqvist, 4\.17 s/ }).click()
	await page.getByRole('button', { name: 'Take it back' }).click()
	await expect(all.getByRole('button', { name: /^Sefa Lindqvist/ })).toHaveCount(0)
	await all.getByRole('button', { name: 'Close' }).click()
	await hand.allSafe()
	expect((await chain()).map((row) => [row.name, row.time_s, row.is_void])).toEqual([
		['Sefa Lindqvist', '4.1700', 1],
		['Sefa Lindqvist', '4.1700', 0],
		['Sefa Lindqvist', '4.7100', 0],
		['Amaru Fenn', '4.7100', 0],
	])
})

test('what the server does not take waits in sight with its reason, until somebody takes it off', async ({
	app,
	page,
}) => {
	await page.route('**/api/events', async (route) => {
		const { events } = route.request().postDataJSON() as { events: { id: string }[] }
		await route.fulfill({
			json: {
				answers: events.map(({ id }) => ({
					id,
					outcome: 'refused',
					field: 'lineId',
					reason: 'no such line on this session',
				})),
			},
		})
	})
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Broad jump and stick')
	await hand.save('233')
	const tray = page.getByRole('alert').filter({ hasText: 'Not taken by the server' })
	await expect(tray).toContainText('2.33 m: lineId: no such line on this session')
	await page.reload()
	await expect(tray).toContainText('2.33 m')
	await tray.getByRole('button', { name: 'Take off' }).click()
	await expect(tray).toHaveCount(0)
})

test('a full device says so and pretends nothing; a clock that is hours off does not shift the marks', async ({
	app,
	page,
}) => {
	// Five hours ahead, whatever asks.
	await page.addInitScript(() => {
		const real = Date.now.bind(Date)
		const Shifted = class extends Date {
			constructor(...given: []) {
				super(...(given.length === 0 ? ([real() + 5 * 3_600_000] as unknown as []) : given))
			}
		}
		Shifted.now = () => real() + 5 * 3_600_000
		;(globalThis as { Date: unknown }).Date = Shifted
	})
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Broad jump and stick')
	await expect(page.getByLabel('Where the marks are')).toContainText('only on this device')
	const sent = page.waitForRequest('**/api/events')
	await hand.save('234')
	const { events } = (await sent).postDataJSON() as { events: { deviceTime: string }[] }
	expect(Math.abs(Date.parse(events[0]!.deviceTime) - Date.now())).toBeLessThan(60_000)
	await hand.allSafe()

	await page.evaluate(() => {
		IDBObjectStore.prototype.add = () => {
			throw new DOMException('full', 'QuotaExceededError')
		}
	})
	const before = await page.getByLabel('Where the marks are').textContent()
	await hand.save('235')
	await expect(page.getByRole('alert').filter({ hasText: 'could not keep that' })).toBeVisible()
	expect(await page.getByLabel('Where the marks are').textContent()).toBe(before)
	await expect(hand.marks()).not.toContainText('2.35')
})

test('an address that is not secure says what it cannot do, and keeps the marks all the same', async ({
	app,
	page,
	launchOptions,
}) => {
	await openDemoField(page, app)
	// The same server by a name, over plain http: what a phone in the club's network opens.
	const browser = await chromium.launch({
		...launchOptions,
		args: [...(launchOptions.args ?? []), '--host-resolver-rules=MAP field.test 127.0.0.1'],
	})
	const context = await browser.newContext({ viewport: { width: 390, height: 844 } })
	const cookies = await page.context().cookies()
	await context.addCookies(cookies.map((cookie) => ({ ...cookie, domain: 'field.test' })))
	const phone = waking(await context.newPage())
	const { port } = new URL(app.address)
	await phone.goto(page.url().replace('127.0.0.1', 'field.test'))
	expect(new URL(phone.url()).host).toBe(`field.test:${port}`)
	const hand = new FieldHand(phone, app)
	await hand.goTo('Broad jump and stick')
	expect(
		await phone.evaluate(() => [window.isSecureContext, 'serviceWorker' in navigator, 'wakeLock' in navigator]),
	).toEqual([false, false, false])
	await expect(phone.getByText('This address is not secure')).toContainText(
		'can neither open this page without the server nor keep the screen awake',
	)
	await hand.save('231')
	await hand.allSafe()
	await phone.reload()
	await hand.goTo('Broad jump and stick')
	await expect(phone.getByLabel('Where the marks are')).toContainText('1 safe')
	await browser.close()
	// At its own address, over loopback, nothing of that is said.
	await expect(page.getByText('This address is not secure')).toHaveCount(0)
})
