import { describe, expect, it } from 'vitest'
import type { SprintProfile } from './fit-profile'
import { profileWarnings } from './profile-warnings'
import type { SprintSplit } from './splits'

const PROFILE: SprintProfile = {
	mssMps: 9,
	tauS: 1.2,
	macMps2: 7.5,
	pmaxWkg: 17,
	correctionS: null,
	startDistanceM: null,
	residualSdS: 0,
	se: { mssMps: null, tauS: null, macMps2: null, correctionS: null, startDistanceM: null },
	correlation: null,
	fittedS: [],
	residualsS: [],
	topSpeedShare: 1,
	warnings: [],
}
/** At one speed all the way: nothing in the times themselves. */
const at = (...distances: number[]): SprintSplit[] =>
	distances.map((distanceM) => ({ distanceM, timeS: distanceM / 8 }))
const ENOUGH = at(5, 10, 15, 20, 25, 30)
const said = (
	splits: readonly SprintSplit[],
	profile: Partial<SprintProfile> = {},
	estimated: 'time' | 'distance' | null = null,
) => profileWarnings(splits, { ...PROFILE, ...profile }, estimated)

it('nothing is said of splits that say enough', () => expect(said(ENOUGH)).toEqual([]))

it.each([
	[at(10, 20), 'Two splits give numbers without an error'],
	[at(10, 20, 30), 'Three splits give a weak error'],
	[at(10, 20, 30, 40), null],
])('few splits: %#', (splits, words) =>
	expect(said(splits)).toEqual(words === null ? [] : [expect.stringContaining(words)]),
)

describe('an estimated start', () => {
	const TRUST = expect.stringContaining('is only to be trusted with six or more splits') as string
	it.each<[string, SprintSplit[], boolean]>([
		['six, 5 and 30 m', ENOUGH, true],
		['five', at(5, 10, 15, 20, 30), false],
		['none so near', at(5.1, 10, 15, 20, 25, 30), false],
		['none so far', at(5, 10, 15, 20, 25, 29.9), false],
	])('is trusted with %s: %#', (_, splits, isTrusted) => {
		expect(said(splits, {}, 'time')).toEqual(isTrusted ? [] : [TRUST])
		expect(said(splits)).toEqual([])
	})
	it.each([
		['distance', 0, true],
		['distance', 1e-6, false],
		['distance', 0.5, false],
		['time', 0, false],
		[null, 0, false],
	] as const)('by %s of %f m: no flying start is said %s', (estimated, startDistanceM, isSaid) =>
		expect(said(ENOUGH, { startDistanceM }, estimated)).toEqual(
			isSaid ? ['The best start distance is 0: these splits show no flying start.'] : [],
		),
	)
})

it.each([
	[0.95, null],
	[0.9499, 95],
	[0.5, 50],
])('a last split at %f of top speed', (topSpeedShare, percent) =>
	expect(said(ENOUGH, { topSpeedShare })).toEqual(
		percent === null ? [] : [expect.stringContaining(`run at ${percent} % of the top speed: MSS is an extrapolation`)],
	),
)

it.each([
	[null, null],
	[0.06, null],
	[0.061, '0.06 s off the curve'],
	[0.2, '0.20 s off the curve'],
])('splits that lie %f s off', (residualSdS, words) =>
	expect(said(at(5, 10, 15), { residualSdS }).slice(1)).toEqual(words === null ? [] : [expect.stringContaining(words)]),
)

describe('a runner who slows again', () => {
	/** Metres of each second. */
	const metres = (...speeds: number[]): SprintSplit[] =>
		speeds.map((_, i) => ({ distanceM: speeds.slice(0, i + 1).reduce((a, b) => a + b, 0), timeS: i + 1 }))
	it.each<[number[], number | null]>([
		[[50, 60, 100, 97], null],
		[[50, 60, 100, 96], 210],
		[[50, 60, 70, 100], null],
		[[100, 60, 70, 99], null],
		[[100, 100, 100, 96], 100],
	])('%j', (speeds, after) =>
		expect(said(metres(...speeds))).toEqual(
			after === null ? [] : [expect.stringContaining(`Slower again after ${after} m`)],
		),
	)
})

