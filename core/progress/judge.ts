import { countLine } from '../dose/count-line'
import { RAMP_FLOORS, RAMP_NAMES, type RampQuantity, rampValue, readRamp } from '../dose/ramp'
import { repsOf, scaleDose } from '../dose/scale-dose'
import { rungOf } from '../library/starter-library'
import { type JudgeContext, type Rule, dropOffOf, judgeContext } from './judge-context'
import { PERFORMANCE_RULES } from './performance-rules'
import { SAFETY_RULES } from './safety-rules'
import { type Documents, type Judgement, type LadderState, type TraceLine, VERDICT_WORDS, type VerdictInput } from './types'
import { writeDose } from './write-numbers'

/**
 * The verdict on one athlete's ladder after one session, and the state it leads to. Deterministic
 * and total: any well-typed input gives a verdict with its whole trace. Safety rules outrank the
 * others, the lowest of them wins; then the first performance rule that fires; the ramp is then held against what would be written.
 *
 * @throws RangeError when the documents are not those the input cites
 */
export function judge(input: VerdictInput, documents: Documents): Judgement {
	const context = judgeContext({ ...input, state: withoutRampCut(input.state, documents) }, documents)
	const trace: TraceLine[] = []
	const weigh = (rules: Rule[]): Judgement[] =>
		rules.flatMap((rule) => {
			const finding = rule.evaluate(context)
			trace.push({ rule: rule.id, question: rule.question(context), found: finding.found, limit: finding.limit, fired: finding.fired, firmness: rule.firmness })
			if (!finding.fired || !finding.verdict) return []
			return [{
				verdict: finding.verdict,
				decidedBy: rule.id,
				tier: finding.tier ?? 'performance',
				sentence: finding.sentence ?? '',
				firmness: rule.firmness,
				next: { ...context.input.state, ...finding.next },
				trace,
			}]
		})
	const rank = (judgement: Judgement) => VERDICT_WORDS.indexOf(judgement.verdict)
	const [safety] = weigh(SAFETY_RULES).sort((a, b) => rank(a) - rank(b))
	const [performance] = weigh(PERFORMANCE_RULES)
	const decided = safety ?? performance
	if (!decided) throw new Error('the last performance rule always fires')
	if (decided.verdict === 'stop' || decided.verdict === 'swap') return decided
	return holdToRamp(giveRepBack(decided, context), context)
}

/** A dose cut for last week's ramp is asked for in full again; the ramp of the coming week decides anew. */
function withoutRampCut(state: LadderState, documents: Documents): LadderState {
	return state.easedBy === 'ramp' ? { ...state, dose: rungOf(documents.ladder, state.rungId).rung.dose, easedBy: null } : state
}

/** After a cut for drop-off, each exposure without a fall gives one rep back. */
function giveRepBack(judgement: Judgement, context: JudgeContext): Judgement {
	const { state } = context.input
	const fell = dropOffOf(context.latest, context)?.repsBeforeFall != null
	const trained = (context.latest?.repsDone ?? 0) > 0
	if (judgement.verdict !== 'hold' || state.easedBy !== 'drop-off' || fell || !trained || judgement.decidedBy === 'P2') return judgement
	const full = repsOf(context.rung.dose)
	const reps = repsOf(state.dose) + 1
	const dose = reps >= full ? context.rung.dose : { sets: 1, reps }
	return {
		...judgement,
		next: { ...judgement.next, dose, easedBy: reps < full ? 'drop-off' : null },
		sentence: `${judgement.sentence} No fall this time: one rep back, ${writeDose(dose)}.`,
	}
}

/** S7 [our setting]: what would be written must fit into the week; an advance that does not fit waits. */
function holdToRamp(judgement: Judgement, context: JudgeContext): Judgement {
	const tightest = tightestRoom(judgement.next, context)
	const line = (found: string, limit: string, fired: boolean): TraceLine => ({
		rule: 'S7', question: 'Week against the last four trained weeks', found, limit, fired, firmness: 'our setting',
	})
	if (!tightest) return { ...judgement, trace: [...judgement.trace, line('nothing here that the ramp watches', '—', false)] }
	const { quantity, planned, reading } = tightest
	const limit = `${Math.floor(reading.limit)} in the week`
	const found = `${Math.round(reading.done)} done and ${planned} planned, ${RAMP_NAMES[quantity]}`
	if (planned <= reading.room + 1e-9) return { ...judgement, trace: [...judgement.trace, line(found, limit, false)] }
	const trace = [...judgement.trace, line(found, limit, true)]
	if (judgement.verdict === 'advance') {
		const waiting: LadderState = { ...context.input.state, passed: true }
		const held: Judgement = {
			...judgement, verdict: 'hold', decidedBy: 'S7', tier: 'caution', firmness: 'our setting', next: waiting, trace,
			sentence: `Passed, waiting: the next step would bring the week to ${Math.round(reading.done + planned)} ${RAMP_NAMES[quantity]}, the limit is ${Math.floor(reading.limit)}.`,
		}
		const stillOver = tightestRoom(waiting, context)
		if (!stillOver || stillOver.planned <= stillOver.reading.room + 1e-9) return held
		return eased(held, stillOver)
	}
	return eased({ ...judgement, trace }, tightest)
}

interface Room {
	quantity: RampQuantity
	planned: number
	reading: ReturnType<typeof readRamp>
}

function eased(judgement: Judgement, { quantity, planned, reading }: Room): Judgement {
	const before = judgement.next.dose
	const dose = scaleDose(before, Math.max(reading.room / planned, 0.01))
	const byRamp = { ...judgement, decidedBy: 'S7' as const, tier: 'caution' as const, firmness: 'our setting' as const }
	if (repsOf(dose) === repsOf(before)) {
		return { ...byRamp, sentence: `${judgement.sentence} The week already has ${Math.round(reading.done)} of ${Math.floor(reading.limit)} ${RAMP_NAMES[quantity]}: leave it out if you can.` }
	}
	return {
		...byRamp, verdict: 'ease',
		next: { ...judgement.next, dose, easedBy: judgement.next.easedBy ?? 'ramp' },
		sentence: `Ease from ${writeDose(before)} to ${writeDose(dose)}: the week has ${Math.round(reading.done)} of ${Math.floor(reading.limit)} ${RAMP_NAMES[quantity]}.`,
	}
}

function tightestRoom(state: LadderState, context: JudgeContext): Room | null {
	const { rung } = rungOf(context.documents.ladder, state.rungId)
	const drill = context.documents.drills[rung.drillId]
	if (!drill) return null
	const count = countLine(drill, rung.parameters, state.dose)
	const rooms = (Object.keys(RAMP_NAMES) as RampQuantity[])
		.map((quantity) => ({
			quantity,
			planned: rampValue(count, quantity),
			reading: readRamp(context.input.ramp[quantity], context.input.nextDay, RAMP_FLOORS[context.input.athlete.level][quantity], context.documents.school.rampPercent),
		}))
		.filter((room) => room.planned > 0)
	return rooms.sort((a, b) => a.reading.room / a.planned - b.reading.room / b.planned)[0] ?? null
}
