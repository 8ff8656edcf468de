import type { ClubScope } from '../../db/connect'
import { keptPage } from '../kept'
import { readAthletePage } from '../squads/read-athlete'
import { namesOf } from './read-bodies'
import { readReports } from './read-reports'

/** What the care page shows of an athlete, and what of it goes by who reads; kept as long as nothing changes. Null for a stranger's id. */
export const readCarePage = (scope: ClubScope, athleteId: string, today: string) =>
	keptPage(scope, ['care', athleteId, today], (scope) => workOutCare(scope, athleteId, today))

async function workOutCare(scope: ClubScope, athleteId: string, today: string) {
	const page = await readAthletePage(scope, athleteId, today)
	if (!page) return null
	const { id, name } = page.athlete
	return {
		page: {
			athlete: { id, name },
			care: page.care,
			pains: page.pains,
			drills: page.drills.map(({ id, name, family }) => ({ id, name, family })),
			episodes: page.episodes,
			closures: page.closures.filter(({ grade }) => grade !== 'noted'),
			ladders: page.ladders
				.filter((ladder) => !ladder.path && ladder.state.back)
				.map(({ name, state }) => ({ name, percent: state.back?.percent ?? null })),
			waysBack: page.waysBack,
		},
		reports: await readReports(scope, athleteId, today),
		/** Whose a report was instead. */
		others: (await namesOf(scope)).filter((one) => one.id !== athleteId),
	}
}
