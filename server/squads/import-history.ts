import { v5 as idOf } from 'uuid'
import { instantOf } from '../../core/calendar/days'
import { sidedOf } from '../../core/dose/sides'
import { canonicalJson } from '../../core/events/canonical-json'
import { type OpenRecords, noRecords } from '../../core/open-data/document'
import { ON_PAPER } from '../../core/record/on-paper'
import { plain } from '../../core/roster/plain-words'
import { type DateOrder, isAmbiguous, orderOf } from '../../core/roster/read-date'
import {
	HISTORY_FIELDS,
	type HistoryDrill,
	type HistoryField,
	type HistoryMark,
	type HistoryRow,
	guessDrill,
	guessHistoryColumns,
	readHistory,
	unfold,
} from '../../core/roster/read-history'
import type { MarkKind } from '../../core/noise/typical-error'
import type { Library } from '../../core/vocabulary/library'
import { METHODS_OF, type Method, SURFACES, type Surface } from '../../core/vocabulary/words'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { attendingKeys, idsThere, marksOf, resultsOf } from '../../db/queries/open-data'
import { joinSession } from '../../db/queries/sessions'
import { listMembers, readSquad } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { takeRecords } from '../open-data/import-data'
import { cellsOf } from '../read-cells'
import { testableOf } from '../record/batteries'

/** Results as they were pasted, and what its columns and drills are; what is not said is guessed. */
export interface TypedHistory {
	text: string
	columns: readonly string[] | null
	order: string | null
	/** The drill chosen for words of the list, empty where they are not taken. */
	drills: Readonly<Record<string, string>>
	/** How numbers of a kind were taken, where a row does not say. */
	methods: Readonly<Record<string, string>>
	surface: string
}

const MOST_CHARACTERS = 2_000_000
export const MOST_RESULTS = 20_000
/** Rows with a fault are shown up to here. */
const SHOWN = 40
export const NOT_TAKEN = 'none'

/** What the words of some rows mean, and what came of them. */
export interface HistoryGroup {
	words: string
	rows: number
	/** Empty while nobody has said which drill it is. */
	drillId: string
	results: number
	people: number
}
export interface LookedHistory {
	headings: string[]
	columns: HistoryField[]
	/** The columns are tests: what they are is asked drill by drill. */
	isFolded: boolean
	order: DateOrder
	unclear: string[]
	groups: HistoryGroup[]
	/** Every kind a row is of, with how its numbers were taken. */
	methods: { kind: MarkKind; method: Method }[]
	faults: HistoryRow[]
	moreFaults: number
	fresh: number
	/** In the club already. */
	there: number
	drills: { drillId: string; name: string }[]
	surface: Surface | ''
}

interface Read extends LookedHistory {
	marks: (HistoryMark & { n: number })[]
}

const historyDrills = (library: Library): HistoryDrill[] =>
	testableOf(library).map(({ drillId, name, kind, varies }) => ({
		drillId,
		name,
		kind,
		varies: varies && { name: varies.name, unit: varies.unit },
		isSided: sidedOf(library.drills[drillId]!) === 'each',
	}))

/** What makes two results the same: whose, when, of what and how much. */
const resultKey = ({
	athleteId,
	day,
	drillId,
	side,
	value,
}: Pick<HistoryMark, 'athleteId' | 'day' | 'drillId' | 'side' | 'value'>) =>
	`${athleteId} ${day} ${drillId} ${side ?? ''} ${canonicalJson({ ...value, method: undefined, windMps: undefined })}`

