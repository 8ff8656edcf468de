import { repsOf, scaleDose } from '../dose/scale-dose'
import type { Dose } from '../library/types'
import { COARSE_ABOVE_PERCENT } from '../noise/drop-off'
import { type Finding, type JudgeContext, type Rule, dropOffOf } from './judge-context'
import { lockOf } from './locks'
import { PASS_SHARE, type ExposureReading } from './read-criterion'
import type { Exposure } from './types'
import { writeDose, writePercent } from './write-numbers'

const said = (reading: ExposureReading): string => {
	const parts: string[] = []
	if (reading.criterion) parts.push(`${reading.criterion.question.toLowerCase()} ${reading.criterion.found}`)
	if (reading.goodShare !== null) parts.push(`${Math.round(reading.goodShare * reading.judged)} of ${reading.judged} judged reps good`)
	parts.push(`${Math.round(reading.doneShare * 100)} % of the reps`)
	return parts.join(' · ')
}

/** The numbers of one exposure in a breath: "mean 3.08 s of 5", "9 of 10 good". */
const evidence = (reading: ExposureReading): string => {
	if (reading.criterion?.probability != null) return /\((.*)\)/.exec(reading.criterion.found)?.[1] ?? reading.criterion.found
	return `${Math.round((reading.goodShare ?? 0) * reading.judged)} of ${reading.judged} judged reps good`
}

const miss: Rule = {
	id: 'P2',
	question: () => 'Poor quality, or the mark clearly missed',
	firmness: 'our setting',
	evaluate(context): Finding {
		const limit = 'poor on more than a third, or chance 0.20 and less'
		const { latestReading, previousReading, rung, documents, rungIndex, input } = context
		if (!latestReading) return { fired: false, found: 'no exposure at this dose', limit }
		if (latestReading.outcome !== 'miss') return { fired: false, found: said(latestReading), limit }
		const why = latestReading.criterion && (latestReading.criterion.probability ?? 1) <= 0.2 ? latestReading.criterion.question.replace('Chance of', 'the chance of') + ` was ${latestReading.criterion.found}` : `${context.latest?.quality.poor} of ${latestReading.judged} judged reps were poor`
		if (previousReading?.outcome !== 'miss') {
			return { fired: true, found: said(latestReading), limit, verdict: 'hold', sentence: `Hold ${rung.name.toLowerCase()}, ${writeDose(input.state.dose)}: ${why}. Twice running would ease it.`, next: { passed: false } }
		}
		const lower = documents.ladder.rungs[rungIndex - 1]
		const next = lower ? { rungId: lower.id, dose: lower.dose, passed: false, easedBy: null } : { dose: scaleDose(input.state.dose, 2 / 3), passed: false }
		return {
			fired: true, found: `${said(latestReading)}, and the time before too`, limit, verdict: 'ease',
			sentence: lower ? `Ease to ${lower.name.toLowerCase()}: ${why}, two exposures running.` : `Ease to ${writeDose(next.dose)}: ${why}, two exposures running.`, next,
		}
	},
}

const fallOf = (exposure: Exposure | null, context: JudgeContext) => {
	const reading = dropOffOf(exposure, context)
	return reading && reading.repsBeforeFall !== null ? { reading, before: Math.max(1, reading.repsBeforeFall) } : null
}

const dropOff: Rule = {
	id: 'P4',
	question: () => 'Drop-off from the best of the session, two reps running',
	firmness: 'common practice',
	evaluate(context): Finding {
		const reading = dropOffOf(context.latest, context)
		if (!reading) return { fired: false, found: 'nothing measured', limit: '—' }
		const limit = writePercent(reading.limitPercent)
		if (reading.tooCoarse) return { fired: false, found: `timing too coarse to judge fatigue (noise over ${COARSE_ABOVE_PERCENT} %)`, limit }
		const worst = writePercent(Math.max(...reading.percents))
		const latest = fallOf(context.latest, context)
		const previous = fallOf(context.previous, context)
		if (!latest) return { fired: false, found: `largest ${worst}`, limit }
		const shown = reading.percents.slice(latest.before, latest.before + 2).map(writePercent).join(' and ')
		if (!previous) return { fired: false, found: `${shown}, once`, limit: `${limit}, two exposures running` }
		const planned = repsOf(context.input.state.dose)
		const floor = repsOf(context.rung.dose) / 2
		const keep = Math.max(Math.min(latest.before, previous.before), Math.ceil(floor))
		if (keep >= planned) return { fired: false, found: `${shown}, already at half the rung's dose`, limit }
		const dose: Dose = scaleDose(context.input.state.dose, keep / planned)
		return {
			fired: true, found: `${shown}, and the time before too`, limit, verdict: 'ease',
			sentence: `Ease from ${planned} to ${repsOf(dose)} reps: reps ${latest.before + 1} and ${latest.before + 2} were ${shown} off the best, two exposures running.`,
			next: { dose, easedBy: 'drop-off', passed: false },
		}
	},
}

