import { readJson } from '../read-json'

/** A sheet of thirty entries is a tenth of this. */
const MOST_CHARACTERS = 200_000

/**
 * The session as the form sent it and the version it was filled from, or what to say when it did not arrive
 * whole. What is in it is checked where it is saved.
 */
export async function readSentSession(
	request: Request,
): Promise<{ draft: unknown; version: number } | { problems: Record<string, string> }> {
	const read = await readJson(request, MOST_CHARACTERS)
	const sent = 'body' in read ? (read.body as { draft?: unknown; version?: unknown } | null) : null
	return typeof sent === 'object' && sent !== null && sent.draft !== undefined
		? { draft: sent.draft, version: Number(sent.version ?? 0) }
		: { problems: { title: 'The form did not arrive whole; nothing was saved. Send it again.' } }
}
