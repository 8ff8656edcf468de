import { pieceProblem } from '../../core/plan/complex-entry'
import { partsOf } from '../../core/plan/entry-parts'
import { linePartsOf } from '../../core/vocabulary/line-parts'
import { PARAMETER_BOUNDS } from '../../core/vocabulary/parameters'
import type { Library } from '../../core/vocabulary/library'
import { SessionDraft } from '../../core/vocabulary/session'
import type { Problems } from '../access/join'
import { shapeCheck } from '../check-shape'

/** Rebounds from a box in one set, never more. */
const MOST_REBOUNDS = 5
const check = shapeCheck<SessionDraft>(SessionDraft, 'all')

const from = ([low, high]: readonly [number, number], unit: string) => `${unit} from ${low} to ${high} are expected.`
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
	reps: 'Whole reps from 1 to 100 are expected.',
	repsS: 'Rest between reps in whole seconds from 0 to 1800 is expected.',
	setsS: 'Rest between sets in whole seconds from 0 to 1800 is expected.',
	distanceM: from(PARAMETER_BOUNDS.distanceM, 'Metres'),
	heightCm: from(PARAMETER_BOUNDS.heightCm, 'Centimetres'),
	angleDeg: from(PARAMETER_BOUNDS.angleDeg, 'Degrees'),
	ballKg: from(PARAMETER_BOUNDS.ballKg, 'Kilograms'),
	runInM: from(PARAMETER_BOUNDS.runInM, 'Metres'),
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
		if (!partsOf(entry, library)) problems[`entries.${index}.drillId`] = 'Pick a drill or a ladder.'
		const wrong = pieceProblem(entry, library)
		if (wrong !== null) problems[`entries.${index}.pieces`] = wrong
		const forms = Object.values(entry.tuning?.variants ?? {}).flatMap((form) => form ?? [])
		if (forms.some((form) => !library.drills[form.drillId]))
			problems[`entries.${index}.drillId`] = 'A form for a level names a drill that is not in the library.'
		if (forms.some((form) => library.drills[form.drillId]?.intensity === 'shock' && form.dose.reps > MOST_REBOUNDS))
			problems[`entries.${index}.dose.reps`] = `A form for a level has more than ${MOST_REBOUNDS} rebounds a set.`
		const rebounds = entry.ladderId === null ? linePartsOf(entry) : []
		const many = rebounds.find(
			({ drillId, dose }) => library.drills[drillId]?.intensity === 'shock' && dose.reps > MOST_REBOUNDS,
		)
		if (many)
			problems[`entries.${index}.dose.reps`] = `“${many.dose.reps}”: never more than ${MOST_REBOUNDS} rebounds a set.`
	}
	return Object.keys(problems).length > 0 ? { problems } : { draft: value }
}
