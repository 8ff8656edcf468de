import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, expect, it } from 'vitest'
import { addDays } from '../../core/calendar/day-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { readSquad, writeState } from '../../db/queries/squads'
import { readLibrary } from '../../db/queries/library'
import { insertMeans } from '../../db/queries/marks'
import { readLines, readSession, updateSession } from '../../db/queries/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { saveMeasurement, takeBackMeasurement } from '../bench/save-measurement'
import { readPack } from '../field/read-pack'
import { readFieldSpeeds } from './read-measured'
import { acceptEvents } from '../log/accept-events'
import { readErrors } from '../marks/read-errors'
import { proposeVerdicts } from '../review/propose'
import { readSheet } from '../sheet/read-sheet'
import { readTargets } from '../sheet/read-targets'
import { readAthletePage } from '../squads/read-athlete'

// What was measured at the bench and logged on the field, followed into lines, targets, the phone's pack and verdicts.

const DAY = '2026-03-12'
let club: TestClub
let one: string
beforeAll(freshDatabase)
beforeEach(async () => {
	club = await makeClub('Club')
	one = club.athletes[0]!
	for (const id of club.athletes)
		for (const [ladder, rung] of [
			['shock', 'depth-45'],
			['stiffness', 'single-leg-pogo'],
			['top-speed', 'wickets'],
		] as const) {
			const state = startingAt(STARTER_LIBRARY, ladder, rung)
			await writeState(club.scope, id, id === one ? { ...state, favour: 'right' } : state, '2026-01-01', NOW)
		}
})

const bench = async (calculation: string, method: string, input: object, takenOn = '2026-03-10') => {
	const id = randomUUID()
	const saved = await saveMeasurement(club.coach, { id, athleteId: one, takenOn, calculation, method, input }, NOW)
	expect(saved).toMatchObject({ saved: 'new' })
	return id
}
const jumps = (best: number, takenOn?: string) =>
	bench(
		'drop-jump-series',
		'mat',
		{
			contact_ceiling_s: 0.2,
			jumps: [15, 30, 45].map((cm) => ({
				box_m: cm / 100,
				contact_time_s: cm <= best ? 0.14 : 0.19,
				flight_time_s: 0.4 + cm / 1000,
			})),
		},
		takenOn,
	)
const entry = (drillId: string, parameters = {}) =>
	draftEntry({ part: drillId, drillId, sets: 2, reps: 3, rest: 60, parameters })
const ladder = (ladderId: string) => draftEntry({ part: ladderId, ladderId, sets: 1, reps: 1, rest: 60 })
const linesOf = async (session: string, athleteId = one) =>
	(await readLines(club.scope, [session])).filter((line) => line.athleteId === athleteId)

it('a best box lowers the line of that athlete alone, as soon as it is measured, and gives it back when it is taken back', async () => {
	const session = await planSession(club, DAY, [ladder('shock')])
	const line = async (athleteId = one) => {
		const [only] = await linesOf(session, athleteId)
		return [only!.rungId, only!.parameters.heightCm]
	}
	expect(await line()).toEqual(['depth-45', 45])
	const measured = await jumps(30)
	expect(await line()).toEqual(['depth-30', 30])
	expect((await linesOf(session))[0]!.version).toBe(2)
	expect(await line(club.athletes[1]!)).toEqual(['depth-45', 45])
	await takeBackMeasurement(club.coach, measured, randomUUID(), NOW)
	expect(await line()).toEqual(['depth-45', 45])
})

