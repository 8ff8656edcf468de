import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { signInToDemo } from '../support/sign-in'
import { waking } from '../support/waking'

const ASSISTANT = 'assistant@demo.invalid'
const FRESH = 'violin harbour spoon'

test('who forgot their password gets a link from the coach; who is signed in elsewhere ends it, and both stand in the record', async ({
	app,
	page,
	browser,
}) => {
	const other = waking(await (await browser.newContext()).newPage())
	await signInToDemo(other, app, ASSISTANT)
	await signInToDemo(page, app)
	await page.goto(`${app.address}/club`)
	await page.getByLabel('Change Dov Ferrand').click()
	await page.getByRole('button', { name: 'Link for a new password, Dov Ferrand' }).click()
	const link = (await page.getByTestId('password-link').textContent())!.trim()
	// Whoever holds the link, on any browser.
	const holder = waking(await (await browser.newContext()).newPage())
	await holder.goto(link)
	await holder.getByLabel('Password').fill('assistant@demo.invalid')
	await holder.getByRole('button', { name: 'Set it and sign in' }).click()
	await expect(holder.getByText('It is made of your own address or name. Choose another.')).toBeVisible()
	await holder.getByLabel('Password').fill(FRESH)
	await holder.getByRole('button', { name: 'Set it and sign in' }).click()
	await expect(holder).toHaveURL(`${app.address}/`)
	await other.goto(`${app.address}/squads`)
	await expect(other).toHaveURL(/sign-in/)
	expect((await holder.goto(link))!.status()).toBe(404)

	await other.getByLabel('Email').fill(ASSISTANT)
	await other.getByLabel('Password').fill(FRESH)
	await other.getByRole('button', { name: 'Sign in' }).click()
	await expect(other).toHaveURL(`${app.address}/squads`)
	await holder.goto(`${app.address}/you`)
	await expect(holder.getByText('Signed in on 2 devices')).toBeVisible()
	await holder.getByRole('button', { name: 'Sign out there' }).click()
	await expect(holder.getByText('Signed out there.')).toBeVisible()
	await other.goto(`${app.address}/squads`)
	await expect(other).toHaveURL(/sign-in/)
	await holder.getByLabel('The one you have').fill(FRESH)
	await holder.getByLabel('The new one').fill('another four word one')
	await holder.getByRole('button', { name: 'Change it' }).click()
	await expect(holder.getByText('Changed. You are signed out everywhere else.')).toBeVisible()

	await page.goto(`${app.address}/club/record`)
	for (const words of [
		'Marit Solano made a link for a new password of Dov Ferrand',
		'Dov Ferrand set a new password by a link',
		'Dov Ferrand changed their password',
	])
		await expect(page.getByText(words)).toBeVisible()
})

test('an athlete is erased: every page goes on without the name, and who was signed in as them is out at once', async ({
	app,
	page,
	browser,
}) => {
	await signInToDemo(page, app)
	const [ilka] = await app.rows("select athlete_id as id, name from athlete_identity where name = 'Ilka Moreau'")
	const own = waking(await (await browser.newContext()).newPage())
	await signInToDemo(own, app, 'ilka@demo.invalid')
	await page.goto(`${app.address}/athletes/${ilka!.id}`)
	const taken = await page.request.get(`${app.address}/athletes/${ilka!.id}/data/all.json`)
	expect(((await taken.json()) as { athlete: { name: string } }).athlete.name).toBe('Ilka Moreau')
	await page.getByText('Erase them', { exact: true }).click()
	await page.getByLabel('Their whole name, typed').fill('Ilka')
	await page.getByRole('button', { name: 'Erase', exact: true }).click()
	await expect(page.getByText('Type the whole name, “Ilka Moreau”, to erase them.')).toBeVisible()
	await page.getByLabel('Their whole name, typed').fill('Ilka Moreau')
	await page.getByRole('button', { name: 'Erase', exact: true }).click()
	await expect(page).toHaveURL(/\/squads$/)
	await expect(page.getByText('Ilka Moreau')).toHaveCount(0)

	await own.goto(`${app.address}/you`)
	await expect(own).toHaveURL(/sign-in/)
	const sessions = await app.rows(
		'select s.id, s.started_at is not null as begun, s.reviewed_at is not null as reviewed, s.squad_id as squadId from session s join session_athlete a on a.session_id = s.id where a.athlete_id = ?',
		[ilka!.id],
	)
	expect(sessions.length).toBeGreaterThan(10)
	expect(sessions.filter(({ begun }) => !begun)).toEqual([])
	const [block] = await app.rows('select id from block where squad_id = ? limit 1', [sessions[0]!.squadId])
	const places = [
		'/',
		'/plan',
		'/review',
		'/club/data/all.json',
		`/athletes/${ilka!.id}`,
		`/athletes/${ilka!.id}/care`,
		`/athletes/${ilka!.id}/data/all.json`,
		`/plan/blocks/${block!.id}`,
		...['week', 'tests', 'trials', 'placing', 'school'].map((one) => `/squads/${sessions[0]!.squadId}/${one}`),
		...sessions.flatMap(({ id }) => [
			`/sessions/${id}`,
			`/sessions/${id}/done`,
			`/sessions/${id}/review`,
			`/sessions/${id}/card`,
		]),
	]
	for (const place of places) {
		const answer = await page.request.get(`${app.address}${place}`)
		expect(answer.status(), place).toBe(200)
		expect(await answer.text(), place).not.toContain('Ilka Moreau')
	}
	// Nothing more is written of them from a desk either.
	for (const [place, form] of [
		['', { do: 'contact', contact: 'Somebody' }],
		['', { do: 'identity', name: 'Ilka Moreau', birthDate: '' }],
		[
			'/care',
			{
				do: 'open',
				kind: 'restriction',
				setBy: 'Somebody',
				setByRole: 'doctor',
				region: 'knee',
				pattern: '',
				note: '',
			},
		],
	] as const) {
		const answer = await page.request.post(`${app.address}/athletes/${ilka!.id}${place}`, {
			form,
			headers: { origin: app.address },
		})
		expect(answer.status(), place + form.do).toBe(410)
	}
	expect(await app.rows('select 1 from care_record where athlete_id = ?', [ilka!.id])).toEqual([])
})
