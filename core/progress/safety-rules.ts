import { addDays } from '../calendar/days'
import { scaleDose } from '../library/scale-dose'
import { RETURN_PATHS } from '../library/ladders'
import { REGIONS, REGION_NAMES, type Region } from '../vocabulary/words'
import type { Drill } from '../vocabulary/drill'
import type { Ladder } from '../vocabulary/ladder'
import type { Finding, JudgeContext, Rule } from './judge-context'
import { lockOf, lockOfDrill, restricts } from './locks'
import type { LadderState, PainReport } from './types'
import { isHard } from '../dose/work-kinds'
import { inSentence } from '../words/write-numbers'

const sideOf = (report: PainReport) => (report.side === 'both' ? '' : `${report.side} `)
const named = (report: PainReport) => `${sideOf(report)}${REGION_NAMES[report.region]}`

/** Pain that swaps, pain that closes [our setting; direction: common practice]. */
export const SWAP_FROM = 3
export const CLOSE_FROM = 5

/** Pain of 1 or 2 in the third session running counts as 3. */
function weigh(report: PainReport, context: JudgeContext): number {
	if (report.score < 1 || report.score > 2) return report.score
	const sessions = context.input.lastSessions
	const everyTime =
		sessions.length >= 3 &&
		sessions.every((id) =>
			context.input.pains.some((pain) => pain.sessionId === id && pain.region === report.region && pain.score >= 1),
		)
	return everyTime ? SWAP_FROM : report.score
}

const loads = (context: JudgeContext, region: Region) =>
	(context.drill.regions[region] ?? 0) > 0 || (context.path?.drill.regions[region] ?? 0) > 0

/** A drill that spares every one of the regions and that no restriction closes: the first region's own alternative where it does, else another of the drill's. */
function alternativeFor([first, ...others]: readonly Region[], context: JudgeContext): Drill | null {
	const { alternatives } = context.drill
	const spares = (id: string, region: Region) =>
		alternatives[region] === id || !context.documents.drills[id]?.regions[region]
	const ids = [alternatives[first!], ...Object.values(alternatives)].filter((id) => id !== undefined)
	for (const id of ids) {
		const drill = context.documents.drills[id]
		if (!drill || context.input.restrictions.some((restriction) => restricts(restriction, drill))) continue
		if ([first!, ...others].every((region) => spares(id, region))) return drill
	}
	return null
}

/** S1: what hurt, and whether this ladder's drill loads it. */
const pain: Rule = {
	id: 'S1',
	question: () => 'Pain where this drill loads the body',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { input } = context
		const limit = `${SWAP_FROM} of 10 swaps, ${CLOSE_FROM} closes`
		const today = input.pains.filter((report) => report.sessionId === input.sessionId)
		const everywhere = today.find(
			(report) => report.region === 'neck-head' && (report.redFlag || report.score >= CLOSE_FROM),
		)
		const relevant = everywhere
			? [everywhere]
			: today.filter((report) => loads(context, report.region) || input.state.substitute?.region === report.region)
		const since = addDays(input.day, -14)
		const twice = (report: PainReport) =>
			input.pains.some(
				(earlier) =>
					earlier.sessionId !== input.sessionId &&
					earlier.region === report.region &&
					earlier.score >= SWAP_FROM &&
					earlier.day > since &&
					earlier.day <= input.day,
			)
		// Every report is looked at, not the worst alone: a second sore region can be the one that nothing spares.
		const weighed = relevant
			.map((report) => {
				const weight = weigh(report, context)
				return {
					report,
					weight,
					closes: report.redFlag || weight >= CLOSE_FROM || (weight >= SWAP_FROM && twice(report)),
				}
			})
			.sort(
				(a, b) =>
					Number(b.closes) - Number(a.closes) ||
					Number(b.report.redFlag) - Number(a.report.redFlag) ||
					b.weight - a.weight ||
					REGIONS.indexOf(a.report.region) - REGIONS.indexOf(b.report.region),
			)
		const [worst] = weighed
		if (!worst) return { fired: false, found: 'none reported', limit }
		const { report, weight } = worst
		const found = `${named(report)} ${report.score} of 10${weight > report.score ? ', third session running' : ''}`
		if (worst.closes) {
			const why = everywhere
				? `a reported blow or strong pain at the head or neck. Get professional help now`
				: report.redFlag
					? `${named(report)}: sharp pain, giving way, locking or numbness`
					: weight >= CLOSE_FROM
						? `${named(report)} pain ${report.score} of 10`
						: `${named(report)} pain of 3 or more twice in 14 days`
			return {
				fired: true,
				found,
				limit,
				verdict: 'stop',
				tier: 'block',
				sentence: `Stop, closed until cleared: ${why}.`,
				next: { closed: { region: report.region, since: input.day }, substitute: null, reentry: null },
			}
		}
		if (weight >= SWAP_FROM) {
			const sore = [...new Set(weighed.filter((one) => one.weight >= SWAP_FROM).map((one) => one.report.region))]
			const spares = alternativeFor(sore, context)
			if (!spares)
				return {
					fired: true,
					found,
					limit,
					verdict: 'stop',
					tier: 'block',
					sentence: `Stop on this ladder: ${found}${
						sore.length > 1
							? ` and ${sore
									.slice(1)
									.map((region) => REGION_NAMES[region])
									.join(', ')} sore too`
							: ''
					}, and no drill here spares ${sore.length > 1 ? 'them all' : 'it'}.`,
					next: { closed: { region: report.region, since: input.day }, substitute: null },
				}
			return {
				fired: true,
				found,
				limit,
				verdict: 'swap',
				tier: 'caution',
				sentence: `Swap for ${inSentence(spares.name)}: ${found}. It reopens one rung lower when the easy form reads 0 or 1.`,
				next: { substitute: { drillId: spares.id, region: report.region, since: input.day, cause: 'pain' } },
			}
		}
		return { fired: false, found: `${found}, noted`, limit }
	},
}

