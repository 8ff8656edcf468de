import type { PlannedLine } from '../../core/vocabulary/line'
import { workOf } from '../../core/vocabulary/entry'
import type { LineRow } from '../../db/queries/sessions'

/** A stored line as a plan; null when it is blocked. */
export const plannedOf = (row: LineRow): PlannedLine | null =>
	row.drillId === null || row.drillVersion === null
		? null
		: {
				drillId: row.drillId,
				drillVersion: row.drillVersion,
				ladderId: row.ladderId,
				rungId: row.rungId,
				...workOf(row),
			}
