import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { typedReport } from '../../tests/support/report-typed'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { saidOf } from '../../tests/support/mark-of'
import { readLines } from '../../db/queries/sessions'
import { readPack } from '../field/read-pack'
import { acceptEvents } from '../log/accept-events'
import { readAthletePage } from '../squads/read-athlete'
import { closeCare, mayOpen, openCare } from './care-records'
import { mayRecord, recordClearance } from './clear'
import { changeContact, mayWriteContact, saveAddress } from './emergency'
import { mayReport, report } from './report'
import { readReports } from './read-reports'
import { withdrawReport } from './withdraw'
import { readBodies } from './read-bodies'

// What is said away from the field. The day is the session's; without one, the day it is said on. What closed
// somebody and is withdrawn still wants its clearance; a slip is two minutes; what was another athlete's is theirs.

beforeAll(freshDatabase)
let club: TestClub
let [one, two]: [string, string] = ['', '']
beforeEach(async () => {
	club = await makeClub('Club', 3)
	;[one, two] = club.athletes as [string, string]
})
const TODAY = '2026-03-12'
const later = (minutes: number) => new Date(NOW.getTime() + 60_000 * minutes)

const sessionOn = (day: string, place = '') =>
	planSession(
		club,
		day,
		[
			draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 }),
			draftEntry({ part: 'Throws', drillId: 'kneeling-chest-push', sets: 1, reps: 5, rest: 60 }),
		],
		{ place },
	)
const knee = (score: string, more: Parameters<typeof typedReport>[1] = {}) =>
	typedReport('pain', { region: 'knee', side: 'left', score, ...more })
const closuresOf = async (athlete: string, day = TODAY) =>
	(await readAthletePage(club.scope, athlete, day))!.closures.map(({ region, grade, since }) => ({
		region,
		grade,
		since,
	}))
const listed = async (athlete = one) => readReports(club.scope, athlete, TODAY)

