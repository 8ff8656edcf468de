import { expect, it } from 'vitest'
import type { CarriedLoad } from './dose'
import { isFreeRep, wornOn, wornReps } from './worn-reps'

// Common practice, no source: worn on 50–70 % of the reps, free before and after.
it.each([
	[1, 1, null],
	[1, 2, null],
	[1, 3, null],
	[1, 4, [2, 3]],
	[1, 5, [2, 4]],
	[2, 3, [2, 5]],
	[1, 7, [2, 5]],
	[4, 2, [2, 6]],
	[1, 9, [2, 7]],
	[2, 5, [2, 8]],
	[4, 5, [2, 15]],
] as const)('%i sets of %i: worn on reps %j', (sets, reps, expected) => {
	const worn = wornReps({ sets, reps })
	expect(worn && [worn.from, worn.to]).toEqual(expected)
})

const onShank: CarriedLoad = { segment: 'shank', fromJointCm: 10, grams: 100 }
const freeReps = (carried: CarriedLoad | null, dose: { sets: number; reps: number }) =>
	Array.from({ length: dose.sets * dose.reps }, (_, index) => ({
		setNo: Math.floor(index / dose.reps) + 1,
		repNo: (index % dose.reps) + 1,
	}))
		.map((at) => (isFreeRep({ carried, dose }, at) ? '-' : 'x'))
		.join('')
it('counts reps through the sets: first and last are free', () => {
	expect(freeReps(onShank, { sets: 4, reps: 2 })).toBe('-xxxxx--')
	expect(freeReps(onShank, { sets: 2, reps: 3 })).toBe('-xxxx-')
	expect(freeReps(onShank, { sets: 1, reps: 3 })).toBe('---')
	// More than was planned is done without it.
	expect(isFreeRep({ carried: onShank, dose: { sets: 2, reps: 3 } }, { setNo: 3, repNo: 1 })).toBe(true)
	// Nothing worn is no free rep of a worn line.
	expect(freeReps(null, { sets: 1, reps: 4 })).toBe('xxxx')
})

it('is worn where the rung says, else where the drill does; nothing without grams', () => {
	const drill = { carriesLoad: true, wornAt: { segment: 'shank', fromJointCm: 10 } } as const
	expect(wornOn(drill, { loadG: 100 })).toEqual(onShank)
	expect(wornOn(drill, { loadG: 150 }, { segment: 'shank', fromJointCm: 25 })).toEqual({
		segment: 'shank',
		fromJointCm: 25,
		grams: 150,
	})
	expect(wornOn(drill, {})).toBeNull()
	expect(wornOn({ wornAt: drill.wornAt }, { loadG: 100 })).toBeNull()
	expect(wornOn({ carriesLoad: true }, { loadG: 100 })).toBeNull()
})
