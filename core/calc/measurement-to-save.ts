import Type, { type Static } from 'typebox'

/** A result of the bench on its way to an athlete's record. */
export const MeasurementToSaveSchema = Type.Object(
	{
		/** Made by the device, so that sending it twice is sending it once. */
		id: Type.String({ format: 'uuid' }),
		athleteId: Type.String({ format: 'uuid' }),
		takenOn: Type.String({ format: 'date' }),
		calculation: Type.String({ maxLength: 40 }),
		method: Type.String({ maxLength: 20 }),
		/** Of the calculation, in its published shape. */
		input: Type.Record(Type.String(), Type.Unknown()),
		/** The rep it was taken of, where it was one of a session. */
		markId: Type.Optional(Type.String({ format: 'uuid' })),
	},
	{ additionalProperties: false },
)
export type MeasurementToSave = Static<typeof MeasurementToSaveSchema>
