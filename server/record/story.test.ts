import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { readLines } from '../../db/queries/sessions'
import { enterOutside } from '../care/outside'
import { openCare } from '../care/care-records'
import { saveMeasurement } from '../bench/save-measurement'
import { acceptEvents } from '../log/accept-events'
import { readAthletePage } from '../squads/read-athlete'
import { nameCauses } from './name-causes'
import { readHandOut } from './read-hand-out'
import { addNote, giveTo } from './write-done'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const DAYS = ['2026-02-12', '2026-02-16', '2026-02-19', '2026-02-23', '2026-02-26', '2026-03-02', '2026-03-05']
const LAST = '2026-03-09'
const TODAY = '2026-03-10'
const at = (day: string, time = '18:30') => new Date(`${day}T${time}:00Z`)
let club: TestClub
let one: string
beforeEach(async () => {
	club = await makeClub('Club', 2, '2026-02-10')
	one = club.athletes[0]!
})

/** A session of starts over 20 m, run so far apart by the clock; the ids of session and marks. */
async function ran(day: string, times: number[], apartS = 180, athlete = one) {
	const sessionId = await planSession(club, day, [
		draftEntry({
			part: 'Starts',
			drillId: 'three-point-start',
			sets: 1,
			reps: 6,
			rest: 180,
			parameters: { distanceM: 20 },
		}),
	])
	const line = (await readLines(club.scope, [sessionId])).find(({ athleteId }) => athleteId === athlete)!
	const ids = times.map(() => randomUUID())
	const answers = await acceptEvents(
		club.coach,
		times.map((timeS, index) =>
			markOf(line, {
				id: ids[index],
				deviceTime: new Date(Date.parse(`${day}T17:40:00Z`) + index * apartS * 1000).toISOString(),
				repNo: index + 1,
				kind: 'sprint',
				value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
			}),
		),
		at(day),
	)
	expect(answers.map(({ outcome }) => outcome)).toEqual(times.map(() => 'accepted'))
	return { sessionId, ids }
}
const page = async (asked: { session?: string; showBody?: boolean } = {}, athlete = one) =>
	(await readAthletePage(club.scope, athlete, TODAY, {
		measure: null,
		span: 'season',
		forPlanner: false,
		session: asked.session ?? null,
		showBody: asked.showBody ?? true,
	}))!.story!
/** A jump of 36 cm off the mat: 0.542 s in the air. */
const jumped = (takenOn: string, athleteId = one) =>
	saveMeasurement(
		club.coach,
		{
			id: randomUUID(),
			athleteId,
			takenOn,
			calculation: 'jump-height',
			method: 'mat',
			input: { flight_time_s: 0.542 },
		},
		at(TODAY),
	)
/** Seven days at 3.20 s, and a last one as it is said. */
async function season(last: number[], apartS?: number) {
	for (const [index, day] of DAYS.entries()) await ran(day, [3.2, 3.19 + 0.01 * (index % 3), 3.2, 3.21])
	return ran(LAST, last, apartS)
}

describe('the picture of a measure', () => {
	it('has every session with its usual, and says what changed', async () => {
		for (const [index, day] of DAYS.entries()) await ran(day, index < 4 ? [3.3, 3.3] : [3.15, 3.15])
		await ran(LAST, [3.15, 3.15])
		const { measures, trend } = await page()
		expect(measures).toMatchObject([{ what: 'Three-point start, 20 m', sessions: 8, family: 'sprint' }])
		expect(measures[0]!.change!.words).toBe('faster by 0.15 s since February, beyond noise')
		expect(trend!.series[0]!.points.map(({ day, mean, record }) => [day, mean, record])).toEqual([
			...DAYS.map((day, index) => [day, index < 4 ? 3.3 : 3.15, index === 4]),
			[LAST, 3.15, false],
		])
		expect(trend!.better).toBe('lower')
	})
	it('is empty before anything was measured, and one point after one session', async () => {
		expect(await page()).toMatchObject({ measures: [], trend: null, why: null })
		await ran(LAST, [3.2])
		const { measures, trend, why } = await page()
		expect(measures).toMatchObject([{ sessions: 1, change: null }])
		expect(trend!.series[0]!.points).toMatchObject([{ day: LAST, usual: null }])
		expect(why).toBeNull()
	})
	it('loses a mark that was somebody else’s, and the other has it', async () => {
		// Who has been away is written less.
		club = await makeClub('Trained', 2, '2026-03-08')
		one = club.athletes[0]!
		const { sessionId, ids } = await ran(LAST, [3.2, 3.9])
		expect(await giveTo(club.coach, sessionId, ids[1]!, club.athletes[1]!, at(LAST, '19:00'))).toEqual({ changed: 1 })
		expect((await page()).trend!.series[0]!.points).toMatchObject([{ n: 1, mean: 3.2 }])
		expect((await page({}, club.athletes[1])).trend!.series[0]!.points).toMatchObject([{ n: 1, mean: 3.9 }])
		const strip = await page()
		expect(strip.fortnight.flatMap(({ sessions }) => sessions.flatMap(({ load }) => load))).toMatchObject([
			{ family: 'sprint', words: '20 m at 90 % or more' },
		])
	})
})

