import { beforeAll, describe, expect, it } from 'vitest'
import { OPEN_KINDS, type OpenRecords } from '../../core/open-data/document'
import { readLines } from '../../db/queries/sessions'
import { updateSquad } from '../../db/queries/squads'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { exportMarks } from '../record/export-marks'
import { acceptEvents } from '../log/accept-events'
import { writeCsv, writeJson } from './export-data'
import { lookAtOpenFiles, takeOpenFiles } from './import-data'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const DAY = '2026-03-12'
const at = (day = DAY) => new Date(`${day}T18:30:00Z`)
const SPAN = { from: '2026-01-01', to: '2026-12-31' }
const NO_ID = '00000000-0000-4000-8000-00000000000d'

async function all(pieces: AsyncGenerator<string>): Promise<string> {
	let whole = ''
	for await (const piece of pieces) whole += piece
	return whole
}
const text = (club: TestClub, span = SPAN) => all(writeJson(club.scope, span))
const document = async (club: TestClub) => JSON.parse(await text(club)) as OpenRecords & { format: string }
const files = (value: unknown) => [{ name: 'club.json', text: JSON.stringify(value) }]
const counted = (looked: { counts: { kind: string; fresh: number; there: number; anew: number }[] }) =>
	Object.fromEntries(looked.counts.map(({ kind, fresh, there, anew }) => [kind, [fresh, there, anew]]))

/** A club with a session that was run, one mark of it corrected and one taken back, and one that is yet to come. */
async function clubWithWork(): Promise<TestClub & { run: string; ahead: string }> {
	const club = await makeClub('Out', 2)
	await updateSquad(club.scope, club.squadId, { jumpingSport: true })
	const entry = () =>
		draftEntry({
			part: '=Starts',
			drillId: 'three-point-start',
			sets: 1,
			reps: 6,
			rest: 180,
			parameters: { distanceM: 20 },
		})
	const run = await planSession(club, DAY, [
		entry(),
		draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 2, reps: 10, rest: 60 }),
	])
	const lines = await readLines(club.scope, [run])
	const [sprint] = lines.filter(({ drillId }) => drillId === 'three-point-start')
	let minute = 0
	const mark = (timeS: number, repNo: number, more: object = {}) =>
		markOf(sprint!, {
			deviceTime: `${DAY}T17:4${minute++}:00Z`,
			repNo,
			kind: 'sprint',
			value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
			...more,
		})
	const [first, second] = [mark(3.21, 1), mark(3.3, 2)]
	const answers = await acceptEvents(
		club.coach,
		[
			first,
			second,
			mark(3.12, 1, { replacesId: first.id }),
			mark(3.3, 2, { replacesId: second.id, void: true }),
			mark(3.2, 3),
		],
		at(),
	)
	expect(answers.map(({ outcome }) => outcome)).toEqual(Array.from({ length: 5 }, () => 'accepted'))
	const ahead = await planSession(club, '2026-03-16', [entry()])
	return { ...club, run, ahead }
}

describe('a club as a document', () => {
	it('brought into another club is the same document again; what is yet to be done that club writes itself', async () => {
		const club = await clubWithWork()
		const out = await document(club)
		// What was written by hand here: two people and what they did.
		expect(out.format).toBe('dromos-data')
		expect(out.squads.map(({ jumpingSport }) => jumpingSport)).toEqual([true])
		expect(out.athletes.map(({ name, born, legLengthM }) => [name, born, legLengthM])).toEqual([
			['Athlete 1', '2001-01-01', 0.9],
			['Athlete 2', '2001-01-01', 0.9],
		])
		expect(out.sessions.map(({ day, begunAt }) => [day, begunAt === null])).toEqual([
			[DAY, false],
			['2026-03-16', true],
		])
		expect(out.marks.map(({ repNo, value }) => [repNo, 'splits' in value && value.splits[0]!.timeS])).toEqual([
			[1, 3.12],
			[3, 3.2],
		])
		const other = await makeClub('In', 0)
		expect(counted(await lookAtOpenFiles(other.scope, files(out)))).toEqual({
			squads: [1, 0, 0],
			athletes: [2, 0, 0],
			sessions: [2, 0, 0],
			entries: [3, 0, 0],
			lines: [4, 0, 2],
			tests: [0, 0, 0],
			marks: [2, 0, 0],
		})
		expect((await document(other)).athletes).toEqual([])
		expect((await takeOpenFiles(other.coach, files(out), at())).problems).toEqual([])
		const back = await document(other)
		for (const kind of OPEN_KINDS) {
			const own = new Set(out[kind].map(({ id }) => id as string))
			const those = (all: { id: string; sessionId?: string }[]) =>
				all.filter(({ id, sessionId }) => own.has(id) && (kind !== 'lines' || sessionId === club.run))
			expect(those(back[kind]), kind).toEqual(those(out[kind]))
		}
		// Twice is once.
		expect(counted(await takeOpenFiles(other.coach, files(out), at()))).toMatchObject({
			athletes: [0, 2, 0],
			marks: [0, 2, 0],
			lines: [0, 4, 2],
		})
		expect(await document(other)).toEqual(back)
	})

	it('as tables is the same, whatever the order of the files', async () => {
		const club = await clubWithWork()
		const out = await document(club)
		const tables = []
		for (const kind of [...OPEN_KINDS].reverse())
			tables.push({
				name: `${kind}.csv`,
				text: `\ufeff${await all(writeCsv(club.scope, kind, SPAN))}`,
			})
		const other = await makeClub('In', 0)
		expect((await takeOpenFiles(other.coach, tables, at())).problems).toEqual([])
		const back = await document(other)
		expect(back.marks).toEqual(out.marks)
		expect(back.entries).toEqual(out.entries)
		expect(back.sessions).toEqual(out.sessions)
	})

	it('counts in the other club like what was logged there', async () => {
		const club = await clubWithWork()
		const other = await makeClub('In', 0)
		await takeOpenFiles(other.coach, files(await document(club)), at())
		const [athlete] = (await document(other)).marks.map(({ athleteId }) => athleteId as string)
		const own = await exportMarks(other.scope, athlete!, DAY, 'Atlantic/Madeira')
		expect(own!.text.match(/,3\.12,s,20,/g)).toHaveLength(1)
		expect(own!.text).not.toContain('3.21')
	})

	it('of some days has what lies in them', async () => {
		const club = await clubWithWork()
		const days = async (from: string, to: string) =>
			((JSON.parse(await text(club, { from, to })) as OpenRecords).sessions ?? []).map(({ day }) => day)
		expect(await days(DAY, DAY)).toEqual([DAY])
		expect(await days('2026-03-13', '2026-03-15')).toEqual([])
		expect(await days('2026-03-13', '2026-03-16')).toEqual(['2026-03-16'])
	})
})

