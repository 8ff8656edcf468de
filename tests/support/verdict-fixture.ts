import { repsOf } from '../../core/library/scale-dose'
import { QUALITY_FIRST } from '../../core/library/schools'
import { STARTER_LIBRARY, rungOf } from '../../core/library/starter-library'
import type { School } from '../../core/vocabulary/school'
import { judge } from '../../core/judge/judge'
import {
	type Documents,
	type Exposure,
	type Judgement,
	type LadderState,
	type PainReport,
	RULES_VERSION,
	type VerdictInput,
} from '../../core/judge/types'

/** What the tests of judging share: an ordinary athlete, an ordinary pair of sessions, and what differs. */

export const documents = (ladderId: string, school: School = QUALITY_FIRST): Documents => ({
	ladder: STARTER_LIBRARY.ladders[ladderId]!,
	school,
	drills: STARTER_LIBRARY.drills,
	paths: STARTER_LIBRARY.ladders,
})

export const stateAt = (ladderId: string, rungId: string, change: Partial<LadderState> = {}): LadderState => ({
	ladderId,
	substitute: null,
	passed: false,
	easedBy: null,
	rungId,
	dose: rungOf(STARTER_LIBRARY.ladders[ladderId]!, rungId).rung.dose,
	...change,
})

export const exposure = (
	sessionId: string,
	day: string,
	state: LadderState,
	change: Partial<Exposure> = {},
): Exposure => ({
	sessionId,
	day,
	rungId: state.reentry?.rungId ?? state.rungId,
	onRung: true,
	planned: state.dose,
	repsDone: repsOf(state.dose),
	endReason: null,
	marks: [],
	quality: { good: 0, notYet: 0, poor: 0, setTaps: 0 },
	...change,
})

/** A steady usual: a day moves it by 1 %, a rep by the gates' 0.02 s, from eight sessions. */
export const usual = (value: number) => ({
	value,
	betweenSd: value / 100,
	withinSd: 0.02,
	standardError: value / 250,
	freedom: 15,
	sessions: 8,
})
export const gate = (...values: number[]): Exposure['marks'] =>
	values.map((value) => ({ kind: 'sprint', value, method: 'gate' }))
export const mat = (...values: number[]): Exposure['marks'] =>
	values.map((value) => ({ kind: 'contact', value, method: 'mat' }))
export const good = (n: number) => ({ good: n, notYet: 0, poor: 0, setTaps: 1 })

export const athlete = (change: Partial<VerdictInput['athlete']> = {}): VerdictInput['athlete'] => ({
	id: 'a',
	level: 2,
	ageYears: 25,
	massKg: 70,
	unwell: false,
	contrastHelps: false,
	...change,
})
export const next = (change: Partial<VerdictInput['next']> = {}): VerdictInput['next'] => ({
	day: '2026-03-16',
	startTime: '17:30',
	phase: 'peaking',
	surface: 'grass',
	hoursToMatch: null,
	hoursSinceMatch: null,
	...change,
})
export const noRamp = { hardContacts: [], sharpCuts: [], maximalStarts: [], fastMetres: [] }

export function input(
	ladderId: string,
	state: LadderState,
	before: Partial<Exposure> | null,
	now: Partial<Exposure> | null,
	change: Partial<VerdictInput> = {},
): VerdictInput {
	return {
		rulesVersion: RULES_VERSION,
		sessionId: 's2',
		day: '2026-03-12',
		startTime: '17:30',
		next: next(),
		athlete: athlete(),
		ladder: { id: ladderId, version: STARTER_LIBRARY.ladders[ladderId]!.version },
		school: { id: QUALITY_FIRST.id, version: QUALITY_FIRST.version },
		state,
		focus: null,
		exposures: [
			...(before ? [exposure('s1', '2026-03-09', state, before)] : []),
			...(now ? [exposure('s2', '2026-03-12', state, now)] : []),
		],
		standings: {
			shock: ['landing-15', 'landing-30', 'pause-15', 'pause-30', 'depth-15'],
			brake: ['slow-10', 'stop-5', 'stop-10', 'dead-5', 'dead-10'],
		},
		restrictions: [],
		worries: [],
		pains: [],
		lastSessions: ['s0', 's1', 's2'],
		work: [],
		newRungs: [],
		advancesBefore: [],
		ramp: noRamp,
		...change,
	}
}
export const run = (
	ladderId: string,
	...rest: [LadderState, Partial<Exposure> | null, Partial<Exposure> | null, Partial<VerdictInput>?]
): Judgement => judge(input(ladderId, ...rest), documents(ladderId))
/** The same under another school. */
export const runIn = (
	school: School,
	ladderId: string,
	...rest: [LadderState, Partial<Exposure> | null, Partial<Exposure> | null, Partial<VerdictInput>?]
): Judgement =>
	judge(
		{ ...input(ladderId, ...rest), school: { id: school.id, version: school.version } },
		documents(ladderId, school),
	)
export const pain = (change: Partial<PainReport>): PainReport => ({
	sessionId: 's2',
	day: '2026-03-12',
	region: 'back-thigh',
	side: 'left',
	score: 3,
	redFlag: false,
	...change,
})
