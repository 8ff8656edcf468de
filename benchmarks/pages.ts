import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { addDays, mondayOf } from '../core/calendar/day-count'
import { defaultPhases, defaultShape } from '../core/plan/block'
import { connect } from '../db/connect'
import { migrateDatabase } from '../db/migrate'
import { loadDemo } from '../server/demo/load-demo'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'
import { YOUNG, fillBigClub, withTwins } from './big-club'
import { type Measure, Site, doneMarks, withBench } from './site'

/** What a row may take at a million marks, ms, on two quiet cores. Kept beside the figure: a row over it is marked. */
const BUDGET_MS: Record<string, number> = {
	today: 400,
	plan: 600,
	squads: 200,
	'squad on a ladder': 200,
	athlete: 400,
	care: 200,
	sheet: 300,
	flow: 300,
	review: 600,
	'form of a session': 200,
	'pack of a session': 600,
	club: 100,
	library: 150,
	'field pack': 1000,
	'25 marks': 200,
	'a verdict accepted': 300,
	'the review with it': 600,
	'48 verdicts in one press': 800,
	'ten sessions for twelve': 2000,
	'ten sessions for all': 4000,
}
/** Pages of which the first look after a change is measured, too. */
const WORKED_OUT = ['today', 'plan', 'squads', 'athlete', 'care', 'sheet', 'review', 'field pack']
/** Those that a coach goes to and fro between: worked out behind an edit, before somebody looks. */
const KEPT_UP = ['today', 'plan', 'athlete', 'sheet', 'review']
/** After an edit: two rounds of a second, then the six pages looked at last one after another, each with a pause behind it. */
const KEPT_UP_WITHIN_MS = 6000
const RUNS = 5
/** Of pages that are kept: enough to say what one look in twenty takes. */
const LOOKS = 20
/** Verdicts that are accepted in one press. */
const AT_ONCE = 48
/** What twins bring of their past: all that judging reads of a session. */
const WEEKS_BEHIND = 12

/**
 * Presses of “Accept” on a session that waits for its review: what is answered, and what the browser then fetches to
 * show it. Put back afterwards, so that the next run finds the session as this one did.
 */
async function measureVerdicts(site: Site, clubId: string, sessionId: string): Promise<[string, Measure][]> {
	const place = `/sessions/${sessionId}/review`
	const { connection } = site
	const waiting = async () => {
		const rows = (await site.get(place)).matchAll(/value="([0-9a-f-]{36}\/[a-z-]+\/[0-9a-f]{64})"/g)
		return [...new Set(Array.from(rows, ([, row]) => row!))]
	}
	const accept = (rows: readonly string[]) =>
		site.measure(() => site.post(`${place}.data`, { form: [['do', 'accept'], ...rows.map((row) => ['row', row])] }), 1)
	const decided = async () =>
		Number((await site.one<{ n: number }>('select count(*) as n from verdict where club_id = ?', [clubId])).n)
	const middle = (runs: Measure[]) => runs.sort((a, b) => a.ms - b.ms)[Math.floor(runs.length / 2)]!

	const [before, began] = [await decided(), new Date()]
	await connection.query('create temporary table state_before select * from ladder_state where club_id = ?', [clubId])
	const [accepted, shown]: Measure[][] = [[], []]
	for (let run = 0; run < RUNS; run++) {
		const [row] = await waiting()
		if (!row) throw new Error('no verdict waits; remove the data directory of the benchmark to fill it anew')
		accepted!.push(await accept([row]))
		shown!.push(await site.measure(() => site.get(`${place}.data`), 1))
	}
	const rest = (await waiting()).slice(0, AT_ONCE)
	if (rest.length < AT_ONCE) throw new Error(`${rest.length} verdicts wait, not ${AT_ONCE}`)
	const all = await accept(rest)
	const now = await decided()
	if (now !== before + RUNS + rest.length)
		throw new Error(`${now - before} verdicts of ${RUNS + rest.length} were kept`)

	await connection.query('delete from verdict where club_id = ? and session_id = ? and decided_at >= ?', [
		clubId,
		sessionId,
		began.toISOString().slice(0, 19).replace('T', ' '),
	])
	await connection.query('delete from ladder_state where club_id = ?', [clubId])
	await connection.query('insert into ladder_state select * from state_before')
	await connection.query('drop temporary table state_before')
	await connection.query('update session set reviewed_at = null where club_id = ? and id = ?', [clubId, sessionId])
	await site.changed()
	return [
		['a verdict accepted', middle(accepted!)],
		['the review with it', middle(shown!)],
		['48 verdicts in one press', all],
	]
}

