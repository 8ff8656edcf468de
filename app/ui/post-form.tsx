import { useEffect, useRef, useState } from 'react'
import { Form, type FormProps, useNavigation } from 'react-router'
import { v4 as newId } from 'uuid'
import { useDraftStore } from './kept-draft'

/**
 * The id of what is being filled in: the same for every press until it has been answered, then a new one.
 *
 * @param state of the navigation or the fetcher that sends it
 */
export function useSubmission(state: 'idle' | 'loading' | 'submitting'): string {
	const [id, setId] = useState(() => newId())
	const sent = useRef(false)
	useEffect(() => {
		if (state !== 'idle') sent.current = true
		else if (sent.current) {
			sent.current = false
			setId(newId())
		}
	}, [state])
	return id
}

/** The submission id inside a form. The one the server wrote stays until the form has been answered. */
export const SubmissionField = ({ id }: { id: string }) => (
	<input type="hidden" name="submission" value={id} suppressHydrationWarning />
)

/**
 * A form that is sent to an action; sent twice it is one.
 *
 * @param keep name of the form on its page, where what is typed into it is kept until it has been saved
 */
export function PostForm({ children, keep, ...rest }: Omit<FormProps, 'method'> & { keep?: string }) {
	const { state } = useNavigation()
	const id = useSubmission(state)
	const form = useRef<HTMLFormElement>(null)
	const onSubmit = useTurn(state, form, rest.onSubmit)
	const store = useDraftStore(keep ?? null, id)
	const [isBack, setBack] = useState(false)
	useEffect(() => {
		const kept = store.current?.read()
		if (form.current && kept) setBack(fillIn(form.current, kept as Record<string, string[]>))
	}, [store])
	const startOver = () => {
		store.current?.clear()
		form.current?.reset()
		setBack(false)
	}
	return (
		<Form
			{...rest}
			ref={form}
			method="post"
			onSubmit={onSubmit}
			onInput={keep === undefined ? undefined : () => store.current?.write(typedInto(form.current!))}
		>
			<SubmissionField id={id} />
			{isBack && <DraftBack startOver={startOver} />}
			{children}
		</Form>
	)
}

/**
 * Another press while the page is being brought up to date waits for it: what it would send of the page, such as the
 * version that was seen, is about to be another. The same press twice is one and goes at once.
 */
function useTurn(
	state: 'idle' | 'loading' | 'submitting',
	form: React.RefObject<HTMLFormElement | null>,
	onSubmit: FormProps['onSubmit'],
): NonNullable<FormProps['onSubmit']> {
	const last = useRef('')
	const [waiting, setWaiting] = useState<HTMLElement | null>(null)
	useEffect(() => {
		if (state !== 'idle' || waiting === null) return
		setWaiting(null)
		form.current?.requestSubmit(waiting instanceof HTMLButtonElement && waiting.isConnected ? waiting : null)
	}, [state, waiting, form])
	return (event) => {
		const submitter = (event.nativeEvent as SubmitEvent).submitter
		const pressed = JSON.stringify(
			[...new FormData(event.currentTarget, submitter)].map(([name, value]) => [name, String(value)]),
		)
		if (state === 'loading' && pressed !== last.current) {
			event.preventDefault()
			return setWaiting(submitter ?? event.currentTarget)
		}
		last.current = pressed
		onSubmit?.(event)
	}
}

/** Says that what was typed before is there again, and takes it away. */
export const DraftBack = ({ startOver }: { startOver: () => void }) => (
	<p className="flex flex-wrap items-center gap-x-3 border-l-4 border-act pl-3" role="status">
		What you had typed is back; it is not saved yet.
		<button type="button" className="link min-h-[44px]" onClick={startOver}>
			Start over
		</button>
	</p>
)

type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement
/** What people fill in: nothing the page wrote itself, no file and no password. */
const fieldsOf = (form: HTMLFormElement): Field[] =>
	[...form.elements].filter(
		(one): one is Field =>
			(one instanceof HTMLInputElement &&
				one.name !== '' &&
				(!['hidden', 'file', 'password', 'submit'].includes(one.type) || one.dataset.typed !== undefined)) ||
			one instanceof HTMLSelectElement ||
			one instanceof HTMLTextAreaElement,
	)
const isTick = (field: Field): field is HTMLInputElement =>
	field instanceof HTMLInputElement && ['checkbox', 'radio'].includes(field.type)

/** Values by name, in the order of the fields; of boxes those that are ticked. */
function typedInto(form: HTMLFormElement): Record<string, string[]> {
	const typed: Record<string, string[]> = {}
	for (const field of fieldsOf(form)) {
		const values = (typed[field.name] ??= [])
		if (!isTick(field) || field.checked) values.push(field.value)
	}
	return typed
}
/** Puts kept values into a form; whether that changed anything. A form that reacts to what is typed hears of it. */
function fillIn(form: HTMLFormElement, kept: Record<string, string[]>): boolean {
	let changed = false
	const nth = new Map<string, number>()
	for (const field of fieldsOf(form)) {
		const values = kept[field.name]
		if (!values) continue
		if (isTick(field)) {
			if (field.checked === values.includes(field.value)) continue
			field.click()
			changed = true
			continue
		}
		const index = nth.get(field.name) ?? 0
		nth.set(field.name, index + 1)
		const value = values[index]
		if (value === undefined || value === field.value) continue
		field.value = value
		field.dispatchEvent(new Event('change', { bubbles: true }))
		changed = true
	}
	return changed
}
