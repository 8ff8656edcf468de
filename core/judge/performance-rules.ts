import { mean as average } from 'simple-statistics'
import { repsOf, scaleDose } from '../library/scale-dose'
import type { Dose } from '../vocabulary/dose'
import type { Rung, Variation } from '../vocabulary/ladder'
import { spreadsOf } from '../noise/usual'
import { BALLS, ballFor } from '../own/ball'
import { usualName } from './gather-exposure'
import { isAlike } from './is-alike'
import { type Finding, type JudgeContext, type Rule, dropOffOf } from './judge-context'
import { type Lock, lockOf, nextRung, passedRungs } from './locks'
import { missedTime, wayBack } from './missed-time'
import { COMFORT_AT_WORST, MISS_CHANCE, PASS_SHARE, type ExposureReading, readCeiling } from './read-criterion'
import { majorityMarks } from './majority-marks'
import { dropOffLimit } from './read-fall'
import { placeAt } from './safety-rules'
import type { Exposure, LadderState } from './types'
import { outOfReach } from '../rules/s8-gates'
import { inSentence, writeDose, writeMark, writePercent } from '../words/write-numbers'

const said = (reading: ExposureReading): string => {
	const parts: string[] = []
	if (reading.criterion) parts.push(`${reading.criterion.question.toLowerCase()} ${reading.criterion.found}`)
	if (reading.goodShare !== null)
		parts.push(`${Math.round(reading.goodShare * reading.judged)} of ${reading.judged} judged reps good`)
	parts.push(`${Math.round(reading.doneShare * 100)} % of the reps`)
	return parts.join(' · ')
}

/** The numbers of one exposure in a breath: "mean 3.08 s of 5", "9 of 10 good". */
const evidence = (reading: ExposureReading): string => {
	if (reading.criterion?.words) return reading.criterion.words
	if (reading.criterion?.probability != null)
		return /\((.*)\)/.exec(reading.criterion.found)?.[1] ?? reading.criterion.found
	return reading.judged === 0
		? 'passed before'
		: `${Math.round((reading.goodShare ?? 0) * reading.judged)} of ${reading.judged} judged reps good`
}

const easier = ({ documents, rungIndex, concluded }: JudgeContext): Rung | null => {
	for (let index = rungIndex - 1; index >= 0; index--) {
		const rung = documents.ladder.rungs[index]!
		if (!lockOf(concluded.facts, rung)?.skip) return rung
	}
	return null
}

const miss: Rule = {
	id: 'P2',
	question: () => 'Poor quality, or the mark clearly missed',
	firmness: 'our setting',
	evaluate(context): Finding {
		const limit = 'poor on more than a third, or 20 % likely and less'
		const { latestReading, previousReading, rung, documents, input } = context
		if (!latestReading) return { fired: false, found: 'not done at this dose', limit }
		if (latestReading.outcome !== 'miss') return { fired: false, found: said(latestReading), limit }
		const why =
			latestReading.criterion && (latestReading.criterion.probability ?? 1) <= MISS_CHANCE
				? (latestReading.criterion.words ??
					`${latestReading.criterion.question.replace('Chance of ', '')} was ${latestReading.criterion.found}`)
				: `${context.latest?.quality.poor} of ${latestReading.judged} judged reps were poor`
		if (previousReading?.outcome !== 'miss') {
			return {
				fired: true,
				found: said(latestReading),
				limit,
				verdict: 'hold',
				sentence: `Hold ${inSentence(rung.name)}, ${writeDose(input.state.dose)}: ${why}. Twice running would ease it.`,
				next: { passed: false },
			}
		}
		const lower = easier(context)
		const next = lower
			? placeAt(lower.id, documents.ladder, input.state, input.next.day)
			: { dose: scaleDose(input.state.dose, 2 / 3), passed: false }
		return {
			fired: true,
			found: `${said(latestReading)}, and the time before too`,
			limit,
			verdict: 'ease',
			sentence: lower
				? `Ease to ${inSentence(lower.name)}: ${why}, twice running.`
				: `Ease to ${writeDose(next.dose ?? input.state.dose)}: ${why}, twice running.`,
			next,
		}
	},
}

const fallOf = (exposure: Exposure | null, { drill, documents, input }: JudgeContext) => {
	const reading = dropOffOf(exposure, drill, documents.school, input.errors)
	return reading && reading.repsBeforeFall !== null ? { reading, before: Math.max(1, reading.repsBeforeFall) } : null
}

