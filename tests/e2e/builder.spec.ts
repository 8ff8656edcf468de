import { type Page, expect } from '@playwright/test'
import { test } from '../support/app-test'
import { addDays, mondayOf } from '../../core/calendar/day-count'
import { DEMO_ATHLETES } from '../../server/demo/scenario'
import { printed } from '../support/printed'
import { addToSheet } from '../support/sheet-form'
import { signInToDemo } from '../support/sign-in'

/** A Tuesday well ahead of everything the demo holds, and of what other tests plan. */
const tuesday = (weeks = 14) => addDays(mondayOf(new Date().toISOString().slice(0, 10)), weeks * 7 + 1)

test.beforeEach(async ({ app, page }) => signInToDemo(page, app))

const totals = (page: Page) => page.getByRole('table', { name: 'Totals of each athlete against the target' })
async function startSession(page: Page, day: string) {
	await page.goto(`/sessions/new`)
	await page.getByLabel('Squad').selectOption({ label: 'Under 17' })
	await page.getByLabel('Day', { exact: true }).fill(day)
	await page.getByLabel('Title').fill('Tuesday from targets')
}

test('Tuesday’s session is proposed from targets, edited by search, keys and typing with the totals following, and saved', async ({
	app,
	page,
}) => {
	await startSession(page, tuesday())
	await page.getByLabel('Priority').selectOption({ label: 'sprint' })
	// Pressed right behind the last key: it is of the minutes that stand there, and not of the 75 of before.
	await expect(totals(page)).toBeVisible()
	await page.getByLabel('Minutes').fill('110')
	await page.getByRole('button', { name: 'Propose the session' }).click()
	const proposed = page.getByText(/\d+ drills in \d+ minutes\./)
	await expect(proposed).toBeVisible()
	expect(Number(/in (\d+) minutes/.exec((await proposed.textContent())!)![1])).toBeGreaterThan(80)
	const rows = totals(page).getByRole('row')
	await expect(rows).toHaveCount(9)
	const minutes = page.getByText(/^About \d+ of 110 minutes/)
	await expect(minutes).toBeVisible()
	// Warming up first, throws after the fast work.
	const parts = await page
		.getByLabel(/^Part, entry/)
		.evaluateAll((inputs) => inputs.map((input) => (input as HTMLInputElement).value))
	expect(parts[0]).toBe('Warm-up')
	expect(parts.indexOf('Acceleration')).toBeLessThan(parts.indexOf('Throws'))

	// One more drill by its words: the minutes follow at once, and what tops up gives way, so that the total stays at the target.
	const contacts = async () =>
		(await rows.nth(1).getByRole('cell').nth(1).textContent())!.split('/').map(Number.parseFloat) as [number, number]
	await expect
		.poll(async () => {
			const [planned, target] = await contacts()
			return Math.abs(planned - target) <= 0.05 * target
		})
		.toBe(true)
	const [before, target] = await contacts()
	const took = await minutes.textContent()
	expect(Number(/About (\d+)/.exec(took!)![1])).toBeLessThanOrEqual(110)
	await addToSheet(page, 'squat jump')
	const last = parts.length + 1
	await expect(page.getByLabel(`Part, entry ${last}`)).toHaveValue('Squat jump')
	await page.getByLabel(`Sets, entry ${last}`).fill('6')
	await expect(minutes).not.toHaveText(took!)
	await expect.poll(async () => Math.abs((await contacts())[0] - target)).toBeLessThanOrEqual(0.05 * target)
	// Ten sets of ten are more than anything can give way to.
	await page.getByLabel(`Sets, entry ${last}`).fill('10')
	await page.getByLabel(`Reps, entry ${last}`).fill('10')
	await expect.poll(async () => (await contacts())[0]).toBeGreaterThan(target * 1.1)
	await expect(totals(page).getByText('over the range').first()).toBeAttached()
	// Up by keys, down by the button, off again.
	await page.getByLabel(`Part, entry ${last}`).press('Alt+ArrowUp')
	await expect(page.getByLabel(`Part, entry ${last - 1}`)).toHaveValue('Squat jump')
	await page.getByRole('button', { name: `Take off, entry ${last - 1}` }).click()
	await expect.poll(async () => (await contacts())[0]).toBe(before)

	// Everybody's own lines, with a reason where somebody has none.
	await page
		.getByRole('listitem')
		.filter({ has: page.getByLabel('Part, entry 5') })
		.getByText(/different lines|for \d+ of \d+/)
		.first()
		.click()
	// Two numbers and a name typed in one go, then Enter: what is saved is what was typed, drawn by then or not.
	await page.getByLabel('Sets, entry 1', { exact: true }).fill('3')
	await page.getByLabel('Reps, entry 1', { exact: true }).fill('7')
	await page.getByLabel('Part, entry 1', { exact: true }).fill('Arriving')
	await page.getByLabel('Part, entry 1', { exact: true }).press('Enter')
	await expect(page.getByRole('heading', { level: 1 })).toContainText('Tuesday from targets', { ignoreCase: true })
	await expect(page.getByTestId('contacts')).toHaveCount(8)
	const [first] = await app.rows(
		'select part, json_value(dose, "$.sets") as sets, json_value(dose, "$.reps") as reps from entry where session_id = ? and position = 0',
		[page.url().split('/').at(-1)],
	)
	expect(first).toEqual({ part: 'Arriving', sets: '3', reps: '7' })
})

