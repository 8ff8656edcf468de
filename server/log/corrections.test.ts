import { randomUUID } from 'node:crypto'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { draftEntry } from '../../tests/support/draft-entry'
import { foldEvents } from '../../core/events/fold'
import { EVENT_SCHEMAS, type EventKey, type LogEvent } from '../../core/vocabulary/events'
import { careOf } from '../../db/queries/care'
import { insertPerson } from '../../db/queries/clubs'
import { eventsOfSessions, heldOfSession } from '../../db/queries/log'
import { readLines } from '../../db/queries/sessions'
import type { Role } from '../../db/schema/people'
import type { SignedIn } from '../access/sign-in'
import { closeCare, openCare } from '../care/care-records'
import { createSession } from '../sheet/save-session'
import { acceptEvents } from './accept-events'

const DAY = '2026-03-12'
const NEXT_DAY = new Date('2026-03-13T18:00:00Z')
const KEYS = Object.keys(EVENT_SCHEMAS) as EventKey[]

let club: TestClub
let sessionId: string
let line: { id: string; entryId: string; drillId: string | null; drillVersion: number | null }
let seq = 0

beforeAll(freshDatabase)
beforeEach(async () => {
	club = await makeClub('Club')
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day: DAY,
			startTime: '17:30',
			title: 'Speed',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries: [draftEntry({ part: 'Starts', drillId: 'three-point-start', sets: 1, reps: 6, rest: 120 })],
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	sessionId = saved.sessionId
	line = (await readLines(club.scope, [sessionId])).find((row) => row.athleteId === club.athletes[0])!
})

/** Somebody of the club who is really there: what they send may wait, and is judged as theirs later. */
async function member(role: Role, athleteId: string | null = null): Promise<SignedIn> {
	const id = randomUUID()
	await insertPerson(club.scope, {
		id,
		email: `${id}@example.org`,
		name: `The ${role}`,
		role,
		passwordHash: '-',
		athleteId,
		createdAt: NOW,
	})
	return { ...club.coach, personId: id, name: `The ${role}`, role, athleteId }
}

const VALUES: Record<Exclude<EventKey, 'decision/further' | 'decision/drill-order'>, object> = {
	'mark/sprint': { splits: [{ distanceM: 20, timeS: 3.12 }], method: 'gate' },
	'mark/contact': { contactS: 0.18, flightS: 0.4, method: 'mat' },
	'mark/height': { heightM: 0.4, method: 'mat' },
	'mark/distance': { distanceM: 2.1, method: 'tape' },
	'mark/done': { reps: 1 },
	'mark/release': { speedMps: 9, method: 'ball-sensor' },
	'mark/missed': { reason: 'aborted' },
	'observation/quality': { grade: 'good', scope: 'rep', faults: ['Late foot', 'Folded hip'] },
	'observation/pain': { region: 'knee', side: 'left', score: 4, moment: 'during', redFlag: true },
	'observation/head': { note: 'a header, clashed' },
	'observation/chest': {},
	'observation/unwell': { note: 'feverish' },
	'observation/quiet': { region: 'knee', side: 'left', score: 0 },
	'observation/note': { about: 'drill', text: 'Left foot lands late and flat.' },
	'observation/worry': { region: 'knee', note: 'not trusted' },
	'observation/comfort': { worst: 1, braking: false },
	'observation/effort': { rpe: 6, minutes: 70 },
	'decision/end-set': { reason: 'coach' },
	'decision/load-off': { reason: 'movement' },
	'decision/attendance': { present: false },
	'decision/guest': {},
	'decision/piece': { piece: 2, place: null },
	'decision/swap': { drillId: 'standing-start', drillVersion: STARTER_LIBRARY.drills['standing-start']!.version },
	'decision/fast-day': {},
	'decision/queue': { group: 1, position: 2 },
	'decision/cut-short': { reason: 'weather', left: { reps: 1, contacts: 0, fastMetres: 20 } },
	'decision/conditions': { windMps: 1.2 },
}
/** Another drill after the one that is there, for the same athlete. */
const furtherDrill = () => {
	const { id: drillId, version: drillVersion, defaults } = STARTER_LIBRARY.drills.pogo!
	const { dose, parameters, rest } = defaults
	const planned = { drillId, drillVersion, ladderId: null, rungId: null, dose, parameters, rest }
	return {
		entryId: randomUUID(),
		after: line.entryId,
		drillId,
		drillVersion,
		lines: [{ athleteId: club.athletes[0], lineId: randomUUID(), planned }],
	}
}
const OF_SESSION: EventKey[] = ['decision/conditions', 'decision/further', 'decision/drill-order']
const valueOf = (key: EventKey) =>
	key === 'decision/further'
		? furtherDrill()
		: key === 'decision/drill-order'
			? { entryIds: [line.entryId] }
			: VALUES[key]
