import { dueAt } from '../care/return-plan'
import { type Concluded, isAnswered } from '../permit/known'
import { type Answer, type Ask, permit } from '../permit/permit'
import { sayReason } from '../permit/say'
import type { ResolvedLine } from '../judge/resolve-line'
import { type AskedWork, linePartsOf, partAt } from '../vocabulary/line-parts'
import { wornOn } from '../vocabulary/worn-reps'
import { repsOf } from '../library/scale-dose'
import { formOf, keyOf } from '../rules/form'
import type { Finding } from '../rules/rule'
import { inSentence } from '../words/write-numbers'
import { PARAMETERS } from '../vocabulary/parameters'
import type { Parameters } from '../vocabulary/dose'
import type { Library } from '../vocabulary/library'
import type { PlannedLine } from '../vocabulary/line'

type OpenLine = Extract<ResolvedLine, { blocked: null }>

const sameParameters = (a: Parameters, b: Parameters) => PARAMETERS.every((name) => a[name] === b[name])

/** Answers to what was asked before, by who is asked about: a sheet asks the same again and again. */
const known = new WeakMap<Concluded, Map<string, Answer>>()
function ask(concluded: Concluded, asked: Extract<Ask, { drillId: string }>): Answer {
	let answers = known.get(concluded)
	if (!answers) known.set(concluded, (answers = new Map()))
	const key = `${asked.drillId}/${keyOf(asked.parameters ?? {})}/${asked.dose?.sets}x${asked.dose?.reps}`
	let answer = answers.get(key)
	if (!answer) answers.set(key, (answer = permit(concluded, asked)))
	return answer
}

/** The same athlete with a caution answered: a rung somebody was put on stands although its gate is shut. */
const putOn = new WeakMap<Concluded, Concluded>()
function withGateAnswered(concluded: Concluded): Concluded {
	const answered = putOn.get(concluded) ?? {
		...concluded,
		acknowledged: [...concluded.acknowledged, { rule: 'S8' as const, reason: 'put on this rung', by: 'the coach' }],
	}
	putOn.set(concluded, answered)
	return answered
}

/**
 * A line as it may be written: itself, less of it, another drill, or none, each with the reason.
 *
 * @param put the line is of the very rung the coach has put the athlete on
 */
export function permitLine(line: ResolvedLine, concluded: Concluded, library: Library, put = false): ResolvedLine {
	if (line.blocked !== null) return line
	let lines = permitted.get(concluded)
	if (!lines) permitted.set(concluded, (lines = new WeakMap()))
	let answer = lines.get(line)
	if (!answer) lines.set(line, (answer = permitAnew(line, concluded, library, put)))
	return answer
}

/** By whom it is about and the line itself. */
const permitted = new WeakMap<Concluded, WeakMap<ResolvedLine, ResolvedLine>>()
function permitAnew(line: OpenLine, concluded: Concluded, library: Library, put: boolean): ResolvedLine {
	const barred = line.pieces && barredPiece(line, concluded, library)
	if (barred) {
		const { pieces, ...alone } = line
		const judged = pieces!.find((piece) => piece.judged)!
		// As many reps as in its rounds, with the rest the drill asks for.
		const dose = { sets: repsOf(line.dose), reps: judged.reps }
		const { rest } = library.drills[line.drillId]?.defaults ?? line
		return permitAnew({ ...alone, dose, rest, note: barred }, concluded, library, put)
	}
	const round = line.pieces ? partAt(line, null).dose.reps : 1
	const dose = line.pieces ? { sets: repsOf(line.dose), reps: round } : line.dose
	const asked = { drillId: line.drillId, parameters: line.parameters, dose }
	let answer: Answer | null = put ? ask(withGateAnswered(concluded), asked) : null
	if (answer === null || answer.answer === 'instead' || answer.answer === 'no') answer = ask(concluded, asked)
	const given = answer.line
	if (answer.answer === 'yes' && given) return line
	const { pieces, sides, carried: _carried, aid, ...plain } = line
	const reason = sayReason(
		answer.findings.filter((one) => one.tier === 'block' || !isAnswered(concluded.acknowledged, one.rule)),
	)
	if (!given) return { blocked: reason, ladderId: line.ladderId }
	const drill = library.drills[given.drillId]!
	const same = given.drillId === line.drillId && sameParameters(given.parameters, line.parameters)
	const ladder = line.ladderId === null ? undefined : library.ladders[line.ladderId]
	const rung = ladder?.rungs.find(
		(one) => one.drillId === given.drillId && sameParameters(one.parameters, given.parameters),
	)
	const step = dueAt(concluded.plan, formOf(drill, given.parameters, library))?.due?.rung
	// What belongs to the drill that was asked for goes with it.
	const carried = wornOn(drill, given.parameters, given.drillId === line.drillId ? line.carried : undefined)
	// Whole rounds of a complex, or its judged piece alone.
	const rounds = same && pieces ? { sets: Math.floor(repsOf(given.dose) / round), reps: 1 } : given.dose
	const inTurn = (same ? pieces : rung?.pieces) ?? null
	const complex =
		inTurn !== null &&
		rounds.sets > 0 &&
		barredPiece(
			{ ...plain, drillId: drill.id, parameters: given.parameters, dose: rounds, pieces: inTurn },
			concluded,
			library,
		) === null
	return {
		...plain,
		...(complex ? { pieces: inTurn } : {}),
		...(same && aid ? { aid } : {}),
		...(same && sides && repsOf(given.dose) === repsOf(line.dose) ? { sides } : {}),
		...(carried ? { carried } : {}),
		note: reason,
		drillId: drill.id,
		drillVersion: drill.version,
		// Low work in the place of a step of the way back is no step.
		rungId: step?.id ?? rung?.id ?? (isStep(line.rungId, library) ? null : line.rungId),
		parameters: given.parameters,
		dose: complex ? rounds : given.dose,
		rest: same ? line.rest : (step?.rest ?? rung?.rest ?? drill.defaults.rest),
	}
}

