import { type Dose, NO_REST, type Parameters } from '../vocabulary/dose'
import type { Gate, Ladder, PassCriterion, Rung } from '../vocabulary/ladder'
import type { Level } from '../vocabulary/words'

const BY_EYE: PassCriterion = { kind: 'quality' }
const NEAR_OWN_BEST: PassCriterion = { kind: 'time-within', percent: 3 }
const PACE_KEPT: PassCriterion = { kind: 'time-within', percent: 5 }
const SHORT_CONTACT: PassCriterion = { kind: 'contact-ceiling' }
const COMFORT: PassCriterion = { kind: 'comfort' }
const after = (ladderId: string, rungId: string): Gate => ({ kind: 'passed', ladderId, rungId })

type Extra = Partial<Pick<Rung, 'gates' | 'marksLevel' | 'variations' | 'pieces' | 'turns' | 'wornAt'>>

/** From level 2 on a rung asks for the athlete's level in its family; level 1 is where everybody starts. */
function rung(
	id: string,
	name: string,
	level: Level,
	drillId: string,
	parameters: Parameters,
	dose: readonly [number, number],
	rest: readonly [repsS: number, setsS: number],
	pass: PassCriterion,
	{ gates = [], ...extra }: Extra = {},
): Rung {
	const [sets, reps] = dose
	return {
		id,
		name,
		level,
		drillId,
		parameters,
		dose: { sets, reps } satisfies Dose,
		rest: { repsS: rest[0], setsS: rest[1] },
		pass,
		gates: level > 1 ? [{ kind: 'level' }, ...gates] : gates,
		...extra,
	}
}

const box = (
	kind: 'landing' | 'pause' | 'depth' | 'double',
	heightCm: number,
	level: Level,
	extra: Extra = {},
): Rung => {
	if (kind === 'landing')
		return rung(
			`landing-${heightCm}`,
			`Drop landing ${heightCm} cm`,
			level,
			'drop-landing',
			{ heightCm },
			[3, 5],
			[5, 60],
			BY_EYE,
			extra,
		)
	if (kind === 'pause')
		return rung(
			`pause-${heightCm}`,
			`Pause jump ${heightCm} cm`,
			level,
			'pause-jump',
			{ heightCm },
			[3, 3],
			[5, 75],
			BY_EYE,
			extra,
		)
	const gates: Gate[] = [{ kind: 'depth-phase' }, ...(extra.gates ?? [])]
	if (kind === 'depth')
		return rung(
			`depth-${heightCm}`,
			`Depth jump ${heightCm} cm`,
			level,
			'depth-jump',
			{ heightCm },
			[5, 2],
			[8, 150],
			SHORT_CONTACT,
			{ ...extra, gates },
		)
	return rung(
		`double-${heightCm}`,
		`Double depth jump ${heightCm} cm`,
		level,
		'double-depth-jump',
		{ heightCm },
		[3, 2],
		[8, 180],
		SHORT_CONTACT,
		{ ...extra, gates },
	)
}
/** A rebound at a height asks for landing and pause at that height. */
const absorbed = (heightCm: number): Gate[] => [
	...(heightCm <= 45 ? [after('shock', `landing-${heightCm}`)] : []),
	after('shock', `pause-${heightCm}`),
]

const shock: Ladder = {
	id: 'shock',
	version: 3,
	name: 'Drop and rebound',
	family: 'plyometric',
	about:
		'Absorb, hold, then turn round at once. Contact time decides, not the height of the box. Always fresh, never more than five reps a set.',
	rungs: [
		box('landing', 15, 1),
		box('landing', 30, 1),
		box('pause', 15, 1),
		box('pause', 30, 1, { marksLevel: 2 }),
		box('depth', 15, 2, { gates: absorbed(15) }),
		box('depth', 30, 2, { gates: absorbed(30) }),
		box('landing', 45, 2),
		box('pause', 45, 2),
		box('depth', 45, 3, { gates: absorbed(45) }),
		box('pause', 60, 3),
		box('depth', 60, 3, { gates: absorbed(60) }),
		box('pause', 75, 3),
		box('depth', 75, 3, { gates: absorbed(75) }),
		box('double', 15, 3, { gates: [after('shock', 'depth-15')] }),
		box('double', 30, 3, { gates: [after('shock', 'depth-30')] }),
		box('double', 45, 3, { gates: [after('shock', 'depth-45')] }),
	],
}

