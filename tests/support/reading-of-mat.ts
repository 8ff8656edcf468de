import { randomUUID } from 'node:crypto'
import { inTransaction } from '../../db/connect'
import { insertReadings } from '../../db/queries/devices'
import { database } from '../../server/database'
import { NOW, type TestClub } from './test-club'

/** A paired mat of a club sends something. */
export const readingOfMat = (club: TestClub, deviceId: string): Promise<unknown> =>
	inTransaction(database().db, club.scope.clubId, (scope) =>
		insertReadings(scope, [
			{
				id: randomUUID(),
				deviceId,
				kind: 'mat',
				at: NOW,
				deviceTime: NOW,
				receivedAt: NOW,
				value: {},
				contentHash: 'a'.repeat(64),
			},
		]),
	)