test('where totals cannot be worked out the page says so, and the sheet is saved all the same', async ({ page }) => {
	await page.route('**/preview-worker*', (route) => route.abort())
	await startSession(page, tuesday(20))
	await expect(page.getByText('Everybody’s totals could not be worked out.')).toBeVisible()
	await addToSheet(page, 'squat jump')
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('Tuesday from targets', { ignoreCase: true })
	await expect(page.getByTestId('contacts')).toHaveCount(8)
})

test('an entry is dragged into another place; hard work after what tires is said by name and rule', async ({
	page,
}) => {
	await startSession(page, tuesday(16))
	for (const words of ['overhead slam', 'standing start']) await addToSheet(page, words)
	await page.getByLabel('Sets, entry 1', { exact: true }).fill('5')
	await page.getByLabel('Reps, entry 1', { exact: true }).fill('5')
	const rules = page.getByRole('region', { name: 'What the rules say' })
	await expect(rules).toContainText('Standing start comes after 25 throws: shock and maximal work belong early')
	const handle = page.getByRole('button', { name: 'Drag entry 2' })
	const [from, to] = [
		(await handle.boundingBox())!,
		(await page.getByRole('button', { name: 'Drag entry 1' }).boundingBox())!,
	]
	await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
	await page.mouse.down()
	await page.mouse.move(from.x + 4, from.y - 10, { steps: 4 })
	await page.mouse.move(to.x + to.width / 2, to.y - 4, { steps: 12 })
	await page.mouse.up()
	await expect(page.getByLabel('Part, entry 1', { exact: true })).toHaveValue('Standing start')
	await expect(page.getByText('comes after')).toHaveCount(0)
})

test('what has no kit is left out and said; a template goes out as open JSON without names and comes back', async ({
	page,
}) => {
	await startSession(page, tuesday(18))
	await page.getByText('Everything is at hand').click()
	await page.getByRole('checkbox', { name: 'medicine ball', exact: true }).uncheck()
	await page.getByLabel('Minutes').fill('120')
	await page.getByRole('button', { name: 'Propose the session' }).click()
	await expect(page.getByText(/Under its target: .*throws for \d+.*no medicine ball at hand/)).toBeVisible()
	await page.getByText('Who, and what holds them').click()
	await expect(page.getByText(/Throws: .*no medicine ball at hand/)).toBeVisible()

	const [download] = await Promise.all([
		page.waitForEvent('download'),
		page.getByRole('link', { name: 'As a file' }).click(),
	])
	const { readFileSync } = await import('node:fs')
	const text = readFileSync(await download.path(), 'utf8')
	expect(JSON.parse(text)).toMatchObject({
		format: 'dromos-session',
		version: 2,
		name: 'Tuesday from targets',
		minutes: 120,
	})
	for (const name of DEMO_ATHLETES.filter((athlete) => athlete.squad === 'u17').map((athlete) => athlete.name))
		expect(text).not.toContain(name)
	const entries = (JSON.parse(text) as { entries: unknown[] }).entries.length

	await page.getByRole('button', { name: 'Keep this one' }).click()
	await expect(page.getByText('Kept as Tuesday from targets.')).toBeVisible()
	await page.reload()
	// What was being planned is back; begun anew, the template brings it.
	await expect(page.getByLabel(/^Part, entry/)).toHaveCount(entries)
	await page.getByRole('button', { name: 'Start over' }).click()
	await expect(page.getByLabel(/^Part, entry/)).toHaveCount(0)
	await page.getByLabel('Squad').selectOption({ label: 'Under 17' })
	await page.getByRole('button', { name: 'Use Tuesday from targets' }).click()
	await expect(page.getByLabel(/^Part, entry/)).toHaveCount(entries)
	await page.getByRole('button', { name: 'Take it back' }).click()
	await expect(page.getByLabel(/^Part, entry/)).toHaveCount(0)
	await page
		.getByLabel('Template file')
		.setInputFiles({ name: 'a.json', mimeType: 'application/json', buffer: Buffer.from(text) })
	await expect(page.getByLabel(/^Part, entry/)).toHaveCount(entries)
	await page
		.getByLabel('Template file')
		.setInputFiles({ name: 'b.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"other"}') })
	await expect(page.getByText(/This is not a session template/)).toBeVisible()
	await page.getByRole('button', { name: 'Forget Tuesday from targets' }).click()
	await expect(page.getByRole('button', { name: 'Use Tuesday from targets' })).toHaveCount(0)
})

