import { isDay } from '../../core/calendar/day-count'
import { v7 as newId } from 'uuid'
import { OUTSIDE_DEFAULTS, OUTSIDE_KINDS, type OutsideKind, readLifts } from '../../core/judge/outside-load'
import { type ClubScope, inTransaction } from '../../db/connect'
import { outsideOf, voidOutside, writeOutside } from '../../db/queries/care'
import { listMembers, listSquads, readAthletes } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database } from '../database'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { readNumber } from '../../core/measure/read-number'

/** Where nobody says when [our setting]. */
const USUAL_START = '15:00'

export interface OutsideTyped {
	kind: string
	day: string
	startTime: string
	minutes: string
	rpe: string
	hardRunning: string
	hardCutting: string
	/** As the squad's sport is where it is empty or not said. */
	hardJumping?: string
	/** Of the gym, in a line; empty when not said. */
	lifts?: string
}

/**
 * A match, tournament day, practice or gym for a whole squad or one athlete. What is not said is as usual
 * for its kind; the same one entered again replaces itself. Upcoming lines follow at once.
 */
export async function enterOutside(
	who: SignedIn,
	to: { squadId: string } | { athleteId: string },
	typed: OutsideTyped,
	now: Date,
): Promise<{ entered: number } | { problems: Problems }> {
	const problems: Problems = {}
	const kind = OUTSIDE_KINDS.includes(typed.kind as OutsideKind) ? (typed.kind as OutsideKind) : null
	if (!kind) return { problems: { outside: 'Pick a match, a tournament day, a practice or the gym.' } }
	const usual = OUTSIDE_DEFAULTS[kind]
	const today = todayAt(who.timeZone, now)
	const day = typed.day || today
	const minutes = typed.minutes === '' ? usual.minutes : Number(typed.minutes)
	const rpe = typed.rpe === '' ? null : (readNumber(typed.rpe) ?? Number.NaN)
	if (!isDay(day)) problems.outside = `“${typed.day}”: a day like ${today} is expected.`
	if (typed.startTime !== '' && !/^([01]\d|2[0-3]):[0-5]\d$/.test(typed.startTime))
		problems.outside = `“${typed.startTime}”: a time like 15:00 is expected.`
	if (!Number.isInteger(minutes) || minutes < 5 || minutes > 600)
		problems.outside = `“${typed.minutes}”: whole minutes from 5 to 600 are expected.`
	if (rpe !== null && !(rpe >= 0 && rpe <= 10)) problems.outside = `“${typed.rpe}”: an effort from 0 to 10 is expected.`
	const lifts = kind === 'gym' && typed.lifts?.trim() ? readLifts(typed.lifts) : []
	if (lifts === null)
		problems.outside = `“${typed.lifts}”: exercises such as “back squat 100 kg × 5; nordic curl × 4 first time” are expected.`
	if (Object.keys(problems).length > 0) return { problems }
	const flag = (text: string, fallback: boolean) => (text === '' ? fallback : text === 'yes')
	return inTransaction(database().db, who.clubId, async (scope) => {
		const ids =
			'squadId' in to
				? (await listMembers(scope)).filter((member) => member.squadId === to.squadId).map((member) => member.id)
				: (await readAthletes(scope, [to.athleteId])).map((athlete) => athlete.id)
		if (ids.length === 0) return { problems: { outside: 'There is nobody to enter it for.' } }
		const startTime = typed.startTime || USUAL_START
		const jumping = kind === 'gym' ? new Set<string>() : await jumpingIn(scope, to)
		// What the coach entered is not an athlete's to write over.
		if (
			!may(who.role, 'marks:write') &&
			(await outsideOf(scope, ids, day)).some(
				(row) => row.kind === kind && row.day === day && row.startTime === startTime && row.recordedBy !== who.personId,
			)
		)
			return { problems: { outside: 'This is entered already; the coach can change it.' } }
		await writeOutside(
			scope,
			ids.map((athleteId) => ({
				id: newId(),
				athleteId,
				kind,
				day,
				startTime,
				minutes,
				rpe: rpe === null ? null : Math.round(rpe * 10) / 10,
				hardRunning: flag(typed.hardRunning, usual.hardRunning),
				hardCutting: flag(typed.hardCutting, usual.hardCutting),
				hardJumping: flag(typed.hardJumping ?? '', jumping.has(athleteId)),
				lifts: lifts && lifts.length > 0 ? lifts : null,
				isVoid: false,
				recordedBy: who.personId,
				recordedAt: now,
			})),
		)
		await rewriteUpcoming(scope, ids, today, now)
		return { entered: ids.length }
	})
}

/** Whose sport is full of hard jumps: that of the squad it is entered for, of one athlete that of any squad of theirs. */
async function jumpingIn(scope: ClubScope, to: { squadId: string } | { athleteId: string }): Promise<Set<string>> {
	const squads = new Set((await listSquads(scope)).flatMap(({ id, jumpingSport }) => (jumpingSport ? [id] : [])))
	return new Set(
		(await listMembers(scope)).flatMap(({ id, squadId }) =>
			squads.has(squadId) && ('squadId' in to ? squadId === to.squadId : id === to.athleteId) ? [id] : [],
		),
	)
}

/** Who logs marks enters what loads anybody; an athlete, and their guardian, what loads them. */
export const mayEnterOutside = (who: SignedIn, athleteId: string): boolean =>
	may(who.role, 'marks:write') || who.athleteId === athleteId

/** Taken back by who logs marks, else by whoever entered it. */
export async function takeBackOutside(who: SignedIn, athleteId: string, id: string, now: Date): Promise<boolean> {
	if (!mayEnterOutside(who, athleteId)) return false
	const by = may(who.role, 'marks:write') ? null : who.personId
	return inTransaction(database().db, who.clubId, async (scope) => {
		if (!(await voidOutside(scope, id, athleteId, by))) return false
		await rewriteUpcoming(scope, [athleteId], todayAt(who.timeZone, now), now)
		return true
	})
}
