import { createCipheriv, createDecipheriv, createHash } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import {
	answerSubmission,
	beginSubmission,
	dropSubmission,
	forgetSubmissions,
	readSubmission,
} from '../../db/queries/submissions'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'

const KEPT_MS = 2 * 86_400_000
/** A page that is sent without its script is answered with the whole next page; more than that is no answer to keep. */
const MOST_BYTES = 1_000_000
const LOOK_EVERY_MS = 60
/** As long as a request may take. */
const PATIENCE_MS = 30_000

/** What of an answer is given again. */
const HEADERS = /^(content-type|location|x-remix-|cache-control)/

/**
 * An answer is kept so that only who sends the very same form again can read it: an invitation's link is in
 * some. The key is made of what was sent, of which the database holds another hash; each key locks one answer.
 */
const lock = (sent: string) => createHash('sha256').update(`answer\n${sent}`).digest()
const NONCE = Buffer.alloc(12)
function locked(body: Buffer, sent: string): Buffer {
	const cipher = createCipheriv('aes-256-gcm', lock(sent), NONCE)
	const text = Buffer.concat([cipher.update(body), cipher.final()])
	return Buffer.concat([cipher.getAuthTag(), text])
}
function unlocked(kept: Buffer, sent: string): Buffer {
	const decipher = createDecipheriv('aes-256-gcm', lock(sent), NONCE)
	decipher.setAuthTag(kept.subarray(0, 16))
	return Buffer.concat([decipher.update(kept.subarray(16)), decipher.final()])
}

/**
 * Runs a form's action once, however often the form is sent: by a second press, by a browser that repeats
 * it, by two servers at once. Whoever comes second waits for the first and is given the same answer. An
 * action that refused what was typed has done nothing and may be tried again.
 *
 * @param sent where to, and the whole form with its submission id
 */
export async function onceOnly(
	who: SignedIn,
	sent: string,
	run: () => Promise<Response>,
	now: Date,
): Promise<Response> {
	const scope = scopeOf(who.clubId)
	const hash = createHash('sha256').update(`${who.personId}\n${sent}`).digest('hex')
	const giveUpAt = Date.now() + PATIENCE_MS
	while (!(await beginSubmission(scope, hash, now))) {
		const before = await readSubmission(scope, hash)
		if (before?.status)
			return new Response(before.body ? new Uint8Array(unlocked(before.body, sent)) : null, {
				status: before.status,
				headers: before.headers ?? [],
			})
		if (Date.now() > giveUpAt)
			return new Response('This was sent before, and what came of it is not known. Look before you send it again.', {
				status: 409,
			})
		await wait(LOOK_EVERY_MS)
	}
	let answer: Response
	try {
		answer = await run()
	} catch (error) {
		await dropSubmission(scope, hash)
		throw error
	}
	const body = Buffer.from(await answer.clone().arrayBuffer())
	if (answer.status >= 400 || body.length > MOST_BYTES) await dropSubmission(scope, hash)
	else
		await answerSubmission(scope, hash, {
			status: answer.status,
			headers: [...answer.headers].filter(([name]) => HEADERS.test(name)),
			body: body.length === 0 ? null : locked(body, sent),
		})
	await forgetSubmissions(scope, new Date(now.getTime() - KEPT_MS))
	return answer
}
