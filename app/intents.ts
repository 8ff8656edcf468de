/** A form that was sent, as its handlers read it. */
export interface Sent {
	form: FormData
	/** A field as it was typed; empty when it was not sent. */
	text(name: string): string
}

/** The form that a request brings. @throws a 400 with a sentence where it brings none, or one that did not arrive whole */
export async function formOf(request: Request): Promise<FormData> {
	try {
		return await request.formData()
	} catch {
		throw new Response('A form is expected here, and this is none. Nothing was changed.', { status: 400 })
	}
}

export const noProblems: Record<string, string> = {}

/**
 * A page's forms, each with its one handler: the form says in `do` which it is. One that the page does not
 * know is refused, and never taken for another.
 */
export async function actOn<T>(
	request: Request,
	intents: Readonly<Record<string, (sent: Sent) => Promise<T>>>,
): Promise<T> {
	const form = await formOf(request)
	const text = (name: string) => String(form.get(name) ?? '')
	const asked = text('do')
	if (!Object.hasOwn(intents, asked))
		throw new Response(`This page has no form “${asked.slice(0, 40)}”. Nothing was changed.`, { status: 400 })
	return intents[asked]!({ form, text })
}
