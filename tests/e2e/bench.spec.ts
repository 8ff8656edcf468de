import path from 'node:path'
import { type Page, expect } from '@playwright/test'
import { test } from '../support/app-test'
import { signInToDemo } from '../support/sign-in'

const FILMS = path.resolve('tests/fixtures/film')

async function open(page: Page, tool: string): Promise<void> {
	await page.goto(`/bench/${tool}`)
	await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
	// What is typed before the page has come alive would be lost.
	await expect(page.getByRole('link', { name: 'Bench' }).first()).toBeVisible()
	await page.waitForFunction(() =>
		Object.keys(document.querySelector('main') ?? {}).some((key) => key.startsWith('__react')),
	)
}
const paste = (page: Page, label: string, text: string) =>
	page.getByLabel(label).evaluate((box, content) => {
		const clipboardData = new DataTransfer()
		clipboardData.setData('text', content)
		box.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
	}, text)
/** The number under a label of the results. */
const number = (page: Page, label: string) =>
	page
		.locator('div', { has: page.getByText(label, { exact: true }) })
		.last()
		.locator('.num')

test.beforeEach(async ({ app, page }) => {
	await signInToDemo(page, app)
})

test('a sprint profile from pasted splits, kept with an athlete over a lost connection, and taken back', async ({
	page,
	context,
}) => {
	await open(page, 'sprint-profile')
	// Splits of MSS 9 m/s and TAU 1.2 s, to the hundredth, decimal commas as a sheet gives them.
	await paste(page, 'Distance, row 1', '5\t1,35\n10\t2,09\n20\t3,35\n30\t4,51\n40\t5,63')
	await expect(number(page, 'Top speed, MSS')).toHaveText(/^(8\.9|9\.0)\d m\/s$/)
	await expect(number(page, 'Time constant, TAU')).toHaveText(/^1\.[12]\d s$/)
	await expect(page.getByText('No segment stands out from your own curve')).toBeVisible()
	await expect(page.getByRole('img', { name: /Speed over distance: the fitted curve/ })).toBeVisible()

	await page.getByLabel('Time, row 4').fill('3.20')
	await expect(page.getByText('Row 4: Expected more than 3.35 s, the split before.')).toBeVisible()
	await page.getByLabel('Time, row 4').fill('4.60')
	await expect(page.getByText(/20–30 m is 0\.0\d s slower than your own curve/)).toBeVisible()
	await page.getByText('Force and power too').click()
	await page.getByLabel('Body mass').fill('70')
	await page.getByLabel('Height').fill('175')
	await expect(number(page, 'Force at no speed, F0')).toHaveText(/N\/kg$/)

	await page.reload()
	await expect(page.getByLabel('Time, row 4')).toHaveValue('4.60')

	await page.getByRole('combobox', { name: 'Athlete' }).selectOption({ index: 1 })
	const name = (await page.getByRole('combobox', { name: 'Athlete' }).locator('option:checked').textContent())!
	await context.setOffline(true)
	await page.getByRole('button', { name: 'Keep' }).click()
	await expect(page.getByRole('alert')).toContainText('no connection')
	await expect(page.getByLabel('Time, row 4')).toHaveValue('4.60')
	await context.setOffline(false)
	await page.getByRole('button', { name: 'Keep' }).click()
	await expect(page.getByText(`Kept with ${name}`)).toBeVisible()
	await page.getByRole('button', { name: 'Keep' }).click()
	await expect(page.getByText(`Kept with ${name}`)).toBeVisible()

	await page.getByRole('link', { name }).click()
	await expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
	const bench = page.locator('section').filter({ has: page.getByRole('heading', { name: 'Measured at the bench' }) })
	const kept = bench.getByRole('listitem').filter({ hasText: 'Sprint profile:' })
	await expect(kept).toHaveCount(1)
	await expect(kept).toContainText('top speed, TAU')
	await kept.getByRole('button', { name: /Take back/ }).click()
	await expect(kept).toHaveCount(0)
})

