/** A request's body as JSON, or the answer that says why it is none. */
export async function readJson(
	request: Request,
	maxCharacters: number,
): Promise<{ body: unknown } | { error: string; status: 400 | 413 }> {
	if (Number(request.headers.get('content-length') ?? 0) > maxCharacters * 4)
		return { error: `at most ${maxCharacters} characters are expected`, status: 413 }
	const text = await request.text()
	if (text.length > maxCharacters) return { error: `at most ${maxCharacters} characters are expected`, status: 413 }
	try {
		return { body: JSON.parse(text) as unknown }
	} catch {
		return { error: 'JSON is expected', status: 400 }
	}
}

/** What the database says when it is away; the device keeps what it has and asks again. */
export const isDatabaseAway = (error: unknown): boolean => {
	for (let at: unknown = error; at instanceof Error; at = at.cause)
		if (
			'code' in at &&
			typeof at.code === 'string' &&
			/^(ECONN|PROTOCOL_|ETIMEDOUT|EPIPE|ER_SERVER_SHUTDOWN|ER_CON_COUNT)/.test(at.code)
		)
			return true
	return false
}
export const AWAY = { error: 'The database does not answer; keep what you have and try again.' }
