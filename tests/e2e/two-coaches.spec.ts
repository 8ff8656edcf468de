import { randomUUID } from 'node:crypto'
import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { addDays } from '../../core/calendar/day-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { draftEntry } from '../support/draft-entry'
import { makeSecondClub } from '../support/second-club'
import { signIn } from '../support/sign-in'
import { waking } from '../support/waking'

test.use({ filledWith: 'empty' })

test('a double press is one: every form that makes something, sent twice at once and once more', async ({
	app,
	page,
}) => {
	const club = await makeSecondClub()
	await signIn(page, app, club.email)
	const [athleteId] = club.athletes
	const today = new Date().toISOString().slice(0, 10)
	const draft = {
		squadId: club.squadId,
		day: addDays(today, 30),
		startTime: '17:30',
		title: 'Twice',
		place: '',
		surface: null,
		plannedMinutes: 60,
		role: 'hard',
		share: 1,
		athleteIds: club.athletes,
		entries: [draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 })],
	}
	const { id: _id, ...entry } = draft.entries[0]!
	const template = { format: 'dromos-session', version: 2, name: 'Twice', minutes: 60, entries: [entry] }
	const drill = { ...STARTER_LIBRARY.drills.pogo!, id: 'own-hop', name: 'Own hop', version: 1 }
	/** Where, what, and the table it adds to, by how many rows. */
	const forms: [path: string, body: { form?: Record<string, string>; data?: object }, table: string, rows?: number][] =
		[
			['/squads', { form: { do: 'squad', name: 'Twice', days: '1', startTime: '17:30', place: '' } }, 'squad'],
			['/squads', { form: { do: 'athletes', squad: club.squadId, names: 'Eve\nFay' } }, 'athlete', 2],
			['/sessions/new', { data: { draft } }, 'session'],
			['/sessions/templates', { form: { template: JSON.stringify(template) } }, 'session_template'],
			['/library/drills/new', { form: { document: JSON.stringify(drill) } }, 'library_document'],
			[
				`/athletes/${athleteId}`,
				{ form: { do: 'report', kind: 'pain', region: 'knee', side: 'left', score: '2', moment: 'during' } },
				'care_event',
			],
			['/?index', { form: { do: 'report', athlete: athleteId!, kind: 'soreness', region: 'calf' } }, 'care_event'],
			[`/athletes/${athleteId}`, { form: { do: 'outside', kind: 'gym', day: today, minutes: '60' } }, 'outside_load'],
			[
				`/athletes/${athleteId}/care`,
				{
					form: {
						do: 'open',
						kind: 'restriction',
						region: 'knee',
						setBy: 'H. Brekke',
						setByRole: 'physio',
						note: 'a hard landing',
					},
				},
				'care_record',
			],
			['/club', { form: { do: 'ground', name: 'Yard', lengthM: '40', widthM: '20', surface: 'gravel' } }, 'ground'],
			['/club', { form: { do: 'invite', role: 'assistant' } }, 'invitation'],
		]
	const count = async (table: string) =>
		Number((await app.rows(`select count(*) as n from \`${table}\` where club_id = ?`, [club.scope.clubId]))[0]!.n)
	for (const [path, { form, data }, table, rows = 1] of forms) {
		const submission = randomUUID()
		const send = () =>
			page.request.post(path, {
				...(form ? { form: { submission, ...form } } : { data: { submission, ...data } }),
				headers: { origin: app.address },
				maxRedirects: 0,
			})
		const before = await count(table)
		const answers = [...(await Promise.all([send(), send()])), await send()]
		for (const answer of answers) {
			expect([200, 202, 302], `${path} ${table}: ${await answer.text()}`).toContain(answer.status())
			expect(answer.headers().location ?? '').toBe(answers[0]!.headers().location ?? '')
		}
		expect((await count(table)) - before, `${path} → ${table}`).toBe(rows)
	}
})

test('two coaches change one session, one athlete and one school: nobody’s typing is lost', async ({
	app,
	page,
	browser,
}) => {
	const club = await makeSecondClub()
	await signIn(page, app, club.email)
	const other = waking(await (await browser.newContext({ baseURL: app.address })).newPage())
	await signIn(other, app, club.email)
	const both = (path: string) => Promise.all([page.goto(path), other.goto(path)])

	await page.goto('/sessions/new')
	await page.getByLabel('Title').fill('Shared')
	const search = page.getByRole('combobox', { name: 'Add a drill or a ladder' })
	await search.fill('pogo')
	await search.press('Enter')
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Squad, shared')
	const sheet = page.url()
	await both(`${sheet}/change`)
	await page.getByLabel('Title').fill('From the desk')
	await page.getByRole('button', { name: 'Save the change' }).click()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Squad, from the desk')
	await other.getByLabel('Title').fill('From the phone')
	await other.getByLabel('Place', { exact: true }).fill('By the sea')
	await other.getByRole('button', { name: 'Save the change' }).click()
	const note = other.getByRole('alert')
	await expect(note).toContainText('saved this on')
	await expect(note.getByRole('row', { name: 'Title' })).toContainText('From the desk')
	await expect(note.getByRole('row', { name: 'Title' })).toContainText('From the phone')
	// What was typed stands, and nothing of the first is gone.
	await expect(other.getByLabel('Place', { exact: true })).toHaveValue('By the sea')
	await page.reload()
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Squad, from the desk')
	await note.getByRole('button', { name: 'Save mine over it' }).click()
	await expect(other.getByRole('heading', { level: 1 })).toHaveText('Squad, from the phone')

	await both(`/athletes/${club.athletes[0]}`)
	const mass = (at: typeof page) => at.getByLabel('Body mass, kg')
	const save = (at: typeof page) => mass(at).locator('xpath=ancestor::form').getByRole('button').first().click()
	await mass(page).fill('71')
	await save(page)
	await expect
		.poll(async () => (await app.rows('select mass_kg from athlete where id = ?', [club.athletes[0]]))[0]!.mass_kg)
		.toBe('71.0')
	await mass(other).fill('68,5')
	await save(other)
	await expect(other.getByRole('alert')).toContainText('71 kg')
	await expect(mass(other)).toHaveValue('68,5')
	await other.getByRole('link', { name: 'Take theirs' }).click()
	await expect(mass(other)).toHaveValue('71')

	await both(`/squads/${club.squadId}/school`)
	await page.getByLabel(/^Growth from week to week/).fill('12')
	await page
		.getByRole('button', { name: /^Use|^Keep|^Put|school$/ })
		.last()
		.click()
	await expect(page.getByRole('status')).toContainText('is in force')
	await other.getByLabel(/^Growth from week to week/).fill('18')
	await other
		.getByRole('button', { name: /^Use|^Keep|^Put|school$/ })
		.last()
		.click()
	await expect(other.getByRole('alert')).toContainText('12 %')
	await expect(other.getByLabel(/^Growth from week to week/)).toHaveValue('18')
	await other.getByRole('button', { name: 'Save mine over it' }).click()
	await expect(other.getByRole('status')).toContainText('is in force')
})
