import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Value } from 'typebox/value'
import { ATHLETES, ENTRIES, Phone, type Touch, fourBySheet } from '../../../tests/support/afternoon'
import { unsound } from '../../events/unsound'
import { STARTER_LIBRARY } from '../../library/starter-library'
import { EVENT_SCHEMAS, type EventKey, type LogEvent } from '../../vocabulary/events'
import { CUT_SHORT_REASONS } from '../../vocabulary/event-kinds'
import { REGIONS } from '../../vocabulary/words'

// Laws over whole afternoons: whatever is tapped, in whatever order, on two phones that hear each other.

const who = fc.constantFrom(...ATHLETES.map(({ id }) => id))
const thousandths = (from: number, to: number) =>
	fc.integer({ min: from * 1000, max: to * 1000 }).map((value) => value / 1000)
const drill = fc.constantFrom('pogo', 'broad-jump', 'pause-jump').map((id) => STARTER_LIBRARY.drills[id]!)
const fixed = (...taps: Touch[]) => fc.constantFrom(...taps)
const weighted: [number, fc.Arbitrary<Touch>][] = [
	[
		8,
		thousandths(2.5, 4).map((timeS) => ({
			tap: 'mark',
			measured: { kind: 'sprint', value: { splits: [{ distanceM: 20, timeS }], method: 'gate' } },
			label: `${timeS} s`,
		})),
	],
	[3, fc.integer({ min: 1, max: 9 }).map((reps) => ({ tap: 'reps', reps, grade: reps > 4 ? 'good' : null }))],
	[4, fc.integer({ min: -2, max: 2 }).map((by) => ({ tap: 'entry', by }))],
	[3, who.map((athleteId) => ({ tap: 'pick', athleteId }))],
	[2, fixed({ tap: 'missed' }, { tap: 'missed', reason: 'false-start' }, { tap: 'untimed' })],
	[
		3,
		fixed({ tap: 'rate', grade: 'good' }, { tap: 'rate', grade: 'poor' }, { tap: 'comfort', worst: 2, braking: false }),
	],
	[3, fixed({ tap: 'undo' })],
	[3, fixed({ tap: 'sure' }, { tap: 'no' })],
	[2, fixed({ tap: 'advice' }, { tap: 'worry' }, { tap: 'slip' }, { tap: 'heard' })],
	[
		2,
		fc
			.tuple(drill, fc.constantFrom('one', 'shown'))
			.map(([one, of]) => ({ tap: 'swap', drill: one, who: of }) as Touch),
	],
	[2, fc.constantFrom('one', 'shown').map((of) => ({ tap: 'end', reason: 'coach', who: of }) as Touch)],
	[2, fc.tuple(who, fc.boolean()).map(([athleteId, present]) => ({ tap: 'here', athleteId, present }))],
	[1, fc.tuple(who, fc.nat(4)).map(([athleteId, to]) => ({ tap: 'move', athleteId, to }))],
	[1, fc.tuple(who, fc.nat(3)).map(([athleteId, group]) => ({ tap: 'to-group', athleteId, group }))],
	[1, fc.nat(2).map((group) => ({ tap: 'group', group }))],
	[
		1,
		fc
			.tuple(drill, fc.uniqueArray(fc.uuid({ version: 7 }), { minLength: 5, maxLength: 5 }))
			.map(([one, ids]) => ({ tap: 'further', drill: one, ids })),
	],
	[1, fc.tuple(fc.nat(3), fc.nat(5)).map(([entry, to]) => ({ tap: 'place', entryId: ENTRIES[entry]!.id, to }))],
	[1, fixed({ tap: 'split' })],
	[1, fc.constantFrom(...CUT_SHORT_REASONS).map((reason) => ({ tap: 'cut-short', reason }))],
	[1, fixed({ tap: 'conditions', value: { surface: 'wet-grass' } }, { tap: 'conditions', value: { windMps: 1.5 } })],
	[1, who.map((athleteId) => ({ tap: 'other', athleteId }))],
	[
		1,
		fc.tuple(fc.constantFrom(...REGIONS), fc.integer({ min: 0, max: 9 })).map(([region, score]) => ({
			tap: 'report',
			report: { kind: 'pain', value: { region, side: 'left', score, redFlag: false } },
		})),
	],
	[1, fixed({ tap: 'report', report: { kind: 'unwell' } }, { tap: 'report', report: { kind: 'head' } })],
	[
		1,
		fc
			.constantFrom('session', 'athlete', 'drill', 'rep')
			.map((about) => ({ tap: 'note', about, text: 'late' }) as Touch),
	],
]
/** A tap, or one about an event that stands: which, by its place. */
type Step = { phone: 0 | 1; tap: Touch } | { phone: 0 | 1; about: 'correct' | 'take-back'; which: number; to: string }
const step: fc.Arbitrary<Step> = fc.oneof(
	{
		weight: 30,
		arbitrary: fc.record({
			phone: fc.constantFrom(0 as const, 0 as const, 1 as const),
			tap: fc.oneof(...weighted.map(([weight, arbitrary]) => ({ weight, arbitrary }))),
		}),
	},
	{
		weight: 3,
		arbitrary: fc.record({
			phone: fc.constantFrom(0 as const, 1 as const),
			about: fc.constantFrom('correct' as const, 'take-back' as const),
			which: fc.nat(1000),
			to: who,
		}),
	},
)