const dropOff: Rule = {
	id: 'P4',
	question: () => 'A fall within the session beyond chance',
	firmness: 'common practice',
	evaluate(context): Finding {
		const reading = dropOffOf(context.latest, context.drill, context.documents.school, context.input.errors)
		if (!reading) return { fired: false, found: 'nothing measured', limit: '—' }
		const limit = `${writePercent(dropOffLimit(context.latest!.marks[0]!.kind, context.drill, context.documents.school))}, beyond chance`
		if (reading.tooCoarse) return { fired: false, found: 'the method cannot show tiredness here', limit }
		const worst = `${writePercent(Math.max(...reading.percents))}${reading.seesLittle ? ', by a method that sees little' : ''}`
		const latest = fallOf(context.latest, context)
		const previous = fallOf(context.previous, context)
		if (!latest) return { fired: false, found: `largest ${worst}`, limit }
		const shown = reading.percents
			.slice(latest.before, latest.before + 2)
			.map(writePercent)
			.join(' and ')
		// A ball that slows is too heavy today: one lighter, and the reps stay.
		if (context.drill.family === 'throw') return lighterBall(context, shown, limit)
		if (!previous) return { fired: false, found: `${shown}, once`, limit: `${limit}, twice running` }
		const planned = repsOf(context.input.state.dose)
		const floor = repsOf(context.rung.dose) / 2
		const keep = Math.max(Math.min(latest.before, previous.before), Math.ceil(floor))
		if (keep >= planned) return { fired: false, found: `${shown}, already at half the rung's dose`, limit }
		const dose: Dose = scaleDose(context.input.state.dose, keep / planned)
		return {
			fired: true,
			found: `${shown}, and the time before too`,
			limit,
			verdict: 'ease',
			sentence: `Ease from ${planned} to ${repsOf(dose)} reps: reps ${latest.before + 1} and ${latest.before + 2} were ${shown} off the best, twice running.`,
			next: { dose, easedBy: 'drop-off', passed: false },
		}
	},
}

function lighterBall({ rung, input }: JudgeContext, shown: string, limit: string): Finding {
	const now = input.state.ballKg ?? (rung.parameters.ballKg ? ballFor(rung.parameters.ballKg, input.athlete.massKg) : 0)
	const lighter = BALLS.filter((kg) => kg < now).at(-1)
	if (lighter === undefined) return { fired: false, found: `${shown}, and no lighter ball`, limit }
	return {
		fired: true,
		found: shown,
		limit,
		verdict: 'ease',
		sentence: `Ease to the ${lighter} kg ball: the throws were ${shown} short of the best.`,
		next: { ballKg: lighter, passed: false },
	}
}

const assisted: Rule = {
	id: 'P10',
	question: () => 'Comfort and braking under a pull',
	firmness: 'common practice',
	evaluate(context): Finding {
		const limit = `${COMFORT_AT_WORST} of 5, no braking`
		const comfort = context.latest?.comfort
		if (context.rung.pass.kind !== 'comfort' || !comfort)
			return { fired: false, found: context.rung.pass.kind === 'comfort' ? 'no comfort report' : 'no pull', limit }
		const found = `${comfort.worst} of 5${comfort.braking ? ', braking seen' : ''}`
		if (comfort.worst <= COMFORT_AT_WORST && !comfort.braking) return { fired: false, found, limit }
		const lower = context.documents.ladder.rungs[context.rungIndex - 1]
		if (!lower)
			return {
				fired: true,
				found,
				limit,
				verdict: 'ease',
				sentence: `Ease ${inSentence(context.rung.name)} to one easy try: ${found}. Leave it out if the next is no better.`,
				next: { dose: scaleDose(context.input.state.dose, 0.5), passed: false },
			}
		return {
			fired: true,
			found,
			limit,
			verdict: 'ease',
			sentence: `Back to ${inSentence(lower.name)}, and stay there: ${found}.`,
			next: { ...placeAt(lower.id, context.documents.ladder, context.input.state, context.input.next.day), stay: true },
		}
	},
}