/** An event of a kind, with everything its schema asks for and nothing else. */
function event(key: EventKey, change: Record<string, unknown> = {}): LogEvent {
	const [type, kind] = key.split('/')
	const all: Record<string, unknown> = {
		id: randomUUID(),
		sessionId,
		athleteId: OF_SESSION.includes(key) ? null : club.athletes[0],
		entryId: line.entryId,
		lineId: line.id,
		deviceId: randomUUID(),
		deviceSeq: seq++,
		deviceTime: '2026-03-12T17:40:00.000Z',
		setNo: 1,
		repNo: 1,
		type,
		kind,
		value: valueOf(key),
	}
	const known = Object.keys((EVENT_SCHEMAS[key] as unknown as { properties: object }).properties)
	return {
		...Object.fromEntries(Object.entries(all).filter(([name]) => known.includes(name))),
		...change,
	} as unknown as LogEvent
}
const voiding = (target: LogEvent, key = `${target.type}/${target.kind}` as EventKey) =>
	event(key, {
		replacesId: target.id,
		void: true,
		...(key === `${target.type}/${target.kind}` ? { value: target.value } : {}),
	})

const send = async (who: SignedIn, events: readonly unknown[], now = NOW) =>
	(await acceptEvents(who, events, now)).map((answer) =>
		answer.outcome === 'refused' ? `${answer.field}: ${answer.reason}` : answer.outcome,
	)
/** All that a correction could change: what the log holds, what stands of it, what stands in the athletes' way, their lines. */
async function everything() {
	const events = await eventsOfSessions(club.scope, [sessionId])
	return JSON.stringify([
		[...events].sort((a, b) => (a.id < b.id ? -1 : 1)),
		await careOf(club.scope, club.athletes),
		await readLines(club.scope, [sessionId]),
	])
}

