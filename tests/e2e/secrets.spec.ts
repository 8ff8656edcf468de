import { randomUUID } from 'node:crypto'
import { type Page, expect } from '@playwright/test'
import { BODY_KINDS } from '../../core/vocabulary/event-kinds'
import { REGION_NAMES } from '../../core/vocabulary/words'
import { type App, test } from '../support/app-test'
import { signInToDemo } from '../support/sign-in'

/*
 * What nobody but coach, clinician, the athlete and the guardian reads: planted in every place it can be kept, and
 * looked for in everything that every role is sent: pages, the data behind them, packs, changes, prints, files.
 */

const SECRETS = {
	painNote: 'planted-note-of-a-pain',
	careNote: 'planted-note-of-a-restriction',
	worryNote: 'planted-note-of-a-worry',
	illnessNote: 'planted-note-of-an-illness',
	headNote: 'planted-note-of-a-head',
	setBy: 'Ottoline Vex-Planted',
	clearedBy: 'Quillon Marsh-Planted',
	overrule: 'planted-reason-of-the-coach',
	birthDate: '1999-08-17',
	mass: '83.7',
}

interface Planted {
	athleteId: string
	otherId: string
	sessionId: string
	squadId: string
	pastId: string
}

/** Everything that can be known of a body, said of one athlete of the session that nobody has begun. */
async function plant(page: Page, app: App): Promise<Planted> {
	const [session] = await app.rows(
		'select id, squad_id as squadId from session where started_at is null order by day, start_time limit 1',
	)
	const [past] = await app.rows(
		'select id from session where squad_id = ? and reviewed_at is null and started_at is not null order by day desc limit 1',
		[session!.squadId],
	)
	const people = await app.rows(
		'select athlete_id as id from session_athlete where session_id = ? and athlete_id not in (select athlete_id from person where athlete_id is not null)',
		[session!.id],
	)
	const [athleteId, otherId] = [String(people[0]!.id), String(people[1]!.id)]
	await app.rows('update athlete_identity set birth_date = ? where athlete_id = ?', [SECRETS.birthDate, athleteId])
	await app.rows('update athlete set mass_kg = ? where id = ?', [SECRETS.mass, athleteId])
	await signInToDemo(page, app)
	const post = async (path: string, form: Record<string, string>) => {
		const answer = await page.request.post(`${app.address}${path}`, { form, headers: { origin: app.address } })
		expect(answer.status(), `${path} ${form.do} ${form.kind ?? ''}`).toBe(200)
	}
	const said = {
		sessionId: String(past?.id ?? session!.id),
		athleteId,
		deviceId: randomUUID(),
		deviceTime: new Date().toISOString(),
		type: 'observation',
	}
	const events = [
		{
			kind: 'pain',
			value: { region: 'knee', side: 'left', score: 4, moment: 'during', redFlag: false, note: SECRETS.painNote },
		},
		{ kind: 'unwell', value: { note: SECRETS.illnessNote } },
		{ kind: 'quiet', value: { region: 'hip', side: 'left', score: 3 } },
	].map((one, deviceSeq) => ({ ...said, ...one, id: randomUUID(), deviceSeq }))
	const sent = await page.request.post(`${app.address}/api/events`, {
		data: { events },
		headers: { origin: app.address },
	})
	expect(JSON.stringify(await sent.json())).not.toContain('refused')
	const care = `/athletes/${athleteId}/care`
	const restriction = { do: 'open', kind: 'restriction', setBy: SECRETS.setBy, setByRole: 'physiotherapist' }
	await post(care, { ...restriction, region: 'wrist', pattern: '', note: SECRETS.careNote })
	await post(care, { do: 'open', kind: 'worry', drillId: 'pogo', region: 'calf', note: SECRETS.worryNote })
	await post(care, { ...restriction, region: 'shoulder', pattern: '', note: SECRETS.careNote })
	await post(`/athletes/${athleteId}`, {
		do: 'clear',
		region: 'shoulder',
		side: '',
		clearedBy: SECRETS.clearedBy,
		role: 'doctor',
		injury: 'yes',
	})
	return {
		athleteId,
		otherId,
		sessionId: String(session!.id),
		squadId: String(session!.squadId),
		pastId: String(past?.id ?? session!.id),
	}
}

