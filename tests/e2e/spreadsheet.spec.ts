import { type Page, expect } from '@playwright/test'
import { randomUUID } from 'node:crypto'
import { addDays } from '../../core/calendar/day-count'
import { insertPerson } from '../../db/queries/clubs'
import { test } from '../support/app-test'
import { coachOf } from '../support/coach-of'
import { signIn, signInToDemo } from '../support/sign-in'
import { waking } from '../support/waking'

test.use({ filledWith: 'empty' })

const today = new Date().toISOString().slice(0, 10)
const settled = (page: Page) => expect(page.locator('[data-working="idle"]')).toBeAttached()

/** Five years of tests as somebody kept them: a row a day and athlete, a column a test, a few cells nobody can read. */
function fiveYears(athletes: number): { text: string; results: number; unreadable: number } {
	const rows = ['Name;Test date;Three-point start 20 m;Broad jump;Overhead 3 kg']
	let results = 0
	let unreadable = 0
	for (let month = 0; month < 60; month++)
		for (let n = 1; n <= athletes; n++) {
			const [year, of, date] = addDays(today, -30 * (60 - month)).split('-')
			const isBad = month % 20 === 7 && n === 1
			const time = (3.4 - month * 0.002 + n * 0.01).toFixed(2).replace('.', ',')
			const hasThrow = month % 2 === 0
			rows.push(
				[
					`Athlete ${n}`,
					`${Number(date)}.${Number(of)}.${year}`,
					isBad ? 'hurt' : time,
					(1.9 + month * 0.004).toFixed(2).replace('.', ','),
					hasThrow ? (9 + month * 0.03).toFixed(1).replace('.', ',') : '',
				].join(';'),
			)
			results += (isBad ? 0 : 1) + 1 + (hasThrow ? 1 : 0)
			if (isBad) unreadable += 1
		}
	return { text: rows.join('\r\n'), results, unreadable }
}

