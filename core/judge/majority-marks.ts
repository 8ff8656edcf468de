import type { Method } from '../vocabulary/words'
import type { MarkEvidence } from './types'

/** Marks of the method most reps were taken with; mixed methods are never averaged. */
export function majorityMarks(
	marks: readonly MarkEvidence[],
	kind: MarkEvidence['kind'],
): { marks: MarkEvidence[]; method: Method | null; leftOut: number } {
	const ofKind = marks.filter((mark) => mark.kind === kind)
	const counts = new Map<Method, number>()
	for (const mark of ofKind) counts.set(mark.method, (counts.get(mark.method) ?? 0) + 1)
	const [method] = [...counts.entries()].sort((a, b) => b[1] - a[1])[0] ?? [null]
	const kept = ofKind.filter((mark) => mark.method === method)
	return { marks: kept, method, leftOut: ofKind.length - kept.length }
}
