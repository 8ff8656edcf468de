import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { inTurn } from './in-turn'
import { COST } from './password-cost'

const MAX_MEMORY = 128 * COST.N * COST.r * 2

/** One at a time: a try takes a core for a third of a second, and pages need the other. More than these are sent away. */
const MOST_WAITING = 200
let waiting = 0
const hashInTurn = inTurn()

/** So many people sign in at once that one more would wait for a minute. */
export class TooManyAtOnce extends Error {
	constructor() {
		super('So many people are signing in that this would take minutes. Try again in a moment.')
	}
}

function derive(password: string, salt: Buffer, cost: typeof COST): Promise<Buffer> {
	if (waiting >= MOST_WAITING) throw new TooManyAtOnce()
	waiting++
	const work = () =>
		new Promise<Buffer>((resolve, reject) =>
			scrypt(password.normalize('NFKC'), salt, KEY_BYTES, { ...cost, maxmem: MAX_MEMORY }, (error, key) =>
				error ? reject(error) : resolve(key),
			),
		)
	return hashInTurn(work).finally(() => waiting--)
}

const SALT_BYTES = 16
const KEY_BYTES = 32
/** "scrypt$N$r$p$salt$key": the cost travels with the hash, so that it can be raised later. */
const written = (salt: Buffer, key: Buffer): string =>
	['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join('$')

export async function hashPassword(password: string): Promise<string> {
	const salt = randomBytes(SALT_BYTES)
	return written(salt, await derive(password, salt, COST))
}

export async function passwordMatches(password: string, hash: string): Promise<boolean> {
	const [scheme, N, r, p, salt, key] = hash.split('$')
	if (scheme !== 'scrypt' || !salt || !key) return false
	const wanted = Buffer.from(key, 'base64')
	const found = await derive(password, Buffer.from(salt, 'base64'), { N: Number(N), r: Number(r), p: Number(p) })
	return wanted.length === found.length && timingSafeEqual(wanted, found)
}

/**
 * Looked at when nobody has the address, so that the time taken does not tell who is a member. No password belongs to it:
 * its key was never derived from one.
 */
export const DECOY_HASH = written(randomBytes(SALT_BYTES), randomBytes(KEY_BYTES))
