import { expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Parameters } from '../vocabulary/dose'
import { lengthNeeded } from './room'

// A way of its own metres, the run-in before it, 15 m behind a maximal run (common practice, no source) and 5 m behind
// others; on the spot three metres.
it.each([
	['standing-start', { distanceM: 10 }, 25],
	['standing-start', { distanceM: 20 }, 35],
	['fly-10', { distanceM: 10, runInM: 20 }, 45],
	['dribble', { distanceM: 20 }, 25],
	// There and back over 20 m.
	['shuttle-repeat', { distanceM: 40, angleDeg: 180 }, 25],
	['relaxed-skip', { distanceM: 20 }, 20],
	['pogo', {}, 3],
	['calf-hold', {}, 0],
] as [string, Parameters, number][])('%s %j needs %d m', (id, parameters, expected) => {
	expect(lengthNeeded(STARTER_LIBRARY.drills[id]!, parameters)).toBeCloseTo(expected, 6)
})
