import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { draftEntry } from '../../tests/support/draft-entry'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { inTransaction } from '../../db/connect'
import { readEntries, readSession } from '../../db/queries/sessions'
import { readAthletes } from '../../db/queries/squads'
import { database } from '../database'
import { moveSession } from '../plan/calendar'
import { keepDrill } from '../library/edit-documents'
import { changeSession, createSession } from '../sheet/save-session'
import { changeFocus, changeMass, changePhase } from '../squads/change-roster'
import { differences, takeVersion, versionOf } from './take-version'

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club')
})
const LATER = new Date(NOW.getTime() + 60_000)

describe('who saves second', () => {
	const take = (seen: number, now = NOW) =>
		inTransaction(database().db, club.coach.clubId, (scope) =>
			takeVersion(scope, club.coach, 'squad', club.squadId, seen, now),
		)
	it('is told who saved first, and saves when the newer one was seen', async () => {
		expect(await versionOf(club.scope, 'squad', club.squadId)).toBe(0)
		expect(await take(0)).toBeNull()
		expect(await versionOf(club.scope, 'squad', club.squadId)).toBe(1)
		expect(await take(0, LATER)).toMatchObject({ version: 1, at: NOW.toISOString() })
		expect(await versionOf(club.scope, 'squad', club.squadId)).toBe(1)
		expect(await take(1, LATER)).toBeNull()
		expect(await versionOf(club.scope, 'squad', club.squadId)).toBe(2)
		// Another record has a count of its own.
		expect(await versionOf(club.scope, 'school', club.squadId)).toBe(0)
	})
	it('is one of many who save at the same moment', async () => {
		await take(0)
		const answers = await Promise.all(Array.from({ length: 6 }, () => take(1)))
		expect(answers.filter((one) => one === null)).toHaveLength(1)
		expect(await versionOf(club.scope, 'squad', club.squadId)).toBe(2)
	})
	it('sees where the two writings differ, and what only one of them has', () => {
		const theirs = [
			['Title', 'Speed'],
			['Place', 'Grass'],
			['Entry 1', 'Pogo, 3×15'],
		] as const
		const yours = [
			['Title', 'Speed and power'],
			['Place', 'Grass'],
			['Entry 1', 'Pogo, 3×15'],
			['Entry 2', 'Broad jump, 2×3'],
		] as const
		expect(differences(theirs, yours)).toEqual([
			{ label: 'Title', theirs: 'Speed', yours: 'Speed and power' },
			{ label: 'Entry 2', theirs: '—', yours: 'Broad jump, 2×3' },
		])
	})
})