describe('a report away from the field', () => {
	it.each([
		['head', {}, [{ region: 'everything', grade: 'everything', since: TODAY }]],
		['chest', {}, [{ region: 'everything', grade: 'everything', since: TODAY }]],
		['pain', { region: 'knee', side: 'left', score: '5' }, [{ region: 'knee', grade: 'closed', since: TODAY }]],
		['pain', { region: 'knee', side: 'left', score: '3' }, [{ region: 'knee', grade: 'spare', since: TODAY }]],
		['pain', { region: 'knee', score: '1', redFlag: true }, [{ region: 'knee', grade: 'closed', since: TODAY }]],
		// Both sides, dull, after new work: noted, shown, never a closure.
		['soreness', { region: 'front-thigh' }, [{ region: 'front-thigh', grade: 'noted', since: TODAY }]],
	] as const)('%s %j', async (kind, more, expected) => {
		expect(await report(club.coach, one, typedReport(kind, more), NOW)).toEqual({ reported: true })
		expect(await closuresOf(one)).toEqual(expected)
		expect(await closuresOf(two)).toEqual([])
		expect(await listed()).toMatchObject([{ from: 'desk', day: TODAY, by: club.coach.name, withdrawn: null }])
	})
	it('somebody new, who never was in a session, is closed like everybody', async () => {
		await report(club.coach, one, knee('8'), NOW)
		const lines = await readLines(club.scope, [await sessionOn('2026-03-14')])
		expect(lines.filter((line) => line.athleteId === one && line.drillId === 'pogo' && line.blocked === null)).toEqual(
			[],
		)
	})
	it('pain said at the desk stands among the pains of the athlete, until it is taken back', async () => {
		await report(club.coach, one, knee('3'), NOW)
		const pains = async () => (await readAthletePage(club.scope, one, TODAY))!.pains
		expect(await pains()).toMatchObject([{ region: 'knee', side: 'left', score: 3, redFlag: false }])
		const [said] = await listed()
		await withdrawReport(club.coach, one, { id: said!.id, from: 'desk', reason: 'a mistake', athleteId: '' }, later(60))
		expect(await pains()).toEqual([])
	})
	it('soreness is shown for three days', async () => {
		await report(club.coach, one, typedReport('soreness', { region: 'calf' }), NOW)
		expect(await closuresOf(one, '2026-03-15')).toHaveLength(1)
		expect(await closuresOf(one, '2026-03-16')).toEqual([])
	})
	it('unwell opens what stays until somebody says "well"', async () => {
		expect(await report(club.coach, one, typedReport('unwell', { note: 'fever' }), NOW)).toEqual({ reported: true })
		expect(await readBodies(club.scope, TODAY, 'coach')).toMatchObject([{ id: one, unwellSince: TODAY }])
	})
	it.each([
		// A session of today; yesterday's, said the morning after; anything else is of the day it is said on.
		['2026-03-12', 'during', 'log', '2026-03-12'],
		['2026-03-12', 'next-day', 'log', '2026-03-12'],
		['2026-03-11', 'next-day', 'log', '2026-03-11'],
		['2026-03-11', 'during', 'desk', TODAY],
		['2026-03-10', 'next-day', 'desk', TODAY],
		['2026-03-13', 'during', 'desk', TODAY],
	] as const)('session on %s, pain %s: %s, of %s', async (session, moment, from, day) => {
		await sessionOn(session)
		await report(club.coach, one, knee('4', { moment }), NOW)
		expect(await listed()).toMatchObject([{ from, day, words: 'left knee 4 of 10' }])
		expect(await closuresOf(one)).toEqual([{ region: 'knee', grade: 'spare', since: day }])
	})
	it.each([
		[knee(''), 'a whole number from 0 to 10'],
		[knee('11'), 'a whole number from 0 to 10'],
		[knee('2.5'), 'a whole number from 0 to 10'],
		[knee('-1'), 'a whole number from 0 to 10'],
		[knee('3', { region: 'tail' }), 'Pick where it hurts.'],
		[typedReport('soreness'), 'Pick where it hurts.'],
		[typedReport('worry'), 'Pick what it is.'],
	])('%j is refused', async (typed, words) => {
		expect(await report(club.coach, one, typed, NOW)).toMatchObject({
			problems: { pain: expect.stringContaining(words) },
		})
		expect(await listed()).toEqual([])
	})
	it('an athlete and a guardian report of their own alone, an assistant of anybody, nobody of a stranger', async () => {
		const self = { ...club.coach, role: 'athlete' as const, athleteId: one }
		expect(mayReport(self, one)).toBe(true)
		expect(mayReport({ ...self, role: 'guardian' }, one)).toBe(true)
		expect(mayReport({ ...club.coach, role: 'assistant' }, two)).toBe(true)
		expect(await report(self, two, typedReport('head'), NOW)).toEqual({ problems: { pain: 'Only about yourself.' } })
		expect(await report(self, one, typedReport('head'), NOW)).toEqual({ reported: true })
		expect(await report(club.coach, randomUUID(), typedReport('head'), NOW)).toBeNull()
	})
})

