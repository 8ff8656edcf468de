import { addDays, daysBetween } from '../../core/calendar/day-count'
import { ageInYears } from '../../core/calendar/days'
import { episodesOf } from '../../core/care/episodes'
import type { Clearance } from '../../core/vocabulary/care'
import { foldEvents } from '../../core/events/fold'
import { rungOf } from '../../core/library/starter-library'
import type { Library } from '../../core/vocabulary/library'
import type { LogEvent } from '../../core/vocabulary/events'
import { type WeeklyLoad, sessionLoad, weeklyLoad } from '../../core/measure/load/weekly-load'
import { proposeLevel } from '../../core/judge/level-proposal'
import { repsOfMark } from '../../core/dose/sides'
import { placeOf } from '../../core/rules/bars'
import { gateOf, overOf, passedRungs } from '../../core/judge/locks'
import { entryState } from '../../core/judge/resolve-line'
import { namesOn } from '../../core/plan/entry-parts'
import { readRecordsOf } from '../marks/read-records'
import { listSetAside } from '../marks/set-aside'
import type { ClubScope } from '../../db/connect'
import { type OutsideRow, careOf, deskReportsOf, movesOf, outsideLoadOf, outsideOf } from '../../db/queries/care'
import { type StoredEvent, eventsOfAthlete } from '../../db/queries/log'
import { notesBetween } from '../log/notes-between'
import { contactsOf } from '../../db/queries/emergency'
import { readLibrary } from '../../db/queries/library'
import {
	type SessionRow,
	linesOf,
	readEntries,
	readLines,
	readLinesById,
	readSession,
	recentSessionsOf,
	unstartedFor,
} from '../../db/queries/sessions'
import { listMembers, listSquads, readAthletes, readLevels, readStates, stateKey } from '../../db/queries/squads'
import { clearancesOf, decidedOfAthlete } from '../../db/queries/verdicts'
import { standingsOf } from '../review/gather'
import { concludeFor } from '../../core/permit/plain-facts'
import { readFacts } from '../facts/read-facts'
import { fieldSegments, fieldSpeed, ownOf } from '../../core/own/own'
import { sayStanding } from '../../core/own/say-own'
import { keptPage } from '../kept'
import { readErrors } from '../marks/read-errors'
import { readFieldRuns, readMeasured } from '../own/read-measured'
import { readMeasurements } from '../bench/read-measurements'
import { type Effort, effortsOf } from '../../core/record/effort'
import { SPANS } from '../../core/record/story'
import { type StoryOf, readStory } from '../record/read-story'
import { versionOf } from '../submissions/take-version'
import { plannedOf } from '../sheet/planned-of'
import { writeLine } from '../sheet/write-lines'
import { readType } from './read-type'

/** The log is read so far back; a picture of everything, so far. */
const LOG_DAYS = 70
const LONGEST_DAYS = 3650
/** Notes shown. */
const NOTED = 4
/** The families an athlete has a level in. */
const LEVELLED = ['sprint', 'agility', 'plyometric', 'throw'] as const

const rungName = (library: Library, ladderId: string, rungId: string): string =>
	library.ladders[ladderId]?.rungs.find((rung) => rung.id === rungId)?.name ?? rungId

/** The last seven days of session effort × minutes, sessions and outside together; null when nobody gave an effort. */
function weekOfLoad(
	sessions: readonly { day: string; effort: Effort }[],
	outside: readonly OutsideRow[],
	today: string,
): WeeklyLoad | null {
	const days = Array.from({ length: 7 }, (_, index) => addDays(today, index - 6))
	const loads = new Map(days.map((day) => [day, 0]))
	let said = false
	const add = (day: string, rpe: number, minutes: number) => {
		if (!loads.has(day)) return
		said = true
		loads.set(day, (loads.get(day) ?? 0) + sessionLoad(rpe, minutes))
	}
	for (const { day, effort } of sessions) add(day, effort.value.rpe, effort.value.minutes)
	for (const row of outside) if (row.rpe !== null) add(row.day, row.rpe, row.minutes)
	return said ? weeklyLoad([...loads.values()]) : null
}

/** How long after a session it is asked how hard it was, in days. */
const EFFORT_DAYS = 2
/** The last session of these days that they did something in and of which nobody has said how hard it was. */
function effortAsked(
	sessions: readonly SessionRow[],
	events: readonly StoredEvent[],
	said: ReadonlyMap<string, Effort>,
	today: string,
): { sessionId: string; day: string; minutes: number } | null {
	const came = new Set(events.flatMap((event) => (event.type === 'mark' ? [event.sessionId as string] : [])))
	const last = sessions.find(({ id, day }) => came.has(id) && daysBetween(day, today) <= EFFORT_DAYS)
	return last && !said.has(last.id) ? { sessionId: last.id, day: last.day, minutes: last.plannedMinutes } : null
}

