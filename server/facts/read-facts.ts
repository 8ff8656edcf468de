import { addTo } from '../../core/lists/group-by'
import { addDays, daysBetween } from '../../core/calendar/day-count'
import { ageInYears } from '../../core/calendar/days'
import { PATH_FAMILIES, PATH_OF, pathsOf } from '../../core/care/return-plan'
import { saidOfBody } from '../../core/care/said'
import { ownOf } from '../../core/own/own'
import type { PlainFacts } from '../../core/permit/plain-facts'
import { isOpen, matchesAround } from '../../core/judge/gather-input'
import { firstDaysOf, passedRungs } from '../../core/judge/locks'
import { outsideWork } from '../../core/judge/outside-load'
import type { LadderState } from '../../core/judge/types'
import type { NewRung } from '../../core/rules/facts'
import { COUNTED, awayStage } from '../../core/rules/p9-time-away'
import type { CareReport, Clearance, Lift, ReturnStand } from '../../core/vocabulary/care'
import type { DrillId } from '../../core/vocabulary/ids'
import type { Library } from '../../core/vocabulary/library'
import type { School } from '../../core/vocabulary/school'
import { EVERYTHING, type Family, type Region } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import {
	type CareRow,
	type bodyReportsOf,
	type careEventsOf,
	type careOf,
	careRecordOf,
	type clearancesOfAll,
	outsideLoadOf,
} from '../../db/queries/care'
import type { SessionRow } from '../../db/queries/sessions'
import type { SquadRow } from '../../db/queries/squads'
import { type Records, readRecords } from './records'

/** What of a session decides what may be done in it. */
export type SessionMoment = Pick<SessionRow, 'day' | 'startTime' | 'phase' | 'surface'>

/** What is known of some athletes for a session's moment: the one way for whatever judges, permits, plans or shows. */
export async function readFacts(
	scope: ClubScope,
	moment: SessionMoment,
	squad: Pick<SquadRow, 'schoolId'>,
	athleteIds: string[],
	library: Library,
	today: string,
): Promise<Map<string, PlainFacts>> {
	return factsOf(await readRecords(scope, athleteIds, moment.day, today), moment, squad, library)
}

/** The facts of a moment from the records of its day; of some of the athletes, or of all of them. */
export function factsOf(
	{
		athletes,
		levelOf,
		states,
		care,
		events,
		clearances,
		pains,
		outside,
		last,
		planned,
		days,
		measured,
		worn,
		squads,
		helped,
		today: now,
	}: Records,
	moment: SessionMoment,
	squad: Pick<SquadRow, 'schoolId'>,
	library: Library,
	only?: ReadonlySet<string>,
): Map<string, PlainFacts> {
	const own = library.schools[squad.schoolId]
	if (!own) throw new Error(`school ${squad.schoolId} is not in the library`)
	const said = saidOfBody(pains)
	const asked = only ? athletes.filter(({ id }) => only.has(id)) : athletes
	const standings = new Map<string, { state: LadderState; asOf: string; trainedOn: string | null }[]>()
	for (const [key, one] of states) {
		const id = key.slice(0, key.indexOf('/'))
		addTo(standings, id, one)
	}
	return new Map(
		asked.map((athlete): [string, PlainFacts] => {
			const of = <T extends { athleteId: string | null }>(rows: readonly T[]): readonly T[] =>
				grouped(rows).get(athlete.id) ?? []
			const standing = standings.get(athlete.id) ?? []
			const bench = measured.get(athlete.id) ?? []
			const loads = of(outside).map(outsideLoadOf)
			const others = (squads.get(athlete.id) ?? []).flatMap(({ schoolId }): School[] => {
				const school = library.schools[schoolId]
				return school && school !== own ? [school] : []
			})
			const reports = [...of(said).map(reportOf), ...of(events).map(eventOf), ...of(care).flatMap(recordOf)]
			const cleared = of(clearances).map(clearanceOf)
			const lifted = liftsOf(of(care))
			const worked = asOfToday(
				lastWork(
					// What is planned between today and then is taken as done; missed, it is a day nobody worked.
					[...of(last).flatMap(({ family, day }) => (day === null ? [] : [{ family, day }])), ...of(planned)],
					loads.filter((load) => load.day < moment.day).map(outsideWork),
					standing.filter(({ asOf }) => asOf <= moment.day),
					library,
				),
				now,
				moment.day,
			)
			// A step that was done on the day itself is done: no second one is written on it.
			const doneToday = Object.fromEntries(
				of(last).flatMap((row) => (row.upTo === moment.day ? [[row.family, row.upTo]] : [])),
			)
			const stands = standsOf(
				standing.map(({ state }) => state),
				{ ...worked, ...doneToday },
				library,
			)
			return [
				athlete.id,
				{
					ageYears: athlete.birthDate === null ? null : ageInYears(athlete.birthDate, moment.day),
					massKg: athlete.massKg,
					levels: Object.fromEntries(COUNTED.map((family) => [family, levelOf(athlete.id, family)])),
					passed: Object.fromEntries(
						standing.flatMap(({ state }) => {
							const ladder = library.ladders[state.ladderId]
							return ladder ? [[ladder.id, passedRungs(state, ladder)]] : []
						}),
					),
					schools: [own, ...others],
					phase: moment.phase,
					day: moment.day,
					surface: moment.surface,
					...matchesAround(loads, moment),
					lastWork: worked,
					// Spacing and the week are looked at over the whole sheet, with what can mend it.
					work: null,
					newRungs: standing.flatMap(({ state }): NewRung[] => {
						const ladder = library.ladders[state.ladderId]
						return ladder ? firstDaysOf(state, ladder) : []
					}),
					newOutside: loads.flatMap(({ day, lifts }) =>
						(lifts ?? []).filter(({ isNew }) => isNew).map(({ exercise }) => ({ day, name: exercise })),
					),
					loadsOn: of(worn).flatMap((one) =>
						// Its own lines say nothing against a session.
						one.day === moment.day && one.startTime === moment.startTime ? [] : [one.day],
					),
					contrastHelps: helped.has(athlete.id),
					reports,
					// Whoever is on the way back from a region was hurt there, whatever was said of it.
					clearances: cleared.map((one) =>
						one.injury === undefined && one.region !== EVERYTHING && leadsBack(one.region, stands)
							? { ...one, injury: true }
							: one,
					),
					restrictions: of(care).flatMap((row) =>
						row.kind === 'restriction' && (row.endedOn === null || row.endedOn > moment.day)
							? [
									{
										since: row.fromDay,
										...(row.region ? { region: row.region } : {}),
										...(row.pattern ? { pattern: row.pattern } : {}),
										...(row.drillId ? { drillId: row.drillId as DrillId } : {}),
									},
								]
							: [],
					),
					lifted,
					accepted: of(care)
						.map(careRecordOf)
						.flatMap((record) => (record.kind === 'known' && isOpen(record, moment.day) ? [record.region] : [])),
					sessions: of(days).map((row) => row.day),
					stands: [...stands, ...walkedOf([...cleared, ...lifted], stands, worked, moment.day, library)],
					acknowledged: [],
					...(bench.length > 0 ? { own: ownOf(bench, own.numbers.sprintGoalMs / 1000, moment.day) } : {}),
				},
			]
		}),
	)
}

