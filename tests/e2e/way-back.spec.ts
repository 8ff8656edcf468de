import { randomUUID } from 'node:crypto'
import { type Browser, type Page, expect } from '@playwright/test'
import { type App, test } from '../support/app-test'
import { addDays } from '../../core/calendar/day-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { insertPerson } from '../../db/queries/clubs'
import { readLines } from '../../db/queries/sessions'
import { writeState } from '../../db/queries/squads'
import type { Role } from '../../db/schema/people'
import { draftEntry } from '../support/draft-entry'
import { FieldHand } from '../support/field-hand'
import { planSession } from '../support/plan-session'
import { signIn } from '../support/sign-in'
import { type TestClub, makeClub } from '../support/test-club'
import { waking } from '../support/waking'

test.use({ serviceWorkers: 'allow' })

// From a tap of pain to the first full sprint, in the browser, seen by whom it should be: knee 9 with a red flag on the
// phone, the clinician clears, sessions of the way back with one set-back and one gap of three weeks, and its end.
// Forward when a step was done and the athlete, asked, said 0; 3 or more one back; 15 to 28 days away one back; one
// step a path and day.

test.use({ filledWith: 'empty' })

const NAME = 'Athlete 1'
const today = new Date().toISOString().slice(0, 10)
const steps = Object.values(STARTER_LIBRARY.ladders)
	.filter((ladder) => ladder.path !== undefined)
	.flatMap((ladder) => ladder.rungs)

/** As many days go by: everything that was written moves back in the database, the clock stays. */
async function daysPass(app: App, days: number): Promise<void> {
	const columns = await app.rows(
		`select table_name as t, column_name as c from information_schema.columns
		where table_schema = database() and data_type in ('date', 'datetime')
			and table_name not in ('sign_in', 'sign_in_failure', 'submission') and table_name not like '\\_\\_%'`,
	)
	for (const { t, c } of columns)
		await app.rows(
			`update \`${t}\` set \`${c}\` = date_sub(\`${c}\`, interval ? day) where \`${c}\` is not null order by \`${c}\``,
			[days],
		)
	for (const row of await app.rows('select hex(athlete_id) as athlete, ladder_id as ladder, state from ladder_state')) {
		const state = (typeof row.state === 'string' ? row.state : JSON.stringify(row.state)).replace(
			/\d{4}-\d{2}-\d{2}/g,
			(day: string) => addDays(day, -days),
		)
		await app.rows('update ladder_state set state = ? where hex(athlete_id) = ? and ladder_id = ?', [
			state,
			row.athlete,
			row.ladder,
		])
	}
}

interface Story {
	app: App
	club: TestClub
	coach: Page
	assistant: Page
	clinician: Page
	own: Page
	phone: Page
}

async function begin(app: App, browser: Browser): Promise<Story> {
	const club = await makeClub('Club', 1, addDays(today, -1))
	const athlete = club.athletes[0]!
	for (const [ladderId, rungId] of [
		['acceleration', 'three-point-20'],
		['shock', 'pause-30'],
	] as const)
		await writeState(club.scope, athlete, startingAt(STARTER_LIBRARY, ladderId, rungId), addDays(today, -9), new Date())
	const page = async (role: Role, width = 1280): Promise<Page> => {
		const email = `${randomUUID()}@example.org`
		const athleteId = role === 'athlete' ? athlete : null
		const person = {
			id: randomUUID(),
			email,
			name: `The ${role}`,
			role,
			passwordHash: '-',
			athleteId,
			createdAt: new Date(),
		}
		await insertPerson(club.scope, person)
		const context = await browser.newContext({ baseURL: app.address, viewport: { width, height: 844 } })
		const opened = waking(await context.newPage())
		await signIn(opened, app, email)
		return opened
	}
	return {
		app,
		club,
		coach: await page('coach'),
		assistant: await page('assistant'),
		clinician: await page('clinician'),
		own: await page('athlete', 390),
		phone: await page('coach', 390),
	}
}

const athleteOf = ({ club }: Story) => `/athletes/${club.athletes[0]!}`

/** A session of today on both ladders, with the lines the athlete got. */
async function plan({ app, club }: Story) {
	// What a review has planned for the squad's next training day is not what this club does next.
	await app.rows('update session set day = ? where started_at is null', [addDays(today, -400)])
	const sessionId = await planSession(
		club,
		today,
		[
			...['acceleration', 'shock'].map((ladderId) =>
				draftEntry({ part: ladderId, ladderId, drillId: 'pogo', sets: 1, reps: 1, rest: 60 }),
			),
			// A drill for everybody, beside the steps.
			draftEntry({ part: 'Bounds', drillId: 'alternate-bounds', sets: 1, reps: 2, rest: 60 }),
		],
		{ startTime: '00:10', at: new Date() },
	)
	const lines = (await readLines(club.scope, [sessionId])).filter((line) => line.blocked === null)
	return { sessionId, lines }
}

