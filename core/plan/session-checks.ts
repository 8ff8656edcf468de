import { type Day, hoursBetween } from '../calendar/day-count'
import { type DoseCount, rangedContacts, totalOf } from '../dose/dose-count'
import { SESSION_RANGES } from '../dose/level-ranges'
import { type AskedWork, linePartsOf } from '../vocabulary/line-parts'
import { HARD_GROUND, HARD_GROUND_SHARE } from './hard-ground'
import type { Dose, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Level, Surface } from '../vocabulary/words'
import { lockOfForm } from '../judge/locks'
import { type Facts, most } from '../rules/facts'
import { formOf } from '../rules/form'
import { unloading } from '../rules/p6-phase'
import { place } from '../rules/s10-place'
import { match } from '../rules/s11-match'
import type { WorkDay } from '../judge/types'
import type { RuleId } from '../rules/rule'
import { spacingClash } from '../rules/spacing'
import { WORK_KIND_NAMES, isHard, kindsOf } from '../dose/work-kinds'
import { inSentence } from '../words/write-numbers'

/** Something a coach should see before the session, and may answer with a reason. */
export interface Caution {
	rule: RuleId
	/** What was found against what limit, and of what: an answer is kept for this, in whatever words it is said. */
	finding: string
	sentence: string
	/** The entry it stands beside; null for the whole session. */
	entryId: string | null
}

const findingOf = (rule: RuleId, about: string, found: string, limit: string): string =>
	[rule, about, found, limit].join(' | ').slice(0, 300)

export interface CheckedEntry {
	entryId: string
	drill: Drill
	parameters: Parameters
	dose: Dose
}

/** A line as it is checked: the drills it cites, each with its own dose. */
export const checkedOf = (
	entryId: string,
	line: AskedWork,
	drillOf: (drillId: string) => Drill | null | undefined,
): CheckedEntry[] =>
	linePartsOf(line).flatMap(({ drillId, parameters, dose }) => {
		const drill = drillOf(drillId)
		return drill ? [{ entryId, drill, parameters, dose }] : []
	})

/** Throws in one session after which fast work is no longer fresh [our setting]: the upper end of level 1. */
export const TIRING_THROWS = SESSION_RANGES[1].throws.high
const tires = (drill: Drill) => drill.repeatSpeed === true
const label = (drill: Drill) => inSentence(drill.name)

/** S5: shock and maximal work only early, never after conditioning or throws to fatigue [common practice]. */
export function checkOrder(entries: readonly CheckedEntry[]): Caution[] {
	const cautions: Caution[] = []
	let tired: string | null = null
	let throws = 0
	for (const { entryId, drill, parameters, dose } of entries) {
		if (tired !== null && !tires(drill) && isHard(drill, parameters) && drill.family !== 'throw') {
			cautions.push({
				rule: 'S5',
				finding: findingOf('S5', drill.id, `after ${tired}`, 'early'),
				entryId,
				sentence: `${drill.name} comes after ${tired}: shock and maximal work belong early, while fresh.`,
			})
		}
		if (drill.counting.throws) throws += dose.sets * dose.reps
		if (tires(drill)) tired = label(drill)
		else if (throws > TIRING_THROWS) tired = `${throws} throws`
	}
	return cautions
}

/** S10: the allowed contacts on hard ground. */
export function checkGround(count: DoseCount, level: Level, surface: Surface | null): Caution[] {
	if (surface === null || !HARD_GROUND.includes(surface)) return []
	const allowed = Math.floor(SESSION_RANGES[level].contacts.high * HARD_GROUND_SHARE)
	const planned = totalOf(rangedContacts(count))
	return planned <= allowed
		? []
		: [
				{
					rule: 'S10',
					finding: findingOf('S10', surface, String(planned), String(allowed)),
					entryId: null,
					sentence: `${planned} contacts on ${surface === 'gravel' ? 'gravel' : 'a hard court'}: ${allowed} are allowed there, four fifths of the usual.`,
				},
			]
}

/** S6, S10 and S11 for one athlete's line on that day. What the sheet already leaves out is not said again. */
export function checkLine(
	{ entryId, drill, parameters }: CheckedEntry,
	at: { day: Day; startTime: string },
	work: readonly WorkDay[],
	facts: Facts,
): Caution[] {
	const cautions: Caution[] = []
	const lock = lockOfForm(facts, formOf(drill, parameters, facts.library), [unloading, place, match])
	if (lock)
		cautions.push({
			rule: lock.rule,
			finding: findingOf(lock.rule, drill.id, lock.found, lock.limit),
			entryId,
			sentence: `${drill.name}: ${lock.words}.`,
		})
	const spacingH = most(facts, 'spacingH')
	const clash = spacingClash(kindsOf(drill, parameters), at, work, spacingH)
	if (clash)
		cautions.push({
			rule: 'S6',
			finding: findingOf('S6', drill.id, `${Math.round(clash.hours)} h ${clash.kind}`, String(spacingH)),
			entryId,
			sentence: `${drill.name}: ${Math.round(clash.hours)} h from other ${WORK_KIND_NAMES[clash.kind]}, ${spacingH} h are asked.`,
		})
	if (drill.family === 'tissue') {
		const fast = work.find(
			(one) => one.kinds.includes('maximal-sprint') && Math.abs(hoursBetween(one, at)) < TISSUE_HOURS,
		)
		if (fast)
			cautions.push({
				rule: 'S6',
				finding: findingOf(
					'S6',
					drill.id,
					`${Math.round(Math.abs(hoursBetween(fast, at)))} h fast`,
					String(TISSUE_HOURS),
				),
				entryId,
				sentence: `${drill.name}: at least ${TISSUE_HOURS} h from fast work.`,
			})
	}
	return cautions
}

/** Slow tendon work wants this long from fast work, h [common practice]. */
export const TISSUE_HOURS = 6
