import type { Surface } from '../../core/vocabulary/words'
import type { BuildPack } from '../../core/plan/build-pack'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { readSession } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import { blockShareOf } from './make-block'
import { ALONE, readBuildPack } from './read-build-pack'

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
	return readBuildPack(
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
}