/** Everything of the session done, as a phone sends it. */
async function doAll({ app, coach, club }: Story, { sessionId, lines }: Awaited<ReturnType<typeof plan>>) {
	const deviceId = randomUUID()
	const events = lines.map((line, deviceSeq) => ({
		id: randomUUID(),
		sessionId,
		athleteId: club.athletes[0]!,
		deviceId,
		deviceSeq,
		deviceTime: new Date().toISOString(),
		type: 'mark',
		kind: 'done',
		entryId: line.entryId,
		lineId: line.id,
		setNo: 1,
		repNo: 1,
		value: { reps: line.dose.sets * line.dose.reps },
	}))
	const answer = await coach.request.post('/api/events', { data: { events }, headers: { origin: app.address } })
	const { answers } = (await answer.json()) as { answers: { outcome: string }[] }
	expect(answers.map((one) => one.outcome)).toEqual(events.map(() => 'accepted'))
}

/** The phone asks once; one tap answers. */
async function answer({ phone }: Story, sessionId: string, score: number) {
	await phone.goto(`/field?session=${sessionId}`)
	await phone.getByRole('button', { name: 'Answer' }).click()
	const dialog = phone.getByRole('dialog', { name: `${NAME}: how was it?` })
	await dialog.getByRole('button', { name: String(score), exact: true }).click()
	// A 3 is a report: what it means is said there and then.
	if (score >= 2) await phone.getByRole('button', { name: 'Close' }).click()
	await expect(phone.getByRole('button', { name: 'Answer' })).toHaveCount(0)
	await expect(phone.getByLabel('Where the marks are')).toContainText(/^0 only on this device/, { timeout: 20_000 })
}

/** The coach accepts everything the review proposes. */
async function review({ coach }: Story, sessionId: string) {
	await coach.goto(`/sessions/${sessionId}/review`)
	await expect(coach.getByRole('heading', { level: 1 })).toBeVisible()
	const accept = coach.getByRole('button', { name: /^(Seen, accept|Accept)/ })
	for (let i = 0; i < 8 && (await accept.count()) > 0; i++) {
		const left = await accept.count()
		await accept.first().click()
		await expect(accept).not.toHaveCount(left)
	}
	await expect(coach.getByRole('heading', { level: 1 })).toHaveText(/All decided|Closed/)
}

