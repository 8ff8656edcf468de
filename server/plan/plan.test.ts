import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub, secondSquad } from '../../tests/support/test-club'
import { addDays } from '../../core/calendar/day-count'
import { type BlockPlan, completePlan, defaultPhases, defaultShape } from '../../core/plan/block'
import { acknowledgementsOf, insertAcknowledgement } from '../../db/queries/care'
import { readAttending, readEntries, readLines, readSession, sessionsBetween } from '../../db/queries/sessions'
import { enterOutside } from '../care/outside'
import { acceptEvents } from '../log/accept-events'
import { readFlow, saveLanes } from '../sheet/read-flow'
import { readCopy } from '../sheet/read-form-choices'
import { readSheet } from '../sheet/read-sheet'
import { createSession } from '../sheet/save-session'
import { easeSession, moveSession, readCalendar } from './calendar'
import { changeLineByHand } from '../sheet/change-line'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { addMembers, writeState } from '../../db/queries/squads'
import { readBlockProgress, replanBlock } from './block-progress'
import { repairSheet } from './repair-sheet'
import { makeBlock, readBlockPlan, shiftBlock } from './make-block'
import { bringBack, readTakenOff, removeBlock, takeOffSession } from './take-off'
import { versionOf } from '../submissions/take-version'
import { draftEntry } from '../../tests/support/draft-entry'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const TODAY = '2026-03-12'
const MONDAY = '2026-03-16'
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club')
})

const make = async (day: string) => {
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day,
			startTime: '17:30',
			title: 'Starts',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries: [
				draftEntry({ part: 'Prepare', drillId: 'range-of-motion', sets: 1, reps: 1, rest: 0 }),
				draftEntry({
					part: 'Starts',
					drillId: 'three-point-start',
					sets: 1,
					reps: 6,
					rest: 120,
					parameters: { distanceM: 20 },
				}),
			],
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	return saved.sessionId
}
const plan: BlockPlan = completePlan({
	start: MONDAY,
	phases: defaultPhases(4, 'accumulate'),
	shape: defaultShape(4),
	days: [
		{ weekday: 2, startTime: '18:00', minutes: 75 },
		{ weekday: 5, startTime: '18:00', minutes: 75 },
	],
})
const ahead = () => sessionsBetween(club.scope, MONDAY, addDays(MONDAY, 60))

