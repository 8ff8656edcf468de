import { describe, expect, it } from 'vitest'
import { athlete, gate, good, next, noRamp, run, stateAt, usual } from '../../tests/support/verdict-fixture'
import { QUALITY_FIRST, SCHOOLS } from '../library/schools'
import type { School, SchoolChoices, SchoolNumbers } from '../vocabulary/school'
import { stricterOf } from './stricter'
import type { VerdictInput } from './types'

// Two squads: the stricter numbers and phase of rebounds of all; other choices are those of the session's squad.

const school = (id: string, choices: Partial<SchoolChoices>, numbers: Partial<SchoolNumbers> = {}): School => ({
	...QUALITY_FIRST,
	id: id as School['id'],
	choices: { ...QUALITY_FIRST.choices, ...choices },
	numbers: { ...QUALITY_FIRST.numbers, ...numbers },
})
const strict = school(
	'strict',
	{ depthJumps: 'never', assisted: 'none', variety: 'rotate' },
	{ rampPercent: 10, spacingH: 72, highestBoxCm: 30, advancesPerSession: 2, sprintGoalMs: 120 },
)

describe('the strictest of all schools', () => {
	const safe = { rampPercent: 10, spacingH: 72, highestBoxCm: 30, assistedCapPercent: 0, depthJumps: 'never' }
	it('whichever squad trains, and nothing else of the others', () => {
		expect(stricterOf(QUALITY_FIRST, [strict])).toEqual(safe)
		expect(stricterOf(strict, [QUALITY_FIRST])).toEqual(safe)
		expect(stricterOf(QUALITY_FIRST, [QUALITY_FIRST, strict])).toEqual(safe)
	})
	it('number by number, from whichever school asks it', () => {
		const [one, other] = [
			school('one', { depthJumps: 'peaking', assisted: 'to-20' }, { rampPercent: 5, spacingH: 48, highestBoxCm: 75 }),
			school(
				'other',
				{ depthJumps: 'all-year', assisted: 'to-10' },
				{ rampPercent: 20, spacingH: 60, highestBoxCm: 45 },
			),
		]
		const both = { rampPercent: 5, spacingH: 60, highestBoxCm: 45, assistedCapPercent: 10, depthJumps: 'peaking' }
		expect(stricterOf(one, [other])).toEqual(both)
		expect(stricterOf(other, [one])).toEqual(both)
	})
	it('of one school there is nothing to say', () => {
		expect(stricterOf(QUALITY_FIRST, [])).toBeUndefined()
		expect(stricterOf(QUALITY_FIRST, [QUALITY_FIRST])).toBeUndefined()
	})
	it.each([
		[['never', 'peaking', 'peaking-and-intensify', 'all-year'], 'never'],
		[['all-year', 'peaking'], 'peaking'],
		[['all-year', 'peaking-and-intensify'], 'peaking-and-intensify'],
		[['peaking-and-intensify', 'peaking'], 'peaking'],
	] as const)('rebounds of %j: %s', (sides, expected) => {
		const [own, ...others] = sides.map((depthJumps) => school(depthJumps, { depthJumps }))
		expect(stricterOf(own!, others)?.depthJumps).toBe(expected)
	})
	it('the schools that come with it', () => {
		const named = (id: string) => SCHOOLS.find((one) => one.id === id)!
		expect(stricterOf(named('capacity-base'), [named('return-and-protect')])).toEqual(safe)
	})
})

describe('a verdict is held to it', () => {
	const own = {
		rampPercent: 15,
		spacingH: 48,
		highestBoxCm: 45,
		assistedCapPercent: 10,
		depthJumps: 'peaking' as const,
	}
	const jumps = (rungId: string, safety: VerdictInput['safety'], more: Partial<VerdictInput> = {}) =>
		run(
			'shock',
			stateAt('shock', rungId),
			{ quality: good(10) },
			{ quality: good(10) },
			{
				athlete: athlete({ level: 3 }),
				...(safety ? { safety } : {}),
				...more,
			},
		).next.rungId
	it('rebounds from a box only in the phases all schools open them in', () => {
		expect(jumps('pause-30', own)).toBe('depth-15')
		expect(jumps('pause-30', { ...own, depthJumps: 'never' })).toBe('landing-45')
		const allYear = { athlete: athlete({ level: 3 }), next: next({ phase: 'intensify' }) }
		expect(jumps('pause-30', { ...own, depthJumps: 'peaking-and-intensify' }, allYear)).toBe('depth-15')
		expect(jumps('pause-30', own, allYear)).toBe('landing-45')
	})
	it('of older inputs the session’s school alone says it', () => {
		const { depthJumps: _, ...older } = own
		expect(jumps('pause-30', older)).toBe('depth-15')
	})
	it('boxes no higher than all of them have', () => {
		expect(jumps('landing-45', own)).toBe('pause-45')
		expect(jumps('landing-45', { ...own, highestBoxCm: 30 })).not.toBe('pause-45')
	})
	// Two passes at three-point starts; the next session is on Monday 16 March, 17:30.
	const starts = (more: Partial<VerdictInput>) => {
		const pass = { marks: gate(1.8, 1.8, 1.8, 1.8, 1.8, 1.8), usual: { gate: usual(1.88) } }
		return run('acceleration', stateAt('acceleration', 'three-point-10'), pass, pass, more)
	}
	it('spacing', () => {
		const work: VerdictInput['work'] = [
			{ day: '2026-03-14', startTime: '15:30', families: ['sprint'], kinds: ['maximal-sprint'], outside: false },
		]
		expect(starts({ work, safety: own }).verdict).toBe('advance')
		expect(starts({ work, safety: { ...own, spacingH: 72 } })).toMatchObject({ verdict: 'hold', decidedBy: 'S6' })
	})
	it('the ramp', () => {
		// A mean of 20 starts: 23 with 15 %, 22 with 10; six more than 17 are 23.
		const ramp = {
			...noRamp,
			maximalStarts: [
				{ day: '2026-03-04', value: 20, unloading: false },
				{ day: '2026-03-16', value: 17, unloading: false },
			],
		}
		const ruled = (rampPercent: number) =>
			starts({ ramp, safety: { ...own, rampPercent } }).trace.find(({ rule }) => rule === 'S7')
		expect(ruled(15)).toMatchObject({ fired: false, limit: '23 in the week' })
		expect(ruled(10)).toMatchObject({ fired: true, limit: '22 in the week' })
	})
})
