import { isBefore } from '../../core/calendar/day-count'
import { type SheetClash, orderForFreshness } from '../../core/plan/sheet-clashes'
import { capsFor } from '../../core/plan/session-limits'
import { limitedAthletes } from '../../core/plan/build-pack'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { lockSession, readAttending, readEntries, updateEntry } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import { database } from '../database'
import { writeLines } from '../sheet/write-lines'
import { blockShareOf } from './make-block'
import { buildPackOf, daysAround, readKnown } from './read-build-pack'
import type { SignedIn } from '../access/sign-in'
import { countSave } from '../submissions/take-version'

/**
 * Mends an unstarted session's own sheet: hard work before what tires, less of what is too much for somebody,
 * or the rung below where a gate is shut. Null for a stranger's session.
 */
export async function repairSheet(
	who: Pick<SignedIn, 'clubId' | 'personId'>,
	sessionId: string,
	repair: string,
	today: string,
	now: Date,
): Promise<{ repaired: Repair } | { problem: string } | null> {
	if (repair !== 'reorder' && repair !== 'trim' && repair !== 'lower') return { problem: `${repair} is not a repair.` }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const done = await repairInside(scope, sessionId, repair, today, now)
		if (done && 'repaired' in done) await countSave(scope, who, 'session', sessionId, now)
		return done
	})
}

type Repair = NonNullable<SheetClash['repair']>

/** As `repairSheet`, inside a transaction of the caller's. */
export async function repairInside(
	scope: ClubScope,
	sessionId: string,
	repair: Repair,
	today: string,
	now: Date,
): Promise<{ repaired: Repair } | { problem: string } | null> {
	const session = await lockSession(scope, sessionId)
	const squad = session && (await readSquad(scope, session.squadId))
	if (!session || !squad) return null
	if (session.startedAt) return { problem: 'This session has begun; its sheet is frozen.' }
	const [library, entries] = [await readLibrary(scope), await readEntries(scope, [sessionId])]
	if (repair === 'reorder') {
		const ordered = orderForFreshness(
			entries.map((entry) => ({ ...entry, drill: library.drills[entry.drillId] ?? null })),
		)
		for (const [position, entry] of ordered.entries())
			if (entry.position !== position) await updateEntry(scope, entry.id, { position })
	}
	if (repair === 'lower')
		for (const entry of entries)
			if (entry.ladderId !== null) await updateEntry(scope, entry.id, { tuning: { ...entry.tuning, strict: true } })
	if (repair === 'trim') {
		const athleteIds = (await readAttending(scope, [sessionId])).map((row) => row.athleteId)
		const known = await readKnown(scope, athleteIds, daysAround(session, today), library)
		// As the sentence that offered it counts: what comes later has clashes of its own.
		for (const [id, works] of known.planned)
			known.planned.set(
				id,
				works.filter((one) => isBefore(one, session)),
			)
		const block = await blockShareOf(scope, session)
		const pack = buildPackOf(known, squad, session, athleteIds, library, block)
		const limits = {
			library,
			school: pack.school,
			day: session.day,
			startTime: session.startTime,
			surface: session.surface,
			light: false,
			kit: null,
			targetOf: null,
		}
		const caps = new Map(
			limitedAthletes(pack, library).map((athlete) => [athlete.id, capsFor(entries, athlete, limits)]),
		)
		for (const entry of entries) {
			const own = Object.fromEntries(
				[...caps].flatMap(([athleteId, byEntry]) => {
					const cap = byEntry.get(entry.id)
					return cap ? [[athleteId, cap]] : []
				}),
			)
			if (Object.keys(own).length > 0)
				await updateEntry(scope, entry.id, { tuning: { ...entry.tuning, caps: { ...entry.tuning?.caps, ...own } } })
		}
	}
	await writeLines(scope, session, squad, library, now)
	return { repaired: repair }
}