/** Why a complex is not done as one: the first of its pieces that is not permitted as it stands; null when all are. */
function barredPiece(line: AskedWork, concluded: Concluded, library: Library): string | null {
	for (const { drillId, parameters, dose, judged } of linePartsOf(line)) {
		if (judged) continue
		const drill = library.drills[drillId]
		const answer = drill && ask(concluded, { drillId, parameters, dose })
		if (answer?.answer === 'yes') continue
		const why = answer ? inSentence(sayReason(answer.findings)) : 'the library does not hold it'
		return `without ${drill ? inSentence(drill.name) : 'a piece'}: ${why}`
	}
	return null
}

const isStep = (rungId: string | null, { ladders }: Library): boolean =>
	Object.values(ladders).some((ladder) => ladder.path !== undefined && ladder.rungs.some((rung) => rung.id === rungId))

/** The path whose due step a line is; null when it is none. */
export const stepOf = (line: PlannedLine, { plan }: Concluded, library: Library): string | null =>
	plan.paths.length === 0
		? null
		: (dueAt(plan, formOf(library.drills[line.drillId]!, line.parameters, library))?.ladder.id ?? null)

/** The same athlete once the step of a path is written: each step is written once. */
export const afterStep = (concluded: Concluded, path: string): Concluded => ({
	...concluded,
	plan: {
		...concluded.plan,
		paths: concluded.plan.paths.map((one) => (one.ladder.id === path ? { ...one, waits: true } : one)),
	},
})

/** Whether a weight is worn on a line. */
export const wearsLoad = (line: PlannedLine, library: Library): boolean =>
	linePartsOf(line).some(
		({ drillId, parameters }) => library.drills[drillId]?.carriesLoad === true && (parameters.loadG ?? 0) > 0,
	)

/** The same athlete once a weight is worn in the session: it is once a day. */
const worn = new WeakMap<Concluded, Concluded>()
export function afterLoad(concluded: Concluded): Concluded {
	const { facts } = concluded
	const after = worn.get(concluded) ?? {
		...concluded,
		facts: { ...facts, loadsOn: [...(facts.loadsOn ?? []), facts.day] },
	}
	worn.set(concluded, after)
	return after
}

/** What is answered of a line that stands as it is, of all its drills together: yes, or what was found. */
export function permitWork(concluded: Concluded, line: AskedWork): { yes: boolean; findings: Finding[] } {
	const answers = linePartsOf(line).map(({ drillId, parameters, dose }) =>
		permit(concluded, { drillId, parameters, dose }),
	)
	return {
		yes: answers.every(({ answer }) => answer === 'yes'),
		findings: answers.flatMap(({ findings }) => findings),
	}
}
