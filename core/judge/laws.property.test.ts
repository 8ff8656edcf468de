import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { TIMES } from '../../tests/support/times'
import { countLine } from '../dose/count-line'
import { RAMP_FLOORS, RAMP_NAMES, type RampQuantity, rampValue, readRamp } from '../dose/ramp'
import { repsOf } from '../library/scale-dose'
import type { LogEvent } from '../vocabulary/events'
import { SCHOOLS } from '../library/schools'
import { STARTER_LIBRARY, rungOf } from '../library/starter-library'
import { PHASES, REGIONS, type Level } from '../vocabulary/words'
import { BIG_LADDERS, bigHistory, bigStates } from '../../tests/support/big-history'
import { effectiveDose } from './effective-dose'
import { evidenceFor, gatherInput } from './gather-input'
import { judge } from './judge'
import { judgeAthlete } from './judge-athlete'
import { judgeContext } from './judge-context'
import { permitLine } from '../plan/permit-line'
import type { Concluded } from '../permit/known'
import { lockOf } from './locks'
import { resolveLine } from './resolve-line'
import {
	type Documents,
	type Exposure,
	type Judgement,
	type LadderState,
	type PainReport,
	VERDICT_WORDS,
	type VerdictInput,
} from './types'
import { athlete, input, next, noRamp, pain, usual } from '../../tests/support/verdict-fixture'

const ladders = Object.values(STARTER_LIBRARY.ladders).filter((ladder) => ladder.path === undefined)
const REENTRY = [
	null,
	null,
	null,
	{ pathId: 're-entry-run', rungId: 'run-80', since: '2026-03-01' },
	{ pathId: 're-entry-land', rungId: 'stick-one', since: '2026-03-01' },
] as const

const documentsOf = (one: VerdictInput): Documents => ({
	ladder: STARTER_LIBRARY.ladders[one.ladder.id]!,
	school: SCHOOLS.find((school) => school.id === one.school.id)!,
	drills: STARTER_LIBRARY.drills,
	paths: STARTER_LIBRARY.ladders,
})

