import { type Day, daysBetween } from '../calendar/day-count'
import { type Form, formOf, harderThan } from '../rules/form'
import type { CareReport, ReturnStand } from '../vocabulary/care'
import type { Ladder, Rung } from '../vocabulary/ladder'
import type { Library } from '../vocabulary/library'
import { EVERYTHING, type Family, type Region } from '../vocabulary/words'
import { type CareRecord, closedSince, mayClear } from './closures'
import { touches } from './grades'

/** A closure that lasted longer than this opens the way back, and so does this much time away: days. */
export const LONG_CLOSURE_DAYS = 7
/** Pain from here on, or a red flag, is an injury where nobody said otherwise. */
export const INJURY_FROM = 7
/** From this share of full effort on steps want two days between. */
export const HARD_STEP_PERCENT = 90
export const HARD_STEP_DAYS = 2
/** Away in the middle of the way back, days: repeat, one back, from the start. */
export const AWAY_ON_THE_WAY = { repeat: 8, back: 15, start: 29 } as const
/** So many repeats of a step for a small pain are the coach's to know: a clinician may accept what stays. */
export const REPEATS_TOLD = 3
/** A known discomfort that a clinician has accepted is no more than this. */
export const KNOWN_UP_TO = 2
/** Shares of the dose by week after the last step. */
export const EXIT_SHARES = [0.6, 0.75, 0.9] as const
/** Rungs below the highest passed that the other ladders go on at. */
export const EXIT_RUNGS = 2

export const RUN = 're-entry-run'
export const LAND = 're-entry-land'
export const THROW = 're-entry-throw'
const ORDER = [LAND, RUN, THROW]
/** Families whose every drill a path covers. */
export const PATH_FAMILIES: Readonly<Record<string, readonly Family[]>> = {
	[LAND]: ['plyometric', 'agility'],
	[RUN]: ['sprint', 'agility'],
	[THROW]: ['throw'],
}
/** Up to here a step is never left out, whatever the athlete's gates were. */
const NEVER_LEFT_OUT: Readonly<Record<string, string>> = { [LAND]: 'stick-one', [RUN]: 'run-80', [THROW]: 'toss-70' }
/** Arms come back to running here. */
const ARM_RUN_FROM = 'run-60'

const LEG: readonly Region[] = ['foot', 'ankle', 'shin', 'calf', 'knee']
const TRUNK_THROWS: readonly Region[] = ['abdomen', 'back']
const ARM: readonly Region[] = ['shoulder', 'elbow', 'wrist']

/** Which paths lead back from a region, and where an arm's begins. */
export function pathsOf(region: Region): readonly { path: string; from?: string }[] {
	if (LEG.includes(region)) return [{ path: LAND }, { path: RUN }]
	if (ARM.includes(region)) return [{ path: THROW }, { path: RUN, from: ARM_RUN_FROM }]
	return TRUNK_THROWS.includes(region) ? [{ path: RUN }, { path: THROW }] : [{ path: RUN }]
}

/** Which path leads back to a family after time away without injury. */
export const PATH_OF: Readonly<Partial<Record<Family, string>>> = {
	sprint: RUN,
	agility: LAND,
	plyometric: LAND,
	throw: THROW,
}

/** What opened the way back. */
export interface Opened {
	regions: ReadonlySet<Region>
	/** After head or chest: every drill above low is covered. */
	everything: boolean
	/** Paths, each with the step it begins at when not at its first. */
	paths: ReadonlyMap<string, string | null>
}

/** Whether reports that a clearance ended were an injury, or closed their region for over a week. */
function opens(ended: readonly CareReport[], clearedOn: Day, injury: boolean | undefined): boolean {
	const since = closedSince(ended)
	if (since !== null && daysBetween(since, clearedOn) > LONG_CLOSURE_DAYS) return true
	return injury ?? ended.some((one) => one.kind === 'pain' && (one.redFlag === true || (one.score ?? 0) >= INJURY_FROM))
}

