import { v7 as newId } from 'uuid'
import { type DateOrder, isAmbiguous, orderOf } from '../../core/roster/read-date'
import {
	type KnownPerson,
	ROSTER_FIELDS,
	type RosterField,
	type RosterRow,
	guessColumns,
	readRoster,
} from '../../core/roster/read-roster'
import { type ClubScope, inTransaction } from '../../db/connect'
import { insertAthletes } from '../../db/queries/clubs'
import { addMembers, listAthletes, listSquads, squadsOf, writeLevel } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database, scopeOf } from '../database'
import { cellsOf } from '../read-cells'
import { follow } from './membership'

/** A list as it was pasted, and what its columns are; what is not said is guessed from the list. */
export interface TypedRoster {
	text: string
	columns: readonly string[] | null
	hasHeading: boolean | null
	order: string | null
}
export interface LookedRoster {
	/** The first row where it is a heading, else empty. */
	headings: string[]
	columns: RosterField[]
	hasHeading: boolean
	order: DateOrder
	/** Dates that would be other days in the other order, and nothing in the list says which it is. */
	unclear: string[]
	rows: RosterRow[]
}

const MOST_CHARACTERS = 200_000
export const MOST_ROWS = 300
const LEVEL_FAMILIES = ['sprint', 'agility', 'plyometric', 'throw'] as const

/** What a list says, row by row; nothing is written. Null for a stranger's squad. */
export async function lookAtRoster(
	scope: ClubScope,
	squadId: string,
	typed: TypedRoster,
	today: string,
): Promise<LookedRoster | { problem: string } | null> {
	const squads = await listSquads(scope)
	if (!squads.some(({ id }) => id === squadId)) return null
	const cells = cellsOf(typed.text, { characters: MOST_CHARACTERS, rows: MOST_ROWS + 1 })
	if ('problem' in cells) return cells
	const guessed = guessColumns(cells, today)
	const hasHeading = typed.hasHeading ?? guessed.hasHeading
	const columns = guessed.columns.map(
		(field, index) => ROSTER_FIELDS.find((one) => one === typed.columns?.[index]) ?? field,
	)
	const twice = columns.find((field, index) => field !== 'ignore' && columns.indexOf(field) !== index)
	if (twice) return { problem: 'Two columns are said to be the same: only one can be.' }
	if (!columns.some((field) => ['name', 'first', 'last'].includes(field)))
		return { problem: 'Say which column is the name.' }
	const body = hasHeading ? cells.slice(1) : cells
	const born = columns.indexOf('born')
	const dates = born < 0 ? [] : body.map((row) => row[born] ?? '')
	const found = orderOf(dates)
	const order = (['day-first', 'month-first'] as const).find((one) => one === typed.order) ?? found ?? 'day-first'
	return {
		headings: hasHeading ? cells[0]! : [],
		columns,
		hasHeading,
		order,
		unclear: found === null ? dates.filter(isAmbiguous) : [],
		rows: readRoster(body, {
			columns,
			order,
			today,
			squads,
			squadId,
			known: await knownPeople(scope),
			firstLine: hasHeading ? 2 : 1,
		}),
	}
}

async function knownPeople(scope: ClubScope): Promise<KnownPerson[]> {
	const athletes = await listAthletes(scope)
	const squads = await squadsOf(
		scope,
		athletes.map(({ id }) => id),
	)
	return athletes.map(({ id, name, birthDate }) => ({
		id,
		name,
		birthDate,
		squadIds: (squads.get(id) ?? []).map((one) => one.id),
	}))
}

export interface TakenRoster {
	added: number
	/** Of the club already, and now in the squad too. */
	joined: number
	/** In the squad already, or twice in the list. */
	there: number
	/** Rows with something that cannot be read. */
	left: number
}

/**
 * Takes the people of a list into their squads, all in one transaction: those the club has only join, what cannot be
 * read is left out. Null for a stranger's squad.
 */
export async function takeRoster(
	who: SignedIn,
	squadId: string,
	typed: TypedRoster,
	now: Date,
): Promise<TakenRoster | { problem: string } | null> {
	const today = todayAt(who.timeZone, now)
	return inTransaction(database().db, who.clubId, async (scope) => {
		const looked = await lookAtRoster(scope, squadId, typed, today)
		if (looked === null || 'problem' in looked) return looked
		const fresh = looked.rows.flatMap(({ person, known, sameAs }) =>
			person && !known && sameAs === null ? [{ ...person, id: newId() }] : [],
		)
		const joining = looked.rows.flatMap(({ person, known, sameAs }) =>
			person && known && !known.inSquad && sameAs === null ? [{ id: known.id, squadId: person.squadId }] : [],
		)
		await insertAthletes(
			scope,
			fresh.map((one) => ({
				id: one.id,
				name: one.name,
				birthDate: one.birthDate,
				massKg: one.massKg,
				legLengthMm: one.legLengthM === null ? null : Math.round(one.legLengthM * 1000),
				emergencyContact: one.contact,
				createdAt: now,
			})),
		)
		for (const one of fresh)
			if (one.level !== null) for (const family of LEVEL_FAMILIES) await writeLevel(scope, one.id, family, one.level)
		const members = [...fresh, ...joining]
		for (const id of new Set(members.map((one) => one.squadId)))
			await addMembers(
				scope,
				id,
				members.filter((one) => one.squadId === id).map((one) => one.id),
				today,
			)
		await follow(
			scope,
			who,
			members.map((one) => one.id),
			new Set(),
			today,
			now,
		)
		const left = looked.rows.filter(({ person }) => person === null).length
		return {
			added: fresh.length,
			joined: joining.length,
			there: looked.rows.length - left - fresh.length - joining.length,
			left,
		}
	})
}

/** Several typed at once, one a line, with a birth date after a comma: all of them, or a sentence about the first that cannot be read. */
export async function addAthletes(
	who: SignedIn,
	squadId: string,
	text: string,
	now: Date,
): Promise<TakenRoster | { problem: string }> {
	const typed: TypedRoster = { text, columns: ['name', 'born'], hasHeading: null, order: null }
	const looked = await lookAtRoster(scopeOf(who.clubId), squadId, typed, todayAt(who.timeZone, now))
	if (looked === null) return { problem: 'Pick a squad of this club.' }
	if ('problem' in looked) return looked
	const bad = looked.rows.find(({ person }) => person === null)
	if (bad) return { problem: `Line ${bad.line}: ${bad.problems[0]!.words}` }
	return (await takeRoster(who, squadId, typed, now)) ?? { problem: 'Pick a squad of this club.' }
}

/** The page of a squad's list: whose it is. */
export async function readRosterPage(who: SignedIn, squadId: string) {
	const squads = await listSquads(scopeOf(who.clubId))
	const squad = squads.find(({ id }) => id === squadId)
	return squad ? { squad: { id: squad.id, name: squad.name }, squads: squads.length } : null
}
