import type { Drill } from '../vocabulary/drill'
import type { Parameters } from '../vocabulary/dose'
import { countRep } from './count-rep'
import { type DoseCount, contactsOf, cutsOf, loadOfLeg, metresOf, rangedContacts, totalOf } from './dose-count'

/** The sums a session is held to, in the order of a load: see `loadOf`. */
export const LOAD = {
	shock: 0,
	contacts: 1,
	fastMetres: 2,
	cuts60: 3,
	throws: 4,
	hardLeft: 5,
	hardRight: 6,
	sharpCuts: 7,
	maximalStarts: 8,
	metresOver90: 9,
} as const
/** Ten sums, by `LOAD`. A plain list: typed ones take longer to make than to fill. */
export type Load = number[]
const LENGTH = 10

/** A count as ten sums, for work that adds up thousands of lines: all but the hard contacts of a leg are what `quantitiesOf` and `rampValue` read. */
export function loadOf(count: DoseCount): Load {
	const hard = contactsOf(count, ['high', 'shock'])
	const plants = (leg: 'left' | 'right') =>
		loadOfLeg(count.cuts['60-90'], leg) +
		loadOfLeg(count.cuts['90-135'], leg) +
		loadOfLeg(count.cuts['135-180'], leg) +
		loadOfLeg(count.deadStops, leg)
	return [
		totalOf(count.contacts.shock),
		totalOf(rangedContacts(count)),
		metresOf(count, ['fast', 'maximal']),
		cutsOf(count, ['60-90', '90-135', '135-180']),
		totalOf(count.throws),
		loadOfLeg(hard, 'left') + plants('left'),
		loadOfLeg(hard, 'right') + plants('right'),
		cutsOf(count, ['90-135', '135-180']),
		count.maximalStarts,
		count.fastMetres,
	]
}
export const noLoad = (): Load => [0, 0, 0, 0, 0, 0, 0, 0, 0, 0]
/** Adds one load to another, which is given back. */
export function plus(sum: Load, load: Load): Load {
	for (let index = 0; index < LENGTH; index++) sum[index]! += load[index]!
	return sum
}

type Pair = readonly [Load, Load]
/** By drill, parameters and leg length. A rung's parameters are one object for all who stand on it, which is what makes this quick. */
const known = new WeakMap<Drill, WeakMap<Parameters, Map<number | null, Pair>>>()

/** The first two reps of a drill at some parameters: the leg that plants alternates, so that they stand for all. */
function pairOf(drill: Drill, parameters: Parameters, legLengthM: number | null): Pair {
	let ofDrill = known.get(drill)
	if (!ofDrill) known.set(drill, (ofDrill = new WeakMap()))
	let ofLine = ofDrill.get(parameters)
	if (!ofLine) ofDrill.set(parameters, (ofLine = new Map()))
	let pair = ofLine.get(legLengthM)
	if (!pair) {
		const context = legLengthM === null ? {} : { legLengthM }
		pair = [
			loadOf(countRep(drill, parameters, { ...context, repIndex: 0 })),
			loadOf(countRep(drill, parameters, { ...context, repIndex: 1 })),
		]
		ofLine.set(legLengthM, pair)
	}
	return pair
}

/**
 * Adds what some reps of a drill cost to a sum.
 *
 * @param legLengthM m; null when unknown
 */
export function addLineLoad(
	sum: Load,
	drill: Drill,
	parameters: Parameters,
	reps: number,
	legLengthM: number | null,
): void {
	const [first, second] = pairOf(drill, parameters, legLengthM)
	const [odd, even] = [Math.ceil(reps / 2), Math.floor(reps / 2)]
	for (let index = 0; index < LENGTH; index++) sum[index]! += odd * first[index]! + even * second[index]!
}

export function lineLoad(drill: Drill, parameters: Parameters, reps: number, legLengthM: number | null): Load {
	const sum = noLoad()
	addLineLoad(sum, drill, parameters, reps, legLengthM)
	return sum
}
