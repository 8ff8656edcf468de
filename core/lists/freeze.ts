/**
 * Freezes what is shared by all who ask, deep: whoever wants another value makes one.
 *
 * @returns of how many objects it is that were not frozen already
 */
export function freeze(value: unknown): number {
	if (typeof value !== 'object' || value === null || Object.isFrozen(value) || ArrayBuffer.isView(value)) return 0
	Object.freeze(value)
	let parts = 1
	for (const part of value instanceof Map ? value.values() : Object.values(value)) parts += freeze(part)
	return parts
}
