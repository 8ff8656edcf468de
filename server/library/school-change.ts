import { isBefore } from '../../core/calendar/day-count'
import { NUMBER_BOUNDS, QUESTIONS } from '../../core/library/schools'
import { canonicalJson } from '../../core/events/canonical-json'
import {
	PLANTS,
	PLANT_NAMES,
	type Plant,
	type School,
	type SchoolChoices,
	type SchoolNumbers,
} from '../../core/vocabulary/school'
import { type ClubScope, inTransaction } from '../../db/connect'
import { insertOwnDocument, readLibrary } from '../../db/queries/library'
import { lastStartedSession, readLines, unstartedFor } from '../../db/queries/sessions'
import { type SquadRow, listMembers, readAthletes, readSquad, updateSquad } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database, scopeOf } from '../database'
import {
	type Described,
	type Difference,
	type Meanwhile,
	differences,
	takeVersion,
	versionOf,
	versionSeen,
} from '../submissions/take-version'
import { proposeVerdicts } from '../review/propose'
import { plannedOf } from '../sheet/planned-of'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { writeLine, writeLines } from '../sheet/write-lines'
import { readNumber } from '../../core/measure/read-number'

/** A school as the form has it: a choice for each question, a number for each bound. */
export function readSchool(typed: FormData, base: School): { school: School } | { problems: Problems } {
	const problems: Problems = {}
	const choices = { ...base.choices } as Record<string, string>
	for (const { id, sides } of QUESTIONS) {
		const value = typed.get(id)
		if (value === null) continue
		if (sides.some((side) => side.id === value)) choices[id] = String(value)
		else problems[id] = 'Pick one of the sides.'
	}
	const numbers = { ...base.numbers }
	for (const { id, low, high, unit } of NUMBER_BOUNDS) {
		const text = typed.get(id)
		if (text === null) continue
		const value = readNumber(String(text))
		if (value === null || !(value >= low && value <= high))
			problems[id] = `“${String(text)}”: from ${low} to ${high}${unit ? ` ${unit}` : ''} is expected.`
		else numbers[id] = value
	}
	if (numbers.passCeilingLevel3Ms > numbers.passCeilingLevel2Ms)
		problems.passCeilingLevel3Ms = `“${numbers.passCeilingLevel3Ms}”: no more than level 2’s ${numbers.passCeilingLevel2Ms} ms is expected.`
	const asked = typed.getAll('plant').map(String)
	const first = typed.get('mostUsed')
	const plants =
		first === null
			? base.plants
			: [...new Set([String(first), ...asked])].filter((one): one is Plant =>
					(PLANTS as readonly string[]).includes(one),
				)
	if (plants.length === 0) problems.plants = 'Pick one of the take-offs.'
	if (Object.keys(problems).length > 0) return { problems }
	return {
		school: {
			...base,
			choices: choices as unknown as SchoolChoices,
			numbers: numbers as SchoolNumbers,
			plants,
			fastDayOffer: typed.get('fastDayOffer') === null ? base.fastDayOffer : typed.get('fastDayOffer') === 'on',
		},
	}
}

/** A squad's school as the form shows it, filled from one the coach picked to start from; null without such a squad. */
export async function readSchoolPage(scope: ClubScope, squadId: string, from: string | null) {
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const { schools } = await readLibrary(scope)
	const own = ownSchoolId(squad.id)
	const current = schools[squad.schoolId]!
	return {
		version: await versionOf(scope, 'school', squad.id),
		squad: { id: squad.id, name: squad.name },
		current,
		from: (from ? schools[from] : undefined) ?? current,
		schools: Object.values(schools).filter((school) => !school.id.startsWith('own-') || school.id === own),
	}
}

