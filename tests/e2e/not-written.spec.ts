import { type Page, expect } from '@playwright/test'
import { test } from '../support/app-test'
import { addDays } from '../../core/calendar/day-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { writeLevel, writeState } from '../../db/queries/squads'
import { coachOf } from '../support/coach-of'
import { draftEntry } from '../support/draft-entry'
import { FieldHand } from '../support/field-hand'
import { planSession } from '../support/plan-session'
import type { TestClub } from '../support/test-club'
import { waking } from '../support/waking'

test.use({ serviceWorkers: 'allow' })

// What must not stand on a sheet, looked for where a coach would read it. Everything belongs to the athlete and the
// moment, never to a ladder, a session or a screen.

test.use({ filledWith: 'empty' })

const today = new Date().toISOString().slice(0, 10)
const tomorrow = addDays(today, 1)

const session = (
	club: TestClub,
	day: string,
	entries: Pick<Parameters<typeof draftEntry>[0], 'part' | 'ladderId' | 'drillId' | 'parameters'>[],
) =>
	planSession(
		club,
		day,
		entries.map((entry) => draftEntry({ ...entry, sets: 1, reps: 4, rest: 60 })),
		{ startTime: '00:10', at: new Date() },
	)
const ladder = (ladderId: string) => ({ part: ladderId, ladderId, drillId: 'pogo' })
const drill = (drillId: string, parameters: object = {}) => ({ part: drillId, drillId, parameters })
const place = (club: TestClub, at: number, ladderId: string, rungId: string) =>
	writeState(
		club.scope,
		club.athletes[at]!,
		startingAt(STARTER_LIBRARY, ladderId, rungId),
		addDays(today, -9),
		new Date(),
	)

async function report(page: Page, who: string, kind: string, more: { region?: string; score?: string } = {}) {
	await page.goto('/')
	await page.getByText('Somebody reports pain or illness').click()
	await page.getByLabel('Who').selectOption(who)
	await page.getByLabel('What it is').selectOption(kind)
	if (more.region) await page.getByLabel('Where it hurts').selectOption(more.region)
	if (more.score) await page.getByLabel('How much, 0 to 10').selectOption(more.score)
	await page.getByRole('button', { name: 'Report', exact: true }).click()
	await expect(page.getByRole('button', { name: 'Report', exact: true })).toBeHidden()
}
/** The lines of one athlete on a sheet, as they are read. */
const linesOf = async (page: Page, sessionId: string, club: TestClub, at: number): Promise<string> => {
	await page.goto(`/athletes/${club.athletes[at]!}`)
	const now = page.locator('section').filter({ has: page.getByRole('heading', { name: /^Now/ }) })
	await expect(now).toBeVisible()
	const own = await now.innerText()
	await page.goto(`/sessions/${sessionId}`)
	await expect(page.getByRole('heading', { name: 'What everybody does' })).toBeVisible()
	return own
}

test('a blow to the head closes everything, on every ladder and drill', async ({ app, page }) => {
	const club = await coachOf(page, app, 2)
	for (const id of ['acceleration', 'shock', 'throw'])
		await place(club, 0, id, STARTER_LIBRARY.ladders[id]!.rungs[2]!.id)
	const next = await session(club, tomorrow, [ladder('acceleration'), ladder('shock'), ladder('throw'), drill('pogo')])
	await report(page, club.athletes[0]!, 'head')
	const band = page.getByRole('region', { name: 'Closed, spared, on the way back' })
	await expect(band).toContainText('Everything closed since')
	const own = await linesOf(page, next, club, 0)
	expect(own.match(/everything closed/gi)?.length).toBe(3)
	await expect(page.getByRole('note', { name: 'Closed, spared, on the way back' })).toContainText(
		'Athlete 1 (everything, since',
	)
	await expect(page.getByRole('note', { name: 'Closed, spared, on the way back' })).not.toContainText('Athlete 2')
})

test('what is asked of everybody passes each athlete’s gates and the school’s caps', async ({ app, page }) => {
	const club = await coachOf(page, app, 2)
	for (const id of club.athletes)
		for (const family of ['sprint', 'plyometric'] as const) await writeLevel(club.scope, id, family, 2)
	const next = await session(club, tomorrow, [
		drill('depth-jump', { heightCm: 75 }),
		drill('assisted-fly', { assistPercent: 20 }),
	])
	await page.goto(`/sessions/${next}`)
	const sheet = page.locator('main')
	await expect(page.getByRole('heading', { name: 'What everybody does' })).toBeVisible()
	await expect(sheet).not.toContainText('75 cm')
	await expect(sheet).not.toContainText('20 % over')
})