test('five years of results come out of a spreadsheet and say where everybody stands', async ({ app, page }) => {
	const made = await coachOf(page, app, 6)
	const { text, results, unreadable } = fiveYears(6)
	await page.goto('/squads')
	await page.getByRole('link', { name: 'Bring results' }).click()
	await page
		.getByLabel('Or its file')
		.setInputFiles({ name: 'tests.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
	await expect(page.getByLabel('The results')).toHaveValue(/Overhead/)
	await page.getByRole('button', { name: 'Look at it' }).click()
	// A drill is told by all of its name; what is only like one is asked.
	await expect(page.getByText('2 drills are not told by its words.', { exact: false })).toBeVisible()
	await page.getByLabel('Which drill “Broad jump” is').selectOption('broad-jump')
	await page.getByLabel('Which drill “Overhead 3 kg” is').selectOption('overhead-throw')
	await page.getByLabel('Times were taken by').selectOption('gate')
	await page.getByRole('button', { name: 'Look at it again' }).click()
	await expect(page.getByRole('heading', { level: 2 })).toHaveText(
		`${results} results to take, ${unreadable} rows with something that cannot be read`,
	)
	await expect(page.getByText('“hurt”: a time like 1.85, up to 600 s, is expected.').first()).toBeVisible()
	await page.getByRole('button', { name: `Take ${results} results` }).click()
	await expect(page.getByText(`${results} results taken, ${unreadable} rows left out.`)).toBeVisible({
		timeout: 90_000,
	})
	const [kept] = await app.rows('select count(*) as n, count(distinct method) as methods from mark')
	expect(kept).toEqual({ n: results, methods: 2 })
	expect(await app.rows('select id from session where reviewed_at is null')).toEqual([])

	await page.getByRole('link', { name: 'Say where they stand' }).click()
	await page.goto(`/squads/${made.squadId}/placing?ladder=acceleration`)
	await expect(page.getByLabel('Athlete 1, Acceleration')).toHaveValue('three-point-20')
	await page.getByRole('button', { name: 'Set what is different' }).click()
	await expect(page.getByText('6 rungs are set.', { exact: false })).toBeVisible()
	expect(await app.rows('select distinct ladder_id as ladder from ladder_state')).toEqual([{ ladder: 'acceleration' }])
})

test('a club goes out as a document and into another club, and is there once', async ({ app, page, browser }) => {
	await coachOf(page, app, 3)
	const { text, results } = fiveYears(3)
	await page.goto('/squads')
	await page.getByRole('link', { name: 'Bring results' }).click()
	await page.getByLabel('The results').fill(text.replaceAll('Overhead 3 kg', 'Overhead backward throw 3 kg'))
	await page.getByRole('button', { name: 'Look at it' }).click()
	await page.getByLabel('Which drill “Broad jump” is').selectOption('broad-jump')
	await page.getByRole('button', { name: 'Look at it again' }).click()
	await page.getByRole('button', { name: `Take ${results} results` }).click()
	await expect(page.getByText(`${results} results taken`)).toBeVisible({ timeout: 90_000 })

	await page.goto('/club')
	await page.getByRole('link', { name: 'Data out and in' }).click()
	await page.getByLabel('Sessions from').fill(addDays(today, -2000))
	const downloading = page.waitForEvent('download')
	await page.getByRole('link', { name: 'All of it, JSON' }).click()
	const path = await (await downloading).path()

	const other = waking(await (await browser.newContext({ baseURL: app.address })).newPage())
	const into = await coachOf(other, app, 0)
	const held = async () =>
		(await app.rows('select count(*) as n from mark where club_id = ?', [into.scope.clubId]))[0]!.n as number
	await other.goto('/club/data')
	await other.getByLabel('Files').setInputFiles(path)
	await other.getByRole('button', { name: 'See what it would do' }).click()
	await expect(other.getByText('Nothing is written yet. It would add:')).toBeVisible()
	expect(await held()).toBe(0)
	await other.getByRole('button', { name: 'Bring it in' }).click()
	await expect(other.getByText('It is in.')).toBeVisible({ timeout: 90_000 })
	expect(await held()).toBe(results)
	await other.getByRole('button', { name: 'See what it would do' }).click()
	await expect(other.getByText('All of it is here already.')).toBeVisible()
})

test('an assistant brings nothing in and takes nothing out', async ({ app, page }) => {
	const made = await coachOf(page, app, 1)
	const email = `${randomUUID()}@example.org`
	await insertPerson(made.scope, {
		id: randomUUID(),
		email,
		name: 'Dov',
		role: 'assistant',
		passwordHash: '-',
		athleteId: null,
		createdAt: new Date(),
	})
	await signIn(page, app, email)
	for (const path of [
		'/club/data',
		'/club/data/all.json',
		'/club/data/athletes.csv',
		`/squads/${made.squadId}/history`,
	])
		expect((await page.request.get(`${app.address}${path}`)).status(), path).toBe(403)
})

test.describe('the club’s own page', () => {
	test.use({ filledWith: 'demo' })
	test('somebody is renamed, taken off and let in again; a ground is changed, taken off and back', async ({
		app,
		page,
		browser,
	}) => {
		await signInToDemo(page, app)
		const assistant = waking(await (await browser.newContext({ baseURL: app.address })).newPage())
		await signInToDemo(assistant, app, 'assistant@demo.invalid')
		await page.goto('/club')
		const person = page.getByRole('listitem').filter({ hasText: 'assistant@demo.invalid' })
		await person.getByLabel('Change Dov Ferrand').click()
		await person.getByLabel('Name').fill('Dov Ferrand-Ray')
		await person.getByRole('button', { name: 'Keep' }).click()
		await expect(person.getByText('Kept.')).toBeVisible()
		await settled(page)
		await person.getByRole('button', { name: 'Take off Dov Ferrand-Ray' }).click()
		await expect(page.getByRole('heading', { name: 'Taken off' })).toBeVisible()
		await assistant.goto('/plan')
		await expect(assistant).toHaveURL(/sign-in/)
		await page.getByRole('button', { name: 'Let in again: Dov Ferrand-Ray' }).click()
		await expect(page.getByRole('heading', { name: 'Taken off' })).toHaveCount(0)
		expect(await app.rows("select name, role, left_at from person where email = 'assistant@demo.invalid'")).toEqual([
			{ name: 'Dov Ferrand-Ray', role: 'assistant', left_at: null },
		])
		await signInToDemo(assistant, app, 'assistant@demo.invalid')

		const ground = page.getByRole('listitem').filter({ hasText: 'Gravel yard' }).first()
		await ground.getByLabel('Change Gravel yard').click()
		await ground.getByLabel('Length, m').fill('44')
		await ground.getByRole('button', { name: 'Keep' }).click()
		await expect(page.getByText('44 × 20 m')).toBeVisible()
		await settled(page)
		await page.getByRole('button', { name: 'Take off Gravel yard' }).click()
		await page.getByRole('button', { name: 'Bring back Gravel yard' }).click()
		await expect(page.getByText('44 × 20 m')).toBeVisible()

		await page.getByText('Name and clock').click()
		await page.getByLabel('Time zone').fill('Mars/Base')
		await page.getByRole('button', { name: 'Keep' }).first().click()
		await expect(page.getByText('“Mars/Base” is not a time zone', { exact: false })).toBeVisible()
	})
})
