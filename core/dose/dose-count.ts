import {
	CUT_CLASSES,
	EFFORT_ZONES,
	INTENSITY_CLASSES,
	type CutClass,
	type EffortZone,
	type IntensityClass,
	type Leg,
} from '../vocabulary/words'

/** Events by leg. `both` is one event on two feet (or two hands), not two events. */
export interface LegCount {
	left: number
	right: number
	both: number
}

/** What a rep, a line, a session or a week costs, by the counting convention in docs/method.md. */
export interface DoseCount {
	contacts: Record<IntensityClass, LegCount>
	cuts: Record<CutClass, LegCount>
	deadStops: LegCount
	metres: Record<EffortZone, number>
	/** Steps of sprints and marches: shown apart, never among the contacts. */
	steps: number
	/** Sprint reps in the fast or maximal zone. */
	maximalStarts: number
	/** Metres run above 90 % of top speed: an estimate, see `countRep`. */
	fastMetres: number
	throws: LegCount
	throwKg: number
}

const noLeg = (): LegCount => ({ left: 0, right: 0, both: 0 })

export function emptyCount(): DoseCount {
	return {
		contacts: { low: noLeg(), moderate: noLeg(), high: noLeg(), shock: noLeg() },
		cuts: { 'under-30': noLeg(), '30-60': noLeg(), '60-90': noLeg(), '90-135': noLeg(), '135-180': noLeg() },
		deadStops: noLeg(),
		metres: { easy: 0, tempo: 0, 'sub-maximal': 0, fast: 0, maximal: 0 },
		steps: 0,
		maximalStarts: 0,
		fastMetres: 0,
		throws: noLeg(),
		throwKg: 0,
	}
}

const addLegs = (a: LegCount, b: LegCount): LegCount => ({
	left: a.left + b.left,
	right: a.right + b.right,
	both: a.both + b.both,
})

/** Sum of two counts; neither is changed. Addition commutes and `emptyCount()` is its zero. */
export const addCounts = (a: DoseCount, b: DoseCount): DoseCount => sumCounts([a, b])

export const sumCounts = (counts: Iterable<DoseCount>): DoseCount => {
	const total = emptyCount()
	for (const count of counts) addInto(total, count)
	return total
}

/** Adds `times` × a count to a sum that is being made; where thousands of marks are summed, a new object each would cost more than the sum. */
export function addInto(sum: DoseCount, count: DoseCount, times = 1): void {
	const legs = (into: LegCount, from: LegCount) => {
		into.left += times * from.left
		into.right += times * from.right
		into.both += times * from.both
	}
	for (const key of INTENSITY_CLASSES) legs(sum.contacts[key], count.contacts[key])
	for (const key of CUT_CLASSES) legs(sum.cuts[key], count.cuts[key])
	for (const key of EFFORT_ZONES) sum.metres[key] += times * count.metres[key]
	legs(sum.deadStops, count.deadStops)
	legs(sum.throws, count.throws)
	sum.steps += times * count.steps
	sum.maximalStarts += times * count.maximalStarts
	sum.fastMetres += times * count.fastMetres
	sum.throwKg += times * count.throwKg
}

/** Total events = left + right + both. @example totalOf({ left: 9, right: 6, both: 0 }) // 15 */
export const totalOf = (count: LegCount): number => count.left + count.right + count.both

/** The load of one leg = its own + both. @example loadOfLeg({ left: 3, right: 2, both: 10 }, 'left') // 13 */
export const loadOfLeg = (count: LegCount, leg: Leg): number => count[leg] + count.both

/** Contacts of the given classes together, by leg. */
export function contactsOf(count: DoseCount, classes: readonly IntensityClass[]): LegCount {
	return classes.reduce((sum, key) => addLegs(sum, count.contacts[key]), noLeg())
}

/** The contacts that the published session range speaks of: moderate, high and shock. */
export const rangedContacts = (count: DoseCount): LegCount => contactsOf(count, ['moderate', 'high', 'shock'])
export const allContacts = (count: DoseCount): LegCount => contactsOf(count, INTENSITY_CLASSES)
export const metresOf = (count: DoseCount, zones: readonly EffortZone[] = EFFORT_ZONES): number =>
	zones.reduce((sum, zone) => sum + count.metres[zone], 0)
export const cutsOf = (count: DoseCount, classes: readonly CutClass[]): number =>
	classes.reduce((sum, key) => sum + totalOf(count.cuts[key]), 0)