const pass: Rule = {
	id: 'P1',
	question: (context) => `Two exposures running pass ${context.rung.name.toLowerCase()}`,
	firmness: 'our setting',
	evaluate(context): Finding {
		const { latestReading, previousReading, input, rung, nextRung } = context
		const limit = `${PASS_SHARE * 100} % of reps, chance 0.80, four in five good`
		if (!latestReading) return { fired: false, found: 'no exposure at this dose', limit }
		const both = latestReading.outcome === 'pass' && previousReading?.outcome === 'pass'
		const waiting = input.state.passed && latestReading.outcome !== 'miss'
		if (!both && !waiting) return { fired: false, found: latestReading.outcome === 'pass' ? `once: ${said(latestReading)}` : said(latestReading), limit }
		if (repsOf(input.state.dose) < repsOf(rung.dose)) {
			return { fired: true, found: `twice: ${said(latestReading)}`, limit, verdict: 'advance', sentence: `Back to the full ${writeDose(rung.dose)} of ${rung.name.toLowerCase()}: ${evidence(latestReading)}, twice running.`, next: { dose: rung.dose, easedBy: null } }
		}
		if (!nextRung) return { fired: true, found: `twice: ${said(latestReading)}`, limit, verdict: 'hold', sentence: `Hold ${rung.name.toLowerCase()}, the top of the ladder: ${evidence(latestReading)}.`, next: { passed: true } }
		const lock = lockOf(nextRung, { level: input.athlete.level, ageYears: input.athlete.ageYears, phase: input.nextPhase, school: context.documents.school })
		if (lock) return { fired: true, found: `twice: ${said(latestReading)}`, limit, verdict: 'hold', sentence: `Passed, waiting: ${nextRung.name} ${lock}. It need not be earned again.`, next: { passed: true } }
		return {
			fired: true, found: waiting && !both ? 'passed before, the gate is open now' : `twice: ${said(latestReading)}`, limit, verdict: 'advance',
			sentence: `Advance to ${nextRung.name.toLowerCase()}, ${writeDose(nextRung.dose)}: ${evidence(latestReading)}, ${waiting && !both ? 'and the gate is open now' : 'twice running'}.`,
			next: { rungId: nextRung.id, dose: nextRung.dose, passed: false, easedBy: null },
		}
	},
}

const unclear: Rule = {
	id: 'P3',
	question: () => 'Enough evidence to move',
	firmness: 'our setting',
	evaluate(context): Finding {
		const { latest, latestReading, input, rung } = context
		const limit = 'two clear passes'
		const hold = `Hold ${rung.name.toLowerCase()}, ${writeDose(input.state.dose)}`
		if (!latest || latest.repsDone === 0) return { fired: true, found: 'nothing logged', limit, verdict: 'hold', sentence: `${hold}. Not enough to say: nothing was logged.` }
		if (!latestReading) return { fired: true, found: `planned ${writeDose(latest.planned)}`, limit, verdict: 'hold', sentence: `${hold}: the session asked for less than this dose, so it is no evidence for it.` }
		if (latestReading.outcome === 'pass') return { fired: true, found: 'one clear pass', limit, verdict: 'hold', sentence: `${hold}: ${evidence(latestReading)}. One more like it.` }
		return { fired: true, found: latestReading.missing ?? 'between pass and miss', limit, verdict: 'hold', sentence: `${hold}. Not enough to say: ${latestReading.missing ?? 'between pass and miss'}.` }
	},
}

/** In order of precedence. The last one always fires, so that there is never an empty verdict. */
export const PERFORMANCE_RULES: Rule[] = [miss, dropOff, pass, unclear]
