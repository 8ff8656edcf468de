import { describe, expect, it } from 'vitest'
import { ATHLETES, ENTRIES, Phone, type Touch, fourBySheet, lineOf } from '../../../tests/support/afternoon'
import { STARTER_LIBRARY } from '../../library/starter-library'
import type { LogEvent } from '../../vocabulary/events'
import { remaining } from './press'

const [ILKA, AMARU, TOVE, NOOR] = ATHLETES.map(({ id }) => id) as [string, string, string, string]
const run = (timeS: number): Touch => ({
	tap: 'mark',
	measured: { kind: 'sprint', value: { splits: [{ distanceM: 20, timeS }], method: 'gate' } },
	label: `${timeS.toFixed(2)} s`,
})
const jump = (distanceM: number): Touch => ({
	tap: 'mark',
	measured: { kind: 'distance', value: { distanceM, method: 'tape' } },
	label: `${distanceM} m`,
})
const said = (events: readonly LogEvent[]) =>
	events.map(({ type, kind, athleteId, value }) => ({ type, kind, athleteId, value }))
const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const phone = (...args: Parameters<typeof fourBySheet>) => new Phone(fourBySheet(...args))

describe('the line', () => {
	it('opens at the first drill that is more than preparation, with the first of the sheet', () => {
		const sheet = fourBySheet()
		const lines = sheet.lines.map((line) =>
			line.entryId === ENTRIES[0]!.id ? { ...line, family: 'prepare' as const } : line,
		)
		expect(new Phone({ ...sheet, lines }).stand.cursor.entryId).toBe(ENTRIES[1]!.id)
		expect(phone().stand.cursor.entryId).toBe(ENTRIES[0]!.id)
		expect(phone().name).toBe('Ilka Moreau')
		expect(new Phone({ ...sheet, entries: [], lines: [] }).stand.shown).toBeNull()
	})
	it('moves to the next after a rep, round and round, and stays with the last who has reps left', () => {
		const one = phone()
		const order = Array.from({ length: 5 }, (_, index) => {
			const { name } = one
			one.tap(run(3 + index / 100))
			return name
		})
		expect(order).toEqual(['Ilka Moreau', 'Amaru Fenn', 'Tove Brandt', 'Noor Castell', 'Ilka Moreau'])
		for (const athleteId of [AMARU, TOVE, NOOR]) one.tap({ tap: 'here', athleteId, present: false })
		expect(one.name).toBe('Ilka Moreau')
		one.tap(run(3.1))
		expect(one.name).toBe('Ilka Moreau')
	})
	it('writes a rep where it was done: set and rep by count, the drill that was swapped in', () => {
		const one = phone({}, { dose: { sets: 2, reps: 2 } })
		const [first] = one.tap(run(3.01))
		expect(first).toMatchObject({
			athleteId: ILKA,
			entryId: ENTRIES[0]!.id,
			lineId: lineOf(0, 0).id,
			setNo: 1,
			repNo: 1,
			type: 'mark',
		})
		one.tap({ tap: 'pick', athleteId: ILKA })
		expect(one.tap({ tap: 'missed', reason: 'aborted' })[0]).toMatchObject({
			kind: 'missed',
			setNo: 1,
			repNo: 2,
			value: { reason: 'aborted' },
		})
		one.tap({ tap: 'pick', athleteId: ILKA })
		one.tap({ tap: 'swap', drill: drill('pogo'), who: 'one' })
		expect(one.stand.shown).toMatchObject({ measured: false, drill: { id: 'pogo' } })
		expect(one.tap({ tap: 'untimed' })[0]).toMatchObject({
			kind: 'done',
			setNo: 2,
			repNo: 1,
			asDrill: { drillId: 'pogo' },
		})
	})
	it('counts a set judged by eye as one thing: the grade and the reps', () => {
		const one = phone().at(3)
		expect(said(one.tap({ tap: 'reps', reps: 6, grade: 'not-yet' }))).toEqual([
			{ type: 'observation', kind: 'quality', athleteId: ILKA, value: { grade: 'not-yet', scope: 'set' } },
			{ type: 'mark', kind: 'done', athleteId: ILKA, value: { reps: 6 } },
		])
		expect(one.stand.undoLabel).toBe('Ilka M., 6 reps, not yet')
		expect(said(one.tap({ tap: 'reps', reps: 8, grade: null }))).toEqual([
			{ type: 'mark', kind: 'done', athleteId: AMARU, value: { reps: 8 } },
		])
		// A set of a drill swapped in: the mark says so, the grade does not.
		one.tap({ tap: 'swap', drill: drill('broad-jump'), who: 'one' })
		const [grade, done] = one.tap({ tap: 'reps', reps: 4, grade: 'good' })
		expect(grade).not.toHaveProperty('asDrill')
		expect(done).toMatchObject({ asDrill: { drillId: 'broad-jump' } })
	})
	it('has as many on it as start together', () => {
		const one = phone()
		one.lanes = 2
		const names = () => one.stand.onLine.map(({ line }) => line.athleteId)
		expect(names()).toEqual([ILKA, AMARU])
		one.tap({ tap: 'pick', athleteId: AMARU })
		expect(names()).toEqual([ILKA, AMARU])
		one.tap({ tap: 'pick', athleteId: NOOR })
		expect(names()).toEqual([TOVE, NOOR])
		one.lanes = 3
		expect(names()).toEqual([NOOR])
	})
})