test('from a tap of pain to the first full sprint', async ({ app, browser }) => {
	test.setTimeout(420_000)
	const story = await begin(app, browser)
	const { coach, assistant, clinician, own, phone } = story
	const athlete = athleteOf(story)
	const onPage = (page: Page) => page.locator('main')

	// Knee 9 with a red flag, without a connection.
	const first = await plan(story)
	await phone.goto(`/field?session=${first.sessionId}`)
	await expect(new FieldHand(phone, app).onTheLine()).toHaveText(NAME)
	await phone.context().setOffline(true)
	await phone.getByRole('button', { name: 'Pain' }).click()
	for (const tap of ['knee', 'left', '9']) await phone.getByRole('button', { name: tap, exact: true }).click()
	await phone.getByLabel('Sharp, gives way, locks or is numb').check()
	await phone.getByRole('button', { name: 'Save', exact: true }).click()
	await expect(phone.getByRole('alert')).toContainText('Left knee: all that loads it is over today.')
	await expect(phone.getByRole('group', { name: 'In an emergency' })).toContainText('nobody is on record')
	await phone.context().setOffline(false)
	await phone.getByRole('button', { name: 'Close' }).click()
	await new FieldHand(phone, app).allSafe()

	// The next day everybody sees what is closed, and only who may what was said.
	await daysPass(app, 1)
	for (const page of [coach, assistant, clinician, own]) {
		await page.goto(athlete)
		await expect(onPage(page)).toContainText('Closed until cleared: left knee')
	}
	await expect(onPage(clinician)).toContainText('9 of 10')
	await expect(onPage(own)).toContainText('9 of 10')
	await expect(onPage(assistant)).not.toContainText('of 10')
	const closed = await plan(story)
	for (const line of closed.lines)
		expect(STARTER_LIBRARY.drills[line.drillId!]!.regions.knee ?? 0, line.drillId!).toBe(0)

	// Cleared by name and role, by whom page and law allow; nobody else is even offered it.
	await daysPass(app, 4)
	await clinician.goto(athlete)
	await clinician.getByLabel('Cleared by').fill('H. Brekke')
	await clinician.getByLabel('Was it an injury').selectOption('yes')
	await clinician.getByRole('button', { name: 'Record', exact: true }).click()
	await expect(onPage(clinician)).toContainText('On the way back')
	await own.goto(athlete)
	await expect(own.getByRole('button', { name: 'Record', exact: true })).toHaveCount(0)

	// Days that went by, the answer, and the next step to run and to land.
	const sessions: [days: number, did: string, answer: number, run: string, land: string][] = [
		[1, 'Walk through the shapes', 0, 'Drills', 'Stick on one foot'],
		[3, 'Drills', 0, 'Run at 60 %', 'Pogo'],
		[3, 'Run at 60 %', 3, 'Drills', 'Stick on one foot'],
		[3, 'Drills', 0, 'Run at 60 %', 'Pogo'],
		[3, 'Run at 60 %', 0, 'Run at 70 %', 'Planned cut to 45°'],
		// Three weeks away: one back.
		[21, 'Run at 60 %', 0, 'Run at 70 %', 'Planned cut to 45°'],
		// The sharp cut is left out: it was never open to this athlete. The landing path ends before it.
		[3, 'Run at 70 %', 0, 'Run at 80 %', ''],
		[3, 'Run at 80 %', 0, 'Run at 90 %', ''],
		[3, 'Run at 90 %', 0, 'Run at 95 %', ''],
		[3, 'Run at 95 %', 0, 'Run at 100 %', ''],
	]
	for (const [index, [days, did, score, run, land]] of sessions.entries()) {
		// Who sees what hangs on the role and not on the step: the others look at a step forward, the set-back, the gap and the end.
		const isLookedAtByAll = [0, 2, 5, sessions.length - 1].includes(index)
		await daysPass(app, days)
		const session = await plan(story)
		const what = `${did}, ${days} days on`
		const walked = session.lines.flatMap((line) =>
			steps.filter((step) => step.id === line.rungId && step.drillId === line.drillId),
		)
		expect(walked.filter((step) => step.name === did).length, what).toBe(1)
		expect(walked.length, `${what}: one step a path`).toBeLessThanOrEqual(2)
		// What is written beside it is no step, and is not called one.
		expect(session.lines.filter((line) => steps.some((step) => step.id === line.rungId)).length, what).toBe(
			walked.length,
		)
		for (const line of session.lines) {
			const drill = STARTER_LIBRARY.drills[line.drillId!]!
			expect(
				drill.intensity === 'low' || walked.some((step) => step.drillId === drill.id),
				`${what}: ${drill.id}`,
			).toBe(true)
		}
		// The step stands once on the sheet, as its own line, for whoever plans and whoever helps.
		for (const page of isLookedAtByAll ? [coach, assistant] : [coach]) {
			await page.goto(`/sessions/${session.sessionId}`)
			await expect(page.getByRole('note', { name: 'Closed, spared, on the way back' })).toContainText(did)
		}
		await doAll(story, session)
		await answer(story, session.sessionId, score)
		await review(story, session.sessionId)
		for (const page of isLookedAtByAll ? [coach, assistant, clinician, own] : [coach]) {
			await page.goto(athlete)
			const back = page.locator('section').filter({ hasText: 'On the way back' }).first()
			await expect(back, what).toContainText(`Back to running: ${run}`)
			if (land !== '') await expect(back, what).toContainText(`Back to landing: ${land}`)
		}
		// What was answered is for who reads the body: day by day, never on an assistant's page.
		const newest = (page: Page) => page.getByRole('list', { name: 'Day by day' }).getByRole('listitem').first()
		for (const page of isLookedAtByAll ? [coach, clinician, own] : [coach])
			await expect(newest(page)).toContainText(`knee ${score}`)
		if (!isLookedAtByAll) continue
		await expect(onPage(assistant)).not.toContainText(/knee \d/)
		await expect(onPage(assistant)).not.toContainText('H. Brekke')
	}

	// The last step is the first full sprint; after it the ladders go on, lower and with a smaller dose.
	await daysPass(app, 3)
	const last = await plan(story)
	expect(last.lines.map((line) => line.rungId)).toContain('run-100')
	await doAll(story, last)
	await answer(story, last.sessionId, 0)
	await review(story, last.sessionId)
	for (const page of [coach, assistant, clinician, own]) {
		await page.goto(athlete)
		await expect(page.getByRole('heading', { level: 1 })).toHaveText(NAME)
		await expect(page.locator('section').filter({ hasText: 'On the way back' })).toHaveCount(0)
	}
	await expect(onPage(coach)).toContainText('at 60 %')
	// What opened and ended it stays to be read.
	await clinician.goto(`${athlete}/care`)
	await expect(onPage(clinician)).toContainText('Left knee closed')
	await expect(onPage(clinician)).toContainText('cleared by H. Brekke, physiotherapist')
	expect((await assistant.request.get(`${athlete}/care`)).status()).toBe(404)
})
