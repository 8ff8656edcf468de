import { judge } from './judge'
import { isHard } from '../dose/work-kinds'
import type { Documents, Judgement, VerdictInput } from './types'

export interface Judged {
	input: VerdictInput
	judgement: Judgement
}

/** Priority ladders first, then the one that has waited longest, then by name: who may take the one new thing. */
const inOrder = (a: VerdictInput, b: VerdictInput): number =>
	Number(b.focus === 'priority') - Number(a.focus === 'priority') ||
	(a.state.passedSince ?? '9').localeCompare(b.state.passedSince ?? '9') ||
	a.ladder.id.localeCompare(b.ladder.id)

/**
 * All of one athlete's ladders after one session. Each verdict knows what the ones before it moved, so
 * that at most one new hard thing comes at a time; every input is kept as it was judged, whole in itself.
 * Returned in the order the inputs were given.
 */
export function judgeAthlete(
	inputs: readonly VerdictInput[],
	documentsOf: (input: VerdictInput) => Documents,
): Judged[] {
	const judged = new Map<string, Judged>()
	const advances: VerdictInput['advancesBefore'] = []
	const fresh: VerdictInput['newRungs'] = []
	for (const one of [...inputs].sort(inOrder)) {
		const documents = documentsOf(one)
		const input: VerdictInput = {
			...one,
			advancesBefore: [...one.advancesBefore, ...advances],
			newRungs: [...one.newRungs, ...fresh],
		}
		const judgement = judge(input, documents)
		judged.set(one.ladder.id, { input, judgement })
		const rung = documents.ladder.rungs.find((candidate) => candidate.id === judgement.next.rungId)
		const drill = rung && documents.drills[rung.drillId]
		if (judgement.verdict === 'advance' && rung && drill && rung.id !== one.state.rungId) {
			const hard = isHard(drill, rung.parameters)
			advances.push({ ladderId: one.ladder.id, hard })
			fresh.push({ ladderId: one.ladder.id, rungId: rung.id, day: one.next.day, hard })
		}
	}
	return inputs.map((one) => judged.get(one.ladder.id)!)
}
