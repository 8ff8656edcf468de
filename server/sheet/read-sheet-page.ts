import type { ClubScope } from '../../db/connect'
import type { Role } from '../../db/schema/people'
import { bodiesOf } from '../care/read-bodies'
import { keptFor } from '../kept'
import { readCautions } from './read-cautions'
import { readSheet } from './read-sheet'
import { readTargets } from './read-targets'

/** A sheet with its targets, its cautions while it is not reviewed, and whose bodies limit what; kept as long as nothing changes. Null for a stranger’s id. */
export const readSheetPage = (scope: ClubScope, sessionId: string, today: string, role: Role) =>
	keptFor(scope, ['sheet page', sessionId, today, role], async (scope) => {
		const sheet = await readSheet(scope, sessionId)
		return (
			sheet && {
				sheet,
				targets: await readTargets(scope, sheet),
				cautions: sheet.session.reviewedAt === null ? await readCautions(scope, sheet) : [],
				bodies: await bodiesOf(scope, sheet, today, role),
			}
		)
	})
