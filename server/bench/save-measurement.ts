import { findCalculation } from '../../core/calc/calculations'
import { MEASURED } from '../../core/calc/measured'
import { MeasurementToSaveSchema, type MeasurementToSave } from '../../core/calc/measurement-to-save'
import { insertMeasurement, measurementHash, readMeasurement } from '../../db/queries/measurements'
import { DROP_JUMP_SERIES } from '../../core/calc/jump-calculations'
import { inTransaction } from '../../db/connect'
import { hashOf } from '../../db/queries/library'
import { readAthletes } from '../../db/queries/squads'
import { isErased } from '../person/person-data'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { runCalculation, shapeError } from '../calc/run-calculation'
import { shapeCheck } from '../check-shape'
import { todayAt } from '../clock'
import type { ClubScope } from '../../db/connect'
import { foldEvents } from '../../core/events/fold'
import { eventsById, eventsOfAthlete } from '../../db/queries/log'
import { database, scopeOf } from '../database'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'

const check = shapeCheck<MeasurementToSave>(MeasurementToSaveSchema)

export type Saved = { saved: 'new' | 'again'; athleteName: string } | { field: string; reason: string }

/** Keeps a result of the bench with an athlete. The input is computed again here: what does not compute is not kept. */
export async function saveMeasurement(who: SignedIn, value: unknown, now: Date): Promise<Saved> {
	if (!check(value)) {
		const { field, message } = shapeError(check.errors?.at(-1), value)
		return { field, reason: message }
	}
	const { id, athleteId, takenOn, calculation, method, input, markId } = value
	const today = todayAt(who.timeZone, now)
	if (!may(who.role, 'marks:write') && !(may(who.role, 'marks:write-today') && takenOn === today))
		return {
			field: 'takenOn',
			reason: may(who.role, 'marks:write-today') ? 'Assistants log today only.' : 'Your role does not log.',
		}
	if (takenOn > today || takenOn < '1990-01-01')
		return { field: 'takenOn', reason: `${takenOn} is not a day from 1990 to today.` }
	const one = findCalculation(calculation)
	const kept = MEASURED[calculation]
	if (!one || !kept) return { field: 'calculation', reason: `${calculation} says nothing about one athlete.` }
	if (!kept.methods.includes(method as never))
		return {
			field: 'method',
			reason: `${method || 'nothing'} given; ${kept.methods.join(', ')} are the ways to take it.`,
		}
	const answer = runCalculation(one, input)
	if ('error' in answer) return { field: `input.${answer.error.field}`, reason: answer.error.message }
	const scope = scopeOf(who.clubId)
	const [athlete] = await readAthletes(scope, [athleteId])
	if (!athlete || (await isErased(who, athleteId))) return { field: 'athleteId', reason: 'No such athlete.' }
	if (markId !== undefined && !(await isRepOf(scope, markId, athleteId)))
		return { field: 'markId', reason: 'No such rep of this athlete.' }
	// Without a rep the hash is what it was before reps could be named.
	const contentHash = hashOf({ athleteId, takenOn, calculation, method, input, ...(markId ? { markId } : {}) })
	const isNew = await keep(
		who,
		{
			id,
			athleteId,
			takenOn,
			calculation,
			method,
			input,
			markId: markId ?? null,
			replacesId: null,
			isVoid: false,
			contentHash,
		},
		now,
	)
	if (!isNew && (await measurementHash(scope, id)) !== contentHash)
		return { field: 'id', reason: 'id_reused: another measurement already has this id' }
	return { saved: isNew ? 'new' : 'again', athleteName: athlete.name }
}

async function isRepOf(scope: ClubScope, markId: string, athleteId: string): Promise<boolean> {
	const [mark] = await eventsById(scope, [markId])
	if (mark?.type !== 'mark') return false
	const { current } = foldEvents(await eventsOfAthlete(scope, athleteId, [mark.sessionId]))
	return current.some((event) => event.id === markId && event.athleteId === athleteId)
}

/** Takes a measurement back: a new row says that the old one does not stand. Null for a stranger's id. */
export async function takeBackMeasurement(
	who: SignedIn,
	id: string,
	newId: string,
	now: Date,
): Promise<'done' | 'not-allowed' | null> {
	const scope = scopeOf(who.clubId)
	const found = await readMeasurement(scope, id)
	if (!found) return null
	if (!may(who.role, 'marks:write') && found.authorId !== who.personId) return 'not-allowed'
	const { athleteId, takenOn, calculation, method, input, markId } = found
	const contentHash = hashOf({ void: id })
	await keep(
		who,
		{ id: newId, athleteId, takenOn, calculation, method, input, markId, replacesId: id, isVoid: true, contentHash },
		now,
	)
	return 'done'
}

/**
 * Writes a row, new or that takes one back; true when it is new. A best box decides which rung is written, so that
 * lines follow it; what else is measured is said beside the line, and read as it is shown.
 */
const keep = (
	who: SignedIn,
	row: Omit<Parameters<typeof insertMeasurement>[1], 'authorId' | 'receivedAt'>,
	now: Date,
): Promise<boolean> =>
	inTransaction(database().db, who.clubId, async (scope) => {
		const isNew = await insertMeasurement(scope, { ...row, authorId: who.personId, receivedAt: now })
		if (isNew && row.calculation === DROP_JUMP_SERIES.name)
			await rewriteUpcoming(scope, [row.athleteId], todayAt(who.timeZone, now), now)
		return isNew
	})
