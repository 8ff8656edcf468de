import { shortDay } from '../calendar/say-day'
import { CLOSE_FROM, SPARE_FROM, WITHIN_DAYS, closesEverything } from '../care/grades'
import { scaleDose } from '../library/scale-dose'
import { RETURN_PATHS } from '../library/ladders'
import { permit } from '../permit/permit'
import { type Form, formOf } from '../rules/form'
import { placeOf, restrictsDrill } from '../rules/bars'
import { barredBy } from '../rules/s1-pain'
import { restriction as restrictionRule } from '../rules/s2-restriction'
import { unwell as unwellRule } from '../rules/s3-unwell'
import { levelAgeMass as levelAgeMassRule } from '../rules/s4-level-age-mass'
import { worry as worryRule } from '../rules/s9-worry'
import type { Closure } from '../vocabulary/care'
import { EVERYTHING } from '../vocabulary/words'
import type { Drill } from '../vocabulary/drill'
import type { Ladder, Rung } from '../vocabulary/ladder'
import { capital, inSentence } from '../words/write-numbers'
import type { Finding, JudgeContext, Rule } from './judge-context'
import { lockOf } from './locks'
import type { LadderState, PainReport } from './types'

/*
 * What the rulebook says of a ladder's own rung, as a verdict. Nothing of it is kept on the ladder: what is closed,
 * spared or restricted belongs to the athlete and is asked anew for every line. A verdict only says it, and moves
 * the rung where pain or age ask for a lower one.
 */

const reported = ({ side, region, score }: PainReport) => `${placeOf({ region, side })} ${score} of 10`

const formAt = ({ drill, rung, concluded }: JudgeContext): Form =>
	formOf(drill, rung.parameters, concluded.facts.library)
const stepForm = ({ path, concluded }: JudgeContext): Form | null =>
	path && formOf(path.drill, path.rung.parameters, concluded.facts.library)

/** Another drill that is itself permitted, or a lower form; null when nothing is left. */
function standIn({ concluded, documents, rung, drill }: JudgeContext): { drill: Drill; name: string } | null {
	const { line } = permit(concluded, { drillId: drill.id, parameters: rung.parameters })
	const other = line && documents.drills[line.drillId]
	if (!other) return null
	const lower =
		other.id === drill.id
			? documents.ladder.rungs.find(
					(one) =>
						one.drillId === other.id &&
						JSON.stringify({ ...other.defaults.parameters, ...one.parameters }) === JSON.stringify(line.parameters),
				)
			: undefined
	return { drill: other, name: inSentence(lower?.name ?? other.name) }
}

/** What was said in the judged session that closes a place, in words; null when it was said before. */
function whyClosed({ region, side, since }: Closure, { input }: JudgeContext): string | null {
	if (since !== input.day) return null
	const today = input.pains.filter((one) => one.sessionId === input.sessionId)
	if (region === EVERYTHING)
		return today.some((one) => closesEverything({ kind: 'pain', ...one }))
			? 'a reported blow or strong pain at the head or neck'
			: null
	const own = today
		.filter(
			(one) =>
				one.region === region && (side === undefined || one.side === 'both' || side === 'both' || one.side === side),
		)
		.sort((a, b) => Number(b.redFlag) - Number(a.redFlag) || b.score - a.score)
	const worst = own[0]
	if (!worst) return null
	if (worst.redFlag) return `${placeOf(worst)}: sharp pain, giving way, locking or numbness`
	return worst.score >= CLOSE_FROM
		? `${placeOf(worst)} pain ${worst.score} of 10`
		: `${placeOf(worst)} pain of ${SPARE_FROM} or more twice in ${WITHIN_DAYS} days`
}

