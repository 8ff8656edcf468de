import { expect, it } from 'vitest'
import { writeAmount, writeRests, writeWhat, writeWork, writeWorn } from './write-work'

const names: Record<string, string> = { pull: 'Heavy pull', start: 'Free start', hop: 'Hop', run: 'Building run' }
const drillOf = (id: string) => (names[id] ? { name: names[id]! } : null)
const straight = { repsS: 0, setsS: 0 }
const piece = (drillId: string, reps: number, judged: boolean, parameters = {}) => ({
	drillId,
	reps,
	parameters,
	rest: straight,
	judged,
})
const contrast = {
	drillId: 'start',
	parameters: { distanceM: 10 },
	dose: { sets: 2, reps: 1 },
	pieces: [piece('pull', 1, false, { distanceM: 10 }), piece('start', 2, true, { distanceM: 10 })],
}
it('says a complex by its pieces and its rounds', () => {
	expect(writeWork(contrast, drillOf)).toBe('Heavy pull 10 m, then free start 10 m ×2, 2 rounds')
	expect(writeAmount({ ...contrast, dose: { sets: 1, reps: 1 } })).toBe('1 round')
	expect(writeWhat({ ...contrast, pieces: [piece('gone', 1, false), piece('start', 1, true)] }, drillOf)).toBe(
		'a drill that is gone, then free start',
	)
	expect(writeRests({ ...contrast, rest: { repsS: 420, setsS: 300 } })).toBe(
		'7:00 between the pieces, 5:00 between rounds',
	)
	expect(writeRests({ ...contrast, dose: { sets: 1, reps: 1 }, rest: { repsS: 0, setsS: 300 } })).toBe('straight on')
})
it('says a plain line, its sides, and on which reps a weight is worn', () => {
	const hop = { drillId: 'hop', parameters: {}, dose: { sets: 2, reps: 3 } }
	expect(writeWork(hop, drillOf)).toBe('Hop, 2×3')
	expect(writeRests({ ...hop, rest: { repsS: 8, setsS: 150 } })).toBe('rest 0:08, 2:30 between sets')
	const sides = { left: { sets: 2, reps: 3 }, right: { sets: 1, reps: 3 } }
	expect(writeAmount({ ...hop, sides })).toBe('left 2×3, right 1×3')
	expect(writeAmount({ ...hop, sides: { right: { sets: 1, reps: 3 } } })).toBe('right 1×3')
	const carried = { segment: 'shank', grams: 100, fromJointCm: 25 } as const
	expect(writeAmount({ ...hop, carried })).toBe('2×3, the weight on reps 2 to 5')
	expect(writeAmount({ dose: { sets: 1, reps: 3 }, carried })).toBe(
		'1×3, all free: too few to wear it and to finish without',
	)
})
it('says where a weight is worn', () => {
	expect(writeWorn({ segment: 'shank', fromJointCm: 25 })).toBe('on each shank, 25 cm from the knee')
	expect(writeWorn({ segment: 'upper-arm', side: 'left' })).toBe('on the left upper arm')
	expect(writeWorn({ segment: 'trunk', fromJointCm: 10 })).toBe('on the trunk')
})
