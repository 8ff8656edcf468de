import { randomUUID } from 'node:crypto'
import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { addDays } from '../../core/calendar/day-count'
import { readLines } from '../../db/queries/sessions'
import type { SessionDraft } from '../../core/vocabulary/session'
import { draftEntry } from '../support/draft-entry'
import { makeSecondClub } from '../support/second-club'
import { DEMO_SIGN_IN } from '../../server/demo/sign-in'
import { signIn, signInToDemo } from '../support/sign-in'
import { waking } from '../support/waking'

test('two clubs: no read crosses', async ({ app, page }) => {
	const other = await makeSecondClub()
	await signInToDemo(page, app)
	for (const path of [
		`/sessions/${other.firstSessionId}`,
		`/sessions/${other.firstSessionId}/review`,
		`/sessions/${other.firstSessionId}/change`,
		`/athletes/${other.athletes[0]!}`,
		`/athletes/${other.athletes[0]!}/care`,
		`/athletes/${other.athletes[0]!}/marks.csv`,
		`/squads/${other.squadId}/school`,
		`/squads/${other.squadId}/list`,
		`/squads/${other.squadId}/history`,
		`/squads/${other.squadId}/placing`,
	]) {
		for (const asked of [path, `${path}.data`]) {
			const answer = await page.request.get(asked)
			expect(answer.status(), asked).toBe(404)
			expect(await answer.text()).not.toContain('Second club')
		}
	}
	for (const path of ['/', '/squads', '/plan', '/review', '/club', '/sessions/new', '/library'])
		expect(await (await page.request.get(path)).text(), path).not.toContain('Athlete 1')
	// The same places, asked by the club's own coach, show what was looked for.
	await signIn(page, app, other.email)
	expect(await (await page.request.get(`/sessions/${other.firstSessionId}`)).text()).toContain('Athlete 1')
	expect(await (await page.request.get('/squads')).text()).toContain('Athlete 1')
})

