import type { Drill } from './types'

const sprint = { family: 'sprint', pattern: 'linear', legs: 'alternating', reactive: false, version: 1 } as const
const agility = { family: 'agility', pattern: 'lateral', legs: 'one', version: 1, intensity: 'high' } as const

/** Regions every fast run loads; the back thigh most of all. */
const FAST_RUN = { 'back-thigh': 3, calf: 2, foot: 2, ankle: 1, knee: 1, groin: 1, hip: 1, 'front-thigh': 1 } as const
const EASY_RUN = { 'back-thigh': 1, calf: 1, foot: 1, ankle: 1 } as const
const CUTTING = { knee: 3, ankle: 3, groin: 2, 'front-thigh': 2, hip: 1, foot: 1, 'back-thigh': 1, calf: 1 } as const

/** What stands in for running when a region of the legs must be spared. */
const SPARE_LEGS = {
	foot: 'kneeling-chest-push', ankle: 'kneeling-chest-push', shin: 'kneeling-chest-push', calf: 'kneeling-chest-push', knee: 'rotational-throw',
	'back-thigh': 'kneeling-chest-push', groin: 'kneeling-chest-push', 'front-thigh': 'kneeling-chest-push', hip: 'kneeling-chest-push',
} as const

export const RUNNING_DRILLS: Drill[] = [
	{
		...sprint, id: 'wall-drill', name: 'Wall drill and march', intensity: 'low',
		counting: {}, measures: ['quality'],
		defaults: { sets: 3, reps: 6, restS: 45, repS: 6 },
		regions: { hip: 1, calf: 1 }, alternatives: { hip: 'kneeling-chest-push', calf: 'kneeling-chest-push' },
		cues: ['Push the wall away', 'One straight line from ankle to shoulder'],
		lookFor: ['Ankle, hip and shoulder in line', 'Foot under the hip on the way down'],
		faults: [{ fault: 'Folded at the hip', correction: 'Step the feet closer and squeeze the standing side before the next march' }],
		kit: ['wall or fence'], cautions: [],
	},
	{
		...sprint, id: 'a-run', name: 'A-run', intensity: 'low',
		counting: { metres: { plannedZone: 'easy' }, steps: { stepLengthLegLengths: 0.7 } }, measures: ['quality'],
		defaults: { sets: 3, reps: 1, distanceM: 20, restS: 45, repS: 8 },
		regions: EASY_RUN, alternatives: SPARE_LEGS,
		cues: ['Strike the ground under you', 'Quick off, quiet on'],
		lookFor: ['Foot lands under the hip', 'Same rhythm left and right'],
		faults: [{ fault: 'Reaching with the foot', correction: 'Lower the knee a little and strike down earlier' }],
		kit: ['cones'], cautions: [],
	},
	{
		...sprint, id: 'standing-start', name: 'Standing start', intensity: 'high', start: 'standing',
		counting: { metres: { plannedZone: 'maximal' }, steps: { stepLengthLegLengths: 1.5 } }, measures: ['sprint', 'quality'],
		defaults: { sets: 1, reps: 4, distanceM: 10, restS: 90, repS: 4 },
		regions: FAST_RUN, alternatives: SPARE_LEGS,
		cues: ['Fall, then push', 'First step behind you'],
		lookFor: ['Shin and trunk at the same angle', 'No pop-up in the first three steps'],
		faults: [{ fault: 'Standing up at once', correction: 'Look at a cone three metres ahead until step four' }],
		kit: ['cones', 'gates or timer'], cautions: ['Run-out of 15 m, clear of people'],
	},
	{
		...sprint, id: 'three-point-start', name: 'Three-point start', intensity: 'high', start: 'three-point',
		counting: { metres: { plannedZone: 'maximal' }, steps: { stepLengthLegLengths: 1.5 } }, measures: ['sprint', 'quality'],
		defaults: { sets: 1, reps: 6, distanceM: 20, restS: 120, repS: 5 },
		regions: FAST_RUN, alternatives: SPARE_LEGS,
		cues: ['Weight on the hand', 'Drive out low, rise with the speed'],
		lookFor: ['Full push of the front leg', 'Foot strikes behind the hip in the first steps'],
		faults: [{ fault: 'Stepping back first', correction: 'Load the front foot before lifting the hand' }],
		kit: ['cones', 'gates or timer'], cautions: ['Run-out of 15 m, clear of people'],
	},
	{
		...sprint, id: 'reaction-start', name: 'Start on a call', reactive: true, intensity: 'high', start: 'reaction',
		counting: { metres: { plannedZone: 'maximal' }, steps: { stepLengthLegLengths: 1.5 } }, measures: ['sprint', 'quality'],
		defaults: { sets: 1, reps: 4, distanceM: 20, restS: 120, repS: 5 },
		regions: FAST_RUN, alternatives: SPARE_LEGS,
		cues: ['Wait, then go once'], lookFor: ['Same first three steps as without the call'],
		faults: [{ fault: 'Guessing the call', correction: 'Vary the wait from one to four seconds' }],
		kit: ['cones', 'gates or timer'], cautions: ['Run-out of 15 m, clear of people'],
	},
	{
		...sprint, id: 'fly-10', name: 'Flying 10 m', intensity: 'high', start: 'rolling',
		counting: { metres: { plannedZone: 'maximal' }, steps: { stepLengthLegLengths: 2.1 } }, measures: ['sprint', 'quality'],
		defaults: { sets: 1, reps: 3, distanceM: 10, runInM: 20, restS: 180, repS: 6 },
		regions: FAST_RUN, alternatives: SPARE_LEGS,
		cues: ['Build, then float tall'], lookFor: ['Hips high', 'Foot under the hip'],
		faults: [{ fault: 'Straining in the zone', correction: 'Arrive at 95 % and relax the face and hands' }],
		kit: ['gates or timer'], cautions: ['Full warm-up first', 'Run-out of 15 m, clear of people'],
	},
	{
		...sprint, id: 'tempo-run', name: 'Tempo run', intensity: 'low', start: 'rolling',
		counting: { metres: { plannedZone: 'tempo' }, steps: { stepLengthLegLengths: 1.7 } }, measures: ['quality'],
		defaults: { sets: 1, reps: 4, distanceM: 60, restS: 45, repS: 12 },
		regions: EASY_RUN, alternatives: SPARE_LEGS,
		cues: ['Smooth, tall, even'], lookFor: ['Relaxed shoulders'],
		faults: [{ fault: 'Racing the partner', correction: 'Run it alone, or set the pace by cones' }],
		kit: ['cones'], cautions: [],
	},
	{
		...agility, id: 'slow-to-stop', name: 'Slow down over steps to a stop', reactive: false, pattern: 'linear', intensity: 'moderate',
		counting: { deadStops: { perRep: 1 }, metres: { plannedZone: 'tempo' } }, measures: ['quality'],
		defaults: { sets: 2, reps: 3, distanceM: 10, restS: 60, repS: 5 },
		regions: CUTTING, alternatives: SPARE_LEGS,
		cues: ['Sit back early', 'Many short steps'], lookFor: ['Hips drop before the last step'],
		faults: [{ fault: 'One long braking step', correction: 'Start slowing one cone earlier' }],
		kit: ['cones'], cautions: [],
	},
	{
		...agility, id: 'wide-cut', name: 'Wide cut', reactive: false, intensity: 'moderate',
		counting: { cuts: { perRep: 1 }, metres: { plannedZone: 'tempo' } }, measures: ['quality'],
		defaults: { sets: 2, reps: 4, distanceM: 12, angleDeg: 45, restS: 45, repS: 5 },
		regions: CUTTING, alternatives: SPARE_LEGS,
		cues: ['Round the cone, lean with it'], lookFor: ['Whole body leans, not the trunk alone'],
		faults: [{ fault: 'Knee falls in', correction: 'Slow the entry, plant a little wider' }],
		kit: ['cones'], cautions: [],
	},
	{
		...agility, id: 'sharp-wide-cut', name: 'Aggressive wide cut', reactive: false,
		counting: { cuts: { perRep: 1 }, metres: { plannedZone: 'sub-maximal' } }, measures: ['quality'],
		defaults: { sets: 2, reps: 4, distanceM: 12, angleDeg: 60, restS: 60, repS: 5 },
		regions: CUTTING, alternatives: SPARE_LEGS,
		cues: ['Plant outside the hip', 'Push, do not wait'], lookFor: ['Plant foot outside the hip, knee over foot'],
		faults: [{ fault: 'Waiting on the plant', correction: 'Take a shorter last step' }],
		kit: ['cones'], cautions: ['Dry ground'],
	},
	{
		...agility, id: 'cut-90', name: '90° cut', reactive: false,
		counting: { cuts: { perRep: 1 }, metres: { plannedZone: 'sub-maximal' } }, measures: ['quality'],
		defaults: { sets: 3, reps: 3, distanceM: 10, angleDeg: 90, restS: 60, repS: 5 },
		regions: CUTTING, alternatives: SPARE_LEGS,
		cues: ['Brake before, turn after'], lookFor: ['Last step short, hips low, eyes up'],
		faults: [{ fault: 'Trunk leans to the outside', correction: 'Look where you go next before the plant' }],
		kit: ['cones'], cautions: ['Dry ground', 'Knee over foot: stop at the first one that falls in'],
	},
	{
		...agility, id: 'turn-180-soft', name: 'Soft 180° turn', reactive: false,
		counting: { cuts: { perRep: 1 }, metres: { plannedZone: 'sub-maximal' } }, measures: ['quality'],
		defaults: { sets: 3, reps: 3, distanceM: 10, angleDeg: 180, restS: 75, repS: 6 },
		regions: CUTTING, alternatives: SPARE_LEGS,
		cues: ['Two steps to brake, one to turn'], lookFor: ['Foot across the line, not along it'],
		faults: [{ fault: 'Stiff straight leg on the plant', correction: 'Slow the entry and bend earlier' }],
		kit: ['cones'], cautions: ['Dry ground'],
	},
	{
		...agility, id: 'turn-180', name: 'Full 180° turn', reactive: false,
		counting: { cuts: { perRep: 1 }, metres: { plannedZone: 'fast' } }, measures: ['quality'],
		defaults: { sets: 3, reps: 2, distanceM: 10, angleDeg: 180, restS: 90, repS: 6 },
		regions: CUTTING, alternatives: SPARE_LEGS,
		cues: ['In fast, down, out faster'], lookFor: ['Same depth left and right'],
		faults: [{ fault: 'Always turning over the same leg', correction: 'Call the leg before the rep' }],
		kit: ['cones'], cautions: ['Dry ground'],
	},
]
