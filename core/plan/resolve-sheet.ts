import { addTo } from '../lists/group-by'
import type { DoseCount } from '../dose/dose-count'
import { countWork } from '../dose/count-line'
import { type AskedWork, linePartsOf } from '../vocabulary/line-parts'
import { type Load, addLineLoad, lineLoad, noLoad } from '../dose/line-load'
import { repsOf } from '../library/scale-dose'
import type { Dose, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Family, Level } from '../vocabulary/words'
import type { Ladder, Rung } from '../vocabulary/ladder'
import type { Library } from '../vocabulary/library'
import type { Concluded } from '../permit/known'
import { type ResolvedLine, resolveLine } from '../judge/resolve-line'
import type { LadderState } from '../judge/types'
import type { PlannedLine } from '../vocabulary/line'
import { afterLoad, afterStep, permitLine, stepOf, wearsLoad } from './permit-line'
import { QUANTITY_AT } from './targets'
import { type Cap, type EntryTuning, type SessionEntry, type Variant, QUALITY_OF } from '../vocabulary/entry'

/** An entry as it is resolved: with the family its levels are of. */
export interface SheetEntry extends SessionEntry {
	family: Family
}

/** What is known of an athlete on the session's day. */
export interface SheetAthlete {
	id: string
	levelOf(family: Family): Level
	stateOf(ladderId: string): LadderState | null
	/** Ladders the block only keeps. */
	kept(ladderId: string): boolean
	/** m; null when unknown. */
	legLengthM: number | null
	/** What the rulebook concludes of the athlete for that day: every line of whatever origin is asked of it. */
	concluded: Concluded
}

export const ENOUGH = 'the rest of the session gives enough'
/** Lengths a topping-up start may have, by level; longer ones wait for their rung [our setting]. */
const FILL_LENGTHS_M: Record<Level, readonly [number, ...number[]]> = { 1: [10], 2: [10, 20], 3: [10, 20, 30] }
/** A topping-up line has at most so many sets and, in a set, so many times the usual reps [our setting]. */
const FILL_SETS = 8
const FILL_REPS = 2
/** Ladders' lines are taken as whole as they are up to this share over the target. */
export const TARGET_TOLERANCE = 0.05

/**
 * Every line of one athlete for a session, in the order of its entries. Lines that top up are dosed last, in
 * order, against what the others cost. A line set by hand counts in place of its own.
 *
 * @throws RangeError when an entry cites a drill or ladder the library does not hold
 */
export function resolveSheet(
	entries: readonly SheetEntry[],
	athlete: SheetAthlete,
	library: Library,
	handSet: ReadonlyMap<string, PlannedLine> = new Map(),
): Map<string, ResolvedLine> {
	return doseSheet(
		entries,
		plainLines(entries, athlete, library),
		athlete,
		library,
		athleteCaps(entries, athlete.id),
		handSet,
	)
}

/** What the rungs and the day say, before topping up and caps. */
export const plainLines = (
	entries: readonly SheetEntry[],
	athlete: SheetAthlete,
	library: Library,
): Map<string, ResolvedLine> => {
	let concluded = athlete.concluded
	return new Map(
		entries.map((entry) => {
			const asked = plain(entry, athlete, library)
			const put =
				asked.blocked === null &&
				asked.ladderId !== null &&
				entry.tuning?.strict !== true &&
				athlete.stateOf(asked.ladderId)?.rungId === asked.rungId
			const line = permitLine(asked, concluded, library, put)
			// A step of the way back is written once, in the first part it fits.
			const step = line.blocked === null ? stepOf(line, concluded, library) : null
			if (step !== null) concluded = afterStep(concluded, step)
			if (line.blocked === null && wearsLoad(line, library)) concluded = afterLoad(concluded)
			return [entry.id, line]
		}),
	)
}
const athleteCaps = (entries: readonly SheetEntry[], id: string): Map<string, Cap> =>
	new Map(
		entries.flatMap((entry) => {
			const cap = entry.tuning?.caps?.[id]
			return cap ? [[entry.id, cap]] : []
		}),
	)

