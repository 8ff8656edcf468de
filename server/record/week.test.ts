import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { readLines } from '../../db/queries/sessions'
import { enterOutside } from '../care/outside'
import { acceptEvents } from '../log/accept-events'
import { mondayAsked, readWeek } from './read-week'

beforeAll(freshDatabase)

const MONDAY = '2026-03-09'
const TODAY = '2026-03-12'
const at = (time: string) => new Date(`${TODAY}T${time}:00Z`)
let club: TestClub
let sessionId: string
let lines: Awaited<ReturnType<typeof readLines>>
let seq = 0
beforeEach(async () => {
	club = await makeClub('Club', 3)
	sessionId = await planSession(club, TODAY, [
		draftEntry({ part: 'Jumps', drillId: 'broad-jump', sets: 4, reps: 5, rest: 60 }),
		draftEntry({ part: 'Hops', drillId: 'single-leg-pogo', sets: 1, reps: 2, rest: 60 }),
	])
	lines = await readLines(club.scope, [sessionId])
})
async function log(athlete: number, events: object[]) {
	const answers = await acceptEvents(
		club.coach,
		events.map((event) => ({
			id: randomUUID(),
			sessionId,
			athleteId: club.athletes[athlete],
			deviceId: '00000000-0000-4000-8000-00000000000e',
			deviceSeq: seq++,
			deviceTime: '2026-03-12T17:42:00.000Z',
			...event,
		})),
		at('18:00'),
	)
	expect(answers.map((answer) => ('reason' in answer ? answer.reason : answer.outcome))).toEqual(
		events.map(() => 'accepted'),
	)
}
const on = (drillId: string, athlete: number, setNo: number, repNo = 1) => {
	const line = lines.find((one) => one.drillId === drillId && one.athleteId === club.athletes[athlete])!
	return { entryId: line.entryId, lineId: line.id, setNo, repNo }
}
const sets = (athlete: number, count: number) =>
	log(
		athlete,
		Array.from({ length: count }, (_, index) => ({
			...on('broad-jump', athlete, index + 1, 5),
			type: 'mark',
			kind: 'done',
			value: { reps: 5 },
		})),
	)
const pain = {
	type: 'observation',
	kind: 'pain',
	value: { region: 'calf', side: 'left', score: 3, moment: 'during', redFlag: false },
}
const week = async (who = club.coach, monday = MONDAY) => (await readWeek(who, club.squadId, monday, TODAY))!
const row = async (athlete: number, who = club.coach) =>
	(await week(who)).rows.find(({ athleteId }) => athleteId === club.athletes[athlete])!

describe('a squad’s week', () => {
	it('has who came and what they did against their own sheet', async () => {
		await sets(0, 4)
		await sets(1, 1)
		const { words, sessions, rows } = await week()
		expect(words).toBe('Two of three came to it. Nobody is over, nothing is closed.')
		expect(sessions).toMatchObject([{ id: sessionId, held: true }])
		// Broad jumps are moderate contacts: twenty of them, and two hops a leg.
		expect((await row(0)).amounts.contacts).toEqual({ done: 20, asked: (await row(1)).amounts.contacts.asked })
		expect((await row(1)).amounts.contacts.done).toBe(5)
		expect(rows.map(({ thought }) => thought)).toEqual([
			'did not come: nothing to make up',
			'under in contacts: nothing to make up',
			null,
		])
		expect((await row(2)).came).toBe(0)
	})
	it('keeps what was said of a body to those who read it, and shows all what is spared', async () => {
		await sets(0, 4)
		await log(0, [pain])
		expect(await row(0)).toMatchObject({ thought: 'spare the left calf or Achilles; ask how it is' })
		expect((await row(0)).bodyWords).toBe('left calf or Achilles spared, left calf or Achilles 3')
		const assistant = club.as('assistant')
		expect((await row(0, assistant)).bodyWords).toBe('left calf or Achilles spared')
		expect((await row(0, assistant)).body.read).toBeNull()
	})
	it('tells a gap only where both sides were measured, and whether it is noise', async () => {
		const hop = (side: 'left' | 'right', contactS: number, repNo: number) => ({
			...on('single-leg-pogo', 0, 1, repNo),
			side,
			type: 'mark',
			kind: 'contact',
			value: { contactS, flightS: 0.4, method: 'mat' },
		})
		await log(0, [hop('left', 0.2, 1), hop('left', 0.2, 2), hop('right', 0.201, 1), hop('right', 0.201, 2)])
		// A thousandth of two reps each is less than a mat errs.
		expect((await row(0)).gap).toMatchObject({ ahead: 'left', beyond: false, times: 1 })
		await log(
			1,
			[hop('left', 0.2, 1), hop('right', 0.24, 1)].map((one) => ({ ...one, ...on('single-leg-pogo', 1, 1) })),
		)
		const gap = (await row(1)).gap!
		expect(gap).toMatchObject({ ahead: 'left', beyond: true })
		expect(gap.percent).toBeCloseTo(20, 6)
		expect((await row(2)).gap).toBeNull()
	})
	it('says once what they all had, and with the athlete what was theirs alone', async () => {
		const load = {
			kind: 'match',
			day: '2026-03-10',
			startTime: '',
			minutes: '',
			rpe: '',
			hardRunning: '',
			hardCutting: '',
		}
		await enterOutside(club.coach, { squadId: club.squadId }, load, at('12:00'))
		const gym = { ...load, kind: 'gym', day: '2026-03-11', lifts: 'Back squat 80 kg × 5 first time' }
		await enterOutside(club.coach, { athleteId: club.athletes[0]! }, gym, at('12:00'))
		expect((await week()).outside).toEqual(['2026-03-10 Match, 90 min (3 of 3)'])
		expect((await row(0)).outside).toEqual(['Gym, 60 min, Back squat 80 kg × 5, first time'])
		expect((await row(0)).newThings).toEqual(['Back squat'])
		expect((await row(1)).outside).toEqual([])
	})
	it('is empty in a week without sessions, and another club’s to nobody', async () => {
		expect((await week(club.coach, '2026-03-02')).words).toBe('No session was held in this week.')
		const other = await makeClub('Other', 1)
		expect(await readWeek(other.coach, club.squadId, MONDAY, TODAY)).toBeNull()
	})
	it('begins on the Monday of whatever day was asked for', () => {
		expect(mondayAsked('2026-03-11', TODAY)).toBe(MONDAY)
		for (const asked of [null, '', 'soon', '2026-13-40', '11-03-2026']) expect(mondayAsked(asked, TODAY)).toBe(MONDAY)
	})
})
