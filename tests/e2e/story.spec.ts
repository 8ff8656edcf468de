import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { findings } from '../support/axe'
import { signInToDemo } from '../support/sign-in'

test('an athlete’s story: where it is going, the fortnight, why a day was flat, and what it was', async ({
	app,
	page,
}) => {
	await signInToDemo(page, app)
	const [athlete] = await app.rows("select athlete_id as id from athlete_identity where name = 'Sefa Lindqvist'")
	const id = String(athlete!.id)
	// Which measure comes first goes by what was done last.
	const [{ key, n }] = (await app.rows(
		"select mark_key as `key`, count(*) as n from session_mean where athlete_id = ? and mark_key like '1|sprint|three-point-start|three-point|d20|%' group by mark_key order by n desc limit 1",
		[id],
	)) as [{ key: string; n: number }]
	await page.goto(`/athletes/${id}?measure=${encodeURIComponent(key)}`)

	// The picture is drawn after the page; its sentence and its numbers are there before.
	const going = page.getByRole('region', { name: 'Where it is going' })
	await expect(going.getByRole('heading')).toContainText('Three-point start, 20 m:')
	await expect(going.locator('svg.recharts-surface').first()).toBeVisible()
	await going.getByText('As a table').click()
	await expect(going.getByRole('row')).toHaveCount(Number(n) + 1)

	// Another measure, further back, by a link that can be sent on.
	await going
		.getByRole('link', { name: /^Broad jump and stick/ })
		.first()
		.click()
	await expect(going.getByRole('heading')).toContainText('Broad jump and stick:')
	await going.getByRole('link', { name: 'a year' }).click()
	await expect(page).toHaveURL(/span=year/)
	const saved = page.waitForEvent('download')
	await going.getByRole('button', { name: 'save picture' }).click()
	expect((await saved).suggestedFilename()).toMatch(/^broad-jump-and-stick-.*\.svg$/)

	// Why flat: ranked, and what it was is kept.
	const why = page.locator('section').filter({ has: page.getByRole('heading', { name: /^Why flat on/ }) })
	await expect(why.getByRole('listitem').first()).toContainText(/Match \d+ h before/)
	await why.getByText('What was it?').click()
	await why.getByLabel('match', { exact: true }).check()
	await why.getByRole('button', { name: 'Keep' }).click()
	await expect(why).toContainText('that is what it was')
	expect(await app.rows('select cause from named_cause where athlete_id = ?', [id])).toEqual([{ cause: 'match' }])
	expect(await findings(page)).toEqual([])
})

test('a squad’s week, its tests, and a trial that is begun and planned', async ({ app, page }) => {
	await signInToDemo(page, app)
	await page.goto('/squads')
	await page.getByRole('link', { name: 'The week' }).first().click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('The week')
	await page.getByRole('link', { name: 'the week before' }).click()
	await expect(page.getByRole('row').filter({ hasText: 'Nils Pereira' })).toContainText('talk before the next one')
	expect(await findings(page)).toEqual([])

	// Tests: what is there, and one more that is planned for a day.
	await page.goto('/squads')
	await page.getByRole('link', { name: 'Tests' }).first().click()
	await expect(page.getByText(/^Broad jump and stick: .* unchanged/)).toBeVisible()
	await page.getByText('Add tests').click()
	await page.getByLabel('Name').fill('Start')
	await page.getByLabel('Drill').selectOption({ label: 'Standing start' })
	await page.getByRole('button', { name: 'Keep these tests' }).click()
	const battery = page.locator('section').filter({ has: page.getByRole('heading', { name: /^Start/ }) })
	await expect(battery).toContainText('not done yet')
	expect(await findings(page)).toEqual([])
	await battery.getByRole('button', { name: 'Plan it' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('start')
	const [{ items }] = (await app.rows("select items from battery where name = 'Start'")) as [{ items: unknown }]
	expect(typeof items === 'string' ? JSON.parse(items) : items).toEqual([
		{
			drillId: 'standing-start',
			parameters: { distanceM: 10 },
			kind: 'sprint',
			method: 'gate',
			tries: 3,
			use: 'mean',
			restS: 180,
		},
	])

	// A trial: it says how many pairs it asks for, and its day is a sheet.
	await page.goto('/squads')
	await page.getByRole('link', { name: 'Trials' }).first().click()
	await page.getByText('Begin a trial').click()
	await page.getByLabel('Does it help? What is asked').fill('Do broad jumps before help the start?')
	await page.getByLabel('Done in between').selectOption({ label: 'Broad jump and stick' })
	await page.getByLabel('Measured by').selectOption({ label: 'Three-point start' })
	await page.getByLabel('Kahu Rasmussen').check()
	await page.getByLabel('Ruadhán Okonjo').check()
	await page.getByRole('button', { name: 'Begin it' }).click()
	const begun = page.getByRole('region', { name: 'Do broad jumps before help the start?' })
	await expect(begun.getByRole('row').filter({ hasText: 'Kahu Rasmussen' })).toContainText(
		/No answer yet: .* about \d+ more/,
	)
	expect(await findings(page)).toEqual([])
	await page.getByRole('button', { name: 'Plan it' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('trial')
	await expect(page.getByText('Trial: 5 min after').first()).toBeVisible()
	expect(
		await app.rows(
			"select count(*) as n from trial_session join trial on trial.id = trial_id where question = 'Do broad jumps before help the start?'",
		),
	).toEqual([{ n: 1 }])
})
