import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import { expect } from '@playwright/test'
import routes from '../../app/routes'
import { ROOT } from '../../scripts/root.mjs'
import { DEMO_SIGN_IN } from '../../server/demo/sign-in'
import { type App, test } from '../support/app-test'
import { makeSecondClub } from '../support/second-club'

/*
 * Who may read what, as it was decided, against every route there is: a route without a line here fails. And what nobody
 * should send, sent to every form by everybody.
 */

const STAFF = ['coach', 'assistant', 'clinician']
const ONE_OWN = ['athlete', 'guardian']
const EVERYBODY = [...STAFF, ...ONE_OWN]
const ROLES = [...EVERYBODY, 'stranger'] as const
type Role = (typeof ROLES)[number]

/** Who reads it; `own` is somebody’s own page, in the address of the athlete they are or answer for. */
const READ: Record<string, { by: readonly string[]; own?: true }> = {
	'/health': { by: [...ROLES] },
	'/': { by: STAFF },
	'/squads': { by: STAFF },
	'/squads/:squadId/ladders/:ladderId?': { by: STAFF },
	'/squads/:squadId/school': { by: ['coach'] },
	'/squads/:squadId/list': { by: ['coach'] },
	'/squads/:squadId/history': { by: ['coach'] },
	'/squads/:squadId/placing': { by: ['coach'] },
	'/squads/:squadId/week': { by: STAFF },
	'/squads/:squadId/tests': { by: STAFF },
	'/squads/:squadId/trials': { by: STAFF },
	'/squads/:squadId/sessions.ics': { by: STAFF },
	'/athletes/:athleteId': { by: STAFF, own: true },
	'/athletes/:athleteId/care': { by: ['coach', 'clinician'], own: true },
	'/athletes/:athleteId/marks.csv': { by: STAFF, own: true },
	'/athletes/:athleteId/data/:file': { by: ['coach'], own: true },
	'/plan': { by: STAFF },
	'/plan/block': { by: ['coach'] },
	'/plan/blocks/:blockId': { by: STAFF },
	'/sessions/new': { by: ['coach'] },
	'/sessions/pack': { by: ['coach'] },
	'/sessions/templates': { by: STAFF },
	'/sessions/:sessionId': { by: STAFF },
	'/sessions/:sessionId/flow': { by: STAFF },
	'/sessions/:sessionId/map': { by: STAFF },
	'/sessions/:sessionId/map.svg': { by: STAFF },
	'/sessions/:sessionId/card': { by: STAFF },
	'/sessions/:sessionId/change': { by: ['coach'] },
	'/sessions/:sessionId/done': { by: STAFF },
	'/sessions/:sessionId/for/:athleteId': { by: STAFF, own: true },
	'/sessions/:sessionId/review': { by: STAFF },
	'/review': { by: STAFF },
	'/bench': { by: STAFF },
	'/bench/:tool': { by: STAFF },
	'/library': { by: EVERYBODY },
	'/library/schools': { by: EVERYBODY },
	'/library/drills/:drillId': { by: EVERYBODY },
	'/library/ladders/:ladderId': { by: EVERYBODY },
	'/library/themes/:themeId': { by: EVERYBODY },
	'/keys': { by: EVERYBODY },
	'/you': { by: EVERYBODY },
	'/sign-out': { by: EVERYBODY },
	'/club': { by: STAFF },
	'/club/data': { by: ['coach'] },
	'/club/data/:file': { by: ['coach'] },
	'/club/record': { by: ['coach'] },
	// A shell without data: what it shows it asks for.
	'/field': { by: [...ROLES] },
	'/api/field': { by: ['coach', 'assistant'] },
	'/api/measurements': { by: ['coach', 'assistant'] },
	'/sign-in': { by: ['stranger'] },
	// By a code or a link alone, whoever holds it; nobody does here.
	'/first': { by: [] },
	'/join/:token': { by: [] },
	// These only take.
	'/api/events': { by: [] },
	'/api/field/changes': { by: [] },
	'/api/devices/:what': { by: [] },
}

interface Entry {
	path?: string
	index?: boolean
	file: string
	children?: unknown[]
}
/** Every route by its pattern, with the file that answers. */
const all = (entries: readonly Entry[] = routes): { pattern: string; file: string }[] =>
	entries.flatMap((entry) => [
		...(entry.path !== undefined || entry.index ? [{ pattern: `/${entry.path ?? ''}`, file: entry.file }] : []),
		...all((entry.children ?? []) as Entry[]),
	])

