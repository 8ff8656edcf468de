import type { Gate, Ladder, PassCriterion, Rung } from './types'

const BY_EYE: PassCriterion = { kind: 'quality' }
const NEAR_OWN_BEST: PassCriterion = { kind: 'time-within', percent: 3 }
const SHORT_CONTACT: PassCriterion = { kind: 'contact-ceiling' }
const LEVEL: Gate = { kind: 'level' }

const acceleration: Ladder = {
	id: 'acceleration', version: 1, name: 'Acceleration', family: 'sprint',
	rungs: [
		{ id: 'wall', name: 'Wall drill and march', level: 1, drillId: 'wall-drill', parameters: {}, dose: { sets: 3, reps: 6 }, restS: 45, pass: BY_EYE, gates: [] },
		{ id: 'a-run', name: 'A-run 20 m', level: 1, drillId: 'a-run', parameters: { distanceM: 20 }, dose: { sets: 3, reps: 2 }, restS: 45, pass: BY_EYE, gates: [] },
		{ id: 'standing-10', name: 'Standing start 10 m', level: 1, drillId: 'standing-start', parameters: { distanceM: 10 }, dose: { sets: 1, reps: 5 }, restS: 90, pass: NEAR_OWN_BEST, gates: [] },
		{ id: 'three-point-10', name: 'Three-point start 10 m', level: 2, drillId: 'three-point-start', parameters: { distanceM: 10 }, dose: { sets: 1, reps: 6 }, restS: 90, pass: NEAR_OWN_BEST, gates: [LEVEL] },
		{ id: 'three-point-20', name: 'Three-point start 20 m', level: 2, drillId: 'three-point-start', parameters: { distanceM: 20 }, dose: { sets: 1, reps: 6 }, restS: 120, pass: NEAR_OWN_BEST, gates: [LEVEL] },
		{ id: 'three-point-30', name: 'Three-point start 30 m', level: 3, drillId: 'three-point-start', parameters: { distanceM: 30 }, dose: { sets: 1, reps: 5 }, restS: 180, pass: NEAR_OWN_BEST, gates: [LEVEL] },
		{ id: 'reaction-20', name: 'Start on a call 20 m', level: 3, drillId: 'reaction-start', parameters: { distanceM: 20 }, dose: { sets: 1, reps: 5 }, restS: 120, pass: NEAR_OWN_BEST, gates: [LEVEL] },
	],
}

const stiffness: Ladder = {
	id: 'stiffness', version: 1, name: 'Stiffness', family: 'plyometric',
	rungs: [
		{ id: 'calf-hold', name: 'Calf hold', level: 1, drillId: 'calf-hold', parameters: {}, dose: { sets: 3, reps: 2 }, restS: 30, pass: BY_EYE, gates: [] },
		{ id: 'step-and-stick', name: 'Step and stick 15 cm', level: 1, drillId: 'step-and-stick', parameters: { heightCm: 15 }, dose: { sets: 2, reps: 6 }, restS: 45, pass: BY_EYE, gates: [] },
		{ id: 'pogo', name: 'Two-foot pogo', level: 1, drillId: 'pogo', parameters: {}, dose: { sets: 3, reps: 15 }, restS: 60, pass: BY_EYE, gates: [] },
		{ id: 'pogo-for-height', name: 'Pogo for height', level: 2, drillId: 'pogo-for-height', parameters: {}, dose: { sets: 3, reps: 8 }, restS: 75, pass: SHORT_CONTACT, gates: [LEVEL] },
		{ id: 'travelling-pogo', name: 'Travelling pogo 10 m', level: 2, drillId: 'travelling-pogo', parameters: { distanceM: 10 }, dose: { sets: 3, reps: 2 }, restS: 60, pass: BY_EYE, gates: [LEVEL] },
		{ id: 'single-leg-pogo', name: 'Single-leg pogo', level: 3, drillId: 'single-leg-pogo', parameters: {}, dose: { sets: 3, reps: 6 }, restS: 75, pass: SHORT_CONTACT, gates: [LEVEL] },
	],
}

const box = (kind: 'landing' | 'pause' | 'depth', heightCm: number, level: 1 | 2 | 3, gates: Gate[]): Rung => {
	const of = {
		landing: { drillId: 'drop-landing', name: 'Drop landing', dose: { sets: 3, reps: 5 }, restS: 60, pass: BY_EYE },
		pause: { drillId: 'pause-jump', name: 'Pause jump', dose: { sets: 3, reps: 3 }, restS: 75, pass: BY_EYE },
		depth: { drillId: 'depth-jump', name: 'Depth jump', dose: { sets: 5, reps: 2 }, restS: 150, pass: SHORT_CONTACT },
	}[kind]
	return { ...of, id: `${kind}-${heightCm}`, name: `${of.name} ${heightCm} cm`, level, parameters: { heightCm }, gates }
}
/** The phase a school opens depth jumps in is read from the school; an empty list here means "as the school says". */
const DEPTH: Gate[] = [LEVEL, { kind: 'phase', phases: [] }]

const shock: Ladder = {
	id: 'shock', version: 1, name: 'Drop and rebound', family: 'plyometric',
	rungs: [
		box('landing', 15, 1, []),
		box('landing', 30, 1, []),
		box('pause', 15, 1, []),
		box('pause', 30, 1, []),
		box('depth', 15, 2, DEPTH),
		box('depth', 30, 2, DEPTH),
		box('depth', 45, 3, DEPTH),
	],
}

const cut: Ladder = {
	id: 'cut', version: 1, name: 'Cut', family: 'agility',
	rungs: [
		{ id: 'wide', name: 'Wide cut 45°', level: 1, drillId: 'wide-cut', parameters: { distanceM: 12, angleDeg: 45 }, dose: { sets: 2, reps: 4 }, restS: 45, pass: BY_EYE, gates: [] },
		{ id: 'sharp-wide', name: 'Aggressive wide cut 60°', level: 1, drillId: 'sharp-wide-cut', parameters: { distanceM: 12, angleDeg: 60 }, dose: { sets: 2, reps: 4 }, restS: 60, pass: BY_EYE, gates: [] },
		{ id: 'cut-90', name: '90° cut', level: 2, drillId: 'cut-90', parameters: { distanceM: 10, angleDeg: 90 }, dose: { sets: 3, reps: 3 }, restS: 60, pass: BY_EYE, gates: [LEVEL] },
		{ id: 'soft-180', name: 'Soft 180° turn', level: 2, drillId: 'turn-180-soft', parameters: { distanceM: 10, angleDeg: 180 }, dose: { sets: 3, reps: 3 }, restS: 75, pass: BY_EYE, gates: [LEVEL] },
		{ id: 'full-180', name: 'Full 180° turn', level: 3, drillId: 'turn-180', parameters: { distanceM: 10, angleDeg: 180 }, dose: { sets: 3, reps: 2 }, restS: 90, pass: BY_EYE, gates: [LEVEL] },
	],
}

export const LADDERS: Ladder[] = [acceleration, stiffness, shock, cut]