function twoPhones() {
	const sheet = fourBySheet()
	const all: LogEvent[] = []
	return [0, 1].map((n) => new Phone(sheet, `00000005-0000-7000-8000-00000000000${n}`, all)) as [Phone, Phone]
}
function tapOf(step: Step, phone: Phone): Touch | null {
	if ('tap' in step) return step.tap
	const marks = phone.current.filter(({ type }) => type === 'mark')
	const event = marks[step.which % Math.max(1, marks.length)]
	if (!event || event.type !== 'mark') return null
	if (step.about === 'take-back') return { tap: 'take-back', events: [event], label: 'taken back' }
	const line = phone.sheet.lines.find((one) => one.entryId === event.entryId && one.athleteId === step.to)!
	return { tap: 'correct', event, change: { athleteId: step.to, lineId: line.id } as Partial<LogEvent> }
}
/** What stands, without how it came to be: neither ids nor the order on a device. */
const standing = (phone: Phone) =>
	phone.current
		.map(({ id: _id, replacesId: _replaces, deviceSeq: _seq, deviceId: _device, ...said }) => said)
		.map(({ deviceTime, ...said }) =>
			JSON.stringify(
				said.type === 'mark' ? { deviceTime, ...said } : said,
				Object.keys({ deviceTime, ...said, ...said.value }).sort(),
			),
		)
		.sort()

describe('any afternoon', () => {
	it('writes sound events only, in the device’s order, each on the athlete’s own line', () => {
		fc.assert(
			fc.property(fc.array(step, { maxLength: 45 }), (steps) => {
				const phones = twoPhones()
				for (const one of steps) {
					const phone = phones[one.phone]
					const tap = tapOf(one, phone)
					if (tap) phone.tap(tap)
				}
				// What was planned, and what a drill added on the spot says of itself.
				const lines = new Map<string, { athleteId: string; entryId: string }>(
					[
						...phones[0].sheet.lines,
						...phones[0].all.flatMap(({ kind, value }) =>
							kind === 'further'
								? value.lines.map(({ lineId, athleteId }) => ({ id: lineId, athleteId, entryId: value.entryId }))
								: [],
						),
					].map((line) => [line.id, line]),
				)
				for (const { own } of phones)
					expect(own.map(({ deviceSeq }) => deviceSeq)).toEqual(own.map((_, index) => index))
				for (const event of phones[0].all) {
					const key = `${event.type}/${event.kind}` as EventKey
					// What the phone keeps is what the border takes, undefined fields and all.
					expect(Value.Check(EVENT_SCHEMAS[key], event), JSON.stringify(event)).toBe(true)
					expect(Object.values(event)).not.toContain(undefined)
					expect(unsound(event)).toBeNull()
					if (!('lineId' in event) || !event.lineId) continue
					expect(lines.get(event.lineId)).toMatchObject({ athleteId: event.athleteId, entryId: event.entryId })
				}
				expect(new Set(phones[0].all.map(({ id }) => id)).size).toBe(phones[0].all.length)
			}),
			{ numRuns: 150 },
		)
	})
	it('is undone move by move: what stood before a tap stands again, whatever it wrote', () => {
		fc.assert(
			fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
				const [phone] = twoPhones()
				for (const one of steps) {
					const tap = tapOf(one, phone)
					if (!tap || tap.tap === 'undo') continue
					const before = standing(phone)
					const moves = phone.stand.moves.length
					const wrote = phone.tap(tap).length
					if (wrote === 0 || phone.stand.moves.length === moves) continue
					const after = standing(phone)
					phone.tap({ tap: 'undo' })
					expect(standing(phone), JSON.stringify(tap)).toEqual(before)
					if (['sure', 'slip', 'other'].includes(tap.tap)) return
					phone.tap(tapOf(one, phone)!)
					expect(standing(phone).length).toBe(after.length)
				}
			}),
			{ numRuns: 150 },
		)
	})
	it('shows somebody who is here and has a line, and puts nobody on it by itself who may not go on', () => {
		fc.assert(
			fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
				const [phone] = twoPhones()
				for (const one of steps) {
					const tap = tapOf(one, phone)
					if (!tap) continue
					const before = phone.stand
					const wrote = phone.tap(tap)
					const { stand } = phone
					const { shown, queue } = stand
					expect(shown === null).toBe(queue.length === 0)
					if (!shown) continue
					expect(stand.away.has(shown.athlete.id)).toBe(false)
					expect(queue).toContain(shown.progress)
					expect(stand.onLine).toContain(shown.progress)
					const moved = before.shown?.athlete.id !== shown.athlete.id && tap.tap === 'mark' && wrote.length > 0
					if (moved) expect(shown.progress).toMatchObject({ over: null, halted: null, finished: false })
				}
			}),
			{ numRuns: 100 },
		)
	})
	it('asks before it writes about several athletes', () => {
		fc.assert(
			fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
				const [phone] = twoPhones()
				for (const one of steps) {
					const tap = tapOf(one, phone)
					if (!tap) continue
					const { asking } = phone.stand.cursor
					const wrote = phone.tap(tap)
					const people = new Set(wrote.map(({ athleteId }) => athleteId))
					if (people.size < 2 || tap.tap === 'undo') continue
					expect(tap.tap).toBe('sure')
					expect(asking).not.toBeNull()
				}
			}),
			{ numRuns: 100 },
		)
	})
})
