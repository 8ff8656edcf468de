import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { readAttending, readLines, sessionsBetween } from '../../db/queries/sessions'
import { listMembers, readAthletes, squadsOf } from '../../db/queries/squads'
import { draftEntry } from '../../tests/support/draft-entry'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { plannedWork } from '../plan/planned-work'
import { createSession } from '../sheet/save-session'
import { addSquad } from './change-roster'
import { takeRoster } from './import-roster'
import { changeAway, changeSquads } from './membership'
import { readWithoutSquad } from './read-squads'

// Sessions ahead follow who trains with whom, and who is there.

beforeAll(freshDatabase)
let club: TestClub
let one: string
beforeEach(async () => {
	club = await makeClub('Club', 3)
	one = club.athletes[0]!
})
const TODAY = '2026-03-12'
const make = async (day: string, athleteIds = club.athletes) => {
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day,
			startTime: '17:30',
			title: 'Starts',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds,
			entries: [
				draftEntry({
					part: 'Starts',
					drillId: 'three-point-start',
					sets: 1,
					reps: 4,
					rest: 120,
					parameters: { distanceM: 20 },
				}),
			],
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	return saved.sessionId
}
const downFor = async (athleteId: string) => {
	const sessions = await sessionsBetween(club.scope, TODAY, '2026-12-31')
	const attending = await readAttending(
		club.scope,
		sessions.map(({ id }) => id),
	)
	return sessions
		.filter(({ id }) => attending.some((row) => row.sessionId === id && row.athleteId === athleteId))
		.map(({ day }) => day)
}

describe('squads', () => {
	it('that are left take their sessions ahead with them, and no line of them is planned work any more', async () => {
		await make('2026-03-17')
		await make('2026-03-19')
		expect(await changeSquads(club.coach, one, [], 0, NOW)).toEqual({ off: 2, on: 0 })
		expect(await downFor(one)).toEqual([])
		expect((await plannedWork(club.scope, [one], TODAY, '2026-03-31')).get(one)).toEqual([])
		expect(await readWithoutSquad(club.scope)).toEqual([expect.objectContaining({ id: one })])
		expect(await readAthletes(club.scope, [one])).toHaveLength(1)
		// Back in it, they are down again, each with a line.
		expect(await changeSquads(club.coach, one, [club.squadId], 1, NOW)).toEqual({ off: 0, on: 2 })
		expect(await downFor(one)).toEqual(['2026-03-17', '2026-03-19'])
		expect((await plannedWork(club.scope, [one], TODAY, '2026-03-31')).get(one)).toHaveLength(2)
	})
	it('that are joined take somebody into what everybody is down for, not into what was made for some', async () => {
		await make('2026-03-17')
		await make('2026-03-19', club.athletes.slice(1, 2))
		const list = { text: 'Ada Sørli, 2001-05-31', columns: ['name', 'born'], hasHeading: null, order: null }
		await takeRoster(club.coach, club.squadId, list, NOW)
		const ada = (
			await readAthletes(
				club.scope,
				(await listMembers(club.scope)).map(({ id }) => id),
			)
		).find(({ name }) => name === 'Ada Sørli')!
		expect(await downFor(ada.id)).toEqual(['2026-03-17'])
		const [session] = await sessionsBetween(club.scope, '2026-03-17', '2026-03-17')
		const lines = (await readLines(club.scope, [session!.id])).filter(({ athleteId }) => athleteId === ada.id)
		expect(lines).toHaveLength(1)
	})
	it('that many join at once have them all, each with a line of their own', async () => {
		await make('2026-03-17')
		const list = { text: 'Ada Sørli\nTomé Vaz\nIda Vane', columns: ['name'], hasHeading: null, order: null }
		expect(await takeRoster(club.coach, club.squadId, list, NOW)).toMatchObject({ added: 3 })
		const [session] = await sessionsBetween(club.scope, '2026-03-17', '2026-03-17')
		const attending = (await readAttending(club.scope, [session!.id])).map((row) => row.athleteId)
		expect(attending).toHaveLength(6)
		expect(new Set((await readLines(club.scope, [session!.id])).map((row) => row.athleteId))).toEqual(
			new Set(attending),
		)
	})
	it('leave the sessions of another squad alone', async () => {
		await make('2026-03-17')
		const made = await addSquad(club.coach, {
			name: 'Jumps',
			days: ['1'],
			startTime: '17:00',
			place: '',
			jumpingSport: false,
		})
		if (!('id' in made)) throw new Error('no squad')
		expect(await changeSquads(club.coach, one, [club.squadId, made.id], 0, NOW)).toEqual({ off: 0, on: 0 })
		expect(await changeSquads(club.coach, one, [club.squadId], 1, NOW)).toEqual({ off: 0, on: 0 })
		expect(await downFor(one)).toEqual(['2026-03-17'])
	})
	it('of another club, and somebody of another club, are none; what somebody else kept meanwhile is told', async () => {
		const other = await makeClub('Other', 1)
		expect(await changeSquads(club.coach, one, [other.squadId], 0, NOW)).toHaveProperty('problems.squads')
		expect(await changeSquads(other.coach, one, [], 0, NOW)).toBeNull()
		expect(await changeSquads(club.coach, randomUUID(), [], 0, NOW)).toBeNull()
		await changeSquads(club.coach, one, [], 0, NOW)
		expect(await changeSquads(club.coach, one, [club.squadId], 0, NOW)).toMatchObject({
			meanwhile: { differences: [{ label: 'Squads', theirs: 'none', yours: 'Squad' }] },
		})
		expect((await squadsOf(club.scope, [one])).get(one)).toBeUndefined()
	})
})

