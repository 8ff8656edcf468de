import { v7 as newId } from 'uuid'
import { partsOf } from '../../core/plan/entry-parts'
import type { Library } from '../../core/vocabulary/library'
import { templateFromKept } from '../../core/vocabulary/older'
import { SessionTemplate } from '../../core/vocabulary/template'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { deleteTemplate, insertTemplate, listTemplates } from '../../db/queries/plan'
import type { SignedIn } from '../access/sign-in'
import { shapeCheck } from '../check-shape'
import { scopeOf } from '../database'

const check = shapeCheck<SessionTemplate>(SessionTemplate)
/** A club keeps at most so many. */
const MOST_TEMPLATES = 200

/** A template as it is kept or was sent, of whatever version, in today's shape. */
const today = (value: unknown, library: Library): unknown =>
	templateFromKept(
		value,
		({ drillId = '', ladderId }) => partsOf({ drillId, ladderId: ladderId ?? null }, library)?.family ?? null,
		(ladderId) => library.ladders[ladderId]?.rungs[0]?.drillId ?? null,
	)

/** A template that came as a document, or the first thing that is wrong with it. */
export function readTemplate(sent: unknown, library: Library): { template: SessionTemplate } | { problem: string } {
	const value = today(sent, library)
	if (check(value)) return { template: value }
	const [error] = check.errors ?? []
	const where = error?.instancePath ? error.instancePath.slice(1).replaceAll('/', ', ') : 'the document'
	return { problem: `This is not a session template: ${where} ${error?.message ?? 'is not understood'}.` }
}

/** A document that was sent, read with what the club's library knows. */
export const readSentTemplate = async (scope: ClubScope, sent: unknown) => readTemplate(sent, await readLibrary(scope))

/** The club's templates, by name. */
export const readTemplates = async (scope: ClubScope, library: Library) =>
	(await listTemplates(scope)).map(({ id, name, content }) => ({
		id,
		name,
		content: today(content, library) as SessionTemplate,
	}))

export async function keepTemplate(
	who: SignedIn,
	value: unknown,
	now: Date,
): Promise<{ kept: string } | { problem: string }> {
	const scope = scopeOf(who.clubId)
	const read = readTemplate(value, await readLibrary(scope))
	if ('problem' in read) return read
	if ((await listTemplates(scope)).length >= MOST_TEMPLATES)
		return { problem: `At most ${MOST_TEMPLATES} templates are kept; forget one first.` }
	await insertTemplate(scope, {
		id: newId(),
		name: read.template.name,
		content: read.template,
		madeBy: who.personId,
		madeAt: now,
	})
	return { kept: read.template.name }
}

export const forgetTemplate = (who: SignedIn, id: string): Promise<void> => deleteTemplate(scopeOf(who.clubId), id)