const stiffness: Ladder = {
	id: 'stiffness',
	version: 3,
	name: 'Stiffness',
	family: 'plyometric',
	about: 'Ankle and calf that give the ground back at once. Many low contacts first, then few high ones.',
	rungs: [
		rung('calf-hold', 'Calf hold', 1, 'calf-hold', {}, [3, 2], [5, 30], BY_EYE),
		rung('step-and-stick', 'Step and stick 15 cm', 1, 'step-and-stick', { heightCm: 15 }, [2, 6], [0, 45], BY_EYE),
		rung('pogo', 'Two-foot pogo', 1, 'pogo', {}, [3, 15], [0, 60], BY_EYE, {
			marksLevel: 2,
			variations: [{ name: 'Rope', drillId: 'rope-jump', parameters: {} }],
		}),
		rung('pogo-for-height', 'Pogo for height', 2, 'pogo-for-height', {}, [3, 8], [0, 75], SHORT_CONTACT),
		rung('travelling-pogo', 'Travelling pogo 10 m', 2, 'travelling-pogo', { distanceM: 10 }, [3, 2], [10, 60], BY_EYE, {
			marksLevel: 3,
		}),
		rung('single-leg-pogo', 'Single-leg pogo', 3, 'single-leg-pogo', {}, [3, 6], [0, 75], SHORT_CONTACT),
		rung(
			'low-box-rebound',
			'Low-box rebound 15 cm',
			3,
			'low-box-rebound',
			{ heightCm: 15 },
			[3, 4],
			[8, 120],
			SHORT_CONTACT,
			{ gates: [{ kind: 'depth-phase' }, after('shock', 'pause-15')] },
		),
	],
}

const skipRhythm: Ladder = {
	id: 'skip-rhythm',
	version: 2,
	name: 'Skip rhythm',
	family: 'plyometric',
	about:
		'Two quick touches, kept for the whole distance, there and back. Who cannot find the rhythm gets up to 20 minutes of these.',
	rungs: (
		[
			['relaxed-skip', 'Relaxed skip 20 m'],
			['skip-opposite', 'Skip, opposite arm and leg'],
			['skip-overhead', 'Skip, arms overhead'],
			['skip-jack', 'Skip with jumping-jack arms'],
			['skip-wide', 'Wide skip'],
			['skip-lateral', 'Lateral skip'],
			['power-skip', 'Power skip'],
		] as const
	).map(([id, name]) => rung(id, name, 1, id, { distanceM: 20 }, [2, 2], [10, id === 'power-skip' ? 60 : 30], BY_EYE)),
}

const bound: Ladder = {
	id: 'bound',
	version: 2,
	name: 'Bound',
	family: 'plyometric',
	about: 'Long, horizontal pushes. Distance and contacts are measured; the foot strikes under the hip.',
	rungs: [
		rung('broad-jump', 'Broad jump with stick', 1, 'broad-jump', {}, [2, 3], [5, 60], BY_EYE),
		rung('repeated-broad-jump', 'Repeated broad jump ×3', 1, 'repeated-broad-jump', {}, [3, 2], [20, 90], BY_EYE),
		rung('mini-bound', 'Mini bound 20 m', 1, 'mini-bound', { distanceM: 20 }, [3, 1], [60, 60], BY_EYE, {
			marksLevel: 2,
		}),
		rung(
			'alternate-bounds',
			'Alternate bounds 20 m',
			2,
			'alternate-bounds',
			{ distanceM: 20 },
			[3, 1],
			[120, 120],
			BY_EYE,
			{
				marksLevel: 3,
				variations: [{ name: 'Triple bound', drillId: 'triple-bound', parameters: {} }],
			},
		),
		rung('bounds-for-distance', 'Bounds for distance ×5', 3, 'bounds-for-distance', {}, [4, 1], [150, 150], {
			kind: 'not-below',
			of: 'distance',
		}),
		rung('speed-bound', 'Speed bound 25 m', 3, 'speed-bound', { distanceM: 25 }, [3, 1], [150, 150], NEAR_OWN_BEST),
		rung('single-leg-hops', 'Single-leg hops ×4', 3, 'single-leg-hops', {}, [3, 1], [120, 120], {
			kind: 'not-below',
			of: 'distance',
		}),
		rung(
			'single-leg-bounds',
			'Single-leg bounds 20 m',
			3,
			'single-leg-bounds',
			{ distanceM: 20 },
			[2, 1],
			[180, 180],
			BY_EYE,
		),
	],
}

const lateralBound: Ladder = {
	id: 'lateral-bound',
	version: 2,
	name: 'Lateral bound',
	family: 'plyometric',
	about: 'Static before dynamic: the push follows a hold, never a double bounce.',
	rungs: [
		rung('lateral-two', 'Drop, hold, push: land on two', 1, 'lateral-two', {}, [2, 4], [5, 60], BY_EYE),
		rung('lateral-stick', 'Push and stick on one', 1, 'lateral-stick', {}, [2, 4], [5, 60], BY_EYE, { marksLevel: 2 }),
		rung('lateral-triple', 'Triple push and stick', 2, 'lateral-triple', {}, [2, 3], [5, 75], BY_EYE),
		rung('lateral-turn', 'Triple with a 90° push', 2, 'lateral-turn', {}, [2, 3], [5, 90], BY_EYE),
		rung('lateral-reach', 'With a reach', 2, 'lateral-reach', {}, [2, 4], [5, 75], BY_EYE, { marksLevel: 3 }),
		rung('lateral-hurdle', 'Over a low hurdle', 3, 'lateral-hurdle', { heightCm: 15 }, [2, 4], [10, 120], BY_EYE),
		rung('lateral-vertical', 'Into a vertical jump', 3, 'lateral-vertical', {}, [2, 3], [10, 120], BY_EYE),
		rung('lateral-burst', 'With a burst forward', 3, 'lateral-burst', { distanceM: 5 }, [2, 3], [10, 120], BY_EYE),
		rung('lateral-command', 'On command', 3, 'lateral-command', {}, [2, 4], [10, 120], BY_EYE),
	],
}

