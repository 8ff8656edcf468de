import { type Browser, type Page, expect } from '@playwright/test'
import { addDays } from '../../core/calendar/day-count'
import { startingAt } from '../../core/judge/resolve-line'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { writeLevel, writeState } from '../../db/queries/squads'
import { type App, test } from '../support/app-test'
import { coachOf } from '../support/coach-of'
import { draftEntry } from '../support/draft-entry'
import { FieldHand } from '../support/field-hand'
import { planSession } from '../support/plan-session'
import { waking } from '../support/waking'

test.use({ serviceWorkers: 'allow' })

// Afternoons as they happen: on two phones, one of them without a connection.

test.use({ filledWith: 'empty' })

const today = new Date().toISOString().slice(0, 10)

interface Held {
	page: Page
	hand: FieldHand
}
async function phoneOf(browser: Browser, app: App, signedIn: Page, sessionId: string): Promise<Held> {
	const context = await browser.newContext({
		baseURL: app.address,
		viewport: { width: 390, height: 844 },
		storageState: await signedIn.context().storageState(),
	})
	const page = waking(await context.newPage())
	await page.goto(`/field?session=${sessionId}`)
	const hand = new FieldHand(page, app)
	await expect(hand.onTheLine()).toBeVisible()
	return { page, hand }
}

/** Five of the six athletes are on the sheet. */
async function afternoon(app: App, browser: Browser, page: Page) {
	const club = await coachOf(page, app, 6)
	// Everybody has earned turns, and reacting with a turn of 90°.
	for (const athleteId of club.athletes) {
		await writeLevel(club.scope, athleteId, 'agility', 3)
		for (const [ladderId, rungId] of [
			['cut', 'full-180'],
			['react', 'flip-call'],
		] as const)
			await writeState(
				club.scope,
				athleteId,
				startingAt(STARTER_LIBRARY, ladderId, rungId),
				addDays(today, -9),
				new Date(),
			)
	}
	const id = await planSession(
		{ ...club, athletes: club.athletes.slice(0, 5) },
		today,
		[
			draftEntry({
				part: 'Starts',
				drillId: 'standing-start',
				sets: 1,
				reps: 4,
				rest: 60,
				parameters: { distanceM: 20 },
			}),
			draftEntry({ part: 'Hops', drillId: 'single-leg-pogo', sets: 1, reps: 6, rest: 60 }),
			draftEntry({ part: 'React', drillId: 'flip-call', ladderId: 'react', sets: 1, reps: 4, rest: 60 }),
		],
		{ startTime: '00:10', at: new Date() },
	)
	const [one, two] = [await phoneOf(browser, app, page, id), await phoneOf(browser, app, page, id)]
	return { club, id, one, two }
}

test('a guest and a latecomer are taken in without a connection, and are on both phones and the sheet afterwards', async ({
	app,
	browser,
	page,
}) => {
	const { id, one, two } = await afternoon(app, browser, page)
	await one.page.context().setOffline(true)
	await one.page.getByRole('button', { name: 'Queue' }).click()
	await one.page.getByRole('button', { name: 'Somebody else comes' }).click()
	await one.page.getByRole('button', { name: /^Athlete 6/ }).click()
	await one.hand.pick('Athlete 6')
	await one.page.getByTestId('value-1').click()
	await one.hand.save('345')
	await one.page.getByRole('button', { name: 'Queue' }).click()
	await one.page.getByRole('button', { name: 'Somebody else comes' }).click()
	await one.page.getByLabel('Name').fill('Rosa Tellier')
	await one.page.getByRole('button', { name: 'Rosa Tellier is a guest' }).click()
	// A guest runs the shortest: nobody knows what they can do.
	await one.hand.pick('Rosa Tellier')
	await one.hand.save('221')
	await expect(one.page.getByLabel('Where the marks are')).toContainText('4 only on this device')
	expect(await app.rows("select kind from decision where kind = 'guest'")).toEqual([])
	// Another drill for all of them, and the hops at the very end.
	await one.page.locator('header').getByText('Standing start', { exact: true }).click()
	await one.page.getByRole('button', { name: 'Single-leg pogo: later' }).click()
	await one.page.getByRole('button', { name: 'Add a drill after it' }).click()
	await one.page.getByLabel('Name').fill('pogo')
	await one.page.getByRole('button', { name: /^Pogo/ }).click()
	await expect(one.page.getByRole('alertdialog')).toContainText('Pogo after this drill, for 7 athletes?')
	await one.page.getByRole('button', { name: 'Yes' }).click()
	await expect(one.page.getByLabel('Where the marks are')).toContainText('6 only on this device')

	await one.page.context().setOffline(false)
	await one.hand.allSafe()
	// The other phone has heard of both, with their marks.
	for (const [name, mark] of [
		['Athlete 6', '3.45 s'],
		['Rosa Tellier', '2.21 s'],
	] as const) {
		await two.hand.pick(name)
		await expect(two.hand.marks()).toContainText(mark)
	}
	await two.page.locator('header').getByText('Standing start', { exact: true }).click()
	await expect(two.page.getByRole('dialog').getByRole('listitem')).toContainText([
		'Standing start',
		'Pogo',
		'React',
		'Single-leg pogo',
	])
	await two.page.getByRole('button', { name: 'Close' }).click()
	expect(
		(await app.rows('select drill_id as drill from entry where session_id = ? order by position', [id])).map(
			({ drill }) => drill,
		),
	).toEqual(['standing-start', 'single-leg-pogo', 'crossover-eyes', 'pogo'])
	const named = await app.rows(
		'select i.name, count(*) as n from mark m join athlete_identity i on i.athlete_id = m.athlete_id group by i.name order by i.name',
	)
	expect(named.map((row) => [row.name, Number(row.n)])).toEqual([
		['Athlete 6', 1],
		['Rosa Tellier', 1],
	])
	await page.goto(`/sessions/${id}`)
	await expect(page.getByText('Rosa Tellier').first()).toBeVisible()
	// The guest has a page like anybody.
	const [guest] = await app.rows("select athlete_id as id from athlete_identity where name = 'Rosa Tellier'")
	await page.goto(`/athletes/${String(guest!.id)}`)
	await expect(page.getByRole('heading', { level: 1 })).toContainText('Rosa Tellier')
})

