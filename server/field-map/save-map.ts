import { v7 as newId } from 'uuid'
import { canonicalJson } from '../../core/events/canonical-json'
import { TURN_DEG, checkLayout, snap } from '../../core/field-map/layout'
import type { Ground, Placement } from '../../core/field-map/types'
import { SURFACES } from '../../core/vocabulary/words'
import { type ClubScope, inTransaction } from '../../db/connect'
import { addressOf, writeAddress } from '../../db/queries/emergency'
import { insertGround, listGrounds, updateGround, writeLayout } from '../../db/queries/grounds'
import { readLibrary } from '../../db/queries/library'
import { lockSession, unstartedAt, updateSession } from '../../db/queries/sessions'
import { listSquads, readSquad, updateSquad } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { database, scopeOf } from '../database'
import { readSheet } from '../sheet/read-sheet'
import { withSquads } from '../sheet/rewrite-upcoming'
import { writeLines, writeSheets } from '../sheet/write-lines'
import {
	type Described,
	type Difference,
	type Meanwhile,
	countSave,
	differences,
	takeVersion,
} from '../submissions/take-version'
import { readMap } from './read-map'
import { quantityIn } from '../../core/measure/quantity'
import type { Units } from '../../core/words/units'

/** Placements as a form sends them; null when they are none. */
function readPlacements(value: unknown): Placement[] | null {
	if (!Array.isArray(value) || value.length > 30) return null
	const placements = value.map((one: Partial<Placement>) => ({
		entryId: String(one?.entryId ?? ''),
		x: Number(one?.x),
		y: Number(one?.y),
		turnDeg: Number(one?.turnDeg),
	}))
	return placements.every(
		({ entryId, x, y, turnDeg }) =>
			/^[0-9a-f-]{36}$/.test(entryId) &&
			[x, y, turnDeg].every((number) => Number.isFinite(number) && Math.abs(number) <= 1000),
	)
		? placements.map(snap)
		: null
}

/**
 * Keeps where a session's stations stand on a ground. Nobody runs through a throw sector, nothing leaves the
 * ground, and what somebody else has kept meanwhile is not written over.
 *
 * @param before the kept placements the change was made on; null when none were kept
 */
export async function saveMap(
	who: SignedIn,
	sessionId: string,
	groundId: string,
	value: unknown,
	before: unknown,
	now: Date,
): Promise<{ saved: true } | { problem: string } | null> {
	const placements = readPlacements(value)
	if (!placements)
		return { problem: `Each station has metres from the corner and a turn in steps of ${TURN_DEG} degrees.` }
	return inTransaction(database().db, who.clubId, async (scope) => {
		// Two who save at once queue up at the session.
		const session = await lockSession(scope, sessionId)
		const sheet = session && (await readSheet(scope, sessionId))
		const map = sheet && (await readMap(scope, sheet, groundId))
		if (!map || !('ground' in map) || map.ground.id !== groundId) return null
		if (map.saved && canonicalJson(map.placements) !== canonicalJson(readPlacements(before) ?? null))
			return { problem: 'Not saved. Somebody else has changed this plan meanwhile: read it anew before changing it.' }
		const known = placements.filter((placement) =>
			map.stations.some((station) => station.entryId === placement.entryId),
		)
		const refused = checkLayout(map.stations, known, map.ground).find((clash) => clash.refused)
		if (refused) return { problem: `Not saved. ${refused.sentence}` }
		await writeLayout(scope, sessionId, groundId, known, now)
		return { saved: true as const }
	})
}

/** Holds an unstarted session on a ground: its place and what is under foot, and everybody's lines for that. */
export async function holdOn(
	who: SignedIn,
	sessionId: string,
	groundId: string,
	now: Date,
): Promise<{ held: string } | { problem: string } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		const squad = session && (await readSquad(scope, session.squadId))
		const ground = (await listGrounds(scope)).find((one) => one.id === groundId)
		if (!session || !squad || !ground) return null
		if (session.startedAt) return { problem: 'This session has begun; it stays where it is.' }
		const to = { place: ground.name, surface: ground.surface }
		await updateSession(scope, sessionId, to)
		await countSave(scope, who, 'session', sessionId, now)
		await writeLines(scope, { ...session, ...to }, squad, await readLibrary(scope), now)
		return { held: ground.name }
	})
}