const APPROACHES = [
	[0, 'standing', 1],
	[1, 'one step', 1],
	[3, 'three steps', 2],
	[9, 'full approach', 3],
] as const
const PLANTS = [
	['take-off-two-lr', 'Two feet, left–right'],
	['take-off-two-rl', 'Two feet, right–left'],
	['take-off-left', 'Left foot'],
	['take-off-right', 'Right foot'],
] as const
const takeOff: Ladder = {
	id: 'take-off',
	version: 3,
	name: 'Take-off',
	family: 'plyometric',
	about: 'All four plants, from standing to the full approach. A plant that lags shows where height is lost.',
	rungs: APPROACHES.flatMap(([approachSteps, said, level]) =>
		PLANTS.map(([drillId, plant], index) =>
			rung(
				`${drillId.replace('take-off-', '')}-${approachSteps}`,
				`${plant}, ${said}`,
				level,
				drillId,
				{ approachSteps },
				[2, 3],
				[15, 75],
				{ kind: 'not-below', of: 'height' },
				{
					gates: [{ kind: 'school', question: 'plants', side: drillId.replace('take-off-', '') }],
					...(approachSteps === 1 && index === 3
						? { marksLevel: 2 as const }
						: approachSteps === 3 && index === 3
							? { marksLevel: 3 as const }
							: {}),
				},
			),
		),
	),
}

/** Heavy about half the speed, moderate a quarter, light a tenth; opened by a free 10 m mark. */
const pulls = (distanceM: number) =>
	(
		[
			['heavy', 50],
			['moderate', 25],
			['light', 10],
		] as const
	).map(([resistance, resistPercent]) => ({
		name: `Resisted start, ${resistance}`,
		drillId: 'resisted-start',
		parameters: { distanceM, resistPercent },
		resistance,
	}))
const acceleration: Ladder = {
	id: 'acceleration',
	version: 4,
	name: 'Acceleration',
	family: 'sprint',
	about: 'Posture first, speed second. Few reps: acceleration is a skill.',
	rungs: [
		rung('wall', 'Wall drill and march', 1, 'wall-drill', {}, [3, 6], [0, 45], BY_EYE),
		rung('a-run', 'A-run 20 m', 1, 'a-run', { distanceM: 20 }, [3, 2], [15, 45], BY_EYE),
		rung(
			'standing-10',
			'Standing start 10 m',
			1,
			'standing-start',
			{ distanceM: 10 },
			[1, 5],
			[90, 180],
			NEAR_OWN_BEST,
			{
				marksLevel: 2,
				variations: [
					{ name: 'Falling start', drillId: 'falling-start', parameters: { distanceM: 10 } },
					{ name: 'Rear heel held', drillId: 'heel-start', parameters: { distanceM: 10 } },
					...pulls(10),
				],
			},
		),
		rung(
			'three-point-10',
			'Three-point start 10 m',
			2,
			'three-point-start',
			{ distanceM: 10 },
			[1, 6],
			[90, 180],
			NEAR_OWN_BEST,
			{ variations: pulls(10) },
		),
		rung(
			'three-point-20',
			'Three-point start 20 m',
			2,
			'three-point-start',
			{ distanceM: 20 },
			[1, 6],
			[120, 240],
			NEAR_OWN_BEST,
			{
				marksLevel: 3,
				variations: [{ name: 'From blocks', drillId: 'block-start', parameters: { distanceM: 20 } }, ...pulls(15)],
			},
		),
		rung(
			'three-point-30',
			'Three-point start 30 m',
			3,
			'three-point-start',
			{ distanceM: 30 },
			[1, 5],
			[180, 360],
			NEAR_OWN_BEST,
			{ variations: pulls(20) },
		),
		rung(
			'reaction-20',
			'Start on a call 20 m',
			3,
			'reaction-start',
			{ distanceM: 20 },
			[1, 5],
			[120, 240],
			NEAR_OWN_BEST,
		),
	],
}

