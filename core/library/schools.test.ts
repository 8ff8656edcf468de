import { describe, expect, it } from 'vitest'
import { contactRisePercent } from './contact-rise'
import { NUMBER_BOUNDS, QUESTIONS } from './schools'
import { STARTER_LIBRARY } from './starter-library'
import type { SchoolNumbers } from '../vocabulary/school'

// Where good coaches disagree: what each preset chooses, and the bounds a number is kept to. Our setting.
const PRESETS = ['quality-first', 'jump-ladder', 'capacity-base', 'return-and-protect'] as const
const of = (id: string) => STARTER_LIBRARY.schools[id]!

describe('numbers of the presets: Quality first, Jump ladder, Capacity base, Return and protect', () => {
	it.each([
		['passCeilingLevel2Ms', [250, 250, 250, 250], [150, 250]],
		['passCeilingLevel3Ms', [200, 220, 200, 200], [150, 250]],
		['sprintGoalMs', [150, 180, 150, 150], [100, 200]],
		['highestBoxCm', [45, 75, 45, 30], [15, 75]],
		['dropOffSpeedPercent', [3, 3, 5, 2], [1, 10]],
		['dropOffRepeatPercent', [5, 5, 8, 4], [1, 10]],
		['dropOffJumpPercent', [5, 5, 8, 4], [1, 10]],
		['rampPercent', [15, 15, 20, 10], [5, 20]],
		['spacingH', [48, 48, 48, 72], [48, 96]],
		['weeksToUnloading', [4, 4, 6, 3], [3, 6]],
		['carriedSpeedLossPercent', [5, 5, 10, 3], [1, 10]],
		['ballSpeedLossPercent', [10, 10, 15, 10], [5, 20]],
		['advancesPerSession', [1, 1, 2, 1], [1, 2]],
	] as [keyof SchoolNumbers, number[], [number, number]][])('%s', (name, values, [low, high]) => {
		expect(PRESETS.map((id) => of(id).numbers[name])).toEqual(values)
		expect(NUMBER_BOUNDS.find((bound) => bound.id === name)).toMatchObject({ low, high })
		for (const value of values) expect(value >= low && value <= high).toBe(true)
	})
	it('each number has a bound, and each bound a name', () => {
		expect(NUMBER_BOUNDS.map((bound) => bound.id).sort()).toEqual(Object.keys(of('quality-first').numbers).sort())
		for (const bound of NUMBER_BOUNDS) expect(bound.name.length, bound.id).toBeGreaterThan(5)
	})
	it('contact may rise by twice the limit of jump height', () => {
		expect(PRESETS.map((id) => contactRisePercent(of(id).numbers))).toEqual([10, 10, 16, 8])
	})
})

describe('sides of the presets', () => {
	it.each([
		['boxHeight', ['low', 'climb', 'low', 'low']],
		['depthJumps', ['peaking', 'peaking-and-intensify', 'all-year', 'never']],
		['volume', ['skill', 'skill', 'capacity', 'skill']],
		['conditioning', ['shuttles', 'shuttles', 'long-runs', 'shuttles']],
		['leftRight', ['close', 'close', 'close', 'close']],
		['variety', ['same', 'same', 'same', 'same']],
		['contrast', ['own-trial', 'own-trial', 'own-trial', 'own-trial']],
		['resistance', ['heavy-to-light', 'heavy-to-light', 'heavy-to-light', 'heavy-to-light']],
		['shapes', ['clock', 'eye', 'clock', 'eye']],
		['assisted', ['to-10', 'none', 'to-10', 'none']],
		['beginners', ['fewer', 'fewer', 'more-easy', 'more-easy']],
		['plants', ['all', 'all', 'sport', 'one']],
		['slowWork', ['everybody', 'need', 'everybody', 'everybody']],
		['boxJudgement', Array(4).fill('rebound-under-ceiling')],
	] as [keyof (typeof STARTER_LIBRARY.schools)[string]['choices'], string[]][])('%s', (question, sides) => {
		expect(PRESETS.map((id) => of(id).choices[question])).toEqual(sides)
	})
	it('a finisher only in the capacity base; the offer of a fast day where a set stops at its peak', () => {
		expect(PRESETS.map((id) => of(id).choices.finisher)).toEqual(['none', 'none', 'runs', 'none'])
		expect(PRESETS.map((id) => of(id).fastDayOffer)).toEqual([true, true, false, false])
		expect(PRESETS.map((id) => of(id).choices.goodDay).slice(0, 3)).toEqual(['stop', 'stop', 'finish'])
	})
	it('every question says both sides, why and what it does; every preset takes a side that is offered', () => {
		expect(QUESTIONS).toHaveLength(17)
		for (const { id, question, sides } of QUESTIONS) {
			expect(question.endsWith('?'), question).toBe(true)
			expect(sides.length, id).toBeGreaterThanOrEqual(2)
			for (const side of sides) expect([side.name, side.why, side.does].every((words) => words.length > 3)).toBe(true)
			for (const preset of PRESETS)
				expect(
					sides.map((side) => side.id as string),
					`${preset} on ${id}`,
				).toContain(of(preset).choices[id])
		}
	})
})