/** The second half of `resolveSheet`, for who looks at many caps of the same lines. */
export function doseSheet(
	entries: readonly SheetEntry[],
	plains: ReadonlyMap<string, ResolvedLine>,
	athlete: SheetAthlete,
	library: Library,
	caps: ReadonlyMap<string, Cap>,
	handSet: ReadonlyMap<string, PlannedLine> = new Map(),
): Map<string, ResolvedLine> {
	const lines = new Map<string, ResolvedLine>(plains)
	const sum = noLoad()
	const settle = (entry: SheetEntry, line: ResolvedLine) => {
		const cap = caps.get(entry.id)
		const own = cap ? capped(line, cap) : line
		lines.set(entry.id, own)
		const counted = handSet.get(entry.id) ?? (own.blocked === null ? own : null)
		if (counted) addWorkLoad(sum, counted, library, athlete.legLengthM)
	}
	for (const entry of entries) if (!entry.tuning?.fill) settle(entry, plains.get(entry.id)!)
	for (const entry of entries)
		if (entry.tuning?.fill) settle(entry, filled(entry, plains.get(entry.id)!, athlete, library, sum))
	return lines
}

/** What a line costs an athlete. */
export const countOf = (line: AskedWork, athlete: Pick<SheetAthlete, 'legLengthM'>, library: Library): DoseCount =>
	countWork(line, (id) => library.drills[id], athlete.legLengthM === null ? {} : { legLengthM: athlete.legLengthM })

/** Adds to a sum what a line costs, at its own reps or at so many rounds of it. */
export function addWorkLoad(
	sum: Load,
	line: AskedWork,
	library: Library,
	legLengthM: number | null,
	reps = repsOf(line.dose),
): void {
	for (const part of linePartsOf(line)) {
		const drill = library.drills[part.drillId]
		if (drill) addLineLoad(sum, drill, part.parameters, part.piece === null ? reps : reps * part.dose.reps, legLengthM)
	}
}

/** Lines before permission, by athlete and entry: a sheet that is built asks for the same ones over and over. */
const asked = new WeakMap<SheetAthlete, WeakMap<SheetEntry, ResolvedLine>>()
function plain(entry: SheetEntry, athlete: SheetAthlete, library: Library): ResolvedLine {
	let lines = asked.get(athlete)
	if (!lines) asked.set(athlete, (lines = new WeakMap()))
	let line = lines.get(entry)
	if (!line) lines.set(entry, (line = resolvePlain(entry, athlete, library)))
	return line
}
function resolvePlain(entry: SheetEntry, athlete: SheetAthlete, library: Library): ResolvedLine {
	const variant = variantFor(entry, athlete, library)
	if (variant === 'none') return { blocked: 'not reached yet on its ladder', ladderId: null }
	const plan = variant ? { ...entry, ...variant, ladderId: null } : entry
	return resolveLine(
		plan,
		plan.ladderId === null ? null : athlete.stateOf(plan.ladderId),
		library,
		athlete.concluded.facts,
		plan.ladderId !== null && athlete.kept(plan.ladderId),
		entry.tuning?.strict === true,
	)
}

/** The form for the athlete's level, or the next lower one they have reached; null where the entry has no forms. */
function variantFor(entry: SheetEntry, athlete: SheetAthlete, library: Library): Variant | null | 'none' {
	const variants = entry.tuning?.variants
	if (!variants) return null
	for (let level = athlete.levelOf(entry.family); level >= 1; level--) {
		const variant = variants[level as Level]
		if (variant && reached(variant.drillId, athlete, library)) return variant
	}
	return 'none'
}

/** Whether a drill needs no ladder, or the athlete stands on or past one of its rungs. */
export function reached(drillId: string, athlete: SheetAthlete, library: Library): boolean {
	const rungs = rungsOf(drillId, library)
	if (rungs.length === 0 || rungs.some(({ rung }) => rung.level === 1 && rung.gates.length === 0)) return true
	return rungs.some(({ ladder, index }) => {
		const state = athlete.stateOf(ladder.id)
		return (
			state !== null &&
			(ladder.rungs.findIndex((rung) => rung.id === state.rungId) >= index ||
				(state.done ?? []).includes(ladder.rungs[index]!.id))
		)
	})
}
interface Place {
	ladder: Ladder
	rung: Rung
	index: number
}
const places = new WeakMap<Library, Map<string, Place[]>>()
/** Where a drill stands on the ladders; looked up once for a library. */
function rungsOf(drillId: string, library: Library): Place[] {
	let known = places.get(library)
	if (!known) {
		known = new Map()
		for (const ladder of Object.values(library.ladders))
			if (!ladder.path)
				for (const [index, rung] of ladder.rungs.entries()) addTo(known, rung.drillId, { ladder, rung, index })
		places.set(library, known)
	}
	return known.get(drillId) ?? []
}