/** Rows of one query by athlete, worked out once however many athletes ask. */
const groups = new WeakMap<readonly object[], Map<string, object[]>>()
function grouped<T extends { athleteId: string | null }>(rows: readonly T[]): Map<string, T[]> {
	let known = groups.get(rows) as Map<string, T[]> | undefined
	if (known) return known
	known = new Map()
	for (const row of rows)
		if (row.athleteId !== null) {
			const own = known.get(row.athleteId)
			if (own) own.push(row)
			else known.set(row.athleteId, [row])
		}
	groups.set(rows, known)
	return known
}

/**
 * Further ahead than this nothing says yet what will be trained until then: a line there takes for granted that
 * training goes on as it does today. It is written anew as its day comes near.
 */
const FORESEEN_DAYS = 14
function asOfToday(worked: PlainFacts['lastWork'], today: string, day: string): PlainFacts['lastWork'] {
	if (daysBetween(today, day) <= FORESEEN_DAYS) return worked
	// As long before that day as it is before today; what is planned meanwhile was done the day before.
	return Object.fromEntries(
		Object.entries(worked).map(([family, last]) => [
			family,
			last ? addDays(day, -Math.max(1, daysBetween(last, today))) : last,
		]),
	)
}

const sided = (side: string | null | undefined) => (side ? { side: side as CareReport['side'] & string } : {})