describe('the stopwatch', () => {
	const at = '2026-03-12T18:00:07.120Z'
	const ran = (athleteId: string, timeS: number) => ({ athleteId, splits: [{ distanceM: 20, timeS }] })
	it('keeps one run as a rep by stopwatch, at its finish, and the next one comes', () => {
		const one = phone()
		const [mark] = one.tap({ tap: 'runs', runs: [ran(ILKA, 3.1)], at, windMps: 1.5 })
		expect(mark).toMatchObject({
			athleteId: ILKA,
			lineId: lineOf(0, 0).id,
			setNo: 1,
			repNo: 1,
			deviceTime: at,
			value: { splits: [{ distanceM: 20, timeS: 3.1 }], method: 'stopwatch', windMps: 1.5 },
		})
		expect(one.stand.undoLabel).toBe('Ilka M., 3.10 s')
		expect(one.name).toBe('Amaru Fenn')
	})
	it('keeps those who began together in one tap, undone as one; whoever comes after both is next', () => {
		const one = phone({}, { dose: { sets: 1, reps: 1 } })
		const events = one.tap({ tap: 'runs', runs: [ran(AMARU, 3.1), ran(ILKA, 3.3)], at, windMps: null })
		expect(events.map(({ athleteId }) => athleteId)).toEqual([AMARU, ILKA])
		expect(events[0]!.value).not.toHaveProperty('windMps')
		expect(one.stand.undoLabel).toBe('2 times by stopwatch, the first 3.10 s')
		expect(one.name).toBe('Tove Brandt')
		one.tap({ tap: 'runs', runs: [ran(TOVE, 3.1), ran(NOOR, 3.3)], at, windMps: null })
		expect(one.stand.queue.every(({ finished }) => finished)).toBe(true)
		one.tap({ tap: 'undo' })
		expect(one.current).toHaveLength(2)
	})
	it('keeps nothing of who is not on the line, or does another drill', () => {
		const one = phone()
		expect(one.tap({ tap: 'runs', runs: [ran('nobody', 3.1)], at, windMps: null })).toEqual([])
		expect(one.at(2).tap({ tap: 'runs', runs: [ran(ILKA, 3.1)], at, windMps: null })).toEqual([])
	})
})

describe('a rep that is done on each side', () => {
	const sided = (change = {}) => phone({}, { sided: 'each', dose: { sets: 1, reps: 2 }, ...change }).at(2)
	const state = (one: Phone) => {
		const { repsDone, side, next, finished } = one.stand.queue[0]!
		return [repsDone, side, next.repNo, finished]
	}
	it('is asked left and right by turn, the same athlete for both, and is one rep', () => {
		const one = sided()
		expect(state(one)).toEqual([0, 'left', 1, false])
		const [left] = one.tap(jump(2.1))
		expect(left).toMatchObject({ side: 'left', repNo: 1 })
		expect(one.stand.undoLabel).toBe('Ilka M., 2.1 m left')
		expect(one.name).toBe('Ilka Moreau')
		expect(state(one)).toEqual([0.5, 'right', 1, false])
		expect(one.tap(jump(2.2))[0]).toMatchObject({ side: 'right', repNo: 1 })
		expect(one.name).toBe('Amaru Fenn')
		expect(state(one)).toEqual([1, 'left', 2, false])
		one.tap({ tap: 'pick', athleteId: ILKA })
		one.tap({ tap: 'missed' })
		one.tap({ tap: 'untimed' })
		expect(state(one)).toEqual([1.5, 'left', 1, true])
	})
	it('is said otherwise in one tap, corrected later, and the turn follows', () => {
		const one = sided()
		const [wrong] = one.tap({ ...(jump(2.1) as Extract<Touch, { tap: 'mark' }>), side: 'right' })
		expect(wrong).toMatchObject({ side: 'right' })
		expect(state(one)).toEqual([0.5, 'left', 1, false])
		for (let i = 0; i < 9; i++) one.tap(jump(2 + i / 100))
		one.tap({ tap: 'correct', event: wrong!, change: { side: 'left' } as never })
		expect(one.current.find(({ replacesId }) => replacesId === wrong!.id)).toMatchObject({
			side: 'left',
			value: { distanceM: 2.1 },
			deviceTime: wrong!.deviceTime,
		})
	})
	it('goes by unlike doses of the sides: the one with more left', () => {
		const one = sided({
			dose: { sets: 1, reps: 3 },
			sides: { left: { sets: 1, reps: 2 }, right: { sets: 1, reps: 4 } },
		})
		const order = Array.from({ length: 6 }, () => {
			one.tap({ tap: 'pick', athleteId: ILKA })
			const [event] = one.tap(jump(2))
			return event && 'side' in event && event.side
		})
		expect(order).toEqual(['right', 'right', 'left', 'right', 'left', 'right'])
		expect(one.stand.queue[0]).toMatchObject({ finished: true, repsDone: 3 })
	})
	it('has no side as another drill, as a set ticked off, or where none is asked', () => {
		const one = sided()
		one.tap({ tap: 'swap', drill: drill('pogo'), who: 'one' })
		expect(one.tap({ tap: 'untimed', side: 'left' })[0]).not.toHaveProperty('side')
		const two = phone().at(2)
		expect(two.tap(jump(2.1))[0]).not.toHaveProperty('side')
		expect(two.tap({ ...(jump(2.1) as Extract<Touch, { tap: 'mark' }>), side: 'left' })[0]).toMatchObject({
			side: 'left',
		})
		expect(two.name).toBe('Tove Brandt')
		const done = phone({}, { sided: 'each' }).at(3)
		expect(done.tap({ tap: 'reps', reps: 8, grade: null })[0]).not.toHaveProperty('side')
		expect(done.stand.queue[0]).toMatchObject({ finished: true, half: false })
	})
})