/** What a list of results says; nothing is written. Null for a stranger's squad. */
async function look(
	scope: ClubScope,
	squadId: string,
	typed: TypedHistory,
	today: string,
): Promise<Read | { problem: string } | null> {
	if (!(await readSquad(scope, squadId))) return null
	const cells = cellsOf(typed.text, { characters: MOST_CHARACTERS, rows: MOST_RESULTS + 1 })
	if ('problem' in cells) return cells
	const [first = [], ...body] = cells
	const folded = unfold(first, body)
	const headings = folded?.heading ?? first
	const rows = folded?.rows ?? body.map((row, index) => ({ line: index + 2, cells: row }))
	if (rows.length > MOST_RESULTS)
		return { problem: `${rows.length} results are too many at once; up to ${MOST_RESULTS} are expected.` }
	const guessed = guessHistoryColumns(headings)
	const columns = guessed.map((field, index) =>
		folded ? field : (HISTORY_FIELDS.find((one) => one === typed.columns?.[index]) ?? field),
	)
	for (const [field, words] of [
		['name', 'the athlete'],
		['day', 'the day'],
		['drill', 'the drill'],
		['value', 'the result'],
	] as const)
		if (!columns.includes(field))
			return { problem: `The first row is the heading; none of it says which column is ${words}.` }
	if (columns.some((field, index) => field !== 'ignore' && columns.indexOf(field) !== index))
		return { problem: 'Two columns are said to be the same: only one can be.' }
	const library = await readLibrary(scope)
	const drills = historyDrills(library)
	const wordsOf = (row: readonly string[]) => (row[columns.indexOf('drill')] ?? '').trim()
	const chosen = new Map<string, string>()
	for (const row of rows) {
		const words = wordsOf(row.cells)
		if (chosen.has(words)) continue
		const said = typed.drills[plain(words)]
		chosen.set(words, said === undefined ? (guessDrill(words, drills) ?? '') : said)
	}
	const days = rows.map(({ cells: row }) => row[columns.indexOf('day')] ?? '')
	const found = orderOf(days)
	const order = (['day-first', 'month-first'] as const).find((one) => one === typed.order) ?? found ?? 'day-first'
	const methods = Object.fromEntries(
		(Object.keys(METHODS_OF) as MarkKind[]).map((kind) => [
			kind,
			METHODS_OF[kind].find((one) => one === typed.methods[kind]) ?? ON_PAPER[kind],
		]),
	) as Record<MarkKind, Method>
	const members = (await listMembers(scope)).filter((member) => member.squadId === squadId)
	const read = readHistory(
		rows.map((row) => row.cells),
		{
			columns,
			order,
			today,
			known: members,
			drills,
			drillFor: (words) => {
				const drillId = chosen.get(words.trim()) ?? ''
				// Nobody has said what it is: it is asked about, and no fault of the row.
				return drillId === NOT_TAKEN ? '' : drillId
			},
			methods,
			firstLine: 2,
		},
	).map((row, index) => ({ ...row, line: rows[index]!.line }))
	const surface = SURFACES.find((one) => one === typed.surface) ?? ''
	const results = read.flatMap(({ mark }) => (mark ? [mark] : []))
	const { fresh, there } = await tellApart(scope, results)
	const faults = read.filter(({ problems }) => problems.length > 0)
	const kinds = new Set(
		[...chosen.values()].flatMap((drillId) => drills.find((one) => one.drillId === drillId)?.kind ?? []),
	)
	return {
		headings,
		columns,
		isFolded: folded !== null,
		order,
		unclear: found === null ? days.filter(isAmbiguous) : [],
		groups: [...chosen].map(([words, drillId]) => {
			const own = read.filter((row) => wordsOf(row.cells) === words)
			return {
				words,
				drillId,
				rows: own.length,
				results: own.filter(({ mark }) => mark).length,
				people: new Set(own.flatMap(({ mark }) => mark?.athleteId ?? [])).size,
			}
		}),
		methods: [...kinds].map((kind) => ({ kind, method: methods[kind] })),
		faults: faults.slice(0, SHOWN),
		moreFaults: Math.max(0, faults.length - SHOWN),
		fresh: fresh.length,
		there,
		drills: drills.map(({ drillId, name }) => ({ drillId, name })),
		surface,
		marks: fresh,
	}
}

/** Results the club has not: one that stands there as often as in the list is there. `n` tells equal ones of a list apart. */
async function tellApart(
	scope: ClubScope,
	results: readonly HistoryMark[],
): Promise<{ fresh: (HistoryMark & { n: number })[]; there: number }> {
	const days = results.map(({ day }) => day).sort()
	const kept = new Map<string, number>()
	if (days.length > 0)
		for (const row of await resultsOf(
			scope,
			[...new Set(results.map(({ athleteId }) => athleteId))],
			days[0]!,
			days.at(-1)!,
		)) {
			const key = resultKey(row)
			kept.set(key, (kept.get(key) ?? 0) + 1)
		}
	const seen = new Map<string, number>()
	const fresh = results.flatMap((mark) => {
		const key = resultKey(mark)
		const n = (seen.get(key) ?? 0) + 1
		seen.set(key, n)
		return n <= (kept.get(key) ?? 0) ? [] : [{ ...mark, n }]
	})
	return { fresh, there: results.length - fresh.length }
}

export async function lookAtHistory(
	scope: ClubScope,
	squadId: string,
	typed: TypedHistory,
	today: string,
): Promise<LookedHistory | { problem: string } | null> {
	const read = await look(scope, squadId, typed, today)
	if (read === null || 'problem' in read) return read
	const { marks: _marks, ...looked } = read
	return looked
}

/**
 * Takes results into the record: a session a day that is over and decided, with a line for each athlete and drill. What
 * is there already is not taken twice. Null for a stranger's squad.
 */
export async function takeHistory(
	who: SignedIn,
	squadId: string,
	typed: TypedHistory,
	now: Date,
): Promise<{ taken: number; there: number; left: number } | { problem: string } | null> {
	const today = todayAt(who.timeZone, now)
	const built = await inTransaction(database().db, who.clubId, async (scope) => {
		const read = await look(scope, squadId, typed, today)
		if (read === null || 'problem' in read) return read
		const library = await readLibrary(scope)
		const records = await recordsOf(scope, who, squadId, read, library, now)
		// A day of which something was brought in before has its session: whoever is new to it is down for it.
		const there = await idsThere(
			scope,
			'sessions',
			records.sessions.map(({ id }) => id),
		)
		const attending = await attendingKeys(scope, [...there])
		for (const { id, athleteIds } of records.sessions)
			if (there.has(id))
				for (const athleteId of athleteIds)
					if (!attending.has(`${id}/${athleteId}`)) await joinSession(scope, id, athleteId)
		return { read, records }
	})
	if (built === null || 'problem' in built) return built
	const { problems } = await takeRecords(who, { records: built.records, problems: [] }, now)
	const [problem] = problems
	if (problem) return { problem: `Not taken: ${problem.field} ${problem.words}` }
	const { fresh, there, faults, moreFaults } = built.read
	return { taken: fresh, there, left: faults.length + moreFaults }
}