/** What became of a change: overtaken by somebody else's where theirs was not seen. */
type Changed = { saved: true } | { problem: string } | { meanwhile: Meanwhile & { differences: Difference[] } }

export interface TypedGround {
	name: string
	lengthM: string
	widthM: string
	surface: string
}
function readGround(typed: TypedGround, units: Units): Omit<Ground, 'id'> | { problem: string } {
	const [lengthM, widthM] = [typed.lengthM, typed.widthM].map(
		(text) => quantityIn('ground', units).read(text) ?? Number.NaN,
	)
	const surface = SURFACES.find((one) => one === typed.surface)
	if (typed.name.trim() === '' || typed.name.length > 200)
		return { problem: 'A ground has a name of up to 200 characters.' }
	if (!(lengthM! >= 10 && lengthM! <= 400 && widthM! >= 5 && widthM! <= 400))
		return { problem: `“${typed.lengthM}” by “${typed.widthM}”: 10 to 400 m by 5 to 400 m are expected.` }
	if (!surface) return { problem: 'Say what is under foot there.' }
	return {
		name: typed.name.trim(),
		lengthM: lengthM!,
		widthM: widthM!,
		surface,
	}
}

/** Adds a ground that was paced out. */
export async function addGround(who: SignedIn, typed: TypedGround): Promise<{ added: string } | { problem: string }> {
	const read = readGround(typed, who.units)
	if ('problem' in read) return read
	await insertGround(scopeOf(who.clubId), { id: newId(), ...read })
	return { added: read.name }
}

/**
 * Changes a ground. What stands on it is kept; sessions nobody has begun that name it go by its new name and what is
 * under foot there now, with everybody's lines for that. Null for a stranger's ground.
 */
export async function changeGround(
	who: SignedIn,
	groundId: string,
	typed: TypedGround,
	seen: number,
	now: Date,
): Promise<Changed | null> {
	const read = readGround(typed, who.units)
	if ('problem' in read) return read
	return inTransaction(database().db, who.clubId, async (scope) => {
		const before = (await listGrounds(scope)).find(({ id }) => id === groundId)
		if (!before) return null
		const meanwhile = await takeVersion(scope, who, 'ground', groundId, seen, now)
		if (meanwhile) {
			const said = (one: Omit<Ground, 'id'>): Described => [
				['Name', one.name],
				['Size', `${one.lengthM} × ${one.widthM} m`],
				['Under foot', one.surface.replace('-', ' ')],
			]
			return { meanwhile: { ...meanwhile, differences: differences(said(before), said(read)) } }
		}
		await updateGround(scope, groundId, read)
		if (before.name === read.name && before.surface === read.surface) return { saved: true as const }
		if (before.name !== read.name) await renamePlace(scope, who, before.name, read.name, now)
		const to = { place: read.name, surface: read.surface }
		const held = await unstartedAt(scope, before.name, todayAt(who.timeZone, now))
		for (const { id } of held) {
			await updateSession(scope, id, to)
			await countSave(scope, who, 'session', id, now)
		}
		const moved = held.map((session) => ({ ...session, ...to }))
		await writeSheets(scope, await withSquads(scope, moved), await readLibrary(scope), now)
		return { saved: true as const }
	})
}

/** Squads that train at a place train there by its new name, and help still finds it. */
async function renamePlace(scope: ClubScope, who: SignedIn, from: string, to: string, now: Date): Promise<void> {
	for (const squad of await listSquads(scope))
		if (squad.place === from) {
			await updateSquad(scope, squad.id, { place: to })
			await countSave(scope, who, 'squad', squad.id, now)
		}
	const address = await addressOf(scope, from)
	if (address && !(await addressOf(scope, to)))
		await writeAddress(scope, { place: to, address, changedBy: who.personId, changedAt: now })
}

/** Takes a ground off the club's page, or brings it back with the plans that were made on it. */
export const takeGroundOff = (who: SignedIn, groundId: string, off: boolean) =>
	updateGround(scopeOf(who.clubId), groundId, { off })