type Ids = Record<string, string>
async function idsOf(app: App): Promise<Ids> {
	const one = async (sql: string) => String((await app.rows(`${sql} limit 1`))[0]!.id)
	const sessionId = await one(
		'select id from session where started_at is not null and reviewed_at is null order by day',
	)
	const squadId = await one(`select squad_id as id from session where id = '${sessionId}'`)
	return {
		squadId,
		sessionId,
		athleteId: await one(`select athlete_id as id from session_athlete where session_id = '${sessionId}'`),
		blockId: await one('select id from block'),
		ladderId: 'acceleration',
		drillId: 'three-point-start',
		themeId: await one("select id from library_document where kind = 'theme'"),
		tool: 'film',
		file: 'athletes.csv',
		token: 'none',
		what: 'pair',
	}
}
const at = (pattern: string, ids: Ids) =>
	(pattern.endsWith('/data/:file') && pattern.startsWith('/athletes')
		? pattern.replace(':file', 'all.json')
		: pattern
	).replaceAll(/:(\w+)\??/g, (_, name: string) => ids[name] ?? 'none') +
	(pattern === '/sessions/pack' ? `?squad=${ids.squadId}&day=2027-01-04&time=17:00&athletes=${ids.athleteId}` : '')

/** Asks the application as one person does; led elsewhere, the answer is that. */
type Asks = (
	place: string,
	sent?: { body: string | URLSearchParams; headers?: Record<string, string> },
) => Promise<Response>
const asking =
	(app: App, cookie: string): Asks =>
	(place, sent) =>
		fetch(`${app.address}${place}`, {
			redirect: 'manual',
			...(sent ? { method: 'POST', body: sent.body } : {}),
			headers: { cookie, origin: app.address, ...sent?.headers },
		})

/** Somebody of each role, signed in; the athlete and the guardian are of the same athlete. */
async function everybody(app: App, ids: Ids): Promise<Record<Role, Asks>> {
	const [coach] = await app.rows('select club_id, password_hash from person where email = ?', [DEMO_SIGN_IN.email])
	const people: Partial<Record<Role, Asks>> = { stranger: asking(app, '') }
	for (const role of ROLES) {
		if (role === 'stranger') continue
		const email = `${role}.walls@demo.invalid`
		await app.rows(
			'insert into person (club_id, id, email, name, role, password_hash, athlete_id, created_at) values (?, ?, ?, ?, ?, ?, ?, now(3))',
			[
				coach!.club_id,
				randomUUID(),
				email,
				role,
				role,
				coach!.password_hash,
				ONE_OWN.includes(role) ? ids.athleteId : null,
			],
		)
		const signed = await people.stranger!('/sign-in', {
			body: new URLSearchParams({ email, password: DEMO_SIGN_IN.password }),
		})
		expect(signed.status, role).toBe(302)
		people[role] = asking(app, signed.headers.get('set-cookie')!.split(';')[0]!)
	}
	return people as Record<Role, Asks>
}

test('every route is read by who may read it and by nobody else', async ({ app }) => {
	const ids = await idsOf(app)
	const people = await everybody(app, ids)
	const other = await makeSecondClub()
	const stranger = String(
		(
			await app.rows('select id from athlete where id <> ? and club_id <> ? limit 1', [
				ids.athleteId,
				other.scope.clubId,
			])
		)[0]!.id,
	)
	const aheadId = String(
		(await app.rows('select id from session where started_at is null and squad_id = ? limit 1', [ids.squadId]))[0]!.id,
	)
	const wrong: string[] = []
	for (const { pattern } of all()) {
		const rule = READ[pattern]
		expect(rule, `${pattern} has no rule in this test`).toBeDefined()
		for (const role of ROLES) {
			const read = async (path: string) => {
				const answer = await people[role]!(path)
				await answer.arrayBuffer()
				return answer.status
			}
			const own = rule!.own === true && ONE_OWN.includes(role)
			const may = rule!.by.includes(role) || own
			const address = at(pattern, pattern.endsWith('/change') ? { ...ids, sessionId: aheadId } : ids)
			const status = await read(address)
			if ((status === 200) !== may || status >= 500) wrong.push(`${role} ${pattern}: ${status}`)
			// Somebody's own page is theirs, and no other athlete's.
			if (own) {
				const others = await read(at(pattern, { ...ids, athleteId: stranger }))
				if (others === 200) wrong.push(`${role} ${pattern} of another athlete: ${others}`)
			}
			// What travels behind a page keeps to the same.
			if (!may && !pattern.includes('.') && !pattern.startsWith('/api')) {
				const path = at(pattern, ids)
				const behind = await read(path === '/' ? '/_.data' : `${path}.data`)
				if (behind === 200) wrong.push(`${role} ${pattern}.data: ${behind}`)
			}
		}
	}
	expect(wrong).toEqual([])
})

