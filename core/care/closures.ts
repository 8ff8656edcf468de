import { type Day, daysBetween } from '../calendar/day-count'
import type { CareReport, Clearance, ClearingRole, Closure, Grade, Lift, Restriction } from '../vocabulary/care'
import { CLOSE_FROM, SPARE_FROM, WITHIN_DAYS, closesEverything, touches } from './grades'
import { EVERYTHING, REGIONS, type Leg, type Region, SIDES } from '../vocabulary/words'

/** How long soreness after new work is shown, days. */
export const SORE_DAYS = 3
/** Pain of 1 or 2 in so many sessions running spares. */
export const RUNNING_SESSIONS = 3

/** What a fold needs to know of one athlete. */
export interface CareRecord {
	reports: readonly CareReport[]
	clearances: readonly Clearance[]
	restrictions?: readonly Restriction[] | undefined
	/** What was closed by hand before and is open again. */
	lifted?: readonly Lift[] | undefined
	/** Days of the athlete's sessions; without them the days of reports of a region count as sessions running. */
	sessions?: readonly Day[] | undefined
	/** Regions on a way back, whose small pains its own rules answer. */
	returning?: ReadonlySet<Region> | undefined
}

/** Who may be the one that clears: health professionals, everything only a doctor. Coach, guardian and athlete never are. */
export const mayClear = (role: ClearingRole, what: Clearance['region']): boolean =>
	what === EVERYTHING ? role === 'doctor' : role === 'doctor' || role === 'physiotherapist' || role === 'clinician'

const latest = (days: readonly Day[]): Day | null =>
	days.reduce<Day | null>((a, b) => (a === null || b > a ? b : a), null)
const earliest = (days: readonly Day[]): Day | null =>
	days.reduce<Day | null>((a, b) => (a === null || b < a ? b : a), null)

/** One side of one region. */
export interface Place {
	region: Region
	side: Leg
}
/** Reports of a side of a region that no clearance has ended, up to a day: those of the clearance's own day stand. */
function standing({ reports, clearances }: CareRecord, { region, side }: Place, day: Day): CareReport[] {
	const cleared = latest(
		clearances
			.filter((one) => one.region === region && touches(one, side) && one.day <= day && mayClear(one.role, one.region))
			.map((one) => one.day),
	)
	return reports.filter(
		(one) =>
			one.region === region &&
			touches(one, side) &&
			one.day <= day &&
			(cleared === null || one.day >= cleared) &&
			!closesEverything(one),
	)
}

/** An answer of 0 or 1 is no report. */
const isReport = (one: CareReport): boolean =>
	one.kind === 'pain' && (one.asked !== true || one.redFlag === true || (one.score ?? 0) > 1)

/** The first day on which the reports of one side of one region close it; null when they do not. */
export function closedSince(reports: readonly CareReport[]): Day | null {
	const pains = reports.filter(isReport)
	const strong = pains.filter((one) => one.redFlag === true || (one.score ?? 0) >= CLOSE_FROM).map((one) => one.day)
	const sore = [...new Set(pains.filter((one) => (one.score ?? 0) >= SPARE_FROM).map((one) => one.day))].sort()
	// Two days at most a fortnight apart are two neighbours at most a fortnight apart.
	const again = sore.filter((day, index) => index > 0 && daysBetween(sore[index - 1]!, day) <= WITHIN_DAYS)
	return earliest([...strong, ...again])
}

/** The last of the athlete's sessions on or before a day: what is said the next morning is said of the day before. */
const sessionOf = (day: Day, sessions: readonly Day[]): Day => latest(sessions.filter((one) => one <= day)) ?? day

/** From when on a side of a region is spared; null when it is not. */
function sparedSince(
	reports: readonly CareReport[],
	sessions: readonly Day[] | undefined,
	returning: boolean,
): Day | null {
	const pains = reports.filter(isReport)
	const hurt = pains.filter((one) => (one.score ?? 0) >= 1)
	const running = [...new Set(sessions ?? hurt.map((one) => one.day))].sort()
	const sessionDay = (one: CareReport) => (sessions ? sessionOf(one.day, running) : one.day)
	const days = [...new Set(reports.map((one) => one.day))].sort()
	let since: Day | null = null
	/** Sessions before this day are no longer counted as running: a spare has ended there. */
	let anew: Day | null = null
	for (const day of days) {
		const today = pains.filter((one) => one.day === day)
		const answers = reports.filter((one) => one.day === day && one.kind === 'pain' && one.asked === true)
		if (since !== null) {
			const lastSore = latest(pains.filter((one) => one.day <= day && (one.score ?? 0) >= 2).map((one) => one.day))
			const quiet = answers.length > 0 && answers.every((one) => (one.score ?? 0) <= 1)
			if (quiet && day > since && (lastSore === null || day > lastSore)) {
				since = null
				anew = day
			}
		}
		if (since !== null) continue
		if (today.some((one) => (one.score ?? 0) >= SPARE_FROM)) {
			since = day
			continue
		}
		if (returning || !today.some((one) => (one.score ?? 0) >= 1)) continue
		const at = running.indexOf(sessionDay(today.find((one) => (one.score ?? 0) >= 1)!))
		const last = at < 0 ? [] : running.slice(Math.max(0, at - RUNNING_SESSIONS + 1), at + 1)
		const every =
			last.length === RUNNING_SESSIONS &&
			last.every((session) =>
				hurt.some((one) => one.day <= day && (anew === null || one.day > anew) && sessionDay(one) === session),
			)
		if (every) since = day
	}
	return since
}

