import { MeanwhileNote, type Overtaken } from '../ui/meanwhile-note'

/** What became of a change, under the id of what was changed. */
export interface ClubSaid {
	of: string
	problem?: string
	meanwhile?: Overtaken
}

/** What the last answer says of one thing: kept, a problem, or somebody was faster. */
export function SaidSaved({ of, changed, words = 'Kept.' }: { of: string; changed: ClubSaid | null; words?: string }) {
	if (changed?.of !== of) return null
	if (changed.meanwhile) return <MeanwhileNote overtaken={changed.meanwhile} />
	return changed.problem ? (
		<p className="problem" role="alert">
			{changed.problem}
		</p>
	) : (
		<p role="status">{words}</p>
	)
}
export const isOpen = (of: string, changed: ClubSaid | null): boolean =>
	changed?.of === of && (changed.problem ?? changed.meanwhile) !== undefined
