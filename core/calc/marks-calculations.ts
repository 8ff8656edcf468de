import Type, { type Static, type TSchema } from 'typebox'
import { mean } from 'simple-statistics'
import { CAREER_SCENARIOS } from '../careers/career'
import { simulateCareers } from '../careers/simulate-careers'
import { STARTER_LIBRARY } from '../library/starter-library'
import { type Taken, comparableWith, markKey } from '../marks/mark-key'
import { aroundOwn, plausibility } from '../marks/plausible'
import { MeasureError, inBounds } from '../measure/measure-error'
import { type AgainstUsual, againstUsual } from '../noise/against-usual'
import { NO_USUAL_YET, sayAgainstUsual } from '../noise/say-usual'
import { readStop } from '../noise/one-more'
import { type MarkKind, finerMethod, typicalErrorOf } from '../noise/typical-error'
import { bestsOf, sessionMeanOf, spreadsOf, usualOf } from '../noise/usual'
import { Aid, CarriedLoad, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import {
	CONTACT_METHODS,
	LENGTH_METHODS,
	type Level,
	type Method,
	SIDES,
	SPRINT_METHODS,
	START_NAMES,
	SURFACES,
	type Start,
} from '../vocabulary/words'
import { writePercent } from '../words/write-numbers'
import { type Calculation, choice, fields, list, maybe, number, numbers, optional } from './calculation'

/** These write their fields as what is stored does: the names inside the program. */
const KINDS = ['sprint', 'contact', 'height', 'distance'] as const
const METHODS = [...new Set([...SPRINT_METHODS, ...CONTACT_METHODS, ...LENGTH_METHODS])]
const BETTER = ['lower', 'higher'] as const
const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' })

const answers = <I extends TSchema, O extends TSchema>(one: {
	name: string
	title: string
	input: I
	output: O
	compute: (input: Static<I>) => Static<O>
}): Calculation => ({ ...one, asStored: true }) as unknown as Calculation

const drillOf = (id: string): Drill => {
	const drill = STARTER_LIBRARY.drills[id]
	if (!drill) throw new MeasureError('drillId', id, `one of ${Object.keys(STARTER_LIBRARY.drills).join(', ')}`)
	return drill
}
const positive = (name: string, values: readonly number[]) =>
	values.forEach((value, index) => inBounds(`${name}[${index}]`, value, { above: 0, below: 1e6 }))

const Reference = fields({
	kind: choice(KINDS),
	method: choice(METHODS),
	better: choice(BETTER),
	usual: maybe(number()),
	betweenDaySd: maybe(number('in the mark’s unit')),
	withinDaySd: maybe(number('of one rep, in the mark’s unit')),
	standardError: maybe(number('of the usual')),
	sessions: Type.Integer({ description: 'that make the usual' }),
	best: maybe(number('before the day')),
	seasonBest: maybe(number('of half a year before the day')),
	setAside: numbers('marks that cannot be'),
	reason: optional(Type.String()),
})

/** Marks no own history makes likely, told by the median of all of them. */
function parted(kind: MarkKind, marks: readonly number[], all: readonly number[]): { kept: number[]; aside: number[] } {
	const range = aroundOwn(kind, all)
	const inside = (mark: number) => range === null || (mark >= range.low && mark <= range.high)
	return { kept: marks.filter(inside), aside: marks.filter((mark) => !inside(mark)) }
}

export const REFERENCE = answers({
	name: 'reference',
	title: 'What an athlete’s marks of one kind usually are on a day, and how far chance moves them',
	input: fields({
		kind: choice(KINDS),
		method: choice(METHODS),
		better: choice(BETTER),
		percent: optional(number('not used here; kept for the criterion')),
		sessions: list(
			fields({
				day: Day,
				marks: numbers('of one comparison key, above 0'),
				firstDayBack: optional(Type.Boolean()),
				unloading: optional(Type.Boolean()),
			}),
		),
		day: Day,
		defaults: optional(
			fields({
				betweenDaySd: optional(number('to shrink towards, in the mark’s unit')),
				withinDaySd: optional(number('to shrink towards, in the mark’s unit')),
			}),
		),
	}),
	output: Reference,
	compute: ({ kind, method, better, sessions, day, defaults = {} }) => {
		sessions.forEach((session, at) => positive(`sessions[${at}].marks`, session.marks))
		if (defaults.betweenDaySd !== undefined) inBounds('defaults.betweenDaySd', defaults.betweenDaySd, { above: 0 })
		if (defaults.withinDaySd !== undefined) inBounds('defaults.withinDaySd', defaults.withinDaySd, { above: 0 })
		const before = sessions.filter((session) => session.day < day)
		const all = before.flatMap((session) => session.marks)
		const setAside: number[] = []
		const means = before.flatMap((session) => {
			const { kept, aside } = parted(kind, session.marks, all)
			setAside.push(...aside)
			const unusual = session.firstDayBack === true || session.unloading === true
			const one = sessionMeanOf({ day: session.day, ...(unusual ? { unusual } : {}) }, kept, better)
			return one ? [one] : []
		})
		const spreads = { betweenSd: defaults.betweenDaySd, withinSd: defaults.withinDaySd }
		const usual = usualOf(means, day, kind, method, spreads)
		const some = means.filter((one) => one.unusual !== true)
		const own = usual ?? (some.length > 0 ? spreadsOf(some.slice(-1), some.at(-1)!.mean, kind, method, spreads) : null)
		return {
			kind,
			method,
			better,
			usual: usual?.value ?? null,
			betweenDaySd: own?.betweenSd ?? null,
			withinDaySd: own?.withinSd ?? null,
			standardError: usual?.standardError ?? null,
			sessions: usual?.sessions ?? Math.min(1, some.length),
			...bestsOf(means, day, better),
			setAside,
			...(usual ? {} : { reason: NO_USUAL_YET }),
		}
	},
})

export const CRITERION = answers({
	name: 'criterion',
	title: 'One day against the usual: pass, miss or unclear, and what would settle it',
	input: fields({
		reference: Reference,
		marks: numbers('of the day, of the same comparison key'),
		percent: number('fall that is a miss, above 0 to 50'),
	}),
	output: fields({
		outcome: choice(['pass', 'miss', 'unclear'] as const),
		probabilityFallOver: maybe(number('0–1')),
		settle: maybe(
			Type.Union([
				fields({ reps: Type.Integer({ description: 'more reps' }) }),
				fields({ method: choice(METHODS) }),
				fields({ anotherDay: Type.Literal(true) }),
			]),
		),
		words: Type.String(),
	}),
	compute: ({ reference, marks, percent }) => {
		positive('marks', marks)
		inBounds('percent', percent, { above: 0, to: 50, unit: '%' })
		const { kind, better, usual } = reference
		const method = reference.method as Method
		const none = (words: string) => ({
			outcome: 'unclear' as const,
			probabilityFallOver: null,
			settle: { anotherDay: true as const },
			words,
		})
		if (usual === null || reference.betweenDaySd === null || reference.withinDaySd === null) return none(NO_USUAL_YET)
		const { kept } = parted(
			kind,
			marks,
			Array.from({ length: 5 }, () => usual),
		)
		if (kept.length === 0)
			return none(marks.length === 0 ? 'nothing was measured' : 'what was measured cannot be: it is set aside')
		const own = {
			value: usual,
			betweenSd: reference.betweenDaySd,
			withinSd: reference.withinDaySd,
			standardError: reference.standardError ?? 0,
			freedom: 8 + Math.max(0, reference.sessions - 1),
			sessions: reference.sessions,
		}
		const today = { n: kept.length, mean: mean(kept) }
		const reading: AgainstUsual = againstUsual(own, today, percent, better, finerMethod(kind, method))
		return {
			outcome: reading.outcome,
			probabilityFallOver: reading.probabilityFallOver,
			settle: reading.settle as { reps: number } | { method: Method } | { anotherDay: true } | null,
			words: sayAgainstUsual(reading, own, today, percent, kind, method),
		}
	},
})

export const STOP_TEST = answers({
	name: 'stop-test',
	title: 'One more rep, or stop: the last reps against the best stretch of the day',
	input: fields(
		{
			kind: choice(KINDS),
			marks: optional(numbers('in order, above 0')),
			sets: optional(list(numbers(), { description: 'the same by sets' })),
			better: choice(BETTER),
			method: choice(METHODS),
			limitPct: number('above 0 to 50'),
			typicalError: optional(number('of one rep, in the mark’s unit; the method’s own when left out')),
		},
		[['marks'], ['sets']],
	),
	output: fields({
		stopAfter: maybe(Type.Integer({ description: 'reps of all sets, from 1' })),
		tooCoarse: Type.Boolean(),
		falseStopRate: number('share of exposures without fatigue that are stopped by then, at most'),
		words: Type.String(),
	}),
	compute: ({ kind, marks, sets, better, method, limitPct, typicalError }) => {
		const values = marks ?? (sets ?? []).flat()
		const reading = readStop(values, better, limitPct, typicalError ?? typicalErrorOf(kind, method), method)
		if (!reading) throw new MeasureError('marks', 0, 'at least one mark')
		const { stopAfter, tooCoarse, seesLittle, falseStopRate, percents } = reading
		return {
			stopAfter,
			tooCoarse,
			falseStopRate,
			words: tooCoarse
				? 'This method cannot show tiredness here: the eye decides.'
				: stopAfter === null
					? `No fall beyond chance.${seesLittle ? ' This method sees little of it.' : ''}`
					: `Stop after rep ${stopAfter}: the last were ${writePercent(Math.max(...percents.slice(0, stopAfter).slice(-2)))} off the best, more than chance.`,
		}
	},
})

export const MARK_KEY = answers({
	name: 'mark-key',
	title: 'What a mark may be compared with',
	input: fields({
		kind: choice([...KINDS, 'release'] as const),
		drillId: Type.String(),
		parameters: Parameters,
		start: optional(choice(Object.keys(START_NAMES) as Start[])),
		side: optional(choice(SIDES)),
		plant: optional(choice([...SIDES, 'both'] as const)),
		method: choice([...METHODS, 'ball-sensor'] as const),
		surface: optional(maybe(choice(SURFACES))),
		carried: optional(maybe(CarriedLoad)),
		aid: optional(maybe(Aid)),
		effortPercent: optional(number('planned share of the best speed, 0–100')),
	}),
	output: fields({ key: Type.String(), comparableWith: list(Type.String()) }),
	compute: (input) => {
		const { drillId, parameters, effortPercent, ...taken } = input as unknown as Taken & {
			drillId: string
			parameters: Parameters
			effortPercent?: number
		}
		if (effortPercent !== undefined) inBounds('effortPercent', effortPercent, { from: 0, to: 100, unit: '%' })
		const key = markKey(
			drillOf(drillId),
			{ ...parameters, ...(effortPercent === undefined ? {} : { effortPercent }) },
			taken,
		)
		return { key, comparableWith: comparableWith(key) }
	},
})

export const PLAUSIBLE = answers({
	name: 'plausible',
	title: 'Whether a mark can be, and what was probably meant',
	input: fields({
		kind: choice(KINDS),
		drillId: Type.String(),
		parameters: Parameters,
		value: number('s for sprint and contact, m for height and distance'),
		history: optional(numbers('own marks of the same comparison key')),
		level: optional(Type.Unsafe<Level>(Type.Integer({ enum: [1, 2, 3] }))),
	}),
	output: fields({
		outcome: choice(['plausible', 'set-aside'] as const),
		range: fields({ low: number(), high: number() }),
		likely: optional(number()),
	}),
	compute: ({ kind, drillId, parameters, value, history = [], level = 3 }) => {
		inBounds('value', value, { above: 0, below: 1e6 })
		positive('history', history)
		return plausibility(kind, drillOf(drillId), parameters, value, history, level)
	},
})

export const CAREERS = answers({
	name: 'careers',
	title: 'How often the rules are right about simulated athletes whose true ability is known',
	input: fields({
		scenario: choice(CAREER_SCENARIOS),
		method: choice(METHODS.filter((one) => one !== 'reach')),
		school: Type.String({ description: 'id of a preset' }),
		fallPercent: optional(number('above 0 to 30, 5 when left out')),
		fallSessions: optional(number('over how many sessions it falls; at once when left out')),
		trueSpreadPercent: optional(number('between days, 0–10, 1 when left out')),
		squad: optional(Type.Boolean({ description: 'the squad’s own spreads are known' })),
		careers: number('1–20 000, whole'),
		sessions: number('12–400, whole'),
		seed: number('whole, 0 and more'),
	}),
	output: fields({
		anyEase: number('eased by P2 at least once'),
		passedWithin5: number('passed within five sessions after a usual exists'),
		missWithin3: number('P2 fired within three sessions of the fall'),
		neverEased: number('by any rule'),
		advancedUnable: number('within five sessions of the fall'),
		slowFallSaid: number('at least once'),
		changedByTyping: number('of all sessions, by a typing error inside the plausible range'),
		changedWhenTyped: number('of sessions with such an error'),
		withinOneRung: maybe(number('of what true ability passes at the end; film, which climbs the boxes')),
	}),
	compute: (ask) => ({ ...simulateCareers(ask) }),
})

export const MARKS_CALCULATIONS = [REFERENCE, CRITERION, STOP_TEST, MARK_KEY, PLAUSIBLE, CAREERS]
