/**
 * A number as people type it: a comma or a point, thin spaces between thousands, a real minus sign.
 * Null when it is none.
 *
 * @example readNumber('1 234,5') // 1234.5
 */
export function readNumber(text: string): number | null {
	const typed = text
		.trim()
		.replace(/(?<=\d)[\s\u00a0\u2009\u202f](?=\d{3}(\D|$))/g, '')
		.replace(',', '.')
		.replace('−', '-')
	return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(typed) ? Number(typed) : null
}
