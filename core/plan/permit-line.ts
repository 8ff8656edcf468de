import { dueAt } from '../care/return-plan'
import { type Concluded, isAnswered } from '../permit/known'
import { type Answer, type Ask, permit } from '../permit/permit'
import { sayReason } from '../permit/say'
import type { ResolvedLine } from '../judge/resolve-line'
import { formOf, keyOf } from '../rules/form'
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
	const asked = { drillId: line.drillId, parameters: line.parameters, dose: line.dose }
	let answer: Answer | null = put ? ask(withGateAnswered(concluded), asked) : null
	if (answer === null || answer.answer === 'instead' || answer.answer === 'no') answer = ask(concluded, asked)
	const given = answer.line
	if (answer.answer === 'yes' && given) return line
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
	return {
		...line,
		note: reason,
		drillId: drill.id,
		drillVersion: drill.version,
		// Low work in the place of a step of the way back is no step.
		rungId: step?.id ?? rung?.id ?? (isStep(line.rungId, library) ? null : line.rungId),
		parameters: given.parameters,
		dose: given.dose,
		rest: same ? line.rest : (step?.rest ?? rung?.rest ?? drill.defaults.rest),
	}
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
