import type { Stamp } from '../../core/marks/keep-session'
import { addDays, daysBetween, nextTrainingDay } from '../../core/calendar/day-count'
import { foldEvents } from '../../core/events/fold'
import { rungOf } from '../../core/library/starter-library'
import type { Drill } from '../../core/vocabulary/drill'
import type { Library } from '../../core/vocabulary/library'
import type { AthleteHistory, NextSession } from '../../core/judge/gather-input'
import { passedRungs } from '../../core/judge/locks'
import type { Documents, LadderState, VerdictInput } from '../../core/judge/types'
import { isHard } from '../../core/dose/work-kinds'
import type { ClubScope } from '../../db/connect'
import { careOf, careRecordOf, outsideLoadOf, outsideOf } from '../../db/queries/care'
import type { StoredEvent } from '../../db/queries/log'
import { meansOf } from '../../db/queries/marks'
import { USUAL_DAYS } from '../../core/noise/usual'
import { byKey } from '../../core/marks/keep-session'
import { readDrills } from '../../db/queries/library'
import { type SessionRow, linesOf, recentSessionsOf, unstartedAfter } from '../../db/queries/sessions'
import { type SquadRow, readAthletes } from '../../db/queries/squads'
import { recentAdvances } from '../../db/queries/verdicts'
import { breathe } from '../breathe'
import { groupBy } from '../../core/lists/group-by'
import { keptEvents } from '../kept'
import { readMeasured } from '../own/read-measured'
import { dried } from '../sheet/dried'
import { plannedOf } from '../sheet/planned-of'

/** Weeks of history a verdict looks at: the four trained weeks of the ramp with room for unloading and missed ones, and the longest lay-off. */
const WINDOW_DAYS = 84
/** A rung reached this many days ago can still be new on the next day. */
const NEW_DAYS = 10

/** Documents an input cites. */
export const documentsOf = (library: Library, ladderId: string, schoolId: string): Documents => {
	const [ladder, school] = [library.ladders[ladderId], library.schools[schoolId]]
	if (!ladder || !school) throw new Error(`ladder ${ladderId} or school ${schoolId} is not in the library`)
	return { ladder, school, drills: library.drills, paths: library.ladders }
}

/** Drills by id and version, as lines cite them. */
export async function drillsAsCited(
	scope: ClubScope,
	library: Library,
): Promise<(id: string, version: number) => Drill> {
	const drills = await readDrills(scope, Object.keys(library.drills))
	return (id, version) => {
		const drill = drills.get(`${id}/${version}`)
		if (!drill) throw new Error(`drill ${id} version ${version} is not in the library`)
		return drill
	}
}

export async function nextSessionOf(scope: ClubScope, session: SessionRow, squad: SquadRow): Promise<NextSession> {
	const [next] = await unstartedAfter(scope, session)
	if (next) return { day: next.day, startTime: next.startTime, phase: next.phase, surface: next.surface }
	return {
		day: nextTrainingDay(session.day, squad.trainingDays.length > 0 ? squad.trainingDays : [1, 2, 3, 4, 5, 6, 7]),
		startTime: squad.startTime,
		phase: squad.phase,
		surface: dried(session.surface),
	}
}

/** Rungs passed by each athlete, by ladder. */
export function standingsOf(
	states: Map<string, { state: LadderState }>,
	library: Library,
): Map<string, Record<string, string[]>> {
	const byAthlete = new Map<string, Record<string, string[]>>()
	for (const [key, { state }] of states) {
		const athleteId = key.slice(0, key.indexOf('/'))
		const ladder = library.ladders[state.ladderId]
		if (ladder) byAthlete.set(athleteId, { ...byAthlete.get(athleteId), [ladder.id]: passedRungs(state, ladder) })
	}
	return byAthlete
}

