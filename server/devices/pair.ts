import { randomInt } from 'node:crypto'
import { v7 as newId } from 'uuid'
import type { DeviceKind } from '../../core/devices/schema'
import type { ClubScope } from '../../db/connect'
import { forgetTries } from '../../db/queries/clubs'
import { clubOfCode, insertDevice, unpairDevice, writePairingCode } from '../../db/queries/devices'
import { hashToken, newToken, secondsBeforeTry } from '../access/sign-in'
import { database, scopeOf } from '../database'

const HOUR_MS = 3_600_000
/** Wrong codes that slow nobody down: a few devices being set up at once. */
const FREE_FROM_ONE_PLACE = 15
/** Letters and digits that nobody confuses when reading them out. */
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'
const plain = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '')

/** A device of the club may send nothing from now on. */
export const unpair = (scope: ClubScope, deviceId: string, now: Date) => unpairDevice(scope, deviceId, now)

/** A code for the next hour, "7KMQ-R2VX"; the one before it ends. */
export async function makePairingCode(scope: ClubScope, now: Date): Promise<{ code: string; expiresAt: Date }> {
	const letters = Array.from({ length: 8 }, () => LETTERS[randomInt(LETTERS.length)]).join('')
	const expiresAt = new Date(now.getTime() + HOUR_MS)
	await writePairingCode(scope, hashToken(`pair:${letters}`), expiresAt)
	return { code: `${letters.slice(0, 4)}-${letters.slice(4)}`, expiresAt }
}

/**
 * Pairs a device by a code that stands. Wrong codes slow down where they come from, and nobody else.
 *
 * @param network of the device that asks
 */
export async function pairDevice(
	code: string,
	kind: DeviceKind,
	name: string,
	network: string,
	now: Date,
): Promise<{ deviceId: string; token: string } | { problem: string; status: 403 | 429 }> {
	const { db } = database()
	const key = hashToken(`pairing:${network}`)
	const waitS = await secondsBeforeTry(key, FREE_FROM_ONE_PLACE, now)
	if (waitS > 0) return { problem: `Too many wrong codes. Wait ${waitS} s.`, status: 429 }
	const clubId = await clubOfCode(db, hashToken(`pair:${plain(code)}`), now)
	if (!clubId)
		return {
			problem: 'This code does not stand. The coach makes one on the club’s page; it holds for an hour.',
			status: 403,
		}
	await forgetTries(db, key)
	const [deviceId, token] = [newId(), newToken()]
	await insertDevice(scopeOf(clubId), {
		id: deviceId,
		kind,
		name: name.trim().slice(0, 60) || kind,
		tokenHash: hashToken(token),
		pairedAt: now,
		lastSeenAt: null,
		offsetMs: null,
		unpairedAt: null,
	})
	return { deviceId, token }
}
