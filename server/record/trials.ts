import { randomInt } from 'node:crypto'
import { mean } from 'simple-statistics'
import { v7 as newId } from 'uuid'
import { foldEvents } from '../../core/events/fold'
import { betterOf, measuredOf } from '../../core/marks/keep-session'
import { pairedTrial } from '../../core/noise/paired-trial'
import { typicalErrorOf } from '../../core/noise/typical-error'
import { freshEntry } from '../../core/plan/entry-parts'
import {
	type Condition,
	TRIAL_KINDS,
	type TrialDay,
	type TrialEntries,
	type TrialKind,
	type TrialPlan,
	type TrialReading,
	WAITS_MIN,
	nextCondition,
	pairDays,
	pairSdPercent,
	readTrial,
} from '../../core/record/trial'
import type { Library } from '../../core/vocabulary/library'
import { METHOD_NAMES } from '../../core/vocabulary/words'
import { writeDose, writeDrill } from '../../core/words/write-numbers'
import { type ClubScope, inTransaction } from '../../db/connect'
import { eventsOfSessions } from '../../db/queries/log'
import { readLibrary } from '../../db/queries/library'
import {
	type TrialRow,
	answersOfTrial,
	closeTrialRow,
	insertTrial,
	insertTrialSession,
	keepTrialAnswers,
	readTrialRow,
	sessionsOfTrials,
	trialDaysOf,
	trialsOf,
	trialsOfSessions,
} from '../../db/queries/record'
import { readEntries, readLines } from '../../db/queries/sessions'
import { listMembers, readAthletes, readSquad } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { database, scopeOf } from '../database'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { makeSession } from '../sheet/save-session'
import type { Testable } from '../../core/record/battery'
import { readMeasured, testableOf } from './batteries'

/** What one rep errs by, percent of the mark, where nothing better is known [our setting]. */
const REP_PERCENT = { sprint: 0.65, contact: 3, height: 2.5, distance: 2.5 } as const
/** Marks the percents above and the methods' errors are set against: a start, a contact, a jump, a throw. */
const USUAL_MARK = { sprint: 3.1, contact: 0.18, height: 0.4, distance: 8 } as const

export interface TrialPerson {
	athleteId: string
	name: string
	/** Days with everything measured, with it and without. */
	days: Record<Condition, number>
	/** Next time. */
	next: Condition
	readings: { waitMin: number; reading: TrialReading }[]
}
export interface TrialPage {
	id: string
	question: string
	kind: TrialKind
	/** "Three-point start 20 m, gate, 3 before and 3 after 5 and 10 min" */
	how: string
	treatment: string | null
	pairs: number
	closed: boolean
	sessions: { id: string; day: string; held: boolean }[]
	people: TrialPerson[]
	/** Over the athletes, for each wait: what is said of them together. */
	group: { waitMin: number; sentence: string }[]
}
export interface TrialsPage {
	squadId: string
	squadName: string
	trials: TrialPage[]
	members: { id: string; name: string }[]
	testable: Testable[]
	/** What can be done in between: every drill. */
	drills: { id: string; name: string }[]
}

const sdOf = ({ outcome, reps }: Pick<TrialPlan, 'outcome' | 'reps'>): number => {
	const error = typicalErrorOf(outcome.kind, outcome.method)
	const percent = error === null ? REP_PERCENT[outcome.kind] : (100 * error) / USUAL_MARK[outcome.kind]
	return pairSdPercent(percent, reps)
}

/** How many pairs of days a trial announces to each athlete. */
export const announcedPairs = (plan: Pick<TrialPlan, 'outcome' | 'reps' | 'waitsMin'>): number =>
	readTrial([], plan.outcome.kind, sdOf(plan), plan.waitsMin.length).more

