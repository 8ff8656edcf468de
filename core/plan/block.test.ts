import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, weekday } from '../calendar/day-count'
import { readRamp } from '../dose/ramp'
import { SCHOOLS } from '../library/schools'
import {
	type BlockPlan,
	EMPHASES,
	blockSessions,
	completePlan,
	defaultPhases,
	defaultShape,
	replanShape,
	weekRoles,
} from './block'
import { STARTER_LIBRARY } from '../library/starter-library'

const { themes } = STARTER_LIBRARY
const MONDAY = '2026-11-30'
const DAYS = [
	{ weekday: 2, startTime: '17:30', minutes: 90 },
	{ weekday: 5, startTime: '17:30', minutes: 90 },
]

describe('a block', () => {
	it('has the weekly shapes a coach knows: 100, 110, 120, 60 and 100, 108, 115, 120, 60', () => {
		expect(defaultShape(4)).toEqual([100, 110, 120, 60])
		expect(defaultShape(5)).toEqual([100, 108, 115, 120, 60])
		expect(() => defaultShape(9)).toThrow('weeks: 9')
	})
	it('passes the ramp in a first and in a repeated block, whatever its length', () => {
		for (let weeks = 3; weeks <= 8; weeks++)
			for (const school of SCHOOLS.filter((one) => one.numbers.rampPercent >= 15)) {
				const days: { day: string; value: number; unloading: boolean }[] = []
				for (let week = 0; week < weeks * 2; week++) {
					const day = addDays(MONDAY, week * 7 + 1)
					const value = defaultShape(weeks)[week % weeks]!
					if (days.length > 0)
						expect(
							readRamp(days, day, 0, school.numbers.rampPercent).room,
							`${weeks} weeks, week ${week + 1}, ${school.name}`,
						).toBeGreaterThanOrEqual(value)
					days.push({ day, value, unloading: week % weeks === weeks - 1 })
				}
			}
	})
	it('gives every training day its session, with the heaviest week whole and the last unloading', () => {
		const sessions = blockSessions(
			completePlan({ start: MONDAY, phases: defaultPhases(5, 'accumulate'), shape: defaultShape(5), days: DAYS }),
			themes,
		)
		expect(sessions).toHaveLength(10)
		expect(sessions.map((session) => session.share)).toEqual([0.83, 0.83, 0.9, 0.9, 0.96, 0.96, 1, 1, 0.5, 0.5])
		expect(sessions.map((session) => session.phase).slice(-4)).toEqual([
			'intensify',
			'intensify',
			'unloading',
			'unloading',
		])
		expect(new Set(sessions.map((session) => weekday(session.day)))).toEqual(new Set([2, 5]))
		for (const emphasis of EMPHASES) expect(defaultPhases(4, emphasis).at(-1)).toBe('unloading')
	})
	it('says what is wrong', () => {
		const plan: BlockPlan = completePlan({
			start: MONDAY,
			phases: defaultPhases(4, 'peaking'),
			shape: defaultShape(4),
			days: DAYS,
		})
		expect(() => blockSessions({ ...plan, start: '2026-12-01' }, themes)).toThrow('is not a Monday')
		expect(() => blockSessions({ ...plan, shape: [100, 110] }, themes)).toThrow('4 weeks with 2 loads')
		expect(() => blockSessions({ ...plan, days: [] }, themes)).toThrow('at least one training day')
		expect(() => blockSessions({ ...plan, shape: [100, 110, 500, 60] }, themes)).toThrow('outside 20 to 200')
	})
})

const day = (weekday: number, startTime = '17:30') => ({ weekday, startTime, minutes: 75 })
describe('the week of a block', () => {
	it('keeps high days apart, around the weekend too', () => {
		expect(weekRoles([day(2), day(4)], 44)).toEqual(['hard', 'hard'])
		expect(weekRoles([day(1), day(2), day(4)], 44)).toEqual(['hard', 'light', 'hard'])
		expect(weekRoles([day(1), day(3), day(5), day(7)], 44)).toEqual(['hard', 'hard', 'hard', 'light'])
		expect(weekRoles([day(2), day(4), day(6)], 68)).toEqual(['hard', 'light', 'hard'])
		expect(weekRoles([day(2)], 44)).toEqual(['hard'])
	})
	it('makes the second session of a day tendon work, six hours after the fast one', () => {
		expect(weekRoles([day(2, '17:00'), day(2, '10:30'), day(4)], 44)).toEqual(['tissue', 'hard', 'hard'])
		expect(() => weekRoles([day(2, '12:00'), day(2, '17:30')], 44)).toThrow('less than 6 h')
		expect(() => weekRoles([day(2, '06:00'), day(2, '12:00'), day(2, '19:00')], 44)).toThrow('at most two')
	})
	it('never has two hard days closer than the spacing: property', () => {
		fc.assert(
			fc.property(
				fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
				fc.constantFrom(44, 68),
				(weekdays, spacing) => {
					const hard = weekdays.filter(
						(_, index) =>
							weekRoles(
								weekdays.map((one) => day(one)),
								spacing,
							)[index] === 'hard',
					)
					expect(hard.length).toBeGreaterThan(0)
					for (const a of hard)
						for (const b of hard)
							if (a !== b) expect(Math.min((a - b + 7) % 7, (b - a + 7) % 7) * 24).toBeGreaterThanOrEqual(spacing)
				},
			),
		)
	})
	it('tests on the last hard day of the unloading week', () => {
		const plan = completePlan({
			start: MONDAY,
			phases: defaultPhases(4, 'peaking'),
			shape: defaultShape(4),
			days: DAYS,
			testDay: true,
		})
		expect(blockSessions(plan, themes).map((session) => session.role)).toEqual([
			'hard',
			'hard',
			'hard',
			'hard',
			'hard',
			'hard',
			'hard',
			'test',
		])
	})
})

describe('a block after missed weeks', () => {
	it('comes back at three quarters after one, at six tenths after two, then goes on rising', () => {
		expect(replanShape([100, 108, 115, 120, 60], [true, false], 15)).toEqual([100, 108, 75, 100, 60])
		expect(replanShape([100, 104, 108, 112, 115, 118, 120, 60], [true, true, false, false], 15)).toEqual([
			100, 104, 108, 112, 62, 101, 105, 60,
		])
		expect(replanShape([100, 108, 115, 120, 60], [true, true], 15)).toEqual([100, 108, 115, 120, 60])
		expect(replanShape([100, 110, 120, 60], [false], 15)).toEqual([100, 75, 86, 60])
	})
	it('passes the ramp whatever was missed: property', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 4, max: 8 }),
				fc.array(fc.boolean(), { minLength: 1, maxLength: 6 }),
				fc.constantFrom(...SCHOOLS),
				(weeks, trained, { numbers }) => {
					fc.pre(trained.length < weeks && trained.at(-1) === false && trained.includes(true))
					const shape = replanShape(defaultShape(weeks), trained, numbers.rampPercent)
					expect(shape).toHaveLength(weeks)
					const days: { day: string; value: number; unloading: boolean }[] = []
					for (const [week, value] of shape.entries()) {
						const at = addDays(MONDAY, week * 7 + 1)
						if (week >= trained.length)
							expect(readRamp(days, at, 0, numbers.rampPercent).room + 1e-9).toBeGreaterThanOrEqual(value)
						if (trained[week] !== false) days.push({ day: at, value, unloading: week === weeks - 1 })
					}
					expect(shape.at(-1)).toBe(60)
				},
			),
			{ seed: 3 },
		)
	})
})
