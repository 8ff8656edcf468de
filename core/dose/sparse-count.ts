import { type DoseCount, emptyCount } from './dose-count'

/** A count with its zeros left out, as it is stored with every rep. */
export type SparseCount = { [K in keyof DoseCount]?: DoseCount[K] extends number ? number : Record<string, unknown> }

const dropZeros = (value: unknown): unknown => {
	if (typeof value !== 'object' || value === null) return value === 0 ? undefined : value
	const kept = Object.entries(value).map(([key, inner]) => [key, dropZeros(inner)] as const).filter(([, inner]) => inner !== undefined)
	return kept.length === 0 ? undefined : Object.fromEntries(kept)
}
const fillZeros = (zero: unknown, value: unknown): unknown => {
	if (typeof zero !== 'object' || zero === null) return typeof value === 'number' ? value : zero
	const given = (typeof value === 'object' && value !== null ? value : {}) as Record<string, unknown>
	return Object.fromEntries(Object.entries(zero).map(([key, inner]) => [key, fillZeros(inner, given[key])]))
}

export const toSparse = (count: DoseCount): SparseCount => (dropZeros(count) ?? {}) as SparseCount
/** The inverse of `toSparse`; unknown members are dropped. */
export const fromSparse = (sparse: SparseCount): DoseCount => fillZeros(emptyCount(), sparse) as DoseCount
