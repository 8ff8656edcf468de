import { addDays } from '../../core/calendar/day-count'
import { proposeType } from '../../core/own/athlete-type'
import type { Lift } from '../../core/judge/outside-load'
import type { AthleteType } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import { levelsOfKeys } from '../../db/queries/marks'
import { typesOf } from '../../db/queries/squads'

/** Marks and lifts say something of today for so long, days; closures for a year [our setting]. */
const LATELY_DAYS = 120
const YEAR_DAYS = 365

export interface TypeOf {
	type: AthleteType | null
	proposal: { type: AthleteType; why: string } | null
}

/** How an athlete is built: the coach's word, and what the measures beside the squad's say. For who plans alone. */
export async function readType(
	scope: ClubScope,
	{
		athleteId,
		squadIds,
		keys,
		closedOn,
		lifts,
		massKg,
		today,
	}: {
		athleteId: string
		/** Everybody they are held against, themselves too. */
		squadIds: string[]
		/** Keys of their own sprints and contacts. */
		keys: readonly { key: string; kind: 'sprint' | 'contact' }[]
		/** Days on which something was closed. */
		closedOn: readonly string[]
		lifts: readonly Lift[]
		massKg: number | null
		today: string
	},
): Promise<TypeOf> {
	const levels = await levelsOfKeys(
		scope,
		squadIds,
		keys.map(({ key }) => key),
		addDays(today, -LATELY_DAYS),
		addDays(today, 1),
	)
	const kilograms = lifts.flatMap(({ kg }) => kg ?? [])
	const proposal = proposeType({
		measures: keys.flatMap(({ key, kind }) => {
			const alike = levels.filter((one) => one.key === key)
			const own = alike.find((one) => one.athleteId === athleteId)
			return own ? [{ kind, own: own.mean, others: alike.flatMap((one) => (one === own ? [] : [one.mean])) }] : []
		}),
		closures: closedOn.filter((day) => day > addDays(today, -YEAR_DAYS)).length,
		heaviestKg: kilograms.length === 0 ? null : Math.max(...kilograms),
		massKg,
	})
	const type = (await typesOf(scope, [athleteId])).get(athleteId) ?? null
	return { type, proposal: proposal?.type === type ? null : proposal }
}
