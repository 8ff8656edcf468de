import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import { type Recorded, sayTurns, sessionDone } from './session-done'

// Two athletes, two drills; what was logged, by whom and when, and what it reads as afterwards.
const sheet = {
	entries: [
		{ id: 'e1', name: 'Starts' },
		{ id: 'e2', name: 'Pogos' },
	],
	athletes: [
		{ id: 'a', name: 'Ilka Moreau', lines: [{ entryId: 'e1', planned: 4 }] },
		{
			id: 'b',
			name: 'Tove Brandt',
			lines: [
				{ entryId: 'e1', planned: 2 },
				{ entryId: 'e2', planned: 8 },
			],
		},
	],
	drillName: (id: string) => ({ pogo: 'Pogo', 'wall-drill': 'Wall drill' })[id] ?? id,
}
let seq = 0
const event = (type: string, kind: string, value: object, more: object = {}): Recorded =>
	({
		id: `e${seq}`,
		sessionId: 's',
		athleteId: 'a',
		deviceId: 'd',
		deviceSeq: seq++,
		deviceTime: `2026-03-12T17:${10 + (seq % 40)}:00.000Z`,
		type,
		kind,
		value,
		author: 'Ines Marlow',
		...more,
	}) as unknown as Recorded
const at = (repNo: number, more: object = {}) => ({ entryId: 'e1', lineId: 'l', setNo: 1, repNo, ...more })
const run = (repNo: number, timeS: number, more: object = {}) =>
	event('mark', 'sprint', { splits: [{ distanceM: 20, timeS }], method: 'gate' }, at(repNo, more))
const clock = (instant: string) => instant.slice(11, 16)
const done = (...events: Recorded[]) => sessionDone(sheet, events, events, clock)

