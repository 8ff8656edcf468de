import { addDays } from '../../core/calendar/day-count'
import { betterOf, byKey } from '../../core/marks/keep-session'
import { methodOfKey, partsOfKey } from '../../core/marks/mark-key'
import { sayKey } from '../../core/marks/say-key'
import { readSlowFall } from '../../core/noise/slow-fall'
import type { MarkKind, OwnError, SquadErrors } from '../../core/noise/typical-error'
import { bestsOf, defaultsFrom, usualOf } from '../../core/noise/usual'
import type { Library } from '../../core/vocabulary/library'
import type { ClubScope } from '../../db/connect'
import { type KeptMean, bestsBefore, meansOf } from '../../db/queries/marks'

/** Days of a season and of what a slow fall is read from. */
const SEASON_DAYS = 182

/** What an athlete's marks of one kind usually are, with the records beside it. */
export interface MarkRecord {
	key: string
	what: string
	how: string
	kind: MarkKind
	usual: { value: number; betweenSd: number; sessions: number } | null
	/** How far one rep errs in the squad, where it has an error of its own. */
	repError: OwnError | null
	best: number
	seasonBest: number | null
	/** Percent, when the last sessions have slowly fallen. */
	slowFall: number | null
	lastDay: string | null
}

/** Every comparison key an athlete has, those measured last first, with the season’s session means; in two queries. */
export async function readRecordsOf(
	scope: ClubScope,
	athleteId: string,
	day: string,
	library: Pick<Library, 'drills'>,
	errors: SquadErrors,
): Promise<{ records: MarkRecord[]; means: KeptMean[] }> {
	const kept = await meansOf(scope, [athleteId], addDays(day, -SEASON_DAYS), day)
	const means = byKey(kept)
	const records = (await bestsBefore(scope, [athleteId], day))
		.map(({ key, lowest, highest }): MarkRecord => {
			const kind = key.split('|')[1] as MarkKind
			const own = means.get(key) ?? []
			const better = betterOf(kind)
			const method = methodOfKey(key)
			const ofDrill = errors[partsOfKey(key).drill]
			const defaults = defaultsFrom(ofDrill, kind, method)
			const fall = readSlowFall(own, day, kind, method, better, defaults)
			const usual = usualOf(own, day, kind, method, defaults)
			return {
				key,
				...sayKey(key, library),
				kind,
				usual: usual && { value: usual.value, betweenSd: usual.betweenSd, sessions: usual.sessions },
				repError: ofDrill?.[`${kind}/${method}`] ?? null,
				best: better === 'lower' ? lowest : highest,
				seasonBest: bestsOf(own, day, better).best,
				slowFall: fall?.fallen ? fall.percent : null,
				lastDay: own.reduce<string | null>((last, one) => (last === null || one.day > last ? one.day : last), null),
			}
		})
		.sort((a, b) =>
			(a.lastDay ?? '') < (b.lastDay ?? '')
				? 1
				: (a.lastDay ?? '') > (b.lastDay ?? '')
					? -1
					: a.what.localeCompare(b.what),
		)
	return { records, means: kept }
}
