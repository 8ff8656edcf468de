import type { EventKey } from '../vocabulary/events'

/** What people call an event of the log: "a mark", "a pain report". */
export const EVENT_WORDS: Record<EventKey, string> = {
	'mark/sprint': 'a mark',
	'mark/contact': 'a mark',
	'mark/height': 'a mark',
	'mark/distance': 'a mark',
	'mark/done': 'a mark',
	'mark/release': 'a mark',
	'mark/missed': 'a missed rep',
	'observation/quality': 'a grade',
	'observation/pain': 'a pain report',
	'observation/head': 'a report of the head',
	'observation/chest': 'a report of the chest',
	'observation/unwell': 'a report of illness',
	'observation/quiet': 'an answer about pain',
	'observation/note': 'a note',
	'observation/worry': 'a worry',
	'observation/comfort': 'a comfort report',
	'observation/effort': 'a session’s effort',
	'decision/end-set': 'the end of a set',
	'decision/load-off': 'a load taken off',
	'decision/attendance': 'who is here',
	'decision/guest': 'a guest',
	'decision/further': 'a drill that was added',
	'decision/drill-order': 'the order of drills',
	'decision/piece': 'a piece of a complex',
	'decision/swap': 'a swap',
	'decision/fast-day': 'a fast day',
	'decision/queue': 'a place in the queue',
	'decision/cut-short': 'a session cut short',
	'decision/conditions': 'wind and ground',
}

/** One correction that does not stand, as the coach reads it. */
export function sayHeld(held: {
	author: string
	key: EventKey
	athlete: string | null
	refused: string | null
}): string {
	const what = `${held.author}’s correction of ${EVENT_WORDS[held.key]}${held.athlete === null ? '' : ` of ${held.athlete}`}`
	return held.refused === null ? `${what} waits for what it corrects.` : `${what} was not taken: ${held.refused}.`
}
