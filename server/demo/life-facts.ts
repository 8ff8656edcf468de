import { addDays } from '../../core/calendar/day-count'
import { ageInYears } from '../../core/calendar/days'
import type { Concluded } from '../../core/permit/known'
import { concludeFor } from '../../core/permit/plain-facts'
import { type CareRecord, isOpen, matchesAround } from '../../core/judge/gather-input'
import { firstDaysOf } from '../../core/judge/locks'
import { outsideWork } from '../../core/judge/outside-load'
import { COUNTED } from '../../core/rules/p9-time-away'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { CareReport } from '../../core/vocabulary/care'
import type { Family, Level } from '../../core/vocabulary/words'
import type { School } from '../../core/vocabulary/school'
import { type SessionMoment, standsOf } from '../facts/read-facts'
import { type Life, standingsOf } from './life'

/** A demo athlete has one level in every family. */
export const levelsOf = ({ demo }: Life): Partial<Record<Family, Level>> =>
	Object.fromEntries(COUNTED.map((family) => [family, demo.level]))

/** What the rulebook concludes of a demo athlete for a session of the past, from what had happened until then. */
export function concludedOf(life: Life, moment: SessionMoment, school: School): Concluded {
	const { history, states, pains } = life
	const lastWork = lastWorkOf(life, moment.day)
	return concludeFor(
		{
			ageYears: history.birthDate === null ? null : ageInYears(history.birthDate, moment.day),
			massKg: history.massKg,
			levels: levelsOf(life),
			passed: standingsOf(life),
			schools: [school],
			phase: moment.phase,
			day: moment.day,
			surface: moment.surface,
			...matchesAround(history.outside, moment),
			lastWork,
			work: null,
			newRungs: [...states.values()].flatMap((state) => firstDaysOf(state, STARTER_LIBRARY.ladders[state.ladderId]!)),
			contrastHelps: false,
			reports: [...pains, ...history.care.flatMap(reportsOf)],
			clearances: life.cleared,
			restrictions: history.care.flatMap((record) =>
				record.kind === 'restriction' && isOpen(record, moment.day) && record.region
					? [{ since: record.from, region: record.region }]
					: [],
			),
			sessions: history.sessions.map((session) => session.day),
			stands: standsOf([...states.values()], lastWork, STARTER_LIBRARY),
			acknowledged: [],
		},
		STARTER_LIBRARY,
	)
}

function reportsOf(record: CareRecord): CareReport[] {
	const drill = record.kind === 'worry' ? { drillId: record.drillId } : {}
	if (record.kind === 'restriction') return []
	const [opens, ends] = record.kind === 'illness' ? (['unwell', 'well'] as const) : (['worry', 'settled'] as const)
	return [
		{ kind: opens, day: record.from, ...drill, ...(record.kind === 'worry' ? { region: record.region } : {}) },
		...(record.until === null ? [] : [{ kind: ends, day: record.until, ...drill }]),
	]
}

/** Everybody of the demo club came trained: the day before the first session counts as work of every family. */
function lastWorkOf({ history, worked }: Life, before: string): Partial<Record<Family, string>> {
	const first = history.sessions[0]?.day ?? before
	const came = addDays(first < before ? first : before, -1)
	const last: Partial<Record<Family, string>> = Object.fromEntries(
		COUNTED.map((family) => [family, worked[family] ?? came]),
	)
	for (const load of history.outside)
		if (load.day < before)
			for (const family of outsideWork(load).families) if ((last[family] ?? '') < load.day) last[family] = load.day
	return last
}
