import { setImmediate as breathe } from 'node:timers/promises'
import { isAway } from '../../core/calendar/away'
import { wasPlanned } from '../../core/field/session/drills-now'
import { v7 as newId } from 'uuid'
import { addDays, isDay } from '../../core/calendar/day-count'
import { dayInZone } from '../../core/calendar/days'
import { PHASES, QUALITIES } from '../../core/vocabulary/words'
import { type BlockPlan, blockSessions, completePlan } from '../../core/plan/block'
import { requestOf } from '../../core/plan/build-pack'
import { proposeSession } from '../../core/plan/propose-session'
import { batteryEntries } from '../../core/record/battery'
import type { SessionEntry } from '../../core/vocabulary/entry'
import type { Library } from '../../core/vocabulary/library'
import { tuningForAnotherDay } from '../../core/plan/resolve-sheet'
import type { DayRole } from '../../core/vocabulary/session'
import { themeOn } from '../../core/plan/themes'
import { metFromH } from '../../core/rules/spacing'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readDrills, readLibrary } from '../../db/queries/library'
import { insertBlock, readBlock, unstartedOfBlock } from '../../db/queries/plan'
import {
	type EntryRow,
	type SessionRow,
	insertAttendingOf,
	insertEntries,
	insertSession,
	lastOfSquad,
	readEntries,
	sessionsBetween,
	updateSession,
} from '../../db/queries/sessions'
import { type BatteryRow, addBatterySession, batteriesOf } from '../../db/queries/record'
import { listMembers, readSquad } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { database } from '../database'
import { dried } from '../sheet/dried'
import { keptEntry } from '../sheet/save-session'
import { drillsOfLines } from '../sheet/drills-of-lines'
import { readSheetWriter, writeSheets } from '../sheet/write-lines'
import { countSave } from '../submissions/take-version'
import { plannedWorkOf } from './planned-work'
import { type BlockShare, buildPackOf, readKnown } from './read-build-pack'

const TIME = /^([01]\d|2[0-3]):[0-5]\d$/

/** A block as a form sends it, or what is wrong with it. */
export function readBlockPlan(value: unknown): { plan: BlockPlan } | { problem: string } {
	const {
		start,
		phases,
		shape,
		days,
		priority = null,
		kept = [],
		testDay = false,
		content = 'copied',
		themed = false,
	} = (value ?? {}) as Partial<BlockPlan>
	if (!isDay(start)) return { problem: 'Pick the Monday the block begins with.' }
	if (!Array.isArray(phases) || !phases.every((phase) => PHASES.includes(phase)))
		return { problem: 'Each week has an emphasis.' }
	if (!Array.isArray(shape) || !shape.every((load) => typeof load === 'number'))
		return { problem: 'Each week has a load in percent.' }
	if (
		!Array.isArray(days) ||
		!days.every(
			(day) =>
				Number.isInteger(day?.weekday) &&
				day.weekday >= 1 &&
				day.weekday <= 7 &&
				TIME.test(String(day.startTime)) &&
				Number.isInteger(day.minutes) &&
				day.minutes >= 10 &&
				day.minutes <= 240,
		)
	)
		return { problem: 'Each training day has a time and 10 to 240 minutes.' }
	if (priority !== null && !QUALITIES.includes(priority))
		return { problem: 'The priority is one of sprint, jumps, agility and throws, or none.' }
	if (
		!Array.isArray(kept) ||
		!kept.every((quality) => QUALITIES.includes(quality)) ||
		(priority !== null && kept.includes(priority))
	)
		return { problem: 'What is only kept is not the priority too.' }
	if (content !== 'proposed' && content !== 'copied')
		return { problem: 'Sessions are proposed from the targets or copied from the last one.' }
	const plan: BlockPlan = {
		start,
		phases,
		shape,
		days: days.map(({ weekday, startTime, minutes }) => ({ weekday, startTime, minutes })),
		priority,
		kept: [...new Set(kept)],
		testDay: testDay === true,
		content,
		themed: themed === true,
	}
	try {
		blockSessions(plan, {})
	} catch (error) {
		if (error instanceof RangeError) return { problem: error.message }
		throw error
	}
	return { plan }
}

/** Lanes a proposal may use where nobody has said [our setting]. */
const USUAL_LANES = 4

