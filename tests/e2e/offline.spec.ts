import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { expect, test } from '@playwright/test'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { DEMO_SIGN_IN } from '../../server/demo/load-demo'
import { FieldHand } from '../support/field-hand'
import { signIn } from '../support/sign-in'
import { cutPower, startApp } from '../support/start-apps'

const ATHLETES = 12
/** Reps of each athlete at the broad jumps, and at the throws after them. */
const JUMPS = 9
const THROWS = 4

test('a whole session of twelve without a connection and without the server: every mark once, with its own time', async ({ page, context }) => {
	test.setTimeout(240_000)
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-offline-'))
	const url = process.env.DEMO_DATABASE!.replace('dromos_demo', 'dromos_offline')
	let app = await startApp(url, home)
	try {
		await page.setViewportSize({ width: 390, height: 844 })
		await signIn(page, app.address, DEMO_SIGN_IN.email, DEMO_SIGN_IN.password)
		await page.getByRole('link', { name: 'Go to the field' }).click()
		const hand = new FieldHand(page)
		await expect(hand.onTheLine()).toBeVisible()
		await page.waitForFunction(async () => (await caches.keys()).length > 0 && (await (await caches.open((await caches.keys())[0]!)).match('/field')) !== undefined)
		const sessionId = new URL(page.url()).searchParams.get('session')!

		await cutPower(app)
		await context.setOffline(true)
		// Any other place leads to what is on the device.
		await page.goto(`${app.address}/`)
		await expect(page.getByRole('heading', { name: 'Sessions on this device' })).toBeVisible()
		await page.getByRole('link', { name: /Open squad/ }).first().click()
		await expect(hand.onTheLine()).toBeVisible()

		const marks: { name: string; label: string }[] = []
		const log = async (digits: string, label: string) => {
			const name = (await hand.onTheLine().textContent())!
			await hand.save(digits)
			const keep = page.getByRole('button', { name: 'Keep', exact: true })
			await expect.poll(async () => (await keep.isVisible()) || (await waitingCount()) === marks.length + 1).toBe(true)
			if (await keep.isVisible()) await keep.click()
			marks.push({ name, label })
			await expect.poll(waitingCount).toBe(marks.length)
		}
		const waitingCount = async () => Number(/^(\d+) only/.exec((await page.getByLabel('Where the marks are').textContent()) ?? '')?.[1] ?? -1)

		await hand.goTo('Broad jump and stick')
		for (let i = 0; i < ATHLETES * JUMPS; i++) {
			const value = 200 + (i % 60)
			await log(String(value), `${(value / 100).toFixed(2)}`)
			if (i === 50) {
				await page.reload()
				await hand.goTo('Broad jump and stick')
				await expect(page.getByLabel('Where the marks are')).toContainText(`${marks.length} only on this device`)
			}
		}
		await hand.goTo('Overhead backward throw')
		for (let i = 0; i < ATHLETES * THROWS; i++) await log(String(900 + i), `${((900 + i) / 100).toFixed(2)}`)
		expect(marks).toHaveLength(156)

		app = await startApp(url, home, [], app.port)
		await context.setOffline(false)
		await page.reload()
		await hand.allSafe()
		await expect(page.getByLabel('Where the marks are')).toContainText('156 safe')

		const database = await mysql.createConnection(url)
		const [rows] = await database.query<RowDataPacket[]>('select m.id, m.device_time, m.device_seq, json_value(m.value, "$.distanceM") as metres, i.name from mark m join athlete_identity i on i.club_id = m.club_id and i.athlete_id = m.athlete_id where m.session_id = ? order by m.device_seq', [sessionId])
		await database.end()
		expect(rows.map((row) => `${String(row.name)} ${Number(row.metres).toFixed(2)}`)).toEqual(marks.map((mark) => `${mark.name} ${mark.label}`))
		const times = rows.map((row) => new Date(row.device_time as Date).getTime())
		expect(new Set(times).size).toBe(156)
		expect(times).toEqual([...times].sort((a, b) => a - b))
	} finally {
		await cutPower(app).catch(() => undefined)
		rmSync(home, { recursive: true, force: true })
	}
})

test('what was not sent is said before signing out, and the squads’ data leave the device', async ({ page }) => {
	await signIn(page, process.env.DEMO_APP!, DEMO_SIGN_IN.email, DEMO_SIGN_IN.password)
	await page.getByRole('link', { name: 'Go to the field' }).click()
	const hand = new FieldHand(page)
	await hand.goTo('Broad jump and stick')
	await page.route('**/api/events', (route) => route.abort())
	await hand.save('231')
	await expect(page.getByLabel('Where the marks are')).toContainText('1 only on this device')
	await page.goto(process.env.DEMO_APP!)
	await page.getByRole('button', { name: 'Sign out' }).first().click()
	await expect(page.getByRole('alert')).toContainText('1 entry from the field is only on this device')
	await page.getByRole('button', { name: /Sign out; they wait here/ }).click()
	await expect(page.getByLabel('Email')).toBeVisible()
	const left = () => page.evaluate(() => new Promise<{ packs: number; events: number }>((resolve) => {
		const asked = indexedDB.open('dromos-field')
		asked.onsuccess = () => {
			const tx = asked.result.transaction(['packs', 'events'])
			const [packs, events] = [tx.objectStore('packs').count(), tx.objectStore('events').count()]
			tx.oncomplete = () => resolve({ packs: packs.result, events: events.result })
		}
	}))
	expect(await left()).toEqual({ packs: 0, events: 1 })
	await page.unroute('**/api/events')
	await signIn(page, process.env.DEMO_APP!, DEMO_SIGN_IN.email, DEMO_SIGN_IN.password)
	await page.getByRole('link', { name: 'Go to the field' }).click()
	await hand.allSafe()
})