/** Every place that is about athletes; each page with the data that travels behind it. */
function places({ athleteId, otherId, sessionId, squadId, pastId }: Planted): string[] {
	const pages = [
		'/',
		'/squads',
		`/squads/${squadId}/ladders`,
		`/squads/${squadId}/ladders/shock`,
		`/squads/${squadId}/school`,
		`/squads/${squadId}/list`,
		`/squads/${squadId}/history`,
		`/squads/${squadId}/placing`,
		`/squads/${squadId}/week`,
		`/squads/${squadId}/tests`,
		`/squads/${squadId}/trials`,
		`/athletes/${athleteId}`,
		`/athletes/${athleteId}/care`,
		`/athletes/${otherId}`,
		'/plan',
		'/plan/block',
		'/review',
		'/bench',
		'/club',
		'/club/data',
		'/club/record',
		'/you',
		'/sign-out',
		...[sessionId, pastId].flatMap((id) =>
			['', '/flow', '/map', '/card', '/change', '/review', '/done', `/for/${athleteId}`].map(
				(part) => `/sessions/${id}${part}`,
			),
		),
	]
	return [
		...pages,
		...pages.map((page) => (page === '/' ? '/_.data' : `${page}.data`)),
		'/api/field',
		`/api/field?session=${pastId}`,
		`/sessions/pack?squad=${squadId}`,
		'/sessions/templates',
		`/squads/${squadId}/sessions.ics`,
		`/sessions/${sessionId}/map.svg`,
		`/athletes/${athleteId}/marks.csv`,
		`/athletes/${otherId}/marks.csv`,
	]
}

async function seen(
	page: Page,
	app: App,
	planted: Planted,
	asked: string[] = places(planted),
): Promise<Map<string, string>> {
	const texts = new Map<string, string>()
	for (const place of asked) {
		const answer = await page.request.get(`${app.address}${place}`)
		texts.set(place, answer.url().includes(place.split('?')[0]!) ? await answer.text() : '')
	}
	for (const id of [planted.sessionId, planted.pastId]) {
		const answer = await page.request.post(`${app.address}/api/field/changes`, {
			data: { sessionId: id, since: null, seen: [], deviceId: null },
			headers: { origin: app.address },
		})
		texts.set(`changes ${id}`, await answer.text())
	}
	return texts
}

/** Scores, kinds of report and dates have no words of their own to look for: how they are said, and how they are keyed. */
const TELLS: RegExp[] = [
	new RegExp(`(${Object.values(REGION_NAMES).join('|')}) (10|[0-9]) of 10`, 'i'),
	/(discomfort of (10|[0-9])(?! or more)|pain (10|[0-9]) of)\b/i,
	...BODY_KINDS.map((kind) => new RegExp(`"kind":"${kind}"`)),
	/unwell since/i,
	/a worry about(?! this movement)/i,
	/years old/,
	/\b\d\d years\b/,
]

test('nothing planted reaches who may not read it, on any page, in any data, pack or file', async ({ app, page }) => {
	// Every page, pack and file, asked by every role.
	test.setTimeout(300_000)
	const planted = await plant(page, app)

	// The coach and the clinician find it, or this test could not fail.
	for (const email of [undefined, 'physio@demo.invalid']) {
		await signInToDemo(page, app, email)
		const own = [
			`/athletes/${planted.athleteId}`,
			`/athletes/${planted.athleteId}/care`,
			`/sessions/${planted.pastId}/review`,
		]
		const all = [...(await seen(page, app, planted, own)).values()].join('\n')
		for (const [name, secret] of Object.entries(SECRETS))
			if (!['overrule', 'headNote', 'mass', 'birthDate'].includes(name)) expect(all, name).toContain(secret)
		for (const tell of TELLS.slice(0, 1)) expect(all).toMatch(tell)
	}

	for (const email of ['assistant@demo.invalid', 'ilka@demo.invalid']) {
		await signInToDemo(page, app, email)
		const texts = await seen(page, app, planted)
		// An assistant is answered with most of it, the places included.
		if (email.startsWith('assistant')) {
			expect([...texts.values()].filter((text) => text.length > 500).length).toBeGreaterThan(25)
			expect(texts.get(`/athletes/${planted.athleteId}`)).toMatch(/left knee/i)
			expect(texts.get('/api/field')).toContain('"limits"')
		}
		const own = email.startsWith('ilka')
		const leaks = [...texts].flatMap(([place, text]) => [
			...Object.entries(SECRETS).flatMap(([name, secret]) => (text.includes(secret) ? [`${name} at ${place}`] : [])),
			// An athlete's own page tells their own body.
			...(own ? [] : TELLS).flatMap((tell) => {
				const found = tell.exec(text)
				return found ? [`“${text.slice(Math.max(0, found.index - 60), found.index + 40)}” at ${place}`] : []
			}),
			...(own && text.includes(planted.athleteId) ? [`another athlete at ${place}`] : []),
		])
		expect(leaks, email).toEqual([])
	}
})