/** From when on a side of a region is noted; null when it is not. */
function notedSince(reports: readonly CareReport[], day: Day): Day | null {
	const quiet = latest(
		reports.filter((one) => one.kind === 'pain' && one.asked === true && one.score === 0).map((one) => one.day),
	)
	const small = reports.filter(
		(one) =>
			isReport(one) &&
			(one.score ?? 0) >= 1 &&
			(one.score ?? 0) < SPARE_FROM &&
			daysBetween(one.day, day) <= WITHIN_DAYS &&
			(quiet === null || one.day > quiet),
	)
	const sore = reports.filter((one) => one.kind === 'soreness' && daysBetween(one.day, day) <= SORE_DAYS)
	return earliest([...small, ...sore].map((one) => one.day))
}

/** Everything closed since; null when it is not, or a doctor has cleared everything on a later day. */
export function everythingSince({ reports, clearances }: CareRecord, day: Day): Day | null {
	const cleared = latest(
		clearances
			.filter((one) => one.region === EVERYTHING && one.day <= day && mayClear(one.role, one.region))
			.map((one) => one.day),
	)
	return earliest(
		reports
			.filter((one) => closesEverything(one) && one.day <= day && (cleared === null || one.day >= cleared))
			.map((one) => one.day),
	)
}

/** One side of one region on a day, by what was said of it; what a hand closed is not looked at. */
export function gradeOf(record: CareRecord, place: Place, day: Day): { grade: Grade; since: Day } | null {
	const reports = standing(record, place, day)
	const closed = closedSince(reports)
	if (closed !== null) return { grade: 'closed', since: closed }
	const spared = sparedSince(reports, record.sessions, record.returning?.has(place.region) === true)
	if (spared !== null) return { grade: 'spare', since: spared }
	const noted = notedSince(reports, day)
	return noted === null ? null : { grade: 'noted', since: noted }
}

/**
 * What is closed, spared and noted on a day: a fold over everything that was said, in whatever order it came.
 * A higher report raises a grade, a lower one never lowers it; each region and side goes its own way.
 *
 * @param day the day asked about; what was said for later days is not known on it
 */
export function closuresOn(record: CareRecord, day: Day): Closure[] {
	const closures: Closure[] = []
	const heldSince = (region: Restriction['region']): Day | null =>
		earliest(
			(record.restrictions ?? []).filter((one) => one.region === region && one.since <= day).map((one) => one.since),
		)
	const everything = earliest([everythingSince(record, day), heldSince(EVERYTHING)].filter((one) => one !== null))
	if (everything !== null) closures.push({ region: EVERYTHING, grade: 'everything', since: everything })
	for (const region of REGIONS) {
		const sides = SIDES.flatMap((side) => {
			const found = gradeOf(record, { region, side }, day)
			return found ? [{ side, ...found }] : []
		})
		const byHand = heldSince(region)
		if (byHand !== null) {
			const closed = sides.filter((one) => one.grade === 'closed').map((one) => one.since)
			closures.push({ region, grade: 'closed', since: earliest([byHand, ...closed])! })
			continue
		}
		const [left, right] = sides
		if (left && right && left.grade === right.grade && left.since === right.since) {
			const said = record.reports.some((one) => one.region === region && one.side !== undefined && one.day <= day)
			closures.push({ region, ...(said ? { side: 'both' as const } : {}), grade: left.grade, since: left.since })
		} else closures.push(...sides.map(({ side, grade, since }) => ({ region, side, grade, since })))
	}
	return closures
}

/** Unwell since; null when well. "Well" counts from the next day on. */
export function unwellSince(reports: readonly CareReport[], day: Day): Day | null {
	const well = latest(reports.filter((one) => one.kind === 'well' && one.day <= day).map((one) => one.day))
	return earliest(
		reports
			.filter((one) => one.kind === 'unwell' && one.day <= day && (well === null || one.day >= well))
			.map((one) => one.day),
	)
}

/** Drills somebody worries about on a day, and since when. */
export function worriesOn(
	reports: readonly CareReport[],
	day: Day,
): { drillId: string; region: Region | null; since: Day }[] {
	const open = reports.filter(
		(one) =>
			one.kind === 'worry' &&
			one.drillId !== undefined &&
			one.day <= day &&
			!reports.some(
				(other) =>
					other.kind === 'settled' &&
					(other.drillId === undefined || other.drillId === one.drillId) &&
					other.day >= one.day &&
					other.day <= day,
			),
	)
	const byDrill = new Map<string, { drillId: string; region: Region | null; since: Day }>()
	for (const { drillId, region, day: since } of open) {
		const known = byDrill.get(drillId!)
		if (!known || since < known.since) byDrill.set(drillId!, { drillId: drillId!, region: region ?? null, since })
	}
	return [...byDrill.values()]
}
