import { isBefore } from '../calendar/day-count'
import type { DoseCount } from '../dose/dose-count'
import {
	type DayDose,
	RAMP_FAMILY,
	RAMP_FLOORS,
	type RampQuantity,
	eachQuantity,
	planInto,
	rampValue,
	readRamp,
} from '../dose/ramp'
import type { AthleteType, Family, Level, Phase, Surface } from '../vocabulary/words'
import type { Library } from '../vocabulary/library'
import type { School } from '../vocabulary/school'
import { type PlainFacts, concludeFor } from '../permit/plain-facts'
import type { LadderState, WorkDay } from '../judge/types'
import type { BuildRequest } from './propose-session'
import type { LimitedAthlete } from './session-limits'
import type { ThemeId } from '../vocabulary/ids'
import type { DayRole } from '../vocabulary/session'
import type { TargetRequest } from './targets'
import { themeOn } from './themes'

/** Everything a session for a day can be built from without asking anybody: plain data, as it travels to the browser. */
export interface BuildPack {
	day: string
	startTime: string
	phase: Phase
	surface: Surface | null
	share: number
	role: DayRole
	priority: TargetRequest['priority']
	kept: TargetRequest['kept']
	theme: ThemeId | null
	school: School
	priorityLadders: string[]
	athletes: PackAthlete[]
}
export interface PackAthlete {
	id: string
	name: string
	legLengthM: number | null
	type: AthleteType | null
	levels: Record<Family, Level>
	states: Record<string, LadderState>
	keptLadders: string[]
	work: WorkDay[]
	rooms: Partial<Record<RampQuantity, number>>
	facts: PlainFacts
	/** What they had the last time, by ladder, or by drill where it stood on none; absent where nothing is known. */
	last?: Record<string, LastLine>
}

/** What somebody had of a ladder or a drill the last time it stood on a session that was held. */
export interface LastLine {
	day: string
	words: string
}

/** What somebody is down for on a day ahead. */
export interface PlannedDay {
	day: string
	startTime: string
	phase: Phase
	count: DoseCount
}

/**
 * What the ramp leaves for a session, by quantity: what is planned before it counts as done, what is planned later in
 * its week counts whole.
 *
 * @param done what was done, and what is known to come outside the sessions
 */
export function roomsOn(
	session: { day: string; startTime: string },
	done: Record<RampQuantity, readonly DayDose[]>,
	planned: readonly PlannedDay[],
	levelOf: (family: Family) => Level,
	rampPercent: number,
): Record<RampQuantity, number> {
	const inOrder = [...planned].sort((a, b) => (isBefore(a, b) ? -1 : 1))
	const room = (quantity: RampQuantity) => {
		const days = [...done[quantity]]
		const floor = RAMP_FLOORS[levelOf(RAMP_FAMILY[quantity])][quantity]
		for (const one of inOrder) {
			const asDose = { day: one.day, unloading: one.phase === 'unloading', value: rampValue(one.count, quantity) }
			if (asDose.value === 0) continue
			if (isBefore(one, session)) planInto(days, asDose, floor, rampPercent)
			else days.push(asDose)
		}
		return readRamp(days, session.day, floor, rampPercent).room
	}
	return eachQuantity(room)
}

export function limitedAthletes(pack: BuildPack, library: Library): LimitedAthlete[] {
	return pack.athletes.map((athlete) => {
		const concluded = concludeFor(athlete.facts, library)
		return {
			id: athlete.id,
			name: athlete.name,
			legLengthM: athlete.legLengthM,
			type: athlete.type,
			work: athlete.work,
			rooms: athlete.rooms,
			concluded,
			levelOf: (family) => athlete.levels[family],
			stateOf: (ladderId) => athlete.states[ladderId] ?? null,
			kept: (ladderId) => athlete.keptLadders.includes(ladderId),
		}
	})
}

/** What a proposal is asked for with; what is not said is the pack's. */
export interface ProposeOptions {
	minutes: number
	mostLanes: number
	kit: ReadonlySet<string> | null
	role?: DayRole
	priority?: TargetRequest['priority']
	theme?: ThemeId | null
	surface?: Surface | null
	/** Length of the ground, m; null or not said where there is enough. */
	roomM?: number | null
}

/** What a sheet on the pack's day is measured against. @param said what is said of the day, where it is other than the pack's */
export const targetOn = (
	pack: BuildPack,
	{ themes }: Pick<Library, 'themes'>,
	said: { role: DayRole; priority: TargetRequest['priority']; theme: ThemeId | null; surface: Surface | null },
): TargetRequest => ({
	share: pack.share,
	phase: pack.phase,
	role: said.role,
	priority: said.priority,
	// What is driven on is not only kept.
	kept: pack.kept.filter((quality) => quality !== said.priority),
	surface: said.surface,
	theme: themeOn(themes, said),
})

/** A request for a proposal on the pack's day. */
export function requestOf(
	pack: BuildPack,
	library: Library,
	{
		minutes,
		mostLanes,
		kit,
		role = pack.role,
		priority = pack.priority,
		theme = pack.theme,
		surface = pack.surface,
		roomM = null,
	}: ProposeOptions,
): BuildRequest {
	// What is under foot decides what is permitted there.
	const onGround =
		surface === pack.surface
			? pack
			: { ...pack, athletes: pack.athletes.map((one) => ({ ...one, facts: { ...one.facts, surface } })) }
	return {
		athletes: limitedAthletes(onGround, library),
		minutes,
		mostLanes,
		priorityLadders: pack.priorityLadders,
		target: targetOn(pack, library, { role, priority, theme, surface }),
		context: { library, school: pack.school, day: pack.day, startTime: pack.startTime, surface, kit, roomM },
	}
}
