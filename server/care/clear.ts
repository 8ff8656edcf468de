import { v7 as newId } from 'uuid'
import { closuresOn, mayClear } from '../../core/care/closures'
import { LAND, RUN, THROW, openedBy } from '../../core/care/return-plan'
import { rungOf } from '../../core/library/starter-library'
import { enterWayBack } from '../../core/judge/missed-time'
import { pathFor } from '../../core/judge/safety-rules'
import { entryState } from '../../core/judge/resolve-line'
import { CLEARING_ROLES, type Clearance, type ClearingRole, type Lift } from '../../core/vocabulary/care'
import type { Library } from '../../core/vocabulary/library'
import { EVERYTHING, REGIONS } from '../../core/vocabulary/words'
import { type ClubScope, inTransaction } from '../../db/connect'
import { careOf, endCare } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
import { readAthletes, readStates, squadsOf, stateKey, writeState } from '../../db/queries/squads'
import { insertClearance } from '../../db/queries/verdicts'
import type { Problems } from '../access/join'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { readFacts } from '../facts/read-facts'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { noteDeed } from '../access/change-club'

export interface ClearanceTyped {
	region: string
	side: string
	clearedBy: string
	role: string
	/** "yes", "no", or empty: as severe as it was said to be. */
	injury: string
}

/** Coach and clinician record a clearance, and a guardian of theirs; who may be the one that clears is another question. */
export const mayRecord = (who: SignedIn, athleteId: string): boolean =>
	may(who.role, 'clearance:record') || (who.role === 'guardian' && who.athleteId === athleteId)

/** Where a way back begins for somebody who stands on no ladder of its families. */
const LADDER_OF: Readonly<Record<string, string>> = { [RUN]: 'acceleration', [LAND]: 'stiffness', [THROW]: 'throw' }

/**
 * Records who cleared a region, or everything after head or chest. It ends what was said on earlier days, lifts
 * what was closed by hand there, and opens the way back where the closure was an injury or long.
 *
 * @returns null for a stranger's id
 */
export async function recordClearance(
	who: SignedIn,
	athleteId: string,
	typed: ClearanceTyped,
	now: Date,
): Promise<{ cleared: true } | { problems: Problems } | null> {
	if (typed.clearedBy.trim().length < 2 || typed.clearedBy.length > 200)
		return { problems: { clearedBy: 'The name of who cleared it is expected.' } }
	const region = ([...REGIONS, EVERYTHING] as const).find((one) => one === typed.region)
	const role = CLEARING_ROLES.find((one) => one === typed.role)
	if (!region) return { problems: { clearedBy: 'Say which region was cleared.' } }
	if (!role || !mayClear(role, region))
		return {
			problems: {
				role:
					region === EVERYTHING
						? 'After head or chest only a doctor clears.'
						: 'A health professional clears: a doctor, a physiotherapist, or another by their profession.',
			},
		}
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return null
		const today = todayAt(who.timeZone, now)
		const library = await readLibrary(scope)
		const squad = (await squadsOf(scope, [athleteId])).get(athleteId)?.[0]
		const moment = { day: today, startTime: '12:00', phase: squad?.phase ?? ('accumulate' as const), surface: null }
		const known = (
			await readFacts(scope, moment, { schoolId: squad?.schoolId ?? 'quality-first' }, [athleteId], library, today)
		).get(athleteId)!
		const before = closuresOn(known, today).filter((one) => one.region === region && one.grade !== 'noted')
		if (before.length === 0)
			return {
				problems: {
					clearedBy: region === EVERYTHING ? 'Not everything is closed.' : 'Nothing is closed for this region.',
				},
			}
		const side = typed.side === 'left' || typed.side === 'right' ? typed.side : null
		const injury = typed.injury === 'yes' ? true : typed.injury === 'no' ? false : null
		const cleared: Clearance = {
			region,
			day: today,
			by: typed.clearedBy.trim(),
			role,
			...(side ? { side } : {}),
			...(injury === null ? {} : { injury }),
		}
		// What was said on the clearance's own day stands: recorded now it would open nothing.
		const after = { ...known, restrictions: [], clearances: [...known.clearances, cleared] }
		const stands = (at: Parameters<typeof closuresOn>[0]) =>
			closuresOn(at, today).filter((one) => one.region === region && one.grade !== 'noted').length
		if (stands(after) > 0 && stands(after) >= stands({ ...known, restrictions: [] }))
			return {
				problems: {
					clearedBy: 'What was said today stands today. A clearance can be recorded from tomorrow on.',
				},
			}
		await keepClearance(scope, who, athleteId, cleared, typed.role, now)
		const lifted: Lift[] = []
		for (const row of await careOf(scope, [athleteId]))
			if (row.kind === 'restriction' && row.endedOn === null && row.region === region) {
				lifted.push({ region, since: row.fromDay, until: today })
				await endCare(scope, 'restriction', row.id, athleteId, {
					endedOn: today,
					endedBy: cleared.by,
					endedByRole: typed.role,
					endRecordedBy: who.personId,
					endRecordedAt: now,
				})
			}
		await openWayBack(scope, athleteId, { reports: known.reports, clearances: [cleared], lifted }, today, library, now)
		await rewriteUpcoming(scope, [athleteId], today, now)
		return { cleared: true as const }
	})
}

