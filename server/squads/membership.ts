import { type Away, isAway } from '../../core/calendar/away'
import { isDay } from '../../core/calendar/day-count'
import { shortDay } from '../../core/calendar/say-day'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import {
	joinSession,
	lockSession,
	readAttending,
	removeAttendee,
	unstartedFor,
	unstartedOfSquad,
} from '../../db/queries/sessions'
import { listMembers, listSquads, readAthletes, squadsOf, writeAway, writeSquads } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { type SquadSession, writeSheets } from '../sheet/write-lines'
import {
	type Described,
	type Difference,
	type Meanwhile,
	countSave,
	differences,
	takeVersion,
} from '../submissions/take-version'

/** Who of a squad is there on a day, in the order of the names. */
export const comingTo = async (scope: ClubScope, squadId: string, day: string): Promise<string[]> =>
	(await listMembers(scope)).filter((one) => one.squadId === squadId && !isAway(one.away, day)).map(({ id }) => id)

/** Sessions ahead that somebody is no longer down for, and those they are down for now. */
export interface Followed {
	off: number
	on: number
}
type Changed = Followed | { problems: Problems } | { meanwhile: Meanwhile & { differences: Difference[] } } | null

/** The squads somebody trains with. Sessions ahead follow; what was done stays theirs. Null for a stranger's id. */
export async function changeSquads(
	who: SignedIn,
	athleteId: string,
	squadIds: readonly string[],
	seen: number,
	now: Date,
): Promise<Changed> {
	const today = todayAt(who.timeZone, now)
	return inTransaction(database().db, who.clubId, async (scope) => {
		const [athlete] = await readAthletes(scope, [athleteId])
		if (!athlete) return null
		const squads = await listSquads(scope)
		if (squadIds.some((id) => !squads.some((squad) => squad.id === id)))
			return { problems: { squads: 'Pick squads of this club.' } }
		const before = ((await squadsOf(scope, [athleteId])).get(athleteId) ?? []).map(({ id }) => id)
		const meanwhile = await takeVersion(scope, who, 'athlete', athleteId, seen, now)
		if (meanwhile) {
			const said = (ids: readonly string[]): Described => [
				[
					'Squads',
					squads
						.filter(({ id }) => ids.includes(id))
						.map(({ name }) => name)
						.join(', ') || 'none',
				],
			]
			return { meanwhile: { ...meanwhile, differences: differences(said(before), said(squadIds)) } }
		}
		await writeSquads(scope, athleteId, [...squadIds], today)
		const left = new Set(before.filter((id) => !squadIds.includes(id)))
		return follow(scope, who, [athleteId], left, today, now)
	})
}

/**
 * Somebody is away for a while, or back. They are off the sessions of that time and on the others again; that they were
 * away needs no saying later, the rules see it by what was done. Null for a stranger's id.
 *
 * @param typed days like 2026-11-28; both empty for who is there, the last empty while it is not known
 */
export async function changeAway(
	who: SignedIn,
	athleteId: string,
	typed: { from: string; until: string },
	seen: number,
	now: Date,
): Promise<Changed> {
	const today = todayAt(who.timeZone, now)
	const away = readAway(typed, today)
	if (away !== null && 'problems' in away) return away
	return inTransaction(database().db, who.clubId, async (scope) => {
		const [athlete] = await readAthletes(scope, [athleteId])
		if (!athlete) return null
		const meanwhile = await takeVersion(scope, who, 'athlete', athleteId, seen, now)
		if (meanwhile) {
			const said = (one: Away | null): Described => [
				['Away', one === null ? 'no' : `from ${shortDay(one.from)}${one.until ? ` to ${shortDay(one.until)}` : ''}`],
			]
			return { meanwhile: { ...meanwhile, differences: differences(said(athlete.away), said(away)) } }
		}
		await writeAway(scope, athleteId, away)
		return follow(scope, who, [athleteId], new Set(), today, now)
	})
}
function readAway(
	{ from, until }: { from: string; until: string },
	today: string,
): Away | null | { problems: Problems } {
	if (from === '' && until === '') return null
	const first = from === '' ? today : from
	if (!isDay(first)) return { problems: { awayFrom: `“${from}”: a day is expected.` } }
	if (until !== '' && !(isDay(until) && until >= first))
		return { problems: { awayUntil: `“${until}”: a day from ${shortDay(first)} on is expected, or none.` } }
	return { from: first, until: until === '' ? null : until }
}

/**
 * Sessions ahead follow who is there: off those of a squad that was left and of days away; on those that everybody else
 * of a squad who is there is down for. A sheet made for some of the squad stays with them.
 */
export async function follow(
	scope: ClubScope,
	who: Pick<SignedIn, 'personId'>,
	athleteIds: readonly string[],
	left: ReadonlySet<string>,
	today: string,
	now: Date,
): Promise<Followed> {
	const followed: Followed = { off: 0, on: 0 }
	const athletes = await readAthletes(scope, [...athleteIds])
	for (const athlete of athletes)
		for (const session of await unstartedFor(scope, [athlete.id], today)) {
			if (!left.has(session.squadId) && !isAway(athlete.away, session.day)) continue
			await lockSession(scope, session.id)
			await removeAttendee(scope, session.id, athlete.id)
			await countSave(scope, who, 'session', session.id, now)
			followed.off += 1
		}
	const memberOf = await squadsOf(scope, [...athleteIds])
	const squads = new Map([...memberOf.values()].flat().map((squad) => [squad.id, squad]))
	const joined: SquadSession[] = []
	for (const squad of squads.values())
		for (const session of await unstartedOfSquad(scope, squad.id, today)) {
			const attending = new Set((await readAttending(scope, [session.id])).map((row) => row.athleteId))
			const joining = athletes
				.filter(({ id, away }) => memberOf.get(id)?.some((one) => one.id === squad.id) && !isAway(away, session.day))
				.flatMap(({ id }) => (attending.has(id) ? [] : [id]))
			const others = (await comingTo(scope, squad.id, session.day)).filter((id) => !joining.includes(id))
			if (joining.length === 0 || others.length === 0 || !others.every((id) => attending.has(id))) continue
			await lockSession(scope, session.id)
			for (const id of joining) await joinSession(scope, session.id, id)
			joined.push({ session, squad })
			await countSave(scope, who, 'session', session.id, now)
			followed.on += joining.length
		}
	await writeSheets(scope, joined, await readLibrary(scope), now, new Set(athleteIds))
	return followed
}
