import { entryName } from '../../core/plan/entry-parts'
import { themeOn } from '../../core/plan/themes'
import { writeDose } from '../../core/words/write-numbers'
import { type SessionEntry, workOf } from '../../core/vocabulary/entry'
import type { Library } from '../../core/vocabulary/library'
import type { SessionDraft } from '../../core/vocabulary/session'
import { writeRest } from '../../core/words/rests'
import type { SessionRow } from '../../db/queries/sessions'
import type { Described } from '../submissions/take-version'

/** An entry alone, without where it is kept. */
const sheetEntry = ({
	id,
	part,
	drillId,
	ladderId,
	doseFactor,
	lanes,
	together,
	tuning,
	...work
}: SessionEntry): SessionEntry => ({
	id,
	part,
	drillId,
	ladderId,
	...workOf(work),
	doseFactor,
	lanes,
	together,
	tuning,
})

/** A session that stands, as its form holds it. */
export const draftOf = (
	{ squadId, day, startTime, title, place, surface, plannedMinutes, role, theme, share }: SessionRow,
	entries: readonly SessionEntry[],
	athleteIds: string[],
): SessionDraft => ({
	squadId,
	day,
	startTime,
	title,
	place,
	surface,
	plannedMinutes,
	role,
	theme,
	share,
	athleteIds,
	entries: entries.map(sheetEntry),
})

/** A session in words, part by part. */
export function describe(draft: SessionDraft, names: ReadonlyMap<string, string>, library: Library): Described {
	return [
		['Day', `${draft.day}, ${draft.startTime}`],
		['Title', draft.title.trim()],
		['Place', draft.place.trim()],
		['Under foot', draft.surface ?? 'not said'],
		['Minutes', String(draft.plannedMinutes)],
		['The day is for', themeOn(library.themes, draft)?.name ?? draft.role],
		[
			'Who comes',
			draft.athleteIds
				.map((id) => names.get(id) ?? 'somebody')
				.sort()
				.join(', '),
		],
		...draft.entries.map((entry, index): [string, string] => [
			`Entry ${index + 1}`,
			[
				`${entry.part.trim()}: ${entryName(entry, library)}`,
				// On a ladder everybody has their own.
				...(entry.ladderId === null ? [writeDose(entry.dose), writeRest(entry.rest, entry.dose)] : []),
				...Object.entries(entry.parameters).map(([name, value]) => `${name} ${String(value)}`),
				`${entry.lanes} ${entry.lanes === 1 ? 'lane' : 'lanes'}`,
			]
				.filter((words) => words !== '')
				.join(', '),
		]),
	]
}