describe('somebody who comes without being on the sheet', () => {
	const newIds = Array.from({ length: 4 }, (_, n) => `0000000a-0000-7000-8000-00000000000${n}`)
	const planned = (entry: number) => {
		const { drillId, drillVersion, dose, parameters, rest } = lineOf(entry, 0)
		return { drillId, drillVersion, dose, parameters, rest, ladderId: null, rungId: null } as never
	}
	const LATE = '0000000b-0000-7000-8000-000000000001'
	const withOthers = () => {
		const sheet = fourBySheet()
		const [someone] = sheet.athletes
		return new Phone({
			...sheet,
			others: [
				{
					...someone!,
					id: LATE,
					name: 'Sefa Lindqvist',
					level: 3,
					barred: ['pogo'],
					lines: [0, 2].map((entry) => ({ entryId: ENTRIES[entry]!.id, planned: planned(entry) })),
				},
			],
			stranger: { barred: ['depth-jump'], lines: [{ entryId: ENTRIES[0]!.id, planned: planned(0) }] },
		})
	}
	it('of the club: at the end of the queue with their own lines and limits, logged at once, undone as one', () => {
		const one = withOthers()
		const [event] = one.tap({ tap: 'join', athleteId: LATE, name: null, ids: newIds })
		expect(event).toMatchObject({ kind: 'guest', athleteId: LATE })
		expect(event!.value).not.toHaveProperty('name')
		expect(one.stand.queue.at(-1)!.line).toMatchObject({ athleteId: LATE, id: newIds[0], logs: 'sprint' })
		expect(one.stand.undoLabel).toBe('Sefa L., has come')
		one.tap({ tap: 'pick', athleteId: LATE })
		expect(one.stand.shown!.athlete).toMatchObject({ name: 'Sefa Lindqvist', level: 3, barred: ['pogo'] })
		expect(one.tap(run(3.2))[0]).toMatchObject({ athleteId: LATE, lineId: newIds[0] })
		// No line on the second entry, one on the third.
		expect(one.at(1).stand.queue).toHaveLength(4)
		expect(one.at(2).stand.queue.at(-1)!.line.id).toBe(newIds[1])
		one.tap({ tap: 'undo' })
		one.tap({ tap: 'undo' })
		expect(one.stand.queue).toHaveLength(4)
	})
	it('a guest by name gets what a stranger may do', () => {
		const one = withOthers()
		const [event] = one.tap({ tap: 'join', athleteId: newIds[3]!, name: 'Rosa Tellier', ids: newIds })
		expect(event).toMatchObject({ value: { name: 'Rosa Tellier', lines: [{ lineId: newIds[0] }] } })
		one.tap({ tap: 'pick', athleteId: newIds[3]! })
		expect(one.stand.shown!.athlete).toMatchObject({ name: 'Rosa Tellier', level: 1, barred: ['depth-jump'] })
		expect(one.stand.nameOf(newIds[3]!)).toBe('Rosa Tellier')
		// Said to be hurt: closed like anybody.
		one.tap({ tap: 'report', report: { kind: 'head' } })
		expect(one.stand.shown!.progress.over).not.toBeNull()
	})
	it('is nobody who is here already, who is unknown, or whose lines are not on this phone', () => {
		const one = withOthers()
		expect(one.tap({ tap: 'join', athleteId: ILKA, name: null, ids: newIds })).toEqual([])
		expect(one.tap({ tap: 'join', athleteId: newIds[3]!, name: null, ids: newIds })).toEqual([])
		expect(one.tap({ tap: 'join', athleteId: LATE, name: null, ids: newIds.slice(0, 1) })).toEqual([])
		expect(phone().tap({ tap: 'join', athleteId: LATE, name: 'Rosa', ids: newIds })).toEqual([])
	})
	it('taken in by mistake is off the sheet, also where a pack has them already; with a mark they stay', () => {
		const one = withOthers()
		one.tap({ tap: 'join', athleteId: LATE, name: null, ids: newIds })
		// What the server gives once it has taken them in.
		const fetched = one.stand.sheet
		const other = new Phone(fetched, '00000005-0000-7000-8000-000000000002', one.all)
		expect(other.stand.queue).toHaveLength(5)
		one.tap({ tap: 'undo' })
		expect(other.stand.sheet.athletes.map(({ id }) => id)).toEqual([ILKA, AMARU, TOVE, NOOR])
		expect(other.stand.sheet.lines.map(({ athleteId }) => athleteId)).not.toContain(LATE)
		one.tap({ tap: 'join', athleteId: LATE, name: null, ids: newIds })
		other.tap({ tap: 'pick', athleteId: LATE })
		other.tap(run(3.3))
		const joined = one.current.filter(({ kind }) => kind === 'guest')
		one.tap({ tap: 'take-back', events: joined, label: 'who came' })
		expect(other.stand.queue).toHaveLength(5)
		// Planned for the session, nobody is off it for that.
		const planned = new Phone(fourBySheet(), '00000005-0000-7000-8000-000000000003')
		const guest = one.all.find(({ kind }) => kind === 'guest')!
		planned.all.push({ ...guest, athleteId: ILKA, void: true } as LogEvent)
		expect(planned.stand.queue).toHaveLength(4)
	})
	it('taken in by two phones is there once, with the lines of the first', () => {
		const one = withOthers()
		const two = new Phone(one.sheet, '00000005-0000-7000-8000-000000000002', [])
		one.tap({ tap: 'join', athleteId: LATE, name: null, ids: newIds })
		two.tap({ tap: 'entry', by: 0 })
		two.tap({ tap: 'join', athleteId: LATE, name: null, ids: newIds.slice(2) })
		one.all.push(...two.all)
		expect(one.stand.queue.filter(({ line }) => line.athleteId === LATE).map(({ line }) => line.id)).toEqual([
			newIds[0],
		])
	})
})