it('what was measured stands beside the lines it sets, on sheet and phone, with the rep that moves to the weaker leg', async () => {
	await bench('resisted-load', 'gate', {
		loads: [
			{ load_kg: 0, velocity_mps: 9 },
			{ load_kg: 20, velocity_mps: 7.5 },
			{ load_kg: 40, velocity_mps: 6 },
		],
		target_decrement: 0.1,
	})
	await bench('steps', 'film', { distance_m: 20, time_s: 2.3, steps: 9 })
	await jumps(45)
	const session = await planSession(club, DAY, [
		ladder('shock'),
		ladder('stiffness'),
		entry('resisted-start', { distanceM: 15, resistPercent: 25 }),
		ladder('top-speed'),
	])
	const sheet = (await readSheet(club.scope, session))!
	const targets = await readTargets(club.scope, sheet)
	const own = Object.fromEntries(
		(await linesOf(session)).map((line) => [line.drillId, targets.get(line.id)!.own.map(({ words }) => words)]),
	)
	expect(own).toEqual({
		'depth-jump': ['Own best box 45 cm (contact mat, Tue 10 Mar).'],
		'single-leg-pogo': ['Left 3×5, right 3×7.'],
		'resisted-start': ['30.0 kg for 25.0 % slower, off the own load–velocity line (gate, Tue 10 Mar).'],
		'wicket-run': ['10 wickets 1.84 to 2.22 m apart: the own step is 2.22 m (film, Tue 10 Mar).'],
	})
	const pack = (await readPack(club.scope, session, 'coach'))!
	const ofPack = pack.sheet.lines.filter((line) => line.athleteId === one)
	expect(Object.fromEntries(ofPack.map((line) => [line.drillId, line.own]))).toEqual(own)
	expect(pack.sheet.lines.filter((line) => line.athleteId !== one && line.own)).toEqual([])
})

const at = (session: string, line: { id: string; entryId: string }, seq: number, day: string, more: object) => ({
	id: randomUUID(),
	sessionId: session,
	athleteId: one,
	entryId: line.entryId,
	lineId: line.id,
	deviceId: club.coach.personId,
	deviceSeq: seq,
	deviceTime: `${day}T17:40:${String(seq % 60).padStart(2, '0')}.000Z`,
	setNo: 1,
	type: 'mark',
	kind: 'sprint',
	...more,
})

it('gate splits of three ordinary sessions make a top speed, and a squad’s reps its own error, with their number', async () => {
	// Times at 10, 20, 30 and 40 m of 9 m/s and 1.2 s: by halving d(t) = 9 (t − 1.2 (1 − e^(−t/1.2))).
	const splits = [10, 20, 30, 40].map((distanceM, i) => ({ distanceM, timeS: [2.103, 3.349, 4.505, 5.633][i]! }))
	const days = ['2026-02-26', '2026-03-02', '2026-03-05']
	let seq = 0
	for (const day of days) {
		const now = new Date(`${day}T18:00:00Z`)
		const session = await planSession(club, day, [entry('standing-start', { distanceM: 40 })], { at: now })
		const [line] = await linesOf(session)
		const marks = Array.from({ length: 8 }, (_, rep) => {
			// Every other rep 0.08 s later: a scatter of 0.04 s around the mean.
			const late = rep % 2 === 0 ? 0 : 0.08
			return at(session, line!, ++seq, day, {
				repNo: rep + 1,
				value: { splits: splits.map((one) => ({ ...one, timeS: one.timeS + late })), method: 'gate' },
			})
		})
		const answers = await acceptEvents(club.coach, marks, now)
		expect(answers.map((answer) => answer.outcome)).toEqual(marks.map(() => 'accepted'))
	}
	const errors = await readErrors(club.scope, club.squadId, DAY)
	// 3 sessions of 8 reps are 21 pairs: √((20 · 0.02² + 24 · 0.04²) / 41).
	expect(errors).toEqual({ 'standing-start': { 'sprint/gate': { sd: expect.closeTo(0.03363, 4), pairs: 21 } } })
	expect(await readErrors(club.scope, club.squadId, '2026-03-05')).toEqual({})

	const page = (await readAthletePage(club.scope, one, DAY))!
	expect(page.standing).toEqual(['Top speed 9.00 m/s (3 sessions, gates, Thu 5 Mar): sets pulled runs.'])
	expect(page.records.map(({ what, repError }) => [what, repError])).toEqual([
		['Standing start, 40 m', errors['standing-start']!['sprint/gate']],
	])

	const session = await planSession(club, DAY, [
		entry('assisted-fly', { distanceM: 20, runInM: 20, assistPercent: 5 }),
		entry('standing-start', { distanceM: 40 }),
	])
	const pack = (await readPack(club.scope, session, 'coach'))!
	expect(pack.sheet.athletes.find(({ id }) => id === one)!.curve).toEqual({
		mssMps: expect.closeTo(9, 1),
		tauS: expect.closeTo(1.2, 1),
	})
	const timed = pack.sheet.lines.find((line) => line.athleteId === one && line.drillId === 'standing-start')!
	expect(timed.errors).toEqual(errors['standing-start'])
	expect(pack.sheet.lines.filter((line) => line.drillId !== 'standing-start' && line.errors)).toEqual([])
})