describe('putting a report right', () => {
	const back = async (of: string, who = club.coach, at = later(60), other = '') => {
		const [said] = await listed(of)
		return withdrawReport(who, of, { id: said!.id, from: said!.from, reason: 'a mistake', athleteId: other }, at)
	}
	it.each([
		// Taken back by its author within two minutes: a slip; later what closed stays, what only spared does not.
		[knee('6'), 2, []],
		[knee('6'), 3, ['closed']],
		[typedReport('head'), 2, []],
		[typedReport('head'), 3, ['everything']],
		[knee('3'), 60, []],
		[typedReport('soreness', { region: 'knee' }), 60, []],
	])('%j after %d min leaves %j', async (typed, minutes, grades) => {
		await report(club.coach, one, typed, NOW)
		expect(await back(one, club.coach, later(minutes))).toEqual({ withdrawn: true })
		expect((await closuresOf(one)).map(({ grade }) => grade)).toEqual(grades)
		expect(await listed()).toMatchObject([{ withdrawn: { by: club.coach.name, reason: 'a mistake' } }])
		expect(await back(one)).toMatchObject({ problems: expect.anything() })
	})
	it('the second of two that closed together still wants its clearance', async () => {
		await report(club.coach, one, knee('3'), new Date(NOW.getTime() - 3 * 86_400_000))
		await report(club.coach, one, knee('4'), NOW)
		expect((await closuresOf(one)).map(({ grade }) => grade)).toEqual(['closed'])
		await back(one)
		expect((await closuresOf(one)).map(({ grade }) => grade)).toEqual(['closed'])
	})
	it('another athlete’s is theirs alone', async () => {
		await report(club.coach, one, knee('6'), NOW)
		expect(await back(one, club.coach, later(60), two)).toEqual({ withdrawn: true })
		expect(await closuresOf(one)).toEqual([])
		expect(await closuresOf(two)).toEqual([{ region: 'knee', grade: 'closed', since: TODAY }])
	})
	it('in the log as at the desk: with a reason that stays to be read', async () => {
		await sessionOn(TODAY)
		await report(club.coach, one, knee('6'), NOW)
		expect(await back(one, club.coach, later(3))).toEqual({ withdrawn: true })
		expect((await closuresOf(one)).map(({ grade }) => grade)).toEqual(['closed'])
		expect(await listed()).toMatchObject([
			{ from: 'log', words: 'left knee 6 of 10', withdrawn: { by: club.coach.name, reason: 'a mistake' } },
		])
	})
	it('in the log: within two minutes a slip, and another athlete’s is theirs', async () => {
		await sessionOn(TODAY)
		await report(club.coach, one, knee('6'), NOW)
		await back(one, club.coach, later(2))
		expect(await closuresOf(one)).toEqual([])
		await report(club.coach, one, knee('7'), later(5))
		const said = (await listed()).find((row) => row.withdrawn === null)!
		const typed = { id: said.id, from: said.from, reason: 'two girls in red', athleteId: two }
		expect(await withdrawReport(club.coach, one, typed, later(30))).toEqual({ withdrawn: true })
		expect(await closuresOf(one)).toEqual([])
		expect((await closuresOf(two)).map(({ grade }) => grade)).toEqual(['closed'])
	})
	it('is for its author, a clinician and the coach, with a reason, and of this athlete', async () => {
		await report(club.coach, one, knee('3'), NOW)
		const [said] = await listed()
		const typed = { id: said!.id, from: 'desk', reason: 'not so', athleteId: '' }
		const assistant = { ...club.coach, role: 'assistant' as const, personId: randomUUID() }
		expect(await withdrawReport(assistant, one, typed, NOW)).toMatchObject({ problems: expect.anything() })
		expect(await withdrawReport(club.coach, one, { ...typed, reason: ' ' }, NOW)).toMatchObject({
			problems: { [said!.id]: 'Why? A reason is expected.' },
		})
		expect(await withdrawReport(club.coach, two, typed, NOW)).toBeNull()
		expect((await closuresOf(one)).map(({ grade }) => grade)).toEqual(['spare'])
	})
})