const topSpeed: Ladder = {
	id: 'top-speed',
	version: 2,
	name: 'Top speed',
	family: 'sprint',
	about:
		'Opens once the acceleration shapes are passed: two rungs, twice each, are about two weeks. Placed at the end of the acceleration part.',
	rungs: [
		rung('dribble-ankle', 'Dribble over the ankle', 1, 'dribble', { distanceM: 20 }, [3, 1], [30, 30], BY_EYE, {
			gates: [after('acceleration', 'a-run')],
		}),
		rung('dribble-shin', 'Dribble over the shin', 1, 'dribble-shin', { distanceM: 20 }, [3, 1], [30, 30], BY_EYE),
		rung('dribble-knee', 'Dribble over the knee', 1, 'dribble-knee', { distanceM: 25 }, [3, 1], [40, 40], BY_EYE),
		rung('a-run-30', 'A-run 30 m', 1, 'a-run', { distanceM: 30 }, [3, 2], [15, 45], BY_EYE),
		rung('wickets', 'Wickets', 1, 'wicket-run', { distanceM: 20, runInM: 15 }, [1, 4], [150, 300], BY_EYE, {
			marksLevel: 2,
		}),
		rung(
			'fly-10-20',
			'10 m fly, 20 m run-in',
			2,
			'fly-10',
			{ distanceM: 10, runInM: 20 },
			[1, 3],
			[180, 360],
			NEAR_OWN_BEST,
		),
		rung(
			'fly-10-30',
			'10 m fly, 30 m run-in',
			2,
			'fly-10',
			{ distanceM: 10, runInM: 30 },
			[1, 3],
			[240, 480],
			NEAR_OWN_BEST,
			{
				marksLevel: 3,
			},
		),
		rung(
			'fly-20-30',
			'20 m fly, 30 m run-in',
			3,
			'fly-20',
			{ distanceM: 20, runInM: 30 },
			[1, 3],
			[300, 600],
			NEAR_OWN_BEST,
		),
		rung('sixty-95', '60 m at 95–98 %', 3, 'sixty', { distanceM: 60, effortPercent: 97 }, [1, 2], [480, 960], {
			kind: 'time-within',
			percent: 5,
		}),
		rung(
			'sixty-full',
			'60 m full',
			3,
			'sixty',
			{ distanceM: 60, effortPercent: 100 },
			[1, 2],
			[480, 960],
			NEAR_OWN_BEST,
		),
	],
}

/** Pulled, then the same way free, so that the speed is taken along [common practice, no source]. */
const pulled = (assistPercent: number, name: string, gates: Gate[], turns?: Rung['turns']): Rung => {
	const free = { distanceM: 20, runInM: 20 }
	const pull = { ...free, assistPercent }
	return rung(`assist-${assistPercent}`, name, 3, 'assisted-fly', pull, [3, 1], [300, 300], COMFORT, {
		gates,
		pieces: [
			{ drillId: 'assisted-fly', reps: 1, parameters: pull, rest: NO_REST, judged: true },
			{ drillId: 'fly-20', reps: 1, parameters: free, rest: NO_REST, judged: false },
		],
		...(turns ? { turns } : {}),
	})
}
/** An easy, a middle and a hard week by turns. */
const byTurns = (most: number): NonNullable<Rung['turns']> =>
	(
		[
			['an easy week', 5],
			['a middle week', 10],
			['the most', most],
		] as const
	).map(([name, assistPercent]) => ({ name, parameters: { distanceM: 20, runInM: 20, assistPercent } }))
const assisted: Ladder = {
	id: 'assisted',
	version: 4,
	name: 'Assisted speed',
	family: 'sprint',
	about:
		'A pull over own top speed, in two-week steps; above 10 % an easy, a middle and a hard week by turns. A free run follows each pulled one. Comfort and no braking decide; an athlete may stay at 5–10 % for good.',
	rungs: [
		pulled(5, 'Assisted, 5 % over', [after('top-speed', 'fly-10-20')]),
		pulled(10, 'Assisted, 10 % over', [{ kind: 'days-below', days: 14 }]),
		pulled(15, 'Assisted, rotating to 15 %', [{ kind: 'days-below', days: 14 }], byTurns(15)),
		pulled(20, 'Assisted, rotating to 20 %', [{ kind: 'days-below', days: 14 }], byTurns(20)),
	],
}

const repeatSpeed: Ladder = {
	id: 'repeat-speed',
	version: 2,
	name: 'Repeat speed',
	family: 'sprint',
	about: 'Pace kept over repeated efforts: short shuttles with turns, then longer runs with a rolling start.',
	rungs: [
		rung(
			'shuttle-20',
			'Shuttle 20 m, one turn',
			1,
			'shuttle-repeat',
			{ distanceM: 20, angleDeg: 180 },
			[2, 3],
			[30, 90],
			PACE_KEPT,
			{ marksLevel: 2, gates: [after('cut', 'wide')] },
		),
		rung(
			'shuttle-40',
			'Shuttle 40 m',
			2,
			'shuttle-repeat',
			{ distanceM: 40, angleDeg: 180 },
			[2, 4],
			[30, 120],
			PACE_KEPT,
			{
				marksLevel: 3,
			},
		),
		rung('repeat-150', '2 × 3 × 150 m at pace', 3, 'repeat-run', { distanceM: 150 }, [2, 3], [120, 600], PACE_KEPT),
		rung('repeat-200', '2 × 3 × 200 m at pace', 3, 'repeat-run', { distanceM: 200 }, [2, 3], [120, 600], PACE_KEPT),
	],
}