/** A line whose reps bring the session to the athlete's target, as near as whole sets come. */
function filled(
	entry: SheetEntry,
	line: ResolvedLine,
	athlete: SheetAthlete,
	library: Library,
	sum: Load,
): ResolvedLine {
	const { quantity, targets, part, mostM = Number.POSITIVE_INFINITY } = entry.tuning!.fill!
	if (line.blocked !== null) return line
	const drill = library.drills[line.drillId]!
	const target = targets[athlete.levelOf(QUALITY_OF[quantity])]
	const missing = (target - sum[QUANTITY_AT[quantity]]!) * part
	const perRep = (parameters: Parameters) =>
		lineLoad(drill, parameters, 2, athlete.legLengthM)[QUANTITY_AT[quantity]]! / 2
	// What spares a sore region does not top anything up: it keeps its own dose.
	if (perRep(line.parameters) === 0) return missing > 0 ? line : { blocked: ENOUGH, ladderId: null }
	const [shortest, ...longer] = FILL_LENGTHS_M[athlete.levelOf('sprint')]
	const lengths =
		quantity === 'fastMetres' ? [shortest, ...longer.filter((length) => length <= mostM)] : [line.parameters.distanceM]
	const room = target * (1 + TARGET_TOLERANCE) - sum[QUANTITY_AT[quantity]]! + 1e-9
	// Within a fiftieth of what is missing any dose is as good: then usual reps decide, and the fewest starts.
	let best: { dose: Dose; parameters: Parameters; off: number } | null = null
	const usual = variantDose(entry, drill)
	for (const distanceM of lengths) {
		const parameters = distanceM === line.parameters.distanceM ? line.parameters : { ...line.parameters, distanceM }
		const each = perRep(parameters)
		for (let sets = 1; sets <= FILL_SETS; sets++)
			for (let reps = 1; reps <= Math.max(6, FILL_REPS * usual.reps); reps++) {
				if (sets * reps < 2 && quantity !== 'contacts') continue
				// What goes above the target would be cut back by whole sets: fewer reps from the first come nearer.
				if (sets * reps * each > room && best !== null) continue
				const off = Math.abs(sets * reps * each - missing)
				const ease = Math.abs(reps - usual.reps) + sets * 0.1
				const score = Math.max(off, missing * 0.02) + ease * 1e-3 + (quantity === 'fastMetres' ? sets * reps * 1e-2 : 0)
				if (best === null || score < best.off) best = { dose: { sets, reps }, parameters, off: score }
			}
	}
	const least = perRep(best!.parameters) * repsOf(best!.dose)
	if (missing <= 0 || least - missing > Math.max(missing, TARGET_TOLERANCE * target))
		return { blocked: ENOUGH, ladderId: null }
	return { ...line, dose: best!.dose, parameters: best!.parameters, note: null }
}

const variantDose = (entry: SheetEntry, drill: Drill): Dose =>
	Object.values(entry.tuning?.variants ?? {}).find((variant) => variant?.drillId === drill.id)?.dose ?? entry.dose

function capped(line: ResolvedLine, cap: Cap): ResolvedLine {
	if (line.blocked !== null || repsOf(line.dose) <= cap.reps) return line
	return cap.reps < 1
		? { blocked: cap.why, ladderId: line.ladderId }
		: { ...line, dose: capDose(line.dose, cap.reps), note: cap.why }
}

/**
 * At most `most` reps of a dose: whole sets while one fits, else a single shorter set.
 *
 * @param most 1 or more
 * @example capDose({ sets: 3, reps: 5 }, 11) // { sets: 2, reps: 5 }
 */
export function capDose(dose: Dose, most: number): Dose {
	if (repsOf(dose) <= most) return dose
	const sets = Math.floor(most / dose.reps)
	return sets >= 1 ? { sets, reps: dose.reps } : { sets: 1, reps: most }
}

/** What of an entry's tuning holds on another day too: caps are of one day and its people. */
export function tuningForAnotherDay(tuning: EntryTuning | null): EntryTuning | null {
	if (tuning === null) return null
	const { caps: _caps, strict: _strict, ...rest } = tuning
	return Object.keys(rest).length > 0 ? rest : null
}