/**
 * Writes a block's sessions, each with its share, its emphasis and everybody's own lines: proposed from the
 * targets, or the parts of the squad's last session. Light days, tendon work and tests are always proposed.
 * A day on which the squad already trains is left as it is.
 */
export const makeBlock = (
	who: SignedIn,
	squadId: string,
	plan: BlockPlan,
	today: string,
	now: Date,
): Promise<MadeBlock> =>
	inTransaction(database().db, who.clubId, (scope) => writeBlock(scope, who, squadId, plan, today, now))

type MadeBlock = { blockId: string; made: number; left: number } | { problem: string } | null

/** As `makeBlock`, inside a transaction of the caller's. */
export async function writeBlock(
	scope: ClubScope,
	who: Pick<SignedIn, 'clubId' | 'personId' | 'timeZone'>,
	squadId: string,
	plan: BlockPlan,
	today: string,
	now: Date,
): Promise<MadeBlock> {
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const pattern = await lastOfSquad(scope, squadId)
	if (!pattern && plan.content === 'copied')
		return {
			problem: 'This squad has no session yet: make one first, and the block repeats its parts; or have them proposed.',
		}
	const library = await readLibrary(scope)
	const entries = pattern ? (await readEntries(scope, [pattern.id])).filter(wasPlanned) : []
	const everybody = (await listMembers(scope)).filter((member) => member.squadId === squadId)
	if (everybody.length === 0) return { problem: 'Nobody is in this squad yet.' }
	const school = library.schools[squad.schoolId]
	const planned = blockSessions(plan, library.themes, school ? metFromH(school.numbers.spacingH) : undefined)
	const taken = new Set(
		(await sessionsBetween(scope, plan.start, addDays(plan.start, plan.phases.length * 7)))
			.filter((session) => session.squadId === squadId)
			.map((session) => session.day),
	)
	const blockId = newId()
	await insertBlock(scope, {
		id: blockId,
		squadId,
		start: plan.start,
		weeks: plan.phases.length,
		plan,
		madeBy: who.personId,
		madeAt: now,
	})
	const free = planned.filter((one) => !taken.has(one.day)).sort((a, b) => (a.day < b.day ? -1 : 1))
	const battery = await blockBattery(scope, squadId)
	const ids = everybody.map(({ id }) => id)
	const days = free.map(({ day }) => day)
	if (free.length === 0) return { blockId, made: 0, left: planned.length }
	// Read once for all of them, told of each as it is planned, and written once. Nothing of it has been done yet: what was done is looked at until today.
	const span = { from: days[0]!, to: days.at(-1)!, done: today, today }
	const known = await readKnown(scope, ids, span, library)
	const writer = await readSheetWriter(scope, { ids: [], days }, ids, known.records, library, now)
	const drills = drillsOfLines(await readDrills(scope, Object.keys(library.drills)))
	const legs = new Map(known.athletes.map(({ id, legLengthM }) => [id, legLengthM]))
	const sessions: SessionRow[] = []
	const lists: { sessionId: string; athleteIds: string[] }[] = []
	const entriesOfAll: EntryRow[] = []
	for (const one of free) {
		const copied = plan.content === 'copied' && one.role === 'hard' && pattern !== null
		const timeZone = pattern?.timeZone ?? who.timeZone
		const session: SessionRow = {
			clubId: who.clubId,
			id: newId(),
			squadId,
			day: one.day,
			startTime: one.startTime,
			timeZone,
			title: copied ? pattern.title : (one.theme !== null && library.themes[one.theme]?.name) || TITLES[one.role],
			place: pattern?.place ?? squad.place,
			phase: one.phase,
			surface: pattern ? dried(pattern.surface) : null,
			plannedMinutes: one.minutes,
			blockId,
			role: one.role,
			theme: one.theme,
			share: one.share,
			startedAt: null,
			reviewedAt: null,
			linesFor: dayInZone(now.toISOString(), timeZone),
		}
		// With nobody there that day it is planned for all: somebody will be back.
		const coming = everybody.filter((member) => !isAway(member.away, one.day))
		const members = (coming.length > 0 ? coming : everybody).map(({ id }) => id)
		let own: EntryRow[]
		if (copied)
			own = entries.map((entry) => ({
				...entry,
				id: newId(),
				sessionId: session.id,
				doseFactor: entry.family === 'prepare' ? 1 : one.share,
				tuning: tuningForAnotherDay(entry.tuning),
			}))
		else {
			const pack = buildPackOf(known, squad, session, members, library, {
				share: one.share,
				role: one.role,
				priority: plan.priority,
				kept: plan.kept,
				theme: one.theme,
			})
			const { entries: proposed } = proposeSession(
				requestOf(pack, library, { minutes: one.minutes, mostLanes: USUAL_LANES, kit: null }),
			)
			const whole = battery && one.role === 'test' ? withBattery(proposed, battery, library) : proposed
			own = whole.map((entry, position) => ({
				...keptEntry(session.id, entry, position, library),
				clubId: scope.clubId,
			}))
		}
		sessions.push(session)
		lists.push({ sessionId: session.id, athleteIds: members })
		entriesOfAll.push(...own)
		const lines = writer.resolve(session, squad, own, members)
		// A block is a second of work or more: others are answered between its sessions.
		await breathe()
		known.records.plan(session, members, [...new Set(own.map(({ family }) => family))])
		for (const [id, works] of plannedWorkOf(
			lines.map((line) => ({ line, session })),
			drills,
			legs,
		))
			known.planned.get(id)!.push(...works)
	}
	await insertSession(scope, ...sessions)
	await insertAttendingOf(scope, lists)
	await insertEntries(scope, entriesOfAll)
	await writer.write()
	if (battery) for (const { id, role } of sessions) if (role === 'test') await addBatterySession(scope, battery.id, id)
	return { blockId, made: free.length, left: planned.length - free.length }
}

