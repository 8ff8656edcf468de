/**
 * One text for one value: keys sorted, no blanks, undefined members left out. Two devices that mean
 * the same event write the same text, so that a hash of it tells a replay from a changed event.
 *
 * @throws RangeError for a number that JSON cannot hold
 * @example canonicalJson({ b: 1, a: [2, undefined] }) // '{"a":[2,null],"b":1}'
 */
export function canonicalJson(value: unknown): string {
	if (typeof value === 'number' && !Number.isFinite(value))
		throw new RangeError(`value: ${value} cannot be written as JSON`)
	if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null'
	if (Array.isArray(value)) return `[${value.map((item) => canonicalJson(item ?? null)).join(',')}]`
	// Put together piece by piece, without a list of pairs for each object: every mark comes through here.
	let members = ''
	for (const key of Object.keys(value).sort()) {
		const member = (value as Record<string, unknown>)[key]
		if (member === undefined) continue
		members += `${members === '' ? '' : ','}${JSON.stringify(key)}:${canonicalJson(member)}`
	}
	return `{${members}}`
}