/** Sessions of some athletes between two days, what was planned in them and what was logged, over all squads. */
export async function readHeld(scope: ClubScope, athleteIds: string[], from: string, to: string) {
	const recent = from > to ? [] : await recentSessionsOf(scope, athleteIds, to, daysBetween(from, to) + 1)
	const lines = from > to ? [] : await linesOf(scope, athleteIds, from, to)
	const { current, conflicts } = foldEvents(
		await keptEvents(scope, [...new Map(recent.map(({ session }) => [session.id, session])).values()]),
	)
	const [sessionsBy, linesBy] = [
		groupBy(recent, ({ athleteId }) => athleteId),
		groupBy(lines, ({ line }) => line.athleteId),
	]
	const events = new Map<string, StoredEvent[]>(athleteIds.map((id) => [id, []]))
	for (const event of [...current, ...conflicts.flatMap(worstPain)]) events.get(event.athleteId ?? '')?.push(event)
	return {
		of: (id: string) => ({
			sessions: (sessionsBy.get(id) ?? []).map(({ session }) => session),
			lines: (linesBy.get(id) ?? []).flatMap(({ line }) => {
				const planned = plannedOf(line)
				return planned ? [{ id: line.id, entryId: line.entryId, sessionId: line.sessionId, ...planned }] : []
			}),
			events: events.get(id) ?? [],
		}),
	}
}

/** Everything the rules may look at, of some athletes, up to a day, over all squads. */
export async function readHistories(
	scope: ClubScope,
	athleteIds: string[],
	to: string,
	library: Library,
): Promise<Map<string, AthleteHistory>> {
	const from = addDays(to, -WINDOW_DAYS)
	const [athletes, held, means, care, outside, advances, measured] = [
		await readAthletes(scope, athleteIds),
		await readHeld(scope, athleteIds, addDays(from, 1), to),
		await meansOf(scope, athleteIds, addDays(from, -USUAL_DAYS), to),
		await careOf(scope, athleteIds),
		await outsideOf(scope, athleteIds, from),
		await recentAdvances(scope, athleteIds, addDays(to, -NEW_DAYS), to),
		await readMeasured(scope, athleteIds, to),
	]
	const of = {
		means: groupBy(means, ({ athleteId }) => athleteId),
		outside: groupBy(outside, ({ athleteId }) => athleteId),
		care: groupBy(care, ({ athleteId }) => athleteId),
		advances: groupBy(advances, ({ athleteId }) => athleteId),
	}
	const histories = new Map<string, AthleteHistory>()
	for (const { id, birthDate, massKg } of athletes) {
		const { events, ...rest } = held.of(id)
		histories.set(id, {
			athleteId: id,
			birthDate,
			massKg,
			...rest,
			events,
			...keptWith(events),
			means: byKey(of.means.get(id) ?? []),
			measured: measured.get(id) ?? [],
			outside: (of.outside.get(id) ?? []).map(outsideLoadOf),
			care: (of.care.get(id) ?? []).map(careRecordOf),
			newRungs: (of.advances.get(id) ?? []).flatMap((row) => newRung(row, library)),
		})
		await breathe()
	}
	return histories
}

/** What is kept beside each mark, by its id. */
function keptWith(events: readonly StoredEvent[]): Pick<AthleteHistory, 'counts' | 'stamps'> {
	const counts: AthleteHistory['counts'] = new Map()
	const stamps = new Map<string, Stamp>()
	for (const { id, counts: cost, stamp } of events) {
		if (cost) counts.set(id, cost)
		if (stamp) stamps.set(id, stamp)
	}
	return { counts, stamps }
}

function newRung(
	{ ladderId, before, after, day }: { ladderId: string; before: LadderState; after: LadderState; day: string },
	library: Library,
): VerdictInput['newRungs'] {
	const ladder = library.ladders[ladderId]
	if (!ladder?.rungs.some((rung) => rung.id === after.rungId) || before.rungId === after.rungId) return []
	const { rung } = rungOf(ladder, after.rungId)
	const drill = library.drills[rung.drillId]
	return drill ? [{ ladderId, rungId: rung.id, day: after.rungSince ?? day, hard: isHard(drill, rung.parameters) }] : []
}

/** Contradicting corrections are no evidence, but of two pain reports the worse one counts. */
function worstPain(heads: StoredEvent[]): StoredEvent[] {
	const pains = heads.filter((event) => event.type === 'observation' && event.kind === 'pain' && !event.void)
	const score = (event: StoredEvent) => (event.kind === 'pain' ? event.value.score : -1)
	return pains.sort((a, b) => score(b) - score(a)).slice(0, 1)
}
