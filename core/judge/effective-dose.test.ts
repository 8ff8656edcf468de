import { describe, expect, it } from 'vitest'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY, rungOf } from '../library/starter-library'
import type { Dose } from '../vocabulary/dose'
import type { Phase } from '../vocabulary/words'
import type { School } from '../vocabulary/school'
import { stateAt } from '../../tests/support/verdict-fixture'
import { cutWords, doseShare, effectiveDose } from './effective-dose'
import type { LadderState } from './types'

// The dose factor is the smallest that fired, never a product: phase (intensify 75 %, unloading 60 %), coming
// back (60, 75, 90 %), kept ladders two thirds, what the sheet asks. Rounding: sets before reps, whole sets,
// never under 1 set × 2 reps. Our setting.

const pogo = STARTER_LIBRARY.drills.pogo!
const back = (percent: 60 | 75 | 90): LadderState['back'] => ({ percent, since: null, stage: 'short' })
const share = (
	more: { entry?: number; phase?: Phase; kept?: boolean; back?: LadderState['back'] },
	school: School = QUALITY_FIRST,
) =>
	doseShare({ back: more.back ?? null }, pogo, school, {
		entry: more.entry ?? 1,
		phase: more.phase ?? 'accumulate',
		kept: more.kept ?? false,
	})

describe('the smallest share that holds', () => {
	it.each([
		[{}, 1],
		[{ phase: 'intensify' }, 0.75],
		[{ phase: 'unloading' }, 0.6],
		[{ phase: 'peaking' }, 1],
		[{ kept: true }, 2 / 3],
		[{ entry: 0.5 }, 0.5],
		[{ entry: 1.4 }, 1],
		[{ back: back(60) }, 0.6],
		[{ back: back(75) }, 0.75],
		[{ back: back(90) }, 0.9],
		[{ phase: 'intensify', kept: true }, 2 / 3],
		[{ phase: 'unloading', kept: true }, 0.6],
		[{ phase: 'intensify', back: back(90) }, 0.75],
		[{ phase: 'intensify', back: back(60), kept: true }, 0.6],
		[{ entry: 0.7, phase: 'intensify', back: back(75), kept: true }, 2 / 3],
	] as [Parameters<typeof share>[0], number][])('%j: %d', (more, expected) => {
		expect(share(more)).toBeCloseTo(expected, 12)
	})
})

describe('the dose on the sheet', () => {
	const { rung } = rungOf(STARTER_LIBRARY.ladders.stiffness!, 'pogo')
	const on = (dose: Dose, more: Partial<LadderState> = {}) => stateAt('stiffness', 'pogo', { dose, ...more })
	const shares = (entry: number, phase: Phase = 'accumulate') => ({ entry, phase, kept: false })
	it.each([
		[{ sets: 4, reps: 15 }, 1, { sets: 4, reps: 15 }],
		[{ sets: 4, reps: 15 }, 0.75, { sets: 3, reps: 15 }],
		[{ sets: 4, reps: 15 }, 0.74, { sets: 2, reps: 15 }],
		[{ sets: 4, reps: 15 }, 0.5, { sets: 2, reps: 15 }],
		[{ sets: 1, reps: 6 }, 0.75, { sets: 1, reps: 4 }],
		[{ sets: 1, reps: 6 }, 0.1, { sets: 1, reps: 2 }],
	] as [Dose, number, Dose][])('%j at %d', (own, entry, expected) => {
		expect(effectiveDose(on(own), rung, pogo, QUALITY_FIRST, shares(entry))).toEqual(expected)
	})
	it('a rung the athlete does not stand on has its own dose', () => {
		const other = rungOf(STARTER_LIBRARY.ladders.stiffness!, 'calf-hold').rung
		expect(effectiveDose(on({ sets: 1, reps: 2 }), other, pogo, QUALITY_FIRST, shares(1))).toEqual(other.dose)
	})
	it('a cut for the week’s ramp is taken as it is, where it is less', () => {
		const cut = on({ sets: 1, reps: 5 }, { easedBy: 'ramp' })
		expect(effectiveDose(cut, rung, pogo, QUALITY_FIRST, shares(1))).toEqual({ sets: 1, reps: 5 })
		// The unloading week asks for less than the cut left: three sets of fifteen at 60 % are one set.
		const wide = on({ sets: 2, reps: 15 }, { easedBy: 'ramp' })
		expect(effectiveDose(wide, rung, pogo, QUALITY_FIRST, shares(1, 'unloading'))).toEqual({ sets: 1, reps: 15 })
	})
	it('a dose eased by a verdict is the athlete’s own and is cut like any other', () => {
		const eased = on({ sets: 2, reps: 15 }, { easedBy: 'drop-off' as LadderState['easedBy'] })
		expect(effectiveDose(eased, rung, pogo, QUALITY_FIRST, shares(0.5))).toEqual({ sets: 1, reps: 15 })
	})
})

describe('why a dose is cut, in words', () => {
	const said = (more: Parameters<typeof share>[0]) =>
		cutWords({ back: more.back ?? null }, pogo, QUALITY_FIRST, {
			entry: more.entry ?? 1,
			phase: more.phase ?? 'accumulate',
			kept: more.kept ?? false,
		})
	it.each([
		[{}, null],
		[{ phase: 'intensify' }, 'intensify phase: 75 % of the dose'],
		[{ phase: 'unloading' }, 'unloading phase: 60 % of the dose'],
		[{ back: back(75) }, 'back after time away: 75 % of the dose'],
		[{ kept: true }, 'only kept in this block: 67 % of the dose'],
		[{ entry: 0.5 }, 'the sheet asks for less: 50 % of the dose'],
		[{ phase: 'intensify', back: back(60) }, 'back after time away: 60 % of the dose'],
		[{ phase: 'unloading', back: back(90), kept: true }, 'unloading phase: 60 % of the dose'],
	] as [Parameters<typeof share>[0], string | null][])('%j: %s', (more, expected) => {
		expect(said(more)).toBe(expected)
	})
})
