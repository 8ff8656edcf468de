import { closuresOn, unwellSince, worriesOn } from '../care/closures'
import { PATH_FAMILIES, type ReturnPlan, openedBy, returnPlanOn } from '../care/return-plan'
import type { Day } from '../calendar/day-count'
import type { Facts } from '../rules/facts'
import { COUNTED, awayStage } from '../rules/p9-time-away'
import { gates, schoolGate } from '../rules/s8-gates'
import type { RuleId } from '../rules/rule'
import type { CareReport, Clearance, Lift, Restriction, ReturnStand } from '../vocabulary/care'
import { EVERYTHING, type Family, type Region } from '../vocabulary/words'

/** A caution that somebody by name has answered with a reason. */
export interface Acknowledged {
	rule: RuleId
	reason: string
	by: string
}

/** What is on record of one athlete for a day, before anything is concluded from it. */
export interface Known extends Omit<Facts, 'closures' | 'unwellSince' | 'worries' | 'restrictions'> {
	reports: readonly CareReport[]
	clearances: readonly Clearance[]
	restrictions: readonly Restriction[]
	/** What was closed by hand and opened by hand again. */
	lifted?: readonly Lift[] | undefined
	/** Regions in which a health professional has accepted a discomfort of 1 or 2 on the way back. */
	accepted?: readonly Region[] | undefined
	/** Days of the athlete's sessions; undefined when unknown. */
	sessions?: readonly Day[] | undefined
	/** Where the athlete stands on the paths of the way back. */
	stands: readonly ReturnStand[]
	acknowledged: readonly Acknowledged[]
}

/** The facts that rules read, and the way back. */
export interface Concluded {
	facts: Facts
	plan: ReturnPlan
	acknowledged: readonly Acknowledged[]
}

/** Whether a caution was answered: a name and a reason. */
export const isAnswered = (acknowledged: readonly Acknowledged[], rule: RuleId): boolean =>
	acknowledged.some((one) => one.rule === rule && one.reason.trim() !== '' && one.by.trim() !== '')

/** Steps of the way back are work too. */
function lastWorkOf({ lastWork, stands, library }: Known): Facts['lastWork'] {
	const last: Partial<Record<Family, Day | null>> = { ...lastWork }
	for (const { path, lastDone } of stands) {
		const ladder = library.ladders[path]
		if (!ladder || !lastDone) continue
		for (const family of COUNTED) {
			const known = last[family] ?? null
			if (pathCovers(path, family) && (known === null || lastDone > known)) last[family] = lastDone
		}
	}
	return last
}
const pathCovers = (path: string, family: Family) => (PATH_FAMILIES[path] ?? []).includes(family)

/** What is concluded for a day: closures, what somebody worries about, the way back. */
export function conclude(known: Known): Concluded {
	const { reports, clearances, lifted, stands, day, library, acknowledged } = known
	const restrictions = known.restrictions.filter((one) => one.since <= day)
	const lastWork = lastWorkOf(known)
	const away = isAnswered(acknowledged, 'P9')
		? []
		: COUNTED.filter((family) => awayStage({ lastWork, day }, family) === 'path')
	const opened = openedBy({ reports, clearances, lifted }, stands, away, day)
	const closures = closuresOn(
		{ reports, clearances, restrictions, sessions: known.sessions, returning: opened.regions },
		day,
	)
	const facts: Facts = {
		...known,
		lastWork,
		restrictions,
		closures,
		unwellSince: unwellSince(reports, day),
		worries: worriesOn(reports, day),
	}
	const spared = new Set(
		closures.flatMap((one): Region[] => (one.grade === 'spare' && one.region !== EVERYTHING ? [one.region] : [])),
	)
	const plan = returnPlanOn(
		opened,
		stands,
		library,
		day,
		(form) => gates.read(facts, form) !== null,
		(rung) => schoolGate(facts, rung) !== null,
		spared,
	)
	return { facts, plan, acknowledged }
}
