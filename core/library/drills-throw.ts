import type { Drill } from './types'

const throwing = { family: 'throw', reactive: false, version: 1, intensity: 'moderate' } as const
const UPPER = { shoulder: 2, elbow: 1, wrist: 1, back: 1 } as const
const SECTOR = 'Nobody stands inside the throw sector'

export const THROWING_AND_GENERAL_DRILLS: Drill[] = [
	{
		...throwing, id: 'kneeling-chest-push', name: 'Chest push from kneeling', pattern: 'linear', legs: 'none',
		counting: { throws: { sides: 'both' } }, measures: ['distance', 'quality'],
		defaults: { sets: 2, reps: 4, ballKg: 3, restS: 60, repS: 5 },
		regions: { shoulder: 1, elbow: 1, wrist: 1 }, alternatives: { shoulder: 'wall-drill', elbow: 'wall-drill', wrist: 'wall-drill' },
		cues: ['Push from the floor up'], lookFor: ['Straight trunk'], faults: [{ fault: 'Bending at the hip', correction: 'Squeeze before the push' }],
		kit: ['medicine ball', 'mat'], cautions: [SECTOR],
	},
	{
		...throwing, id: 'overhead-throw', name: 'Overhead backward throw', pattern: 'linear', legs: 'both',
		counting: { throws: { sides: 'both' } }, measures: ['distance', 'quality'],
		defaults: { sets: 2, reps: 4, ballKg: 3, restS: 75, repS: 5 },
		regions: { ...UPPER, shoulder: 3, back: 2, hip: 1, knee: 1 },
		alternatives: { shoulder: 'underhand-throw', back: 'kneeling-chest-push', hip: 'kneeling-chest-push', elbow: 'underhand-throw', wrist: 'underhand-throw', knee: 'kneeling-chest-push' },
		cues: ['Legs first, arms last'], lookFor: ['Full extension before release'], faults: [{ fault: 'Arms throw alone', correction: 'Pause low, then jump the ball away' }],
		kit: ['medicine ball', 'tape'], cautions: [SECTOR, 'Look behind before each throw'],
	},
	{
		...throwing, id: 'underhand-throw', name: 'Underhand forward throw', pattern: 'linear', legs: 'both',
		counting: { throws: { sides: 'both' } }, measures: ['distance', 'quality'],
		defaults: { sets: 2, reps: 4, ballKg: 3, restS: 75, repS: 5 },
		regions: { back: 1, hip: 1, knee: 1 }, alternatives: { back: 'kneeling-chest-push', hip: 'kneeling-chest-push', knee: 'kneeling-chest-push' },
		cues: ['Swing short, jump through'], lookFor: ['Hips open before the arms'], faults: [{ fault: 'Rounded back', correction: 'Lighter ball, shallower swing' }],
		kit: ['medicine ball', 'tape'], cautions: [SECTOR],
	},
	{
		...throwing, id: 'rotational-throw', name: 'Rotational throw', pattern: 'rotational', legs: 'both',
		counting: { throws: { sides: 'each-side' } }, measures: ['distance', 'quality'],
		defaults: { sets: 2, reps: 3, ballKg: 3, restS: 75, repS: 6 },
		regions: { ...UPPER, groin: 1, hip: 1 }, alternatives: { shoulder: 'underhand-throw', back: 'kneeling-chest-push', groin: 'kneeling-chest-push', hip: 'kneeling-chest-push', elbow: 'underhand-throw', wrist: 'underhand-throw' },
		cues: ['Hip leads, ball follows'], lookFor: ['Back foot turns'], faults: [{ fault: 'Turning the trunk alone', correction: 'Start from the back foot' }],
		kit: ['medicine ball', 'tape'], cautions: [SECTOR],
	},
	{
		id: 'range-of-motion', version: 1, name: 'Range of motion and positions', family: 'prepare', pattern: 'linear', legs: 'both', reactive: false, intensity: 'low',
		counting: {}, measures: ['quality'],
		defaults: { sets: 1, reps: 1, restS: 0, repS: 600 }, regions: {}, alternatives: {},
		cues: ['Slow, full, easy'], lookFor: ['Who moves differently today?'], faults: [{ fault: 'Rushing in the cold', correction: 'Add five minutes' }],
		kit: [], cautions: [],
	},
	{
		id: 'easy-close', version: 1, name: 'Walk and breathe', family: 'prepare', pattern: 'linear', legs: 'both', reactive: false, intensity: 'low',
		counting: {}, measures: ['quality'],
		defaults: { sets: 1, reps: 1, restS: 0, repS: 300 }, regions: {}, alternatives: {},
		cues: ['Leave fresh'], lookFor: ['Anybody limping?'], faults: [{ fault: 'One more sprint for fun', correction: 'Collect the cones first' }],
		kit: [], cautions: [],
	},
]
