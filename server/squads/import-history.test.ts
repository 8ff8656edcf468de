import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import type { Mark } from '../../core/vocabulary/events'
import { eventsOfSessions } from '../../db/queries/log'
import { readLines, readSession, sessionsBetween, sessionsToReview } from '../../db/queries/sessions'
import { exportMarks } from '../record/export-marks'
import { acceptEvents } from '../log/accept-events'
import { readAthletePage } from './read-athlete'
import { readPlacing } from './read-placing'
import { type TypedHistory, lookAtHistory, takeHistory } from './import-history'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const TODAY = '2026-03-12'
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 3)
})

const typed = (text: string, more: Partial<TypedHistory> = {}): TypedHistory => ({
	text,
	columns: null,
	order: null,
	drills: {},
	methods: {},
	surface: '',
	...more,
})
const LIST = [
	'Athlete;Date;Drill;Result',
	'Athlete 1;5.1.2025;Three-point start 20 m;3,21',
	'Athlete 1;5.1.2025;Three-point start 20 m;3,18',
	'Athlete 2;5.1.2025;Three-point start 20 m;3,40',
	'Athlete 2;31.1.2025;Broad jump and stick;2,10',
	'Nobody;31.1.2025;Broad jump and stick;2,10',
	'Athlete 1;31.1.2025;Caber;9',
].join('\n')
const look = async (one: TypedHistory) => {
	const looked = await lookAtHistory(club.scope, club.squadId, one, TODAY)
	if (!looked || 'problem' in looked) throw new Error(JSON.stringify(looked))
	return looked
}
const take = (one: TypedHistory) => takeHistory(club.coach, club.squadId, one, NOW)
/** Day, drill and value of what was measured of somebody, oldest first. */
const measured = async (athlete: number) =>
	(await exportMarks(club.scope, club.athletes[athlete]!, TODAY, 'Atlantic/Madeira'))!.text
		.split('\r\n')
		.slice(1)
		.filter((row) => row !== '')
		.map((row) =>
			row
				.split(',')
				.filter((_, index) => [0, 3, 8, 9, 11, 12].includes(index))
				.join(' '),
		)

