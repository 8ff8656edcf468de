import { type Locator, expect } from '@playwright/test'
import { test } from '../support/app-test'
import { FieldHand } from '../support/field-hand'
import { addToSheet } from '../support/sheet-form'

test.use({ filledWith: 'empty', serviceWorkers: 'allow' })

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
	await expect(page.getByText('5 characters are too few; 15 or more are expected, such as four words.')).toBeVisible()
	await expect(page.getByLabel('Club')).toHaveValue('Harbour Runners')
	await page.getByLabel('Password').fill('long enough now')
	await page.getByRole('button', { name: 'Make the club' }).click()

	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Your first squad')
	// A password costs whoever would guess it what it should.
	expect(await app.rows('select password_hash as hash from person')).toEqual([
		{ hash: expect.stringMatching(/^scrypt\$65536\$8\$2\$/) as unknown },
	])
	await page.getByLabel('Name').fill('Juniors')
	await page.getByLabel('Mon').check()
	await page.getByLabel('Thu').check()
	await page.getByRole('button', { name: 'Make the squad' }).click()
	await page.getByLabel(/One a line/).fill('Ida, 2010-13-01')
	await page.getByRole('button', { name: 'Add to Juniors' }).click()
	await expect(
		page.getByText('Line 1: “2010-13-01”: a birth date like 2009-05-31 or 31 May 2009 is expected.'),
	).toBeVisible()
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
			await hand.press(name === 'Ida' ? 'Good' : 'Poor')
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

test('from empty to the phone with a spreadsheet of thirty rows: few taps, bad cells by name, nobody twice', async ({
	app,
	page,
}) => {
	let taps = 0
	const tap = async (target: Locator) => {
		taps++
		await target.click()
	}
	const button = (name: string | RegExp) => page.getByRole('button', { name })
	const link = (name: string) => page.getByRole('main').getByRole('link', { name, exact: true })
	await page.goto(/http:\S+\/first\?code=\S+/.exec(app.printed())![0])
	await page.getByLabel('Club').fill('Harbour Runners')
	await page.getByLabel('Time zone').fill('Europe/Lisbon')
	await page.getByLabel('Your name').fill('Uma')
	await page.getByLabel('Email').fill('uma@example.org')
	await page.getByLabel('Password').fill('long enough now')
	await tap(button('Make the club'))
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Your first squad')
	await page.getByLabel('Name').fill('Juniors')
	await tap(page.getByLabel('Mon'))
	await tap(page.getByLabel('Thu'))
	await tap(button('Make the squad'))
	await expect(page.getByRole('heading', { level: 2, name: 'Juniors' })).toBeVisible()

	// Whoever stops here is led on from the first page: one step at a time.
	await page.goto('/')
	await expect(page.getByText('Juniors has nobody in it yet.')).toBeVisible()
	await tap(link('Bring a list'))
	const rows = Array.from(
		{ length: 26 },
		(_, index) => `Runner ${index + 1};${(index % 12) + 1}.${(index % 12) + 1}.2009;5${index % 10}`,
	)
	await page
		.getByLabel('The list')
		.fill(
			[
				'Name;Date of birth;Weight',
				...rows,
				'Ida Vane;31.5.2010;48,5',
				'Bruno;never;61',
				';1.1.2009;50',
				'RUNNER 1;1.1.2009;',
			].join('\n'),
		)
	await tap(button('Look at it'))
	await expect(
		page.getByRole('heading', { name: '30 rows: 27 new, 1 there already, 2 with something that cannot be read' }),
	).toBeVisible()
	await expect(page.getByText('“never”: a birth date like 2009-05-31 or 31 May 2009 is expected.')).toBeVisible()
	await expect(page.getByText('No name.')).toBeVisible()
	await expect(page.getByText('the same as line 2')).toBeVisible()
	expect(await app.rows('select * from athlete')).toHaveLength(0)
	await tap(button('Add 27 to Juniors'))
	await expect(page.getByRole('status')).toContainText('27 added, one had been there already, 2 left out.')
	expect(
		await app.rows(
			"select name, birth_date, mass_kg from athlete_identity join athlete on athlete.id = athlete_id where name = 'Ida Vane'",
		),
	).toEqual([expect.objectContaining({ mass_kg: '48.5' })])

	await tap(link('Say where they stand'))
	await page.getByLabel('Runner 1, Acceleration').selectOption({ index: 3 })
	await page.getByLabel('Runner 2, Acceleration').selectOption({ index: 2 })
	taps += 4
	await tap(button('Set what is different'))
	await expect(page.getByText('2 rungs are set.')).toBeVisible()
	expect(await app.rows('select * from ladder_move')).toHaveLength(2)

	await page.goto('/')
	await tap(link('Make a session'))
	await tap(button('Propose the session'))
	await expect(page.getByText(/\d+ drills in \d+ minutes\./)).toBeVisible()
	await page.getByLabel('Title').fill('First evening')
	await tap(button('Save the session'))
	await tap(link('Go to the field'))
	await expect(page.getByTestId('drill')).toBeVisible()
	expect(taps).toBeLessThanOrEqual(20)
})