it('what the first sprint of a day usually is counts on its own ground alone', async () => {
	for (let turn = 0; turn < 8; turn++) {
		const day = addDays('2026-02-05', 4 * turn)
		const now = new Date(`${day}T18:00:00Z`)
		const session = await planSession(club, day, [entry('standing-start', { distanceM: 10 })], { at: now })
		const [line] = await linesOf(session)
		const value = { splits: [{ distanceM: 10, timeS: 1.9 }], method: 'gate' }
		const [answer] = await acceptEvents(club.coach, [at(session, line!, 900 + turn, day, { repNo: 1, value })], now)
		expect(answer).toMatchObject({ outcome: 'accepted' })
	}
	const session = await planSession(club, DAY, [entry('standing-start', { distanceM: 10 })])
	const usual = async () =>
		(await readPack(club.scope, session, 'coach'))!.sheet.athletes.find(({ id }) => id === one)!.usual
	expect(await usual()).toMatchObject([{ distanceM: 10, method: 'gate', reference: { n: 8 } }])
	await updateSession(club.scope, session, { surface: 'track' })
	expect(await usual()).toEqual([])
})

it('the first sprint of today is held against first sprints of its drill, start and ground, and a run that is not plain against none', async () => {
	for (let turn = 0; turn < 8; turn++) {
		const day = addDays('2026-02-05', 4 * turn)
		const now = new Date(`${day}T18:00:00Z`)
		const session = await planSession(
			club,
			day,
			// The sheet’s first is run round a curve in every other session.
			turn % 2 === 0
				? [entry('standing-start', { distanceM: 40, radiusM: 10 })]
				: [entry('standing-start', { distanceM: 20 })],
			{ at: now },
		)
		const [line] = await linesOf(session)
		expect(line!.parameters.radiusM).toBe(turn % 2 === 0 ? 10 : undefined)
		const splits = [10, line!.parameters.distanceM!].map((distanceM) => ({ distanceM, timeS: distanceM / 5 }))
		const mark = at(session, line!, 800 + turn, day, { repNo: 1, value: { splits, method: 'gate' } })
		expect(await acceptEvents(club.coach, [mark], now)).toMatchObject([{ outcome: 'accepted' }])
	}
	const session = await planSession(club, DAY, [
		entry('standing-start', { distanceM: 10 }),
		entry('standing-start', { distanceM: 30 }),
		entry('three-point-start', { distanceM: 10 }),
		entry('standing-start', { distanceM: 40, radiusM: 10 }),
		entry('standing-start', { distanceM: 20, runInM: 10 }),
		entry('resisted-start', { distanceM: 10, resistPercent: 10 }),
		entry('pogo'),
	])
	const { sheet } = (await readPack(club.scope, session, 'coach'))!
	// Four of the eight are starts: too few for a usual, and the curves do not fill them up.
	expect(sheet.athletes.find(({ id }) => id === one)!.usual).toEqual([])
	const own = sheet.lines.filter(({ athleteId }) => athleteId === one)
	const drills = ['standing-start', 'standing-start', 'three-point-start', 'standing-start', 'standing-start']
	expect(own.map(({ drillId }) => drillId)).toEqual([...drills, 'resisted-start', 'pogo'])
	const likes = own.map((line) => line.firstMetres)
	expect(likes[0]).toBeDefined()
	expect(likes[1]).toBe(likes[0])
	expect(likes[2]).toBeDefined()
	expect(likes[2]).not.toBe(likes[0])
	expect(likes.slice(3)).toEqual([undefined, undefined, undefined, undefined])
})