/**
 * Splits whose columns are simple numbers: with MSS and TAU 1, w of each split is what is asked for, and the part of a
 * constant that the fit cannot imitate is known: 1 − w/3 of four (its square 2/3), 1 − 3w/11 of five (10/11).
 */
describe('a start that was not corrected', () => {
	const pattern = (w: number[], t: number[], residualsS: number[], more: Partial<SprintProfile> = {}) => {
		const splits = w.map((one, i) => one * (1 - Math.exp(-t[i]!))).map((distanceM) => ({ distanceM, timeS: distanceM }))
		return [splits, { mssMps: 1, tauS: 1, fittedS: t, residualsS, residualSdS: 0.01, ...more }] as const
	}
	const four = (late: number, beside: number, more: Partial<SprintProfile> = {}) =>
		pattern([1, 2, 3, 4], [2, 1, 2, 5], [(2 / 3) * late, late / 3, beside, -late / 3], more)
	const five = (late: number, beside: number) => {
		const [v, u] = [(2 * beside) / Math.sqrt(29), (-5 * beside) / Math.sqrt(29)]
		const rest = [8, 5, 2, -1, -4].map((eleventh) => (eleventh / 11) * late)
		return pattern([1, 2, 3, 4, 5], [1, 2, 4, 2, 6], [rest[0]!, rest[1]! + v, rest[2]! + u, rest[3]!, rest[4]!])
	}
	const LATE = expect.stringContaining('The first splits are late') as string
	const EARLY = expect.stringContaining('The first splits are early') as string

	it.each([
		[0.0301, LATE],
		[0.0299, null],
		[-0.0299, null],
		[-0.0301, EARLY],
		[0, null],
	])('is seen from 0.03 s on: %f s', (late, words) => expect(said(...four(late, 0))).toEqual(words ? [words] : []))

	// F with one and n − 3 degrees of freedom: 2/3 · 15 · 1 and 10/11 · 5.5 · 2 are ten.
	it.each([
		['four', four(0.06, 0.06 / Math.sqrt(15.1)), true],
		['four', four(0.06, 0.06 / Math.sqrt(14.9)), false],
		['five', five(0.06, 0.06 / Math.sqrt(5.6)), true],
		['five', five(0.06, 0.06 / Math.sqrt(5.4)), false],
	])('is seen of %s where it explains ten times what is left: %#', (_, [splits, profile], isSeen) =>
		expect(said(splits, profile)).toEqual(isSeen ? [LATE] : []),
	)

	it('is not looked for in three splits, in what lies within two milliseconds, or where it is unknown how far off they lie', () => {
		const three = pattern(
			[1, 2, 3],
			[0.5, 3, 2.5],
			[8, 2, -4].map((part) => (part / 14) * 0.06),
		)
		expect(said(...three)).toEqual([expect.stringContaining('Three splits')])
		expect(said(...four(0.06, 0, { residualSdS: 0.002 }))).toEqual([LATE])
		expect(said(...four(0.06, 0, { residualSdS: 0.0019 }))).toEqual([])
		expect(said(...four(0.06, 0, { residualSdS: null }))).toEqual([])
	})
	it('is not looked for where a time was estimated or the start was measured', () => {
		const [splits, profile] = five(0.06, 0)
		const hints = (more: Partial<SprintProfile>, estimated: 'time' | 'distance' | null) =>
			said(splits, { ...profile, ...more }, estimated).filter((words) => words.startsWith('The first splits'))
		expect(hints({}, null)).toEqual([LATE])
		expect(hints({}, 'time')).toEqual([])
		expect(hints({ startDistanceM: 0.5 }, null)).toEqual([])
		expect(hints({ startDistanceM: 0.5 }, 'distance')).toEqual([])
	})
	it('is not seen where the curve itself can be late at every split', () =>
		expect(said(...pattern([1, 2, 3, 4], [5, 5, 5, 5], [0.06, 0.06, 0.06, 0.06]))).toEqual([]))
})
