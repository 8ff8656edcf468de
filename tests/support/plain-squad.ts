import { addInto, emptyCount } from '../../core/dose/dose-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { Level } from '../../core/vocabulary/words'
import type { BuildRequest, Proposal } from '../../core/plan/propose-session'
import { countOf, resolveSheet } from '../../core/plan/resolve-sheet'
import type { LimitedAthlete } from '../../core/plan/session-limits'
import { type PlainFacts, concludeFor } from '../../core/permit/plain-facts'
import { passedRungs } from '../../core/judge/locks'
import { startingAt } from '../../core/judge/resolve-line'

export const PLAIN_DAY = '2026-03-10'
const school = STARTER_LIBRARY.schools['quality-first']!

/** Somebody of 24 years who trained everything the day before and of whom nothing is said. */
export const PLAIN_FACTS: PlainFacts = {
	ageYears: 24,
	massKg: 70,
	levels: {},
	passed: {},
	schools: [school],
	phase: 'accumulate',
	day: PLAIN_DAY,
	surface: null,
	hoursToMatch: null,
	hoursSinceMatch: null,
	lastWork: { sprint: '2026-03-09', agility: '2026-03-09', plyometric: '2026-03-09', throw: '2026-03-09' },
	work: null,
	newRungs: [],
	contrastHelps: false,
	reports: [],
	clearances: [],
	restrictions: [],
	sessions: [],
	stands: [],
	acknowledged: [],
}

/** An athlete with one level everywhere, on the given rungs, whom nothing holds back. */
export function plainAthlete(
	id: string,
	level: Level,
	rungs: Record<string, string>,
	more: Partial<LimitedAthlete> = {},
): LimitedAthlete {
	const states = new Map(
		Object.entries(rungs).map(([ladderId, rungId]) => [ladderId, startingAt(STARTER_LIBRARY, ladderId, rungId)]),
	)
	const standings = Object.fromEntries(
		[...states].map(([ladderId, state]) => [ladderId, passedRungs(state, STARTER_LIBRARY.ladders[ladderId]!)]),
	)
	const concluded = concludeFor(
		{ ...PLAIN_FACTS, levels: { sprint: level, agility: level, plyometric: level, throw: level }, passed: standings },
		STARTER_LIBRARY,
	)
	return {
		id,
		name: id,
		levelOf: () => level,
		stateOf: (ladderId) => states.get(ladderId) ?? null,
		kept: () => false,
		legLengthM: 0.9,
		work: [],
		type: null,
		rooms: {},
		concluded,
		...more,
	}
}
export const BEGINNER = {
	acceleration: 'standing-10',
	shock: 'landing-15',
	bound: 'broad-jump',
	brake: 'stop-10',
	cut: 'wide',
	throw: 'kneeling',
	'skip-rhythm': 'relaxed-skip',
}
export const TRAINED = {
	acceleration: 'three-point-20',
	shock: 'pause-30',
	bound: 'alternate-bounds',
	brake: 'dead-10',
	cut: 'sharp-wide',
	throw: 'underhand',
	'skip-rhythm': 'skip-wide',
}
export const ADVANCED = {
	acceleration: 'three-point-30',
	shock: 'landing-45',
	bound: 'speed-bound',
	brake: 'dead-15',
	cut: 'soft-180',
	throw: 'rotational',
	'skip-rhythm': 'power-skip',
}

/** A hard day in a first full week: two hours, four lanes, everything at hand. */
export const plainRequest = (athletes: LimitedAthlete[], more: Partial<BuildRequest> = {}): BuildRequest => ({
	athletes,
	minutes: 120,
	mostLanes: 4,
	priorityLadders: [],
	target: { share: 1, phase: 'accumulate', role: 'hard', priority: null, kept: [], surface: null },
	context: { library: STARTER_LIBRARY, school, day: PLAIN_DAY, startTime: '17:30', surface: null, kit: null },
	...more,
})

/** Each line a proposal gives an athlete, with its drill and entry. */
export const linesOf = (proposal: Proposal, one: LimitedAthlete) =>
	[...resolveSheet(proposal.entries, one, STARTER_LIBRARY)].flatMap(([entryId, line]) =>
		line.blocked === null
			? [
					{
						entryId,
						line,
						drill: STARTER_LIBRARY.drills[line.drillId]!,
						entry: proposal.entries.find((entry) => entry.id === entryId)!,
					},
				]
			: [],
	)
/** What a proposal costs an athlete. */
export const costOf = (proposal: Proposal, one: LimitedAthlete) => {
	const sum = emptyCount()
	for (const { line } of linesOf(proposal, one)) addInto(sum, countOf(line, one, STARTER_LIBRARY))
	return sum
}
