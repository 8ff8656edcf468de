import type { Drill } from '../vocabulary/drill'
import type { LineProgress } from './line-progress'
import type { FieldAthlete } from './pack'
import type { Draft } from './session/writes'
import { type Slot, expectedAt, questionAbout, slotsOf } from './slots'

/** What is usual on the line says nothing of another drill that is done in its place. */
export const ownOnly = ({ line, swap }: LineProgress): LineProgress['line'] => (swap ? { ...line, usuals: {} } : line)

/** Why a mark from a device would surprise for an athlete, or can hardly be; null when it would not. */
export function strangeFor(
	progress: LineProgress,
	mark: Draft,
	athlete: FieldAthlete | undefined,
	drill: Drill | undefined,
): string | null {
	const { line } = progress
	if (mark.type !== 'mark' || mark.kind === 'release' || !('method' in mark.value)) return null
	const slots: Slot[] = slotsOf(line, [])
	const reads =
		mark.kind === 'sprint'
			? [mark.value.splits.at(-1)!.timeS]
			: mark.kind === 'contact'
				? [mark.value.contactS * 1000, mark.value.flightS * 1000]
				: mark.kind === 'height'
					? [mark.value.heightM * 100]
					: []
	const best = mark.kind === 'sprint' ? line.bests.gate : undefined
	const question = questionAbout(ownOnly(progress), drill, athlete?.level ?? 3, mark.value.method, slots, reads, best)
	if (question || mark.kind !== 'sprint' || best !== undefined || !athlete?.curve) return question?.words ?? null
	const expected = expectedAt(slots[0]!, line, undefined, athlete.curve)
	return reads[0]! < expected.low || reads[0]! > expected.high * 1.15
		? `${reads[0]} s is not what ${athlete.name}’s own curve says, ${expected.low.toFixed(2)} to ${expected.high.toFixed(2)} s`
		: null
}