describe('a block', () => {
	it('writes a session for each training day with its share, emphasis and everybody’s lines', async () => {
		await make('2026-03-10')
		const made = await makeBlock(club.coach, club.squadId, plan, TODAY, NOW)
		expect(made).toMatchObject({ made: 8, left: 0 })
		const sessions = await ahead()
		expect(sessions.map((session) => session.phase)).toEqual([
			'accumulate',
			'accumulate',
			'accumulate',
			'accumulate',
			'intensify',
			'intensify',
			'unloading',
			'unloading',
		])
		const entries = await readEntries(club.scope, [sessions[0]!.id])
		expect(entries.map((entry) => [entry.part, entry.doseFactor])).toEqual([
			['Prepare', 1],
			['Starts', 0.83],
		])
		expect(await readLines(club.scope, [sessions[7]!.id])).toHaveLength(2 * club.athletes.length)
	})
	it('counts its own earlier sessions as work: nobody is away in the middle of it', async () => {
		await make('2026-03-10')
		await makeBlock(club.coach, club.squadId, plan, TODAY, NOW)
		// Last trained on the 11th: without the week between, Tuesday the 24th would be thirteen days on, which leaves
		// three quarters of the six reps, four whole ones. Its own 92 % are five.
		const tuesday = (await ahead()).find(({ day }) => day === '2026-03-24')
		const starts = (await readLines(club.scope, [tuesday!.id])).filter(({ drillId }) => drillId === 'three-point-start')
		expect(starts.map(({ dose }) => dose.reps)).toEqual([5, 5, 5])
	})
	it('leaves a day that has a session as it is, and says so when there is nothing to repeat', async () => {
		expect(await makeBlock(club.coach, club.squadId, plan, TODAY, NOW)).toHaveProperty('problem')
		await make('2026-03-17')
		expect(await makeBlock(club.coach, club.squadId, plan, TODAY, NOW)).toMatchObject({ made: 7, left: 1 })
		expect(await makeBlock(club.coach, randomUUID(), plan, TODAY, NOW)).toBeNull()
	})
	it('is shifted and comes off again, but never what was logged', async () => {
		await make('2026-03-10')
		const made = await makeBlock(club.coach, club.squadId, plan, TODAY, NOW)
		if (!made || 'problem' in made) throw new Error('no block')
		expect(await shiftBlock(club.coach, made.blockId, -1, TODAY, NOW)).toEqual({
			problem: 'That would put sessions into the past.',
		})
		expect(await shiftBlock(club.coach, made.blockId, 1, TODAY, NOW)).toEqual({ moved: 8 })
		const [first] = await ahead()
		expect(first!.day).toBe('2026-03-24')
		expect(await versionOf(club.scope, 'session', first!.id)).toBe(1)
		const [line] = (await readLines(club.scope, [first!.id])).filter((row) => row.drillId === 'three-point-start')
		await acceptEvents(
			club.coach,
			[
				markOf(line!, {
					deviceTime: NOW.toISOString(),
					kind: 'done',
					value: { reps: 1 },
				}),
			],
			NOW,
		)
		expect(await removeBlock(club.coach, made.blockId, NOW)).toEqual({ removed: 7, kept: 0 })
		expect((await ahead()).map((session) => session.id)).toEqual([first!.id])
		expect(await removeBlock((await makeClub('Other')).coach, made.blockId, NOW)).toBeNull()
	})
	it('that came off comes back whole: its sessions, their entries and lines, and the block itself', async () => {
		await make('2026-03-10')
		const made = await makeBlock(club.coach, club.squadId, plan, TODAY, NOW)
		if (!made || 'problem' in made) throw new Error('no block')
		const before = await ahead()
		const ids = before.map(({ id }) => id)
		const sheets = async () => ({
			entries: await readEntries(club.scope, ids),
			lines: (await readLines(club.scope, ids)).map(({ id, drillId, dose, blocked }) => ({
				id,
				drillId,
				dose,
				blocked,
			})),
			attending: await readAttending(club.scope, ids),
		})
		const stood = await sheets()
		expect(stood.lines).toHaveLength(8 * 2 * club.athletes.length)
		expect(await removeBlock(club.coach, made.blockId, NOW)).toEqual({ removed: 8, kept: 0 })
		expect(await ahead()).toEqual([])
		const [off] = await readTakenOff(club.scope)
		expect(off!.title).toBe('Squad, 4 weeks from Mon 16 Mar: 8 sessions')
		// Not by another club, and once only.
		expect(await bringBack((await makeClub('Other')).coach, off!.id, TODAY, NOW)).toBeNull()
		const both = await Promise.all([
			bringBack(club.coach, off!.id, TODAY, NOW),
			bringBack(club.coach, off!.id, TODAY, NOW),
		])
		expect(both.filter((one) => one !== null)).toEqual([{ back: 8 }])
		expect(await readTakenOff(club.scope)).toEqual([])
		expect(await ahead()).toEqual(before.map((session) => ({ ...session, linesFor: expect.anything() })))
		expect((await sheets()).entries).toEqual(stood.entries)
		expect((await sheets()).attending).toEqual(stood.attending)
		expect((await sheets()).lines).toEqual(stood.lines)
		// It is the block it was: it can be moved.
		expect(await shiftBlock(club.coach, made.blockId, 1, TODAY, NOW)).toEqual({ moved: 8 })
	})
	it('is read from a form with a sentence for what is wrong', () => {
		expect(readBlockPlan(plan)).toEqual({ plan })
		expect(readBlockPlan(null)).toHaveProperty('problem')
		expect(readBlockPlan({ ...plan, start: '2026-03-17' })).toEqual({ problem: 'start: 2026-03-17 is not a Monday' })
		expect(readBlockPlan({ ...plan, days: [{ weekday: 2, startTime: '25:00', minutes: 60 }] })).toEqual({
			problem: 'Each training day has a time and 10 to 240 minutes.',
		})
		expect(readBlockPlan({ ...plan, phases: ['rest', 'rest', 'rest', 'rest'] })).toEqual({
			problem: 'Each week has an emphasis.',
		})
	})
})

