import type { Static, TSchema } from 'typebox'
import { PairRequest, ReadingsRequest } from '../../core/devices/schema'
import { shapeCheck } from '../check-shape'
import { sayFirstProblem } from '../log/check-event'

function checkOf<T extends TSchema>(schema: T): (value: unknown) => { value: Static<T> } | { problem: string } {
	const check = shapeCheck<Static<T>>(schema)
	return (value) =>
		check(value) ? { value } : { problem: sayFirstProblem(check, (field, reason) => `${field || 'body'}: ${reason}`) }
}

export const checkPairRequest = checkOf(PairRequest)
export const checkReadingsRequest = checkOf(ReadingsRequest)
