import { v7 as newId } from 'uuid'
import { UNITS, type Units } from '../../core/words/units'
import { inTransaction } from '../../db/connect'
import {
	deleteOtherSignIns,
	deleteSignIn,
	listPeople,
	passwordHashOf,
	signInsOf,
	updatePassword,
	updatePerson,
	writeDeed,
} from '../../db/queries/clubs'
import { database, scopeOf } from '../database'
import { passwordProblem } from './choose-password'
import { hashPassword, passwordMatches } from './password'
import { type SignedIn, hashToken, idleSince, secondsBeforeTry } from './sign-in'

type Done = { saved: true } | { problem: string }

/** Units somebody reads and types in; theirs alone, so that nobody else is asked. */
export async function setUnits(who: SignedIn, units: string): Promise<Done> {
	if (!UNITS.includes(units as Units)) return { problem: 'Metric or imperial is expected.' }
	await updatePerson(scopeOf(who.clubId), who.personId, { units: units as Units })
	return { saved: true }
}

/** The handle of a sign-in, for its owner: a piece of the hash of a token nobody can guess. */
const handleOf = (tokenHash: string) => tokenHash.slice(0, 16)

/** What somebody is signed in on. @param token of the one that asks */
export async function readSignIns(who: SignedIn, token: string, now: Date) {
	const rows = await signInsOf(scopeOf(who.clubId), who.personId, now, idleSince(now))
	return rows.map(({ tokenHash, device, createdAt, seenAt }) => ({
		id: handleOf(tokenHash),
		device,
		since: createdAt.toISOString(),
		seen: (seenAt ?? createdAt).toISOString(),
		isThis: tokenHash === hashToken(token),
	}))
}

/** Ends one of somebody's own sign-ins, or all but the one that asks. @param handle of one; empty for all the others */
export async function endSignIns(who: SignedIn, token: string, handle: string, now: Date): Promise<Done> {
	const scope = scopeOf(who.clubId)
	if (handle === '') {
		await deleteOtherSignIns(scope, who.personId, hashToken(token))
		return { saved: true }
	}
	const rows = await signInsOf(scope, who.personId, now, idleSince(now))
	const one = rows.find(({ tokenHash }) => handleOf(tokenHash) === handle)
	if (!one) return { problem: 'It has ended already.' }
	await deleteSignIn(database().db, one.tokenHash)
	return { saved: true }
}

/**
 * Another password, by who knows the old one; everything else they are signed in on ends. Wrong tries are counted, so
 * that an unlocked phone does not give the password away.
 */
export async function changePassword(
	who: SignedIn,
	token: string,
	typed: { old: string; fresh: string },
	now: Date,
): Promise<Done> {
	const scope = scopeOf(who.clubId)
	const waitS = await secondsBeforeTry(hashToken(`password:${who.personId}`), 0, now)
	if (waitS > 0) return { problem: `Too many tries. Wait ${waitS} s and try again.` }
	const hash = await passwordHashOf(scope, who.personId)
	if (hash === null || !(await passwordMatches(typed.old, hash)))
		return { problem: 'The password you have is another.' }
	const self = (await listPeople(scope)).find(({ id }) => id === who.personId)
	const wrong = passwordProblem(typed.fresh, [self?.email ?? '', who.name, who.clubName])
	if (wrong) return { problem: wrong }
	const passwordHash = await hashPassword(typed.fresh)
	await inTransaction(database().db, who.clubId, async (inside) => {
		await updatePassword(inside, who.personId, passwordHash)
		await deleteOtherSignIns(inside, who.personId, hashToken(token))
		await writeDeed(inside, { id: newId(), at: now, personId: who.personId, what: 'password-changed' })
	})
	return { saved: true }
}
