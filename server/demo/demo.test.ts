import { deserialize, serialize } from 'node:v8'
import { beforeAll, describe, expect, it } from 'vitest'
import { DEMO_NOW, freshDemo } from '../../tests/support/test-club'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { judge } from '../../core/judge/judge'
import { hashOf } from '../../db/queries/library'
import { sessionsBetween, sessionsToReview, readLines, unstartedFor } from '../../db/queries/sessions'
import { findCalculation } from '../../core/calc/calculations'
import { eventsOfSessions } from '../../db/queries/log'
import { measurementsOf } from '../../db/queries/measurements'
import { listBlocks } from '../../db/queries/plan'
import { readCalendar } from '../plan/calendar'
import { runCalculation } from '../calc/run-calculation'
import { personByEmail } from '../../db/queries/clubs'
import { verdictsOfAthlete } from '../../db/queries/verdicts'
import { listMembers, listSquads, readStates, stateKey } from '../../db/queries/squads'
import { database } from '../database'
import { documentsOf } from '../review/gather'
import type { SignedIn } from '../access/sign-in'
import { readTrials } from '../record/trials'
import { writeJson } from '../open-data/export-data'
import { lookAtOpenFiles } from '../open-data/import-data'
import { readAthletePage } from '../squads/read-athlete'
import { readSquadsPage } from '../squads/read-squads'
import { readCarePage } from '../care/read-care-page'
import { readPack } from '../field/read-pack'
import { readPlanPage } from '../plan/read-plan-page'
import { readWeek } from '../record/read-week'
import { readReviewPage } from '../review/read-review-page'
import { readSheetPage } from '../sheet/read-sheet-page'
import { readTodayPage } from '../sheet/read-today-page'
import type { RowDataPacket } from 'mysql2/promise'
import { rebuildKept } from '../marks/rebuild'
import { DEMO_SIGN_IN } from './sign-in'

const NOW = DEMO_NOW
let scope: { db: ReturnType<typeof database>['db']; clubId: string }

const query = async (text: string, values: unknown[] = []) =>
	(await database().pool.query<RowDataPacket[]>(text, values))[0]

beforeAll(async () => {
	await freshDemo()
	const coach = await personByEmail(database().db, DEMO_SIGN_IN.email)
	scope = { db: database().db, clubId: coach!.clubId }
}, 240_000)

it('holds 28 athletes, nine weeks behind, a session today and one that waits for review', async () => {
	expect(await listMembers(scope)).toHaveLength(28)
	const past = await sessionsBetween(scope, '2026-03-10', '2026-05-19')
	expect(past.length).toBeGreaterThanOrEqual(52)
	expect(past.some((session) => session.phase === 'unloading')).toBe(true)
	const [underWay, today] = await sessionsBetween(scope, '2026-05-20', '2026-05-20')
	expect(today).toMatchObject({ startedAt: null, squadName: 'Open squad' })
	// 10:00 UTC is 11:00 on the island in May; forty minutes ago.
	expect(underWay).toMatchObject({ squadName: 'Women’s squad', startTime: '10:20', reviewedAt: null })
	const logged = await eventsOfSessions(scope, [underWay!.id])
	expect(logged.length).toBeGreaterThan(30)
	expect(logged.every(({ deviceTime }) => deviceTime >= '2026-05-20T09:20' && deviceTime <= NOW.toISOString())).toBe(
		true,
	)
	expect((await sessionsToReview(scope)).map((session) => session.squadName)).toEqual(['Women’s squad', 'Under 17'])
	const lines = await readLines(scope, [today!.id])
	const changes = new Set(lines.flatMap((line) => (line.change?.verdict ? [line.change.verdict] : [])))
	for (const verdict of ['advance', 'ease', 'swap']) expect(changes, verdict).toContain(verdict)
})

