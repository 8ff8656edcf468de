/** Letters that are one sign and not a letter with a mark, as they are typed where a keyboard lacks them. */
const LETTERS: Record<string, string> = { ø: 'o', ł: 'l', đ: 'd', ð: 'd', æ: 'ae', œ: 'oe', ß: 'ss', þ: 'th', ı: 'i' }
/** Words as they are compared: without case, accents, marks and further spaces. */
export const plain = (text: string): string =>
	text
		.normalize('NFD')
		.replace(/\p{M}/gu, '')
		.toLowerCase()
		.replace(/[øłđðæœßþı]/g, (letter) => LETTERS[letter]!)
		.replace(/[^\p{L}\p{N}]+/gu, ' ')
		.trim()
/** Names that are one person's however they are typed: case, accents and spaces apart. */
export const sameName = (a: string, b: string): boolean => plain(a) === plain(b)
