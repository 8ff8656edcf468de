import { createHash, randomBytes } from 'node:crypto'
import {
	deleteSignIn,
	insertSignIn,
	personByEmail,
	personBySignIn,
	readFailures,
	writeFailures,
} from '../../db/queries/clubs'
import type { Units } from '../../core/words/units'
import type { Role } from '../../db/schema/people'
import { database } from '../database'
import { DECOY_HASH, passwordMatches } from './password'

export interface SignedIn {
	clubId: string
	clubName: string
	timeZone: string
	personId: string
	name: string
	role: Role
	athleteId: string | null
	units: Units
}

const DAYS = 14
const FREE_TRIES = 5
const MAX_WAIT_S = 15 * 60

export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex')
export const newToken = (): string => randomBytes(32).toString('base64url')
export const normalEmail = (email: string): string => email.trim().toLowerCase()

/** Seconds to wait after so many failures in a row: nothing for five, then 2, 4, 8 … up to a quarter of an hour. */
export const waitAfter = (failures: number): number =>
	failures < FREE_TRIES ? 0 : Math.min(MAX_WAIT_S, 2 ** (failures - FREE_TRIES + 1))

/** What is left of that wait; a clock that was set back makes it no longer than it is. */
export function secondsToWait(failures: number, lastFailedAt: Date, now: Date): number {
	const wait = waitAfter(failures)
	return Math.max(0, Math.min(wait, Math.ceil(wait - (now.getTime() - lastFailedAt.getTime()) / 1000)))
}

export type SignInResult = { token: string; expiresAt: Date } | { problem: string }

/** Email and password to a server-side session. Tries on one address are slowed down, whoever makes them. */
export async function signInWithPassword(email: string, password: string, now: Date): Promise<SignInResult> {
	const { db } = database()
	const address = normalEmail(email)
	const key = hashToken(`sign-in:${address}`)
	const before = await readFailures(db, key)
	const waitS = before ? secondsToWait(before.failures, before.lastFailedAt, now) : 0
	if (waitS > 0)
		return {
			problem: `Too many tries for this address. Wait ${waitS < 90 ? `${waitS} s` : `${Math.ceil(waitS / 60)} min`} and try again.`,
		}
	const person = await personByEmail(db, address)
	const matches = await passwordMatches(password, person?.passwordHash ?? (await DECOY_HASH))
	if (!person || !matches || person.leftAt !== null) {
		await writeFailures(db, key, (before?.failures ?? 0) + 1, now)
		return { problem: 'The address and the password do not belong together.' }
	}
	if (before) await writeFailures(db, key, 0, now)
	return openSession(person.clubId, person.id, now)
}

export async function openSession(
	clubId: string,
	personId: string,
	now: Date,
): Promise<{ token: string; expiresAt: Date }> {
	const token = newToken()
	const expiresAt = new Date(now.getTime() + DAYS * 86_400_000)
	await insertSignIn(database().db, { tokenHash: hashToken(token), clubId, personId, createdAt: now, expiresAt })
	return { token, expiresAt }
}

export async function whoIs(token: string | null, now: Date): Promise<SignedIn | null> {
	if (!token) return null
	return personBySignIn(database().db, hashToken(token), now)
}

export async function signOut(token: string | null): Promise<void> {
	if (token) await deleteSignIn(database().db, hashToken(token))
}
