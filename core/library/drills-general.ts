import { type DrillSpec, makeDrill } from './make-drill'
import type { Drill } from './types'

const prepare = (spec: DrillSpec): Drill => makeDrill({ family: 'prepare' }, spec)
const tissue = (spec: DrillSpec): Drill => makeDrill({ family: 'tissue', cautions: ['At least six hours from fast work'] }, spec)
const PUSH = 'kneeling-chest-push'

/** Preparing, general work and easy recovery: nothing here is judged by speed. */
export const PREPARING_DRILLS: Drill[] = [
	prepare({ id: 'range-of-motion', name: 'Range of motion and positions', dose: [1, 1], restS: 0, repS: 600, cue: 'Slow, full, easy', look: 'Who moves differently today?', fault: ['Rushing in the cold', 'Add five minutes'] }),
	prepare({ id: 'easy-run', name: 'Easy run', dose: [1, 1], restS: 0, repS: 300, parameters: { distanceM: 600 }, ranges: { distanceM: [200, 2000] }, regions: { calf: 1, foot: 1, knee: 1 }, alternatives: { calf: 'bike-easy', foot: 'bike-easy', knee: 'walk-easy' }, cue: 'Talk while you run', look: 'Anybody limping?', fault: ['Racing', 'Put the slowest in front'] }),
	prepare({ id: 'leg-swings', name: 'Leg swings', dose: [2, 10], restS: 10, repS: 1.5, cue: 'Loose, tall, higher each time', look: 'Back stays still', fault: ['Swinging the back', 'Hold a fence'] }),
	prepare({ id: 'lunge-walk', name: 'Lunge and crawl walk', dose: [2, 1], restS: 20, repS: 25, parameters: { distanceM: 10 }, regions: { 'front-thigh': 1, hip: 1 }, alternatives: { 'front-thigh': 'leg-swings', hip: 'leg-swings' }, cue: 'Long step, tall trunk', look: 'Knee over foot', fault: ['Short steps', 'Mark the step length'] }),
	prepare({ id: 'balance-reach', name: 'One-leg balance and reach', legs: 'one', dose: [2, 5], restS: 15, repS: 4, regions: { ankle: 1 }, alternatives: { ankle: 'leg-swings' }, cue: 'Foot quiet, reach far', look: 'Arch stays up', fault: ['Hip drops', 'Reach less far'] }),
	prepare({ id: 'strides', name: 'Strides', dose: [1, 4], restS: 40, repS: 8, parameters: { distanceM: 40 }, counting: { metres: { plannedZone: 'tempo' } }, regions: { 'back-thigh': 1, calf: 1 }, alternatives: { 'back-thigh': 'leg-swings', calf: 'leg-swings' }, cue: 'Each a little quicker', look: 'Relaxed face and hands', fault: ['Sprinting the last', 'Give a time to hit'] }),
	prepare({ id: 'loaded-carry', name: 'Loaded carry', dose: [3, 1], restS: 60, repS: 25, parameters: { distanceM: 25 }, regions: { back: 1, shoulder: 1, elbow: 1 }, alternatives: { back: 'walk-easy', shoulder: 'walk-easy', elbow: 'walk-easy' }, kit: ['kettlebells or bags'], cue: 'Tall, quick small steps', look: 'No leaning to a side', fault: ['Leaning', 'Lighter'] }),
	prepare({ id: 'sled-walk', name: 'Sled walk', dose: [4, 1], restS: 75, repS: 25, parameters: { distanceM: 20 }, intensity: 'moderate', regions: { 'front-thigh': 1, calf: 1 }, alternatives: { 'front-thigh': 'walk-easy', calf: 'bike-easy' }, kit: ['sled'], cue: 'Long pushes, low hips', look: 'Full extension behind', fault: ['Tiptoeing', 'More weight off'] }),
	prepare({ id: 'rope-pull', name: 'Rope pull', dose: [3, 1], restS: 75, repS: 20, parameters: { distanceM: 15 }, regions: { shoulder: 1, elbow: 1, back: 1 }, alternatives: { shoulder: 'sled-walk', elbow: 'sled-walk', back: 'walk-easy' }, kit: ['rope', 'sled'], cue: 'Pull with the legs', look: 'Back long', fault: ['Rounding', 'Sit lower'] }),
	prepare({ id: 'bike-easy', name: 'Easy bike', dose: [1, 1], restS: 0, repS: 1200, parameters: { minutes: 20 }, regions: { 'front-thigh': 1, knee: 1 }, alternatives: { 'front-thigh': 'pool-easy', knee: 'pool-easy' }, kit: ['bike'], cue: 'Spin, breathe through the nose', look: 'Talks easily', fault: ['Pushing a big gear', 'Two gears lighter'] }),
	prepare({ id: 'pool-easy', name: 'Easy pool run', dose: [1, 1], restS: 0, repS: 1200, parameters: { minutes: 20 }, kit: ['pool'], cue: 'Tall in the water', look: 'Even strokes', fault: ['Leaning', 'Belt on'] }),
	prepare({ id: 'walk-easy', name: 'Easy walk', dose: [1, 1], restS: 0, repS: 1200, parameters: { minutes: 20 }, cue: 'Nose breathing, arms loose', look: 'Even steps', fault: ['Marching', 'Slower'] }),
	prepare({ id: 'easy-close', name: 'Walk and breathe', dose: [1, 1], restS: 0, repS: 300, cue: 'Leave fresh', look: 'Anybody limping?', fault: ['One more sprint for fun', 'Collect the cones first'] }),
]

