import Ajv from 'ajv'
import addFormats from 'ajv-formats'
import { type Static, type TSchema } from 'typebox'
import { PairRequest, ReadingsRequest } from '../../core/devices/schema'
import { sayFirstProblem } from '../log/check-event'

const ajv = new Ajv({ allErrors: false })
addFormats(ajv)

function checkOf<T extends TSchema>(schema: T): (value: unknown) => { value: Static<T> } | { problem: string } {
	const check = ajv.compile(schema)
	return (value) => (check(value) ? { value: value as Static<T> } : { problem: sayFirstProblem(check, (field, reason) => `${field || 'body'}: ${reason}`) })
}

export const checkPairRequest = checkOf(PairRequest)
export const checkReadingsRequest = checkOf(ReadingsRequest)
