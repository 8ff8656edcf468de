import type { Measured } from '../own/own'
import type { OutsideLoad } from './outside-load'
import { describe, expect, it } from 'vitest'
import type { Stamp } from '../marks/keep-session'
import type { SessionMean } from '../noise/usual'
import { usual } from '../../tests/support/verdict-fixture'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { LogEvent } from '../vocabulary/events'
import type { PlannedLine } from '../vocabulary/line'
import { repsOfMark } from '../dose/sides'
import { byRep, exposureOf, markEvidence } from './gather-exposure'
import {
	type AthleteHistory,
	type HistoryLine,
	doneOf,
	evidenceFor,
	gatherInput,
	isOpen,
	matchesAround,
} from './gather-input'
import { entryState } from './resolve-line'

// What was planned and logged, sorted for the judging of one session: whose, from when, in which order, and nothing of
// what came later.

let seq = 0
const event = (type: string, kind: string, value: object, more: object = {}): LogEvent => {
	seq += 1
	return {
		id: `e${seq}`,
		sessionId: 's2',
		athleteId: 'a',
		entryId: 'start',
		lineId: 'l',
		deviceId: 'd',
		deviceSeq: seq,
		deviceTime: '2026-03-12T17:40:00.000Z',
		setNo: 1,
		repNo: 1,
		type,
		kind,
		value,
		...more,
	} as unknown as LogEvent
}
const sprint = (timeS: number, repNo: number, more: object = {}, distanceM = 10) =>
	event(
		'mark',
		'sprint',
		{
			splits: [
				{ distanceM: 5, timeS: 1.1 },
				{ distanceM, timeS },
			],
			method: 'gate',
		},
		{ repNo, ...more },
	)
const done = (reps: number, more: object = {}) => event('mark', 'done', { reps }, more)
const missed = (more: object = {}) => event('mark', 'missed', {}, more)

describe('one mark', () => {
	it('is the number its drill is judged by, with the method and the side', () => {
		expect(markEvidence(sprint(1.9, 1), 10)).toEqual({ kind: 'sprint', value: 1.9, method: 'gate' })
		expect(markEvidence(sprint(1.9, 1, { side: 'left' }), undefined)).toEqual({
			kind: 'sprint',
			value: 1.9,
			method: 'gate',
			side: 'left',
		})
		expect(markEvidence(sprint(1.9, 1), 20)).toBeNull()
		expect(markEvidence(event('mark', 'sprint', { splits: [], method: 'gate' }), undefined)).toBeNull()
		expect(markEvidence(event('mark', 'contact', { contactS: 0.2, flightS: 0.5, method: 'mat' }), 10)).toEqual({
			kind: 'contact',
			value: 0.2,
			flightS: 0.5,
			method: 'mat',
		})
		expect(markEvidence(event('mark', 'height', { heightM: 0.4, method: 'mat' }), 10)).toEqual({
			kind: 'height',
			value: 0.4,
			method: 'mat',
		})
		expect(markEvidence(event('mark', 'distance', { distanceM: 2.1, method: 'tape' }, { side: 'right' }), 10)).toEqual({
			kind: 'distance',
			value: 2.1,
			method: 'tape',
			side: 'right',
		})
		for (const none of [done(3), missed(), event('observation', 'quality', { grade: 'good', scope: 'rep' })])
			expect(markEvidence(none, undefined)).toBeNull()
	})
	it('stands for a rep, a set ticked off, or none', () => {
		expect([sprint(1.9, 1), done(8), missed(), event('observation', 'pain', {})].map((one) => repsOfMark(one))).toEqual(
			[1, 8, 0, 0],
		)
	})
	it('in the order of set and rep; the same rep by device and its order, never by id or clock', () => {
		const late = sprint(1.9, 1, { id: 'a', deviceTime: '2026-03-12T19:00:00.000Z', deviceSeq: 1 })
		const early = sprint(1.9, 1, { id: 'z', deviceTime: '2026-03-12T17:00:00.000Z', deviceSeq: 2 })
		expect([early, late].sort(byRep)).toEqual([late, early])
		const other = sprint(1.9, 1, { deviceId: 'c', deviceSeq: 9 })
		expect([late, other].sort(byRep)).toEqual([other, late])
		expect([other, late].sort(byRep)).toEqual([other, late])
		const [second, set2] = [sprint(1.9, 2, { deviceSeq: 0 }), sprint(1.9, 1, { setNo: 2, deviceSeq: 0 })]
		expect([set2, second, late].sort(byRep)).toEqual([late, second, set2])
		// What has no rep, as the end of a set, stands by its device's order.
		const {
			repNo: _rep,
			setNo: _set,
			...end
		} = event('decision', 'end-set', {}, { deviceSeq: 5 }) as unknown as Record<string, unknown>
		const without = end as unknown as LogEvent
		expect([without, late].sort(byRep)).toEqual([late, without])
		expect([late, { ...without, deviceSeq: 0 }].sort(byRep)[0]?.kind).toBe('end-set')
	})
})

