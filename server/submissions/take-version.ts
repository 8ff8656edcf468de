import type { ClubScope } from '../../db/connect'
import { authorsById } from '../../db/queries/clubs'
import { lockVersion, readVersion, writeVersion } from '../../db/queries/submissions'
import type { RecordKind } from '../../db/schema/submissions'
import type { SignedIn } from '../access/sign-in'

/** Somebody saved a record after the form that is sent now was filled from it. */
export interface Meanwhile {
	/** What stands now; a form that names it is saved over that. */
	version: number
	by: string
	at: string
}
export interface Difference {
	label: string
	theirs: string
	yours: string
}
/** A record in words, part by part, so that two writings of it can be laid side by side. */
export type Described = readonly (readonly [label: string, words: string])[]

/** The version a form is filled from: 0 for a record nobody has changed. */
export const versionOf = async (scope: ClubScope, kind: RecordKind, id: string): Promise<number> =>
	(await readVersion(scope, kind, id))?.version ?? 0

/**
 * Counts a save of a record up; or, when it was saved since the version the form was filled from, says by
 * whom, and nothing may be written. Asked inside the transaction that saves.
 *
 * @param seen the version the form was filled from, or the one its writer has chosen to save over
 */
export async function takeVersion(
	scope: ClubScope,
	who: SignedIn,
	kind: RecordKind,
	id: string,
	seen: number,
	now: Date,
): Promise<Meanwhile | null> {
	const row = await lockVersion(scope, kind, id)
	const version = row?.version ?? 0
	if (row && version !== seen) {
		const author = (await authorsById(scope, [row.changedBy])).get(row.changedBy)
		return { version, by: author?.name ?? 'Somebody', at: row.changedAt.toISOString() }
	}
	await writeVersion(scope, kind, id, version + 1, who.personId, now)
	return null
}

/** Counts a save up for which nobody filled a form: a session dragged to another day, its lanes, a repair. */
export async function countSave(
	scope: ClubScope,
	who: Pick<SignedIn, 'personId'>,
	kind: RecordKind,
	id: string,
	now: Date,
): Promise<void> {
	const version = (await lockVersion(scope, kind, id))?.version ?? 0
	await writeVersion(scope, kind, id, version + 1, who.personId, now)
}

/** Where two writings of a record differ, in the order of theirs. */
export function differences(theirs: Described, yours: Described): Difference[] {
	const [one, two] = [new Map(theirs), new Map(yours)]
	return [...new Set([...one.keys(), ...two.keys()])].flatMap((label) => {
		const [their, your] = [one.get(label) ?? '—', two.get(label) ?? '—']
		return their === your ? [] : [{ label, theirs: their, yours: your }]
	})
}

/** The version a form names: what its writer has seen, or chosen to save over. */
export const versionSeen = (form: FormData): number => Number(form.get('over') ?? form.get('version') ?? 0)
