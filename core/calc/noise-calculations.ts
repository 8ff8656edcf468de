import Type from 'typebox'
import { MeasureError, inBounds } from '../measure/measure-error'
import { mean } from 'simple-statistics'
import { asymmetry } from '../noise/asymmetry'
import { followDropOff } from '../noise/drop-off'
import { probabilityOfPass } from '../noise/probability-of-pass'
import { retestError } from '../noise/retest-error'
import { calculation, choice, fields, list, maybe, number, numbers, optional, warnings } from './calculation'

const BETTER = ['lower', 'higher'] as const
const side = choice(['left', 'right'])

export const NOISE = calculation(
	'noise',
	'Error of a test from two rounds',
	fields({ test: numbers('one an athlete, at least 2'), retest: numbers('the same athletes in the same order') }),
	fields({
		typical_error: number(),
		mean_change: number(),
		cv_pct: maybe(number('typical error / grand mean')),
		swc: number('0.2 × SD between athletes’ means'),
		mdc: number(),
		n: Type.Integer(),
		warnings,
	}),
	({ test, retest }) => retestError(test, retest),
)

export const ASYMMETRY = calculation(
	'asymmetry',
	'Gap between the sides',
	fields({
		tests: list(fields({ left: numbers(), right: numbers() }), {
			description: 'one entry a test day, oldest first, trials inside',
		}),
		better: choice(BETTER),
		cv_pct: optional(number('of the test, above 0 to 100')),
	}),
	fields({
		gap_pct: number('of the latest day'),
		stronger: maybe(side),
		real: maybe(Type.Boolean()),
		consistent: maybe(Type.Boolean()),
		cv_pct: maybe(number()),
		by_day: list(fields({ gap_pct: number(), stronger: maybe(side) })),
		warnings,
	}),
	({ tests, better, cvPct }) => asymmetry(tests, better, cvPct),
)

export const PASS_PROBABILITY = calculation(
	'pass-probability',
	'Chance that the true mean meets a threshold',
	fields({
		marks: numbers('of one method'),
		threshold: number(),
		better: choice(BETTER),
		typical_error: optional(number('in the marks’ unit, above 0')),
	}),
	fields({ probability: maybe(number()), n: Type.Integer(), mean: maybe(number()), reason: optional(Type.String()) }),
	({ marks, threshold, better, typicalError }) => {
		marks.forEach((mark, index) => inBounds(`marks[${index}]`, mark, { above: -1e6, below: 1e6 }))
		inBounds('threshold', threshold, { above: -1e6, below: 1e6 })
		if (typicalError !== undefined) inBounds('typicalError', typicalError, { above: 0, below: 1e6 })
		const probability = probabilityOfPass(marks, threshold, better, typicalError ?? null)
		const reason =
			probability !== null
				? {}
				: {
						reason:
							marks.length === 0
								? 'Not enough to say: no marks.'
								: 'Not enough to say: one mark, and no typical error.',
					}
		return { probability, n: marks.length, mean: marks.length === 0 ? null : mean(marks), ...reason }
	},
)

export const DROP_OFF = calculation(
	'drop-off',
	'Where one more rep is one too many',
	fields({
		marks: numbers('in order, one method, above 0'),
		better: choice(BETTER),
		limit_pct: number('above 0 to 50'),
		consecutive: optional(number('reps running, 1–10, 2 when left out')),
		typical_error_pct: optional(number('of the method, 0–50')),
	}),
	fields({
		best: number(),
		drop_pct: numbers('from the best so far, worse is positive'),
		limit_used_pct: number('max(limit, 3 × typical error)'),
		stop_after: maybe(Type.Integer({ description: 'rep, from 1' })),
		last_good: Type.Integer({ description: 'rep, from 1' }),
	}),
	({ marks, better, limitPct, consecutive = 2, typicalErrorPct = 0 }) => {
		if (marks.length === 0) throw new MeasureError('marks', 0, 'at least one mark')
		marks.forEach((mark, index) => inBounds(`marks[${index}]`, mark, { above: 0, below: 1e6 }))
		inBounds('limitPct', limitPct, { above: 0, to: 50, unit: '%' })
		inBounds('consecutive', consecutive, { from: 1, to: 10, whole: true, unit: 'reps' })
		const limitUsedPct = Math.max(
			limitPct,
			3 * inBounds('typicalErrorPct', typicalErrorPct, { from: 0, to: 50, unit: '%' }),
		)
		const run = followDropOff(marks, better, limitUsedPct, consecutive)
		return {
			best: run.best,
			dropPct: run.percents,
			limitUsedPct,
			stopAfter: run.fallIndex === null ? null : run.fallIndex + consecutive,
			lastGood: run.lastGoodIndex + 1,
		}
	},
)

export const NOISE_CALCULATIONS = [NOISE, ASYMMETRY, PASS_PROBABILITY, DROP_OFF]