describe('a document with a fault', () => {
	const bad = async (change: (out: OpenRecords) => void) => {
		const club = await clubWithWork()
		const out = await document(club)
		change(out)
		const other = await makeClub('In', 0)
		const before = await text(other)
		const looked = await takeOpenFiles(other.coach, files(out), at())
		expect(await text(other), 'nothing is written').toBe(before)
		return looked.problems
	}
	it.each<[string, (out: OpenRecords) => void, object]>([
		[
			'a name that is none',
			(out) => void (out.athletes[1]!.name = ' '),
			{ kind: 'athletes', record: 2, field: 'name' },
		],
		[
			'a leg of four metres',
			(out) => void (out.athletes[0]!.legLengthM = 4),
			{ kind: 'athletes', record: 1, field: 'legLengthM', words: '“4”: at most 1.3 is expected.' },
		],
		[
			'a field nobody knows',
			(out) => void ((out.sessions[0] as unknown as Record<string, unknown>).weather = 'sun'),
			{ kind: 'sessions', record: 1, words: '“weather” is not known.' },
		],
		[
			'a day that is none',
			(out) => void (out.athletes[0]!.born = '2009-02-31'),
			{ kind: 'athletes', record: 1, field: 'born', words: '“2009-02-31”: a day like 2009-05-31 is expected.' },
		],
		[
			'somebody who is nowhere',
			(out) => void out.sessions[1]!.athleteIds.push(NO_ID),
			{ kind: 'sessions', record: 2, field: 'athleteIds', words: 'names somebody who is in no file.' },
		],
		[
			'a drill the club has not',
			(out) => void (out.entries[0]!.drillId = 'somersault'),
			{ kind: 'entries', record: 1, field: 'drillId' },
		],
		[
			'a version of a drill that there never was',
			(out) => void (out.entries[0]!.drillVersion = 999),
			{ kind: 'entries', field: 'drillId', words: expect.stringContaining('version 999') },
		],
		[
			'a family that is not the drill’s',
			(out) => void (out.entries[0]!.family = 'tissue'),
			{ kind: 'entries', record: 1, field: 'family' },
		],
		[
			'the same thing twice',
			(out) => void out.athletes.push(out.athletes[0]!),
			{ kind: 'athletes', record: 3, field: 'id', words: 'stands in the files twice.' },
		],
		[
			'a mark on somebody else’s line',
			(out) => void (out.marks[0]!.athleteId = out.athletes.find(({ id }) => id !== out.marks[0]!.athleteId)!.id),
			{ kind: 'marks', record: 1, field: 'lineId' },
		],
		[
			'a mark of a session that nobody has begun',
			(out) => void (out.sessions[0]!.begunAt = null),
			{ kind: 'marks', record: 1, field: 'lineId' },
		],
		[
			'a mark that replaces another',
			(out) => void (out.marks[0]!.replacesId = NO_ID),
			{ kind: 'marks', record: 1, field: 'replacesId' },
		],
		[
			'no time zone',
			(out) => void (out.sessions[0]!.timeZone = 'Mars/Base'),
			{ kind: 'sessions', record: 1, field: 'timeZone' },
		],
	])('is named and nothing is taken: %s', async (_what, change, expected) => {
		expect(await bad(change)).toContainEqual(expect.objectContaining(expected))
	})

	it('is not taken for another file', async () => {
		const club = await makeClub('In', 0)
		const words = async (name: string, sent: string) =>
			(await lookAtOpenFiles(club.scope, [{ name, text: sent }])).problems.map((one) => one.words)
		expect(await words('a.json', '{"format":"else"}')).toEqual([
			'a.json: a document with "format": "dromos-data" and "version": 1 is expected.',
		])
		expect(await words('a.json', '{"format":')).toEqual(['a.json is no JSON.'])
		expect(await words('a.csv', 'Name,Born\nAda,2009-05-31\n')).toEqual([
			'a.csv: the first row is the heading of none of these tables: squads, athletes, sessions, entries, lines, tests, marks.',
		])
		expect(await words('a.csv', ' ')).toEqual(['Choose a file first.'])
	})

	it('is another club’s only in its own: ids there do not count here', async () => {
		const club = await clubWithWork()
		const out = await document(club)
		const other = await makeClub('In', 0)
		const alone = { format: 'dromos-data', version: 1, marks: out.marks }
		expect((await takeOpenFiles(other.coach, files(alone), at())).problems[0]).toMatchObject({
			kind: 'marks',
			record: 1,
			field: 'lineId',
		})
		expect(counted(await takeOpenFiles(club.coach, files(alone), at())).marks).toEqual([0, 2, 0])
	})
})
