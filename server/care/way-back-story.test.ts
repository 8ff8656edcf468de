import { randomUUID } from 'node:crypto'
import { beforeAll, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { readLines, sessionsBetween } from '../../db/queries/sessions'
import { readStates, writeState } from '../../db/queries/squads'
import { readPack } from '../field/read-pack'
import { acceptEvents } from '../log/accept-events'
import { decideVerdicts } from '../review/decide'
import { readReview } from '../review/read-review'
import { createSession } from '../sheet/save-session'
import { planSession } from '../../tests/support/plan-session'
import { typedReport } from '../../tests/support/report-typed'
import { markOf, saidOf } from '../../tests/support/mark-of'
import { recordClearance } from './clear'
import { report } from './report'

// From a knee that gave way to the ladders again: sessions of the way back with one set-back and a gap of three weeks.
// One step a session; forward when it was done and the answer is 0, repeated at 1–2, one back at 3; a gap of 15 to 28
// days goes one back; whoever was not asked repeats.

beforeAll(freshDatabase)
const at = (day: string) => new Date(`${day}T19:00:00Z`)

async function begin(): Promise<{ club: TestClub; athlete: string }> {
	const club = await makeClub('Club', 1, '2026-03-11')
	const athlete = club.athletes[0]!
	for (const [ladderId, rungId] of [
		['acceleration', 'three-point-20'],
		['shock', 'pause-30'],
	] as const)
		await writeState(club.scope, athlete, startingAt(STARTER_LIBRARY, ladderId, rungId), '2026-03-01', at('2026-03-01'))
	return { club, athlete }
}

/** One session: everything on the sheet is done, the knee is asked about or not, every verdict accepted. */
async function train({ club, athlete }: { club: TestClub; athlete: string }, day: string, answer: number | null) {
	const made = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day,
			startTime: '17:30',
			title: 'Back',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: [athlete],
			entries: ['acceleration', 'shock'].map((ladderId) =>
				draftEntry({ part: ladderId, ladderId, drillId: 'pogo', sets: 1, reps: 1, rest: 60 }),
			),
		},
		at(day),
	)
	if (!('sessionId' in made)) throw new Error(`no session on ${day}`)
	const { sessionId } = made
	const lines = (await readLines(club.scope, [sessionId])).filter((line) => line.blocked === null)
	const device = { deviceId: randomUUID(), deviceTime: `${day}T18:00:00.000Z` }
	const marks = lines.map((line, deviceSeq) =>
		markOf(line, { ...device, deviceSeq, kind: 'done', value: { reps: line.dose.sets * line.dose.reps } }),
	)
	const asked =
		answer === null
			? []
			: [
					saidOf(sessionId, athlete, {
						...device,
						deviceSeq: lines.length,
						kind: 'quiet',
						value: { region: 'knee', side: 'left', score: answer },
					}),
				]
	const taken = await acceptEvents(club.coach, [...marks, ...asked], at(day))
	expect(taken.map((one) => one.outcome)).toEqual(taken.map(() => 'accepted'))
	const rows = (await readReview(club.scope, sessionId))!.rows
	const decided = await decideVerdicts(
		club.coach,
		sessionId,
		rows.map(({ athleteId, ladderId, inputHash }) => ({ athleteId, ladderId, inputHash })),
		at(day),
	)
	expect(decided?.refused).toEqual([])
	return {
		done: lines.map((line) => line.rungId ?? line.drillId),
		drills: lines.map((line) => STARTER_LIBRARY.drills[line.drillId!]!),
	}
}
const standing = async ({ club, athlete }: { club: TestClub; athlete: string }, ladderId: string) => {
	const states = [...(await readStates(club.scope, [athlete])).values()].map((one) => one.state)
	const state = states.find((one) => one.ladderId === ladderId)!
	return state.reentry ? `back at ${state.reentry.rungId}` : `${state.rungId} ${state.back?.percent ?? 100} %`
}

