import Type, { type Static } from 'typebox'
import type { Library } from '../../core/library/types'
import { DAY_ROLES, type DayRole } from '../../core/plan/targets'
import { FillSchema, VariantsSchema } from '../../core/plan/template'
import type { Surface } from '../../core/library/surfaces'
import { SURFACES } from '../../core/library/surfaces'
import type { Problems } from '../access/join'
import { shapeCheck } from '../check-shape'

const closed = { additionalProperties: false }
const optional = (minimum: number, maximum: number) => Type.Optional(Type.Number({ minimum, maximum }))

/** A session as the form sends it. */
export const SessionDraft = Type.Object(
	{
		squadId: Type.String({ format: 'uuid' }),
		day: Type.String({ format: 'date' }),
		startTime: Type.String({ pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' }),
		title: Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' }),
		place: Type.String({ maxLength: 200 }),
		surface: Type.Optional(Type.Unsafe<Surface>(Type.String({ enum: [...SURFACES] }))),
		plannedMinutes: Type.Integer({ minimum: 10, maximum: 240 }),
		role: Type.Optional(Type.Unsafe<DayRole>(Type.String({ enum: [...DAY_ROLES] }))),
		share: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1 })),
		athleteIds: Type.Array(Type.String({ format: 'uuid' }), { minItems: 1, maxItems: 60, uniqueItems: true }),
		entries: Type.Array(
			Type.Object(
				{
					id: Type.Optional(Type.String({ format: 'uuid' })),
					part: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' }),
					/** A drill id, or a ladder id in `ladderId`: then each athlete gets their own rung. */
					drillId: Type.Optional(Type.String()),
					ladderId: Type.Optional(Type.String()),
					sets: Type.Integer({ minimum: 1, maximum: 20 }),
					reps: Type.Integer({ minimum: 1, maximum: 60 }),
					restS: Type.Integer({ minimum: 0, maximum: 1200 }),
					distanceM: optional(1, 2000),
					heightCm: optional(5, 100),
					angleDeg: optional(0, 180),
					ballKg: optional(0.5, 10),
					runInM: optional(0, 60),
					/** Everything else a drill may carry, as a template or a proposal brings it. */
					radiusM: optional(1, 50),
					approachSteps: optional(0, 20),
					resistPercent: optional(0, 90),
					assistPercent: optional(0, 20),
					effortPercent: optional(0, 100),
					loadG: optional(0, 6000),
					minutes: optional(0, 60),
					doseFactor: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 1 })),
					lanes: Type.Optional(Type.Integer({ minimum: 1, maximum: 6 })),
					together: Type.Optional(Type.Integer({ minimum: 1, maximum: 2 })),
					tuning: Type.Optional(
						Type.Object(
							{
								variants: Type.Optional(VariantsSchema),
								fill: Type.Optional(FillSchema),
								strict: Type.Optional(Type.Boolean()),
								caps: Type.Optional(
									Type.Record(
										Type.String({ pattern: '^[0-9a-f-]{36}$' }),
										Type.Object(
											{ reps: Type.Integer({ minimum: 0, maximum: 1200 }), why: Type.String({ maxLength: 200 }) },
											closed,
										),
										closed,
									),
								),
							},
							closed,
						),
					),
				},
				closed,
			),
			{ minItems: 1, maxItems: 30 },
		),
	},
	closed,
)
export type SessionDraft = Static<typeof SessionDraft>

const check = shapeCheck<SessionDraft>(SessionDraft, 'all')

/** What each field expects, for the sentence beside it. */
const EXPECTED: Record<string, string> = {
	squadId: 'Pick a squad.',
	day: 'A day like 2026-03-14 is expected.',
	startTime: 'A time like 17:30 is expected.',
	title: 'A title of up to 200 characters is expected.',
	plannedMinutes: 'Whole minutes from 10 to 240 are expected.',
	athleteIds: 'Pick at least one athlete.',
	entries: 'Add at least one drill.',
	part: 'Name the part, for example “Acceleration”.',
	sets: 'Whole sets from 1 to 20 are expected.',
	reps: 'Whole reps from 1 to 60 are expected.',
	restS: 'Rest in whole seconds from 0 to 1200 is expected.',
	distanceM: 'Metres from 1 to 2000 are expected.',
	heightCm: 'Centimetres from 5 to 100 are expected.',
	angleDeg: 'Degrees from 0 to 180 are expected.',
	ballKg: 'Kilograms from 0.5 to 10 are expected.',
	runInM: 'Metres from 0 to 60 are expected.',
}

/** Sentences by field path ("entries.2.sets"); a value that was typed stands in its sentence. */
export function readDraft(value: unknown, library: Library): { draft: SessionDraft } | { problems: Problems } {
	const problems: Problems = {}
	if (!check(value)) {
		for (const error of check.errors ?? []) {
			const missing =
				error.keyword === 'required' ? `/${(error.params as { missingProperty: string }).missingProperty}` : ''
			const path = `${error.instancePath}${missing}`.slice(1).replaceAll('/', '.')
			const field =
				path
					.split('.')
					.filter((part) => !/^\d+$/.test(part))
					.at(-1) ?? ''
			const typed = path
				.split('.')
				.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], value)
			problems[path] =
				`${typeof typed === 'number' || (typeof typed === 'string' && typed !== '') ? `“${typed}”: ` : ''}${EXPECTED[field] ?? `${error.message ?? 'not understood'}.`}`
		}
		return { problems }
	}
	for (const [index, entry] of value.entries.entries()) {
		const known = entry.ladderId
			? library.ladders[entry.ladderId]
			: entry.drillId
				? library.drills[entry.drillId]
				: undefined
		if (!known) problems[`entries.${index}.drillId`] = 'Pick a drill or a ladder.'
		const forms = Object.values(entry.tuning?.variants ?? {})
		if (forms.some((form) => form && !library.drills[form.drillId]))
			problems[`entries.${index}.drillId`] = 'A form for a level names a drill that is not in the library.'
		if (forms.some((form) => form && library.drills[form.drillId]?.intensity === 'shock' && form.dose.reps > 5))
			problems[`entries.${index}.reps`] = 'A form for a level has more than 5 rebounds a set.'
		if (library.drills[entry.drillId ?? '']?.intensity === 'shock' && entry.reps > 5)
			problems[`entries.${index}.reps`] = `“${entry.reps}”: never more than 5 rebounds a set.`
	}
	return Object.keys(problems).length > 0 ? { problems } : { draft: value }
}
