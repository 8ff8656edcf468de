import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub, secondSquad } from '../../tests/support/test-club'
import { limitedAthletes, requestOf } from '../../core/plan/build-pack'
import { proposeSession } from '../../core/plan/propose-session'
import { resolveSheet } from '../../core/plan/resolve-sheet'
import { startingAt } from '../../core/judge/resolve-line'
import { readLibrary } from '../../db/queries/library'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { SessionTemplate } from '../../core/vocabulary/template'
import { insertTemplate, listTemplates } from '../../db/queries/plan'
import { readEntries, readLines, readSession } from '../../db/queries/sessions'
import { addMembers, readSquad, writeLevel, writeState } from '../../db/queries/squads'
import { enterOutside } from '../care/outside'
import { addGround, holdOn, saveMap } from '../field-map/save-map'
import { readMap } from '../field-map/read-map'
import { readSheet } from '../sheet/read-sheet'
import { copyForward, createSession } from '../sheet/save-session'
import { acceptEvents } from '../log/accept-events'
import { readBuildPack } from './read-build-pack'
import { readPackAsked } from './read-pack-asked'
import { versionOf } from '../submissions/take-version'
import { forgetTemplate, keepTemplate, readTemplate, readTemplates } from './templates'

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 4)
})

const DAY = '2026-03-19'
const TODAY = '2026-03-12'

/** A proposal for the club's squad, two of its athletes trained and two new. */
async function propose() {
	const library = await readLibrary(club.scope)
	for (const athleteId of club.athletes.slice(2))
		for (const family of ['sprint', 'agility', 'plyometric', 'throw'] as const)
			await writeLevel(club.scope, athleteId, family, 1)
	for (const athleteId of club.athletes.slice(0, 2)) {
		for (const family of ['sprint', 'agility', 'plyometric', 'throw'] as const)
			await writeLevel(club.scope, athleteId, family, 2)
		for (const [ladderId, rungId] of [
			['acceleration', 'three-point-10'],
			['bound', 'alternate-bounds'],
			['throw', 'underhand'],
			['brake', 'dead-10'],
			['cut', 'sharp-wide'],
		])
			await writeState(club.scope, athleteId, startingAt(library, ladderId!, rungId!), TODAY, NOW)
	}
	const squad = (await readSquad(club.scope, club.squadId))!
	const pack = await readBuildPack(
		club.scope,
		squad,
		{ id: '', day: DAY, startTime: '17:30', phase: 'accumulate', surface: null },
		club.athletes,
		library,
		TODAY,
	)
	return {
		library,
		pack,
		proposal: proposeSession(requestOf(pack, library, { minutes: 110, mostLanes: 4, kit: null })),
	}
}
describe('what everybody had the last time', () => {
	const asked = async (day: string) =>
		(await readPackAsked(
			club.scope,
			{ squadId: club.squadId, sessionId: null, day, startTime: '17:30', surface: null, athleteIds: club.athletes },
			TODAY,
		))!.athletes.map(({ id, last }) => [id, last!['broad-jump']])
	const jumps = (day: string, sets: number) =>
		planSession(club, day, [draftEntry({ part: 'Jumps', drillId: 'broad-jump', sets, reps: 3, rest: 60 })])
	const held = async (sessionId: string, at: string) => {
		const [line] = (await readLines(club.scope, [sessionId])).filter((one) => one.athleteId === club.athletes[0])
		const { entryId, id: lineId } = line!
		const mark = { type: 'mark', kind: 'done', value: { reps: 3 }, entryId, lineId, setNo: 1, repNo: 3 }
		const of = { id: randomUUID(), sessionId, athleteId: club.athletes[0], deviceTime: at }
		const device = { deviceId: '00000000-0000-4000-8000-00000000000e', deviceSeq: 1 }
		const [answer] = await acceptEvents(club.coach, [{ ...mark, ...of, ...device }], new Date(at))
		expect(answer!.outcome).toBe('accepted')
	}
	it('is the last session before the day that was held, of each athlete', async () => {
		await held(await jumps('2026-03-09', 4), '2026-03-09T18:00:00.000Z')
		// Planned and never begun.
		await jumps('2026-03-10', 2)
		const was = { day: '2026-03-09', words: 'Broad jump and stick, 4×3' }
		expect(await asked(DAY)).toEqual(club.athletes.map((id) => [id, was]))
		expect(await asked('2026-03-09')).toEqual(club.athletes.map((id) => [id, undefined]))
		// Eight weeks on it is no last time any more.
		expect((await asked('2026-05-04'))[0]![1]).toEqual(was)
		expect((await asked('2026-05-05'))[0]![1]).toBeUndefined()
	})
})

