import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { addDays } from '../../core/calendar/day-count'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { sessionsOfTrials } from '../../db/queries/record'
import { readLines } from '../../db/queries/sessions'
import { readFacts } from '../facts/read-facts'
import { readPack } from '../field/read-pack'
import { acceptEvents } from '../log/accept-events'
import { takeBack } from './write-done'
import { type TrialTyped, closeTrial, openTrial, planTrialDay, readTrials } from './trials'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const OPENED = new Date('2026-03-01T12:00:00Z')
let club: TestClub
let one: string
let other: string
beforeEach(async () => {
	club = await makeClub('Club', 2)
	;[one, other] = club.athletes as [string, string]
})
const typed = (more: Partial<TrialTyped> = {}): TrialTyped => ({
	question: 'Does a heavy pull before help the start?',
	kind: 'heavy-before',
	drillId: 'three-point-start',
	amount: '10',
	method: 'gate',
	reps: '2',
	treatment: 'broad-jump',
	treatmentSets: '1',
	treatmentReps: '3',
	waits: ['5'],
	athleteIds: [one, other],
	...more,
})
async function opened(more: Partial<TrialTyped> = {}) {
	const trial = await openTrial(club.coach, club.squadId, typed(more), OPENED)
	if (!trial || !('id' in trial)) throw new Error(JSON.stringify(trial))
	return trial
}
const page = async () => (await readTrials(club.coach, club.squadId))!.trials[0]!
const contrast = async (athlete = one) =>
	(
		await readFacts(
			club.scope,
			{ day: '2026-03-12', startTime: '17:30', phase: 'accumulate', surface: null },
			{ schoolId: 'quality-first' },
			[athlete],
			STARTER_LIBRARY,
			'2026-03-12',
		)
	).get(athlete)!.contrastHelps

/** Plans a day, and logs of athlete one twice before and twice after; gives back what day it was and the marks. */
async function ran(trialId: string, day: string, gainWith: number, jitter = 0, does = true) {
	const planned = await planTrialDay(club.coach, club.squadId, trialId, day, OPENED)
	if (!planned || !('sessionId' in planned)) throw new Error(JSON.stringify(planned))
	const row = (await sessionsOfTrials(club.scope, [trialId])).find(({ sessionId }) => sessionId === planned.sessionId)!
	const lines = await readLines(club.scope, [planned.sessionId])
	const condition = row.conditions[one]!
	const after = 2 * (1 - (condition === 'treatment' ? gainWith + jitter : jitter) / 100)
	const ids: string[] = []
	const events = [
		[row.entries.before, 2],
		[row.entries.after['5']!, after],
	].flatMap(([entryId, timeS], part) => {
		const line = lines.find((each) => each.entryId === entryId && each.athleteId === one)!
		return [1, 2].map((repNo) => {
			const id = randomUUID()
			ids.push(id)
			return markOf(line, {
				id,
				deviceTime: `${day}T17:${30 + part * 8 + repNo}:00.000Z`,
				repNo,
				kind: 'sprint',
				value: { splits: [{ distanceM: 10, timeS: Number((timeS as number).toFixed(2)) }], method: 'gate' },
			})
		})
	})
	const tried = lines.find((each) => each.entryId === row.entries.treatment && each.athleteId === one)!
	const pull = markOf(tried, {
		deviceTime: `${day}T17:33:00.000Z`,
		repNo: 3,
		kind: 'done',
		value: { reps: 3 },
	})
	if (condition === 'treatment' && does) events.push(pull as never)
	const answers = await acceptEvents(club.coach, events, new Date(`${day}T18:30:00Z`))
	expect(answers.map(({ outcome }) => outcome)).toEqual(events.map(() => 'accepted'))
	return { sessionId: planned.sessionId, condition, ids, lines, row }
}

