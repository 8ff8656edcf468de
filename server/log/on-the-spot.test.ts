import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import type { FieldSheet } from '../../core/field/pack'
import { eventsOfSessions } from '../../db/queries/log'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { readAttending, readEntries, readLines, readSession, removeAttending } from '../../db/queries/sessions'
import { readAthletes, readSquad } from '../../db/queries/squads'
import { readLibrary } from '../../db/queries/library'
import { readPack } from '../field/read-pack'
import { copyForward, createSession } from '../sheet/save-session'
import { acceptEvents } from './accept-events'

beforeAll(freshDatabase)

const TODAY = '2026-03-12'
let club: TestClub
let sessionId: string
let seq = 0
/** Three of the club are on the sheet; the last is not. */
let late: string
beforeEach(async () => {
	club = await makeClub('Club')
	late = club.athletes.at(-1)!
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day: TODAY,
			startTime: '17:30',
			title: 'Speed',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes.filter((id) => id !== late),
			entries: [
				draftEntry({
					part: 'Starts',
					drillId: 'three-point-start',
					sets: 1,
					reps: 6,
					rest: 120,
					parameters: { distanceM: 20 },
				}),
				draftEntry({
					part: 'Rebounds',
					drillId: 'depth-jump',
					sets: 2,
					reps: 5,
					rest: 120,
					parameters: { heightCm: 40 },
				}),
			],
		},
		NOW,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	sessionId = saved.sessionId
})

const packOf = async (): Promise<FieldSheet> => (await readPack(club.scope, sessionId, 'coach', TODAY))!.sheet
const base = () => ({
	id: randomUUID(),
	sessionId,
	deviceId: '0190a000-0000-7000-8000-00000000000d',
	deviceSeq: seq++,
	deviceTime: `2026-03-12T17:${String(10 + (seq % 40)).padStart(2, '0')}:00.000Z`,
})
const join = (athleteId: string, lines: NonNullable<FieldSheet['stranger']>['lines'], name?: string) => ({
	...base(),
	athleteId,
	type: 'decision',
	kind: 'guest',
	value: {
		...(name === undefined ? {} : { name }),
		lines: lines.map(({ entryId, planned }) => ({ entryId, lineId: randomUUID(), planned })),
	},
})
const run = ({ athleteId, value }: ReturnType<typeof join>, timeS = 3.4) => ({
	...base(),
	athleteId,
	entryId: value.lines[0]!.entryId,
	lineId: value.lines[0]!.lineId,
	setNo: 1,
	repNo: 1,
	type: 'mark',
	kind: 'sprint',
	value: { splits: [{ distanceM: 20, timeS }], method: 'stopwatch' },
})
const outcome = async (...events: unknown[]) =>
	(await acceptEvents(club.coach, events, NOW)).map((answer) =>
		answer.outcome === 'refused' ? `${answer.field}: ${answer.reason}` : answer.outcome,
	)
const attending = async () => (await readAttending(club.scope, [sessionId])).map(({ athleteId }) => athleteId)

describe('the pack', () => {
	it('holds whoever else may come with what is permitted to them, of near sessions alone', async () => {
		const sheet = await packOf()
		expect(sheet.others!.map(({ id }) => id)).toEqual([late])
		expect(sheet.others![0]!.lines.map(({ planned }) => planned.drillId)).toContain('three-point-start')
		const far = (await readPack(club.scope, sessionId, 'coach', '2026-03-10'))!.sheet
		expect([far.others, far.stranger]).toEqual([undefined, undefined])
		expect((await readPack(club.scope, sessionId, 'coach', '2026-03-11'))!.sheet.others).toHaveLength(1)
	})
	it('gives a stranger no rebound from a box: nobody knows how old they are', async () => {
		const { stranger, drills } = await packOf()
		expect(stranger!.lines.length).toBeGreaterThan(0)
		for (const { planned } of stranger!.lines)
			expect(drills[`${planned.drillId}/${planned.drillVersion}`]?.intensity).not.toBe('shock')
	})
})

