import { MeasureError, inBounds } from '../measure-error'

/** Added to a hand time to read it as an electronic one over 100 and 200 m. Competition practice of athletics; from memory. */
const HAND_OFFSET_S = 0.24

/**
 * Electronic time that a hand time stands for, over 100 and 200 m only. Over other distances hand and
 * electronic times are shown apart: the offset depends on the start and the timekeeper.
 *
 * @param timeS above 0 to 120 s
 * @throws MeasureError for another distance or a time out of range
 * @example electronicFromHand(11.1, 100) // 11.34
 */
export function electronicFromHand(timeS: number, distanceM: number): number {
	inBounds('timeS', timeS, { above: 0, to: 120, unit: 's' })
	if (distanceM !== 100 && distanceM !== 200)
		throw new MeasureError('distanceM', distanceM, '100 or 200 m: elsewhere hand times stand apart')
	return timeS + HAND_OFFSET_S
}