describe('a session', () => {
	const mark = (line: { id: string; athleteId: string; entryId: string; sessionId: string }) =>
		markOf(line, {
			deviceTime: NOW.toISOString(),
			kind: 'done',
			value: { reps: 1 },
		})
	it('comes off with what was answered on it and is back with it; one that is logged stays', async () => {
		const id = await make('2026-03-17')
		await insertAcknowledgement(club.scope, {
			id: randomUUID(),
			sessionId: id,
			rule: 'S5',
			finding: 'order',
			sentence: 'Throws stand before fast work.',
			reason: 'a relay day',
			personId: club.coach.personId,
			at: NOW,
		})
		expect(await takeOffSession((await makeClub('Other')).coach, id, NOW)).toBeNull()
		const taken = await takeOffSession(club.coach, id, NOW)
		expect(await readSheet(club.scope, id)).toBeNull()
		if (!taken || !('off' in taken)) throw new Error('not taken off')
		expect(await takeOffSession(club.coach, id, NOW)).toBeNull()
		expect(await bringBack(club.coach, taken.off, TODAY, NOW)).toEqual({ back: 1 })
		expect(await acknowledgementsOf(club.scope, id)).toHaveLength(1)
		const [line] = (await readLines(club.scope, [id])).filter((row) => row.drillId !== null)
		expect((await acceptEvents(club.coach, [mark({ ...line!, sessionId: id })], NOW))[0]!.outcome).toBe('accepted')
		expect(await takeOffSession(club.coach, id, NOW)).toHaveProperty('problem')
		expect(await readSheet(club.scope, id)).not.toBeNull()
	})
	it('that was held by a phone that was away is back by its first mark, with the line the phone had', async () => {
		const id = await make('2026-03-12')
		const [line] = (await readLines(club.scope, [id])).filter((row) => row.drillId !== null)
		const taken = await takeOffSession(club.coach, id, NOW)
		expect(taken).toHaveProperty('off')
		const stranger = await makeClub('Other')
		expect((await acceptEvents(stranger.coach, [mark({ ...line!, sessionId: id })], NOW))[0]!.outcome).toBe('refused')
		expect(await readSheet(club.scope, id)).toBeNull()
		expect((await acceptEvents(club.coach, [mark({ ...line!, sessionId: id })], NOW))[0]!.outcome).toBe('accepted')
		expect((await readSheet(club.scope, id))!.events).toHaveLength(1)
		expect(await readTakenOff(club.scope)).toEqual([])
	})
	it('can be brought back for thirty days', async () => {
		const [old, young] = [await make('2026-03-17'), await make('2026-03-19')]
		const at = (days: number) => new Date(NOW.getTime() + days * 86_400_000)
		await takeOffSession(club.coach, old, NOW)
		await takeOffSession(club.coach, young, at(30))
		expect(await readTakenOff(club.scope)).toHaveLength(2)
		await takeOffSession(club.coach, await make('2026-03-24'), at(30.1))
		expect(await readTakenOff(club.scope)).toHaveLength(2)
	})
	it('is copied for another day without what was added on the spot, for who is in the squad now', async () => {
		const id = await make('2026-03-10')
		const copy = (await readCopy(club.scope, id, TODAY))!
		expect(copy).toMatchObject({ squadId: club.squadId, day: '2026-03-12' })
		expect(copy.athleteIds.toSorted()).toEqual([...club.athletes].toSorted())
		const saved = await createSession(club.coach.clubId, 'Atlantic/Madeira', copy, NOW)
		if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
		const parts = async (of: string) =>
			(await readEntries(club.scope, [of])).map(({ part, drillId }) => [part, drillId])
		expect(await parts(saved.sessionId)).toEqual(await parts(id))
		expect(await readCopy((await makeClub('Other')).scope, id, TODAY)).toBeNull()
	})
})

