import { countWork } from '../dose/count-line'
import { RAMP_FAMILY, RAMP_FLOORS, RAMP_NAMES, type RampQuantity, rampValue, readRamp } from '../dose/ramp'
import { repsOf, scaleDose } from '../library/scale-dose'
import { rungOf } from '../library/starter-library'
import type { Drill } from '../vocabulary/drill'
import type { Rung } from '../vocabulary/ladder'
import { effectiveDose } from './effective-dose'
import { type JudgeContext, type Rule, drillOf, dropOffOf, judgeContext } from './judge-context'
import { readSides } from './left-right'
import { BEFORE_MATCH_H } from '../rules/s11-match'
import { oneNewThing } from '../rules/new-things'
import { formOf } from '../rules/form'
import { lockOf } from './locks'
import { PERFORMANCE_RULES } from './performance-rules'
import { SAFETY_RULES } from './safety-rules'
import {
	type Documents,
	type Judgement,
	type LadderState,
	type TraceLine,
	VERDICT_WORDS,
	type VerdictInput,
} from './types'
import { spacingClash, metFromH } from '../rules/spacing'
import { WORK_KIND_NAMES, isHard, kindsOf } from '../dose/work-kinds'
import { inSentence, writeDose, writePercent } from '../words/write-numbers'

/**
 * The verdict on one athlete's ladder after one session, and the state it leads to. Deterministic
 * and total: any well-typed input gives a verdict with its whole trace. Safety rules outrank the
 * others, the lowest of them wins; then the first performance rule that fires. What would be written
 * next is then held against match, spacing, one new thing and the week's ramp.
 *
 * @throws RangeError when the documents are not those the input cites
 */
export function judge(input: VerdictInput, documents: Documents): Judgement {
	const state = withFirstDay(withoutRampCut(input.state, documents), input)
	const context = judgeContext({ ...input, state }, documents)
	const trace: TraceLine[] = []
	const weigh = (rules: Rule[]): Judgement[] =>
		rules.flatMap((rule) => {
			const finding = rule.evaluate(context)
			trace.push({
				rule: rule.id,
				question: rule.question(context),
				found: finding.found,
				limit: finding.limit,
				fired: finding.fired,
				firmness: rule.firmness,
			})
			if (!finding.fired || !finding.verdict) return []
			return [
				{
					verdict: finding.verdict,
					decidedBy: finding.decidedBy ?? rule.id,
					tier: finding.tier ?? 'performance',
					sentence: finding.sentence ?? '',
					firmness: rule.firmness,
					next: { ...context.input.state, ...finding.next },
					instead: finding.instead ?? null,
					cautions: [],
					trace,
				},
			]
		})
	const rank = (judgement: Judgement) => VERDICT_WORDS.indexOf(judgement.verdict)
	const [safety] = weigh(SAFETY_RULES).sort(
		(a, b) => rank(a) - rank(b) || Number(b.tier === 'block') - Number(a.tier === 'block'),
	)
	const [performance] = weigh(PERFORMANCE_RULES)
	// A caution never lifts what performance alone would have set lower: more pain must not read as better.
	const decided =
		safety && performance && safety.tier !== 'block' && rank(performance) < rank(safety)
			? performance
			: (safety ?? performance)
	if (!decided) throw new Error('the last performance rule always fires')
	// The gate of another rule that a passed rung waits for is said where it decides.
	if (!trace.some((line) => line.rule === decided.decidedBy && line.fired))
		trace.push({
			rule: decided.decidedBy,
			question: 'What the next rung waits for',
			found: decided.sentence,
			limit: 'open',
			fired: true,
			firmness: decided.firmness,
		})
	if (decided.verdict === 'stop' || decided.verdict === 'swap' || decided.next.reentry)
		return withSpacing(decided, context)
	const settled = holdBack(withSlowFall(withSides(giveRepBack(decided, context), context), context), context)
	return withSpacing(saidFull(holdToRamp(settled, context), input), context)
}

/** Last time's dose was cut for the week alone; when it is asked for in full again, the change says why. */
function saidFull(judgement: Judgement, input: VerdictInput): Judgement {
	const back =
		input.state.easedBy === 'ramp' &&
		judgement.next.easedBy === null &&
		judgement.next.rungId === input.state.rungId &&
		repsOf(judgement.next.dose) > repsOf(input.state.dose)
	return back
		? { ...judgement, sentence: `${judgement.sentence} The week has room for ${writeDose(judgement.next.dose)} again.` }
		: judgement
}