test('the wrong leg is put right ten reps later', async ({ app, browser, page }) => {
	const { one } = await afternoon(app, browser, page)
	const { page: phone, hand } = one
	await hand.goTo('Single-leg pogo')
	const hop = async (contact: string, flight: string) => {
		await hand.type(contact)
		await phone.getByRole('button', { name: 'Next', exact: true }).click()
		await hand.save(flight)
	}
	await expect(phone.getByRole('group', { name: 'Side' }).getByRole('button', { name: 'left' })).toHaveAttribute(
		'aria-pressed',
		'true',
	)
	await phone.getByRole('group', { name: 'Side' }).getByRole('button', { name: 'right' }).click()
	await hop('181', '401')
	// Left and right of one rep follow each other; then the next athlete comes.
	for (let rep = 0; rep < 10; rep++) await hop(`17${rep}`, '400')
	await phone.getByRole('button', { name: 'More', exact: true }).click()
	await phone.getByRole('button', { name: 'All marks of this session' }).click()
	await phone.getByRole('button', { name: /^Athlete 1, 181 ms/ }).click()
	const open = phone.getByRole('dialog', { name: /181 ms right/ })
	await open.getByRole('button', { name: 'left', exact: true }).click()
	await phone.getByRole('button', { name: 'Close' }).click()
	await hand.allSafe()
	const sides = await app.rows(
		"select m.side, json_value(m.value, '$.contactS') as contact from mark m left join mark n on n.replaces_id = m.id where n.id is null order by m.device_seq",
	)
	expect(sides).toHaveLength(11)
	expect(sides.filter((row) => Number(row.contact) === 0.181)).toMatchObject([{ side: 'left' }])
	expect(sides.filter((row) => Number(row.contact) === 0.17)).toMatchObject([{ side: 'left' }])
})

test('what is pressed while a number is being saved is for the screen that follows, and of the body for whom it was seen on', async ({
	app,
	browser,
	page,
}) => {
	const { one } = await afternoon(app, browser, page)
	const { page: phone, hand } = one
	await hand.goTo('Single-leg pogo')
	await expect(hand.onTheLine()).toHaveText('Athlete 1')
	/** Keys of the pad and buttons beside it, in one go: no device keeps anything so soon. */
	const inOneGo = (...presses: string[]) =>
		phone.evaluate((all) => {
			for (const one of all) {
				const key = document.querySelector<HTMLElement>(`[data-key="${one}"]`)
				const button = [...document.querySelectorAll('button')].find(({ textContent }) => textContent === one)
				;(key ?? button!).click()
			}
		}, presses)
	await hand.type('181')
	await phone.getByRole('button', { name: 'Next', exact: true }).click()
	await hand.type('401')
	// Saved, pressed twice by a cold thumb; and the other leg is typed at once.
	await inOneGo('save', 'save', '1', '7', '0', 'save', '4', '0', '0', 'save')
	await expect(phone.getByText('Last: Athlete 1., 170 ms, 400 ms right')).toBeVisible()
	// The grade is of the rep that is being saved, the worry of whoever is seen.
	await expect(hand.onTheLine()).toHaveText('Athlete 2')
	await hand.type('190')
	await phone.getByRole('button', { name: 'Next', exact: true }).click()
	await hand.type('390')
	await inOneGo('save', 'Poor', 'Worry', 'left', '1', '9', '5', 'save', '3', '9', '5', 'save')
	await expect(phone.getByText('Last: Athlete 2., 195 ms, 395 ms left')).toBeVisible()

	// The next one starts while the time of the one before is being saved: their watch runs.
	await hand.goTo('Standing start')
	await phone.getByLabel('Taken by').selectOption('stopwatch')
	const thumb = (times: number) =>
		phone.evaluate((count) => {
			for (let i = 0; i < count; i++)
				document
					.querySelector('[aria-label="Stopwatch"] button')!
					.dispatchEvent(new PointerEvent('pointerdown', { isPrimary: true, bubbles: true }))
		}, times)
	await thumb(1)
	await phone.waitForTimeout(1900)
	await thumb(1)
	await phone.waitForTimeout(1400)
	await thumb(2)
	await expect(phone.getByText(/^Last: Athlete 1\., 3\.\d\d s/)).toBeVisible()
	await expect(hand.onTheLine()).toHaveText('Athlete 2')
	const watch = phone.getByRole('group', { name: 'Stopwatch' })
	await expect(watch.getByRole('button', { name: '10 m' })).toBeVisible()
	await watch.getByRole('button', { name: 'Stop, no time' }).click()
	await hand.allSafe()
	const logged = async (table: string, what: string) =>
		(
			await app.rows(
				`select i.name, ${what} as said from ${table} e join athlete_identity i on i.athlete_id = e.athlete_id order by e.device_seq`,
			)
		).map(({ name, said }) => `${String(name)} ${String(said)}`)
	expect(await logged('mark', "coalesce(concat(e.side, ' ', json_value(e.value, '$.contactS')), 'timed')")).toEqual([
		'Athlete 1 left 0.181',
		'Athlete 1 right 0.17',
		'Athlete 2 left 0.19',
		'Athlete 2 left 0.195',
		'Athlete 1 timed',
	])
	expect(await logged('observation', "concat(e.kind, ' ', coalesce(json_value(e.value, '$.grade'), ''))")).toEqual([
		'Athlete 2 quality poor',
		'Athlete 2 worry ',
	])
})

