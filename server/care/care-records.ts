import { v7 as newId } from 'uuid'
import { EVERYTHING, PATTERNS, REGIONS, type Pattern } from '../../core/vocabulary/words'
import { mayClear } from '../../core/care/closures'
import type { ClearingRole } from '../../core/vocabulary/care'
import { inTransaction } from '../../db/connect'
import { careOf, endCare, insertCare } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
import type { CareKind } from '../../db/schema/care'
import { readAthletes } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { keepClearance, openWayBack, roleInWords } from './clear'

export interface CareTyped {
	kind: string
	region: string
	pattern: string
	drillId: string
	note: string
	setBy: string
	setByRole: string
}

const short = (text: string) => text.trim().slice(0, 500)

const KINDS: readonly string[] = ['restriction', 'worry', 'illness', 'known'] satisfies CareKind[]

/** Whether a role clears a region, whatever region it is. */
const isProfessional = (role: ClearingRole): boolean => REGIONS.every((region) => mayClear(role, region))

/** Who may open what, and end it: closings by hand and what is accepted coach and clinician, a worry and an illness also whoever it is about. */
export const mayOpen = (who: SignedIn, kind: string, athleteId: string): boolean =>
	may(who.role, 'care:write') ||
	((kind === 'illness' || kind === 'worry') && who.athleteId === athleteId) ||
	(kind === 'illness' && may(who.role, 'pain:write'))

/** Opens a closing by hand, a worry, an illness or an accepted discomfort from today; upcoming lines are written anew at once. */
export async function openCare(
	who: SignedIn,
	athleteId: string,
	typed: CareTyped,
	now: Date,
): Promise<{ opened: true } | { problems: Problems } | null> {
	const problems: Problems = {}
	const region = ([...REGIONS, EVERYTHING] as const).find((one) => one === typed.region) ?? null
	const pattern = PATTERNS.includes(typed.pattern as Pattern) ? (typed.pattern as Pattern) : null
	const named = typed.setBy.trim().length >= 2
	if (!KINDS.includes(typed.kind)) problems.kind = 'Pick a closing, a worry or an illness.'
	if (typed.kind === 'restriction') {
		if (!region && !pattern && !typed.drillId)
			problems.region = 'Pick a region, everything, a kind of movement, or a drill.'
		if (!named) problems.setBy = 'Who set it? A name is expected.'
		if (typed.note.trim().length < 3) problems.note = 'Why? A reason is expected.'
	}
	if ((typed.kind === 'worry' || typed.kind === 'known') && (!region || region === EVERYTHING))
		problems.region = `Pick the region ${typed.kind === 'worry' ? 'the worry is about' : 'where it stays'}.`
	if (typed.kind === 'known') {
		if (!named) problems.setBy = 'Who accepts it? A name is expected.'
		if (!isProfessional(roleInWords(typed.setByRole)))
			problems.setByRole = 'A health professional accepts it: a physiotherapist, a doctor.'
	}
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return null
		const library = await readLibrary(scope)
		if ((typed.kind === 'worry' || typed.drillId) && !library.drills[typed.drillId])
			problems.drillId = `Pick the movement ${typed.kind === 'worry' ? 'the worry is about' : 'that is closed'}.`
		if (Object.keys(problems).length > 0) return { problems }
		const today = todayAt(who.timeZone, now)
		await insertCare(scope, {
			id: newId(),
			athleteId,
			kind: typed.kind as CareKind,
			region: typed.kind === 'illness' ? null : region,
			pattern: typed.kind === 'restriction' && region !== EVERYTHING ? pattern : null,
			// Everything is closed whatever is named beside it.
			drillId:
				(typed.kind === 'restriction' && region !== EVERYTHING) || typed.kind === 'worry'
					? typed.drillId || null
					: null,
			note: short(typed.note),
			fromDay: today,
			setBy: typed.setBy.trim().slice(0, 200) || who.name,
			setByRole: typed.setByRole.trim().slice(0, 200) || who.role,
			recordedBy: who.personId,
			recordedAt: now,
		})
		await rewriteUpcoming(scope, [athleteId], today, now)
		return { opened: true as const }
	})
}

/**
 * Ends a record. A restriction is ended only by a named person in a role; the ladders it closed go on by
 * the way back. A worry is settled, an illness over, by whoever says so.
 */
export async function closeCare(
	who: SignedIn,
	athleteId: string,
	id: string,
	by: { name: string; role: string },
	now: Date,
): Promise<{ ended: true } | { problems: Problems } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const row = (await careOf(scope, [athleteId])).find((one) => one.id === id)
		if (!row) return null
		// Whatever the form called it: who may end a record is asked of the record.
		if (!mayOpen(who, row.kind, athleteId)) return { problems: { [`by-${id}`]: 'Coach or clinician end this.' } }
		if (row.kind === 'restriction') {
			if (by.name.trim().length < 2) return { problems: { [`by-${id}`]: 'The name of who cleared it is expected.' } }
			if (by.role.trim().length < 2)
				return { problems: { [`role-${id}`]: 'Their role is expected, for example physiotherapist.' } }
			// What a health professional has closed a coach does not lift; a coach's closing a coach does.
			if (
				isProfessional(roleInWords(row.setByRole)) &&
				!isProfessional(roleInWords(by.role)) &&
				who.role !== 'clinician'
			)
				return {
					problems: { [`role-${id}`]: 'A health professional set this: one of them lifts it, or clears the region.' },
				}
		}
		const today = todayAt(who.timeZone, now)
		if (row.kind === 'illness' && row.fromDay >= today)
			return { problems: { [`by-${id}`]: 'Well again counts from the next day on: record it tomorrow.' } }
		if (
			!(await endCare(scope, row.kind, id, athleteId, {
				endedOn: today,
				endedBy: by.name.trim().slice(0, 200) || who.name,
				endedByRole: by.role.trim().slice(0, 200) || who.role,
				endRecordedBy: who.personId,
				endRecordedAt: now,
			}))
		)
			return { problems: { [`by-${id}`]: 'This has ended already.' } }
		if (row.kind === 'restriction' && row.region) {
			const [region, role] = [row.region, roleInWords(by.role)]
			// Lifted by a health professional it is a clearance too; a coach's lift opens only what was closed by hand.
			if (mayClear(role, region))
				await keepClearance(
					scope,
					who,
					athleteId,
					{ region, day: today, by: by.name.trim(), role },
					by.role.trim(),
					now,
				)
			const lifted = [{ region, since: row.fromDay, until: today }]
			await openWayBack(scope, athleteId, { reports: [], clearances: [], lifted }, today, await readLibrary(scope), now)
		}
		await rewriteUpcoming(scope, [athleteId], today, now)
		return { ended: true as const }
	})
}