const carried: Rule = {
	id: 'P11',
	question: () => 'A carried load that came off',
	firmness: 'common practice',
	evaluate(context): Finding {
		const limit = writePercent(context.documents.school.numbers.carriedSpeedLossPercent)
		if (!context.drill.carriesLoad) return { fired: false, found: 'no load carried', limit }
		const off = context.latest?.loadOff
		if (!off) return { fired: false, found: 'stayed on', limit }
		const found = off === 'speed-loss' ? 'off for speed lost' : 'off for a compromised movement'
		const lower = easier(context)
		if (!lower)
			return {
				fired: true,
				found,
				limit,
				verdict: 'ease',
				sentence: `Ease to ${writeDose(scaleDose(context.input.state.dose, 0.5))}: the load came ${found}, and there is none lighter.`,
				next: { dose: scaleDose(context.input.state.dose, 0.5), passed: false },
			}
		return {
			fired: true,
			found,
			limit,
			verdict: 'ease',
			sentence: `Ease to ${inSentence(lower.name)}: the load came ${found}.`,
			next: placeAt(lower.id, context.documents.ladder, context.input.state, context.input.next.day),
		}
	},
}

const PLATEAU_EXPOSURES = 4
/** Exposures on a variation before the rung itself is tried again. */
const VARIED_EXPOSURES = 3

/** The variation offered: pulls by the school's resistance question, heavy towards light with the phase. */
export function variationFor(
	rung: Rung,
	{ documents, input }: Pick<JudgeContext, 'documents' | 'input'>,
): Variation | null {
	const wanted =
		documents.school.choices.resistance === 'light-only'
			? 'light'
			: ({ accumulate: 'heavy', intensify: 'moderate', peaking: 'light', unloading: 'light' } as const)[
					input.next.phase
				]
	const open = rung.variations ?? []
	return open.find((one) => one.resistance === wanted) ?? open.find((one) => one.resistance === undefined) ?? null
}

interface MeanOf {
	mean: number
	error: number
	/** What it may be held against: kind, method, and the sides it is of. */
	way: string
}
/** Of the method most reps were taken with. Each side counts once, however many reps it did. */
const meanOf = (exposure: Exposure): MeanOf | null => {
	const kind = exposure.marks[0]?.kind
	if (!kind) return null
	const { marks, method } = majorityMarks(exposure.marks, kind)
	if (method === null) return null
	const names = [...new Set(marks.map(usualName))].sort()
	const mean = average(
		names.map((name) => average(marks.filter((mark) => usualName(mark) === name).map(({ value }) => value))),
	)
	const { betweenSd, withinSd } = exposure.usual?.[names[0]!] ?? spreadsOf([], mean, kind, method)
	return { mean, error: Math.hypot(betweenSd, withinSd / Math.sqrt(marks.length)), way: [kind, ...names].join(' ') }
}

const plateau: Rule = {
	id: 'P7',
	question: () => 'No change beyond noise over four sessions',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { input, rung, latestReading, documents } = context
		const limit = `${PLATEAU_EXPOSURES} sessions on a priority ladder`
		const { substitute } = input.state
		if (substitute && rung.variations?.some((one) => one.drillId === substitute.drillId)) {
			const varied = input.exposures.filter(
				(one) => !one.onRung && one.day >= substitute.since && one.repsDone > 0,
			).length
			if (varied < VARIED_EXPOSURES)
				return {
					fired: true,
					found: `${varied} of ${VARIED_EXPOSURES} sessions of the variation`,
					limit,
					verdict: 'swap',
					sentence: `The variation stays: ${varied} of ${VARIED_EXPOSURES} sessions done.`,
					next: {},
					instead: substitute.drillId,
				}
			return {
				fired: true,
				found: 'variation done',
				limit,
				verdict: 'hold',
				sentence: `Back to ${inSentence(rung.name)}, to see what the variation brought.`,
				next: { substitute: null },
			}
		}
		if (input.focus !== 'priority') return { fired: false, found: 'not a priority ladder', limit }
		const own = input.exposures
			.filter((one) => one.onRung && one.rungId === rung.id && one.repsDone > 0 && one.phase !== 'unloading')
			.slice(-PLATEAU_EXPOSURES)
		const means = own.map(meanOf)
		if (own.length < PLATEAU_EXPOSURES || means.some((one) => one === null))
			return { fired: false, found: `${own.length} measured sessions on this rung`, limit }
		if (latestReading?.outcome === 'pass') return { fired: false, found: 'passing', limit }
		const values = means as MeanOf[]
		const latest = own.at(-1)!
		if (!own.every((one) => isAlike(one, latest)) || new Set(values.map(({ way }) => way)).size > 1)
			return { fired: false, found: `${own.length} sessions on this rung, not measured alike`, limit }
		const change = (values[2]!.mean + values[3]!.mean - values[0]!.mean - values[1]!.mean) / 2
		const noise = (2 * Math.hypot(...values.map((one) => one.error))) / 2
		const kind = own[0]!.marks[0]!.kind
		const found = `${change < 0 ? '−' : '+'}${writeMark({ kind, value: Math.abs(change) })} over four sessions, noise ${writeMark({ kind, value: noise })}`
		if (Math.abs(change) > noise) return { fired: false, found, limit }
		const variation = variationFor(rung, context)
		if (!variation) return { fired: false, found: `${found}; no variation of this rung`, limit }
		if (documents.school.choices.variety === 'same')
			return {
				fired: true,
				found,
				limit,
				verdict: 'hold',
				sentence: `Hold ${inSentence(rung.name)}: no change beyond noise over four sessions. Proposed, not written: ${inSentence(variation.name)}.`,
				next: {},
			}
		return {
			fired: true,
			found,
			limit,
			verdict: 'swap',
			sentence: `Swap for ${inSentence(variation.name)} at the same rung: no change beyond noise over four sessions.`,
			next: { substitute: { drillId: variation.drillId, since: input.next.day } },
			instead: variation.drillId,
		}
	},
}

