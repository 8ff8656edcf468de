import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { careOf, outsideOf } from '../../db/queries/care'
import { readLines } from '../../db/queries/sessions'
import { addMembers, readStates, stateKey, updateSquad, writeLevel, writeState } from '../../db/queries/squads'
import { type TestClub, freshDatabase, makeClub, secondSquad } from '../../tests/support/test-club'
import { acceptEvents } from '../log/accept-events'
import { changeFocus, changeMass } from '../squads/change-roster'
import { moveByHand } from '../squads/move-by-hand'
import { readFacts } from '../facts/read-facts'
import { createSession } from '../sheet/save-session'
import { closeCare, mayOpen, openCare } from './care-records'
import { enterOutside, mayEnterOutside, takeBackOutside } from './outside'
import { draftEntry } from '../../tests/support/draft-entry'
import { saidOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)
const at = (day: string) => new Date(`${day}T12:00:00Z`)
const NOTHING = { kind: '', region: '', pattern: '', drillId: '', note: 'as the physio says', setBy: '', setByRole: '' }
const LOAD = { kind: 'match', day: '', startTime: '', minutes: '', rpe: '', hardRunning: '', hardCutting: '' }

let club: TestClub
let one: string
let session: string
beforeEach(async () => {
	club = await makeClub('Club', 2)
	one = club.athletes[0]!
	for (const id of club.athletes) {
		for (const family of ['sprint', 'plyometric'] as const) await writeLevel(club.scope, id, family, 2)
		await writeState(
			club.scope,
			id,
			startingAt(STARTER_LIBRARY, 'acceleration', 'three-point-20'),
			'2026-01-01',
			at('2026-01-01'),
		)
		await writeState(club.scope, id, startingAt(STARTER_LIBRARY, 'shock', 'depth-15'), '2026-01-01', at('2026-01-01'))
	}
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day: '2026-03-12',
			startTime: '17:30',
			title: 'Speed',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries: [
				draftEntry({ part: 'Acceleration', ladderId: 'acceleration', sets: 1, reps: 6, rest: 120 }),
				draftEntry({ part: 'Jumps', ladderId: 'shock', sets: 5, reps: 2, rest: 120 }),
				draftEntry({ part: 'Jumps', drillId: 'broad-jump', sets: 2, reps: 3, rest: 60 }),
			],
		},
		at('2026-03-10'),
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	session = saved.sessionId
})
const lines = async (athleteId = one) =>
	Object.fromEntries(
		(await readLines(club.scope, [session]))
			.filter((line) => line.athleteId === athleteId)
			.map((line) => [line.ladderId ?? 'fixed', line.blocked ?? line.drillId]),
	)
const before = { acceleration: 'three-point-start', shock: 'depth-jump', fixed: 'broad-jump' }

describe('care records', () => {
	it('change the lines of that athlete at once, and back when they end', async () => {
		expect(await lines()).toEqual(before)
		expect(await openCare(club.coach, one, { ...NOTHING, kind: 'illness' }, at('2026-03-11'))).toEqual({ opened: true })
		expect(await lines()).toEqual({ acceleration: 'a-run', shock: 'pause-jump', fixed: 'broad-jump' })
		expect(await lines(club.athletes[1]!)).toEqual(before)
		const [illness] = await careOf(club.scope, [one])
		expect(await closeCare(club.coach, one, illness!.id, { name: '', role: '' }, at('2026-03-12'))).toEqual({
			ended: true,
		})
		expect(await lines()).toEqual(before)
		expect(await closeCare(club.coach, one, illness!.id, { name: '', role: '' }, at('2026-03-12'))).toHaveProperty(
			'problems',
		)
	})

	it('spare a restricted region on ladders and in drills for everybody; a named clearance leads onto the way back', async () => {
		expect(
			await openCare(club.coach, one, { ...NOTHING, kind: 'restriction', region: 'knee' }, at('2026-03-03')),
		).toHaveProperty('problems.setBy')
		expect(
			await openCare(
				club.coach,
				one,
				{ ...NOTHING, kind: 'restriction', region: 'knee', setBy: 'H. Brekke', setByRole: 'physiotherapist' },
				at('2026-03-03'),
			),
		).toEqual({ opened: true })
		expect(await lines()).toEqual({
			acceleration: 'seated-chest-push',
			shock: 'seated-chest-push',
			fixed: 'seated-chest-push',
		})
		const [row] = await careOf(club.scope, [one])
		expect(
			await closeCare(club.coach, one, row!.id, { name: ' ', role: 'physiotherapist' }, at('2026-03-12')),
		).toHaveProperty('problems')
		expect(
			await closeCare(club.coach, one, row!.id, { name: 'H. Brekke', role: 'physiotherapist' }, at('2026-03-12')),
		).toEqual({ ended: true })
		expect(await lines()).toEqual({ acceleration: 'walk-through', shock: 'two-foot-stick', fixed: 'seated-chest-push' })
		expect((await readStates(club.scope, [one])).get(stateKey(one, 'shock'))?.state.reentry).toMatchObject({
			pathId: 're-entry-land',
		})
	})

	it('are opened by coach and clinician, an illness also by whoever has it; a stranger is nobody', async () => {
		expect(mayOpen(club.as('clinician'), 'restriction', one)).toBe(true)
		expect(mayOpen(club.as('assistant'), 'restriction', one)).toBe(false)
		expect(mayOpen(club.as('athlete', one), 'illness', one)).toBe(true)
		expect(mayOpen(club.as('athlete', one), 'illness', club.athletes[1]!)).toBe(false)
		expect(mayOpen(club.as('athlete', one), 'restriction', one)).toBe(false)
		expect(await openCare(club.coach, randomUUID(), { ...NOTHING, kind: 'illness' }, at('2026-03-11'))).toBeNull()
		expect(
			await openCare(club.coach, one, { ...NOTHING, kind: 'worry', region: 'knee', drillId: 'nope' }, at('2026-03-11')),
		).toHaveProperty('problems.drillId')
	})

	it('take a strong pain report for closed before anybody has looked at it', async () => {
		await acceptEvents(
			club.coach,
			[
				saidOf(session, one, {
					deviceTime: at('2026-03-09').toISOString(),
					kind: 'pain',
					value: { region: 'knee', side: 'left', score: 6, moment: 'next-day', redFlag: false },
				}),
			],
			at('2026-03-10'),
		)
		// It was said about this very session, which is not judged yet: the sheet of another one follows.
		const saved = await createSession(
			club.coach.clubId,
			'Atlantic/Madeira',
			{
				squadId: club.squadId,
				day: '2026-03-16',
				startTime: '17:30',
				title: 'Next',
				place: '',
				surface: null,
				plannedMinutes: 60,
				role: 'hard',
				share: 1,
				athleteIds: [one],
				entries: [draftEntry({ part: 'Jumps', ladderId: 'shock', sets: 5, reps: 2, rest: 120 })],
			},
			at('2026-03-13'),
		)
		expect((await readLines(club.scope, ['sessionId' in saved ? saved.sessionId : '']))[0]).toMatchObject({
			drillId: 'seated-chest-push',
		})
	})
})