export async function keepClearance(
	scope: ClubScope,
	who: SignedIn,
	athleteId: string,
	{ region, side, day, by, role, injury }: Clearance,
	inWords: string,
	now: Date,
): Promise<void> {
	await insertClearance(scope, {
		id: newId(),
		athleteId,
		region,
		side: side ?? null,
		clearedBy: by,
		clearedByRole: inWords,
		role,
		injury: injury ?? null,
		clearedOn: day,
		recordedBy: who.personId,
		recordedAt: now,
	})
	const [athlete] = await readAthletes(scope, [athleteId])
	await noteDeed(scope, who, 'cleared', athlete?.name ?? '', now)
}

/** Puts every ladder of the families that a clearance or a lift opens a way back to on the first step of its path. */
export async function openWayBack(
	scope: ClubScope,
	athleteId: string,
	opening: Parameters<typeof openedBy>[0],
	day: string,
	library: Library,
	now: Date,
): Promise<void> {
	const { paths } = openedBy(opening, [], [], day)
	const states = await readStates(scope, [athleteId], true)
	const reached = new Set<string>()
	for (const { state, asOf } of states.values()) {
		const ladder = library.ladders[state.ladderId]
		const drill = ladder && library.drills[rungOf(ladder, state.rungId).rung.drillId]
		const path = library.ladders[(drill && pathFor(ladder, drill)) ?? '']
		if (!ladder || !path || ![...paths.keys()].some((one) => pathLeadsTo(one, ladder.family))) continue
		reached.add(path.id)
		await writeState(scope, athleteId, enterWayBack(state, path, day), asOf, now)
	}
	for (const path of paths.keys()) {
		const ladderId = LADDER_OF[path]
		if (reached.has(path) || !ladderId || !library.ladders[ladderId] || !library.ladders[path]) continue
		await writeState(
			scope,
			athleteId,
			enterWayBack(
				states.get(stateKey(athleteId, ladderId))?.state ?? entryState(library, ladderId),
				library.ladders[path]!,
				day,
			),
			day,
			now,
		)
	}
}
const pathLeadsTo = (path: string, family: string): boolean =>
	path === RUN
		? family === 'sprint'
		: path === LAND
			? family === 'agility' || family === 'plyometric'
			: family === 'throw'

/** What a role comes to that is only known in words. */
export const roleInWords = (words: string): ClearingRole =>
	/doctor|physician|surgeon/i.test(words)
		? 'doctor'
		: /physio/i.test(words)
			? 'physiotherapist'
			: /coach|trainer/i.test(words)
				? 'coach'
				: /parent|mother|father|guardian/i.test(words)
					? 'guardian'
					: /athlete|self/i.test(words)
						? 'athlete'
						: 'clinician'