const brake: Ladder = {
	id: 'brake',
	version: 2,
	name: 'Brake',
	family: 'agility',
	about: 'Who cannot stop cannot cut: every sharp angle waits for its stop.',
	rungs: [
		rung('slow-10', 'Slow down over steps, 10 m', 1, 'slow-down', { distanceM: 10 }, [2, 3], [15, 45], BY_EYE),
		rung('stop-5', 'Several steps to a stop, 5 m', 1, 'slow-to-stop', { distanceM: 5 }, [2, 3], [20, 60], BY_EYE),
		rung('stop-10', 'Several steps to a stop, 10 m', 1, 'slow-to-stop', { distanceM: 10 }, [2, 3], [20, 60], BY_EYE, {
			marksLevel: 2,
		}),
		rung('dead-5', 'Single-leg dead stop, 5 m', 2, 'dead-stop', { distanceM: 5 }, [2, 3], [30, 75], BY_EYE),
		rung('dead-10', 'Single-leg dead stop, 10 m', 2, 'dead-stop', { distanceM: 10 }, [2, 3], [30, 75], BY_EYE, {
			marksLevel: 3,
		}),
		rung('dead-15', 'Single-leg dead stop, 15 m', 3, 'dead-stop', { distanceM: 15 }, [2, 3], [30, 90], BY_EYE),
		rung('dead-20', 'Single-leg dead stop, 20 m', 3, 'dead-stop', { distanceM: 20 }, [2, 3], [30, 90], BY_EYE),
	],
}

const cut: Ladder = {
	id: 'cut',
	version: 4,
	name: 'Cut',
	family: 'agility',
	about: 'From a wide cut at a small angle to the full turn. Entry speed and angle trade off.',
	rungs: [
		rung('wide', 'Wide cut 45°', 1, 'wide-cut', { distanceM: 12, angleDeg: 45 }, [2, 4], [20, 45], BY_EYE, {
			variations: [{ name: 'Swerve 25°', drillId: 'swerve', parameters: { distanceM: 12, angleDeg: 25 } }],
		}),
		rung(
			'sharp-wide',
			'Aggressive wide cut 60°',
			1,
			'sharp-wide-cut',
			{ distanceM: 12, angleDeg: 60 },
			[2, 4],
			[30, 60],
			BY_EYE,
			{ marksLevel: 2, gates: [after('brake', 'stop-10')] },
		),
		rung('cut-90', '90° cut', 2, 'cut-90', { distanceM: 10, angleDeg: 90 }, [3, 3], [30, 60], BY_EYE, {
			gates: [after('brake', 'dead-10')],
		}),
		rung('soft-180', 'Soft 180° turn', 2, 'turn-180-soft', { distanceM: 10, angleDeg: 180 }, [3, 3], [30, 75], BY_EYE, {
			marksLevel: 3,
		}),
		rung('full-180', 'Full 180° turn', 3, 'turn-180', { distanceM: 10, angleDeg: 180 }, [3, 2], [30, 90], BY_EYE),
	],
}

const arc = (
	id: string,
	name: string,
	level: Level,
	drillId: string,
	radiusM: number,
	lengths: number,
	extra: Extra = {},
): Rung =>
	rung(
		`${id}-${radiusM}`,
		`${name}, ${radiusM} m`,
		level,
		drillId,
		{ radiusM, distanceM: Math.round(lengths * radiusM) },
		[2, 2],
		[30, 90],
		NEAR_OWN_BEST,
		extra,
	)
const curve: Ladder = {
	id: 'curve',
	version: 2,
	name: 'Curve',
	family: 'agility',
	about: 'Speed on a bend, both directions; either leg may steer. Radius falls as the shape grows.',
	rungs: [
		arc('quarter', 'Quarter arc', 1, 'arc-quarter', 12, Math.PI / 2),
		arc('half', 'Half arc', 1, 'arc-half', 12, Math.PI),
		arc('half', 'Half arc', 1, 'arc-half', 9, Math.PI, { marksLevel: 2 }),
		arc('figure-half', 'Half figure-eight', 2, 'figure-half', 9, 2 * Math.PI),
		arc('figure', 'Full figure-eight', 2, 'figure-eight', 9, 4 * Math.PI),
		arc('figure', 'Full figure-eight', 2, 'figure-eight', 6, 4 * Math.PI, { marksLevel: 3 }),
		arc('serpentine', 'Serpentine', 3, 'serpentine', 6, 2 * Math.PI),
		arc('serpentine', 'Serpentine', 3, 'serpentine', 4, 2 * Math.PI),
	],
}

