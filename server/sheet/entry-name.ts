import type { Library } from '../../core/library/types'

/** What an entry is called: its ladder, or its drill; its part where neither is in the library any more. */
export const entryName = ({ ladderId, drillId, part }: { ladderId: string | null; drillId: string; part: string }, library: Library): string =>
	(ladderId ? library.ladders[ladderId]?.name : library.drills[drillId]?.name) ?? part