describe('what is said of a rep', () => {
	it('belongs to the last rep of this drill, and a second grade takes the place of the first', () => {
		const one = phone()
		expect(one.tap({ tap: 'rate', grade: 'good' })).toEqual([])
		one.tap(run(3.02))
		one.tap({ tap: 'rate', grade: 'poor' })
		one.tap({ tap: 'rate', grade: 'good' })
		const grades = one.current.filter(({ kind }) => kind === 'quality')
		expect(said(grades)).toEqual([
			{ type: 'observation', kind: 'quality', athleteId: ILKA, value: { grade: 'good', scope: 'rep' } },
		])
		expect(one.stand.undoLabel).toBe('Ilka M., 3.02 s, good')
		one.at(1)
		expect(one.tap({ tap: 'rate', grade: 'good' })).toEqual([])
		// Both grades are part of the rep: one undo takes it back with them.
		one.tap({ tap: 'undo' })
		expect(one.current).toEqual([])
	})
	it('is taken back together with the rep, and the athlete stands on the line again', () => {
		const one = phone()
		const [mark] = one.tap(run(3.02))
		one.tap({ tap: 'rate', grade: 'poor' })
		const [grade] = one.current.filter(({ kind }) => kind === 'quality')
		one.tap({
			tap: 'amend',
			event: grade!,
			change: { value: { grade: 'poor', scope: 'rep', fault: 'Pops up' } } as never,
		})
		// The grade is said once, and stands with its fault.
		expect(one.stand.undoLabel).toBe('Ilka M., 3.02 s, poor')
		expect(one.current.filter(({ kind }) => kind === 'quality')).toMatchObject([{ value: { fault: 'Pops up' } }])
		one.tap({ tap: 'comfort', worst: 3, braking: true })
		expect(one.stand.undoLabel).toContain('comfort 3 of 5, braking')
		expect(one.current).toHaveLength(3)
		one.tap({ tap: 'undo' })
		expect(one.current).toEqual([])
		expect(one.name).toBe('Ilka Moreau')
		expect(one.stand.undoLabel).toBeNull()
		expect(one.all.filter(({ id }) => id === mark!.id)).toHaveLength(1)
	})
})

describe('undo', () => {
	it('takes back move after move, each by its name', () => {
		const one = phone()
		one.tap(run(3.01))
		one.tap(run(3.22))
		expect(one.stand.undoLabel).toBe('Amaru F., 3.22 s')
		one.tap({ tap: 'undo' })
		expect(one.stand.undoLabel).toBe('Ilka M., 3.01 s')
		one.tap({ tap: 'undo' })
		expect(one.current).toEqual([])
		expect(one.tap({ tap: 'undo' })).toEqual([])
	})
	it('puts a correction and a taking back as they were', () => {
		const one = phone()
		const [mark] = one.tap(run(3.01))
		one.tap({ tap: 'correct', event: mark!, change: { athleteId: TOVE, lineId: lineOf(0, 2).id } as never })
		expect(one.stand.undoLabel).toContain('corrected')
		expect(one.current[0]).toMatchObject({ athleteId: TOVE, lineId: lineOf(0, 2).id, deviceTime: mark!.deviceTime })
		one.tap({ tap: 'undo' })
		expect(one.current[0]).toMatchObject({
			athleteId: ILKA,
			lineId: lineOf(0, 0).id,
			value: { splits: [{ timeS: 3.01 }] },
		})
		one.tap({ tap: 'take-back', events: one.current, label: 'a mark taken back' })
		expect(one.current).toEqual([])
		one.tap({ tap: 'undo' })
		expect(one.current).toHaveLength(1)
		expect(one.current[0]).toMatchObject({ athleteId: ILKA, deviceTime: mark!.deviceTime })
		expect(one.current[0]).not.toHaveProperty('void')
	})
	it('is not the only way back: a mark that was taken back stands again as it was, at its own time', () => {
		const one = phone()
		const [mark] = one.tap(run(3.2))
		one.tap(run(3.3))
		one.tap({ tap: 'take-back', events: [mark!], label: 'a mark taken back' })
		const [again] = one.tap({ tap: 'bring-back', event: one.all.at(-1) as never, before: mark as never })
		expect(again).toMatchObject({ athleteId: ILKA, deviceTime: mark!.deviceTime, value: { splits: [{ timeS: 3.2 }] } })
		expect(again).not.toHaveProperty('void')
		expect(one.current.map(({ id }) => id)).toContain(again!.id)
		expect(one.stand.undoLabel).toBe('Ilka M., 3.20 s again')
		one.tap({ tap: 'undo' })
		expect(one.current.filter(({ athleteId }) => athleteId === ILKA)).toEqual([])
	})
	it('writes nothing of who wrote what it changes: that is told, and no part of the log', () => {
		const one = phone()
		const [mark] = one.tap(run(3.2))
		const told = { ...mark!, by: 'Ines Marlow' } as unknown as LogEvent
		expect(one.tap({ tap: 'correct', event: told, change: { side: 'left' } as never })[0]).not.toHaveProperty('by')
	})
	it('leaves what somebody else has changed since', () => {
		const one = phone()
		const [mark] = one.tap(run(3.01))
		const other = new Phone(one.sheet, '00000005-0000-7000-8000-000000000002', one.all)
		other.tap({
			tap: 'correct',
			event: mark!,
			change: { value: { splits: [{ distanceM: 20, timeS: 3.3 }], method: 'gate' } } as never,
		})
		expect(one.tap({ tap: 'undo' })).toEqual([])
		expect(one.current).toMatchObject([{ value: { splits: [{ timeS: 3.3 }] } }])
	})
	it('after a reload takes back what this phone wrote last, and nobody else’s', () => {
		const one = phone()
		one.tap(run(3.01))
		one.at(3).tap({ tap: 'reps', reps: 5, grade: 'good' })
		const other = new Phone(one.sheet, '00000005-0000-7000-8000-000000000002', one.all)
		other.tap(run(3.4))
		const again = new Phone(one.sheet, one.deviceId, one.all)
		expect(again.stand.undoLabel).toBe('good and 1 more')
		again.tap({ tap: 'undo' })
		expect(again.current.map(({ kind }) => kind)).toEqual(['sprint', 'sprint'])
		expect(new Phone(one.sheet, '00000005-0000-7000-8000-000000000003', one.all).stand.undoLabel).toBeNull()
	})
})