test('stations are placed, a lane through a throw sector is refused, the plan is kept, drawn, printed and made for the yard', async ({
	page,
}) => {
	await startSession(page, tuesday(20))
	for (const words of ['standing start', 'overhead backward', 'broad jump and stick']) await addToSheet(page, words)
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('uesday from targets')
	await page.getByRole('link', { name: 'Field map' }).click()
	// The under-17s train in the yard; today the grass is free.
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Field map, Gravel yard')
	await page.getByLabel('Ground').selectOption({ label: 'Lower field by the sea, grass, 100 × 62 m' })
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Field map, Lower field by the sea, grass')
	const at = (name: string) => page.getByRole('button', { name: new RegExp(`^\\d+ ${name}, \\d+ m along`) })
	const where = async (name: string) =>
		/(\d+) m along, (\d+) m up, turned (\d+)/
			.exec((await at(name).getAttribute('aria-label'))!)!
			.slice(1)
			.map(Number)
	await expect(at('Standing start')).toBeVisible()

	// Typed where there is room, then by keys: a metre, five metres, a turn.
	await page.getByRole('button', { name: /^\d+ ?Broad jump and stick(?!,)/ }).click()
	for (const [field, value] of [
		['up', '40'],
		['along', '60'],
	] as const) {
		await page.getByLabel(`${field}, Broad jump and stick`).fill(value)
		await page.getByLabel(`${field}, Broad jump and stick`).press('Enter')
	}
	const start = await where('Broad jump and stick')
	expect(start.slice(0, 2)).toEqual([60, 40])
	await at('Broad jump and stick').focus()
	await page.keyboard.press('ArrowUp')
	await page.keyboard.press('Shift+ArrowUp')
	await page.keyboard.press('r')
	expect(await where('Broad jump and stick')).toEqual([start[0], start[1]! + 6, (start[2]! + 15) % 360])

	// Typed into the sector of the throws: refused, and it stays where it was.
	const sector = await where('Overhead backward throw')
	const kept = await where('Standing start')
	await page.getByRole('button', { name: /^\d+ ?Standing start(?!,)/ }).click()
	const up = page.getByLabel('up, Standing start')
	await up.fill(String(sector[1]))
	await up.press('Enter')
	const along = page.getByLabel('along, Standing start')
	if ((await where('Standing start'))[1] !== kept[1]) {
		await along.fill(String(sector[0]! + 8))
		await along.press('Enter')
	}
	await expect(page.getByRole('alert')).toContainText(
		/Refused\. Standing start: .* crosses the throw sector of Overhead backward throw\./,
	)
	expect([await along.inputValue(), await up.inputValue()]).toEqual(
		(await where('Standing start')).slice(0, 2).map(String),
	)

	// Dragged over it: the same. A step by keys takes the refusal away first, so that the next one is the drag's.
	await at('Standing start').focus()
	await page.keyboard.press('ArrowUp')
	await expect(page.getByRole('alert')).toHaveCount(0)
	const before = await where('Standing start')
	const dragTo = async (metres: number[]) => {
		const map = (await page.getByRole('group', { name: /^Map of/ }).boundingBox())!
		const pxPerM = map.width / 110
		const point = ([x, y]: number[]) => ({ x: map.x + (x! + 5) * pxPerM, y: map.y + (62 - y! + 5) * pxPerM })
		const [hand, target] = [point(before), point(metres)]
		await page.mouse.move(hand.x, hand.y)
		await page.mouse.down()
		await page.mouse.move(hand.x + 8, hand.y - 8, { steps: 3 })
		const gripped = (await at('Standing start').boundingBox())!
		await page.mouse.move(target.x, target.y, { steps: 10 })
		// Let go where it is seen to be, as a hand does: a drop counts from what is drawn.
		await expect
			.poll(async () => {
				const now = (await at('Standing start').boundingBox())!
				return Math.hypot(now.x - gripped.x - (target.x - hand.x - 8), now.y - gripped.y - (target.y - hand.y + 8))
			})
			.toBeLessThan(4 * pxPerM)
		await page.mouse.up()
		// No hand grips again sooner; within 50 ms of a drop neither a grip nor a click is taken.
		await page.waitForTimeout(200)
	}
	await dragTo([sector[0]! + 6, sector[1]!])
	await expect(page.getByRole('alert')).toContainText('crosses the throw sector')
	expect(await where('Standing start')).toEqual(before)
	// And to a free place: it goes there.
	await dragTo([before[0]! + 10, 50])
	await expect(page.getByRole('alert')).toHaveCount(0)
	const [x, y] = await where('Standing start')
	expect(Math.abs(x! - before[0]! - 10)).toBeLessThanOrEqual(1)
	expect(Math.abs(y! - 50)).toBeLessThanOrEqual(1)

	await page.getByRole('button', { name: 'Save the plan' }).click()
	await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible()
	await page.reload()
	expect(await where('Standing start')).toEqual([x, y, before[2]])

	const drawing = await page.request.get(page.url().replace('/map?', '/map.svg?'))
	expect(drawing.headers()['content-type']).toContain('image/svg+xml')
	expect(await drawing.text()).toMatch(/^<svg[^>]+viewBox="0 0 110 72"[\s\S]*Standing start[\s\S]*<\/svg>$/)

	const { text, pages } = await printed(page, 'A4')
	expect(pages).toBe(1)
	// Standing start 10 m in one lane: cones to both sides of the line, ten metres on.
	expect(text).toMatch(/Cones from the base corner, metres/)
	expect(text).toMatch(new RegExp(`${x} \\| ${y! - 1}`))
	expect(text).toMatch(/\d+ × cones/)

	// Held on the grass; when it is closed, the plan for the yard is a choice away, and the ground's rule is in force there.
	await page.getByRole('button', { name: 'Hold it here' }).click()
	await expect(page.getByRole('button', { name: 'Hold it here' })).toHaveCount(0)
	await page.getByLabel('Ground').selectOption({ label: 'Gravel yard, 42 × 20 m' })
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Field map, Gravel yard')
	await page.getByRole('button', { name: 'Hold it here' }).click()
	await expect(page.getByRole('button', { name: 'Hold it here' })).toHaveCount(0)
	await page.getByRole('link', { name: 'Sheet' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('uesday from targets')
	await expect(page.getByRole('main').getByText(/· Gravel yard/)).toBeVisible()
})

test('on a phone the calendar, the sheet and the map are read, and a small change is made', async ({ page }) => {
	await page.setViewportSize({ width: 390, height: 844 })
	await startSession(page, tuesday(22))
	await addToSheet(page, 'broad jump and stick')
	await page.getByLabel('Sets, entry 1', { exact: true }).fill('3')
	await expect(totals(page).getByRole('row').nth(1)).toContainText('9/')
	await page.getByRole('button', { name: 'Save the session' }).click()
	await page.getByRole('link', { name: 'Field map' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('Field map')
	const width = () => page.evaluate(() => document.documentElement.scrollWidth)
	expect(await width()).toBeLessThanOrEqual(390)
	for (const place of ['plan', 'plan/block', 'sessions/new']) {
		await page.goto(`/${place}`)
		expect(await width(), place).toBeLessThanOrEqual(390)
	}
})

test('a session about one thing: few pieces, called by its theme, which is kept with it', async ({ app, page }) => {
	await startSession(page, tuesday(24))
	await page.getByLabel('Title').fill('')
	await page.getByLabel('Minutes').fill('90')
	await page.getByRole('combobox', { name: 'About' }).selectOption({ label: 'Turns and braking' })
	await expect(page.getByText('Turns and braking first; jumps second; sprint and throws only kept.')).toBeVisible()
	// What the block drives on has no say on a day that is about something.
	await expect(page.getByLabel('Priority')).toBeHidden()
	await page.getByRole('button', { name: 'Propose the session' }).click()
	await expect(page.getByText(/^[5-8] pieces, \d+ drills in \d+ minutes\./)).toBeVisible()
	await expect(page.getByLabel('Title')).toHaveValue('Turns and braking')
	// Another of the same kind, and what it would change; then back.
	const others = page.getByRole('list', { name: 'Other ways' })
	await expect(others.getByText(/^Without .*with .*Curves/)).toBeVisible()
	for (const name of [/^Shorter: \d+ min$/, 'Indoors, 30 m', 'Without boxes'])
		await expect(others.getByRole('button', { name })).toBeVisible()
	await expect(others.getByText('Looking at other ways')).toBeHidden()
	await others.getByRole('button', { name: 'Another: curves and reacting' }).click()
	await expect(page.getByLabel('Title')).toHaveValue('Curves and reacting')
	await expect(page.getByRole('combobox', { name: 'About' })).toHaveValue('curves')
	await page.getByRole('button', { name: 'Take it back' }).click()
	await expect(page.getByLabel('Title')).toHaveValue('Turns and braking')
	await expect(page.getByRole('combobox', { name: 'About' })).toHaveValue('turns')
	// Everybody's line of the piece that is looked at stands beside it, with what it was the last time.
	const totals = page.getByRole('table', { name: 'Totals of each athlete against the target' })
	await expect(totals.getByText(/ was /)).toHaveCount(0)
	await page.getByLabel('Part, entry 1', { exact: true }).focus()
	await expect(page.getByText('With everybody’s line of Warm-up')).toBeVisible()
	await expect(totals.getByText('Easy run 600 m, 1×1')).toHaveCount(await totals.getByRole('rowheader').count())
	await page.getByRole('button', { name: 'Totals alone' }).click()
	await expect(totals.getByText('Easy run 600 m, 1×1')).toHaveCount(0)
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('turns and braking', { ignoreCase: true })
	expect(await app.rows('select theme, role from session where day = ?', [tuesday(24)])).toEqual([
		{ theme: 'turns', role: 'hard' },
	])
	await page.goto(`${page.url()}/change`)
	await expect(page.getByRole('combobox', { name: 'About' })).toHaveValue('turns')
})

test('a club’s own recipe is what its sessions are proposed from', async ({ app, page }) => {
	await startSession(page, tuesday(24))
	await page.goto('/library')
	await page.getByRole('link', { name: 'Turns and braking' }).click()
	await expect(page.getByText('sprint and throws only kept')).toBeVisible()
	await page.getByText('Change it for this club').click()
	await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Braking')
	await page.getByRole('button', { name: 'What it keeps 2: take away' }).click()
	await page.getByLabel('What it keeps 1, name').fill('Two starts')
	await page.getByRole('button', { name: 'What it is about 1: take away' }).click()
	await page.getByRole('button', { name: 'Keep the change' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Braking')
	await expect(page.getByText('Braking first; jumps second; sprint only kept.')).toBeVisible()
	expect(
		await app.rows(
			"select version, written_by is not null own from library_document where kind = 'theme' and id = 'turns' order by version",
		),
	).toEqual([
		{ version: 1, own: 0 },
		{ version: 1001, own: 1 },
	])
	await startSession(page, tuesday(24))
	await page.getByLabel('Title').fill('')
	await page.getByLabel('Minutes').fill('90')
	await page.getByRole('combobox', { name: 'About' }).selectOption({ label: 'Braking' })
	await page.getByRole('button', { name: 'Propose the session' }).click()
	await expect(page.getByText(/^[4-8] pieces, \d+ drills in \d+ minutes\./)).toBeVisible()
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toContainText('braking', { ignoreCase: true })
	const parts = await app.rows(
		'select part from entry e join session s on s.id = e.session_id where s.day = ? order by position',
		[tuesday(24)],
	)
	const names = parts.map((row) => row.part)
	expect(names).not.toContain('Stops')
	expect(names).toContain('Two starts')
	expect(names).not.toContain('Throws, kept')
})
