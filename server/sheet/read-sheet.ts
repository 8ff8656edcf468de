import { foldEvents } from '../../core/events/fold'
import { countLine } from '../../core/dose/count-line'
import { type DoseCount, addCounts, emptyCount, sumCounts } from '../../core/dose/dose-count'
import { fromSparse } from '../../core/dose/sparse-count'
import type { Drill } from '../../core/vocabulary/drill'
import type { Level } from '../../core/vocabulary/words'
import type { Library } from '../../core/vocabulary/library'
import { flowEntry, simulateEntry } from '../../core/plan/flow'
import { type StripPart, stripOf } from '../../core/plan/session-strip'
import { estimateMinutes } from '../../core/dose/estimate-minutes'
import type { ClubScope } from '../../db/connect'
import { type StoredEvent, eventsOfSessions } from '../../db/queries/log'
import { readDrills, readLibrary } from '../../db/queries/library'
import {
	type EntryRow,
	type LineRow,
	type ListedSession,
	readAttending,
	readEntries,
	readLines,
	readSession,
} from '../../db/queries/sessions'
import { type AthleteRow, readAthletes, readLevels, readSquad } from '../../db/queries/squads'
import type { Concluded } from '../../core/permit/known'
import { type PlainFacts, concludeFor } from '../../core/permit/plain-facts'
import { permit } from '../../core/permit/permit'
import { sayReason } from '../../core/permit/say'
import type { RuleId } from '../../core/rules/rule'
import { readFacts } from '../facts/read-facts'
import { plannedOf } from './planned-of'

export interface SheetLine extends LineRow {
	drill: Drill | null
	minutes: number
	/** On a sheet that is frozen: why this is over for the athlete by now; null while it stands. */
	over: string | null
}
export interface SheetAthlete extends AthleteRow {
	/** Plyometric level: what the published session range goes by. */
	level: Level
	planned: DoseCount
	done: DoseCount
	minutes: number
	lines: SheetLine[]
}
/** What is on record of an athlete, and what follows. */
export interface KnownAthlete {
	plain: PlainFacts
	concluded: Concluded
}
export interface Sheet {
	session: ListedSession
	entries: EntryRow[]
	athletes: SheetAthlete[]
	strip: StripPart[]
	/** Events that stand, and corrections that contradict each other. */
	events: StoredEvent[]
	conflicts: StoredEvent[][]
	/** Every event, replaced ones too. */
	all: StoredEvent[]
	library: Library
	/** What is known of each athlete now, where the sheet had to ask; `knownOf` reads it for the others. */
	known: ReadonlyMap<string, KnownAthlete> | null
}