const react: Ladder = {
	id: 'react',
	version: 2,
	name: 'React',
	family: 'agility',
	about:
		'Reading and deciding, on movements that are already safe when planned: each rung names the planned rung that opens it.',
	rungs: [
		rung(
			'crossover-eyes',
			'Crossover run, eyes on the coach',
			1,
			'crossover-eyes',
			{ distanceM: 10 },
			[2, 3],
			[15, 45],
			BY_EYE,
		),
		rung(
			'quick-feet-call',
			'Quick feet, then go on call',
			1,
			'quick-feet-call',
			{ distanceM: 10 },
			[2, 3],
			[20, 60],
			BY_EYE,
			{ marksLevel: 2, gates: [after('brake', 'stop-5')] },
		),
		rung(
			'point-and-go',
			'Point and go, two ways',
			2,
			'point-and-go',
			{ distanceM: 8, angleDeg: 60 },
			[2, 4],
			[30, 60],
			BY_EYE,
			{ gates: [after('cut', 'sharp-wide')] },
		),
		rung(
			'flip-call',
			'Flip on the second call',
			2,
			'flip-call',
			{ distanceM: 10, angleDeg: 90 },
			[2, 3],
			[30, 90],
			BY_EYE,
			{
				marksLevel: 3,
				gates: [after('cut', 'cut-90')],
			},
		),
		rung('mirror', 'Mirror a partner', 3, 'mirror', { distanceM: 8, angleDeg: 90 }, [2, 2], [30, 120], BY_EYE, {
			gates: [after('cut', 'cut-90')],
		}),
	],
}

const KEPT_DISTANCE: PassCriterion = { kind: 'not-below', of: 'distance' }
const throwing: Ladder = {
	id: 'throw',
	version: 2,
	name: 'Throw',
	family: 'throw',
	about:
		'From the trunk to the run-in, ball by body mass. Down a ball when release speed falls past the school’s limit.',
	rungs: [
		rung('kneeling', 'Chest push from kneeling', 1, 'kneeling-chest-push', { ballKg: 3 }, [2, 4], [10, 60], BY_EYE),
		rung('standing', 'Chest push standing', 1, 'standing-chest-push', { ballKg: 3 }, [2, 4], [10, 60], BY_EYE),
		rung('overhead', 'Overhead backward', 1, 'overhead-throw', { ballKg: 3 }, [2, 4], [10, 75], KEPT_DISTANCE),
		rung('underhand', 'Underhand forward', 1, 'underhand-throw', { ballKg: 3 }, [2, 4], [10, 75], KEPT_DISTANCE, {
			marksLevel: 2,
		}),
		rung(
			'rotational',
			'Rotational, left and right',
			2,
			'rotational-throw',
			{ ballKg: 3 },
			[2, 3],
			[10, 75],
			KEPT_DISTANCE,
			{
				marksLevel: 3,
			},
		),
		rung('step-in', 'Step-in throw', 3, 'step-in-throw', { ballKg: 2 }, [2, 3], [20, 90], KEPT_DISTANCE),
		rung('run-in', 'Run-in throw', 3, 'run-in-throw', { ballKg: 2, runInM: 10 }, [2, 3], [20, 120], KEPT_DISTANCE),
	],
}

const STEP_UP: Gate = { kind: 'days-below', days: 10 }
/** Near the joint first, then further out at the same weight; on the trunk there is no joint. */
const SHANK = { near: { segment: 'shank', fromJointCm: 10 }, far: { segment: 'shank', fromJointCm: 25 } } as const
const worn = (
	id: string,
	name: string,
	level: Level,
	drillId: string,
	loadG: number,
	wornAt: NonNullable<Rung['wornAt']>,
	gates: Gate[] = [STEP_UP],
): Rung => {
	const skips = drillId === 'carried-skip'
	return rung(
		id,
		name,
		level,
		drillId,
		{ distanceM: skips ? 20 : 30, loadG },
		skips ? [4, 2] : [2, 3],
		skips ? [30, 60] : [60, 120],
		skips ? BY_EYE : NEAR_OWN_BEST,
		{ gates, wornAt },
	)
}
const carried: Ladder = {
	id: 'carried-load',
	version: 3,
	name: 'Carried load',
	family: 'sprint',
	about:
		'Small weights on one body part, one thing changed at a time: further from the joint, then 100–200 g more, after ten days and more. Worn on 50–70 % of the reps, the first and the last free, 20–40 minutes, once a day, three or four days of seven, and never in an unloading week.',
	rungs: [
		worn('near-100', 'Near the knee, 100 g', 2, 'carried-skip', 100, SHANK.near, [
			after('acceleration', 'standing-10'),
		]),
		worn('far-100', 'Further from it, 100 g', 2, 'carried-skip', 100, SHANK.far),
		worn('run-100', 'Building run, 100 g', 2, 'carried-run', 100, SHANK.far),
		worn('run-250', 'Building run, 250 g', 3, 'carried-run', 250, SHANK.far),
		worn('run-400', 'Building run, 400 g', 3, 'carried-run', 400, SHANK.far),
		worn('vest-500', 'Building run, 500 g on the trunk', 3, 'trunk-load-run', 500, { segment: 'trunk' }),
		worn('vest-1000', 'Building run, 1 kg on the trunk', 3, 'trunk-load-run', 1000, { segment: 'trunk' }),
		worn('vest-1500', 'Building run, 1.5 kg on the trunk', 3, 'trunk-load-run', 1500, { segment: 'trunk' }),
		worn('vest-2000', 'Building run, 2 kg on the trunk', 3, 'trunk-load-run', 2000, { segment: 'trunk' }),
	],
}

