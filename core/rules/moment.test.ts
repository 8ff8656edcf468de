import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { factsOf, form, upTo } from '../../tests/support/plain-facts'
import { isNew, oneNewThing } from './new-things'
import { depthOpen, phaseShare, phaseShareOf, unloading } from './p6-phase'
import { awayShare, awayStage, highestLeft, readAway } from './p9-time-away'
import { place } from './s10-place'
import { match } from './s11-match'
import { spacing } from './s6-spacing'
import { readWeek } from './s7-ramp'

const school = (id: string) => STARTER_LIBRARY.schools[id]!

describe('S10, wet grass', () => {
	it.each([
		['wet-grass', 'depth-jump', {}, 'no rebounds from a box'],
		['grass', 'depth-jump', {}, null],
		['wet-grass', 'flip-call', { angleDeg: 90 }, 'no reactive cut of 90° or more'],
		['wet-grass', 'point-and-go', { angleDeg: 89 }, null],
		['wet-grass', 'cut-90', { angleDeg: 90 }, null],
		['wet-grass', 'standing-start', {}, null],
	] as const)('%s, %s %j', (surface, drillId, parameters, limit) => {
		expect(place.read(factsOf({ surface }), form(drillId, parameters))?.limit ?? null).toBe(limit)
	})
	it('unknown ground closes nothing', () => {
		expect(place.read(factsOf(), form('depth-jump'))).toBeNull()
	})
})

// No shock and no new high rung within 48 h before a match, nothing high or maximal within 36 h after one; exactly there is allowed.
describe('S11, a match', () => {
	const known = { passed: { ...upTo('acceleration', 'standing-10') } }
	const before = (hoursToMatch: number | null, drillId: string) =>
		match.read(factsOf({ ...known, hoursToMatch }), form(drillId)) !== null
	it.each([
		[48, false],
		[47.9, true],
		[1, true],
		[null, false],
	])('a rebound %s h before', (hours, fires) => {
		expect(before(hours, 'depth-jump')).toBe(fires)
	})
	it('a hard rung only when it is new, and nothing easy', () => {
		expect(before(24, 'standing-start')).toBe(false)
		expect(before(24, 'three-point-start')).toBe(true)
		expect(before(24, 'broad-jump')).toBe(false)
	})
	it.each([
		[36, false],
		[35.9, true],
		[0, true],
		[null, false],
	])('a sprint %s h after', (hoursSinceMatch, fires) => {
		const read = (drillId: string) => match.read(factsOf({ hoursSinceMatch }), form(drillId)) !== null
		expect(read('standing-start')).toBe(fires)
		expect(read('a-run')).toBe(false)
	})
	it('says the hours', () => {
		expect(match.read(factsOf({ hoursToMatch: 24.4 }), form('depth-jump'))).toMatchObject({
			tier: 'caution',
			firmness: 'common practice',
			found: '24 h to a match',
		})
		expect(match.read(factsOf({ hoursSinceMatch: 12 }), form('standing-start'))?.found).toBe('12 h after a match')
	})
})