const line: PlannedLine = {
	drillId: 'three-point-start',
	drillVersion: 1,
	ladderId: 'acceleration',
	rungId: 'three-point-10',
	dose: { sets: 1, reps: 6 },
	parameters: { distanceM: 10 },
	rest: { repsS: 0, setsS: 0 },
}
const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const exposed = (
	events: LogEvent[],
	more: Partial<{ line: PlannedLine; rungDrill: string | null; back: boolean }> = {},
) =>
	exposureOf(
		{ id: 's2', day: '2026-03-12', phase: 'peaking' },
		more.line ?? line,
		drill('three-point-start'),
		more.rungDrill === undefined ? 'three-point-start' : more.rungDrill,
		events,
		{ gate: usual(1.9) },
		(event) => !('side' in event) || event.side !== 'left',
		more.back ?? false,
	)

describe('one exposure', () => {
	it('of nothing', () => {
		expect(exposed([])).toEqual({
			sessionId: 's2',
			day: '2026-03-12',
			phase: 'peaking',
			rungId: 'three-point-10',
			onRung: true,
			planned: { sets: 1, reps: 6 },
			repsDone: 0,
			endReason: null,
			marks: [],
			quality: { good: 0, notYet: 0, poor: 0, setTaps: 0 },
			usual: { gate: usual(1.9) },
		})
		expect(exposed([], { rungDrill: 'pogo' }).onRung).toBe(false)
		expect(exposed([], { rungDrill: null }).onRung).toBe(false)
		expect(exposed([], { back: true }).firstDayBack).toBe(true)
		expect(exposed([], { line: { ...line, rungId: null } }).rungId).toBe('')
	})
	it('counts reps, and keeps the marks of the line’s distance in order', () => {
		const { repsDone, marks } = exposed([
			sprint(1.93, 3),
			sprint(1.91, 1),
			sprint(1.5, 2, {}, 5),
			missed({ repNo: 4 }),
			done(2),
		])
		expect(repsDone).toBe(5)
		expect(marks.map((mark) => mark.value)).toEqual([1.91, 1.93])
	})
	it('what was done as another drill is none of its marks; when most was, it was not done on the rung', () => {
		const swap = { asDrill: { drillId: 'pogo', drillVersion: 1 } }
		const same = { asDrill: { drillId: 'three-point-start', drillVersion: 1 } }
		expect(exposed([sprint(1.9, 1), sprint(2, 2, swap)])).toMatchObject({
			onRung: true,
			repsDone: 2,
			marks: [{ value: 1.9 }],
		})
		expect(exposed([sprint(1.9, 1), sprint(2, 2, swap), sprint(2, 3, swap)]).onRung).toBe(false)
		expect(exposed([sprint(1.9, 1, same)])).toMatchObject({ onRung: true, marks: [{ value: 1.9 }] })
	})
	it('quality by rep is one, by set the reps of a set', () => {
		const tap = (grade: string, scope: string) => event('observation', 'quality', { grade, scope })
		expect(
			exposed([tap('good', 'rep'), tap('good', 'rep'), tap('not-yet', 'rep'), tap('poor', 'rep')]).quality,
		).toEqual({
			good: 2,
			notYet: 1,
			poor: 1,
			setTaps: 0,
		})
		expect(exposed([tap('good', 'set'), tap('poor', 'set'), tap('not-yet', 'set')]).quality).toEqual({
			good: 6,
			notYet: 6,
			poor: 6,
			setTaps: 3,
		})
	})
	it('the worst comfort, any braking, the last end and the last load that came off', () => {
		const felt = (worst: number, braking: boolean) => event('observation', 'comfort', { worst, braking })
		expect(exposed([felt(1, false), felt(3, true), felt(0, false)]).comfort).toEqual({ worst: 3, braking: true })
		expect(exposed([felt(1, false)]).comfort).toEqual({ worst: 1, braking: false })
		expect(exposed([])).not.toHaveProperty('comfort')
		const end = (reason: string, deviceSeq: number) =>
			event('decision', 'end-set', { reason }, { repNo: undefined, deviceSeq })
		expect(exposed([end('weather', 9), end('coach', 3)]).endReason).toBe('weather')
		const off = (reason: string, deviceSeq: number) =>
			event('decision', 'load-off', { reason }, { repNo: undefined, deviceSeq })
		expect(exposed([off('movement', 9), off('speed-loss', 3)]).loadOff).toBe('movement')
		// Worn as long as it should be says nothing of it.
		expect(exposed([off('minutes', 9), off('speed-loss', 3)]).loadOff).toBe('speed-loss')
		expect(exposed([off('minutes', 9)])).not.toHaveProperty('loadOff')
		expect(exposed([])).not.toHaveProperty('loadOff')
	})
})

