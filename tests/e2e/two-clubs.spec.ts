import { randomUUID } from 'node:crypto'
import { type Page, expect, test } from '@playwright/test'
import { readLines } from '../../db/queries/sessions'
import { eventsOfSessions } from '../../db/queries/log'
import { DEMO_SIGN_IN } from '../../server/demo/load-demo'
import { makeSecondClub } from '../support/second-club'
import { signIn } from '../support/sign-in'

const demo = () => process.env.DEMO_APP!
const asDemo = (page: Page, who = DEMO_SIGN_IN.email) => signIn(page, demo(), who, DEMO_SIGN_IN.password)

test('two clubs: no read and no write crosses', async ({ page }) => {
	const other = await makeSecondClub(process.env.DEMO_DATABASE!)
	const athleteId = other.athletes[0]!
	await asDemo(page)
	for (const path of [`/sessions/${other.firstSessionId}`, `/sessions/${other.firstSessionId}/review`, `/sessions/${other.firstSessionId}/change`, `/athletes/${athleteId}`]) {
		expect((await page.goto(`${demo()}${path}`))?.status(), path).toBe(404)
		expect((await page.request.get(`${demo()}${path}.data`)).status(), `${path}.data`).toBe(404)
		await expect(page.getByText('Second club')).toHaveCount(0)
	}
	for (const path of ['/', '/squads', '/plan', '/review', '/club', '/sessions/new']) {
		await page.goto(`${demo()}${path}`)
		await expect(page.getByText('Athlete 1', { exact: true })).toHaveCount(0)
	}

	const [line] = await readLines(other.scope, [other.firstSessionId])
	const before = (await eventsOfSessions(other.scope, [other.firstSessionId])).length
	const mark = { id: randomUUID(), sessionId: other.firstSessionId, athleteId, entryId: line!.entryId, lineId: line!.id, deviceId: randomUUID(), deviceSeq: 0, deviceTime: new Date().toISOString(), setNo: 1, repNo: 1, type: 'mark', kind: 'done', value: { reps: 1 } }
	const origin = { origin: demo() }
	const answer = await page.request.post(`${demo()}/api/events`, { data: { events: [mark] }, headers: origin })
	expect(await answer.json()).toEqual({ answers: [{ id: mark.id, outcome: 'refused', field: 'sessionId', reason: 'no such session' }] })
	for (const [path, form] of [
		[`/sessions/${other.firstSessionId}/review`, { do: 'accept', row: `${athleteId}/acceleration/x` }],
		[`/sessions/${other.firstSessionId}`, { line: line!.id, sets: '1', reps: '1' }],
		[`/athletes/${athleteId}`, { do: 'level', family: 'sprint', level: '3' }],
		[`/athletes/${athleteId}`, { do: 'clear', region: 'knee', clearedBy: 'Eve', role: 'physio' }],
		['/squads', { do: 'phase', squad: other.squadId, phase: 'peaking' }],
	] as const) {
		expect((await page.request.post(`${demo()}${path}`, { form, headers: origin })).status(), path).toBe(404)
	}
	const added = await page.request.post(`${demo()}/squads`, { form: { do: 'athletes', squad: other.squadId, names: 'Eve' }, headers: origin })
	expect(added.status()).toBe(400)
	const drafted = await page.request.post(`${demo()}/sessions/new`, {
		form: { draft: JSON.stringify({ squadId: other.squadId, day: '2026-03-12', startTime: '17:30', title: 'x', place: '', plannedMinutes: '60', athleteIds: [athleteId], entries: [{ part: 'x', pick: 'drill:pogo', sets: '1', reps: '1', restS: '0', distanceM: '', heightCm: '', angleDeg: '', ballKg: '', runInM: '' }] }) }, headers: origin,
	})
	expect(drafted.status()).toBe(400)
	const measured = { id: randomUUID(), athleteId, takenOn: '2026-03-01', calculation: 'rebound', method: 'mat', input: { contact_time_s: 0.2, flight_time_s: 0.5 } }
	expect(await (await page.request.post(`${demo()}/api/measurements`, { data: measured, headers: origin })).json()).toEqual({ field: 'athleteId', reason: 'No such athlete.' })
	expect((await eventsOfSessions(other.scope, [other.firstSessionId])).length).toBe(before)
})

