import { MeasureError } from '../../core/measure/measure-error'

/** The field that a measure refuses; null where it takes what it is given. */
export function refusedField(measure: () => unknown): string | null {
	try {
		measure()
		return null
	} catch (error) {
		if (!(error instanceof MeasureError)) throw error
		return error.field
	}
}
