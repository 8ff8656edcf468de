import { randomUUID } from 'node:crypto'
import type { LineRow } from '../../db/queries/sessions'

/** A mark as a phone of its own sends it of a line: the first rep of the first set unless something else is said. */
export const markOf = <T extends object>(
	line: Pick<LineRow, 'id' | 'sessionId' | 'athleteId' | 'entryId'>,
	said: T,
) => ({
	id: randomUUID() as string,
	sessionId: line.sessionId,
	athleteId: line.athleteId,
	entryId: line.entryId,
	lineId: line.id,
	deviceId: randomUUID() as string,
	deviceSeq: 0,
	deviceTime: '2026-03-12T17:40:00.000Z',
	setNo: 1,
	repNo: 1,
	type: 'mark' as const,
	...said,
})

/** What was said of somebody in a session, as a phone of its own sends it. */
export const saidOf = <T extends object>(sessionId: string, athleteId: string, said: T) => ({
	id: randomUUID() as string,
	sessionId,
	athleteId,
	deviceId: randomUUID() as string,
	deviceSeq: 0,
	deviceTime: '2026-03-12T17:40:00.000Z',
	type: 'observation' as const,
	...said,
})
