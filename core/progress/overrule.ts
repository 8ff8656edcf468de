import { scaleDose } from '../library/scale-dose'
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
	const open: LadderState = { ...state, substitute: null, reentry: null }
	if (word === 'hold') return { next: open }
	if (word === 'ease') return { next: { ...open, dose: scaleDose(state.dose, 2 / 3), passed: false } }
	const done = [...new Set([...passedRungs(state, documents.ladder), state.rungId])]
	const { locks } = judgeContext(input, documents)
	const above = nextRung(documents.ladder, { ...open, done }, documents.drills, {
		...locks,
		standings: { ...locks.standings, [documents.ladder.id]: done },
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

const refusal = (name: string, words: string): string => `${name}${words.startsWith('opens') ? ' ' : ': '}${words}.`

/** A move by hand to any rung of the ladder, with a reason that is kept. Only a block refuses it. */
export function moveTo(
	rungId: string,
	state: LadderState,
	documents: Documents,
	locks: Parameters<typeof lockOf>[2],
): Overruled {
	if (state.closed) return { refused: 'Closed until somebody records who cleared it.' }
	const rung = documents.ladder.rungs.find((candidate) => candidate.id === rungId)
	const drill = rung && documents.drills[rung.drillId]
	if (!rung || !drill) return { refused: 'There is no such rung on this ladder.' }
	const lock = lockOf(rung, drill, locks, state)
	if (lock?.tier === 'block') return { refused: refusal(rung.name, lock.words) }
	const index = documents.ladder.rungs.indexOf(rung)
	const below = documents.ladder.rungs
		.slice(0, index)
		.filter((candidate) => !isOut(candidate.id))
		.map((candidate) => candidate.id)
	function isOut(id: string): boolean {
		const candidate = documents.ladder.rungs.find((one) => one.id === id)!
		const its = documents.drills[candidate.drillId]
		return Boolean(its && lockOf(candidate, its, locks, state)?.skip)
	}
	return {
		next: {
			...state,
			...placeAt(
				rungId,
				documents.ladder,
				{ ...state, done: [...new Set([...passedRungs(state, documents.ladder), ...below])] },
				locks.day,
			),
			substitute: null,
			reentry: null,
			back: null,
		},
	}
}
