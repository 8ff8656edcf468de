import { addDays } from '../calendar/day-count'
import { closuresOn } from '../care/closures'
import { NO_PLAN } from '../care/return-plan'
import type { Concluded } from '../permit/known'
import type { Facts } from '../rules/facts'
import { COUNTED } from '../rules/p9-time-away'
import type { CareReport, Restriction } from '../vocabulary/care'
import type { DrillId } from '../vocabulary/ids'
import type { Library } from '../vocabulary/library'
import { firstDaysOf, passedRungs } from './locks'
import type { Documents, VerdictInput } from './types'

/** The documents of a verdict as the library its rules look things up in; one for the same documents. */
const libraries = new WeakMap<Documents['paths'], WeakMap<Documents['drills'], Library>>()
function libraryOf({ ladder, drills, paths }: Documents): Library {
	let known = libraries.get(paths)
	if (!known) libraries.set(paths, (known = new WeakMap()))
	let library = known.get(drills)
	if (!library) known.set(drills, (library = { drills, ladders: paths, schools: {}, themes: {} }))
	// A ladder of the club's own, or an older version: cited, not the library's.
	return paths[ladder.id] === ladder ? library : { ...library, ladders: { ...paths, [ladder.id]: ladder } }
}

/**
 * What the rulebook reads of an athlete for the session after the judged one. Spacing, the week and time away have
 * rules of their own in a verdict, with the hours and the history they need.
 */
export function verdictFacts(input: VerdictInput, documents: Documents): Concluded {
	const { next, athlete, state } = input
	const restrictions = input.restrictions.map(
		({ region, pattern, drillId, since }): Restriction => ({
			since,
			...(region ? { region } : {}),
			...(pattern ? { pattern } : {}),
			...(drillId ? { drillId: drillId as DrillId } : {}),
		}),
	)
	const facts: Facts = {
		library: libraryOf(documents),
		ageYears: athlete.ageYears,
		massKg: athlete.massKg,
		levelOf: (family) => input.levels?.[family] ?? athlete.level,
		passed: { ...input.standings, [documents.ladder.id]: passedRungs(state, documents.ladder) },
		schools: [documents.school],
		phase: next.phase,
		day: next.day,
		surface: next.surface,
		hoursToMatch: next.hoursToMatch,
		hoursSinceMatch: next.hoursSinceMatch,
		closures: [
			...(input.closures ?? foldedPains(input, restrictions)),
			...(state.closed ? [{ ...state.closed, grade: 'closed' as const }] : []),
		],
		restrictions,
		unwellSince: athlete.unwell ? input.day : null,
		worries: input.worries,
		lastWork: Object.fromEntries(COUNTED.map((family) => [family, addDays(next.day, -1)])),
		work: null,
		newRungs: [...input.newRungs, ...firstDaysOf(state, documents.ladder)],
		contrastHelps: athlete.contrastHelps,
		...(input.bestBox ? { own: { bestBox: input.bestBox } } : {}),
	}
	return { facts, plan: NO_PLAN, acknowledged: [] }
}

/** Without a fold of everything that was said: what the pains of the last weeks close, as if nothing had been cleared or asked. */
function foldedPains(input: VerdictInput, restrictions: readonly Restriction[]) {
	const reports = input.pains.map(
		({ region, side, score, redFlag, day }): CareReport => ({ kind: 'pain', region, side, score, redFlag, day }),
	)
	return closuresOn({ reports, clearances: [], restrictions, sessions: lastDays(input) }, input.next.day)
}

/** Days of the last three sessions. One of which neither a pain nor a mark is known had no pain: nothing runs on through it. */
function lastDays({ lastSessions, pains, exposures, day, sessionId }: VerdictInput): string[] {
	const days = lastSessions.map((id) =>
		id === sessionId
			? day
			: (pains.find((one) => one.sessionId === id)?.day ?? exposures.find((one) => one.sessionId === id)?.day),
	)
	return days.every((one) => one !== undefined) ? (days as string[]) : [day]
}
