import { mean, sampleVariance, sum } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure/measure-error'
import type { Better } from './drop-off'

/** Trials of one test day, both sides. */
export interface SideTest {
	left: readonly number[]
	right: readonly number[]
}

export interface Asymmetry {
	/** Gap of the latest day as percent of the stronger side. */
	gapPct: number
	stronger: 'left' | 'right' | null
	/** The gap is larger than the test's own CV; null when no CV is known. */
	real: boolean | null
	/** The same side was stronger on every test day; null with one day. */
	consistent: boolean | null
	/** CV held against the gap: as given, or from the trials. */
	cvPct: number | null
	/** Oldest day first. */
	byDay: { gapPct: number; stronger: 'left' | 'right' | null }[]
	warnings: string[]
}

/**
 * Gap between the sides: (stronger − weaker) / stronger × 100, sides by the mean of the day's trials. It
 * counts only when it is larger than the test's own CV and falls on the same side over repeated tests.
 * Source: Exell et al. 2012; Bishop et al. 2021.
 *
 * @param tests one entry a test day, oldest first; at least one trial a side, values above 0
 * @param cvPct the test's own CV, above 0 to 100; taken from the trials of one side on one day when left out
 * @throws MeasureError outside those ranges
 * @example asymmetry([{ left: [2], right: [1.8] }], 'higher', 4).gapPct // 10
 */
export function asymmetry(tests: readonly SideTest[], better: Better, cvPct?: number): Asymmetry {
	if (tests.length < 1) throw new MeasureError('tests', tests.length, 'at least one test day')
	if (better !== 'higher' && better !== 'lower') throw new MeasureError('better', better, '"higher" or "lower"')
	const given = cvPct === undefined ? null : inBounds('cvPct', cvPct, { above: 0, to: 100, unit: '%' })
	const byDay = tests.map((test, day) => {
		const [left, right] = (['left', 'right'] as const).map((side) => {
			if (test[side].length < 1) throw new MeasureError(`tests[${day}].${side}`, 0, 'at least one trial')
			return mean(
				test[side].map((value, index) => inBounds(`tests[${day}].${side}[${index}]`, value, { above: 0, below: 1e6 })),
			)
		}) as [number, number]
		if (left === right) return { gapPct: 0, stronger: null }
		const stronger = left > right === (better === 'higher') ? ('left' as const) : ('right' as const)
		return { gapPct: (Math.abs(left - right) / (stronger === 'left' ? left : right)) * 100, stronger }
	})
	const latest = byDay.at(-1)!
	const cv = given ?? ownCv(tests)
	const warnings: string[] = []
	if (cv === null) warnings.push('The test’s own error is not known: give its CV, or two trials a side.')
	if (tests.length === 1) warnings.push('One test day: whether it is always the same side is not known yet.')
	return {
		...latest,
		cvPct: cv,
		byDay,
		real: cv === null ? null : latest.gapPct > cv,
		consistent:
			tests.length === 1 ? null : latest.stronger !== null && byDay.every((day) => day.stronger === latest.stronger),
		warnings,
	}
}

/** Relative scatter of trials of one side on one day, pooled; null without repeated trials. */
function ownCv(tests: readonly SideTest[]): number | null {
	const repeated = tests.flatMap((test) => [test.left, test.right]).filter((trials) => trials.length >= 2)
	if (repeated.length === 0) return null
	const freedom = sum(repeated.map((trials) => trials.length - 1))
	const squares = sum(
		repeated.map((trials) => ((trials.length - 1) * sampleVariance([...trials])) / mean([...trials]) ** 2),
	)
	return 100 * Math.sqrt(squares / freedom)
}