/** A session with each athlete's own line, what it costs and what has been done; null for a stranger's id. */
export async function readSheet(scope: ClubScope, sessionId: string): Promise<Sheet | null> {
	const session = await readSession(scope, sessionId)
	if (!session) return null
	const [entries, lines, attending, library] = [
		await readEntries(scope, [sessionId]),
		await readLines(scope, [sessionId]),
		await readAttending(scope, [sessionId]),
		await readLibrary(scope),
	]
	const athleteIds = attending.map((row) => row.athleteId)
	const order = new Map(attending.map((row) => [row.athleteId, row.position]))
	const athletes = (await readAthletes(scope, athleteIds)).sort(
		(a, b) => (order.get(a.id) ?? 0) - (order.get(b.id) ?? 0),
	)
	const levelOf = await readLevels(scope, athleteIds)
	const drills = await readDrills(
		scope,
		lines.map((line) => line.drillId ?? ''),
	)
	const drillOf = (line: LineRow) => drills.get(`${line.drillId}/${line.drillVersion}`) ?? null
	const all = await eventsOfSessions(scope, [sessionId])
	const { current: events, conflicts } = foldEvents(all)
	const position = new Map(entries.map((entry) => [entry.id, entry.position]))

	const known = session.startedAt && !session.reviewedAt ? await readKnown(scope, session, athleteIds, library) : null
	const overOf = overNow(known, library)
	const people = athletes.map((athlete): SheetAthlete => {
		const own = lines
			.filter((line) => line.athleteId === athlete.id && position.has(line.entryId))
			.sort((a, b) => position.get(a.entryId)! - position.get(b.entryId)!)
		const sheetLines = own.map((line): SheetLine => {
			const drill = drillOf(line)
			return {
				...line,
				drill,
				over: drill ? overOf(line) : null,
				minutes: drill ? estimateMinutes(line.dose, line.parameters, line.rest, drill.defaults.repS) : 0,
			}
		})
		const legLength = athlete.legLengthM === null ? {} : { legLengthM: athlete.legLengthM }
		return {
			...athlete,
			level: levelOf(athlete.id, 'plyometric'),
			planned: sheetLines.reduce(
				(sum, line) =>
					line.drill ? addCounts(sum, countLine(line.drill, line.parameters, line.dose, legLength)) : sum,
				emptyCount(),
			),
			done: sumCounts(
				events
					.filter((event) => event.athleteId === athlete.id && event.counts)
					.map((event) => fromSparse(event.counts ?? {})),
			),
			minutes: Math.round(sheetLines.reduce((sum, line) => sum + line.minutes, 0)),
			lines: sheetLines,
		}
	})
	const strip = stripOf(
		entries.map((entry) => {
			const own = people.flatMap((athlete) =>
				athlete.lines.flatMap((line) => {
					const planned = plannedOf(line)
					return line.entryId === entry.id && planned && line.drill
						? [{ athleteId: athlete.id, line: planned, drill: line.drill }]
						: []
				}),
			)
			const flow = flowEntry(
				{ id: entry.id, name: entry.part, lanes: entry.lanes, together: entry.together },
				own.map(({ athleteId, line, drill }) => ({
					athleteId,
					drill,
					dose: line.dose,
					parameters: line.parameters,
					rest: line.rest,
				})),
			)
			return { part: entry.part, family: entry.family, minutes: flow ? simulateEntry(flow).minutes : 0, lines: own }
		}),
	)
	return { session, entries, athletes: people, strip, events, conflicts, all, library, known }
}

/** What is known of each athlete of a sheet by now, by id: read once for a sheet. */
export async function knownOf(scope: ClubScope, sheet: Sheet): Promise<ReadonlyMap<string, KnownAthlete>> {
	const ids = sheet.athletes.map(({ id }) => id)
	sheet.known ??= await readKnown(scope, sheet.session, ids, sheet.library)
	return sheet.known
}
async function readKnown(
	scope: ClubScope,
	session: ListedSession,
	athleteIds: string[],
	library: Library,
): Promise<ReadonlyMap<string, KnownAthlete>> {
	const squad = await readSquad(scope, session.squadId)
	if (!squad) return new Map()
	const facts = await readFacts(scope, session, squad, athleteIds, library, session.day)
	return new Map([...facts].map(([id, plain]) => [id, { plain, concluded: concludeFor(plain, library) }]))
}

/**
 * A sheet that has begun keeps its lines. What has been said of an athlete's body since then lies over them: a line
 * that what hurts bars now is over, whatever is written.
 */
const overNow =
	(known: ReadonlyMap<string, KnownAthlete> | null, library: Library) =>
	({ athleteId, drillId, parameters, dose }: LineRow): string | null => {
		const concluded = known?.get(athleteId)?.concluded
		if (!concluded || drillId === null || !library.drills[drillId]) return null
		const found = permit(concluded, { drillId, parameters, dose }).findings.filter((one) =>
			OF_THE_BODY.includes(one.rule),
		)
		return found.length > 0 ? sayReason(found) : null
	}
const OF_THE_BODY: readonly RuleId[] = ['S1', 'S2', 'S3']