describe('P6, the phase', () => {
	it.each([
		['quality-first', 'peaking', true],
		['quality-first', 'intensify', false],
		['quality-first', 'accumulate', false],
		['jump-ladder', 'intensify', true],
		['jump-ladder', 'accumulate', false],
		['jump-ladder', 'peaking', true],
		['capacity-base', 'accumulate', true],
		['capacity-base', 'unloading', false],
		['return-and-protect', 'peaking', false],
	] as const)('rebounds in %s while %s: %s', (id, phase, open) => {
		expect(depthOpen(school(id), phase)).toBe(open)
	})
	it.each([
		['accumulate', 1],
		['intensify', 0.75],
		['peaking', 1],
		['unloading', 0.6],
	] as const)('a jump while %s at %f of its dose', (phase, share) => {
		expect(phaseShare(phase, STARTER_LIBRARY.drills['broad-jump']!, school('quality-first'))).toBe(share)
		expect(phaseShare(phase, STARTER_LIBRARY.drills['easy-run']!, school('quality-first'))).toBe(1)
		expect(phaseShare(phase, STARTER_LIBRARY.drills['calf-hold']!, school('quality-first'))).toBe(1)
	})
	it('rebounds all year are 60 % outside peaking, in whichever of the schools that is', () => {
		const drill = STARTER_LIBRARY.drills['depth-jump']!
		expect(phaseShare('accumulate', drill, school('capacity-base'))).toBe(0.6)
		expect(phaseShare('peaking', drill, school('capacity-base'))).toBe(1)
		expect(phaseShare('accumulate', STARTER_LIBRARY.drills['broad-jump']!, school('capacity-base'))).toBe(1)
		const both = { schools: [school('quality-first'), school('capacity-base')] as const, phase: 'accumulate' as const }
		expect(phaseShareOf(factsOf({ ...both, schools: [...both.schools] as never }), drill)).toBe(0.6)
	})
	it('an unloading week has no rebounds and nothing worn', () => {
		expect(unloading.read(factsOf({ phase: 'unloading' }), form('depth-jump'))?.limit).toBe('no rebounds from a box')
		expect(unloading.read(factsOf({ phase: 'unloading' }), form('carried-run'))?.limit).toBe('no carried load')
		expect(unloading.read(factsOf({ phase: 'unloading' }), form('broad-jump'))).toBeNull()
		expect(unloading.read(factsOf({ phase: 'intensify' }), form('depth-jump'))).toBeNull()
	})
})

describe('P8, one new thing', () => {
	const newOn = (day: string, ladderId = 'bound', rungId = 'alternate-bounds') => ({
		newRungs: [{ day, ladderId, rungId }],
	})
	it.each([
		['2026-03-18', true],
		['2026-03-17', false],
		['2026-03-22', true],
		['2026-03-23', false],
		['2026-03-20', true],
	])('bounds are new on %s: a new start is the second within 72 h: %s', (day, fires) => {
		expect(oneNewThing.read(factsOf(newOn(day)), form('standing-start')) !== null).toBe(fires)
	})
	it('an easy rung that is new holds nothing up, nor does the very same', () => {
		expect(oneNewThing.read(factsOf(newOn('2026-03-19', 'bound', 'broad-jump')), form('standing-start'))).toBeNull()
		expect(oneNewThing.read(factsOf(newOn('2026-03-20')), form('alternate-bounds'))).toBeNull()
		expect(oneNewThing.read(factsOf(newOn('2026-03-19', 'no-ladder', 'x')), form('standing-start'))).toBeNull()
	})
	it('what is known, or easy, is nothing new', () => {
		const known = { ...newOn('2026-03-19'), passed: upTo('acceleration', 'standing-10') }
		expect(oneNewThing.read(factsOf(known), form('standing-start'))).toBeNull()
		expect(oneNewThing.read(factsOf(newOn('2026-03-19')), form('broad-jump'))).toBeNull()
		expect(oneNewThing.read(factsOf(newOn('2026-03-19')), form('standing-start'))?.found).toBe(
			'Alternate bounds 20 m is new on Thu 19 Mar',
		)
	})
	it.each([
		['2026-03-18', true],
		['2026-03-17', false],
	])('a lift that is new on %s is a hard thing too: %s', (day, fires) => {
		const found = oneNewThing.read(factsOf({ newOutside: [{ day, name: 'Back squat' }] }), form('standing-start'))
		expect(found?.found ?? null).toBe(fires ? 'Back squat is new on Wed 18 Mar' : null)
		expect(oneNewThing.read(factsOf({ newOutside: [{ day, name: 'Back squat' }] }), form('broad-jump'))).toBeNull()
	})
	it('new is what was neither passed, nor a rung above it, nor met on an earlier day', () => {
		expect(isNew(factsOf(), form('standing-start'))).toBe(true)
		expect(isNew(factsOf({ passed: upTo('acceleration', 'three-point-10') }), form('standing-start'))).toBe(false)
		expect(isNew(factsOf(newOn('2026-03-10', 'acceleration', 'standing-10')), form('standing-start'))).toBe(false)
		expect(isNew(factsOf(newOn('2026-03-20', 'acceleration', 'standing-10')), form('standing-start'))).toBe(true)
		// On no ladder nobody can say.
		expect(isNew(factsOf(), form('hurdle-hop'))).toBe(false)
		// Longer than any rung of it.
		expect(
			isNew(factsOf({ passed: upTo('acceleration', 'reaction-20') }), form('standing-start', { distanceM: 30 })),
		).toBe(true)
	})
})

