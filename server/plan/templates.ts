import { v7 as newId } from 'uuid'
import { type SessionTemplate, SessionTemplateSchema } from '../../core/plan/template'
import { deleteTemplate, insertTemplate, listTemplates } from '../../db/queries/plan'
import type { SignedIn } from '../access/sign-in'
import { shapeCheck } from '../check-shape'
import { scopeOf } from '../database'

const check = shapeCheck<SessionTemplate>(SessionTemplateSchema)
/** A club keeps at most so many. */
const MOST_TEMPLATES = 200

/** A template that came as a document, or the first thing that is wrong with it. */
export function readTemplate(value: unknown): { template: SessionTemplate } | { problem: string } {
	if (check(value)) {
		const nameless = value.entries.findIndex(
			(entry) => (entry.drillId === undefined) === (entry.ladderId === undefined),
		)
		return nameless < 0
			? { template: value }
			: { problem: `Entry ${nameless + 1}: either a drill or a ladder is expected.` }
	}
	const [error] = check.errors ?? []
	const where = error?.instancePath ? error.instancePath.slice(1).replaceAll('/', ', ') : 'the document'
	return { problem: `This is not a session template: ${where} ${error?.message ?? 'is not understood'}.` }
}

export async function keepTemplate(
	who: SignedIn,
	value: unknown,
	now: Date,
): Promise<{ kept: string } | { problem: string }> {
	const read = readTemplate(value)
	if ('problem' in read) return read
	const scope = scopeOf(who.clubId)
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