describe('closed by hand', () => {
	const NOTHING = { region: '', pattern: '', drillId: '', note: 'as agreed', setBy: 'Somebody', setByRole: 'coach' }
	const shut = (more: object) => openCare(club.coach, one, { ...NOTHING, kind: 'restriction', ...more }, NOW)
	const written = async (session: string) =>
		Object.fromEntries(
			(await readLines(club.scope, [session]))
				.filter((line) => line.athleteId === one)
				.map((line) => [line.drillId ?? line.blocked, line.blocked]),
		)
	it('everything: no line at all, on every device, until it is lifted', async () => {
		expect(await shut({ region: 'everything' })).toEqual({ opened: true })
		const session = await sessionOn('2026-03-14')
		expect(Object.values(await written(session)).every((blocked) => blocked !== null)).toBe(true)
		const pack = await readPack(club.scope, session, 'assistant')
		expect(pack!.sheet.athletes.find(({ id }) => id === one)!.limits!.closures).toMatchObject([
			{ region: 'everything' },
		])
	})
	it('one drill: that one alone', async () => {
		expect(await shut({ drillId: 'pogo' })).toEqual({ opened: true })
		const session = await sessionOn('2026-03-14')
		expect(Object.keys(await written(session))).not.toContain('pogo')
		expect((await written(session))['kneeling-chest-push']).toBeNull()
		const pack = await readPack(club.scope, session, 'assistant')
		expect(pack!.sheet.athletes.find(({ id }) => id === one)!.limits!.shut).toEqual([
			{ words: 'pogo', drillId: 'pogo' },
		])
	})
	it.each([
		[{}, 'region'],
		[{ region: 'knee', note: '' }, 'note'],
		[{ region: 'knee', setBy: '' }, 'setBy'],
		[{ drillId: 'no-such-drill' }, 'drillId'],
	])('%j is refused for its %s', async (more, field) => {
		expect(await shut(more)).toMatchObject({ problems: { [field]: expect.any(String) } })
	})
	// A lift after more than 7 days opens the way back as a clearance does; a coach's lift is nobody's clearance.
	it.each([
		['knee', 7, 0],
		['knee', 8, 2],
		['everything', 7, 0],
		['everything', 8, 1],
	])('%s lifted after %d days opens %d paths', async (region, days, paths) => {
		await shut({ region })
		const page = async (day: string) => (await readAthletePage(club.scope, one, day))!
		const [row] = (await page(TODAY)).care
		const at = new Date(NOW.getTime() + days * 86_400_000)
		expect(await closeCare(club.coach, one, row!.id, { name: 'Somebody', role: 'coach' }, at)).toEqual({ ended: true })
		const then = await page(at.toISOString().slice(0, 10))
		expect(then.closures).toEqual([])
		expect(then.clearances).toEqual([])
		expect(then.waysBack).toHaveLength(paths)
	})
	it('what reports closed is not opened by lifting what a hand closed there', async () => {
		await report(club.coach, one, knee('6'), NOW)
		await shut({ region: 'knee' })
		const [row] = (await readAthletePage(club.scope, one, TODAY))!.care
		await closeCare(club.coach, one, row!.id, { name: 'Somebody', role: 'coach' }, later(86_400 / 60))
		expect((await closuresOf(one, '2026-03-14')).map(({ grade }) => grade)).toEqual(['closed'])
	})
	it('is opened by nobody who may not close it, whatever they call it or themselves', async () => {
		await shut({ region: 'knee' })
		const [row] = (await readAthletePage(club.scope, one, TODAY))!.care
		for (const role of ['athlete', 'guardian', 'assistant'] as const) {
			const who = club.as(role, one)
			const ended = await closeCare(who, one, row!.id, { name: 'H. Brekke', role: 'physiotherapist' }, later(10))
			expect(ended, role).toMatchObject({ problems: { [`by-${row!.id}`]: 'Coach or clinician end this.' } })
		}
		expect((await closuresOf(one)).map(({ grade }) => grade)).toEqual(['closed'])
	})
	it('a worry is opened and settled by the athlete, too, and by no other', async () => {
		const own = club.as('athlete', one)
		const worry = { ...NOTHING, kind: 'worry', region: 'knee', drillId: 'broad-jump' }
		expect([mayOpen(own, 'worry', one), mayOpen(own, 'worry', two)]).toEqual([true, false])
		expect(await openCare(own, one, worry, NOW)).toEqual({ opened: true })
		const [row] = (await readAthletePage(club.scope, one, TODAY))!.care
		const by = { name: '', role: '' }
		expect(await closeCare(club.as('athlete', two), one, row!.id, by, NOW)).toMatchObject({
			problems: expect.anything(),
		})
		expect(await closeCare(own, one, row!.id, by, NOW)).toEqual({ ended: true })
	})
	it('a known 1 or 2 is a health professional’s to accept, of a region', async () => {
		const known = (more: object) =>
			openCare(club.coach, one, { ...NOTHING, kind: 'known', region: 'knee', ...more }, NOW)
		expect(await known({ setByRole: 'coach' })).toMatchObject({ problems: { setByRole: expect.any(String) } })
		expect(await known({ setByRole: 'physiotherapist', region: 'everything' })).toMatchObject({
			problems: { region: expect.any(String) },
		})
		expect(await known({ setByRole: 'physiotherapist', setBy: '' })).toMatchObject({
			problems: { setBy: expect.any(String) },
		})
		expect(await known({ setByRole: 'physiotherapist' })).toEqual({ opened: true })
	})
})

