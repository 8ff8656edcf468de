import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { readLines } from '../../db/queries/sessions'
import { readAthletes, readSquad, writeState } from '../../db/queries/squads'
import { startingAt } from '../../core/judge/resolve-line'
import { readLibrary } from '../../db/queries/library'
import { readSession } from '../../db/queries/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { versionOf } from '../submissions/take-version'
import { changeIdentity, changeSquad } from './change-roster'

beforeAll(freshDatabase)

const at = new Date('2026-03-12T12:00:00Z')
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 1)
})
const OTHER = {
	name: ' Evening squad ',
	days: ['5', '2', '2'],
	startTime: '19:15',
	place: ' Yard ',
	jumpingSport: false,
}

describe('a squad that changes', () => {
	const change = (typed: Partial<typeof OTHER>, seen = 0) =>
		changeSquad(club.coach, club.squadId, { ...OTHER, ...typed }, seen, at)
	it('has another name, days, time and place; a session that stands stays where and when it is', async () => {
		const sessionId = await planSession(club, '2026-03-16', [
			draftEntry({ part: 'Jumps', drillId: 'broad-jump', sets: 2, reps: 3, rest: 60 }),
		])
		const before = await readSession(club.scope, sessionId)
		expect(await change({})).toEqual({ saved: true })
		expect(await readSquad(club.scope, club.squadId)).toMatchObject({
			name: 'Evening squad',
			trainingDays: [2, 5],
			startTime: '19:15',
			place: 'Yard',
			phase: 'peaking',
		})
		expect({ ...(await readSession(club.scope, sessionId)), squadName: '' }).toEqual({ ...before, squadName: '' })
	})
	it.each([
		['name', { name: ' ' }],
		['days', { days: [] }],
		['days', { days: ['8'] }],
		['startTime', { startTime: '24:00' }],
	])('says what is wrong with its %s and keeps what it had', async (field, wrong) => {
		const before = await readSquad(club.scope, club.squadId)
		expect(await change(wrong)).toHaveProperty(['problems', field])
		expect(await readSquad(club.scope, club.squadId)).toEqual(before)
	})
	it('tells who comes second what the first has said, and is nobody else’s', async () => {
		await change({})
		expect(await change({ place: 'Hall' }, 0)).toMatchObject({
			meanwhile: { by: 'Coach', differences: [{ label: 'Place', theirs: 'Yard', yours: 'Hall' }] },
		})
		expect(await change({ jumpingSport: true }, 0)).toMatchObject({
			meanwhile: {
				differences: [
					{ label: 'Matches and practice', theirs: 'without many hard jumps', yours: 'full of hard jumps' },
				],
			},
		})
		const other = await makeClub('Other', 1)
		expect(await changeSquad(other.coach, club.squadId, OTHER, 1, at)).toBeNull()
	})
})

describe('an athlete’s name and birth date', () => {
	const [name, birthDate] = ['Ada Fjordlund', '2001-01-01']
	const change = async (typed: Partial<{ name: string; birthDate: string }>, seen?: number) =>
		changeIdentity(
			club.coach,
			club.athletes[0]!,
			{ name, birthDate, ...typed },
			seen ?? (await versionOf(club.scope, 'athlete', club.athletes[0]!)),
			at,
		)
	const stands = async () => (await readAthletes(club.scope, [club.athletes[0]!]))[0]!
	it('are put right, and forgotten', async () => {
		expect(await change({ name: ' Ada  Fjordlund ' })).toEqual({ saved: true })
		expect((await stands()).name).toBe('Ada  Fjordlund')
		await change({ birthDate: '' })
		expect(await stands()).toMatchObject({ name, birthDate: null })
	})
	it.each([
		['name', { name: '' }],
		['name', { name: 'x'.repeat(201) }],
		['birthDate', { birthDate: '2026-03-12' }],
		['birthDate', { birthDate: '1899-12-31' }],
		['birthDate', { birthDate: '2001-13-01' }],
		['birthDate', { birthDate: '31.5.2001' }],
	])('say what is wrong with the %s and stay', async (field, wrong) => {
		const before = await stands()
		expect(await change(wrong)).toHaveProperty(['problems', field])
		expect(await stands()).toEqual(before)
	})
	it('decide the lines ahead: a child is written no rebound from a box', async () => {
		const library = await readLibrary(club.scope)
		await writeState(club.scope, club.athletes[0]!, startingAt(library, 'shock', 'depth-15'), '2026-03-01', at)
		const sessionId = await planSession(club, '2026-03-16', [
			draftEntry({ part: 'Rebounds', drillId: 'depth-jump', sets: 3, reps: 2, rest: 60 }),
		])
		const drill = async () => (await readLines(club.scope, [sessionId])).map((line) => line.drillId)
		expect(await drill()).toEqual(['depth-jump'])
		await change({ birthDate: '2013-01-01' })
		expect(await drill()).not.toContain('depth-jump')
	})
	it('tell who comes second, and are nobody else’s', async () => {
		await change({ name: 'First' })
		expect(await change({ name: 'Second' }, 0)).toMatchObject({
			meanwhile: { differences: [{ label: 'Name', theirs: 'First', yours: 'Second' }] },
		})
		const other = await makeClub('Other', 1)
		expect(await changeIdentity(other.coach, club.athletes[0]!, { name, birthDate }, 1, at)).toBeNull()
	})
})