/** A dose cut for last week's ramp is asked for in full again; the ramp of the coming week decides anew. */
function withoutRampCut(state: LadderState, documents: Documents): LadderState {
	return state.easedBy === 'ramp'
		? { ...state, dose: rungOf(documents.ladder, state.rungId).rung.dose, easedBy: null }
		: state
}

/** SF [our setting]: what fell slowly is said, and holds an advance; the usual drifts along and does not see it. */
function withSlowFall(judgement: Judgement, context: JudgeContext): Judgement {
	const { slowFall } = context.input
	if (!slowFall) return judgement
	const found = `${writePercent(Math.abs(slowFall.percent))} ${slowFall.percent > 0 ? 'worse' : 'better'} than eight sessions before`
	const trace = [
		...judgement.trace,
		{
			rule: 'SF' as const,
			question: 'A slow fall over the last sessions',
			found,
			limit: 'beyond three standard errors and 2 %',
			fired: slowFall.fallen,
			firmness: 'our setting' as const,
		},
	]
	if (!slowFall.fallen) return { ...judgement, trace }
	const sentence = `A slow fall: the last four sessions are ${found}.`
	const cautions = [...judgement.cautions, { rule: 'SF' as const, sentence }]
	if (judgement.verdict !== 'advance' || judgement.next.rungId === context.input.state.rungId)
		return { ...judgement, cautions, trace }
	return {
		...judgement,
		verdict: 'hold',
		decidedBy: 'SF',
		firmness: 'our setting',
		next: {
			...context.input.state,
			passed: true,
			passedSince: context.input.state.passedSince ?? context.input.day,
			done: judgement.next.done ?? [],
		},
		sentence: `Passed, waiting: the last four sessions are ${found}. It need not be earned again.`,
		cautions,
		trace,
	}
}

/** After a cut for drop-off, each exposure without a fall gives one rep back. */
function giveRepBack(judgement: Judgement, context: JudgeContext): Judgement {
	const { state } = context.input
	const fell =
		dropOffOf(context.latest, context.drill, context.documents.school, context.input.errors)?.repsBeforeFall != null
	const trained = (context.latest?.repsDone ?? 0) > 0
	if (
		judgement.verdict !== 'hold' ||
		state.easedBy !== 'drop-off' ||
		fell ||
		!trained ||
		!['P1', 'P3'].includes(judgement.decidedBy)
	)
		return judgement
	const full = repsOf(context.rung.dose)
	const reps = repsOf(state.dose) + 1
	const dose = reps >= full ? context.rung.dose : { sets: 1, reps }
	return {
		...judgement,
		next: { ...judgement.next, dose, easedBy: reps < full ? 'drop-off' : null },
		sentence: `${judgement.sentence} No fall this time: one rep back, ${writeDose(dose)}.`,
	}
}

/** A gap between the sides that is real and large puts a rep of each set on the lagging one, or is only told. */
function withSides(judgement: Judgement, context: JudgeContext): Judgement {
	const onOneLeg = written(judgement.next, context).drill.legs === 'one'
	const reading = readSides(context.input.exposures, context.documents.school, onOneLeg)
	if (!reading) return judgement
	return {
		...judgement,
		next: reading.act === undefined ? judgement.next : { ...judgement.next, favour: reading.act },
		sentence: reading.sentence ? `${judgement.sentence} ${reading.sentence}` : judgement.sentence,
		trace: [...judgement.trace, reading.trace],
	}
}

/** The line the state would write on an ordinary next day. */
function written(state: LadderState, context: JudgeContext): { rung: Rung; drill: Drill } {
	const { rung } = rungOf(context.documents.ladder, state.rungId)
	return { rung, drill: drillOf(context.documents, rung.drillId) }
}

/**
 * An advance that is right by itself but not now: a match near (S11), too soon after work of its kind
 * (S6), another new thing already (P8). It waits, passed, and need not be earned again.
 */