/** Does something while only twelve of a squad are in it; the demo has no more. */
async function withTwelve<T>(site: Site, squad: { id: string; club: string }, work: () => Promise<T>): Promise<T> {
	const { connection } = site
	const own = [squad.club, squad.id]
	await connection.query(
		'create temporary table members_away select * from squad_member where club_id = ? and squad_id = ? order by athlete_id limit 1000 offset 12',
		own,
	)
	await connection.query(
		'delete from squad_member where club_id = ? and squad_id = ? and athlete_id in (select athlete_id from members_away)',
		own,
	)
	await site.changed()
	try {
		return await work()
	} finally {
		await connection.query('insert into squad_member select * from members_away')
		await connection.query('drop temporary table members_away')
		await site.changed()
	}
}

async function measureAll(site: Site, today: string): Promise<Map<string, Measure>> {
	const squad = await site.one<{ id: string; club: string }>(
		"select s.id, s.club_id as club from squad s join person p on p.club_id = s.club_id where p.email = ? and s.name like 'Open%'",
		[DEMO_SIGN_IN.email],
	)
	const session = await site.one<{ id: string }>(
		'select id from session where club_id = ? and squad_id = ? and started_at is null order by day limit 1',
		[squad.club, squad.id],
	)
	const waiting = await site.one<{ id: string }>(
		'select id from session where club_id = ? and started_at is not null and reviewed_at is null order by day limit 1',
		[squad.club],
	)
	const line = await site.one<{ id: string; entryId: string; athleteId: string }>(
		'select id, entry_id as entryId, athlete_id as athleteId from line where club_id = ? and session_id = ? and blocked is null limit 1',
		[squad.club, session.id],
	)
	const pages: Record<string, string> = {
		today: '/',
		plan: '/plan',
		squads: '/squads',
		'squad on a ladder': `/squads/${squad.id}/ladders/shock`,
		athlete: `/athletes/${line.athleteId}`,
		care: `/athletes/${line.athleteId}/care`,
		sheet: `/sessions/${session.id}`,
		flow: `/sessions/${session.id}/flow`,
		review: `/sessions/${waiting.id}/review`,
		'form of a session': '/sessions/new',
		'pack of a session': `/sessions/pack?squad=${squad.id}&day=${addDays(today, 9)}&time=17:30&athletes=${line.athleteId}`,
		club: '/club',
		library: '/library',
		'field pack': `/api/field?session=${session.id}&only`,
	}
	const rows = new Map<string, Measure>()
	for (const [name, place] of Object.entries(pages)) rows.set(name, await site.measure(() => site.get(place), LOOKS))
	// Pages are kept as long as nothing changes; whoever looks first after a change waits for it: after an edit, as it is
	// all day, and after somebody has written past the application, as it is in a process that has just begun.
	for (const [after, change] of [
		['edited', () => site.edited(squad.club)],
		['all anew', () => site.changed()],
	] as const)
		for (const name of WORKED_OUT)
			rows.set(
				`${name}, ${after}`,
				await site.measure(async () => {
					await change()
					return site.get(pages[name]!)
				}, RUNS),
			)
	for (const name of KEPT_UP)
		rows.set(
			`${name}, kept up`,
			await site.measure(
				() => site.get(pages[name]!),
				2,
				async () => {
					await site.get(pages[name]!)
					await site.edited(squad.club)
					await wait(KEPT_UP_WITHIN_MS)
				},
			),
		)

	const device = { id: randomUUID(), seq: 0 }
	rows.set(
		'25 marks',
		await site.measure(async () => {
			const { id: lineId, ...of } = line
			const events = doneMarks(25, { ...of, lineId, sessionId: session.id }, device)
			const { answers } = (await (await site.post('/api/events', { json: { events } })).json()) as {
				answers: { outcome: string }[]
			}
			if (answers.some(({ outcome }) => outcome !== 'accepted')) throw new Error('a mark was not accepted')
		}, RUNS),
	)
	// Taken away again, so that the next run finds the session as this one did.
	await site.connection.query('delete from mark where club_id = ? and device_id = ?', [squad.club, device.id])
	await site.connection.query('update session set started_at = null where club_id = ? and id = ?', [
		squad.club,
		session.id,
	])

	await site.changed()

	// Nobody's session leaves 48 verdicts: everybody of one that waits is there twice meanwhile.
	const [there] = await site.connection.query<RowDataPacket[]>(
		'select athlete_id as id from session_athlete where club_id = ? and session_id = ?',
		[squad.club, waiting.id],
	)
	const twins = { athleteIds: there.map(({ id }) => String(id)), since: addDays(today, -WEEKS_BEHIND * 7) }
	const verdicts = await withTwins(site.connection, squad.club, twins, async () => {
		await site.changed()
		return measureVerdicts(site, squad.club, waiting.id)
	})
	await site.changed()
	for (const [name, measured] of verdicts) rows.set(name, measured)

	const start = addDays(mondayOf(today), 70)
	const plan = {
		start,
		phases: defaultPhases(5, 'accumulate'),
		shape: defaultShape(5),
		days: [
			{ weekday: 2, startTime: '17:30', minutes: 90, role: 'hard' },
			{ weekday: 5, startTime: '17:30', minutes: 90, role: 'hard' },
		],
		priority: null,
		kept: [],
		testDay: false,
		content: 'proposed',
	}
	const makeBlock = async () => {
		const form = { squadId: squad.id, plan: JSON.stringify(plan) }
		const measured = await site.measure(() => site.post('/plan/block', { form }), 1)
		const block = await site.one<{ id: string }>(
			'select id from block where club_id = ? and start_day = ? order by made_at desc limit 1',
			[squad.club, start],
		)
		await site.post('/plan', { form: { do: 'remove', id: block.id } })
		return measured
	}
	rows.set('ten sessions for twelve', await withTwelve(site, squad, makeBlock))
	rows.set('ten sessions for all', await makeBlock())
	return rows
}

