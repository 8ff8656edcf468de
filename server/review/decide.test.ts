import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { freshDatabase, makeClub, secondSquad, type TestClub } from '../../tests/support/test-club'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { judge } from '../../core/judge/judge'
import { startingAt } from '../../core/judge/resolve-line'
import { hashOf, readLibrary } from '../../db/queries/library'
import { readEntries, readLines, readSession, sessionsBetween, updateEntry } from '../../db/queries/sessions'
import { addMembers, readSquad, readStates, stateKey, writeLevel, writeState } from '../../db/queries/squads'
import { verdictsOfSession } from '../../db/queries/verdicts'
import { acceptEvents } from '../log/accept-events'
import { changeLineByHand } from '../sheet/change-line'
import { createSession } from '../sheet/save-session'
import { recordClearance } from '../care/clear'
import { decideVerdicts } from './decide'
import { documentsOf } from './gather'
import { type Proposal, proposeVerdicts, readProposals } from './propose'
import { draftEntry } from '../../tests/support/draft-entry'

beforeAll(freshDatabase)

let club: TestClub
let seq = 0
const at = (day: string) => new Date(`${day}T19:00:00Z`)

beforeEach(async () => {
	club = await makeClub('Club')
	for (const athleteId of club.athletes) {
		await writeLevel(club.scope, athleteId, 'sprint', 2)
		await writeState(
			club.scope,
			athleteId,
			startingAt(STARTER_LIBRARY, 'acceleration', 'three-point-20'),
			'2026-01-01',
			at('2026-01-01'),
		)
	}
})

async function plan(day: string): Promise<string> {
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day,
			startTime: '17:30',
			title: 'Speed',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries: [draftEntry({ part: 'Acceleration', ladderId: 'acceleration', sets: 1, reps: 6, rest: 120 })],
		},
		at(day),
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	return saved.sessionId
}

async function log(sessionId: string, day: string, athleteId: string, times: number[], pain?: number): Promise<void> {
	const line = (await readLines(club.scope, [sessionId])).find((row) => row.athleteId === athleteId)!
	const common = () => ({
		id: randomUUID(),
		sessionId,
		athleteId,
		deviceId: club.coach.personId,
		deviceSeq: seq++,
		deviceTime: at(day).toISOString(),
	})
	const distanceM = line.parameters.distanceM ?? 20
	const events: unknown[] = times.map((timeS, rep) => ({
		...common(),
		entryId: line.entryId,
		lineId: line.id,
		setNo: 1,
		repNo: rep + 1,
		type: 'mark',
		kind: 'sprint',
		value: { splits: [{ distanceM, timeS }], method: 'gate' },
	}))
	if (pain !== undefined)
		events.push({
			...common(),
			type: 'observation',
			kind: 'pain',
			value: { region: 'back-thigh', side: 'left', score: pain, moment: 'during', redFlag: false },
		})
	expect((await acceptEvents(club.coach, events, at(day))).map((answer) => answer.outcome)).toEqual(
		events.map(() => 'accepted'),
	)
}

async function proposals(sessionId: string) {
	const [session, squad, library] = [
		await readSession(club.scope, sessionId),
		await readSquad(club.scope, club.squadId),
		await readLibrary(club.scope),
	]
	return proposeVerdicts(club.scope, session!, squad!, library)
}
async function acceptAll(
	sessionId: string,
	day: string,
	overrule?: { athleteId: string; word: string; reason: string },
) {
	const decisions = (await proposals(sessionId)).map(({ athleteId, ladderId, inputHash }) => ({
		athleteId,
		ladderId,
		inputHash,
		...(overrule?.athleteId === athleteId ? { overrule } : {}),
	}))
	return decideVerdicts(club.coach, sessionId, decisions, at(day))
}
const lineOf = async (sessionId: string, athleteId: string) =>
	(await readLines(club.scope, [sessionId])).find((row) => row.athleteId === athleteId)!
const FALLING = [3.06, 3.05, 3.07, 3.08, 3.18, 3.22]
const STEADY = [3.1, 3.08, 3.09, 3.1, 3.09, 3.1]

const cleared = (more: object) => ({
	region: 'back-thigh',
	side: '',
	clearedBy: 'H. Brekke',
	role: 'physiotherapist',
	injury: '',
	...more,
})

