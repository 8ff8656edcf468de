import { addDays } from '../calendar/day-count'
import type { Random } from '../chance/random'
import { type Exposure, type LadderState, RULES_VERSION, type VerdictInput } from '../judge/types'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Method, Phase, Region } from '../vocabulary/words'

/** Who is followed: true ability that stays, falls at once or slowly, improves, or is hurt for a fortnight and says so. */
export const CAREER_SCENARIOS = ['steady', 'falling', 'improving', 'hurt'] as const
export type CareerScenario = (typeof CAREER_SCENARIOS)[number]

export interface CareerAsk {
	scenario: CareerScenario
	method: Method
	/** A preset's id. */
	school: string
	/** How far ability falls, percent; above 0 to 30. */
	fallPercent?: number | undefined
	/** Over how many sessions it falls, 0 at once. */
	fallSessions?: number | undefined
	/** How far a day truly moves the athlete, SD, percent; the rules do not know it. */
	trueSpreadPercent?: number | undefined
	/** The squad's own spreads are known, from 200 days of athletes alike. */
	squad?: boolean | undefined
	careers: number
	sessions: number
	seed: number
}

/** What happened to one simulated athlete. */
export interface Career {
	eased: boolean
	easedByAny: boolean
	passed: number | null
	missed: boolean
	unable: boolean
	slow: boolean
	/** Stood at the end within one rung of what true ability passes; null where nothing is climbed. */
	within: boolean | null
	/** Sessions, those with a typing error that passed for a mark, and those it changed. */
	sessions: number
	typed: number
	changed: number
}
export const freshCareer = (sessions: number): Career => ({
	eased: false,
	easedByAny: false,
	passed: null,
	missed: false,
	unable: false,
	slow: false,
	within: null,
	sessions,
	typed: 0,
	changed: 0,
})

/** Of what is planned, so many sessions are met; so many marks are typed with a wrong digit. */
export const ATTENDANCE = 0.92
export const TYPED_WRONG = 1 / 300
export const FIRST_DAY = '2026-01-05'
/** The athlete may go on above the rung. */
export const LEVEL = 3
/** One digit of what was typed is another. */
export function typedWrong(value: number, random: Random): number {
	const letters = [...value.toFixed(2)]
	const digits = letters.flatMap((letter, at) => (/\d/.test(letter) ? [at] : []))
	letters[digits[Math.floor(random.next() * digits.length)]!] = String(Math.floor(random.next() * 10))
	return Math.max(0.01, Number(letters.join('')))
}

/** What a verdict reads of one career: nothing stands in the way but the marks, and the pain of whoever is hurt. */
export function inputOf(
	ask: CareerAsk,
	state: LadderState,
	exposures: Exposure[],
	day: string,
	hurt: Region | null,
	slowFall: VerdictInput['slowFall'] | null,
	phase: Phase = 'accumulate',
): VerdictInput {
	const school = STARTER_LIBRARY.schools[ask.school]!
	const ladder = STARTER_LIBRARY.ladders[state.ladderId]!
	const sessionId = exposures.at(-1)!.sessionId
	return {
		rulesVersion: RULES_VERSION,
		sessionId,
		day,
		startTime: '17:30',
		next: {
			day: addDays(day, 3),
			startTime: '17:30',
			phase,
			surface: null,
			hoursToMatch: null,
			hoursSinceMatch: null,
		},
		athlete: { id: 'a', level: LEVEL, ageYears: 25, massKg: 75, unwell: false, contrastHelps: false },
		ladder: { id: ladder.id, version: ladder.version },
		school: { id: school.id, version: school.version },
		state,
		focus: null,
		exposures,
		standings: {},
		restrictions: [],
		worries: [],
		pains: hurt ? [{ sessionId, day, region: hurt, side: 'left', score: 4, redFlag: false }] : [],
		...(slowFall ? { slowFall } : {}),
		lastSessions: exposures.map((one) => one.sessionId),
		work: [],
		newRungs: [],
		advancesBefore: [],
		ramp: { hardContacts: [], sharpCuts: [], maximalStarts: [], fastMetres: [] },
	}
}
