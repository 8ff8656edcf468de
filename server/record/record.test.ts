import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { foldEvents } from '../../core/events/fold'
import { eventsOfSessions } from '../../db/queries/log'
import { readLines } from '../../db/queries/sessions'
import type { SignedIn } from '../access/sign-in'
import { repsOn } from '../bench/read-measurements'
import { saveMeasurement, takeBackMeasurement } from '../bench/save-measurement'
import { acceptEvents } from '../log/accept-events'
import { readPack } from '../field/read-pack'
import { readDone } from './read-done'
import { addFromPaper, addNote, bringBack, correctMark, giveTo, takeBack } from './write-done'
import { markOf, saidOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const TODAY = '2026-03-12'
let club: TestClub
let sessionId: string
let lines: Awaited<ReturnType<typeof readLines>>
beforeEach(async () => {
	club = await makeClub('Club')
	sessionId = await planSession(club, TODAY, [
		draftEntry({
			part: 'Starts',
			drillId: 'three-point-start',
			sets: 1,
			reps: 3,
			rest: 120,
			parameters: { distanceM: 20 },
		}),
		draftEntry({ part: 'Rebounds', drillId: 'single-leg-pogo', sets: 2, reps: 2, rest: 60 }),
		draftEntry({ part: 'Skips', drillId: 'wall-drill', sets: 2, reps: 8, rest: 60 }),
	])
	lines = await readLines(club.scope, [sessionId])
})
const page = async (who: SignedIn = club.coach) => (await readDone(who, sessionId, NOW))!
const lineOf = (drillId: string, athlete = 0) =>
	lines.find((line) => line.drillId === drillId && line.athleteId === club.athletes[athlete])!
/** Logs a start and gives its id back. */
async function run(timeS: number, repNo = 1, athlete = 0, who = club.coach): Promise<string> {
	const line = lineOf('three-point-start', athlete)
	const id = randomUUID()
	const [answer] = await acceptEvents(
		who,
		[
			markOf(line, {
				id,
				deviceTime: '2026-03-12T17:42:00.000Z',
				repNo,
				kind: 'sprint',
				value: { splits: [{ distanceM: 20, timeS }], method: 'gate', windMps: 1.1 },
			}),
		],
		NOW,
	)
	expect(answer).toMatchObject({ outcome: 'accepted' })
	return id
}
const said = async () =>
	(await page()).drills[0]!.people.flatMap(({ name, reps }) => reps.map((rep) => `${name.split(' ')[0]} ${rep.said}`))
const standing = async () => foldEvents(await eventsOfSessions(club.scope, [sessionId])).current

describe('a session as it was done', () => {
	it('shows what was logged, when in the club’s time, by what and by whom', async () => {
		await run(3.12)
		const { drills, mayChange, marks } = await page()
		const [rep] = drills[0]!.people[0]!.reps
		// Madeira keeps the time of Greenwich in March.
		expect(rep).toMatchObject({ said: '3.12 s', how: `17:42 3.12 s, gate, by ${club.coach.name}` })
		expect(mayChange).toBe(true)
		expect(marks[rep!.id]).toMatchObject({ asks: ['20 m, s'], typed: ['3.12'] })
		expect(marks[rep!.id]!.others.map(({ athleteId }) => athleteId)).toEqual(club.athletes.slice(1))
	})
	it('is another club’s to nobody here', async () => {
		const other = await makeClub('Other')
		const id = await run(3.12)
		expect(await readDone(other.coach, sessionId, NOW)).toBeNull()
		for (const done of [
			await takeBack(other.coach, sessionId, id, NOW),
			await correctMark(other.coach, sessionId, id, ['3.2'], NOW),
			await giveTo(other.coach, sessionId, id, club.athletes[1]!, NOW),
			await addFromPaper(other.coach, sessionId, [{ lineId: lines[0]!.id, setNo: 1, repNo: 1, typed: '3' }], '', NOW),
		])
			expect(done).toBeNull()
		expect(await said()).toEqual([`${(await page()).drills[0]!.people[0]!.name.split(' ')[0]} 3.12 s`])
	})
	it('gives what was said of a body to coach and clinician alone', async () => {
		const [athleteId] = club.athletes
		await acceptEvents(
			club.coach,
			[
				saidOf(sessionId, athleteId!, {
					kind: 'pain',
					value: { region: 'knee', side: 'left', score: 4, moment: 'during', redFlag: false },
				}),
			],
			NOW,
		)
		expect(JSON.stringify((await page()).people)).toContain('left knee 4 of 10')
		const assistant = { ...club.coach, role: 'assistant' as const }
		expect(JSON.stringify(await page(assistant))).not.toContain('of 10')
	})
	it('may be changed by an assistant on its day alone, until three hours past its midnight', async () => {
		const assistant = { ...club.coach, role: 'assistant' as const }
		expect((await page(assistant)).mayChange).toBe(true)
		const at = async (instant: string) => (await readDone(assistant, sessionId, new Date(instant)))!
		expect((await at('2026-03-13T02:59:59Z')).mayChange).toBe(true)
		const next = await at('2026-03-13T03:00:00Z')
		expect([next.mayChange, next.marks, next.paper]).toEqual([false, {}, {}])
		const clinician = { ...club.coach, role: 'clinician' as const }
		expect((await page(clinician)).mayChange).toBe(false)
		const id = await run(3.12)
		expect(await takeBack(clinician, sessionId, id, NOW)).toEqual({ problem: 'Not taken: your role does not log.' })
	})
})

describe('putting a mark right', () => {
	it('reads digits as on the phone, keeps wind and method, and says what it was', async () => {
		const id = await run(3.12)
		expect(await correctMark(club.coach, sessionId, id, ['321'], NOW)).toEqual({ changed: 1 })
		const [mark] = await standing()
		expect(mark).toMatchObject({
			replacesId: id,
			value: { splits: [{ distanceM: 20, timeS: 3.21 }], method: 'gate', windMps: 1.1 },
		})
		expect((await page()).drills[0]!.people[0]!.reps[0]!.how).toContain(`3.12 s → 17:42 3.21 s, by ${club.coach.name}`)
	})
	it('keeps the mark as it is where nothing can be read', async () => {
		const id = await run(3.12)
		for (const typed of [[], [''], ['fast'], ['-3']])
			expect(await correctMark(club.coach, sessionId, id, typed, NOW)).toEqual({
				problem: 'A number is expected, such as 3.02 or 302.',
			})
		expect((await standing()).map((event) => event.id)).toEqual([id])
	})
	it('gives it to somebody else with a line there, and to nobody without one', async () => {
		const id = await run(3.12)
		expect(await giveTo(club.coach, sessionId, id, randomUUID(), NOW)).toBeNull()
		expect(await giveTo(club.coach, sessionId, id, club.athletes[1]!, NOW)).toEqual({ changed: 1 })
		expect(await standing()).toMatchObject([
			{
				athleteId: club.athletes[1],
				lineId: lineOf('three-point-start', 1).id,
				deviceTime: '2026-03-12T17:42:00.000Z',
			},
		])
	})
	it('takes it back and brings it back as it was, with who did it', async () => {
		const id = await run(3.12)
		expect(await takeBack(club.coach, sessionId, id, NOW)).toEqual({ changed: 1 })
		expect(await said()).toEqual([])
		const [gone] = (await page()).gone
		expect(gone!.words).toContain('3.12 s')
		expect(gone!.words).toContain(`by ${club.coach.name}`)
		// Taken back it is not taken back again, nor corrected, and what stands cannot be brought back.
		expect(await takeBack(club.coach, sessionId, gone!.id, NOW)).toBeNull()
		expect(await correctMark(club.coach, sessionId, gone!.id, ['3.2'], NOW)).toBeNull()
		expect(await bringBack(club.coach, sessionId, id, NOW)).toBeNull()
		expect(await bringBack(club.coach, sessionId, gone!.id, NOW)).toEqual({ changed: 1 })
		const [mark] = await standing()
		expect(mark).toMatchObject({ deviceTime: '2026-03-12T17:42:00.000Z', value: { splits: [{ timeS: 3.12 }] } })
		expect(mark).not.toHaveProperty('void', true)
		expect((await page()).gone).toEqual([])
	})
})

describe('a write-up', () => {
	const [text, drill] = ['Left foot lands late.', '']
	it('is kept of the session, of an athlete, and of what they did on a drill, with who wrote it', async () => {
		const line = lineOf('three-point-start')
		const [athleteId] = club.athletes
		for (const about of [
			{ athleteId: '', entryId: drill, text: ' Cold and wet. ' },
			{ athleteId: athleteId!, entryId: drill, text: 'Slept badly.' },
			{ athleteId: athleteId!, entryId: line.entryId, text },
		])
			expect(await addNote(club.coach, sessionId, about, NOW)).toEqual({ changed: 1 })
		const { day, people, drills } = await page()
		expect(day).toEqual([`“Cold and wet.”, ${club.coach.name}.`])
		expect(people).toEqual([{ name: 'Athlete 1', words: ['“Slept badly.”'] }])
		expect(drills[0]!.people[0]!.words).toEqual([`“${text}”`])
		// It is there when they step up the next time.
		const next = await planSession(club, '2026-03-16', [
			draftEntry({ part: 'Starts', drillId: 'three-point-start', sets: 1, reps: 3, rest: 120 }),
		])
		const pack = (await readPack(club.scope, next, 'coach'))!
		expect(pack.sheet.lines.find((one) => one.athleteId === athleteId)?.lastTime).toEqual({ day: TODAY, words: [text] })
	})
	it('says what is missing, and writes nothing', async () => {
		const entryId = lineOf('three-point-start').entryId
		for (const [about, problem] of [
			[{ athleteId: '', entryId: '', text: '  ' }, 'Write what is to be remembered.'],
			[{ athleteId: '', entryId: '', text: 'x'.repeat(1001) }, 'A note has at most 1000 characters.'],
			[{ athleteId: '', entryId, text }, 'Pick the athlete whose drill it is about.'],
			[{ athleteId: randomUUID(), entryId, text }, 'They have no line on that drill.'],
			[{ athleteId: randomUUID(), entryId: '', text }, 'Not taken: no such athlete.'],
		] as const)
			expect(await addNote(club.coach, sessionId, about, NOW)).toEqual({ problem })
		expect(await standing()).toEqual([])
		const other = await makeClub('Other')
		expect(await addNote(other.coach, sessionId, { athleteId: '', entryId: '', text }, NOW)).toBeNull()
	})
})

describe('marks from paper', () => {
	const cell = (
		drillId: string,
		setNo: number,
		repNo: number,
		typed: string,
		side: 'left' | 'right' | null = null,
	) => ({
		lineId: lineOf(drillId).id,
		setNo,
		repNo,
		side,
		typed,
	})
	it('go where nothing is logged yet: a number, two for a contact, the reps of a set by eye', async () => {
		await run(3.12, 2)
		const { drills } = await page()
		const open = async (drill: number) => {
			const { paper } = await page()
			const line = paper[drills[drill]!.entryId]!.find(({ athleteId }) => athleteId === club.athletes[0])!
			return [line.logs, line.asks, line.open.map(({ setNo, repNo, side }) => `${setNo}.${repNo}${side ?? ''}`)]
		}
		// On one leg each leg has its own reps.
		const each = (side: string) => ['1.1', '1.2', '2.1', '2.2'].map((rep) => rep + side)
		expect(await open(0)).toEqual(['sprint', ['20 m, s'], ['1.1', '1.3']])
		expect(await open(1)).toEqual(['contact', ['contact, ms', 'flight, ms'], [...each('left'), ...each('right')]])
		expect(await open(2)).toEqual(['done', ['reps'], ['1.1', '2.1']])
		expect(
			await addFromPaper(
				club.coach,
				sessionId,
				[
					cell('three-point-start', 1, 1, '312'),
					cell('three-point-start', 1, 3, ' '),
					cell('single-leg-pogo', 2, 1, '146 512', 'right'),
					cell('wall-drill', 2, 1, '8'),
				],
				'stopwatch',
				NOW,
			),
		).toEqual({ changed: 3 })
		const marks = (await standing()).filter(({ type }) => type === 'mark')
		expect(marks.flatMap((mark) => (mark.type === 'mark' && mark.side ? [[mark.kind, mark.side]] : []))).toEqual([
			['contact', 'right'],
		])
		expect((await open(1))[2]).toEqual([...each('left'), '1.1right', '1.2right', '2.2right'])
		expect(marks.map(({ kind, value }) => [kind, value])).toEqual(
			expect.arrayContaining([
				['sprint', { splits: [{ distanceM: 20, timeS: 3.12 }], method: 'stopwatch' }],
				// A stopwatch times no contact: by mat, as paper mostly is.
				['contact', { contactS: 0.146, flightS: 0.512, method: 'mat' }],
				['done', { reps: 8 }],
			]),
		)
		expect(
			(await page()).paper[drills[0]!.entryId]!.find(({ athleteId }) => athleteId === club.athletes[0])!.open,
		).toEqual([{ setNo: 1, repNo: 3, side: null }])
	})
	it('are kept all or none: each cell that cannot be read is named', async () => {
		const [good, bad, short, reps, sideless] = [
			cell('three-point-start', 1, 1, '312'),
			cell('three-point-start', 1, 2, '3,1x'),
			cell('single-leg-pogo', 1, 1, '146', 'left'),
			cell('wall-drill', 1, 1, '0'),
			cell('single-leg-pogo', 1, 1, '146 512'),
		]
		const key = ({ lineId, setNo, repNo, side }: typeof good) => `${lineId}/${setNo}/${repNo}${side ? `/${side}` : ''}`
		expect(await addFromPaper(club.coach, sessionId, [good, bad, short, reps, sideless], 'gate', NOW)).toEqual({
			cells: {
				[key(bad)]: 'a number, as 302',
				[key(short)]: 'two numbers, as 146 512',
				[key(reps)]: 'whole reps',
				[key(sideless)]: 'left or right',
			},
		})
		expect(await standing()).toEqual([])
		expect(await addFromPaper(club.coach, sessionId, [{ ...good, typed: '' }], 'gate', NOW)).toEqual({
			problem: 'Nothing was typed.',
		})
		const foreign = { ...good, lineId: randomUUID() }
		expect(await addFromPaper(club.coach, sessionId, [foreign], 'gate', NOW)).toEqual({
			cells: { [key(foreign)]: 'no such line' },
		})
	})
	it('are not asked for before the day', async () => {
		expect((await readDone(club.coach, sessionId, new Date('2026-03-11T18:00:00Z')))!.paper).toEqual({})
	})
})

describe('a film of a rep', () => {
	const filmed = (markId: string, more: object = {}) => ({
		id: randomUUID(),
		athleteId: club.athletes[0]!,
		takenOn: TODAY,
		calculation: 'rebound',
		method: 'film',
		input: { contact_time_s: 0.146, flight_time_s: 0.45, fps: 240 },
		markId,
		...more,
	})
	const words = async () =>
		(await page()).drills.flatMap(({ people }) => people.flatMap(({ reps }) => reps.flatMap((rep) => rep.words)))
	it('stands beside the rep, whatever its number is corrected to, until it is taken back', async () => {
		const id = await run(3.12)
		const film = filmed(id)
		expect(await saveMeasurement(club.coach, film, NOW)).toMatchObject({ saved: 'new' })
		expect(await words()).toEqual(['film: RSI 1.70 m/s, 25 cm'])
		await correctMark(club.coach, sessionId, id, ['3.21'], NOW)
		expect(await words()).toEqual(['film: RSI 1.70 m/s, 25 cm'])
		await takeBackMeasurement(club.coach, film.id, randomUUID(), NOW)
		expect(await words()).toEqual([])
	})
	it('is of a rep of the same athlete that stands, or of none', async () => {
		const [own, other] = [await run(3.12), await run(3.3, 1, 1)]
		expect(await saveMeasurement(club.coach, filmed(other), NOW)).toMatchObject({ field: 'markId' })
		expect(await saveMeasurement(club.coach, filmed(randomUUID()), NOW)).toMatchObject({ field: 'markId' })
		const stranger = await makeClub('Other')
		expect(await saveMeasurement(stranger.coach, filmed(own, { athleteId: stranger.athletes[0]! }), NOW)).toMatchObject(
			{ field: 'markId' },
		)
		await takeBack(club.coach, sessionId, own, NOW)
		expect(await saveMeasurement(club.coach, filmed(own), NOW)).toMatchObject({ field: 'markId' })
	})
	it('is offered the reps of its athlete on its day', async () => {
		const id = await run(3.12)
		await run(3.3, 1, 1)
		expect(await repsOn(club.scope, club.athletes[0]!, TODAY)).toEqual([
			{ id, words: 'Three-point start, set 1 rep 1: 3.12 s' },
		])
		expect(await repsOn(club.scope, club.athletes[0]!, '2026-03-11')).toEqual([])
		expect(await repsOn((await makeClub('Other')).scope, club.athletes[0]!, TODAY)).toEqual([])
	})
})
