import { type CareRecord, closuresOn } from '../care/closures'
import { CLOSE_FROM, SPARE_FROM, touches } from '../care/grades'
import { REGIONS, SIDES } from '../vocabulary/words'
import type { SayLimit } from './over-today'

/** The limits of one athlete on a day: only of regions of which something was said, and no more than the two numbers. */
export function sayLimitsOf(record: CareRecord, day: string): SayLimit[] {
	const spoken = new Set(record.reports.flatMap((one) => (one.region ? [one.region] : [])))
	return REGIONS.filter((region) => spoken.has(region)).flatMap((region) =>
		SIDES.flatMap((side): SayLimit[] => {
			const gradeAt = (score: number) =>
				closuresOn({ ...record, reports: [...record.reports, { kind: 'pain', region, side, score, day }] }, day).find(
					(one) => one.region === region && touches(one, side) && one.grade !== 'noted',
				)?.grade ?? null
			const from = (most: number, holds: (grade: string | null) => boolean) => {
				let score = most
				while (score > 1 && holds(gradeAt(score - 1))) score--
				return score
			}
			const closesFrom = from(CLOSE_FROM, (grade) => grade === 'closed')
			const sparesFrom = from(SPARE_FROM, (grade) => grade !== null)
			return closesFrom === CLOSE_FROM && sparesFrom === SPARE_FROM ? [] : [{ region, side, closesFrom, sparesFrom }]
		}),
	)
}