describe('somebody who comes without being on the list', () => {
	it('is down for the session with the lines they were shown, and logged at once', async () => {
		const { others } = await packOf()
		const event = join(late, others![0]!.lines)
		expect(await outcome(event, run(event))).toEqual(['accepted', 'accepted'])
		expect((await attending()).at(-1)).toBe(late)
		const lines = (await readLines(club.scope, [sessionId])).filter((row) => row.athleteId === late)
		expect(lines.map((row) => row.id).sort()).toEqual(event.value.lines.map(({ lineId }) => lineId).sort())
		expect(lines.every((row) => row.current)).toBe(true)
		// A pack that is fetched now has them on the sheet, with the mark.
		const pack = (await readPack(club.scope, sessionId, 'coach', TODAY))!
		expect(pack.sheet.others).toEqual([])
		expect(pack.sheet.athletes.map(({ id }) => id)).toContain(late)
		expect(pack.events.filter(({ kind }) => kind === 'sprint')).toHaveLength(1)
		expect(await outcome(event, run(event, 3.5))).toEqual(['replayed', 'accepted'])
		expect((await attending()).filter((id) => id === late)).toHaveLength(1)
	})
	it('may be a guest the club does not know: by name, without a squad', async () => {
		const { stranger } = await packOf()
		const id = randomUUID()
		const event = join(id, stranger!.lines, 'Rosa Tellier')
		expect(await outcome({ ...run(event), lineId: undefined })).toHaveLength(1)
		expect(await outcome(event, run(event))).toEqual(['accepted', 'accepted'])
		expect(await readAthletes(club.scope, [id])).toMatchObject([
			{ name: 'Rosa Tellier', birthDate: null, massKg: null },
		])
		// Next week they are among those who may come.
		const saved = await createSession(
			club.coach.clubId,
			'Atlantic/Madeira',
			{
				squadId: club.squadId,
				day: '2026-03-19',
				startTime: '17:30',
				title: 'Speed',
				place: '',
				surface: null,
				plannedMinutes: 60,
				role: 'hard',
				share: 1,
				athleteIds: club.athletes,
				entries: [draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 30 })],
			},
			NOW,
		)
		if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
		const next = (await readPack(club.scope, saved.sessionId, 'coach', '2026-03-19'))!.sheet
		expect(next.others!.map(({ name }) => name)).toEqual(['Rosa Tellier'])
	})
	it('taken in by two phones is one athlete; marks on either’s lines are kept', async () => {
		const { others } = await packOf()
		const [first, second] = [join(late, others![0]!.lines), join(late, others![0]!.lines)]
		expect(await outcome(first)).toEqual(['accepted'])
		expect(await outcome(second, run(second), run(first, 3.5))).toEqual(['accepted', 'accepted', 'accepted'])
		const lines = (await readLines(club.scope, [sessionId])).filter((row) => row.athleteId === late && row.current)
		expect(lines).toHaveLength(others![0]!.lines.length)
	})
	it('taken in by mistake is off the list again, as long as nothing was logged of them', async () => {
		const { others } = await packOf()
		const event = join(late, others![0]!.lines)
		const back = (of: typeof event) => ({ ...of, ...base(), replacesId: of.id, void: true })
		await outcome(event)
		expect(await outcome(back(event))).toEqual(['accepted'])
		expect(await attending()).not.toContain(late)
		const again = join(late, others![0]!.lines)
		await outcome(again, run(again))
		await outcome(back(again))
		expect(await attending()).toContain(late)
	})
	it('is refused with what cannot be: another session’s entry, an unknown drill, somebody of no club, who may not log', async () => {
		const { others } = await packOf()
		const [line] = others![0]!.lines
		const wrong = (change: object) => join(late, [{ ...line!, ...change } as typeof line & object])
		expect(await outcome(wrong({ entryId: randomUUID() }))).toEqual(['value.lines: no such entry on this session'])
		const planned = { ...line!.planned, drillId: 'nobody-knows' }
		expect(await outcome(wrong({ planned }))).toEqual(['value.lines: no such drill in this club’s library'])
		expect(await outcome(join(randomUUID(), []))).toEqual(['athleteId: no such athlete'])
		const taken = join(late, others![0]!.lines)
		const stolen = (await readLines(club.scope, [sessionId]))[0]!
		taken.value.lines[0] = {
			...taken.value.lines[0]!,
			lineId: stolen.id as `${string}-${string}-${string}-${string}-${string}`,
		}
		expect(await outcome(taken)).toEqual(['value.lines: id_reused: another line has this id'])
		const [answer] = await acceptEvents({ ...club.coach, role: 'athlete' }, [join(late, [])], NOW)
		expect(answer).toMatchObject({ outcome: 'refused', field: 'type' })
		expect(await attending()).not.toContain(late)
	})
})

