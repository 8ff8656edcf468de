import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { fromSparse } from '../../core/dose/sparse-count'
import { keepWorkDays } from '../../db/queries/care'
import { eventsOfSessions } from '../../db/queries/log'
import { workDay } from '../../db/schema/care'
import { readLines, readSession } from '../../db/queries/sessions'
import { createSession } from '../sheet/save-session'
import { acceptEvents } from './accept-events'
import { draftEntry } from '../../tests/support/draft-entry'
import { markOf, saidOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

let club: TestClub
let sessionId: string
let seq = 0
beforeEach(async () => {
	club = await makeClub('Club')
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
				draftEntry({
					part: 'Starts',
					drillId: 'three-point-start',
					sets: 1,
					reps: 6,
					rest: 120,
					parameters: { distanceM: 20 },
				}),
				draftEntry({ part: 'Jumps', drillId: 'single-leg-pogo', sets: 2, reps: 6, rest: 60 }),
			],
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	sessionId = saved.sessionId
})

async function sprint(change: Record<string, unknown> = {}, athleteId = club.athletes[0]!) {
	const line = (await readLines(club.scope, [sessionId])).find(
		(row) => row.athleteId === athleteId && row.drillId === 'three-point-start',
	)!
	return markOf(line, {
		deviceSeq: seq++,
		kind: 'sprint',
		value: {
			splits: [
				{ distanceM: 10, timeS: 1.84 },
				{ distanceM: 20, timeS: 3.12 },
			],
			method: 'gate',
		},
		...change,
	})
}
const outcome = async (...events: unknown[]) =>
	(await acceptEvents(club.coach, events, NOW)).map((answer) =>
		answer.outcome === 'refused' ? `${answer.field}: ${answer.reason}` : answer.outcome,
	)
const stored = () => eventsOfSessions(club.scope, [sessionId])