describe('results of years', () => {
	it('are looked at before anything is written: what is read, what is asked, what is wrong', async () => {
		const looked = await look(typed(LIST))
		expect(looked).toMatchObject({
			columns: ['name', 'day', 'drill', 'value'],
			order: 'day-first',
			fresh: 4,
			there: 0,
			methods: [
				{ kind: 'sprint', method: 'stopwatch' },
				{ kind: 'distance', method: 'tape' },
			],
		})
		expect(looked.groups).toEqual([
			{ words: 'Three-point start 20 m', drillId: 'three-point-start', rows: 3, results: 3, people: 2 },
			{ words: 'Broad jump and stick', drillId: 'broad-jump', rows: 2, results: 1, people: 1 },
			{ words: 'Caber', drillId: '', rows: 1, results: 0, people: 0 },
		])
		expect(looked.faults.map(({ line, problems }) => [line, problems[0]!.words])).toEqual([
			[6, '“Nobody”: nobody of this name is in the squad.'],
		])
		expect(await sessionsBetween(club.scope, '2024-01-01', TODAY)).toEqual([])
	})

	it('are taken as days that are over: each with its drill, distance and method, and nothing to review', async () => {
		expect(await take(typed(LIST, { methods: { sprint: 'gate' }, surface: 'grass' }))).toEqual({
			taken: 4,
			there: 0,
			left: 1,
		})
		expect(await measured(0)).toEqual([
			'2025-01-05 three-point-start time 3.21 20 gate',
			'2025-01-05 three-point-start time 3.18 20 gate',
		])
		expect(await measured(1)).toEqual([
			'2025-01-05 three-point-start time 3.4 20 gate',
			'2025-01-31 broad-jump distance 2.1  tape',
		])
		const sessions = await sessionsBetween(club.scope, '2024-01-01', TODAY)
		expect(sessions.map(({ day, surface, role }) => [day, surface, role])).toEqual([
			['2025-01-05', 'grass', 'test'],
			['2025-01-31', 'grass', 'test'],
		])
		expect(await sessionsToReview(club.scope)).toEqual([])
		expect((await readSession(club.scope, sessions[0]!.id))!.reviewedAt).toEqual(NOW)
	})

	it('are the story of an athlete from then on', async () => {
		const days = ['2024-05-05', '2025-05-05', '2026-01-12', '2026-02-02', '2026-02-09', '2026-02-16', '2026-02-23']
		await take(
			typed(
				`Athlete,Date,Drill,Result\n${days.map((day) => `Athlete 1,${day},Three-point start 20 m,3.2`).join('\n')}`,
			),
		)
		const page = await readAthletePage(club.scope, club.athletes[0]!, TODAY, {
			measure: null,
			span: 'all',
			forPlanner: false,
			session: null,
			showBody: true,
		})
		expect(page!.story!.trend?.series[0]?.points.map(({ day }) => day)).toEqual(days)
	})

	it('say where somebody stands who was not placed, for who places them', async () => {
		const list = ['2026-02-20', '2026-02-27']
			.map((day) => `Athlete 1,${day},Three-point start 20 m,3.2\nAthlete 2,2025-02-20,Three-point start 20 m,3.2`)
			.join('\n')
		await take(typed(`Athlete,Date,Drill,Result\n${list}`))
		const page = (await readPlacing(club.scope, club.squadId, ['acceleration'], TODAY))!
		expect(page.athletes.map(({ at, proposed }) => [at.acceleration, proposed.acceleration])).toEqual([
			['', { rungId: 'three-point-20', day: '2026-02-27' }],
			['', undefined],
			['', undefined],
		])
		// What was taken back says nothing of where anybody stands.
		const mine = (
			await eventsOfSessions(
				club.scope,
				(await sessionsBetween(club.scope, '2026-02-20', TODAY)).map(({ id }) => id),
			)
		)
			.filter((event) => event.type === 'mark')
			.map(({ authorId: _author, receivedAt: _at, ...event }) => ({
				...(event as Mark),
				counts: undefined,
				stamp: undefined,
			}))
		const back = mine.map((mark, index) => ({
			...(JSON.parse(JSON.stringify(mark)) as Mark),
			id: `00000000-0000-4000-8000-00000000000${index}`,
			deviceSeq: 100 + index,
			replacesId: mark.id,
			void: true,
		}))
		expect((await acceptEvents(club.coach, back, NOW)).map(({ outcome }) => outcome)).toEqual(
			back.map(() => 'accepted'),
		)
		const after = (await readPlacing(club.scope, club.squadId, ['acceleration'], TODAY))!
		expect(after.athletes.map(({ proposed }) => proposed.acceleration)).toEqual([undefined, undefined, undefined])
	})

	it('taken twice are there once; what the list has more of comes after', async () => {
		await take(typed(LIST))
		expect(await take(typed(LIST))).toEqual({ taken: 0, there: 4, left: 1 })
		const more = `${LIST}\nAthlete 1;5.1.2025;Three-point start 20 m;3,21\nAthlete 3;5.1.2025;Three-point start 20 m;3,50`
		expect(await take(typed(more))).toEqual({ taken: 2, there: 4, left: 1 })
		expect((await measured(0)).map((row) => row.split(' ')[3])).toEqual(['3.21', '3.18', '3.21'])
		expect(await measured(2)).toEqual(['2025-01-05 three-point-start time 3.5 20 stopwatch'])
	})

	it('that were logged here on the day are there already', async () => {
		const sessionId = await planSession(club, '2026-03-09', [
			draftEntry({
				part: 'Starts',
				drillId: 'three-point-start',
				sets: 1,
				reps: 2,
				rest: 60,
				parameters: { distanceM: 20 },
			}),
		])
		const line = (await readLines(club.scope, [sessionId])).find((one) => one.athleteId === club.athletes[0])!
		await acceptEvents(
			club.coach,
			[
				markOf(line, {
					id: '00000000-0000-4000-8000-0000000000aa',
					deviceTime: '2026-03-09T18:00:00Z',
					kind: 'sprint',
					value: { splits: [{ distanceM: 20, timeS: 3.21 }], method: 'gate' },
				}),
			],
			NOW,
		)
		const row = (time: string) => `Athlete,Date,Drill,Result\nAthlete 1,2026-03-09,Three-point start 20 m,${time}`
		expect(await look(typed(row('3.21')))).toMatchObject({ fresh: 0, there: 1 })
		expect(await look(typed(row('3.22')))).toMatchObject({ fresh: 1, there: 0 })
	})

	it('may have a column for each test, whose drill is chosen', async () => {
		const table = 'Name,Date,20 m,Caber\nAthlete 1,2025-01-05,3.21,12\nAthlete 2,2025-01-05,,11\n'
		const first = await look(typed(table))
		expect(first.isFolded).toBe(true)
		expect(first.groups.map(({ words, drillId, rows }) => [words, drillId, rows])).toEqual([
			['20 m', '', 1],
			['Caber', '', 2],
		])
		expect(first.fresh).toBe(0)
		const chosen = { drills: { '20 m': 'three-point-start', caber: 'none' } }
		expect(await take(typed(table, chosen))).toEqual({ taken: 1, there: 0, left: 0 })
		expect(await measured(0)).toEqual(['2025-01-05 three-point-start time 3.21 20 stopwatch'])
	})

	it.each([
		['Athlete,Date\nAthlete 1,2025-01-05', 'none of it says which column is the drill'],
		['', 'Paste the list, or choose its file.'],
	])('of a list that is none say so: %o', async (text, words) => {
		expect(await lookAtHistory(club.scope, club.squadId, typed(text), TODAY)).toEqual({
			problem: expect.stringContaining(words),
		})
	})

	it('of another club’s squad are nobody’s', async () => {
		const other = await makeClub('Other', 1)
		expect(await lookAtHistory(club.scope, other.squadId, typed(LIST), TODAY)).toBeNull()
		expect(await takeHistory(club.coach, other.squadId, typed(LIST), NOW)).toBeNull()
	})
})