describe('the calendar', () => {
	it('names what clashes and repairs it by moving, or by leaving the hard parts out', async () => {
		await make('2026-03-17')
		const second = await make('2026-03-18')
		const clashes = async () => (await readCalendar(club.scope, '2026-03-09', '2026-04-12', TODAY)).clashes
		const [clash] = await clashes()
		expect(clash).toMatchObject({ rule: 'S6', itemId: second })
		expect(await moveSession(club.coach, second, clash!.moveTo[0]!, TODAY, NOW)).toEqual({ moved: true })
		expect(await clashes()).toEqual([])
		await moveSession(club.coach, second, '2026-03-18', TODAY, NOW)
		expect(await easeSession(club.coach, second, NOW)).toEqual({ eased: 1 })
		// Moved twice and eased once: a form opened before is asked first.
		expect(await versionOf(club.scope, 'session', second)).toBe(3)
		expect(await clashes()).toEqual([])
		expect((await readEntries(club.scope, [second])).map((entry) => entry.part)).toEqual(['Prepare'])
	})
	it('asks of a squad what its own school asks, and the most where somebody trains with two', async () => {
		// Quality first asks 48 h, the other squad's school 72.
		const other = await secondSquad(club, 'return-and-protect')
		await make('2026-03-17')
		await make('2026-03-19')
		const said = async () =>
			(await readCalendar(club.scope, '2026-03-09', '2026-04-12', TODAY)).clashes.map(({ sentence }) => sentence)
		expect(await said()).toEqual([])
		await addMembers(club.scope, other, club.athletes.slice(1), TODAY)
		expect(await said()).toEqual(['48 h between two days of maximal sprinting; 72 h are asked (2 of 3 athletes)'])
		await addMembers(club.scope, other, club.athletes, TODAY)
		expect(await said()).toEqual(['48 h between two days of maximal sprinting; 72 h are asked'])
	})
	it('shows matches beside the sessions', async () => {
		await make('2026-03-18')
		expect(
			await enterOutside(
				club.coach,
				{ squadId: club.squadId },
				{
					kind: 'match',
					day: '2026-03-17',
					startTime: '19:00',
					minutes: '',
					rpe: '',
					hardRunning: '',
					hardCutting: '',
				},
				NOW,
			),
		).toEqual({ entered: 3 })
		const calendar = await readCalendar(club.scope, '2026-03-09', '2026-04-12', TODAY)
		expect(calendar.outside).toMatchObject([{ words: 'Match', day: '2026-03-17', squadIds: [club.squadId] }])
		// Nothing maximal is written within 36 h after it, so that nothing clashes.
		expect(calendar.clashes).toEqual([])
		const [session] = await ahead()
		const starts = (await readLines(club.scope, [session!.id])).filter((line) => line.ladderId === null)
		expect(starts.some((line) => line.drillId === 'range-of-motion')).toBe(true)
		expect(starts.some((line) => line.drillId === 'three-point-start')).toBe(false)
	})
	it('moves nothing into the past, nothing begun and nothing of another club', async () => {
		const id = await make('2026-03-17')
		expect(await moveSession(club.coach, id, '2026-03-01', TODAY, NOW)).toEqual({
			problem: 'A session cannot be moved into the past.',
		})
		expect(await moveSession(club.coach, id, 'soon', TODAY, NOW)).toEqual({ problem: 'soon is not a day.' })
		expect(await moveSession((await makeClub('Other')).coach, id, '2026-03-20', TODAY, NOW)).toBeNull()
		expect((await readSession(club.scope, id))!.day).toBe('2026-03-17')
	})
})

describe('lanes', () => {
	it('are kept per drill and shorten what the group takes', async () => {
		const id = await make('2026-03-17')
		const sheet = (await readSheet(club.scope, id))!
		const [prepare, starts] = await readFlow(club.scope, sheet)
		expect([prepare!.atOnce, starts!.atOnce]).toEqual([true, false])
		expect(starts!.athletes[0]).toMatchObject({ turns: 6, restS: 120, turnsInSet: 6 })
		expect(await saveLanes(club.coach, id, { [starts!.id]: { lanes: 2, together: 2 } }, NOW)).toEqual({ saved: true })
		expect((await readFlow(club.scope, (await readSheet(club.scope, id))!))[1]).toMatchObject({ lanes: 2, together: 2 })
		expect(await saveLanes(club.coach, id, { [starts!.id]: { lanes: 0, together: 1 } }, NOW)).toHaveProperty('problem')
		expect(await saveLanes((await makeClub('Other')).coach, id, {}, NOW)).toBeNull()
	})
})

