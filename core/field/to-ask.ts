import { touches } from '../care/grades'
import type { Drill } from '../vocabulary/drill'
import type { LogEvent } from '../vocabulary/events'
import { type Region, SIDES } from '../vocabulary/words'

/** A place the athlete is asked about once the easy form, or the step of a way back, was done: "how was it?" */
export interface Ask {
	region: Region
	side: 'left' | 'right' | 'both'
	/** After head or chest any work is asked about, whatever it loads. */
	afterAnything?: boolean
}

/** A line of the athlete, as far as it decides whether it is time to ask. */
interface Done {
	drill: Drill | undefined
	repsDone: number
	finished: boolean
}

/**
 * What somebody is to be asked now: a line that loads the place is over, and nobody has asked yet or heard of it
 * in this session. Not asked is not quiet.
 */
export function toAsk(
	{ id, ask = [] }: { id: string; ask?: readonly Ask[] | undefined },
	lines: readonly Done[],
	events: readonly LogEvent[],
): Ask[] {
	return ask.filter(({ region, side, afterAnything }) => {
		const loaded = lines.some(
			({ drill, repsDone, finished }) =>
				finished && repsDone > 0 && (afterAnything === true || (drill?.regions[region] ?? 0) > 0),
		)
		const heard = events.some(
			(event) =>
				event.athleteId === id &&
				event.void !== true &&
				(event.kind === 'quiet' || event.kind === 'pain') &&
				event.value.region === region &&
				SIDES.some((one) => touches({ side }, one) && touches(event.value, one)),
		)
		return loaded && !heard
	})
}