/** The forms of a page, by the names that it hands to its handlers. */
const formsOf = (file: string): string[] => [
	...new Set(
		[...readFileSync(path.join(ROOT, 'app', file), 'utf8').matchAll(/^\t\t'?([a-z][a-z-]*)'?: (?:async )?\(/gm)].map(
			([, name]) => name!,
		),
	),
]
const NASTY = [
	'__proto__',
	'constructor',
	'toString',
	randomUUID(),
	'2026-13-45',
	'-1',
	'𝒳\ud800',
	"'; drop table mark; --",
]
/** Bodies that are no form. */
const NO_FORMS = ['null', '[]', '"x"', '{"__proto__":{"a":1},"constructor":{"prototype":{}}}', '{', '\u0000']
const READ_FROM: readonly Role[] = ['stranger', 'coach']
/** Whom to call is theirs to write, also that it is nobody. */
const OWN_FORMS: Partial<Record<Role, string[]>> = { athlete: ['contact'], guardian: ['contact'] }
const FIELDS =
	'id personId groundId deviceId invitationId athlete athleteId squad squadId session sessionId mark line drill drillId ladder ladderId rung block blockId school theme version name title day to from startTime place role kind region side score mass level phase reason note text typed looked units old fresh signIn value choice amount method tries use document'.split(
		' ',
	)

test('whatever anybody sends to any form is answered with a sentence, and who may not write has written nothing', async ({
	app,
}) => {
	test.setTimeout(240_000)
	const ids = await idsOf(app)
	const people = await everybody(app, ids)
	/** Of all tables but those in which a request itself is noted. */
	const NOTED = ['sign_in', 'sign_in_failure', 'known_device', 'deed', 'submission', 'change_count']
	const tables = (await app.rows('show tables'))
		.map((row) => String(Object.values(row)[0]))
		.filter((table) => !NOTED.includes(table))
	const sums = async () =>
		Object.fromEntries(
			(await app.rows(`checksum table ${tables.map((table) => `\`${table}\``).join(', ')}`)).map((row) => [
				String(row.Table).split('.')[1],
				row.Checksum as number,
			]),
		)
	const takes = all().filter(({ file }) => /function action/.test(readFileSync(path.join(ROOT, 'app', file), 'utf8')))
	expect(takes.length).toBeGreaterThan(30)
	const wrong: string[] = []
	let count = 0
	for (const role of ['stranger', 'guardian', 'athlete', 'clinician', 'assistant', 'coach'] as const) {
		const before = await sums()
		const sendAll = async ({ pattern, file }: (typeof takes)[number]) => {
			const place = at(pattern, ids)
			// As a page sends it; a browser without scripts gets a whole page back, which each page writes for `READ_FROM`.
			const behind = place === '/' ? '/_.data' : `${place}.data`
			const answered = async (what: string, to: string, sent: Parameters<Asks>[1]) => {
				count++
				const answer = await people[role]!(to, sent)
				await answer.arrayBuffer()
				if (answer.status >= 500) wrong.push(`${role} ${pattern} ${what}: ${answer.status}`)
			}
			const isApi = pattern.startsWith('/api/')
			// How a body is read does not hang on who sent it: a stranger is turned away, and who may most has it read.
			for (const body of READ_FROM.includes(role) ? NO_FORMS : [])
				await answered(`JSON ${body}`, isApi ? place : behind, {
					body,
					headers: { 'content-type': 'application/json' },
				})
			if (isApi) return
			// What a coach may do with names of forms that are none is nothing.
			const forms = [
				'__proto__',
				'constructor',
				'hasOwnProperty',
				'',
				...(role === 'coach' ? [] : formsOf(file)),
			].filter((form) => !OWN_FORMS[role]?.includes(form))
			// Each field in turn gets each of them; two forms are enough for two of every field, of who has something to write.
			for (const form of forms)
				for (const turn of STAFF.includes(role) ? [0, 1] : [0])
					await answered(
						`${form}, turn ${turn}`,
						form === '' && turn === 0 && READ_FROM.includes(role) ? place : behind,
						{
							body: new URLSearchParams({
								...Object.fromEntries(
									FIELDS.map((name, index) => [name, NASTY[(index + turn + form.length) % NASTY.length]!]),
								),
								do: form,
							}),
						},
					)
		}
		// Each form gets its own one after another; the forms wait for nothing of each other.
		await Promise.all(takes.map(sendAll))
		expect(await sums(), `${role} has written something`).toEqual(before)
	}
	expect(wrong).toEqual([])
	expect(count).toBeGreaterThan(1500)
})
