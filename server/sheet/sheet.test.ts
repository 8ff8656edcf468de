import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { allContacts, metresOf } from '../../core/dose/dose-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { insertLines, readEntries, readLines, readSession, sessionsBetween } from '../../db/queries/sessions'
import { readAthletes } from '../../db/queries/squads'
import { acceptEvents } from '../log/accept-events'
import { addSquad, changeLevel, changePhase } from '../squads/change-roster'
import { addAthletes } from '../squads/import-roster'
import { readSquadsPage } from '../squads/read-squads'
import { readDraft } from './draft'
import { readSheet } from './read-sheet'
import { readTargets } from './read-targets'
import { changeSession, createSession } from './save-session'
import { draftEntry } from '../../tests/support/draft-entry'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club')
})

const pogo = draftEntry({ part: 'Jumps', drillId: 'pogo', sets: 3, reps: 15, rest: 60 })
const starts = draftEntry({
	part: 'Starts',
	drillId: 'three-point-start',
	sets: 1,
	reps: 6,
	rest: 120,
	parameters: { distanceM: 20 },
})
const draft = (change: Record<string, unknown> = {}) => ({
	squadId: club.squadId,
	day: '2026-03-12',
	startTime: '17:30',
	title: ' Speed ',
	place: '',
	surface: null,
	plannedMinutes: 60,
	role: 'hard',
	share: 1,
	athleteIds: club.athletes,
	entries: [pogo, starts],
	...change,
})
async function create(change: Record<string, unknown> = {}): Promise<string> {
	const saved = await createSession(club.coach.clubId, 'Atlantic/Madeira', draft(change), NOW)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	return saved.sessionId
}

describe('a draft', () => {
	const problems = (change: Record<string, unknown>) => {
		const read = readDraft(draft(change), STARTER_LIBRARY)
		return 'problems' in read ? read.problems : {}
	}
	it('is taken as it stands when it is sound', () => {
		expect(problems({})).toEqual({})
	})
	it('may hold every drill of the library as the library has it, and every ladder', () => {
		for (const { id, defaults } of Object.values(STARTER_LIBRARY.drills)) {
			const { repS: _repS, ...work } = defaults
			expect(problems({ entries: [{ ...pogo, drillId: id, ...work }] }), id).toEqual({})
		}
		for (const ladder of Object.values(STARTER_LIBRARY.ladders))
			expect(
				problems({ entries: [draftEntry({ part: 'Part', ladderId: ladder.id, sets: 1, reps: 1, rest: 0 })] }),
				ladder.id,
			).toEqual({})
	})
	it('names a form for a level that the library does not hold, and rebounds in it', () => {
		const form = (drillId: string, reps: number) => ({
			entries: [
				{
					...pogo,
					tuning: {
						variants: { 1: { drillId, dose: { sets: 1, reps }, parameters: {}, rest: { repsS: 60, setsS: 60 } } },
					},
				},
			],
		})
		expect(problems(form('moonwalk', 4))).toHaveProperty(['entries.0.drillId'])
		expect(problems(form('depth-jump', 6))).toHaveProperty(['entries.0.dose.reps'])
		expect(problems({ entries: [{ ...pogo, tuning: { caps: { nobody: { reps: 1, why: 'x' } } } }] })).not.toEqual({})
	})
	it.each([
		[{ day: '2026-02-30' }, 'day', '“2026-02-30”: A day like 2026-03-14 is expected.'],
		[{ startTime: '25:00' }, 'startTime', '“25:00”: A time like 17:30 is expected.'],
		[{ title: '   ' }, 'title', '“   ”: A title of up to 200 characters is expected.'],
		[{ plannedMinutes: 5 }, 'plannedMinutes', '“5”: Whole minutes from 10 to 240 are expected.'],
		[{ athleteIds: [] }, 'athleteIds', 'Pick at least one athlete.'],
		[{ entries: [] }, 'entries', 'Add at least one drill.'],
		[
			{ entries: [{ ...pogo, dose: { sets: 3, reps: 1.5 } }] },
			'entries.0.dose.reps',
			'“1.5”: Whole reps from 1 to 100 are expected.',
		],
		[
			{ entries: [{ ...pogo, rest: { repsS: 0, setsS: 1801 } }] },
			'entries.0.rest.setsS',
			'“1801”: Rest between sets in whole seconds from 0 to 1800 is expected.',
		],
		[
			{ entries: [{ ...pogo, dose: { sets: 'many', reps: 2 } }] },
			'entries.0.dose.sets',
			'“many”: Whole sets from 1 to 20 are expected.',
		],
		[{ entries: [{ ...pogo, drillId: 'flying' }] }, 'entries.0.drillId', 'Pick a drill or a ladder.'],
		[
			{ entries: [{ ...pogo, drillId: 'depth-jump', dose: { sets: 2, reps: 6 } }] },
			'entries.0.dose.reps',
			'“6”: never more than 5 rebounds a set.',
		],
		[
			{ entries: [{ ...starts, parameters: { distanceM: 1e9 } }] },
			'entries.0.parameters.distanceM',
			'“1000000000”: Metres from 1 to 2000 are expected.',
		],
	])('%j is refused with a sentence', (change, path, sentence) => {
		expect(problems(change)[path]).toBe(sentence)
	})
	it('may not bring fields of its own', () => {
		expect(Object.keys(problems({ extra: 1 }))).toHaveLength(1)
	})
})