describe('two coaches on one record', () => {
	const draft = (change: object = {}) => ({
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
		entries: [draftEntry({ part: 'Jumps', drillId: 'pogo', sets: 3, reps: 15, rest: { repsS: 0, setsS: 60 } })],
		...change,
	})
	it('a session: the second sees what the first wrote, nothing of it is lost, and chooses', async () => {
		const made = await createSession(club.coach.clubId, 'Atlantic/Madeira', draft(), NOW)
		if (!('sessionId' in made)) throw new Error('not made')
		const id = made.sessionId
		const [one] = club.athletes
		expect(await changeSession(club.coach, id, draft({ title: 'First', athleteIds: [one] }), 0, NOW)).toEqual({
			sessionId: id,
		})
		const mine = draft({
			title: 'Second',
			entries: [
				draftEntry({ part: 'Jumps', drillId: 'pogo', sets: 4, reps: 15, rest: { repsS: 0, setsS: 90 } }),
				draftEntry({ part: 'Starts', ladderId: 'acceleration', sets: 1, reps: 6, rest: 120, lanes: 2 }),
			],
		})
		const answer = await changeSession(club.coach, id, mine, 0, LATER)
		expect(answer).toMatchObject({
			meanwhile: {
				version: 1,
				at: NOW.toISOString(),
				differences: [
					{ label: 'Title', theirs: 'First', yours: 'Second' },
					{ label: 'Who comes', theirs: 'Athlete 1', yours: 'Athlete 1, Athlete 2, Athlete 3' },
					{
						label: 'Entry 1',
						theirs: 'Jumps: Pogo, 3×15, straight on, 1:00 between sets, 1 lane',
						yours: 'Jumps: Pogo, 4×15, straight on, 1:30 between sets, 1 lane',
					},
					{ label: 'Entry 2', theirs: '—', yours: 'Starts: Acceleration, 2 lanes' },
				],
			},
		})
		expect((await readSession(club.scope, id))?.title).toBe('First')
		expect(await readEntries(club.scope, [id])).toHaveLength(1)
		expect(await changeSession(club.coach, id, mine, 1, LATER)).toEqual({ sessionId: id })
		expect((await readSession(club.scope, id))?.title).toBe('Second')
		expect(await readEntries(club.scope, [id])).toHaveLength(2)
	})
	it('a session that was dragged to another day meanwhile is one that was changed', async () => {
		const made = await createSession(club.coach.clubId, 'Atlantic/Madeira', draft(), NOW)
		if (!('sessionId' in made)) throw new Error('not made')
		expect(await moveSession(club.coach, made.sessionId, '2026-03-16', '2026-03-11', NOW)).toEqual({ moved: true })
		expect(await changeSession(club.coach, made.sessionId, draft({ title: 'Mine' }), 0, LATER)).toMatchObject({
			meanwhile: {
				version: 1,
				differences: [
					{ label: 'Day', theirs: '2026-03-16, 17:30', yours: '2026-03-12, 17:30' },
					{ label: 'Title', theirs: 'Speed', yours: 'Mine' },
				],
			},
		})
	})
	it('a squad: its phase and what a block drives on', async () => {
		const { coach, squadId } = club
		expect(await changePhase(coach, squadId, 'intensify', 0, NOW)).toBe(true)
		expect(await changePhase(coach, squadId, 'unloading', 0, LATER)).toMatchObject({
			meanwhile: { version: 1, differences: [{ label: 'Phase', theirs: 'intensify', yours: 'unloading' }] },
		})
		expect(await changeFocus(coach, squadId, 'acceleration', 'kept', 1, LATER)).toBe(true)
		expect(await changeFocus(coach, squadId, 'acceleration', 'priority', 1, LATER)).toMatchObject({
			meanwhile: { version: 2, differences: [{ label: 'This ladder', theirs: 'kept', yours: 'priority' }] },
		})
		expect(await changeFocus(coach, squadId, 'acceleration', 'priority', 2, LATER)).toBe(true)
	})
	it('an athlete: the second mass is asked about', async () => {
		const [one] = club.athletes as [string]
		expect(await changeMass(club.coach, one, '71,5', 0, NOW)).toEqual({ saved: true })
		expect(await changeMass(club.coach, one, '68', 0, LATER)).toMatchObject({
			meanwhile: { version: 1, differences: [{ label: 'Body mass', theirs: '71.5 kg', yours: '68 kg' }] },
		})
		expect((await readAthletes(club.scope, [one]))[0]?.massKg).toBe(71.5)
		expect(await changeMass(club.coach, one, '68', 1, LATER)).toEqual({ saved: true })
	})
	it('a drill: it names the version it was written from', async () => {
		const pogo = STARTER_LIBRARY.drills.pogo!
		expect(await keepDrill(club.coach, { ...pogo, name: 'First pogo' }, NOW)).toEqual({ id: 'pogo', version: 1001 })
		expect(await keepDrill(club.coach, { ...pogo, name: 'Second pogo' }, LATER)).toMatchObject({
			meanwhile: {
				version: 1001,
				differences: [{ label: 'name', theirs: 'First pogo', yours: 'Second pogo' }],
			},
		})
		expect(await keepDrill(club.coach, { ...pogo, name: 'Second pogo', version: 1001 }, LATER)).toEqual({
			id: 'pogo',
			version: 1002,
		})
	})
})
