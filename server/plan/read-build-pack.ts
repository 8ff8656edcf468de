import { addDays, mondayOf } from '../../core/calendar/days'
import { RAMP_NAMES, type RampQuantity, rampValue } from '../../core/dose/ramp'
import { FAMILIES, type Library } from '../../core/library/types'
import { type BuildPack, type PackAthlete, roomsOn } from '../../core/plan/build-pack'
import type { DayRole, TargetRequest } from '../../core/plan/targets'
import { evidenceFor, isOpen } from '../../core/progress/gather-input'
import type { ClubScope } from '../../db/connect'
import type { SquadRow } from '../../db/queries/squads'
import { readAthletes, readLevels, readStates, stateKey } from '../../db/queries/squads'
import { drillsAsCited, readHistories } from '../review/gather'
import { type SessionDay, lineContexts } from '../sheet/line-context'
import { plannedWork } from './planned-work'

/** How far around a session other work is looked at, days: the longest spacing a school may ask. */
const NEAR_DAYS = 4

/** What the session carries from its block; a session made alone is a whole hard one without a priority. */
export interface BlockShare {
	share: number
	role: DayRole
	priority: TargetRequest['priority']
	kept: TargetRequest['kept']
}
export const ALONE: BlockShare = { share: 1, role: 'hard', priority: null, kept: [] }

/** What a session of a squad on a day can be built from: each athlete as they stand, what is near it and what the week's ramp leaves. */
export async function readBuildPack(scope: ClubScope, squad: SquadRow, session: SessionDay, athleteIds: string[], library: Library, today: string, block: BlockShare = ALONE): Promise<BuildPack> {
	const school = library.schools[squad.schoolId]
	if (!school) throw new Error(`school ${squad.schoolId} is not in the library`)
	const weekEnd = addDays(mondayOf(session.day), 6)
	const [athletes, levelOf, states, contextOf, histories, drillOf, planned] = [
		await readAthletes(scope, athleteIds), await readLevels(scope, athleteIds), await readStates(scope, athleteIds), await lineContexts(scope, session, squad, athleteIds, library),
		await readHistories(scope, athleteIds, addDays(session.day, NEAR_DAYS), library), await drillsAsCited(scope, library), await plannedWork(scope, athleteIds, today, weekEnd > addDays(session.day, NEAR_DAYS) ? weekEnd : addDays(session.day, NEAR_DAYS)),
	]
	const ladders = Object.keys(library.ladders)
	const order = new Map(athleteIds.map((id, index) => [id, index]))
	return {
		day: session.day, startTime: session.startTime, phase: session.phase, surface: session.surface, ...block, school,
		priorityLadders: Object.entries(squad.focus ?? {}).flatMap(([id, focus]) => (focus === 'priority' ? [id] : [])),
		athletes: athletes.sort((a, b) => order.get(a.id)! - order.get(b.id)!).map((athlete): PackAthlete => {
			const history = histories.get(athlete.id)!
			const around = { id: '', day: addDays(session.day, NEAR_DAYS), startTime: '23:59', phase: session.phase }
			const [near, before] = [evidenceFor(around, history, drillOf), evidenceFor({ ...around, day: session.day, startTime: session.startTime }, history, drillOf)]
			const ahead = (planned.get(athlete.id) ?? []).filter((one) => one.sessionId !== session.id)
			const levels = Object.fromEntries(FAMILIES.map((family) => [family, levelOf(athlete.id, family)])) as PackAthlete['levels']
			const days = Object.fromEntries((Object.keys(RAMP_NAMES) as RampQuantity[]).map((quantity) => [quantity, [
				...before.ramp[quantity],
				// What is planned later in the same week was planned first: it counts as done.
				...ahead.filter((one) => one.day <= weekEnd).map((one) => ({ day: one.day > session.day ? session.day : one.day, unloading: one.phase === 'unloading', value: rampValue(one.count, quantity) })),
			]])) as unknown as Record<RampQuantity, { day: string; unloading: boolean; value: number }[]>
			const { level: _level, school: _school, ...locks } = contextOf(athlete, 1)
			return {
				id: athlete.id, name: athlete.name, legLengthM: athlete.legLengthM, levels, locks,
				states: Object.fromEntries(ladders.flatMap((id) => { const known = states.get(stateKey(athlete.id, id)); return known ? [[id, known.state]] : [] })),
				keptLadders: ladders.filter((id) => squad.focus?.[id] === 'kept'),
				work: [...near.work.filter((one) => one.outside || one.day !== session.day || one.startTime !== session.startTime), ...ahead.map((one) => ({ day: one.day, startTime: one.startTime, families: one.families, kinds: one.kinds, outside: false }))],
				rooms: roomsOn(session.day, days, (family) => levels[family], school.numbers.rampPercent),
				worries: history.care.flatMap((record) => (record.kind === 'worry' && isOpen(record, session.day) ? [record.drillId] : [])),
			}
		}),
	}
}
