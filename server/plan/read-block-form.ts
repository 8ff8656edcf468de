import { addDays, mondayOf } from '../../core/calendar/day-count'
import { LEVELS, QUALITIES, type Quality } from '../../core/vocabulary/words'
import { completePlan } from '../../core/plan/block'
import { metFromH } from '../../core/rules/spacing'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { readBlock } from '../../db/queries/plan'
import { blockBattery } from './make-block'
import { listMembers, listSquads, readLevels } from '../../db/queries/squads'

/** What the form of a block starts from: squads with their athletes' levels, and the block it copies, if any. */
export async function readBlockForm(scope: ClubScope, copy: string | null, today: string) {
	const copied = copy ? await readBlock(scope, copy) : null
	const [library, members, squads] = [await readLibrary(scope), await listMembers(scope), await listSquads(scope)]
	const levelOf = await readLevels(
		scope,
		members.map((member) => member.id),
	)
	const batteries = new Map<string, string | null>()
	for (const { id } of squads) batteries.set(id, (await blockBattery(scope, id))?.name ?? null)
	return {
		squads: squads.map(({ id, name, trainingDays, startTime, schoolId }) => ({
			id,
			name,
			/** What a test day tests; null where the proposal's own tests are put. */
			battery: batteries.get(id) ?? null,
			trainingDays,
			startTime,
			spacingMetH: library.schools[schoolId] ? metFromH(library.schools[schoolId].numbers.spacingH) : 44,
			/** How many athletes are at each level, by family. */
			levels: Object.fromEntries(
				QUALITIES.map((quality) => [
					quality,
					LEVELS.map(
						(level) =>
							members.filter((member) => member.squadId === id && levelOf(member.id, quality) === level).length,
					),
				]),
			) as Record<Quality, number[]>,
		})),
		themes: library.themes,
		// A copy follows on from what it copies.
		monday: copied ? addDays(copied.start, copied.weeks * 7) : addDays(mondayOf(today), 7),
		copied: copied && { squadId: copied.squadId, plan: completePlan(copied.plan) },
	}
}
