import type { Concluded } from '../../core/permit/known'
import { permit } from '../../core/permit/permit'
import { concludeFor } from '../../core/permit/plain-facts'
import { readFacts } from '../facts/read-facts'
import { addDays } from '../../core/calendar/day-count'
import { sayLimitsOf } from '../../core/field/say-limits'
import { lastNoted } from '../../core/field/last-time'
import { makeLine } from '../../core/field/make-line'
import type { FieldAthlete, GuestLine, Pack, ToldEvent } from '../../core/field/pack'
import { asksOf, limitsOf } from '../../core/field/body-now'
import { type BodyLimits, sayLimits } from '../../core/field/over-today'
import { isOfTheDay } from '../../core/events/of-the-day'
import { isOfBody } from '../../core/vocabulary/event-kinds'
import type { LogEvent } from '../../core/vocabulary/events'
import type { Drill } from '../../core/vocabulary/drill'
import type { Level, Method, Surface } from '../../core/vocabulary/words'
import { fitSprintProfile } from '../../core/measure/sprint/fit-profile'
import { MeasureError } from '../../core/measure/measure-error'
import { readyReference } from '../../core/noise/ready-reference'
import { type SquadErrors, typicalErrorOf } from '../../core/noise/typical-error'
import { type TopSpeed, newerSpeed } from '../../core/own/own'
import type { OwnWord } from '../../core/own/say-own'
import { isOpen } from '../../core/judge/gather-input'
import type { ClubScope } from '../../db/connect'
import { careOf, careRecordOf } from '../../db/queries/care'
import { groupBy } from '../../core/lists/group-by'
import type { StoredEvent } from '../../db/queries/log'
import { notesBetween } from '../log/notes-between'
import { type FirstRep, firstRepsBefore } from '../own/first-reps'
import type { KeyBests } from '../../db/queries/marks'
import { firstMetresOf, markKey, partOf, plainRun, surfaceClass } from '../../core/marks/mark-key'
import { NO_MARKS, keptFor, keptPage } from '../kept'
import { readErrors } from '../marks/read-errors'
import { readUsuals } from '../marks/read-usuals'
import { readFieldSpeeds } from '../own/read-measured'
import { authorsById } from '../../db/queries/clubs'
import { addressOf, contactsOf } from '../../db/queries/emergency'
import { readDrills, readLibrary } from '../../db/queries/library'
import { type ListedSession, readAttending, readSession, sessionsBetween } from '../../db/queries/sessions'
import { type AthleteRow, readSquad } from '../../db/queries/squads'
import type { Role } from '../../db/schema/people'
import { may } from '../access/roles'
import { namesOn } from '../../core/plan/entry-parts'
import { afterLoad } from '../../core/plan/permit-line'
import { waitsOf } from '../record/trials'
import { idsOf } from '../sheet/drills-of-lines'
import { type Sheet, type SheetLine, knownOf, readSheet } from '../sheet/read-sheet'
import { readOthers } from './read-others'
import { readTargets } from '../sheet/read-targets'

/** Today and the sessions of the week ahead travel with the device. */
export const DAYS_AHEAD = 7
/** What was noted this far back is said when somebody steps up. */
const NOTED_DAYS = 60
/** First reps this far back say what is usual. */
const USUAL_DAYS = 120

/**
 * Ids of the sessions a device should hold, soonest first: of today, one of yesterday evening that is still going on, and
 * those of the week ahead for whoever logs more than today.
 */
export async function sessionsForDevice(scope: ClubScope, role: Role, today: string, now: Date): Promise<string[]> {
	const until = may(role, 'marks:write') ? addDays(today, DAYS_AHEAD) : today
	return (await sessionsBetween(scope, addDays(today, -1), until))
		.filter((session) => session.reviewedAt === null && (session.day >= today || goesOn(session, today, now)))
		.map((session) => session.id)
}
const goesOn = (session: ListedSession, today: string, now: Date): boolean =>
	session.startedAt !== null && isOfTheDay(session, now.toISOString(), today)

/**
 * A session with all that the field needs of it; null for a stranger's id.
 *
 * @param today the club's day, where it is to hold who else may come as well
 */
