import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { coachOf } from '../support/coach-of'
import { FieldHand } from '../support/field-hand'
import { addresses } from '../support/demo-pages'
import { addToSheet } from '../support/sheet-form'
import { signInToDemo } from '../support/sign-in'

test.use({ locale: 'en-US' })

test.describe('a club of one', () => {
	test.use({ filledWith: 'empty' })
	test('feet, inches, pounds and yards are typed, kept as metres and kilograms, and shown', async ({ app, page }) => {
		const club = await coachOf(page, app, 1)
		await page.goto('/you')
		await page.getByLabel('Feet, inches, pounds').check()
		await page.getByRole('button', { name: 'Set' }).click()
		await expect(page.getByText('Kept.')).toBeVisible()

		// 150 lb are 68.04 kg; what is shown is what was typed.
		await page.goto(`/athletes/${club.athletes[0]}`)
		await page.getByLabel('Body mass, lb').fill('150')
		await page.getByLabel('Body mass, lb').locator('..').getByRole('button', { name: 'Set' }).click()
		await expect(page.getByText('Kept.')).toBeVisible()
		await page.locator('[data-working="idle"]').waitFor({ state: 'attached' })
		await expect(page.getByLabel('Body mass, lb')).toHaveValue('150')
		const mass = await app.rows('select mass_kg from athlete where id = ?', [club.athletes[0]!])
		expect(mass[0]).toMatchObject({ mass_kg: '68.0' })
		await page.getByLabel('Body mass, lb').fill('20')
		await page.getByLabel('Body mass, lb').locator('..').getByRole('button', { name: 'Set' }).click()
		await expect(page.getByText('“20”: pounds from 34 to 551 are expected.')).toBeVisible()

		// Forty yards are a distance of their own; a metre that is typed is a metre.
		await page.goto('/sessions/new')
		await page.getByLabel('Title').fill('Yards')
		await expect(page.getByLabel('Start', { exact: true })).toHaveValue('5:30 pm')
		for (const drill of ['three-point start', 'overhead backward']) await addToSheet(page, drill)
		await expect(page.getByLabel('Distance, entry 1')).toHaveValue('20 m')
		await page.getByLabel('Distance, entry 1').fill('40 yd')
		await page.getByLabel('Ball, entry 2').fill('6')
		await page.getByRole('button', { name: 'Save the session' }).click()
		await expect(page.getByRole('heading', { level: 1 })).toHaveText('Squad, yards')
		await expect(page.getByText(/Three-point start 40 yd/).first()).toBeVisible()
		await expect(page.getByText(/throw 6 lb/i).first()).toBeVisible()
		await expect(page.getByText(/5:30 pm/)).toBeVisible()
		const entries = await app.rows('select parameters from entry order by position')
		expect(entries.map(({ parameters }) => parameters)).toEqual([
			expect.objectContaining({ distanceM: 36.576 }),
			expect.objectContaining({ ballKg: 2.72 }),
		])

		await page.setViewportSize({ width: 390, height: 844 })
		await page.getByRole('link', { name: 'Go to the field' }).click()
		const hand = new FieldHand(page, app)
		await hand.goTo('Three-point start')
		await expect(page.getByRole('button', { name: '10 yd' })).toBeVisible()
		await page.getByRole('button', { name: /40 yd$/ }).click()
		await hand.save('530')
		await hand.allSafe()
		const runs = await app.rows("select value from mark where kind = 'sprint'")
		expect(runs[0]!.value).toMatchObject({ splits: [{ distanceM: 36.576, timeS: 5.3 }] })

		// Eight feet and two inches: 98 in, 2.489 m.
		await hand.goTo('Overhead backward throw')
		await hand.type('8')
		await page.getByRole('button', { name: 'Next', exact: true }).click()
		await hand.save('2')
		await hand.allSafe()
		const thrown = await app.rows("select value from mark where kind = 'distance'")
		expect(thrown[0]!.value).toMatchObject({ distanceM: 2.489 })
		await expect(hand.marks()).toContainText('8 ft 2 in')
		await page.getByRole('button', { name: /8 ft 2 in.*correct it/ }).click()
		await page.getByLabel('distance, ft and in').fill(`9' 1"`)
		await page.getByRole('button', { name: 'Correct', exact: true }).click()
		await expect(hand.marks()).toContainText('9 ft 1 in')
	})
})

/** Centimetres, kilograms and hundredths of a metre, as a sentence of ours writes them; speeds and moments are none. */
const METRIC = /(?<![\w.])\d+(?:\.\d+)? (?:cm|kg)(?![\w/²·])|(?<![\w.])\d+\.\d+ m(?![\w/²])(?! m²)/g
/** Bench tools and the numbers of a school are set in SI, and their boxes say so; the examples of a field say how a unit may be typed. */
const SI = ['/bench/film', '/you', 'school']

test('no page says centimetres or kilograms to who reads inches and pounds', async ({ app, page }) => {
	test.setTimeout(240_000)
	await signInToDemo(page, app)
	await app.rows("update person set units = 'imperial' where role = 'coach'")
	const found: string[] = []
	for (const path of (await addresses(app)).filter((one) => !SI.some((end) => one.endsWith(end)))) {
		await page.goto(path)
		await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1)
		const text = await page.evaluate(() => {
			for (const one of document.querySelectorAll('details')) one.open = true
			return document.body.innerText
		})
		found.push(...[...new Set(text.match(METRIC) ?? [])].map((words) => `${path}: ${words}`))
	}
	expect(found).toEqual([])
})
