import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { signInToDemo } from '../support/sign-in'

test('a squad and an athlete are put right, and while that is on its way the page says so', async ({ app, page }) => {
	await signInToDemo(page, app)
	await page.goto('/squads')
	const squad = page.getByRole('region', { name: 'Under 17' })
	await squad.getByText('Name, days, time and place').click()
	const form = squad.locator('form').filter({ hasText: 'Training days' })
	await form.getByLabel('Name').fill('Juniors')
	await form.getByLabel('Place').fill('The hall')
	// A slow network: the press is answered before the server is.
	let go = () => {}
	const held = new Promise<void>((resolve) => (go = resolve))
	await page.route('**/squads.data*', async (route) => {
		if (route.request().method() === 'POST') await held
		await route.continue()
	})
	await form.getByRole('button', { name: 'Keep' }).click()
	await expect(page.locator('[data-working="submitting"]')).toContainText('Saving')
	go()
	await expect(page.getByRole('region', { name: 'Juniors' })).toContainText('The hall')
	await expect(page.locator('[data-working="idle"]')).toHaveText('')
	const [kept] = await app.rows("select name, place, training_days as days from squad where name = 'Juniors'")
	expect(kept).toMatchObject({ place: 'The hall' })
	await page.getByRole('link', { name: 'Freya Nakamura' }).click()
	await page.getByText('Name and birth date').click()
	await page.getByLabel('Name', { exact: true }).fill('Freya Nakamura-Holm')
	await page.getByLabel('Born').locator('xpath=ancestor::form').getByRole('button', { name: 'Keep' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Freya Nakamura-Holm')
	expect(await app.rows("select 1 from athlete_identity where name = 'Freya Nakamura-Holm'")).toHaveLength(1)
})