const tissue: Ladder = {
	id: 'tissue',
	version: 3,
	name: 'Tissue',
	family: 'tissue',
	about:
		'Slow holds and slow tempo, 5–10 minutes, at least six hours from the fast session. More for the fast, stiff, often-hurt athlete; little for the strong, slow one. Food or supplements: a dietitian or doctor.',
	rungs: [
		rung('calf-two', 'Calf hold on two legs, knee straight', 1, 'calf-hold', {}, [3, 2], [5, 30], BY_EYE, {
			variations: [{ name: 'Knee bent', drillId: 'calf-hold-bent', parameters: {} }],
		}),
		rung('bridge', 'Long bridge hold', 1, 'bridge-hold', {}, [3, 1], [30, 30], BY_EYE),
		rung('split', 'Split squat hold', 1, 'split-hold', {}, [3, 1], [30, 30], BY_EYE, {
			variations: [{ name: 'With a load', drillId: 'loaded-lunge-hold', parameters: {} }],
		}),
		rung('calf-one', 'Calf hold on one leg', 1, 'calf-hold-one', {}, [3, 1], [30, 30], BY_EYE, {
			variations: [{ name: 'Heel floating off an edge', drillId: 'floating-heel-hold', parameters: {} }],
		}),
		rung('slow-raise', 'Slow calf raise', 1, 'slow-calf-raise', {}, [3, 6], [0, 45], BY_EYE),
		rung('slow-split', 'Slow split squat', 1, 'slow-split-squat', {}, [3, 4], [0, 45], BY_EYE),
	],
}

const capacity: Ladder = {
	id: 'capacity',
	version: 2,
	name: 'General capacity',
	family: 'prepare',
	about: 'How much of this, and which, is a question of school: carries and hard runs, or short sport-shaped shuttles.',
	rungs: [
		rung('easy-run', 'Easy run', 1, 'easy-run', { distanceM: 600 }, [1, 1], [0, 0], BY_EYE),
		rung('carry', 'Loaded carry 25 m', 1, 'loaded-carry', { distanceM: 25 }, [3, 1], [60, 60], BY_EYE),
		rung('sled', 'Sled walk 20 m', 1, 'sled-walk', { distanceM: 20 }, [4, 1], [75, 75], BY_EYE),
		rung('rope', 'Rope pull 15 m', 1, 'rope-pull', { distanceM: 15 }, [3, 1], [75, 75], BY_EYE),
		rung(
			'shuttles',
			'Short shuttles, 4 at a time',
			1,
			'shuttle-repeat',
			{ distanceM: 40, angleDeg: 180 },
			[2, 4],
			[30, 120],
			PACE_KEPT,
			{ gates: [{ kind: 'school', question: 'conditioning', side: 'shuttles' }, after('cut', 'wide')] },
		),
		rung('hard-200', 'Hard run 200 m', 1, 'hard-run', { distanceM: 200 }, [1, 4], [180, 360], PACE_KEPT, {
			gates: [{ kind: 'school', question: 'conditioning', side: 'long-runs' }],
		}),
		rung('hard-300', 'Hard run 300 m', 1, 'hard-run', { distanceM: 300 }, [1, 4], [180, 360], PACE_KEPT, {
			gates: [
				{ kind: 'school', question: 'volume', side: 'capacity' },
				{ kind: 'school', question: 'conditioning', side: 'long-runs' },
			],
		}),
	],
}

/** A heavy pull, then the same way free; the free start is what is judged. */
const heavyThenFree = (distanceM: number): NonNullable<Rung['pieces']> => [
	{ drillId: 'resisted-start', reps: 1, parameters: { distanceM, resistPercent: 50 }, rest: NO_REST, judged: false },
	{ drillId: 'contrast-start', reps: 1, parameters: { distanceM }, rest: NO_REST, judged: true },
]
const contrast: Ladder = {
	id: 'contrast',
	version: 3,
	name: 'Slow-to-fast contrast',
	family: 'sprint',
	about:
		'A heavy effort, five to ten minutes, then the fast one, which is what is judged. Individual response decides: try it against sessions without.',
	rungs: [
		rung(
			'heavy-free-10',
			'Heavy pull, then free 10 m',
			2,
			'contrast-start',
			{ distanceM: 10 },
			[2, 1],
			[420, 300],
			NEAR_OWN_BEST,
			{
				gates: [{ kind: 'school', question: 'contrast', side: 'use' }, after('acceleration', 'three-point-10')],
				pieces: heavyThenFree(10),
			},
		),
		rung(
			'heavy-free-20',
			'Heavy pull, then free 20 m',
			3,
			'contrast-start',
			{ distanceM: 20 },
			[3, 1],
			[480, 300],
			NEAR_OWN_BEST,
			{ gates: [{ kind: 'school', question: 'contrast', side: 'use' }], pieces: heavyThenFree(20) },
		),
	],
}

