import { addTo } from '../lists/group-by'
import type { Day } from '../calendar/day-count'
import { readLength } from '../measure/read-length'
import { readMass } from '../measure/read-mass'
import { readNumber } from '../measure/read-number'
import type { MarkKind } from '../noise/typical-error'
import type { Parameters } from '../vocabulary/dose'
import type { Mark } from '../vocabulary/events'
import { type Leg, METHODS_OF, METHOD_NAMES, type Method } from '../vocabulary/words'
import { type DateOrder, readDay } from './read-date'
import { plain } from './plain-words'

/** What a column of a list of results can be. */
export const HISTORY_FIELDS = ['name', 'day', 'drill', 'value', 'distance', 'method', 'side', 'ignore'] as const
export type HistoryField = (typeof HISTORY_FIELDS)[number]
export const HISTORY_FIELD_NAMES: Record<HistoryField, string> = {
	name: 'Athlete',
	day: 'Day',
	drill: 'Drill or test',
	value: 'Result',
	distance: 'How far, how high or how heavy',
	method: 'How it was taken',
	side: 'Left or right',
	ignore: 'Not taken',
}
const HEADINGS: readonly [HistoryField, RegExp][] = [
	['day', /^(day|date|when|on)$|date$/],
	['drill', /drill|test|exercise|event|discipline/],
	['distance', /^(distance|dist|how far|load|ball|drop|box|metres|meters)/],
	['value', /result|value|time|mark|score|height|length|best|seconds/],
	['method', /method|taken|timing|device/],
	['side', /^(side|leg|foot|hand)$/],
	['name', /name|athlete|who|player/],
]

/** What each column is by the words of the heading; a column that is found twice is taken once. */
export function guessHistoryColumns(heading: readonly string[]): HistoryField[] {
	const taken = new Set<HistoryField>()
	return heading.map((cell) => {
		const field = HEADINGS.find(([one, words]) => !taken.has(one) && words.test(plain(cell)))?.[0] ?? 'ignore'
		taken.add(field)
		return field
	})
}

/** A drill whose results can be brought in. */
export interface HistoryDrill {
	drillId: string
	name: string
	kind: MarkKind
	/** The one parameter that has to be known. */
	varies: { name: 'distanceM' | 'heightCm' | 'ballKg'; unit: string } | null
	/** Left and right have results of their own. */
	isSided: boolean
}

/** What is no part of a drill's name: how far, how high, how heavy. */
const AMOUNT = /\d+(?:[.,]\d+)?\s*-?\s*(m|cm|mm|kg|lbs?|g|yd|yds|yards?|ft|in|metres?|meters?)?\b/gi

/** The drill some words mean: the one all of whose name stands in them, the longest; null where none or two do. */
export function guessDrill(words: string, drills: readonly HistoryDrill[]): string | null {
	const said = new Set(plain(words.replace(AMOUNT, ' ')).split(' '))
	const fits = drills
		.map(({ drillId, name }) => ({ drillId, parts: plain(name).split(' ') }))
		.filter(({ parts }) => parts.every((part) => said.has(part)))
		.sort((a, b) => b.parts.length - a.parts.length)
	const [first, second] = fits
	return first && first.parts.length !== second?.parts.length ? first.drillId : null
}

/** A result that can be brought in. */
export interface HistoryMark {
	athleteId: string
	day: Day
	drillId: string
	/** The one that varies, where one does. */
	parameters: Parameters
	kind: MarkKind
	value: Mark['value']
	side: Leg | null
}
export interface HistoryProblem {
	column: number | null
	words: string
}
export interface HistoryRow {
	/** Line of the list, from 1, as a spreadsheet numbers them. */
	line: number
	cells: readonly string[]
	/** Null where something stands in the way, or its drill is not taken. */
	mark: HistoryMark | null
	problems: HistoryProblem[]
}

