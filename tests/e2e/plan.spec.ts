import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { addDays, mondayOf, weekday } from '../../core/calendar/day-count'
import { shortDay } from '../../core/calendar/say-day'
import { DEMO_SQUADS } from '../../server/demo/scenario'
import { printed } from '../support/printed'
import { signInToDemo } from '../support/sign-in'

test.beforeEach(async ({ app, page }) => signInToDemo(page, app))

test('a block of five weeks is made; a session dragged into a clash is named and repaired; the block comes off again', async ({
	page,
}) => {
	await page.goto(`/plan/block`)
	await page.getByLabel('Squad').selectOption({ label: 'Under 17' })
	// So far ahead that the ramp has forgotten what the demo plans.
	const monday = addDays(mondayOf(new Date().toISOString().slice(0, 10)), 126)
	await page.getByLabel('First Monday').fill(monday)
	for (const name of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']) {
		const button = page.getByRole('button', { name, exact: true })
		const wanted = name === 'Tue' || name === 'Fri'
		if ((await button.getAttribute('aria-pressed')) !== String(wanted)) await button.click()
	}
	await expect(page.getByLabel(/^Load of week/)).toHaveCount(5)
	// Level 1, no priority: 90 contacts a hard session at 83 %, twice a week.
	await expect(page.getByRole('row', { name: /^Week 1/ })).toContainText('150')
	await page.getByRole('button', { name: 'Make 10 sessions' }).click()
	await expect(page).toHaveURL(/\/plan\?from=/, { timeout: 30_000 })
	await expect(page.getByRole('link', { name: /^Under 17 \d/ })).toHaveCount(10)
	await expect(page.getByRole('heading', { name: 'Nothing clashes' })).toBeVisible()

	// Friday's session onto Wednesday: the day after Tuesday's.
	const [friday, wednesday, thursday] = [addDays(monday, 4), addDays(monday, 2), addDays(monday, 3)]
	const cell = (day: string) => page.getByRole('listitem', { name: shortDay(day), exact: true })
	const handle = cell(friday).getByRole('button', { name: /^Drag Under 17/ })
	const [from, to] = [(await handle.boundingBox())!, (await cell(wednesday).boundingBox())!]
	await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
	await page.mouse.down()
	await page.mouse.move(from.x - 30, from.y + 5, { steps: 4 })
	await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 10 })
	await page.mouse.up()
	await expect(cell(wednesday).getByRole('link', { name: /^Under 17 \d/ })).toBeVisible()
	const clash = page.getByRole('list', { name: 'Clashes' }).getByRole('listitem').first()
	await expect(clash).toContainText(/24 h between two days of .*48 h are asked/)
	await clash.getByRole('button', { name: `Move to ${shortDay(thursday)}` }).click()
	await expect(page.getByRole('heading', { name: 'Nothing clashes' })).toBeVisible()
	await expect(cell(thursday).getByRole('link', { name: /^Under 17 \d/ })).toBeVisible()

	// By keys, a day on.
	await cell(thursday)
		.getByRole('link', { name: /^Under 17 \d/ })
		.focus()
	await page.keyboard.press('Alt+ArrowRight')
	await expect(cell(friday).getByRole('link', { name: /^Under 17 \d/ })).toBeVisible()

	await page.getByRole('button', { name: 'A week later' }).last().click()
	await expect(cell(addDays(friday, 28 + 7)).getByRole('link', { name: /^Under 17 \d/ })).toBeVisible()
	await page
		.getByRole('button', { name: /^Take .* off that (is|are) not begun$/ })
		.last()
		.click()
	await expect(page.getByRole('link', { name: /^Under 17 \d/ })).toHaveCount(0)
})

