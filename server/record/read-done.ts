import { makeLine } from '../../core/field/make-line'
import { isOfTheDay } from '../../core/events/of-the-day'
import { slotsOf } from '../../core/field/slots'
import type { Units } from '../../core/words/units'
import { asksFor, slotsOfMark, typedOf } from '../../core/field/typed-mark'
import { takenBack } from '../../core/field/session-marks'
import { sayEvent } from '../../core/field/say-event'
import { namesOn } from '../../core/plan/entry-parts'
import { type SessionDone, sessionDone } from '../../core/record/session-done'
import type { FieldLine } from '../../core/field/pack'
import type { Mark } from '../../core/vocabulary/events'
import type { Dose } from '../../core/vocabulary/dose'
import { type Leg, SIDES } from '../../core/vocabulary/words'
import type { School } from '../../core/vocabulary/school'
import { authorsById } from '../../db/queries/clubs'
import type { ClubScope } from '../../db/connect'
import type { StoredEvent } from '../../db/queries/log'
import { readSquad } from '../../db/queries/squads'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { scopeOf } from '../database'
import { readable, told } from '../field/read-pack'
import { filmedOf } from '../bench/read-measurements'
import { type SetAside, listSetAside } from '../marks/set-aside'
import { type Sheet, readSheet } from '../sheet/read-sheet'
import { repsOfRound } from '../../core/vocabulary/line-parts'

/** A rep that a number from paper may be of; on the side it was done where each side has its own. */
export interface PaperPlace {
	setNo: number
	repNo: number
	side: Leg | null
}
/** A line of a drill as paper is typed into it. */
export interface PaperLine {
	lineId: string
	athleteId: string
	name: string
	/** What a rep yields: one number, two for a contact, or reps of a whole set. */
	logs: FieldLine['logs']
	/** "20 m, s"; two for a contact. */
	asks: string[]
	/** Reps of the line, or its sets where reps are ticked off, that nothing was logged of. */
	open: PaperPlace[]
	reps: number
}
export interface SessionDonePage extends SessionDone {
	session: Sheet['session']
	/** By drill: where numbers from paper may go. */
	paper: Record<string, PaperLine[]>
	setAside: SetAside[]
	/** Marks that were taken back and can be brought back. */
	gone: { id: string; words: string }[]
	athletes: { id: string; name: string }[]
	/** Whether whoever asks may change what was logged. */
	mayChange: boolean
	/** Of each mark: what may be typed in its place, and who else it can have been. */
	marks: Record<string, { typed: string[]; asks: string[]; others: { athleteId: string; name: string }[] }>
}

/** A session as it was done, for whoever may read marks; null for a stranger's id. */
export async function readDone(who: SignedIn, sessionId: string, now: Date): Promise<SessionDonePage | null> {
	const today = todayAt(who.timeZone, now)
	const scope = scopeOf(who.clubId)
	const sheet = await readSheet(scope, sessionId)
	const squad = sheet && (await readSquad(scope, sheet.session.squadId))
	const school = squad && sheet.library.schools[squad.schoolId]
	if (!sheet || !school) return null
	const reads = (event: StoredEvent) => readable(event, who.role)
	const events = sheet.events.filter(reads)
	const all = await told(scope, sheet.all.filter(reads))
	const byId = new Map(all.map((event) => [event.id as string, event]))
	const authors = await authorsById(scope, [...new Set(events.map(({ authorId }) => authorId))])
	const clock = clockOf(who.timeZone)
	const { drills } = sheet.library
	const names = namesOn(sheet.entries, sheet.library)
	const entries = sheet.entries.map((entry) => ({ id: entry.id, name: names.get(entry.id)! }))
	const done = sessionDone(
		{
			entries,
			athletes: sheet.athletes.map(({ id, name, lines }) => ({
				id,
				name,
				lines: lines.flatMap(({ entryId, dose, pieces, blocked }) =>
					dose && blocked === null ? [{ entryId, planned: dose.sets * dose.reps * repsOfRound(pieces) }] : [],
				),
			})),
			drillName: (id) => drills[id]?.name ?? id,
			filmed: await filmed(scope, events, byId),
		},
		events.map((event) => ({
			...byId.get(event.id)!,
			author: authors.get(event.authorId)?.name ?? 'somebody who left the club',
			aside: event.stamp?.setAside === true,
		})),
		all,
		clock,
	)
	const lines = fieldLines(sheet, school)
	const mayChange =
		may(who.role, 'marks:write') ||
		(may(who.role, 'marks:write-today') && isOfTheDay(sheet.session, now.toISOString(), today))
	const nameOf = new Map(sheet.athletes.map(({ id, name }) => [id, name]))
	return {
		...done,
		session: sheet.session,
		athletes: sheet.athletes.map(({ id, name }) => ({ id, name })),
		mayChange,
		setAside: await listSetAside(scope, { sessionIds: [sessionId] }, sheet.session.day, sheet.library),
		paper: sheet.session.day > today || !mayChange ? {} : paperOf(lines, done, nameOf, who.units),
		gone: takenBack(all).map(({ event, before }) => ({
			id: event.id,
			words: `${nameOf.get(before.athleteId) ?? ''}, ${sayEvent(before)}, ${clock(event.deviceTime)}${event.by === undefined ? '' : `, by ${event.by}`}`,
		})),
		marks: mayChange ? marksOf(events, lines, nameOf, who.units) : {},
	}
}