test('two clubs: no write crosses; the very same request is taken from the club’s own coach', async ({ app, page }) => {
	const other = await makeSecondClub()
	const athleteId = other.athletes[0]!
	const [line] = await readLines(other.scope, [other.firstSessionId])
	const [verdict] = await app.rows(
		'select athlete_id as athleteId, ladder_id as ladderId, input_hash as hash from verdict where session_id = ? limit 1',
		[other.firstSessionId],
	)
	const today = new Date().toISOString().slice(0, 10)
	const draft = {
		squadId: other.squadId,
		day: addDays(today, 20),
		startTime: '17:30',
		title: 'Planted',
		place: '',
		surface: null,
		plannedMinutes: 60,
		role: 'hard',
		share: 1,
		athleteIds: [athleteId],
		entries: [draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 })],
	} satisfies SessionDraft
	const mark = {
		id: randomUUID(),
		sessionId: other.firstSessionId,
		athleteId,
		entryId: line!.entryId,
		lineId: line!.id,
		deviceId: randomUUID(),
		deviceSeq: 0,
		deviceTime: new Date().toISOString(),
		setNo: 1,
		repNo: 9,
		type: 'mark',
		kind: 'done',
		value: { reps: 1 },
	}
	const measured = {
		id: randomUUID(),
		athleteId,
		takenOn: addDays(today, -1),
		calculation: 'rebound',
		method: 'mat',
		input: { contact_time_s: 0.2, flight_time_s: 0.5 },
	}
	/** Where, what, and how it is refused for a stranger. */
	const writes: [path: string, body: { form?: Record<string, string>; data?: unknown }, refused: 'unknown' | object][] =
		[
			// Before a blow to the head closes everything.
			[
				`/squads/${other.squadId}/placing`,
				{
					form: {
						do: 'place',
						ladder: 'stiffness',
						[`${athleteId}/stiffness`]: 'step-and-stick',
						reason: 'as we began',
					},
				},
				'unknown',
			],
			[`/athletes/${athleteId}`, { form: { do: 'level', family: 'sprint', level: '3' } }, 'unknown'],
			[`/athletes/${athleteId}`, { form: { do: 'mass', mass: '70' } }, 'unknown'],
			[
				`/athletes/${athleteId}`,
				{ form: { do: 'report', kind: 'pain', region: 'knee', side: 'left', score: '2', moment: 'during' } },
				'unknown',
			],
			[`/athletes/${athleteId}`, { form: { do: 'contact', contact: 'Eve, 0555 010 020', version: '0' } }, 'unknown'],
			[
				`/athletes/${athleteId}`,
				{ form: { do: 'effort', session: other.firstSessionId, rpe: '7', minutes: '60' } },
				'unknown',
			],
			['/?index', { form: { do: 'report', athlete: athleteId, kind: 'head' } }, 'unknown'],
			[`/athletes/${athleteId}`, { form: { do: 'outside', kind: 'match', day: today, minutes: '90' } }, 'unknown'],
			[
				`/athletes/${athleteId}/care`,
				{
					form: {
						do: 'open',
						kind: 'restriction',
						region: 'knee',
						setBy: 'Eve',
						setByRole: 'physio',
						note: 'a hard landing',
					},
				},
				'unknown',
			],
			['/squads', { form: { do: 'phase', squad: other.squadId, phase: 'peaking' } }, 'unknown'],
			['/squads', { form: { do: 'outside', squad: other.squadId, kind: 'match', day: today } }, 'unknown'],
			['/squads', { form: { do: 'athletes', squad: other.squadId, names: 'Eve' } }, 'unknown'],
			[`/athletes/${athleteId}`, { form: { do: 'cause', session: other.firstSessionId, cause: 'match' } }, 'unknown'],
			[
				`/squads/${other.squadId}/history`,
				{
					form: {
						do: 'take',
						text: 'Athlete,Date,Drill,Result\nAthlete 1,2025-01-05,Standing start 10 m,1.9',
						looked: 'Athlete,Date,Drill,Result\nAthlete 1,2025-01-05,Standing start 10 m,1.9',
					},
				},
				'unknown',
			],
			[
				`/squads/${other.squadId}/tests`,
				{
					form: {
						do: 'add',
						name: 'Eve',
						every: 'week',
						drill: 'standing-start',
						amount: '10',
						method: 'gate',
						tries: '3',
						use: 'mean',
					},
				},
				'unknown',
			],
			[
				`/squads/${other.squadId}/trials`,
				{
					form: {
						do: 'open',
						question: 'Is it ours?',
						kind: 'cue',
						drill: 'standing-start',
						amount: '10',
						method: 'gate',
						reps: '2',
						wait: '0',
						athlete: athleteId,
					},
				},
				'unknown',
			],
			[
				`/athletes/${athleteId}`,
				{ form: { do: 'identity', name: 'Eve', birthDate: '', version: 'newest' } },
				'unknown',
			],
			[
				`/athletes/${athleteId}`,
				{ form: { do: 'away', awayFrom: addDays(today, 40), awayUntil: '', version: 'newest' } },
				'unknown',
			],
			[`/athletes/${athleteId}`, { form: { do: 'squads', squad: other.squadId, version: 'newest' } }, 'unknown'],
			[
				'/squads',
				{
					form: { do: 'details', squad: other.squadId, name: 'Eve', days: '1', startTime: '17:00', version: 'newest' },
				},
				'unknown',
			],
			[
				`/squads/${other.squadId}/list`,
				{ form: { do: 'take', text: 'Eve', looked: 'Eve', column: 'name' } },
				'unknown',
			],
			['/sessions/new', { data: { draft } }, 'unknown'],
			['/api/measurements', { data: measured }, { field: 'athleteId', reason: 'No such athlete.' }],
			[
				'/api/events',
				{ data: { events: [mark] } },
				{ answers: [{ id: mark.id, outcome: 'refused', field: 'sessionId', reason: 'no such session' }] },
			],
		]
	const send = async (path: string, body: { form?: Record<string, string>; data?: unknown }) => {
		// What somebody has typed over is told; here it is who may type at all.
		const kind = path === '/squads' ? 'squad' : 'athlete'
		const [seen] = await app.rows('select version from record_version where kind = ? and record_id in (?, ?)', [
			kind,
			athleteId,
			other.squadId,
		])
		const form = body.form?.version === 'newest' ? { ...body.form, version: String(seen?.version ?? 0) } : body.form
		return page.request.post(path, {
			...body,
			...(form ? { form } : {}),
			headers: { origin: app.address },
			maxRedirects: 0,
		})
	}
	/** Every row of the other club, and how many. */
	const held = async () => {
		const tables = await app.rows(
			"select table_name as name from information_schema.columns where table_schema = database() and column_name = 'club_id' order by 1",
		)
		const rows: Record<string, string[]> = {}
		for (const { name } of tables)
			rows[name] = (await app.rows(`select * from \`${name}\` where club_id = ?`, [other.scope.clubId])).map((row) =>
				JSON.stringify(row),
			)
		return rows
	}
	await signInToDemo(page, app)
	const before = await held()
	expect(Object.values(before).flat().length).toBeGreaterThan(100)
	for (const [path, body, refused] of writes) {
		const answer = await send(path, body)
		const what = `${path} ${JSON.stringify(body)}`
		if (refused === 'unknown') expect([400, 404], what).toContain(answer.status())
		else expect(await answer.json(), what).toEqual(refused)
	}
	// What was decided already and a line of a session that has begun are refused to anybody; to a stranger as unknown.
	const begun: [string, Record<string, string>][] = [
		[`/sessions/${other.firstSessionId}`, { do: 'dose', line: line!.id, sets: '1', reps: '1' }],
		[
			`/sessions/${other.firstSessionId}/review`,
			{ do: 'accept', row: `${verdict!.athleteId}/${verdict!.ladderId}/${verdict!.hash}` },
		],
	]
	for (const [path, form] of begun) expect((await send(path, { form })).status(), path).toBe(404)
	expect(await held()).toEqual(before)

	await signIn(page, app, other.email)
	for (const [path, body] of writes) {
		const answer = await send(path, body)
		expect([200, 202, 302], `${path} ${JSON.stringify(body)}: ${await answer.text()}`).toContain(answer.status())
		if (path === '/api/events') expect(await answer.json()).toEqual({ answers: [{ id: mark.id, outcome: 'accepted' }] })
	}
	for (const [path, form] of begun) expect((await send(path, { form })).status(), path).not.toBe(404)
	expect(await held()).not.toEqual(before)
})