it('a clearance is recorded by coach, clinician and a guardian of theirs, and is never one of the three', async () => {
	const records = (role: Parameters<typeof club.as>[0], athlete?: string) => mayRecord(club.as(role, athlete), one)
	expect([records('coach'), records('clinician'), records('guardian', one)]).toEqual([true, true, true])
	expect([records('assistant'), records('athlete', one), records('guardian', two)]).toEqual([false, false, false])
	await report(club.coach, one, knee('6'), NOW)
	const typed = { region: 'knee', side: '', clearedBy: 'Ada', injury: '' }
	const guardian = club.as('guardian', one)
	for (const role of ['guardian', 'coach', 'athlete'])
		expect(await recordClearance(guardian, one, { ...typed, role }, later(1440)), role).toHaveProperty('problems.role')
	expect(await recordClearance(guardian, one, { ...typed, role: 'doctor' }, later(1440))).toEqual({ cleared: true })
})

describe('in an emergency', () => {
	it('whom to call and where travel with every role’s pack', async () => {
		const session = await sessionOn('2026-03-14', 'Harbour ground')
		expect(await changeContact(club.coach, one, ' Ada, mother, 0555 010 020 ', 0, NOW)).toEqual({ saved: true })
		expect(await saveAddress(club.coach, 'Harbour ground', 'Quay road 4, east gate', 0, NOW)).toEqual({ saved: true })
		for (const role of ['coach', 'assistant', 'clinician'] as const) {
			const { sheet } = (await readPack(club.scope, session, role))!
			expect(sheet.session.address, role).toBe('Quay road 4, east gate')
			expect(sheet.athletes.map(({ id, contact }) => [id === one, contact]).sort(), role).toEqual([
				[false, null],
				[false, null],
				[true, 'Ada, mother, 0555 010 020'],
			])
		}
	})
	it('is forgotten when it is emptied, asked for a number, and never written over unseen', async () => {
		expect(await changeContact(club.coach, one, 'Ada, mother', 0, NOW)).toMatchObject({ problem: expect.any(String) })
		await changeContact(club.coach, one, 'Ada 0555 010 020', 0, NOW)
		expect(await changeContact(club.coach, one, 'Ben 0555 010 021', 0, NOW)).toMatchObject({
			meanwhile: { differences: [{ theirs: 'Ada 0555 010 020', yours: 'Ben 0555 010 021' }] },
		})
		expect(await changeContact(club.coach, one, '', 1, NOW)).toEqual({ saved: true })
		expect((await readAthletePage(club.scope, one, TODAY))!.emergency.contact).toBeNull()
		const session = await sessionOn('2026-03-14', 'Harbour ground')
		await saveAddress(club.coach, 'Harbour ground', 'Quay road 4', 0, NOW)
		expect(await saveAddress(club.coach, 'Harbour ground', 'Mill lane 2', 0, NOW)).toMatchObject({
			meanwhile: { differences: [{ theirs: 'Quay road 4', yours: 'Mill lane 2' }] },
		})
		await saveAddress(club.coach, 'Harbour ground', ' ', 1, NOW)
		expect((await readPack(club.scope, session, 'coach'))!.sheet.session.address).toBeNull()
	})
	it('is the coach’s, the athlete’s and the guardian’s to write', () => {
		const of = (role: 'coach' | 'assistant' | 'clinician' | 'athlete' | 'guardian', athleteId: string | null = null) =>
			mayWriteContact({ ...club.coach, role, athleteId }, one)
		expect([of('coach'), of('assistant'), of('clinician')]).toEqual([true, false, false])
		expect([of('athlete', one), of('guardian', one), of('athlete', two)]).toEqual([true, true, false])
	})
})

it('an event of the log that is no report is not put right here', async () => {
	const session = await sessionOn(TODAY)
	const id = randomUUID()
	const note = { about: 'athlete', text: 'late' }
	await acceptEvents(
		club.coach,
		[saidOf(session, one, { id, deviceTime: NOW.toISOString(), kind: 'note', value: note })],
		NOW,
	)
	const typed = { id, from: 'log', reason: 'no report', athleteId: '' }
	expect(await withdrawReport(club.coach, one, typed, NOW)).toBeNull()
})