test('strangers are sent to sign in, and writes from another site are refused', async ({ page, request }) => {
	for (const path of ['/', '/squads', '/plan', '/bench', '/bench/film', '/club', '/library', '/sessions/new', '/review']) {
		await page.goto(`${demo()}${path}`)
		await expect(page, path).toHaveURL(/\/sign-in/)
	}
	for (const path of ['events', 'measurements']) expect((await request.post(`${demo()}/api/${path}`, { data: { events: [] }, headers: { origin: demo() } })).status()).toBe(401)
	await asDemo(page)
	for (const headers of [{ origin: 'https://elsewhere.example' }, { origin: 'null' }]) {
		// The router refuses some of these itself with 400, ours the rest with 403.
		expect([400, 403]).toContain((await page.request.post(`${demo()}/squads`, { form: { do: 'squad', name: 'Planted', days: '1', startTime: '10:00' }, headers })).status())
		expect([400, 403]).toContain((await page.request.post(`${demo()}/api/events`, { data: { events: [] }, headers })).status())
	}
	await page.goto(`${demo()}/squads`)
	await expect(page.getByText('Planted')).toHaveCount(0)
})

test('pages carry the security headers and run clean under them', async ({ page }) => {
	const complaints: string[] = []
	page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()))
	page.on('pageerror', (error) => complaints.push(String(error)))
	await asDemo(page)
	const response = await page.goto(demo())
	const headers = response?.headers() ?? {}
	expect(headers['content-security-policy']).toMatch(/default-src 'self'; script-src 'self' 'nonce-[\w+/=]+'; style-src 'self'; .*frame-ancestors 'none'/)
	expect(headers['content-security-policy']).not.toContain('unsafe-eval')
	expect(headers['x-content-type-options']).toBe('nosniff')
	const cookie = (await page.context().cookies()).find((item) => item.name === 'dromos-sign-in')
	expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' })
	for (const path of ['/squads', '/plan', '/review', '/library', '/club']) await page.goto(`${demo()}${path}`)
	expect(complaints).toEqual([])
})

test('roles see and do what the table says', async ({ page }) => {
	// The assistant: plans and verdicts to read, no pain reports, no changes.
	await asDemo(page, 'assistant@demo.invalid')
	expect((await page.goto(`${demo()}/sessions/new`))?.status()).toBe(403)
	await page.goto(`${demo()}/squads`)
	await expect(page.getByText('Add athletes')).toHaveCount(0)
	await page.getByRole('link', { name: 'Nils Pereira' }).click()
	await expect(page.getByText('Spare the back thigh.')).toBeVisible()
	await expect(page.getByText('2 of 10')).toHaveCount(0)
	await page.goto(`${demo()}/review`)
	await page.getByRole('listitem').filter({ hasText: 'Under 17' }).getByRole('link', { name: 'Review' }).click()
	await expect(page.getByText('ask the coach').first()).toBeVisible()
	await expect(page.getByText('left knee 3 of 10')).toHaveCount(0)
	await expect(page.getByRole('button', { name: /^Accept/ })).toHaveCount(0)

	// The athlete: the own page, and nobody else's.
	await page.context().clearCookies()
	await asDemo(page, 'ilka@demo.invalid')
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Ilka Moreau')
	const own = page.url()
	await page.getByText('Report pain').click()
	await page.getByLabel('Where it hurts').selectOption('shin')
	await page.getByLabel('How much, 0 to 10').fill('eleven')
	await page.getByRole('button', { name: 'Report' }).click()
	await expect(page.getByText('“eleven”: a whole number from 0 to 10 is expected.')).toBeVisible()
	await page.getByLabel('Where it hurts').selectOption('shin')
	await page.getByLabel('How much, 0 to 10').fill('2')
	await page.getByRole('button', { name: 'Report' }).click()
	await expect(page.getByText('left shin')).toBeVisible()
	expect((await page.goto(`${demo()}/club`))?.url()).toBe(own)
	expect((await page.request.post(`${demo()}/squads`, { form: { do: 'squad', name: 'Mine' }, headers: { origin: demo() } })).status()).toBe(403)

	// Signing out ends it on the server, not only in the browser.
	const cookies = await page.context().cookies()
	await page.getByRole('button', { name: 'Sign out' }).first().click()
	await expect(page).toHaveURL(/sign-in/)
	await page.context().addCookies(cookies)
	await page.goto(own)
	await expect(page).toHaveURL(/sign-in/)
})

test('an invitation lets one person in', async ({ page, browser }) => {
	await asDemo(page)
	await page.goto(`${demo()}/club`)
	await page.getByRole('button', { name: 'Make a link' }).click()
	const link = await page.getByTestId('invitation').textContent()
	const guest = await browser.newPage()
	await guest.goto(link!)
	await expect(guest.getByRole('heading', { level: 1 })).toHaveText('Join Saltmarsh Ultimate')
	await guest.getByLabel('Your name').fill('Edda')
	await guest.getByLabel('Email').fill(`${randomUUID()}@example.org`)
	await guest.getByLabel('Password').fill('one more long one')
	await guest.getByRole('button', { name: 'Join' }).click()
	await expect(guest.getByRole('navigation', { name: 'Places' })).toBeVisible()
	expect((await guest.goto(link!))?.status()).toBe(404)
	await guest.close()
})
