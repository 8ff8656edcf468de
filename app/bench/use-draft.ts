import { use, useEffect, useState } from 'react'
import { DraftsOf, openDraft } from '../ui/kept-draft'
import type { Draft } from './read-form'

/** What is typed in a tool stays over a reload, in this tab only: the numbers of an athlete are nobody else's. */
export function useDraft(tool: string, empty: Draft): [Draft, (change: (draft: Draft) => Draft) => void] {
	const personId = use(DraftsOf)
	const [draft, setDraft] = useState(empty)
	const [restored, setRestored] = useState(false)
	useEffect(() => {
		// After the first paint, because the server knows nothing of this tab.
		const { values, rows } = (openDraft(personId, tool).read() ?? {}) as Partial<Draft>
		if (values && Array.isArray(rows)) setDraft({ values, rows })
		setRestored(true)
	}, [personId, tool])
	useEffect(() => {
		if (restored) openDraft(personId, tool).write(draft)
	}, [personId, tool, draft, restored])
	return [draft, setDraft]
}
