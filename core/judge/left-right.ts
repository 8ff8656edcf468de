import type { School } from '../vocabulary/school'
import { betterOf } from '../marks/keep-session'
import { type SideTest, asymmetry } from '../noise/asymmetry'
import { isAlike } from './is-alike'
import { majorityMarks } from './majority-marks'
import type { Exposure, TraceLine } from './types'

/** A gap this large is acted on when it is real and always the same side [our setting; 10 % is common practice]. */
export const GAP_PERCENT = 10
/** Exposures on which the same side must lag. */
const RUNNING = 2

export interface SidesReading {
	/** The lagging side, null to take a favour back, undefined to leave things as they are. */
	act: 'left' | 'right' | null | undefined
	sentence: string | null
	trace: TraceLine
}

/**
 * What one-sided marks of the last exposures say about left and right, by one method on one rung and ground; null when no
 * side was logged.
 *
 * @param onOneLeg the line to come is done on one leg: then a rep of each of its sets moves
 */
export function readSides(exposures: readonly Exposure[], school: School, onOneLeg: boolean): SidesReading | null {
	const tests = exposures.flatMap((exposure) => {
		const sided = exposure.marks.filter((mark) => mark.side !== undefined)
		const kind = sided[0]?.kind
		if (!kind) return []
		const { marks, method } = majorityMarks(sided, kind)
		const of = (side: 'left' | 'right') => marks.filter((mark) => mark.side === side).map((mark) => mark.value)
		const test: SideTest = { left: of('left'), right: of('right') }
		return test.left.length > 0 && test.right.length > 0 ? [{ exposure, kind, method, test }] : []
	})
	const latest = tests.at(-1)
	if (!latest) return null
	const same = tests
		.filter(
			({ exposure, kind, method }) =>
				kind === latest.kind && method === latest.method && isAlike(exposure, latest.exposure),
		)
		.slice(-RUNNING)
		.map(({ test }) => test)
	const reading = asymmetry(same, betterOf(latest.kind))
	const weaker = reading.stronger === null ? null : reading.stronger === 'left' ? ('right' as const) : ('left' as const)
	const gap = `${weaker ?? 'neither'} is behind by ${reading.gapPct.toFixed(1)} %`
	// Equal decimals can come out a rounding below.
	const large = reading.gapPct >= GAP_PERCENT - 1e-9
	const fires = same.length >= RUNNING && reading.real === true && reading.consistent === true && large
	const trace: TraceLine = {
		rule: 'LR',
		question: 'Left against right',
		found: same.length < RUNNING ? `${gap}, once` : gap,
		limit: `beyond noise, same side twice, ${GAP_PERCENT} %`,
		fired: fires,
		firmness: 'our setting',
	}
	if (!fires || weaker === null) return { act: large ? undefined : null, sentence: null, trace }
	if (school.choices.leftRight === 'leave')
		return { act: null, sentence: `The ${gap}; this school leaves such a gap alone.`, trace }
	return {
		act: weaker,
		sentence: `The ${gap}: ${onOneLeg ? '' : 'in work on one leg '}one rep of each set moves to the ${weaker}, not more in all.`,
		trace,
	}
}
