import { describe, expect, it } from 'vitest'
import { type SaidEvent, saidOfBody } from './said'

// An undo within two minutes by its author on the same device is a slip: no closure. Later, what closed a region (5 or
// more, a red flag, head, chest, 3 or more on two days within 14) still wants its clearance when it is withdrawn.
// "Wrong athlete" moves a report. The order of arrival changes nothing.

const at = (seconds: number) => new Date(Date.UTC(2026, 2, 12, 17, 0, seconds)).toISOString()
const pain = (id: string, score: number, more: Partial<SaidEvent> & { redFlag?: boolean; region?: string } = {}) => {
	const { redFlag = false, region = 'knee', ...rest } = more
	return {
		id,
		athleteId: 'ana',
		kind: 'pain',
		value: { region, side: 'left', score, redFlag },
		deviceId: 'phone',
		deviceTime: at(0),
		authorId: 'bo',
		day: '2026-03-12',
		...rest,
	} as SaidEvent
}
const back = (of: SaidEvent, seconds: number, more: Partial<SaidEvent> = {}): SaidEvent => ({
	...of,
	id: `${of.id}-back`,
	replacesId: of.id,
	void: true,
	deviceTime: at(seconds),
	...more,
})
const ids = (...events: SaidEvent[]) => saidOfBody(events).map(({ id }) => id)

describe('taken back', () => {
	it.each([
		['at once', 0, {}, []],
		['after two minutes sharp', 120, {}, []],
		['a second later', 121, {}, ['x']],
		['on another phone', 10, { deviceId: 'tablet' }, ['x']],
		['by somebody else', 10, { authorId: 'coach' }, ['x']],
		['by a clock that went back', -1, {}, ['x']],
	] as [string, number, Partial<SaidEvent>, string[]][])('%s', (_name, seconds, more, expected) => {
		const six = pain('x', 6)
		expect(ids(six, back(six, seconds, more))).toEqual(expected)
		expect(ids(back(six, seconds, more), six)).toEqual(expected)
	})
	it.each([
		['4 of 10', pain('x', 4), []],
		['5 of 10', pain('x', 5), ['x']],
		['1 with a red flag', pain('x', 1, { redFlag: true }), ['x']],
		['a head', pain('x', 0, { kind: 'head', value: {} }), ['x']],
		['a chest', pain('x', 0, { kind: 'chest', value: {} }), ['x']],
		['an answer of 5', pain('x', 5, { kind: 'quiet' }), ['x']],
		['an answer of 1', pain('x', 1, { kind: 'quiet' }), []],
	] as [string, SaidEvent, string[]][])(
		'an hour later, %s: what closed is not opened by that',
		(_name, one, expected) => {
			expect(ids(one, back(one, 3600))).toEqual(expected)
		},
	)
	it('corrected down an hour later: both stand; as a slip only the correction', () => {
		const six = pain('x', 6)
		const two = (seconds: number) => back(six, seconds, { void: false, value: { ...six.value, score: 2 } })
		expect(ids(six, two(3600)).sort()).toEqual(['x', 'x-back'])
		expect(ids(six, two(60))).toEqual(['x-back'])
	})
	it('a correction of what was taken back as a slip brings nothing back', () => {
		const six = pain('x', 6)
		const gone = back(six, 30)
		expect(ids(six, gone, back(gone, 4000, { id: 'y', void: true }))).toEqual([])
	})
	it('nothing is said twice: what stands and closed stands once', () => {
		const [six, seven] = [pain('x', 6), pain('y', 7)]
		expect(ids(six, seven, six)).toEqual(['x', 'y'])
	})
})

describe('3 or more on two days within 14 closed: one of them taken back', () => {
	const first = pain('x', 3, { day: '2026-03-02', deviceTime: '2026-03-02T17:00:00.000Z' })
	const again = (more: Parameters<typeof pain>[2] = {}) =>
		pain('y', 3, { day: '2026-03-16', deviceTime: '2026-03-16T17:00:00.000Z', ...more })
	const later = { deviceTime: '2026-03-17T17:00:00.000Z' }
	it.each([
		['14 days apart', again(), ['y', 'x']],
		['15 days apart', again({ day: '2026-03-17' }), ['y']],
		['the same day', again({ day: '2026-03-02' }), ['y']],
		['another region', again({ region: 'hip' }), ['y']],
		['of another', again({ athleteId: 'eva' }), ['y']],
		['of 2', { ...again(), value: { region: 'knee', side: 'left', score: 2 } }, ['y']],
	] as [string, SaidEvent, string[]][])('%s', (_name, other, expected) => {
		expect(ids(first, other, back(first, 0, later))).toEqual(expected)
	})
	it('said only after it was withdrawn, it closed nothing', () => {
		expect(ids(first, again(), back(first, 0, { deviceTime: '2026-03-10T17:00:00.000Z' }))).toEqual(['y'])
	})
	it('both taken back: both still count', () => {
		const second = again()
		expect(ids(first, second, back(first, 0, later), back(second, 0, later)).sort()).toEqual(['x', 'y'])
	})
})

describe('somebody else’s', () => {
	it('it is theirs alone, however late', () => {
		const six = pain('x', 6)
		const moved = back(six, 7200, { void: false, athleteId: 'eva' })
		expect(ids(six, moved)).toEqual(['x-back'])
		// Taken back in another's name it is not moved.
		expect(ids(six, back(six, 7200, { athleteId: 'eva' }))).toEqual(['x'])
	})
	it('of two contradicting corrections both are said', () => {
		const six = pain('x', 6)
		const one = back(six, 30, { id: 'y', void: false, value: { region: 'knee', side: 'left', score: 1 } })
		const two = back(six, 40, { id: 'z', void: false, value: { region: 'hip', side: 'left', score: 2 } })
		expect(ids(six, one, two).sort()).toEqual(['y', 'z'])
		expect(ids(six, one, { ...two, void: true })).toEqual(['y'])
	})
})

it('any shift of the clock, and any order, says the same', () => {
	const six = pain('x', 6)
	const all = [six, back(six, 121), pain('y', 3), pain('z', 9, { region: 'hip' })]
	const shifted = all.map((one) => ({
		...one,
		deviceTime: new Date(Date.parse(one.deviceTime) - 10 * 365 * 86_400_000).toISOString(),
	}))
	expect(ids(...all).sort()).toEqual(['x', 'y', 'z'])
	expect(ids(...shifted).sort()).toEqual(['x', 'y', 'z'])
	expect(ids(...all.toReversed()).sort()).toEqual(['x', 'y', 'z'])
})
