import { readJson } from '../read-json'

/** A sheet of thirty entries is a tenth of this. */
const MOST_CHARACTERS = 200_000

/** The session as the form sent it, or what to say when it did not arrive whole. What is in it is checked where it is saved. */
export async function readSentSession(
	request: Request,
): Promise<{ draft: unknown } | { problems: Record<string, string> }> {
	const read = await readJson(request, MOST_CHARACTERS)
	return 'body' in read
		? { draft: read.body }
		: { problems: { title: 'The form did not arrive whole; nothing was saved. Send it again.' } }
}