const session = (id: string, day: string, startTime = '17:30') => ({ id, day, startTime, phase: 'peaking' as const })
const on = (sessionId: string, more: Partial<HistoryLine> = {}): HistoryLine => ({
	...line,
	id: `l-${sessionId}`,
	entryId: `start-${sessionId}`,
	sessionId,
	...more,
})
const history = (change: Partial<AthleteHistory> = {}): AthleteHistory => ({
	athleteId: 'a',
	birthDate: '2001-03-16',
	massKg: 70,
	sessions: [session('s2', '2026-03-12'), session('s1', '2026-03-09'), session('s3', '2026-03-16')],
	lines: [on('s1'), on('s2'), on('s3')],
	events: [],
	counts: new Map(),
	stamps: new Map(),
	means: new Map(),
	outside: [],
	care: [],
	newRungs: [],
	...change,
})
const said = (kind: 'pain' | 'quiet', sessionId: string, value: object) =>
	event('observation', kind, value, { sessionId, entryId: undefined })
const drillOf = (id: string) => drill(id)
const evidence = (change: Partial<AthleteHistory> = {}) =>
	evidenceFor(session('s2', '2026-03-12'), history(change), drillOf)
const mark = (sessionId: string, timeS = 1.9, more: object = {}) =>
	sprint(timeS, 1, { sessionId, entryId: `start-${sessionId}`, ...more })

describe('what was done in each session', () => {
	it('is what marks cost there: nothing of a session they were not down for, of what was said, or of a mark without a cost', () => {
		const [run, elsewhere, free] = [mark('s1'), mark('not-theirs'), mark('s2')]
		const pain = said('pain', 's3', { region: 'knee', side: 'left', score: 2, moment: 'after', redFlag: false })
		const cost = { maximalStarts: 1 }
		const done = doneOf(
			history({
				lines: [on('s1'), on('not-theirs')],
				events: [run, elsewhere, free, pain],
				counts: new Map([run, elsewhere, pain].map(({ id }) => [id, cost])),
			}),
			drillOf,
		)
		expect([...done.counts].map(([id, { maximalStarts }]) => [id, maximalStarts])).toEqual([['s1', 1]])
		// Filed by the drill of the sheet it belongs to; what belongs to none is filed nowhere.
		expect([...done.eventsByEntry]).toEqual([
			['start-s1', [run]],
			['start-s2', [free]],
		])
		expect([...done.work.keys()]).toEqual(['s1'])
	})
	it('is none of a line of a session they were not down for, whatever it shares with one they were', () => {
		const done = doneOf(history({ lines: [on('not-theirs', { entryId: 'start-s1' })], events: [mark('s1')] }), drillOf)
		expect(done.work.size).toBe(0)
	})
})

