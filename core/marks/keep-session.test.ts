import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { SessionMean } from '../noise/usual'
import type { Mark } from '../vocabulary/events'
import { type MadeOn, betterOf, byKey, historyOf, keepSession, keyOfMark, measuredOf } from './keep-session'
import { sayKey } from './say-key'

const drill = (id: string) => STARTER_LIBRARY.drills[id]!
let seq = 0
const mark = (kind: string, value: object, more: object = {}): Mark =>
	({ id: `m${seq++}`, type: 'mark', kind, value, ...more }) as unknown as Mark
const run = (timeS: number, more: object = {}, distanceM = 20) =>
	mark(
		'sprint',
		{
			splits: [
				{ distanceM: 10, timeS: 1.9 },
				{ distanceM, timeS },
			],
			method: 'gate',
		},
		more,
	)
const start: MadeOn = { drill: drill('three-point-start'), parameters: { distanceM: 20 } }
const KEY = '1|sprint|three-point-start|three-point|d20|-|-|-|-|grass|gate'
const keep = (
	marks: { mark: Mark; on: MadeOn }[],
	before: SessionMean[] = [],
	more: Partial<{ unloading: boolean; back: boolean }> = {},
) =>
	keepSession({ day: '2026-05-05', surface: 'grass', unloading: more.unloading ?? false }, marks, () => before, {
		levelOf: () => 2,
		isFirstDayBack: (family) => (more.back ?? false) && family === 'sprint',
	})
const on = (some: Mark[], where: MadeOn = start) => some.map((one) => ({ mark: one, on: where }))

describe('the one number of a mark', () => {
	it('is the last split, the contact, the height or the distance; a tick has none', () => {
		expect(measuredOf(run(3.1))).toEqual({ kind: 'sprint', value: 3.1, method: 'gate', distanceM: 20 })
		expect(measuredOf(mark('contact', { contactS: 0.15, flightS: 0.5, method: 'mat' }))).toMatchObject({
			kind: 'contact',
			value: 0.15,
		})
		expect(measuredOf(mark('height', { heightM: 0.4, method: 'mat' }))).toMatchObject({ kind: 'height', value: 0.4 })
		expect(measuredOf(mark('distance', { distanceM: 2, method: 'tape' }))).toMatchObject({ kind: 'distance', value: 2 })
		for (const none of [
			mark('done', { reps: 3 }),
			mark('missed', {}),
			mark('release', { speedMps: 9, method: 'ball-sensor' }),
		])
			expect(measuredOf(none)).toBeNull()
		expect([betterOf('sprint'), betterOf('contact'), betterOf('height'), betterOf('distance')]).toEqual([
			'lower',
			'lower',
			'higher',
			'higher',
		])
	})
	it('has the key of what was run, not of what was planned', () => {
		expect(keyOfMark(run(3.1), start, 'grass')).toBe(KEY)
		expect(keyOfMark(run(1.9, {}, 10), start, 'grass')).toBe(KEY.replace('d20', 'd10'))
		expect(keyOfMark(run(3.1, { side: 'left' }), start, null)).toBe(KEY.replace('-|grass', 'left|-'))
		const worn = { segment: 'thigh', grams: 200 }
		expect(keyOfMark(run(3.1, { carried: worn }), start, 'grass')).toBe(KEY.replace('d20|-|-', 'd20|-|g200.thigh.each'))
		expect(keyOfMark(run(3.1), { ...start, carried: { segment: 'shank', grams: 100 } }, 'grass')).toContain(
			'g100.shank',
		)
		expect(keyOfMark(run(3.1), { ...start, aid: { kind: 'sled', kg: 20 } }, 'grass')).toContain('|sled.kg20|')
		expect(keyOfMark(mark('done', { reps: 3 }), start, 'grass')).toBeNull()
		const thrown = { drill: drill('overhead-throw'), parameters: { ballKg: 3 } }
		expect(keyOfMark(mark('release', { speedMps: 9, method: 'ball-sensor' }), thrown, 'grass')).toBe(
			'1|release|overhead-throw|-|kg3|-|-|-|-|-|ball-sensor',
		)
	})
})