describe('deciding', () => {
	it('moves the ladder state, writes the next session and stores the whole input', async () => {
		const [one, two] = club.athletes as [string, string, string]
		const first = await plan('2026-03-09')
		await log(first, '2026-03-09', one, FALLING)
		await log(first, '2026-03-09', two, STEADY)
		expect(await acceptAll(first, '2026-03-09')).toMatchObject({
			decided: 3,
			refused: [],
			nextSession: { day: '2026-03-12', made: true },
		})

		const [second] = await sessionsBetween(club.scope, '2026-03-12', '2026-03-12')
		await log(second!.id, '2026-03-12', one, FALLING)
		const result = await acceptAll(second!.id, '2026-03-12')
		// The training days are Monday and Thursday: after Thursday the 12th comes Monday the 16th.
		expect(result).toMatchObject({ decided: 3, nextSession: { day: '2026-03-16', made: true } })
		const next = await lineOf(result!.nextSession!.id, one)
		expect(next).toMatchObject({ dose: { sets: 1, reps: 4 }, origin: 'resolved' })
		expect(next.change).toMatchObject({
			verdict: 'ease',
			from: 'Three-point start 20 m, 1×6',
			to: 'Three-point start 20 m, 1×4',
		})
		expect(next.change?.why).toContain('4.3 % and 5.6 %')
		expect((await lineOf(result!.nextSession!.id, two)).change).toBeNull()
		expect((await readSession(club.scope, second!.id))?.reviewedAt).toEqual(at('2026-03-12'))

		// Replay: the stored input alone gives the stored verdict, and its hash is that of its canonical text.
		const [stored] = (await verdictsOfSession(club.scope, second!.id)).filter((row) => row.athleteId === one)
		expect(judge(stored!.input, documentsOf(STARTER_LIBRARY, 'acceleration', 'quality-first'))).toEqual(
			stored!.judgement,
		)
		expect(hashOf(stored!.input)).toBe(stored!.inputHash)
		expect((await readStates(club.scope, [one])).get(stateKey(one, 'acceleration'))?.state).toEqual(stored!.after)
	})

	it('holds who trains with two squads to the stricter of both, and nobody else', async () => {
		const [one, two] = club.athletes as [string, string, string]
		const other = await secondSquad(club, 'return-and-protect')
		await addMembers(club.scope, other, [one], '2026-03-01')
		const sessionId = await plan('2026-03-09')
		await log(sessionId, '2026-03-09', one, STEADY)
		await log(sessionId, '2026-03-09', two, STEADY)
		const judged = new Map((await proposals(sessionId)).map((row) => [row.athleteId, row.input]))
		expect(judged.get(one)).toMatchObject({
			school: { id: 'quality-first' },
			safety: { rampPercent: 10, spacingH: 72, highestBoxCm: 30, assistedCapPercent: 0, depthJumps: 'never' },
		})
		expect(judged.get(two)).not.toHaveProperty('safety')
	})

	it('is taken back by deciding otherwise: the state and the lines ahead follow, both decisions are kept', async () => {
		const [one] = club.athletes as [string]
		const first = await plan('2026-03-09')
		await log(first, '2026-03-09', one, STEADY)
		await acceptAll(first, '2026-03-09', { athleteId: one, word: 'ease', reason: 'pressed by mistake' })
		const next = (await sessionsBetween(club.scope, '2026-03-12', '2026-03-12'))[0]!
		expect((await lineOf(next.id, one)).dose).toEqual({ sets: 1, reps: 4 })
		const again = async (word: string | null, instead?: number) => {
			const proposal = (await proposals(first)).find((row) => row.athleteId === one)!
			const { athleteId, ladderId, inputHash } = proposal
			const decision = {
				athleteId,
				ladderId,
				inputHash,
				...(instead === undefined ? {} : { instead }),
				...(word === null ? {} : { overrule: { word, reason: 'as it should have been' } }),
			}
			return decideVerdicts(club.coach, first, [decision], at('2026-03-10'))
		}
		// Not unseen, not the same once more, and not on a decision that is not the last.
		const refusals = async (word: string | null, instead?: number) =>
			(await again(word, instead))!.refused.map(({ reason }) => reason)
		expect(await refusals('hold')).toEqual(['Somebody has decided this already.'])
		expect(await refusals('ease', 0)).toEqual(['Nothing has changed since this was decided.'])
		expect(await refusals('hold', 1)).toEqual(['Somebody has decided this already.'])
		expect(await again('hold', 0)).toMatchObject({ decided: 1, refused: [] })
		expect((await lineOf(next.id, one)).dose).toEqual({ sets: 1, reps: 6 })
		// Back to what was proposed, which wants no reason.
		const proposed = (await proposals(first)).find((row) => row.athleteId === one)!.judgement
		expect(proposed.verdict).toBe('hold')
		expect(await refusals(null, 1)).toEqual(['Nothing has changed since this was decided.'])
		expect(await again('ease', 1)).toMatchObject({ decided: 1 })
		expect(await again(null, 2)).toMatchObject({ decided: 1 })
		expect((await lineOf(next.id, one)).dose).toEqual({ sets: 1, reps: 6 })
		const [kept] = (await verdictsOfSession(club.scope, first)).filter((row) => row.athleteId === one)
		expect(kept).toMatchObject({ turn: 3, decided: 'hold', reason: null })
		// What a later session was judged on is not pulled from under it.
		await log(next.id, '2026-03-12', one, STEADY)
		await acceptAll(next.id, '2026-03-12')
		expect(await refusals('ease', 3)).toEqual([
			'A later session was judged on this: move the athlete by hand, on the ladder’s page.',
		])
	})

	it('lets a line set by hand stand and says what would have changed', async () => {
		const [one] = club.athletes as [string]
		const [first, second, third] = [await plan('2026-03-09'), await plan('2026-03-12'), await plan('2026-03-16')]
		await log(first, '2026-03-09', one, FALLING)
		await acceptAll(first, '2026-03-09')
		await log(second, '2026-03-12', one, FALLING)
		const line = await lineOf(third, one)
		expect(
			await changeLineByHand(club.coach, third, line.id, { sets: '1', reps: '5', reason: '' }, at('2026-03-12')),
		).toEqual({
			saved: true,
		})
		await acceptAll(second, '2026-03-12')
		expect(await lineOf(third, one)).toMatchObject({
			origin: 'hand-set',
			dose: { sets: 1, reps: 5 },
			wouldBe: 'Three-point start 20 m, 1×4',
			version: 2,
		})
		expect(
			await changeLineByHand(
				club.coach,
				third,
				(await lineOf(third, one)).id,
				{ sets: '1', reps: 'x', reason: '' },
				at('2026-03-12'),
			),
		).toEqual({ problem: '“x”: whole reps from 1 to 100 are expected.' })
	})

	it('overrules with a reason kept, never without; a gate that is a caution gives way to the reason', async () => {
		const [one, two] = club.athletes as [string, string]
		const first = await plan('2026-03-09')
		await log(first, '2026-03-09', one, STEADY)
		await log(first, '2026-03-09', two, STEADY)
		const all = await proposals(first)
		const decide = (athleteId: string, word: string, reason: string) =>
			decideVerdicts(
				club.coach,
				first,
				all
					.filter((proposal) => proposal.athleteId === athleteId)
					.map(({ ladderId, inputHash }) => ({ athleteId, ladderId, inputHash, overrule: { word, reason } })),
				at('2026-03-09'),
			)
		expect(await decide(one, 'ease', ' ')).toMatchObject({
			decided: 0,
			refused: [{ reason: 'Say why, in a few words.' }],
		})
		expect(await decide(one, 'stop', 'no')).toMatchObject({ decided: 0 })
		expect(await decide(one, 'ease', 'long drive home')).toMatchObject({ decided: 1, refused: [] })
		expect(await decide(two, 'advance', 'ran 30 m at the regionals')).toMatchObject({ decided: 1, refused: [] })
		const rows = await verdictsOfSession(club.scope, first)
		expect(rows.find((row) => row.athleteId === one)).toMatchObject({
			proposed: 'hold',
			decided: 'ease',
			reason: 'long drive home',
			after: { dose: { sets: 1, reps: 4 } },
		})
		expect(rows.find((row) => row.athleteId === two)).toMatchObject({
			decided: 'advance',
			decidedBy: club.coach.personId,
			after: { rungId: 'three-point-30' },
		})
	})

	it('says of a line the sheet leaves out that it is left out: no dose the verdict gives stands beside that', async () => {
		const [one] = club.athletes as [string]
		const [first, second] = [await plan('2026-03-09'), await plan('2026-03-12')]
		await log(first, '2026-03-09', one, FALLING)
		const [entry] = await readEntries(club.scope, [second])
		await updateEntry(club.scope, entry!.id, {
			tuning: { caps: { [one]: { reps: 0, why: 'the week’s ramp leaves no more maximal starts' } } },
		})
		await acceptAll(first, '2026-03-09')
		const [verdict] = (await verdictsOfSession(club.scope, first)).filter((row) => row.athleteId === one)
		expect(verdict!.decided).toBe('hold')
		expect(await lineOf(second, one)).toMatchObject({
			blocked: 'the week’s ramp leaves no more maximal starts',
			change: {
				verdict: null,
				from: 'Three-point start 20 m, 1×6',
				to: 'the week’s ramp leaves no more maximal starts',
				why: 'Left out this time.',
				rule: null,
			},
		})
	})

	it('closes for strong pain, writes nothing that loads it, and opens only after a recorded clearance', async () => {
		const [one] = club.athletes as [string]
		const [first, second] = [await plan('2026-03-09'), await plan('2026-03-12')]
		await log(first, '2026-03-09', one, STEADY.slice(0, 2), 6)
		const overruled = await acceptAll(first, '2026-03-09', { athleteId: one, word: 'hold', reason: 'it was nothing' })
		expect(overruled?.refused).toMatchObject([
			{
				athleteId: one,
				reason: 'A block opens only when somebody records who cleared it, or what it waits for has passed.',
			},
		])
		await acceptAll(first, '2026-03-09')
		const spared = await lineOf(second, one)
		expect(STARTER_LIBRARY.drills[spared!.drillId!]!.regions['back-thigh'] ?? 0).toBe(0)
		expect(spared!.change?.why).toContain('ack thigh closed since')
		expect(await recordClearance(club.coach, one, cleared({ clearedBy: '' }), at('2026-03-10'))).toHaveProperty(
			'problems.clearedBy',
		)
		expect(await recordClearance(club.coach, one, cleared({ injury: 'yes' }), at('2026-03-10'))).toEqual({
			cleared: true,
		})
		expect(await lineOf(second, one)).toMatchObject({
			blocked: null,
			rungId: 'walk',
			drillId: 'walk-through',
			dose: { sets: 1, reps: 4 },
		})
	})

	it('counts once when two coaches accept at the same moment', async () => {
		const first = await plan('2026-03-09')
		await log(first, '2026-03-09', club.athletes[0]!, STEADY)
		const results = await Promise.all([acceptAll(first, '2026-03-09'), acceptAll(first, '2026-03-09')])
		expect(results.map((result) => result?.decided).sort()).toEqual([0, 3])
		expect(
			results
				.flatMap((result) => result?.refused ?? [])
				.every((row) => row.reason === 'Somebody has decided this already.'),
		).toBe(true)
		expect(await verdictsOfSession(club.scope, first)).toHaveLength(3)
		expect(await sessionsBetween(club.scope, '2026-03-12', '2026-03-20')).toHaveLength(1)
	})

	it('does not accept what was read before new marks came in', async () => {
		const [one] = club.athletes as [string]
		const first = await plan('2026-03-09')
		await log(first, '2026-03-09', one, STEADY.slice(0, 3))
		const seen = (await proposals(first)).filter((proposal) => proposal.athleteId === one)
		await log(first, '2026-03-09', one, [3.5])
		const result = await decideVerdicts(
			club.coach,
			first,
			seen.map(({ athleteId, ladderId, inputHash }) => ({ athleteId, ladderId, inputHash })),
			at('2026-03-09'),
		)
		expect(result).toMatchObject({
			decided: 0,
			refused: [{ reason: 'New marks came in since this page was read. Look again.' }],
		})
	})
})