describe('a session as it was done', () => {
	it('has every drill with whoever has a line on it, the marks in the order of the reps', () => {
		const { drills } = done(run(2, 3.2), run(1, 3.1), run(1, 3.4, { athleteId: 'b' }))
		expect(
			drills.map(({ name, people }) => [
				name,
				people.map((one) => [one.name, one.planned, one.reps.map(({ said }) => said)]),
			]),
		).toEqual([
			[
				'Starts',
				[
					['Ilka Moreau', 4, ['3.10 s', '3.20 s']],
					['Tove Brandt', 2, ['3.40 s']],
				],
			],
			['Pogos', [['Tove Brandt', 8, []]]],
		])
	})
	it('shows who did something without a line there', () => {
		const { drills } = done(run(1, 3.1, { entryId: 'e2' }))
		expect(drills[1]!.people.map(({ name, planned }) => [name, planned])).toEqual([
			['Ilka Moreau', 0],
			['Tove Brandt', 8],
		])
	})
	it('says of a mark when, by what and by whom, and what it was before', () => {
		const first = run(1, 3.1, { deviceTime: '2026-03-12T17:42:00.000Z' })
		expect(done(first).drills[0]!.people[0]!.reps[0]!.how).toBe('17:42 3.10 s, gate, by Ines Marlow')
		const now = run(1, 3.2, {
			deviceTime: '2026-03-12T17:42:00.000Z',
			replacesId: first.id,
			by: 'Cato Lind',
			source: 'x',
		})
		expect(sessionDone(sheet, [now], [first, now], clock).drills[0]!.people[0]!.reps[0]!.how).toBe(
			'17:42 3.10 s → 17:42 3.20 s, by Cato Lind, gate, by device',
		)
		expect(done(run(1, 2.02, { aside: true, side: 'left' })).drills[0]!.people[0]!.reps[0]).toMatchObject({
			aside: true,
			side: 'left',
		})
		const missed = event('mark', 'missed', { reason: 'false-start' }, at(1))
		expect(done(missed).drills[0]!.people[0]!.reps[0]).toMatchObject({ said: 'false start', aside: false, side: null })
	})
	it('puts what was seen of a rep beside that rep, and of a set beside the athlete', () => {
		const events = [
			run(1, 3.1),
			run(2, 3.2),
			event('observation', 'quality', { grade: 'poor', scope: 'rep', faults: ['Late foot', 'Folded hip'] }, at(2)),
			event('observation', 'note', { about: 'rep', text: 'left foot lands late' }, at(1)),
			event('observation', 'comfort', { worst: 2, braking: true }, at(1)),
			event('observation', 'quality', { grade: 'not-yet', scope: 'set' }, at(1)),
			event('observation', 'quality', { grade: 'good', scope: 'rep' }, at(1, { athleteId: 'b' })),
		]
		const [ilka] = done(...events).drills[0]!.people
		expect(ilka!.reps.map(({ words }) => words)).toEqual([
			['“left foot lands late”', 'comfort 2 of 5, braking'],
			['poor, Late foot, Folded hip'],
		])
		expect(ilka!.words).toEqual(['set 1 not yet'])
	})
	it('names the drill that was done in place of another, what ended a line and what was said there', () => {
		const on = { entryId: 'e1', lineId: 'l' }
		const { words, reps } = done(
			event('decision', 'swap', { drillId: 'wall-drill', drillVersion: 1 }, on),
			run(1, 3.1, { asDrill: { drillId: 'wall-drill', drillVersion: 1 } }),
			event('decision', 'load-off', { reason: 'minutes' }, on),
			event('decision', 'fast-day', {}, on),
			event('observation', 'note', { about: 'drill', text: 'heavy legs' }, on),
			event('observation', 'pain', { region: 'knee', side: 'left', score: 4, redFlag: true }, on),
			event('observation', 'unwell', {}, on),
			event('decision', 'end-set', { reason: 'refusal' }, on),
			event('decision', 'queue', { group: 1, position: 2 }),
		).drills[0]!.people[0]!
		expect(words).toEqual([
			'Wall drill instead',
			'weight off',
			'fast day taken',
			'“heavy legs”',
			'left knee 4 of 10, red flag',
			'unwell',
			'ended: would not go on',
		])
		expect(reps[0]!.words).toEqual(['as Wall drill'])
	})
	it('says of people what belongs to no drill', () => {
		const when = { deviceTime: '2026-03-12T18:05:00.000Z' }
		expect(
			done(
				event('observation', 'effort', { rpe: 6.5, minutes: 70 }),
				event('observation', 'note', { about: 'athlete', text: 'slept badly' }),
				event('observation', 'quiet', { region: 'knee', side: 'left', score: 1 }),
				event('observation', 'pain', { region: 'hip', side: 'both', score: 2, redFlag: false }, when),
				event('observation', 'note', { about: 'session', text: 'cold' }, { athleteId: null }),
			).people,
		).toEqual([
			{
				name: 'Ilka Moreau',
				words: ['effort 6.5 of 10 over 70 min', '“slept badly”', 'asked: left knee 1 of 10', 'hip 2 of 10, 18:05'],
			},
		])
		expect(done(run(1, 3.1)).people).toEqual([])
	})
	it('says what held for everybody, in the order it was said, then the end and who was there', () => {
		const when = (minute: number, more: object = {}) => ({ deviceTime: `2026-03-12T18:${minute}:00.000Z`, ...more })
		const all = when(10, { athleteId: null })
		expect(
			done(
				event('decision', 'cut-short', { reason: 'lightning', left: {} }, when(40)),
				event('decision', 'cut-short', { reason: 'lightning', left: {} }, when(40, { athleteId: 'b' })),
				event('decision', 'conditions', { surface: 'wet-grass' }, { ...all, ...when(20) }),
				event('decision', 'conditions', { windMps: -1.2 }, { ...all, ...when(15) }),
				event('decision', 'further', { drillId: 'pogo', drillVersion: 1, lines: [{}, {}] }, { ...all, ...when(25) }),
				event('decision', 'drill-order', { entryIds: [] }, { ...all, ...when(26) }),
				event('observation', 'note', { about: 'session', text: 'cold and wet' }, { ...all, ...when(27) }),
				event('decision', 'guest', {}, when(12, { athleteId: 'b' })),
				event('decision', 'attendance', { present: false }, when(11)),
				event('decision', 'attendance', { present: true }, when(11, { athleteId: 'b' })),
			).day,
		).toEqual([
			'Wind -1.2 m/s from 18:15.',
			'Wet grass from 18:20.',
			'Pogo added at 18:25 for 2.',
			'Drills in another order from 18:26.',
			'“cold and wet”, Ines Marlow.',
			'Ended early for 2 at 18:40: lightning.',
			'Came without being on the list: Tove Brandt.',
			'Not there to the end: Ilka Moreau.',
		])
		expect(done().day).toEqual([])
	})
	it('on the sheet says what turned it, and nothing of anybody', () => {
		const at = (minute: number, athleteId: string | null = 'a') => ({
			deviceTime: `2026-03-12T18:${minute}:00.000Z`,
			athleteId,
		})
		const turns = sayTurns(
			[
				event('decision', 'cut-short', { reason: 'heat', left: {} }, at(40)),
				event('decision', 'conditions', { surface: 'wet-grass' }, at(20, null)),
				event('decision', 'attendance', { present: false }, at(11)),
				event('observation', 'note', { about: 'session', text: 'cold and wet' }, at(27, null)),
			] as unknown as LogEvent[],
			(instant) => instant.slice(11, 16),
		)
		expect(turns).toEqual(['Wet grass from 18:20.', 'Ended early for 1 at 18:40: heat.'])
		expect(sayTurns([], String)).toEqual([])
	})
})
