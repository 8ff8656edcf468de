import { SESSION_RANGES } from '../dose/level-ranges'
import { LOAD, type Load, noLoad, plus } from '../dose/line-load'
import { RAMP_NAMES, type RampQuantity } from '../dose/ramp'
import { repsOf } from '../library/scale-dose'
import type { Library } from '../vocabulary/library'
import type { School } from '../vocabulary/school'
import type { WorkDay } from '../judge/types'
import type { PlannedLine } from '../vocabulary/line'
import type { AthleteType, Surface } from '../vocabulary/words'
import { isHard } from '../dose/work-kinds'
import { inSentence } from '../words/write-numbers'
import { type Cap, QUANTITIES, type Quantity, QUALITY_OF } from '../vocabulary/entry'
import {
	type SheetAthlete,
	type SheetEntry,
	TARGET_TOLERANCE,
	addWorkLoad,
	doseSheet,
	plainLines,
} from './resolve-sheet'
import { shareByType } from './athlete-type'
import { lengthNeeded } from './room'
import { TIRING_THROWS, checkLine, checkedOf } from './session-checks'
import { QUANTITY_AT, mostOf } from './targets'

/** What an athlete may still do, beside what closes drills. */
export interface LimitedAthlete extends SheetAthlete {
	name: string
	/** How they are built; null where nothing stands out. */
	type: AthleteType | null
	/** Other hard days near the session, before and after it. */
	work: readonly WorkDay[]
	/** What the week's ramp leaves for this session. */
	rooms: Readonly<Partial<Record<RampQuantity, number>>>
}
export interface LimitContext {
	library: Library
	school: School
	day: string
	startTime: string
	surface: Surface | null
	/** A light day: nothing high, shock or maximal. */
	light: boolean
	/** What is at hand; null when everything is. */
	kit: ReadonlySet<string> | null
	/** Length of the ground, m; null or not said where there is enough. */
	roomM?: number | null
	/** Kept to when given, with the tolerance of a twentieth. */
	targetOf: ((quantity: Quantity, athlete: LimitedAthlete) => number) | null
}

interface Limit {
	why: string
	most: number
	value: (load: Load) => number
	/** Which entries it speaks of; all when not given. */
	of?: (entry: SheetEntry) => boolean
}

/**
 * The caps that keep one athlete's session within the rules: S3, S4, S6, S7, S9, S10 and S11, the level's
 * ranges, the kit at hand, and the targets where there are any. What is cut is cut from the end.
 *
 * @param plains the athlete's lines before any cap, where they are at hand
 */
export function capsFor(
	entries: readonly SheetEntry[],
	athlete: LimitedAthlete,
	context: LimitContext,
	plains = plainLines(entries, athlete, context.library),
): Map<string, Cap> {
	const { library } = context
	const caps = new Map<string, Cap>()
	const resolve = () => doseSheet(entries, plains, athlete, context.library, caps)
	// A line that opens because another was cut is looked at like the rest.
	const close = () => {
		let closed = false
		for (const [id, line] of resolve()) {
			const why =
				line.blocked === null ? closedBy(entries.find((entry) => entry.id === id)!, line, athlete, context) : null
			if (why === null) continue
			caps.set(id, { reps: 0, why })
			closed = true
		}
		return closed
	}
	close()
	// By how somebody is built less of a line is proposed; what tops up then comes from elsewhere.
	const byType = () => {
		const lines = resolve()
		for (const { id, family } of entries) {
			const line = lines.get(id)!
			if (line.blocked !== null || caps.has(id)) continue
			// A hold at the foot of another ladder is no slow work: what the entry is for decides.
			const { measures } = library.drills[line.drillId]!
			const own = shareByType({ family, measures }, athlete, context.school)
			if (own === null) continue
			const reps = own.share === 0 ? 0 : Math.max(2, Math.floor(repsOf(line.dose) * own.share))
			if (reps < repsOf(line.dose)) caps.set(id, { reps, why: own.why })
		}
	}
	byType()
	// What tops up is dosed by the rest: the rest first.
	const limits = limitsOf(athlete, context)
	const [own, filling] = [
		entries.filter((entry) => entry.tuning?.fill === undefined),
		entries.filter((entry) => entry.tuning?.fill !== undefined),
	]
	trim(own, resolve(), entries, athlete, context, limits, caps)
	// One that is cut leaves more to the next, so it is looked at again until nothing is cut any more: each turn only cuts.
	while (trim(filling, resolve(), entries, athlete, context, limits, caps) || close()) continue
	return caps
}