describe('what a session keeps', () => {
	it('a stamp on each mark and a mean for each key', () => {
		const [whole, ten, tick] = [run(3.1), run(1.9, {}, 10), mark('done', { reps: 1 })]
		const kept = keep(on([whole, run(3.2), ten, tick]))
		expect(kept.stamps.get(whole.id)).toEqual({ key: KEY, setAside: false })
		expect(kept.stamps.has(tick.id)).toBe(false)
		expect([...kept.means.keys()]).toEqual([KEY, KEY.replace('d20', 'd10')])
		expect(kept.means.get(KEY)).toMatchObject({ day: '2026-05-05', n: 2, best: 3.1 })
		expect(kept.means.get(KEY)!.mean).toBeCloseTo(3.15, 10)
		expect(kept.means.get(KEY)).not.toHaveProperty('unusual')
	})
	it('leaves out what cannot be, by the own sessions before, unless somebody said that it was seen', () => {
		const before = [{ day: '2026-05-01', n: 5, mean: 3.1, squares: 0, best: 3 }]
		const [odd, seen] = [run(2.1), run(2.1, { kept: true })]
		const kept = keep(on([odd, run(3.1)]), before)
		expect([kept.stamps.get(odd.id)?.setAside, kept.means.get(KEY)?.n]).toEqual([true, 1])
		expect(keep(on([seen, run(3.1)]), before).means.get(KEY)?.n).toBe(2)
		// Four own marks say nothing yet; the level does not run 20 m in 2.1 s either, but in 2.8.
		expect(keep(on([run(2.8)]), [{ ...before[0]!, n: 4 }]).means.get(KEY)?.n).toBe(1)
		expect(keep(on([run(2.6)]), before).means.has(KEY)).toBe(false)
		expect(
			historyOf([
				{ ...before[0]!, n: 2 },
				{ ...before[0]!, n: 1, mean: 3 },
			]),
		).toEqual([3.1, 3.1, 3])
	})
	it('leaves out the reps after a stop, but none of a run planned below full effort', () => {
		const tired = [3, 3, 3, 3.3, 3.3, 3.3].map((time) => run(time))
		// Two after three are past 3 %: nothing after the fifth.
		expect(keep(on(tired)).means.get(KEY)?.n).toBe(5)
		const easy = { ...start, parameters: { distanceM: 20, effortPercent: 90 } }
		expect([...keep(on(tired, easy)).means.values()][0]?.n).toBe(6)
		// A contact may rise by up to 5 %.
		const bounce = (contactS: number) => mark('contact', { contactS, flightS: 0.5, method: 'mat' })
		const pogo = { drill: drill('pogo'), parameters: {} }
		const long = (late: number) =>
			[...keep(on([0.2, 0.2, 0.2, 0.2, late, late, late].map(bounce), pogo)).means.values()][0]?.n
		expect([long(0.208), long(0.24)]).toEqual([7, 6])
	})
	it('an unloading week and the first day back are unusual, by family', () => {
		expect(keep(on([run(3.1)]), [], { unloading: true }).means.get(KEY)).toMatchObject({ unusual: true })
		expect(keep(on([run(3.1)]), [], { back: true }).means.get(KEY)).toMatchObject({ unusual: true })
		const jump = on([mark('distance', { distanceM: 2, method: 'tape' })], {
			drill: drill('broad-jump'),
			parameters: {},
		})
		expect([...keep(jump, [], { back: true }).means.values()][0]).not.toHaveProperty('unusual')
		expect([...keep(jump).means.values()][0]).toMatchObject({ best: 2 })
	})
	it('sorts by key', () => {
		const one = (key: string, day: string) => ({ key, day, n: 1, mean: 1, squares: 0, best: 1 })
		const sorted = byKey([one('a', '1'), one('b', '2'), one('a', '3')])
		expect([...sorted].map(([key, some]) => [key, some.map(({ day }) => day)])).toEqual([
			['a', ['1', '3']],
			['b', ['2']],
		])
	})
})

describe('a key for people', () => {
	it.each([
		[KEY, 'Three-point start, 20 m', 'gate, grass'],
		['1|sprint|fly-10|rolling|d10.in20|-|-|-|-|-|phone', 'Flying 10 m, 10 m, 20 m run-in', 'phone timer'],
		['1|contact|depth-jump|-|box30|-|-|-|-|indoor|film-240', 'Depth jump, 30 cm', 'film, 240 frames a second, indoor'],
		['1|distance|rotational-throw|-|kg2.5|-|-|-|left|-|tape', 'Rotational throw, 2.5 kg', 'tape, left'],
		['1|sprint|arc-half|standing|d20.a180.r7.5|-|-|-|-|-|gate', 'Half circle, 20 m, 180°, radius 7.5 m', 'gate'],
		[
			'1|height|take-off-left|-|steps3|-|-|-|plant-left|-|mat',
			'Single take-off, left, 3 steps',
			'contact mat, take-off left',
		],
		[
			'1|sprint|resisted-start|three-point|d20|held25|-|-|-|-|gate',
			'Resisted start, 20 m, 25 % speed lost to the pull',
			'gate',
		],
		[
			'1|sprint|assisted-fly|rolling|d20|pulled5|-|-|-|-|gate',
			'Assisted fly, 20 m, pulled, 5 % over own top speed',
			'gate',
		],
		[
			'1|sprint|three-point-start|three-point|d20|sled.kg22.5|-|-|-|-|gate',
			'Three-point start, 20 m, with sled, 22.5 kg',
			'gate',
		],
		[
			'1|sprint|three-point-start|three-point|d20|rope.set3|-|-|-|-|gate',
			'Three-point start, 20 m, with rope, set at 3',
			'gate',
		],
		[
			'1|sprint|carried-run|standing|d20|-|g200.thigh.each.joint20|90|-|-|gate',
			'Carried run, 20 m, 200 g worn, at 90 %',
			'gate',
		],
		['1|sprint|gone|standing|-|-|-|-|-|-|gate', 'gone', 'gate'],
	])('%s', (key, what, how) => {
		const said = sayKey(key, STARTER_LIBRARY)
		const name = STARTER_LIBRARY.drills[key.split('|')[2]!]?.name ?? key.split('|')[2]!
		// The drill's name is the library's; what follows it is asked here.
		expect(said.what).toBe([name, ...what.split(', ').slice(NAMES[key.split('|')[2]!] ?? 1)].join(', '))
		expect(said.how).toBe(how)
	})
})
/** Names with a comma in them are written above as two. */
const NAMES: Record<string, number> = { 'take-off-left': 2 }
