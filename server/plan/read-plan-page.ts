import type { ClubScope } from '../../db/connect'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { readBodies } from '../care/read-bodies'
import { keptPage } from '../kept'
import { readCalendarPage } from './calendar'
import { readTakenOff } from './take-off'

/** The weeks between two days as the plan shows them, with who is not whole and what may be brought back; kept as long as nothing changes. */
export const readPlanPage = (
	scope: ClubScope,
	first: string,
	last: string,
	today: string,
	{ role }: Pick<SignedIn, 'role'>,
) =>
	keptPage(scope, ['plan', first, last, today, role], async (scope) => ({
		...(await readCalendarPage(scope, first, last, today)),
		bodies: await readBodies(scope, today, role),
		takenOff: may(role, 'plan:write') ? await readTakenOff(scope) : [],
	}))