/**
 * Every main page at the demo's size, with forty athletes, and with their million marks and twenty clubs beside them:
 * time, growth of the last two, statements, processor time.
 */
export async function benchPages(): Promise<void> {
	const today = new Date().toISOString().slice(0, 10)
	const results: Map<string, Measure>[] = []
	await withBench(async (bench) => {
		await fillBigClub(bench.url('dromos_big'), today)
		await fillBigClub(bench.url('dromos_young'), today, YOUNG)
		const admin = await mysql.createConnection(bench.url(''))
		await admin.query('drop database if exists dromos_small')
		await admin.end()
		await migrateDatabase(bench.url('dromos_small'))
		const small = connect(bench.url('dromos_small'))
		await loadDemo(small.db, new Date())
		await small.pool.end()
		for (const name of ['dromos_small', 'dromos_young', 'dromos_big']) {
			const site = await Site.start(bench, name)
			try {
				results.push(await measureAll(site, today))
			} finally {
				await site.stop()
			}
		}
	})
	const [small, young, big] = results as [Map<string, Measure>, Map<string, Measure>, Map<string, Measure>]
	// Twice as many athletes are on a sheet of the forty: growth is what more of the past and of others costs the same club.
	const heads = [
		'demo ms',
		'p95',
		'40, young',
		'million ms',
		'growth',
		'budget ms',
		'statements',
		'app cpu ms',
		'db cpu ms',
	]
	console.log(`${'page'.padEnd(24)}${heads.map((head) => head.padStart(13)).join('')}`)
	for (const [name, demo] of small) {
		const [at, then] = [young.get(name)!, big.get(name)!]
		// Kept pages have no budget of their own: what is worked out after a change is held to it.
		const budget = BUDGET_MS[name.split(', ')[0]!]!
		const cells = [
			demo.ms.toFixed(0),
			demo.p95Ms.toFixed(0),
			at.ms.toFixed(0),
			then.ms.toFixed(0),
			`× ${(then.ms / at.ms).toFixed(1)}`,
			`${budget}${then.ms > budget ? ' over' : ''}`,
			`${at.statements} → ${then.statements}`,
			`${at.appCpuMs} → ${then.appCpuMs}`,
			`${at.databaseCpuMs} → ${then.databaseCpuMs}`,
		]
		console.log(`${name.padEnd(24)}${cells.map((cell) => cell.padStart(13)).join('')}`)
	}
}
