import { type DoseCount, emptyCount } from './dose-count'

/** A count with its zeros left out, as it is stored with every rep. */
export type SparseCount = { [K in keyof DoseCount]?: DoseCount[K] extends number ? number : Record<string, unknown> }

/** The same without its zeros; null where nothing is left. Once a mark, thousands of times for a queue: nothing is made on the way. */
function dropZeros(tree: Tree): Tree | null {
	let kept: Tree | null = null
	for (const key in tree) {
		const value = tree[key]!
		const inner = typeof value === 'object' ? dropZeros(value) : value === 0 ? null : value
		if (inner !== null) (kept ??= {})[key] = inner
	}
	return kept
}
export const toSparse = (count: DoseCount): SparseCount => (dropZeros(count as unknown as Tree) ?? {}) as SparseCount
/** The inverse of `toSparse`; unknown members are dropped. */
export function fromSparse(sparse: SparseCount): DoseCount {
	const count = emptyCount()
	addSparseInto(count, sparse)
	return count
}
/** Adds `times` × a stored count to a sum that is being made, without the zeros in between; unknown members are dropped. */
export const addSparseInto = (sum: DoseCount, sparse: SparseCount, times = 1): void =>
	add(sum as unknown as Tree, sparse as Tree, times)

type Tree = { [key: string]: number | Tree }
function add(sum: Tree, given: Tree, times: number): void {
	for (const key in given) {
		const [at, value] = [sum[key], given[key]]
		if (typeof at === 'number' && typeof value === 'number') sum[key] = at + times * value
		else if (typeof at === 'object' && typeof value === 'object') add(at, value, times)
	}
}
