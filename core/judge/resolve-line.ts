import { repsOf, scaleDose } from '../library/scale-dose'
import { type Day, daysBetween } from '../calendar/day-count'
import { piecesOfRung } from '../vocabulary/line-parts'
import { wornOn } from '../vocabulary/worn-reps'
import { ballFor } from '../own/ball'
import { rungOf } from '../library/starter-library'
import { PARAMETERS } from '../vocabulary/parameters'
import type { Dose, SideDoses } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Library } from '../vocabulary/library'
import { cutWords, effectiveDose } from './effective-dose'
import { type Lock, lockOf } from './locks'
import type { Facts } from '../rules/facts'
import { phaseShare } from '../rules/p6-phase'
import { schoolGate } from '../rules/s8-gates'
import type { LadderState } from './types'
import type { Rung } from '../vocabulary/ladder'
import type { RuleId } from '../rules/rule'
import type { PlannedLine } from '../vocabulary/line'
import { type SessionEntry, type Work, workOf } from '../vocabulary/entry'
import { inSentence } from '../words/write-numbers'
import { WrongValue } from '../vocabulary/wrong-value'

/** What the sheet says for everybody: a drill with its dose, or a ladder that gives each athlete their own rung. */
export type EntryPlan = Pick<SessionEntry, 'drillId' | 'ladderId' | 'doseFactor' | keyof Work>

/** A line, or why there is none. `note` says what about the day made it other than the rung. */
export type ResolvedLine =
	| ({ blocked: null; note: string | null } & PlannedLine)
	| { blocked: string; ladderId: string | null }

/** Where somebody starts who has never met a ladder: its first rung, full dose. Throws RangeError for an unknown ladder. */
export function entryState(library: Pick<Library, 'ladders'>, ladderId: string): LadderState {
	const first = library.ladders[ladderId]?.rungs[0]
	if (!first) throw new WrongValue('ladderId', `${JSON.stringify(ladderId)} is not in the library`)
	return {
		ladderId,
		rungId: first.id,
		dose: first.dose,
		substitute: null,
		passed: false,
		easedBy: null,
		done: [],
	}
}

/** Somebody who comes with a history: on a rung at its dose, what lies below taken as passed. Throws RangeError for an unknown ladder or rung. */
export function startingAt(library: Pick<Library, 'ladders'>, ladderId: string, rungId: string): LadderState {
	const ladder = library.ladders[ladderId]
	if (!ladder) throw new WrongValue('ladderId', `${JSON.stringify(ladderId)} is not in the library`)
	const { rung, index } = rungOf(ladder, rungId)
	return {
		...entryState(library, ladderId),
		rungId,
		dose: rung.dose,
		done: ladder.rungs.slice(0, index).map((one) => one.id),
	}
}

/**
 * What is asked of an athlete for an entry. A rung that is locked on that day (its phase is over, the grass is wet,
 * the athlete is unwell) gives way to the highest open rung below it; a rung that waits for a caution stands when
 * the athlete was put on it. Where no rung is open its own is asked for, and the rulebook answers.
 *
 * @param kept the ladder is only kept in this block: two thirds of the dose
 * @param strict a rung whose gate is shut gives way too, even the one the athlete was put on
 * @throws RangeError when the entry cites a drill or ladder the library does not hold
 */
