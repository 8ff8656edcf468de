import { eq } from 'drizzle-orm'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { acknowledgement } from '../../db/schema/care'
import { updateSession } from '../../db/queries/sessions'
import { updateAthleteMass } from '../../db/queries/squads'
import { draftEntry } from '../../tests/support/draft-entry'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { acknowledge, readCautions } from './read-cautions'
import { readSheet } from './read-sheet'
import { createSession } from './save-session'

// A caution is answered by name, time and reason, and the answer is kept for what was found, not for its words.

beforeAll(freshDatabase)
let club: TestClub
let session: string
beforeEach(async () => {
	club = await makeClub('Club', 2)
	for (const id of club.athletes) await updateAthleteMass(club.scope, id, 75)
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day: '2026-03-13',
			startTime: '17:30',
			title: 'Sheet',
			place: '',
			surface: null,
			plannedMinutes: 90,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries: [
				draftEntry({ part: 'Throws', drillId: 'kneeling-chest-push', sets: 3, reps: 8, rest: 120 }),
				draftEntry({ part: 'Fast', drillId: 'standing-start', sets: 1, reps: 4, rest: 120 }),
			],
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	session = saved.sessionId
})
const cautions = async () => readCautions(club.scope, (await readSheet(club.scope, session))!)

describe('cautions of a sheet', () => {
	it('one is answered, once and for that finding', async () => {
		const [order, ...others] = (await cautions()).filter((one) => one.rule === 'S5')
		expect(order).toMatchObject({ answered: null, names: expect.arrayContaining([expect.any(String)]) })
		expect(others).toEqual([])
		expect(await acknowledge(club.coach, session, order!.finding, ' x ', NOW)).toHaveProperty('problem')
		expect(await acknowledge(club.coach, session, order!.finding, 'a relay day', NOW)).toEqual({ kept: true })
		const [after] = (await cautions()).filter((one) => one.rule === 'S5')
		expect(after).toMatchObject({ finding: order!.finding, answered: { reason: 'a relay day' } })
		// Kept for the finding: other words for it change nothing.
		await club.scope.db
			.update(acknowledgement)
			.set({ sentence: 'Other words.' })
			.where(eq(acknowledgement.sessionId, session))
		expect((await cautions()).find((one) => one.rule === 'S5')?.answered).not.toBeNull()
		// An answer of the version before has only the sentence.
		await club.scope.db
			.update(acknowledgement)
			.set({ sentence: order!.sentence, finding: '' })
			.where(eq(acknowledgement.sessionId, session))
		expect((await cautions()).find((one) => one.rule === 'S5')?.answered).not.toBeNull()
		await club.scope.db
			.update(acknowledgement)
			.set({ sentence: 'Other words.' })
			.where(eq(acknowledgement.sessionId, session))
		expect((await cautions()).find((one) => one.rule === 'S5')?.answered).toBeNull()
	})
	it('what is not said, or no longer, cannot be answered, nor in another club', async () => {
		const [order] = (await cautions()).filter((one) => one.rule === 'S5')
		expect(
			await acknowledge(club.coach, session, 'S5 | made-up | after nothing | early', 'a relay day', NOW),
		).toHaveProperty('problem')
		const stranger = await makeClub('Other', 1)
		expect(await acknowledge(stranger.coach, session, order!.finding, 'a relay day', NOW)).toBeNull()
		await updateSession(club.scope, session, { surface: 'wet-grass' })
		expect(await acknowledge(club.coach, session, order!.finding, 'a relay day', NOW)).toEqual({ kept: true })
	})
})
