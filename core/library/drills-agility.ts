import { type DrillSpec, makeDrill } from './make-drill'
import type { Drill } from './types'

const agility = (spec: DrillSpec): Drill => makeDrill({ family: 'agility', pattern: 'lateral', legs: 'one', kit: ['cones'] }, spec)

const CUTTING = { knee: 3, ankle: 3, groin: 2, 'front-thigh': 2, hip: 1, foot: 1, 'back-thigh': 1, calf: 1 } as const
const LIGHT = { knee: 1, ankle: 1, groin: 1, calf: 1 } as const
const CURVING = { ankle: 2, calf: 2, groin: 2, knee: 1, 'back-thigh': 2, foot: 1 } as const
const SPARE = {
	knee: 'wall-drill', 'back-thigh': 'wall-drill', groin: 'wall-drill', 'front-thigh': 'wall-drill',
	foot: 'bike-easy', ankle: 'bike-easy', shin: 'bike-easy', calf: 'bike-easy', hip: 'kneeling-chest-push',
} as const
const DRY = 'Dry ground'
const cutting = { intensity: 'high', regions: CUTTING, alternatives: SPARE, cautions: [DRY] } satisfies Partial<DrillSpec>
const braking = { ...cutting, pattern: 'linear' } satisfies Partial<DrillSpec>
const curving = { ...cutting, intensity: 'moderate', regions: CURVING, counting: { metres: { plannedZone: 'sub-maximal', kind: 'curved' } }, measures: ['sprint', 'quality'], start: 'standing', cautions: [DRY, 'Both directions'] } satisfies Partial<DrillSpec>
const planned = (zone: 'tempo' | 'sub-maximal' | 'fast') => ({ cuts: { perRep: 1 }, metres: { plannedZone: zone } }) as const

