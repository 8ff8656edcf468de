import type { Library } from '#core/vocabulary/library'
import type { SessionDraft } from '#core/vocabulary/session'
import type { Quality } from '#core/vocabulary/words'
import { type BuildPack, limitedAthletes, targetOn } from '#core/plan/build-pack'
import { type SheetPreview, previewSheet } from '#core/plan/preview-sheet'
import type { SheetEntry } from '#core/plan/resolve-sheet'

/** Where everybody stands and what the club knows: once, until either is another. */
export interface PreviewGround {
	pack: BuildPack
	library: Library
}
export interface PreviewAsked extends Pick<SessionDraft, 'role' | 'theme'> {
	/** Only what can be read so far. */
	entries: readonly SheetEntry[]
	priority: Quality | null
}

let ground: (PreviewGround & { people: ReturnType<typeof limitedAthletes> }) | null = null

/** Entries as they came before: what was worked out for one that is the same stands. */
const before = new Map<string, { text: string; entry: SheetEntry }>()
function asBefore(entry: SheetEntry): SheetEntry {
	const text = JSON.stringify(entry)
	const known = before.get(entry.id)
	if (known?.text === text) return known.entry
	before.set(entry.id, { text, entry })
	return entry
}

/** What a sheet comes to, off the page's own thread: each question answered, in their order. */
self.onmessage = ({ data }: MessageEvent<PreviewGround | PreviewAsked>) => {
	if ('pack' in data) {
		ground = { ...data, people: limitedAthletes(data.pack, data.library) }
		return
	}
	if (!ground) throw new Error('asked before it was said where everybody stands')
	const { pack, library, people } = ground
	const { entries, role, theme, priority } = data
	const preview: SheetPreview = previewSheet(entries.map(asBefore), people, {
		library,
		day: pack.day,
		startTime: pack.startTime,
		surface: pack.surface,
		target: targetOn(pack, library, { role, priority, theme: theme ?? null, surface: pack.surface }),
	})
	self.postMessage(preview)
}
