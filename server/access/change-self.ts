import { updatePerson } from '../../db/queries/clubs'
import { UNITS, type Units } from '../../core/words/units'
import { scopeOf } from '../database'
import type { SignedIn } from './sign-in'

/** Units somebody reads and types in; theirs alone, so that nobody else is asked. */
export async function setUnits(who: SignedIn, units: string): Promise<{ saved: true } | { problem: string }> {
	if (!UNITS.includes(units as Units)) return { problem: 'Metric or imperial is expected.' }
	await updatePerson(scopeOf(who.clubId), who.personId, { units: units as Units })
	return { saved: true }
}