/** The ways back that clearances have opened by a day, and those that the given stands and families away for over four weeks add. */
export function openedBy(
	{ reports, clearances, lifted = [] }: Pick<CareRecord, 'reports' | 'clearances' | 'lifted'>,
	stands: readonly ReturnStand[],
	away: readonly Family[],
	day: Day,
): Opened {
	const regions = new Set<Region>()
	let everything = false
	for (const one of clearances) {
		if (one.day > day || !mayClear(one.role, one.region)) continue
		if (one.region === EVERYTHING) {
			everything = true
			continue
		}
		const { region } = one
		const before = clearances
			.filter((other) => other.region === region && other.day < one.day && mayClear(other.role, region))
			.map((other) => other.day)
			.sort()
			.at(-1)
		const sides = one.side === undefined || one.side === 'both' ? (['left', 'right'] as const) : ([one.side] as const)
		const opened = sides.some((side) =>
			opens(
				reports.filter(
					(report) =>
						report.region === region &&
						touches(report, side) &&
						report.day < one.day &&
						(before === undefined || report.day >= before),
				),
				one.day,
				one.injury,
			),
		)
		if (opened) regions.add(region)
	}
	// What a coach closed and opened again was nobody's clearance; after so long the way back is walked all the same.
	for (const { region, since, until } of lifted) {
		if (until > day || daysBetween(since, until) <= LONG_CLOSURE_DAYS) continue
		if (region === EVERYTHING) everything = true
		else regions.add(region)
	}
	const paths = new Map<string, string | null>()
	const add = (path: string, from: string | null) => {
		const known = paths.get(path)
		// The earliest beginning of all.
		paths.set(path, known === undefined ? from : known === null || from === null ? null : known)
	}
	for (const region of regions) for (const { path, from } of pathsOf(region)) add(path, from ?? null)
	if (everything) add(RUN, null)
	for (const family of away) if (PATH_OF[family]) add(PATH_OF[family], null)
	for (const { path } of stands) if (!paths.has(path)) paths.set(path, null)
	return { regions, everything, paths }
}

/** One path of somebody's way back on a day. */
export interface OpenPath {
	ladder: Ladder
	families: readonly Family[]
	/** The step that is due; null when the path is walked to its end. */
	due: { rung: Rung; index: number } | null
	/** The steps this athlete walks, in order. */
	steps: readonly Rung[]
	/** How often the step was repeated for a small pain. */
	repeats: number
	/** The day the last step was done. */
	lastDone: Day | null
	/** Not to be done on this day: a step was done already, or it wants another day between. */
	waits: boolean
}

export interface ReturnPlan {
	regions: ReadonlySet<Region>
	everything: boolean
	paths: readonly OpenPath[]
}
/** Regions asked about after each step; after head or chest the head itself. Empty when nobody is on the way back, or after time away alone. */
export const returningOf = ({ regions, everything, paths }: ReturnPlan): Region[] =>
	paths.some(({ due }) => due !== null) ? [...regions, ...(everything ? (['neck-head'] as const) : [])] : []

export const NO_PLAN: ReturnPlan = { regions: new Set(), everything: false, paths: [] }

/**
 * The steps of a path that somebody walks: those that the athlete's gates would have refused before the injury are
 * left out, but never the easy ones, and so are those the school has no use for.
 *
 * @param refused whether the athlete's own gates would have refused a step before
 * @param unused whether the school has no use for a step
 * @param from the step an arm's way back to running begins at; null for the first
 */
export function stepsOf(
	ladder: Ladder,
	{ drills, ladders }: Pick<Library, 'drills' | 'ladders'>,
	refused: (form: Form) => boolean,
	unused: (rung: Rung) => boolean,
	from: string | null = null,
): { rung: Rung; index: number }[] {
	const placeOf = (step: string | null | undefined) =>
		Math.max(
			0,
			ladder.rungs.findIndex(({ id }) => id === step),
		)
	const [begins, always] = [placeOf(from), placeOf(NEVER_LEFT_OUT[ladder.id])]
	return ladder.rungs.flatMap((rung, index) => {
		const drill = drills[rung.drillId]
		if (!drill || index < begins || unused(rung)) return []
		const kept = index <= always || !refused(formOf(drill, rung.parameters, { ladders }))
		return kept ? [{ rung, index }] : []
	})
}

/**
 * Where somebody stands on the way back on a day.
 *
 * @param refused whether the athlete's own gates would have refused a step before: such a step is left out
 * @param unused whether the school has no use for a step
 * @param spared regions to be spared on the day: the easy form is the step, or the highest below it that is not high
 */
