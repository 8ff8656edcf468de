import { randomInt } from 'node:crypto'
import { v7 as newId } from 'uuid'
import type { DeviceKind } from '../../core/devices/schema'
import type { ClubScope } from '../../db/connect'
import { readFailures, writeFailures } from '../../db/queries/clubs'
import { clubOfCode, insertDevice, unpairDevice, writePairingCode } from '../../db/queries/devices'
import { hashToken, newToken, secondsToWait } from '../access/sign-in'
import { database, scopeOf } from '../database'

const HOUR_MS = 3_600_000
/** Wrong codes that slow nobody down: a few devices being set up at once. */
const FREE_FOR_ALL = 20
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

/** Pairs a device by a code that stands; wrong codes are slowed down for everybody together, because a guesser has no name. */
export async function pairDevice(
	code: string,
	kind: DeviceKind,
	name: string,
	now: Date,
): Promise<{ deviceId: string; token: string } | { problem: string; status: 403 | 429 }> {
	const { db } = database()
	const key = hashToken('pairing')
	const before = await readFailures(db, key)
	const waitS = before ? secondsToWait(Math.max(0, before.failures - FREE_FOR_ALL), before.lastFailedAt, now) : 0
	if (waitS > 0) return { problem: `Too many wrong codes. Wait ${waitS} s.`, status: 429 }
	const clubId = await clubOfCode(db, hashToken(`pair:${plain(code)}`), now)
	if (!clubId) {
		await writeFailures(db, key, (before?.failures ?? 0) + 1, now)
		return {
			problem: 'This code does not stand. The coach makes one on the club’s page; it holds for an hour.',
			status: 403,
		}
	}
	if (before) await writeFailures(db, key, 0, now)
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
