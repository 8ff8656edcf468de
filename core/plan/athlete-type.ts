import type { Concluded } from '../permit/known'
import type { Drill } from '../vocabulary/drill'
import type { School } from '../vocabulary/school'
import type { AthleteType, Family, Region } from '../vocabulary/words'

/** Of a proposal’s springs for who is stiff and often hurt, and of its slow work for who is strong and slow [our setting]. */
export const SPRINGS_SHARE = 2 / 3
export const SLOW_WORK_SHARE = 1 / 2

/** Where a complaint is answered with slow work and holds [common practice, no source]. */
const TENDONS: readonly Region[] = ['foot', 'ankle', 'shin', 'calf', 'knee', 'back-thigh', 'groin']

interface Built {
	type: AthleteType | null
	concluded: Pick<Concluded, 'facts'>
}

/** Slow work is for who is stiff and often hurt, and for who has something at a tendon. */
const needsSlowWork = ({ type, concluded: { facts } }: Built): boolean =>
	type === 'stiff' || facts.closures.some(({ region }) => TENDONS.includes(region as Region))

/** Jumps of short contacts: what is read by the contact. */
const isSpring = ({ family, measures }: { family: Family; measures: Drill['measures'] }): boolean =>
	family === 'plyometric' && measures.includes('contact')

/**
 * How much of a proposed line somebody has by how they are built, and by the school’s word on slow work; null where all
 * of it. It only ever takes away, and says nothing of health: others read the line, too.
 *
 * @param line what the entry it stands on is for, and what its drill is measured by
 * @returns a share from 0 to below 1, and why
 */
export function shareByType(
	line: { family: Family; measures: Drill['measures'] },
	athlete: Built,
	{ choices }: Pick<School, 'choices'>,
): { share: number; why: string } | null {
	if (line.family === 'tissue') {
		if (choices.slowWork === 'need' && !needsSlowWork(athlete))
			return { share: 0, why: 'slow work is for who needs it' }
		return athlete.type === 'slow' ? { share: SLOW_WORK_SHARE, why: 'half the slow work, by athlete type' } : null
	}
	return isSpring(line) && athlete.type === 'stiff'
		? { share: SPRINGS_SHARE, why: 'fewer springs, by athlete type' }
		: null
}
