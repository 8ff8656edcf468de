import os from 'node:os'
import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { fitSprintProfile } from '../core/measure/sprint/fit-profile'
import { forceVelocity } from '../core/measure/sprint/force-velocity'
import { solveSprintTime, timeAtDistance } from '../core/measure/sprint/sprint-curve'
import { splitIntoLanes } from '../core/measure/sprint/wicket-lanes'
import { QUALITY_FIRST } from '../core/library/schools'
import { type FlowEntry, simulateFlow } from '../core/plan/flow'
import { previewSheet } from '../core/plan/preview-sheet'
import { proposeSession } from '../core/plan/propose-session'
import { searchPlans } from '../core/plan/what-if'
import { STARTER_LIBRARY } from '../core/library/starter-library'
import { evidenceFor, gatherInput } from '../core/judge/gather-input'
import { judgeAthlete } from '../core/judge/judge-athlete'
import { passedRungs } from '../core/judge/locks'
import type { VerdictInput } from '../core/judge/types'
import { ADVANCED, BEGINNER, TRAINED, plainAthlete, plainRequest } from '../tests/support/plain-squad'
import type { Level } from '../core/vocabulary/words'
import { BIG_LADDERS, bigHistory, bigStates } from '../tests/support/big-history'

/** Seeded, so that every run measures the same work. */
function randomFrom(seed: number): () => number {
	let state = seed
	return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32
}

/** Best of several rounds by processor time: on a shared machine the wall clock measures the neighbours. */
function perSecond(work: (index: number) => void, rounds = 5, seconds = 1): { cpu: number; wall: number } {
	let [cpu, wall] = [0, 0]
	for (let round = 0; round < rounds; round++) {
		const before = process.cpuUsage()
		const began = performance.now()
		let done = 0
		while (performance.now() - began < seconds * 1000) for (let i = 0; i < 64; i++) work(done++)
		const { user, system } = process.cpuUsage(before)
		cpu = Math.max(cpu, done / ((user + system) / 1e6))
		wall = Math.max(wall, done / ((performance.now() - began) / 1000))
	}
	return { cpu, wall }
}

/** Warm, the least of seven rounds, ms. */
function best(work: () => unknown): { cpu: number; wall: number } {
	for (let warm = 0; warm < 5; warm++) work()
	const rounds = Array.from({ length: 7 }, () => {
		const before = process.cpuUsage()
		const began = performance.now()
		work()
		const { user, system } = process.cpuUsage(before)
		return { cpu: (user + system) / 1000, wall: performance.now() - began }
	})
	return { cpu: Math.min(...rounds.map((round) => round.cpu)), wall: Math.min(...rounds.map((round) => round.wall)) }
}