describe('a trial', () => {
	it('announces its pairs, and draws who is with it and who without', async () => {
		const { pairs } = await opened()
		// 0.02 s of 3.1 s a rep, two before and two after, against 1 %: 0.91 % a pair; ten to fourteen of them.
		expect(pairs).toBeGreaterThanOrEqual(10)
		expect(pairs).toBeLessThanOrEqual(14)
		const trial = await page()
		expect(trial).toMatchObject({
			pairs,
			closed: false,
			how: 'Three-point start 10 m, gate, 2 before and 2 after 5 min',
			treatment: 'Broad jump and stick, 1×3',
		})
		expect(trial.people.map(({ days, readings }) => [days, readings[0]!.reading.answer])).toEqual([
			[{ treatment: 0, control: 0 }, 'no answer yet'],
			[{ treatment: 0, control: 0 }, 'no answer yet'],
		])
	})
	it('plans its day as a sheet: before, what is tried for those whose day it is, after', async () => {
		const { id } = await opened()
		const { lines, row, condition } = await ran(id, '2026-03-12', 0)
		const tried = (athlete: string) =>
			lines.find((each) => each.entryId === row.entries.treatment && each.athleteId === athlete)!
		for (const athlete of [one, other])
			expect(tried(athlete).blocked).toBe(
				row.conditions[athlete] === 'control' ? 'without it today: rest as long' : null,
			)
		const pack = (await readPack(club.scope, row.sessionId, 'coach'))!
		expect(pack.sheet.entries.map(({ name, waits }) => [name, waits ?? null])).toEqual([
			['Trial: before, three-point start', null],
			['Broad jump and stick', null],
			['Trial: 5 min after, three-point start', { minutes: 5, after: [row.entries.before, row.entries.treatment] }],
		])
		// Measured, it counts as a day of that kind, and the next one is the other.
		const person = (await page()).people.find(({ athleteId }) => athleteId === one)!
		expect(person.days[condition]).toBe(1)
		expect(person.next).toBe(condition === 'treatment' ? 'control' : 'treatment')
		// Who was not measured has the same day again.
		expect((await page()).people.find(({ athleteId }) => athleteId === other)!.days).toEqual({
			treatment: 0,
			control: 0,
		})
	})
	it('counts no day on which what is tried was not done as drawn', async () => {
		const { id } = await opened()
		const days = ['2026-03-12', '2026-03-13', '2026-03-14']
		const conditions = []
		for (const day of days) conditions.push((await ran(id, day, 0, 0, false)).condition)
		const person = (await page()).people.find(({ athleteId }) => athleteId === one)!
		// The day with it never comes to count, and comes again and again.
		expect(person.days.treatment).toBe(0)
		expect(person.days.control).toBe(conditions.filter((condition) => condition === 'control').length)
		expect(person.next).toBe('treatment')
	})
	it('that helps opens what waits for it, for that athlete alone, and closes it when it is overturned', async () => {
		const { id, pairs } = await opened()
		let last: Awaited<ReturnType<typeof ran>> | null = null
		for (let day = 0; day < 2 * pairs; day++) {
			expect(await contrast(), `day ${day}`).toBe(false)
			last = await ran(id, addDays('2026-03-12', day), 3, 0.5 * (day % 3))
		}
		const reading = (await page()).people.find(({ athleteId }) => athleteId === one)!.readings[0]!.reading
		expect(reading).toMatchObject({ pairs, answer: 'helps' })
		// Three percent, and the days' own half percents, at most one either way: the order they fall in is drawn anew each time.
		expect(Math.abs(reading.difference! - 3)).toBeLessThanOrEqual(1)
		expect([await contrast(), await contrast(other)]).toEqual([true, false])
		// One mark of the last day taken back leaves a pair too few: the look that answered was never due.
		for (const mark of last!.ids.slice(2))
			expect(await takeBack(club.coach, last!.sessionId, mark, new Date('2026-04-30T12:00:00Z'))).toEqual({
				changed: 1,
			})
		expect(await contrast()).toBe(false)
	}, 120_000)
	it('ended takes no more days, and can be gone on with', async () => {
		const { id } = await opened()
		expect(await closeTrial(club.coach, club.squadId, id, true, OPENED)).toBe(true)
		expect(await planTrialDay(club.coach, club.squadId, id, '2026-03-12', OPENED)).toBeNull()
		expect((await page()).closed).toBe(true)
		expect(await closeTrial(club.coach, club.squadId, id, false, OPENED)).toBe(true)
		expect(await planTrialDay(club.coach, club.squadId, id, '2026-03-12', OPENED)).toHaveProperty('sessionId')
	})
	it('of another club is nobody’s here', async () => {
		const { id } = await opened()
		const stranger = await makeClub('Other', 1)
		expect(await readTrials(stranger.coach, club.squadId)).toBeNull()
		expect(await openTrial(stranger.coach, club.squadId, typed(), OPENED)).toBeNull()
		expect(await planTrialDay(stranger.coach, stranger.squadId, id, '2026-03-12', OPENED)).toBeNull()
		expect(await closeTrial(stranger.coach, stranger.squadId, id, true, OPENED)).toBe(false)
		// Nobody of another club is drawn into one.
		expect(await openTrial(stranger.coach, stranger.squadId, typed({ athleteIds: [one] }), OPENED)).toHaveProperty(
			'problems.athletes',
		)
	})
	it.each<[Partial<TrialTyped>, string]>([
		[{ question: ' ' }, 'question'],
		[{ kind: 'magic' }, 'kind'],
		[{ drillId: 'wall-drill' }, 'drill'],
		[{ method: 'tape' }, 'drill'],
		[{ amount: 'far' }, 'drill'],
		[{ reps: '5' }, 'reps'],
		[{ treatment: 'no-such' }, 'treatment'],
		[{ treatment: '' }, 'treatment'],
		[{ treatmentReps: '13' }, 'treatment'],
		[{ waits: [] }, 'waits'],
		[{ waits: ['7'] }, 'waits'],
		[{ athleteIds: [] }, 'athletes'],
	])('is not opened with %j', async (more, field) => {
		expect(await openTrial(club.coach, club.squadId, typed(more), OPENED)).toHaveProperty(['problems', field])
		expect((await readTrials(club.coach, club.squadId))!.trials).toEqual([])
	})
})