/** Any well-typed input on any ladder, under any of the presets. */
/** Whose level a quantity's floor goes by. */
const LOADED = {
	hardContacts: 'plyometric',
	sharpCuts: 'agility',
	maximalStarts: 'sprint',
	fastMetres: 'sprint',
} as const
const anyLevel = fc.constantFrom<Level>(1, 2, 3)
const anyInput: fc.Arbitrary<VerdictInput> = fc
	.tuple(fc.constantFrom(...ladders), fc.constantFrom(...SCHOOLS))
	.chain(([ladder, school]) => {
		const anyRung = fc.constantFrom(...ladder.rungs.map((rung) => rung.id))
		const anyDose = fc.record({ sets: fc.integer({ min: 1, max: 5 }), reps: fc.integer({ min: 1, max: 15 }) })
		const anyMark = fc.record({
			kind: fc.constantFrom('sprint', 'contact', 'height', 'distance'),
			value: fc.double({ min: 0.05, max: 9, noNaN: true }),
			method: fc.constantFrom('gate', 'stopwatch', 'mat', 'tape'),
			flightS: fc.option(fc.double({ min: 0.1, max: 0.9, noNaN: true }), { nil: undefined }),
			side: fc.constantFrom('left', 'right', undefined),
		})
		const anyExposure = (sessionId: string, day: string) =>
			fc.record({
				sessionId: fc.constant(sessionId),
				day: fc.constant(day),
				rungId: anyRung,
				onRung: fc.boolean(),
				phase: fc.constantFrom(...PHASES),
				planned: anyDose,
				repsDone: fc.integer({ min: 0, max: 45 }),
				endReason: fc.constantFrom(null, 'drop-off', 'pain', 'coach', 'refusal', 'good-day'),
				marks: fc.array(anyMark, { maxLength: 8 }),
				quality: fc.record({ good: fc.nat(9), notYet: fc.nat(9), poor: fc.nat(9), setTaps: fc.nat(3) }),
				usual: fc.record({ gate: fc.double({ min: 1, max: 5, noNaN: true }).map(usual) }, { requiredKeys: [] }),
				firstDayBack: fc.boolean(),
				comfort: fc.constantFrom(
					null,
					{ worst: 1, braking: false },
					{ worst: 4, braking: false },
					{ worst: 0, braking: true },
				),
				loadOff: fc.constantFrom(null, 'speed-loss', 'movement'),
			}) as fc.Arbitrary<Exposure>
		const anyState = fc.record({
			ladderId: fc.constant(ladder.id),
			rungId: anyRung,
			dose: anyDose,
			substitute: fc.constantFrom(
				null,
				null,
				null,
				{ drillId: 'rope-jump', since: '2026-03-01' },
				{ drillId: 'hurdle-hop', since: '2026-03-01' },
			),
			passed: fc.boolean(),
			easedBy: fc.constantFrom(null, 'drop-off' as const, 'ramp' as const),
			done: fc.option(fc.subarray(ladder.rungs.map((rung) => rung.id)), { nil: undefined }),
			rungSince: fc.constantFrom(null, '2026-02-01', '2026-03-10'),
			back: fc.constantFrom(
				null,
				null,
				{ percent: 60 as const, since: null, stage: 'long' as const },
				{ percent: 90 as const, since: '2026-03-01', stage: 'short' as const },
			),
			reentry: fc.constantFrom(...REENTRY),
			ballKg: fc.constantFrom(null, null, 2),
		})
		const anyPain = fc.record({
			sessionId: fc.constantFrom('s1', 's2'),
			day: fc.constantFrom('2026-03-09', '2026-03-12'),
			region: fc.constantFrom(...REGIONS),
			side: fc.constantFrom('left', 'both'),
			score: fc.nat(10),
			redFlag: fc.boolean(),
		}) as fc.Arbitrary<PainReport>
		const anyDays = fc.array(
			fc.record({
				day: fc.constantFrom('2026-02-12', '2026-02-19', '2026-02-26', '2026-03-05', '2026-03-12', '2026-03-15'),
				unloading: fc.boolean(),
				value: fc.nat(90),
			}),
			{ maxLength: 8 },
		)
		return fc
			.record({
				state: anyState as fc.Arbitrary<LadderState>,
				exposures: fc.tuple(anyExposure('s1', '2026-03-09'), anyExposure('s2', '2026-03-12')),
				pains: fc.array(anyPain, { maxLength: 3 }),
				level: anyLevel,
				ageYears: fc.constantFrom(null, 14, 25),
				massKg: fc.constantFrom(null, 70, 110),
				unwell: fc.constantFrom(false, false, false, true),
				phase: fc.constantFrom(...PHASES),
				surface: fc.constantFrom('grass', 'wet-grass', 'gravel', null),
				hoursToMatch: fc.constantFrom(null, null, 24, 90),
				hoursSinceMatch: fc.constantFrom(null, null, 20),
				focus: fc.constantFrom(null, 'priority', 'kept'),
				restrictions: fc.constantFrom(
					[],
					[],
					[],
					[{ region: 'ankle', pattern: null, since: '2026-03-01', setBy: 'H. Brekke' }],
					[{ region: null, pattern: 'linear', since: '2026-03-01', setBy: 'H. Brekke' }],
				),
				worries: fc.constantFrom([], [], [{ drillId: 'standing-start', region: 'back-thigh', since: '2026-03-01' }]),
				work: fc.constantFrom(
					[],
					[
						{
							day: '2026-03-12',
							startTime: '17:30',
							families: ['sprint', 'plyometric'],
							kinds: ['maximal-sprint', 'hard-jumps'],
							outside: false,
						},
					],
					[
						{
							day: '2026-01-20',
							startTime: '17:30',
							families: ['sprint', 'plyometric', 'agility', 'throw'],
							kinds: [],
							outside: false,
						},
					],
				),
				advancesBefore: fc.constantFrom([], [], [{ ladderId: 'other', hard: true }]),
				nextDay: fc.constantFrom('2026-03-13', '2026-03-16', '2026-03-26'),
				ramp: fc.record({ hardContacts: anyDays, sharpCuts: anyDays, maximalStarts: anyDays, fastMetres: anyDays }),
				standings: fc.constantFrom(
					{},
					{
						brake: ['slow-10', 'stop-5', 'stop-10', 'dead-5', 'dead-10'],
						cut: ['wide', 'sharp-wide', 'cut-90'],
						acceleration: ['wall', 'a-run', 'standing-10', 'three-point-10'],
						shock: ['landing-15', 'landing-30', 'pause-15', 'pause-30'],
						'top-speed': ['fly-10-20'],
					},
				),
				others: fc.option(fc.record({ sprint: anyLevel, agility: anyLevel, plyometric: anyLevel }), { nil: undefined }),
			})
			.map(
				({
					state,
					exposures,
					pains,
					level,
					ageYears,
					massKg,
					unwell,
					phase,
					surface,
					hoursToMatch,
					hoursSinceMatch,
					nextDay,
					others,
					...rest
				}): VerdictInput => ({
					...input(ladder.id, state, null, null),
					...(rest as unknown as Partial<VerdictInput>),
					exposures,
					pains,
					school: { id: school.id, version: school.version },
					athlete: athlete({ level, ageYears, massKg, unwell }),
					...(others ? { levels: { ...others, [ladder.family]: level } } : {}),
					next: next({ day: nextDay, phase, surface, hoursToMatch, hoursSinceMatch }),
				}),
			)
	})
