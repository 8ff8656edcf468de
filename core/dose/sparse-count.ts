import { type DoseCount, emptyCount } from './dose-count'

/** A count with its zeros left out, as it is stored with every rep. */
export type SparseCount = { [K in keyof DoseCount]?: DoseCount[K] extends number ? number : Record<string, unknown> }

const dropZeros = (value: unknown): unknown => {
	if (typeof value !== 'object' || value === null) return value === 0 ? undefined : value
	const kept = Object.entries(value)
		.map(([key, inner]) => [key, dropZeros(inner)] as const)
		.filter(([, inner]) => inner !== undefined)
	return kept.length === 0 ? undefined : Object.fromEntries(kept)
}
export const toSparse = (count: DoseCount): SparseCount => (dropZeros(count) ?? {}) as SparseCount
/** The inverse of `toSparse`; unknown members are dropped. */
export function fromSparse(sparse: SparseCount): DoseCount {
	const count = emptyCount()
	fill(count as unknown as Tree, sparse as Tree)
	return count
}

type Tree = { [key: string]: number | Tree }
/** Copies the numbers of `given` over the zeros of `zeros`, at any depth. */
function fill(zeros: Tree, given: Tree): void {
	for (const key in given) {
		const [at, value] = [zeros[key], given[key]]
		if (typeof at === 'number' && typeof value === 'number') zeros[key] = value
		else if (typeof at === 'object' && typeof value === 'object') fill(at, value)
	}
}
