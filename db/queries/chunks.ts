/** Parts of a list in its order, each of `size` items at most. */
export function* chunks<T>(items: readonly T[], size: number): Generator<T[]> {
	for (let at = 0; at < items.length; at += size) yield items.slice(at, at + size)
}
