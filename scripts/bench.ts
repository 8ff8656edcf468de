import os from 'node:os'
import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { fitSprintProfile } from '../core/measure/sprint/fit-profile'
import { forceVelocity } from '../core/measure/sprint/force-velocity'
import { solveSprintTime, timeAtDistance } from '../core/measure/sprint/sprint-curve'
import { splitIntoLanes } from '../core/measure/sprint/wicket-lanes'

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

const random = randomFrom(1)
const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
const runs = Array.from({ length: 500 }, () => {
	const [mss, tau] = [5 + 7 * random(), 0.7 + random()]
	return [5, 10, 20, 30, 40].map((distanceM) => ({ distanceM, timeS: timeAtDistance(mss, tau, distanceM) + 0.01 * normal() }))
})
const general = (splits: (typeof runs)[number]) => levenbergMarquardt({ x: splits.map((s) => s.distanceM), y: splits.map((s) => s.timeS) }, ([mss, tau]: number[]) => (d: number) => tau! * solveSprintTime(d / (mss! * tau!)), {
	initialValues: [8, 1.1], damping: 1e-2, maxIterations: 30, gradientDifference: 1e-6, errorTolerance: 1e-12,
}).parameterValues

// The two must find the same curves, or their speeds do not compare.
const apart = Math.max(...runs.slice(0, 100).map((splits) => Math.abs(general(splits)[0]! / fitSprintProfile({ splits, correction: 'none' }).mssMps - 1)))
const steps = Array.from({ length: 40 }, () => 1.5 + random())
const ROWS: [string, { cpu: number; wall: number }][] = [
	['sprint fit, 5 splits, no correction', perSecond((i) => fitSprintProfile({ splits: runs[i % runs.length]!, correction: 'none' }))],
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
for (const [name, { cpu, wall }] of ROWS) console.log(`${name.padEnd(50)}${Math.round(cpu).toLocaleString('en').padStart(12)}${Math.round(wall).toLocaleString('en').padStart(12)}`)