it('keeps of its log what the log comes to: made anew it is the same, and what was damaged is right again', async () => {
	const kept = async () =>
		Promise.all(
			[
				'select athlete_id, family, day from work_day where club_id = ? order by 1, 2, 3',
				'select athlete_id, mark_key, session_id, day, n, round(mean, 7) as mean, round(squares, 7) as squares, best, unusual from session_mean where club_id = ? order by 1, 2, 3',
				'select id, mark_key, set_aside from mark where club_id = ? order by id',
			].map(async (text) => (await query(text, [scope.clubId])) as object[]),
		)
	const before = await kept()
	expect(before.map((rows) => rows.length > 1000)).toEqual([true, true, true])
	const sessions = Number((await query('select count(*) as n from session where started_at is not null'))[0]!.n)
	expect(await rebuildKept(scope.db)).toEqual({ sessions, different: [] })
	expect(await kept()).toEqual(before)

	const [spoilt] = await query(
		"select id, day from session where started_at is not null and day = '2026-04-14' limit 1",
	)
	await query('update session_mean set mean = mean + 1 where session_id = ? limit 1', [spoilt!.id])
	await query("update mark set mark_key = 'x' where session_id = ? and kind = 'sprint' limit 2", [spoilt!.id])
	await query("delete from work_day where day = '2026-04-14'")
	expect((await rebuildKept(scope.db)).different).toContainEqual({
		clubId: scope.clubId,
		sessionId: spoilt!.id,
		day: '2026-04-14',
	})
	expect(await kept()).toEqual(before)
})

it('is a document by the schema it is written by: brought in where it came from, all of it is there', async () => {
	let text = ''
	for await (const piece of writeJson(scope, { from: '2026-01-01', to: '2026-12-31' })) text += piece
	const looked = await lookAtOpenFiles(scope, [{ name: 'club.json', text }])
	expect(looked.problems).toEqual([])
	expect(looked.counts.filter(({ fresh }) => fresh > 0)).toEqual([])
	expect(looked.counts.find(({ kind }) => kind === 'marks')!.there).toBeGreaterThan(10_000)
})

it('is planned as its own planner plans: a block with tests at its end, and nothing ahead that clashes', async () => {
	const block = (await listBlocks(scope)).at(-1)
	// Wednesday 20 May: from the next Monday on.
	expect(block).toMatchObject({ start: '2026-05-25', weeks: 4 })
	const calendar = await readCalendar(scope, '2026-05-20', '2026-07-01', '2026-05-20')
	expect(calendar.clashes).toEqual([])
	expect(calendar.sheetClashes).toEqual([])
	const ofBlock = calendar.sessions.filter((session) => session.day >= '2026-05-25' && session.squadName === 'Under 17')
	expect(ofBlock).toHaveLength(8)
	expect(ofBlock.at(-1)).toMatchObject({ title: 'Tests', phase: 'unloading' })
})

it('holds sprint tests of some athletes, each a little faster', async () => {
	const member = (await listMembers(scope)).find((one) => one.name === 'Ruadhán Okonjo')!
	const tests = (await measurementsOf(scope, member.id, 10)).sort((a, b) => (a.takenOn < b.takenOn ? -1 : 1))
	expect(tests.map((test) => test.takenOn)).toEqual(['2026-03-22', '2026-04-19', '2026-05-15'])
	const speeds = tests.map((test) => {
		const answer = runCalculation(findCalculation(test.calculation)!, test.input)
		return 'output' in answer ? Number(answer.output.mss_mps) : Number.NaN
	})
	expect(speeds[0]).toBeGreaterThan(8.8)
	expect(speeds[2]).toBeLessThan(10.2)
})

it('keeps verdicts that replay exactly from their stored input', async () => {
	for (const { id } of (await listMembers(scope)).slice(0, 6)) {
		for (const row of await verdictsOfAthlete(scope, id, 20)) {
			expect(judge(row.input, documentsOf(STARTER_LIBRARY, row.ladderId, 'quality-first'))).toEqual(row.judgement)
			expect(hashOf(row.input)).toBe(row.inputHash)
		}
	}
})

