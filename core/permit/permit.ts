import { EVERYTHING } from '../vocabulary/words'
import { shortDay } from '../calendar/say-day'
import {
	type OpenPath,
	type ReturnPlan,
	EXIT_RUNGS,
	covers,
	dueAt,
	exitShare,
	isLowWork,
	pathsOf,
} from '../care/return-plan'
import { countLine } from '../dose/count-line'
import { totalOf } from '../dose/dose-count'
import { SESSION_RANGES } from '../dose/level-ranges'
import { repsOf, scaleDose } from '../library/scale-dose'
import type { Facts } from '../rules/facts'
import { type Form, formOf, ownRungs } from '../rules/form'
import { oneNewThing } from '../rules/new-things'
import { phaseShareOf, unloading } from '../rules/p6-phase'
import { awayShare, awayStage, readAway } from '../rules/p9-time-away'
import type { Finding, Rule } from '../rules/rule'
import { bars } from '../rules/bars'
import { carriedOften } from '../rules/p11-carried'
import { barredRegions, pain } from '../rules/s1-pain'
import { place } from '../rules/s10-place'
import { match } from '../rules/s11-match'
import { restriction } from '../rules/s2-restriction'
import { unwell } from '../rules/s3-unwell'
import { levelAgeMass } from '../rules/s4-level-age-mass'
import { spacing } from '../rules/s6-spacing'
import { readWeek } from '../rules/s7-ramp'
import { gates, openPlaces, outOfReach } from '../rules/s8-gates'
import { worry } from '../rules/s9-worry'
import type { Dose, Parameters } from '../vocabulary/dose'
import type { Ladder } from '../vocabulary/ladder'
import { WrongValue } from '../vocabulary/wrong-value'
import { type Concluded, isAnswered } from './known'

/** What somebody wants an athlete to do. */
export type Ask =
	| { drillId: string; parameters?: Parameters | undefined; dose?: Dose | undefined }
	| { ladderId: string; rungId?: string | undefined; dose?: Dose | undefined }

export const PURPOSES = ['session', 'test', 'trial', 'ready'] as const
export type Purpose = (typeof PURPOSES)[number]

/** Yes; less: a smaller dose or a lower variation; instead: another drill; no line at all. */
export const ANSWERS = ['yes', 'less', 'instead', 'no'] as const
export type AnswerWord = (typeof ANSWERS)[number]

export interface PermittedLine {
	drillId: string
	parameters: Parameters
	dose: Dose
}
export interface Answer {
	answer: AnswerWord
	line: PermittedLine | null
	/** What fired for what was asked; a caution that was answered is among them. */
	findings: Finding[]
}

/** Never more rebounds from a box in a set [common practice]. */
export const SHOCK_REPS_A_SET = 5

/** What is asked of every form, in the order it is said. */
const RULES: readonly Rule[] = [
	pain,
	restriction,
	unwell,
	levelAgeMass,
	gates,
	unloading,
	place,
	match,
	worry,
	spacing,
	oneNewThing,
	carriedOften,
]
/** A step of the way back needs the clearance and the step before it, no ladder's gates; it is its own answer to time away. */
const OF_A_STEP: readonly Rule[] = [pain, restriction, unwell, levelAgeMass, place, match, worry, spacing]

interface Tried {
	findings: Finding[]
	/** Null when the form is not permitted at any dose. */
	dose: Dose | null
	/** Less than was asked, or than the rung has. */
	cut: boolean
}

const wayBack = (found: string, limit: string): Finding => ({
	rule: 'RE',
	tier: 'block',
	firmness: 'our setting',
	found,
	limit,
})

/** Whether the step that is due is the easy form of a region to be spared: on the way back it may load it. */
const stepsOn = (path: OpenPath, { facts }: Concluded, form: Form): boolean =>
	form.intensity !== 'high' &&
	form.intensity !== 'shock' &&
	facts.closures
		.filter((one) => one.grade !== 'noted' && bars(one, form))
		.every(
			(one) =>
				one.grade === 'spare' &&
				one.region !== EVERYTHING &&
				pathsOf(one.region).some((leads) => leads.path === path.ladder.id),
		)

