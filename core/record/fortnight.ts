import { type Day, addDays } from '../calendar/day-count'
import { type DoseCount, cutsOf, metresOf, rangedContacts, totalOf } from '../dose/dose-count'
import { OUTSIDE_NAMES, type OutsideLoad, sayLift } from '../judge/outside-load'
import type { VerdictWord } from '../judge/types'
import { CUT_CLASSES, type Family, type Phase } from '../vocabulary/words'
import type { DayReading } from './day-reading'

export const FORTNIGHT_DAYS = 14

/** What a session came to in one family, in the unit its coaches count it in. */
export interface FamilyLoad {
	family: Extract<Family, 'sprint' | 'agility' | 'plyometric' | 'throw'>
	amount: number
	/** "120 m at 90 % or more" */
	words: string
}
export interface FortnightSession {
	id: string
	phase: Phase
	/** Nothing was logged for the athlete: it is still to come, or went by without. */
	unlogged: 'to come' | 'missed' | null
	load: FamilyLoad[]
	/** 0–10; null when nobody asked. */
	effort: number | null
	state: DayReading['state'] | null
	/** Flat or good by what: "3.18 s, usual 3.06 s" */
	reading: string | null
}
export interface FortnightDay {
	day: Day
	sessions: FortnightSession[]
	/** "Match, 90 min, effort 7" */
	outside: string[]
	/** Pain, worry and illness; empty for those who may not read it. */
	body: string[]
	notes: string[]
	/** What was measured at the bench. */
	bench: string[]
	moves: { verdict: VerdictWord; words: string }[]
}

/** What is shown of a count: contacts from moderate up and low ones beside them, metres from 90 % of own speed on, cuts, throws. */
export function familyLoads(count: DoseCount): FamilyLoad[] {
	const [contacts, low] = [totalOf(rangedContacts(count)), totalOf(count.contacts.low)]
	const metres = Math.round(metresOf(count, ['sub-maximal', 'fast', 'maximal']))
	const cuts = cutsOf(count, CUT_CLASSES)
	const throws = totalOf(count.throws)
	const all: FamilyLoad[] = [
		{ family: 'sprint', amount: metres, words: `${metres} m at 90 % or more` },
		{
			family: 'plyometric',
			amount: contacts + low,
			words: [contacts > 0 && `${contacts} contacts`, low > 0 && `${low} low contacts`].filter(Boolean).join(', '),
		},
		{ family: 'agility', amount: cuts, words: `${cuts} cuts` },
		{ family: 'throw', amount: throws, words: `${throws} throws` },
	]
	return all.filter(({ amount }) => amount > 0)
}

export const sayOutside = ({ kind, minutes, rpe, lifts }: OutsideLoad): string =>
	[
		OUTSIDE_NAMES[kind],
		`${minutes} min`,
		...(rpe === null ? [] : [`effort ${rpe}`]),
		...(lifts ?? []).map(sayLift),
	].join(', ')

/** Fourteen days up to and with one, oldest first, each with what happened on it. */
export function fortnightOf(
	today: Day,
	of: { [Part in Exclude<keyof FortnightDay, 'day'>]: readonly { day: Day; what: FortnightDay[Part][number] }[] },
): FortnightDay[] {
	return Array.from({ length: FORTNIGHT_DAYS }, (_, index) => {
		const day = addDays(today, index - FORTNIGHT_DAYS + 1)
		const on = <T>(rows: readonly { day: Day; what: T }[]) => rows.flatMap((row) => (row.day === day ? [row.what] : []))
		return {
			day,
			sessions: on(of.sessions),
			outside: on(of.outside),
			body: on(of.body),
			notes: on(of.notes),
			bench: on(of.bench),
			moves: on(of.moves),
		}
	})
}