it('lets nobody under 16 or at level 1 near a rebound from a box', async () => {
	const young = (await listMembers(scope)).filter((member) => member.birthDate! > '2010-05-20')
	expect(young.length).toBeGreaterThan(2)
	for (const { id } of young)
		for (const row of await verdictsOfAthlete(scope, id, 200)) expect(row.after.rungId).not.toMatch(/^depth/)
})

describe('nine weeks replay to verdicts that make sense for each athlete', () => {
	const rowsOf = async (name: string) => {
		const member = (await listMembers(scope)).find((one) => one.name === name)!
		const rows = (await verdictsOfAthlete(scope, member.id, 400)).sort((a, b) => (a.day < b.day ? -1 : 1))
		const states = await readStates(scope, [member.id])
		return {
			id: member.id,
			rows,
			state: (ladderId: string) => states.get(stateKey(member.id, ladderId))!.state,
			said: (ladderId: string) =>
				rows
					.filter((row) => row.ladderId === ladderId)
					.map((row) => `${row.day} ${row.decided} ${row.judgement.decidedBy}: ${row.sentence}`),
		}
	}
	const decides = (rows: { judgement: { decidedBy: string } }[], rule: string) =>
		rows.filter((row) => row.judgement.decidedBy === rule).length

	it('back from an ankle sprain: spared while restricted, then step by step, never tested at full speed', async () => {
		const bo = await rowsOf('Bo Hartigan')
		expect(decides(bo.rows, 'S2')).toBeGreaterThanOrEqual(8)
		expect(bo.said('acceleration').slice(-3).join()).toMatch(/drills, after walk through.*run at 60 %.*run at 70 %/)
		expect(bo.state('acceleration').reentry).toMatchObject({ pathId: 're-entry-run', rungId: 'run-70' })
		expect(bo.state('shock').reentry).toMatchObject({ pathId: 're-entry-land' })
		expect(bo.rows.filter((row) => row.decided === 'advance' && row.day > '2026-04-25')).toEqual([])
	})
	it('a hamstring worry: posture at the wall instead of starts', async () => {
		const nils = await rowsOf('Nils Pereira')
		expect(nils.rows.filter((row) => row.ladderId === 'acceleration').at(-1)).toMatchObject({
			decided: 'swap',
			judgement: { decidedBy: 'S9' },
		})
		// The worry is the athlete's: nothing of it is kept on the ladder, and what is written next spares the start.
		expect(nils.state('acceleration').substitute).toBeNull()
		const [next] = await unstartedFor(scope, [nils.id], '2026-05-18')
		const lines = (await readLines(scope, [next!.id])).filter((line) => line.athleteId === nils.id)
		const own = lines.filter((line) => line.ladderId === 'acceleration')
		expect(own.length).toBeGreaterThan(0)
		for (const line of own) expect(line.drillId).not.toBe('three-point-start')
	})
	it('a clear left–right gap: a rep moves to the lagging side', async () => {
		const amaru = await rowsOf('Amaru Fenn')
		expect(amaru.said('stiffness').join()).toContain('The right is behind by')
		expect(amaru.state('stiffness').favour).toBe('right')
	})
	it('fast, stiff and often sore: small pains are noted and close nothing', async () => {
		const kahu = await rowsOf('Kahu Rasmussen')
		expect(
			kahu.rows.some((row) => row.judgement.trace.some((line) => line.rule === 'S1' && /calf.*noted/.test(line.found))),
		).toBe(true)
		expect(kahu.rows.filter((row) => ['stop', 'swap'].includes(row.decided))).toEqual([])
		expect(kahu.state('acceleration').rungId).toBe('reaction-20')
	})
	it('strong and slow: long contacts keep the box low', async () => {
		const mirek = await rowsOf('Mirek Salonen')
		expect(['pause-30', 'depth-15', 'landing-45', 'pause-45']).toContain(mirek.state('shock').rungId)
		expect(mirek.rows.filter((row) => row.decided === 'advance' && /depth-(30|45)/.test(row.after.rungId))).toEqual([])
	})
	it('three weeks missed: a rung down at 60 %, then a share a week, and no advance on the way', async () => {
		const jovan = await rowsOf('Jovan Adebayo')
		const away = jovan.rows.filter((row) => row.judgement.decidedBy === 'P9')
		expect(away.some((row) => row.decided === 'ease' && row.after.back?.percent === 60)).toBe(true)
		expect(jovan.rows.filter((row) => row.decided === 'advance' && row.day > away[0]!.day)).toEqual([])
		expect(jovan.state('acceleration').back?.percent).toBe(90)
	})
	it('what was done counts as work of its day, as if it had been logged', async () => {
		const { pool } = database()
		const [rows] = await pool.query<RowDataPacket[]>(
			`select count(*) as n from mark m join session s on s.club_id = m.club_id and s.id = m.session_id
			where m.kind <> 'missed' and not exists (
				select 1 from work_day w where w.club_id = m.club_id and w.athlete_id = m.athlete_id and w.day = s.day)`,
		)
		expect(rows[0]?.n).toBe(0)
	})
	it.each(['Emre Castellane', 'Zita Halvorsen', 'Lumi Ferreira'])(
		'a beginner, %s: goes up from the first rungs and meets nothing above level 1',
		async (name) => {
			const { rows } = await rowsOf(name)
			expect(rows.filter((row) => row.decided === 'advance').length).toBeGreaterThanOrEqual(4)
			for (const row of rows) {
				const rung = STARTER_LIBRARY.ladders[row.ladderId]!.rungs.find((one) => one.id === row.after.rungId)!
				expect(rung.level, `${row.day} ${rung.name}`).toBe(1)
			}
		},
	)
	it('at the top of a ladder: said so, and left there', async () => {
		const { said, state } = await rowsOf('Ruadhán Okonjo')
		expect(
			said('acceleration').filter((words) => words.includes('the top of the ladder')).length,
		).toBeGreaterThanOrEqual(5)
		expect(state('acceleration').rungId).toBe('reaction-20')
	})
	it('falls away at the end twice running: fewer reps', async () => {
		const tadeo = await rowsOf('Tadeo Brandt')
		expect(tadeo.rows.filter((row) => row.ladderId === 'acceleration').at(-1)).toMatchObject({
			decided: 'ease',
			judgement: { decidedBy: 'P4' },
		})
	})
})

