import { OPEN_KINDS, type OpenKind, type OpenRecords } from './document'

/*
 * The same records as tables of cells, a row a record, for spreadsheets. What has parts of its own (a complex, a
 * tuning) is a cell of JSON. A table made of records and read back gives the very same records.
 */

/** How a value stands in a cell; `read` gives undefined for what cannot be read. */
interface Cell {
	write(value: unknown): string
	read(text: string): unknown
}

const NUMBER = /^-?\d+(\.\d+)?([eE][+-]?\d+)?$/
const readJson = (text: string): unknown => {
	try {
		return JSON.parse(text) as unknown
	} catch {
		return undefined
	}
}
/** A spreadsheet runs what begins with a sign as a formula: such a text stands behind an apostrophe. */
const RUNS = /^'*[=+\-@\t\r]/
const text: Cell = {
	write: (value) => (RUNS.test(String(value)) ? `'${String(value)}` : String(value)),
	read: (cell) => (cell.startsWith("'") && RUNS.test(cell) ? cell.slice(1) : cell),
}
const number: Cell = {
	write: (value) => JSON.stringify(value),
	read: (cell) => (NUMBER.test(cell) ? Number(cell) : undefined),
}
const flag: Cell = {
	write: (value) => (value ? 'yes' : 'no'),
	read: (cell) => (cell === 'yes' ? true : cell === 'no' ? false : undefined),
}
const json: Cell = { write: (value) => JSON.stringify(value), read: readJson }
/** Ids and numbers, one beside the other. */
const ids: Cell = {
	write: (value) => (value as string[]).join(' '),
	read: (cell) => (cell === '' ? [] : cell.split(' ')),
}
const numbers: Cell = {
	write: (value) => (value as number[]).join(' '),
	read: (cell) => {
		const read = (cell === '' ? [] : cell.split(' ')).map((one) => number.read(one))
		return read.includes(undefined) ? undefined : read
	},
}

interface Column {
	name: string
	/** Where it stands in the record, part by part. */
	at: readonly string[]
	cell: Cell
	/** What an empty cell says: null, nothing at all, or the empty text or list. */
	empty: 'null' | 'absent' | 'empty'
}
const column =
	(empty: Column['empty']) =>
	(name: string, cell: Cell, ...at: string[]): Column => ({
		name,
		cell,
		at: at.length > 0 ? at : [name.replace(/_(\w)/g, (_, letter: string) => letter.toUpperCase())],
		empty,
	})
const has = column('empty')
const orNull = column('null')
const may = column('absent')

const DOSE = [
	has('sets', number, 'dose', 'sets'),
	has('reps', number, 'dose', 'reps'),
	has('rest_reps_s', number, 'rest', 'repsS'),
	has('rest_sets_s', number, 'rest', 'setsS'),
	has('parameters', json),
	may('sides', json),
	may('pieces', json),
	may('carried', json),
	may('aid', json),
]
const FAMILIES = ['prepare', 'sprint', 'agility', 'plyometric', 'throw', 'tissue']

/** Times at rising distances: "5=1.10 10=1.95", metres and seconds. */
const splits: Cell = {
	write: (value) =>
		(value as { distanceM: number; timeS: number }[]).map(({ distanceM, timeS }) => `${distanceM}=${timeS}`).join(' '),
	read: (cell) => {
		const read = cell.split(' ').map((one) => one.split('=').map((part) => number.read(part)))
		return read.every((one) => one.length === 2 && !one.includes(undefined))
			? read.map(([distanceM, timeS]) => ({ distanceM, timeS }))
			: undefined
	},
}

