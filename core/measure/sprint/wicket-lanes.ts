import { inBounds, MeasureError } from '../measure-error'

export interface WicketLane {
	/** Mean step length of the lane's members. */
	spacingM: number
	/** Positions in the list given, from 0. */
	members: number[]
}

/**
 * Splits a squad into lanes of one spacing each, so that the sum of squared differences between each
 * athlete's step and their lane's spacing is least. Exact: with the steps in order the best lanes are
 * runs of neighbours, found by dynamic programming over where each lane ends.
 *
 * @param stepLengthsM 1–500 step lengths, 0.2–4 m
 * @param lanes 1 to the number of athletes
 * @throws MeasureError outside those ranges
 * @example splitIntoLanes([1.8, 2.2, 1.82, 2.18], 2).lanes // spacing 1.81 for 0 and 2, 2.19 for 3 and 1
 */
export function splitIntoLanes(
	stepLengthsM: readonly number[],
	lanes: number,
): { lanes: WicketLane[]; costM2: number } {
	const n = stepLengthsM.length
	if (n < 1 || n > 500) throw new MeasureError('stepLengthsM', n, '1 to 500 step lengths')
	stepLengthsM.forEach((step, index) => inBounds(`stepLengthsM[${index}]`, step, { from: 0.2, to: 4, unit: 'm' }))
	inBounds('lanes', lanes, { from: 1, to: n, whole: true, unit: 'lanes (not more than athletes)' })
	const order = stepLengthsM.map((_, index) => index).sort((a, b) => stepLengthsM[a]! - stepLengthsM[b]! || a - b)
	// Offsets from the middle keep the difference of the two sums exact enough for millimetres.
	const middle = stepLengthsM[order[n >> 1]!]!
	const sums = [0]
	const squares = [0]
	for (const index of order) {
		const x = stepLengthsM[index]! - middle
		sums.push(sums.at(-1)! + x)
		squares.push(squares.at(-1)! + x * x)
	}
	const costOf = (from: number, to: number) =>
		Math.max(squares[to]! - squares[from]! - (sums[to]! - sums[from]!) ** 2 / (to - from), 0)
	let least = Array.from({ length: n + 1 }, (_, to) => (to === 0 ? 0 : costOf(0, to)))
	const cuts: number[][] = []
	for (let lane = 2; lane <= lanes; lane++) {
		const next = new Array<number>(n + 1).fill(Infinity)
		const cut = new Array<number>(n + 1).fill(0)
		for (let to = lane; to <= n; to++) {
			for (let from = lane - 1; from < to; from++) {
				const cost = least[from]! + costOf(from, to)
				if (cost < next[to]!) [next[to], cut[to]] = [cost, from]
			}
		}
		cuts.push(cut)
		least = next
	}
	const result: WicketLane[] = []
	let to = n
	for (let lane = lanes; lane >= 1; lane--) {
		const from = lane === 1 ? 0 : cuts[lane - 2]![to]!
		result.unshift({ spacingM: middle + (sums[to]! - sums[from]!) / (to - from), members: order.slice(from, to) })
		to = from
	}
	return { lanes: result, costM2: least[n]! }
}