describe('the athletes’ stories', () => {
	const story = async (name: string, asked: { measure?: string; session?: string } = {}) => {
		const member = (await listMembers(scope)).find((one) => one.name === name)!
		return (await readAthletePage(scope, member.id, '2026-05-20', {
			measure: asked.measure ?? null,
			span: 'season',
			session: asked.session ?? null,
			showBody: true,
			forPlanner: true,
		}))!
	}
	it('a flat day after a match: the match is among the first two', async () => {
		const { story: told } = await story('Sefa Lindqvist')
		expect(told!.why).toMatchObject({ state: 'flat' })
		expect(told!.why!.causes.slice(0, 2).map(({ id }) => id)).toContain('match')
		const day = told!.fortnight.find(({ sessions }) => sessions.some(({ id }) => id === told!.why!.sessionId))!
		expect(day.day).toBe(told!.why!.day)
	})
	it('the one with the gap: two lines, and the right behind by about a seventh', async () => {
		const { story: told } = await story('Amaru Fenn')
		const pogo = told!.measures.find(({ what }) => what === 'Single-leg pogo')!
		const { story: picture } = await story('Amaru Fenn', { measure: pogo.key })
		expect(picture!.trend!.series.map(({ side }) => side)).toEqual(['left', 'right'])
		const gaps = picture!.trend!.gap.map(({ percent }) => percent)
		expect(gaps.length).toBeGreaterThanOrEqual(4)
		for (const gap of gaps) {
			expect(gap).toBeGreaterThan(8)
			expect(gap).toBeLessThan(25)
		}
	})
	it('the plateau and the one who gets better', async () => {
		const mirek = (await story('Mirek Salonen')).story!.measures.filter(({ what }) => /start/i.test(what))
		expect(mirek.length).toBeGreaterThan(0)
		for (const { change } of mirek) expect(change?.beyond ?? false).toBe(false)
		const ilka = (await story('Ilka Moreau')).story!.measures.find(({ what }) => what === 'Broad jump and stick')!
		expect(ilka.change!.words).toMatch(/^farther by 0\.\d\d m since \w+, beyond noise$/)
	})
	it('the returner: what was spared or closed lies under the picture', async () => {
		const { story: told } = await story('Bo Hartigan')
		expect(told!.trend!.bars.some(({ isCare, words }) => isCare && /ankle/.test(words))).toBe(true)
	})
	it('where the time goes: of the one who loses it from 20 m on', async () => {
		const { segments } = await story('Kahu Rasmussen')
		const weakest = [...segments!.segments].sort((a, b) => b.offCurveS - a.offCurveS)[0]!
		expect([weakest.fromM, weakest.weak]).toEqual([20, true])
	})
	it('a trial that is over has its answers, one that has begun has none', async () => {
		const coach = (await personByEmail(scope.db, DEMO_SIGN_IN.email))!
		const who = { ...coach, personId: coach.id, timeZone: 'Atlantic/Madeira' } as unknown as SignedIn
		const squads = await listSquads(scope)
		const trialsOf = async (name: string) =>
			(await readTrials(who, squads.find((one) => one.name === name)!.id))!.trials
		const [heavy] = await trialsOf('Open squad')
		const answer = (name: string) => {
			const { days, readings } = heavy!.people.find((one) => one.name === name)!
			return { days, ...readings[0]!.reading }
		}
		expect(heavy).toMatchObject({ closed: true, kind: 'heavy-before' })
		// He gains 2.2 percent by it, the other nothing: twice the smallest worthwhile change, and none of it.
		expect(answer('Kahu Rasmussen')).toMatchObject({ answer: 'helps' })
		expect(answer('Kahu Rasmussen').difference).toBeGreaterThan(1)
		expect(answer('Kahu Rasmussen').difference).toBeLessThan(3.4)
		expect(answer('Amaru Fenn').answer).toBe('does not')
		expect(answer('Kahu Rasmussen').days.treatment).toBeGreaterThanOrEqual(heavy!.pairs)
		const [cue] = await trialsOf('Women’s squad')
		expect(cue).toMatchObject({ closed: false })
		for (const { readings } of cue!.people) {
			expect(readings[0]!.reading.answer).toBe('no answer yet')
			expect(readings[0]!.reading.pairs).toBeGreaterThan(0)
		}
	})
})