describe('what else loads', () => {
	it('is entered for a squad at once, replaces itself, and closes rebounds before the match', async () => {
		expect(
			await enterOutside(club.coach, { squadId: club.squadId }, { ...LOAD, day: '2026-03-13' }, at('2026-03-11')),
		).toEqual({ entered: 2 })
		expect(
			await enterOutside(
				club.coach,
				{ squadId: club.squadId },
				{ ...LOAD, day: '2026-03-13', minutes: '70' },
				at('2026-03-11'),
			),
		).toEqual({ entered: 2 })
		const rows = await outsideOf(club.scope, [one], '2026-03-01')
		expect(rows).toMatchObject([{ kind: 'match', minutes: 70, hardRunning: true }])
		expect((await lines()).shock).toBe('pause-jump')
		expect(await takeBackOutside(club.coach, one, rows[0]!.id, at('2026-03-11'))).toBe(true)
		expect((await lines()).shock).toBe('depth-jump')
		expect((await lines(club.athletes[1]!)).shock).toBe('pause-jump')
	})
	it('in a jumping sport is work of jumps, the gym aside and what is said otherwise', async () => {
		const other = await secondSquad(club, 'quality-first')
		await addMembers(club.scope, other, [one], '2026-03-01')
		await updateSquad(club.scope, club.squadId, { jumpingSport: true })
		const enter = (to: { squadId: string } | { athleteId: string }, day: string, more: object = {}) =>
			enterOutside(club.coach, to, { ...LOAD, day, ...more }, at('2026-03-11'))
		await enter({ squadId: club.squadId }, '2026-03-12', { kind: 'practice' })
		await enter({ athleteId: one }, '2026-03-13')
		await enter({ athleteId: one }, '2026-03-14', { hardJumping: 'no' })
		// The other squad's match is of another sport, whoever plays in it.
		await enter({ squadId: other }, '2026-03-15', { kind: 'tournament' })
		await enter({ squadId: other }, '2026-03-16', { hardJumping: 'yes' })
		await enter({ athleteId: one }, '2026-03-17', { kind: 'gym' })
		const rows = await outsideOf(club.scope, [one], '2026-03-01')
		expect(rows.map(({ kind, hardJumping }) => [kind, hardJumping])).toEqual([
			['practice', true],
			['match', true],
			['match', false],
			['tournament', false],
			['match', true],
			['gym', false],
		])
		const facts = await readFacts(
			club.scope,
			{ day: '2026-03-16', startTime: '12:00', phase: 'accumulate', surface: null },
			{ schoolId: 'quality-first' },
			[one],
			STARTER_LIBRARY,
			'2026-03-16',
		)
		expect(facts.get(one)!.lastWork).toMatchObject({ plyometric: '2026-03-13', sprint: '2026-03-15' })
	})
	it('an athlete enters and takes back what loads them, and nothing of others or of the coach’s', async () => {
		const [self, stranger] = [club.as('athlete', one), club.as('athlete', club.athletes[1]!)]
		Object.assign(self, { personId: randomUUID() })
		expect([
			mayEnterOutside(self, one),
			mayEnterOutside(stranger, one),
			mayEnterOutside(club.as('clinician'), one),
		]).toEqual([true, false, false])
		const gym = { ...LOAD, kind: 'gym', day: '2026-03-11' }
		expect(await enterOutside(self, { athleteId: one }, gym, at('2026-03-11'))).toEqual({ entered: 1 })
		const match = { ...LOAD, day: '2026-03-11' }
		expect(await enterOutside(club.coach, { athleteId: one }, match, at('2026-03-11'))).toEqual({ entered: 1 })
		expect(await enterOutside(self, { athleteId: one }, { ...match, minutes: '5' }, at('2026-03-11'))).toHaveProperty(
			'problems.outside',
		)
		const rows = await outsideOf(club.scope, [one], '2026-03-11')
		const [own, coachs] = [rows.find(({ kind }) => kind === 'gym')!, rows.find(({ kind }) => kind === 'match')!]
		expect(coachs.minutes).toBe(90)
		expect(await takeBackOutside(self, one, coachs.id, at('2026-03-11'))).toBe(false)
		expect(await takeBackOutside(stranger, one, own.id, at('2026-03-11'))).toBe(false)
		expect(await takeBackOutside(self, one, own.id, at('2026-03-11'))).toBe(true)
		expect(await takeBackOutside(club.coach, one, coachs.id, at('2026-03-11'))).toBe(true)
	})
	it('keeps a gym visit in a line, and lets no second new hard thing near a new lift', async () => {
		const gym = { ...LOAD, kind: 'gym', day: '2026-03-11', lifts: 'Back squat 80 kg × 5 first time; plank' }
		expect(await enterOutside(club.coach, { athleteId: one }, gym, at('2026-03-11'))).toEqual({ entered: 1 })
		const [row] = await outsideOf(club.scope, [one], '2026-03-11')
		expect(row!.lifts).toEqual([
			{ exercise: 'Back squat', kg: 80, reps: 5, isNew: true },
			{ exercise: 'plank', kg: null, reps: null, isNew: false },
		])
		const facts = await readFacts(
			club.scope,
			{ day: '2026-03-13', startTime: '17:30', phase: 'accumulate', surface: null },
			{ schoolId: 'quality-first' },
			[one],
			STARTER_LIBRARY,
			'2026-03-11',
		)
		expect(facts.get(one)!.newOutside).toEqual([{ day: '2026-03-11', name: 'Back squat' }])
		expect(await takeBackOutside(club.coach, one, row!.id, at('2026-03-11'))).toBe(true)
	})
	it.each([
		[{ kind: 'party' }],
		[{ kind: 'gym', lifts: '100 kg x 5' }],
		[{ day: 'soon' }],
		[{ minutes: '0' }],
		[{ rpe: '11' }],
		[{ startTime: '25:00' }],
	])('refuses %j', async (change) => {
		expect(await enterOutside(club.coach, { athleteId: one }, { ...LOAD, ...change }, at('2026-03-11'))).toHaveProperty(
			'problems.outside',
		)
	})
})