function holdBack(judgement: Judgement, context: JudgeContext): Judgement {
	const { input, documents } = context
	const moves = judgement.verdict === 'advance' && judgement.next.rungId !== input.state.rungId
	const { rung, drill } = written(judgement.next, context)
	const hard = isHard(drill, rung.parameters)
	const trace = [...judgement.trace]
	const look = (
		rule: TraceLine['rule'],
		question: string,
		found: string,
		limit: string,
		fired: boolean,
		firmness: TraceLine['firmness'] = 'our setting',
	) => {
		trace.push({ rule, question, found, limit, fired, firmness })
		return fired
	}
	const wait = (
		decidedBy: Judgement['decidedBy'],
		why: string,
		firmness: Judgement['firmness'],
		tier: Judgement['tier'],
	): Judgement => ({
		...judgement,
		verdict: 'hold',
		decidedBy,
		tier,
		firmness,
		trace,
		next: {
			...input.state,
			passed: true,
			passedSince: input.state.passedSince ?? input.day,
			done: judgement.next.done ?? input.state.done ?? [],
			...(judgement.next.favour === undefined ? {} : { favour: judgement.next.favour }),
		},
		sentence: `Passed, waiting: ${why}. It need not be earned again.`,
	})
	const match = input.next.hoursToMatch
	// A new hard rung before a match is no next rung: its gate waits. Here it is only said what was looked at.
	look(
		'S11',
		'A match near',
		match === null ? 'none' : `${Math.round(match)} h to the next`,
		`no new hard rung within ${BEFORE_MATCH_H} h`,
		false,
		'common practice',
	)
	const advanced = input.advancesBefore
	const room = documents.school.numbers.advancesPerSession
	const { facts } = context.concluded
	const other = moves ? oneNewThing.read(facts, formOf(drill, rung.parameters, facts.library)) : null
	const full = moves && (advanced.length >= room || (advanced.length > 0 && hard && advanced.some((one) => one.hard)))
	if (
		look(
			'P8',
			'One new thing at a time',
			advanced.length > 0 ? `${advanced.length} advanced today` : (other?.found ?? 'nothing else new'),
			`${room} a session, one hard one in 72 h`,
			full || other !== null,
		)
	) {
		return wait(
			'P8',
			full
				? `another ladder moves first, ${room === 1 ? 'one' : `${room}, one of them hard,`} a session`
				: `${inSentence(rung.name)} would be the second new hard thing within 72 h`,
			'our setting',
			'performance',
		)
	}
	return { ...judgement, trace }
}

/** S6: two days of one kind of hard work want hours between them, start to start. */
function withSpacing(judgement: Judgement, context: JudgeContext): Judgement {
	const { input, documents } = context
	const limit = `${documents.school.numbers.spacingH} h, met from ${metFromH(documents.school.numbers.spacingH)}`
	const line = (found: string, fired: boolean): TraceLine => ({
		rule: 'S6',
		question: 'Hours from other hard work of this kind',
		found,
		limit,
		fired,
		firmness: 'published',
	})
	const { rung, drill } = written(judgement.next, context)
	const kinds =
		judgement.verdict === 'stop' || judgement.verdict === 'swap' || judgement.next.substitute || judgement.next.reentry
			? []
			: kindsOf(drill, rung.parameters)
	const clash = spacingClash(kinds, input.next, input.work, documents.school.numbers.spacingH)
	if (!clash)
		return {
			...judgement,
			trace: [...judgement.trace, line(kinds.length === 0 ? 'not hard work' : 'far enough', false)],
		}
	const found = `${Math.round(clash.hours)} h ${clash.comes} ${WORK_KIND_NAMES[clash.kind]}`
	const cautions = [
		...judgement.cautions,
		{
			rule: 'S6' as const,
			sentence: `The next session comes ${found}; ${limit} is asked. Move it, or take this line out.`,
		},
	]
	const trace = [...judgement.trace, line(found, true)]
	if (judgement.verdict !== 'advance' || judgement.next.rungId === input.state.rungId)
		return { ...judgement, cautions, trace }
	return {
		...judgement,
		verdict: 'hold',
		decidedBy: 'S6',
		tier: 'caution',
		firmness: 'published',
		cautions,
		trace,
		next: {
			...input.state,
			passed: true,
			passedSince: input.state.passedSince ?? input.day,
			done: judgement.next.done ?? [],
		},
		sentence: `Passed, waiting: the next session comes ${found}, ${documents.school.numbers.spacingH} h are asked. It need not be earned again.`,
	}
}