export const readPack = (
	scope: ClubScope,
	sessionId: string,
	role: Role,
	today: string | null = null,
): Promise<Pack | null> =>
	keptPage(scope, ['pack', sessionId, role, today], (scope) => workOutPack(scope, sessionId, role, today))
async function workOutPack(
	scope: ClubScope,
	sessionId: string,
	role: Role,
	today: string | null,
): Promise<Pack | null> {
	const sheet = await readSheet(scope, sessionId)
	const squad = sheet && (await readSquad(scope, sheet.session.squadId))
	const school = squad && sheet.library.schools[squad.schoolId]
	if (!sheet || !school) return null
	const athleteIds = sheet.athletes.map((athlete) => athlete.id)
	const { day } = sheet.session
	const [targets, care, usuals, firsts] = [
		await readTargets(scope, sheet),
		await careOf(scope, athleteIds),
		await readUsuals(scope, athleteIds, day),
		await firstRepsBefore(scope, athleteIds, addDays(day, -USUAL_DAYS), day),
	]
	const known = await knownOf(scope, sheet)
	const contacts = await contactsOf(scope, athleteIds)
	const notes = groupBy(
		await notesBetween(scope, athleteIds, addDays(day, -NOTED_DAYS), addDays(day, -1)),
		(note) => `${note.athleteId}/${note.drillId}`,
	)
	const errors = await readErrors(scope, sheet.session.squadId, day)
	const speeds = await readFieldSpeeds(scope, athleteIds, day, firsts)
	const ground = surfaceClass(sheet.session.surface)
	const isOnGround = (key: string) => partOf(key, 'surface') === ground
	/** What everybody who logs may know of an athlete, from what is concluded of them. */
	const athleteOf = (
		athlete: Pick<AthleteRow, 'id' | 'name' | 'legLengthM'>,
		level: Level,
		concluded: Concluded,
	): Omit<FieldAthlete, 'barred'> => ({
		id: athlete.id,
		name: athlete.name,
		level,
		legLengthM: athlete.legLengthM,
		spare: spareOf(concluded),
		limits: limitsOf(concluded),
		ask: asksOf(concluded, day),
		worries: [],
		curve: null,
		usual: [],
	})
	const coming = today === null ? null : await readOthers(scope, sheet, squad, today)
	const { drills, standIns } = await drillsOf(
		scope,
		sheet,
		coming === null ? [] : [...coming.others, coming.stranger].flatMap(({ lines }) => lines),
	)
	const barredFor = (concluded: Concluded) =>
		Object.values(drills).flatMap((drill) =>
			['instead', 'no'].includes(permit(concluded, { drillId: drill.id }).answer) ? [drill.id] : [],
		)
	// Who wears a weight already is not given a second drill with one.
	const wears = new Set(
		sheet.athletes.flatMap(({ id, lines }) =>
			lines.some((line) => sheet.drills.parts(line).some(({ drill }) => drill.carriesLoad)) ? [id] : [],
		),
	)
	const athletes = sheet.athletes.map((athlete): FieldAthlete => {
		const { id } = athlete
		const open = care
			.filter((row) => row.athleteId === id)
			.map(careRecordOf)
			.filter((record) => isOpen(record, day))
		const { plain, concluded } = known.get(id)!
		return {
			...athleteOf(athlete, athlete.level, concluded),
			contact: contacts.get(id) ?? null,
			barred: barredFor(wears.has(id) ? afterLoad(concluded) : concluded),
			sayLimits: sayLimitsOf({ ...plain, returning: concluded.plan.regions }, day),
			worries: open.flatMap((record) =>
				// The alternative stands on the line already; what is not trusted is not everybody's to read.
				record.kind === 'worry' && may(role, 'pain:read') ? [{ drillId: record.drillId, region: record.region }] : [],
			),
			curve:
				curveOf(newerSpeed(plain.own?.topSpeed ?? null, speeds.get(id) ?? null)) ??
				curveOfBests(usuals.bests.filter((best) => best.athleteId === id && isOnGround(best.key))),
			usual: usualOf(
				firsts.filter((rep) => rep.athleteId === id && rep.key !== null && isOnGround(rep.key)),
				errors,
			),
		}
	})
	const names = namesOn(sheet.entries, sheet.library)
	const waits = await waitsOf(scope, sheet.session.id)
	return {
		events: await told(
			scope,
			sheet.events.concat(sheet.conflicts.flat()).filter((event) => readable(event, role)),
		),
		sheet: {
			session: {
				id: sheet.session.id,
				title: sheet.session.title,
				squadName: sheet.session.squadName,
				day,
				startTime: sheet.session.startTime,
				place: sheet.session.place,
				address: await addressOf(scope, sheet.session.place),
				surface: sheet.session.surface,
				minutes: sheet.session.plannedMinutes,
			},
			entries: sheet.entries.map((entry) => ({
				id: entry.id,
				part: entry.part,
				name: names.get(entry.id)!,
				...(waits.has(entry.id) ? { waits: waits.get(entry.id)! } : {}),
			})),
			athletes,
			lines: sheet.athletes.flatMap((athlete) =>
				athlete.lines.map((line) => {
					const target = targets.get(line.id)
					const own = errors[line.drillId ?? '']
					const firstMetres = line.drill && firstMetresOf(runKey(line.drill, line, sheet.session.surface))
					const lastTime = lastNoted(notes.get(`${athlete.id}/${line.drillId}`) ?? [])
					return makeLine(
						{ id: line.id, entryId: line.entryId, athleteId: athlete.id },
						line,
						line.drill,
						school,
						{
							target: target?.words ?? '',
							...ownWords(target?.own),
							...(own ? { errors: own } : {}),
							...(lastTime ? { lastTime } : {}),
							bests: target?.bests ?? {},
							usuals: target?.usuals ?? {},
							...(firstMetres ? { firstMetres } : {}),
							blocked: line.blocked,
							over: line.over,
						},
						sheet.drills.of(line),
					)
				}),
			),
			drills,
			standIns,
			school,
			...(coming === null
				? {}
				: {
						others: coming.others.map(({ athlete, level, plain, concluded, lines }) => ({
							...athleteOf(athlete, level, concluded),
							sayLimits: sayLimitsOf({ ...plain, returning: concluded.plan.regions }, day),
							barred: barredFor(concluded),
							lines,
						})),
						stranger: { barred: barredFor(coming.stranger.concluded), lines: coming.stranger.lines },
					}),
		},
	}
}

