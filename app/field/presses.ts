import type { Tap } from '#core/field/session/taps'
import type { Leg } from '#core/vocabulary/words'
import type { About } from './turns'

/** What is pressed for the number of one rep. Same names what it would save once more; the watch, when it was pressed. */
export type PadKey =
	| { key: 'digit'; digit: string }
	| { key: 'delete' | 'save' | 'missed' | 'untimed' | 'undo' }
	| { key: 'same'; label: string }
	| { key: 'side'; side: Leg }
	| { key: 'box'; at: number }
	| { key: 'watch'; atMs: number }

/** Save and Same are one place on the pad. */
const placeOf = ({ key }: PadKey): string => (key === 'same' ? 'save' : key)
/** What is part of the number that is being taken, and may come twice. */
const OF_THE_NUMBER: ReadonlySet<PadKey['key']> = new Set(['digit', 'delete', 'side', 'box', 'watch'])

interface Press {
	/** The same control says the same, whoever is on the line. */
	what: string
	about: About
}
/** A key as a press that waits its turn. */
export const keyPress = (key: PadKey): Press => ({
	what: `key ${placeOf(key)}`,
	about: OF_THE_NUMBER.has(key.key) ? 'number' : 'line',
})

/** Taps on what the line shows; the others name what they are about. */
const ON_THE_LINE: ReadonlySet<Tap['tap']> = new Set([
	'mark',
	'missed',
	'untimed',
	'reps',
	'advice',
	'rate',
	'comfort',
	'worry',
	'undo',
])
/** A tap as a press that waits its turn. */
export const tapPress = (tap: Tap): Press =>
	ON_THE_LINE.has(tap.tap)
		? { what: JSON.stringify({ ...tap, athleteId: undefined }), about: 'line' }
		: { what: JSON.stringify(tap), about: 'named' }