describe('a block from its targets', () => {
	const proposed: BlockPlan = {
		...plan,
		content: 'proposed',
		priority: 'sprint',
		kept: ['throw'],
		testDay: true,
		days: [
			{ weekday: 2, startTime: '10:00', minutes: 90 },
			{ weekday: 2, startTime: '17:30', minutes: 20 },
			{ weekday: 3, startTime: '18:00', minutes: 75 },
			{ weekday: 5, startTime: '18:00', minutes: 90 },
		],
	}
	it('needs no session to repeat: hard and light days, tendon work and tests, each with its lines', async () => {
		expect(await makeBlock(club.coach, club.squadId, proposed, TODAY, NOW)).toMatchObject({ made: 16, left: 0 })
		const sessions = await ahead()
		expect(sessions.slice(0, 4).map((session) => session.role)).toEqual(['hard', 'tissue', 'light', 'hard'])
		expect(sessions.at(-1)!.role).toBe('test')
		for (const session of sessions)
			expect(
				(await readLines(club.scope, [session.id])).filter((line) => line.blocked === null).length,
				session.title,
			).toBeGreaterThan(0)
		const calendar = await readCalendar(club.scope, MONDAY, addDays(MONDAY, 60), TODAY)
		expect(calendar.clashes).toEqual([])
		expect(calendar.sheetClashes).toEqual([])
	})
	it('says the theme of each hard day, asks for it and is called by it', async () => {
		const made = await makeBlock(club.coach, club.squadId, { ...proposed, themed: true }, TODAY, NOW)
		if (!made || 'problem' in made) throw new Error('no block')
		const sessions = await ahead()
		const days = sessions.slice(0, 8).map(({ theme, title, role }) => [role, theme, title])
		// Two hard days a week: the priority, then the others by turns; throws are only kept.
		expect(days).toEqual([
			['hard', 'acceleration', 'Acceleration'],
			['tissue', null, 'Tendon work'],
			['light', null, 'Technique and throws'],
			['hard', 'stiffness', 'Springs'],
			['hard', 'acceleration', 'Acceleration'],
			['tissue', null, 'Tendon work'],
			['light', null, 'Technique and throws'],
			['hard', 'turns', 'Turns and braking'],
		])
		// Level 3 at 83 %: 240 m when it is about sprinting, two thirds of the middle of 150–240 when sprinting comes second.
		const progress = (await readBlockProgress(club.scope, made.blockId, TODAY))!
		expect(progress.weeks[0]!.asked.fastMetres).toBe(200 + 110)
		const calendar = await readCalendar(club.scope, MONDAY, addDays(MONDAY, 60), TODAY)
		expect(calendar.clashes).toEqual([])
		expect(calendar.sheetClashes).toEqual([])
		for (const session of sessions.slice(0, 8))
			expect(
				(await readLines(club.scope, [session.id])).filter((line) => line.blocked === null).length,
			).toBeGreaterThan(0)
	})
	it('shows what was asked, written and done, week by week', async () => {
		const made = await makeBlock(club.coach, club.squadId, proposed, TODAY, NOW)
		if (!made || 'problem' in made) throw new Error('no block')
		const progress = (await readBlockProgress(club.scope, made.blockId, TODAY))!
		expect(progress.weeks.map((week) => week.sessions)).toEqual([4, 4, 4, 4])
		// Level 3, sprint the priority: 240 m a hard session, two of them at 83 %.
		expect(progress.weeks[0]!.asked).toMatchObject({ fastMetres: 400 })
		expect(progress.weeks[0]!.done).toEqual({ fastMetres: 0, contacts: 0, cuts60: 0, throws: 0 })
		expect(progress.weeks[0]!.written.contacts).toBeGreaterThan(0)
		expect(progress.replan).toBeNull()
		expect(await readBlockProgress(club.scope, randomUUID(), TODAY)).toBeNull()
	})
	it('after a missed week the rest is planned anew, lower first', async () => {
		const made = await makeBlock(club.coach, club.squadId, plan2(), TODAY, NOW)
		if (!made || 'problem' in made) throw new Error('no block')
		// The first week was trained, the second was not.
		const [first] = await ahead()
		await markOne(first!.id)
		const later = addDays(MONDAY, 14)
		const progress = (await readBlockProgress(club.scope, made.blockId, later))!
		expect(progress.weeks.map((week) => week.missed)).toEqual([false, true, false, false])
		expect(progress.replan).toEqual([100, 110, 75, 60])
		const dose = async (index: number) => {
			const session = (await ahead())[index]!
			return {
				share: session.share,
				factor: (await readEntries(club.scope, [session.id])).find((entry) => entry.family === 'sprint')!.doseFactor,
			}
		}
		const before = await dose(4)
		expect(await replanBlock(club.coach, made.blockId, later, NOW)).toEqual({ replanned: 2 })
		expect((await dose(4)).share).toBe(0.63)
		expect(await versionOf(club.scope, 'session', (await ahead())[4]!.id)).toBe(1)
		expect((await dose(4)).factor).toBeLessThan(before.factor)
		expect(await replanBlock(club.coach, made.blockId, later, NOW)).toHaveProperty('problem')
		expect(await replanBlock(club.coach, randomUUID(), later, NOW)).toBeNull()
	})
})