describe('what is about several athletes', () => {
	it('asks once, writes nothing before the answer, and is undone as one', () => {
		const one = phone()
		one.tap(run(3.01))
		one.tap({ tap: 'here', athleteId: NOOR, present: false })
		const before = one.current
		expect(one.tap({ tap: 'cut-short', reason: 'time' })).toEqual([])
		// Three are here: 4 starts, 3 rebounds, 3 jumps, 8 pogos each, one start done.
		expect(one.stand.cursor.asking?.words).toBe(
			'End the session now for 3 athletes: no time left? 53 reps stay undone.',
		)
		one.tap({ tap: 'no' })
		expect(one.stand.cursor.asking).toBeNull()
		expect(one.tap({ tap: 'sure' })).toEqual([])
		one.tap({ tap: 'cut-short', reason: 'time' })
		const events = one.tap({ tap: 'sure' })
		expect(events.map((event) => event.kind === 'cut-short' && [event.athleteId, event.value.left.reps])).toEqual([
			[ILKA, 17],
			[AMARU, 18],
			[TOVE, 18],
		])
		expect(one.stand.cutShort).toBe('no time left')
		expect(one.tap({ tap: 'cut-short', reason: 'heat' })).toEqual([])
		expect(one.stand.cursor.asking).toBeNull()
		one.tap({ tap: 'undo' })
		expect(said(one.current)).toEqual(said(before))
		expect(one.stand.cutShort).toBeNull()
	})
	it('ends the session with the reason: nobody is next, and the advice is not to go on', () => {
		const one = phone()
		one.tap(run(3.01))
		one.tap({ tap: 'cut-short', reason: 'lightning' })
		one.tap({ tap: 'sure' })
		expect(one.stand.shown!.advice).toMatchObject({ lead: 'Session ended.', rest: 'Lightning.', act: null })
		expect(one.stand.queue.every(({ halted }) => halted?.words === 'lightning')).toBe(true)
		one.tap({ tap: 'undo' })
		expect(one.stand.queue.every(({ halted }) => halted === null)).toBe(true)
	})
	it('goes on after all, whichever phone ended it', () => {
		const one = phone()
		expect(one.tap({ tap: 'go-on' })).toEqual([])
		expect(one.stand.cursor.asking).toBeNull()
		one.tap({ tap: 'cut-short', reason: 'lightning' })
		one.tap({ tap: 'sure' })
		const other = new Phone(one.sheet, '00000005-0000-7000-8000-000000000002', one.all)
		other.tap({ tap: 'go-on' })
		expect(other.stand.cursor.asking?.words).toBe('Go on after all, with 4 athletes?')
		expect(other.tap({ tap: 'sure' })).toHaveLength(4)
		expect([one.stand.cutShort, other.stand.cutShort]).toEqual([null, null])
		other.tap({ tap: 'undo' })
		expect(one.stand.cutShort).toBe('lightning')
	})
	it('swaps a drill for all who may do the other, and names who may not', () => {
		const sheet = fourBySheet()
		const athletes = sheet.athletes.map((athlete) =>
			athlete.id === TOVE ? { ...athlete, barred: ['broad-jump'] } : athlete,
		)
		const one = new Phone({ ...sheet, athletes }).at(1)
		expect(one.tap({ tap: 'swap', drill: drill('broad-jump'), who: 'shown' })).toEqual([])
		expect(one.stand.cursor.asking?.words).toBe(
			`${drill('broad-jump').name} instead, for 3 athletes? Not for Tove B.: it is not for them today.`,
		)
		expect(one.tap({ tap: 'sure' }).map(({ athleteId }) => athleteId)).toEqual([ILKA, AMARU, NOOR])
		expect(one.stand.undoLabel).toBe(`${drill('broad-jump').name} for 3 athletes`)
		one.tap({ tap: 'undo' })
		expect(one.current).toEqual([])
		// Nobody may: nothing to ask.
		const none = new Phone({ ...sheet, athletes: athletes.map((athlete) => ({ ...athlete, barred: ['broad-jump'] })) })
		none.at(1).tap({ tap: 'swap', drill: drill('broad-jump'), who: 'shown' })
		expect(none.stand.cursor.asking).toBeNull()
	})
	it('ends a drill for all who have not finished it', () => {
		const one = phone().at(3)
		one.tap({ tap: 'reps', reps: 8, grade: null })
		one.tap({ tap: 'reps', reps: 2, grade: null })
		one.tap({ tap: 'end', reason: 'coach', who: 'shown' })
		expect(one.stand.cursor.asking?.words).toBe('End this drill for 3 athletes? 1 of them have begun.')
		expect(one.tap({ tap: 'sure' }).map(({ athleteId }) => athleteId)).toEqual([AMARU, TOVE, NOOR])
		expect(one.tap({ tap: 'end', reason: 'coach', who: 'shown' })).toEqual([])
		expect(one.stand.cursor.asking).toBeNull()
		one.at(0).tap({ tap: 'end', reason: 'weather', who: 'shown' })
		expect(one.stand.cursor.asking?.words).toBe('End this drill for 4 athletes? Nobody has begun.')
	})
	it('puts everybody into groups by level, and shows one of them', () => {
		const sheet = fourBySheet()
		const athletes = sheet.athletes.map((athlete, index) => ({ ...athlete, level: ([1, 2, 1, 3] as const)[index]! }))
		const one = new Phone({ ...sheet, athletes })
		one.tap({ tap: 'split' })
		expect(one.tap({ tap: 'sure' })).toHaveLength(4)
		one.tap({ tap: 'group', group: 1 })
		expect(one.stand.queue.map(({ line }) => line.athleteId)).toEqual([ILKA, TOVE])
		one.tap({ tap: 'to-group', athleteId: TOVE, group: 3 })
		expect(one.stand.queue.map(({ line }) => line.athleteId)).toEqual([ILKA])
		one.tap({ tap: 'group', group: 3 })
		expect(one.stand.queue.map(({ line }) => line.athleteId)).toEqual([TOVE, NOOR])
		expect(one.stand.everybody).toHaveLength(4)
	})
})

