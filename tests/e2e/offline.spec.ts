import { readFileSync } from 'node:fs'
import path from 'node:path'
import { gzipSync } from 'node:zlib'
import { type Page, expect } from '@playwright/test'
import { fieldFiles } from '../../scripts/build-service-worker'
import { ROOT } from '../../scripts/root.mjs'
import { type App, test } from '../support/app-test'
import { FieldHand } from '../support/field-hand'
import { makeSecondClub } from '../support/second-club'
import { openDemoField, signIn, signInToDemo } from '../support/sign-in'

test.use({ serviceWorkers: 'allow' })

const ATHLETES = 11
/** Reps of each athlete at the broad jumps, and at the throws after them. */
const JUMPS = 4
const THROWS = 2

test('a whole session of eleven without a connection and without the server: every mark once, with its own time', async ({
	app,
	page,
	context,
}) => {
	test.setTimeout(240_000)
	await page.setViewportSize({ width: 390, height: 844 })
	// Bo is on the way back and does other work than the rest: not today.
	await app.rows(
		"delete s from session_athlete s join athlete_identity i on i.club_id = s.club_id and i.athlete_id = s.athlete_id where i.name = 'Bo Hartigan'",
	)
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await expect(hand.onTheLine()).toBeVisible()
	// The worker answers for this page, and has kept the field's document.
	await expect
		.poll(() =>
			page.evaluate(async () => {
				const [name] = await caches.keys()
				const kept = name === undefined ? undefined : await (await caches.open(name)).match('/field')
				return navigator.serviceWorker.controller !== null && kept !== undefined
			}),
		)
		.toBe(true)
	const sessionId = new URL(page.url()).searchParams.get('session')!

	await app.cutPower()
	await context.setOffline(true)
	// Any other place leads to what is on the device.
	await page.goto(`/`)
	await expect(page.getByRole('heading', { name: 'Sessions on this device' })).toBeVisible()
	await page
		.getByRole('link', { name: /Open squad/ })
		.first()
		.click()
	await expect(hand.onTheLine()).toBeVisible()

	const marks: { name: string; label: string }[] = []
	const log = async (digits: string, label: string) => {
		const name = (await hand.onTheLine().textContent())!
		await hand.save(digits)
		const keep = page.getByRole('button', { name: 'Keep', exact: true })
		await expect
			.poll(async () => (await keep.isVisible()) || (await waitingCount()) === marks.length + 1, { intervals: [10] })
			.toBe(true)
		if (await keep.isVisible()) await keep.click()
		marks.push({ name, label })
		await expect.poll(waitingCount, { intervals: [10] }).toBe(marks.length)
	}
	const waitingCount = async () =>
		Number(/^(\d+) only/.exec((await page.getByLabel('Where the marks are').textContent()) ?? '')?.[1] ?? -1)

	await hand.goTo('Broad jump and stick')
	for (let i = 0; i < ATHLETES * JUMPS; i++) {
		const value = 200 + (i % 60)
		await log(String(value), `${(value / 100).toFixed(2)}`)
		if (i === 30) {
			await page.reload()
			await hand.goTo('Broad jump and stick')
			await expect(page.getByLabel('Where the marks are')).toContainText(`${marks.length} only on this device`)
		}
	}
	await hand.goTo('Overhead backward throw')
	for (let i = 0; i < ATHLETES * THROWS; i++) await log(String(900 + i), `${((900 + i) / 100).toFixed(2)}`)
	expect(marks).toHaveLength(ATHLETES * (JUMPS + THROWS))

	await app.powerOn()
	await context.setOffline(false)
	await page.reload()
	await hand.allSafe()
	await expect(page.getByLabel('Where the marks are')).toContainText(`${marks.length} safe`)

	const rows = await app.rows(
		'select m.id, m.device_time, m.device_seq, json_value(m.value, "$.distanceM") as metres, i.name from mark m join athlete_identity i on i.club_id = m.club_id and i.athlete_id = m.athlete_id where m.session_id = ? order by m.device_seq',
		[sessionId],
	)
	expect(rows.map((row) => `${String(row.name)} ${Number(row.metres).toFixed(2)}`)).toEqual(
		marks.map((mark) => `${mark.name} ${mark.label}`),
	)
	const times = rows.map((row) => new Date(row.device_time as Date).getTime())
	expect(new Set(times).size).toBe(marks.length)
	expect(times).toEqual([...times].sort((a, b) => a - b))
})