/** The steps of the way back of one day: whether each was done, and what was said when asked. */
export interface WalkedDay {
	day: string
	steps: { name: string; done: boolean }[]
	answers: { place: string; score: number }[]
}

/** Since when steps of a way back are looked for: the last clearance; after time away alone the last four weeks. */
const backSince = (clearances: readonly Clearance[], today: string): string =>
	clearances
		.map((one) => one.day)
		.sort()
		.at(-1) ?? addDays(today, -28)

/** The days on which steps of the way back stood on somebody's sheets, newest first. */
function walkedOf(
	library: Library,
	lines: { entryId: string; sessionId: string; day: string; rungId: string | null; drillId: string | null }[],
	events: readonly LogEvent[],
): WalkedDay[] {
	const rungs = Object.values(library.ladders).flatMap((ladder) => (ladder.path === undefined ? [] : ladder.rungs))
	const days = new Map<string, WalkedDay>()
	for (const { entryId, sessionId, day, rungId, drillId } of lines) {
		// Low work beside a step is of another drill.
		const rung = rungs.find((one) => one.id === rungId && one.drillId === drillId)
		if (!rung) continue
		const own = events.filter((event) => event.sessionId === sessionId)
		const known = days.get(day) ?? {
			day,
			steps: [],
			answers: own.flatMap((event) =>
				event.kind === 'quiet' ? [{ place: placeOf(event.value), score: event.value.score }] : [],
			),
		}
		const done = own.some((event) => event.type === 'mark' && event.entryId === entryId && repsOfMark(event) > 0)
		const step = known.steps.find((one) => one.name === rung.name)
		if (step) step.done ||= done
		else known.steps.push({ name: rung.name, done })
		days.set(day, known)
	}
	return [...days.values()].sort((a, b) => (a.day < b.day ? 1 : -1)).slice(0, 12)
}

/** What was noted of an athlete on each drill the last time, newest first. */
async function notedLast(
	scope: ClubScope,
	athleteId: string,
	today: string,
	library: Library,
): Promise<{ drill: string; day: string; text: string }[]> {
	const last = new Map<string, { drill: string; day: string; text: string }>()
	for (const { drillId, day, text } of await notesBetween(scope, [athleteId], addDays(today, -84), today))
		last.set(drillId, { drill: library.drills[drillId]?.name ?? drillId, day, text })
	return [...last.values()].sort((a, b) => (a.day < b.day ? 1 : -1)).slice(0, NOTED)
}

type Asked = (StoryOf['asked'] & { forPlanner: boolean }) | null
/**
 * An athlete's page: now, where it is going, numbers, ladders, history, care. Null for a stranger's id.
 *
 * @param asked which picture and which day, and whether for somebody who plans; null where the story is not shown
 */
export const readAthletePage = (scope: ClubScope, athleteId: string, today: string, asked: Asked = null) =>
	keptPage(scope, ['athlete', athleteId, today, asked], (scope) => workOutAthlete(scope, athleteId, today, asked))