test('two sore regions close two, and clearing one leaves the other', async ({ app, page }) => {
	const club = await coachOf(page, app, 2)
	await place(club, 0, 'acceleration', 'three-point-10')
	await report(page, club.athletes[0]!, 'pain', { region: 'knee', score: '6' })
	await report(page, club.athletes[0]!, 'pain', { region: 'calf', score: '7' })
	await app.rows('update care_event set day = date_sub(day, interval 1 day)')
	await page.goto(`/athletes/${club.athletes[0]!}`)
	const closed = (name: string) => page.locator('section').filter({ hasText: `Closed until cleared: left ${name}` })
	await expect(closed('calf or Achilles')).toBeVisible()
	await closed('knee').getByLabel('Cleared by').fill('H. Brekke')
	await closed('knee').getByRole('button', { name: 'Record' }).click()
	await expect(closed('knee')).toHaveCount(0)
	await expect(closed('calf or Achilles')).toBeVisible()
	await page.goto('/')
	await expect(page.getByRole('region', { name: 'Closed, spared, on the way back' })).toContainText(
		'Left calf or Achilles closed since',
	)
})

test('six weeks away begin with the first step, whatever was earned before', async ({ app, page }) => {
	const club = await coachOf(page, app, 2, addDays(today, -42))
	for (const at of [0, 1]) await place(club, at, 'acceleration', 'three-point-20')
	const next = await session(club, tomorrow, [ladder('acceleration')])
	const own = await linesOf(page, next, club, 0)
	expect(own).toContain('Walk through')
	expect(own).not.toContain('Three-point start')
})

test('a session without ladders: the phone stops, whatever its clock says, and review and Today know', async ({
	app,
	browser,
	page,
}) => {
	const club = await coachOf(page, app, 2)
	const running = await session(club, today, [drill('pogo'), drill('standing-start')])
	const context = await browser.newContext({
		baseURL: app.address,
		viewport: { width: 390, height: 844 },
		storageState: await page.context().storageState(),
	})
	const phone = waking(await context.newPage())
	// A clock that is ten years slow orders what this phone says, and decides nothing else.
	await phone.clock.install({ time: new Date(Date.now() - 3652 * 86_400_000) })
	await phone.goto(`/field?session=${running}`)
	const hand = new FieldHand(phone, app)
	await expect(hand.onTheLine()).toHaveText('Athlete 1')
	await phone.getByRole('button', { name: 'Pain' }).click()
	for (const tap of ['knee', 'left', '9']) await phone.getByRole('button', { name: tap, exact: true }).click()
	await phone.getByLabel('Sharp, gives way, locks or is numb').check()
	await phone.getByRole('button', { name: 'Save', exact: true }).click()
	await expect(phone.getByRole('alert')).toContainText('Left knee: all that loads it is over today.')
	await phone.getByRole('button', { name: 'Close' }).click()
	await hand.pick('Athlete 1')
	await expect(hand.suggestion()).toContainText('Stop here.')
	await expect(hand.suggestion()).not.toContainText('One more')
	await expect.poll(() => app.rows("select kind from observation where kind = 'pain'")).toHaveLength(1)

	await page.goto('/')
	await expect(page.getByRole('region', { name: 'Closed, spared, on the way back' })).toContainText(
		'Left knee closed since',
	)
	await page.goto(`/sessions/${running}/review`)
	await expect(page.getByRole('region', { name: /^Closed, spared, said today/ })).toContainText('Left knee closed')
	await page.getByRole('button', { name: 'Seen, close the session' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Closed')
	await page.goto(`/athletes/${club.athletes[0]!}/care`)
	await expect(page.getByRole('heading', { name: 'Stands in the way' })).toBeVisible()
	await expect(page.locator('main')).toContainText('Left knee: nothing that loads it until cleared')
})

test('a thirteen-year-old is written no rebound from a box, and judged by none', async ({ app, page }) => {
	const club = await coachOf(page, app, 2)
	await app.rows('update athlete_identity set birth_date = ? where athlete_id = ?', [
		addDays(today, -13 * 366),
		club.athletes[0]!,
	])
	for (const at of [0, 1]) await place(club, at, 'shock', 'depth-30')
	const next = await session(club, tomorrow, [ladder('shock'), drill('depth-jump', { heightCm: 30 })])
	const own = await linesOf(page, next, club, 0)
	expect(own).not.toContain('Depth jump')
	expect(await linesOf(page, next, club, 1)).toContain('Depth jump')
})
