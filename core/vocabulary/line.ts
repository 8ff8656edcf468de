import type { Static } from 'typebox'
import Type from 'typebox'
import { WORK } from './entry'
import { DocumentVersion, type DrillId, type LadderId, type RungId, documentIdOf } from './ids'
import { closed } from './shape'

/** One athlete's line on a session sheet, as it stands. */
export const PlannedLine = closed({
	drillId: documentIdOf<DrillId>(),
	drillVersion: DocumentVersion,
	ladderId: Type.Union([documentIdOf<LadderId>(), Type.Null()]),
	rungId: Type.Union([documentIdOf<RungId>(), Type.Null()]),
	...WORK,
})
export type PlannedLine = Static<typeof PlannedLine>