/** What was measured on a trial's days, athlete by athlete; a day counts when before and every wait have a number, and what is tried was done on it or not, as drawn. */
async function daysOf(scope: ClubScope, trial: TrialRow): Promise<Map<string, TrialDay[]>> {
	const sessions = await sessionsOfTrials(scope, [trial.id])
	const begun = sessions.filter(({ startedAt }) => startedAt !== null).map(({ sessionId }) => sessionId)
	const { current } = foldEvents(await eventsOfSessions(scope, begun))
	const lines = new Map((await readLines(scope, begun)).map((line) => [line.id, line]))
	const { treatment } = trial.plan
	/** Whether what is tried was done, and not what permission or a swap put in its place. */
	const tried = (athleteId: string, entryId: string | null): boolean =>
		current.some(
			(event) =>
				event.type === 'mark' &&
				event.kind !== 'missed' &&
				event.athleteId === athleteId &&
				event.entryId === entryId &&
				(event.asDrill?.drillId ?? lines.get(event.lineId)?.drillId) === treatment?.drillId,
		)
	const days = new Map<string, TrialDay[]>()
	for (const session of sessions) {
		const meanOn = (athleteId: string, entryId: string | undefined): number | null => {
			const values = current.flatMap((event) => {
				if (event.type !== 'mark' || event.athleteId !== athleteId || event.entryId !== entryId) return []
				const measured = event.stamp?.setAside ? null : measuredOf(event)
				return measured?.kind === trial.plan.outcome.kind && measured.method === trial.plan.outcome.method
					? [measured.value]
					: []
			})
			return values.length === 0 ? null : mean(values)
		}
		for (const [athleteId, condition] of Object.entries(session.conditions)) {
			const before = meanOn(athleteId, session.entries.before)
			const after = trial.plan.waitsMin.map((wait) => [wait, meanOn(athleteId, session.entries.after[wait])] as const)
			if (before === null || after.some(([, value]) => value === null)) continue
			// A day with it is one on which it was done, and one without on which it was not.
			if (treatment && tried(athleteId, session.entries.treatment) !== (condition === 'treatment')) continue
			days.set(athleteId, [
				...(days.get(athleteId) ?? []),
				{ day: session.day, condition, before, after: Object.fromEntries(after) as Record<string, number> },
			])
		}
	}
	return days
}

const readingsOf = (plan: TrialPlan, days: readonly TrialDay[]): TrialPerson['readings'] =>
	plan.waitsMin.map((waitMin) => ({
		waitMin,
		reading: readTrial(
			pairDays(days, waitMin, betterOf(plan.outcome.kind)),
			plan.outcome.kind,
			sdOf(plan),
			plan.waitsMin.length,
		),
	}))

/** A squad's trials with what they say of each athlete; null for a stranger's squad. */
export async function readTrials(who: SignedIn, squadId: string): Promise<TrialsPage | null> {
	const scope = scopeOf(who.clubId)
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const library = await readLibrary(scope)
	const members = (await listMembers(scope)).filter((member) => member.squadId === squadId)
	const trials: TrialPage[] = []
	for (const trial of await trialsOf(scope, squadId)) {
		const [days, sessions] = [await daysOf(scope, trial), await sessionsOfTrials(scope, [trial.id])]
		const athletes = await readAthletes(scope, trial.plan.athleteIds)
		const people = athletes.map((athlete): TrialPerson => {
			const own = days.get(athlete.id) ?? []
			const count = (condition: Condition) => own.filter((day) => day.condition === condition).length
			return {
				athleteId: athlete.id,
				name: athlete.name,
				days: { treatment: count('treatment'), control: count('control') },
				next: nextCondition(trial.plan, athlete.id, own.length),
				readings: readingsOf(trial.plan, own),
			}
		})
		trials.push({
			id: trial.id,
			question: trial.question,
			kind: trial.kind,
			how: sayPlan(trial.plan, library),
			treatment: trial.plan.treatment
				? `${library.drills[trial.plan.treatment.drillId]?.name ?? ''}, ${writeDose(trial.plan.treatment.dose)}`
				: null,
			pairs: trial.plan.pairs,
			closed: trial.closedAt !== null,
			sessions: sessions.map(({ sessionId, day, startedAt }) => ({ id: sessionId, day, held: startedAt !== null })),
			people,
			group: trial.plan.waitsMin.map((waitMin) => ({ waitMin, sentence: sayGroup(people, waitMin) })),
		})
	}
	return {
		squadId,
		squadName: squad.name,
		trials: trials.reverse(),
		members: members.map(({ id, name }) => ({ id, name })),
		testable: testableOf(library),
		drills: Object.values(library.drills)
			.map(({ id, name }) => ({ id, name }))
			.sort((a, b) => a.name.localeCompare(b.name)),
	}
}
function sayPlan({ outcome, reps, waitsMin }: TrialPlan, library: Library): string {
	const drill = library.drills[outcome.drillId]
	const after = waitsMin.map((wait) => (wait === 0 ? 'at once' : `${wait} min`)).join(' and ')
	return `${drill ? writeDrill(drill, outcome.parameters) : ''}, ${METHOD_NAMES[outcome.method]}, ${reps} before and ${reps} after ${after}`
}
/** Each athlete's own mean difference counts once. */
function sayGroup(people: readonly TrialPerson[], waitMin: number): string {
	const own = people.flatMap(({ readings }) => {
		const reading = readings.find((one) => one.waitMin === waitMin)?.reading
		return reading && reading.difference !== null ? [{ trial: reading.difference, control: 0 }] : []
	})
	return own.length === 0 ? 'Nobody has a pair of days yet.' : pairedTrial(own).sentence
}