/** What fires for a form whatever its dose. */
function findingsOf(known: Concluded, form: Form, withTimeAway = true): Finding[] {
	const { facts, plan } = known
	const step = dueAt(plan, form)
	const rules = step ? OF_A_STEP : RULES
	const findings = rules.flatMap((rule): Finding[] => {
		if (rule === pain && step && stepsOn(step, known, form)) return []
		const found = rule.read(facts, form)
		return found ? [found] : []
	})
	if (step) return findings
	if (covers(plan, form)) {
		if (!isLowWork(plan, form)) findings.push(onTheWay(plan))
		return findings
	}
	const out = beyondExit(known, form)
	if (out) findings.push(out)
	if (withTimeAway) {
		const unknown = form.places.length > 0 && awayStage(facts, form.drill.family) === 'unknown'
		const away = readAway(facts, form, unknown ? lowestOf(known, form) : null)
		if (away) findings.push(away)
	}
	return findings
}

function onTheWay({ paths }: ReturnPlan): Finding {
	const open = paths.filter((path) => path.due !== null)
	return wayBack(
		`on the way back: ${open.map(({ ladder, due }) => `${ladder.name.toLowerCase()}, ${due!.rung.name.toLowerCase()}`).join('; ')}`,
		'the step that is due, and low work',
	)
}

/** The paths that were walked to their end and cover a family. */
const walkedOf = ({ plan }: Concluded, form: Form): OpenPath[] =>
	plan.paths.filter((path) => path.due === null && path.families.includes(form.drill.family))

/** After the way back the other ladders go on two rungs below the highest passed, until the dose is whole again. */
function beyondExit(known: Concluded, form: Form): Finding | null {
	const { facts } = known
	const share = exitShareOf(known, form)
	if (share === null || form.places.length === 0) return null
	const fits = form.places.some(({ ladder, index, beyond }) => {
		const passed = facts.passed[ladder.id] ?? []
		const highest = ladder.rungs.reduce((top, rung, at) => (passed.includes(rung.id) ? at : top), -1)
		let most = highest - EXIT_RUNGS
		while (most > 0 && outOfReach(facts, ladder.rungs[most]!)) most--
		return !beyond && index <= Math.max(0, most)
	})
	return fits ? null : wayBack('just back from the way back', `${EXIT_RUNGS} rungs below the highest passed`)
}
function exitShareOf(known: Concluded, form: Form): number | null {
	const shares = walkedOf(known, form).flatMap(({ lastDone }) => {
		const share = lastDone === null ? null : exitShare(lastDone, known.facts.day)
		return share === null ? [] : [share]
	})
	return shares.length === 0 ? null : Math.min(...shares)
}

/** The lowest form of a drill on its ladders that nothing but time away speaks against. */
function lowestOf(known: Concluded, form: Form): Form | null {
	const { drill } = form
	for (const { ladder } of form.places)
		for (const rung of ownRungs(drill.id, ladder)) {
			const lower = formOf(drill, rung.parameters, known.facts.library)
			if (isOpen(known, findingsOf(known, lower, false))) return lower
		}
	return null
}

const isOpen = ({ acknowledged }: Concluded, findings: readonly Finding[]): boolean =>
	findings.every((one) => one.tier === 'caution' && isAnswered(acknowledged, one.rule))

/** The dose a form has of its own: its step's, its rung's, else the drill's for the level. */
function ownDose({ facts, plan }: Concluded, form: Form): Dose {
	const step = dueAt(plan, form)
	if (step?.due) return step.due.rung.dose
	const at = openPlaces(facts, form)[0] ?? form.places[0]
	return at ? at.rung.dose : form.drill.doses[facts.levelOf(form.drill.family)]
}

