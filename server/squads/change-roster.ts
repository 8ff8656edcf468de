import { WEEKDAYS } from '../../core/calendar/say-day'
import { isDay } from '../../core/calendar/day-count'
import { v7 as newId } from 'uuid'
import { QUALITY_FIRST } from '../../core/library/schools'
import {
	ATHLETE_TYPES,
	type AthleteType,
	PHASES,
	TYPE_NAMES,
	type Family,
	type Level,
	type Phase,
} from '../../core/vocabulary/words'
import { inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import {
	type SquadRow,
	insertSquad,
	listMembers,
	readAthletes,
	readLevels,
	readSquad,
	typesOf,
	updateAthleteMass,
	updateAthleteType,
	updateIdentity,
	updateSquad,
	writeLevel,
} from '../../db/queries/squads'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { type Described, type Difference, type Meanwhile, differences, takeVersion } from '../submissions/take-version'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { quantityIn } from '../../core/measure/quantity'

const isBirthDate = (text: string, today: string) => isDay(text) && text < today && text >= '1900-01-01'

/** What a squad is called and when and where it trains, as it is typed. */
export interface TypedSquad {
	name: string
	days: string[]
	startTime: string
	place: string
	jumpingSport: boolean
}
type SquadDetails = Pick<SquadRow, 'name' | 'trainingDays' | 'startTime' | 'place' | 'jumpingSport'>
function readSquadTyped(typed: TypedSquad): SquadDetails | { problems: Problems } {
	const problems: Problems = {}
	const days = [...new Set(typed.days.map(Number))].filter((day) => day >= 1 && day <= 7).sort()
	if (typed.name.trim() === '' || typed.name.length > 200) problems.name = 'A name of up to 200 characters is expected.'
	if (days.length === 0) problems.days = 'Pick at least one training day.'
	if (!/^([01]\d|2[0-3]):[0-5]\d$/.test(typed.startTime))
		problems.startTime = `“${typed.startTime}”: a time like 17:30 is expected.`
	if (Object.keys(problems).length > 0) return { problems }
	const place = typed.place.trim().slice(0, 200)
	const { startTime, jumpingSport } = typed
	return { name: typed.name.trim(), trainingDays: days, startTime, place, jumpingSport }
}
const describeSquad = ({ name, trainingDays, startTime, place, jumpingSport }: SquadDetails): Described => [
	['Name', name],
	['Training days', trainingDays.map((day) => WEEKDAYS[day - 1]).join(', ')],
	['Start', startTime],
	['Place', place || 'no place set'],
	['Matches and practice', jumpingSport ? 'full of hard jumps' : 'without many hard jumps'],
]

/** Another name, other days, time or place. Sessions that stand stay where and when they are: people have been told. */
export async function changeSquad(
	who: SignedIn,
	squadId: string,
	typed: TypedSquad,
	seen: number,
	now: Date,
): Promise<{ saved: true } | { problems: Problems } | { meanwhile: Meanwhile & { differences: Difference[] } } | null> {
	const details = readSquadTyped(typed)
	if ('problems' in details) return details
	return inTransaction(database().db, who.clubId, async (scope) => {
		const squad = await readSquad(scope, squadId)
		if (!squad) return null
		const meanwhile = await takeVersion(scope, who, 'squad', squadId, seen, now)
		if (meanwhile)
			return { meanwhile: { ...meanwhile, differences: differences(describeSquad(squad), describeSquad(details)) } }
		await updateSquad(scope, squadId, details)
		return { saved: true as const }
	})
}

export async function addSquad(who: SignedIn, typed: TypedSquad): Promise<{ id: string } | { problems: Problems }> {
	const details = readSquadTyped(typed)
	if ('problems' in details) return details
	const id = newId()
	await insertSquad(
		{ db: database().db, clubId: who.clubId },
		{
			id,
			...details,
			schoolId: QUALITY_FIRST.id,
			schoolVersion: QUALITY_FIRST.version,
			phase: 'accumulate',
			focus: null,
		},
	)
	return { id }
}

/** Said of a squad in one word that two may set at once. */
type SquadSaid = boolean | { meanwhile: Meanwhile & { differences: Difference[] } }
const saidTwice = (meanwhile: Meanwhile, label: string, theirs: string, yours: string): SquadSaid => ({
	meanwhile: { ...meanwhile, differences: differences([[label, theirs]], [[label, yours]]) },
})

export async function changePhase(
	who: SignedIn,
	squadId: string,
	phase: string,
	seen: number,
	now: Date,
): Promise<SquadSaid> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const squad = await readSquad(scope, squadId)
		if (!PHASES.includes(phase as Phase) || !squad) return false
		const meanwhile = await takeVersion(scope, who, 'squad', squadId, seen, now)
		if (meanwhile) return saidTwice(meanwhile, 'Phase', squad.phase, phase)
		await updateSquad(scope, squadId, { phase: phase as Phase })
		return true
	})
}

/** What a block drives on and what it only keeps, ladder by ladder; upcoming lines follow. */
export async function changeFocus(
	who: SignedIn,
	squadId: string,
	ladderId: string,
	focus: string,
	seen: number,
	now: Date,
): Promise<SquadSaid> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const squad = await readSquad(scope, squadId)
		if (!squad || !(await readLibrary(scope)).ladders[ladderId] || !['priority', 'kept', ''].includes(focus))
			return false
		const { [ladderId]: before, ...others } = squad.focus ?? {}
		const meanwhile = await takeVersion(scope, who, 'squad', squadId, seen, now)
		if (meanwhile) return saidTwice(meanwhile, 'This ladder', before ?? 'as usual', focus === '' ? 'as usual' : focus)
		await updateSquad(scope, squadId, {
			focus: focus === '' ? others : { ...others, [ladderId]: focus as 'priority' | 'kept' },
		})
		const members = (await listMembers(scope)).filter((member) => member.squadId === squadId).map((member) => member.id)
		await rewriteUpcoming(scope, members, todayAt(who.timeZone, now), now)
		return true
	})
}