const rank = (judgement: Judgement) => VERDICT_WORDS.indexOf(judgement.verdict)
/** The same cases in every run; more of them are drawn by chance. */
const holds = <T>(property: fc.IProperty<T>, numRuns = 1500): void =>
	fc.assert(property, TIMES > 1 ? { numRuns: numRuns * TIMES } : { numRuns, seed: 20261126 })
const entry = (ladderId: string) => ({
	drillId: '',
	ladderId,
	dose: { sets: 1, reps: 1 },
	parameters: {},
	rest: { repsS: 0, setsS: 0 },
	doseFactor: 1,
})

describe('laws of judging', () => {
	it('gives a verdict with a sentence and a trace to any well-typed input, twice the same', () => {
		holds(
			fc.property(anyInput, (one) => {
				const judgement = judge(one, documentsOf(one))
				expect(VERDICT_WORDS).toContain(judgement.verdict)
				expect(judgement.sentence.length).toBeGreaterThan(10)
				expect(judgement.trace.some((line) => line.rule === judgement.decidedBy && line.fired)).toBe(true)
				expect(repsOf(judgement.next.dose)).toBeGreaterThan(0)
				expect(judge(structuredClone(one), documentsOf(one))).toEqual(judgement)
			}),
		)
	})

	it('lets safety outrank performance: with a block or a swap asked for, nothing higher comes out', () => {
		holds(
			fc.property(anyInput, (one) => {
				const judgement = judge(one, documentsOf(one))
				const { regions } = documentsOf(one).drills[rungOf(documentsOf(one).ladder, one.state.rungId).rung.drillId]!
				// A 5 or more, or a red flag, where the drill loads the body, and anything at the head: nothing outranks it.
				if (
					one.pains.some(
						(report) =>
							(report.redFlag || report.score >= 5) &&
							!one.restrictions.some((held) => held.region === report.region) &&
							(report.region === 'neck-head' || (regions[report.region] ?? 0) > 0),
					)
				)
					expect(judgement.verdict).toBe('stop')
				if (judgement.trace.some((line) => line.rule === 'S3' && line.fired))
					expect(rank(judgement)).toBeLessThanOrEqual(VERDICT_WORDS.indexOf('hold'))
			}),
		)
	})

	it('never gives a higher verdict for more pain', () => {
		holds(
			fc.property(anyInput, fc.constantFrom(...REGIONS), fc.integer({ min: 1, max: 10 }), (one, region, score) => {
				const report = (value: number): PainReport => pain({ region, score: value })
				const less = judge({ ...one, pains: [...one.pains, report(score - 1)] }, documentsOf(one))
				const more = judge({ ...one, pains: [...one.pains, report(score)] }, documentsOf(one))
				expect(rank(more)).toBeLessThanOrEqual(rank(less))
			}),
		)
	})

	it('never prescribes a rung that is blocked, and never gets round a block', () => {
		holds(
			fc.property(anyInput, (one) => {
				const documents = documentsOf(one)
				const judgement = judge(one, documents)
				const { concluded } = judgeContext(one, documents)
				const withPassed = (passed: readonly string[]): Concluded => ({
					...concluded,
					facts: { ...concluded.facts, passed: { ...concluded.facts.passed, [one.ladder.id]: passed } },
				})
				const now = withPassed(judgement.next.done ?? concluded.facts.passed[one.ladder.id] ?? [])
				const asked = resolveLine(
					entry(one.ladder.id),
					judgement.next,
					STARTER_LIBRARY,
					now.facts,
					one.focus === 'kept',
				)
				const line = permitLine(
					asked,
					now,
					STARTER_LIBRARY,
					asked.blocked === null && asked.rungId === judgement.next.rungId,
				)
				if (judgement.verdict === 'advance' && judgement.next.rungId !== one.state.rungId) {
					const rung = rungOf(documents.ladder, judgement.next.rungId).rung
					expect(lockOf(withPassed(judgement.next.done ?? []).facts, rung)).toBeNull()
				}
				if (line.blocked !== null || line.rungId === null || judgement.next.substitute || judgement.next.reentry) return
				const rung = rungOf(documents.ladder, line.rungId).rung
				if (line.drillId !== rung.drillId) return
				const lock = lockOf(now.facts, rung)
				// The rung the athlete was put on stands although its gate asks for a word; nothing else does.
				if (lock && (lock.tier === 'block' || lock.rule !== 'S8')) throw new Error(`${rung.id} ${lock.words}`)
			}),
		)
	})

	it('moves one rung at most: upward only to the lowest that is open and not passed', () => {
		holds(
			fc.property(anyInput, (one) => {
				const documents = documentsOf(one)
				const { verdict, next: state } = judge(one, documents)
				if (verdict !== 'advance' || state.rungId === one.state.rungId) return
				expect(state.done).toContain(one.state.rungId)
				expect(state.done).not.toContain(state.rungId)
			}),
		)
	})

	it('never brings two new hard things, nor more advances than the school allows', () => {
		holds(
			fc.property(fc.array(anyInput, { minLength: 2, maxLength: 6 }), (many) => {
				const school = many[0]!.school
				const inputs = [
					...new Map(many.map((one) => [one.ladder.id, { ...one, school, advancesBefore: [], newRungs: [] }])).values(),
				]
				const moved = judgeAthlete(inputs, documentsOf).filter(
					({ input: one, judgement }) => judgement.verdict === 'advance' && judgement.next.rungId !== one.state.rungId,
				)
				const allowed = documentsOf(inputs[0]!).school.numbers.advancesPerSession
				expect(moved.length).toBeLessThanOrEqual(allowed)
			}),
			400,
		)
	})

	it('keeps the week within its limit after resolution, down to the smallest dose there is, or says to leave the line out', () => {
		holds(
			fc.property(anyInput, (one) => {
				const documents = documentsOf(one)
				const { verdict, next: state, cautions } = judge(one, documents)
				if (verdict === 'stop' || verdict === 'swap' || state.substitute || state.reentry) return
				const { rung } = rungOf(documents.ladder, state.rungId)
				const drill = documents.drills[rung.drillId]!
				if (lockOf(judgeContext(one, documents).concluded.facts, rung)?.tier === 'block') return
				const dose = effectiveDose(state, rung, drill, documents.school, {
					entry: 1,
					phase: one.next.phase,
					kept: one.focus === 'kept',
				})
				const count = countLine(drill, rung.parameters, dose)
				for (const quantity of Object.keys(RAMP_NAMES) as RampQuantity[]) {
					const { room } = readRamp(
						one.ramp[quantity],
						one.next.day,
						RAMP_FLOORS[one.levels?.[LOADED[quantity]] ?? one.athlete.level][quantity],
						documents.school.numbers.rampPercent,
					)
					const planned = rampValue(count, quantity)
					if (planned === 0 || planned <= room + 1e-9) continue
					expect(
						repsOf(dose) <= 2 || cautions.some((caution) => caution.rule === 'S7'),
						`${rung.id} ${quantity}: ${planned} planned, room ${room}`,
					).toBe(true)
				}
			}),
		)
	})

	it('never lets an obeyed stop suggestion cost a pass', () => {
		holds(
			fc.property(anyInput, fc.constantFrom('drop-off', 'coach', 'weather'), (one, reason) => {
				const latest = one.exposures[1]!
				const whole: Exposure = { ...latest, repsDone: repsOf(latest.planned), endReason: null }
				const stopped: Exposure = {
					...latest,
					repsDone: Math.max(1, repsOf(latest.planned) - 1),
					endReason: reason as 'coach',
				}
				const [full, obeyed] = [whole, stopped].map((exposure) =>
					judge({ ...one, exposures: [one.exposures[0]!, exposure] }, documentsOf(one)),
				)
				expect(rank(obeyed!)).toBeGreaterThanOrEqual(rank(full!))
			}),
		)
	})
})