const COLUMNS: Record<OpenKind, readonly Column[]> = {
	squads: [
		has('id', text),
		has('name', text),
		has('training_days', numbers),
		has('start_time', text),
		has('place', text),
		may('jumping_sport', flag),
		has('phase', text),
		has('school_id', text),
		has('school_version', number),
	],
	athletes: [
		has('id', text),
		has('name', text),
		orNull('born', text),
		orNull('leg_length_m', number, 'legLengthM'),
		orNull('mass_kg', number),
		orNull('type', text),
		...FAMILIES.map((family) => may(`level_${family}`, number, 'levels', family)),
		has('squad_ids', ids),
		orNull('contact', text),
	],
	sessions: [
		has('id', text),
		has('squad_id', text),
		has('day', text),
		has('start_time', text),
		has('time_zone', text),
		has('title', text),
		has('place', text),
		orNull('surface', text),
		has('phase', text),
		has('planned_minutes', number),
		has('role', text),
		orNull('theme', text),
		has('share', number),
		orNull('begun_at', text),
		orNull('closed_at', text),
		has('athlete_ids', ids),
	],
	entries: [
		has('id', text),
		has('session_id', text),
		has('position', number),
		has('part', text),
		has('family', text),
		has('drill_id', text),
		has('drill_version', number),
		orNull('ladder_id', text),
		...DOSE,
		has('dose_factor', number),
		has('lanes', number),
		has('together', number),
		orNull('tuning', json),
		has('off', flag),
	],
	lines: [
		has('id', text),
		has('session_id', text),
		has('entry_id', text),
		has('athlete_id', text),
		has('version', number),
		has('current', flag),
		has('hand_set', flag),
		orNull('blocked', text),
		orNull('drill_id', text),
		orNull('drill_version', number),
		orNull('ladder_id', text),
		orNull('rung_id', text),
		...DOSE,
		orNull('change', json),
		orNull('would_be', text),
		has('written_at', text),
	],
	tests: [
		has('id', text),
		has('squad_id', text),
		has('name', text),
		has('every', text),
		has('items', json),
		has('session_ids', ids),
		has('off', flag),
	],
	marks: [
		has('id', text),
		has('session_id', text),
		has('athlete_id', text),
		has('entry_id', text),
		has('line_id', text),
		has('set', number, 'setNo'),
		has('rep', number, 'repNo'),
		may('side', text),
		may('piece', number),
		has('kind', text),
		may('splits', splits, 'value', 'splits'),
		may('wind_mps', number, 'value', 'windMps'),
		may('contact_s', number, 'value', 'contactS'),
		may('flight_s', number, 'value', 'flightS'),
		may('height_m', number, 'value', 'heightM'),
		may('distance_m', number, 'value', 'distanceM'),
		may('speed_mps', number, 'value', 'speedMps'),
		may('reps', number, 'value', 'reps'),
		may('reason', text, 'value', 'reason'),
		may('method', text, 'value', 'method'),
		may('kept', flag),
		may('carried', json),
		may('as_drill', json),
		may('source', text),
		has('device_id', text),
		has('device_seq', number),
		has('device_time', text),
	],
}
/** Parts of a record that are there even when every cell of theirs is empty. */
const PARTS: Partial<Record<OpenKind, readonly string[]>> = { athletes: ['levels'], marks: ['value'] }
/** What every record of a kind says, and no column. */
const FIXED: Partial<Record<OpenKind, object>> = { marks: { type: 'mark' } }

export const columnsOf = (kind: OpenKind): string[] => COLUMNS[kind].map(({ name }) => name)

type Part = Record<string, unknown>
const isPart = (value: unknown): value is Part => typeof value === 'object' && value !== null
const valueAt = (record: unknown, at: readonly string[]): unknown =>
	at.reduce<unknown>((part, name) => (isPart(part) ? part[name] : undefined), record)

/** Records as rows of cells, in the order of `columnsOf`. */
export const toRows = <K extends OpenKind>(kind: K, records: OpenRecords[K]): string[][] =>
	records.map((record) =>
		COLUMNS[kind].map(({ at, cell }) => {
			const value = valueAt(record, at)
			return value === null || value === undefined ? '' : cell.write(value)
		}),
	)

/** A cell that cannot be read; `row` from 0, beneath the heading. */
export interface CellProblem {
	row: number
	column: string
	words: string
}

/**
 * Rows of cells as records, whose shape is yet to be looked at.
 *
 * @param heading names of the columns, in any order; one that is not known, or not there though it always says
 *   something, is a problem of row −1
 */
export function fromRows(
	kind: OpenKind,
	heading: readonly string[],
	rows: readonly (readonly string[])[],
): { records: unknown[]; problems: CellProblem[] } {
	const problems: CellProblem[] = []
	const columns = COLUMNS[kind]
	for (const name of heading)
		if (!columns.some((one) => one.name === name))
			problems.push({ row: -1, column: name, words: `“${name}” is no column of ${kind}.` })
	for (const { name, empty } of columns)
		if (empty === 'empty' && !heading.includes(name))
			problems.push({ row: -1, column: name, words: `The column “${name}” is not there.` })
	const records = rows.map((row, index) => {
		const record: Part = { ...FIXED[kind], ...Object.fromEntries((PARTS[kind] ?? []).map((name) => [name, {}])) }
		for (const { name, at, cell, empty } of columns) {
			const written = row[heading.indexOf(name)] ?? ''
			if (written === '' && empty === 'absent') continue
			const value = written === '' && empty === 'null' ? null : cell.read(written)
			if (value === undefined) problems.push({ row: index, column: name, words: `“${written}” cannot be read.` })
			else setAt(record, at, value)
		}
		return record
	})
	return { records, problems }
}

function setAt(record: Part, at: readonly string[], value: unknown): void {
	let part = record
	for (const name of at.slice(0, -1)) part = (part[name] ??= {}) as Part
	part[at.at(-1)!] = value
}

/** Which kind a table is of, by its heading; null for none of them. */
export const kindOfHeading = (heading: readonly string[]): OpenKind | null =>
	OPEN_KINDS.find((kind) => {
		const names = columnsOf(kind)
		return (
			heading.every((name) => names.includes(name)) &&
			COLUMNS[kind].every(({ name, empty }) => empty !== 'empty' || heading.includes(name))
		)
	}) ?? null
