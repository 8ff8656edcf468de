import Type, { type Static } from 'typebox'

/** What timing gates, contact mats and ball sensors send; described for other programs in docs/protocol.md. */

const closed = { additionalProperties: false }
const Uuid = Type.String({ pattern: '^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$' })
const Time = Type.String({ format: 'date-time', maxLength: 40, description: 'by the device’s own clock' })

export const DEVICE_KINDS = ['gates', 'mat', 'ball'] as const
export type DeviceKind = (typeof DEVICE_KINDS)[number]
export const DEVICE_KIND_NAMES: Record<DeviceKind, string> = {
	gates: 'timing gates',
	mat: 'contact mat',
	ball: 'ball sensor',
}

/** Kind of reading each kind of device sends. */
export const READING_OF: Record<DeviceKind, Reading['kind']> = { gates: 'beam', mat: 'mat', ball: 'ball' }

/** A beam was broken. Distances are metres from the first beam; the first stands at 0. */
export const BeamReading = Type.Object(
	{
		id: Uuid,
		kind: Type.Literal('beam'),
		time: Time,
		value: Type.Object(
			{
				distanceM: Type.Number({ minimum: 0, maximum: 400, multipleOf: 0.01 }),
				lane: Type.Integer({ minimum: 1, maximum: 9 }),
			},
			closed,
		),
	},
	closed,
)
/** Feet came down on the mat, or left it. */
export const MatReading = Type.Object(
	{
		id: Uuid,
		kind: Type.Literal('mat'),
		time: Time,
		value: Type.Object({ feet: Type.Unsafe<'down' | 'up'>(Type.String({ enum: ['down', 'up'] })) }, closed),
	},
	closed,
)
/** A ball left the hand. */
export const BallReading = Type.Object(
	{
		id: Uuid,
		kind: Type.Literal('ball'),
		time: Time,
		value: Type.Object({ releaseMps: Type.Number({ exclusiveMinimum: 0, maximum: 60, multipleOf: 0.01 }) }, closed),
	},
	closed,
)

export const READING_SCHEMAS = { beam: BeamReading, mat: MatReading, ball: BallReading } as const
export type Reading = Static<typeof BeamReading> | Static<typeof MatReading> | Static<typeof BallReading>

/** A reading as the club keeps it: its time put right by the clock's offset, and which device saw it. */
export type KeptReading = Reading & { deviceId: string; at: string; receivedAt: string }

export const PairRequest = Type.Object(
	{
		code: Type.String({ minLength: 4, maxLength: 20 }),
		kind: Type.Unsafe<DeviceKind>(Type.String({ enum: [...DEVICE_KINDS] })),
		name: Type.String({ minLength: 1, maxLength: 60 }),
	},
	closed,
)
/** `sentAt` is the device's clock at the moment of sending: what puts all its times right. */
export const ReadingsRequest = Type.Object(
	{ sentAt: Time, readings: Type.Array(Type.Unknown(), { minItems: 1, maxItems: 500 }) },
	closed,
)
