import { type DoseCount, addInto, emptyCount, totalOf } from '../dose/dose-count'
import { SESSION_RANGES } from '../dose/level-ranges'
import { RAMP_NAMES, type RampQuantity, rampValue } from '../dose/ramp'
import { repsOf } from '../dose/scale-dose'
import type { Library, School } from '../library/types'
import { lockOfDrill } from '../progress/locks'
import type { PlannedLine, Surface, WorkDay } from '../progress/types'
import { isHard } from '../progress/work-kinds'
import { inSentence } from '../progress/write-numbers'
import { type Cap, type SheetAthlete, type SheetEntry, TARGET_TOLERANCE, countOf, resolveSheet } from './resolve-sheet'
import { TIRING_THROWS, checkLine } from './session-checks'
import { QUALITY_OF, QUANTITIES, type Quantity, mostOf, quantitiesOf } from './targets'

/** What an athlete may still do, beside what closes drills. */
export interface LimitedAthlete extends SheetAthlete {
	name: string
	/** Other hard days near the session, before and after it. */
	work: readonly WorkDay[]
	/** What the week's ramp leaves for this session. */
	rooms: Readonly<Partial<Record<RampQuantity, number>>>
	/** Drills somebody worries about. */
	worries: readonly string[]
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
	/** Kept to when given, with the tolerance of a twentieth. */
	targetOf: ((quantity: Quantity, athlete: LimitedAthlete) => number) | null
}

interface Limit {
	why: string
	most: number
	value: (count: DoseCount) => number
	/** Which entries it speaks of; all when not given. */
	of?: (entry: SheetEntry) => boolean
}

/**
 * The caps that keep one athlete's session within the rules: S3, S4, S6, S7, S9, S10 and S11, the level's
 * ranges, the kit at hand, and the targets where there are any. What is cut is cut from the end.
 */
export function capsFor(entries: readonly SheetEntry[], athlete: LimitedAthlete, context: LimitContext): Map<string, Cap> {
	const caps = new Map<string, Cap>()
	const withCaps = () => entries.map((entry): SheetEntry => {
		const cap = caps.get(entry.id)
		const { caps: others, ...tuning } = entry.tuning ?? {}
		const own = { ...others, ...(cap ? { [athlete.id]: cap } : {}) }
		if (!cap) delete own[athlete.id]
		return { ...entry, tuning: { ...tuning, caps: own } }
	})
	const resolve = () => resolveSheet(withCaps(), athlete, context.library)
	// A line that opens because another was cut is looked at like the rest.
	const close = () => {
		let closed = false
		for (const [id, line] of resolve()) {
			const why = line.blocked === null ? closedBy(entries.find((entry) => entry.id === id)!, line, athlete, context) : null
			if (why === null) continue
			caps.set(id, { reps: 0, why })
			closed = true
		}
		return closed
	}
	close()
	// What tops up is dosed by the rest: the rest first.
	const limits = limitsOf(athlete, context)
	const [own, filling] = [entries.filter((entry) => entry.tuning?.fill === undefined), entries.filter((entry) => entry.tuning?.fill !== undefined)]
	trim(own, resolve(), entries, athlete, context, limits, caps)
	// One that is cut leaves more to the next, so it is looked at again until nothing is cut any more: each turn only cuts.
	while (trim(filling, resolve(), entries, athlete, context, limits, caps) || close()) continue
	return caps
}

/** What keeps a line from being done at all on that day. */
function closedBy(entry: SheetEntry, line: PlannedLine, athlete: LimitedAthlete, { library, school, day, startTime, light, kit }: LimitContext): string | null {
	const drill = library.drills[line.drillId]!
	const locks = athlete.locksAt(athlete.levelOf(entry.family))
	const lock = lockOfDrill(drill, line.parameters, locks)
	if (lock) return lock.words
	if (light && isHard(drill, line.parameters)) return 'a light day'
	if (athlete.worries.includes(drill.id)) return 'a worry about this movement is open'
	const missing = kit === null ? undefined : drill.kit.find((one) => !kit.has(one))
	if (missing !== undefined) return `no ${missing} at hand`
	const [caution] = checkLine({ entryId: entry.id, drill, parameters: line.parameters, dose: line.dose }, { day, startTime }, athlete.work, school, locks)
	return caution ? inSentence(caution.sentence.replace(/\.$/, '')) : null
}

