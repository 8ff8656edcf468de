import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { contactsOf } from '../../db/queries/emergency'
import { listAthletes, readLevels, readStates, squadsOf, stateKey } from '../../db/queries/squads'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { type TypedRoster, lookAtRoster, takeRoster } from './import-roster'
import { moveByHand } from './move-by-hand'
import { readPlacing } from './read-placing'

// A list from a spreadsheet is looked at before anything is written, and written whole or not at all.

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 2)
})
const TODAY = '2026-03-12'
const typed = (text: string, more: Partial<TypedRoster> = {}): TypedRoster => ({
	text,
	columns: null,
	hasHeading: null,
	order: null,
	...more,
})
const look = async (text: string, more: Partial<TypedRoster> = {}) => {
	const looked = await lookAtRoster(club.scope, club.squadId, typed(text, more), TODAY)
	if (!looked || 'problem' in looked) throw new Error(JSON.stringify(looked))
	return looked
}
const everybody = async () => (await listAthletes(club.scope)).map(({ name }) => name)

describe('a list', () => {
	it.each([
		['commas and quotes', 'Name,Born\n"Sørli, Ada",31.5.2009\n"Vaz ""Tim"" Tomé",'],
		['semicolons', 'Name;Born\nSørli, Ada;31.5.2009\n"Vaz ""Tim"" Tomé";'],
		[
			'tabs, with a mark at the front and a return at the end',
			'\uFEFFName\tBorn\r\nSørli, Ada\t31.5.2009\r\n"Vaz ""Tim"" Tomé"\t\r\n',
		],
	])('is read with %s', async (_how, text) => {
		const { rows, columns, hasHeading } = await look(text)
		expect({ columns, hasHeading }).toEqual({ columns: ['name', 'born'], hasHeading: true })
		expect(rows.map(({ line, person }) => [line, person?.name, person?.birthDate])).toEqual([
			[2, 'Sørli, Ada', '2009-05-31'],
			[3, 'Vaz "Tim" Tomé', null],
		])
	})
	it('asks which comes first where no date tells, and goes by the answer', async () => {
		const text = 'Ada\t1/2/2009\nTomé\t12/12/2008'
		expect(await look(text)).toMatchObject({ order: 'day-first', unclear: ['1/2/2009'] })
		expect((await look(text, { order: 'month-first' })).rows[0]!.person?.birthDate).toBe('2009-01-02')
		expect(await look(`${text}\nBo\t31/1/2009`)).toMatchObject({ order: 'day-first', unclear: [] })
		expect(await look('Ada\t1/31/2009')).toMatchObject({ order: 'month-first', unclear: [] })
	})
	it('is taken as its columns are said to be', async () => {
		const { rows } = await look('Ada,Sørli,62', { columns: ['first', 'last', 'mass'] })
		expect(rows[0]!.person).toMatchObject({ name: 'Ada Sørli', massKg: 62 })
		expect(await lookAtRoster(club.scope, club.squadId, typed('a,b', { columns: ['name', 'name'] }), TODAY)).toEqual({
			problem: 'Two columns are said to be the same: only one can be.',
		})
		expect(
			await lookAtRoster(club.scope, club.squadId, typed('a,b', { columns: ['ignore', 'ignore'] }), TODAY),
		).toEqual({ problem: 'Say which column is the name.' })
	})
	it.each([
		['nothing', '  \n \n'],
		['more than is read at once', Array.from({ length: 302 }, (_, index) => `Runner ${index}`).join('\n')],
		['far too much', 'a'.repeat(200_001)],
		['a cell that never ends', '"Ada, 2009'],
	])('of %s is a sentence, and nobody is written', async (_what, text) => {
		expect(await takeRoster(club.coach, club.squadId, typed(text), NOW)).toEqual({ problem: expect.any(String) })
		expect(await everybody()).toHaveLength(2)
	})
	it('with 300 people and a heading goes at once', async () => {
		const text = ['Name', ...Array.from({ length: 300 }, (_, index) => `Runner ${index}`)].join('\n')
		expect(await takeRoster(club.coach, club.squadId, typed(text), NOW)).toMatchObject({ added: 300 })
	})
	it('is written with all it says; bad rows are left out, who is here joins, nobody is made twice', async () => {
		const [first] = await listAthletes(club.scope)
		const text = [
			'Name;Born;Weight;Leg;Level;Phone',
			'Ada Sørli;31.5.2009;52,5;0,86;2;Mother 0555 010 020',
			'Tomé Vaz;never;;;;',
			`${first!.name.toUpperCase()};;;;;`,
			'ada sorli;;;;;',
			'ADA SØRLI;;;;;',
		].join('\n')
		expect(await takeRoster(club.coach, club.squadId, typed(text), NOW)).toEqual({
			added: 1,
			joined: 0,
			there: 3,
			left: 1,
		})
		const ada = (await listAthletes(club.scope)).find(({ name }) => name === 'Ada Sørli')!
		expect(ada).toMatchObject({ birthDate: '2009-05-31', massKg: 52.5, legLengthM: 0.86 })
		expect((await contactsOf(club.scope, [ada.id])).get(ada.id)).toBe('Mother 0555 010 020')
		const levelOf = await readLevels(club.scope, [ada.id])
		expect((['sprint', 'agility', 'plyometric', 'throw'] as const).map((one) => levelOf(ada.id, one))).toEqual([
			2, 2, 2, 2,
		])
		expect(await everybody()).not.toContain('Tomé Vaz')
		// Once more, nothing is new.
		expect(await takeRoster(club.coach, club.squadId, typed(text), NOW)).toMatchObject({ added: 0, there: 4 })
	})
	it('lets who is in another squad join this one, and reads another club’s squad as none', async () => {
		const other = await makeClub('Other', 1)
		expect(await takeRoster(club.coach, other.squadId, typed('Ada'), NOW)).toBeNull()
		const [theirs] = await listAthletes(other.scope)
		// Somebody of another club is somebody new here.
		const text = `${theirs!.name} of elsewhere`
		expect(await takeRoster(club.coach, club.squadId, typed(text), NOW)).toMatchObject({ added: 1, joined: 0 })
		expect(await listAthletes(other.scope)).toHaveLength(1)
	})
})