it('has no page that could not be told to another process: nothing but data is in any', async () => {
	const coach = {
		...(await personByEmail(database().db, DEMO_SIGN_IN.email))!,
		role: 'coach' as const,
		athleteId: null,
	}
	const who = { ...coach, timeZone: 'Atlantic/Madeira' }
	const today = '2026-05-20'
	const [session] = await sessionsBetween(scope, today, today)
	const [review] = await sessionsToReview(scope)
	const [member] = await listMembers(scope)
	const pages = {
		today: await readTodayPage(scope, today, who),
		plan: await readPlanPage(scope, '2026-05-18', '2026-06-14', today, who),
		squads: await readSquadsPage(scope, today),
		sheet: await readSheetPage(scope, session!.id, today, who),
		review: await readReviewPage(scope, review!.id, who),
		athlete: await readAthletePage(scope, member!.id, today),
		care: await readCarePage(scope, member!.id, today),
		week: await readWeek(who as unknown as SignedIn, session!.squadId, '2026-05-18', today),
		pack: await readPack(scope, session!.id, 'coach', today),
	}
	for (const [name, page] of Object.entries(pages)) {
		expect(serialize(page).length, name).toBeGreaterThan(500)
		expect(deserialize(serialize(page)), name).toStrictEqual(page)
	}
})