/** Seconds from "1.85", "1,85 s" or "1:02.3"; null for what is no time. To 0.1 ms. */
export function readTime(text: string): number | null {
	const found = /^(?:(\d{1,2}):)?(\d+(?:[.,]\d+)?)\s*(s|sec|secs|seconds)?\.?$/i.exec(text.trim())
	if (!found) return null
	const seconds = readNumber(found[2]!)!
	if (found[1] !== undefined && seconds >= 60) return null
	return Math.round((Number(found[1] ?? 0) * 60 + seconds) * 10_000) / 10_000
}
/** A contact or flight in seconds: what stands above 3 is milliseconds. */
function readBrief(text: string): number | null {
	const found = /^([\d.,]+)\s*(ms|s)?$/i.exec(text)
	const value = found ? readNumber(found[1]!) : null
	if (value === null) return null
	const isMs = found![2]?.toLowerCase() === 'ms' || (found![2] === undefined && value > 3)
	return Math.round((isMs ? value / 1000 : value) * 10_000) / 10_000
}

/** The parameter that varies, out of a cell of its own or of the words of the drill. */
function readAmount(
	text: string,
	name: 'distanceM' | 'heightCm' | 'ballKg',
	/** Whether a number may stand without its unit. */
	bare: boolean,
): number | null {
	if (name === 'ballKg') {
		const found = /([\d.,]+)\s*-?\s*(kg|lbs?|pounds?)?/i.exec(text)
		const kg = found && (bare || found[2]) ? readMass(`${found[1]} ${found[2] ?? ''}`) : null
		return kg === null ? null : Math.round(kg * 10) / 10
	}
	if (bare) {
		const metres = readLength(text, name === 'heightCm' ? 'cm' : 'm')
		return metres === null ? null : name === 'heightCm' ? Math.round(metres * 1000) / 10 : metres
	}
	const found = /([\d.,]+)\s*-?\s*(cm|mm|m|yds?|yards?|ft|in|metres?|meters?)\b/i.exec(text)
	const metres = found ? readLength(`${found[1]} ${found[2]}`) : null
	return metres === null ? null : name === 'heightCm' ? Math.round(metres * 1000) / 10 : metres
}

const SIDE_WORDS: Record<string, Leg> = { l: 'left', left: 'left', r: 'right', right: 'right' }

/**
 * A list of results, row by row: whose each is, of which drill and what it came to, or which cell cannot be read.
 *
 * @param rows the list without its heading
 * @param drillFor the drill that each words of the list mean; empty where they are not taken
 * @param methods how numbers of a kind were taken, where the list does not say
 */
export function readHistory(
	rows: readonly (readonly string[])[],
	{
		columns,
		order,
		today,
		known,
		drills,
		drillFor,
		methods,
		firstLine,
	}: {
		columns: readonly HistoryField[]
		order: DateOrder
		today: Day
		known: readonly { id: string; name: string }[]
		drills: readonly HistoryDrill[]
		drillFor: (words: string) => string
		methods: Record<MarkKind, Method>
		firstLine: number
	},
): HistoryRow[] {
	const byName = new Map<string, string[]>()
	for (const { id, name } of known) addTo(byName, plain(name), id)
	const at = (field: HistoryField) => columns.indexOf(field)
	return rows.map((cells, index) => {
		const problems: HistoryProblem[] = []
		const row = (mark: HistoryMark | null): HistoryRow => ({ line: firstLine + index, cells, mark, problems })
		const cell = (field: HistoryField) => (cells[at(field)] ?? '').trim()
		const say = (field: HistoryField, words: string) =>
			void problems.push({ column: at(field) < 0 ? null : at(field), words })
		const drillId = drillFor(cell('drill'))
		if (drillId === '') return row(null)
		const drill = drills.find((one) => one.drillId === drillId)
		const ids = byName.get(plain(cell('name'))) ?? []
		if (ids.length === 0) say('name', `“${cell('name')}”: nobody of this name is in the squad.`)
		if (ids.length > 1) say('name', `“${cell('name')}”: ${ids.length} of this name are in the squad.`)
		const day = readDay(cell('day'), order, today)
		if (day === null || day > today)
			say('day', `“${cell('day')}”: a day like 2026-05-31, not after today, is expected.`)
		if (!drill) {
			say('drill', `“${cell('drill')}”: pick the drill it is.`)
			return row(null)
		}
		const { kind, varies } = drill
		const amount =
			varies && (readAmount(cell('distance'), varies.name, true) ?? readAmount(cell('drill'), varies.name, false))
		if (varies && amount === null)
			say(
				at('distance') >= 0 ? 'distance' : 'drill',
				`how many ${varies.unit}? Write it in the drill’s words or a column of its own.`,
			)
		const side = cell('side') === '' ? null : (SIDE_WORDS[cell('side').toLowerCase()] ?? undefined)
		if (side === undefined) say('side', `“${cell('side')}”: left or right is expected.`)
		else if (drill.isSided && side === null) say('side', 'left or right? Each has results of its own.')
		const method = cell('method') === '' ? methods[kind] : methodOf(cell('method'), kind)
		if (method === null)
			say(
				'method',
				`“${cell('method')}”: one of ${METHODS_OF[kind].map((one) => METHOD_NAMES[one]).join(', ')} is expected.`,
			)
		const value = method === null ? null : valueOf(cell('value'), kind, method, amount ?? 0)
		if (method !== null && value === null) say('value', `“${cell('value')}”: ${EXPECTED[kind]} is expected.`)
		return row(
			problems.length > 0
				? null
				: {
						athleteId: ids[0]!,
						day: day!,
						drillId,
						parameters: varies ? { [varies.name]: amount! } : {},
						kind,
						value: value!,
						side: side ?? null,
					},
		)
	})
}