test('the film stepper finds the known contact, at its true rate and slowed', async ({ app, page }) => {
	const posts: string[] = []
	page.on('request', (request) => {
		if (request.method() !== 'GET') posts.push(request.url())
	})
	/** Looks at the picture itself: is the foot on the ground line? */
	const footDown = () =>
		page.evaluate(() => {
			const canvas = document.createElement('canvas')
			canvas.width = 160
			canvas.height = 120
			const pen = canvas.getContext('2d')!
			pen.drawImage(document.querySelector('video')!, 0, 0, 160, 120)
			return pen.getImageData(80, 85, 1, 1).data[0]! > 128
		})
	const output = page.locator('output[aria-label=Frame]')
	/** One frame on with the key, until the picture is there. */
	const on = async () => {
		const now = Number(/\d+/.exec((await output.textContent())!)![0])
		await page.keyboard.press('ArrowRight')
		await expect(output).toContainText(`frame ${now + 1} `)
	}
	const goTo = async (to: number) => {
		await page.getByRole('slider', { name: 'Frame' }).fill(String(to))
		await expect(output).toContainText(`frame ${to} `)
	}
	const stepUntil = async (down: boolean) => {
		for (let i = 0; i < 20 && (await footDown()) !== down; i++) await on()
		expect(await footDown()).toBe(down)
	}
	for (const [file, stored] of [
		['hops-240.mp4', '240'],
		['hops-240-stored-at-30.mp4', '30'],
	] as const) {
		await open(page, 'film')
		await page.locator('input[type=file]').setInputFiles(path.join(FILMS, file))
		await expect(page.getByLabel('Stored at')).toHaveValue(stored)
		await page.getByLabel('Filmed at').fill('240')
		await page.getByRole('heading', { level: 1 }).click()
		for (const [near, down, key] of [
			[19, true, 'd'],
			[55, false, 'o'],
			[163, true, 'd'],
			[199, false, 'o'],
		] as const) {
			await goTo(near)
			await stepUntil(down)
			await page.keyboard.press(key)
		}
		await expect(page.getByRole('listitem').filter({ hasText: /^24Touchdown/ })).toBeVisible()
		await expect(page.getByRole('listitem').filter({ hasText: /^204Toe-off/ })).toBeVisible()
		// Contact 36 frames and flight 108 frames of a film taken at 240: 150 ms and 450 ms; error 1/(240·√6) s.
		const row = page.getByRole('row').nth(1)
		await expect(row).toContainText('150')
		await expect(row).toContainText('450')
		await expect(row).toContainText('24.8')
		await expect(page.getByText('± 1.7 ms')).toBeVisible()
		await page.getByLabel('Filmed at').fill('120')
		await expect(row).toContainText('300')
		await page.getByLabel('Filmed at').fill('240')
	}
	await expect(output).toContainText('frame 204 ')
	const contacts = page.getByRole('region', { name: 'Keep with an athlete' })
	await contacts.getByRole('combobox', { name: 'Athlete' }).selectOption({ index: 2 })
	expect(posts).toEqual([])
	await contacts.getByRole('button', { name: 'Keep' }).click()
	await expect(page.getByText(/^Kept with/)).toBeVisible()
	// One contact has a flight after it; what went out is its two times, not the film.
	expect(posts).toEqual([`${app.address}/api/measurements`])

	// Angles on the frame that is seen, also on a picture twice as large: a trunk at 45°, a shin that is upright.
	await page.getByLabel('Zoom').selectOption('2')
	await page.getByRole('button', { name: 'Angles on this frame' }).click()
	const panel = page.getByRole('region', { name: 'Angles on a frame' })
	// Its upper left corner, whatever the zoom shows of it.
	await page.getByRole('heading', { level: 1 }).scrollIntoViewIfNeeded()
	const frame = (await page.locator('video').locator('..').locator('..').boundingBox())!
	const middle = { x: frame.width / 2, y: frame.height / 2 }
	// 17 of the film's pixels: shorter limbs have no slope.
	const unit = frame.height / 3.5
	for (const [joint, across, up] of [
		['shoulder', 1, 1.5],
		['hip', 0, 0.5],
		['knee', 0, -0.5],
		['ankle', 0, -1.5],
	] as const) {
		await expect(panel).toContainText(`Click the ${joint}`)
		await page.mouse.click(frame.x + middle.x + across * unit, frame.y + middle.y - up * unit)
	}
	for (const said of ['45 °', '0 °', '180 °']) await expect(panel.getByText(said, { exact: true })).toBeVisible()
	const angles = page.getByRole('region', { name: 'Keep the angles with an athlete' })
	// It is of a rep that was run today.
	const [rep] = await app.rows(
		`select mark.id as id, athlete_identity.name as name from mark join session on session.id = session_id
			join athlete_identity on athlete_identity.athlete_id = mark.athlete_id
			where session.day = ? and mark.kind = 'sprint' limit 1`,
		[new Date().toISOString().slice(0, 10)],
	)
	await angles.getByRole('combobox', { name: 'Athlete' }).selectOption({ label: String(rep!.name) })
	await angles.getByLabel('Of which rep').selectOption(String(rep!.id))
	await angles.getByRole('button', { name: 'Keep' }).click()
	await expect(angles.getByText(/^Kept with/)).toBeVisible()
	const [kept] = await app.rows("select mark_id as rep, input from measurement where calculation = 'posture'")
	expect(kept!.rep).toBe(rep!.id)
	const [{ sessionId }] = (await app.rows('select session_id as sessionId from mark where id = ?', [rep!.id])) as [
		{ sessionId: string },
	]
	await page.goto(`/sessions/${sessionId}/done`)
	await expect(page.getByText(/film: trunk 45°, shin 0°, knee 180°/).first()).toBeVisible()
})