/** The squad's battery that is due at the end of a block, the newest of several; null without one. */
export const blockBattery = async (scope: ClubScope, squadId: string): Promise<BatteryRow | null> =>
	(await batteriesOf(scope, squadId)).filter(({ every, retired }) => every === 'block' && !retired).at(-1) ?? null

/** The squad's own tests in the place of the proposed ones, between the same warm-up and close. */
function withBattery(proposed: readonly SessionEntry[], battery: BatteryRow, library: Library): SessionEntry[] {
	const tests = new Set(themeOn(library.themes, { role: 'test' })?.pieces.map(({ part }) => part))
	const at = proposed.findIndex(({ part }) => tests.has(part))
	const others = proposed.filter(({ part }) => !tests.has(part))
	return at === -1
		? [...others]
		: [...others.slice(0, at), ...batteryEntries(battery.items, library, newId), ...others.slice(at)]
}

const TITLES: Record<DayRole, string> = {
	hard: 'Speed and power',
	light: 'Technique and throws',
	tissue: 'Tendon work',
	test: 'Tests',
}

/** A block's shares for one of its sessions; null when the session is of none. */
export async function blockShareOf(
	scope: ClubScope,
	session: Pick<SessionRow, 'blockId' | 'share' | 'role' | 'theme'>,
): Promise<BlockShare> {
	const block = session.blockId === null ? null : await readBlock(scope, session.blockId)
	const plan = block && completePlan(block.plan)
	return {
		share: session.share,
		role: session.role,
		priority: plan?.priority ?? null,
		kept: plan?.kept ?? [],
		theme: session.theme,
	}
}

/** Moves all of a block's sessions that were not begun by whole weeks. */
export async function shiftBlock(
	who: SignedIn,
	blockId: string,
	weeks: number,
	today: string,
	now: Date,
): Promise<{ moved: number } | { problem: string } | null> {
	if (!Number.isInteger(weeks) || weeks === 0 || Math.abs(weeks) > 12)
		return { problem: 'A block is shifted by 1 to 12 weeks.' }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const block = await readBlock(scope, blockId)
		const squad = block && (await readSquad(scope, block.squadId))
		if (!block || !squad) return null
		const library = await readLibrary(scope)
		const sessions = await unstartedOfBlock(scope, blockId)
		if (sessions.some((session) => addDays(session.day, weeks * 7) < today))
			return { problem: 'That would put sessions into the past.' }
		const moved = sessions.map((session) => ({ ...session, day: addDays(session.day, weeks * 7) }))
		for (const { id, day } of moved) {
			await updateSession(scope, id, { day })
			await countSave(scope, who, 'session', id, now)
		}
		await writeSheets(
			scope,
			moved.map((session) => ({ session, squad })),
			library,
			now,
		)
		return { moved: sessions.length }
	})
}