test('a block whose weeks were missed says so, plans the rest anew, and shows plan against done', async ({ page }) => {
	await page.goto(`/plan/block`)
	await page.getByLabel('Squad').selectOption({ label: 'Under 17' })
	// Begun two weeks ago, on days the squad has free; nobody came.
	await page.getByLabel('First Monday').fill(addDays(mondayOf(new Date().toISOString().slice(0, 10)), -14))
	const { offsets } = DEMO_SQUADS.find((squad) => squad.key === 'u17')!
	const busy = new Set(offsets.map((ago) => weekday(addDays(new Date().toISOString().slice(0, 10), -ago))))
	const free = [1, 2, 3, 4, 5, 6, 7].find((day) => !busy.has(day))!
	for (const [index, name] of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].entries()) {
		const button = page.getByRole('button', { name, exact: true })
		if ((await button.getAttribute('aria-pressed')) !== String(index + 1 === free)) await button.click()
	}
	await page.getByLabel('Priority').selectOption({ label: 'jumps' })
	await page.getByRole('button', { name: 'Make 5 sessions' }).click()
	await expect(page).toHaveURL(/\/plan\?from=/, { timeout: 30_000 })
	await page.getByRole('link', { name: /^Under 17, 5 weeks from/ }).click()
	await expect(page.getByText('Weeks 1, 2 were missed.')).toBeVisible()
	// Jumps are the priority at level 1: 100 contacts a session, 83 % of them in the first week; four fifths of those where the squad's last session was on gravel.
	const [, written, asked] = (
		/Contacts(\d+) written, (\d+) asked/.exec((await page.getByRole('row', { name: /^Week 1/ }).textContent())!) ?? []
	).map(Number)
	expect([83, 66]).toContain(asked)
	expect(Math.abs(written! - asked!)).toBeLessThanOrEqual(0.05 * asked!)
	await page.getByRole('button', { name: 'Plan the rest anew' }).click()
	await expect(page.getByRole('status')).toContainText(/\d sessions? ha(s|ve) new doses/)
	await expect(page.getByText('Weeks 1, 2 were missed.')).toHaveCount(0)
	await expect(page.getByRole('row', { name: /^Week 3/ })).toContainText('60 %')
	await page.getByRole('link', { name: 'Plan', exact: true }).last().click()
	await page
		.getByRole('listitem')
		.filter({ hasText: 'Under 17, 5 weeks from' })
		.getByRole('button', { name: /^Take .* off that (is|are) not begun$/ })
		.click()
	await expect(page.getByRole('link', { name: /^Under 17, 5 weeks from/ })).toHaveCount(0)
})

test('lanes change the minutes and the rests; the search in a worker gives plans that fit; what is kept stays', async ({
	page,
}) => {
	await page.goto(`/plan`)
	// A session ahead that nobody has begun.
	await page
		.getByRole('button', { name: /^Drag Women/ })
		.last()
		.locator('xpath=..')
		.getByRole('link')
		.click()
	await page.getByRole('link', { name: 'Lanes and minutes' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^\d+ of \d+ minutes$/)
	const minutes = async () =>
		Number(/^(\d+) of/.exec((await page.getByRole('heading', { level: 1 }).textContent())!)![1])
	const row = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Cut', exact: true }) })
	const [before, rest] = [await minutes(), await row.textContent()]
	await row.getByRole('button', { name: 'A lane more' }).click()
	await expect(row).toContainText('2 lanes')
	expect(await minutes()).toBeLessThan(before)
	expect(await row.textContent()).not.toBe(rest)
	await page.getByRole('button', { name: 'Keep these lanes' }).click()
	await expect(page.getByRole('button', { name: 'Kept' })).toBeVisible()
	await page.reload()
	await expect(row).toContainText('2 lanes')
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^\d+ of \d+ minutes$/)

	await page.getByLabel('Fit into, minutes').fill(String((await minutes()) - 8))
	await page.getByRole('button', { name: 'Look for plans' }).click()
	await expect(page.getByRole('status')).toContainText(/[\d,]+ plans looked at/)
	const first = page.getByRole('region', { name: 'What if' }).getByRole('listitem').first()
	const promised = Number(/^(\d+) min/.exec((await first.textContent())!)![1])
	await first.getByRole('button', { name: 'Try it' }).click()
	expect(Math.abs((await minutes()) - promised)).toBeLessThanOrEqual(1)
})

test('the session card prints on one page with everybody’s line and target', async ({ app, page }) => {
	const [open] = await app.rows('select id from session where started_at is null order by day, start_time limit 1')
	await page.goto(`/sessions/${String(open!.id)}`)
	await page.getByRole('link', { name: 'Card' }).click()
	await expect(page.getByRole('button', { name: /Print/ })).toBeVisible()
	for (const format of ['A4', 'Letter'] as const) {
		const { text, pages } = await printed(page, format)
		expect(pages).toBe(1)
		for (const name of ['Ilka Moreau', 'Ruadhán Okonjo', 'Emre Castellane']) expect(text).toContain(name)
		expect(text).toMatch(/Three-point start 20 m, 1×\d, rest 2:00/)
		expect(text).toMatch(/\d\.\d\d s or better/)
		expect(text).toMatch(/Kit: /)
	}
})