/** Slow work for tendon and muscle: 5–10 minutes, about two minutes a side. */
export const TISSUE_DRILLS: Drill[] = [
	tissue({ id: 'calf-hold', name: 'Calf hold, knee bent and straight', dose: [3, 2], restS: 30, repS: 25, regions: { calf: 1 }, alternatives: { calf: PUSH }, cue: 'Heel just off, hold still', look: 'No shaking, no drop of the heel', fault: ['Rolling to the outside', 'Press the big toe down'] }),
	tissue({ id: 'calf-hold-one', name: 'Calf hold on one leg', legs: 'one', dose: [3, 1], restS: 30, repS: 30, regions: { calf: 2, ankle: 1 }, alternatives: { calf: PUSH, ankle: PUSH }, cue: 'Tall on the big toe', look: 'Still to the end', fault: ['Hip drops', 'Two legs'] }),
	tissue({ id: 'slow-calf-raise', name: 'Slow calf raise', dose: [3, 6], restS: 45, repS: 6, regions: { calf: 2 }, alternatives: { calf: PUSH }, cue: 'Three up, three down', look: 'Same speed all the way', fault: ['Bouncing at the bottom', 'Stop one count there'] }),
	tissue({ id: 'split-hold', name: 'Split squat hold', legs: 'one', dose: [3, 1], restS: 30, repS: 30, regions: { 'front-thigh': 2, knee: 1 }, alternatives: { 'front-thigh': 'bridge-hold', knee: 'bridge-hold' }, cue: 'Sink and stay', look: 'Shin upright, trunk tall', fault: ['Leaning forward', 'Higher'] }),
	tissue({ id: 'bridge-hold', name: 'Long bridge hold', dose: [3, 1], restS: 30, repS: 30, regions: { 'back-thigh': 2, hip: 1 }, alternatives: { 'back-thigh': 'split-hold', hip: 'calf-hold' }, cue: 'Heels pull, hips up', look: 'Hips level', fault: ['Back arches', 'Ribs down'] }),
	tissue({ id: 'groin-squeeze', name: 'Groin squeeze hold', dose: [3, 1], restS: 30, repS: 25, regions: { groin: 1 }, alternatives: { groin: 'bridge-hold' }, kit: ['ball'], cue: 'Press the ball, breathe', look: 'Even from both sides', fault: ['Holding the breath', 'Half the pressure'] }),
	tissue({ id: 'slow-split-squat', name: 'Slow split squat', legs: 'one', dose: [3, 4], restS: 45, repS: 7, regions: { 'front-thigh': 2, knee: 2, hip: 1 }, alternatives: { 'front-thigh': 'bridge-hold', knee: 'bridge-hold', hip: 'calf-hold' }, cue: 'Four down, three up', look: 'Knee over foot', fault: ['Dropping the last part', 'Shallower'] }),
]