// 0–7 days nothing, 8–14 three quarters, 15–28 a rung down and 60 %, over 28 the way back; nothing on record is unknown.
describe('P9, time away', () => {
	const last = (day: string | null) => ({ lastWork: { sprint: day } })
	it.each([
		['2026-03-20', 'none', 1],
		['2026-03-13', 'none', 1],
		['2026-03-12', 'short', 0.75],
		['2026-03-06', 'short', 0.75],
		['2026-03-05', 'long', 0.6],
		['2026-02-20', 'long', 0.6],
		['2026-02-19', 'path', 0.6],
		[null, 'unknown', 1],
	] as const)('last on %s: %s', (day, stage, share) => {
		expect(awayStage(factsOf(last(day)), 'sprint')).toBe(stage)
		expect(awayShare(stage)).toBe(share)
	})
	it('is not counted for preparing and tendons', () => {
		expect(awayStage(factsOf({ lastWork: {} }), 'prepare')).toBe('none')
		expect(awayStage(factsOf({ lastWork: {} }), 'tissue')).toBe('none')
	})
	it('one rung down counts from the highest passed, and goes round what cannot be reached', () => {
		const [at] = form('three-point-start', { distanceM: 20 }).places
		expect(highestLeft(factsOf(), at!)).toBe(0)
		expect(highestLeft(factsOf({ passed: upTo('acceleration', 'wall') }), at!)).toBe(0)
		expect(highestLeft(factsOf({ passed: upTo('acceleration', 'three-point-20') }), at!)).toBe(3)
		// Passed to the double at 15 cm: below it stand boxes over the school's 45 cm.
		const double = form('double-depth-jump', { heightCm: 15 }).places[0]!
		expect(highestLeft(factsOf({ passed: upTo('shock', 'double-15') }), double)).toBe(8)
	})
	it('after 15 days the rung passed is too high, the one below is not', () => {
		const facts = factsOf({ ...last('2026-03-05'), passed: upTo('acceleration', 'three-point-20') })
		expect(readAway(facts, form('three-point-start', { distanceM: 20 }), null)).toMatchObject({
			rule: 'P9',
			tier: 'caution',
			found: '15 days since sprint work',
		})
		expect(readAway(facts, form('three-point-start', { distanceM: 10 }), null)).toBeNull()
		expect(
			readAway(factsOf({ ...facts, ...last('2026-03-06') }), form('three-point-start', { distanceM: 20 }), null),
		).toBeNull()
		// On no ladder there is no rung to go down.
		expect(readAway(factsOf({ lastWork: { plyometric: '2026-03-05' } }), form('hurdle-hop'), null)).toBeNull()
	})
	it('with nothing on record the drill’s lowest rung comes first', () => {
		const facts = factsOf({ lastWork: {} })
		const lowest = form('three-point-start', { distanceM: 10 })
		expect(readAway(facts, form('three-point-start', { distanceM: 20 }), lowest)).toMatchObject({
			found: 'no sprint work on record',
		})
		expect(readAway(facts, lowest, lowest)).toBeNull()
		expect(readAway(facts, form('hurdle-hop'), null)).toBeNull()
		expect(
			readAway(facts, form('three-point-start', { distanceM: 40 }), form('three-point-start', { distanceM: 30 })),
		).not.toBeNull()
	})
})

