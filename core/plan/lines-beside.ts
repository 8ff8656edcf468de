import type { Library } from '../vocabulary/library'
import { writeWork } from '../words/write-work'
import type { LastLine, PackAthlete } from './build-pack'
import type { SheetPreview } from './preview-sheet'

/** One athlete’s line of a piece, as it is read beside it. */
export interface LineBeside {
	/** "no line" where there is nothing to do. */
	words: string
	/** Why it is no line, or another one than the rung’s own. */
	why: string | null
	/** What they had the last time, where it was another. */
	was: LastLine | null
	/** Nothing of it stood on a session of the last weeks. */
	isFirst: boolean
}

/**
 * Everybody’s line of one entry with what is other than the last time, by athlete. The last time is that of the ladder,
 * or of the drill where there is none.
 *
 * @param athletes whose `last` is read; an athlete without it has no last time
 */
export function linesBeside(
	preview: Pick<SheetPreview, 'athletes'>,
	entry: { id: string; ladderId: string | null; drillId: string },
	athletes: readonly Pick<PackAthlete, 'id' | 'last'>[],
	library: Pick<Library, 'drills'>,
): Map<string, LineBeside> {
	const last = new Map(athletes.map((athlete) => [athlete.id, athlete.last ?? {}]))
	return new Map(
		preview.athletes.flatMap(({ id, lines }): [string, LineBeside][] => {
			const line = lines.get(entry.id)
			if (!line) return []
			const open = line.blocked === null
			const before = last.get(id)?.[entry.ladderId ?? (open ? line.drillId : entry.drillId)] ?? null
			const words = open ? writeWork(line, (drillId) => library.drills[drillId]) : 'no line'
			return [
				[
					id,
					{
						words,
						why: open ? line.note : line.blocked,
						was: before && before.words !== words ? before : null,
						isFirst: open && before === null,
					},
				],
			]
		}),
	)
}