describe('what all ladders share', () => {
	it('sessions up to the judged one, oldest first; later ones are left out', () => {
		expect(evidence().sessions.map((one) => one.id)).toEqual(['s1', 's2'])
		const sameDay = {
			sessions: [
				session('s2', '2026-03-12'),
				session('early', '2026-03-12', '09:00'),
				session('late', '2026-03-12', '19:00'),
			],
		}
		expect(evidence(sameDay).sessions.map((one) => one.id)).toEqual(['early', 's2'])
		expect(
			evidence()
				.linesByLadder.get('acceleration')
				?.map((one) => one.sessionId),
		).toEqual(['s1', 's2'])
		expect(evidence({ lines: [on('s1', { ladderId: null })] }).linesByLadder.size).toBe(0)
	})
	it('sessions somebody was at: the last three in which more than decisions were logged', () => {
		const four = ['s0', 's1', 's2', 's-1'].map((id, index) =>
			session(id, ['2026-03-05', '2026-03-09', '2026-03-12', '2026-03-02'][index]!),
		)
		const at = (...ids: string[]) => evidence({ sessions: four, events: ids.map((id) => mark(id)) }).lastSessions
		expect(at('s-1', 's0', 's1', 's2')).toEqual(['s0', 's1', 's2'])
		expect(at('s0', 's2')).toEqual(['s0', 's2'])
		expect(evidence({ events: [event('decision', 'queue', {}, { sessionId: 's1' })] }).lastSessions).toEqual([])
		expect(evidence({ events: [mark('s3')] }).lastSessions).toEqual([])
	})
	it('pains of four weeks, by day, region, side and score; answers of the judged session alone', () => {
		const old = [session('a', '2026-02-12'), session('b', '2026-02-11'), session('s2', '2026-03-12')]
		const knee = (score: number, more: object = {}) => ({
			region: 'knee',
			side: 'left',
			score,
			redFlag: false,
			...more,
		})
		const events = [
			said('pain', 's2', knee(3)),
			said('pain', 's2', knee(2)),
			said('pain', 's2', knee(2, { redFlag: true })),
			said('pain', 's2', knee(1, { side: 'both' })),
			said('pain', 's2', knee(9, { region: 'hip' })),
			said('pain', 'a', knee(4)),
			said('pain', 'b', knee(5)),
			said('quiet', 's2', knee(1)),
			said('quiet', 's2', { region: 'hip', side: 'left', score: 0 }),
			said('quiet', 'a', knee(0)),
		]
		const found = evidence({ sessions: old, events })
		expect(
			found.pains.map((one) => `${one.day.slice(5)} ${one.region} ${one.side} ${one.score}${one.redFlag ? '!' : ''}`),
		).toEqual([
			'02-12 knee left 4',
			'03-12 hip left 9',
			'03-12 knee both 1',
			'03-12 knee left 2',
			'03-12 knee left 2!',
			'03-12 knee left 3',
		])
		expect(found.answers).toEqual([
			{ region: 'hip', side: 'left', score: 0 },
			{ region: 'knee', side: 'left', score: 1 },
		])
	})
	it('work of ten weeks: families and kinds of what was done, with what was done outside', () => {
		const jumps = on('s1', {
			id: 'j',
			entryId: 'jump-s1',
			drillId: 'depth-jump',
			ladderId: 'shock',
			parameters: { heightCm: 30 },
		})
		const match = {
			day: '2026-03-10',
			startTime: '15:00',
			kind: 'match',
			minutes: 90,
			rpe: 7,
			hardRunning: true,
			hardCutting: false,
		} as never
		const found = evidence({
			lines: [on('s1'), jumps, on('s2')],
			events: [
				mark('s1'),
				done(5, { sessionId: 's1', entryId: 'jump-s1' }),
				missed({ sessionId: 's2', entryId: 'start-s2' }),
			],
			outside: [
				match,
				{ ...(match as object), day: '2026-03-13' } as never,
				{ ...(match as object), day: '2025-12-31' } as never,
			],
		})
		expect(found.work[0]).toEqual({
			day: '2026-03-09',
			startTime: '17:30',
			families: ['plyometric', 'sprint'],
			kinds: ['hard-jumps', 'maximal-sprint'],
			outside: false,
		})
		expect(found.work.map((one) => `${one.day}${one.outside ? ' outside' : ''}`)).toEqual([
			'2026-03-09',
			'2026-03-10 outside',
		])
		const seventy = (day: string) =>
			evidence({ sessions: [session('s1', day), session('s2', '2026-03-12')], lines: [on('s1')], events: [mark('s1')] })
				.work.length
		expect(seventy('2026-01-01')).toBe(1)
		expect(seventy('2025-12-31')).toBe(0)
	})
	it('work of a day is what was done on it, beside what was missed or only said, in the order of day and time', () => {
		const outside = (day: string, startTime: string) =>
			({ day, startTime, kind: 'match', minutes: 60, rpe: 5, hardRunning: true, hardCutting: false }) as never
		const found = evidence({
			lines: [on('s1'), on('s2')],
			// One rep of two was done; of s2 there is nothing but a word about the rep.
			events: [
				mark('s1'),
				missed({ sessionId: 's1', entryId: 'start-s1' }),
				event('observation', 'note', { text: 'wet' }, { sessionId: 's2', entryId: 'start-s2' }),
			],
			outside: [outside('2026-03-12', '08:00'), outside('2026-03-09', '09:00'), outside('2026-03-09', '19:00')],
		})
		expect(found.work.map(({ day, startTime, outside: away }) => [day, startTime, away])).toEqual([
			['2026-03-09', '09:00', true],
			['2026-03-09', '17:30', false],
			['2026-03-09', '19:00', true],
			['2026-03-12', '08:00', true],
		])
		// Planned and not begun, a line is no work of its day.
		expect(evidence({ lines: [on('s1')] }).work).toEqual([])
	})
})