async function recordsOf(
	scope: ClubScope,
	who: SignedIn,
	squadId: string,
	{ marks, surface }: Read,
	library: Library,
	now: Date,
): Promise<OpenRecords> {
	const squad = (await readSquad(scope, squadId))!
	const records = noRecords()
	const id = (...parts: string[]) => idOf(parts.join('\n'), who.clubId)
	const sessions = new Map<string, OpenRecords['sessions'][number]>()
	const entries = new Map<string, OpenRecords['entries'][number]>()
	const lines = new Map<string, OpenRecords['lines'][number]>()
	const reps = await repsThere(
		scope,
		[...new Set(marks.map(({ day }) => day))].map((day) => id('history', squadId, surface, day)),
	)
	for (const [index, mark] of marks.entries()) {
		const drill = library.drills[mark.drillId]!
		const begun = instantOf(mark.day, '12:00', who.timeZone).toISOString()
		const sessionId = id('history', squadId, surface, mark.day)
		const session: OpenRecords['sessions'][number] = sessions.get(sessionId) ?? {
			id: sessionId,
			squadId,
			day: mark.day,
			startTime: '12:00',
			timeZone: who.timeZone,
			title: 'Brought in from a list',
			place: '',
			surface: surface === '' ? null : surface,
			// A week of unloading is left out of what is usual; nobody has said that it was one.
			phase: squad.phase === 'unloading' ? 'accumulate' : squad.phase,
			plannedMinutes: 60,
			role: 'test',
			theme: null,
			share: 1,
			begunAt: begun,
			closedAt: now.toISOString(),
			athleteIds: [],
		}
		sessions.set(sessionId, session)
		if (!session.athleteIds.includes(mark.athleteId)) session.athleteIds.push(mark.athleteId)
		const parameters = { ...drill.defaults.parameters, ...mark.parameters }
		const entryId = id(sessionId, drill.id, String(drill.version), canonicalJson(parameters))
		const work = { dose: { sets: 1, reps: 1 }, rest: drill.defaults.rest, parameters }
		if (!entries.has(entryId))
			entries.set(entryId, {
				id: entryId,
				sessionId,
				position: [...entries.values()].filter((one) => one.sessionId === sessionId).length,
				family: drill.family,
				drillVersion: drill.version,
				part: drill.name.slice(0, 60),
				drillId: drill.id,
				ladderId: null,
				...work,
				doseFactor: 1,
				lanes: 1,
				together: 1,
				tuning: null,
				off: false,
			})
		const lineId = id(entryId, mark.athleteId)
		const line = lines.get(lineId) ?? {
			id: lineId,
			sessionId,
			entryId,
			athleteId: mark.athleteId,
			version: 1,
			current: true,
			handSet: false,
			blocked: null,
			drillId: drill.id,
			drillVersion: drill.version,
			ladderId: null,
			rungId: null,
			...work,
			change: null,
			wouldBe: null,
			writtenAt: begun,
		}
		lines.set(lineId, line)
		const place = `${lineId} ${mark.side ?? ''}`
		const repNo = (reps.get(place) ?? 0) + 1
		reps.set(place, repNo)
		line.dose = { sets: 1, reps: Math.min(100, Math.max(line.dose.reps, repNo)) }
		records.marks.push({
			id: id(lineId, resultKey(mark), String(mark.n)),
			sessionId,
			athleteId: mark.athleteId,
			entryId,
			lineId,
			deviceId: who.personId,
			deviceSeq: index,
			deviceTime: new Date(Date.parse(begun) + repNo * 60_000).toISOString(),
			setNo: 1 + Math.floor((repNo - 1) / 100),
			repNo: 1 + ((repNo - 1) % 100),
			...(mark.side ? { side: mark.side } : {}),
			type: 'mark',
			kind: mark.kind,
			value: mark.value,
		} as OpenRecords['marks'][number])
	}
	records.sessions.push(...sessions.values())
	records.entries.push(...entries.values())
	records.lines.push(...lines.values())
	return records
}

/** How many reps each line and side of some sessions has: what is brought in later comes after them. */
async function repsThere(scope: ClubScope, sessionIds: string[]): Promise<Map<string, number>> {
	const reps = new Map<string, number>()
	for (const { lineId, side, setNo, repNo } of await marksOf(scope, sessionIds)) {
		const place = `${lineId} ${side ?? ''}`
		reps.set(place, Math.max(reps.get(place) ?? 0, (setNo - 1) * 100 + repNo))
	}
	return reps
}

/** The page of a squad's results: whose it is. */
export async function readHistoryPage(scope: ClubScope, squadId: string) {
	const squad = await readSquad(scope, squadId)
	return squad ? { squad: { id: squad.id, name: squad.name } } : null
}
