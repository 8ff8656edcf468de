import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { rangedContacts, totalOf } from '../../core/dose/dose-count'
import { startingAt } from '../../core/judge/resolve-line'
import { withPieceBefore } from '../../core/plan/complex-entry'
import type { SessionEntry } from '../../core/vocabulary/entry'
import { eq } from 'drizzle-orm'
import { workDay } from '../../db/schema/care'
import { markStarted, readEntries, readLines, removeAttendee } from '../../db/queries/sessions'
import { readPack } from '../field/read-pack'
import { readSheet } from '../sheet/read-sheet'
import { moveByHand } from '../squads/move-by-hand'
import { updateAthleteMass, updateSquad, writeLevel, writeState } from '../../db/queries/squads'
import { keepWorkDays } from '../../db/queries/care'
import { typedReport } from '../../tests/support/report-typed'
import { draftEntry } from '../../tests/support/draft-entry'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { markOf, saidOf } from '../../tests/support/mark-of'
import { recordClearance } from '../care/clear'
import { answerAsked, report } from '../care/report'
import { acceptEvents } from '../log/accept-events'
import { changeLineByHand } from '../sheet/change-line'
import { freshenLines, rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { createSession } from '../sheet/save-session'

// What people have seen the product write, and what it must not write any more: through the use cases that write
// lines, on a database.

beforeAll(freshDatabase)
let club: TestClub
let one: string
beforeEach(async () => {
	club = await makeClub('Club', 2)
	one = club.athletes[0]!
	for (const id of club.athletes) await updateAthleteMass(club.scope, id, 75)
})

const TODAY = '2026-03-12'
const on = async (ladderId: string, rungId: string, athleteId = one) =>
	writeState(club.scope, athleteId, startingAt(STARTER_LIBRARY, ladderId, rungId), '2026-03-11', NOW)

const plan = (entries: Parameters<typeof draftEntry>[0][], day?: string, phase?: string, startTime?: string) =>
	planWhole(
		entries.map((entry) => draftEntry(entry)),
		day,
		phase,
		startTime,
	)
async function planWhole(
	entries: SessionEntry[],
	day = '2026-03-13',
	phase = 'peaking',
	startTime = '17:30',
): Promise<string> {
	await updateSquad(club.scope, club.squadId, { phase: phase as 'peaking' })
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day,
			startTime,
			title: 'Sheet',
			place: '',
			surface: null,
			plannedMinutes: 90,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries,
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	return saved.sessionId
}
/** "Jumps: depth-jump 30 5×2" by part; what is blocked says why. */
async function written(sessionId: string, athleteId = one): Promise<Record<string, string>> {
	const entries = await readEntries(club.scope, [sessionId])
	return Object.fromEntries(
		(await readLines(club.scope, [sessionId]))
			.filter((line) => line.athleteId === athleteId)
			.map((line) => {
				const { heightCm, assistPercent } = line.parameters
				return [
					entries.find((entry) => entry.id === line.entryId)!.part,
					line.blocked === null
						? `${line.drillId}${(heightCm ?? assistPercent) ? ` ${heightCm ?? assistPercent}` : ''} ${line.dose.sets}×${line.dose.reps}`
						: `no: ${line.blocked}`,
				]
			}),
	)
}
const starts = { part: 'Starts', drillId: 'standing-start', sets: 1, reps: 5, rest: 120, parameters: { distanceM: 10 } }
const bounds = {
	part: 'Bounds',
	drillId: 'alternate-bounds',
	sets: 3,
	reps: 1,
	rest: 120,
	parameters: { distanceM: 20 },
}
const push = { part: 'Push', drillId: 'kneeling-chest-push', sets: 2, reps: 4, rest: 60, parameters: { ballKg: 3 } }
const depth = (heightCm: number) => ({
	part: 'Depth jumps',
	drillId: 'depth-jump',
	sets: 3,
	reps: 2,
	rest: 150,
	parameters: { heightCm },
})
const hurt = async (sessionId: string, value: object, athleteId = one) =>
	acceptEvents(
		club.coach,
		[
			saidOf(sessionId, athleteId, {
				deviceTime: NOW.toISOString(),
				kind: 'pain',
				value: { region: 'knee', side: 'left', score: 9, moment: 'during', redFlag: false, ...value },
			}),
		],
		NOW,
	)

describe('a drill entered for everybody', () => {
	it('passes the gates of its rung: 75 cm for level 2 in a school of 45 cm is the hardest form that is permitted', async () => {
		await writeLevel(club.scope, one, 'plyometric', 2)
		await on('shock', 'landing-45')
		const sheet = await plan([depth(75)])
		expect((await written(sheet))['Depth jumps']).toBe('depth-jump 30 3×2')
	})
	it('is another drill for level 1', async () => {
		await writeLevel(club.scope, one, 'plyometric', 1)
		await on('shock', 'landing-45')
		expect((await written(await plan([depth(30)])))['Depth jumps']).toMatch(/^(pause-jump|drop-landing) (15|30) /)
	})
	it('is no assisted run over the school’s cap', async () => {
		await on('top-speed', 'sixty-95')
		await on('assisted', 'assist-20')
		const pull = {
			part: 'Pulled',
			drillId: 'assisted-fly',
			sets: 1,
			reps: 3,
			rest: 300,
			parameters: { assistPercent: 20, distanceM: 20, runInM: 20 },
		}
		expect((await written(await plan([pull]))).Pulled).toMatch(/^assisted-fly (5|10) /)
	})
	it('goes round what cannot be reached: a heavy athlete is not stuck under 60 cm', async () => {
		await updateAthleteMass(club.scope, one, 104)
		await on('shock', 'depth-75')
		const done = { ...startingAt(STARTER_LIBRARY, 'shock', 'double-15') }
		await writeState(
			club.scope,
			one,
			{ ...done, done: done.done!.filter((id) => !id.endsWith('60') && !id.endsWith('75')) },
			'2026-03-11',
			NOW,
		)
		const double = { ...depth(15), part: 'Double', drillId: 'double-depth-jump' }
		expect((await written(await plan([double]))).Double).toBe('double-depth-jump 15 3×2')
	})
})

describe('a line set by hand', () => {
	it('is never twenty sets of sixty double depth jumps', async () => {
		await on('shock', 'double-30')
		const sheet = await plan([{ ...depth(15), part: 'Double', drillId: 'double-depth-jump' }])
		const [line] = (await readLines(club.scope, [sheet])).filter((row) => row.athleteId === one)
		expect(
			await changeLineByHand(club.coach, sheet, line!.id, { sets: '20', reps: '60', reason: 'they like it' }, NOW),
		).toMatchObject({ problem: expect.stringContaining('60 rebounds a set') as string })
		expect((await written(sheet)).Double).toBe('double-depth-jump 15 3×2')
	})
	it('gives way when a region is closed afterwards', async () => {
		const sheet = await plan([starts])
		const [line] = (await readLines(club.scope, [sheet])).filter((row) => row.athleteId === one)
		expect(await changeLineByHand(club.coach, sheet, line!.id, { sets: '1', reps: '4', reason: '' }, NOW)).toEqual({
			saved: true,
		})
		await hurt(sheet, { region: 'back-thigh', score: 6 })
		// The report belongs to the day of that session, and acts on it.
		expect((await written(sheet)).Starts).not.toMatch(/^standing-start/)
	})
})

describe('a closure is the athlete’s', () => {
	it('knee 9 with a red flag in a session without ladders bars all that loads it, in every session ahead', async () => {
		const [first, second] = [await plan([starts, push], TODAY), await plan([bounds, starts], '2026-03-14')]
		await hurt(first, { score: 9, redFlag: true })
		expect((await written(second)).Bounds).not.toMatch(/^alternate-bounds/)
		expect((await written(second)).Starts).not.toMatch(/^standing-start/)
		for (const words of Object.values(await written(second))) {
			const drill = STARTER_LIBRARY.drills[words.split(' ')[0]!]
			expect(drill?.regions.knee ?? 0, words).toBe(0)
		}
		expect((await written(second, club.athletes[1])).Starts).toBe('standing-start 1×5')
	})
	it('two regions close two, and clearing one opens only that one', async () => {
		const [first, second] = [await plan([starts], TODAY), await plan([starts, push], '2026-03-14')]
		await hurt(first, { region: 'back-thigh', score: 6 })
		await hurt(first, { region: 'shoulder', score: 6, side: 'right' })
		expect((await written(second)).Push).not.toMatch(/^kneeling/)
		const typed = { region: 'back-thigh', side: '', clearedBy: 'H. Brekke', role: 'physiotherapist', injury: 'no' }
		expect(await recordClearance(club.coach, one, typed, new Date('2026-03-13T09:00:00Z'))).toEqual({ cleared: true })
		const after = await written(second)
		// Running swings the arms: it waits for the shoulder, as the push does.
		expect(after.Push).not.toMatch(/^kneeling/)
		expect(after.Starts).not.toMatch(/^standing-start/)
		const shoulder = { ...typed, region: 'shoulder' }
		await recordClearance(club.coach, one, shoulder, new Date('2026-03-13T10:00:00Z'))
		expect(await written(second)).toEqual({ Starts: 'standing-start 1×5', Push: 'kneeling-chest-push 2×4' })
	})
	it('is no coach’s to clear', async () => {
		const first = await plan([starts], TODAY)
		await hurt(first, { score: 6 })
		const typed = { region: 'knee', side: '', clearedBy: 'The coach', role: 'coach', injury: '' }
		expect(await recordClearance(club.coach, one, typed, new Date('2026-03-13T09:00:00Z'))).toHaveProperty(
			'problems.role',
		)
	})
	it('head closes everything, and only a doctor opens it', async () => {
		const sheet = await plan([starts, push], '2026-03-14')
		expect(await report(club.coach, one, typedReport('head'), NOW)).toEqual({ reported: true })
		for (const words of Object.values(await written(sheet))) expect(words).toMatch(/^no: everything closed/)
		const by = (role: string) => ({ region: 'everything', side: '', clearedBy: 'R. Aalto', role, injury: '' })
		const later = new Date('2026-03-13T09:00:00Z')
		expect(await recordClearance(club.coach, one, by('physiotherapist'), later)).toHaveProperty('problems.role')
		expect(await recordClearance(club.coach, one, by('doctor'), later)).toEqual({ cleared: true })
		expect((await written(sheet)).Starts).toBe('walk-through 1×4')
	})
	it('a phone whose clock is ten years back disarms nothing: the day is the session’s', async () => {
		const [first, second] = [await plan([starts], TODAY), await plan([starts], '2026-03-14')]
		await acceptEvents(
			club.coach,
			[
				saidOf(first, one, {
					deviceTime: '2016-03-12T18:00:00.000Z',
					kind: 'pain',
					value: { region: 'knee', side: 'left', score: 2, moment: 'during', redFlag: true },
				}),
			],
			NOW,
		)
		expect((await written(second)).Starts).not.toMatch(/^standing-start/)
	})
	it('a region to be spared opens when the athlete, asked on a later day, says 0 or 1; silence is no answer', async () => {
		const [first, second] = [await plan([starts], '2026-03-10'), await plan([starts], '2026-03-14')]
		await hurt(first, { region: 'back-thigh', score: 4 })
		expect((await written(second)).Starts).not.toMatch(/^standing-start/)
		await rewriteUpcoming(club.scope, [one], TODAY, new Date('2026-03-13T09:00:00Z'))
		expect((await written(second)).Starts).not.toMatch(/^standing-start/)
		await plan([push], '2026-03-12')
		expect(await answerAsked(club.coach, one, { region: 'back-thigh', side: 'left', score: '1' }, NOW)).toEqual({
			kept: true,
		})
		expect((await written(second)).Starts).toBe('standing-start 1×5')
	})
})

describe('time away', () => {
	/** The last work of everything on a day. */
	const awaySince = async (day: string) => {
		await keepWorkDays(
			club.scope,
			[one],
			Array.from({ length: 24 }, (_, index) =>
				new Date(Date.UTC(2026, 2, 11 - 3 * index)).toISOString().slice(0, 10),
			).filter((worked) => worked > day),
		)
	}
	const line = async (day: string) => {
		await awaySince(day)
		await writeState(
			club.scope,
			one,
			{ ...startingAt(STARTER_LIBRARY, 'acceleration', 'three-point-20') },
			'2026-01-01',
			NOW,
		)
		const sheet = await plan(
			[{ part: 'Ladder', ladderId: 'acceleration', sets: 1, reps: 6, rest: 120 }],
			'2026-03-13',
			'accumulate',
		)
		return (await written(sheet)).Ladder
	}
	it.each([
		// 5 days; 8 and 14: three quarters; 17: a rung below the highest passed, at 60 %; 29 and more: the way back.
		['2026-03-08', 'three-point-start 1×6'],
		['2026-03-05', 'three-point-start 1×4'],
		['2026-02-27', 'three-point-start 1×4'],
		['2026-02-24', 'standing-start 1×3'],
		['2026-02-12', 'walk-through 1×4'],
		['2026-01-01', 'walk-through 1×4'],
	])('is worked out when the line is written: last work by %s', async (day, words) => {
		expect(await line(day)).toBe(words)
	})
})

describe('nothing on record', () => {
	const fresh = async () => {
		await club.scope.db.delete(workDay).where(eq(workDay.athleteId, one))
		await updateSquad(club.scope, club.squadId, { phase: 'accumulate' })
	}
	const ladder = { part: 'Ladder', ladderId: 'acceleration', sets: 1, reps: 6, rest: 120 }
	it.each([
		['', 'three-point-start 1×6'],
		['2026-03-01', 'three-point-start 1×4'],
		['2026-01-01', 'walk-through 1×4'],
	])('a placing asks for the day last trained: “%s”', async (trainedOn, words) => {
		await fresh()
		expect(
			await moveByHand(
				club.coach,
				[{ athleteId: one, ladderId: 'acceleration', rungId: 'three-point-20' }],
				'came from another club',
				trainedOn,
				NOW,
			),
		).toEqual({ moved: 1 })
		// A later placing shortens nothing.
		await moveByHand(
			club.coach,
			[{ athleteId: one, ladderId: 'acceleration', rungId: 'three-point-20' }],
			'once more',
			'2026-03-12',
			NOW,
		)
		expect((await written(await plan([ladder], '2026-03-13', 'accumulate'))).Ladder).toBe(words)
	})
	it('a new athlete trains today: the lowest rung of what is asked', async () => {
		await fresh()
		const sheet = await plan(
			[{ ...starts, drillId: 'three-point-start', parameters: { distanceM: 20 } }],
			TODAY,
			'accumulate',
		)
		const [line] = (await readLines(club.scope, [sheet])).filter((row) => row.athleteId === one)
		expect(line).toMatchObject({ drillId: 'three-point-start', parameters: { distanceM: 10 } })
	})
})

describe('as time goes by', () => {
	it('a planned session counts as done for the one after it, until its day has passed without it', async () => {
		await plan([starts], '2026-03-16')
		const later = await plan([starts], '2026-03-20')
		expect((await written(later)).Starts).toBe('standing-start 1×5')
		// Nobody trained on the 16th: by the 20th the last work is nine days back.
		await freshenLines(club.coach.clubId, '2026-03-20', new Date('2026-03-20T08:00:00Z'))
		expect((await written(later)).Starts).toBe('standing-start 1×3')
		await freshenLines(club.coach.clubId, '2026-03-20', new Date('2026-03-20T09:00:00Z'))
		expect((await readLines(club.scope, [later])).every((line) => line.version <= 2)).toBe(true)
	})
	it('what lies further ahead takes for granted that training goes on as it does today', async () => {
		expect((await written(await plan([starts], '2026-06-12'))).Starts).toBe('standing-start 1×5')
		await plan([starts], '2026-03-16')
		expect((await written(await plan([starts], '2026-06-19'))).Starts).toBe('standing-start 1×5')
	})
	it('on a sheet that is frozen the line stays and is over', async () => {
		const sheet = await plan([starts, push], TODAY)
		await markStarted(club.scope, sheet, NOW)
		await hurt(sheet, { score: 6 })
		expect((await written(sheet)).Starts).toBe('standing-start 1×5')
		const over = (await readSheet(club.scope, sheet))!.athletes
			.find((athlete) => athlete.id === one)!
			.lines.map((line) => line.over)
		expect(over).toEqual(['left knee closed since Thu 12 Mar until cleared by a health professional', over[1]])
		expect(over[1]).toContain('left knee')
		const pack = (await readPack(club.scope, sheet, 'assistant'))!
		expect(pack.sheet.athletes.find((athlete) => athlete.id === one)).toMatchObject({ spare: ['left knee'] })
		expect(pack.sheet.athletes.find((athlete) => athlete.id !== one)).toMatchObject({ spare: [] })
		expect(pack.sheet.athletes.find((athlete) => athlete.id === one)!.barred).toContain('standing-start')
	})
})

describe('a weight', () => {
	const run = {
		part: 'Runs',
		drillId: 'carried-run',
		sets: 2,
		reps: 3,
		rest: 120,
		parameters: { distanceM: 30, loadG: 100 },
	}
	const worn = async (sessionId: string) =>
		(await readLines(club.scope, [sessionId]))
			.filter((line) => line.athleteId === one)
			.map(
				(line) =>
					line.blocked ?? (line.carried ? `${line.carried.grams} g on the ${line.carried.segment}` : line.drillId),
			)
	beforeEach(async () => {
		await writeLevel(club.scope, one, 'sprint', 3)
		await on('acceleration', 'three-point-30')
		await on('carried-load', 'run-400')
	})
	it('is worn once a day, over all sessions of the day, whatever wrote the second line', async () => {
		const [noon, evening] = [
			await plan([run], '2026-03-13', 'intensify', '12:00'),
			await plan([run], '2026-03-13', 'intensify'),
		]
		expect(await worn(noon)).toEqual(['100 g on the shank'])
		expect((await worn(evening)).join()).not.toContain(' g on')
		// Written anew, the first keeps it: its own line says nothing against it.
		await rewriteUpcoming(club.scope, [one], TODAY, NOW)
		expect([await worn(noon), (await worn(evening)).join().includes(' g on')]).toEqual([['100 g on the shank'], false])
		// The day after it is there again.
		expect(await worn(await plan([run], '2026-03-14', 'intensify'))).toEqual(['100 g on the shank'])
	})
	it('is worn on four days of seven and not on a fifth, written one by one or all at once', async () => {
		const days = ['2026-03-13', '2026-03-15', '2026-03-16', '2026-03-18', '2026-03-19']
		const sheets: string[] = []
		for (const day of days) sheets.push(await plan([run], day, 'intensify'))
		for (const sheet of sheets.slice(0, 4)) expect(await worn(sheet)).toEqual(['100 g on the shank'])
		expect((await worn(sheets[4]!)).join()).not.toContain(' g on')
		// While the level is too low none of them stands; when it is right again, the five sheets are written at once.
		await writeLevel(club.scope, one, 'sprint', 1)
		await rewriteUpcoming(club.scope, [one], TODAY, NOW)
		for (const sheet of sheets) expect((await worn(sheet)).join()).not.toContain(' g on')
		await writeLevel(club.scope, one, 'sprint', 3)
		await rewriteUpcoming(club.scope, [one], TODAY, NOW)
		for (const sheet of sheets.slice(0, 4)) expect(await worn(sheet)).toEqual(['100 g on the shank'])
		expect((await worn(sheets[4]!)).join()).not.toContain(' g on')
		// Of a list somebody was taken off nothing is worn.
		await removeAttendee(club.scope, sheets[0]!, one)
		await rewriteUpcoming(club.scope, [one], TODAY, NOW)
		expect(await worn(sheets[4]!)).toEqual(['100 g on the shank'])
	})
	it('is not given to the phone a second time: no drill with one may be added for who wears one', async () => {
		const id = await plan([
			run,
			{ ...run, part: 'More', drillId: 'trunk-load-run', parameters: { distanceM: 30, loadG: 500 } },
		])
		const pack = (await readPack(club.scope, id, 'coach'))!
		expect(pack.sheet.lines.filter((line) => line.athleteId === one && line.carried)).toHaveLength(1)
		expect(pack.sheet.athletes.find((athlete) => athlete.id === one)!.barred).toContain('carried-run')
	})
})

describe('a complex', () => {
	it('goes from the builder to the sheet and the phone, and every piece is counted', async () => {
		await writeLevel(club.scope, one, 'plyometric', 3)
		await on('bound', 'alternate-bounds')
		const entry = draftEntry({
			part: 'Lift, then jump',
			drillId: 'broad-jump',
			sets: 3,
			reps: 2,
			rest: 120,
			parameters: {},
		})
		const lifted = withPieceBefore(entry, 'heavy-lift', STARTER_LIBRARY)
		const id = await planWhole([lifted])
		const [line] = (await readLines(club.scope, [id])).filter((row) => row.athleteId === one)
		expect([line!.drillId, line!.dose, line!.pieces?.map(({ drillId }) => drillId)]).toEqual([
			'broad-jump',
			{ sets: 3, reps: 1 },
			['heavy-lift', 'broad-jump'],
		])
		const sheet = (await readSheet(club.scope, id))!
		// Three rounds of two jumps on both feet; the lift counts nothing.
		expect(totalOf(rangedContacts(sheet.athletes.find((athlete) => athlete.id === one)!.planned))).toBe(6)
		const pack = (await readPack(club.scope, id, 'coach'))!
		const field = pack.sheet.lines.find((row) => row.athleteId === one)!
		expect(field.pieces!.map(({ drillName, judged }) => [drillName, judged])).toEqual([
			['Heavy lift', false],
			['Broad jump and stick', true],
		])
		const deviceId = randomUUID()
		const at = { id: field.id, entryId: field.entryId, sessionId: id, athleteId: one }
		const mark = (piece: number, deviceSeq: number, reps: number) =>
			markOf(at, { deviceId, deviceSeq, piece, kind: 'done', value: { reps } })
		const answers = await acceptEvents(club.coach, [mark(1, 0, 1), mark(2, 1, 2)], NOW)
		expect(answers.map(({ outcome }) => outcome)).toEqual(['accepted', 'accepted'])
		const after = (await readSheet(club.scope, id))!
		expect(totalOf(rangedContacts(after.athletes.find((athlete) => athlete.id === one)!.done))).toBe(2)
	})
})
