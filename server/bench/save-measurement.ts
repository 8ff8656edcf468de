import { findCalculation } from '../../core/calc/calculations'
import { MEASURED } from '../../core/calc/measured'
import { MeasurementToSaveSchema, type MeasurementToSave } from '../../core/calc/measurement-to-save'
import { insertMeasurement, measurementHash, readMeasurement } from '../../db/queries/measurements'
import { DROP_JUMP_SERIES } from '../../core/calc/jump-calculations'
import { type ClubScope, inTransaction } from '../../db/connect'
import { hashOf } from '../../db/queries/library'
import { readAthletes } from '../../db/queries/squads'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { runCalculation, shapeError } from '../calc/run-calculation'
import { shapeCheck } from '../check-shape'
import { todayAt } from '../clock'
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
	const { id, athleteId, takenOn, calculation, method, input } = value
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
	if (!athlete) return { field: 'athleteId', reason: 'No such athlete.' }
	const contentHash = hashOf({ athleteId, takenOn, calculation, method, input })
	const isNew = await inTransaction(database().db, who.clubId, async (inside) => {
		const fresh = await insertMeasurement(inside, {
			id,
			athleteId,
			authorId: who.personId,
			takenOn,
			calculation,
			method,
			input,
			replacesId: null,
			isVoid: false,
			contentHash,
			receivedAt: now,
		})
		if (fresh) await linesFollow(inside, athleteId, calculation, today, now)
		return fresh
	})
	if (!isNew && (await measurementHash(scope, id)) !== contentHash)
		return { field: 'id', reason: 'id_reused: another measurement already has this id' }
	return { saved: isNew ? 'new' : 'again', athleteName: athlete.name }
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
	const { athleteId, takenOn, calculation, method, input } = found
	await inTransaction(database().db, who.clubId, async (inside) => {
		const fresh = await insertMeasurement(inside, {
			id: newId,
			athleteId,
			authorId: who.personId,
			takenOn,
			calculation,
			method,
			input,
			replacesId: id,
			isVoid: true,
			contentHash: hashOf({ void: id }),
			receivedAt: now,
		})
		if (fresh) await linesFollow(inside, athleteId, calculation, todayAt(who.timeZone, now), now)
	})
	return 'done'
}

/** A best box decides which rung is written; what else is measured is said beside the line, and read as it is shown. */
async function linesFollow(scope: ClubScope, athleteId: string, calculation: string, today: string, now: Date) {
	if (calculation === DROP_JUMP_SERIES.name) await rewriteUpcoming(scope, [athleteId], today, now)
}