const plan2 = (): BlockPlan => ({ ...plan, content: 'proposed' })
async function markOne(sessionId: string) {
	const [line] = (await readLines(club.scope, [sessionId])).filter((row) => row.blocked === null)
	await acceptEvents(
		club.coach,
		[
			markOf(line!, {
				deviceTime: NOW.toISOString(),
				kind: 'done',
				value: { reps: 1 },
			}),
		],
		NOW,
	)
}

describe('what the rules say about a sheet, and its repair', () => {
	const draft = (entries: unknown[], more = {}) => ({
		squadId: club.squadId,
		day: MONDAY,
		startTime: '17:30',
		title: 'Sheet',
		place: '',
		surface: null,
		plannedMinutes: 90,
		role: 'hard',
		share: 1,
		athleteIds: club.athletes,
		entries,
		...more,
	})
	const save = async (entries: unknown[], more = {}) => {
		const saved = await createSession(club.coach.clubId, 'Atlantic/Madeira', draft(entries, more), NOW)
		if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
		return saved.sessionId
	}
	const clashesOf = async () => (await readCalendar(club.scope, MONDAY, addDays(MONDAY, 20), TODAY)).sheetClashes
	const repairs = async (sessionId: string, rule: string) => {
		const found = (await clashesOf()).filter((clash) => clash.sessionId === sessionId && clash.rule === rule)
		expect(found.length, rule).toBeGreaterThan(0)
		expect(found[0]!.names).toHaveLength(club.athletes.length)
		expect(await repairSheet(club.coach, sessionId, found[0]!.repair!, TODAY, NOW)).toEqual({
			repaired: found[0]!.repair,
		})
		expect((await clashesOf()).filter((clash) => clash.sessionId === sessionId && clash.rule === rule)).toEqual([])
	}
	it('S5: hard work goes before what tires', async () => {
		// A turn of 180° asks for the stops before it.
		for (const athleteId of club.athletes)
			for (const [ladder, rung] of [
				['cut', 'sharp-wide'],
				['brake', 'dead-15'],
			] as const)
				await writeState(club.scope, athleteId, startingAt(STARTER_LIBRARY, ladder, rung), TODAY, NOW)
		await repairs(
			await save([
				draftEntry({
					part: 'Run',
					drillId: 'shuttle-repeat',
					sets: 2,
					reps: 4,
					rest: 120,
					parameters: { distanceM: 40, angleDeg: 180 },
				}),
				draftEntry({
					part: 'Starts',
					drillId: 'standing-start',
					sets: 1,
					reps: 4,
					rest: 90,
					parameters: { distanceM: 10 },
				}),
			]),
			'S5',
		)
	})
	it('S7: more starts than the week’s ramp allows are cut', async () => {
		await repairs(
			await save([
				draftEntry({
					part: 'Starts',
					drillId: 'standing-start',
					sets: 3,
					reps: 12,
					rest: 90,
					parameters: { distanceM: 10 },
				}),
			]),
			'S7',
		)
		const [session] = await ahead()
		expect((await readLines(club.scope, [session!.id])).every((line) => line.dose.sets * line.dose.reps <= 24)).toBe(
			true,
		)
	})
	const startsOf = (sets: number, reps: number) => [
		draftEntry({
			part: 'Starts',
			drillId: 'standing-start',
			sets,
			reps,
			rest: 90,
			parameters: { distanceM: 10 },
		}),
	]
	// Level 3 starts 24 times in a week, whatever came before.
	it('S7: it is cut to what its sentence says is left, what comes later in the week has its own', async () => {
		const monday = await save(startsOf(4, 8))
		const thursday = await save(startsOf(1, 12), { day: addDays(MONDAY, 3) })
		const said = async () => (await clashesOf()).map(({ sessionId, sentence }) => [sessionId, sentence])
		expect(await said()).toEqual([
			[monday, '32 maximal starts, and the week’s ramp leaves 24.'],
			[thursday, '12 maximal starts, and the week’s ramp leaves 0.'],
		])
		expect(await repairSheet(club.coach, monday, 'trim', TODAY, NOW)).toEqual({ repaired: 'trim' })
		const lines = await readLines(club.scope, [monday])
		expect(lines.map(({ dose }) => dose.sets * dose.reps)).toEqual(club.athletes.map(() => 24))
		expect(await said()).toEqual([[thursday, '12 maximal starts, and the week’s ramp leaves 0.']])
	})
	it('what is said of a week does not hang on which weeks are shown', async () => {
		await save(startsOf(2, 7))
		const thursday = await save(startsOf(2, 7), { day: addDays(MONDAY, 3) })
		const friday = await save(startsOf(1, 2), { day: addDays(MONDAY, 4) })
		const shown = async (from: string) => {
			const { sheetClashes, clashes } = await readCalendar(club.scope, from, addDays(MONDAY, 20), TODAY)
			return { week: sheetClashes.map((one) => one.sessionId), tooNear: clashes.map((one) => one.itemId) }
		}
		for (const from of [MONDAY, addDays(MONDAY, 2)])
			expect(await shown(from)).toEqual({ week: [thursday, friday], tooNear: [friday] })
		expect(await shown(addDays(MONDAY, 4))).toEqual({ week: [friday], tooNear: [friday] })
		expect(await shown(addDays(MONDAY, 5))).toEqual({ week: [], tooNear: [] })
	})
	it('S8: a rung whose gate is shut gives way to the one below', async () => {
		const sessionId = await save([draftEntry({ part: 'Cuts', ladderId: 'cut', sets: 1, reps: 1, rest: 60 })])
		for (const athleteId of club.athletes)
			await writeState(club.scope, athleteId, { ...startingAt(STARTER_LIBRARY, 'cut', 'sharp-wide') }, TODAY, NOW)
		await rewriteUpcoming(club.scope, club.athletes, TODAY, NOW)
		await repairs(sessionId, 'S8')
		expect(new Set((await readLines(club.scope, [sessionId])).map((line) => line.rungId))).toEqual(new Set(['wide']))
	})
	it('S10: on gravel four fifths of the contacts are allowed', async () => {
		await repairs(
			await save([draftEntry({ part: 'Jumps', drillId: 'broad-jump', sets: 12, reps: 10, rest: 60 })], {
				surface: 'gravel',
			}),
			'S10',
		)
	})
	it('offers nothing for a line set by hand, and refuses what is begun, unknown or a stranger’s', async () => {
		const sessionId = await save([
			draftEntry({
				part: 'Starts',
				drillId: 'standing-start',
				sets: 1,
				reps: 4,
				rest: 90,
				parameters: { distanceM: 10 },
			}),
		])
		const [line] = await readLines(club.scope, [sessionId])
		await changeLineByHand(club.coach, sessionId, line!.id, { sets: '4', reps: '10', reason: '' }, NOW)
		expect((await clashesOf()).find((clash) => clash.rule === 'S7')).toMatchObject({ repair: null })
		expect(await repairSheet(club.coach, sessionId, 'burn', TODAY, NOW)).toHaveProperty('problem')
		expect(await repairSheet(club.coach, randomUUID(), 'trim', TODAY, NOW)).toBeNull()
		await markOne(sessionId)
		expect(await repairSheet(club.coach, sessionId, 'trim', TODAY, NOW)).toHaveProperty('problem')
	})
})