describe('a session sheet', () => {
	it('gives everybody a line and counts what it costs', async () => {
		const sheet = await readSheet(club.scope, await create())
		expect(sheet?.session).toMatchObject({ title: 'Speed', phase: 'peaking', startedAt: null })
		expect(sheet?.athletes.map((athlete) => athlete.name)).toEqual(['Athlete 1', 'Athlete 2', 'Athlete 3'])
		for (const athlete of sheet!.athletes) {
			expect(allContacts(athlete.planned)).toEqual({ left: 0, right: 0, both: 45 })
			expect(metresOf(athlete.planned)).toBe(120)
			expect(allContacts(athlete.done).both).toBe(0)
		}
		expect(sheet?.strip.map((part) => part.name)).toEqual(['Jumps', 'Starts'])
		const targets = await readTargets(club.scope, sheet!)
		expect([...targets.values()].every((target) => target.words === 'good by eye')).toBe(true)
	})

	it('keeps an untouched entry, retires a changed one, and leaves nobody a line who does not come', async () => {
		const id = await create()
		const before = await readEntries(club.scope, [id])
		const [, two] = club.athletes as [string, string]
		const saved = await changeSession(
			club.coach,
			id,
			draft({
				athleteIds: club.athletes.slice(1),
				entries: [
					{ ...pogo, id: before[0]!.id },
					{ ...starts, id: before[1]!.id, dose: { sets: 1, reps: 4 } },
				],
			}),
			0,
			NOW,
		)
		expect(saved).toEqual({ sessionId: id })
		const after = await readEntries(club.scope, [id])
		expect(after[0]?.id).toBe(before[0]?.id)
		expect(after[1]?.id).not.toBe(before[1]?.id)
		const lines = await readLines(club.scope, [id])
		expect(lines).toHaveLength(4)
		expect(
			lines
				.filter((line) => line.athleteId === two)
				.map((line) => line.dose.reps)
				.sort(),
		).toEqual([15, 4])
	})

	it('has no line twice: a version that stands is not written over', async () => {
		const id = await create()
		const before = await readLines(club.scope, [id])
		const { clubId: _, ...line } = before[0]!
		await expect(insertLines(club.scope, [{ ...line, id: randomUUID() }])).rejects.toThrow()
		await expect(insertLines(club.scope, [line])).rejects.toThrow()
		expect(await readLines(club.scope, [id])).toEqual(before)
	})

	it('is frozen by its first mark', async () => {
		const id = await create()
		const [line] = await readLines(club.scope, [id])
		const mark = markOf(line!, {
			deviceTime: NOW.toISOString(),
			kind: 'done',
			value: { reps: 1 },
		})
		await acceptEvents(club.coach, [mark], NOW)
		expect(await changeSession(club.coach, id, draft(), 0, NOW)).toHaveProperty('problems.title')
		expect(await changeSession(club.coach, randomUUID(), draft(), 0, NOW)).toBeNull()
	})

	it('is not made for a stranger’s squad or athlete', async () => {
		const other = await makeClub('Other')
		expect(await createSession(club.coach.clubId, 'UTC', draft({ squadId: other.squadId }), NOW)).toHaveProperty(
			'problems.squadId',
		)
		expect(
			await createSession(club.coach.clubId, 'UTC', draft({ athleteIds: [...club.athletes, other.athletes[0]] }), NOW),
		).toHaveProperty('problems.athleteIds')
		expect(await sessionsBetween(club.scope, '2026-01-01', '2026-12-31')).toEqual([])
		expect(await readSession(other.scope, await create())).toBeNull()
	})
})

