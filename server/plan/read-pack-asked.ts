import type { Surface } from '../../core/vocabulary/words'
import { addDays } from '../../core/calendar/day-count'
import type { BuildPack, LastLine } from '../../core/plan/build-pack'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { lastLinesOf, readSession } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import { blockShareOf } from './make-block'
import { plannedOf } from '../sheet/planned-of'
import { writeLine } from '../sheet/write-lines'
import { ALONE, readBuildPack } from './read-build-pack'

/** So far back a last time is looked for. */
const LAST_DAYS = 56

/** What the session form asks for: a squad on a day, for a session that stands or one that is being made. */
export interface PackAsked {
	squadId: string
	sessionId: string | null
	day: string
	startTime: string
	surface: Surface | null
	athleteIds: string[]
}

/** The build pack for the form; null when there is no such squad. */
export async function readPackAsked(scope: ClubScope, asked: PackAsked, today: string): Promise<BuildPack | null> {
	const [squad, library] = [await readSquad(scope, asked.squadId), await readLibrary(scope)]
	if (!squad) return null
	const session = asked.sessionId ? await readSession(scope, asked.sessionId) : null
	const pack = await readBuildPack(
		scope,
		squad,
		{
			id: session?.id ?? '',
			day: asked.day,
			startTime: asked.startTime,
			phase: session?.phase ?? squad.phase,
			surface: asked.surface,
		},
		asked.athleteIds,
		library,
		today,
		session ? await blockShareOf(scope, session) : ALONE,
	)
	const last = new Map<string, Record<string, LastLine>>()
	const lines = await lastLinesOf(scope, asked.athleteIds, addDays(asked.day, -LAST_DAYS), asked.day)
	for (const { line, session: held } of lines) {
		const own = last.get(line.athleteId) ?? {}
		own[line.ladderId ?? line.drillId!] = { day: held.day, words: writeLine(plannedOf(line), library) }
		last.set(line.athleteId, own)
	}
	return { ...pack, athletes: pack.athletes.map((athlete) => ({ ...athlete, last: last.get(athlete.id) ?? {} })) }
}
