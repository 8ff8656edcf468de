import { useEffect, useRef, useState } from 'react'
import { Form, type FormProps, useNavigation } from 'react-router'
import { v4 as newId } from 'uuid'

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

/** A form that is sent to an action; sent twice it is one. */
export function PostForm({ children, ...rest }: Omit<FormProps, 'method'>) {
	const id = useSubmission(useNavigation().state)
	return (
		<Form {...rest} method="post">
			<SubmissionField id={id} />
			{children}
		</Form>
	)
}