async function save(): Promise<{ sessionId: string } & Awaited<ReturnType<typeof propose>>> {
	const made = await propose()
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day: DAY,
			startTime: '17:30',
			title: 'Proposed',
			place: '',
			plannedMinutes: 110,
			athleteIds: club.athletes,
			role: 'hard',
			share: 1,
			surface: null,
			entries: made.proposal.entries.map(({ family: _family, ...entry }) => ({ ...entry, id: randomUUID() })),
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	return { ...made, sessionId: saved.sessionId }
}

describe('a proposal that is saved', () => {
	it('writes exactly the lines the coach was shown', async () => {
		const { library, pack, proposal, sessionId } = await save()
		const [entries, lines] = [await readEntries(club.scope, [sessionId]), await readLines(club.scope, [sessionId])]
		expect(entries).toHaveLength(proposal.entries.length)
		let open = 0
		for (const athlete of limitedAthletes(pack, library))
			for (const [index, [, shown]] of [...resolveSheet(proposal.entries, athlete, library)].entries()) {
				const line = lines.find((row) => row.athleteId === athlete.id && row.entryId === entries[index]!.id)!
				expect({ blocked: line.blocked, dose: line.blocked ? null : line.dose, drill: line.drillId }).toEqual({
					blocked: shown.blocked,
					dose: shown.blocked === null ? shown.dose : null,
					drill: shown.blocked === null ? shown.drillId : null,
				})
				if (shown.blocked === null) open += 1
			}
		expect(open).toBeGreaterThan(20)
		// Two levels, two forms of the same theme.
		const theme = entries.find((entry) => entry.part === 'Jumps' && entry.tuning?.variants)!
		expect(new Set(lines.filter((line) => line.entryId === theme.id).map((line) => line.drillId))).toEqual(
			new Set(['broad-jump', 'repeated-broad-jump']),
		)
	})
	it('is built from what is left of the week: the other session counts as done', async () => {
		const before = (await propose()).pack
		await save()
		const squad = (await readSquad(club.scope, club.squadId))!
		const later = await readBuildPack(
			club.scope,
			squad,
			{ id: '', day: '2026-03-21', startTime: '17:30', phase: 'accumulate', surface: null },
			club.athletes,
			await readLibrary(club.scope),
			TODAY,
		)
		expect(later.athletes[0]!.rooms.maximalStarts!).toBeLessThan(before.athletes[0]!.rooms.maximalStarts!)
		expect(later.athletes[0]!.work.some((work) => work.day === DAY && work.kinds.includes('maximal-sprint'))).toBe(true)
	})
	describe('and of what is done outside', () => {
		const enter = async (athleteId: string, kind: 'match' | 'tournament', day: string, minutes: string) => {
			const typed = { kind, day, startTime: '12:00', minutes, rpe: '', hardRunning: 'yes', hardCutting: 'no' }
			expect(await enterOutside(club.coach, { athleteId }, typed, NOW)).toEqual({ entered: 1 })
		}
		const rooms = async () =>
			(await propose()).pack.athletes
				.slice(0, 2)
				.map(({ rooms }) => [rooms.maximalStarts!, rooms.fastMetres!].map((room) => Math.floor(room)))
		it('a match takes its share of the week, before the session or after it', async () => {
			// Thursday 19 March. Level 2 may start 16 times and run 120 fast metres; each match stands for 4 and 60.
			const [one] = club.athletes
			const other = [16, 120]
			await enter(one!, 'match', '2026-03-23', '90')
			expect(await rooms()).toEqual([[16, 120], other])
			await enter(one!, 'match', '2026-03-22', '90')
			expect(await rooms()).toEqual([[12, 60], other])
			await enter(one!, 'match', '2026-03-16', '90')
			expect(await rooms()).toEqual([[8, 0], other])
		})
		it('the week grows by what the stricter of an athlete’s two schools allows', async () => {
			const squadId = await secondSquad(club, 'return-and-protect')
			await addMembers(club.scope, squadId, club.athletes.slice(1, 2), TODAY)
			// Two tournament days of four hours make a week of 21.3 starts and 320 m: with 15 % 24.5 and 368, with 10 % 23.5 and 352.
			for (const id of club.athletes.slice(0, 2))
				for (const day of ['2026-03-09', '2026-03-10']) await enter(id, 'tournament', day, '240')
			expect(await rooms()).toEqual([
				[24, 368],
				[23, 352],
			])
		})
	})
	it('goes on to another day without anybody’s caps', async () => {
		const { library, sessionId } = await save()
		const session = (await readSession(club.scope, sessionId))!
		const next = await copyForward(club.scope, session, (await readSquad(club.scope, club.squadId))!, library, NOW)
		const entries = await readEntries(club.scope, [next.id])
		expect(entries.some((entry) => entry.tuning?.fill)).toBe(true)
		expect(entries.every((entry) => entry.tuning?.caps === undefined)).toBe(true)
	})
})

