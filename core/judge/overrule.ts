import { schoolGate } from '../rules/s8-gates'
import { scaleDose } from '../library/scale-dose'
import type { Facts } from '../rules/facts'
import { judgeContext } from './judge-context'
import { lockOf, nextRung, passedRungs } from './locks'
import { placeAt } from './safety-rules'
import type { Documents, Judgement, LadderState, VerdictInput, VerdictWord } from './types'

/** What a coach may choose instead of the proposal. */
export const OVERRULE_WORDS = ['hold', 'ease', 'advance'] as const satisfies readonly VerdictWord[]
export type OverruleWord = (typeof OVERRULE_WORDS)[number]

export type Overruled = { next: LadderState } | { refused: string }

/**
 * The state a coach's own verdict leads to. A block is not got round, whoever asks; a caution is
 * answered by the reason that is kept with the name and the time.
 */
export function overrule(
	word: OverruleWord,
	judgement: Judgement,
	input: VerdictInput,
	documents: Documents,
): Overruled {
	if (judgement.tier === 'block')
		return { refused: 'A block opens only when somebody records who cleared it, or what it waits for has passed.' }
	const { state } = input
	if (state.reentry) return onTheWay(word, state, documents)
	const open: LadderState = { ...state, substitute: null }
	if (word === 'hold') return { next: open }
	if (word === 'ease') return { next: { ...open, dose: scaleDose(state.dose, 2 / 3), passed: false } }
	const done = [...new Set([...passedRungs(state, documents.ladder), state.rungId])]
	const { facts } = judgeContext(input, documents).concluded
	const above = nextRung({ ...facts, passed: { ...facts.passed, [documents.ladder.id]: done } }, documents.ladder, {
		...open,
		done,
	})
	if (!above) return { refused: 'This is the top of the ladder.' }
	if (above.lock?.tier === 'block') return { refused: refusal(above.rung.name, above.lock.words) }
	return {
		next: {
			...open,
			rungId: above.rung.id,
			dose: above.rung.dose,
			passed: false,
			easedBy: null,
			done,
			rungSince: input.next.day,
			passedSince: null,
		},
	}
}

/** On the way back a coach repeats a step or goes one back; further than the step leads nobody. */
function onTheWay(word: OverruleWord, state: LadderState, { paths, school }: Documents): Overruled {
	if (word === 'hold') return { next: state }
	if (word === 'advance')
		return { refused: 'On the way back a step follows when the one before was done without discomfort.' }
	const { pathId, rungId } = state.reentry!
	const rungs = paths[pathId]?.rungs ?? []
	const before = rungs
		.slice(
			0,
			Math.max(
				0,
				rungs.findIndex((rung) => rung.id === rungId),
			),
		)
		.findLast((rung) => schoolGate({ schools: [school], contrastHelps: false }, rung) === null)
	return before
		? { next: { ...state, reentry: { pathId, rungId: before.id, since: state.reentry!.since } } }
		: { refused: 'This is the first step of the way back.' }
}

const refusal = (name: string, words: string): string => `${name}${words.startsWith('opens') ? ' ' : ': '}${words}.`

/** A rung somebody is put on. */
export interface Placing {
	athleteId: string
	ladderId: string
	rungId: string
}
/** What a placing is called in a form, and what a problem of it is told under. */
export const placingKey = ({ athleteId, ladderId }: Omit<Placing, 'rungId'>): string => `${athleteId}/${ladderId}`

/** A move by hand to any rung of the ladder, with a reason that is kept. Only a block refuses it. */
export function moveTo(rungId: string, state: LadderState, documents: Documents, facts: Facts): Overruled {
	const rung = documents.ladder.rungs.find((candidate) => candidate.id === rungId)
	if (!rung) return { refused: 'There is no such rung on this ladder.' }
	const lock = lockOf(facts, rung)
	if (lock?.tier === 'block') return { refused: refusal(rung.name, lock.words) }
	const index = documents.ladder.rungs.indexOf(rung)
	const below = documents.ladder.rungs
		.slice(0, index)
		.filter((candidate) => !lockOf(facts, candidate)?.skip)
		.map((candidate) => candidate.id)
	return {
		next: {
			...state,
			...placeAt(
				rungId,
				documents.ladder,
				{ ...state, done: [...new Set([...passedRungs(state, documents.ladder), ...below])] },
				facts.day,
			),
			substitute: null,
			back: null,
		},
	}
}
