import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Drill } from '../vocabulary/drill'
import type { Parameters as DrillParameters } from '../vocabulary/dose'
import { WORK_KIND_NAMES, isHard, kindsOf } from './work-kinds'

// Kinds of hard work: maximal linear sprint, hard change of direction, high and shock plyometrics, maximal throws.
const drill = (id: string): Drill => STARTER_LIBRARY.drills[id]!
const of = (id: string, parameters: DrillParameters = {}) =>
	kindsOf(drill(id), { ...drill(id).defaults.parameters, ...parameters })

describe('kinds', () => {
	it.each([
		['standing-start', {}, ['maximal-sprint']],
		['wall-drill', {}, []],
		['pogo', {}, []],
		['relaxed-skip', {}, []],
		['broad-jump', {}, []],
		['depth-jump', { heightCm: 15 }, ['hard-jumps']],
		['drop-landing', { heightCm: 45 }, []],
		['drop-landing', { heightCm: 46 }, ['hard-jumps']],
		['pause-jump', { heightCm: 60 }, ['hard-jumps']],
		['cut-90', { angleDeg: 90 }, ['hard-turns']],
		['overhead-throw', {}, drill('overhead-throw').intensity === 'high' ? ['maximal-throws'] : []],
		['range-of-motion', {}, []],
		['calf-hold', {}, []],
		['easy-close', {}, []],
	] as [string, DrillParameters, string[]][])('%s %j', (id, parameters, kinds) => {
		expect(of(id, parameters)).toEqual(kinds)
	})
	it.each([
		[59, []],
		[60, ['hard-turns']],
		[180, ['hard-turns']],
	])('a hard cut of %d°', (angleDeg, kinds) => {
		const cut: Drill = { ...drill('cut-90'), intensity: 'high' }
		expect(kindsOf(cut, { ...cut.defaults.parameters, angleDeg })).toEqual(kinds)
		expect(kindsOf({ ...cut, intensity: 'moderate' }, { ...cut.defaults.parameters, angleDeg })).toEqual([])
	})
	it('a dead stop at speed turns hard without a cut', () => {
		const stops = Object.values(STARTER_LIBRARY.drills).filter(
			(one) => one.counting.deadStops && one.intensity === 'high',
		)
		expect(stops.length).toBeGreaterThan(0)
		for (const one of stops) expect(kindsOf(one, one.defaults.parameters), one.id).toContain('hard-turns')
	})
	it.each([
		['easy', false],
		['tempo', false],
		['sub-maximal', false],
		['fast', true],
		['maximal', true],
	] as const)('a run planned %s', (plannedZone, hard) => {
		const run: Drill = { ...drill('standing-start'), intensity: 'low', counting: { metres: { plannedZone } } }
		expect(kindsOf(run, run.defaults.parameters)).toEqual(hard ? ['maximal-sprint'] : [])
		expect(isHard(run, run.defaults.parameters)).toBe(hard)
	})
	it('a throw is maximal when it is high', () => {
		const ball: Drill = { ...drill('overhead-throw'), intensity: 'high' }
		expect(kindsOf(ball, ball.defaults.parameters)).toEqual(['maximal-throws'])
		expect(kindsOf({ ...ball, intensity: 'moderate' }, ball.defaults.parameters)).toEqual([])
	})
	it('each has a name', () => {
		expect(Object.values(WORK_KIND_NAMES)).toEqual([
			'maximal sprinting',
			'hard changes of direction',
			'high and shock jumps',
			'maximal throws',
		])
	})
})

describe('hard: high, shock or maximal', () => {
	it.each([
		['depth-jump', { heightCm: 15 }, true],
		['drop-landing', { heightCm: 45 }, false],
		['drop-landing', { heightCm: 46 }, true],
		['standing-start', {}, true],
		['pogo', {}, false],
		['broad-jump', {}, false],
		['wall-drill', {}, false],
		['range-of-motion', {}, false],
	] as [string, DrillParameters, boolean][])('%s %j: %s', (id, parameters, hard) => {
		expect(isHard(drill(id), { ...drill(id).defaults.parameters, ...parameters })).toBe(hard)
	})
})
