import { type KeptReading, READING_OF, READING_SCHEMAS, type Reading } from '../../core/devices/schema'
import type { EventAnswer } from '../../core/vocabulary/events'
import { inTransaction } from '../../db/connect'
import {
	type DeviceRow,
	type ReadingRow,
	deviceByToken,
	insertReadings,
	readingHashes,
	seenDevice,
} from '../../db/queries/devices'
import { hashOf } from '../../db/queries/library'
import { hashToken } from '../access/sign-in'
import { type ShapeCheck, shapeCheck } from '../check-shape'
import { database } from '../database'
import { sayFirstProblem } from '../log/check-event'

const checks = Object.fromEntries(
	Object.entries(READING_SCHEMAS).map(([kind, schema]) => [kind, shapeCheck(schema)]),
) as Record<Reading['kind'], ShapeCheck<unknown>>

/** A clock further off than this is not a clock: its times cannot be put right. */
const WIDEST_OFFSET_MS = 20 * 365 * 86_400_000
/** Readings older than this are of no session anybody still logs. */
const OLDEST_MS = 14 * 86_400_000

/**
 * Takes what a device saw, answering reading by reading; the same reading may be sent any number of
 * times. All times are shifted by what the device's clock was off when it sent, so that a clock wrong by
 * hours still gives right times.
 */
export async function takeReadings(
	device: DeviceRow,
	sentAt: string,
	values: readonly unknown[],
	now: Date,
): Promise<EventAnswer[] | { field: string; reason: string }> {
	const offsetMs = now.getTime() - Date.parse(sentAt)
	if (!(Math.abs(offsetMs) <= WIDEST_OFFSET_MS))
		return { field: 'sentAt', reason: `${sentAt} is not a time this clock could show` }
	return inTransaction(database().db, device.clubId, async (scope) => {
		const ids = values.flatMap((value) =>
			typeof (value as { id?: unknown } | null)?.id === 'string' ? [(value as { id: string }).id] : [],
		)
		const hashes = await readingHashes(
			scope,
			ids.filter((id) => /^[0-9a-f-]{36}$/.test(id)),
		)
		const fresh: Parameters<typeof insertReadings>[1] = []
		const answers = values.map((value): EventAnswer => {
			const id = String((value as { id?: unknown } | null)?.id ?? '')
			const refuse = (field: string, reason: string): EventAnswer => ({ id, outcome: 'refused', field, reason })
			const kind = (value as { kind?: unknown } | null)?.kind
			if (kind !== READING_OF[device.kind])
				return refuse('kind', `${JSON.stringify(READING_OF[device.kind])} is expected of this device`)
			const check = checks[kind as Reading['kind']]
			if (!check(value)) return sayFirstProblem(check, (field, reason) => refuse(field, reason))
			const reading = value as Reading
			const at = new Date(Date.parse(reading.time) + offsetMs)
			if (!(now.getTime() - at.getTime() < OLDEST_MS && at.getTime() <= now.getTime() + 60_000))
				return refuse('time', 'neither of the last two weeks nor now')
			const contentHash = hashOf(reading)
			const before = hashes.get(reading.id)
			if (before !== undefined)
				return before === contentHash
					? { id, outcome: 'replayed' }
					: refuse('id', 'id_reused: another reading already has this id')
			hashes.set(reading.id, contentHash)
			fresh.push({
				id: reading.id,
				deviceId: device.id,
				kind: reading.kind,
				at,
				deviceTime: new Date(reading.time),
				receivedAt: now,
				value: reading.value as Record<string, unknown>,
				contentHash,
			})
			return { id, outcome: 'accepted' }
		})
		await insertReadings(scope, fresh)
		await seenDevice(scope, device.id, now, Math.max(-2_000_000_000, Math.min(2_000_000_000, Math.round(offsetMs))))
		return answers
	})
}

export const keptReading = (row: ReadingRow): KeptReading =>
	({
		id: row.id,
		kind: row.kind,
		time: row.deviceTime.toISOString(),
		value: row.value,
		deviceId: row.deviceId,
		at: row.at.toISOString(),
		receivedAt: row.receivedAt.toISOString(),
	}) as unknown as KeptReading

/** Who speaks, from "Bearer …"; null when the device is not paired, or no longer. */
export async function deviceOfToken(authorization: string | null): Promise<DeviceRow | null> {
	const token = /^Bearer ([\w-]{20,100})$/.exec(authorization ?? '')?.[1]
	return token ? deviceByToken(database().db, hashToken(token)) : null
}
