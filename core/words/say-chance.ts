/**
 * Words for a chance: those of the guidance note on the treatment of uncertainties for the fifth assessment report of
 * the panel on climate change (Mastrandrea and others 2010, table 1, from memory), each with the number behind.
 */
const WORDS: readonly [below: number, words: string][] = [
	[0.01, 'exceptionally unlikely'],
	[0.1, 'very unlikely'],
	[0.33, 'unlikely'],
	[0.66, 'about as likely as not'],
	[0.9, 'likely'],
	[0.99, 'very likely'],
]

/**
 * A chance in words with the number behind, from 0 to 1.
 *
 * @example sayChance(0.42) // "about as likely as not, 42 %"
 * @throws RangeError for what is no chance
 */
export function sayChance(chance: number): string {
	if (!(chance >= 0 && chance <= 1)) throw new RangeError(`chance: ${chance} is not from 0 to 1`)
	const words = WORDS.find(([below]) => chance < below)?.[1] ?? 'virtually certain'
	const number = chance < 0.01 ? 'under 1 %' : chance >= 0.99 ? '99 % or more' : `${Math.round(100 * chance)} %`
	return `${words}, ${number}`
}
