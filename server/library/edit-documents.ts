import { Drill } from '../../core/vocabulary/drill'
import { Ladder } from '../../core/vocabulary/ladder'
import type { Library } from '../../core/vocabulary/library'
import { Theme } from '../../core/vocabulary/theme'
import { drillProblems, ladderProblems, themeProblems } from '../../core/judge/document-problems'
import { canonicalJson } from '../../core/events/canonical-json'
import { type ClubScope, inTransaction } from '../../db/connect'
import { authorsById } from '../../db/queries/clubs'
import { type DocumentKind, insertOwnDocument, newestDocument, readLibrary } from '../../db/queries/library'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { type ShapeCheck, shapeCheck } from '../check-shape'
import { database } from '../database'
import { type Described, type Difference, type Meanwhile, differences } from '../submissions/take-version'

/** Sentences by field path, "rungs.2.name"; what was typed stands in its sentence. */
function shapeProblems(check: ShapeCheck<unknown>, value: unknown): Problems {
	const problems: Problems = {}
	for (const error of check.errors ?? []) {
		const missing =
			error.keyword === 'required' ? `/${(error.params as { missingProperty: string }).missingProperty}` : ''
		const path = `${error.instancePath}${missing}`.slice(1).replaceAll('/', '.') || 'document'
		const typed = path
			.split('.')
			.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], value)
		problems[path] ??=
			`${typeof typed === 'number' || (typeof typed === 'string' && typed !== '') ? `“${typed}”: ` : ''}${error.keyword === 'pattern' || error.keyword === 'minLength' || error.keyword === 'required' || error.keyword === 'minItems' ? 'something is expected here' : (error.message ?? 'not understood')}.`
	}
	return problems
}

export type Kept =
	| { id: string; version: number }
	| { problems: Problems }
	| { meanwhile: Meanwhile & { differences: Difference[] } }

/** A document names the version it was written from; when there is a newer one, it was somebody else's. */
async function overtaken(scope: ClubScope, kind: DocumentKind, yours: { id: string; version: number }) {
	const newest = await newestDocument(scope, kind, yours.id)
	if (!newest || newest.content.version === yours.version) return null
	const author = newest.writtenBy && (await authorsById(scope, [newest.writtenBy])).get(newest.writtenBy)
	const described = (document: object): Described =>
		Object.entries(document)
			.filter(([name]) => name !== 'version')
			.map(([name, value]) => [name, typeof value === 'string' ? value : canonicalJson(value)])
	return {
		version: newest.content.version,
		by: author ? author.name : 'A newer version of the program',
		at: newest.createdAt.toISOString(),
		differences: differences(described(newest.content), described(yours)),
	}
}

/** How a kind of document is written by a club: its shape, and what the shape cannot say. */
const writing =
	<T extends Drill | Ladder | Theme>(
		kind: DocumentKind,
		check: ShapeCheck<T>,
		problemsOf: (value: T, library: Library) => Record<string, string>,
	) =>
	async (who: SignedIn, value: unknown, now: Date): Promise<Kept> => {
		if (!check(value)) return { problems: shapeProblems(check, value) }
		return inTransaction(database().db, who.clubId, async (scope) => {
			const problems = problemsOf(value, await readLibrary(scope))
			if (Object.keys(problems).length > 0) return { problems }
			const meanwhile = await overtaken(scope, kind, value)
			if (meanwhile) return { meanwhile }
			return { id: value.id, version: await insertOwnDocument(scope, kind, value, who.personId, now) }
		})
	}

/** Keeps a drill of the club's own, new or over the built-in one, as its next version. What was logged cites the version it was done with. */
export const keepDrill = writing('drill', shapeCheck<Drill>(Drill, 'all'), drillProblems)

/** Keeps a ladder as its next version. Rungs keep their ids, because athletes stand on them. */
export const keepLadder = writing('ladder', shapeCheck<Ladder>(Ladder, 'all'), (ladder, library) =>
	ladderProblems(ladder, library, library.ladders[ladder.id]),
)

/** Keeps the recipe of a session as its next version; sessions made from it stand as they were made. */
export const keepTheme = writing('theme', shapeCheck<Theme>(Theme, 'all'), themeProblems)