test('strangers are sent to sign in, and writes from another site are refused', async ({ app, page, request }) => {
	for (const path of [
		'/',
		'/squads',
		'/plan',
		'/bench',
		'/bench/film',
		'/club',
		'/club/data',
		'/club/record',
		'/you',
		'/sign-out',
		'/library',
		'/sessions/new',
		'/review',
	]) {
		await page.goto(path)
		await expect(page, path).toHaveURL(/\/sign-in/)
	}
	// What a page fetches after its sign-in has ended leads back to it.
	for (const [fetched, back] of [
		['/_.data', '/sign-in'],
		['/squads.data', '/sign-in?to=%2Fsquads'],
		['/plan.data?from=2026-03-02', '/sign-in?to=%2Fplan%3Ffrom%3D2026-03-02'],
	] as const)
		expect(await (await request.get(fetched)).text(), fetched).toContain(`"${back}"`)
	for (const path of ['events', 'measurements'])
		expect(
			(await request.post(`/api/${path}`, { data: { events: [] }, headers: { origin: app.address } })).status(),
		).toBe(401)
	await signInToDemo(page, app)
	for (const headers of [{ origin: 'https://elsewhere.example' }, { origin: 'null' }]) {
		// The router refuses some of these itself with 400, ours the rest with 403.
		expect([400, 403]).toContain(
			(
				await page.request.post(`/squads`, {
					form: { do: 'squad', name: 'Planted', days: '1', startTime: '10:00' },
					headers,
				})
			).status(),
		)
		expect([400, 403]).toContain((await page.request.post(`/api/events`, { data: { events: [] }, headers })).status())
	}
	await page.goto(`/squads`)
	await expect(page.getByText('Planted')).toHaveCount(0)
})