it('no curve of the own speed is made of runs that turn, or begin at speed', async () => {
	const splits = [10, 20, 30, 40].map((distanceM, i) => ({ distanceM, timeS: [2.103, 3.349, 4.505, 5.633][i]! }))
	let seq = 700
	const threeTimes = async (drillId: string, parameters: object, since: string) => {
		for (const days of [0, 1, 2]) {
			const day = addDays(since, days)
			const now = new Date(`${day}T18:00:00Z`)
			const session = await planSession(club, day, [entry(drillId, parameters)], { at: now })
			const [line] = await linesOf(session)
			expect(line!.drillId).toBe(drillId)
			const mark = at(session, line!, ++seq, day, { repNo: 1, value: { splits, method: 'gate' } })
			expect(await acceptEvents(club.coach, [mark], now)).toMatchObject([{ outcome: 'accepted' }])
		}
		return (await readFieldSpeeds(club.scope, [one], DAY)).get(one)?.sessions
	}
	expect(await threeTimes('standing-start', { distanceM: 40, radiusM: 10 }, '2026-02-10')).toBeUndefined()
	expect(await threeTimes('standing-start', { distanceM: 40, runInM: 10 }, '2026-02-14')).toBeUndefined()
	expect(await threeTimes('tempo-run', { distanceM: 40 }, '2026-02-18')).toBeUndefined()
	expect(await threeTimes('standing-start', { distanceM: 40 }, '2026-02-22')).toBe(3)
})

it('how far a day moves a squad comes from its session means, without what their reps leave of it', async () => {
	const day = (at: number) => addDays('2026-02-01', 3 * at)
	for (let at = 0; at < 8; at++) {
		const now = new Date(`${day(at)}T10:00:00Z`)
		const sessionId = await planSession(club, day(at), [entry('standing-start', { distanceM: 20 })], { at: now })
		// Means 0.03 s around 3.00 s, of four reps whose squares sum up to 0.0012 s².
		const mean = at % 2 === 0 ? 2.97 : 3.03
		await insertMeans(
			club.scope,
			club.athletes.map((athleteId) => ({
				athleteId,
				key: '1|sprint|standing-start|standing|d20|-|-|-|-|-|gate',
				sessionId,
				day: day(at),
				n: 4,
				mean,
				squares: 0.0012,
				best: mean,
			})),
		)
	}
	// By hand: 72 pairs of 0.0004 s² are the default's own 0.02 s. 21 days: 3 · 0.0072 / 9 / 21 = 0.000114286, less
	// 0.0004 / 4 / 9 = 0.0000111: 1.0317 %² against 20 of 1 %²: √((20 + 21 · 1.0317) / 41) = 1.00811.
	expect(await readErrors(club.scope, club.squadId, DAY)).toEqual({
		'standing-start': {
			'sprint/gate': {
				sd: expect.closeTo(0.02, 10),
				pairs: 72,
				dayPercent: expect.closeTo(1.00811, 4),
				days: 21,
			},
		},
	})
	// Seven sessions are 18 days: too few.
	expect((await readErrors(club.scope, club.squadId, day(7)))['standing-start']!['sprint/gate']).not.toHaveProperty(
		'days',
	)
})

it('a verdict is made with the best box and the squad’s error, and keeps both in its input', async () => {
	await jumps(30, '2026-03-03')
	const day = addDays(DAY, -7)
	const session = await planSession(club, day, [ladder('shock')], { at: new Date(`${day}T16:00:00Z`) })
	const row = (await readSession(club.scope, session))!
	const squad = (await readSquad(club.scope, club.squadId))!
	const proposals = await proposeVerdicts(club.scope, row, squad, await readLibrary(club.scope))
	const of = (id: string) => proposals.find((proposal) => proposal.athleteId === id)!.input
	expect(of(one).bestBox).toEqual({ heightCm: 30, keepsGoal: true, on: '2026-03-03', how: 'contact mat' })
	expect(of(club.athletes[1]!)).not.toHaveProperty('bestBox')
	expect(of(one)).not.toHaveProperty('errors')
})