describe('who is here', () => {
	it('leaves the queue, and comes back at its end', () => {
		const one = phone()
		one.tap({ tap: 'here', athleteId: ILKA, present: false })
		expect(one.name).toBe('Amaru Fenn')
		expect(one.stand.undoLabel).toBe('Ilka M., not here')
		expect([...one.stand.away]).toEqual([ILKA])
		one.tap({ tap: 'here', athleteId: ILKA, present: true })
		expect(one.stand.queue.map(({ line }) => line.athleteId)).toEqual([AMARU, TOVE, NOOR, ILKA])
		one.tap({ tap: 'undo' })
		expect([...one.stand.away]).toEqual([ILKA])
	})
	it('of a group leaves and comes back to it, with nobody else’s leaving taken back', () => {
		const one = phone()
		one.tap({ tap: 'to-group', athleteId: AMARU, group: 2 })
		one.tap({ tap: 'to-group', athleteId: ILKA, group: 3 })
		for (const athleteId of [TOVE, ILKA]) one.tap({ tap: 'here', athleteId, present: false })
		one.tap({ tap: 'note', about: 'athlete', text: 'late' })
		one.tap({ tap: 'here', athleteId: ILKA, present: true })
		expect([...one.stand.away]).toEqual([TOVE])
		expect(one.stand.undoLabel).toBe('Ilka M., has come')
		expect(one.stand.order.find(({ athleteId }) => athleteId === ILKA)?.group).toBe(3)
		expect(one.current.some(({ kind }) => kind === 'note')).toBe(true)
	})
	it('keeps the place in the queue when put into a group, and the group when moved', () => {
		const one = phone()
		const places = () => one.stand.order.map(({ athleteId, group }) => [athleteId, group])
		one.tap({ tap: 'to-group', athleteId: TOVE, group: 2 })
		expect(one.stand.undoLabel).toBe('Tove B., group 2')
		expect(places()).toEqual([
			[ILKA, 0],
			[AMARU, 0],
			[TOVE, 2],
			[NOOR, 0],
		])
		one.tap({ tap: 'to-group', athleteId: NOOR, group: 1 })
		one.tap({ tap: 'move', athleteId: TOVE, to: 0 })
		expect(places()).toEqual([
			[TOVE, 2],
			[ILKA, 0],
			[AMARU, 0],
			[NOOR, 1],
		])
		one.tap({ tap: 'to-group', athleteId: TOVE, group: 0 })
		expect(one.stand.undoLabel).toBe('Tove B., no group')
		expect(places()[0]).toEqual([TOVE, 0])
	})
	it('is moved by hand', () => {
		const one = phone()
		one.tap({ tap: 'move', athleteId: NOOR, to: 0 })
		expect(one.stand.queue.map(({ line }) => line.athleteId)).toEqual([NOOR, ILKA, AMARU, TOVE])
		one.tap({ tap: 'move', athleteId: ILKA, to: 3 })
		expect(one.stand.queue.map(({ line }) => line.athleteId)).toEqual([NOOR, AMARU, TOVE, ILKA])
	})
})

describe('the ground', () => {
	it('that is wet from now on closes rebounds at once, and opens them when it was a slip', () => {
		const one = phone().at(1)
		one.tap({ tap: 'conditions', value: { surface: 'wet-grass' } })
		expect(one.stand.surface).toBe('wet-grass')
		expect(one.stand.queue.map(({ halted }) => halted?.words)).toEqual(
			Array.from({ length: 4 }, () => 'wet grass, no rebounds from a box'),
		)
		expect(one.stand.shown!.advice).toMatchObject({
			lead: 'Not on this ground.',
			act: { draft: { value: { reason: 'weather' } } },
		})
		one.tap({ tap: 'swap', drill: drill('broad-jump'), who: 'one' })
		expect(one.stand.shown!.progress.halted).toBeNull()
		one.tap({ tap: 'undo' })
		expect(one.at(0).stand.queue.every(({ halted }) => halted === null)).toBe(true)
		one.tap({ tap: 'undo' })
		expect(one.at(1).stand.queue.every(({ halted }) => halted === null)).toBe(true)
		expect(one.stand.surface).toBe('grass')
	})
	it('planned wet was answered when it was planned', () => {
		const sheet = fourBySheet()
		const one = new Phone({ ...sheet, session: { ...sheet.session, surface: 'wet-grass' } }).at(1)
		expect(one.stand.queue.every(({ halted }) => halted === null)).toBe(true)
	})
	it('and the wind hold for what comes', () => {
		const one = phone()
		expect(one.stand.windMps).toBeNull()
		one.tap({ tap: 'conditions', value: { windMps: -1.2 } })
		one.tap({ tap: 'conditions', value: { surface: 'track' } })
		expect(one.stand).toMatchObject({ windMps: -1.2, surface: 'track', undoLabel: 'track from now' })
	})
})