const EXPECTED: Record<MarkKind, string> = {
	sprint: 'a time like 1.85, up to 600 s,',
	contact: 'contact and flight, as 0.146/0.512 or 146/512,',
	height: 'a height like 36 cm, up to 2 m,',
	distance: 'a length like 2.45 m or 8 ft 2 in, up to 150 m,',
}
function methodOf(text: string, kind: MarkKind): Method | null {
	const known: readonly Method[] = METHODS_OF[kind]
	return known.find((one) => one === text.toLowerCase() || plain(METHOD_NAMES[one]) === plain(text)) ?? null
}
function valueOf(text: string, kind: MarkKind, method: Method, distanceM: number): Mark['value'] | null {
	const made = (value: object): Mark['value'] => ({ ...value, method }) as Mark['value']
	switch (kind) {
		case 'sprint': {
			const timeS = readTime(text)
			return timeS !== null && timeS > 0 && timeS <= 600 ? made({ splits: [{ distanceM, timeS }] }) : null
		}
		case 'contact': {
			const [contactS = null, flightS = null, ...more] = text.split(/\s*[/;]\s*/).map(readBrief)
			return contactS !== null &&
				flightS !== null &&
				more.length === 0 &&
				contactS > 0 &&
				contactS <= 3 &&
				flightS > 0 &&
				flightS < 1.5
				? made({ contactS, flightS })
				: null
		}
		case 'height': {
			const bare = readNumber(text)
			const heightM = readLength(text, bare !== null && bare > 3 ? 'cm' : 'm')
			return heightM !== null && heightM > 0 && heightM <= 2 ? made({ heightM }) : null
		}
		case 'distance': {
			const found = readLength(text)
			return found !== null && found > 0 && found <= 150 ? made({ distanceM: found }) : null
		}
	}
}

/**
 * A table with a column for each test as a list with a row for each result: the heading of a column are the words of
 * its drill, an empty cell is none. Null for a table that is such a list already, or says neither who nor when.
 */
export function unfold(
	heading: readonly string[],
	rows: readonly (readonly string[])[],
): { heading: string[]; rows: { line: number; cells: string[] }[] } | null {
	const fields = guessHistoryColumns(heading)
	const [name, day] = [fields.indexOf('name'), fields.indexOf('day')]
	if (name < 0 || day < 0 || fields.includes('drill')) return null
	const tests = heading.map((_, column) => column).filter((column) => column !== name && column !== day)
	if (tests.length === 0) return null
	return {
		heading: [heading[name]!, heading[day]!, 'Drill', 'Result'],
		rows: rows.flatMap((cells, index) =>
			tests.flatMap((column) =>
				(cells[column] ?? '').trim() === ''
					? []
					: [{ line: index + 2, cells: [cells[name] ?? '', cells[day] ?? '', heading[column]!, cells[column]!] }],
			),
		),
	}
}