test('rain in the middle closes at once what wet grass does not carry, here and on the other phone; then the session is cut short, and goes on', async ({
	app,
	browser,
	page,
}) => {
	const { one, two } = await afternoon(app, browser, page)
	for (const { hand } of [one, two]) await hand.goTo('React')
	await expect(two.hand.suggestion()).not.toContainText('Not on this ground')
	await one.page.getByRole('button', { name: 'More', exact: true }).click()
	await one.page.getByRole('button', { name: 'wet grass' }).click()
	await one.page.getByRole('button', { name: 'Close' }).click()
	for (const { hand } of [one, two])
		await expect(hand.suggestion()).toContainText('Not on this ground. Wet grass, no reactive cut of 90° or more.')
	// Another drill of the same entry is open.
	await one.page.getByRole('button', { name: 'Drill before' }).click()
	await expect(one.hand.suggestion()).not.toContainText('Not on this ground')

	await one.page.getByRole('button', { name: 'More', exact: true }).click()
	await one.page.getByRole('button', { name: 'the weather' }).click()
	const asked = one.page.getByRole('alertdialog')
	await expect(asked).toContainText('End the session now for 5 athletes: the weather?')
	expect(await app.rows("select kind from decision where kind = 'cut-short'")).toEqual([])
	await asked.getByRole('button', { name: 'Yes' }).click()
	await expect(one.hand.suggestion()).toContainText('Session ended. The weather.')
	await expect(two.hand.suggestion()).toContainText('Session ended.')
	await one.hand.allSafe()
	expect(await app.rows("select kind from decision where kind = 'cut-short'")).toHaveLength(5)
	await one.page.getByRole('button', { name: /^Undo/ }).click()
	for (const { hand } of [one, two]) await expect(hand.suggestion()).not.toContainText('Session ended')
	await one.hand.allSafe()
	expect(
		await app.rows(
			"select d.id from decision d left join decision n on n.replaces_id = d.id where d.kind = 'cut-short' and n.id is null and not d.is_void",
		),
	).toEqual([])
})

test('an injury at rep five: out of the queue on both phones, the rest of the afternoon without what loads it', async ({
	app,
	browser,
	page,
}) => {
	const { one, two } = await afternoon(app, browser, page)
	const { page: phone, hand } = one
	for (let rep = 0; rep < 4; rep++) {
		await phone.getByTestId('value-1').click()
		await hand.save(`33${rep}`)
	}
	await expect(hand.onTheLine()).toHaveText('Athlete 5')
	await phone.getByRole('button', { name: 'Pain' }).click()
	for (const tap of ['back thigh', 'left', '7']) {
		const button = phone.getByRole('dialog').getByRole('button', { name: tap, exact: true })
		await button.click()
	}
	await phone.getByRole('button', { name: 'Save', exact: true }).click()
	await expect(phone.getByRole('alert').first()).toContainText('all that loads it is over today')
	await phone.getByRole('button', { name: 'Close' }).click()
	await expect(hand.onTheLine()).toHaveText('Athlete 1')
	await two.hand.pick('Athlete 5')
	await expect(two.hand.suggestion()).toContainText('Stop here.')
	// Nobody who has reps left is passed over, and the hurt one comes no more.
	for (const name of ['Athlete 1', 'Athlete 2', 'Athlete 3', 'Athlete 4', 'Athlete 1']) {
		await expect(hand.onTheLine()).toHaveText(name)
		await phone.getByTestId('value-1').click()
		await hand.save('335')
	}
	await hand.allSafe()
	expect(await app.rows("select kind from observation where kind = 'pain'")).toHaveLength(1)
})