describe('taking events into the log', () => {
	it('keeps what was sent exactly, and begins the session', async () => {
		const event = await sprint()
		expect(await outcome(event)).toEqual(['accepted'])
		const [kept] = await stored()
		expect(kept).toMatchObject({ ...event, authorId: club.coach.personId, receivedAt: NOW.toISOString() })
		expect((await readSession(club.scope, sessionId))?.startedAt).toEqual(NOW)
	})

	it('takes the same event any number of times as one, whatever the order of its keys', async () => {
		const event = await sprint()
		const turned = Object.fromEntries(Object.entries(event).reverse())
		expect(await outcome(event, event, turned)).toEqual(['accepted', 'replayed', 'replayed'])
		expect(await stored()).toHaveLength(1)
	})

	it('is one event too when two phones send it at the same moment', async () => {
		const event = await sprint()
		const answers = await Promise.all(Array.from({ length: 8 }, () => outcome(event)))
		expect(answers.flat().sort()).toEqual(['accepted', ...Array.from({ length: 7 }, () => 'replayed')])
		expect(await stored()).toHaveLength(1)
	})

	it('refuses another event under a used id, also across kinds', async () => {
		const event = await sprint()
		const changed = { ...event, value: { ...event.value, splits: [{ distanceM: 20, timeS: 3.13 }] } }
		const pain = saidOf(sessionId, event.athleteId, {
			id: event.id,
			kind: 'pain',
			value: { region: 'knee', side: 'left', score: 3, moment: 'during', redFlag: false },
		})
		expect(await outcome(event, changed, pain)).toEqual([
			'accepted',
			'id: id_reused: another event already has this id',
			'id: id_reused: another event already has this id',
		])
	})

	it('answers one by one: a bad event does not hold up a good one', async () => {
		const [one, two] = [await sprint(), await sprint({ repNo: 2 })]
		expect(await outcome(one, { nonsense: true }, null, two)).toEqual([
			'accepted',
			'kind: "undefined/undefined" is not a kind of event',
			': an object is expected',
			'accepted',
		])
	})

	it.each([
		[
			'text for a number',
			{ value: { splits: [{ distanceM: 20, timeS: '3.12' }], method: 'gate' } },
			'value.splits.0.timeS: must be number',
		],
		['an unknown field', { extra: 1 }, ': must NOT have additional properties: extra'],
		[
			'a negative time',
			{ value: { splits: [{ distanceM: 20, timeS: -3 }], method: 'gate' } },
			'value.splits.0.timeS: must be > 0',
		],
		[
			'a billion',
			{ value: { splits: [{ distanceM: 20, timeS: 1e9 }], method: 'gate' } },
			'value.splits.0.timeS: must be <= 600',
		],
		[
			'splits out of order',
			{
				value: {
					splits: [
						{ distanceM: 20, timeS: 3.1 },
						{ distanceM: 10, timeS: 3.2 },
					],
					method: 'gate',
				},
			},
			'value.splits.1: 3.2 s at 10 m must come after 3.1 s at 20 m',
		],
		[
			'faster than anybody runs',
			{ value: { splits: [{ distanceM: 20, timeS: 1.2 }], method: 'gate' } },
			'value.splits.0: 1.2 s at 20 m would be 16.7 m/s; nobody runs over 13',
		],
		['a stranger’s session', { sessionId: randomUUID() }, 'sessionId: no such session'],
		['a stranger', { athleteId: randomUUID() }, 'athleteId: no such athlete'],
		['a line of nobody', { lineId: randomUUID() }, 'lineId: no such line on this session'],
		[
			'itself as what it replaces',
			{ id: '018f0000-0000-7000-8000-000000000000', replacesId: '018f0000-0000-7000-8000-000000000000' },
			'replacesId: an event cannot replace itself',
		],
	])('refuses %s with the field and the reason', async (_name, change, expected) => {
		expect(await outcome(await sprint(change))).toEqual([expected])
		expect(await stored()).toHaveLength(0)
	})

	it('stamps what the mark cost: by side, by effort against the best before the day', async () => {
		const lines = (await readLines(club.scope, [sessionId])).filter((row) => row.athleteId === club.athletes[0])
		const pogo = lines.find((row) => row.drillId === 'single-leg-pogo')!
		const contact = {
			value: { contactS: 0.18, flightS: 0.4, method: 'mat' },
			kind: 'contact',
			side: 'left',
			entryId: pogo.entryId,
			lineId: pogo.id,
		}
		expect(await outcome(await sprint(contact), await sprint())).toEqual(['accepted', 'accepted'])
		const counts = (await stored()).map((event) => fromSparse(event.counts ?? {}))
		expect(counts.find((count) => count.contacts.moderate.left === 1)?.contacts.moderate).toEqual({
			left: 1,
			right: 0,
			both: 0,
		})
		expect(counts.find((count) => count.metres.maximal === 20)?.maximalStarts).toBe(1)
	})

	it('lets an assistant log today only, a clinician and an athlete report pain, and nobody else’s', async () => {
		const event = await sprint()
		const pain = (athleteId: string) => ({
			id: randomUUID(),
			sessionId,
			athleteId,
			deviceId: randomUUID(),
			deviceSeq: 0,
			deviceTime: NOW.toISOString(),
			type: 'observation',
			kind: 'pain',
			value: { region: 'knee', side: 'left', score: 2, moment: 'before', redFlag: false },
		})
		const answer = async (who: Parameters<typeof acceptEvents>[0], sent: unknown, now = NOW) =>
			(await acceptEvents(who, [sent], now))[0]
		const nextMorning = new Date('2026-03-13T10:00:00Z')
		expect(
			await answer(club.as('assistant'), await sprint({ deviceTime: nextMorning.toISOString() }), nextMorning),
		).toMatchObject({ outcome: 'refused', reason: 'assistants log the sessions of today' })
		// The phone had no signal that evening.
		expect(await answer(club.as('assistant'), event, nextMorning)).toMatchObject({ outcome: 'accepted' })
		expect(await answer(club.as('assistant'), await sprint({ repNo: 2 }))).toMatchObject({ outcome: 'accepted' })
		expect(await answer(club.as('clinician'), await sprint())).toMatchObject({ reason: 'your role does not log' })
		expect(await answer(club.as('clinician'), pain(club.athletes[0]!))).toMatchObject({ outcome: 'accepted' })
		expect(await answer(club.as('athlete', club.athletes[0]), pain(club.athletes[0]!))).toMatchObject({
			outcome: 'accepted',
		})
		expect(await answer(club.as('athlete', club.athletes[0]), pain(club.athletes[1]!))).toMatchObject({
			reason: 'only about yourself',
		})
		expect(await answer(club.as('athlete', club.athletes[0]), await sprint())).toMatchObject({ outcome: 'refused' })
	})
})

