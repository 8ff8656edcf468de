import type { PersonData } from '../../core/open-data/person'
import { inTransaction } from '../../db/connect'
import { eraseAthlete, erasedAmong, lockAthlete, rowsAbout } from '../../db/queries/erase'
import { readAthletes } from '../../db/queries/squads'
import { noteDeed } from '../access/change-club'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { database, scopeOf } from '../database'

/** Ours to keep rows apart, and nothing about anybody. */
const OURS = ['club_id', 'content_hash', 'mark_key']

/** Whether somebody may have all that is kept of an athlete: the coach, the athlete, and who answers for them. */
export const mayTakeOut = (who: SignedIn, athleteId: string): boolean =>
	who.athleteId === athleteId || may(who.role, 'people:write')

/** Whether somebody was erased: nothing more is written of them, from whichever page it comes. */
export const isErased = async (who: SignedIn, athleteId: string): Promise<boolean> =>
	(await erasedAmong(scopeOf(who.clubId), [athleteId])).has(athleteId)

/** Everything that is kept about an athlete, health too; null for a stranger's id. It is written down who took it out. */
export async function takeOutPerson(who: SignedIn, athleteId: string, now: Date): Promise<PersonData | null> {
	const scope = scopeOf(who.clubId)
	const [athlete] = await readAthletes(scope, [athleteId])
	if (!athlete) return null
	const tables = Object.fromEntries(
		Object.entries(await rowsAbout(scope, athleteId)).map(([table, rows]) => [
			table,
			rows.map((row) => Object.fromEntries(Object.entries(row).filter(([column]) => !OURS.includes(column)))),
		]),
	)
	await noteDeed(scope, who, 'exported', `everything about ${athlete.name}`, now)
	return {
		format: 'dromos-person',
		version: 1,
		at: now.toISOString(),
		club: who.clubName,
		athlete: { id: athlete.id, name: athlete.name, born: athlete.birthDate },
		// As it is sent: dates as text.
		tables: JSON.parse(JSON.stringify(tables)) as PersonData['tables'],
	}
}

/**
 * Erases an athlete, for good: see `eraseAthlete`. What a phone still has of them is refused when it comes.
 *
 * @param typed the name, typed by who means it
 * @returns null for a stranger's id
 */
export async function erasePerson(
	who: SignedIn,
	athleteId: string,
	typed: string,
	now: Date,
): Promise<{ erased: true } | { problem: string } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		if (!(await lockAthlete(scope, athleteId))) return null
		const [athlete] = await readAthletes(scope, [athleteId])
		if (!athlete) return null
		if (typed.trim() !== athlete.name) return { problem: `Type the whole name, “${athlete.name}”, to erase them.` }
		await eraseAthlete(scope, athleteId, athlete.name, now)
		await noteDeed(scope, who, 'erased', '', now)
		return { erased: true as const }
	})
}
