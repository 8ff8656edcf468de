/** Phrases as sentences: a full stop after each, unless it ends in one of its own. */
export const sentences = (phrases: readonly string[]): string =>
	phrases.map((phrase) => (/[.?!]$/.test(phrase) ? phrase : `${phrase}.`)).join(' ')