describe('why flat', () => {
	it('tells the match before and the short rests, and keeps what the coach says it was', async () => {
		const { sessionId } = await season([3.42, 3.43, 3.42, 3.41, 3.43], 80)
		// Told afterwards: what was written before it was not written for it.
		await enterOutside(
			club.coach,
			{ athleteId: one },
			{
				kind: 'match',
				day: '2026-03-08',
				startTime: '16:00',
				minutes: '90',
				rpe: '8',
				hardRunning: '',
				hardCutting: '',
			},
			at(TODAY),
		)
		const { why, fortnight } = await page()
		expect(why).toMatchObject({ sessionId, day: LAST, state: 'flat', ticked: [] })
		expect(why!.reading).toBe('Three-point start, 20 m: 3.42 s, usual 3.20 s')
		// Ended at 17:30, 24 h before. Rests of 1:20 where 3:00 are asked.
		expect(why!.causes.map(({ title, evidence }) => `${title} · ${evidence}`)).toEqual([
			'Match 24 h before · 90 minutes, effort 8',
			'Short rests · 1:20 between reps by the clock, 3:00 asked',
			'Hard days closer than the school asks · maximal sprinting 26 h before; asked are 48 h',
		])
		expect(why!.notKnown).toEqual(['wind'])
		expect(fortnight.find(({ day }) => day === LAST)!.sessions).toMatchObject([{ state: 'flat' }])

		const named = (causes: string[], who = club.coach) => nameCauses(who, one, sessionId, causes, at(TODAY))
		expect(await named(['match', 'short-rests'])).toEqual({ named: 2 })
		expect(await named(['match'])).toEqual({ named: 1 })
		expect((await page()).why!.ticked).toEqual(['match'])
		expect(await named(['match', 'the-moon'])).toHaveProperty('problems.cause')
		expect((await page()).why!.ticked).toEqual(['match'])
		expect(await named([])).toEqual({ named: 0 })
		expect((await page()).why!.ticked).toEqual([])
	})
	it('is not asked about another club’s session, nor one the athlete was not down for', async () => {
		const { sessionId } = await season([3.42, 3.43])
		const other = await makeClub('Other', 1)
		expect(await nameCauses(other.coach, other.athletes[0]!, sessionId, ['match'], at(TODAY))).toBeNull()
		expect(await nameCauses(other.coach, one, sessionId, ['match'], at(TODAY))).toBeNull()
		expect(await nameCauses(club.coach, one, randomUUID(), ['match'], at(TODAY))).toBeNull()
		expect((await page()).why!.ticked).toEqual([])
	})
	it('tells nobody of an illness who may not read it', async () => {
		const ill = { kind: 'illness', region: '', pattern: '', drillId: '', note: 'a fever', setBy: '', setByRole: '' }
		await season([3.42, 3.43, 3.42])
		expect(await openCare(club.coach, one, ill, at(LAST, '08:00'))).not.toHaveProperty('problems')
		expect((await page()).why!.causes.map(({ id }) => id)).toEqual(['unwell'])
		const others = await page({ showBody: false })
		expect(JSON.stringify(others)).not.toMatch(/unwell|illness/i)
		expect(others.why!.causes).toEqual([])
	})
	it('says nothing of a day like any other', async () => {
		await season([3.2, 3.21, 3.19, 3.2])
		expect((await page()).why).toBeNull()
	})
})

describe('a session for one athlete, to hand on', () => {
	it('says in words what was done, against the usual, what was noted, and what comes next', async () => {
		const { sessionId } = await season([3.42, 3.43, 3.42, 3.41])
		const next = await planSession(club, '2026-03-12', [
			draftEntry({
				part: 'Starts',
				drillId: 'three-point-start',
				sets: 1,
				reps: 2,
				rest: 180,
				parameters: { distanceM: 20 },
			}),
		])
		expect(next).toBeTruthy()
		const line = (await readLines(club.scope, [sessionId])).find(({ athleteId }) => athleteId === one)!
		const noted = { athleteId: one, entryId: line.entryId, text: 'Hand too far in front' }
		expect(await addNote(club.coach, sessionId, noted, at(LAST, '19:30'))).toEqual({ changed: 1 })
		const handOut = (await readHandOut(club.coach, sessionId, one, TODAY))!
		expect(handOut).toMatchObject({ name: 'Athlete 1', squadName: 'Squad', day: LAST, notes: [] })
		expect(handOut.lines).toEqual([
			{
				what: 'Three-point start 20 m',
				words: '4 of 6 done. Best 3.41 s, on the whole 3.42 s: below your usual. “Hand too far in front”',
			},
		])
		expect(handOut.next).toMatchObject({ day: '2026-03-12', lines: ['Three-point start 20 m, 1×2'] })
		// Somebody of whom nothing is logged reads just that, of the less that is written after four weeks away.
		expect((await readHandOut(club.coach, sessionId, club.athletes[1]!, TODAY))!.lines).toEqual([
			{ what: 'Wall drill and march', words: 'Nothing is logged of it.' },
		])
	})
	it('is nobody’s who was not down for it, and no other club’s', async () => {
		const { sessionId } = await ran(LAST, [3.2])
		const other = await makeClub('Other', 1)
		expect(await readHandOut(club.coach, sessionId, other.athletes[0]!, TODAY)).toBeNull()
		expect(await readHandOut(other.coach, sessionId, one, TODAY)).toBeNull()
		expect(await readHandOut(club.coach, randomUUID(), one, TODAY)).toBeNull()
	})
})

it('what the bench measured stands under the picture and in the fortnight, on its day, and of nobody else', async () => {
	await season([3.2])
	for (const day of ['2026-02-20', '2026-03-04']) expect(await jumped(day)).toMatchObject({ saved: 'new' })
	await jumped('2026-03-04', club.athletes[1]!)
	const { trend, fortnight } = await page()
	expect(trend!.bench).toEqual([
		{ day: '2026-03-04', words: 'Jump height: 36 cm' },
		{ day: '2026-02-20', words: 'Jump height: 36 cm' },
	])
	expect(fortnight.flatMap(({ day, bench }) => bench.map((words) => [day, words]))).toEqual([
		['2026-03-04', 'Jump height: 36 cm'],
	])
})
