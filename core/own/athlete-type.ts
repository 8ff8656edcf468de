import type { AthleteType } from '../vocabulary/words'

/** One measure of an athlete beside the rest of the squad, all by the same key, so that they are alike. */
export interface Beside {
	/** Less is better in both: s of a run, s on the ground. */
	kind: 'sprint' | 'contact'
	own: number
	others: readonly number[]
}
export interface TypeEvidence {
	measures: readonly Beside[]
	/** How often something was closed for them in the last year. */
	closures: number
	/** The heaviest lift on record lately, kg; null where none is. */
	heaviestKg: number | null
	massKg: number | null
}

/** A third of the squad, and so many beside the athlete that a third says something [our setting]. */
const THIRD = 1 / 3
const FEWEST_OTHERS = 4
/** Closed so often in a year is often [our setting]. */
const OFTEN = 2
/** A lift of this much of body mass is strong [common practice, no source]. */
const STRONG_SHARE = 1.5

/** How many of the others are better, 0 to 1, by the measure most of them have; null where too few have any. */
function rankOf(measures: readonly Beside[], kind: Beside['kind']): number | null {
	const [most] = measures.filter((one) => one.kind === kind).sort((a, b) => b.others.length - a.others.length)
	if (!most || most.others.length < FEWEST_OTHERS) return null
	return most.others.filter((other) => other < most.own).length / most.others.length
}

/**
 * What the measures say of how an athlete is built, for the coach to take or leave; null where nothing stands out or
 * too little is known.
 *
 * @example proposeType({ measures, closures: 0, heaviestKg: 130, massKg: 80 })
 *   // { type: 'slow', why: 'among the slowest third of the squad; lifts 130 kg at 80 kg' }
 */
export function proposeType({
	measures,
	closures,
	heaviestKg,
	massKg,
}: TypeEvidence): { type: AthleteType; why: string } | null {
	const [slower, longer] = [rankOf(measures, 'sprint'), rankOf(measures, 'contact')]
	if (slower !== null && longer !== null && slower <= THIRD && longer <= THIRD && closures >= OFTEN)
		return {
			type: 'stiff',
			why: `among the fastest third of the squad and its shortest contacts; closed ${closures} times in a year`,
		}
	if (
		slower !== null &&
		slower >= 2 * THIRD &&
		heaviestKg !== null &&
		massKg !== null &&
		heaviestKg >= STRONG_SHARE * massKg
	)
		return { type: 'slow', why: `among the slowest third of the squad; lifts ${heaviestKg} kg at ${massKg} kg` }
	return null
}