export function returnPlanOn(
	opened: Opened,
	stands: readonly ReturnStand[],
	library: Library,
	day: Day,
	refused: (form: Form) => boolean,
	unused: (rung: Rung) => boolean,
	spared: ReadonlySet<Region> = new Set(),
): ReturnPlan {
	const paths: OpenPath[] = []
	// In one order, however it was opened; turning and landing come back by landing first.
	for (const [id, from] of [...opened.paths].sort(([a], [b]) => ORDER.indexOf(a) - ORDER.indexOf(b))) {
		const ladder = library.ladders[id]
		if (!ladder) continue
		const kept = stepsOf(ladder, library, refused, unused, from)
		const stand = stands.find((one) => one.path === id)
		const stood = stand ? ladder.rungs.findIndex((rung) => rung.id === stand.step) : -1
		const place = placeOn(kept, stand, stood, day)
		let due = kept[place] ?? null
		// A step that hurt a little is done easy: not the hard one.
		if (due && spared.size > 0 && [...spared].some((region) => pathsOf(region).some((one) => one.path === id)))
			due =
				kept
					.slice(0, place + 1)
					.reverse()
					.find(({ rung }) => !isHigh(formOf(library.drills[rung.drillId]!, rung.parameters, library))) ?? due
		const lastDone = stand?.lastDone ?? null
		const gap = lastDone === null ? null : daysBetween(lastDone, day)
		const hard = (due?.rung.parameters.effortPercent ?? 0) >= HARD_STEP_PERCENT && id === RUN
		paths.push({
			ladder,
			families: PATH_FAMILIES[id] ?? [ladder.family],
			due,
			steps: kept.map(({ rung }) => rung),
			repeats: stand?.repeats ?? 0,
			lastDone,
			waits: gap !== null && (gap <= 0 || (hard && gap < HARD_STEP_DAYS)),
		})
	}
	return { regions: opened.regions, everything: opened.everything, paths }
}

const isHigh = ({ intensity }: Form) => intensity === 'high' || intensity === 'shock'

/** The place among the kept steps that is due; their number when all are done. */
function placeOn(kept: readonly { index: number }[], stand: ReturnStand | undefined, stood: number, day: Day): number {
	if (!stand) return 0
	// A step that is left out counts as the one kept below it.
	const at = Math.max(0, kept.filter(({ index }) => index <= stood).length - 1)
	const answers = stand.answers ?? []
	const worst = answers.length === 0 ? null : Math.max(...answers)
	let place = at
	if (worst === 0) place = at + 1
	else if (worst !== null && worst >= 3) place = at - 1
	const gap = stand.lastDone == null ? 0 : daysBetween(stand.lastDone, day)
	// Who has walked to the end and stays away is answered by time away.
	if (place < kept.length) {
		if (gap >= AWAY_ON_THE_WAY.start) place = 0
		else if (gap >= AWAY_ON_THE_WAY.back) place = Math.min(place, at - 1)
		else if (gap >= AWAY_ON_THE_WAY.repeat) place = Math.min(place, at)
	}
	return Math.max(0, place)
}

/** Whether the way back speaks of a form: its families, what loads an injured region 2 or 3, after head or chest all above low. */
export function covers(plan: ReturnPlan, { drill, intensity }: Form): boolean {
	const open = plan.paths.filter((path) => path.due !== null)
	if (open.length === 0) return false
	if (open.some((path) => path.families.includes(drill.family))) return true
	if (plan.everything && intensity !== 'low') return true
	return [...plan.regions].some(
		(region) =>
			(drill.regions[region] ?? 0) >= 2 &&
			pathsOf(region).some(({ path }) => open.some((one) => one.ladder.id === path)),
	)
}

/** Whether a form is the step that is due on one of the paths, and not more of it. */
export const dueAt = (plan: ReturnPlan, { drill, parameters }: Form): OpenPath | null =>
	plan.paths.find(
		({ due, waits }) =>
			due !== null && !waits && due.rung.drillId === drill.id && !harderThan(parameters, due.rung.parameters),
	) ?? null

/** Whether a form is a later step of a path that is still walked. */
const isLater = (plan: ReturnPlan, { drill, parameters }: Form): boolean =>
	plan.paths.some(({ ladder, due }) => {
		if (due === null) return false
		const own = ladder.rungs.flatMap((rung, index) => (rung.drillId === drill.id ? [{ rung, index }] : []))
		if (own.length === 0) return false
		// The lowest step that asks at least this much of it; beyond them all the last.
		const step = own.find(({ rung }) => !harderThan(parameters, rung.parameters)) ?? own.at(-1)!
		return step.index > due.index || (step.index === due.index && harderThan(parameters, step.rung.parameters))
	})

/** What else may be done of what the way back covers: low work that loads the injured regions at most a little and is no later step. */
export const isLowWork = (plan: ReturnPlan, form: Form): boolean =>
	form.intensity === 'low' &&
	[...plan.regions].every((region) => (form.drill.regions[region] ?? 0) <= 1) &&
	!isLater(plan, form)

/** Share of the dose after the last step was done: by week; null when it is over. */
export function exitShare(lastDone: Day, day: Day): number | null {
	return EXIT_SHARES[Math.max(0, Math.floor(daysBetween(lastDone, day) / 7))] ?? null
}
