import type { Drill } from './types'

const jump = { family: 'plyometric', pattern: 'linear', reactive: false, version: 1 } as const

const LANDING = { knee: 3, ankle: 2, foot: 2, calf: 2, 'front-thigh': 2, hip: 1, back: 1, shin: 1 } as const
const SPRINGY = { calf: 3, foot: 3, ankle: 2, shin: 2, knee: 1 } as const
const STRIDE = { 'back-thigh': 2, calf: 2, foot: 2, ankle: 2, knee: 2, groin: 1, hip: 1, shin: 1 } as const

const SPARE = {
	foot: 'kneeling-chest-push', ankle: 'kneeling-chest-push', shin: 'kneeling-chest-push', calf: 'kneeling-chest-push', knee: 'kneeling-chest-push',
	'back-thigh': 'pogo', groin: 'pogo', 'front-thigh': 'pogo', hip: 'kneeling-chest-push', back: 'calf-hold',
} as const
/** Easier forms of springing: nothing that leaves the ground when the lower leg complains. */
const SPARE_SPRING = {
	foot: 'kneeling-chest-push', ankle: 'kneeling-chest-push', shin: 'kneeling-chest-push', calf: 'kneeling-chest-push', knee: 'calf-hold',
} as const

export const JUMPING_DRILLS: Drill[] = [
	{
		...jump, id: 'calf-hold', family: 'tissue', name: 'Calf hold, knee bent and straight', legs: 'both', intensity: 'low',
		counting: {}, measures: ['quality'],
		defaults: { sets: 3, reps: 2, restS: 30, repS: 25 },
		regions: { calf: 1 }, alternatives: { calf: 'kneeling-chest-push' },
		cues: ['Heel just off, hold still'], lookFor: ['No shaking, no drop of the heel'],
		faults: [{ fault: 'Rolling to the outside', correction: 'Press the big toe down' }], kit: [], cautions: ['At least six hours from fast work'],
	},
	{
		...jump, id: 'step-and-stick', name: 'Step on and off, stick on the ball of the foot', legs: 'one', intensity: 'low',
		counting: { contacts: { by: 'rep', feet: 'each-leg', perRep: 1 } }, measures: ['quality'],
		defaults: { sets: 2, reps: 6, heightCm: 15, restS: 45, repS: 3 },
		regions: SPRINGY, alternatives: SPARE_SPRING,
		cues: ['Land quiet, heel light'], lookFor: ['Stick without a second step'],
		faults: [{ fault: 'Heel slaps down', correction: 'Lower the step, think of a stiff ankle' }], kit: ['box 15 cm'], cautions: [],
	},
	{
		...jump, id: 'pogo', name: 'Pogo', legs: 'both', intensity: 'low',
		counting: { contacts: { by: 'rep', feet: 'both', perRep: 1 } }, measures: ['quality', 'contact'],
		defaults: { sets: 3, reps: 15, restS: 60, repS: 0.6 },
		regions: SPRINGY, alternatives: SPARE_SPRING,
		cues: ['Ankles stiff, ground is hot'], lookFor: ['Quiet, even, knees almost straight'],
		faults: [{ fault: 'Sinking in the knees', correction: 'Jump lower and faster' }], kit: [], cautions: [],
	},
	{
		...jump, id: 'pogo-for-height', name: 'Pogo for height', legs: 'both', intensity: 'low',
		counting: { contacts: { by: 'rep', feet: 'both', perRep: 1 } }, measures: ['contact', 'quality'],
		defaults: { sets: 3, reps: 8, restS: 75, repS: 0.8 },
		regions: SPRINGY, alternatives: SPARE_SPRING,
		cues: ['As high as a short contact allows'], lookFor: ['Height grows, contact does not'],
		faults: [{ fault: 'Longer contact for more height', correction: 'Go back to the low, quick pogo for a set' }], kit: ['contact mat or film'], cautions: [],
	},
	{
		...jump, id: 'travelling-pogo', name: 'Travelling pogo', legs: 'both', intensity: 'low',
		counting: { contacts: { by: 'metres', feet: 'both', stepLengthLegLengths: 0.55, perStep: 1 } }, measures: ['quality'],
		defaults: { sets: 3, reps: 1, distanceM: 10, restS: 60, repS: 8 },
		regions: SPRINGY, alternatives: SPARE_SPRING,
		cues: ['Small and quick forward'], lookFor: ['Same contact sound all the way'],
		faults: [{ fault: 'Turning into a jump for distance', correction: 'Halve the step' }], kit: ['cones'], cautions: [],
	},
	{
		...jump, id: 'single-leg-pogo', name: 'Single-leg pogo', legs: 'one', intensity: 'moderate',
		counting: { contacts: { by: 'rep', feet: 'each-leg', perRep: 1 } }, measures: ['contact', 'quality'],
		defaults: { sets: 3, reps: 6, restS: 75, repS: 1.2 },
		regions: SPRINGY, alternatives: SPARE_SPRING,
		cues: ['Tall, stiff, light'], lookFor: ['Pelvis level, same left and right'],
		faults: [{ fault: 'Hip drops', correction: 'Hold a partner’s hand for one set' }], kit: ['contact mat or film'], cautions: [],
	},
	{
		...jump, id: 'relaxed-skip', name: 'Relaxed skip', legs: 'alternating', intensity: 'low',
		counting: { contacts: { by: 'metres', feet: 'alternating', stepLengthLegLengths: 1.2, perStep: 2 } }, measures: ['quality'],
		defaults: { sets: 2, reps: 1, distanceM: 20, restS: 30, repS: 12 },
		regions: { calf: 1, foot: 1 }, alternatives: { calf: 'kneeling-chest-push', foot: 'kneeling-chest-push' },
		cues: ['Two quick touches on each foot'], lookFor: ['The two touches kept for the whole distance'],
		faults: [{ fault: 'Rhythm breaks into a jog', correction: 'Slow down, count the touches aloud' }], kit: ['cones'], cautions: [],
	},
	{
		...jump, id: 'broad-jump', name: 'Broad jump and stick', legs: 'both', intensity: 'moderate',
		counting: { contacts: { by: 'rep', feet: 'both', perRep: 1 } }, measures: ['distance', 'quality'],
		defaults: { sets: 2, reps: 3, restS: 60, repS: 4 },
		regions: LANDING, alternatives: SPARE,
		cues: ['Arms through, land soft and still'], lookFor: ['Knees over toes on landing'],
		faults: [{ fault: 'Falling forward', correction: 'Jump shorter, hold three seconds' }], kit: ['tape'], cautions: [],
	},
	{
		...jump, id: 'alternate-bounds', name: 'Alternate bounds', legs: 'alternating', intensity: 'high',
		counting: { contacts: { by: 'metres', feet: 'alternating', stepLengthLegLengths: 2.1, perStep: 1 } }, measures: ['quality', 'distance'],
		defaults: { sets: 3, reps: 1, distanceM: 20, restS: 120, repS: 8 },
		regions: STRIDE, alternatives: SPARE,
		cues: ['Push long, float, strike under you'], lookFor: ['Even length left and right'],
		faults: [{ fault: 'Reaching with a straight leg', correction: 'Shorter bounds, foot under the hip' }], kit: ['tape'], cautions: [],
	},
	{
		...jump, id: 'countermovement-jump', name: 'Countermovement jump', legs: 'both', intensity: 'moderate',
		counting: { contacts: { by: 'rep', feet: 'both', perRep: 1 } }, measures: ['height', 'quality'],
		defaults: { sets: 1, reps: 3, restS: 60, repS: 3 },
		regions: LANDING, alternatives: SPARE,
		cues: ['Down fast, up faster'], lookFor: ['Same posture at take-off and landing'],
		faults: [{ fault: 'Bent knees on landing to gain flight', correction: 'Land tall, then give' }], kit: ['contact mat'], cautions: [],
	},
	{
		...jump, id: 'drop-landing', name: 'Drop landing', legs: 'both', intensity: 'moderate', highAboveCm: 45,
		counting: { contacts: { by: 'rep', feet: 'both', perRep: 1 } }, measures: ['quality'],
		defaults: { sets: 3, reps: 5, heightCm: 15, restS: 60, repS: 4 },
		regions: LANDING, alternatives: SPARE,
		cues: ['Step off, land quiet, hold'], lookFor: ['Hips back, knees over toes, still in one count'],
		faults: [{ fault: 'Loud, stiff landing', correction: 'Lower box, listen for silence' }], kit: ['box'], cautions: ['Stop at the first heavy landing'],
	},
	{
		...jump, id: 'pause-jump', name: 'Pause jump', legs: 'both', intensity: 'moderate', highAboveCm: 45,
		counting: { contacts: { by: 'rep', feet: 'both', perRep: 2 } }, measures: ['quality', 'height'],
		defaults: { sets: 3, reps: 3, heightCm: 15, restS: 75, repS: 6 },
		regions: LANDING, alternatives: SPARE,
		cues: ['Drop, hold, jump, hold'], lookFor: ['A real pause, then no dip before the jump'],
		faults: [{ fault: 'Bouncing out of the hold', correction: 'Count two aloud before the jump' }], kit: ['box'], cautions: ['Stop at the first heavy landing'],
	},
	{
		...jump, id: 'depth-jump', name: 'Depth jump', legs: 'both', intensity: 'shock',
		counting: { contacts: { by: 'rep', feet: 'both', perRep: 2 } }, measures: ['contact', 'quality'],
		defaults: { sets: 5, reps: 2, heightCm: 30, restS: 150, repS: 8 },
		regions: LANDING, alternatives: SPARE,
		cues: ['Step off, turn round at once'], lookFor: ['Short contact, rebound kept'],
		faults: [{ fault: 'Sink and push', correction: 'Lower the box until contact is short again' }],
		kit: ['box', 'contact mat or film'],
		cautions: ['Always fresh, never more than five reps a set', 'Level 1 and under 16: land and pause only', 'Stop at the first heavy landing'],
	},
]