export interface TrialTyped {
	question: string
	kind: string
	drillId: string
	amount: string
	method: string
	reps: string
	/** Empty for a cue or a warm-up that is no drill. */
	treatment: string
	treatmentSets: string
	treatmentReps: string
	/** "0", "5", "10" */
	waits: string[]
	athleteIds: string[]
}

/** Opens a trial, with the number of pairs it announces. Null for a stranger's squad. */
export async function openTrial(
	who: SignedIn,
	squadId: string,
	typed: TrialTyped,
	now: Date,
): Promise<{ id: string; pairs: number } | { problems: Problems } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		if (!(await readSquad(scope, squadId))) return null
		const library = await readLibrary(scope)
		const problems: Problems = {}
		const question = typed.question.trim()
		if (question === '' || question.length > 200) problems.question = 'What is asked, in up to 200 letters.'
		const kind = TRIAL_KINDS.find((one) => one === typed.kind)
		if (!kind) problems.kind = 'Pick what is tried.'
		const measured = readMeasured(testableOf(library), typed, who.units)
		if ('wrong' in measured)
			problems.drill =
				measured.wrong === 'amount'
					? `${measured.expected.charAt(0).toUpperCase()}${measured.expected.slice(1)}.`
					: 'Pick a drill that is measured, and how.'
		const whole = (text: string, most: number) => {
			const value = Number(text)
			return Number.isInteger(value) && value >= 1 && value <= most ? value : null
		}
		const reps = whole(typed.reps, 4)
		if (reps === null) problems.reps = '1 to 4 reps before and after.'
		const treatment = library.drills[typed.treatment]
		const dose = { sets: whole(typed.treatmentSets, 6), reps: whole(typed.treatmentReps, 12) }
		if (typed.treatment !== '' && (!treatment || dose.sets === null || dose.reps === null))
			problems.treatment = 'Pick a drill, 1 to 6 sets and 1 to 12 reps.'
		if (typed.treatment === '' && kind === 'heavy-before') problems.treatment = 'Pick what is done before.'
		const waits = WAITS_MIN.filter((wait) => typed.waits.includes(String(wait)))
		if (waits.length === 0) problems.waits = 'Pick at least one moment after.'
		const members = (await listMembers(scope)).filter((member) => member.squadId === squadId).map(({ id }) => id)
		const athleteIds = members.filter((id) => typed.athleteIds.includes(id))
		if (athleteIds.length === 0) problems.athletes = 'Pick who takes part.'
		if (Object.keys(problems).length > 0 || 'wrong' in measured) return { problems }
		const plan: TrialPlan = {
			outcome: measured,
			reps: reps!,
			treatment: treatment ? { drillId: treatment.id, dose: { sets: dose.sets!, reps: dose.reps! } } : null,
			waitsMin: [...waits],
			pairs: 1,
			seed: randomInt(1_000_000),
			athleteIds,
		}
		const pairs = announcedPairs(plan)
		const id = newId()
		await insertTrial(scope, {
			id,
			squadId,
			question,
			kind: kind!,
			plan: { ...plan, pairs },
			openedBy: who.personId,
			openedAt: now,
			closedAt: null,
		})
		return { id, pairs }
	})
}

/** Ends a trial, or goes on with it; its days stay. False for a stranger's. */
export async function closeTrial(
	who: SignedIn,
	squadId: string,
	id: string,
	closed: boolean,
	now: Date,
): Promise<boolean> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const trial = await readTrialRow(scope, id)
		if (trial?.squadId !== squadId) return false
		await closeTrialRow(scope, id, closed ? now : null)
		return true
	})
}

/**
 * A day of a trial: before, what is tried for those whose day it is, and after each wait, as a sheet like any other, so
 * that permission holds for it. Null for a stranger's or a closed one.
 */