describe('what is kept of the proposals while somebody decides', () => {
	const kept = (sessionId: string, day: string) => readProposals(club.scope, sessionId, day)
	const accept = async (sessionId: string, { athleteId, ladderId, inputHash }: Proposal) =>
		expect(
			await decideVerdicts(club.coach, sessionId, [{ athleteId, ladderId, inputHash }], at('2026-03-12')),
		).toMatchObject({ decided: 1, refused: [] })
	let sessionId: string
	beforeEach(async () => {
		sessionId = await plan('2026-03-12')
		for (const athleteId of club.athletes)
			await log(sessionId, '2026-03-12', athleteId, [3.1, 3.12, 3.08, 3.1, 3.11, 3.09])
	})
	it('stands for the others, and is made anew for whom it was about: as if all had been worked out again', async () => {
		await plan('2026-03-16')
		const before = await kept(sessionId, '2026-03-12')
		const [one, two, three] = before
		await accept(sessionId, one!)
		const after = await kept(sessionId, '2026-03-12')
		expect([after[0] === one, after[1] === two, after[2] === three]).toEqual([false, true, true])
		expect(after).toEqual(await proposals(sessionId))
		await accept(sessionId, two!)
		expect(await kept(sessionId, '2026-03-12')).toEqual(await proposals(sessionId))
	})
	it('is made anew for everybody where the decision made the next session: all are judged for that', async () => {
		const before = await kept(sessionId, '2026-03-12')
		await accept(sessionId, before[0]!)
		const after = await kept(sessionId, '2026-03-12')
		expect(after.some((one) => before.includes(one))).toBe(false)
		expect(after).toEqual(await proposals(sessionId))
	})
	it('is made anew for everybody where anything else has changed before, or since', async () => {
		await plan('2026-03-16')
		const before = await kept(sessionId, '2026-03-12')
		await writeLevel(club.scope, club.athletes[2]!, 'sprint', 1)
		await accept(sessionId, (await proposals(sessionId))[0]!)
		const then = await kept(sessionId, '2026-03-12')
		expect(then.some((one) => before.includes(one))).toBe(false)
		await accept(sessionId, then[1]!)
		await writeLevel(club.scope, club.athletes[2]!, 'sprint', 3)
		const since = await kept(sessionId, '2026-03-12')
		expect(since.some((one) => then.includes(one))).toBe(false)
		expect(since).toEqual(await proposals(sessionId))
	})
})
