import { data, redirect } from 'react-router'
import type { Kept } from '#server/library/edit-documents'
import { formOf } from './intents'

/** Takes a document a form sends as JSON and keeps it; what is wrong comes back by field, and nothing is kept. */
export async function keepDocument(
	request: Request,
	keep: (value: unknown) => Promise<Kept>,
	placeOf: (id: string) => string,
) {
	const form = await formOf(request)
	const refuse = (problems: Record<string, string>) => data({ problems }, { status: 400 })
	let value: unknown
	try {
		value = JSON.parse(String(form.get('document') ?? ''))
	} catch {
		return refuse({ document: 'The form did not arrive whole; nothing was kept. Send it again.' })
	}
	const over = Number(form.get('over') ?? 0)
	if (over > 0 && typeof value === 'object' && value !== null) value = { ...value, version: over }
	const kept = await keep(value)
	if ('problems' in kept) return refuse(kept.problems)
	if ('meanwhile' in kept) return data({ problems: {} as Record<string, string>, ...kept }, { status: 409 })
	throw redirect(placeOf(kept.id))
}
