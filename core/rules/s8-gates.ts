import { daysBetween } from '../calendar/day-count'
import type { Gate, Ladder, Rung } from '../vocabulary/ladder'
import { type Plant, type School, assistedCap, plantsOf } from '../vocabulary/school'
import type { Level } from '../vocabulary/words'
import { inSentence } from '../words/write-numbers'
import { type Facts, least } from './facts'
import { type Form, type Place, formOf } from './form'
import { depthOpen } from './p6-phase'
import type { Finding, Rule, Tier } from './rule'
import { tooHeavyFor, young } from './s4-level-age-mass'

/** What stands on no ladder asks for this level of its family. */
const LEVEL_OF = { low: 1, moderate: 1, high: 2, shock: 3 } as const
/** A turn of 180° asks for what brings an athlete to a stop, wherever it is asked for. */
const TURN_DEG = 180
const BEFORE_A_TURN = ['stop-10', 'dead-10']

const SCHOOL_WORDS = {
	volume: 'hard finishing work is closed in this school',
	conditioning: 'the school conditions another way',
	contrast: 'closed until the athlete’s own trial says it helps',
	returnPulls: 'the school runs free on the way back',
	plants: 'the school trains other take-offs',
} as const

/** What the schools close for the class of drill, for good; null when nothing. */
function capOf(facts: Facts, form: Form): { found: string; limit: string } | null {
	const height = form.parameters.heightCm ?? 0
	const highest = least(facts, 'highestBoxCm')
	if (form.boxed && height > highest)
		return { found: `${height} cm`, limit: `the school’s highest box is ${highest} cm` }
	const pull = form.parameters.assistPercent ?? 0
	const most = assistedCap(facts.schools)
	if (form.assisted && pull > most)
		return {
			found: `${pull} % over own top speed`,
			limit: most === 0 ? 'the school uses no assisted speed' : `the school’s cap is ${most} %`,
		}
	if (form.shock && facts.schools.some((school) => school.choices.depthJumps === 'never'))
		return { found: 'a rebound from a box', limit: 'the school uses no rebounds from a box' }
	return null
}
/** Whether the schools close a form in this phase. */
export const closedInPhase = (facts: Facts, form: Form): boolean => phaseOf(facts, form) !== null
const phaseOf = (facts: Facts, form: Form): { found: string; limit: string } | null =>
	form.shock && !facts.schools.every((school) => depthOpen(school, facts.phase))
		? { found: `the phase is ${facts.phase}`, limit: 'rebounds from a box open in another phase in this school' }
		: null

/** Whether a school takes the side a rung hangs on. */
const takes = (school: School, { question, side }: Extract<Gate, { kind: 'school' }>): boolean =>
	question === 'plants' ? plantsOf(school).includes(side as Plant) : school.choices[question] === side

/** The schools' question a rung hangs on, where its side is not taken. */
export function schoolGate(facts: Pick<Facts, 'schools' | 'contrastHelps'>, rung: Rung): string | null {
	const [school] = facts.schools
	const shut = rung.gates.find(
		(gate): gate is Extract<Gate, { kind: 'school' }> =>
			gate.kind === 'school' && !takes(school, gate) && !(gate.question === 'contrast' && facts.contrastHelps),
	)
	return shut ? SCHOOL_WORDS[shut.question] : null
}

/** Whether a rung can never be reached by this athlete as things are: then the ladder goes round it, and nobody waits for it. */
export function outOfReach(facts: Facts, rung: Rung): boolean {
	const drill = facts.library.drills[rung.drillId]
	if (!drill) return true
	const form = formOf(drill, rung.parameters, facts.library)
	return (
		capOf(facts, form) !== null ||
		schoolGate(facts, rung) !== null ||
		tooHeavyFor(facts, form) ||
		(young(facts) && (form.shock || form.assisted))
	)
}

interface Unmet {
	found: string
	limit: string
}

