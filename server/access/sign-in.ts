import { createHash, randomBytes } from 'node:crypto'
import { v7 as newId } from 'uuid'
import {
	deleteSignIn,
	forgetTries,
	giveTryBack,
	hasSignIn,
	insertKnownDevice,
	insertSignIn,
	isKnownDevice,
	noteSeen,
	personByEmail,
	personBySignIn,
	takeTry,
	writeDeed,
} from '../../db/queries/clubs'
import type { Units } from '../../core/words/units'
import type { Role } from '../../db/schema/people'
import { database, scopeOf } from '../database'
import { canonicalAddress, isAddress } from './address'
import { DECOY_HASH, TooManyAtOnce, passwordMatches } from './password'
import { inTurn } from './in-turn'

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

/** A sign-in that nobody uses ends, and one that is used ends too. */
const IDLE_DAYS = 14
const LONGEST_DAYS = 90
const DAY_MS = 86_400_000
/** Noted no more often than this, so that reading a page writes next to nothing. */
const SEEN_EVERY_MS = 3_600_000
const FREE_TRIES = 5
/** From one place many people sign in, and some of them mistype. */
const FREE_FROM_ONE_PLACE = 40
const MAX_WAIT_S = 15 * 60

/** Where a sign-in comes from. */
export interface From {
	/** The network of the client, as far as it tells one household from another. */
	network: string
	/** What a browser that has signed in before brings; null for a stranger. */
	device: string | null
	/** What it is, in words. */
	browser: string
}

export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex')
export const newToken = (): string => randomBytes(32).toString('base64url')
export const idleSince = (now: Date): Date => new Date(now.getTime() - IDLE_DAYS * DAY_MS)

/** Seconds to wait after so many failures in a row: nothing for five, then 2, 4, 8 … up to a quarter of an hour. */
export const waitAfter = (failures: number): number =>
	failures < FREE_TRIES ? 0 : Math.min(MAX_WAIT_S, 2 ** (failures - FREE_TRIES + 1))

/** What is left of that wait; a clock that was set back makes it no longer than it is. */
export function secondsToWait(failures: number, lastFailedAt: Date, now: Date): number {
	const wait = waitAfter(failures)
	return Math.max(0, Math.min(wait, Math.ceil(wait - (now.getTime() - lastFailedAt.getTime()) / 1000)))
}

/** Tries wait for each other’s rows: each with a connection of its own, they would leave pages none. */
const tryInTurn = inTurn()

/**
 * Counts one try of somebody who may be guessing, before it is made.
 *
 * @param free failures that slow nobody down beyond the usual
 * @returns seconds to wait; 0 where the try may be made
 */
export async function secondsBeforeTry(key: string, free: number, now: Date): Promise<number> {
	const wait = (failures: number, at: Date) => secondsToWait(Math.max(0, failures - free), at, now)
	const { taken, failures, lastFailedAt } = await tryInTurn(() =>
		takeTry(database().db, key, now, (n, at) => wait(n, at) === 0),
	)
	return taken ? 0 : Math.max(1, wait(failures, lastFailedAt))
}
const say = (seconds: number) => (seconds < 90 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`)

export type SignInResult = Opened | { problem: string; busy?: true }
export interface Opened {
	token: string
	expiresAt: Date
	/** What the browser keeps to be known by. */
	device: string
}

/**
 * Address and password to a server-side session. Tries are counted before they are made: by address, and by the network
 * they come from, so that neither many at once nor many addresses get past. A browser that somebody has signed in on is
 * counted by itself: whoever hammers on an address does not lock its owner out.
 */
export async function signInWithPassword(
	email: string,
	password: string,
	from: From,
	now: Date,
): Promise<SignInResult> {
	const { db } = database()
	const address = canonicalAddress(email)
	const person = isAddress(address) ? await personByEmail(db, address) : null
	const isKnown =
		person !== null && from.device !== null && (await isKnownDevice(db, hashToken(from.device), person.id))
	const key = hashToken(isKnown ? `sign-in:${address}:${from.device}` : `sign-in:${address}`)
	const place = hashToken(`sign-in-from:${from.network}`)
	const waitS = await secondsBeforeTry(key, 0, now)
	if (waitS > 0) return { problem: `Too many tries for this address. Wait ${say(waitS)} and try again.` }
	const placeWaitS = isKnown ? 0 : await secondsBeforeTry(place, FREE_FROM_ONE_PLACE - FREE_TRIES, now)
	if (placeWaitS > 0) return { problem: `Too many tries from here. Wait ${say(placeWaitS)} and try again.` }
	let matches: boolean
	try {
		matches = await passwordMatches(password, person?.passwordHash ?? DECOY_HASH)
	} catch (error) {
		if (error instanceof TooManyAtOnce) return { problem: error.message, busy: true }
		throw error
	}
	if (!person || !matches || person.leftAt !== null)
		return { problem: 'The address and the password do not belong together.' }
	await forgetTries(db, key)
	if (!isKnown) await giveTryBack(db, place)
	return openSession(person.clubId, person.id, from, now)
}

export async function openSession(clubId: string, personId: string, from: From, now: Date): Promise<Opened> {
	const { db } = database()
	const token = newToken()
	const device = from.device ?? newToken()
	const expiresAt = new Date(now.getTime() + LONGEST_DAYS * DAY_MS)
	await insertSignIn(db, {
		tokenHash: hashToken(token),
		clubId,
		personId,
		createdAt: now,
		expiresAt,
		seenAt: now,
		device: from.browser,
	})
	await insertKnownDevice(db, { tokenHash: hashToken(device), clubId, personId, createdAt: now })
	await writeDeed(scopeOf(clubId), { id: newId(), at: now, personId, what: 'signed-in', about: from.browser })
	return { token, expiresAt, device }
}

export async function whoIs(token: string | null, now: Date): Promise<SignedIn | null> {
	if (!token) return null
	const { db } = database()
	const found = await personBySignIn(db, hashToken(token), now, idleSince(now))
	if (!found) return null
	const { seenAt, ...who } = found
	if (seenAt === null || now.getTime() - seenAt.getTime() > SEEN_EVERY_MS) await noteSeen(db, hashToken(token), now)
	return who
}

/**
 * Whether a sign-in that a browser brings was ended: from another device, by a new password or with the person. One that
 * nobody used for long stands until its browser forgets it.
 */
export async function isEnded(token: string | null): Promise<boolean> {
	return token !== null && !(await hasSignIn(database().db, hashToken(token)))
}

export async function signOut(token: string | null): Promise<void> {
	if (token) await deleteSignIn(database().db, hashToken(token))
}
