import type { SessionEntry } from '../vocabulary/entry'
import type { Drill } from '../vocabulary/drill'
import type { Ladder } from '../vocabulary/ladder'
import type { Library } from '../vocabulary/library'
import type { Family } from '../vocabulary/words'
import { inSentence } from '../words/write-numbers'
import { wholePieces } from './complex-entry'

type Documents = Pick<Library, 'drills' | 'ladders'>

/** What is picked for a sheet: a drill for everybody, or a ladder on which everybody has their own rung. */
export type Picked = { drillId: string; ladderId: null } | { drillId?: string; ladderId: string }

export interface EntryParts {
	/** With a ladder, the drill of its first rung. */
	drill: Drill
	ladder: Ladder | null
	family: Family
	/** What it is called: its ladder, or its drill. */
	name: string
}
/** The documents an entry speaks of; null where the library does not hold them. */
export function partsOf({ drillId, ladderId }: Picked, library: Documents): EntryParts | null {
	const ladder = ladderId === null ? null : library.ladders[ladderId]
	if (ladder === undefined) return null
	const drill = library.drills[ladder ? ladder.rungs[0]!.drillId : (drillId ?? '')]
	return drill ? { drill, ladder, family: ladder?.family ?? drill.family, name: ladder?.name ?? drill.name } : null
}

/** What an entry is called; its part where it has a form for each level, or where its documents are gone. */
export const entryName = (
	entry: Pick<SessionEntry, 'drillId' | 'ladderId' | 'part' | 'tuning'> & {
		pieces?: readonly { drillId: string }[] | null | undefined
	},
	library: Documents,
): string =>
	entry.tuning?.variants
		? entry.part
		: entry.pieces && entry.ladderId === null
			? entry.pieces
					.map(({ drillId }, index) => {
						const name = library.drills[drillId]?.name ?? entry.part
						return index === 0 ? name : `then ${inSentence(name)}`
					})
					.join(', ')
			: ((entry.ladderId === null ? library.drills[entry.drillId]?.name : library.ladders[entry.ladderId]?.name) ??
				entry.part)

/** What the entries of one sheet are called: those that would be called alike are told apart by their parts. */
export function namesOn<E extends Parameters<typeof entryName>[0] & Pick<SessionEntry, 'id'>>(
	entries: readonly E[],
	library: Documents,
): ReadonlyMap<string, string> {
	const plain = entries.map((entry) => entryName(entry, library))
	return new Map(
		entries.map((entry, index) => {
			const name = plain[index]!
			const alone = plain.filter((other) => other === name).length === 1
			return [entry.id as string, alone || entry.part === name ? name : `${entry.part}, ${inSentence(name)}`]
		}),
	)
}

/** A drill or a ladder as it is first put on a sheet; null where the library does not hold it. */
export function freshEntry(
	id: string,
	picked: Picked,
	library: Documents,
	{ part, lanes = 1 }: { part?: string; lanes?: number } = {},
): SessionEntry | null {
	const parts = partsOf(picked, library)
	if (!parts) return null
	const { dose, rest, parameters } = parts.drill.defaults
	return {
		id,
		part: part ?? parts.name,
		drillId: parts.drill.id,
		ladderId: parts.ladder?.id ?? null,
		dose,
		rest,
		parameters: parts.ladder ? {} : parameters,
		doseFactor: 1,
		lanes,
		together: 1,
		tuning: null,
	}
}

/** An entry with what it does not say filled from its drill. Rungs say their own. */
export function wholeEntry<E extends SessionEntry>(entry: E, library: Documents): E {
	const drill = entry.ladderId === null ? library.drills[entry.drillId] : undefined
	if (!drill) return entry
	const whole = { ...entry, parameters: { ...drill.defaults.parameters, ...entry.parameters } }
	const pieces = wholePieces(whole, library)
	return pieces ? { ...whole, pieces } : whole
}