it('a knee comes back step by step, with a set-back and a gap, to two rungs below at 60 %', async () => {
	const who = await begin()
	const { club, athlete } = who
	const first = await train(who, '2026-03-12', null)
	expect(first.done).toEqual(['three-point-20', 'pause-30'])
	// A late report of that evening, and the clearance the week after.
	const said = await acceptEvents(
		club.coach,
		[
			saidOf((await sessionsBetween(club.scope, '2026-03-12', '2026-03-12'))[0]!.id, athlete, {
				deviceTime: '2026-03-12T19:00:00.000Z',
				kind: 'pain',
				value: { region: 'knee', side: 'left', score: 9, moment: 'during', redFlag: true },
			}),
		],
		at('2026-03-12'),
	)
	expect(said[0]?.outcome).toBe('accepted')
	const closed = await train(who, '2026-03-16', null)
	// Closed: nothing that loads a knee.
	for (const drill of closed.drills) expect(drill.regions.knee ?? 0, drill.id).toBe(0)
	const cleared = { region: 'knee', side: '', clearedBy: 'H. Brekke', role: 'physiotherapist', injury: 'yes' }
	expect(await recordClearance(club.as('clinician'), athlete, cleared, at('2026-03-18'))).toEqual({ cleared: true })
	expect(await standing(who, 'acceleration')).toBe('back at walk')

	const steps: [day: string, answer: number | null, run: string][] = [
		['2026-03-19', 0, 'shapes'],
		// Nobody asked: repeated.
		['2026-03-23', null, 'shapes'],
		['2026-03-26', 0, 'run-60'],
		['2026-03-30', 1, 'run-60'],
		['2026-04-02', 0, 'run-70'],
		// A set-back: one step back.
		['2026-04-06', 3, 'run-60'],
		['2026-04-09', 0, 'run-70'],
		['2026-04-13', 0, 'run-80'],
	]
	for (const [day, answer, run] of steps) {
		const { done, drills } = await train(who, day, answer)
		// One step a path, and beside it nothing that loads the knee more than a little.
		const path = STARTER_LIBRARY.ladders['re-entry-run']!.rungs.map((rung) => rung.id)
		expect(done.filter((id) => path.includes(id!)).length, `${day}: ${done.join()}`).toBeLessThanOrEqual(1)
		for (const drill of drills) expect(['low', 'moderate'], `${day} ${drill.id}`).toContain(drill.intensity)
		expect(await standing(who, 'acceleration'), `after ${day}`).toBe(`back at ${run}`)
	}
	// Three weeks away: what is written is one step back.
	const after = await train(who, '2026-05-05', 0)
	expect(after.done).toContain('run-70')
	// What an assistant's phone is sent of it says the step, never what was said.
	const [session] = await sessionsBetween(club.scope, '2026-05-05', '2026-05-05')
	const pack = JSON.stringify(await readPack(club.scope, session!.id, 'assistant'))
	expect(pack).toContain('"ask":[{"region":"knee"')
	expect(pack).not.toMatch(/H\. Brekke|"kind":"(pain|quiet)"|9 of 10/)
	const walked = [await standing(who, 'acceleration')]
	for (const day of ['2026-05-07', '2026-05-11', '2026-05-14', '2026-05-18', '2026-05-21', '2026-05-25']) {
		await train(who, day, 0)
		walked.push(await standing(who, 'acceleration'))
		if (!walked.at(-1)!.startsWith('back')) break
	}
	expect(walked).toEqual(['back at run-80', 'back at run-90', 'back at run-95', 'back at run-100', 'a-run 60 %'])
}, 120_000)

it('two sessions of one day: the step stands in the first, low work in the second', async () => {
	const { club, athlete } = await begin()
	const entries = () =>
		['acceleration', 'shock'].map((ladderId) =>
			draftEntry({ part: ladderId, ladderId, drillId: 'pogo', sets: 1, reps: 1, rest: 60 }),
		)
	await report(club.coach, athlete, typedReport('pain', { region: 'knee', side: 'left', score: '8' }), at('2026-03-12'))
	const cleared = { region: 'knee', side: '', clearedBy: 'H. Brekke', role: 'physiotherapist', injury: 'yes' }
	expect(await recordClearance(club.as('clinician'), athlete, cleared, at('2026-03-13'))).toEqual({ cleared: true })
	const steps = ['re-entry-run', 're-entry-land'].flatMap((id) => STARTER_LIBRARY.ladders[id]!.rungs)
	const stepsOf = async (session: string) =>
		(await readLines(club.scope, [session])).flatMap((line) =>
			steps.filter((step) => step.id === line.rungId && step.drillId === line.drillId).map(({ id }) => id),
		)
	const morning = await planSession(club, '2026-03-14', entries(), { startTime: '09:00', at: at('2026-03-13') })
	const evening = await planSession(club, '2026-03-14', entries(), { startTime: '17:30', at: at('2026-03-13') })
	const nextDay = await planSession(club, '2026-03-15', entries(), { at: at('2026-03-13') })
	expect((await stepsOf(morning)).sort()).toEqual(['stick-two', 'walk'])
	expect(await stepsOf(evening)).toEqual([])
	for (const line of await readLines(club.scope, [evening]))
		if (line.drillId) expect(STARTER_LIBRARY.drills[line.drillId]!.intensity).toBe('low')
	expect((await stepsOf(nextDay)).sort()).toEqual(['stick-two', 'walk'])
})
