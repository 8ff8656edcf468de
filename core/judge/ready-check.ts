import type { School } from '../vocabulary/school'
import type { ReadyReference } from '../noise/ready-reference'
import { inBounds } from '../measure/measure-error'
import { writeSeconds } from '../words/write-numbers'

export interface ReadyReading {
	state: 'no usual yet' | 'as usual' | 'slow' | 'fast'
	sentence: string
	/** Share of the planned reps that stays. */
	share: number
	/** Slow: top speed holds today. */
	holdTopSpeed: boolean
	/** Fast and at a new best: one rehearsal at 90–95 %, one full rep, then that part closes. */
	offer: boolean
}

/**
 * P5: the standard first reps of the day against the athlete's own usual first reps. It acts only when
 * the first two both lie beyond one robust SD on the same side [our setting].
 *
 * @param reps times of the standard rep today, s, in order, above 0
 * @param reference from at least eight first reps of the same method; null when there are fewer
 * @param best own best before today, s; null when unknown
 */
export function readReady(
	reps: readonly number[],
	reference: ReadyReference | null,
	best: number | null,
	school: School,
): ReadyReading {
	reps.forEach((rep, index) => inBounds(`reps[${index}]`, rep, { above: 0 }))
	const plain = (state: ReadyReading['state'], sentence: string): ReadyReading => ({
		state,
		sentence,
		share: 1,
		holdTopSpeed: false,
		offer: false,
	})
	if (reference === null) return plain('no usual yet', 'No usual yet: eight first reps by one method make one.')
	const [first, second] = reps
	if (first === undefined || second === undefined) return plain('as usual', 'One rep says nothing; the second decides.')
	const away = (rep: number) => (rep - reference.median) / reference.sd
	const usual = `usual ${writeSeconds(reference.median)} ± ${reference.sd.toFixed(2)}`
	if (away(first) > 1 && away(second) > 1)
		return {
			state: 'slow',
			sentence: `Slow today, twice: ${writeSeconds(first)} and ${writeSeconds(second)}, ${usual}. A third less, top speed holds.`,
			share: 2 / 3,
			holdTopSpeed: true,
			offer: false,
		}
	if (away(first) < -1 && away(second) < -1) {
		const record = best !== null && Math.min(first, second) < best
		const offer = record && school.fastDayOffer && school.choices.goodDay === 'stop'
		return {
			...plain(
				'fast',
				`Fast today, twice: ${writeSeconds(first)} and ${writeSeconds(second)}, ${usual}. ${offer ? 'A new best: one rehearsal at 90–95 %, one full rep, then close this part.' : 'Planned reps.'}`,
			),
			offer,
		}
	}
	return plain('as usual', `As usual: ${writeSeconds(first)} and ${writeSeconds(second)}, ${usual}.`)
}