describe('the input of one verdict', () => {
	const next = { day: '2026-03-16', startTime: '17:30', phase: 'peaking' as const, surface: 'grass' as const }
	const gathered = (change: Partial<AthleteHistory> = {}, more: Partial<Parameters<typeof gatherInput>[0]> = {}) =>
		gatherInput(
			{
				session: { ...session('s2', '2026-03-12'), next },
				ladder: STARTER_LIBRARY.ladders.acceleration!,
				state: entryState(STARTER_LIBRARY, 'acceleration'),
				level: 2,
				school: QUALITY_FIRST,
				focus: null,
				standings: { cut: ['wide'] },
				closures: [],
				returning: [],
				levels: { sprint: 2 },
				...more,
			},
			evidence(change),
			drillOf,
		)
	it('the week is read from what each mark cost', () => {
		const one = mark('s1')
		const other = mark('s1')
		const { ramp } = gathered({
			events: [one, other, mark('s2')],
			counts: new Map([
				[one.id, { maximalStarts: 1, fastMetres: 10 }],
				[other.id, { maximalStarts: 1 }],
			]),
		})
		expect(ramp.maximalStarts).toEqual([{ day: '2026-03-09', unloading: false, value: 2 }])
		expect(ramp.fastMetres).toEqual([{ day: '2026-03-09', unloading: false, value: 10 }])
		expect(ramp.sharpCuts).toEqual([])
	})
	it('an unloading week is known as one: the mean before it leaves it out', () => {
		const one = mark('s1')
		const sessions = [{ ...session('s1', '2026-03-09'), phase: 'unloading' as const }, session('s2', '2026-03-12')]
		const { ramp } = gathered({ sessions, events: [one], counts: new Map([[one.id, { maximalStarts: 1 }]]) })
		expect(ramp.maximalStarts).toEqual([{ day: '2026-03-09', unloading: true, value: 1 }])
	})
	it('what is closed is handed on', () => {
		const calf = { region: 'calf', side: 'left', grade: 'spare', since: '2026-03-05' } as const
		expect(gathered({}, { closures: [calf] }).closures).toEqual([calf])
	})
	it('a line is on its rung when it asks for the rung’s own drill', () => {
		const onRung = (more: Partial<HistoryLine>) =>
			gathered({ lines: [on('s1', more), on('s2')], events: [mark('s1')] }).exposures[0]?.onRung
		expect(onRung({})).toBe(true)
		expect(onRung({ drillId: 'standing-start' })).toBe(false)
		expect(onRung({ rungId: 'no-longer-there' })).toBe(false)
	})
	it('work has what is known to come outside, up to four days after the next session', () => {
		const practice = (day: string, startTime = '19:00'): OutsideLoad => ({
			kind: 'practice',
			day,
			startTime,
			minutes: 90,
			rpe: null,
			hardRunning: true,
			hardCutting: false,
		})
		// The session of Thursday 12 March began at 17:30; the next one is on Monday 16 March.
		const outside = [
			practice('2026-03-12', '17:00'),
			practice('2026-03-12'),
			practice('2026-03-20'),
			practice('2026-03-21'),
		]
		expect(gathered({ outside }).work.map(({ day, startTime }) => [day, startTime])).toEqual([
			['2026-03-12', '17:00'],
			['2026-03-12', '19:00'],
			['2026-03-20', '19:00'],
		])
	})
	it('the week has what is known to come in it: a match up to the Sunday after the next session, Monday 16 March', () => {
		// Hard running of an hour and a half stands for four starts.
		const match = (day: string): OutsideLoad => ({
			kind: 'match',
			day,
			startTime: '15:00',
			minutes: 90,
			rpe: null,
			hardRunning: true,
			hardCutting: false,
		})
		const days = ['2026-03-10', '2026-03-14', '2026-03-22', '2026-03-23']
		expect(gathered({ outside: days.map(match) }).ramp.maximalStarts).toEqual([
			{ day: '2026-03-10', unloading: false, value: 4 },
			{ day: '2026-03-14', unloading: false, value: 4 },
			{ day: '2026-03-22', unloading: false, value: 4 },
		])
	})
	it('the athlete as they are on the day of the next session', () => {
		// Born on 16 March: a year older on the day itself.
		expect(gathered().athlete).toEqual({
			id: 'a',
			level: 2,
			ageYears: 25,
			massKg: 70,
			unwell: false,
			contrastHelps: false,
		})
		expect(gathered({ birthDate: '2001-03-17' }).athlete.ageYears).toBe(24)
		expect(gathered({ birthDate: null, massKg: null }).athlete).toMatchObject({ ageYears: null, massKg: null })
		expect(gathered({}, { contrastHelps: true }).athlete.contrastHelps).toBe(true)
		expect(gathered()).toMatchObject({
			day: '2026-03-12',
			standings: { cut: ['wide'] },
			levels: { sprint: 2 },
			advancesBefore: [],
		})
	})
	// Reps ended by weather or the coach count as done: the end of the session ends the line that was on the way.
	it.each([
		['weather', 'weather'],
		['lightning', 'weather'],
		['heat', 'weather'],
		['coach', 'coach'],
		['time', 'coach'],
	] as const)('a session ended early by %s ends the line that was done then', (reason, endReason) => {
		const cut = event('decision', 'cut-short', { reason }, { sessionId: 's2', entryId: undefined })
		const at = (minute: number) => ({ deviceTime: `2026-03-12T17:${minute}:00.000Z` })
		const other = done(3, { sessionId: 's2', entryId: 'another', ...at(20) })
		const ends = (...events: LogEvent[]) =>
			gathered({ events }).exposures.map((exposure) => [exposure.sessionId, exposure.endReason])
		expect(ends(other, mark('s2', 1.9, at(30)), cut)).toEqual([
			['s1', null],
			['s2', endReason],
		])
		// Somebody who had gone on to another drill left this one by themselves; who did nothing was ended in nothing.
		expect(ends(mark('s2', 1.9, at(10)), other, cut)[1]).toEqual(['s2', null])
		expect(ends(cut)[1]).toEqual(['s2', null])
		// What ended the set before says more.
		const pain = event('decision', 'end-set', { reason: 'pain' }, { sessionId: 's2', entryId: 'start-s2' })
		expect(ends(mark('s2', 1.9, at(30)), pain, cut)[1]).toEqual(['s2', 'pain'])
		// Another session's end is not this one's.
		expect(ends(mark('s2'), mark('s1'), { ...cut, sessionId: 's1' } as LogEvent)).toEqual([
			['s1', endReason],
			['s2', null],
		])
	})
	it('who is asked after a step, and the answers; nothing where nothing is to be asked', () => {
		expect(gathered()).not.toHaveProperty('returning')
		expect(gathered()).not.toHaveProperty('answers')
		const asked = gathered(
			{ events: [said('quiet', 's2', { region: 'knee', side: 'left', score: 0 })] },
			{ returning: ['knee', 'ankle'] },
		)
		expect(asked).toMatchObject({ returning: ['ankle', 'knee'], answers: [{ region: 'knee', side: 'left', score: 0 }] })
	})
	it('records that are open on that day: from the day they began, until the day they ended', () => {
		const care = (from: string, until: string | null) => [
			{ kind: 'restriction' as const, region: 'knee' as const, pattern: null, setBy: 'H.', from, until },
			{ kind: 'worry' as const, drillId: 'pogo', region: 'calf' as const, from, until },
			{ kind: 'illness' as const, from, until },
		]
		expect(gathered({ care: care('2026-03-16', null) })).toMatchObject({
			restrictions: [{ region: 'knee', pattern: null, since: '2026-03-16', setBy: 'H.' }],
			worries: [{ drillId: 'pogo', region: 'calf', since: '2026-03-16' }],
			athlete: { unwell: true },
		})
		for (const none of [care('2026-03-17', null), care('2026-03-01', '2026-03-16')])
			expect(gathered({ care: none })).toMatchObject({ restrictions: [], worries: [], athlete: { unwell: false } })
		expect(isOpen({ kind: 'illness', from: '2026-03-01', until: '2026-03-17' }, '2026-03-16')).toBe(true)
	})
	it('what is known of old is accepted and no illness; a restriction of one drill names it', () => {
		const since = { from: '2026-03-01', until: null }
		expect(gathered()).not.toHaveProperty('accepted')
		const known = gathered({
			care: [
				{ kind: 'known', region: 'knee', ...since },
				{ kind: 'worry', drillId: 'pogo', region: 'calf', ...since },
				{ kind: 'restriction', region: null, pattern: null, drillId: 'depth-jump', setBy: 'H.', ...since },
			],
		})
		expect(known.accepted).toEqual(['knee'])
		expect(known.athlete.unwell).toBe(false)
		expect(known.restrictions).toEqual([
			{ region: null, pattern: null, drillId: 'depth-jump', since: '2026-03-01', setBy: 'H.' },
		])
	})
	it('the squad’s own spread of the drill stood on, and of no other', () => {
		const [first, second] = STARTER_LIBRARY.ladders.acceleration!.rungs
		const spread = { gate: { sd: 0.02, pairs: 20 } }
		expect(gathered({}, { errors: { [first!.drillId]: spread } }).errors).toEqual(spread)
		expect(gathered({}, { errors: { [second!.drillId]: spread } })).not.toHaveProperty('errors')
	})
	it('the box measured best at the bench, as it stands on the day of the next session', () => {
		const on = (day: string, heightCm: number): Measured => ({
			kind: 'drop-jumps',
			jumps: [{ boxM: heightCm / 100, contactTimeS: 0.14, flightTimeS: 0.5 }],
			on: day,
			how: 'contact mat',
		})
		expect(gathered()).not.toHaveProperty('bestBox')
		expect(gathered({ measured: [on('2026-03-16', 30), on('2026-03-17', 45)] }).bestBox).toMatchObject({ heightCm: 30 })
	})
	it('exposures of the ladder, oldest first, the last eight', () => {
		const days = Array.from({ length: 10 }, (_, index) => `2026-03-${String(index + 1).padStart(2, '0')}`)
		const sessions = [...days.map((day) => session(day, day)), session('s2', '2026-03-12')]
		const lines = [...days.map((day) => on(day)), on('s2')]
		const { exposures } = gathered({ sessions, lines })
		expect(exposures.map((one) => one.sessionId)).toEqual([...days.slice(3), 's2'])
		const { exposures: some } = gathered({ sessions, lines: [on('2026-03-05'), on('s2')] })
		expect(some.map((one) => one.sessionId)).toEqual(['2026-03-05', 's2'])
	})
	it('the first day after more than a week is no evidence', () => {
		const back = (day: string) => {
			const sessions = [session('s1', day), session('s2', '2026-03-12')]
			return gathered({ sessions, lines: [on('s1'), on('s2')], events: [mark('s1'), mark('s2')] }).exposures.at(-1)
				?.firstDayBack
		}
		expect(back('2026-03-05')).toBeUndefined()
		expect(back('2026-03-04')).toBe(true)
		expect(gathered({ events: [mark('s2')] }).exposures.at(-1)?.firstDayBack).toBeUndefined()
		// Jumps in between are no sprinting.
		const sessions = [session('s1', '2026-03-04'), session('s3', '2026-03-10'), session('s2', '2026-03-12')]
		const jumps = on('s3', { drillId: 'pogo', ladderId: null, rungId: null })
		const lines = [on('s1'), jumps, on('s2')]
		expect(
			gathered({ sessions, lines, events: ['s1', 's3', 's2'].map((id) => mark(id)) }).exposures.at(-1),
		).toMatchObject({ firstDayBack: true })
	})
	it('the usual before: of marks made as the line says, by method and side, from days before', () => {
		const key = (method: string, side = '-', ground = '-') =>
			`1|sprint|three-point-start|three-point|d10|-|-|-|${side}|${ground}|${method}`
		const kept = (day: string, mean: number): SessionMean => ({ day, n: 3, mean, squares: 0, best: mean })
		const two = [kept('2026-03-02', 1.9), kept('2026-03-05', 1.94)]
		const usualOf = (means: [string, SessionMean[]][], change: Partial<AthleteHistory> = {}) =>
			Object.fromEntries(
				Object.entries(
					gathered({ events: [mark('s2', 1.8)], means: new Map(means), ...change }).exposures.at(-1)?.usual ?? {},
				).map(([name, one]) => [name, one.value]),
			)
		expect(usualOf([[key('gate'), two]])).toEqual({ gate: expect.closeTo(1.92, 10) as number })
		// One session, or the judged one itself, make none; nor do marks taken otherwise.
		expect(usualOf([[key('gate'), [kept('2026-03-05', 1.9), kept('2026-03-12', 1.9)]]])).toEqual({})
		expect(usualOf([[key('stopwatch'), two]])).toEqual({})
		expect(usualOf([[key('gate', 'left'), two]])).toEqual({})
		expect(usualOf([[key('gate', '-', 'grass'), two]])).toEqual({})
		const onGrass = { sessions: [{ ...session('s2', '2026-03-12'), surface: 'grass' as const }] }
		expect(usualOf([[key('gate', '-', 'grass'), two]], onGrass)).toEqual({ gate: expect.closeTo(1.92, 10) as number })
		const left = { events: [mark('s2', 1.8, { side: 'left' })] }
		expect(usualOf([[key('gate', 'left'), two]], left)).toEqual({ 'gate/left': expect.closeTo(1.92, 10) as number })
		// A sled makes another run of it.
		const pulled = { lines: [on('s2', { aid: { kind: 'sled', kg: 20 } })] }
		expect(usualOf([[key('gate'), two]], pulled)).toEqual({})
	})
	it('what its marks are like: drill, start, form, what is worn or pulled, and ground, not method or side; none without marks', () => {
		const like = (line: object = {}, change: Partial<AthleteHistory> = {}) =>
			gathered({ lines: [on('s2', line)], events: [mark('s2', 1.8)], ...change }).exposures.at(-1)!.like
		expect(like()).toBe('1|three-point-start|three-point|d10|-|-|-|-')
		expect(like({}, { events: [mark('s2', 1.8, { side: 'left' })] })).toBe(like())
		const hand = mark('s2', 1.8, { value: { splits: [{ distanceM: 10, timeS: 1.8 }], method: 'stopwatch' } })
		expect(like({}, { events: [hand] })).toBe(like())
		expect(like({ aid: { kind: 'sled', kg: 20 } })).toBe('1|three-point-start|three-point|d10|sled.kg20|-|-|-')
		const onGrass = { sessions: [{ ...session('s2', '2026-03-12'), surface: 'grass' as const }] }
		expect(like({}, onGrass)).toBe('1|three-point-start|three-point|d10|-|-|-|grass')
		expect(like({}, { events: [] })).toBeUndefined()
	})
	it('a mark that is set aside, or was made otherwise than the line says, is no evidence', () => {
		const key = '1|sprint|three-point-start|three-point|d10|-|-|-|-|-|gate'
		const values = (stamp: Stamp | null) =>
			gathered({
				events: [mark('s2', 1.8, { id: 'odd' }), mark('s2', 1.9, { id: 'even', repNo: 2 })],
				stamps: new Map(stamp ? [['odd', stamp]] : []),
			})
				.exposures.at(-1)
				?.marks.map((one) => one.value)
		expect(values(null)).toEqual([1.8, 1.9])
		expect(values({ key, setAside: false })).toEqual([1.8, 1.9])
		expect(values({ key, setAside: true })).toEqual([1.9])
		expect(values({ key: key.replace('|-|-|-|-|-|', '|-|g200|-|-|-|'), setAside: false })).toEqual([1.9])
	})
	it('a slow fall of what was measured in the judged session, once there are sixteen sessions', () => {
		const key = '1|sprint|three-point-start|three-point|d10|-|-|-|-|-|gate'
		const kept = (at: number, mean: number): SessionMean => ({
			day: `2026-02-${String(at + 1).padStart(2, '0')}`,
			n: 3,
			mean,
			squares: 0,
			best: mean,
		})
		const of = (late: number, sessions = 16) =>
			gathered({
				events: [mark('s2', 1.9)],
				means: new Map([[key, Array.from({ length: sessions }, (_, at) => kept(at, at < sessions - 4 ? 1.9 : late))]]),
			}).slowFall
		expect(of(1.98)).toMatchObject({ kind: 'sprint', fallen: true, percent: expect.closeTo(4.2105, 3) as number })
		expect(of(1.9)).toMatchObject({ fallen: false })
		expect(of(1.98, 15)).toBeUndefined()
		// Of two methods the one that has fallen, and the further.
		const both = (gate: number, phone: number) =>
			gathered({
				events: [
					mark('s2', 1.9),
					mark('s2', 1.9, { repNo: 2, value: { splits: [{ distanceM: 10, timeS: 1.9 }], method: 'phone' } }),
				],
				means: new Map(
					[gate, phone].map((late, index) => [
						index === 0 ? key : key.replace(/gate$/, 'phone'),
						Array.from({ length: 16 }, (_, at) => kept(at, at < 12 ? 1.9 : late)),
					]),
				),
			}).slowFall
		for (const [gate, phone, percent] of [
			[1.9, 2.1, 10.5263],
			[1.98, 1.9, 4.2105],
			[1.98, 2.1, 10.5263],
			[2.1, 1.98, 10.5263],
		] as const)
			expect(both(gate, phone)).toMatchObject({ fallen: true, percent: expect.closeTo(percent, 3) as number })
	})
	it('only the last twenty days of work', () => {
		const days = Array.from({ length: 25 }, (_, index) => `2026-02-${String(index + 1).padStart(2, '0')}`)
		const { work } = gathered({
			sessions: days.map((day) => session(day, day)),
			lines: days.map((day) => on(day)),
			events: days.map((day) => mark(day)),
		})
		expect(work.map((one) => one.day)).toEqual(days.slice(5))
	})
})