describe('a forged correction', () => {
	it('of any kind is refused from everybody it is not for, and changes nothing', async () => {
		const targets = new Map(KEYS.map((key) => [key, event(key)]))
		expect(new Set(await send(club.coach, [...targets.values()]))).toEqual(new Set(['accepted']))
		const before = await everything()
		const [subject, other] = [await member('athlete', club.athletes[0]), await member('athlete', club.athletes[1])]
		const [assistant, clinician] = [await member('assistant'), await member('clinician')]
		// Who may, in the words of the rule: marks, grades and decisions belong to who logs; a report of pain to coach
		// and clinician; a worry is settled by the athlete, too, and how hard it was is theirs to say.
		const theirs: Partial<Record<EventKey, SignedIn[]>> = {
			'observation/pain': [clinician],
			'observation/head': [clinician],
			'observation/chest': [clinician],
			'observation/unwell': [clinician],
			'observation/quiet': [clinician],
			'observation/worry': [clinician, subject],
			'observation/effort': [assistant, subject],
		}
		const mayTake = (key: EventKey) => theirs[key] ?? [assistant]
		const marks = (one: EventKey, two: EventKey) => one.startsWith('mark/') && two.startsWith('mark/')
		for (const who of [subject, other, assistant, clinician])
			for (const [key, target] of targets) {
				// With another kind's id; with the same kind, unless it is theirs to take back.
				const forged = KEYS.filter((one) => one !== key && !marks(one, key))
				if (!mayTake(key).includes(who)) forged.push(key)
				const answers = await send(
					who,
					forged.map((one) => voiding(target, one)),
				)
				expect(
					forged.filter((_, index) => answers[index] === 'accepted'),
					`${who.role} about a ${key}`,
				).toEqual([])
			}
		// Yesterday's session is no assistant's any more.
		const late = await send(
			assistant,
			[...targets.values()].map((target) => voiding(target)),
			NEXT_DAY,
		)
		expect(late).not.toContain('accepted')
		expect(await everything()).toBe(before)
		for (const [key, target] of targets)
			for (const who of mayTake(key))
				expect(await send(who, [voiding(target)]), `${who.role} about a ${key}`).toEqual(['accepted'])
		expect(foldEvents(await eventsOfSessions(club.scope, [sessionId])).current).toEqual([])
	})
	it('of the evening before is an assistant’s until three hours past midnight', async () => {
		const [one, two] = [event('mark/sprint'), event('mark/sprint', { repNo: 2 })]
		await send(club.coach, [one, two])
		const assistant = await member('assistant')
		const at = async (target: LogEvent, instant: string) =>
			(await send(assistant, [voiding(target)], new Date(instant)))[0]
		expect(await at(one, '2026-03-13T02:59:59.999Z')).toBe('accepted')
		expect(await at(two, '2026-03-13T03:00:00.000Z')).not.toBe('accepted')
	})
	it('from another club finds nothing', async () => {
		const target = event('mark/sprint')
		await send(club.coach, [target])
		const before = await everything()
		const stranger = await makeClub('Stranger')
		expect(await send(stranger.coach, [voiding(target)])).toEqual(['sessionId: no such session'])
		expect(await everything()).toBe(before)
	})
	it('names the session, the athlete or the author it is not for', async () => {
		const athlete = await member('athlete', club.athletes[0])
		const flag = event('observation/pain')
		const clinician = await member('clinician')
		expect(await send(clinician, [flag])).toEqual(['accepted'])
		expect(await send(athlete, [voiding(flag)])).toEqual([
			'replacesId: only its author may correct it, or who is responsible for it',
		])
		const { entryId: _entry, lineId: _line, ...elsewhere } = voiding(flag) as Extract<LogEvent, { kind: 'pain' }>
		expect(await send(club.coach, [{ ...elsewhere, athleteId: club.athletes[1] }])).toEqual([
			'replacesId: what it corrects is about another athlete',
		])
		expect(await send(club.coach, [voiding(flag, 'observation/worry')])).toEqual([
			'replacesId: a worry does not replace a pain',
		])
	})
	it('is answered the same however often it is sent, and the coach sees it', async () => {
		const target = event('observation/pain')
		await send(club.coach, [target])
		const forged = voiding(target)
		const athlete = await member('athlete', club.athletes[0])
		const said = 'replacesId: only its author may correct it, or who is responsible for it'
		expect([await send(athlete, [forged]), await send(athlete, [forged])]).toEqual([[said], [said]])
		expect(await heldOfSession(club.scope, sessionId)).toMatchObject([
			{ id: forged.id, author: 'The athlete', refused: 'only its author may correct it, or who is responsible for it' },
		])
	})
	it('a mark on a line of somebody else is refused', async () => {
		expect(await send(club.coach, [event('mark/sprint', { athleteId: club.athletes[1] })])).toEqual([
			'lineId: this line is another athlete’s',
		])
	})
})

