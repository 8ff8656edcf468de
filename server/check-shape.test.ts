import Ajv from 'ajv'
import addFormats from 'ajv-formats'
import { expect, it } from 'vitest'
import { CALCULATIONS } from '../core/calc/calculations'
import { MeasurementToSaveSchema } from '../core/calc/measurement-to-save'
import { PairRequest, READING_SCHEMAS, ReadingsRequest } from '../core/devices/schema'
import { Drill } from '../core/vocabulary/drill'
import { EVENT_SCHEMAS } from '../core/vocabulary/events'
import { Ladder } from '../core/vocabulary/ladder'
import { SessionDraft } from '../core/vocabulary/session'
import { SessionTemplate } from '../core/vocabulary/template'
import { Theme } from '../core/vocabulary/theme'
import { shapeCheck } from './check-shape'

/** What the application does not ask at run time: JSON Schema, draft 7, by the schema of schemas that the package ships. */
const ajv = addFormats(new Ajv())

const SCHEMAS: [string, object][] = [
	...Object.entries(EVENT_SCHEMAS),
	...Object.entries(READING_SCHEMAS),
	...CALCULATIONS.map(({ name, input }): [string, object] => [name, input]),
	...Object.entries({
		Drill,
		Ladder,
		Theme,
		SessionDraft,
		SessionTemplate,
		PairRequest,
		ReadingsRequest,
		MeasurementToSaveSchema,
	}),
]

it.each(SCHEMAS)('%s is a JSON schema', (_name, schema) => {
	expect(ajv.validateSchema(schema), JSON.stringify(ajv.errors)).toBe(true)
})

it('finds what is none', () => {
	expect(ajv.validateSchema({ type: 'numbre' })).toBe(false)
})

it('says the first thing that is wrong, or all of them, and takes 0.3 for a multiple of 0.1', () => {
	const schema = {
		type: 'object',
		properties: { metres: { type: 'number', multipleOf: 0.1 }, reps: { type: 'integer' } },
	}
	const wrong = { metres: 'far', reps: 1.5 }
	const first = shapeCheck(schema)
	const all = shapeCheck(schema, 'all')
	expect([first(wrong), first.errors?.length]).toEqual([false, 1])
	expect([all(wrong), all.errors?.length]).toEqual([false, 2])
	expect([all({ metres: 0.1 + 0.2, reps: 3 }), all.errors]).toEqual([true, null])
	expect(all({ metres: 0.35 })).toBe(false)
})