describe('matches around a session', () => {
	const match = (day: string, startTime = '17:30', kind = 'match') =>
		({ day, startTime, kind, minutes: 90, rpe: null, hardRunning: true, hardCutting: true }) as never
	const at = { day: '2026-03-12', startTime: '17:30' }
	it.each([
		[[], null, null],
		[[match('2026-03-13')], 24, null],
		[[match('2026-03-11')], null, 24],
		[[match('2026-03-12')], null, -0],
		[[match('2026-03-15'), match('2026-03-14', '12:00')], 42.5, null],
		[[match('2026-03-08'), match('2026-03-10')], null, 48],
		[[match('2026-03-19')], 168, null],
		[[match('2026-03-20')], null, null],
		[[match('2026-03-05')], null, 168],
		[[match('2026-03-04')], null, null],
		[[match('2026-03-13', '17:30', 'tournament')], 24, null],
		[[match('2026-03-13', '17:30', 'practice')], null, null],
	] as [never[], number | null, number | null][])('%#', (outside, hoursToMatch, hoursSinceMatch) => {
		const found = matchesAround(outside, at)
		expect(found.hoursToMatch).toBe(hoursToMatch)
		if (hoursSinceMatch === null) expect(found.hoursSinceMatch).toBeNull()
		else expect(found.hoursSinceMatch).toBeCloseTo(hoursSinceMatch, 9)
	})
})
