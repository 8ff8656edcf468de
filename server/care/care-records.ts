import { v7 as newId } from 'uuid'
import { PATTERNS, REGIONS, type Pattern, type Region } from '../../core/vocabulary/words'
import { CLOSE_FROM } from '../../core/care/grades'
import { mayClear } from '../../core/care/closures'
import type { Clearance, ClearingRole } from '../../core/vocabulary/care'
import { inTransaction } from '../../db/connect'
import { careOf, endCare, insertCare } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
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

/** Whether a role clears a region, whatever region it is. */
const isProfessional = (role: ClearingRole): boolean => REGIONS.every((region) => mayClear(role, region))

/** Who may open what: restrictions and worries coach and clinician, an illness also whoever it is about. */
export const mayOpen = (who: SignedIn, kind: string, athleteId: string): boolean =>
	may(who.role, 'care:write') || (kind === 'illness' && (who.athleteId === athleteId || may(who.role, 'pain:write')))

/** Opens a restriction, a worry or an illness from today; upcoming lines are written anew at once. */
export async function openCare(
	who: SignedIn,
	athleteId: string,
	typed: CareTyped,
	now: Date,
): Promise<{ opened: true } | { problems: Problems } | null> {
	const problems: Problems = {}
	const region = REGIONS.includes(typed.region as Region) ? (typed.region as Region) : null
	const pattern = PATTERNS.includes(typed.pattern as Pattern) ? (typed.pattern as Pattern) : null
	if (!['restriction', 'worry', 'illness'].includes(typed.kind))
		problems.kind = 'Pick a restriction, a worry or an illness.'
	if (typed.kind === 'restriction' && !region && !pattern) problems.region = 'Pick a region, or a kind of movement.'
	if (typed.kind === 'restriction' && typed.setBy.trim().length < 2) problems.setBy = 'Who set it? A name is expected.'
	if (typed.kind === 'worry' && !region) problems.region = 'Pick the region the worry is about.'
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return null
		const library = await readLibrary(scope)
		if (typed.kind === 'worry' && !library.drills[typed.drillId])
			problems.drillId = 'Pick the movement the worry is about.'
		if (Object.keys(problems).length > 0) return { problems }
		const today = todayAt(who.timeZone, now)
		await insertCare(scope, {
			id: newId(),
			athleteId,
			kind: typed.kind as 'worry',
			region: typed.kind === 'illness' ? null : region,
			pattern: typed.kind === 'restriction' ? pattern : null,
			drillId: typed.kind === 'worry' ? typed.drillId : null,
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
			const role = roleInWords(by.role)
			const cleared: Clearance = { region: row.region, day: today, by: by.name.trim(), role }
			await keepClearance(scope, who, athleteId, cleared, by.role.trim(), now)
			// What was closed by hand for over a week comes back like any closure that long.
			const closure = { kind: 'pain' as const, region: row.region, score: CLOSE_FROM, day: row.fromDay }
			const library = await readLibrary(scope)
			await openWayBack(scope, athleteId, { reports: [closure] }, { ...cleared, role: 'clinician' }, library, now)
		}
		await rewriteUpcoming(scope, [athleteId], today, now)
		return { ended: true as const }
	})
}
