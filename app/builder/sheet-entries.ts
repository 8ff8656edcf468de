import { v7 as newId } from 'uuid'
import { type Picked, entryName, freshEntry, partsOf, wholeEntry } from '#core/plan/entry-parts'
import { type SheetEntry, tuningForAnotherDay } from '#core/plan/resolve-sheet'
import { isSound } from '#core/vocabulary/sound'
import { SessionEntry } from '#core/vocabulary/entry'
import type { Library } from '#core/vocabulary/library'
import type { SessionDraft } from '#core/vocabulary/session'
import { SessionTemplate } from '#core/vocabulary/template'

type Documents = Pick<Library, 'drills' | 'ladders'>

/** "drill:pogo", "ladder:stiffness": what the search gives back. */
export const pickedOf = (pick: string): Picked => {
	const [kind, id = ''] = pick.split(':')
	return kind === 'ladder' ? { ladderId: id } : { drillId: id, ladderId: null }
}
export const putOn = (pick: string, library: Documents, place?: { part: string; lanes: number }) =>
	freshEntry(newId(), pickedOf(pick), library, place)

/** Entries as they were read before, by the library: what is typed into one of them changes no other. */
const read = new WeakMap<Documents, WeakMap<SessionEntry, SheetEntry | null>>()
/** The entries that can be read so far, whole, as everybody's lines are worked out from them. */
export function readableEntries(entries: readonly SessionEntry[], library: Documents): SheetEntry[] {
	let known = read.get(library)
	if (!known) read.set(library, (known = new WeakMap()))
	return entries.flatMap((entry) => {
		let whole = known.get(entry)
		if (whole === undefined) {
			// A part without a name has work all the same.
			const parts = isSound(SessionEntry, { ...entry, part: 'Part' }) ? partsOf(entry, library) : null
			whole = parts ? { ...wholeEntry(entry, library), family: parts.family } : null
			known.set(entry, whole)
		}
		return whole ?? []
	})
}

/** A proposal's entries on a sheet, each with an id of its own. */
export const proposedEntries = (entries: readonly SheetEntry[]): SessionEntry[] =>
	entries.map(({ family: _family, ...entry }) => ({ ...entry, id: newId() }))

/** The sheet as an open document, without anybody's name in it; null while an entry cannot be read. */
export function templateOf(draft: SessionDraft, library: Documents): SessionTemplate | null {
	const template = {
		format: 'dromos-session',
		version: 2,
		name: draft.title.trim() || 'Session',
		minutes: draft.plannedMinutes,
		entries: draft.entries.map(({ id: _id, ...entry }) => ({
			...wholeEntry({ ...entry, id: '' }, library),
			id: undefined,
			part: entry.part.trim() || entryName(entry, library),
			tuning: tuningForAnotherDay(entry.tuning),
		})),
	}
	const plain: unknown = JSON.parse(JSON.stringify(template))
	return isSound(SessionTemplate, plain) ? plain : null
}
/** A template's entries on a sheet; what the club's library does not hold is named. */
export function entriesOfTemplate(
	{ entries }: SessionTemplate,
	library: Documents,
): { entries: SessionEntry[]; unknown: string[] } {
	const unknown: string[] = []
	return {
		entries: entries.flatMap((entry) => {
			const missing = [
				...(partsOf(entry, library) ? [] : [entry.ladderId ?? entry.drillId]),
				...Object.values(entry.tuning?.variants ?? {}).flatMap((form) =>
					form && !library.drills[form.drillId] ? [form.drillId] : [],
				),
			]
			unknown.push(...missing)
			return missing.length > 0 ? [] : [{ ...entry, id: newId() }]
		}),
		unknown,
	}
}
