import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { careOf } from '../../db/queries/care'
import { readLines } from '../../db/queries/sessions'
import { acceptEvents } from '../log/accept-events'
import { waitForChanges } from '../field/changes'
import { readPack } from '../field/read-pack'
import { createSession } from '../sheet/save-session'
import { closeReview, decideVerdicts } from '../review/decide'
import { readReview } from '../review/read-review'
import { closeCare, mayOpen, openCare } from './care-records'
import { readBodies } from './read-bodies'

// What is said on the field, on a real database: what it closes for whom, what taking it back does, and who hears of it.

beforeAll(freshDatabase)
let club: TestClub
let sessionId: string
let [one, two]: [string, string] = ['', '']
beforeEach(async () => {
	club = await makeClub('Club', 3)
	;[one, two] = club.athletes as [string, string]
	sessionId = await planSession(club, '2026-03-12', [
		draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 }),
	])
})
const phone = randomUUID()
let seq = 0
const say = (kind: string, value: object, more: object = {}) => ({
	id: randomUUID(),
	sessionId,
	athleteId: one,
	deviceId: phone,
	deviceSeq: seq++,
	deviceTime: '2026-03-12T17:40:00.000Z',
	type: 'observation',
	kind,
	value,
	...more,
})
const pain = (score: number, more: object = {}) =>
	say('pain', { region: 'knee', side: 'left', score, moment: 'during', redFlag: false }, more)
const send = async (...events: object[]) =>
	(await acceptEvents(club.coach, events, NOW)).map((answer) => answer.outcome)
const closed = async (day = '2026-03-12') =>
	(await readBodies(club.scope, day, 'coach')).map((body) =>
		[
			body.id === one ? 'one' : body.id === two ? 'two' : 'three',
			body.everythingSince ? 'everything' : body.closed.map(({ place }) => place).join(),
			body.unwellSince ? 'unwell' : '',
		]
			.join(' ')
			.trim(),
	)

describe('said on the field', () => {
	it.each([
		['head', ['one everything']],
		['chest', ['one everything']],
		['unwell', ['one  unwell']],
	])('%s', async (kind, expected) => {
		expect(await send(say(kind, {}))).toEqual(['accepted'])
		expect(await closed()).toEqual(expected)
	})
	it('an illness is one record however often it is sent, and ends when it is taken back', async () => {
		const ill = say('unwell', { note: 'feverish' })
		await send(ill)
		await send(ill)
		expect(await careOf(club.scope, [one])).toHaveLength(1)
		await send({ ...ill, id: randomUUID(), deviceSeq: seq++, replacesId: ill.id, void: true })
		expect((await careOf(club.scope, [one]))[0]).toMatchObject({ kind: 'illness', endedOn: '2026-03-12' })
		// What was taken back was none; nobody stays unwell for ever by it.
		expect(await closed()).toEqual([])
		expect(await closed('2026-03-20')).toEqual([])
	})
})

it('well again is said by the guardian, the athlete or the coach, and not before the next day', async () => {
	const guardian = club.as('guardian', one)
	expect(mayOpen(guardian, 'illness', one)).toBe(true)
	expect(mayOpen(guardian, 'illness', two)).toBe(false)
	expect(mayOpen(guardian, 'restriction', one)).toBe(false)
	const nothing = { region: '', pattern: '', drillId: '', note: '', setBy: '', setByRole: '' }
	await openCare(guardian, one, { ...nothing, kind: 'illness' }, NOW)
	const [row] = await careOf(club.scope, [one])
	const well = (day: string) => closeCare(guardian, one, row!.id, { name: '', role: '' }, new Date(`${day}T09:00:00Z`))
	expect(await well('2026-03-12')).toHaveProperty('problems')
	expect(await closed('2026-03-13')).toEqual(['one  unwell'])
	expect(await well('2026-03-13')).toEqual({ ended: true })
	expect(await closed('2026-03-13')).toEqual([])
})

describe('taken back', () => {
	const back = (of: ReturnType<typeof say>, at: string, more: object = {}) => ({
		...of,
		id: randomUUID(),
		deviceSeq: seq++,
		deviceTime: at,
		replacesId: of.id,
		void: true,
		...more,
	})
	it('within two minutes on the same phone: nothing is closed; later it wants its clearance', async () => {
		const slip = pain(6)
		await send(slip, back(slip, '2026-03-12T17:41:59.000Z'))
		expect(await closed()).toEqual([])
		const late = pain(6)
		await send(late, back(late, '2026-03-12T17:42:01.000Z'))
		expect(await closed()).toEqual(['one left knee'])
	})
	it('somebody else’s: it closes theirs, and no more this one’s', async () => {
		const wrong = pain(6)
		await send(wrong)
		expect(await closed()).toEqual(['one left knee'])
		await send(back(wrong, '2026-03-12T18:40:00.000Z', { void: false, athleteId: two }))
		expect(await closed()).toEqual(['two left knee'])
	})
	it('in another’s name it is not taken', async () => {
		const mine = pain(6)
		await send(mine)
		expect(await send(back(mine, '2026-03-12T18:40:00.000Z', { athleteId: two }))).toEqual(['refused'])
		expect(await closed()).toEqual(['one left knee'])
	})
})