/** Takes the school form: says what is wrong with it, and what it would change or that it is kept; null without such a squad. */
export async function answerSchoolForm(
	who: SignedIn,
	squadId: string,
	asked: 'preview' | 'save',
	form: FormData,
	now: Date,
): Promise<{
	problems: Problems
	preview: WouldChange | null
	saved: string | null
	meanwhile?: Meanwhile & { differences: Difference[] }
} | null> {
	const scope = scopeOf(who.clubId)
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const { schools } = await readLibrary(scope)
	const base = schools[String(form.get('base') ?? '')] ?? schools[squad.schoolId]!
	// An unticked box sends nothing.
	if (form.get('fastDayOffer') === null) form.set('fastDayOffer', 'off')
	const read = readSchool(form, base)
	if ('problems' in read) return { problems: read.problems, preview: null, saved: null }
	if (asked === 'preview')
		return { problems: {}, preview: await whatWouldChange(who, squad.id, read.school, now), saved: null }
	const numbersOf = ({ choices, numbers, plants, fastDayOffer }: School) =>
		canonicalJson([choices, numbers, plants, fastDayOffer])
	const same = numbersOf(read.school) === numbersOf(base)
	const saved = await changeSchool(
		who,
		squad.id,
		same ? { schoolId: base.id } : { own: read.school },
		versionSeen(form),
		now,
	)
	if (saved && 'meanwhile' in saved) {
		const theirs = schools[squad.schoolId]!
		const between = differences(describeSchool(theirs), describeSchool(same ? base : read.school))
		return { problems: {}, preview: null, saved: null, meanwhile: { ...saved.meanwhile, differences: between } }
	}
	return { problems: {}, preview: null, saved: saved && (same ? base.name : 'The squad’s own school') }
}

/** Lines of a session ahead that would be others. */
export interface OtherLines {
	day: string
	title: string
	changes: { name: string; from: string; to: string }[]
}

export interface WouldChange {
	/** Of the squad's next session; null without one. */
	lines: OtherLines | null
	session: { id: string; day: string } | null
	judged: number
	changes: {
		athleteId: string
		name: string
		ladderName: string
		from: { verdict: string; sentence: string }
		to: { verdict: string; sentence: string }
	}[]
}

/** Which verdicts of the squad's last session would have come out differently under another school, and which lines of its next would. Nothing is kept. */
async function whatWouldChange(who: SignedIn, squadId: string, school: School, now: Date): Promise<WouldChange | null> {
	const scope = scopeOf(who.clubId)
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const session = await lastStartedSession(scope, squadId)
	const lines = await linesUnder(who, squadId, school, now)
	if (!session) return { lines, session: null, judged: 0, changes: [] }
	const library = await readLibrary(scope)
	const today = await proposeVerdicts(scope, session, squad, library)
	const then = await proposeVerdicts(scope, session, squad, library, { school })
	const names = new Map(
		(await readAthletes(scope, [...new Set(today.map((one) => one.athleteId))])).map((athlete) => [
			athlete.id,
			athlete.name,
		]),
	)
	const changes = today.flatMap((before, index) => {
		const after = then[index]
		if (
			!after ||
			(before.judgement.verdict === after.judgement.verdict &&
				before.judgement.next.rungId === after.judgement.next.rungId &&
				before.judgement.decidedBy === after.judgement.decidedBy)
		)
			return []
		const said = ({ judgement }: typeof before) => ({ verdict: judgement.verdict, sentence: judgement.sentence })
		return [
			{
				athleteId: before.athleteId,
				name: names.get(before.athleteId) ?? '',
				ladderName: library.ladders[before.ladderId]?.name ?? before.ladderId,
				from: said(before),
				to: said(after),
			},
		]
	})
	return { lines, session: { id: session.id, day: session.day }, judged: today.length, changes }
}

/** Gives a squad a school: one of those there are, or one of its own as a new version. Upcoming lines follow. */
export async function changeSchool(
	who: SignedIn,
	squadId: string,
	chosen: { schoolId: string } | { own: School },
	seen: number,
	now: Date,
): Promise<{ schoolId: string; version: number } | { meanwhile: Meanwhile } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const squad = await readSquad(scope, squadId)
		if (!squad || ('schoolId' in chosen && !(await readLibrary(scope)).schools[chosen.schoolId])) return null
		const meanwhile = await takeVersion(scope, who, 'school', squadId, seen, now)
		if (meanwhile) return { meanwhile }
		const given = await giveSchool(scope, who, squad, chosen, now)
		const members = (await listMembers(scope)).filter((member) => member.squadId === squadId).map((member) => member.id)
		await rewriteUpcoming(scope, members, todayAt(who.timeZone, now), now)
		return given
	})
}