export function resolveLine(
	entry: EntryPlan,
	state: LadderState | null,
	library: Library,
	facts: Facts,
	kept = false,
	strict = false,
): ResolvedLine {
	if (entry.ladderId === null) return fixedLine(entry, library, facts)
	const ladder = library.ladders[entry.ladderId]
	if (!ladder) throw new WrongValue('ladderId', `${JSON.stringify(entry.ladderId)} is not in the library`)
	const at = state ?? entryState(library, entry.ladderId)
	// Who never met the ladder was put on none of its rungs.
	const put = state !== null && !strict
	const { index, rung: own } = rungOf(ladder, at.rungId)
	const shares = { entry: entry.doseFactor, phase: facts.phase, kept }

	if (at.reentry) {
		const path = library.ladders[at.reentry.pathId]
		if (!path) throw new WrongValue('pathId', `${JSON.stringify(at.reentry.pathId)} is not in the library`)
		const { rung } = rungOf(path, at.reentry.rungId)
		const drill = drillOf(library, rung.drillId)
		return {
			blocked: null,
			note: `on the way back, ${inSentence(rung.name)}`,
			drillId: drill.id,
			drillVersion: drill.version,
			ladderId: ladder.id,
			rungId: rung.id,
			dose: rung.dose,
			parameters: rung.parameters,
			rest: rung.rest,
		}
	}
	const variation = own.variations?.find((one) => one.drillId === at.substitute?.drillId)
	if (variation) return variationLine(variation, own.id, ladder.id, entry.doseFactor, library)
	const lineOf = (rung: Rung, note: string | null): ResolvedLine => {
		const drill = drillOf(library, rung.drillId)
		const dose = effectiveDose(at, rung, drill, facts.schools[0], shares)
		const sides = favoured(at.favour ?? null, drill, dose)
		const turn = rung.id === own.id ? turnOf(rung, at.rungSince ?? null, facts.day) : null
		const parameters = turn?.parameters ?? withBall(rung, rung.id === own.id ? (at.ballKg ?? null) : null, facts.massKg)
		const carried = wornOn(drill, parameters, rung.wornAt)
		const pieces = piecesOfRung(rung, parameters)
		return {
			blocked: null,
			note:
				note ??
				cutWords(at, drill, facts.schools[0], shares) ??
				(turn ? `${turn.name}, by turns` : null) ??
				(sides ? `one rep of each set moves to the ${at.favour}, not more in all` : null) ??
				(turn || parameters === rung.parameters || at.ballKg ? null : `a ball of ${parameters.ballKg} kg by body mass`),
			drillId: drill.id,
			drillVersion: drill.version,
			ladderId: ladder.id,
			rungId: rung.id,
			dose,
			parameters,
			rest: rung.rest,
			...(sides ? { sides } : {}),
			...(pieces ? { pieces } : {}),
			...(carried ? { carried } : {}),
		}
	}
	let first: Lock | null = null
	for (let i = index; i >= 0; i--) {
		const rung = ladder.rungs[i]!
		const lock = lockOf(facts, rung)
		// What hurts or is closed is answered for the whole line, with another drill where there is one.
		if (lock && !STAYS.includes(lock.rule) && !(put && i === index && lock.rule === 'S8' && lock.tier === 'caution')) {
			// A box that is too high for now gives way to a lower one of the same drill before anything else does.
			const lower = lock.rule === 'BB' && i === index ? lowerBox(facts, ladder.rungs, index) : undefined
			if (lower) return lineOf(lower, lock.words)
			first ??= lock
			continue
		}
		return lineOf(rung, first?.words ?? null)
	}
	// A ladder whose side the school does not take writes nothing, although its drill may be open elsewhere.
	const school = schoolGate(facts, own)
	return school === null ? lineOf(own, null) : { blocked: school, ladderId: ladder.id }
}
const STAYS: readonly RuleId[] = ['S1', 'S2']

/** Which of a rung's turns a day is in: week by week from the day somebody came to it; its own form where nobody knows since when. */
function turnOf({ turns }: Rung, since: Day | null, day: Day): NonNullable<Rung['turns']>[number] | null {
	if (!turns || since === null || day < since) return null
	return turns[Math.floor(daysBetween(since, day) / 7) % turns.length]!
}

const lowerBox = (facts: Facts, rungs: readonly Rung[], index: number): Rung | undefined =>
	rungs.slice(0, index).findLast((rung) => rung.drillId === rungs[index]!.drillId && lockOf(facts, rung) === null)

/** Parameters by rung and ball, each one object: what reads a line knows it again. */
const balls = new WeakMap<Rung, Map<number, Rung['parameters']>>()
/** A rung's parameters with the ball of this athlete: the one a verdict stepped down to, else by body mass. */
function withBall(rung: Rung, steppedTo: number | null, massKg: number | null): Rung['parameters'] {
	const { ballKg } = rung.parameters
	if (ballKg === undefined) return rung.parameters
	const own = steppedTo ?? ballFor(ballKg, massKg)
	if (own === ballKg) return rung.parameters
	let known = balls.get(rung)
	if (!known) balls.set(rung, (known = new Map()))
	let parameters = known.get(own)
	if (!parameters) known.set(own, (parameters = { ...rung.parameters, ballKg: own }))
	return parameters
}