function limitsOf(athlete: LimitedAthlete, { surface, targetOf }: LimitContext): Limit[] {
	const jumps = athlete.levelOf('plyometric')
	return [
		{ why: `level ${jumps}: ${SESSION_RANGES[jumps].shockContacts.high} shock contacts a session`, most: SESSION_RANGES[jumps].shockContacts.high, value: (count) => totalOf(count.contacts.shock) },
		// Throws that stand in for something else come before hard work, which wants fresh legs.
		{ why: `more than ${TIRING_THROWS} throws before hard work`, most: TIRING_THROWS, value: (count) => totalOf(count.throws), of: (entry) => entry.family !== 'throw' },
		...QUANTITIES.flatMap((quantity): Limit[] => {
			const level = athlete.levelOf(QUALITY_OF[quantity])
			const most = mostOf(quantity, level, surface)
			const target = targetOf?.(quantity, athlete)
			const value = (count: DoseCount) => quantitiesOf(count)[quantity]
			return [{ why: `the most for level ${level}`, most, value }, ...(target === undefined || target * (1 + TARGET_TOLERANCE) >= most ? [] : [{ why: 'the target is reached', most: target * (1 + TARGET_TOLERANCE), value }])]
		}),
		...(Object.keys(RAMP_NAMES) as RampQuantity[]).flatMap((quantity): Limit[] => {
			const most = athlete.rooms[quantity]
			return most === undefined ? [] : [{ why: `the week’s ramp: ${Math.floor(most)} ${RAMP_NAMES[quantity]} left`, most, value: (count) => rampValue(count, quantity) }]
		}),
	]
}

/** Cuts some of the entries, the last first, until every limit holds or nothing of them is left; whether it cut any. */
function trim(own: readonly SheetEntry[], lines: ReturnType<typeof resolveSheet>, entries: readonly SheetEntry[], athlete: LimitedAthlete, { library }: LimitContext, limits: readonly Limit[], caps: Map<string, Cap>): boolean {
	let cut = false
	const counted = entries.filter((entry) => entry.tuning?.fill === undefined || own.includes(entry))
	const reps = new Map<string, number>()
	const costs = new Map<string, DoseCount>()
	const cost = (entry: SheetEntry, count: number): DoseCount => {
		const line = lines.get(entry.id)!
		if (line.blocked !== null || count === 0) return emptyCount()
		const key = `${entry.id}/${count}`
		const known = costs.get(key) ?? countOf({ ...line, dose: count === repsOf(line.dose) ? line.dose : { sets: 1, reps: count } }, athlete, library)
		costs.set(key, known)
		return known
	}
	for (const entry of counted) {
		const line = lines.get(entry.id)!
		reps.set(entry.id, line.blocked === null ? repsOf(line.dose) : 0)
	}
	for (const limit of limits) {
		const speaksOf = counted.filter((entry) => limit.of?.(entry) ?? true)
		const valueWith = (entry: SheetEntry | null, count: number) => {
			const sum = emptyCount()
			for (const one of speaksOf) addInto(sum, cost(one, one === entry ? count : reps.get(one.id)!))
			return limit.value(sum)
		}
		for (const entry of [...own].reverse()) {
			if (valueWith(null, 0) <= limit.most + HAIR) break
			const count = reps.get(entry.id)!
			if (!speaksOf.includes(entry) || limit.value(cost(entry, count)) === 0) continue
			let fits = count
			while (fits > 0 && valueWith(entry, fits) > limit.most + HAIR) fits--
			// A single rep is no line.
			const kept = fits < Math.min(2, count) ? 0 : fits
			reps.set(entry.id, kept)
			caps.set(entry.id, { reps: kept, why: limit.why })
			cut = true
		}
	}
	return cut
}

/** So that a sum of metres that only rounds above a limit is not above it. */
const HAIR = 1e-9