describe('away', () => {
	it('takes somebody off the sessions from the first day to the last, and the rest stand', async () => {
		for (const day of ['2026-03-16', '2026-03-17', '2026-03-24', '2026-03-25']) await make(day)
		expect(await changeAway(club.coach, one, { from: '2026-03-17', until: '2026-03-24' }, 0, NOW)).toEqual({
			off: 2,
			on: 0,
		})
		expect(await downFor(one)).toEqual(['2026-03-16', '2026-03-25'])
		// A new session of those days is not made for them.
		const copied = await make('2026-03-18', club.athletes.slice(1))
		expect(copied).toBeTruthy()
		// Back a week sooner.
		expect(await changeAway(club.coach, one, { from: '2026-03-17', until: '2026-03-18' }, 1, NOW)).toEqual({
			off: 0,
			on: 1,
		})
		expect(await downFor(one)).toEqual(['2026-03-16', '2026-03-24', '2026-03-25'])
		expect(await changeAway(club.coach, one, { from: '', until: '' }, 2, NOW)).toEqual({ off: 0, on: 2 })
	})
	it('without a last day lasts until it is said otherwise; without a first it begins today', async () => {
		await make('2026-09-01')
		expect(await changeAway(club.coach, one, { from: '2026-03-17', until: '' }, 0, NOW)).toEqual({ off: 1, on: 0 })
		expect(await changeAway(club.coach, one, { from: '', until: '2026-03-20' }, 1, NOW)).toEqual({ off: 0, on: 1 })
		expect((await readAthletes(club.scope, [one]))[0]!.away).toEqual({ from: TODAY, until: '2026-03-20' })
	})
	it('is on days there are, the last not before the first, of the own club', async () => {
		for (const typed of [
			{ from: '2026-02-30', until: '' },
			{ from: '2026-03-17', until: '2026-03-16' },
			{ from: '2026-03-17', until: 'soon' },
		])
			expect(await changeAway(club.coach, one, typed, 0, NOW)).toHaveProperty('problems')
		expect(await changeAway((await makeClub('Other', 1)).coach, one, { from: TODAY, until: '' }, 0, NOW)).toBeNull()
		expect((await readAthletes(club.scope, [one]))[0]!.away).toBeNull()
	})
})