export async function planTrialDay(
	who: SignedIn,
	squadId: string,
	id: string,
	day: string,
	now: Date,
): Promise<{ sessionId: string } | { problems: Problems } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const [squad, trial] = [await readSquad(scope, squadId), await readTrialRow(scope, id)]
		if (!squad || !trial || trial.squadId !== squadId || trial.closedAt !== null) return null
		const library = await readLibrary(scope)
		const { plan } = trial
		const days = await daysOf(scope, trial)
		const conditions = Object.fromEntries(
			plan.athleteIds.map((athleteId) => [athleteId, nextCondition(plan, athleteId, days.get(athleteId)?.length ?? 0)]),
		)
		const entry = (part: string, drillId: string, dose: { sets: number; reps: number }, parameters = {}) => {
			const fresh = freshEntry(newId(), { drillId, ladderId: null }, library)
			return fresh && { ...fresh, part, dose, parameters: { ...fresh.parameters, ...parameters } }
		}
		const measure = (part: string) =>
			entry(part, plan.outcome.drillId, { sets: 1, reps: plan.reps }, plan.outcome.parameters)
		const before = measure('Trial: before')
		const tried = plan.treatment && entry('Trial: today with', plan.treatment.drillId, plan.treatment.dose)
		const after = plan.waitsMin.map(
			(wait) => [wait, measure(wait === 0 ? 'Trial: after' : `Trial: ${wait} min after`)] as const,
		)
		if (!before || (plan.treatment && !tried) || after.some(([, one]) => one === null))
			return { problems: { trial: 'A drill of this trial is no longer in the library.' } }
		// Who is without it today has no line there: they rest as long.
		const without = Object.entries(conditions).filter(([, condition]) => condition === 'control')
		const caps = Object.fromEntries(
			without.map(([athleteId]) => [athleteId, { reps: 0, why: 'without it today: rest as long' }]),
		)
		const entries = [
			before,
			...(tried ? [{ ...tried, tuning: without.length > 0 ? { caps } : null }] : []),
			...after.map(([, one]) => one!),
		]
		const made = await makeSession(
			scope,
			who.timeZone,
			{
				squadId,
				day,
				startTime: squad.startTime,
				title: 'Trial',
				place: squad.place,
				surface: null,
				plannedMinutes: 30 + Math.max(...plan.waitsMin),
				role: 'hard',
				share: 1,
				athleteIds: plan.athleteIds,
				entries,
			},
			now,
		)
		if ('sessionId' in made) {
			// A sheet gives its entries ids of its own, in the order they were asked for.
			const ids = (await readEntries(scope, [made.sessionId]))
				.sort((x, y) => x.position - y.position)
				.map((row) => row.id as string)
			const kept: TrialEntries = {
				before: ids[0]!,
				treatment: tried ? ids[1]! : null,
				after: Object.fromEntries(after.map(([wait], index) => [wait, ids[index + (tried ? 2 : 1)]!])),
			}
			await insertTrialSession(scope, { trialId: id, sessionId: made.sessionId, entries: kept, conditions })
		}
		return made
	})
}

/**
 * Makes anew what trials say of their athletes after marks of some sessions have changed; where an answer has turned, the
 * lines ahead follow. In the transaction that takes the marks.
 */
export async function keepTrials(scope: ClubScope, sessionIds: string[], today: string, now: Date): Promise<void> {
	const turned = new Set<string>()
	for (const trialId of await trialsOfSessions(scope, sessionIds)) {
		const trial = (await readTrialRow(scope, trialId))!
		const known = new Map((await answersOfTrial(scope, trialId)).map((row) => [row.athleteId, row.helps]))
		const answers = [...(await daysOf(scope, trial))].map(([athleteId, days]) => ({
			athleteId,
			helps: readingsOf(trial.plan, days).some(({ reading }) => reading.answer === 'helps'),
		}))
		// Whose days were all taken back is helped by nothing.
		for (const [athleteId, helps] of known)
			if (helps && !answers.some((one) => one.athleteId === athleteId)) answers.push({ athleteId, helps: false })
		const changed = answers.filter(({ athleteId, helps }) => (known.get(athleteId) ?? false) !== helps)
		await keepTrialAnswers(scope, trialId, changed)
		if (trial.kind === 'heavy-before') for (const { athleteId } of changed) turned.add(athleteId)
	}
	if (turned.size > 0) await rewriteUpcoming(scope, [...turned], today, now)
}

/** How long which entries of a session wait, and for which: where it is a day of a trial. */
export async function waitsOf(
	scope: ClubScope,
	sessionId: string,
): Promise<ReadonlyMap<string, { minutes: number; after: string[] }>> {
	const waits = new Map<string, { minutes: number; after: string[] }>()
	for (const { entries } of await trialDaysOf(scope, sessionId))
		for (const [minutes, entryId] of Object.entries(entries.after))
			if (Number(minutes) > 0)
				waits.set(entryId, {
					minutes: Number(minutes),
					after: [entries.before, ...(entries.treatment ? [entries.treatment] : [])],
				})
	return waits
}
