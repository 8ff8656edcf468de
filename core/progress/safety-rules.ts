import { addDays } from '../calendar/days'
import { REGION_NAMES, type Region } from '../library/types'
import type { Finding, JudgeContext, Rule } from './judge-context'
import type { PainReport } from './types'
import { scaleDose } from '../dose/scale-dose'

const sideOf = (report: PainReport) => (report.side === 'both' ? '' : `${report.side} `)
const named = (report: PainReport) => `${sideOf(report)}${REGION_NAMES[report.region]}`

/** Pain of 1 or 2 in the third session running counts as 3. */
function weigh(report: PainReport, context: JudgeContext): number {
	if (report.score < 1 || report.score > 2) return report.score
	const sessions = context.input.lastSessions
	const everyTime = sessions.length >= 3 && sessions.every((id) => context.input.pains.some((pain) => pain.sessionId === id && pain.region === report.region && pain.score >= 1))
	return everyTime ? 3 : report.score
}

const loads = (context: JudgeContext, region: Region) => (context.drill.regions[region] ?? 0) > 0

/** S1: what hurt, and whether this ladder's drill loads it. */
const pain: Rule = {
	id: 'S1',
	question: () => 'Pain where this drill loads the body',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { input } = context
		const limit = '3 of 10 swaps, 5 closes'
		const today = input.pains.filter((report) => report.sessionId === input.sessionId)
		const everywhere = today.find((report) => report.region === 'neck-head' && (report.redFlag || report.score >= 5))
		const relevant = everywhere ? [everywhere] : today.filter((report) => loads(context, report.region) || context.input.state.substitute?.region === report.region)
		const worst = relevant.map((report) => ({ report, weight: weigh(report, context) })).sort((a, b) => b.weight - a.weight || Number(b.report.redFlag) - Number(a.report.redFlag))[0]
		if (!worst) return { fired: false, found: 'none reported', limit }
		const { report, weight } = worst
		const flagged = relevant.find((candidate) => candidate.redFlag)
		const since = addDays(input.day, -14)
		const before = input.pains.find((earlier) => earlier.sessionId !== input.sessionId && earlier.region === report.region && earlier.score >= 3 && earlier.day > since && earlier.day <= input.day)
		const found = `${named(report)} ${report.score} of 10${weight > report.score ? ', third session running' : ''}`
		if (flagged || weight >= 5 || (weight >= 3 && before)) {
			const cause = flagged ?? report
			const why = everywhere
				? `a reported blow or strong pain at the head or neck. Get professional help now`
				: flagged ? `${named(cause)}: sharp pain, giving way, locking or numbness` : weight >= 5 ? `${named(report)} pain ${report.score} of 10` : `${named(report)} pain of 3 or more twice in 14 days`
			return {
				fired: true, found, limit, verdict: 'stop', tier: 'block',
				sentence: `Stop, closed until cleared: ${why}.`,
				next: { closed: { region: cause.region, since: input.day }, substitute: null },
			}
		}
		if (weight >= 3) {
			const alternative = context.drill.alternatives[report.region]
			const spares = alternative ? context.documents.drills[alternative] : undefined
			if (!spares) return { fired: true, found, limit, verdict: 'stop', tier: 'block', sentence: `Stop on this ladder: ${found}, and no drill here spares it.`, next: { closed: { region: report.region, since: input.day }, substitute: null } }
			return {
				fired: true, found, limit, verdict: 'swap', tier: 'caution',
				sentence: `Swap for ${spares.name.toLowerCase()}: ${found}. It reopens one rung lower when the easy form reads 0 or 1.`,
				next: { substitute: { drillId: spares.id, region: report.region, since: input.day } },
			}
		}
		return { fired: false, found: `${found}, noted`, limit }
	},
}

/** S2: a region that is closed stays closed; an alternative that went well reopens one rung lower. */
const restriction: Rule = {
	id: 'S2',
	question: () => 'Closed, or on an alternative',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { state } = context.input
		const limit = 'cleared by a named person'
		if (state.closed) {
			const region = REGION_NAMES[state.closed.region]
			return { fired: true, found: `closed since ${state.closed.since} for the ${region}`, limit, verdict: 'stop', tier: 'block', sentence: `Closed until cleared: ${region}, since ${state.closed.since}.`, next: {} }
		}
		if (!state.substitute) return { fired: false, found: 'open', limit }
		const { region } = state.substitute
		if (!context.latest || context.latest.repsDone === 0) {
			return { fired: true, found: `alternative for the ${REGION_NAMES[region]} not done yet`, limit: 'easy form done, pain 0 or 1', verdict: 'swap', tier: 'caution', sentence: `The alternative stays: it has not been done yet, so nothing says the ${REGION_NAMES[region]} is quiet.`, next: {} }
		}
		const sore = context.input.pains.find((report) => report.sessionId === context.input.sessionId && report.region === region && report.score >= 2)
		if (sore) return { fired: true, found: `${named(sore)} ${sore.score} of 10 on the easy form`, limit: '0 or 1', verdict: 'swap', tier: 'caution', sentence: `The alternative stays: ${named(sore)} still reads ${sore.score} of 10.`, next: {} }
		const lower = context.documents.ladder.rungs[Math.max(0, context.rungIndex - 1)] ?? context.rung
		return {
			fired: true, found: `${REGION_NAMES[region]} quiet on the easy form`, limit: '0 or 1', verdict: 'ease', tier: 'caution',
			sentence: `Back in, one rung lower, ${lower.name.toLowerCase()}: the easy form was quiet.`,
			next: { substitute: null, rungId: lower.id, dose: scaleDose(lower.dose, 0.6), passed: false, easedBy: null },
		}
	},
}

export const SAFETY_RULES: Rule[] = [pain, restriction]