describe('where they stand', () => {
	const placing = (athleteId: string, ladderId: string, rungId: string) => ({ athleteId, ladderId, rungId })
	const standing = async (id: string, ladderId: string) =>
		(await readStates(club.scope, [id])).get(stateKey(id, ladderId))?.state.rungId ?? null

	it('is set for many with one reason', async () => {
		const [one, two] = club.athletes as [string, string]
		const placings = [placing(one, 'acceleration', 'three-point-10'), placing(two, 'acceleration', 'three-point-10')]
		expect(await moveByHand(club.coach, placings, 'as we began', '', NOW)).toEqual({ moved: 2 })
		expect(await standing(one, 'acceleration')).toBe('three-point-10')
		expect(await standing(two, 'acceleration')).toBe('three-point-10')
	})
	it('is all or nothing: one that is not open takes the rest back and is named', async () => {
		const [one, two] = club.athletes as [string, string]
		const placings = [placing(one, 'acceleration', 'three-point-10'), placing(two, 'shock', 'depth-45')]
		expect(await moveByHand(club.coach, placings, 'as we began', '', NOW)).toEqual({
			problems: { [`${two}/shock`]: expect.any(String) },
		})
		expect(await standing(one, 'acceleration')).toBeNull()
	})
	it('was trained today or before, on a day there is', async () => {
		const [one] = club.athletes as [string]
		for (const day of ['2026-03-13', '2026-02-30', 'last week'])
			expect(
				await moveByHand(club.coach, [placing(one, 'acceleration', 'three-point-10')], 'as we began', day, NOW),
			).toHaveProperty('problems.trainedOn')
	})
	it('a new squad is asked about the first ladder of each family, then about those somebody stands on', async () => {
		const [one] = club.athletes as [string]
		const before = await readPlacing(club.scope, club.squadId, [], TODAY)
		expect(new Set(before!.ladders.map(({ family }) => family)).size).toBe(before!.ladders.length)
		expect(before!.athletes).toHaveLength(2)
		await moveByHand(club.coach, [placing(one, 'acceleration', 'three-point-10')], 'as we began', '', NOW)
		const after = await readPlacing(club.scope, club.squadId, [], TODAY)
		expect(after!.ladders.map(({ id }) => id)).toEqual(['acceleration'])
		expect(after!.athletes.find(({ id }) => id === one)!.at).toEqual({ acceleration: 'three-point-10' })
		expect(await readPlacing((await makeClub('Other', 1)).scope, club.squadId, [], TODAY)).toBeNull()
		expect((await squadsOf(club.scope, [one])).get(one)).toHaveLength(1)
	})
})
