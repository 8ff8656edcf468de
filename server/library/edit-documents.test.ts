import { beforeAll, describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { School } from '../../core/vocabulary/school'
import { installLibrary, ownDocuments, readDrills, readLibrary } from '../../db/queries/library'
import { readLines } from '../../db/queries/sessions'
import { readSquad, writeLevel } from '../../db/queries/squads'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { keepDrill, keepLadder, keepTheme } from './edit-documents'
import { answerSchoolForm, changeSchool, ownSchoolId, readSchool } from './school-change'

beforeAll(freshDatabase)
const pogo = STARTER_LIBRARY.drills.pogo!
const cut = STARTER_LIBRARY.ladders.cut!

describe('drills and ladders of a club’s own', () => {
	it('take every built-in one as it is: the published shape is the shape in use', async () => {
		const club = await makeClub('Club')
		for (const drill of Object.values(STARTER_LIBRARY.drills))
			expect(await keepDrill(club.coach, drill, NOW), drill.id).toHaveProperty('version')
		for (const ladder of Object.values(STARTER_LIBRARY.ladders))
			expect(await keepLadder(club.coach, ladder, NOW), ladder.id).toHaveProperty('version')
		for (const theme of Object.values(STARTER_LIBRARY.themes))
			expect(await keepTheme(club.coach, theme, NOW), theme.id).toHaveProperty('version')
	})

	it('keep a change as a new version beside the old one, for this club alone, whatever the program ships later', async () => {
		const [club, other] = [await makeClub('Club'), await makeClub('Other')]
		const kept = await keepDrill(club.coach, { ...pogo, cues: ['Quiet feet'] }, NOW)
		expect(kept).toEqual({ id: 'pogo', version: 1001 })
		expect((await readLibrary(club.scope)).drills.pogo).toMatchObject({ version: 1001, cues: ['Quiet feet'] })
		expect((await readDrills(club.scope, ['pogo'])).get(`pogo/${pogo.version}`)?.cues).toEqual(pogo.cues)
		expect((await readLibrary(other.scope)).drills.pogo).toMatchObject({ version: pogo.version })
		expect([...(await ownDocuments(club.scope))]).toEqual(['drill/pogo'])
		await installLibrary(club.scope, NOW)
		expect((await readLibrary(club.scope)).drills.pogo?.version).toBe(1001)
		expect(await keepDrill(club.coach, { ...pogo, id: 'sand-pogo', name: 'Pogo in sand' }, NOW)).toEqual({
			id: 'sand-pogo',
			version: 1001,
		})
	})

	it('keep the recipe of a session, for this club alone; somebody else’s change in between is told, not lost', async () => {
		const [club, other] = [await makeClub('Club'), await makeClub('Other')]
		const turns = STARTER_LIBRARY.themes.turns!
		expect(await keepTheme(club.coach, { ...turns, kept: [] }, NOW)).toEqual({ id: 'turns', version: 1001 })
		expect((await readLibrary(club.scope)).themes.turns).toMatchObject({ version: 1001, kept: [] })
		expect((await readLibrary(other.scope)).themes.turns).toEqual(turns)
		expect(await keepTheme(club.coach, { ...turns, name: 'Turns' }, NOW)).toMatchObject({
			meanwhile: { version: 1001 },
		})
		expect(await keepTheme(club.coach, { ...turns, version: 1001, pieces: [] }, NOW)).toHaveProperty([
			'problems',
			'pieces',
		])
		expect(
			await keepTheme(club.coach, { ...turns, version: 1001, opening: [{ part: 'A', drillId: 'gone' }] }, NOW),
		).toEqual({ problems: { 'opening.0': '“gone” is not a drill of the library.' } })
		// Said of a field of a piece, which the form shows at the piece.
		const nameless = await keepTheme(
			club.coach,
			{ ...turns, version: 1001, opening: [{ part: ' ', drillId: 'strides' }] },
			NOW,
		)
		expect(
			'problems' in nameless && Object.keys(nameless.problems).some((field) => /^opening\.0(\.|$)/.test(field)),
		).toBe(true)
		expect((await readLibrary(club.scope)).themes.turns!.version).toBe(1001)
	})

	it.each([
		['a name of blanks', { name: ' ' }, 'name'],
		['no cue', { cues: [] }, 'cues'],
		['an alternative that loads the region', { alternatives: { calf: 'pogo-for-height' } }, 'alternatives.calf'],
		['an alternative that does not exist', { alternatives: { calf: 'nope' } }, 'alternatives.calf'],
		[
			'eight rebounds a set',
			{ intensity: 'shock', defaults: { ...pogo.defaults, dose: { sets: 3, reps: 8 } } },
			'defaults.dose.reps',
		],
		['an unknown field', { secret: 1 }, 'document'],
		['a range upside down', { ranges: { distanceM: [20, 10] } }, 'ranges.distanceM'],
	])('refuse %s', async (_name, change, field) => {
		const club = await makeClub('Club')
		expect(await keepDrill(club.coach, { ...pogo, ...change }, NOW)).toHaveProperty(['problems', field])
		expect((await readLibrary(club.scope)).drills.pogo?.version).toBe(pogo.version)
	})

	it.each([
		['a rung gone', { rungs: cut.rungs.slice(1) }, 'rungs'],
		[
			'a level that falls',
			{ rungs: cut.rungs.map((rung, index) => (index === 4 ? { ...rung, level: 1 } : rung)) },
			'rungs.4.level',
		],
		[
			'a drill that does not exist',
			{ rungs: cut.rungs.map((rung) => ({ ...rung, drillId: 'nope' })) },
			'rungs.0.drillId',
		],
		[
			'a contact ceiling on a cut',
			{ rungs: cut.rungs.map((rung) => ({ ...rung, pass: { kind: 'contact-ceiling' } })) },
			'rungs.0.pass',
		],
		[
			'a rebound at level 1',
			{ rungs: [{ ...cut.rungs[0]!, drillId: 'depth-jump', dose: { sets: 3, reps: 2 } }, ...cut.rungs.slice(1)] },
			'rungs.0.level',
		],
	])('refuse a ladder with %s', async (_name, change, field) => {
		const club = await makeClub('Club')
		expect(await keepLadder(club.coach, { ...cut, ...change }, NOW)).toHaveProperty(['problems', field])
	})
})

describe('a squad’s school', () => {
	const typed = (values: Record<string, string>) => {
		const form = new FormData()
		for (const [key, value] of Object.entries(values)) form.set(key, value)
		return form
	}
	const base = STARTER_LIBRARY.schools['quality-first']!
	it('reads choices and numbers, and refuses what is out of bounds with the bounds', () => {
		expect(readSchool(typed({ variety: 'rotate', rampPercent: '10' }), base)).toMatchObject({
			school: { choices: { variety: 'rotate' }, numbers: { rampPercent: 10 } },
		})
		expect(readSchool(typed({ rampPercent: '40' }), base)).toMatchObject({
			problems: { rampPercent: '“40”: from 5 to 20 % is expected.' },
		})
		expect(readSchool(typed({ rampPercent: 'many', variety: 'chaos' }), base)).toMatchObject({
			problems: { rampPercent: '“many”: from 5 to 20 % is expected.', variety: 'Pick one of the sides.' },
		})
		expect(readSchool(typed({ passCeilingLevel3Ms: '250', passCeilingLevel2Ms: '200' }), base)).toHaveProperty(
			'problems.passCeilingLevel3Ms',
		)
	})
	it('reads the take-offs, the one used most first; a form without them keeps those there were', () => {
		const form = typed({ mostUsed: 'left', plant: 'two-lr', plants: 'sport' })
		form.append('plant', 'left')
		form.append('plant', 'sideways')
		expect(readSchool(form, base)).toMatchObject({
			school: { plants: ['left', 'two-lr'], choices: { plants: 'sport' } },
		})
		expect(readSchool(typed({ mostUsed: 'right' }), base)).toMatchObject({ school: { plants: ['right'] } })
		expect(readSchool(typed({ mostUsed: 'sideways' }), base)).toMatchObject({
			problems: { plants: 'Pick one of the take-offs.' },
		})
		expect(readSchool(typed({}), base)).toMatchObject({ school: { plants: base.plants } })
	})
	it('is kept in versions, one school a squad', async () => {
		const club: TestClub = await makeClub('Club')
		const own: School = { ...base, choices: { ...base.choices, variety: 'rotate' } }
		const first = await changeSchool(club.coach, club.squadId, { own }, 0, NOW)
		const second = await changeSchool(
			club.coach,
			club.squadId,
			{ own: { ...own, numbers: { ...own.numbers, rampPercent: 10 } } },
			1,
			NOW,
		)
		expect([first, second]).toMatchObject([{ version: 1001 }, { version: 1002 }])
		expect(await readSquad(club.scope, club.squadId)).toMatchObject({
			schoolId: ownSchoolId(club.squadId),
			schoolVersion: 1002,
		})
		expect(await changeSchool(club.coach, club.squadId, { schoolId: 'jump-ladder' }, 2, NOW)).toEqual({
			schoolId: 'jump-ladder',
			version: 5,
		})
		expect(await changeSchool(club.coach, club.squadId, { schoolId: 'nope' }, 3, NOW)).toBeNull()
	})
	it('says which lines of the next session would be others before it is used, and keeps nothing of it', async () => {
		const club: TestClub = await makeClub('Club')
		// Not yet on the rung of a pogo for height: twice as many easy ones stand for it, or the usual ones.
		const [beginner] = club.athletes as [string]
		await writeLevel(club.scope, beginner, 'plyometric', 1)
		const sessionId = await planSession(club, '2026-03-16', [
			draftEntry({ part: 'Springs', drillId: 'pogo-for-height', sets: 3, reps: 8, rest: 60 }),
			draftEntry({ part: 'Jumps', drillId: 'broad-jump', sets: 2, reps: 3, rest: 60 }),
		])
		const standing = async () => [
			await readLines(club.scope, [sessionId]),
			await readSquad(club.scope, club.squadId),
			[...(await ownDocuments(club.scope))],
		]
		const before = await standing()
		const asked = (beginners: string) =>
			answerSchoolForm(club.coach, club.squadId, 'preview', typed({ base: 'quality-first', beginners }), NOW)
		expect((await asked('more-easy'))?.preview?.lines).toEqual({
			day: '2026-03-16',
			title: 'Work',
			changes: [{ name: 'Athlete 1', from: 'Pogo, 3×15', to: 'Pogo, 4×12' }],
		})
		expect((await asked('fewer'))?.preview?.lines?.changes).toEqual([])
		expect(await standing()).toEqual(before)
		expect((await readLibrary(club.scope)).schools[ownSchoolId(club.squadId)]).toBeUndefined()
	})
})
