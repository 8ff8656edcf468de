import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { markKey } from '../../core/marks/mark-key'
import { readLibrary } from '../../db/queries/library'
import { insertMeans } from '../../db/queries/marks'
import { readSquad, updateAthleteMass } from '../../db/queries/squads'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { enterOutside } from '../care/outside'
import { readBuildPack } from '../plan/read-build-pack'
import { versionOf } from '../submissions/take-version'
import { changeType } from './change-roster'
import { readAthletePage } from './read-athlete'

beforeAll(freshDatabase)

const TODAY = '2026-03-12'
const at = new Date(`${TODAY}T12:00:00Z`)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 6)
})
const page = async (forPlanner = true) =>
	(await readAthletePage(club.scope, club.athletes[0]!, TODAY, {
		measure: null,
		span: 'season',
		session: null,
		showBody: true,
		forPlanner,
	}))!
const typeInPack = async () => {
	const library = await readLibrary(club.scope)
	const squad = (await readSquad(club.scope, club.squadId))!
	const session = { id: randomUUID(), day: TODAY, startTime: '17:30', phase: 'accumulate' as const, surface: null }
	const pack = await readBuildPack(club.scope, squad, session, [club.athletes[0]!], library, TODAY)
	return pack.athletes[0]!.type
}
const version = () => versionOf(club.scope, 'athlete', club.athletes[0]!)

describe('how an athlete is built', () => {
	it('is set by who plans, reaches what is proposed, and is forgotten again', async () => {
		expect([(await page()).built, await typeInPack()]).toEqual([{ type: null, proposal: null }, null])
		expect(await changeType(club.coach, club.athletes[0]!, 'slow', await version(), at)).toBe(true)
		expect([(await page()).built!.type, await typeInPack()]).toEqual(['slow', 'slow'])
		expect(await changeType(club.coach, club.athletes[0]!, '', await version(), at)).toBe(true)
		expect(await typeInPack()).toBeNull()
	})
	it('is on nobody else’s page', async () => {
		await changeType(club.coach, club.athletes[0]!, 'stiff', await version(), at)
		const other = await page(false)
		expect(other.built).toBeNull()
		expect(JSON.stringify(other)).not.toContain('"stiff"')
		expect(JSON.stringify(await page())).toContain('"stiff"')
	})
	it('takes no other word, and no athlete of another club; who comes second is told', async () => {
		expect(await changeType(club.coach, club.athletes[0]!, 'lazy', await version(), at)).toBe(false)
		const other = await makeClub('Other', 1)
		expect(await changeType(club.coach, other.athletes[0]!, 'slow', 0, at)).toBe(false)
		const seen = await version()
		await changeType(club.coach, club.athletes[0]!, 'slow', seen, at)
		const second = await changeType(club.coach, club.athletes[0]!, 'stiff', seen, at)
		expect(second).toMatchObject({
			meanwhile: { differences: [{ theirs: 'strong and slow', yours: 'stiff, fast and often hurt' }] },
		})
		expect(await typeInPack()).toBe('slow')
	})
	it('is proposed from the squad’s marks of one key and the lifts on record', async () => {
		const drill = (await readLibrary(club.scope)).drills['standing-start']!
		const key = markKey(drill, { distanceM: 20 }, { kind: 'sprint', method: 'gate' } as never)
		const sessionId = await planSession(club, '2026-03-02', [
			draftEntry({ part: 'Starts', drillId: 'standing-start', sets: 1, reps: 3, rest: 60 }),
		])
		// The slowest of six over 20 m.
		await insertMeans(
			club.scope,
			club.athletes.map((athleteId, index) => ({
				...{ athleteId, key, sessionId, day: '2026-03-02' },
				...{ n: 3, mean: index === 0 ? 3.4 : 3.1 + index / 100, squares: 0, best: 3 },
			})),
		)
		await updateAthleteMass(club.scope, club.athletes[0]!, 80)
		expect((await page()).built!.proposal).toBeNull()
		const gym = {
			kind: 'gym',
			day: '2026-03-10',
			startTime: '09:00',
			minutes: '60',
			rpe: '',
			hardRunning: '',
			hardCutting: '',
		}
		await enterOutside(club.coach, { athleteId: club.athletes[0]! }, { ...gym, lifts: 'Back squat 130 kg × 3' }, at)
		expect((await page()).built!.proposal).toEqual({
			type: 'slow',
			why: 'among the slowest third of the squad; lifts 130 kg at 80 kg',
		})
		// What the coach has said already is not proposed.
		await changeType(club.coach, club.athletes[0]!, 'slow', await version(), at)
		expect((await page()).built).toEqual({ type: 'slow', proposal: null })
	})
})