describe('an honest correction', () => {
	const standing = async () =>
		foldEvents(await eventsOfSessions(club.scope, [sessionId]))
			.current.map((one) => one.id)
			.sort()
	it('of any kind stands in whatever order it comes', async () => {
		for (const apart of [false, true])
			for (const turned of [false, true]) {
				const chains = KEYS.map((key) => {
					const target = event(key)
					const { value } = target
					const first = event(key, { replacesId: target.id, value })
					return [target, first, event(key, { replacesId: first.id, value })] as const
				})
				const steps = [0, 1, 2].map((step) => chains.map((chain) => chain[step]!))
				const order = turned ? [...steps].reverse() : steps
				const before = await standing()
				for (const batch of apart ? order : [order.flat()])
					expect(new Set(await send(club.coach, batch))).toEqual(new Set(['accepted']))
				expect((await standing()).filter((id) => !before.includes(id))).toEqual(
					chains.map((chain) => chain[2].id).sort(),
				)
				expect(await heldOfSession(club.scope, sessionId)).toEqual([])
				// Sent again, nothing is double.
				expect(new Set(await send(club.coach, order.flat()))).toEqual(new Set(['replayed']))
			}
	})
	it('waits for what it corrects: until then it is not in the log', async () => {
		const target = event('mark/sprint')
		const early = event('mark/sprint', { replacesId: target.id, repNo: 2 })
		expect(await send(club.coach, [early])).toEqual(['accepted'])
		expect(await eventsOfSessions(club.scope, [sessionId])).toEqual([])
		expect(await heldOfSession(club.scope, sessionId)).toMatchObject([{ id: early.id, refused: null }])
		expect(await send(club.coach, [early])).toEqual(['replayed'])
		expect(await send(club.coach, [{ ...early, repNo: 3 }])).toEqual([
			'id: id_reused: another event already has this id',
		])
	})
	it('that came early is held against what comes: a forged one is refused then, with the reason, and seen', async () => {
		const athlete = await member('athlete', club.athletes[0])
		const flag = event('observation/pain')
		const forged = voiding(flag)
		expect(await send(athlete, [forged])).toEqual(['accepted'])
		expect(await send(club.coach, [flag])).toEqual(['accepted'])
		expect(await standing()).toEqual([flag.id])
		expect(await heldOfSession(club.scope, sessionId)).toMatchObject([
			{ id: forged.id, refused: 'only its author may correct it, or who is responsible for it' },
		])
		expect(await send(athlete, [forged])).toEqual([
			'replacesId: only its author may correct it, or who is responsible for it',
		])
	})
	it('moves a mark to the athlete whose it was, on that athlete’s own line', async () => {
		const target = event('mark/sprint')
		await send(club.coach, [target])
		const theirs = (await readLines(club.scope, [sessionId])).find((row) => row.athleteId === club.athletes[1])!
		const moved = event('mark/sprint', { replacesId: target.id, athleteId: club.athletes[1], lineId: theirs.id })
		expect(await send(club.coach, [moved])).toEqual(['accepted'])
		expect(await standing()).toEqual([moved.id])
	})
})

describe('what stands in an athlete’s way', () => {
	it('is ended by its own kind alone: a worry taken back ends no restriction', async () => {
		const typed = {
			region: 'knee',
			pattern: '',
			drillId: '',
			note: 'a hard landing',
			setBy: 'H. Brekke',
			setByRole: 'physiotherapist',
		}
		const [one] = club.athletes as [string]
		await openCare(club.coach, one, { ...typed, kind: 'restriction' }, NOW)
		const [restriction] = await careOf(club.scope, [one])
		const forged = event('observation/worry', { replacesId: restriction!.id, void: true })
		await send(club.coach, [forged])
		expect((await careOf(club.scope, [one]))[0]).toMatchObject({ kind: 'restriction', endedOn: null })
		const by = { name: 'H. Brekke', role: 'physiotherapist' }
		expect(await closeCare(club.coach, one, restriction!.id, by, NOW)).toEqual({ ended: true })
	})
	it('a worry that is corrected is one worry, and ends once it is taken back', async () => {
		const [one] = club.athletes as [string]
		const worry = event('observation/worry')
		const corrected = event('observation/worry', { replacesId: worry.id, value: { region: 'ankle' } })
		await send(club.coach, [worry, corrected])
		const open = async () => (await careOf(club.scope, [one])).filter((row) => row.endedOn === null)
		expect(await open()).toMatchObject([{ id: corrected.id, region: 'ankle' }])
		await send(club.coach, [voiding(corrected)])
		expect(await open()).toEqual([])
	})
})

it('keeps what a mark says of the piece, the load and the side, and several faults of one rep', async () => {
	const carried = { segment: 'shank', side: 'left', fromJointCm: 20, grams: 150 }
	const mark = event('mark/sprint', { piece: 2, carried, side: 'left' })
	const graded = event('observation/quality', { piece: 2 })
	const note = event('observation/note', { athleteId: null, entryId: undefined, lineId: undefined, setNo: undefined })
	const sent = [mark, graded, note].map((one) => JSON.parse(JSON.stringify(one)) as LogEvent)
	expect(await send(club.coach, sent)).toEqual(['accepted', 'accepted', 'accepted'])
	const kept = await eventsOfSessions(club.scope, [sessionId])
	for (const one of sent) expect(kept.find((row) => row.id === one.id)).toMatchObject(one)
})