describe('a drill nobody planned', () => {
	const pogo = STARTER_LIBRARY.drills.pogo!
	const { id: drillId, version: drillVersion } = pogo
	const { parameters, rest } = pogo.defaults
	const planned = { drillId, drillVersion, ladderId: null, rungId: null, dose: pogo.doses[2], parameters, rest }
	const further = (athletes = club.athletes.filter((id) => id !== late)) => ({
		...base(),
		athleteId: null,
		type: 'decision',
		kind: 'further',
		value: {
			entryId: randomUUID(),
			after: null as string | null,
			drillId,
			drillVersion,
			lines: athletes.map((athleteId) => ({ athleteId: athleteId as string, lineId: randomUUID(), planned })),
		},
	})
	const done = ({ value }: ReturnType<typeof further>, which = 0) => ({
		...base(),
		athleteId: value.lines[which]!.athleteId,
		entryId: value.entryId,
		lineId: value.lines[which]!.lineId,
		setNo: 1,
		repNo: 1,
		type: 'mark',
		kind: 'done',
		value: { reps: 10 },
	})
	const back = (of: ReturnType<typeof further>) => ({ ...of, ...base(), replacesId: of.id, void: true })
	const entries = async () => (await readEntries(club.scope, [sessionId])).map(({ id }) => id)

	it('is on the sheet behind the others, with the lines that were shown, and logged at once', async () => {
		const event = further()
		const mark = done(event)
		expect(await outcome(event, mark)).toEqual(['accepted', 'accepted'])
		const sheet = await packOf()
		expect(sheet.entries.at(-1)).toEqual({ id: event.value.entryId, part: 'added on the spot', name: 'Pogo' })
		const lines = sheet.lines.filter(({ entryId }) => entryId === event.value.entryId)
		expect(lines.map(({ id, athleteId, dose }) => [id, athleteId, dose]).sort()).toEqual(
			event.value.lines.map(({ lineId, athleteId }) => [lineId, athleteId, { ...pogo.doses[2] }]).sort(),
		)
		// Its contacts count like any others: ten of both feet.
		const [kept] = (await eventsOfSessions(club.scope, [sessionId])).filter(({ id }) => id === mark.id)
		expect(kept).toMatchObject({ counts: { contacts: { low: { both: 10 } } } })
		// Sent once more, it is there once.
		expect(await outcome(event, mark)).toEqual(['replayed', 'replayed'])
		expect(await entries()).toHaveLength(3)
	})
	it('goes to a pack with its drill, also one that no line of the plan names', async () => {
		const event = further()
		await outcome(event)
		expect(Object.keys((await packOf()).drills)).toContain(`${drillId}/${drillVersion}`)
	})
	it('taken back is off the sheet; with a mark it stays', async () => {
		const [one, two] = [further(), further()]
		await outcome(one, two, done(two))
		expect(await outcome(back(one), back(two))).toEqual(['accepted', 'accepted'])
		expect(await entries()).not.toContain(one.value.entryId)
		expect(await entries()).toContain(two.value.entryId)
		const current = (await readLines(club.scope, [sessionId])).map(({ entryId }) => entryId)
		expect(current).not.toContain(one.value.entryId)
		// A mark that comes late, from a phone that had not heard of it, puts its drill back.
		expect(await outcome(done(one))).toEqual(['accepted'])
		expect((await eventsOfSessions(club.scope, [sessionId])).filter(({ type }) => type === 'mark')).toHaveLength(2)
	})
	it('takes nothing but itself off when it is taken back', async () => {
		const event = further()
		await outcome(event)
		const [planned] = await entries()
		const forged = back(event)
		forged.value = { ...forged.value, entryId: planned as typeof forged.value.entryId }
		expect(await outcome(forged)).toEqual(['value.lines: id_reused: another line has this id'])
		forged.value.lines = forged.value.lines.map((line) => ({ ...line, lineId: randomUUID() }))
		expect(await outcome(forged)).toEqual(['replacesId: what it corrects brought something else onto the sheet'])
		expect(await entries()).toContain(planned)
	})
	it('may be taken back when somebody of its lines has left the list since', async () => {
		const { others } = await packOf()
		const come = join(late, others![0]!.lines)
		await outcome(come)
		const event = further(club.athletes)
		expect(await outcome(event)).toEqual(['accepted'])
		await removeAttending(club.scope, sessionId)
		expect(await outcome(back(event))).toEqual(['accepted'])
		expect(await entries()).not.toContain(event.value.entryId)
	})
	it('is refused with what cannot be: an entry that is there, somebody who is not, another’s line, an unknown drill', async () => {
		const [planned] = await entries()
		const there = further()
		there.value.entryId = planned as typeof there.value.entryId
		expect(await outcome(there)).toEqual(['value.entryId: id_reused: another entry has this id'])
		expect(await outcome(further([late]))).toEqual(['value.lines: not down for this session'])
		const stolen = further()
		stolen.value.lines[0]!.lineId = (await readLines(club.scope, [sessionId]))[0]!
			.id as `${string}-${string}-${string}-${string}-${string}`
		expect(await outcome(stolen)).toEqual(['value.lines: id_reused: another line has this id'])
		const unknown = further()
		unknown.value.drillId = 'nobody-knows' as typeof drillId
		expect(await outcome(unknown)).toEqual(['value.drillId: no such drill in this club’s library'])
		const [answer] = await acceptEvents({ ...club.coach, role: 'athlete' }, [further()], NOW)
		expect(answer).toMatchObject({ outcome: 'refused', field: 'type' })
		expect(await entries()).toHaveLength(2)
	})
	it('is not repeated where the session is copied forward', async () => {
		const event = further()
		await outcome(event, done(event))
		const [session, squad] = [await readSession(club.scope, sessionId), await readSquad(club.scope, club.squadId)]
		const next = await copyForward(club.scope, session!, squad!, await readLibrary(club.scope), NOW)
		expect((await readEntries(club.scope, [next.id])).map(({ part }) => part)).toEqual(['Starts', 'Rebounds'])
	})
	it('and another order of drills names entries of this session alone', async () => {
		const event = further()
		await outcome(event)
		const inOrder = (entryIds: string[]) => ({
			...base(),
			athleteId: null,
			type: 'decision',
			kind: 'drill-order',
			value: { entryIds },
		})
		const all = await entries()
		expect(await outcome(inOrder([...all].reverse()))).toEqual(['accepted'])
		// Taken off since, it may still be named.
		await outcome(back(event))
		expect(await outcome(inOrder(all))).toEqual(['accepted'])
		expect(await outcome(inOrder([...all, randomUUID()]))).toEqual(['value.entryIds: no such entry on this session'])
	})
})

describe('a taking back that is taken back', () => {
	it('leaves the mark as it was', async () => {
		const { others } = await packOf()
		const event = join(late, others![0]!.lines)
		const mark = run(event)
		const voided = { ...mark, ...base(), replacesId: mark.id, void: true }
		const again = { ...mark, ...base(), deviceTime: mark.deviceTime, replacesId: voided.id }
		expect(await outcome(event, mark, voided, again)).toEqual(['accepted', 'accepted', 'accepted', 'accepted'])
		const { events } = (await readPack(club.scope, sessionId, 'coach', TODAY))!
		// Who changed it is told with it; of what was logged first nobody is named.
		expect(events.filter(({ kind }) => kind === 'sprint')).toMatchObject([{ id: again.id, by: club.coach.name }])
		expect(events.find(({ kind }) => kind === 'guest')).not.toHaveProperty('by')
	})
})
