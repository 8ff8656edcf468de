import { and, asc, eq, gte } from 'drizzle-orm'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { athleteIdentity } from '../schema/people'
import { placeAddress } from '../schema/plan'
import { session } from '../schema/sessions'
import { squad } from '../schema/squads'

/** Whom to call for some athletes, by athlete; only those of whom it is known. */
export async function contactsOf({ db, clubId }: ClubScope, athleteIds: string[]): Promise<Map<string, string>> {
	if (athleteIds.length === 0) return new Map()
	const rows = await db
		.select({ id: athleteIdentity.athleteId, contact: athleteIdentity.emergencyContact })
		.from(athleteIdentity)
		.where(and(eq(athleteIdentity.clubId, clubId), among(athleteIdentity.athleteId, athleteIds)))
	return new Map(rows.flatMap(({ id, contact }) => (contact === null ? [] : [[id, contact] as const])))
}
export async function writeContact({ db, clubId }: ClubScope, athleteId: string, emergencyContact: string | null) {
	await db
		.update(athleteIdentity)
		.set({ emergencyContact })
		.where(and(eq(athleteIdentity.clubId, clubId), eq(athleteIdentity.athleteId, athleteId)))
}

/** The address of a place; null when nobody has said it. */
export async function addressOf({ db, clubId }: ClubScope, place: string): Promise<string | null> {
	const [row] = await db
		.select({ address: placeAddress.address })
		.from(placeAddress)
		.where(and(eq(placeAddress.clubId, clubId), eq(placeAddress.place, place)))
	return row?.address ?? null
}

/** Every place that a squad, or a session from a day on, names, with its address where it is known. */
export async function listPlaces({ db, clubId }: ClubScope, from: string) {
	const [squads, sessions, known] = [
		await db.selectDistinct({ place: squad.place }).from(squad).where(eq(squad.clubId, clubId)),
		await db
			.selectDistinct({ place: session.place })
			.from(session)
			.where(and(eq(session.clubId, clubId), gte(session.day, from))),
		await db
			.select({ place: placeAddress.place, address: placeAddress.address })
			.from(placeAddress)
			.where(eq(placeAddress.clubId, clubId))
			.orderBy(asc(placeAddress.place)),
	]
	const addresses = new Map(known.map((row) => [row.place, row.address]))
	const named = [...squads, ...sessions].map((row) => row.place).filter((place) => place !== '')
	return [...new Set([...named, ...addresses.keys()])]
		.sort((a, b) => a.localeCompare(b))
		.map((place) => ({ place, address: addresses.get(place) ?? '' }))
}
/** An empty address forgets the place. */
export async function writeAddress(
	{ db, clubId }: ClubScope,
	row: Omit<typeof placeAddress.$inferInsert, 'clubId'>,
): Promise<void> {
	if (row.address === '')
		await db.delete(placeAddress).where(and(eq(placeAddress.clubId, clubId), eq(placeAddress.place, row.place)))
	else {
		const { address, changedBy, changedAt } = row
		await db
			.insert(placeAddress)
			.values({ ...row, clubId })
			.onDuplicateKeyUpdate({ set: { address, changedBy, changedAt } })
	}
}
