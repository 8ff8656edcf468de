/** Items by what they have in common, each group in the order of the list. */
export function groupBy<K, T>(items: Iterable<T>, keyOf: (item: T) => K): Map<K, T[]> {
	const groups = new Map<K, T[]>()
	for (const item of items) addTo(groups, keyOf(item), item)
	return groups
}

/** Adds an item to its group, which is begun where there is none. */
export function addTo<K, T>(groups: Map<K, T[]>, key: K, item: T): void {
	const group = groups.get(key)
	if (group) group.push(item)
	else groups.set(key, [item])
}
