import path from 'node:path'
import { type Page, chromium } from '@playwright/test'
import { addDays } from '../core/calendar/day-count'
import { shortDay } from '../core/calendar/say-day'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'
import { ROOT } from './root.mjs'
import { BROWSER } from './browser'

const ADDRESS = process.env.ADDRESS ?? 'http://127.0.0.1:4210'
const FOLDER = path.join(ROOT, 'docs', 'screenshots')
const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }

/** One current picture of each main view, from a running demo. It logs three starts of one athlete on the demo session of today. */
async function main(): Promise<void> {
	const browser = await chromium.launch({
		executablePath: BROWSER,
		args: [...(process.getuid?.() === 0 ? ['--no-sandbox'] : []), '--disable-background-networking'],
	})
	const page = await browser.newPage({ viewport: DESK, locale: 'en-GB' })
	await page.goto(`${ADDRESS}/sign-in`)
	await page.getByLabel('Email').fill(DEMO_SIGN_IN.email)
	await page.getByLabel('Password').fill(DEMO_SIGN_IN.password)
	await page.getByRole('button', { name: 'Sign in' }).click()
	await page.getByRole('link', { name: 'Go to the field' }).waitFor()

	// Today's session of the open squad, which nobody has begun, whatever the time of day says is next.
	await page.goto(`${ADDRESS}/plan`)
	const todayCell = page.getByRole('listitem', { name: shortDay(new Date().toISOString().slice(0, 10)), exact: true })
	const sheet = await todayCell.getByRole('link', { name: /^Open squad/ }).getAttribute('href')
	const field = `/field?session=${sheet?.split('/').at(-1)}`
	await page.goto(`${ADDRESS}/review`)
	const review = await page
		.getByRole('listitem')
		.filter({ hasText: 'Under 17' })
		.getByRole('link', { name: 'Review' })
		.getAttribute('href')
	await page.goto(`${ADDRESS}/squads`)
	const athlete = await page.getByRole('link', { name: 'Sefa Lindqvist' }).getAttribute('href')
	const bo = await page.getByRole('link', { name: 'Bo Hartigan' }).getAttribute('href')
	const shoot = async (name: string, to: string | null, size = DESK, prepare?: (at: Page) => Promise<void>) => {
		await page.setViewportSize(size)
		if (to !== null) await page.goto(`${ADDRESS}${to}`)
		await prepare?.(page)
		await page.waitForTimeout(500)
		await page.screenshot({ path: path.join(FOLDER, `${name}.png`) })
	}
	await shoot('today', '/')
	await shoot('sheet', sheet)
	await shoot('map', `${sheet}/map`)
	await shoot('review', review)
	await shoot('squads', '/squads')
	await shoot('athlete', athlete)
	const squad = await page
		.goto(`${ADDRESS}/squads`)
		.then(() => page.getByRole('link', { name: 'Drop and rebound' }).first().getAttribute('href'))
	await shoot('ladder', squad)
	await shoot('care', `${bo}/care`)
	await shoot(
		'week',
		`${squad?.replace(/ladders.*$/, '')}week?of=${addDays(new Date().toISOString().slice(0, 10), -7)}`,
	)
	await shoot('tests', `${squad?.replace(/ladders.*$/, '')}tests`)
	await shoot('plan', '/plan')
	const changed = await page
		.getByRole('link', { name: /^Open squad, \d weeks/ })
		.first()
		.getAttribute('href')
	await shoot('changed', changed, DESK, (at) =>
		at.getByRole('heading', { name: 'What changed' }).scrollIntoViewIfNeeded(),
	)
	await shoot('done', `${review?.replace(/review$/, 'done')}`)
	await shoot('block', '/plan/block', DESK, async (at) => {
		await at.getByLabel('Priority').selectOption({ label: 'sprint' })
		await at.getByRole('button', { name: 'throws', exact: true }).click()
		await at.getByText('Tests on the last hard day').click()
	})
	await shoot('builder', '/sessions/new', DESK, async (at) => {
		await at.getByLabel('Squad').selectOption({ label: 'Women’s squad' })
		await at.getByLabel('Day', { exact: true }).fill(addDays(new Date().toISOString().slice(0, 10), 19))
		await at.getByLabel('Minutes').fill('90')
		await at.getByRole('combobox', { name: 'About' }).selectOption({ label: 'Acceleration' })
		await at.getByRole('button', { name: 'Propose the session' }).click()
		await at.getByText('drills in').scrollIntoViewIfNeeded()
		await at.getByLabel('Part, entry 5', { exact: true }).focus()
		await at.getByRole('heading', { name: 'What you do, in order' }).evaluate((one) => one.scrollIntoView())
	})
	await shoot('library', '/library')
	const paste = (at: Page, label: string, text: string) =>
		at.getByLabel(label).evaluate((box, content) => {
			const clipboardData = new DataTransfer()
			clipboardData.setData('text', content)
			box.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
		}, text)
	const alive = (at: Page) =>
		at.waitForFunction(() => Object.keys(document.querySelector('main') ?? {}).some((key) => key.startsWith('__react')))
	await shoot('bench-profile', '/bench/sprint-profile', DESK, async (at) => {
		await alive(at)
		await paste(at, 'Distance, row 1', '5\t1.36\n10\t2.10\n20\t3.36\n30\t4.58\n40\t5.68')
	})
	const pad = page.getByRole('group', { name: 'Number pad' })
	const type = async (digits: string) => {
		for (const digit of digits) await pad.getByRole('button', { name: digit, exact: true }).click()
	}
	const pick = async (name: string) => {
		await page.getByRole('button', { name: 'Queue' }).click()
		await page.getByRole('dialog', { name: 'Queue' }).getByText(name, { exact: true }).click()
	}
	let taken = 0
	await shoot('field', field, PHONE, async (at) => {
		while (!(await at.locator('header').getByText('Acceleration', { exact: true }).isVisible()))
			await at.getByRole('button', { name: 'Drill after' }).click()
		for (const [ten, twenty] of [
			['226', '358'],
			['225', '357'],
			['227', '360'],
		] as const) {
			await pick('Sefa Lindqvist')
			await at.getByTestId('value-0').click()
			await type(ten)
			await at.getByRole('button', { name: 'Next', exact: true }).click()
			await type(twenty)
			await at.getByRole('button', { name: 'Save', exact: true }).click()
			await at
				.getByRole('region', { name: 'On the line' })
				.getByRole('heading')
				.filter({ hasNotText: 'Sefa Lindqvist' })
				.waitFor()
			taken += 1
		}
		await pick('Sefa Lindqvist')
		await at.getByTestId('value-0').click()
		await type('226')
		await at.getByRole('button', { name: 'Next', exact: true }).click()
		await type('35')
	})
	await shoot('field-pain', null, PHONE, async (at) => {
		await at.getByRole('button', { name: 'Pain' }).click()
		await at.getByRole('button', { name: 'back thigh' }).click()
		await at.getByRole('button', { name: 'left', exact: true }).click()
	})
	console.log(`pictures written; ${taken} marks of Sefa Lindqvist were logged on the demo session of today`)
	await browser.close()
}

await main()