describe('templates', () => {
	const template = {
		format: 'dromos-session',
		version: 2,
		name: 'Short',
		minutes: 45,
		entries: [
			{
				part: 'Jumps',
				drillId: 'broad-jump',
				ladderId: null,
				dose: { sets: 3, reps: 5 },
				parameters: {},
				rest: { repsS: 5, setsS: 60 },
				doseFactor: 1,
				lanes: 1,
				together: 1,
				tuning: null,
			},
		],
	}
	it('are kept, listed and forgotten by their club alone', async () => {
		expect(await keepTemplate(club.coach, template, NOW)).toEqual({ kept: 'Short' })
		const [kept] = await listTemplates(club.scope)
		expect(kept!.content).toEqual(template)
		const other = await makeClub('Other')
		await forgetTemplate(other.coach, kept!.id)
		expect(await listTemplates(club.scope)).toHaveLength(1)
		await forgetTemplate(club.coach, kept!.id)
		expect(await listTemplates(club.scope)).toHaveLength(0)
	})
	it.each([
		[null],
		['{}'],
		[{ ...template, format: 'other' }],
		[{ ...template, minutes: 5 }],
		[{ ...template, entries: [] }],
		[{ ...template, entries: [{ ...template.entries[0], drillId: undefined }] }],
		[{ ...template, version: 1 }],
		[{ ...template, version: 3 }],
		[{ ...template, athletes: ['somebody'] }],
		[{ ...template, entries: [{ ...template.entries[0], dose: { sets: 1e9, reps: 1 } }] }],
	])('refuse %j with what is wrong', async (wrong) => {
		expect(readTemplate(wrong, STARTER_LIBRARY)).toHaveProperty('problem')
		expect(await keepTemplate(club.coach, wrong, NOW)).toHaveProperty('problem')
		expect(await listTemplates(club.scope)).toHaveLength(0)
	})
})

describe('a template of the first version', () => {
	const entry = { dose: { sets: 2, reps: 3 }, parameters: {}, doseFactor: 1, lanes: 1, together: 1 }
	const older = {
		format: 'dromos-session',
		version: 1,
		name: 'Kept long ago',
		minutes: 45,
		entries: [
			{ ...entry, part: 'Jumps', drillId: 'broad-jump', restS: 60 },
			{ ...entry, part: 'Cuts', ladderId: 'cut', restS: 45 },
			{ ...entry, part: 'Starts', drillId: 'standing-start', dose: { sets: 1, reps: 4 }, restS: 90 },
			{
				...entry,
				part: 'Jumps forward',
				drillId: 'broad-jump',
				restS: 60,
				variants: { 1: { drillId: 'broad-jump', dose: { sets: 2, reps: 3 }, parameters: {}, restS: 60 } },
				fill: { quantity: 'contacts', targets: { 1: 40, 2: 60, 3: 80 }, part: 1 },
			},
		],
	}
	it('is read as what it meant: jumps straight on in the set, everything else with the rest after each rep', () => {
		const read = readTemplate(older, STARTER_LIBRARY)
		if ('problem' in read) throw new Error(read.problem)
		expect(read.template.entries.map(({ drillId, ladderId, rest }) => ({ drillId, ladderId, rest }))).toEqual([
			{ drillId: 'broad-jump', ladderId: null, rest: { repsS: 0, setsS: 60 } },
			{ drillId: 'wide-cut', ladderId: 'cut', rest: { repsS: 45, setsS: 45 } },
			{ drillId: 'standing-start', ladderId: null, rest: { repsS: 90, setsS: 90 } },
			{ drillId: 'broad-jump', ladderId: null, rest: { repsS: 0, setsS: 60 } },
		])
		expect(read.template.entries[3]!.tuning).toEqual({
			variants: {
				1: { drillId: 'broad-jump', dose: { sets: 2, reps: 3 }, parameters: {}, rest: { repsS: 0, setsS: 60 } },
			},
			fill: { quantity: 'contacts', targets: { 1: 40, 2: 60, 3: 80 }, part: 1 },
		})
	})
	it('stands in the list as it is read now', async () => {
		await insertTemplate(club.scope, {
			id: randomUUID(),
			name: older.name,
			content: older as unknown as SessionTemplate,
			madeBy: club.coach.personId,
			madeAt: NOW,
		})
		const [kept] = await readTemplates(club.scope, STARTER_LIBRARY)
		expect(kept!.content).toMatchObject({ version: 2, entries: [{ rest: { repsS: 0, setsS: 60 } }, {}, {}, {}] })
	})
})

