import { type Day, daysBetween } from '../calendar/day-count'
import { readLength } from '../measure/read-length'
import { readMass } from '../measure/read-mass'
import { readNumber } from '../measure/read-number'
import type { Level } from '../vocabulary/words'
import { plain, sameName } from './plain-words'
import { type DateOrder, readDay } from './read-date'

/** What a column of a list can be. */
export const ROSTER_FIELDS = [
	'name',
	'first',
	'last',
	'born',
	'mass',
	'leg',
	'level',
	'squad',
	'contact',
	'ignore',
] as const
export type RosterField = (typeof ROSTER_FIELDS)[number]
export const ROSTER_FIELD_NAMES: Record<RosterField, string> = {
	name: 'Name',
	first: 'First name',
	last: 'Last name',
	born: 'Born',
	mass: 'Body mass',
	leg: 'Leg length',
	level: 'Level, 1 to 3',
	squad: 'Squad',
	contact: 'Emergency contact',
	ignore: 'Not taken',
}

/** What a column is by the words above it. */
const HEADINGS: readonly [RosterField, RegExp][] = [
	['first', /^(first|given|fore) ?name$|^(first|given)$/],
	['last', /^(last|family|sur) ?name$|^(last|surname)$/],
	['name', /^(full )?name$|^athlete$|^who$/],
	['born', /birth|^born$|^dob$/],
	['mass', /mass|weight|^kg$|^lb$/],
	['leg', /^leg/],
	['level', /^level/],
	['squad', /^(squad|group|team)$/],
	['contact', /contact|emergency|phone|tel|parent|guardian|mother|father/],
]
/**
 * What each column is, and whether the first row is a heading and no person: by the words of a heading; without one the
 * first column is the name and one of dates is when they were born.
 */
export function guessColumns(
	rows: readonly (readonly string[])[],
	today: Day,
): { columns: RosterField[]; hasHeading: boolean } {
	const [first = []] = rows
	const headings = first.map((cell) => HEADINGS.find(([, words]) => words.test(plain(cell)))?.[0] ?? null)
	const hasHeading = headings.some((field) => field !== null)
	const width = Math.max(0, ...rows.map((row) => row.length))
	const taken = new Set<RosterField>()
	const once = (field: RosterField): RosterField => {
		if (taken.has(field)) return 'ignore'
		taken.add(field)
		return field
	}
	if (hasHeading)
		return { columns: Array.from({ length: width }, (_, index) => once(headings[index] ?? 'ignore')), hasHeading }
	const isDate = (index: number) =>
		rows.some((row) => {
			const text = row[index] ?? ''
			const read = readDay(text, 'day-first', today) ?? readDay(text, 'month-first', today)
			return read !== null && /\D/.test(text)
		})
	return {
		columns: Array.from({ length: width }, (_, index) =>
			index === 0 ? once('name') : isDate(index) ? once('born') : 'ignore',
		),
		hasHeading,
	}
}

/** Somebody as a list says them. */
export interface ListedPerson {
	name: string
	birthDate: Day | null
	massKg: number | null
	legLengthM: number | null
	/** Of every family; null where the list does not say. */
	level: Level | null
	squadId: string
	contact: string | null
}
export interface RosterProblem {
	/** Index of the column; null where it is about the row. */
	column: number | null
	words: string
}
export interface RosterRow {
	/** Line of the list, from 1, as a spreadsheet numbers them. */
	line: number
	cells: readonly string[]
	/** Null where something stands in the way. */
	person: ListedPerson | null
	problems: RosterProblem[]
	/** Who of the club this is already. */
	known: { id: string; inSquad: boolean } | null
	/** An earlier line of the list that is the same person. */
	sameAs: number | null
}
/** Somebody the club has. */
export interface KnownPerson {
	id: string
	name: string
	birthDate: Day | null
	squadIds: readonly string[]
}

export const LONGEST_NAME = 200
export const LONGEST_CONTACT = 200
/** Nobody older is written down. */
const OLDEST_YEARS = 100

