import { type Page, expect } from '@playwright/test'
import { DEMO_SIGN_IN } from '../../server/demo/sign-in'
import { test } from '../support/app-test'
import { addToSheet } from '../support/sheet-form'
import { signInToDemo } from '../support/sign-in'

test.use({ serviceWorkers: 'allow' })

const IS_BACK = 'What you had typed is back; it is not saved yet.'

test('a session that is being planned survives a reload, a page in between and an expired sign-in, and is saved once', async ({
	app,
	page,
	context,
}) => {
	await signInToDemo(page, app)
	await page.goto('/sessions/new')
	await page.getByLabel('Squad').selectOption({ label: 'Under 17' })
	await page.getByLabel('Title').fill('Hills at dusk')
	await addToSheet(page, 'squat jump')
	await expect(page.getByLabel('Part, entry 1')).toHaveValue('Squat jump')
	await page.reload()
	await expect(page.getByText(IS_BACK)).toBeVisible()
	await expect(page.getByLabel('Title')).toHaveValue('Hills at dusk')
	await expect(page.getByLabel('Part, entry 1')).toHaveValue('Squat jump')
	// Another page, and back.
	await page.getByRole('link', { name: 'Squads', exact: true }).first().click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Squads')
	await page.goBack()
	await expect(page.getByLabel('Title')).toHaveValue('Hills at dusk')
	// Signed out meanwhile: signing in again leads back to it.
	await context.clearCookies()
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page).toHaveURL(/\/sign-in\?to=/)
	await page.getByLabel('Email').fill(DEMO_SIGN_IN.email)
	await page.getByLabel('Password').fill(DEMO_SIGN_IN.password)
	await page.getByRole('button', { name: 'Sign in' }).click()
	await expect(page).toHaveURL(/\/sessions\/new/)
	await expect(page.getByLabel('Title')).toHaveValue('Hills at dusk')
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page).toHaveURL(/\/sessions\/[0-9a-f-]{36}$/)
	expect(await app.rows("select 1 from session where title = 'Hills at dusk'")).toHaveLength(1)
	// What is saved is no draft any more.
	await page.goto('/sessions/new')
	await expect(page.getByLabel('Title')).toHaveValue('')
	await expect(page.getByText(IS_BACK)).toHaveCount(0)
})

test('a note and a list survive a server that is down; started over they are gone, signed out nothing stays', async ({
	app,
	page,
}) => {
	await signInToDemo(page, app)
	const [held] = await app.rows('select id from session where reviewed_at is not null order by day desc limit 1')
	const done = `/sessions/${String(held!.id)}/done`
	await page.goto(done)
	const note = page.getByLabel('Note', { exact: true })
	await note.fill('Left foot lands late and flat.')
	const form = note.locator('xpath=ancestor::form')
	await app.cutPower()
	await form.getByRole('button').last().click()
	await expect(page.getByText('What you were typing is kept in this tab')).toBeVisible()
	await app.powerOn()
	await page.goto(done)
	await expect(page.getByText(IS_BACK)).toBeVisible()
	await expect(note).toHaveValue('Left foot lands late and flat.')
	await form.getByRole('button').last().click()
	await expect(page.getByText('Left foot lands late and flat.').first()).toBeVisible()
	await page.reload()
	await expect(note).toHaveValue('')

	const [squad] = await app.rows("select id from squad where name = 'Under 17'")
	const list = `/squads/${String(squad!.id)}/list`
	await page.goto(list)
	await page.getByLabel('The list').fill('Ada Sørli, 31.5.2009')
	await page.getByRole('button', { name: 'Look at it' }).click()
	await expect(page.getByRole('button', { name: /^Add 1 / })).toBeVisible()
	await page.goto(list)
	await expect(page.getByLabel('The list')).toHaveValue('Ada Sørli, 31.5.2009')
	await page.getByRole('button', { name: 'Start over' }).click()
	await expect(page.getByLabel('The list')).toHaveValue('')
	await page.reload()
	await expect(page.getByLabel('The list')).toHaveValue('')
	await page.getByLabel('The list').fill('Ada Sørli')
	await page.goto('/bench/steps')
	await expect.poll(() => keptIn(page)).toHaveLength(2)
	await page.getByRole('button', { name: 'Sign out' }).first().click()
	await expect(page).toHaveURL(/sign-in/)
	expect(await keptIn(page)).toEqual([])
})

/** What the tab keeps but for where the router had scrolled to. */
const keptIn = (page: Page) =>
	page.evaluate(() => Object.keys(sessionStorage).filter((name) => !name.startsWith('react-router')))

test('what one coach typed is not there for another who signs in in the same tab', async ({ app, page }) => {
	await app.rows("update person set role = 'coach' where email = 'assistant@demo.invalid'")
	await signInToDemo(page, app)
	await page.goto('/sessions/new')
	await page.getByLabel('Title').fill('Hills at dusk')
	await expect.poll(() => keptIn(page)).toHaveLength(1)
	// The sign-in of before ran out; nobody signed out.
	await signInToDemo(page, app, 'assistant@demo.invalid')
	await page.goto('/sessions/new')
	await expect.poll(() => keptIn(page)).toEqual([])
	await expect(page.getByLabel('Title')).toHaveValue('')
	await page.getByLabel('Title').fill('Stairs')
	await page.reload()
	await expect(page.getByText(IS_BACK)).toBeVisible()
	await expect(page.getByLabel('Title')).toHaveValue('Stairs')
})
