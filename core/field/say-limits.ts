import { type CareRecord, gradeOf } from '../care/closures'
import { CLOSE_FROM, SPARE_FROM } from '../care/grades'
import { REGIONS, SIDES } from '../vocabulary/words'
import type { SayLimit } from './over-today'

/** The limits of one athlete on a day: only of regions of which something was said, and no more than the two numbers. */
export function sayLimitsOf(record: CareRecord, day: string): SayLimit[] {
	const spoken = new Set(record.reports.flatMap((one) => (one.region ? [one.region] : [])))
	return REGIONS.filter((region) => spoken.has(region)).flatMap((region) =>
		SIDES.flatMap((side): SayLimit[] => {
			const gradeAt = (score: number) => {
				const reports = [...record.reports, { kind: 'pain' as const, region, side, score, day }]
				const grade = gradeOf({ ...record, reports }, { region, side }, day)?.grade ?? null
				return grade === 'noted' ? null : grade
			}
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
