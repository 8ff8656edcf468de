import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import type { ToldEvent } from './pack'
import { marksOfSession, sayHistory, takenBack } from './session-marks'

const sheet = {
	entries: ['e1', 'e2', 'e3'].map((id) => ({ id, part: id, name: `Drill ${id}` })),
	athletes: ['b', 'a'].map((id) => ({ id, name: `Athlete ${id}` })) as never[],
}
let seq = 0
const mark = (entryId: string, athleteId: string, setNo: number, repNo: number, type = 'mark') =>
	({
		id: `${entryId}${athleteId}${setNo}${repNo}`,
		entryId,
		athleteId,
		setNo,
		repNo,
		type,
		deviceId: 'd',
		deviceSeq: ++seq,
	}) as unknown as LogEvent

it('is every mark that stands, by entry and athlete as on the sheet, reps in order', () => {
	const events = [
		mark('e3', 'a', 1, 1),
		mark('e1', 'a', 2, 1),
		mark('e1', 'a', 1, 2),
		mark('e1', 'b', 1, 1),
		mark('e1', 'a', 1, 1),
		mark('e1', 'a', 1, 1, 'observation'),
		// Of nobody on the sheet, and of no entry of it.
		mark('e1', 'z', 1, 1),
		mark('e9', 'a', 1, 1),
	]
	expect(
		marksOfSession(sheet, events).map(({ entry, people }) => [
			entry.name,
			people.map(({ name, marks }) => [name, marks.map(({ id }) => id)]),
		]),
	).toEqual([
		[
			'Drill e1',
			[
				['Athlete b', ['e1b11']],
				['Athlete a', ['e1a11', 'e1a12', 'e1a21']],
			],
		],
		['Drill e3', [['Athlete a', ['e3a11']]]],
	])
	expect(marksOfSession(sheet, [])).toEqual([])
})

describe('what became of a mark', () => {
	const run = (id: string, minute: number, timeS: number, change: object = {}) =>
		({
			...mark('e1', 'a', 1, 1),
			id,
			kind: 'sprint',
			value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
			deviceTime: `2026-03-12T17:${minute}:00.000Z`,
			...change,
		}) as unknown as ToldEvent
	const clock = (instant: string) => instant.slice(11, 16)
	const first = run('1', 42, 3.12)
	const second = run('2', 42, 3.21, { replacesId: '1', by: 'Ines Marlow' })
	const third = run('3', 42, 3.2, { replacesId: '2' })

	it('is told from the first number on, with who changed it', () => {
		expect(sayHistory(third, [third, second, first], 'd', clock)).toBe(
			'17:42 3.12 s → 17:42 3.21 s, by Ines Marlow → 17:42 3.20 s, on this phone',
		)
		expect(sayHistory(first, [first], 'd', clock)).toBe('17:42 3.12 s')
		// Another phone's, whose owner nobody has said yet.
		expect(sayHistory(third, [third, first], 'another', clock)).toBe('17:42 3.20 s')
	})
	it('ends where a chain bites its tail, which no device writes', () => {
		const loop = run('1', 42, 3.12, { replacesId: '2' })
		expect(sayHistory(loop, [loop, second], 'd', clock)).toBe(
			'17:42 3.21 s, by Ines Marlow → 17:42 3.12 s, on this phone',
		)
	})
	it('is listed when it was taken back, the newest first, until it is brought back', () => {
		const gone = run('4', 50, 3.2, { replacesId: '3', void: true })
		const other = run('5', 44, 4, {})
		const otherGone = run('6', 55, 4, { replacesId: '5', void: true })
		const all = [first, second, third, gone, other, otherGone]
		expect(takenBack(all).map(({ event, before }) => [event.id, before.id])).toEqual([
			['6', '5'],
			['4', '3'],
		])
		expect(takenBack([...all, run('7', 42, 3.2, { replacesId: '4' })]).map(({ event }) => event.id)).toEqual(['6'])
		// What it took back has not come, or is no mark: there is nothing to bring back.
		expect(takenBack([gone])).toEqual([])
		expect(takenBack([{ ...gone, type: 'observation' } as ToldEvent, third])).toEqual([])
	})
})