/** "left knee": what is spared or closed, as far as everybody may read it. */
const spareOf = (known: Concluded): string[] => {
	const { over, spare } = sayLimits(limitsOf(known))
	return [...new Set([...over, ...spare])]
}

/** What limits each athlete of a session by now. */
export const readLimits = (scope: ClubScope, sessionId: string): Promise<Record<string, BodyLimits>> =>
	keptFor(scope, ['limits', sessionId], (scope) => workOutLimits(scope, sessionId), NO_MARKS)
async function workOutLimits(scope: ClubScope, sessionId: string): Promise<Record<string, BodyLimits>> {
	const session = await readSession(scope, sessionId)
	const squad = session && (await readSquad(scope, session.squadId))
	if (!session || !squad) return {}
	const [library, attending] = [await readLibrary(scope), await readAttending(scope, [sessionId])]
	const facts = await readFacts(
		scope,
		session,
		squad,
		attending.map((row) => row.athleteId),
		library,
		session.day,
	)
	return Object.fromEntries([...facts].map(([id, plain]) => [id, limitsOf(concludeFor(plain, library))]))
}

/** Another person's pain reports stay with coach and clinician. */
export const readable = (event: StoredEvent, role: Role): boolean => may(role, 'pain:read') || !isOfBody(event)
/** Events as devices write them, the corrections among them with who made them. */
export async function told(scope: ClubScope, events: readonly StoredEvent[]): Promise<ToldEvent[]> {
	const authors = await authorsById(scope, [
		...new Set(events.flatMap((event) => (event.replacesId ? [event.authorId] : []))),
	])
	return events.map(({ authorId, receivedAt: _received, counts: _counts, stamp: _stamp, ...event }) => {
		const by = event.replacesId ? authors.get(authorId)?.name : undefined
		return { ...(event as LogEvent), ...(by === undefined ? {} : { by }) }
	})
}