async function workOutAthlete(scope: ClubScope, athleteId: string, today: string, asked: Asked) {
	const [athlete] = await readAthletes(scope, [athleteId])
	if (!athlete) return null
	const [library, levelOf, states, members, squads] = [
		await readLibrary(scope),
		await readLevels(scope, [athleteId]),
		await readStates(scope, [athleteId]),
		await listMembers(scope),
		await listSquads(scope),
	]
	const own = new Set(members.filter((member) => member.id === athleteId).map((member) => member.squadId))
	const squad = squads.find((candidate) => own.has(candidate.id))
	const school = library.schools[squad?.schoolId ?? 'quality-first']
	if (!school) throw new Error(`school ${squad?.schoolId} is not in the library`)
	const days = asked === null ? LOG_DAYS : (SPANS[asked.span] ?? LONGEST_DAYS)
	const ageYears = athlete.birthDate === null ? null : ageInYears(athlete.birthDate, today)

	const records = await careOf(scope, [athleteId])
	const outside = await outsideOf(scope, [athleteId], addDays(today, -days))
	const standings = standingsOf(states, library).get(athleteId) ?? {}
	const day = {
		day: today,
		startTime: squad?.startTime ?? '17:30',
		phase: squad?.phase ?? ('accumulate' as const),
		surface: null,
	}
	const facts = await readFacts(scope, day, { schoolId: school.id }, [athleteId], library, today)
	const concluded = concludeFor(facts.get(athleteId)!, library)
	const ladders = Object.values(library.ladders)
		.filter((ladder) => ladder.path === undefined)
		.map((ladder) => {
			const known = states.get(stateKey(athleteId, ladder.id))?.state
			const state = known ?? entryState(library, ladder.id)
			const { index, rung } = rungOf(ladder, state.rungId)
			const path = state.reentry ? library.ladders[state.reentry.pathId] : undefined
			const passed = new Set(standings[ladder.id] ?? passedRungs(state, ladder))
			return {
				id: ladder.id,
				name: ladder.name,
				family: ladder.family,
				met: known !== undefined,
				state,
				index,
				rungName: rung.name,
				onOneLeg: library.drills[rung.drillId]?.legs === 'one',
				/** Why its own rung is over for now; null when it is not. */
				over: overOf(concluded.facts, rung),
				focus: squad?.focus?.[ladder.id] ?? null,
				path: path
					? {
							name: path.name,
							steps: path.rungs.map((step) => step.name),
							at: path.rungs.findIndex((step) => step.id === state.reentry?.rungId),
						}
					: null,
				rungs: ladder.rungs.map((item) => {
					const lock = gateOf(concluded.facts, item)
					return {
						id: item.id,
						name: item.name,
						passed: passed.has(item.id),
						lock: lock?.words ?? null,
						block: lock?.tier === 'block',
					}
				}),
			}
		})

	const levelVersions = Object.fromEntries(
		await Promise.all(
			LEVELLED.map(async (family) => [family, await versionOf(scope, 'level', `${athleteId}/${family}`)] as const),
		),
	)
	const [next] = await unstartedFor(scope, [athleteId], today)
	const nextSession = next ? await readSession(scope, next.id) : null
	const nextLines = next ? (await readLines(scope, [next.id])).filter((line) => line.athleteId === athleteId) : []
	const nextNames = next ? namesOn(await readEntries(scope, [next.id]), library) : new Map<string, string>()
	const sessions = (await recentSessionsOf(scope, [athleteId], today, days)).map(({ session }) => session)
	const lately = sessions.filter(({ day }) => day > addDays(today, -LOG_DAYS)).map(({ id }) => id)
	const folded = foldEvents(await eventsOfAthlete(scope, athleteId, lately))
	// What turned out to be somebody else's is theirs.
	const isOwn = (event: StoredEvent) => event.athleteId === athleteId || event.athleteId === null
	const events = { current: folded.current.filter(isOwn), conflicts: folded.conflicts.flat().filter(isOwn) }
	const efforts = effortsOf(events.current, athleteId)
	const known = facts.get(athleteId)!
	const walked = walkedOf(
		library,
		(await linesOf(scope, [athleteId], backSince(known.clearances, today), today)).flatMap(({ line, session }) =>
			session.startedAt === null ? [] : [{ ...line, day: session.day }],
		),
		events.current,
	)
	const pains = [...events.current, ...events.conflicts].flatMap((event) =>
		event.athleteId === athleteId && event.type === 'observation' && event.kind === 'pain' && !event.void
			? [{ id: event.id, at: event.deviceTime, ...event.value }]
			: [],
	)
	// What was said at the desk is of its day, whatever hour it was.
	const atTheDesk = (await deskReportsOf(scope, athleteId, addDays(today, -70))).flatMap((row) =>
		row.kind === 'pain' && row.region && !row.isVoid
			? [
					{
						id: row.id,
						at: `${row.day}T12:00:00.000Z`,
						region: row.region,
						side: row.side ?? ('both' as const),
						score: row.score ?? 0,
						moment: row.moment ?? ('during' as const),
						redFlag: row.redFlag,
					},
				]
			: [],
	)
	const runs = (await readFieldRuns(scope, [athleteId], addDays(today, 1))).get(athleteId) ?? []
	const errors = squad ? await readErrors(scope, squad.id, addDays(today, 1)) : {}
	const { records: marked, means } = await readRecordsOf(scope, athleteId, addDays(today, 1), library, errors)
	const decided = await decidedOfAthlete(scope, athleteId, 60)
	const measured = await readMeasurements(scope, athleteId)
	const story =
		asked &&
		(await readStory(scope, {
			athleteId,
			today,
			library,
			errors,
			facts: known,
			sessions,
			events: events.current,
			lines: new Map(
				(
					await readLinesById(scope, [
						...new Set(events.current.flatMap((event) => ('lineId' in event && event.lineId ? [event.lineId] : []))),
					])
				).map((line) => [line.id, line]),
			),
			means,
			keys: marked.map(({ key }) => key),
			outside: outside.map(outsideLoadOf),
			illnesses: records.flatMap((row) =>
				row.kind === 'illness' && row.endedOn !== row.fromDay ? [{ since: row.fromDay, until: row.endedOn }] : [],
			),
			bench: measured.map(({ takenOn, title, headline }) => ({ day: takenOn, words: `${title}: ${headline}` })),
			moves: decided.flatMap((row) =>
				row.decided === 'hold'
					? []
					: [{ day: row.day, verdict: row.decided, words: library.ladders[row.ladderId]?.name ?? row.ladderId }],
			),
			asked,
		}))
	const episodes = episodesOf({ ...known, returning: concluded.plan.regions }, today)
	return {
		athlete,
		story,
		built: asked?.forPlanner
			? await readType(scope, {
					athleteId,
					squadIds: [...new Set(members.filter((one) => own.has(one.squadId)).map(({ id }) => id))],
					keys: marked.flatMap(({ key, kind }) => (kind === 'sprint' || kind === 'contact' ? [{ key, kind }] : [])),
					closedOn: episodes.map(({ from }) => from),
					lifts: outside.flatMap((row) => outsideLoadOf(row).lifts ?? []),
					massKg: athlete.massKg,
					today,
				})
			: null,
		version: await versionOf(scope, 'athlete', athleteId),
		ageYears,
		squadId: squad?.id ?? null,
		today,
		squads: squads.map(({ id, name }) => ({ id, name })),
		memberOf: [...own],
		squadNames: squads.filter((candidate) => own.has(candidate.id)).map((candidate) => candidate.name),
		levels: LEVELLED.map((family) => ({
			family,
			version: levelVersions[family] ?? 0,
			level: levelOf(athleteId, family),
			proposal: proposeLevel(
				family,
				levelOf(athleteId, family),
				Object.values(library.ladders).filter((ladder) => states.has(stateKey(athleteId, ladder.id))),
				concluded.facts,
			),
		})),
		care: records,
		closures: concluded.facts.closures,
		episodes,
		walked,
		waysBack: concluded.plan.paths.flatMap(({ ladder, due, steps, repeats }) =>
			due
				? [
						{
							name: ladder.name,
							steps: steps.map((rung) => rung.name),
							at: steps.findIndex((rung) => rung.id === due.rung.id),
							repeats,
						},
					]
				: [],
		),
		outside: outside.filter((row) => row.day >= addDays(today, -28)).reverse(),
		load: weekOfLoad(
			sessions.flatMap(({ id, day }) => {
				const effort = efforts.get(id)
				return effort ? [{ day, effort }] : []
			}),
			outside,
			today,
		),
		effortAsked: effortAsked(sessions, events.current, efforts, today),
		moves: (await movesOf(scope, athleteId)).slice(0, 20).map((row) => ({
			id: row.id,
			day: row.at.toISOString().slice(0, 10),
			ladderName: library.ladders[row.ladderId]?.name ?? row.ladderId,
			from: rungName(library, row.ladderId, row.before.rungId),
			to: rungName(library, row.ladderId, row.after.rungId),
			reason: row.reason,
		})),
		drills: Object.values(library.drills).map(({ id, name, family }) => ({ id, name, family })),
		ladders,
		next: nextSession
			? {
					id: nextSession.id,
					day: nextSession.day,
					startTime: nextSession.startTime,
					squadName: nextSession.squadName,
					lines: nextLines
						.filter((line) => line.drillId !== null || line.blocked !== null)
						.map((line) => ({
							id: line.id,
							onLadder: line.ladderId !== null,
							words: line.blocked === null ? writeLine(plannedOf(line), library) : (nextNames.get(line.entryId) ?? ''),
							/** Why there is nothing to do on it. */
							blocked: line.blocked,
							change: line.change,
						})),
				}
			: null,
		setAside: await listSetAside(scope, { athleteIds: [athleteId] }, addDays(today, 1), library),
		records: marked,
		verdicts: decided
			.filter((row) => row.decided !== 'hold' || row.reason !== null)
			.slice(0, 16)
			.map((row) => ({
				id: row.id,
				day: row.day,
				ladderName: library.ladders[row.ladderId]?.name ?? row.ladderId,
				decided: row.decided,
				judgement: row.judgement,
				reason: row.reason,
			})),
		pains: [...pains, ...atTheDesk].sort((a, b) => (a.at < b.at ? 1 : -1)),
		measured,
		segments: fieldSegments(runs),
		noted: asked ? await notedLast(scope, athleteId, today, library) : [],
		standing: sayStanding(
			ownOf(
				(await readMeasured(scope, [athleteId], today)).get(athleteId) ?? [],
				school.numbers.sprintGoalMs / 1000,
				today,
				fieldSpeed(runs),
			),
			school,
		),
		clearances: await clearancesOf(scope, athleteId),
		emergency: {
			contact: (await contactsOf(scope, [athleteId])).get(athleteId) ?? null,
			version: await versionOf(scope, 'contact', athleteId),
		},
	}
}