/** S7 [our setting]: what would be written must fit into the week; an advance that does not fit waits. */
function holdToRamp(judgement: Judgement, context: JudgeContext): Judgement {
	const tightest = tightestRoom(judgement.next, context)
	const line = (found: string, limit: string, fired: boolean): TraceLine => ({
		rule: 'S7',
		question: 'Week against the last four trained weeks',
		found,
		limit,
		fired,
		firmness: 'our setting',
	})
	if (!tightest)
		return { ...judgement, trace: [...judgement.trace, line('nothing here that the ramp watches', '—', false)] }
	const { quantity, planned, reading } = tightest
	const limit = `${Math.floor(reading.limit + 1e-9)} in the week`
	const found = `${Math.round(reading.done)} done and ${Math.round(planned)} planned, ${RAMP_NAMES[quantity]}`
	if (planned <= reading.room + 1e-9) return { ...judgement, trace: [...judgement.trace, line(found, limit, false)] }
	const trace = [...judgement.trace, line(found, limit, true)]
	if (judgement.verdict === 'advance' && judgement.next.rungId !== context.input.state.rungId) {
		const { state } = context.input
		const waiting: LadderState = {
			...state,
			passed: true,
			passedSince: state.passedSince ?? context.input.day,
			done: judgement.next.done ?? state.done ?? [],
		}
		const held: Judgement = {
			...judgement,
			verdict: 'hold',
			decidedBy: 'S7',
			tier: 'caution',
			firmness: 'our setting',
			next: waiting,
			trace,
			sentence: `Passed, waiting: the next step would bring the week to ${Math.round(reading.done + planned)} ${RAMP_NAMES[quantity]}, the limit is ${Math.floor(reading.limit + 1e-9)}.`,
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
	dose: LadderState['dose']
	reading: ReturnType<typeof readRamp>
}

function eased(judgement: Judgement, { quantity, planned, reading, dose: before }: Room): Judgement {
	const dose = scaleDose(before, Math.max(Math.min(1, reading.room / planned), 0.01))
	const byRamp = { ...judgement, decidedBy: 'S7' as const, tier: 'caution' as const, firmness: 'our setting' as const }
	if (repsOf(dose) === repsOf(before)) {
		const sentence = `The week has ${Math.round(reading.done)} of ${Math.floor(reading.limit + 1e-9)} ${RAMP_NAMES[quantity]}: leave it out if you can.`
		return {
			...byRamp,
			sentence: `${judgement.sentence} ${sentence}`,
			cautions: [...judgement.cautions, { rule: 'S7', sentence }],
		}
	}
	return {
		...byRamp,
		verdict: 'ease',
		next: { ...judgement.next, dose, easedBy: judgement.next.easedBy ?? 'ramp' },
		sentence: `Ease from ${writeDose(before)} to ${writeDose(dose)}: the week has ${Math.round(reading.done)} of ${Math.floor(reading.limit + 1e-9)} ${RAMP_NAMES[quantity]}.`,
	}
}

function tightestRoom(state: LadderState, context: JudgeContext): Room | null {
	const { rung, drill } = written(state, context)
	// What is locked on that day is not written, so it fills no week.
	if (lockOf(context.concluded.facts, rung)?.tier === 'block') return null
	const dose = effectiveDose(state, rung, drill, context.documents.school, {
		entry: 1,
		phase: context.input.next.phase,
		kept: context.input.focus === 'kept',
	})
	const count = countWork({ ...rung, drillId: drill.id, dose }, (id) =>
		id === drill.id ? drill : context.concluded.facts.library.drills[id],
	)
	const rooms = (Object.keys(RAMP_NAMES) as RampQuantity[])
		.map((quantity) => ({ quantity, planned: rampValue(count, quantity) }))
		.filter(({ planned }) => planned > 0)
		.map(({ quantity, planned }) => ({
			quantity,
			planned,
			dose,
			reading: readRamp(
				context.input.ramp[quantity],
				context.input.next.day,
				RAMP_FLOORS[context.concluded.facts.levelOf(RAMP_FAMILY[quantity])][quantity],
				context.documents.school.numbers.rampPercent,
			),
		}))
	return rooms.sort((a, b) => a.reading.room / a.planned - b.reading.room / b.planned)[0] ?? null
}

/** Since when somebody is on a rung nobody put them on: the first exposure of it that is known. */
function withFirstDay(state: LadderState, { exposures }: VerdictInput): LadderState {
	const first = exposures.find((one) => one.onRung && one.rungId === state.rungId && one.repsDone > 0)
	return state.rungSince || !first ? state : { ...state, rungSince: first.day }
}
