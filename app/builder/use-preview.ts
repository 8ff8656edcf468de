import { startTransition, useEffect, useRef, useState } from 'react'
import type { Library } from '#core/vocabulary/library'
import type { SessionDraft } from '#core/vocabulary/session'
import type { Quality } from '#core/vocabulary/words'
import type { BuildPack } from '#core/plan/build-pack'
import type { SheetPreview } from '#core/plan/preview-sheet'
import { PreviewLink } from './preview-link'
import { readableEntries } from './sheet-entries'

/** What the sheet came to when it was last worked out, and on which ground. */
export interface Previewed {
	preview: SheetPreview
	pack: BuildPack
}

/**
 * What a sheet comes to, worked out off the page's own thread: it follows what is typed.
 *
 * @param pack null while nobody is picked: nothing is worked out then
 */
export function usePreview(
	{ entries, role, theme }: Pick<SessionDraft, 'entries' | 'role' | 'theme'>,
	pack: BuildPack | null,
	library: Library,
	priority: Quality | null,
): { previewed: Previewed | null; hasFailed: boolean } {
	const link = useRef<PreviewLink | null>(null)
	const [previewed, setPreviewed] = useState<Previewed | null>(null)
	const [hasFailed, setFailed] = useState(false)
	useEffect(() => {
		const worker = new Worker(new URL('../workers/preview-worker.ts', import.meta.url), { type: 'module' })
		link.current = new PreviewLink(worker, {
			answer: (preview, of) =>
				startTransition(() => {
					setFailed(false)
					setPreviewed({ preview, pack: of.pack })
				}),
			failure: () => setFailed(true),
		})
		return () => link.current?.end()
	}, [])
	useEffect(() => {
		if (pack) link.current?.ask({ pack, library, entries: readableEntries(entries, library), role, theme, priority })
	}, [entries, role, theme, pack, library, priority])
	// Of a sheet without people nothing is left standing.
	return { previewed: pack && !hasFailed ? previewed : null, hasFailed }
}