const waiting = (context: JudgeContext, name: string, lock: Lock, found: string, limit: string): Finding => ({
	fired: true,
	found,
	limit,
	verdict: 'hold',
	decidedBy: lock.rule,
	sentence: `Passed, waiting: ${name}${lock.words.startsWith('opens') ? ' ' : ': '}${lock.words}. It need not be earned again.`,
	next: passedState(context),
})
function passedState({ input, documents }: JudgeContext): Partial<LadderState> {
	const { state } = input
	return {
		passed: true,
		passedSince: state.passedSince ?? input.day,
		done: [...new Set([...passedRungs(state, documents.ladder), state.rungId])],
	}
}

const pass: Rule = {
	id: 'P1',
	question: (context) => `${context.rung.name} passed twice running`,
	firmness: 'our setting',
	evaluate(context): Finding {
		const { latestReading, previousReading, input, rung, documents } = context
		const { state } = input
		const limit = `${PASS_SHARE * 100} % of reps, 80 % likely, four in five good`
		if (!latestReading) return { fired: false, found: 'not done at this dose', limit }
		const both = latestReading.outcome === 'pass' && previousReading?.outcome === 'pass'
		const waited = state.passed && latestReading.outcome !== 'miss'
		if (!both && !waited)
			return {
				fired: false,
				found: latestReading.outcome === 'pass' ? `once: ${said(latestReading)}` : said(latestReading),
				limit,
			}
		const found = waited && !both ? 'passed before' : `twice: ${said(latestReading)}`
		if (repsOf(state.dose) < repsOf(rung.dose)) {
			return {
				fired: true,
				found,
				limit,
				verdict: 'advance',
				sentence: `Back to the full ${writeDose(rung.dose)} of ${inSentence(rung.name)}: ${evidence(latestReading)}, twice running.`,
				next: { dose: rung.dose, easedBy: null },
			}
		}
		const stays =
			context.input.focus === 'kept'
				? 'kept, not driven on, in this block'
				: state.stay
					? 'stays at the last comfortable pull'
					: null
		if (stays)
			return {
				fired: true,
				found,
				limit,
				verdict: 'hold',
				...(input.focus === 'kept' ? { decidedBy: 'P8' as const } : {}),
				sentence: `Hold ${inSentence(rung.name)}: passed, and ${stays}.`,
				next: passedState(context),
			}
		const done = passedState(context)
		const { facts } = context.concluded
		const above = nextRung(
			{ ...facts, passed: { ...facts.passed, [documents.ladder.id]: done.done ?? [] } },
			documents.ladder,
			{ ...state, ...done },
		)
		if (!above) {
			const top = rung.id === documents.ladder.rungs.at(-1)?.id
			return {
				fired: true,
				found,
				limit,
				verdict: 'hold',
				sentence: `Hold ${inSentence(rung.name)}, the top ${top ? 'of the ladder' : 'that is open now'}: ${evidence(latestReading)}.`,
				next: done,
			}
		}
		if (above.lock) return waiting(context, above.rung.name, above.lock, found, limit)
		const low = stayLow(context)
		if (low)
			return {
				fired: true,
				found: `${found}; ${low}`,
				limit: `${documents.school.numbers.sprintGoalMs} ms to go up a box`,
				verdict: 'hold',
				sentence: `Hold ${inSentence(rung.name)}: passed, but ${low}. This box already asks enough.`,
				next: {},
			}
		return {
			fired: true,
			found,
			limit,
			verdict: 'advance',
			sentence: `Advance to ${inSentence(above.rung.name)}, ${writeDose(above.rung.dose)}: ${waited && !both ? 'passed before, and what it waited for is met' : `${evidence(latestReading)}, twice running`}.`,
			next: {
				rungId: above.rung.id,
				dose: above.rung.dose,
				passed: false,
				passedSince: null,
				easedBy: null,
				rungSince: input.next.day,
				done: done.done ?? [],
				ballKg: null,
			},
		}
	},
}