export const AGILITY_DRILLS: Drill[] = [
	// Brake
	agility({ ...braking, id: 'slow-down', name: 'Slow down over several steps', intensity: 'low', regions: LIGHT, counting: { metres: { plannedZone: 'tempo' } }, dose: [2, 3], restS: 45, repS: 5, parameters: { distanceM: 10 }, cautions: [], cue: 'Quick short steps, sit back', look: 'Speed falls evenly, eyes up', fault: ['Slapping the feet', 'More steps, softer'] }),
	agility({ ...braking, id: 'slow-to-stop', name: 'Several steps to a stop', intensity: 'moderate', counting: { deadStops: { perRep: 1 }, metres: { plannedZone: 'tempo' } }, dose: [2, 3], restS: 60, repS: 5, parameters: { distanceM: 10 }, cautions: [], cue: 'Sit back early; Many short steps', look: 'Hips drop before the last step', fault: ['One long braking step', 'Start slowing one cone earlier'] }),
	agility({ ...braking, id: 'dead-stop', name: 'Single-leg dead stop', counting: { deadStops: { perRep: 1 }, metres: { plannedZone: 'sub-maximal' } }, dose: [2, 3], restS: 75, repS: 5, parameters: { distanceM: 10 }, cautions: [DRY, 'Both legs in turn'], cue: 'One foot, and you are still', look: 'Knee over foot, trunk quiet, no second step', fault: ['Knee falls in', 'Half the run-in until it stays out'] }),
	// Cut
	agility({ ...cutting, id: 'wide-cut', name: 'Wide cut', intensity: 'moderate', counting: planned('tempo'), dose: [2, 4], restS: 45, repS: 5, parameters: { distanceM: 12, angleDeg: 45 }, cautions: [], cue: 'Round the cone, lean with it', look: 'Whole body leans, not the trunk alone', fault: ['Knee falls in', 'Slow the entry, plant a little wider'] }),
	agility({ ...cutting, id: 'sharp-wide-cut', name: 'Aggressive wide cut', counting: planned('sub-maximal'), dose: [2, 4], restS: 60, repS: 5, parameters: { distanceM: 12, angleDeg: 60 }, cue: 'Plant outside the hip; Push, do not wait', look: 'Plant foot outside the hip, knee over foot', fault: ['Waiting on the plant', 'Take a shorter last step'] }),
	agility({ ...cutting, id: 'cut-90', name: '90° cut', counting: planned('sub-maximal'), dose: [3, 3], restS: 60, repS: 5, parameters: { distanceM: 10, angleDeg: 90 }, cautions: [DRY, 'Knee over foot: stop at the first one that falls in'], cue: 'Brake before, turn after', look: 'Last step short, hips low, eyes up', fault: ['Trunk leans to the outside', 'Look where you go next before the plant'] }),
	agility({ ...cutting, id: 'turn-180-soft', name: 'Soft 180° turn', counting: planned('sub-maximal'), dose: [3, 3], restS: 75, repS: 6, parameters: { distanceM: 10, angleDeg: 180 }, cue: 'Two steps to brake, one to turn', look: 'Foot across the line, not along it', fault: ['Stiff straight leg on the plant', 'Slow the entry and bend earlier'] }),
	agility({ ...cutting, id: 'turn-180', name: 'Full 180° turn', start: 'standing', counting: planned('fast'), measures: ['quality', 'sprint'], dose: [3, 2], restS: 90, repS: 6, parameters: { distanceM: 10, angleDeg: 180 }, cue: 'In fast, down, out faster', look: 'Same depth left and right', fault: ['Always turning over the same leg', 'Call the leg before the rep'] }),
	agility({ ...cutting, id: 'shuffle', name: 'Side shuffle and out', intensity: 'moderate', regions: LIGHT, counting: { cuts: { perRep: 1 } }, dose: [2, 3], restS: 45, repS: 6, parameters: { distanceM: 5, angleDeg: 90 }, cautions: [], cue: 'Push from the far foot', look: 'Feet never cross, hips level', fault: ['Bouncing up', 'A hand at hip height to stay under'] }),
	agility({ ...cutting, id: 'backpedal-turn', name: 'Backpedal, turn and go', intensity: 'moderate', counting: { cuts: { perRep: 1 } }, dose: [2, 3], restS: 60, repS: 6, parameters: { distanceM: 10, angleDeg: 180 }, cue: 'Hips first, then the feet', look: 'Turns to both sides alike', fault: ['Drifting back before turning', 'Mark the turn with a line'] }),
	// Curve
	agility({ ...curving, id: 'arc-quarter', name: 'Quarter arc', dose: [2, 2], restS: 75, repS: 6, parameters: { distanceM: 19, radiusM: 12 }, widthM: 12, cue: 'Lean from the ankles', look: 'Inside foot under the hip', fault: ['Leaning the trunk alone', 'Wider radius'] }),
	agility({ ...curving, id: 'arc-half', name: 'Half arc', dose: [2, 2], restS: 90, repS: 7, parameters: { distanceM: 38, radiusM: 12 }, widthM: 24, cue: 'Eyes ahead on the arc', look: 'Speed kept into the second half', fault: ['Stepping out wide', 'Put cones on the outside too'] }),
	agility({ ...curving, id: 'figure-half', name: 'Half figure-eight', dose: [2, 2], restS: 90, repS: 8, parameters: { distanceM: 45, radiusM: 9 }, widthM: 20, cue: 'Change the lean in one step', look: 'No wobble at the change', fault: ['Two small steps at the change', 'Slower in, faster out'] }),
	agility({ ...curving, id: 'figure-eight', name: 'Full figure-eight', intensity: 'high', dose: [2, 2], restS: 120, repS: 12, parameters: { distanceM: 75, radiusM: 9 }, ranges: { distanceM: [20, 120] }, widthM: 20, cue: 'Same lean both ways', look: 'Left and right halves take the same time', fault: ['One half wider', 'Run that half first next time'] }),
	agility({ ...curving, id: 'serpentine', name: 'Serpentine', intensity: 'high', dose: [2, 2], restS: 120, repS: 8, parameters: { distanceM: 40, radiusM: 6 }, widthM: 14, cue: 'Steer with either leg', look: 'Rhythm never breaks', fault: ['Braking before each bend', 'One metre more radius'] }),
	// React
	agility({ ...cutting, id: 'crossover-eyes', name: 'Crossover run, eyes on the coach', reactive: true, intensity: 'low', regions: LIGHT, dose: [2, 3], restS: 45, repS: 6, parameters: { distanceM: 10 }, cautions: [], cue: 'Eyes up, hips face me', look: 'Feet find the ground without looking', fault: ['Looking down', 'Slower, call out fingers held up'] }),
	agility({ ...cutting, id: 'quick-feet-call', name: 'Quick feet, then go on call', reactive: true, intensity: 'moderate', counting: { metres: { plannedZone: 'sub-maximal' } }, dose: [2, 3], restS: 60, repS: 5, parameters: { distanceM: 10 }, measures: ['quality', 'sprint'], start: 'reaction', cautions: [], cue: 'Busy feet, quiet body, one push', look: 'First step goes the right way', fault: ['A false step back', 'Stagger the feet'] }),
	agility({ ...cutting, id: 'point-and-go', name: 'Point and go, two ways', reactive: true, counting: planned('sub-maximal'), dose: [2, 4], restS: 60, repS: 5, parameters: { distanceM: 8, angleDeg: 60 }, measures: ['quality', 'sprint'], start: 'reaction', cue: 'See it, plant, push', look: 'Plant as clean as in the planned cut', fault: ['Guessing', 'Point later'] }),
	agility({ ...cutting, id: 'flip-call', name: 'Flip on the second call', reactive: true, counting: { cuts: { perRep: 2 }, metres: { plannedZone: 'sub-maximal' } }, dose: [2, 3], restS: 90, repS: 6, parameters: { distanceM: 10, angleDeg: 90 }, cue: 'Commit, then change at once', look: 'Hips low before the second plant', fault: ['Upright at the change', 'More time between the calls'] }),
	agility({ ...cutting, id: 'mirror', name: 'Mirror a partner', reactive: true, counting: { cuts: { perRep: 4 } }, dose: [2, 2], restS: 120, repS: 8, parameters: { distanceM: 8, angleDeg: 90 }, cue: 'Watch the hips, not the head', look: 'Stays within an arm’s length', fault: ['Chasing late', 'Smaller square'] }),
]