/** A phone on the field with one mark that the server has not answered. */
async function withOneUnsent(page: Page, app: App): Promise<FieldHand> {
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Broad jump and stick')
	await page.route('**/api/events', (route) => route.abort())
	// A mark that got past this would be the server's, while the phone still holds it for its own.
	const refused = page.waitForEvent('requestfailed', (request) => request.url().endsWith('/api/events'))
	await hand.save('231')
	await refused
	await expect(page.getByLabel('Where the marks are')).toContainText('1 only on this device')
	return hand
}

/** What the device holds. */
const left = (page: Page) =>
	page.evaluate(
		() =>
			new Promise<{ packs: number; events: number }>((resolve) => {
				const asked = indexedDB.open('dromos-field')
				asked.onsuccess = () => {
					const tx = asked.result.transaction(['packs', 'events'])
					const [packs, events] = [tx.objectStore('packs').count(), tx.objectStore('events').count()]
					tx.oncomplete = () => resolve({ packs: packs.result, events: events.result })
				}
			}),
	)

test.describe('what was not sent', () => {
	// Who stands in for the server stands at the page: no worker in between.
	test.use({ serviceWorkers: 'block' })

	test('what was not sent is said before signing out, and the squads’ data leave the device', async ({ app, page }) => {
		const hand = await withOneUnsent(page, app)
		await page.goto('/')
		await page.getByRole('button', { name: 'Sign out' }).first().click()
		await expect(page.getByRole('alert')).toContainText('1 entry from the field is only on this device')
		await page.getByRole('button', { name: 'Sign out; it waits here for you' }).click()
		await expect(page.getByLabel('Email')).toBeVisible()
		expect(await left(page)).toEqual({ packs: 0, events: 1 })
		await page.unroute('**/api/events')
		// Who signs in next sees that something of somebody else's waits, and may send it in their own name.
		await openDemoField(page, app, 'assistant@demo.invalid')
		const others = page.getByRole('alert', { name: 'Logged by somebody else' })
		await expect(others).toContainText('One entry here was logged by somebody else who used this phone')
		await hand.goTo('Broad jump and stick')
		await expect(page.getByLabel('Where the marks are')).toContainText('1 only on this device')
		await others.getByRole('button', { name: 'Send as mine' }).click()
		await expect(others).toHaveCount(0)
		await hand.allSafe()
		const [mark] = await app.rows(
			"select person.email from mark join person on person.id = mark.author_id where mark.kind = 'distance' order by mark.received_at desc limit 1",
		)
		expect(mark!.email).toBe('assistant@demo.invalid')
	})

	test('a device that was signed out from elsewhere gives up the squads’ data when it is next used, not what was not sent', async ({
		app,
		page,
	}) => {
		const hand = await withOneUnsent(page, app)
		const session = page.url()
		// Nobody has used it for long: that is nobody's wish, and what it holds stays.
		await app.rows('update sign_in set seen_at = seen_at - interval 15 day')
		await page.goto('/plan')
		await expect(page.getByLabel('Email')).toBeVisible()
		await expect(page.getByText('signed out from elsewhere')).toHaveCount(0)
		expect((await left(page)).packs).toBeGreaterThan(0)

		await app.rows('delete from sign_in')
		await page.goto(session)
		await expect(page.getByRole('heading', { name: 'Sign in to open this session' })).toBeVisible()
		await expect(page.getByText('This device was signed out from elsewhere')).toBeVisible()
		expect(await left(page)).toEqual({ packs: 0, events: 1 })
		await page.getByRole('link', { name: 'Sessions on this device' }).click()
		await expect(page.getByText('1 entry is only on this device.')).toBeVisible()
		await expect(page.getByText('This device was signed out from elsewhere')).toBeVisible()

		await page.unroute('**/api/events')
		await openDemoField(page, app)
		await hand.goTo('Broad jump and stick')
		await hand.allSafe()
		expect((await left(page)).packs).toBeGreaterThan(0)
		// A role that does not log holds no squad, either.
		await app.rows("update person set role = 'clinician' where email = 'coach@demo.invalid'")
		await page.goto('/field')
		await expect(page.getByText('Your role does not log on the field.')).toBeVisible()
		expect(await left(page)).toEqual({ packs: 0, events: 0 })
		await app.rows("update person set role = 'coach' where email = 'coach@demo.invalid'")
		await openDemoField(page, app)
		await expect.poll(async () => (await left(page)).packs).toBeGreaterThan(0)
		// Whatever page is opened first.
		await app.rows('delete from sign_in')
		await page.goto('/plan')
		await expect(page.getByText('This device was signed out from elsewhere')).toBeVisible()
		await expect.poll(() => left(page)).toEqual({ packs: 0, events: 0 })
	})

	test('in the hands of another club’s coach a device gives up what it held of squads, not what was not sent', async ({
		app,
		page,
	}) => {
		await withOneUnsent(page, app)
		const session = page.url()
		const other = await makeSecondClub()
		// The sign-in of before ran out; nobody signed out.
		await signIn(page, app, other.email)
		await page.goto(session)
		await expect(page.getByText('It belongs to another club, or is no longer there.')).toBeVisible()
		expect((await left(page)).events).toBe(1)
		await page.getByRole('link', { name: 'Sessions on this device' }).click()
		await expect(page.getByText('1 entry is only on this device.')).toBeVisible()
		await expect(page.getByText('Kept for Sol, Second club.')).toBeVisible()
		await expect(page.getByRole('link', { name: /Open squad/ })).toHaveCount(0)

		// At the desk it is enough to have signed in: the field may be opened next without a connection.
		await signInToDemo(page, app)
		await page.goto(session)
		await expect(page.getByLabel('Where the marks are')).toContainText('1 only on this device')
		expect((await left(page)).packs).toBeGreaterThan(0)
		await signIn(page, app, other.email)
		await page.goto('/library')
		await expect.poll(() => left(page)).toEqual({ packs: 0, events: 1 })
	})

	test('signing out before the page is awake clears the device and asks about what was not sent all the same', async ({
		app,
		page,
	}) => {
		await withOneUnsent(page, app)

		// A slow line: the page is there, its scripts are on their way.
		let arrive = () => {}
		const arrived = new Promise<void>((resolve) => (arrive = resolve))
		await page.route('**/assets/*.js', async (route) => {
			await arrived
			await route.continue()
		})
		await page.goto('/', { waitUntil: 'commit' })
		await page.getByRole('button', { name: 'Sign out' }).first().click({ noWaitAfter: true })
		await expect(page.getByRole('heading', { name: 'Sign out' })).toBeVisible()
		expect(await app.rows('select 1 from sign_in')).toHaveLength(1)
		arrive()
		await expect(page.getByRole('alert')).toContainText('1 entry from the field is only on this device')
		// What was pressed is gone; the way that loses nothing is the next.
		await expect(page.getByRole('link', { name: 'Send it first' })).toBeFocused()
		await page.getByRole('button', { name: 'Sign out; it waits here for you' }).click()
		await expect(page.getByLabel('Email')).toBeVisible()
		expect(await left(page)).toEqual({ packs: 0, events: 1 })
	})
})

test('what a phone fetches to work in the field has not grown: no schemas, no plan, no charts in it', async () => {
	const client = path.join(ROOT, 'build/client')
	const { shown, onDemand } = await fieldFiles(client)
	const bytesOf = (files: string[]) =>
		files
			.filter((file) => file.endsWith('.js'))
			.reduce((sum, file) => sum + gzipSync(readFileSync(path.join(client, file))).length, 0)
	expect(shown.length).toBeGreaterThan(10)
	expect(bytesOf(shown)).toBeGreaterThan(50_000)
	expect(bytesOf(shown)).toBeLessThan(200_000)
	// Dragging alone comes later; the worker keeps it with the rest.
	expect(onDemand.join()).toContain('queue-panel')
	expect(bytesOf(onDemand)).toBeLessThan(20_000)
})
