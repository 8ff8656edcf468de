import { eq } from 'drizzle-orm'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { session } from '../../db/schema/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { sessionsForDevice } from './read-pack'

beforeAll(freshDatabase)

let club: TestClub
const days = new Map<string, string>()
beforeEach(async () => {
	club = await makeClub('Club')
	const skips = draftEntry({ part: 'Skips', drillId: 'wall-drill', sets: 2, reps: 8, rest: 60 })
	for (const day of ['2026-03-11', '2026-03-12', '2026-03-13', '2026-03-20', '2026-03-21'])
		days.set(await planSession(club, day, [skips]), day)
})
const set = async (day: string, change: Partial<typeof session.$inferInsert>) =>
	club.scope.db.update(session).set(change).where(eq(session.day, day))
/** Days of what a phone is given. The club keeps the time of Madeira, in March that of UTC. */
const given = async (role: 'coach' | 'assistant', now: string) => {
	const ids = await sessionsForDevice(club.scope, role, now.slice(0, 10), new Date(now))
	return ids.map((id) => days.get(id))
}

describe('the sessions a phone is given', () => {
	it('are those of today and, for whoever logs more, seven days more', async () => {
		expect(await given('coach', '2026-03-13T17:00:00Z')).toEqual(['2026-03-13', '2026-03-20'])
		expect(await given('assistant', '2026-03-13T17:00:00Z')).toEqual(['2026-03-13'])
	})

	it('are none that was decided on', async () => {
		await set('2026-03-13', { reviewedAt: new Date('2026-03-13T19:00:00Z') })
		expect(await given('assistant', '2026-03-13T20:00:00Z')).toEqual([])
	})

	it('are of the evening before as long as that goes on, three hours past midnight at most', async () => {
		expect(await given('assistant', '2026-03-13T00:30:00Z')).toEqual(['2026-03-13'])
		await set('2026-03-12', { startedAt: new Date('2026-03-12T22:00:00Z') })
		await set('2026-03-11', { startedAt: new Date('2026-03-11T22:00:00Z') })
		expect(await given('assistant', '2026-03-13T02:59:59Z')).toEqual(['2026-03-12', '2026-03-13'])
		expect(await given('coach', '2026-03-13T02:59:59Z')).toEqual(['2026-03-12', '2026-03-13', '2026-03-20'])
		expect(await given('assistant', '2026-03-13T03:00:00Z')).toEqual(['2026-03-13'])
		await set('2026-03-12', { reviewedAt: new Date('2026-03-13T00:20:00Z') })
		expect(await given('assistant', '2026-03-13T00:30:00Z')).toEqual(['2026-03-13'])
	})
})
