/** Items by what they have in common, each group in the order of the list. */
export function groupBy<K, T>(items: Iterable<T>, keyOf: (item: T) => K): Map<K, T[]> {
	const groups = new Map<K, T[]>()
	for (const item of items) {
		const group = groups.get(keyOf(item))
		if (group) group.push(item)
		else groups.set(keyOf(item), [item])
	}
	return groups
}
