import { daysBetween, hoursBetween } from '../calendar/day-count'
import type { Finding, JudgeContext, Rule } from './judge-context'
import { EXIT_RUNGS, KNOWN_UP_TO, REPEATS_TOLD, stepsOf } from '../care/return-plan'
import { passedRungs } from './locks'
import { pathFor, placeAt } from './safety-rules'
import { MIN_JUDGED_REPS, PASS_SHARE } from './read-criterion'
import type { LadderState } from './types'
import type { Ladder, Rung } from '../vocabulary/ladder'
import { AWAY_DAYS } from '../rules/p9-time-away'
import { gates, schoolGate } from '../rules/s8-gates'
import { inSentence } from '../words/write-numbers'
import { REGION_NAMES } from '../vocabulary/words'

const STEPS = [60, 75, 90] as const

/** The last day of any work of the ladder's family before a day. */
function lastWork({ input, documents }: JudgeContext, before: string): string | null {
	const days = input.work
		.filter((work) => work.families.includes(documents.ladder.family) && work.day < before)
		.map((work) => work.day)
	return days.length === 0 ? null : days.reduce((a, b) => (a > b ? a : b))
}

/** P9: time away, and the weeks after it. The first day back is no evidence. */
export const missedTime: Rule = {
	id: 'P9',
	question: () => 'Days since work of this family',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { input, latest, rung } = context
		const limit = `${AWAY_DAYS.none} nothing, ${AWAY_DAYS.short} three quarters, ${AWAY_DAYS.long} a rung down`
		const { state } = input
		const trained = (latest?.repsDone ?? 0) > 0
		const since = lastWork(context, input.day)
		if (since === null && !state.back) return { fired: false, found: 'no earlier work known', limit }
		if (state.back && trained) return comeBack(context, limit)
		const until = trained ? input.day : input.next.day
		const gap = since === null ? 0 : daysBetween(since, until)
		const found = since === null ? 'no earlier work known' : `${gap} days to ${until}`
		const stage =
			gap <= AWAY_DAYS.none ? null : gap <= AWAY_DAYS.short ? 'short' : gap <= AWAY_DAYS.long ? 'long' : 'path'
		// A lay-off that is already answered is not answered again, unless it has grown.
		const known = state.back && state.back.since === null ? ['short', 'long', 'path'].indexOf(state.back.stage) : -1
		if (stage === null || ['short', 'long', 'path'].indexOf(stage) <= known) {
			if (!state.back) return { fired: false, found, limit }
			return {
				fired: true,
				found: `${found}, still away`,
				limit,
				verdict: 'hold',
				sentence: `Hold ${inSentence(rung.name)} at ${state.back.percent} %, for the first day back.`,
				next: {},
			}
		}
		const firstDay = trained ? input.day : null
		if (stage === 'short')
			return {
				fired: true,
				found,
				limit,
				verdict: 'hold',
				sentence: `Hold ${inSentence(rung.name)} at 75 % of its dose: ${gap} days without ${context.documents.ladder.family} work.`,
				next: { back: { percent: 75, since: firstDay, stage: 'short' }, passed: false },
			}
		const pathId = stage === 'path' ? pathFor(context.documents.ladder, context.drill) : null
		const path = pathId ? context.documents.paths[pathId] : undefined
		if (path)
			return {
				fired: true,
				found,
				limit,
				verdict: 're-enter',
				sentence: `Re-enter by “${inSentence(path.name)}”, from ${inSentence(path.rungs[0]!.name)}: ${gap} days away.`,
				next: {
					reentry: { pathId: path.id, rungId: path.rungs[0]!.id, since: input.day },
					back: { percent: 60, since: null, stage: 'path' },
					passed: false,
				},
			}
		const lower = context.documents.ladder.rungs[Math.max(0, context.rungIndex - 1)] ?? rung
		const moved = state.back?.stage === 'long' ? {} : placeAt(lower.id, context.documents.ladder, state, input.next.day)
		return {
			fired: true,
			found,
			limit,
			verdict: 'ease',
			sentence: `Ease to ${inSentence(lower.name)} at 60 %: ${gap} days without ${context.documents.ladder.family} work.`,
			next: { ...moved, back: { percent: 60, since: firstDay, stage: stage } },
		}
	},
}