describe('days of work', () => {
	const days = async () =>
		(await club.scope.db.select().from(workDay)).map(
			({ athleteId, family, day }) => `${club.athletes.indexOf(athleteId)} ${family} ${day}`,
		)
	const DAY = '0 sprint 2026-03-12'
	/** A correction of a mark that takes it back. */
	const takenBack = async (mark: Awaited<ReturnType<typeof sprint>>) => ({
		...(await sprint()),
		replacesId: mark.id,
		void: true,
	})
	const missed = (change: Record<string, unknown> = {}) =>
		sprint({ kind: 'missed', value: { reason: 'aborted' }, ...change })
	beforeEach(async () => {
		await club.scope.db.delete(workDay)
	})

	it('come with the first mark of a family, for whom it is of', async () => {
		expect(await outcome(await sprint(), await sprint({ repNo: 2 }))).toEqual(['accepted', 'accepted'])
		expect(await days()).toEqual([DAY])
		await outcome(await sprint({}, club.athletes[1]))
		expect((await days()).sort()).toEqual([DAY, '1 sprint 2026-03-12'])
	})

	it('do not come with what was missed', async () => {
		expect(await outcome(await missed())).toEqual(['accepted'])
		expect(await days()).toEqual([])
	})

	it('go with the last mark of them, and not before', async () => {
		const [one, two] = [await sprint(), await sprint({ repNo: 2 })]
		await outcome(one, two)
		expect(await outcome(await takenBack(one))).toEqual(['accepted'])
		expect(await days()).toEqual([DAY])
		expect(await outcome(await takenBack(two))).toEqual(['accepted'])
		expect(await days()).toEqual([])
	})

	it('do not come back with a mark that is sent again after it was taken back', async () => {
		const mark = await sprint()
		await outcome(mark)
		await outcome(await takenBack(mark))
		expect(await outcome(mark)).toEqual(['replayed'])
		expect(await days()).toEqual([])
	})

	it('do not come with a mark that had been taken back before it came, in its batch or in one before', async () => {
		const [early, late] = [await sprint(), await sprint({ repNo: 2 })]
		await outcome(await takenBack(early))
		expect(await outcome(early)).toEqual(['accepted'])
		expect(await outcome(late, await takenBack(late))).toEqual(['accepted', 'accepted'])
		expect(await days()).toEqual([])
	})

	it('come with a correction that says a run was made after all, and go with one that says it was not', async () => {
		const mark = await missed()
		await outcome(mark)
		const made = await sprint({ replacesId: mark.id })
		expect(await outcome(made)).toEqual(['accepted'])
		expect(await days()).toEqual([DAY])
		expect(await outcome(await missed({ replacesId: made.id }))).toEqual(['accepted'])
		expect(await days()).toEqual([])
	})

	it('are what making them anew from the log finds', async () => {
		await outcome(await sprint(), await sprint({}, club.athletes[1]))
		expect(await keepWorkDays(club.scope, club.athletes, ['2026-03-12'])).toBe(false)
	})
})