describe('the order of arrival', () => {
	const history = bigHistory(3, 1, '2026-03-12')
	const session = history.sessions.at(-1)!
	const line = history.lines.find((one) => one.sessionId === session.id && one.ladderId === 'acceleration')!
	const on = {
		sessionId: session.id,
		athleteId: history.athleteId,
		deviceTime: '2026-03-12T18:00:00Z',
		entryId: line.entryId,
		lineId: line.id,
	}
	// Two phones, the same rep twice, reports and decisions: whatever a field day brings.
	const told: LogEvent[] = [
		{
			...on,
			id: 'x1',
			deviceId: 'e',
			deviceSeq: 1,
			setNo: 1,
			repNo: 2,
			type: 'mark',
			kind: 'sprint',
			value: { splits: [{ distanceM: 10, timeS: 2.3 }], method: 'stopwatch' },
		},
		{
			...on,
			id: 'x2',
			deviceId: 'e',
			deviceSeq: 2,
			type: 'observation',
			kind: 'pain',
			value: { region: 'calf', side: 'left', score: 2, moment: 'during', redFlag: false },
		},
		{
			...on,
			id: 'x3',
			deviceId: 'd',
			deviceSeq: 3,
			type: 'observation',
			kind: 'pain',
			value: { region: 'calf', side: 'left', score: 4, moment: 'during', redFlag: false },
		},
		{ ...on, id: 'x4', deviceId: 'e', deviceSeq: 4, type: 'decision', kind: 'end-set', value: { reason: 'coach' } },
		{ ...on, id: 'x5', deviceId: 'd', deviceSeq: 5, type: 'decision', kind: 'end-set', value: { reason: 'drop-off' } },
	]
	const recent = [...history.events.slice(-300), ...told]
	const rest = history.events.slice(0, -300)
	const judgeAll = (events: LogEvent[]) => {
		const drillOf = (id: string) => STARTER_LIBRARY.drills[id]!
		const evidence = evidenceFor(session, { ...history, events }, drillOf)
		const next = { day: '2026-03-16', startTime: '17:30', phase: 'accumulate' as const, surface: 'grass' as const }
		const inputs = BIG_LADDERS.map((id) =>
			gatherInput(
				{
					session: { ...session, next },
					ladder: STARTER_LIBRARY.ladders[id]!,
					state: bigStates().get(id)!,
					level: 2,
					school: SCHOOLS[0]!,
					focus: null,
					standings: {},
					returning: [],
					closures: [{ region: 'calf', side: 'left', grade: 'spare', since: session.day }],
					levels: {},
				},
				evidence,
				drillOf,
			),
		)
		return judgeAthlete(inputs, documentsOf)
	}

	it('changes no verdict and no word of a trace', () => {
		const asWritten = judgeAll([...rest, ...recent])
		expect(asWritten.some(({ judgement }) => judgement.decidedBy === 'S1')).toBe(true)
		holds(
			fc.property(fc.shuffledSubarray(recent, { minLength: recent.length }), fc.boolean(), (shuffled, first) => {
				expect(judgeAll(first ? [...shuffled, ...rest] : [...rest, ...shuffled])).toEqual(asWritten)
			}),
			40,
		)
	})
})