/** 60 → 75 → 90 → 100 %, a step a week from the first day back. */
function comeBack({ input, rung }: JudgeContext, limit: string): Finding {
	const back = input.state.back!
	if (back.since === null)
		return {
			fired: true,
			found: 'first day back',
			limit,
			verdict: 'hold',
			sentence: `Hold ${inSentence(rung.name)} at ${back.percent} %: the first day back says nothing either way.`,
			next: { back: { ...back, since: input.day } },
		}
	const weeks = Math.floor(daysBetween(back.since, input.next.day) / 7)
	const from = STEPS.indexOf(back.percent)
	if (weeks < 1)
		return {
			fired: true,
			found: `back since ${back.since}`,
			limit,
			verdict: 'hold',
			sentence: `Hold ${inSentence(rung.name)} at ${back.percent} %: a step a week after time away.`,
			next: {},
		}
	const to = STEPS[from + 1]
	if (to === undefined)
		return {
			fired: true,
			found: `back since ${back.since}`,
			limit,
			verdict: 'hold',
			sentence: `Hold ${inSentence(rung.name)}, the full dose again: the weeks back are done.`,
			next: { back: null },
		}
	return {
		fired: true,
		found: `back since ${back.since}`,
		limit,
		verdict: 'hold',
		sentence: `Hold ${inSentence(rung.name)}, now at ${to} %: a step a week after time away.`,
		next: { back: { ...back, percent: to, since: input.next.day } },
	}
}

/** From this discomfort on, 0–10, the way back goes a step back. */
export const ONE_BACK_FROM = 3
/** From this effort up a step of the way back waits 48 hours, met from 44. */
const SPACED_FROM_PERCENT = 90
const SPACED_H = 44

