import { randomUUID } from 'node:crypto'
import { beforeAll, expect, it } from 'vitest'
import { readLines } from '../../db/queries/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { freshDatabase, makeClub } from '../../tests/support/test-club'
import { acceptEvents } from '../log/accept-events'
import { doneRamp } from './done-ramp'

beforeAll(freshDatabase)

const DAY = '2026-03-12'

it('counts what stands: equal marks each, corrected ones as corrected, given ones with whom they were given to', async () => {
	const club = await makeClub('Club', 2)
	const [one, two] = club.athletes as [string, string]
	const sessionId = await planSession(club, DAY, [
		draftEntry({
			part: 'Starts',
			drillId: 'three-point-start',
			sets: 6,
			reps: 2,
			rest: 60,
			parameters: { distanceM: 20 },
		}),
	])
	const lines = await readLines(club.scope, [sessionId])
	let deviceSeq = 0
	const mark = (athleteId: string, setNo: number, reps: number, more: object = {}) => {
		const line = lines.find((row) => row.athleteId === athleteId)!
		return {
			id: randomUUID(),
			sessionId,
			athleteId,
			entryId: line.entryId,
			lineId: line.id,
			deviceId: club.coach.personId,
			deviceSeq: deviceSeq++,
			deviceTime: `${DAY}T17:4${setNo}:00Z`,
			setNo,
			repNo: 1,
			type: 'mark',
			kind: 'done',
			value: { reps },
			...more,
		}
	}
	const sets = [1, 2, 3, 4, 5, 6].map((set) => mark(one, set, 2))
	const events = [
		...sets,
		mark(one, 1, 1, { replacesId: sets[0]!.id }),
		mark(one, 2, 2, { replacesId: sets[1]!.id, void: true }),
		mark(two, 3, 2, { replacesId: sets[2]!.id }),
	]
	const answers = await acceptEvents(club.coach, events, new Date(`${DAY}T18:30:00Z`))
	expect(answers.map(({ outcome }) => outcome)).toEqual(events.map(() => 'accepted'))
	const starts = async (ids: string[], athlete: string) =>
		(await doneRamp(club.scope, ids, DAY)).get(athlete)!.maximalStarts.map(({ day, value }) => [day, value])
	// A maximal start a rep: one of the first set, none of the second, not the third, two of the other three.
	expect(await starts([one, two], one)).toEqual([[DAY, 1 + 3 * 2]])
	expect(await starts([one, two], two)).toEqual([[DAY, 2]])
	// Whoever it was given to need not be asked about.
	expect(await starts([one], one)).toEqual([[DAY, 1 + 3 * 2]])
})