describe('squads', () => {
	it('take names with birth dates, all or none', async () => {
		const made = await addSquad(club.coach, {
			name: 'Juniors',
			days: ['4', '1', '1'],
			startTime: '16:00',
			place: '',
			jumpingSport: false,
		})
		if (!('id' in made)) throw new Error('no squad')
		expect(await addAthletes(club.coach, made.id, 'Ida, 2010-05-31\nBo, tomorrow', NOW)).toHaveProperty(
			'problem',
			'Line 2: “tomorrow”: a birth date like 2009-05-31 or 31 May 2009 is expected.',
		)
		expect(await addAthletes(club.coach, made.id, 'Ida, 2010-05-31\n\n Bo ', NOW)).toMatchObject({ added: 2 })
		// Typed once more, nobody is made twice.
		expect(await addAthletes(club.coach, made.id, 'IDA\nBo', NOW)).toMatchObject({ added: 0, there: 2 })
		const juniors = (await readSquadsPage(club.scope, '2026-03-12')).roster.find((row) => row.squad.id === made.id)
		expect(juniors?.squad.trainingDays).toEqual([1, 4])
		const ids = juniors?.athletes.map(({ id }) => id) ?? []
		const born = await readAthletes(club.scope, ids)
		expect(born.map(({ name, birthDate }) => [name, birthDate]).sort()).toEqual([
			['Bo', null],
			['Ida', '2010-05-31'],
		])
		expect(juniors?.athletes[0]?.standings.every((standing) => !standing.met && standing.rungIndex === 0)).toBe(true)
		expect(
			await addSquad(club.coach, { name: '', days: [], startTime: 'noon', place: '', jumpingSport: false }),
		).toHaveProperty('problems.startTime', '“noon”: a time like 17:30 is expected.')
	})

	it('write upcoming lines anew when the coach changes a level', async () => {
		const id = await create({
			day: '2026-03-20',
			entries: [draftEntry({ part: 'Stiffness', ladderId: 'stiffness', sets: 1, reps: 1, rest: 0 })],
		})
		const [one] = club.athletes as [string]
		expect((await readLines(club.scope, [id])).find((line) => line.athleteId === one)).toMatchObject({
			rungId: 'calf-hold',
			version: 1,
		})
		expect(await changeLevel(club.coach, one, 'plyometric', 3, 0, NOW)).toBe(true)
		expect(await changeLevel(club.coach, one, 'plyometric', 2, 0, NOW)).toMatchObject({
			meanwhile: { differences: [{ label: 'Level, plyometric', theirs: '3', yours: '2' }] },
		})
		expect(await changeLevel(club.coach, one, 'plyometric', 4, 1, NOW)).toBe(false)
		expect(await changeLevel(club.coach, randomUUID(), 'plyometric', 2, 1, NOW)).toBe(false)
		expect(await changePhase(club.coach, club.squadId, 'intensify', 0, NOW)).toBe(true)
		expect(await changePhase(club.coach, club.squadId, 'party', 1, NOW)).toBe(false)
	})
})