async function giveSchool(
	scope: ClubScope,
	who: SignedIn,
	squad: SquadRow,
	chosen: { schoolId: string } | { own: School },
	now: Date,
): Promise<{ schoolId: string; version: number }> {
	let schoolId: string
	let version: number
	if ('own' in chosen) {
		schoolId = ownSchoolId(squad.id)
		version = await insertOwnDocument(
			scope,
			'school',
			{
				...chosen.own,
				id: schoolId,
				name: `${squad.name}’s own`,
				about: `From “${chosen.own.name}”, changed by ${who.name}.`,
			},
			who.personId,
			now,
		)
	} else {
		const school = (await readLibrary(scope)).schools[chosen.schoolId]!
		schoolId = school.id
		version = school.version
	}
	await updateSquad(scope, squad.id, { schoolId, schoolVersion: version })
	return { schoolId, version }
}

/** Ends a transaction in nothing, with what was found in it. */
class Undone extends Error {
	constructor(readonly found: OtherLines | null) {
		super('not kept')
	}
}

/**
 * Which lines of the squad's next session would be others under another school: written as they would be, compared, and
 * taken back. Null without a session ahead.
 */
async function linesUnder(who: SignedIn, squadId: string, school: School, now: Date): Promise<OtherLines | null> {
	try {
		await inTransaction(database().db, who.clubId, async (scope) => {
			const squad = await readSquad(scope, squadId)
			const members = (await listMembers(scope)).filter((one) => one.squadId === squadId)
			const [session] = (
				await unstartedFor(
					scope,
					members.map(({ id }) => id),
					todayAt(who.timeZone, now),
				)
			)
				.filter((one) => one.squadId === squadId)
				.sort((a, b) => (isBefore(a, b) ? -1 : 1))
			if (!squad || !session) throw new Undone(null)
			const library = await readLibrary(scope)
			const names = new Map(members.map(({ id, name }) => [id, name]))
			const saidOf = async () =>
				new Map(
					(await readLines(scope, [session.id])).map((row) => [
						`${row.entryId}/${row.athleteId}`,
						{ athleteId: row.athleteId, words: row.blocked ?? writeLine(plannedOf(row), library) },
					]),
				)
			// Written anew by the school of now first: what time has changed is not the new school's doing.
			await writeLines(scope, session, squad, library, now)
			const before = await saidOf()
			const { schoolId } = await giveSchool(scope, who, squad, { own: school }, now)
			await writeLines(scope, session, { ...squad, schoolId }, await readLibrary(scope), now)
			const changes = [...(await saidOf())].flatMap(([key, { athleteId, words }]) => {
				const was = before.get(key)?.words
				return was === undefined || was === words ? [] : [{ name: names.get(athleteId) ?? '', from: was, to: words }]
			})
			throw new Undone({ day: session.day, title: session.title, changes })
		})
	} catch (error) {
		if (error instanceof Undone) return error.found
		throw error
	}
	return null
}

/** A school in words, question by question and number by number. */
const describeSchool = ({ choices, numbers, plants, fastDayOffer }: School): Described => [
	...QUESTIONS.map(({ id, question, sides }): [string, string] => [
		question,
		sides.find((side) => side.id === choices[id])?.name ?? '',
	]),
	...NUMBER_BOUNDS.map(({ id, name, unit }): [string, string] => [
		name,
		`${numbers[id]}${unit === '' ? '' : ` ${unit}`}`,
	]),
	['Take-offs of the sport', plants.map((plant) => PLANT_NAMES[plant]).join(', ')],
	['The fast-day offer', fastDayOffer ? 'yes' : 'no'],
]

/** One school of its own a squad, in versions. */
export const ownSchoolId = (squadId: string): string => `own-${squadId}`.slice(0, 40)
