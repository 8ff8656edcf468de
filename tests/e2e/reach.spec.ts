import { type Page, expect } from '@playwright/test'
import { matchPath } from 'react-router'
import routes from '../../app/routes'
import { test } from '../support/app-test'
import { findings } from '../support/axe'
import { addresses } from '../support/demo-pages'
import { openDemoField, signInToDemo } from '../support/sign-in'
import { waking } from '../support/waking'

/** Every page of the application, by the pattern of its route; what only answers with data is none. */
function patterns(
	entries: readonly { path?: string; index?: boolean; file: string; children?: unknown[] }[] = routes,
): string[] {
	return entries.flatMap((entry) => [
		...(entry.file.endsWith('.tsx') && !entry.path?.endsWith('.svg') && (entry.path !== undefined || entry.index)
			? [`/${entry.path ?? ''}`]
			: []),
		...patterns((entry.children ?? []) as typeof entries),
	])
}
/** Pages for who is not signed in. */
const STRANGERS = ['/sign-in', '/first', '/join/:token']

async function faults(page: Page, path: string): Promise<string[]> {
	await page.goto(path)
	await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1)
	return (await findings(page)).map((found) => `${path} ${found}`)
}
/** Whether the page is wider than what is seen of it, once it has settled: a chart takes a moment to shrink. */
async function widths(page: Page, what: string): Promise<string[]> {
	const over = () => page.evaluate(() => document.documentElement.scrollWidth - innerWidth)
	try {
		await expect.poll(over, { timeout: 3000 }).toBeLessThanOrEqual(1)
		return []
	} catch {
		return [`${what} is ${await over()} px too wide`]
	}
}

/**
 * What a thumb has to hit and is lower than 44 px: by its own box, its label's, or the room that is drawn around it. A link
 * in a line of text is as high as the line.
 */
const tooLow = (page: Page, what: string): Promise<string[]> =>
	page.evaluate((where) => {
		const enough = (height: number) => height >= 43.5
		return [...document.querySelectorAll('button, a[href], input, select, textarea, summary')].flatMap((one) => {
			const { height, width } = one.getBoundingClientRect()
			const style = getComputedStyle(one)
			if (height <= 1 || width <= 1 || style.visibility === 'hidden' || one.closest('[inert], .sr-only')) return []
			const label = one.closest('label') ?? (one.id ? document.querySelector(`label[for="${one.id}"]`) : null)
			const around = getComputedStyle(one, '::after')
			const inText = style.display === 'inline' && one.tagName === 'A'
			const room = around.position === 'absolute' ? Number.parseFloat(around.height) || 0 : 0
			const isTick = one instanceof HTMLInputElement && ['checkbox', 'radio'].includes(one.type)
			if (inText || enough(height) || enough(room) || (isTick && label && enough(label.getBoundingClientRect().height)))
				return []
			return [`${where}: ${Math.round(height)} px ${one.outerHTML.replace(/class="[^"]*"/, '').slice(0, 90)}`]
		})
	}, what)

test('every page is in the list of those that are looked at', async ({ app }) => {
	const all = await addresses(app)
	for (const pattern of patterns().filter((one) => !STRANGERS.includes(one)))
		expect(
			all.some((path) => matchPath(pattern, path)),
			pattern,
		).toBe(true)
})

test('axe finds nothing on any page, at a desk and on a phone in the dark; none is too wide, at twice the size neither; everything is high enough for a thumb', async ({
	app,
	page,
	context,
}) => {
	test.setTimeout(300_000)
	await signInToDemo(page, app)
	const phone = waking(await context.newPage())
	await phone.setViewportSize({ width: 390, height: 844 })
	await phone.emulateMedia({ colorScheme: 'dark' })
	const found: string[] = []
	const atADesk = async (path: string) => {
		await page.setViewportSize({ width: 1280, height: 800 })
		found.push(...(await faults(page, path)))
		for (const width of [768, 640]) {
			await page.setViewportSize({ width, height: 400 })
			found.push(...(await widths(page, `${path} at ${width}`)))
		}
	}
	const onAPhone = async (path: string) => {
		found.push(...(await faults(phone, path)))
		found.push(...(await widths(phone, path)))
		found.push(...(await tooLow(phone, path)))
	}
	for (const path of await addresses(app)) await Promise.all([atADesk(path), onAPhone(path)])
	expect(found).toEqual([])
})

test('nor for a stranger', async ({ page }) => {
	expect(await faults(page, '/sign-in')).toEqual([])
})

test('a page that was led to begins at its heading, and the keys are listed', async ({ app, page }) => {
	await signInToDemo(page, app)
	await page.goto('/')
	await page.getByRole('link', { name: 'Squads', exact: true }).press('Enter')
	await expect(page.getByRole('heading', { level: 1, name: 'Squads' })).toBeFocused()
	await page.getByRole('link', { name: 'Keys', exact: true }).press('Enter')
	await expect(page.getByRole('heading', { level: 1, name: 'Keys' })).toBeFocused()
	await expect(page.getByText('to the next open verdict')).toBeVisible()
	// Tab goes on from there, and not from the places again.
	await page.goBack()
	await expect(page.getByRole('heading', { level: 1, name: 'Squads' })).toBeFocused()
	await page.keyboard.press('Tab')
	expect(await page.evaluate(() => document.activeElement?.closest('#content') !== null)).toBe(true)
})

test('what opens over a page holds the focus and gives it back', async ({ app, page }) => {
	await signInToDemo(page, app)
	const held = await app.rows(
		"select id from session where reviewed_at is not null and exists (select 1 from mark where mark.session_id = session.id and mark.kind = 'sprint') order by day desc limit 1",
	)
	/** Opened by keys from `opener`: Tab stays inside for a whole round, Esc closes it and the opener has the focus. */
	const trapped = async (opener: ReturnType<Page['getByRole']>, dialog: ReturnType<Page['getByRole']>) => {
		await opener.focus()
		await opener.press('Enter')
		await expect(dialog).toBeVisible()
		const inside = () => dialog.evaluate((one) => one.contains(document.activeElement))
		const stops = await dialog.locator('button, a[href], input, select, textarea').count()
		for (let tab = 0; tab <= stops + 1; tab++) {
			expect(await inside()).toBe(true)
			await page.keyboard.press('Tab')
		}
		await page.keyboard.press('Shift+Tab')
		expect(await inside()).toBe(true)
		await page.keyboard.press('Escape')
		await expect(dialog).toBeHidden()
		await expect(opener).toBeFocused()
	}
	await page.goto(`/sessions/${held[0]!.id}/done`)
	await trapped(page.getByRole('button', { name: /^\d\.\d\d s/ }).first(), page.getByRole('dialog'))

	await page.goto('/sessions/new')
	const calendar = page.getByRole('button', { name: 'Calendar' })
	await calendar.press('Enter')
	await expect(page.getByRole('dialog').getByRole('grid')).toBeVisible()
	await page.keyboard.press('ArrowRight')
	await page.keyboard.press('Enter')
	await expect(page.getByRole('dialog')).toBeHidden()
	await expect(calendar).toBeFocused()

	await openDemoField(page, app)
	for (const name of [/^Queue/, 'More', 'Note', 'Pain'])
		await trapped(page.getByRole('button', { name, exact: true }), page.getByRole('dialog'))
})