describe('S6, spacing by days', () => {
	const work = (day: string, drillId = 'fly-10') => [
		{ day, drillId, parameters: STARTER_LIBRARY.drills[drillId]!.defaults.parameters, dose: { sets: 1, reps: 3 } },
	]
	it.each([
		['2026-03-19', 24],
		['2026-03-18', null],
		['2026-03-21', 24],
		['2026-03-20', null],
	])('other sprints on %s', (day, hours) => {
		expect(spacing.read(factsOf({ work: work(day) }), form('standing-start'))?.found ?? null).toBe(
			hours === null ? null : `${hours} h from maximal sprinting`,
		)
	})
	it('the longest of the schools counts: 72 h are met after three days', () => {
		const schools = [school('quality-first'), school('return-and-protect')] as never
		expect(spacing.read(factsOf({ schools, work: work('2026-03-18') }), form('standing-start'))?.limit).toBe(
			'72 h, met from 68',
		)
		expect(spacing.read(factsOf({ schools, work: work('2026-03-17') }), form('standing-start'))).toBeNull()
	})
	it('another kind, easy work, work nobody knows of and an unknown week are no clash', () => {
		expect(spacing.read(factsOf({ work: work('2026-03-19', 'cut-90') }), form('standing-start'))).toBeNull()
		expect(spacing.read(factsOf({ work: work('2026-03-19') }), form('a-run'))).toBeNull()
		expect(spacing.read(factsOf({ work: null }), form('standing-start'))).toBeNull()
	})
	it('the nearest is named', () => {
		const facts = factsOf({
			schools: [school('return-and-protect')],
			work: [...work('2026-03-18'), ...work('2026-03-19')],
		})
		expect(spacing.read(facts, form('standing-start'))?.found).toBe('24 h from maximal sprinting')
		const turned = { ...facts, work: [...facts.work!].reverse() }
		expect(spacing.read(turned, form('standing-start'))?.found).toBe('24 h from maximal sprinting')
	})
})

// Level 2: 16 maximal starts a week are never too many.
describe('S7, the week', () => {
	const starts = (day: string, reps: number) => ({
		day,
		drillId: 'standing-start',
		parameters: { distanceM: 10 },
		dose: { sets: 1, reps },
	})
	const read = (work: ReturnType<typeof starts>[] | null, reps: number) =>
		readWeek(factsOf({ level: 2, work }), form('standing-start'), { sets: 1, reps })
	it.each([
		[[], 16, null],
		[[], 17, 16],
		[[starts('2026-03-18', 10)], 6, null],
		[[starts('2026-03-18', 10)], 7, 6],
		// Later in the same week counts, the week after does not.
		[[starts('2026-03-22', 10)], 7, 6],
		[[starts('2026-03-23', 10)], 7, null],
		// Seven days back, though it was last week.
		[[starts('2026-03-14', 10)], 7, 6],
		[[starts('2026-03-13', 10)], 7, null],
	] as const)('after %j, %i starts', (work, reps, fits) => {
		const found = read([...work], reps)
		if (fits === null) expect(found).toBeNull()
		else
			expect(found).toMatchObject({
				finding: { rule: 'S7', tier: 'caution', limit: '16' },
				fits: { sets: 1, reps: fits },
			})
	})
	it.each([
		['a full week', 16, 4, '20 maximal starts in the week'],
		['room for a single rep', 15, 4, '19 maximal starts in the week'],
		['no less than two reps are asked', 15, 2, '17 maximal starts in the week'],
	])('leaves nothing: %s', (_, done, reps, found) => {
		expect(read([starts('2026-03-18', done)], reps)).toMatchObject({ finding: { found }, fits: null })
	})
	it('the quantity with the least room decides, whatever else is over', () => {
		// Sixty cuts at level 1: ten fit by the cuts, more by the contacts of the leg that plants.
		const asked = readWeek(factsOf({ level: 1, work: [] }), form('cut-90'), { sets: 6, reps: 10 })
		expect(asked).toMatchObject({
			finding: { found: '60 cuts of 90° and more in the week', limit: '10' },
			fits: { sets: 1, reps: 10 },
		})
	})
	it('what the library does not hold any more fills no week', () => {
		expect(read([{ ...starts('2026-03-18', 10), drillId: 'forgotten' }], 16)).toBeNull()
	})
	it('whole sets fit first', () => {
		const asked = readWeek(factsOf({ level: 2, work: [starts('2026-03-18', 7)] }), form('standing-start'), {
			sets: 3,
			reps: 4,
		})
		expect(asked).toMatchObject({ fits: { sets: 2, reps: 4 } })
	})
	it('15 % over the mean of the weeks before', () => {
		const weeks = [starts('2026-03-10', 40), starts('2026-03-03', 40)]
		expect(read(weeks, 46)).toBeNull()
		expect(read(weeks, 47)).toMatchObject({ finding: { limit: '46' } })
	})
	it('an unknown week says nothing, and easy work fills none', () => {
		expect(read(null, 100)).toBeNull()
		expect(readWeek(factsOf({ work: [] }), form('a-run'), { sets: 9, reps: 9 })).toBeNull()
	})
})