/** What film says of the marks that stand: a film was of the rep, whatever was corrected of its number since. */
async function filmed(
	scope: ClubScope,
	events: readonly StoredEvent[],
	byId: ReadonlyMap<string, { replacesId?: string | undefined }>,
): Promise<Map<string, string[]>> {
	const chains = events.flatMap((event) => {
		if (event.type !== 'mark') return []
		const ids: string[] = []
		for (let id: string | undefined = event.id; id !== undefined && !ids.includes(id); id = byId.get(id)?.replacesId)
			ids.push(id)
		return [{ id: event.id as string, ids }]
	})
	const words = await filmedOf(scope, [...new Set(chains.flatMap(({ ids }) => ids))])
	return new Map(chains.map(({ id, ids }) => [id, ids.flatMap((one) => words.get(one) ?? [])]))
}

/** The hour and minute of an instant in the club's time. */
export function clockOf(timeZone: string): (instant: string) => string {
	const format = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone })
	return (instant) => format.format(new Date(instant))
}

/** Open lines of a sheet, as the field knows them. */
export const fieldLines = (sheet: Sheet, school: School): FieldLine[] =>
	sheet.athletes.flatMap((athlete) =>
		athlete.lines.flatMap((line) =>
			line.drill && line.blocked === null
				? [makeLine({ id: line.id, entryId: line.entryId, athleteId: athlete.id }, line, line.drill, school)]
				: [],
		),
	)

function marksOf(
	events: readonly StoredEvent[],
	lines: readonly FieldLine[],
	nameOf: ReadonlyMap<string, string>,
	units: Units,
): SessionDonePage['marks'] {
	const byId = new Map(lines.map((line) => [line.id, line]))
	return Object.fromEntries(
		events.flatMap((event) => {
			if (event.type !== 'mark') return []
			const mark = event as Mark
			const line =
				byId.get(mark.lineId) ?? lines.find((one) => one.entryId === mark.entryId && one.athleteId === mark.athleteId)
			const slots = line && !mark.asDrill ? slotsOfMark(line, mark) : []
			return [
				[
					mark.id,
					{
						asks: slots.map((slot) => asksFor(slot, units)),
						typed: slots.map((slot) => typedOf(mark, slot, units)),
						others: lines
							.filter((one) => one.entryId === mark.entryId && one.athleteId !== mark.athleteId)
							.map(({ athleteId }) => ({ athleteId, name: nameOf.get(athleteId) ?? '' })),
					},
				] as const,
			]
		}),
	)
}

function paperOf(
	lines: readonly FieldLine[],
	done: SessionDone,
	nameOf: ReadonlyMap<string, string>,
	units: Units,
): Record<string, PaperLine[]> {
	return Object.fromEntries(
		done.drills.map(({ entryId, people }) => [
			entryId,
			lines
				.filter((line) => line.entryId === entryId)
				.map((line): PaperLine => {
					const logged = people.find(({ athleteId }) => athleteId === line.athleteId)?.reps ?? []
					const { reps } = line.dose
					return {
						lineId: line.id,
						athleteId: line.athleteId,
						name: nameOf.get(line.athleteId) ?? '',
						logs: line.logs,
						asks: line.logs === 'done' ? ['reps'] : slotsOf(line, []).map((slot) => asksFor(slot, units)),
						open: placesOf(line).filter(
							({ setNo, repNo, side }) =>
								!logged.some(
									(rep) =>
										rep.setNo === setNo &&
										(line.logs === 'done' || rep.repNo === repNo) &&
										// What was logged without a side was done on both.
										(side === null || rep.side === null || rep.side === side),
								),
						),
						reps,
					}
				})
				.filter(({ open }) => open.length > 0),
		]),
	)
}

/** Every rep of a line, or every set where reps are ticked off; where each side has its own, of either side by turn. */
function placesOf(line: FieldLine): PaperPlace[] {
	const of = ({ sets, reps }: Dose, side: Leg | null): PaperPlace[] =>
		Array.from({ length: sets }, (_, set) =>
			Array.from({ length: line.logs === 'done' ? 1 : reps }, (_rep, rep) => ({
				setNo: set + 1,
				repNo: rep + 1,
				side,
			})),
		).flat()
	if (line.sided !== 'each') return of(line.dose, null)
	return SIDES.flatMap((side) => {
		const own = line.sides === undefined ? line.dose : line.sides[side]
		return own ? of(own, side) : []
	})
}
