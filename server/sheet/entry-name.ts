import type { Library } from '../../core/library/types'
import type { EntryTuning } from '../../core/plan/resolve-sheet'

/** What an entry is called: its ladder, or its drill; its part where it has a form for each level, or where neither is in the library any more. */
export const entryName = (
	{
		ladderId,
		drillId,
		part,
		tuning,
	}: { ladderId: string | null; drillId: string; part: string; tuning: EntryTuning | null },
	library: Library,
): string =>
	(tuning?.variants ? part : ladderId ? library.ladders[ladderId]?.name : library.drills[drillId]?.name) ?? part
