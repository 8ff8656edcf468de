import type { CutShortReason, EndReason, MISSED_REASONS } from '../../vocabulary/event-kinds'
import type { LogEvent, Mark } from '../../vocabulary/events'
import type { Drill } from '../../vocabulary/drill'
import type { Leg, Region, Surface } from '../../vocabulary/words'
import type { OrderBreak } from './order-break'
import type { Asked } from './read-field'
import type { Run } from './stopwatch'
import type { Draft } from './writes'

export type Grade = 'good' | 'not-yet' | 'poor'
/** One athlete, or everybody who is shown. */
export type Who = { who: 'one'; athleteId: string } | { who: 'shown' }
/** What a word is about. */
export type About =
	| { about: 'session' }
	| { about: 'athlete' | 'drill'; athleteId: string }
	| { about: 'rep'; rep: Mark }

/** A number that was typed, or read off a stopwatch: what is kept of it, and how it is named. */
export interface Measured {
	kind: string
	value: unknown
	kept?: true
}
/** Something said of the body on the line. */
export type Report =
	| { kind: 'pain'; value: { region: Region; side: 'left' | 'right' | 'both'; score: number; redFlag: boolean } }
	| { kind: 'head' | 'chest' | 'unwell' }

/**
 * Everything somebody can do at the phone. Those of the first group write nothing. `athleteId` beside what is done is
 * whom it was seen on: the line may have moved on since, by another phone or a device.
 */
export type Tap =
	| { tap: 'entry'; by: number }
	| { tap: 'go-to'; entryId: string }
	| { tap: 'pick'; athleteId: string }
	| { tap: 'group'; group: number }
	| { tap: 'later'; asked: Asked }
	| { tap: 'heard' }
	| { tap: 'no' }
	/** Does what the question before was about. */
	| { tap: 'sure' }
	| { tap: 'undo' }
	// The rep on the line; nothing where somebody else is there by now.
	| { tap: 'mark'; athleteId: string; measured: Measured; label: string; side?: Leg | undefined }
	/** Off the stopwatch: one run, or several that began together; the rest begins `at` the finish. */
	| { tap: 'runs'; runs: readonly Run[]; at: string; windMps: number | null }
	| { tap: 'missed'; athleteId: string; reason?: (typeof MISSED_REASONS)[number] | undefined; side?: Leg | undefined }
	| { tap: 'untimed'; athleteId: string; side?: Leg | undefined }
	| { tap: 'reps'; athleteId: string; reps: number; grade: Grade | null }
	| { tap: 'advice'; athleteId: string }
	| { tap: 'reading'; mark: Draft; words: string }
	// About what was logged.
	/** Runs that were given out by order are somebody else's. */
	| { tap: 'reorder'; moves: OrderBreak['moves'] }
	| { tap: 'rate'; grade: Grade }
	| { tap: 'amend'; event: LogEvent; change: Partial<LogEvent> }
	| { tap: 'comfort'; worst: number; braking: boolean }
	| { tap: 'correct'; event: LogEvent; change: Partial<LogEvent> }
	| { tap: 'take-back'; events: readonly LogEvent[]; label: string }
	/** A mark that was taken back stands again as it was. */
	| { tap: 'bring-back'; event: Mark; before: Mark }
	| ({ tap: 'note'; text: string } & About)
	// Of the body.
	| { tap: 'worry'; athleteId: string }
	| { tap: 'report'; athleteId: string; report: Report }
	| { tap: 'slip' }
	| { tap: 'other'; athleteId: string }
	| { tap: 'answer'; asked: Asked; score: number }
	// What happens to the plan.
	| ({ tap: 'swap'; drill: Pick<Drill, 'id' | 'version' | 'name'> } & Who)
	| ({ tap: 'end'; reason: EndReason } & Who)
	/** A drill nobody planned, after the one that is shown; `ids` are new ones, of the entry and of the lines. */
	| { tap: 'further'; drill: Pick<Drill, 'id' | 'version'>; ids: readonly string[] }
	/** A drill is done earlier or later than it stands: `to` is its new place, counted from 0. */
	| { tap: 'place'; entryId: string; to: number }
	| { tap: 'here'; athleteId: string; present: boolean }
	/** Somebody who is not on the sheet: of the club by id, or a guest by name; `ids` are new ones, for the lines. */
	| { tap: 'join'; athleteId: string; name: string | null; ids: readonly string[] }
	| { tap: 'to-group'; athleteId: string; group: number }
	| { tap: 'split' }
	| { tap: 'move'; athleteId: string; to: number }
	| { tap: 'conditions'; value: { windMps?: number; surface?: Surface } }
	| { tap: 'cut-short'; reason: CutShortReason }
	/** The session goes on after all, whoever ended it on whatever phone. */
	| { tap: 'go-on' }
