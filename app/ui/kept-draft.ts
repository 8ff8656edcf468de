import { createContext, use, useEffect, useMemo, useRef, useState } from 'react'
import { useActionData, useNavigation } from 'react-router'
import { useWhenQuiet } from './when-quiet'

/**
 * What is typed and not saved is kept under these names, for this tab and this person alone: a reload, Back, a server that
 * is down and an expired sign-in leave it.
 */
const PREFIX = 'dromos-draft '
const ofPerson = (personId: string) => `${PREFIX}${personId} `

/** The id of the person whose drafts are kept: whoever is signed in. */
export const DraftsOf = createContext('nobody')

export interface DraftStore {
	read: () => unknown
	write: (value: unknown) => void
	clear: () => void
}
/** One draft of the page that is open, by a name of its own there. */
export function openDraft(personId: string, what: string): DraftStore {
	const name = `${ofPerson(personId)}${window.location.pathname}${window.location.search} ${what}`
	return {
		read: () => {
			try {
				const text = sessionStorage.getItem(name)
				return text === null ? null : (JSON.parse(text) as unknown)
			} catch {
				return null
			}
		},
		write: (value) => {
			try {
				sessionStorage.setItem(name, JSON.stringify(value))
			} catch {
				// A device that is full or keeps nothing: the page goes on as it would without drafts.
			}
		},
		clear: () => sessionStorage.removeItem(name),
	}
}
/** On signing out nothing typed stays behind, and where somebody else signs in nothing but what is theirs. */
export function forgetDrafts(butOf?: string): void {
	for (const name of Object.keys(sessionStorage))
		if (name.startsWith(PREFIX) && !(butOf !== undefined && name.startsWith(ofPerson(butOf))))
			sessionStorage.removeItem(name)
}

/** Whether an answer says that something was not taken, or that it was only looked at. */
export function isRefused(answer: unknown): boolean {
	if (typeof answer !== 'object' || answer === null) return false
	const { problem, problems, meanwhile, looked } = answer as Record<string, unknown> & { problems?: object }
	return (
		Boolean(problem) ||
		Boolean(meanwhile) ||
		Boolean(looked) ||
		(problems !== undefined && Object.keys(problems).length > 0)
	)
}

/**
 * The draft of a form: there while the page is open in the browser, gone once what was sent has been taken. An answer
 * that leads to another page is a yes, except to the sign-in page.
 *
 * @param what name of the form on its page; null where nothing is kept
 * @param submission id the form is sent with, where the page has other forms: what those are answered is not about it
 */
export function useDraftStore(what: string | null, submission?: string): React.RefObject<DraftStore | null> {
	const personId = use(DraftsOf)
	const store = useRef<DraftStore | null>(null)
	const answer: unknown = useActionData()
	const { state, formData } = useNavigation()
	const isOwn = submission === undefined || formData?.get('submission') === submission
	const sent = useRef(false)
	const answered = useRef(answer)
	answered.current = answer
	useEffect(() => {
		if (what === null) return
		const own = openDraft(personId, what)
		const at = window.location.pathname
		store.current = own
		if (answered.current !== undefined && !isRefused(answered.current)) own.clear()
		return () => {
			const now = window.location.pathname
			if (sent.current && now !== at && now !== '/sign-in') own.clear()
		}
	}, [what, personId])
	useEffect(() => {
		if (state === 'submitting') sent.current = isOwn
		else if (state === 'idle' && sent.current) {
			sent.current = false
			if (answered.current !== undefined && !isRefused(answered.current)) store.current?.clear()
		}
	}, [state, isOwn])
	return store
}

/**
 * State that is kept as a draft; what was found is there after the first paint, with a way to begin anew.
 *
 * `setSoon` is for keys: what is typed is in `newest` and kept at once, and drawn when no more keys come, or with `settle`:
 * before a press, which goes by what is drawn. A change is made of what is newest, whatever is drawn.
 *
 * @param isOfUse whether what was kept has the shape of today; one function, not a new one each time
 */
export function useKeptState<T>(what: string, initial: T, isOfUse: (kept: T) => boolean) {
	const [value, setValue] = useState(initial)
	const [isBack, setBack] = useState(false)
	const store = useDraftStore(what)
	const begun = useRef(initial)
	const newest = useRef(initial)
	useEffect(() => {
		const kept = store.current?.read() as T | null
		if (!kept || !isOfUse(kept)) return
		newest.current = kept
		setValue(kept)
		setBack(true)
	}, [store, isOfUse])
	const whenQuiet = useWhenQuiet()
	const ways = useMemo(() => {
		const take = (change: (now: T) => T) => {
			newest.current = change(newest.current)
			store.current?.write(newest.current)
		}
		return {
			setNow: (change: (now: T) => T) => {
				take(change)
				setValue(newest.current)
			},
			setSoon: (change: (now: T) => T) => {
				take(change)
				whenQuiet(() => setValue(newest.current))
			},
			settle: () => setValue(newest.current),
			startOver: () => {
				store.current?.clear()
				setBack(false)
				newest.current = begun.current
				setValue(begun.current)
			},
		}
	}, [store, whenQuiet])
	return { value, newest, isBack, ...ways }
}
