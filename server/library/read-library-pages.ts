import { CLOSE, RHYTHM, WARM_UP } from '../../core/library/themes'
import { themesFor } from '../../core/plan/themes'
import { FAMILIES } from '../../core/vocabulary/words'
import { THEME_ROLES, type Theme } from '../../core/vocabulary/theme'
import type { Drill } from '../../core/vocabulary/drill'
import type { Ladder } from '../../core/vocabulary/ladder'
import { writeDose, writeParameters } from '../../core/words/write-numbers'
import type { ClubScope } from '../../db/connect'
import { ownDocuments, readLibrary } from '../../db/queries/library'

/** What a new recipe begins with: every session prepares and closes. */
const BLANK_THEME: Theme = {
	id: '',
	version: 1,
	name: '',
	about: '',
	role: 'hard',
	main: 'sprint',
	second: null,
	opening: [...WARM_UP, RHYTHM],
	pieces: [],
	kept: [],
	closing: [CLOSE],
	inBlock: {},
}

/** A squad's own school belongs to the squad's page, not to the library. */
const isShared = (school: { id: string }) => !school.id.startsWith('own-')

export async function readLibraryPage(scope: ClubScope) {
	const [library, own] = [await readLibrary(scope), await ownDocuments(scope)]
	return {
		drills: Object.values(library.drills).map((drill) => ({
			id: drill.id,
			name: drill.name,
			family: drill.family,
			intensity: drill.intensity,
			reactive: drill.reactive,
			dose: writeDose(drill.defaults.dose),
			parameters: writeParameters(drill.defaults.parameters),
			cues: drill.cues,
			own: own.has(`drill/${drill.id}`),
		})),
		ladders: Object.values(library.ladders)
			.sort(
				(a, b) =>
					Number(a.path !== undefined) - Number(b.path !== undefined) ||
					FAMILIES.indexOf(a.family) - FAMILIES.indexOf(b.family) ||
					a.name.localeCompare(b.name),
			)
			.map((ladder) => ({
				id: ladder.id,
				name: ladder.name,
				family: ladder.family,
				rungs: ladder.rungs.length,
				from: ladder.rungs[0]?.name ?? '',
				to: ladder.rungs.at(-1)?.name ?? '',
				path: ladder.path ?? null,
				own: own.has(`ladder/${ladder.id}`),
			})),
		themes: THEME_ROLES.flatMap((role) => themesFor(library.themes, role)).map(({ id, name, role, main, about }) => ({
			id,
			name,
			role,
			main,
			about,
			own: own.has(`theme/${id}`),
		})),
		schools: Object.values(library.schools)
			.filter(isShared)
			.map(({ id, name, about }) => ({ id, name, about })),
	}
}

/** A drill, or the given blank one for a new drill, with what its form offers; null when there is none of that id. */
export async function readDrillPage(scope: ClubScope, drillId: string, blank: Drill | null) {
	const library = await readLibrary(scope)
	const drill = blank ?? library.drills[drillId]
	if (!drill) return null
	return {
		drill,
		drills: Object.values(library.drills).map(({ id, name, regions }) => ({ id, name, regions })),
		usedBy: Object.values(library.ladders)
			.filter((ladder) => ladder.rungs.some((rung) => rung.drillId === drill.id))
			.map(({ id, name }) => ({ id, name })),
	}
}

/** A ladder, or the given blank one for a new ladder, with what its form offers; null when there is none of that id. */
export async function readLadderPage(scope: ClubScope, ladderId: string, blank: Ladder | null) {
	const library = await readLibrary(scope)
	const ladder = blank ?? library.ladders[ladderId]
	if (!ladder) return null
	return {
		ladder,
		ladders: library.ladders,
		drills: Object.values(library.drills).map(({ id, name, defaults, family }) => ({ id, name, defaults, family })),
	}
}

/** The recipe of a session, or a blank one where none is asked for, with what its form offers; null when there is none of that id. */
export async function readThemePage(scope: ClubScope, themeId: string | null) {
	const library = await readLibrary(scope)
	const theme = themeId === null ? BLANK_THEME : library.themes[themeId]
	if (!theme) return null
	const byName = (a: { name: string }, b: { name: string }) => a.name.localeCompare(b.name)
	return {
		theme,
		ladders: Object.values(library.ladders)
			.map(({ id, name, path }) => ({ id, name, path }))
			.sort(byName),
		drills: Object.values(library.drills)
			.map(({ id, name, defaults }) => ({ id, name, defaults }))
			.sort(byName),
	}
}

export async function listSchools(scope: ClubScope) {
	return Object.values((await readLibrary(scope)).schools).filter(isShared)
}