describe('the field map', () => {
	const mapOf = async (sessionId: string, groundId: string | null = null) =>
		readMap(club.scope, (await readSheet(club.scope, sessionId))!, groundId)
	it('needs a ground, places what fits, and is kept for each ground apart', async () => {
		const { sessionId } = await save()
		expect(await mapOf(sessionId)).toEqual({ grounds: [] })
		await addGround(club.coach, { name: 'Grass', lengthM: '100', widthM: '60', surface: 'grass' })
		await addGround(club.coach, { name: 'Yard', lengthM: '30', widthM: '15,5', surface: 'gravel' })
		const first = await mapOf(sessionId)
		if (!('ground' in first)) throw new Error('no ground')
		expect(first).toMatchObject({ saved: false, unplaced: [] })
		expect(first.stations.length).toBeGreaterThan(4)
		const yard = first.grounds.find((ground) => ground.name === 'Yard')!
		expect(yard.widthM).toBe(15.5)
		const small = await mapOf(sessionId, yard.id)
		if (!('ground' in small)) throw new Error('no ground')
		expect(small.unplaced.length).toBeGreaterThan(0)

		expect(await saveMap(club.coach, sessionId, first.ground.id, first.placements, null, NOW)).toEqual({ saved: true })
		expect(await mapOf(sessionId, first.ground.id)).toMatchObject({ saved: true, placements: first.placements })
		expect(await mapOf(sessionId, yard.id)).toMatchObject({ saved: false })
		// Two coaches at once: the second to save reads anew first.
		const mine = first.placements.slice(1)
		expect(await saveMap(club.coach, sessionId, first.ground.id, mine, null, NOW)).toMatchObject({
			problem: expect.stringContaining('Somebody else') as string,
		})
		expect(await saveMap(club.coach, sessionId, first.ground.id, mine, first.placements, NOW)).toEqual({ saved: true })
		expect(await mapOf(sessionId, first.ground.id)).toMatchObject({ placements: mine })
	})
	it('keeps nothing that crosses a throw sector or leaves the ground, nothing garbled, and nothing of a stranger', async () => {
		const { sessionId } = await save()
		await addGround(club.coach, { name: 'Grass', lengthM: '100', widthM: '60', surface: 'grass' })
		const map = await mapOf(sessionId)
		if (!('ground' in map)) throw new Error('no ground')
		const [thrower, runner] = [
			map.stations.find((station) => station.shape.zones.some((zone) => zone.kind === 'sector'))!,
			map.stations.find((station) => station.name === 'Acceleration')!,
		]
		const at = map.placements.find((one) => one.entryId === thrower.entryId)!
		const into = map.placements.map((one) => (one.entryId === runner.entryId ? { ...at, entryId: one.entryId } : one))
		expect(await saveMap(club.coach, sessionId, map.ground.id, into, null, NOW)).toMatchObject({
			problem: expect.stringMatching(/^Not saved\. .*throw sector/) as string,
		})
		const out = map.placements.map((one) => (one.entryId === runner.entryId ? { ...one, x: 99 } : one))
		expect(await saveMap(club.coach, sessionId, map.ground.id, out, null, NOW)).toMatchObject({
			problem: expect.stringContaining('outside the ground') as string,
		})
		for (const wrong of [
			null,
			'x',
			[{}],
			[{ entryId: runner.entryId, x: 'a', y: 1, turnDeg: 0 }],
			[{ entryId: runner.entryId, x: 1e12, y: 1, turnDeg: 0 }],
		])
			expect(await saveMap(club.coach, sessionId, map.ground.id, wrong, null, NOW)).toHaveProperty('problem')
		expect(await saveMap(club.coach, sessionId, randomUUID(), map.placements, null, NOW)).toBeNull()
		expect(
			await saveMap((await makeClub('Other')).coach, sessionId, map.ground.id, map.placements, null, NOW),
		).toBeNull()
		expect(await mapOf(sessionId)).toMatchObject({ saved: false })
	})
	it('holds a session on a ground: its place, what is under foot, and the lines for that', async () => {
		const { sessionId } = await save()
		await addGround(club.coach, { name: 'Yard', lengthM: '40', widthM: '18', surface: 'gravel' })
		const map = await mapOf(sessionId)
		if (!('ground' in map)) throw new Error('no ground')
		expect(await holdOn(club.coach, sessionId, map.ground.id, NOW)).toEqual({ held: 'Yard' })
		expect(await versionOf(club.scope, 'session', sessionId)).toBe(1)
		expect(await readSession(club.scope, sessionId)).toMatchObject({ place: 'Yard', surface: 'gravel' })
		expect(await holdOn(club.coach, randomUUID(), map.ground.id, NOW)).toBeNull()
	})
	it.each([
		['', '100', '60', 'grass'],
		['Grass', 'long', '60', 'grass'],
		['Grass', '100', '4', 'grass'],
		['Grass', '100', '60', 'moon'],
	])('refuses a ground “%s” of %s by %s on %s', async (name, lengthM, widthM, surface) => {
		expect(await addGround(club.coach, { name, lengthM, widthM, surface })).toHaveProperty('problem')
	})
})
