import { beforeAll, beforeEach, expect, it } from 'vitest'
import { typedReport } from '../../tests/support/report-typed'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { randomUUID } from 'node:crypto'
import { careEvent, workDay } from '../../db/schema/care'
import type { Region } from '../../core/vocabulary/words'
import { openCare } from './care-records'
import { readBodies } from './read-bodies'
import { recordClearance } from './clear'
import { report } from './report'

// Today says whose body sets limits: region and side, since when, what to ask; no number and no cause.

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 6)
})
const NOTHING = { region: '', pattern: '', drillId: '', note: '', setBy: '', setByRole: '' }
const TODAY = '2026-03-12'
const said = (athleteId: string, region: Region, side: 'left' | 'right', score: number, redFlag = false) =>
	club.scope.db.insert(careEvent).values({
		clubId: club.scope.clubId,
		id: randomUUID(),
		athleteId,
		sessionId: null,
		drillId: null,
		kind: 'pain',
		region,
		side,
		score,
		redFlag,
		asked: false,
		day: TODAY,
		note: 'a score of its own',
		isVoid: false,
		authorId: club.coach.personId,
		receivedAt: NOW,
	})

it('lists the most closed first, and nobody who has nothing', async () => {
	const [head, knee, ill, sore, lateral] = club.athletes as [string, string, string, string, string]
	await report(club.coach, head, typedReport('head', { note: 'ball on the head' }), NOW)
	await said(knee, 'knee', 'left', 6)
	await openCare(club.coach, ill, { ...NOTHING, kind: 'illness', note: 'fever' }, NOW)
	await said(sore, 'calf', 'right', 3)
	await openCare(
		club.coach,
		lateral,
		{
			...NOTHING,
			kind: 'restriction',
			pattern: 'lateral',
			note: 'slipped in the cut',
			setBy: 'H. Brekke',
			setByRole: 'physiotherapist',
		},
		NOW,
	)
	const bodies = await readBodies(club.scope, TODAY, 'coach')
	expect(bodies.map((one) => one.id)).toEqual([head, knee, lateral, ill, sore])
	expect(bodies[0]).toMatchObject({ everythingSince: TODAY })
	expect(bodies.find((one) => one.id === knee)).toMatchObject({ closed: [{ place: 'left knee', since: TODAY }] })
	expect(bodies.find((one) => one.id === lateral)).toMatchObject({ shut: ['lateral work'], closed: [] })
	expect(bodies.find((one) => one.id === ill)).toMatchObject({ unwellSince: TODAY })
	expect(bodies.find((one) => one.id === sore)).toMatchObject({
		spared: [{ place: 'right calf or Achilles', since: TODAY, ask: false }],
	})
	// An assistant sees what is over, not who is ill, no number and no cause.
	const seen = await readBodies(club.scope, TODAY, 'assistant')
	expect(seen.find((one) => one.id === ill)).toMatchObject({ easyOnly: true, unwellSince: null })
	expect(JSON.stringify(seen)).not.toMatch(/fever|ball on|score|H\. Brekke|unwell[^S]/)
})
it('asks for whoever has worked since, and shows the step once it is cleared', async () => {
	const [one, two] = club.athletes as [string, string]
	await said(one, 'calf', 'right', 3)
	await club.scope.db
		.insert(workDay)
		.values({ clubId: club.scope.clubId, athleteId: one, family: 'sprint', day: '2026-03-14' })
	expect((await readBodies(club.scope, '2026-03-14', 'coach'))[0]?.spared).toEqual([
		{ place: 'right calf or Achilles', since: TODAY, ask: true },
	])
	await said(two, 'knee', 'left', 8, true)
	const cleared = { region: 'knee', side: '', clearedBy: 'S. Lindqvist', role: 'doctor', injury: '' }
	expect(await recordClearance(club.coach, two, cleared, new Date(NOW.getTime() + 86_400_000))).toEqual({
		cleared: true,
	})
	const bodies = await readBodies(club.scope, '2026-03-13', 'coach')
	expect(bodies.find((body) => body.id === two)).toMatchObject({
		closed: [],
		back: [
			{ step: 'Stick on two feet', repeats: 0 },
			{ step: 'Walk through the shapes', repeats: 0 },
		],
	})
})
