import { saidOfBody } from '../care/said'
import { CLOSE_FROM, SPARE_FROM, closesEverything, touches } from '../care/grades'
import { intensityOf } from '../dose/count-rep'
import { isHard } from '../dose/work-kinds'
import { bars, placeOf, restrictsDrill } from '../rules/bars'
import type { Closure } from '../vocabulary/care'
import type { Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import { isOfBody } from '../vocabulary/event-kinds'
import type { LogEvent } from '../vocabulary/events'
import { EVERYTHING, type Leg, type Pattern, type Region } from '../vocabulary/words'

/*
 * What a pain report in a session means there and then, on a device that knows nothing of what was said on other
 * days but the lowest score that would close or spare a region now. The server folds the same reports by the same
 * core; whatever it says on top stands on the line already.
 */

/** From which score a report today closes or spares a side of a region, where that is lower than for everybody. */
export interface SayLimit {
	region: Region
	side: Leg
	closesFrom: number
	sparesFrom: number
}
type Said = Extract<LogEvent, { kind: 'pain' }>

/** An answer of 2 or more to "how was it?" is a report. */
const REPORT_FROM = 2

/**
 * What the reports of this session close and spare, by the limits of the athlete.
 *
 * @param events everything known of the session, replaced events too: what was withdrawn is not undone by that
 */
export function closedNow(
	{ id, sayLimits = [] }: { id: string; sayLimits?: readonly SayLimit[] | undefined },
	events: readonly LogEvent[],
	day: string,
): Closure[] {
	const said = saidOfBody(events.filter(isOfBody).map((event) => ({ ...event, day })))
	return said.flatMap((event): Closure[] => {
		if (event.athleteId !== id) return []
		if (event.kind === 'head' || event.kind === 'chest')
			return [{ region: EVERYTHING, grade: 'everything', since: day }]
		if (event.kind !== 'pain' && !(event.kind === 'quiet' && event.value.score >= REPORT_FROM)) return []
		const { region, side, score } = event.value
		const redFlag = event.kind === 'pain' && event.value.redFlag
		if (closesEverything({ kind: 'pain', region, side, score, redFlag, day }))
			return [{ region: EVERYTHING, grade: 'everything', since: day }]
		const own = sayLimits.filter((one) => one.region === region && touches(event.value, one.side))
		const closesFrom = Math.min(CLOSE_FROM, ...own.map((one) => one.closesFrom))
		const sparesFrom = Math.min(SPARE_FROM, ...own.map((one) => one.sparesFrom))
		if (redFlag || score >= closesFrom) return [{ region, side, grade: 'closed', since: day }]
		return score >= sparesFrom ? [{ region, side, grade: 'spare', since: day }] : []
	})
}

/** Closed by hand, with no region. */
export interface Shut {
	/** "jump work", "depth jump" */
	words: string
	pattern?: Pattern
	drillId?: string
}

/** What limits an athlete today, as every role may know it: places and grades, and whether only easy work is left. */
export interface BodyLimits {
	closures: Closure[]
	/** What else was closed by hand: a kind of movement, or a drill; absent in packs of before. */
	shut?: Shut[]
	/** Nothing high, shock or maximal; why is not said. */
	easyOnly: boolean
}

/** What is over for somebody, and what is to be spared, in words everybody may read: "left ankle", "everything". */
export interface SaidLimits {
	over: string[]
	spare: string[]
	easyOnly: boolean
}
export const sayLimits = ({ closures, shut = [], easyOnly }: BodyLimits): SaidLimits => {
	const of = (spare: boolean) => [...new Set(closures.filter((one) => (one.grade === 'spare') === spare).map(placeOf))]
	return { over: [...of(false), ...shut.map(({ words }) => words)], spare: of(true), easyOnly }
}

/** What the server tells of an athlete by now that was not so when the pack was made. */
export function heardSince(pack: Partial<BodyLimits>, heard: BodyLimits | undefined): BodyLimits {
	const known = new Set((pack.closures ?? []).map(sameAs))
	return {
		closures: (heard?.closures ?? []).filter((one) => !known.has(sameAs(one))),
		shut: (heard?.shut ?? []).filter(({ words }) => !(pack.shut ?? []).some((one) => one.words === words)),
		easyOnly: heard?.easyOnly === true && pack.easyOnly !== true,
	}
}
const sameAs = ({ region, side, grade }: Closure) => `${region}/${side ?? 'both'}/${grade}`

/** Whether somebody was said to be unwell in this session. */
export const unwellNow = (athleteId: string, events: readonly LogEvent[]): boolean =>
	events.some((event) => event.kind === 'unwell' && event.athleteId === athleteId && event.void !== true)

/** Why a line is over for now, in words everybody may read; null when nothing that was said bars it. */
export function overToday(
	{ closures, shut = [], easyOnly }: BodyLimits,
	drill: Drill,
	parameters: Parameters,
): string | null {
	return (
		overNow(closures, drill, parameters) ??
		shut.find((one) => restrictsDrill(one, drill))?.words ??
		(easyOnly && isHard(drill, parameters) ? EASY_ONLY : null)
	)
}
/** Who is limited most, 5 everything to 0 nothing: closed before ill before spared. */
export const weightOf = ({ closures, shut = [], easyOnly }: BodyLimits): number =>
	closures.some(({ grade }) => grade === 'everything')
		? 5
		: closures.some(({ grade }) => grade === 'closed') || shut.length > 0
			? 4
			: easyOnly
				? 3
				: closures.some(({ grade }) => grade === 'spare')
					? 2
					: 0
export const EASY_ONLY = 'nothing high, shock or maximal today'

/** Why a drill is over for now, "left knee"; null when nothing said in this session bars it. */
export function overNow(closures: readonly Closure[], drill: Drill, parameters: Parameters): string | null {
	const found = closures.filter((one) => bars(one, { drill, intensity: intensityOf(drill, parameters) }))
	return found.length === 0 ? null : [...new Set(found.map(placeOf))].join(', ')
}

/** "left knee 2 of 10": the most that was said in this session of what a drill loads, and is not asked about since. */
export function saidOf(athleteId: string, drill: Drill, events: readonly LogEvent[]): string | null {
	const said = events
		.flatMap((event) =>
			event.athleteId === athleteId && event.kind === 'pain' && event.void !== true ? [event as Said] : [],
		)
		.filter(({ value, deviceTime }) => {
			if (value.score < 1 && !value.redFlag) return false
			const quiet = events.some(
				(event) =>
					event.kind === 'quiet' &&
					event.athleteId === athleteId &&
					event.value.region === value.region &&
					event.value.score <= 1 &&
					event.deviceTime > deviceTime,
			)
			return !quiet && (drill.regions[value.region] ?? 0) > 0
		})
		.sort((a, b) => b.value.score - a.value.score)[0]
	return said ? `${placeOf(said.value)} ${said.value.score} of 10` : null
}