/** The calculations and judgements, by processor time, beside a general-purpose package where there is one. */
export function benchCore(): void {
	const random = randomFrom(1)
	const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
	const runs = Array.from({ length: 500 }, () => {
		const [mss, tau] = [5 + 7 * random(), 0.7 + random()]
		return [5, 10, 20, 30, 40].map((distanceM) => ({
			distanceM,
			timeS: timeAtDistance(mss, tau, distanceM) + 0.01 * normal(),
		}))
	})
	const general = (splits: (typeof runs)[number]) =>
		levenbergMarquardt(
			{ x: splits.map((s) => s.distanceM), y: splits.map((s) => s.timeS) },
			([mss, tau]: number[]) =>
				(d: number) =>
					tau! * solveSprintTime(d / (mss! * tau!)),
			{
				initialValues: [8, 1.1],
				damping: 1e-2,
				maxIterations: 30,
				gradientDifference: 1e-6,
				errorTolerance: 1e-12,
			},
		).parameterValues

	// The two must find the same curves, or their speeds do not compare.
	const apart = Math.max(
		...runs
			.slice(0, 100)
			.map((splits) => Math.abs(general(splits)[0]! / fitSprintProfile({ splits, correction: 'none' }).mssMps - 1)),
	)
	const steps = Array.from({ length: 40 }, () => 1.5 + random())
	const ROWS: [string, { cpu: number; wall: number }][] = [
		[
			'sprint fit, 5 splits, no correction',
			perSecond((i) => fitSprintProfile({ splits: runs[i % runs.length]!, correction: 'none' })),
		],
		['the same by ml-levenberg-marquardt', perSecond((i) => general(runs[i % runs.length]!), 2)],
		['sprint fit, 5 splits, time correction', perSecond((i) => fitOrRefuse(i, 'time'))],
		['sprint fit, 5 splits, start distance estimated', perSecond((i) => fitOrRefuse(i, 'start-distance'))],
		['force–velocity', perSecond(() => forceVelocity({ mssMps: 9, tauS: 1.2, massKg: 70, heightM: 1.75 }), 3)],
		['lanes for 40 athletes, 4 spacings', perSecond(() => splitIntoLanes(steps, 4), 3)],
	]

	function fitOrRefuse(index: number, correction: 'time' | 'start-distance'): void {
		try {
			fitSprintProfile({ splits: runs[index % runs.length]!, correction })
		} catch (error) {
			if (!(error instanceof RangeError)) throw error
		}
	}

	console.log(`${os.cpus().length} cores, one used; Node ${process.versions.node}`)
	console.log(`largest difference in MSS between the two fits: ${(apart * 100).toExponential(1)} %\n`)
	console.log(`${'a second, best round'.padEnd(50)}${'processor'.padStart(12)}${'wall clock'.padStart(12)}`)
	for (const [name, { cpu, wall }] of ROWS)
		console.log(
			`${name.padEnd(50)}${Math.round(cpu).toLocaleString('en').padStart(12)}${Math.round(wall).toLocaleString('en').padStart(12)}`,
		)

	// A whole club after one session: three seasons of twice a week behind it.
	const [ATHLETES, SEASONS, LAST_DAY] = [60, 3, '2026-11-20'] as const
	const drillOf = (id: string) => STARTER_LIBRARY.drills[id]!
	const documentsOf = (input: VerdictInput) => ({
		ladder: STARTER_LIBRARY.ladders[input.ladder.id]!,
		school: QUALITY_FIRST,
		drills: STARTER_LIBRARY.drills,
		paths: STARTER_LIBRARY.ladders,
	})
	const histories = Array.from({ length: ATHLETES }, (_, index) => bigHistory(index, SEASONS, LAST_DAY))
	const states = bigStates()
	const standings = Object.fromEntries(
		[...states].map(([id, state]) => [id, passedRungs(state, STARTER_LIBRARY.ladders[id]!)]),
	)
	const gatherAll = (): VerdictInput[][] =>
		histories.map((history) => {
			const session = history.sessions.at(-1)!
			const evidence = evidenceFor(session, history, drillOf)
			return BIG_LADDERS.map((id) =>
				gatherInput(
					{
						session: {
							...session,
							next: { day: '2026-11-24', startTime: '17:30', phase: 'accumulate', surface: 'grass' },
						},
						ladder: STARTER_LIBRARY.ladders[id]!,
						state: states.get(id)!,
						level: 2,
						school: QUALITY_FIRST,
						focus: null,
						standings,
						closures: [],
						returning: [],
						levels: {},
					},
					evidence,
					drillOf,
				),
			)
		})
	const inputs = gatherAll()
	const judgeAll = (all: VerdictInput[][]) => all.reduce((sum, own) => sum + judgeAthlete(own, documentsOf).length, 0)
	const sessions = histories[0]!.sessions.length
	console.log(
		`\n${ATHLETES} athletes × ${BIG_LADDERS.length} ladders, ${sessions} sessions each, ${histories.reduce((sum, history) => sum + history.events.length, 0).toLocaleString('en')} events: ${judgeAll(inputs)} verdicts\n`,
	)
	console.log(`${'ms, best of 7'.padEnd(50)}${'processor'.padStart(12)}${'wall clock'.padStart(12)}`)
	for (const [name, { cpu, wall }] of [
		['judging, inputs at hand', best(() => judgeAll(inputs))],
		['gathering from the history, and judging', best(() => judgeAll(gatherAll()))],
	] as const)
		console.log(`${name.padEnd(50)}${cpu.toFixed(0).padStart(12)}${wall.toFixed(0).padStart(12)}`)

	// Forty athletes through eight drills: every combination of lanes, pairs and order of the four slowest.
	const flowEntries = Array.from(
		{ length: 8 },
		(_, entry): FlowEntry => ({
			id: `e${entry}`,
			name: `Drill ${entry}`,
			lanes: 1,
			together: 1,
			atOnce: false,
			setUpMin: 1.5,
			athletes: Array.from({ length: 40 }, (_, athlete) => ({
				id: `a${athlete}`,
				turns: 2 + ((entry + athlete) % 5),
				turnS: 4 + ((entry * 7 + athlete) % 12),
				restS: 45 + 15 * ((entry + athlete) % 6),
				turnsInSet: 1,
				setRestS: 45 + 15 * ((entry + athlete) % 6),
			})),
		}),
	)
	const began = performance.now()
	const { looked } = searchPlans(flowEntries, { maxLanes: 4, minutes: 90 })
	const alone = best(() => simulateFlow(flowEntries))
	console.log(
		`\nwhat if, 40 athletes × 8 drills: ${looked.toLocaleString('en')} plans in ${Math.round(performance.now() - began)} ms (aim: 500 a second); one whole plan simulated alone ${alone.cpu.toFixed(1)} ms`,
	)

	// The same forty, a session from its targets: once with time for all of it, once with too little.
	const forty = Array.from({ length: 40 }, (_, index) =>
		plainAthlete(`a${index}`, ((index % 3) + 1) as Level, [BEGINNER, TRAINED, ADVANCED][index % 3]!, {
			rooms: { maximalStarts: 10 + index, hardContacts: 60 },
		}),
	)
	for (const minutes of [150, 75]) {
		const proposal = proposeSession(plainRequest(forty, { minutes, mostLanes: 6 }))
		const { cpu, wall } = best(() => proposeSession(plainRequest(forty, { minutes, mostLanes: 6 })))
		console.log(
			`a session proposed for 40 athletes in ${minutes} min: ${proposal.entries.length} drills, ${Math.round(proposal.minutes)} min, ${cpu.toFixed(0)} ms processor, ${wall.toFixed(0)} ms wall clock (aim: 300)`,
		)
	}
	for (const theme of ['acceleration', 'rebound', 'turns', 'throws'].map((id) => STARTER_LIBRARY.themes[id]!)) {
		const asked = plainRequest(forty, { minutes: 90, mostLanes: 6 })
		const request = { ...asked, target: { ...asked.target, theme } }
		const proposal = proposeSession(request)
		const { cpu, wall } = best(() => proposeSession(request))
		console.log(
			`the same about ${theme.name.toLowerCase()} in 90 min: ${proposal.entries.length} drills, ${cpu.toFixed(0)} ms processor, ${wall.toFixed(0)} ms wall clock (aim: 300)`,
		)
	}
	benchKeystroke(forty)
}

/** A sheet of eight drills in the builder while somebody types into one of them: what each key asks for. */
function benchKeystroke(forty: ReturnType<typeof plainAthlete>[]): void {
	const { entries } = proposeSession(plainRequest(forty, { minutes: 90, mostLanes: 6 }))
	const context = { ...plainRequest(forty).context, target: plainRequest(forty).target }
	const whole = best(() =>
		previewSheet(
			entries.map((entry) => ({ ...entry })),
			forty.map((athlete) => ({ ...athlete })),
			context,
		),
	)
	let typed = 0
	const key = best(() =>
		previewSheet(
			entries.map((entry, index) => (index === 3 ? { ...entry, dose: { sets: 2, reps: 1 + (typed++ % 9) } } : entry)),
			forty,
			context,
		),
	)
	console.log(
		`a sheet of ${entries.length} drills for 40 athletes in the builder: ${whole.wall.toFixed(0)} ms at first, ${key.wall.toFixed(0)} ms a keystroke (aim: 50)`,
	)
}
