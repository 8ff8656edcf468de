import { addDays, nextTrainingDay } from '../../core/calendar/day-count'
import { wasPlanned } from '../../core/field/session/drills-now'
import { tuningForAnotherDay } from '../../core/plan/resolve-sheet'
import type { Away } from '../../core/calendar/away'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { readTemplates } from '../plan/templates'
import { versionOf } from '../submissions/take-version'
import { comingTo } from '../squads/membership'
import { draftOf } from './describe-session'
import { dried } from './dried'
import { readAttending, readEntries, readSession } from '../../db/queries/sessions'
import { listMembers, listSquads, readSquad } from '../../db/queries/squads'

/** What the session form offers: squads, athletes with their squads, drills, ladders with the ways back, and templates. */
export async function readFormChoices(scope: ClubScope) {
	const [squads, members, library] = [await listSquads(scope), await listMembers(scope), await readLibrary(scope)]
	const athletes = new Map<string, { id: string; name: string; squadIds: string[]; away: Away | null }>()
	for (const { id, name, squadId, away } of members)
		athletes.set(id, { id, name, squadIds: [...(athletes.get(id)?.squadIds ?? []), squadId], away })
	return {
		squads: squads.map(({ id, name, startTime, place }) => ({ id, name, startTime, place })),
		athletes: [...athletes.values()],
		drills: Object.values(library.drills),
		ladders: Object.values(library.ladders),
		themes: Object.values(library.themes),
		templates: await readTemplates(scope, library),
	}
}

/** A session as it is changed: its entries, who comes, and what the form offers; null when there is none. */
export async function readSheetToChange(scope: ClubScope, sessionId: string) {
	const session = await readSession(scope, sessionId)
	if (!session) return null
	const [entries, attending] = [await readEntries(scope, [session.id]), await readAttending(scope, [session.id])]
	const draft = draftOf(
		session,
		entries,
		attending.map((row) => row.athleteId),
	)
	const version = await versionOf(scope, 'session', session.id)
	return { id: session.id, startedAt: session.startedAt, version, draft, choices: await readFormChoices(scope) }
}

/**
 * A session as a new one begins from it: its parts without what was added on the spot, on the squad's next training day
 * from today on, for who is in the squad now. Null when there is none.
 */
export async function readCopy(scope: ClubScope, sessionId: string, today: string) {
	const session = await readSession(scope, sessionId)
	const squad = session && (await readSquad(scope, session.squadId))
	if (!session || !squad) return null
	const entries = (await readEntries(scope, [session.id]))
		.filter(wasPlanned)
		.map((entry) => ({ ...entry, doseFactor: 1, tuning: tuningForAnotherDay(entry.tuning) }))
	const days = squad.trainingDays.length > 0 ? squad.trainingDays : [1, 2, 3, 4, 5, 6, 7]
	const day = nextTrainingDay(addDays(today, -1), days)
	const members = await comingTo(scope, squad.id, day)
	const coming = members.length > 0 ? members : (await readAttending(scope, [session.id])).map((row) => row.athleteId)
	const draft = draftOf({ ...session, surface: dried(session.surface) }, entries, coming)
	return { ...draft, day, startTime: squad.startTime }
}
