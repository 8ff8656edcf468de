import { useEffect, useState } from 'react'
import type { Draft } from './read-form'

/** What is typed in a tool stays over a reload, in this tab only: the numbers of an athlete are nobody else's. */
export function useDraft(tool: string, empty: Draft): [Draft, (change: (draft: Draft) => Draft) => void] {
	const [draft, setDraft] = useState(empty)
	const [restored, setRestored] = useState(false)
	const key = `bench:${tool}`
	useEffect(() => {
		// After the first paint, because the server knows nothing of this tab.
		const kept = readKept(key)
		if (kept) setDraft(kept)
		setRestored(true)
	}, [key])
	useEffect(() => {
		if (!restored) return
		try {
			sessionStorage.setItem(key, JSON.stringify(draft))
		} catch {
			// Storage full or switched off: the tool works on, only without surviving a reload.
		}
	}, [key, draft, restored])
	return [draft, setDraft]
}

function readKept(key: string): Draft | null {
	try {
		const kept: unknown = JSON.parse(sessionStorage.getItem(key) ?? 'null')
		const { values, rows } = (kept ?? {}) as Partial<Draft>
		return values && Array.isArray(rows) ? { values, rows } : null
	} catch {
		return null
	}
}
