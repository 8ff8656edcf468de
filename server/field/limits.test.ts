import { randomUUID } from 'node:crypto'
import { beforeAll, expect, it } from 'vitest'
import { readLines } from '../../db/queries/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, freshDatabase, makeClub } from '../../tests/support/test-club'
import { acceptEvents } from '../log/accept-events'
import { readLimits } from './read-pack'

beforeAll(freshDatabase)

it('tells each phone at once what closes somebody’s body, and works out nothing for a mark more', async () => {
	const club = await makeClub('Club')
	const sessionId = await planSession(club, '2026-03-12', [
		draftEntry({ part: 'Skips', drillId: 'wall-drill', sets: 2, reps: 8, rest: 60 }),
	])
	const [line] = await readLines(club.scope, [sessionId])
	const { athleteId, entryId, id: lineId } = line!
	const log = async (event: object) => {
		const at = { id: randomUUID(), deviceId: randomUUID(), deviceSeq: 0, deviceTime: NOW.toISOString() }
		const [answer] = await acceptEvents(club.coach, [{ ...at, sessionId, athleteId, ...event }], NOW)
		expect(answer!.outcome).toBe('accepted')
	}
	const mark = (repNo: number) =>
		log({ entryId, lineId, setNo: 1, repNo, type: 'mark', kind: 'done', value: { reps: 1 } })
	await mark(1)
	const begun = await readLimits(club.scope, sessionId)
	expect(JSON.stringify(begun[athleteId])).not.toContain('knee')
	await mark(2)
	expect(await readLimits(club.scope, sessionId)).toBe(begun)
	await log({
		type: 'observation',
		kind: 'pain',
		value: { region: 'knee', side: 'left', score: 6, moment: 'during', redFlag: false },
	})
	const hurt = await readLimits(club.scope, sessionId)
	expect(JSON.stringify(hurt[athleteId])).toContain('knee')
	const others = Object.entries(hurt).filter(([id]) => id !== athleteId)
	expect(JSON.stringify(others)).not.toContain('knee')
})