const lowerRung = (context: JudgeContext) => {
	for (let index = context.rungIndex - 1; index >= 0; index--) {
		const rung = context.documents.ladder.rungs[index]!
		const drill = context.documents.drills[rung.drillId]
		if (drill && !lockOf(rung, drill, context.locks)?.skip) return rung
	}
	return context.rung
}

/** S2: a region that is closed stays closed; a restriction asks for an alternative or nothing; an alternative that went well reopens one rung lower. */
const restriction: Rule = {
	id: 'S2',
	question: () => 'Closed, restricted, or on an alternative',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { state } = context.input
		const limit = 'cleared by a named person'
		if (state.closed) {
			const region = REGION_NAMES[state.closed.region]
			return {
				fired: true,
				found: `closed since ${state.closed.since} for the ${region}`,
				limit,
				verdict: 'stop',
				tier: 'block',
				sentence: `Closed until cleared: ${region}, since ${state.closed.since}.`,
				next: {},
			}
		}
		const held = context.input.restrictions.find((candidate) => restricts(candidate, context.drill))
		if (held) {
			const what = held.region ? REGION_NAMES[held.region] : `${held.pattern} work`
			const found = `${what} restricted since ${held.since} by ${held.setBy}`
			const spares = held.region ? alternativeFor([held.region], context) : null
			if (!spares || !held.region)
				return {
					fired: true,
					found,
					limit,
					verdict: 'stop',
					tier: 'block',
					sentence: `Closed until cleared: ${found}, and no drill here spares it.`,
					next: {},
				}
			return {
				fired: true,
				found,
				limit,
				verdict: 'swap',
				tier: 'block',
				sentence: `${spares.name} stands in: ${found}.`,
				next: {
					substitute: {
						drillId: spares.id,
						region: held.region,
						since: state.substitute?.since ?? context.input.day,
						cause: 'restriction',
					},
				},
			}
		}
		if (!state.substitute || state.substitute.cause === 'worry' || state.substitute.cause === 'plateau')
			return { fired: false, found: 'open', limit }
		const { region } = state.substitute
		if (!context.latest || context.latest.repsDone === 0) {
			return {
				fired: true,
				found: `alternative for the ${REGION_NAMES[region]} not done yet`,
				limit: 'easy form done, pain 0 or 1',
				verdict: 'swap',
				tier: 'caution',
				sentence: `The alternative stays: it has not been done yet, so nothing says the ${REGION_NAMES[region]} is quiet.`,
				next: {},
			}
		}
		const sore = context.input.pains.find(
			(report) => report.sessionId === context.input.sessionId && report.region === region && report.score >= 2,
		)
		if (sore)
			return {
				fired: true,
				found: `${named(sore)} ${sore.score} of 10 on the easy form`,
				limit: '0 or 1',
				verdict: 'swap',
				tier: 'caution',
				sentence: `The alternative stays: ${named(sore)} still reads ${sore.score} of 10.`,
				next: {},
			}
		const lower = lowerRung(context)
		return {
			fired: true,
			found: `${REGION_NAMES[region]} quiet on the easy form`,
			limit: '0 or 1',
			verdict: 'ease',
			tier: 'caution',
			sentence: `Back in, one rung lower, ${inSentence(lower.name)}: the easy form was quiet.`,
			next: {
				substitute: null,
				...placeAt(lower.id, context.documents.ladder, state, context.input.next.day),
				dose: scaleDose(lower.dose, 0.6),
			},
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
	evaluate({ input, drill, rung }): Finding {
		const limit = 'nothing high, shock or maximal'
		if (!input.athlete.unwell) return { fired: false, found: 'well', limit }
		if (!isHard(drill, rung.parameters)) return { fired: false, found: 'unwell, and this is easy work', limit }
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
		const { state, worries, day } = context.input
		const limit = 'alternative first'
		const open = worries.find((one) => one.drillId === context.rung.drillId)
		if (open) {
			const region = REGION_NAMES[open.region]
			const spares = alternativeFor([open.region], context)
			if (!spares)
				return {
					fired: true,
					found: `${region}, since ${open.since}`,
					limit,
					verdict: 'hold',
					tier: 'caution',
					sentence: `Hold ${inSentence(context.rung.name)}: a worry about the ${region} is open and no drill here spares it. Talk first.`,
					next: { passed: false },
				}
			return {
				fired: true,
				found: `${region}, since ${open.since}`,
				limit,
				verdict: 'swap',
				tier: 'caution',
				sentence: `Swap for ${inSentence(spares.name)}: a worry about the ${region} in this movement is open since ${open.since}.`,
				next: {
					substitute: {
						drillId: spares.id,
						region: open.region,
						since: state.substitute?.since ?? day,
						cause: 'worry',
					},
				},
			}
		}
		if (state.substitute?.cause !== 'worry') return { fired: false, found: 'none', limit }
		return {
			fired: true,
			found: 'the worry is settled',
			limit,
			verdict: 'hold',
			tier: 'caution',
			sentence: `Back to ${inSentence(context.rung.name)} at 75 % of its dose: the worry is settled.`,
			next: { substitute: null, back: { percent: 75, since: null, stage: 'short' } },
		}
	},
}

/** S4: who is too young, too heavy or not far enough for their rung goes on at the highest one that is for them. */
const levelAgeMass: Rule = {
	id: 'S4',
	question: () => 'Level, age and body mass',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { documents, drill, rung, rungIndex, locks, input } = context
		const limit = 'the rung is for this athlete'
		const lock = lockOfDrill(drill, rung.parameters, locks)
		if (lock?.rule !== 'S4') return { fired: false, found: 'it is', limit }
		const lower = documents.ladder.rungs.slice(0, rungIndex).findLast((one) => {
			const other = documents.drills[one.drillId]
			return other !== undefined && lockOf(one, other, locks) === null
		})
		return {
			fired: true,
			found: lock.words,
			limit,
			verdict: 'ease',
			tier: 'block',
			sentence: lower
				? `Down to ${inSentence(lower.name)}: ${inSentence(rung.name)} is not for this athlete (${lock.words}).`
				: `${rung.name} is not for this athlete (${lock.words}).`,
			next: lower ? placeAt(lower.id, documents.ladder, input.state, input.next.day) : { passed: false },
		}
	},
}

export const SAFETY_RULES: Rule[] = [pain, restriction, unwell, levelAgeMass, worry]

/** Whether a family has a path of its own back from injury; easy rungs need none. */
export const pathFor = (ladder: Ladder, drill: Drill): string | null =>
	drill.intensity === 'low' ? null : (RETURN_PATHS[ladder.family] ?? null)