/** The most of a form that is permitted, with what cut it. */
function mostOf(known: Concluded, form: Form, asked: Dose | null): { dose: Dose | null; cuts: Finding[] } {
	const { facts, plan, acknowledged } = known
	const own = ownDose(known, form)
	const cuts: Finding[] = []
	let dose = asked ?? own
	const cutTo = (most: Dose, finding: Finding) => {
		if (repsOf(dose) <= repsOf(most)) return
		cuts.push(finding)
		dose = most
	}
	const caution = (rule: Finding['rule'], found: string, limit: string): Finding => ({
		rule,
		tier: 'caution',
		firmness: 'our setting',
		found,
		limit,
	})
	if (dueAt(plan, form)) cutTo(own, wayBack('more than the step', 'the step’s own dose'))
	else {
		const shares: { share: number; finding: Finding }[] = []
		const phase = phaseShareOf(facts, form.drill)
		if (phase < 1 && !isAnswered(acknowledged, 'P6'))
			shares.push({
				share: phase,
				finding: caution('P6', `the phase is ${facts.phase}`, `${Math.round(100 * phase)} % of the dose`),
			})
		const away = covers(plan, form) ? 1 : awayShare(awayStage(facts, form.drill.family))
		if (away < 1 && !isAnswered(acknowledged, 'P9'))
			shares.push({
				share: away,
				finding: caution(
					'P9',
					`last ${form.drill.family} work on ${shortDay(facts.lastWork[form.drill.family]!)}`,
					`${Math.round(100 * away)} % of the dose`,
				),
			})
		const exit = exitShareOf(known, form)
		if (exit !== null)
			shares.push({
				share: exit,
				finding: wayBack('just back from the way back', `${Math.round(100 * exit)} % of the dose`),
			})
		shares.sort((a, b) => a.share - b.share)
		const [smallest] = shares
		if (smallest) cutTo(scaleDose(own, smallest.share), smallest.finding)
	}
	if (form.shock) {
		const finding = (found: string, limit: string): Finding => ({
			rule: 'S4',
			tier: 'block',
			firmness: 'common practice',
			found,
			limit,
		})
		if (dose.reps > SHOCK_REPS_A_SET) {
			cuts.push(finding(`${dose.reps} rebounds a set`, `${SHOCK_REPS_A_SET}`))
			dose = { sets: dose.sets, reps: SHOCK_REPS_A_SET }
		}
		const level = facts.levelOf('plyometric')
		const { high } = SESSION_RANGES[level].shockContacts
		const contacts = (one: Dose) => totalOf(countLine(form.drill, form.parameters, one).contacts.shock)
		let most = dose
		while (contacts(most) > high && most.sets > 1) most = { sets: most.sets - 1, reps: most.reps }
		cutTo(most, finding(`${contacts(dose)} shock contacts`, `${high} a session at level ${level}`))
	}
	const week = readWeek(facts, form, dose)
	if (week) {
		cuts.push(week.finding)
		if (!isAnswered(acknowledged, 'S7')) return { dose: week.fits, cuts }
	}
	return { dose, cuts }
}

/** Whether a form is permitted, and how much of it. */
function tryForm(known: Concluded, form: Form, asked: Dose | null): Tried {
	const findings = findingsOf(known, form)
	if (!isOpen(known, findings)) {
		const week = readWeek(known.facts, form, asked ?? ownDose(known, form))
		return { findings: week ? [...findings, week.finding] : findings, dose: null, cut: false }
	}
	const { dose, cuts } = mostOf(known, form, asked)
	const before = asked ?? ownDose(known, form)
	return {
		findings: [...findings, ...cuts],
		dose,
		cut: dose === null || repsOf(dose) < repsOf(before),
	}
}

interface Candidate {
	form: Form
	sameDrill: boolean
}

