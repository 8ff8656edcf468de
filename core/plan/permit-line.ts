import { dueAt } from '../care/return-plan'
import { type Concluded, isAnswered } from '../permit/known'
import { type Answer, type Ask, permit } from '../permit/permit'
import { sayReason } from '../permit/say'
import type { ResolvedLine } from '../judge/resolve-line'
import { type AskedWork, linePartsOf, partAt, piecesOfRung } from '../vocabulary/line-parts'
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
	if (line.pieces) {
		const whole = permitComplex(line, line.pieces, concluded, library, put)
		if ('pieces' in whole) return whole
		return permitAnew(whole, concluded, library, put)
	}
	const answer = answerFor({ drillId: line.drillId, parameters: line.parameters, dose: line.dose }, concluded, put)
	const given = answer.line
	if (answer.answer === 'yes' && given) return line
	const { sides, carried: _carried, aid, ...plain } = line
	const reason = sayWhy(answer, concluded)
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
	const other: OpenLine = {
		...plain,
		...(same && aid ? { aid } : {}),
		...(same && sides && repsOf(given.dose) === repsOf(line.dose) ? { sides } : {}),
		...(carried ? { carried } : {}),
		note: reason,
		drillId: drill.id,
		drillVersion: drill.version,
		// Low work in the place of a step of the way back is no step.
		rungId: step?.id ?? rung?.id ?? (isStep(line.rungId, library) ? null : line.rungId),
		parameters: given.parameters,
		dose: given.dose,
		rest: same ? line.rest : (step?.rest ?? rung?.rest ?? drill.defaults.rest),
	}
	const pieces = same || !rung ? undefined : piecesOfRung(rung)
	return pieces ? permitComplex(other, pieces, concluded, library, put) : other
}

function answerFor(asked: Extract<Ask, { drillId: string }>, concluded: Concluded, put: boolean): Answer {
	const answer = put ? ask(withGateAnswered(concluded), asked) : null
	return answer === null || answer.answer === 'instead' || answer.answer === 'no' ? ask(concluded, asked) : answer
}
const sayWhy = ({ findings }: Answer, { acknowledged }: Concluded): string =>
	sayReason(findings.filter((one) => one.tier === 'block' || !isAnswered(acknowledged, one.rule)))

/**
 * A complex in as many whole rounds as every one of its pieces permits. Where one of them is not permitted at all it is
 * the judged piece alone, for as many reps, with the rest its drill asks for; of that the rulebook is asked anew.
 */
function permitComplex(
	line: OpenLine,
	pieces: NonNullable<OpenLine['pieces']>,
	concluded: Concluded,
	library: Library,
	put: boolean,
): OpenLine {
	const { pieces: _pieces, ...plain } = line
	let rounds = repsOf(line.dose)
	let why: string | null = null
	for (const { drillId, parameters, judged, dose } of linePartsOf({ ...plain, pieces })) {
		const drill = library.drills[drillId]
		const answer = drill
			? answerFor({ drillId, parameters, dose: { sets: rounds, reps: dose.reps } }, concluded, put && judged)
			: null
		if (answer?.answer === 'yes') continue
		const given = answer?.line
		const same = given != null && given.drillId === drillId && sameParameters(given.parameters, parameters)
		const fits = same ? Math.floor(repsOf(given.dose) / dose.reps) : 0
		if (fits >= 1) {
			rounds = fits
			why ??= sayWhy(answer!, concluded)
			continue
		}
		const own = partAt({ ...plain, pieces }, null).dose.reps
		const reason = answer ? inSentence(sayWhy(answer, concluded)) : 'the library does not hold it'
		return {
			...plain,
			dose: { sets: repsOf(line.dose), reps: own },
			rest: library.drills[line.drillId]?.defaults.rest ?? line.rest,
			note: judged ? line.note : `without ${drill ? inSentence(drill.name) : 'a piece'}: ${reason}`,
		}
	}
	return why === null && line.pieces
		? line
		: { ...plain, pieces, dose: { sets: rounds, reps: 1 }, note: why ?? line.note }
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
