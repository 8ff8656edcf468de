import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { FieldHand } from '../support/field-hand'
import { addToSheet } from '../support/sheet-form'

test.use({ filledWith: 'empty' })

test('from an empty installation to the first verdict', async ({ app, page }) => {
	await page.goto('/')
	await expect(page).toHaveURL(/sign-in/)
	expect((await page.goto(`/first?code=guess`))?.status()).toBe(404)

	await page.goto(/http:\S+\/first\?code=\S+/.exec(app.printed())![0])
	await page.getByLabel('Club').fill('Harbour Runners')
	await page.getByLabel('Time zone').fill('Europe/Lisbon')
	await page.getByLabel('Your name').fill('Uma')
	await page.getByLabel('Email').fill('uma@example.org')
	await page.getByLabel('Password').fill('short')
	await page.getByRole('button', { name: 'Make the club' }).click()
	await expect(page.getByText('5 characters are too few; 10 or more are expected.')).toBeVisible()
	await expect(page.getByLabel('Club')).toHaveValue('Harbour Runners')
	await page.getByLabel('Password').fill('long enough now')
	await page.getByRole('button', { name: 'Make the club' }).click()

	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Your first squad')
	await page.getByLabel('Name').fill('Juniors')
	await page.getByLabel('Mon').check()
	await page.getByLabel('Thu').check()
	await page.getByRole('button', { name: 'Make the squad' }).click()
	await page.getByLabel(/One a line/).fill('Ida, 2010-13-01')
	await page.getByRole('button', { name: 'Add to Juniors' }).click()
	await expect(page.getByText('“Ida, 2010-13-01”: a birth date like 2009-05-31 is expected')).toBeVisible()
	await page.getByLabel(/One a line/).fill('Ida, 2010-05-31\nBruno')
	await page.getByRole('button', { name: 'Add to Juniors' }).click()
	await expect(page.getByRole('link', { name: 'Bruno' })).toBeVisible()

	await page.goto('/')
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('No session in the next eight days')
	await page.getByRole('link', { name: 'Make a session' }).click()
	await page.getByLabel('Title').fill('First steps')
	await addToSheet(page, 'stiffness ladder')
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByText('Calf hold, knee straight, 3×2').first()).toBeVisible()

	await page.getByRole('link', { name: 'Go to the field' }).click()
	const hand = new FieldHand(page, app)
	for (let set = 1; set <= 3; set++) {
		for (const name of ['Bruno', 'Ida']) {
			await expect(hand.onTheLine()).toHaveText(name)
			await page.getByRole('button', { name: name === 'Ida' ? 'Good' : 'Poor', exact: true }).click()
		}
	}
	await expect(hand.suggestion()).toContainText('All done.')
	await hand.allSafe()

	await page.goto(`/review`)
	await page.getByRole('main').getByRole('link', { name: 'Review' }).click()
	await expect(page.getByText('Hold calf hold, 3×2: 6 of 6 judged reps good. One more like it.')).toBeVisible()
	await expect(
		page.getByText(/Hold calf hold, 3×2: 6 of 6 judged reps were poor. Twice running would ease it./),
	).toBeVisible()
	await page.getByRole('button', { name: /^Accept 2/ }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('All decided')
})