describe('what is said of the body', () => {
	it('is over at once, stands in front until it was heard, and a slip is taken back', () => {
		const one = phone()
		const value = { region: 'knee', side: 'left', score: 6, redFlag: false } as const
		const [report] = one.tap({ tap: 'report', report: { kind: 'pain', value } })
		expect(report).toMatchObject({ athleteId: ILKA, entryId: ENTRIES[0]!.id, value: { moment: 'during', score: 6 } })
		expect(one.stand.undoLabel).toBe('Ilka M., pain 6')
		expect(one.stand.cursor.hurt).toMatchObject({ athleteId: ILKA, event: { id: report!.id } })
		expect(one.stand.shown).toMatchObject({ athlete: { id: ILKA }, advice: { lead: 'Stop here.', act: null } })
		one.tap({ tap: 'slip' })
		expect(one.stand.cursor.hurt).toBeNull()
		expect(one.current).toEqual([])
		// Nothing stands in front by now that could be one.
		expect(one.tap({ tap: 'slip' })).toEqual([])
		one.tap({ tap: 'report', report: { kind: 'unwell' } })
		expect(one.stand.undoLabel).toBe('Ilka M., unwell')
		one.tap({ tap: 'heard' })
		expect(one.stand.cursor.hurt).toBeNull()
		expect(one.current).toHaveLength(1)
		// Nothing maximal when unwell: the next one comes on the line. Who may go on stays there.
		expect(one.name).toBe('Amaru Fenn')
		one.tap({ tap: 'report', report: { kind: 'pain', value: { ...value, score: 1 } } })
		one.tap({ tap: 'heard' })
		expect(one.name).toBe('Amaru Fenn')
	})
	it('was somebody else’s: on their line, and one undo takes it back', () => {
		const one = phone()
		one.tap({ tap: 'report', report: { kind: 'head' } })
		one.at(1)
		one.tap({ tap: 'other', athleteId: TOVE })
		expect(one.current).toMatchObject([{ kind: 'head', athleteId: TOVE, lineId: lineOf(0, 2).id }])
		expect(one.stand.cursor.hurt?.athleteId).toBe(TOVE)
		expect(one.stand.limitsOf(ILKA).closures).toEqual([])
		expect(one.stand.limitsOf(TOVE).closures).toMatchObject([{ grade: 'everything' }])
		one.tap({ tap: 'undo' })
		expect(one.current).toEqual([])
	})
	it('is asked after the work on it: put off, or answered, and from 2 on it is a report', () => {
		const one = phone({ ask: [{ region: 'calf', side: 'both' }] }).at(3)
		expect(one.stand.asks).toEqual([])
		one.tap({ tap: 'reps', reps: 8, grade: null })
		expect(one.stand.asks.map(({ athleteId }) => athleteId)).toEqual([ILKA])
		one.tap({ tap: 'later', asked: one.stand.asks[0]! })
		expect(one.stand.asks).toEqual([])
		one.tap({ tap: 'reps', reps: 8, grade: null })
		one.tap({ tap: 'answer', asked: one.stand.asks[0]!, score: 1 })
		expect(one.stand.cursor.hurt).toBeNull()
		one.tap({ tap: 'reps', reps: 8, grade: null })
		one.tap({ tap: 'answer', asked: one.stand.asks[0]!, score: 2 })
		expect(one.stand.cursor.hurt).toMatchObject({ athleteId: TOVE, event: { kind: 'quiet' } })
	})
	it('is not asked of who has gone, and again of who came back', () => {
		const one = phone({ ask: [{ region: 'calf', side: 'both' }] }).at(3)
		one.tap({ tap: 'reps', reps: 8, grade: null })
		one.tap({ tap: 'here', athleteId: ILKA, present: false })
		expect(one.stand.asks).toEqual([])
		one.tap({ tap: 'here', athleteId: ILKA, present: true })
		expect(one.stand.asks.map(({ athleteId }) => athleteId)).toEqual([ILKA])
	})
	it('a worry is of what the drill loads most', () => {
		const one = phone().at(1)
		const [worry] = one.tap({ tap: 'worry' })
		const loads = drill('depth-jump').regions
		expect(worry?.kind === 'worry' && loads[worry.value.region]).toBe(Math.max(...Object.values(loads)))
	})
	it('closed by hand on another phone is closed here', () => {
		const one = phone().at(1)
		one.limits = { [ILKA]: { closures: [], shut: [{ words: 'depth jump', drillId: 'depth-jump' }], easyOnly: false } }
		expect(one.stand.everybody.map(({ over }) => over)).toEqual(['depth jump', null, null, null])
		expect(one.name).toBe('Amaru Fenn')
	})
})

describe('what is said of whom it was seen on', () => {
	/** Ilka was on the line when it was begun; a device has moved it on to Amaru since. */
	const movedOn = (sheet = fourBySheet()) => {
		const one = new Phone(sheet)
		one.tap(run(3.01))
		expect(one.name).toBe('Amaru Fenn')
		return one
	}
	const PAIN = { kind: 'pain', value: { region: 'calf', side: 'left', score: 4, redFlag: false } } as const
	const LINE = { entryId: ENTRIES[0]!.id, lineId: lineOf(0, 0).id }

	it('stays theirs, whoever is on the line by now, and changes nobody on it', () => {
		const one = movedOn()
		expect(one.tap({ tap: 'report', athleteId: ILKA, report: PAIN })).toMatchObject([{ athleteId: ILKA, ...LINE }])
		expect(one.stand.cursor.hurt?.athleteId).toBe(ILKA)
		expect(one.tap({ tap: 'worry', athleteId: ILKA })).toMatchObject([{ kind: 'worry', athleteId: ILKA, ...LINE }])
		const note = { tap: 'note', text: 'late' } as const
		expect(one.tap({ ...note, about: 'drill', athleteId: ILKA })).toMatchObject([{ athleteId: ILKA, ...LINE }])
		expect(one.tap({ ...note, about: 'athlete', athleteId: ILKA })[0]).not.toHaveProperty('entryId')
		const pogo = { tap: 'swap', drill: drill('pogo'), who: 'one', athleteId: ILKA } as const
		expect(one.tap(pogo)).toMatchObject([{ kind: 'swap', athleteId: ILKA, ...LINE }])
		const ended = one.tap({ tap: 'end', reason: 'pain', who: 'one', athleteId: ILKA })
		expect(ended).toMatchObject([{ kind: 'end-set', athleteId: ILKA, ...LINE }])
		expect(one.name).toBe('Amaru Fenn')
	})
	it('a number, a set, a missed turn or an advice is not: it is for who was there', () => {
		const one = movedOn()
		expect(one.tap({ ...run(3.4), athleteId: ILKA } as Touch)).toEqual([])
		for (const tap of ['missed', 'untimed', 'advice'] as const) expect(one.tap({ tap, athleteId: ILKA })).toEqual([])
		expect(one.tap({ tap: 'reps', reps: 4, grade: 'good', athleteId: ILKA })).toEqual([])
		expect(one.tap({ ...run(3.4), athleteId: AMARU } as Touch)).toMatchObject([{ athleteId: AMARU }])
	})
	it('a report is kept of somebody who has left, and of somebody without a line', () => {
		const one = movedOn()
		one.tap({ tap: 'here', athleteId: ILKA, present: false })
		expect(one.tap({ tap: 'report', athleteId: ILKA, report: PAIN })).toMatchObject([{ athleteId: ILKA, ...LINE }])
		const sheet = fourBySheet()
		const without = movedOn({ ...sheet, lines: sheet.lines.filter(({ id }) => id !== lineOf(0, 3).id) })
		const [kept] = without.tap({ tap: 'report', athleteId: NOOR, report: { kind: 'head' } })
		expect(kept).toMatchObject({ kind: 'head', athleteId: NOOR })
		expect(kept).not.toHaveProperty('lineId')
		expect(without.stand.cursor.hurt?.athleteId).toBe(NOOR)
		// A worry is about what somebody does there.
		expect(without.tap({ tap: 'worry', athleteId: NOOR })).toEqual([])
		expect(without.tap({ tap: 'end', reason: 'coach', who: 'one', athleteId: NOOR })).toEqual([])
	})
})