/** A rung's own prerequisites that are not met. The rung below is none. */
function unmetGates(facts: Facts, ladder: Ladder, rung: Rung, index: number): Unmet[] {
	const passed = (ladderId: string, rungId: string) => (facts.passed[ladderId] ?? []).includes(rungId)
	return rung.gates.flatMap((gate): Unmet[] => {
		if (gate.kind === 'passed' && !passed(gate.ladderId, gate.rungId)) {
			const needed = facts.library.ladders[gate.ladderId]?.rungs.find((one) => one.id === gate.rungId)
			// Nobody waits for what they can never reach.
			if (!needed || outOfReach(facts, needed)) return []
			return [{ found: `${needed.name} is not passed`, limit: `opens after ${inSentence(needed.name)}` }]
		}
		if (gate.kind === 'days-below' && !passed(ladder.id, rung.id)) {
			// A rung that is gone round is not the one below.
			const below = ladder.rungs.slice(0, index).findLast((one) => !outOfReach(facts, one))
			const came = facts.newRungs
				.filter((one) => one.ladderId === ladder.id && one.rungId === below?.id && one.day <= facts.day)
				.map((one) => one.day)
				.sort()[0]
			const days = came === undefined ? null : daysBetween(came, facts.day)
			if (days === null || days < gate.days)
				return [
					{
						found: days === null ? 'days on the rung below are not known' : `${days} days on the rung below`,
						limit: `opens after ${gate.days} days on the rung below${days === null ? '' : `, ${days} so far`}`,
					},
				]
		}
		return []
	})
}

/** The level a form asks for at its place. */
const levelAt = ({ rung, beyond }: Place, { intensity }: Form): Level =>
	beyond && (intensity === 'high' || intensity === 'shock') ? (Math.min(3, rung.level + 1) as Level) : rung.level

/** What keeps a form shut at its place on one ladder; empty when it is open there. */
function unmetAt(facts: Facts, form: Form, at: Place): Unmet[] {
	const needs = levelAt(at, form)
	const level = facts.levelOf(form.drill.family)
	const { ladder, rung, index } = at
	const school = schoolGate(facts, rung)
	return [
		...(school === null ? [] : [{ found: 'the school', limit: school }]),
		...(level < needs ? [{ found: `level ${level}`, limit: `opens at level ${needs}` }] : []),
		...ladder.rungs
			.slice(0, index + 1)
			.flatMap((one, place) => (place < index && outOfReach(facts, one) ? [] : unmetGates(facts, ladder, one, place))),
	]
}

function turns(facts: Facts, { parameters }: Form): Unmet[] {
	const brake = facts.library.ladders.brake
	if ((parameters.angleDeg ?? 0) < TURN_DEG || !brake) return []
	return brake.rungs
		.filter((rung) => BEFORE_A_TURN.includes(rung.id) && !(facts.passed.brake ?? []).includes(rung.id))
		.map((rung) => ({ found: `${rung.name} is not passed`, limit: `opens after ${inSentence(rung.name)}` }))
}

/** Places at which a form is open, by level and prerequisites. */
export const openPlaces = (facts: Facts, form: Form): Place[] =>
	form.places.filter((at) => unmetAt(facts, form, at).length === 0)

/** S8: caps of the schools, phase of rebounds, level and prerequisites of the rung a form stands on. On several ladders any one opens it. */
export const gates: Rule = {
	id: 'S8',
	question: 'What must come before',
	read(facts, form) {
		const finding = (tier: Tier, { found, limit }: Unmet): Finding => ({
			rule: 'S8',
			tier,
			firmness: 'our setting',
			found,
			limit,
		})
		const shut = capOf(facts, form) ?? phaseOf(facts, form)
		if (shut) return finding('block', shut)
		const tier: Tier = form.shock || form.assisted ? 'block' : 'caution'
		const [before] = turns(facts, form)
		if (before) return finding(tier, before)
		if (form.places.length === 0) {
			const [level, needs] = [facts.levelOf(form.drill.family), LEVEL_OF[form.intensity]]
			return level < needs ? finding(tier, { found: `level ${level}`, limit: `opens at level ${needs}` }) : null
		}
		const unmet = form.places.map((at) => unmetAt(facts, form, at)).sort((a, b) => a.length - b.length)[0]!
		return unmet[0] ? finding(tier, unmet[0]) : null
	},
}