/** What may stand for a form that is not permitted, the nearest first. */
function* candidates(
	known: Concluded,
	form: Form,
	ladder: Ladder | null,
	findings: readonly Finding[],
): Generator<Candidate> {
	const { facts, plan } = known
	const { library } = facts
	const seen = new Set<string>()
	const candidate = function* (drillId: string, parameters?: Parameters): Generator<Candidate> {
		const drill = library.drills[drillId]
		const key = `${drillId}${JSON.stringify(parameters ?? {})}`
		if (!drill || seen.has(key)) return
		seen.add(key)
		yield { form: formOf(drill, parameters ?? {}, library), sameDrill: drillId === form.drill.id }
	}
	const alternatives = function* (): Generator<Candidate> {
		const named = form.drill.alternatives
		const open = facts.worries.find((one) => one.drillId === form.drill.id)
		const regions = [...(open?.region ? [open.region] : []), ...barredRegions(facts)]
		for (const id of [...regions.map((region) => named[region]), ...Object.values(named)]) {
			if (id === undefined) continue
			yield* candidate(id)
			// An alternative whose own form is too much may have a lower one.
			const drill = library.drills[id]
			if (drill)
				for (const at of formOf(drill, {}, library).places)
					for (const rung of ownRungs(id, at.ladder).reverse()) yield* candidate(id, rung.parameters)
		}
	}
	if (findings.some((one) => one.rule === 'RE'))
		for (const { due, waits, families } of plan.paths)
			if (due && !waits && families.includes(form.drill.family)) yield* candidate(due.rung.drillId, due.rung.parameters)
	if (findings.some((one) => one.rule === 'S9')) yield* alternatives()
	const places = ladder ? form.places.filter((at) => at.ladder === ladder) : form.places
	if (!ladder)
		for (const { ladder: own, index } of places)
			for (const rung of own.rungs.slice(0, index + 1).reverse())
				if (rung.drillId === form.drill.id) yield* candidate(rung.drillId, rung.parameters)
	for (const { ladder: own, index } of places)
		for (const rung of own.rungs.slice(0, index + 1).reverse()) yield* candidate(rung.drillId, rung.parameters)
	yield* alternatives()
}

/** The rung of a ladder an athlete goes on at: the lowest not passed that can be reached, else the highest passed. */
export function rungAt({ library, passed, ...facts }: Facts, ladderId: string): string {
	const ladder = library.ladders[ladderId]
	if (!ladder) throw new WrongValue('ladderId', `${JSON.stringify(ladderId)} is not in the library`)
	const own = passed[ladderId] ?? []
	const all = { library, passed, ...facts }
	const next = ladder.rungs.find((rung) => !own.includes(rung.id) && !outOfReach(all, rung))
	return (next ?? ladder.rungs.findLast((rung) => own.includes(rung.id)) ?? ladder.rungs[0]!).id
}

/**
 * May this athlete do this, then? What is answered is what may be written without anybody's word: a
 * caution nobody has answered counts like a block. What is given may be asked again and is *yes*.
 *
 * @throws WrongValue for a drill, ladder or rung the library does not hold
 */
export function permit(known: Concluded, ask: Ask, purpose: Purpose = 'session'): Answer {
	const { facts } = known
	const { library } = facts
	let ladder: Ladder | null = null
	let form: Form
	if ('ladderId' in ask) {
		ladder = library.ladders[ask.ladderId] ?? null
		if (!ladder) throw new WrongValue('ask.ladderId', `${JSON.stringify(ask.ladderId)} is not in the library`)
		const rungId = ask.rungId ?? rungAt(facts, ask.ladderId)
		const rung = ladder.rungs.find((one) => one.id === rungId)
		if (!rung) throw new WrongValue('ask.rungId', `${JSON.stringify(rungId)} is no rung of ${ladder.name}`)
		form = formOf(library.drills[rung.drillId]!, rung.parameters, library)
	} else {
		const drill = library.drills[ask.drillId]
		if (!drill) throw new WrongValue('ask.drillId', `${JSON.stringify(ask.drillId)} is not in the library`)
		form = formOf(drill, ask.parameters ?? {}, library)
	}
	const asked = ask.dose ?? null
	const first = tryForm(known, form, asked)
	const lineOf = ({ drill, parameters }: Form, dose: Dose): PermittedLine => ({ drillId: drill.id, parameters, dose })
	const { findings } = first
	if (first.dose && !first.cut) return { answer: 'yes', line: lineOf(form, first.dose), findings }
	if (purpose !== 'session') return { answer: 'no', line: null, findings }
	if (first.dose) return { answer: 'less', line: lineOf(form, first.dose), findings }
	if (facts.closures.some((one) => one.region === EVERYTHING)) return { answer: 'no', line: null, findings }
	for (const { form: other, sameDrill } of candidates(known, form, ladder, findings)) {
		const own = sameDrill && asked ? asked : null
		const tried = tryForm(known, other, own)
		if (tried.dose) return { answer: sameDrill ? 'less' : 'instead', line: lineOf(other, tried.dose), findings }
	}
	return { answer: 'no', line: null, findings }
}