function reportOf(row: Awaited<ReturnType<typeof bodyReportsOf>>[number]): CareReport {
	if (row.kind === 'head' || row.kind === 'chest') return { kind: row.kind, day: row.day }
	const value = row.value as {
		region: NonNullable<CareReport['region']>
		side?: string
		score: number
		redFlag?: boolean
	}
	return {
		kind: 'pain',
		region: value.region,
		...sided(value.side),
		score: value.score,
		redFlag: value.redFlag === true,
		day: row.day,
		asked: row.kind === 'quiet',
	}
}
const eventOf = (row: Awaited<ReturnType<typeof careEventsOf>>[number]): CareReport => ({
	kind: row.kind,
	...(row.region ? { region: row.region } : {}),
	...sided(row.side),
	...(row.score === null ? {} : { score: row.score }),
	redFlag: row.redFlag,
	day: row.day,
	...(row.drillId ? { drillId: row.drillId } : {}),
	asked: row.asked,
})
/** An illness and a worry are records with a beginning and an end. */
function recordOf(row: Awaited<ReturnType<typeof careOf>>[number]): CareReport[] {
	const end = (kind: 'well' | 'settled', more: Partial<CareReport> = {}): CareReport[] =>
		row.endedOn === null ? [] : [{ kind, day: row.endedOn, ...more }]
	// Nobody is well again on the day itself: a record that ended there was taken back, and was none.
	if (row.kind === 'illness' && row.endedOn === row.fromDay) return []
	if (row.kind === 'illness') return [{ kind: 'unwell', day: row.fromDay }, ...end('well')]
	if (row.kind !== 'worry' || !row.drillId) return []
	const drill = { drillId: row.drillId }
	return [
		{
			kind: 'worry',
			day: row.fromDay,
			...drill,
			...(row.region && row.region !== EVERYTHING ? { region: row.region } : {}),
		},
		...end('settled', drill),
	]
}
const clearanceOf = (row: Awaited<ReturnType<typeof clearancesOfAll>>[number]): Clearance => ({
	region: row.region,
	...(row.side ? { side: row.side } : {}),
	day: row.clearedOn,
	by: row.clearedBy,
	role: row.role,
	...(row.injury === null ? {} : { injury: row.injury }),
})

/** The last day of work by family. While nothing is on record, the day the coach placed the athlete on a ladder counts. */
function lastWork(
	done: readonly { family: Family; day: string }[],
	outside: readonly { day: string; families: readonly Family[] }[],
	placed: readonly { state: LadderState; asOf: string; trainedOn: string | null }[],
	library: Library,
): PlainFacts['lastWork'] {
	const last: Partial<Record<Family, string>> = {}
	const note = (family: Family, day: string) => {
		if ((last[family] ?? '') < day) last[family] = day
	}
	for (const { family, day } of done) note(family, day)
	for (const { families, day } of outside) for (const family of families) note(family, day)
	const recorded = new Set(Object.keys(last))
	for (const { state, asOf, trainedOn } of placed) {
		const family = library.ladders[state.ladderId]?.family
		if (!family || recorded.has(family)) continue
		const day = trainedOn ?? asOf
		if (last[family] === undefined || day < last[family]) last[family] = day
	}
	return last
}

/** Where the athlete is on each path of the way back: the earliest step of any ladder. */
export function standsOf(
	states: readonly LadderState[],
	worked: PlainFacts['lastWork'],
	library: Library,
): ReturnStand[] {
	const steps = new Map<string, number>()
	const repeats = new Map<string, number>()
	for (const { reentry } of states) {
		const index = reentry
			? (library.ladders[reentry.pathId]?.rungs.findIndex((rung) => rung.id === reentry.rungId) ?? -1)
			: -1
		if (!reentry || index < 0) continue
		steps.set(reentry.pathId, Math.min(index, steps.get(reentry.pathId) ?? index))
		repeats.set(reentry.pathId, Math.max(reentry.repeats ?? 0, repeats.get(reentry.pathId) ?? 0))
	}
	// While somebody is on the way back its steps are the work of its families.
	return [...steps].map(([path, index]) => ({
		path,
		step: library.ladders[path]!.rungs[index]!.id,
		repeats: repeats.get(path) ?? 0,
		lastDone:
			(PATH_FAMILIES[path] ?? [])
				.map((family) => worked[family] ?? '')
				.sort()
				.at(-1) || null,
	}))
}

const leadsBack = (region: Region, stands: readonly ReturnStand[]): boolean =>
	pathsOf(region).some(({ path }) => stands.some((stand) => stand.path === path))

/** Regions, and everything, that were closed by hand and opened by hand again. */
export const liftsOf = (care: readonly CareRow[]): Lift[] =>
	care.flatMap(({ kind, region, fromDay, endedOn }) =>
		kind === 'restriction' && endedOn !== null && region ? [{ region, since: fromDay, until: endedOn }] : [],
	)

/** Paths that a clearance or a lift opened and nobody is on any more were walked to their end; who was away since begins anew. */
function walkedOf(
	opening: readonly Pick<Clearance, 'region'>[],
	stands: readonly ReturnStand[],
	worked: PlainFacts['lastWork'],
	day: string,
	library: Library,
): ReturnStand[] {
	const away = new Set(
		COUNTED.flatMap((family) => (awayStage({ lastWork: worked, day }, family) === 'path' ? [PATH_OF[family]] : [])),
	)
	const paths = new Set(
		opening.flatMap(({ region }) =>
			region === EVERYTHING ? ['re-entry-run'] : pathsOf(region).map(({ path }) => path),
		),
	)
	return [...paths].flatMap((path): ReturnStand[] => {
		const last = library.ladders[path]?.rungs.at(-1)
		return last && !away.has(path) && !stands.some((stand) => stand.path === path)
			? [{ path, step: last.id, answers: [0] }]
			: []
	})
}