/** The way back: one step a session, repeated after any discomfort; at its end two rungs below the last. */
export const wayBack: Rule = {
	id: 'RE',
	question: () => 'A step on the way back',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { input, path } = context
		const limit = 'no discomfort, four in five reps'
		if (!path || !input.state.reentry) return { fired: false, found: 'not on a way back', limit }
		// Low work that stood beside the step is not it. A lower step is, that time away or a sore region had written.
		const written = path.ladder.rungs.findIndex((rung) => rung.id === context.latest?.rungId)
		const at = written >= 0 && written < path.index ? written : path.index
		const latest = written === at ? context.latest : null
		const own = path.ladder.rungs[at]!
		const step = inSentence(own.name)
		// Whoever did a lower step goes on from there, whether it is repeated or the next one follows.
		const stays = at < path.index && (latest?.repsDone ?? 0) > 0
		const repeat = (found: string, why: string): Finding => ({
			fired: true,
			found,
			limit,
			verdict: 're-enter',
			tier: 'caution',
			sentence: `Repeat “${step}”: ${why}.`,
			next: stays ? { reentry: stepTo(path.ladder.id, own, input.next.day) } : {},
		})
		const answers = input.answers ?? []
		const said = [
			...input.pains.filter((report) => report.sessionId === input.sessionId && !report.redFlag),
			...answers,
		]
		const isKnown = ({ region, score }: (typeof said)[number]) =>
			score <= KNOWN_UP_TO && (input.accepted ?? []).includes(region)
		const most = (of: readonly { score: number }[]) => Math.max(0, ...of.map((one) => one.score))
		const flagged = input.pains.filter((report) => report.sessionId === input.sessionId && report.redFlag)
		const sore = most([...said.filter((one) => !isKnown(one)), ...flagged])
		const known = most(said.filter(isKnown))
		const { facts } = context.concluded
		const walked = stepsOf(
			path.ladder,
			facts.library,
			(form) => gates.read(facts, form) !== null,
			(rung) => schoolGate(facts, rung) !== null,
		)
		const before = walked.findLast(({ index }) => index < at)?.rung
		if (sore >= ONE_BACK_FROM && before)
			return {
				...repeat(`discomfort ${sore} of 10`, ''),
				sentence: `One step back, ${inSentence(before.name)}: discomfort of ${sore}, ${ONE_BACK_FROM} or more.`,
				next: { reentry: stepTo(input.state.reentry.pathId, before, input.next.day) },
			}
		if (sore >= 1) {
			const repeats = (stays ? 0 : (input.state.reentry.repeats ?? 0)) + 1
			const again = repeat(
				`discomfort ${sore} of 10`,
				repeats < REPEATS_TOLD
					? `discomfort of ${sore}, 1 or more ends the day and repeats the step`
					: `discomfort of ${sore}, repeat number ${repeats}; a health professional decides whether a known ${KNOWN_UP_TO} is accepted there`,
			)
			return { ...again, next: { reentry: { ...(again.next?.reentry ?? input.state.reentry), repeats } } }
		}
		if (!latest || latest.repsDone === 0) return repeat('not done', 'it has not been done yet')
		if (latest.repsDone < PASS_SHARE * latest.planned.sets * latest.planned.reps)
			return repeat(
				`${latest.repsDone} reps done`,
				`${latest.repsDone} of ${latest.planned.sets * latest.planned.reps} reps were done`,
			)
		const judged = latest.quality.good + latest.quality.notYet + latest.quality.poor
		if (judged >= MIN_JUDGED_REPS && latest.quality.poor / judged > 1 / 3)
			return repeat('poor on more than a third', 'poor on more than a third of the reps')
		// Not asked is not quiet.
		const unasked = (input.returning ?? []).filter((region) => !answers.some((answer) => answer.region === region))
		if (unasked.length > 0)
			return repeat(
				'done, nobody asked how it was',
				`nobody has asked yet how ${unasked.map((region) => `the ${REGION_NAMES[region]}`).join(' and ')} was`,
			)
		const next = walked.find(({ index }) => index > at)?.rung
		if (!next) {
			const left = leaveWayBack(input.state, context.documents.ladder, input.next.day)
			const target = context.documents.ladder.rungs.find((rung) => rung.id === left.rungId) ?? context.rung
			return {
				fired: true,
				found: 'last step done',
				limit,
				verdict: 'ease',
				tier: 'caution',
				sentence: `The way back is done: on to ${inSentence(target.name)}, two rungs below the last passed, at 60 %.`,
				next: left,
			}
		}
		const hours = hoursBetween(input, input.next)
		if ((next.parameters.effortPercent ?? 0) >= SPACED_FROM_PERCENT && hours < SPACED_H)
			return repeat(
				`${Math.round(hours)} h to the next session`,
				`48 hours between steps from ${SPACED_FROM_PERCENT} % up`,
			)
		return {
			fired: true,
			found: known > 0 ? `${own.name} done, a known ${known} of 10` : `${own.name} done, quiet`,
			limit,
			verdict: 're-enter',
			tier: 'caution',
			sentence: `Next step back: ${inSentence(next.name)}, after ${step} ${known > 0 ? `with the ${known} that is known and accepted` : 'without discomfort'}.`,
			next: { reentry: stepTo(input.state.reentry.pathId, next, input.next.day) },
		}
	},
}

const stepTo = (pathId: string, { id }: Rung, since: string) => ({ pathId, rungId: id, since })

/** The end of the way back for a ladder: two rungs below the last one passed, at 60 % [our setting]. */
export function leaveWayBack(state: LadderState, ladder: Ladder, day: string): LadderState {
	const passed = new Set(passedRungs(state, ladder))
	const last = ladder.rungs.findLastIndex((rung) => passed.has(rung.id))
	const target = ladder.rungs[Math.max(0, last - EXIT_RUNGS)] ?? ladder.rungs[0]!
	return {
		...state,
		...placeAt(target.id, ladder, state, day),
		reentry: null,
		back: { percent: 60, since: null, stage: 'path' },
		dose: target.dose,
	}
}

/** The way back from its first step, whatever was earned: what comes after it is two rungs below. */
export const enterWayBack = (state: LadderState, path: Ladder, day: string): LadderState => ({
	...state,
	substitute: null,
	passed: false,
	easedBy: null,
	reentry: { pathId: path.id, rungId: path.rungs[0]!.id, since: day },
	back: { percent: 60, since: null, stage: 'path' },
})