describe('reaching every rung', () => {
	/** Passes every day until nothing moves, through all phases; what is left is closed. */
	function climb(schoolIndex: number): { reached: Set<string>; closed: Map<string, string> } {
		const school = SCHOOLS[schoolIndex]!
		const states = new Map(
			ladders.map((ladder) => [
				ladder.id,
				{
					ladderId: ladder.id,
					rungId: ladder.rungs[0]!.id,
					dose: ladder.rungs[0]!.dose,
					substitute: null,
					passed: false,
					easedBy: null,
					done: [] as string[],
					rungSince: '2026-01-01',
				} as LadderState,
			]),
		)
		const reached = new Set<string>()
		const closed = new Map<string, string>()
		for (let round = 0; round < 120; round++) {
			const standings = Object.fromEntries(
				[...states.values()].map((state) => [
					state.ladderId,
					[...(state.done ?? []), ...(state.passed ? [state.rungId] : [])],
				]),
			)
			for (const ladder of ladders) {
				const state = states.get(ladder.id)!
				const one = passing(
					state,
					school,
					PHASES[round % 3]!,
					standings,
					`${2027 + Math.floor(round / 24)}-0${1 + (round % 8)}-10`,
				)
				const { facts } = judgeContext(one, documentsOf(one)).concluded
				const rung = rungOf(ladder, state.rungId).rung
				const lock = lockOf(facts, rung)
				if (lock === null) {
					reached.add(`${ladder.id}/${rung.id}`)
					states.set(ladder.id, judge(one, documentsOf(one)).next)
				}
				for (const other of ladder.rungs) {
					const why = lockOf(facts, other)
					if (why?.skip) closed.set(`${ladder.id}/${other.id}`, why.words)
				}
			}
		}
		return { reached, closed }
	}

	/** Two perfect exposures of the rung, whatever it asks. */
	function passing(
		state: LadderState,
		school: (typeof SCHOOLS)[number],
		phase: (typeof PHASES)[number],
		standings: Record<string, string[]>,
		day: string,
	): VerdictInput {
		const { rung } = rungOf(STARTER_LIBRARY.ladders[state.ladderId]!, state.rungId)
		const method = rung.pass.kind === 'contact-ceiling' ? 'mat' : rung.pass.kind === 'not-below' ? 'tape' : 'gate'
		const kind =
			rung.pass.kind === 'contact-ceiling' ? 'contact' : rung.pass.kind === 'not-below' ? rung.pass.of : 'sprint'
		const value = kind === 'contact' ? 0.14 : kind === 'sprint' ? 3 : kind === 'height' ? 0.5 : 8
		const marks =
			rung.pass.kind === 'quality' || rung.pass.kind === 'comfort'
				? []
				: Array.from({ length: 6 }, (): Exposure['marks'][number] => ({
						kind,
						value,
						method: kind === 'height' ? ('mat' as const) : (method as 'gate'),
						...(kind === 'contact' ? { flightS: 0.5 } : {}),
					}))
		const exposure = (sessionId: string, on: string): Exposure => ({
			sessionId,
			day: on,
			rungId: rung.id,
			onRung: true,
			planned: rung.dose,
			repsDone: repsOf(rung.dose),
			endReason: null,
			marks,
			quality: { good: 9, notYet: 0, poor: 0, setTaps: 1 },
			usual: marks[0] ? { [marks[0].method]: usual(value) } : {},
			comfort: { worst: 0, braking: false },
		})
		return {
			...input(state.ladderId, state, null, null),
			day,
			school: { id: school.id, version: school.version },
			state,
			standings,
			ramp: noRamp,
			focus: null,
			athlete: athlete({ level: 3, contrastHelps: true }),
			next: next({ day: day.replace('-10', '-28'), phase }),
			exposures: [
				exposure('s0', day.replace('-10', '-05')),
				exposure('s1', day.replace('-10', '-07')),
				exposure('s2', day),
			],
		}
	}

	it.each(SCHOOLS.map((school, index) => [school.name, index] as const))(
		'from an empty athlete, %s: every rung is reached or listed as closed',
		(_name, index) => {
			const { reached, closed } = climb(index)
			const missing = ladders
				.flatMap((ladder) => ladder.rungs.map((rung) => `${ladder.id}/${rung.id}`))
				.filter((key) => !reached.has(key) && !closed.has(key))
			const school = SCHOOLS[index]!
			// What waits behind a rung the school closes is out of reach with it.
			const behind = missing.filter(
				(key) =>
					!ladders
						.find((ladder) => ladder.id === key.split('/')[0])!
						.rungs.find((rung) => rung.id === key.split('/')[1])!
						.gates.some((gate) => gate.kind === 'passed' && closed.has(`${gate.ladderId}/${gate.rungId}`)),
			)
			expect(behind).toEqual([])
			expect(reached.size, school.name).toBeGreaterThan(100)
		},
	)
})
