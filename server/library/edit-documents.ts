import { Drill } from '../../core/vocabulary/drill'
import { Ladder } from '../../core/vocabulary/ladder'
import { drillProblems, ladderProblems } from '../../core/judge/document-problems'
import { canonicalJson } from '../../core/events/canonical-json'
import { type ClubScope, inTransaction } from '../../db/connect'
import { authorsById } from '../../db/queries/clubs'
import { insertOwnDocument, newestDocument, readLibrary } from '../../db/queries/library'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { type ShapeCheck, shapeCheck } from '../check-shape'
import { database } from '../database'
import { type Described, type Difference, type Meanwhile, differences } from '../submissions/take-version'

const drillCheck = shapeCheck<Drill>(Drill, 'all')
const ladderCheck = shapeCheck<Ladder>(Ladder, 'all')

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
async function overtaken(scope: ClubScope, kind: 'drill' | 'ladder', yours: Drill | Ladder) {
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

/** Keeps a drill of the club's own, new or over the built-in one, as its next version. What was logged cites the version it was done with. */
export async function keepDrill(who: SignedIn, value: unknown, now: Date): Promise<Kept> {
	if (!drillCheck(value)) return { problems: shapeProblems(drillCheck, value) }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const problems = drillProblems(value, await readLibrary(scope))
		if (Object.keys(problems).length > 0) return { problems }
		const meanwhile = await overtaken(scope, 'drill', value)
		if (meanwhile) return { meanwhile }
		return { id: value.id, version: await insertOwnDocument(scope, 'drill', value, who.personId, now) }
	})
}

/** Keeps a ladder as its next version. Rungs keep their ids, because athletes stand on them. */
export async function keepLadder(who: SignedIn, value: unknown, now: Date): Promise<Kept> {
	if (!ladderCheck(value)) return { problems: shapeProblems(ladderCheck, value) }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const library = await readLibrary(scope)
		const problems = ladderProblems(value, library, library.ladders[value.id])
		if (Object.keys(problems).length > 0) return { problems }
		const meanwhile = await overtaken(scope, 'ladder', value)
		if (meanwhile) return { meanwhile }
		return { id: value.id, version: await insertOwnDocument(scope, 'ladder', value, who.personId, now) }
	})
}