/** The drills of a sheet's lines with what may stand in for them, none of them harder than what they replace. */
async function drillsOf(
	scope: ClubScope,
	sheet: Sheet,
	more: readonly GuestLine[],
): Promise<{ drills: Record<string, Drill>; standIns: Record<string, string[]> }> {
	const drills: Record<string, Drill> = {}
	const standIns: Record<string, string[]> = {}
	const key = (drill: Drill) => `${drill.id}/${drill.version}`
	const planned = more.flatMap(({ planned: one }) =>
		idsOf({ drillId: one.drillId, pieces: one.pieces ?? null }).map((id) => ({
			drill: sheet.library.drills[id] ?? null,
		})),
	)
	const lines = sheet.athletes.flatMap((athlete) => athlete.lines)
	const pieces = lines.flatMap((line) => sheet.drills.parts(line))
	for (const { drill } of [...lines, ...pieces, ...planned]) {
		if (!drill || drills[key(drill)]) continue
		drills[key(drill)] = drill
		const others = [...new Set(Object.values(drill.alternatives))].flatMap((id) => sheet.library.drills[id] ?? [])
		for (const other of others) drills[key(other)] = other
		standIns[drill.id] = others.map(key)
	}
	// What was swapped in before may be of an older version than the library's newest.
	const swapped = sheet.events.flatMap((event) =>
		event.type === 'mark' && event.asDrill
			? [event.asDrill.drillId]
			: event.kind === 'swap' || event.kind === 'further'
				? [event.value.drillId]
				: [],
	)
	for (const [id, drill] of await readDrills(scope, swapped)) drills[id] ??= drill
	return { drills, standIns }
}

/** How a mark of a line is keyed that its first metres are timed on; the method is the mark's. */
const runKey = (drill: Drill, { parameters, carried, aid }: SheetLine, surface: Surface | null): string =>
	markKey(drill, parameters, { kind: 'sprint', method: 'gate', surface, carried, aid })
const ownWords = (own: readonly OwnWord[] | undefined) =>
	own && own.length > 0 ? { own: own.map(({ words }) => words) } : {}
const curveOf = (speed: TopSpeed | null) => speed && { mssMps: speed.mssMps, tauS: speed.tauS }
/** From at least three own bests by gates over unlike distances, all of free runs from one start. */
function curveOfBests(bests: readonly KeyBests[]): { mssMps: number; tauS: number } | null {
	for (const start of ['standing', 'three-point']) {
		const byDistance = new Map<number, number>()
		for (const { key, lowest } of bests) {
			const run = plainRun(key)
			if (run?.start !== start || run.method !== 'gate') continue
			byDistance.set(run.distanceM, Math.min(lowest, byDistance.get(run.distanceM) ?? Number.POSITIVE_INFINITY))
		}
		const splits = [...byDistance]
			.map(([distanceM, timeS]) => ({ distanceM, timeS }))
			.sort((a, b) => a.distanceM - b.distanceM)
		if (splits.length < 3) continue
		try {
			const { mssMps, tauS } = fitSprintProfile({ splits, correction: 'none' })
			return { mssMps, tauS }
		} catch (error) {
			if (!(error instanceof MeasureError)) throw error
		}
	}
	return null
}

function usualOf(firsts: FirstRep[], errors: SquadErrors): Pack['sheet']['athletes'][number]['usual'] {
	const byKey = new Map<
		string,
		{ firstMetres: string; distanceM: number; method: Method; drillId: string; times: number[] }
	>()
	for (const { key, method, splits } of firsts) {
		const firstMetres = key === null ? null : firstMetresOf(key)
		if (firstMetres === null) continue
		for (const { distanceM, timeS } of splits) {
			const like = `${firstMetres}/${distanceM}/${method}`
			const known = byKey.get(like) ?? { firstMetres, distanceM, method, drillId: partOf(key!, 'drill'), times: [] }
			known.times.push(timeS)
			byKey.set(like, known)
		}
	}
	return [...byKey.values()].flatMap(({ times, drillId, ...which }) => {
		const reference = readyReference(times, typicalErrorOf('sprint', which.method, errors[drillId]) ?? 0.1)
		return reference ? [{ ...which, reference }] : []
	})
}
