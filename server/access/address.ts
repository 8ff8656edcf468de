/** Longest address that mail carries (RFC 5321, 4.5.3.1.3: a path of 256 octets with its brackets). */
export const LONGEST_ADDRESS = 254

/**
 * One spelling of one address: case, width and composition do not tell two people apart, invisible characters and blanks
 * are none of it. Accents do: é is another letter than e.
 *
 * @example canonicalAddress(' Ada@EXAMPLE.org\u200b') // "ada@example.org"
 */
export const canonicalAddress = (typed: string): string =>
	typed
		.slice(0, 4 * LONGEST_ADDRESS)
		.normalize('NFKC')
		.replace(/[\p{Cf}\p{Cc}\p{Z}]/gu, '')
		.toLowerCase()
		.normalize('NFC')

/** Whether it could be an address at all; in the time it takes to read it once. @param canonical by `canonicalAddress` */
export function isAddress(canonical: string): boolean {
	if (canonical.length > LONGEST_ADDRESS) return false
	const [local, domain, ...more] = canonical.split('@')
	if (!local || !domain || more.length > 0) return false
	const labels = domain.split('.')
	return labels.length > 1 && labels.every((label) => label !== '')
}