describe('moves, focus and mass', () => {
	it('moves by hand with a reason, never past a block', async () => {
		expect(
			await moveByHand(
				club.coach,
				[{ athleteId: one, ladderId: 'shock', rungId: 'pause-15' }],
				' ',
				'',
				at('2026-03-11'),
			),
		).toHaveProperty('problems')
		expect(
			await moveByHand(
				club.coach,
				[{ athleteId: one, ladderId: 'shock', rungId: 'depth-45' }],
				'looked easy',
				'',
				at('2026-03-11'),
			),
		).toHaveProperty('problems')
		expect(
			await moveByHand(
				club.coach,
				[{ athleteId: one, ladderId: 'shock', rungId: 'pause-15' }],
				'tired knees',
				'',
				at('2026-03-11'),
			),
		).toEqual({
			moved: 1,
		})
		expect((await lines()).shock).toBe('pause-jump')
		expect(
			await moveByHand(
				club.coach,
				[{ athleteId: randomUUID(), ladderId: 'shock', rungId: 'pause-15' }],
				'tired knees',
				'',
				at('2026-03-11'),
			),
		).toBeNull()
	})
	it('gives a kept ladder two thirds of its dose', async () => {
		expect(await changeFocus(club.coach, club.squadId, 'acceleration', 'kept', 0, at('2026-03-11'))).toBe(true)
		expect((await readLines(club.scope, [session])).find((line) => line.ladderId === 'acceleration')?.dose).toEqual({
			sets: 1,
			reps: 4,
		})
		expect(await changeFocus(club.coach, club.squadId, 'nope', 'kept', 1, at('2026-03-11'))).toBe(false)
	})
	it('keeps a body mass in kilograms', async () => {
		expect(await changeMass(club.coach, one, '71,5', 0, at('2026-03-11'))).toEqual({ saved: true })
		expect(await changeMass(club.coach, one, 'heavy', 1, at('2026-03-11'))).toHaveProperty('problem')
		expect(await changeMass(club.coach, randomUUID(), '70', 0, at('2026-03-11'))).toBeNull()
	})
})
