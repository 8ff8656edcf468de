import { foldEvents } from '../../core/events/fold'
import { countWork } from '../../core/dose/count-line'
import { paceOf } from '../../core/vocabulary/line-parts'
import { type DoseCount, addCounts, emptyCount, sumCounts } from '../../core/dose/dose-count'
import { fromSparse } from '../../core/dose/sparse-count'
import type { Drill } from '../../core/vocabulary/drill'
import type { Level } from '../../core/vocabulary/words'
import type { Library } from '../../core/vocabulary/library'
import { flowEntry, flowLineOf, simulateEntry } from '../../core/plan/flow'
import { type StripPart, stripOf } from '../../core/plan/session-strip'
import { estimateMinutes } from '../../core/dose/estimate-minutes'
import type { ClubScope } from '../../db/connect'
import type { StoredEvent } from '../../db/queries/log'
import { keptEvents, keptFor } from '../kept'
import { readLibrary } from '../../db/queries/library'
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
import { permitWork } from '../../core/plan/permit-line'
import { sayReason } from '../../core/permit/say'
import type { RuleId } from '../../core/rules/rule'
import { breathe } from '../breathe'
import { readFacts } from '../facts/read-facts'
import { type DrillsOfLines, readDrillsOfLines } from './drills-of-lines'

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
	/** The drills its lines cite, as they are kept. */
	drills: DrillsOfLines
	/** What is known of each athlete now, where the sheet had to ask; `knownOf` reads it for the others. */
	known: ReadonlyMap<string, KnownAthlete> | null
}

/** A session with each athlete's own line, what it costs and what has been done, kept as long as nothing changes; null for a stranger's id. */
export const readSheet = (scope: ClubScope, sessionId: string): Promise<Sheet | null> =>
	keptFor(scope, ['sheet', sessionId], (scope) => workOutSheet(scope, sessionId))
async function workOutSheet(scope: ClubScope, sessionId: string): Promise<Sheet | null> {
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
	const drills = await readDrillsOfLines(scope, lines)
	const drillOf = (line: LineRow) => (line.drillId === null ? null : drills.of(line)(line.drillId))
	const all = await keptEvents(scope, [session])
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
				minutes: minutesOf(line, drills),
			}
		})
		const legLength = athlete.legLengthM === null ? {} : { legLengthM: athlete.legLengthM }
		return {
			...athlete,
			level: levelOf(athlete.id, 'plyometric'),
			planned: sheetLines.reduce((sum, line) => {
				const work = drills.work(line)
				return work ? addCounts(sum, countWork(work, drills.of(line), legLength)) : sum
			}, emptyCount()),
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
				athlete.lines
					.filter((line) => line.entryId === entry.id)
					.map((line) => ({ athleteId: athlete.id, line, work: drills.work(line) })),
			)
			const flow = flowEntry(
				{ id: entry.id, name: entry.part, lanes: entry.lanes, together: entry.together },
				own.flatMap(({ athleteId, line, work }) => (work ? [flowLineOf(athleteId, work, drills.of(line))] : [])),
			)
			const lines = own.flatMap(({ athleteId, line }) => drills.parts(line).map((part) => ({ athleteId, ...part })))
			return { part: entry.part, family: entry.family, minutes: flow ? simulateEntry(flow).minutes : 0, lines }
		}),
	)
	return { session, entries, athletes: people, strip, events, conflicts, all, library, drills, known }
}

function minutesOf(line: LineRow, drills: DrillsOfLines): number {
	const work = drills.work(line)
	const drill = work && drills.of(line)(work.drillId)
	if (!drill) return 0
	const { dose, repS } = paceOf(work, drills.of(line))
	return estimateMinutes(dose, line.parameters, line.rest, repS ?? drill.defaults.repS)
}

/** What is known of each athlete of a sheet by now, by id. */
export const knownOf = async (scope: ClubScope, sheet: Sheet): Promise<ReadonlyMap<string, KnownAthlete>> =>
	sheet.known ??
	keptFor(scope, ['known', sheet.session.id], async (scope) => {
		const session = await readSession(scope, sheet.session.id)
		const ids = (await readAttending(scope, [sheet.session.id])).map((row) => row.athleteId)
		return session ? readKnown(scope, session, ids, await readLibrary(scope)) : new Map()
	})
async function readKnown(
	scope: ClubScope,
	session: ListedSession,
	athleteIds: string[],
	library: Library,
): Promise<ReadonlyMap<string, KnownAthlete>> {
	const squad = await readSquad(scope, session.squadId)
	if (!squad) return new Map()
	const facts = await readFacts(scope, session, squad, athleteIds, library, session.day)
	const known = new Map<string, KnownAthlete>()
	for (const [id, plain] of facts) {
		known.set(id, { plain, concluded: concludeFor(plain, library) })
		await breathe()
	}
	return known
}

/**
 * A sheet that has begun keeps its lines. What has been said of an athlete's body since then lies over them: a line
 * that what hurts bars now is over, whatever is written.
 */
const overNow =
	(known: ReadonlyMap<string, KnownAthlete> | null, library: Library) =>
	({ athleteId, drillId, ...line }: LineRow): string | null => {
		const concluded = known?.get(athleteId)?.concluded
		if (!concluded || drillId === null || !library.drills[drillId]) return null
		const found = permitWork(concluded, { ...line, drillId }).findings.filter((one) => OF_THE_BODY.includes(one.rule))
		return found.length > 0 ? sayReason(found) : null
	}
const OF_THE_BODY: readonly RuleId[] = ['S1', 'S2', 'S3']
