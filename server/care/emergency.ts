import { type ClubScope, inTransaction } from '../../db/connect'
import { addressOf, contactsOf, listPlaces, writeAddress, writeContact } from '../../db/queries/emergency'
import { hashOf } from '../../db/queries/library'
import { readAthletes } from '../../db/queries/squads'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { database } from '../database'
import {
	type Described,
	type Difference,
	type Meanwhile,
	differences,
	takeVersion,
	versionOf,
} from '../submissions/take-version'

const CONTACT_LENGTH = 200
const ADDRESS_LENGTH = 300

/** Whom to call is the coach's, the athlete's and the guardian's to write. */
export const mayWriteContact = (who: SignedIn, athleteId: string): boolean =>
	may(who.role, 'plan:write') || who.athleteId === athleteId

/** Keeps whom to call in an emergency, name and number in words; empty forgets it. */
export async function changeContact(
	who: SignedIn,
	athleteId: string,
	typed: string,
	seen: number,
	now: Date,
): Promise<{ saved: true } | { problem: string } | { meanwhile: Meanwhile & { differences: Difference[] } } | null> {
	const contact = typed.trim()
	if (contact.length > CONTACT_LENGTH) return { problem: `Up to ${CONTACT_LENGTH} characters are expected.` }
	if (contact !== '' && !/\d{3}/.test(contact))
		return { problem: 'A name with a telephone number is expected, for example “Ada, mother, 0555 010 020”.' }
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return null
		const meanwhile = await takeVersion(scope, who, 'contact', athleteId, seen, now)
		if (meanwhile) {
			const said = (words: string): Described => [['Emergency contact', words === '' ? 'not known' : words]]
			const theirs = (await contactsOf(scope, [athleteId])).get(athleteId) ?? ''
			return { meanwhile: { ...meanwhile, differences: differences(said(theirs), said(contact)) } }
		}
		await writeContact(scope, athleteId, contact === '' ? null : contact)
		return { saved: true as const }
	})
}

/** Keeps where help has to come to for a place that squads or sessions name; empty forgets it. */
export async function saveAddress(
	who: SignedIn,
	place: string,
	typed: string,
	seen: number,
	now: Date,
): Promise<{ saved: true } | { problem: string } | { meanwhile: Meanwhile & { differences: Difference[] } }> {
	const address = typed.trim()
	if (place === '' || place.length > 200) return { problem: 'Pick a place that a squad or a session names.' }
	if (address.length > ADDRESS_LENGTH) return { problem: `Up to ${ADDRESS_LENGTH} characters are expected.` }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const meanwhile = await takeVersion(scope, who, 'place', hashOf(place), seen, now)
		if (meanwhile) {
			const said = (words: string): Described => [[`Address of ${place}`, words === '' ? 'not known' : words]]
			const theirs = (await addressOf(scope, place)) ?? ''
			return { meanwhile: { ...meanwhile, differences: differences(said(theirs), said(address)) } }
		}
		await writeAddress(scope, { place, address, changedBy: who.personId, changedAt: now })
		return { saved: true as const }
	})
}

/** Every place that a squad or a session ahead names, with its address and the version a form is filled from. */
export async function readPlaces(scope: ClubScope, today: string) {
	const places = await listPlaces(scope, today)
	const versions = await Promise.all(places.map(({ place }) => versionOf(scope, 'place', hashOf(place))))
	return places.map((one, index) => ({ ...one, version: versions[index] ?? 0 }))
}
