import { addDays, mondayOf } from '../../core/calendar/day-count'
import { NEAR_DAYS } from '../../core/dose/work-kinds'
import { FAMILIES } from '../../core/vocabulary/words'
import type { Library } from '../../core/vocabulary/library'
import { type BuildPack, type PackAthlete, roomsOn } from '../../core/plan/build-pack'
import type { ThemeId } from '../../core/vocabulary/ids'
import type { DayRole } from '../../core/vocabulary/session'
import type { TargetRequest } from '../../core/plan/targets'
import type { ClubScope } from '../../db/connect'
import { type AthleteRow, type SquadRow, stateKey, typesOf } from '../../db/queries/squads'
import { factsOf } from '../facts/read-facts'
import { type RecordsOfDays, readRecordsOfDays } from '../facts/records'
import type { SessionRow } from '../../db/queries/sessions'
import { type NearWork, readNearWork, workNear } from '../sheet/work-near'
import { doneRamp } from './done-ramp'
import { type PlannedWork, plannedWork } from './planned-work'

/** What the session carries from its block; a session made alone is a whole hard one without a priority. */
export interface BlockShare {
	share: number
	role: DayRole
	priority: TargetRequest['priority']
	kept: TargetRequest['kept']
	theme: ThemeId | null
}
export const ALONE: BlockShare = { share: 1, role: 'hard', priority: null, kept: [], theme: null }

/** What sessions of some days can be built from: read once, however many they are. */
export interface Known {
	athletes: AthleteRow[]
	near: Map<string, NearWork>
	/** What was done, and what is known to come outside the sessions. */
	ramp: Awaited<ReturnType<typeof doneRamp>>
	types: Awaited<ReturnType<typeof typesOf>>
	records: RecordsOfDays
	/** By athlete; whoever plans a further session adds it. */
	planned: Map<string, PlannedWork[]>
}

/** So far ahead of a session what is planned speaks of it: its week, and the days near it. */
const lookedAtTo = (day: string): string => {
	const [weekEnd, near] = [addDays(mondayOf(day), 6), addDays(day, NEAR_DAYS)]
	return weekEnd > near ? weekEnd : near
}

/** @param done up to which day it is looked at what was done */
export async function readKnown(
	scope: ClubScope,
	athleteIds: string[],
	{ from, to, done, today }: { from: string; to: string; done: string; today: string },
	library: Library,
): Promise<Known> {
	const records = await readRecordsOfDays(scope, athleteIds, from, to, today)
	return {
		near: await readNearWork(scope, athleteIds, { from, done }, library),
		ramp: await doneRamp(scope, athleteIds, done, lookedAtTo(to)),
		athletes: records.on(from).athletes,
		types: await typesOf(scope, athleteIds),
		records,
		planned: await plannedWork(scope, athleteIds, today, lookedAtTo(to)),
	}
}

type BuiltSession = Pick<SessionRow, 'id' | 'day' | 'startTime' | 'phase' | 'surface'>

/** What a session of a squad on a day can be built from: each athlete as they stand, what is near it and what the week's ramp leaves. */
export const readBuildPack = async (
	scope: ClubScope,
	squad: SquadRow,
	session: BuiltSession,
	athleteIds: string[],
	library: Library,
	today: string,
	block: BlockShare = ALONE,
): Promise<BuildPack> => {
	const known = await readKnown(scope, athleteIds, daysAround(session, today), library)
	return buildPackOf(known, squad, session, athleteIds, library, block)
}

/** The days to know of for one session. */
export const daysAround = ({ day }: { day: string }, today: string) => ({
	from: day,
	to: day,
	done: addDays(day, NEAR_DAYS),
	today,
})

/** The same from what is known already. */
export function buildPackOf(
	known: Known,
	squad: SquadRow,
	session: BuiltSession,
	athleteIds: readonly string[],
	library: Library,
	block: BlockShare,
): BuildPack {
	const school = library.schools[squad.schoolId]
	if (!school) throw new Error(`school ${squad.schoolId} is not in the library`)
	const { near, ramp, types, planned } = known
	const records = known.records.on(session.day)
	const { levelOf, states } = records
	const facts = factsOf(records, session, squad, library, new Set(athleteIds))
	const ladders = Object.keys(library.ladders)
	const order = new Map(athleteIds.map((id, index) => [id, index]))
	return {
		day: session.day,
		startTime: session.startTime,
		phase: session.phase,
		surface: session.surface,
		...block,
		school,
		priorityLadders: Object.entries(squad.focus ?? {}).flatMap(([id, focus]) => (focus === 'priority' ? [id] : [])),
		athletes: known.athletes
			.filter(({ id }) => order.has(id))
			.sort((a, b) => order.get(a.id)! - order.get(b.id)!)
			.map((athlete): PackAthlete => {
				const ahead = (planned.get(athlete.id) ?? []).filter(
					(one) => one.sessionId !== session.id && one.day <= lookedAtTo(session.day),
				)
				const levels = Object.fromEntries(
					FAMILIES.map((family) => [family, levelOf(athlete.id, family)]),
				) as PackAthlete['levels']
				const own = facts.get(athlete.id)!
				const rampPercent = Math.min(...own.schools.map(({ numbers }) => numbers.rampPercent))
				return {
					id: athlete.id,
					name: athlete.name,
					legLengthM: athlete.legLengthM,
					type: types.get(athlete.id) ?? null,
					levels,
					facts: own,
					states: Object.fromEntries(
						ladders.flatMap((id) => {
							const stand = states.get(stateKey(athlete.id, id))
							return stand ? [[id, stand.state]] : []
						}),
					),
					keptLadders: ladders.filter((id) => squad.focus?.[id] === 'kept'),
					work: [
						...workNear(near.get(athlete.id)!, session),
						...ahead.map((one) => ({
							day: one.day,
							startTime: one.startTime,
							families: one.families,
							kinds: one.kinds,
							outside: false,
						})),
					],
					rooms: roomsOn(session, ramp.get(athlete.id)!, ahead, (family) => levels[family], rampPercent),
				}
			}),
	}
}
