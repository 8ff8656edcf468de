import { cutsOf, metresOf, rangedContacts, totalOf } from '../../core/dose/dose-count'
import { commonestLevel } from '../../core/dose/level-ranges'
import type { ClubScope } from '../../db/connect'
import { changeFor, seesBody } from '../access/projection'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { namesOf, readBodies } from '../care/read-bodies'
import { keptPage } from '../kept'
import type { SheetAthlete } from './read-sheet'
import { readMissing, readToday } from './read-today'

type Reader = Pick<SignedIn, 'role' | 'athleteId'>
const ORDER = ['stop', 're-enter', 'swap', 'ease', 'advance', 'hold']

/** All that Today shows to one who reads the plan; kept as long as nothing changes. */
export const readTodayPage = (scope: ClubScope, today: string, { role, athleteId }: Reader) =>
	keptPage(scope, ['today', today, role, athleteId], (scope) => workOutToday(scope, today, { role, athleteId }))

async function workOutToday(scope: ClubScope, today: string, who: Reader) {
	const bodies = await readBodies(scope, today, who.role)
	const { main, week, waiting } = await readToday(scope, today, may(who.role, 'verdict:write'))
	const athletes = main?.athletes ?? []
	const changes = athletes.flatMap((athlete) =>
		athlete.lines.flatMap((line) =>
			line.change
				? [{ id: line.id, name: athlete.name, athleteId: athlete.id, ...changeFor(seesBody(who), line.change)! }]
				: [],
		),
	)
	const cautions = athletes.flatMap(({ lines }) =>
		lines.flatMap(({ drill }) => (drill?.intensity === 'shock' ? drill.cautions : [])),
	)
	return {
		bodies,
		session: main?.session ?? null,
		strip: main?.strip ?? [],
		attending: athletes.length,
		changes: changes.sort((a, b) => ORDER.indexOf(a.verdict ?? 'hold') - ORDER.indexOf(b.verdict ?? 'hold')),
		changedPeople: new Set(changes.map((change) => change.athleteId)).size,
		cautions: [...new Set(cautions)],
		dose: doseOf(athletes),
		week,
		waiting,
		/** Whom something may be reported of, for who may. */
		athletes: may(who.role, 'pain:write') ? await namesOf(scope) : [],
		missing: main ? null : await readMissing(scope),
	}
}

/** What those of the commonest level are planned to do, on average. */
function doseOf(athletes: readonly SheetAthlete[]) {
	const level = commonestLevel(athletes.map((athlete) => athlete.level))
	if (level === null) return null
	const alike = athletes.filter((athlete) => athlete.level === level)
	const mean = (read: (planned: SheetAthlete['planned']) => number) =>
		alike.reduce((sum, { planned }) => sum + read(planned), 0) / alike.length
	return {
		level,
		contacts: mean((count) => totalOf(rangedContacts(count))),
		metres: mean((count) => metresOf(count, ['fast', 'maximal'])),
		cuts: mean((count) => cutsOf(count, ['60-90', '90-135', '135-180'])),
	}
}