it('every phone hears what is over, and no assistant’s more than that', async () => {
	const packs = await readPack(club.scope, sessionId, 'assistant')
	expect(packs?.sheet.athletes.find((athlete) => athlete.id === one)?.limits).toEqual({
		closures: [],
		shut: [],
		easyOnly: false,
	})
	await send(pain(6), say('unwell', { note: 'feverish' }))
	const heard = async (role: 'assistant' | 'coach') =>
		waitForChanges(club.scope, role, sessionId, null, new Set(), null, new AbortController().signal)
	const [assistant, coach] = [await heard('assistant'), await heard('coach')]
	expect(assistant.limits[one]).toEqual({
		closures: [{ region: 'knee', side: 'left', grade: 'closed', since: '2026-03-12' }],
		shut: [],
		easyOnly: true,
	})
	expect(coach.limits).toEqual(assistant.limits)
	expect(assistant.events).toEqual([])
	expect(coach.events.map((event) => event.kind).sort()).toEqual(['pain', 'unwell'])
	// What it may not read it need not be told of again.
	expect(assistant.heard).toHaveLength(2)
})

describe('the review', () => {
	it('of a session without ladders shows its pains, asks, and can be closed', async () => {
		const [line] = (await readLines(club.scope, [sessionId])).filter((row) => row.athleteId === one)
		const mark = {
			...say('x', {}),
			type: 'mark',
			kind: 'done',
			value: { reps: 10 },
			entryId: line!.entryId,
			lineId: line!.id,
			setNo: 1,
			repNo: 1,
		}
		await send(pain(4), mark)
		const review = (await readReview(club.scope, sessionId))!
		expect(review.rows).toEqual([])
		expect(review.bodies).toMatchObject([
			{
				athleteId: one,
				spared: [{ place: 'left knee', since: '2026-03-12', ask: false }],
				said: [{ words: 'left knee 4 of 10' }],
				asks: [],
			},
		])
		expect(await closeReview(club.coach, sessionId, NOW)).toBe(true)
		expect((await readReview(club.scope, sessionId))!.sheet.session.reviewedAt).not.toBeNull()
		expect(await closeReview(club.coach, randomUUID(), NOW)).toBeNull()
	})
	it('what late evidence changes is decided anew, and the decision before stays', async () => {
		const made = await createSession(
			club.coach.clubId,
			'Atlantic/Madeira',
			{
				squadId: club.squadId,
				day: '2026-03-12',
				startTime: '19:30',
				title: 'Starts',
				place: '',
				surface: null,
				plannedMinutes: 60,
				role: 'hard',
				share: 1,
				athleteIds: [one],
				entries: [
					draftEntry({ part: 'Stiffness', ladderId: 'stiffness', drillId: 'pogo', sets: 1, reps: 1, rest: 60 }),
				],
			},
			NOW,
		)
		if (!('sessionId' in made)) throw new Error('no session')
		const { sessionId: ladderSession } = made
		const decide = async (instead?: number) => {
			const [row] = (await readReview(club.scope, ladderSession))!.rows
			return decideVerdicts(
				club.coach,
				ladderSession,
				[
					{
						athleteId: one,
						ladderId: row!.ladderId,
						inputHash: row!.inputHash,
						...(instead === undefined ? {} : { instead }),
					},
				],
				NOW,
			)
		}
		expect((await decide())?.decided).toBe(1)
		expect((await decide())?.refused[0]?.reason).toContain('decided this already')
		expect((await decide(0))?.refused[0]?.reason).toContain('Nothing has changed')
		const late7 = { region: 'calf', side: 'left', score: 7, moment: 'during', redFlag: false }
		await acceptEvents(club.coach, [{ ...say('pain', late7), sessionId: ladderSession }], NOW)
		const [late] = (await readReview(club.scope, ladderSession))!.rows
		expect(late?.wouldNowBe).toMatchObject({ verdict: 'stop' })
		expect((await decide(0))?.decided).toBe(1)
		const review = (await readReview(club.scope, ladderSession))!
		expect(review.rows[0]).toMatchObject({ decided: { decided: 'stop', turn: 1 }, wouldNowBe: null })
		expect(review.before).toMatchObject([{ athleteId: one, word: 'hold' }])
	})
})

it('what a health professional has closed a coach does not lift; what a coach has closed a coach does', async () => {
	const nothing = { pattern: '', drillId: '', note: 'as agreed' }
	const set = (setByRole: string, region: string) =>
		openCare(club.coach, one, { ...nothing, kind: 'restriction', region, setBy: 'H. Brekke', setByRole }, NOW)
	await set('physiotherapist', 'wrist')
	await set('coach', 'elbow')
	const rows = await careOf(club.scope, [one])
	const lift = (region: string, role: string) =>
		closeCare(club.coach, one, rows.find((row) => row.region === region)!.id, { name: 'M. Solano', role }, NOW)
	expect(await lift('wrist', 'coach')).toHaveProperty('problems')
	expect(await lift('elbow', 'coach')).toEqual({ ended: true })
	expect(await lift('wrist', 'physiotherapist')).toEqual({ ended: true })
})
