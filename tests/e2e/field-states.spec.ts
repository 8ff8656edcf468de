import { type Page, expect } from '@playwright/test'
import { test } from '../support/app-test'
import { findings } from '../support/axe'
import { FieldHand } from '../support/field-hand'
import { openDemoField } from '../support/sign-in'

// Every state of the field screen as a screen reader, a thumb and a small phone meet it.

async function withoutFinding(page: Page, state: string) {
	expect(await findings(page), state).toEqual([])
}
/** Buttons and links that are seen and smaller than a finger. */
const small = (page: Page, least: number, within = 'body') =>
	page.evaluate(
		([size, root]) =>
			[...document.querySelectorAll<HTMLElement>(`${root} button, ${root} a, ${root} select`)].flatMap((one) => {
				const { width, height } = one.getBoundingClientRect()
				return width > 0 && (width < (size as number) || height < (size as number))
					? [`${one.textContent?.trim()} ${width.toFixed(0)}×${height.toFixed(0)}`]
					: []
			}),
		[least, within] as const,
	)

test('no state of the field has a finding, in the sun and at dusk; what is tapped is as large as a thumb', async ({
	app,
	page,
}) => {
	await page.setViewportSize({ width: 390, height: 844 })
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	const closing = (open: () => Promise<void>, state: string) => async () => {
		await open()
		await expect(page.getByRole('dialog')).toBeVisible()
		await withoutFinding(page, state)
		expect(await small(page, 44), state).toEqual([])
		await page.getByRole('button', { name: 'Close' }).click()
	}
	const press = (name: string | RegExp) => () => page.getByRole('button', { name, exact: true }).first().click()
	await expect(hand.onTheLine()).toBeVisible()
	await withoutFinding(page, 'a set by eye')
	expect(await small(page, 44)).toEqual([])
	await hand.goTo('Acceleration')
	await withoutFinding(page, 'the number pad')
	expect(await small(page, 44)).toEqual([])
	expect(await small(page, 64, '.field-pad')).toEqual([])
	await page.getByLabel('Taken by').selectOption('stopwatch')
	await withoutFinding(page, 'the stopwatch')
	expect(await small(page, 44)).toEqual([])
	await page.getByLabel('Taken by').selectOption('gate')
	await page.getByTestId('value-1').click()
	await hand.save('341')
	await expect(page.getByText(/^Last:/)).toBeVisible()
	await page.getByRole('button', { name: 'Poor' }).click()
	await withoutFinding(page, 'a rep was saved and judged')
	for (const open of [
		closing(press('More'), 'this session'),
		closing(press(/^Queue/), 'the queue'),
		closing(press('Pain'), 'pain'),
		closing(press('Note'), 'a note'),
		closing(press(/: swap, end, group$/), 'an athlete'),
		closing(async () => {
			await press(/^Queue/)()
			await press('Somebody else comes')()
		}, 'somebody comes'),
		closing(async () => {
			await press('More')()
			await press('All marks of this session')()
		}, 'all marks'),
	])
		await open()
	await press('More')()
	await press('lightning')()
	await expect(page.getByRole('alertdialog')).toBeVisible()
	await withoutFinding(page, 'asked first')
	await page.getByRole('button', { name: 'No, go on' }).click()
	await press('More')()
	await press('dusk')()
	await page.getByRole('button', { name: 'Close' }).click()
	await withoutFinding(page, 'at dusk')
	await closing(press('Pain'), 'pain at dusk')()
})

test('a rep is saved without scrolling on a small phone, upright and on its side', async ({ app, page }) => {
	await page.setViewportSize({ width: 360, height: 640 })
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Acceleration')
	const save = page.getByRole('group', { name: 'Number pad' }).getByRole('button', { name: /^(Save|Next)$/ })
	for (const viewport of [
		{ width: 360, height: 640 },
		{ width: 740, height: 360 },
		{ width: 1024, height: 768 },
	]) {
		await page.setViewportSize(viewport)
		await expect(save).toBeInViewport({ ratio: 1 })
		for (const digit of ['1', '5', '0'])
			await expect(
				page.getByRole('group', { name: 'Number pad' }).getByRole('button', { name: digit, exact: true }),
			).toBeInViewport({ ratio: 1 })
		expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(viewport.width)
	}
})

test('what is asked above the line pushes neither the pad nor pain out of sight', async ({ app, page }) => {
	await page.setViewportSize({ width: 390, height: 844 })
	await openDemoField(page, app)
	const hand = new FieldHand(page, app)
	await hand.goTo('Acceleration')
	await page.route('**/api/events', async (route) => {
		const { events } = route.request().postDataJSON() as { events: { id: string }[] }
		const answers = events.map(({ id }) => ({ id, outcome: 'refused', field: 'lineId', reason: 'no such line' }))
		await route.fulfill({ json: { answers } })
	})
	await page.getByTestId('value-1').click()
	await hand.save('341')
	await expect(page.getByRole('alert').filter({ hasText: 'Not taken by the server' })).toBeVisible()
	/** Whether its lowest line is what a finger would meet there, and not a bar that lies over it. */
	const isWhole = (name: string | RegExp) =>
		page
			.getByRole('button', { name, exact: true })
			.first()
			.evaluate((one) => {
				const { left, width, bottom } = one.getBoundingClientRect()
				const met = document.elementFromPoint(left + width / 2, bottom - 4)
				return met !== null && one.contains(met)
			})
	for (const name of ['0', /^(Save|Next)$/, 'Pain']) expect(await isWhole(name), String(name)).toBe(true)
})