/** S1: what hurts, and whether this ladder's drill loads it. */
const pain: Rule = {
	id: 'S1',
	question: () => 'Pain where this drill loads the body',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { input, concluded, documents, rungIndex } = context
		const limit = `${SPARE_FROM} of 10 spares, ${CLOSE_FROM} closes`
		const form = formAt(context)
		const step = stepForm(context)
		// A step of the way back answers a region to be spared by its own rule.
		const closures = [
			...new Set([
				...barredBy(concluded.facts, form).filter((one) => !step || one.grade !== 'spare'),
				...(step ? barredBy(concluded.facts, step).filter((one) => one.grade !== 'spare') : []),
			]),
		].filter(
			(one) =>
				one.region === EVERYTHING ||
				!input.restrictions.some((held) => held.region === one.region && held.since === one.since),
		)
		const worst =
			closures.find((one) => one.region === EVERYTHING) ?? closures.find((one) => one.grade === 'closed') ?? closures[0]
		if (!worst) {
			const said = input.pains.find(
				(one) => one.sessionId === input.sessionId && one.score > 0 && (form.drill.regions[one.region] ?? 0) > 0,
			)
			return { fired: false, found: said ? `${reported(said)}, noted` : 'none reported', limit }
		}
		const said = input.pains.find((one) => one.sessionId === input.sessionId && one.region === worst.region)
		const found = said
			? `${reported(said)}${worst.grade === 'spare' && said.score < SPARE_FROM ? ', third session running' : ''}`
			: `${placeOf(worst)} ${worst.grade === 'spare' ? 'to be spared' : 'closed'} since ${shortDay(worst.since)}`
		if (worst.grade !== 'spare') {
			const why = whyClosed(worst, context)
			return {
				fired: true,
				found,
				limit,
				verdict: 'stop',
				tier: 'block',
				sentence: `${why === null ? `Closed until cleared: ${placeOf(worst)}, since ${shortDay(worst.since)}` : `Stop, closed until cleared: ${why}`}.${worst.region === EVERYTHING ? ' Get professional help now.' : ''}`,
				next: {},
			}
		}
		const other = standIn(context)
		const more =
			closures.length > 1
				? `, with ${closures
						.slice(1)
						.map((one) => placeOf(one))
						.join(' and ')}`
				: ''
		if (!other)
			return {
				fired: true,
				found,
				limit,
				verdict: 'stop',
				tier: 'block',
				sentence: `Nothing of this ladder for now: ${found}${more}, and no drill here spares ${more ? 'them all' : 'it'}.`,
				next: {},
			}
		// It comes back one rung lower: said once, when the region was not to be spared before.
		const before = input.exposures.filter((one) => one.day < input.day).at(-1)?.day
		const fresh = closures.some((one) => before === undefined || one.since > before)
		const lower = lowerRung(context)
		return {
			fired: true,
			found,
			limit,
			verdict: 'swap',
			instead: other.drill.id,
			tier: 'caution',
			sentence: fresh
				? `Swap for ${other.name}: ${found}${more}. Afterwards it goes on ${rungIndex === 0 ? `at ${inSentence(lower.name)}` : `one rung lower, at ${inSentence(lower.name)}`}, once the easy form was asked about and read 0 or 1.`
				: `${capital(other.name)} stands in: ${found}${more}. It ends once the easy form was asked about and read 0 or 1.`,
			next: fresh
				? { ...placeAt(lower.id, documents.ladder, input.state, input.next.day), dose: scaleDose(lower.dose, 0.6) }
				: {},
		}
	},
}

/** The next rung below that the ladder does not go past; the rung itself where there is none. */
const lowerRung = ({ documents, rung, rungIndex, concluded }: JudgeContext): Rung =>
	documents.ladder.rungs.slice(0, rungIndex).findLast((one) => !lockOf(concluded.facts, one)?.skip) ?? rung

/** S2: what is closed by hand asks for another drill or nothing. */
const restriction: Rule = {
	id: 'S2',
	question: () => 'Closed by hand',
	firmness: 'our setting',
	evaluate(context): Finding {
		const finding = restrictionRule.read(context.concluded.facts, formAt(context))
		if (!finding) return { fired: false, found: 'open', limit: 'lifted, or cleared by a health professional' }
		const by = context.input.restrictions.find((one) => restrictsDrill(one, context.drill))?.setBy
		const found = by ? `${finding.found} by ${by}` : finding.found
		const other = standIn(context)
		return {
			fired: true,
			found,
			limit: finding.limit,
			verdict: other ? 'swap' : 'stop',
			...(other ? { instead: other.drill.id } : {}),
			tier: 'block',
			sentence: other
				? `${capital(other.name)} stands in: ${found}.`
				: `Nothing of this ladder for now: ${found}, and no drill here spares it.`,
			next: {},
		}
	},
}

