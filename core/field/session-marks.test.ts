import { expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import { marksOfSession } from './session-marks'

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
