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

/** A key as a press that waits its turn: its name, and what it is about. */
export const keyPress = (key: PadKey): { what: string; about: About } => ({
	what: `key ${placeOf(key)}`,
	about: OF_THE_NUMBER.has(key.key) ? 'number' : 'line',
})