const back = (effortPercent: number): Rung =>
	rung(
		`run-${effortPercent}`,
		`Run at ${effortPercent} %`,
		1,
		effortPercent >= 90 ? 'return-run' : 'build-run',
		{ distanceM: 30, runInM: 15, effortPercent },
		effortPercent >= 90 ? [1, 4] : [1, 5],
		effortPercent >= 90 ? [240, 480] : [120, 120],
		COMFORT,
	)
const returnRun: Ladder = {
	id: 're-entry-run',
	version: 3,
	name: 'Back to running',
	family: 'sprint',
	path: 're-entry',
	about:
		'One step a session, four to six reps, 48 hours between steps from 90 % up. Discomfort of 1 or more ends the day and repeats the step.',
	rungs: [
		rung('walk', 'Walk through the shapes', 1, 'walk-through', { distanceM: 20 }, [1, 4], [30, 30], COMFORT),
		rung('shapes', 'Drills', 1, 'a-run', { distanceM: 20 }, [2, 2], [15, 45], COMFORT),
		rung(
			'pulls',
			'Short, moderate pulls',
			1,
			'return-pull',
			{ distanceM: 10, resistPercent: 30, effortPercent: 60 },
			[1, 4],
			[90, 120],
			COMFORT,
			{ gates: [{ kind: 'school', question: 'returnPulls', side: 'pulls-first' }] },
		),
		back(60),
		back(70),
		back(80),
		back(90),
		back(95),
		back(100),
	],
}
const returnLand: Ladder = {
	id: 're-entry-land',
	version: 2,
	name: 'Back to landing',
	family: 'plyometric',
	path: 're-entry',
	about: 'For ankle and knee: two feet, one foot, spring, then a planned small cut before a sharp one.',
	rungs: [
		rung('stick-two', 'Stick on two feet', 1, 'two-foot-stick', {}, [2, 3], [5, 45], COMFORT),
		rung('stick-one', 'Stick on one foot', 1, 'one-foot-stick', {}, [2, 2], [5, 60], COMFORT),
		rung('pogo', 'Pogo', 1, 'pogo', {}, [2, 10], [0, 60], COMFORT),
		rung('cut-45', 'Planned cut to 45°', 1, 'wide-cut', { distanceM: 10, angleDeg: 45 }, [2, 2], [20, 60], COMFORT),
		rung('cut-90', 'Planned 90° cut', 1, 'cut-90', { distanceM: 10, angleDeg: 90 }, [2, 2], [30, 75], COMFORT),
	],
}
const returnThrow: Ladder = {
	id: 're-entry-throw',
	version: 2,
	name: 'Back to throwing',
	family: 'throw',
	path: 're-entry',
	about: 'By ball and effort: the light ball at half effort first.',
	rungs: [
		rung(
			'toss-50',
			'Easy toss, 1 kg, 50 %',
			1,
			'easy-toss',
			{ ballKg: 1, effortPercent: 50 },
			[1, 5],
			[45, 45],
			COMFORT,
		),
		rung('toss-70', 'Toss, 1 kg, 70 %', 1, 'easy-toss', { ballKg: 1, effortPercent: 70 }, [1, 6], [45, 45], COMFORT),
		rung(
			'push-80',
			'Chest push, 2 kg, 80 %',
			1,
			'kneeling-chest-push',
			{ ballKg: 2, effortPercent: 80 },
			[1, 6],
			[60, 60],
			COMFORT,
		),
		rung(
			'push-95',
			'Chest push, 3 kg, 95 %',
			1,
			'standing-chest-push',
			{ ballKg: 3, effortPercent: 95 },
			[1, 6],
			[60, 60],
			COMFORT,
		),
	],
}

const ALL: Ladder[] = [
	shock,
	stiffness,
	skipRhythm,
	bound,
	lateralBound,
	takeOff,
	acceleration,
	topSpeed,
	assisted,
	repeatSpeed,
	brake,
	cut,
	curve,
	react,
	throwing,
	carried,
	tissue,
	returnRun,
	returnLand,
	returnThrow,
	capacity,
	contrast,
]
const nameOf = (ladderId: string, rungId: string): string | undefined =>
	ALL.find((ladder) => ladder.id === ladderId)?.rungs.find((one) => one.id === rungId)?.name

/** Every ladder, its gates with the name of the rung they wait for. */
export const LADDERS: Ladder[] = ALL.map((ladder) => ({
	...ladder,
	rungs: ladder.rungs.map((one) => ({
		...one,
		gates: one.gates.map((gate) =>
			gate.kind === 'passed' ? { ...gate, rungName: nameOf(gate.ladderId, gate.rungId) } : gate,
		),
	})),
}))

/** Which path leads back to a family of ladders. */
export const RETURN_PATHS: Partial<Record<Ladder['family'], string>> = {
	sprint: 're-entry-run',
	agility: 're-entry-land',
	plyometric: 're-entry-land',
	throw: 're-entry-throw',
}
