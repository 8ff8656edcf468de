import { type Browser, type Page, expect } from '@playwright/test'
import { type App, test } from '../support/app-test'
import { FieldHand } from '../support/field-hand'
import { signInToDemo } from '../support/sign-in'
import { waking } from '../support/waking'

test.use({ serviceWorkers: 'allow' })

// A knee that gives way on the field: said without a connection, over at once on the phone, over on the second phone
// when it hears, the same on Today, sheet, card and review; cleared by name and role; then the way back by its first step.

async function phoneOf(browser: Browser, app: App, email: string | undefined, session: string): Promise<Page> {
	const context = await browser.newContext({ baseURL: app.address, viewport: { width: 390, height: 844 } })
	const page = waking(await context.newPage())
	await signInToDemo(page, app, email)
	await page.goto(`/field?session=${session}`)
	await expect(new FieldHand(page, app).onTheLine()).toBeVisible()
	return page
}

test('from a knee that gives way to the first step back, seen by whom it should be', async ({ app, browser, page }) => {
	test.setTimeout(180_000)
	const [running] = await app.rows(
		'select id from session where started_at is not null and reviewed_at is null order by day desc limit 1',
	)
	const session = String(running!.id)
	const first = await phoneOf(browser, app, undefined, session)
	const second = await phoneOf(browser, app, 'assistant@demo.invalid', session)
	const [hand, other] = [new FieldHand(first, app), new FieldHand(second, app)]
	await hand.goTo('Broad jump and stick')
	await other.goTo('Broad jump and stick')
	const name = (await hand.onTheLine().textContent())!

	// Without a connection: where, which side, how much, and what it means there and then.
	await first.context().setOffline(true)
	await first.getByRole('button', { name: 'Pain' }).click()
	for (const tap of ['knee', 'left', '9']) await first.getByRole('button', { name: tap, exact: true }).click()
	await first.getByLabel('Sharp, gives way, locks or is numb').check()
	await first.getByRole('button', { name: 'Save', exact: true }).click()
	await expect(first.getByRole('alert')).toContainText('Left knee: all that loads it is over today.')
	await expect(first.getByText('Remaining today')).toBeVisible()
	await first.getByRole('button', { name: 'Close' }).click()
	// Out of the queue: the next one is on the line; who is looked up all the same is told to stop.
	await expect(hand.onTheLine()).not.toHaveText(name)
	await hand.pick(name)
	await expect(hand.suggestion()).toContainText('Stop here.')
	await expect(hand.suggestion()).not.toContainText('One more')

	// The second phone knows nothing yet; then it hears, and says the place and no number.
	await other.pick(name)
	await expect(other.suggestion()).not.toContainText('Stop here.')
	await first.context().setOffline(false)
	await expect(other.suggestion()).toContainText('Stop here.', { timeout: 30_000 })
	await expect(other.suggestion()).toContainText('left knee')
	await expect(second.locator('body')).not.toContainText('9 of 10')

	// At the desk it is the same everywhere, at the same moment.
	await signInToDemo(page, app)
	await page.goto('/')
	const band = page.getByRole('region', { name: 'Closed, spared, on the way back' })
	await expect(band.getByRole('listitem').filter({ hasText: name })).toContainText('Left knee closed since')
	await page.goto(`/sessions/${session}`)
	await expect(page.getByRole('note', { name: 'Closed, spared, on the way back' })).toContainText(
		`${name} (left knee, since `,
	)
	await expect(page.getByText('over for today').first()).toBeVisible()
	await page.goto(`/sessions/${session}/card`)
	await expect(page.getByRole('note', { name: 'Closed, spared, on the way back' })).toContainText(
		`${name} (left knee, since `,
	)
	await expect(page.getByText('Over for today').first()).toBeVisible()
	await page.goto(`/sessions/${session}/review`)
	const bodies = page.getByRole('region', { name: 'Closed, spared, said today, to be asked' })
	const own = bodies.getByRole('listitem').filter({ hasText: name })
	await expect(own).toContainText('Left knee closed')
	await expect(own).toContainText('Left knee 9 of 10, sharp, gives way, locks or is numb')
	const athlete = await own.getByRole('link').getAttribute('href')
	await page.goto('/plan')
	await expect(page.getByRole('note', { name: 'Closed, spared, on the way back' })).toContainText('left knee')

	// An assistant reads the place, never the number or who said it.
	await signInToDemo(page, app, 'assistant@demo.invalid')
	await page.goto(athlete!)
	await expect(page.locator('main')).toContainText('left knee')
	await expect(page.locator('main')).not.toContainText('9 of 10')
	expect((await page.request.get(`${app.address}${athlete}/care`)).status()).toBe(404)

	// The clinician clears it by name and role; the way back opens at its first step.
	await signInToDemo(page, app, 'physio@demo.invalid')
	await page.goto(athlete!)
	const closed = page.locator('section').filter({ hasText: 'Closed until cleared: left knee' })
	const clear = async () => {
		await closed.getByLabel('Cleared by').fill('Hana Brekke')
		await closed.getByLabel('Their profession').selectOption('physiotherapist')
		await closed.getByRole('button', { name: 'Record' }).click()
	}
	await clear()
	// What was said on the day of the clearance stands.
	await expect(closed).toContainText('from tomorrow on')
	// A day later.
	await app.rows('update session set day = date_sub(day, interval 1 day) where id = ?', [session])
	await page.reload()
	await clear()
	await expect(closed).toHaveCount(0)
	const back = page.locator('section').filter({ hasText: 'On the way back' }).first()
	await expect(back).toContainText('Stick on two feet')
	await expect(back).toContainText('Cleared by Hana Brekke, physiotherapist')
	await page.goto(`${athlete}/care`)
	await expect(page.locator('main')).toContainText('9 of 10, sharp, gave way, locked or numb')
	await expect(page.locator('main')).toContainText('cleared by Hana Brekke, physiotherapist')
	await page.goto('/')
	await signInToDemo(page, app)
	await page.goto('/')
	await expect(band.getByRole('listitem').filter({ hasText: name })).toContainText('On the way back: Stick on two feet')
})
