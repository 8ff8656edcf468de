import { and, asc, desc, eq, gt, gte, isNull, sql } from 'drizzle-orm'
import { among } from '../among'
import type { ClubScope, Queryable } from '../connect'
import { device, deviceReading, pairingCode } from '../schema/devices'

export type DeviceRow = typeof device.$inferSelect
export type ReadingRow = typeof deviceReading.$inferSelect

export async function writePairingCode({ db, clubId }: ClubScope, codeHash: string, expiresAt: Date) {
	await db
		.insert(pairingCode)
		.values({ clubId, codeHash, expiresAt })
		.onDuplicateKeyUpdate({ set: { codeHash, expiresAt } })
}
/** Before a club is known: the code alone says which. Index `pairing_by_code`. */
export async function clubOfCode(db: Queryable, codeHash: string, now: Date): Promise<string | null> {
	const [row] = await db
		.select({ clubId: pairingCode.clubId })
		.from(pairingCode)
		.where(and(eq(pairingCode.codeHash, codeHash), gt(pairingCode.expiresAt, now)))
	return row?.clubId ?? null
}
export async function insertDevice({ db, clubId }: ClubScope, row: Omit<typeof device.$inferInsert, 'clubId'>) {
	await db.insert(device).values({ ...row, clubId })
}
/** The device a token belongs to, while it is paired. Index `device_by_token`. */
export async function deviceByToken(db: Queryable, tokenHash: string): Promise<DeviceRow | null> {
	const [row] = await db
		.select()
		.from(device)
		.where(and(eq(device.tokenHash, tokenHash), isNull(device.unpairedAt)))
	return row ?? null
}
export async function listDevices({ db, clubId }: ClubScope): Promise<DeviceRow[]> {
	return db
		.select()
		.from(device)
		.where(and(eq(device.clubId, clubId), isNull(device.unpairedAt)))
		.orderBy(desc(device.pairedAt))
}
export async function unpairDevice({ db, clubId }: ClubScope, id: string, at: Date) {
	await db
		.update(device)
		.set({ unpairedAt: at })
		.where(and(eq(device.clubId, clubId), eq(device.id, id), isNull(device.unpairedAt)))
}
export async function seenDevice({ db, clubId }: ClubScope, id: string, lastSeenAt: Date, offsetMs: number) {
	await db
		.update(device)
		.set({ lastSeenAt, offsetMs })
		.where(and(eq(device.clubId, clubId), eq(device.id, id)))
}

export async function readingHashes({ db, clubId }: ClubScope, ids: string[]): Promise<Map<string, string>> {
	if (ids.length === 0) return new Map()
	const rows = await db
		.select({ id: deviceReading.id, hash: deviceReading.contentHash })
		.from(deviceReading)
		.where(and(eq(deviceReading.clubId, clubId), among(deviceReading.id, ids)))
	return new Map(rows.map((row) => [row.id, row.hash]))
}
/** A reading whose id stands already changes nothing. */
export async function insertReadings(
	{ db, clubId }: ClubScope,
	rows: Omit<typeof deviceReading.$inferInsert, 'clubId'>[],
) {
	if (rows.length > 0)
		await db
			.insert(deviceReading)
			.values(rows.map((row) => ({ ...row, clubId })))
			.onDuplicateKeyUpdate({ set: { id: sql`id` } })
}
/** Readings that arrived from a moment on; index `reading_by_arrival`. */
export async function readingsSince({ db, clubId }: ClubScope, from: Date): Promise<ReadingRow[]> {
	return db
		.select()
		.from(deviceReading)
		.where(and(eq(deviceReading.clubId, clubId), gte(deviceReading.receivedAt, from)))
		.orderBy(asc(deviceReading.at))
		.limit(5000)
}
