import { AGILITY_DRILLS } from './drills-agility'
import { PREPARING_DRILLS, TISSUE_DRILLS } from './drills-general'
import { PLYOMETRIC_DRILLS } from './drills-plyometric'
import { SPRINT_DRILLS } from './drills-sprint'
import { THROWING_DRILLS } from './drills-throw'
import { LADDERS } from './ladders'
import { SCHOOLS } from './schools'
import { THEMES } from './themes'
import type { Ladder, Rung } from '../vocabulary/ladder'
import type { Library } from '../vocabulary/library'
import { WrongValue } from '../vocabulary/wrong-value'

const byId = <T extends { id: string }>(items: readonly T[]): Record<string, T> =>
	Object.fromEntries(items.map((item) => [item.id, item]))

/** The drills, ladders, schools and themes every club starts with. */
export const STARTER_LIBRARY: Library = {
	drills: byId([
		...PREPARING_DRILLS,
		...SPRINT_DRILLS,
		...AGILITY_DRILLS,
		...PLYOMETRIC_DRILLS,
		...THROWING_DRILLS,
		...TISSUE_DRILLS,
	]),
	ladders: byId(LADDERS),
	schools: byId(SCHOOLS),
	themes: byId(THEMES),
}

/** The rung and its place, counted from 0 at the bottom. Throws RangeError for an unknown rung id. */
export function rungOf(ladder: Ladder, rungId: string): { rung: Rung; index: number } {
	const index = ladder.rungs.findIndex((rung) => rung.id === rungId)
	const rung = ladder.rungs[index]
	if (!rung) throw new WrongValue('rungId', `${JSON.stringify(rungId)} is not a rung of ladder ${ladder.id}`)
	return { rung, index }
}