test('a file that is no film gets a sentence with what plays', async ({ page }) => {
	await open(page, 'film')
	await page
		.locator('input[type=file]')
		.setInputFiles({ name: 'notes.mov', mimeType: 'video/quicktime', buffer: Buffer.from('this is no film') })
	await expect(page.getByRole('alert')).toContainText('This browser cannot play notes.mov. It plays ')
	await expect(page.getByRole('alert')).toContainText('WebM with VP9')
})

test('every other tool answers', async ({ page }) => {
	await page.goto(`/bench`)
	await expect(page.getByRole('main').getByRole('listitem')).toHaveCount(12)

	await open(page, 'contact')
	await paste(page, 'Box, row 1', '20 138 402\n40 147 470\n60 181 512')
	await expect(number(page, 'Best box')).toHaveText('40 cm')
	await page.getByLabel('Contact goal').fill('130')
	await expect(number(page, 'Best box')).toHaveText(/^none/)
	await expect(page.getByText('not yet sprint-relevant')).toBeVisible()

	const fill = async (boxes: Record<string, string>) => {
		for (const [label, text] of Object.entries(boxes)) await page.getByLabel(label, { exact: false }).first().fill(text)
	}
	await open(page, 'steps')
	await fill({ Distance: '100', Time: '9,85', 'Steps counted': '45' })
	await expect(number(page, 'Step frequency')).toHaveText('4.57 a second')

	await open(page, 'resisted')
	await paste(page, 'Load, row 1', '0 9\n20 7,5\n40 6')
	await fill({ 'Wanted loss of speed': '25' })
	await expect(number(page, 'Load for 25 % slower')).toHaveText('30.0 kg')
	await fill({ 'Wanted loss of speed': '60' })
	await expect(page.getByText('kg, extrapolated')).toBeVisible()

	await open(page, 'assisted')
	await fill({ 'Own top speed': '9' })
	await expect(number(page, 'Speed to aim at')).toHaveText('9.27 m/s')
	await fill({ 'Faster by': '8' })
	await expect(page.getByRole('alert')).toContainText('at most 0.06, the cap in force')

	await open(page, 'carried')
	await paste(page, 'Mass, row 1', '400 40 3,03\n400 80 3,12')
	await expect(page.getByRole('row').filter({ hasText: '400 g at 80 cm' })).toContainText('0.256')
	await expect(page.getByRole('row').filter({ hasText: '400 g at 40 cm' })).toContainText('25 %')

	await open(page, 'plants')
	await fill({ 'Height, both feet, standing': '50', 'Height, left': '40', 'Height, right': '48' })
	await expect(page.getByText('Left lags.')).toBeVisible()

	await open(page, 'turn')
	await fill({ '505, turning left': '2.40', '505, turning right': '2.50', '10 m straight': '1.80' })
	await expect(number(page, 'A turn right costs')).toHaveText('0.70 s')

	await page.getByText('Braking and reacting').click()
	await fill({
		'Speed before braking': '60',
		'Distance to the stop': '4',
		'Path, planned': '2.6',
		'Same path, reactive': '2.9',
	})
	await expect(page.getByText('Expected a number above 0 and at most 13 m/s.')).toBeVisible()
	await expect(number(page, 'Reading and deciding costs')).toHaveText('0.30 s')
	await fill({ 'Speed before braking': '6' })
	await expect(number(page, 'Mean braking')).toHaveText('4.5 m/s²')

	await open(page, 'curve')
	await fill({ Radius: '20', Speed: '8' })
	await expect(number(page, 'Lean from the vertical')).toHaveText('18 °')

	await open(page, 'throw')
	await fill({ Distance: '10', 'Release height': '0', 'Release angle': '45', Ball: '2' })
	await expect(number(page, 'Release speed')).toHaveText('9.9 m/s')
	await expect(number(page, 'Energy of the ball')).toHaveText('98 J')

	await open(page, 'wickets')
	await expect(number(page, 'First to last wicket')).toHaveText('18.90 m')
	await page.getByLabel('Squad').selectOption({ index: 1 })
	await expect(page.getByRole('heading', { name: /^Lane \d/ })).toHaveCount(3)
	await page.getByLabel('Lanes').fill('2')
	await expect(page.getByRole('heading', { name: /^Lane \d/ })).toHaveCount(2)
})

test('an athlete is shown the way from the bench to the own page', async ({ app, page }) => {
	await page.context().clearCookies()
	await signInToDemo(page, app, 'ilka@demo.invalid')
	await page.goto(`/bench`)
	await expect(page).toHaveURL(/\/athletes\//)
})