test.describe('with all that a browser fetches', () => {
	test.use({ serviceWorkers: 'allow' })
	test('pages carry the security headers and run clean under them', async ({ app, page }) => {
		const complaints: string[] = []
		page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()))
		page.on('pageerror', (error) => complaints.push(String(error)))
		// By the form: the cookie it gives is looked at.
		await page.goto('/sign-in')
		await page.getByLabel('Email').fill(DEMO_SIGN_IN.email)
		await page.getByLabel('Password').fill(DEMO_SIGN_IN.password)
		await page.getByRole('button', { name: 'Sign in' }).click()
		await expect(page).toHaveURL(`${app.address}/`)
		const response = await page.goto('/')
		const headers = response?.headers() ?? {}
		expect(headers['content-security-policy']).toMatch(
			/default-src 'self'; script-src 'self' 'nonce-[\w+/=]+'; style-src 'self'; .*frame-ancestors 'none'/,
		)
		expect(headers['content-security-policy']).not.toContain('unsafe-eval')
		expect(headers['x-content-type-options']).toBe('nosniff')
		const cookie = (await page.context().cookies()).find((item) => item.name === 'dromos-sign-in')
		expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' })
		for (const path of ['/squads', '/plan', '/review', '/library', '/club']) await page.goto(path)
		expect(complaints).toEqual([])
	})
})

test('roles see and do what the table says', async ({ app, page }) => {
	// The assistant: plans and verdicts to read, no pain reports, no changes.
	await signInToDemo(page, app, 'assistant@demo.invalid')
	expect((await page.goto(`/sessions/new`))?.status()).toBe(403)
	await page.goto(`/squads`)
	await expect(page.getByText('Add athletes')).toHaveCount(0)
	await page.getByRole('link', { name: 'Teuila Novak' }).click()
	await expect(page.getByRole('heading', { name: /^Spare the left calf or Achilles/ })).toBeVisible()
	await expect(page.getByText('3 of 10')).toHaveCount(0)
	// What somebody does not trust is not the assistant's to read.
	await page.goto(`/squads`)
	await page.getByRole('link', { name: 'Nils Pereira' }).click()
	await expect(page.getByText(/worry/i)).toHaveCount(0)
	await page.goto(`/review`)
	await page.getByRole('listitem').filter({ hasText: 'Under 17' }).getByRole('link', { name: 'Review' }).click()
	await expect(page.getByText('kept for coach and clinician').first()).toBeVisible()
	await expect(page.getByText('left knee 3 of 10')).toHaveCount(0)
	await expect(page.getByRole('button', { name: /^Accept/ })).toHaveCount(0)

	// The athlete: the own page, and nobody else's.
	await page.context().clearCookies()
	await signInToDemo(page, app, 'ilka@demo.invalid')
	await page.goto('/')
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Ilka Moreau')
	const own = page.url()
	await page.getByText('Something hurts, or you are unwell').click()
	await page.getByLabel('Where it hurts').selectOption('shin')
	await page.getByRole('button', { name: 'Report' }).click()
	await expect(page.getByText('“”: a whole number from 0 to 10 is expected.')).toBeVisible()
	await page.getByLabel('Where it hurts').selectOption('shin')
	await page.getByLabel('How much, 0 to 10').selectOption('2')
	await page.getByRole('button', { name: 'Report' }).click()
	await expect(page.getByRole('listitem').filter({ hasText: 'left shin' }).filter({ hasText: 'of 10' })).toBeVisible()
	expect((await page.goto(`/club`))?.url()).toBe(own)
	expect(
		(
			await page.request.post(`/squads`, { form: { do: 'squad', name: 'Mine' }, headers: { origin: app.address } })
		).status(),
	).toBe(403)

	// Signing out ends it on the server, not only in the browser.
	const cookies = await page.context().cookies()
	await page.getByRole('button', { name: 'Sign out' }).first().click()
	await expect(page).toHaveURL(/sign-in/)
	await page.context().addCookies(cookies)
	await page.goto(own)
	await expect(page).toHaveURL(/sign-in/)
})

test('an invitation lets one person in', async ({ app, page, browser }) => {
	await signInToDemo(page, app)
	await page.goto(`/club`)
	await page.getByRole('button', { name: 'Make a link' }).click()
	const link = await page.getByTestId('invitation').textContent()
	const guest = waking(await browser.newPage())
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
