import { type Page, expect } from '@playwright/test'
import { test } from '../support/app-test'
import { signInToDemo } from '../support/sign-in'

/** The page shows what the answer has changed, not only the answer. */
const settled = (page: Page) => expect(page.locator('[data-working="idle"]')).toBeAttached()

test('a session is copied, taken off and brought back', async ({ app, page }) => {
	await signInToDemo(page, app)
	await page.goto('/plan')
	const sessions = page.getByRole('link', { name: /^Under 17 \d/ })
	const before = await sessions.count()
	await sessions.last().click()
	await expect(page.getByRole('button', { name: 'Take off' })).toBeVisible()
	const id = /[0-9a-f-]{36}$/.exec(page.url())![0]
	const held = async () => ({
		session: await app.rows('select title, day, squad_id from session where id = ?', [id]),
		entries: await app.rows('select id, part, drill_id from entry where session_id = ? order by position', [id]),
		attending: await app.rows('select athlete_id from session_athlete where session_id = ? order by position', [id]),
	})
	const stood = await held()
	expect(stood.entries.length).toBeGreaterThan(3)
	await page.getByRole('link', { name: 'Copy', exact: true }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('once more')
	await page.getByLabel('Title').fill('The same again')
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('the same again')
	const [copy] = await app.rows("select id from session where title = 'The same again'")
	expect(await app.rows('select part, drill_id from entry where session_id = ? order by position', [copy!.id])).toEqual(
		stood.entries.map(({ part, drill_id }) => ({ part, drill_id })),
	)

	await page.goto(`/sessions/${id}`)
	await page.getByRole('button', { name: 'Take off' }).click()
	await expect(page).toHaveURL(/\/plan$/)
	await expect(page.getByRole('heading', { name: 'Taken off' })).toBeVisible()
	expect(await held()).toEqual({ session: [], entries: [], attending: [] })
	expect((await page.goto(`/sessions/${id}`))?.status()).toBe(404)
	await page.goto('/plan')
	await page.getByRole('button', { name: 'Bring it back' }).click()
	await expect(page.getByRole('heading', { name: 'Taken off' })).toHaveCount(0)
	await expect(sessions).toHaveCount(before + 1)
	expect(await held()).toEqual(stood)
})

test('an athlete is away for a while, leaves a squad and joins it again; sessions ahead follow', async ({
	app,
	page,
}) => {
	await signInToDemo(page, app)
	const [athlete] = await app.rows("select athlete_id as id from athlete_identity where name = 'Freya Nakamura'")
	const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)
	const ahead = async () =>
		(
			await app.rows(
				'select count(*) as n from session_athlete a join session s on s.id = a.session_id where a.athlete_id = ? and s.started_at is null and s.day > ?',
				[athlete!.id, day(0)],
			)
		)[0]!.n as number
	const before = await ahead()
	expect(before).toBeGreaterThan(3)
	await page.goto(`/athletes/${String(athlete!.id)}`)
	await page.locator('summary', { hasText: /^Away/ }).click()
	const form = page.getByLabel('Last day').locator('xpath=ancestor::form')
	await form.getByLabel('From').fill(day(1))
	await form.getByLabel('Last day').fill(day(300))
	await form.getByRole('button', { name: 'Keep' }).click()
	await expect(form.getByRole('status')).toHaveText(/^Kept: off \d+ sessions ahead\.$/)
	expect(await ahead()).toBe(0)
	await settled(page)
	await form.getByLabel('From').fill('')
	await form.getByLabel('Last day').fill('')
	await form.getByRole('button', { name: 'Keep' }).click()
	await expect(form.getByRole('status')).toHaveText(`Kept: down for ${before} sessions ahead.`)
	await settled(page)
	expect(await ahead()).toBe(before)

	await page.locator('summary', { hasText: /^Squads$/ }).click()
	const squads = page.getByRole('group', { name: 'Squads' }).locator('xpath=ancestor::form')
	await squads.getByLabel('Under 17').uncheck()
	await squads.getByRole('button', { name: 'Keep' }).click()
	await expect(squads.getByRole('status')).toHaveText(`Kept: off ${before} sessions ahead.`)
	await settled(page)
	await page.goto('/squads')
	await page.getByRole('region', { name: 'In no squad' }).getByRole('link', { name: 'Freya Nakamura' }).click()
	await expect(page.getByText(/^in no squad · /)).toBeVisible()
	await page.locator('summary', { hasText: /^Squads$/ }).click()
	await squads.getByLabel('Under 17').check()
	await squads.getByRole('button', { name: 'Keep' }).click()
	await expect(squads.getByRole('status')).toHaveText(`Kept: down for ${before} sessions ahead.`)
	expect(await ahead()).toBe(before)
})

test('a verdict is taken back by deciding otherwise, and both are told', async ({ app, page }) => {
	await signInToDemo(page, app)
	const [open] = await app.rows(
		'select id from session where started_at is not null and reviewed_at is null order by day desc limit 1',
	)
	await page.goto(`/sessions/${String(open!.id)}/review`)
	await page.getByRole('button', { name: /^Accept \d+/ }).click()
	await expect(page.getByText(/\d+ decided\./)).toBeVisible()
	await settled(page)
	const [decided] = await app.rows(
		"select i.name, v.ladder_id from verdict v join athlete_identity i on i.athlete_id = v.athlete_id where v.session_id = ? and v.decided = 'hold' and v.ladder_id = 'acceleration' and json_value(v.judgement, '$.tier') <> 'block' order by i.name limit 1",
		[open!.id],
	)
	const why = page.getByRole('button', { name: `Why: ${String(decided!.name)}, Acceleration` })
	await why.click()
	const row = why.locator('xpath=ancestor::li')
	await row.getByRole('button', { name: 'Take it back: decide otherwise' }).click()
	await row.getByLabel('Your reason, kept with your name and the time').fill('Came from a hard week.')
	await row.getByRole('button', { name: 'Ease to two thirds' }).click()
	await expect(page.getByText('Decided: ease. Came from a hard week.')).toBeVisible()
	await expect(page.getByText(/Decided before, .*: hold/).first()).toBeVisible()
	expect(
		await app.rows(
			"select v.decided, v.turn from verdict v where v.session_id = ? and v.reason = 'Came from a hard week.'",
			[open!.id],
		),
	).toEqual([{ decided: 'ease', turn: 1 }])
})