/** What keeps a line from being done at all on that day: the first of its drills that cannot be. */
function closedBy(
	entry: SheetEntry,
	line: PlannedLine,
	athlete: LimitedAthlete,
	{ library, day, startTime, light, kit, roomM = null }: LimitContext,
): string | null {
	for (const one of checkedOf(entry.id, line, (id) => library.drills[id])) {
		const { drill, parameters } = one
		if (light && isHard(drill, parameters)) return 'a light day'
		const missing = kit === null ? undefined : drill.kit.find((each) => !kit.has(each))
		if (missing !== undefined) return `no ${missing} at hand`
		if (roomM !== null && lengthNeeded(drill, parameters) > roomM)
			return `${inSentence(drill.name)} needs ${Math.ceil(lengthNeeded(drill, parameters))} m, there are ${roomM}`
		const [caution] = checkLine(one, { day, startTime }, athlete.work, athlete.concluded.facts)
		if (caution) return inSentence(caution.sentence.replace(/\.$/, ''))
	}
	return null
}

/** Why a line is cut that would take the session above its target. */
export const TARGET_REACHED = 'the target is reached'

function limitsOf(athlete: LimitedAthlete, { surface, targetOf }: LimitContext): Limit[] {
	const jumps = athlete.levelOf('plyometric')
	return [
		{
			why: `level ${jumps}: ${SESSION_RANGES[jumps].shockContacts.high} shock contacts a session`,
			most: SESSION_RANGES[jumps].shockContacts.high,
			value: (load) => load[LOAD.shock]!,
		},
		// Throws that stand in for something else come before hard work, which wants fresh legs.
		{
			why: `more than ${TIRING_THROWS} throws before hard work`,
			most: TIRING_THROWS,
			value: (load) => load[LOAD.throws]!,
			of: (entry) => entry.family !== 'throw',
		},
		...QUANTITIES.flatMap((quantity): Limit[] => {
			const level = athlete.levelOf(QUALITY_OF[quantity])
			const most = mostOf(quantity, level, surface)
			const target = targetOf?.(quantity, athlete)
			const value = (load: Load) => load[QUANTITY_AT[quantity]]!
			return [
				{ why: `the most for level ${level}`, most, value },
				...(target === undefined || target * (1 + TARGET_TOLERANCE) >= most
					? []
					: [{ why: TARGET_REACHED, most: target * (1 + TARGET_TOLERANCE), value }]),
			]
		}),
		...(Object.keys(RAMP_NAMES) as RampQuantity[]).flatMap((quantity): Limit[] => {
			const most = athlete.rooms[quantity]
			return most === undefined
				? []
				: [{ why: `the week’s ramp leaves no more ${RAMP_NAMES[quantity]}`, most, value: RAMP_LOAD[quantity] }]
		}),
	]
}

const RAMP_LOAD: Record<RampQuantity, (load: Load) => number> = {
	hardContacts: (load) => Math.max(load[LOAD.hardLeft]!, load[LOAD.hardRight]!),
	sharpCuts: (load) => load[LOAD.sharpCuts]!,
	maximalStarts: (load) => load[LOAD.maximalStarts]!,
	fastMetres: (load) => load[LOAD.metresOver90]!,
}

/** Cuts some of the entries, the last first, until every limit holds or nothing of them is left; whether it cut any. */
function trim(
	own: readonly SheetEntry[],
	lines: ReturnType<typeof doseSheet>,
	entries: readonly SheetEntry[],
	athlete: LimitedAthlete,
	{ library }: LimitContext,
	limits: readonly Limit[],
	caps: Map<string, Cap>,
): boolean {
	let cut = false
	const counted = entries.filter((entry) => entry.tuning?.fill === undefined || own.includes(entry))
	const costOf = (entry: SheetEntry, reps: number) => {
		const load = noLoad()
		const line = lines.get(entry.id)!
		if (line.blocked === null && reps > 0) addWorkLoad(load, line, library, athlete.legLengthM, reps)
		return load
	}
	// What each entry costs as it is cut so far: a limit asks for the same sums again and again.
	const reps = new Map<string, number>()
	const costs = new Map<string, Load>()
	const cutTo = (entry: SheetEntry, count: number) => {
		reps.set(entry.id, count)
		costs.set(entry.id, costOf(entry, count))
	}
	for (const entry of counted) {
		const line = lines.get(entry.id)!
		cutTo(entry, line.blocked === null ? repsOf(line.dose) : 0)
	}
	for (const limit of limits) {
		const speaksOf = limit.of ? counted.filter(limit.of) : counted
		const loadWithout = (entry: SheetEntry | null) => {
			const sum = noLoad()
			for (const one of speaksOf) if (one !== entry) plus(sum, costs.get(one.id)!)
			return sum
		}
		for (const entry of [...own].reverse()) {
			if (limit.value(loadWithout(null)) <= limit.most + HAIR) break
			if (!speaksOf.includes(entry) || limit.value(costs.get(entry.id)!) === 0) continue
			const count = reps.get(entry.id)!
			const rest = loadWithout(entry)
			let fits = count
			while (fits > 0 && limit.value(plus(costOf(entry, fits), rest)) > limit.most + HAIR) fits--
			// A single rep is no line.
			const kept = fits < Math.min(2, count) ? 0 : fits
			cutTo(entry, kept)
			caps.set(entry.id, { reps: kept, why: limit.why })
			cut = true
		}
	}
	return cut
}

/** So that a sum of metres that only rounds above a limit is not above it. */
const HAIR = 1e-9
