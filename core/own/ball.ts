/** Medicine balls there are, kg. */
export const BALLS = [1, 2, 3, 4, 5] as const
/** A throwing rung's ball is for a body of this mass; each step is one kilogram more or less [our setting]. */
const MASS_STEPS_KG = [45, 70, 90] as const
/** The lightest and the heaviest ball that body mass alone gives. */
const [LIGHTEST, HEAVIEST] = [2, 5] as const
/** So much heavier than the rung's can a ball be by body mass alone, kg. */
export const MOST_OVER_RUNG_KG = 2

/**
 * The ball of a rung for a body mass: as the rung has it over 45 and to 70 kg, one lighter to 45, one heavier over
 * 70 and two over 90 kg, between 2 and 5 kg; a rung's lighter ball stays. Unknown mass is the lightest.
 *
 * @param rungKg the rung's ball, kg
 * @example ballFor(3, 82) // 4
 */
export function ballFor(rungKg: number, massKg: number | null): number {
	const shift = massKg === null ? -1 : MASS_STEPS_KG.filter((from) => massKg > from).length - 1
	return Math.min(HEAVIEST, Math.max(Math.min(LIGHTEST, rungKg), rungKg + shift))
}