/**
 * By the low-box view a rebound goes up only when its contact keeps the sprint goal: not by way of the landings and
 * pauses of the next box either.
 */
function stayLow({ latest, rung, rungIndex, documents, concluded }: JudgeContext): string | null {
	const { choices, numbers } = documents.school
	if (
		choices.boxHeight !== 'low' ||
		rung.pass.kind !== 'contact-ceiling' ||
		!documents.ladder.rungs
			.slice(rungIndex + 1)
			.some(
				(one) =>
					one.drillId === rung.drillId &&
					(one.parameters.heightCm ?? 0) > (rung.parameters.heightCm ?? 0) &&
					!outOfReach(concluded.facts, one),
			)
	)
		return null
	const goal = numbers.sprintGoalMs
	const { probability, mean } = latest ? readCeiling(latest, goal / 1000) : { probability: null, mean: 0 }
	if (probability === null || probability >= PASS_SHARE) return null
	return `its contact of ${Math.round(mean * 1000)} ms ${mean * 1000 > goal ? 'is' : 'may be'} over the sprint goal of ${goal} ms`
}

/** What was done in place of the rung, as far as it stands on the ladder. */
function stoodIn({ documents, rungIndex }: JudgeContext, rungId: string): string {
	const at = documents.ladder.rungs.findIndex((one) => one.id === rungId)
	return at < 0 ? 'other work' : at < rungIndex ? 'a lower rung' : 'a higher rung'
}

const unclear: Rule = {
	id: 'P3',
	question: () => 'Enough to go by',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { latest, latestReading, input, rung } = context
		const limit = 'two clear passes'
		const hold = `Hold ${inSentence(rung.name)}, ${writeDose(input.state.dose)}`
		if (!latest || latest.repsDone === 0)
			return {
				fired: true,
				found: 'nothing logged',
				limit,
				verdict: 'hold',
				sentence: `${hold}. Not enough to say: nothing was logged.`,
			}
		if (!latestReading) {
			const why = latest.firstDayBack
				? 'the first day back says nothing either way'
				: latest.phase === 'unloading'
					? 'an unloading week says nothing'
					: latest.rungId !== rung.id
						? `${stoodIn(context, latest.rungId)} stood in for this one`
						: !latest.onRung
							? 'another drill stood in'
							: 'the session asked for less than this dose, so it says nothing about it'
			return {
				fired: true,
				found: `planned ${writeDose(latest.planned)}`,
				limit,
				verdict: 'hold',
				sentence: `${hold}: ${why}.`,
			}
		}
		if (latestReading.outcome === 'pass')
			return {
				fired: true,
				found: 'one clear pass',
				limit,
				verdict: 'hold',
				sentence: `${hold}: ${evidence(latestReading)}. One more like it.`,
			}
		return {
			fired: true,
			found: latestReading.missing ?? 'between pass and miss',
			limit,
			verdict: 'hold',
			sentence: `${hold}. Not enough to say: ${latestReading.missing ?? 'between pass and miss'}.`,
		}
	},
}

/** In order of precedence. The last one always fires, so that there is never an empty verdict. */
export const PERFORMANCE_RULES: Rule[] = [
	wayBack,
	missedTime,
	// An aid that cost speed or comfort is the reason, before the slow time it caused.
	assisted,
	carried,
	miss,
	dropOff,
	plateau,
	pass,
	unclear,
]