/** What somebody is called and when they were born; upcoming lines follow, because rules look at the age. */
export async function changeIdentity(
	who: SignedIn,
	athleteId: string,
	typed: { name: string; birthDate: string },
	seen: number,
	now: Date,
): Promise<{ saved: true } | { problems: Problems } | { meanwhile: Meanwhile & { differences: Difference[] } } | null> {
	const problems: Problems = {}
	const [name, birthDate] = [typed.name.trim(), typed.birthDate.trim() === '' ? null : typed.birthDate.trim()]
	const today = todayAt(who.timeZone, now)
	if (name === '' || name.length > 200) problems.name = 'A name of up to 200 characters is expected.'
	if (birthDate !== null && !isBirthDate(birthDate, today))
		problems.birthDate = `“${birthDate}”: a birth date like 2009-05-31 is expected.`
	if (Object.keys(problems).length > 0) return { problems }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const [athlete] = await readAthletes(scope, [athleteId])
		if (!athlete) return null
		const meanwhile = await takeVersion(scope, who, 'athlete', athleteId, seen, now)
		if (meanwhile) {
			const said = (one: { name: string; birthDate: string | null }): Described => [
				['Name', one.name],
				['Born', one.birthDate ?? 'not known'],
			]
			return { meanwhile: { ...meanwhile, differences: differences(said(athlete), said({ name, birthDate })) } }
		}
		await updateIdentity(scope, athleteId, { name, birthDate })
		if (birthDate !== athlete.birthDate) await rewriteUpcoming(scope, [athleteId], today, now)
		return { saved: true as const }
	})
}

/** Body mass in kg; box heights look at it. Null forgets it. */
export async function changeMass(
	who: SignedIn,
	athleteId: string,
	typed: string,
	seen: number,
	now: Date,
): Promise<{ saved: true } | { problem: string } | { meanwhile: Meanwhile & { differences: Difference[] } } | null> {
	const value = typed.trim() === '' ? null : (quantityIn('body', who.units).read(typed) ?? Number.NaN)
	if (value !== null && !(value >= 15 && value <= 250)) {
		const expected = who.units === 'metric' ? 'kilograms from 15 to 250' : 'pounds from 34 to 551'
		return { problem: `“${typed}”: ${expected} are expected.` }
	}
	return inTransaction(database().db, who.clubId, async (scope) => {
		const [athlete] = await readAthletes(scope, [athleteId])
		if (!athlete) return null
		const meanwhile = await takeVersion(scope, who, 'athlete', athleteId, seen, now)
		if (meanwhile) {
			const said = (massKg: number | null): Described => [['Body mass', massKg === null ? 'not known' : `${massKg} kg`]]
			return { meanwhile: { ...meanwhile, differences: differences(said(athlete.massKg), said(value)) } }
		}
		await updateAthleteMass(scope, athleteId, value === null ? null : Math.round(value * 10) / 10)
		await rewriteUpcoming(scope, [athleteId], todayAt(who.timeZone, now), now)
		return { saved: true as const }
	})
}

/** How an athlete is built, by the coach: it tunes what is proposed, not what stands. */
export async function changeType(
	who: SignedIn,
	athleteId: string,
	typed: string,
	seen: number,
	now: Date,
): Promise<boolean | { meanwhile: Meanwhile & { differences: Difference[] } }> {
	const type = ATHLETE_TYPES.find((one) => one === typed) ?? null
	if (type === null && typed !== '') return false
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return false
		const meanwhile = await takeVersion(scope, who, 'athlete', athleteId, seen, now)
		if (meanwhile) {
			const said = (one: AthleteType | null): Described => [
				['Type', one === null ? 'nothing stands out' : TYPE_NAMES[one]],
			]
			const theirs = (await typesOf(scope, [athleteId])).get(athleteId) ?? null
			return { meanwhile: { ...meanwhile, differences: differences(said(theirs), said(type)) } }
		}
		await updateAthleteType(scope, athleteId, type)
		return true
	})
}

/** The coach's word on a level; upcoming lines are written anew, because gates look at it. */
export async function changeLevel(
	who: SignedIn,
	athleteId: string,
	family: string,
	level: number,
	seen: number,
	now: Date,
): Promise<boolean | { meanwhile: Meanwhile & { differences: Difference[] } }> {
	if (!['sprint', 'agility', 'plyometric', 'throw'].includes(family) || ![1, 2, 3].includes(level)) return false
	return inTransaction(database().db, who.clubId, async (scope) => {
		if ((await readAthletes(scope, [athleteId])).length === 0) return false
		const meanwhile = await takeVersion(scope, who, 'level', `${athleteId}/${family}`, seen, now)
		if (meanwhile) {
			const said = (one: number): Described => [[`Level, ${family}`, String(one)]]
			const theirs = (await readLevels(scope, [athleteId]))(athleteId, family as Family)
			return { meanwhile: { ...meanwhile, differences: differences(said(theirs), said(level)) } }
		}
		await writeLevel(scope, athleteId, family as Family, level as Level)
		await rewriteUpcoming(scope, [athleteId], todayAt(who.timeZone, now), now)
		return true
	})
}
