/** A word about an athlete on a drill, or what was wrong with a rep. */
export interface Noted {
	day: string
	text: string
}

/** At most so many are shown when somebody steps up. */
const MOST = 3

/**
 * What was noted the last time anything was: of the newest of the days, each thing once, the newest first; with how
 * often it was said where that is more than once.
 *
 * @param notes oldest first
 */
export function lastNoted(notes: readonly Noted[]): { day: string; words: string[] } | null {
	const day = notes.at(-1)?.day
	if (day === undefined) return null
	const times = new Map<string, number>()
	for (const { text } of notes.filter((note) => note.day === day)) {
		const before = times.get(text) ?? 0
		times.delete(text)
		times.set(text, before + 1)
	}
	const words = [...times].reverse().map(([text, count]) => (count === 1 ? text : `${text} (${count} times)`))
	return { day, words: words.slice(0, MOST) }
}