/** One rep of each set moves to the side that lags, not more in all; null where no side is, or a set has but one rep. */
function favoured(favour: 'left' | 'right' | null, drill: Drill, dose: Dose): SideDoses | null {
	if (favour === null || drill.legs !== 'one' || dose.reps < 2) return null
	const [more, less] = [
		{ sets: dose.sets, reps: dose.reps + 1 },
		{ sets: dose.sets, reps: dose.reps - 1 },
	]
	return favour === 'left' ? { left: more, right: less } : { left: less, right: more }
}

/** A drill the sheet asks of everybody, as it asks for it: what this athlete may do of it the rulebook says. */
function fixedLine(entry: EntryPlan, library: Library, facts: Facts): ResolvedLine {
	const drill = drillOf(library, entry.drillId)
	const easy = easyFormOf(entry, drill, library, facts)
	if (easy) return easy
	const share = Math.min(entry.doseFactor, phaseShare(facts.phase, drill, facts.schools[0]))
	const carried = entry.carried ?? wornOn(drill, entry.parameters)
	return {
		blocked: null,
		note: null,
		drillId: drill.id,
		drillVersion: drill.version,
		ladderId: null,
		rungId: null,
		...workOf(entry),
		...(carried ? { carried } : {}),
		dose: share < 1 ? scaleDose(entry.dose, share) : entry.dose,
	}
}

/** A beginner's form of a drill, more often, where the school has it so and the drill names one; null elsewhere. */
function easyFormOf(entry: EntryPlan, drill: Drill, library: Library, facts: Facts): ResolvedLine | null {
	const easy = drill.easy && library.drills[drill.easy.drillId]
	if (!easy || entry.pieces || facts.schools[0].choices.beginners !== 'more-easy' || facts.levelOf(drill.family) !== 1)
		return null
	const share = Math.min(entry.doseFactor, phaseShare(facts.phase, easy, facts.schools[0]))
	const { dose } = drill.easy!
	const { rest, parameters } = easy.defaults
	return {
		blocked: null,
		note: `the easy form of ${inSentence(drill.name)}, more often`,
		drillId: easy.id,
		drillVersion: easy.version,
		ladderId: null,
		rungId: null,
		dose: share < 1 ? scaleDose(dose, share) : dose,
		parameters,
		rest,
	}
}

/** Another form of the same rung, after a plateau. */
function variationLine(
	{ drillId, parameters }: NonNullable<Rung['variations']>[number],
	rungId: string,
	ladderId: string,
	factor: number,
	library: Library,
): ResolvedLine {
	const drill = drillOf(library, drillId)
	const { dose, rest } = drill.defaults
	const carried = wornOn(drill, parameters)
	return {
		blocked: null,
		note: null,
		drillId: drill.id,
		drillVersion: drill.version,
		ladderId,
		rungId,
		dose: factor < 1 ? scaleDose(dose, factor) : dose,
		parameters,
		rest,
		...(carried ? { carried } : {}),
	}
}

function drillOf(library: Library, drillId: string): Drill {
	const drill = library.drills[drillId]
	if (!drill) throw new WrongValue('drillId', `${JSON.stringify(drillId)} is not in the library`)
	return drill
}

/** Whether two lines ask for the same thing. */
export const sameLine = (a: PlannedLine, b: PlannedLine): boolean =>
	a.drillId === b.drillId &&
	a.rungId === b.rungId &&
	repsOf(a.dose) === repsOf(b.dose) &&
	a.dose.sets === b.dose.sets &&
	sameSides(a.sides, b.sides) &&
	samePieces(a, b) &&
	sameLoad(a.carried, b.carried) &&
	PARAMETERS.every((key) => a.parameters[key] === b.parameters[key])
const sameSides = (a: SideDoses | undefined, b: SideDoses | undefined): boolean =>
	(['left', 'right'] as const).every(
		(side) => a?.[side]?.reps === b?.[side]?.reps && a?.[side]?.sets === b?.[side]?.sets,
	)
const samePieces = ({ pieces: a }: PlannedLine, { pieces: b }: PlannedLine): boolean =>
	a?.length === b?.length &&
	(a ?? []).every(
		(piece, index) =>
			piece.drillId === b![index]!.drillId &&
			piece.reps === b![index]!.reps &&
			PARAMETERS.every((key) => piece.parameters[key] === b![index]!.parameters[key]),
	)
/** Grams stand in the parameters; here it is where they are worn. */
const sameLoad = (a: PlannedLine['carried'], b: PlannedLine['carried']): boolean =>
	a?.segment === b?.segment && a?.side === b?.side && a?.fromJointCm === b?.fromJointCm