/** Body mass as `readMass` has it, to 100 g, where anybody weighs that. */
function readBodyMass(text: string): number | null {
	const kg = readMass(text)
	return kg !== null && kg >= 15 && kg <= 250 ? Math.round(kg * 10) / 10 : null
}
/** Metres from "0.92", "92 cm" or "36 in"; a bare number above 3 is centimetres. */
function readLeg(text: string): number | null {
	const bare = readNumber(text)
	const metres = readLength(text, bare !== null && bare > 3 ? 'cm' : 'm')
	return metres !== null && metres >= 0.4 && metres <= 1.3 ? metres : null
}

/**
 * A list of people, row by row: who each is, what is wrong with which cell, and who is in the club, or in the list,
 * already. A row with a problem is nobody, whatever else it says.
 *
 * @param rows the list without its heading
 * @param firstLine line of the list the first row stands on
 * @param columns what each column is; those beyond are not taken
 */
export function readRoster(
	rows: readonly (readonly string[])[],
	{
		columns,
		order,
		today,
		squads,
		squadId,
		known,
		firstLine,
	}: {
		columns: readonly RosterField[]
		order: DateOrder
		today: Day
		squads: readonly { id: string; name: string }[]
		/** Whoever the list names no squad for. */
		squadId: string
		known: readonly KnownPerson[]
		firstLine: number
	},
): RosterRow[] {
	const read: RosterRow[] = []
	for (const [index, cells] of rows.entries()) {
		const problems: RosterProblem[] = []
		const at = (field: RosterField) => columns.indexOf(field)
		const cell = (field: RosterField) => (cells[at(field)] ?? '').trim()
		/** What a cell says; null for an empty one and for one that cannot be read, which is said. */
		const take = <T>(field: RosterField, read: (text: string) => T | null, expected: string): T | null => {
			const text = cell(field)
			if (at(field) < 0 || text === '') return null
			const value = read(text)
			if (value === null) problems.push({ column: at(field), words: `“${text}”: ${expected} is expected.` })
			return value
		}
		const name = (at('name') >= 0 ? cell('name') : `${cell('first')} ${cell('last')}`).replace(/\s+/g, ' ').trim()
		const nameColumn = [at('name'), at('first'), at('last')].find((column) => column >= 0) ?? null
		if (name === '') problems.push({ column: nameColumn, words: 'No name.' })
		else if (name.length > LONGEST_NAME)
			problems.push({ column: nameColumn, words: `A name of up to ${LONGEST_NAME} characters is expected.` })
		const birthDate = take(
			'born',
			(text) => {
				const day = readDay(text, order, today)
				return day !== null && day < today && daysBetween(day, today) < OLDEST_YEARS * 365.25 ? day : null
			},
			'a birth date like 2009-05-31 or 31 May 2009',
		)
		const massKg = take('mass', readBodyMass, 'kilograms from 15 to 250, or pounds with “lb”,')
		const legLengthM = take('leg', readLeg, 'a leg length from 0.4 to 1.3 m')
		const level = take('level', (text) => (/^[123]$/.test(text) ? (Number(text) as Level) : null), '1, 2 or 3')
		const squad = take(
			'squad',
			(text) => squads.find((one) => sameName(one.name, text))?.id ?? null,
			`one of ${squads.map((one) => one.name).join(', ')}`,
		)
		const contact = take(
			'contact',
			(text) => (/\d{3}/.test(text) && text.length <= LONGEST_CONTACT ? text : null),
			`a name with a telephone number, up to ${LONGEST_CONTACT} characters,`,
		)
		const person: ListedPerson = {
			name,
			birthDate,
			massKg,
			legLengthM,
			level,
			squadId: squad ?? squadId,
			contact,
		}
		const isSame = (other: { name: string; birthDate: Day | null }) =>
			sameName(other.name, name) && (other.birthDate === birthDate || other.birthDate === null || birthDate === null)
		const one = known.find(isSame)
		const before = read.find((row) => row.person !== null && isSame(row.person))
		read.push({
			line: firstLine + index,
			cells,
			person: problems.length === 0 ? person : null,
			problems,
			known: one && problems.length === 0 ? { id: one.id, inSquad: one.squadIds.includes(person.squadId) } : null,
			sameAs: problems.length === 0 ? (before?.line ?? null) : null,
		})
	}
	return read
}