/** Puts an athlete on a rung: what lies from there up must be passed again. */
export function placeAt(rungId: string, ladder: Ladder, state: LadderState, day: string): Partial<LadderState> {
	const index = ladder.rungs.findIndex((rung) => rung.id === rungId)
	const below = new Set(ladder.rungs.slice(0, index).map((rung) => rung.id))
	const kept =
		state.done ??
		ladder.rungs
			.slice(
				0,
				Math.max(
					0,
					ladder.rungs.findIndex((rung) => rung.id === state.rungId),
				),
			)
			.map((rung) => rung.id)
	return {
		rungId,
		dose: ladder.rungs[index]?.dose ?? state.dose,
		passed: false,
		easedBy: null,
		passedSince: null,
		rungSince: day,
		done: kept.filter((id) => below.has(id)),
		ballKg: null,
		stay: false,
	}
}

/** S3: nothing hard while unwell. */
const unwell: Rule = {
	id: 'S3',
	question: () => 'Unwell or feverish',
	firmness: 'common practice',
	evaluate(context): Finding {
		const { input, concluded, rung } = context
		const limit = 'nothing high, shock or maximal'
		if (!unwellRule.read(concluded.facts, formAt(context)))
			return { fired: false, found: input.athlete.unwell ? 'unwell, and this is easy work' : 'well', limit }
		return {
			fired: true,
			found: 'reported unwell',
			limit,
			verdict: 'hold',
			tier: 'block',
			sentence: `Hold ${inSentence(rung.name)}: unwell, nothing high, shock or maximal until well again.`,
			next: {},
		}
	},
}

/** S9: somebody worries about this movement: the alternative is offered first. */
const worry: Rule = {
	id: 'S9',
	question: () => 'A worry about this movement',
	firmness: 'our setting',
	evaluate(context): Finding {
		const finding = worryRule.read(context.concluded.facts, formAt(context))
		const limit = 'alternative first'
		if (!finding) return { fired: false, found: 'none', limit }
		const other = standIn(context)
		const name = inSentence(context.rung.name)
		return {
			fired: true,
			found: finding.found,
			limit,
			verdict: other ? 'swap' : 'hold',
			...(other ? { instead: other.drill.id } : {}),
			tier: 'caution',
			sentence: other
				? `Swap for ${other.name}: ${finding.found} in this movement. ${capital(name)} waits until it is settled.`
				: `Hold ${name}: ${finding.found} and no drill here spares it. Talk first.`,
			next: other ? {} : { passed: false },
		}
	},
}

/** S4: who is too young, too heavy or not far enough for their rung goes on at the highest one that is for them. */
const levelAgeMass: Rule = {
	id: 'S4',
	question: () => 'Level, age and body mass',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { documents, rung, rungIndex, concluded, input } = context
		const limit = 'the rung is for this athlete'
		const finding = levelAgeMassRule.read(concluded.facts, formAt(context))
		if (!finding) return { fired: false, found: 'it is', limit }
		const lower = documents.ladder.rungs.slice(0, rungIndex).findLast((one) => lockOf(concluded.facts, one) === null)
		const why = `${finding.found}: ${finding.limit}`
		return {
			fired: true,
			found: why,
			limit,
			verdict: 'ease',
			tier: 'block',
			sentence: lower
				? `Down to ${inSentence(lower.name)}: ${inSentence(rung.name)} is not for this athlete (${why}).`
				: `${rung.name} is not for this athlete (${why}).`,
			next: lower ? placeAt(lower.id, documents.ladder, input.state, input.next.day) : { passed: false },
		}
	},
}

export const SAFETY_RULES: Rule[] = [pain, restriction, unwell, levelAgeMass, worry]

/** Whether a family has a path of its own back from injury; easy rungs need none. */
export const pathFor = (ladder: Ladder, drill: Drill): string | null =>
	drill.intensity === 'low' ? null : (RETURN_PATHS[ladder.family] ?? null)