describe('a note', () => {
	it('is about the session, an athlete, what they do, or their last rep', () => {
		const one = phone()
		expect(one.tap({ tap: 'note', about: 'rep', text: 'late' })).toEqual([])
		one.tap(run(3.01))
		const note = (about: 'session' | 'athlete' | 'drill' | 'rep') => one.tap({ tap: 'note', about, text: 'late' })[0]
		expect(note('rep')).toMatchObject({ kind: 'note', athleteId: ILKA, setNo: 1, repNo: 1, lineId: lineOf(0, 0).id })
		const drillNote = note('drill')
		expect(drillNote).toMatchObject({
			athleteId: AMARU,
			lineId: lineOf(0, 1).id,
			value: { about: 'drill', text: 'late' },
		})
		expect(drillNote).not.toHaveProperty('setNo')
		expect(note('athlete')).not.toHaveProperty('lineId')
		expect(note('session')).toMatchObject({ athleteId: null })
		expect(one.stand.undoLabel).toBe('note: late')
	})
})

describe('advice', () => {
	it('writes the very event its button stands for', () => {
		const one = phone({}, { parameters: { distanceM: 20, loadG: 250 } })
		one.tap(run(3.01))
		one.tap({ tap: 'pick', athleteId: ILKA })
		const { act } = one.stand.shown!.advice
		expect(act).toMatchObject({ label: 'Take it off now' })
		expect(one.tap({ tap: 'advice' })).toMatchObject([act!.draft])
		expect(one.name).toBe('Ilka Moreau')
		const none = phone()
		expect(none.tap({ tap: 'advice' })).toEqual([])
	})
	it('that ends the set moves on', () => {
		const one = phone()
		one.tap(run(3.01))
		one.tap({ tap: 'pick', athleteId: ILKA })
		one.tap({ tap: 'report', report: { kind: 'unwell' } })
		one.tap({ tap: 'heard' })
		one.tap({ tap: 'pick', athleteId: ILKA })
		expect(one.tap({ tap: 'advice' })).toMatchObject([{ athleteId: ILKA, kind: 'end-set', value: { reason: 'pain' } }])
		expect(one.stand.undoLabel).toBe('set ended')
		expect(one.name).toBe('Amaru Fenn')
	})
})

describe('an end by hand', () => {
	it('moves on, and says whose it was', () => {
		const one = phone().at(2)
		one.tap({ tap: 'end', reason: 'coach', who: 'one' })
		expect(one.name).toBe('Amaru Fenn')
		expect(one.stand.undoLabel).toBe('Ilka M., ended')
	})
})

describe('pieces that follow each other', () => {
	const piece = (judged: boolean) => {
		const {
			id: _id,
			entryId: _entry,
			athleteId: _athlete,
			dose: _dose,
			blocked: _blocked,
			over: _over,
			...work
		} = lineOf(0, 0)
		return { ...work, reps: 1, judged, rest: { repsS: 0, setsS: 0 } }
	}
	const complex = (betweenS: number) =>
		phone({}, {
			dose: { sets: 2, reps: 1 },
			rest: { repsS: betweenS, setsS: 180 },
			pieces: [piece(false), piece(true)],
		} as never)
	it('within fifteen seconds are one athlete’s; with a longer rest between somebody else goes meanwhile', () => {
		const straight = complex(15)
		expect(straight.tap(run(3))[0]).toMatchObject({ athleteId: ILKA, setNo: 1, repNo: 1, piece: 1 })
		expect(straight.name).toBe('Ilka Moreau')
		expect(straight.tap(run(3))[0]).toMatchObject({ athleteId: ILKA, setNo: 1, piece: 2 })
		// After the last piece of a round the next athlete comes.
		expect(straight.name).toBe('Amaru Fenn')
		const apart = complex(16)
		apart.tap(run(3))
		expect(apart.name).toBe('Amaru Fenn')
	})
	it('a rep of a line without pieces has none', () => {
		expect(phone().tap(run(3))[0]).not.toHaveProperty('piece')
	})
})

describe('what somebody goes on with today', () => {
	it('are the open lines behind preparation, in the order of the sheet, and nobody else’s', () => {
		const sheet = fourBySheet()
		const lines = sheet.lines.map((line) =>
			line.entryId === ENTRIES[3]!.id ? { ...line, family: 'prepare' as const } : line,
		)
		const one = new Phone({ ...sheet, lines })
		const left = (athleteId: string) => remaining(one.stand, athleteId).map(({ line }) => line.words)
		expect(left(ILKA)).toEqual(['Starts', 'Rebounds', 'Broad jumps'])
		one.tap({ tap: 'end', reason: 'coach', who: 'one' })
		expect(left(ILKA)).toEqual(['Rebounds', 'Broad jumps'])
		expect(left(AMARU)).toEqual(['Starts', 'Rebounds', 'Broad jumps'])
	})
})
