import { describe, expect, it } from 'vitest'
import { DAY, factsOf, form } from '../../tests/support/plain-facts'
import type { CareReport } from '../vocabulary/care'
import { placeOf } from './bars'
import { pain } from './s1-pain'
import { restrictsDrill } from './bars'
import { restriction } from './s2-restriction'
import { unwell } from './s3-unwell'
import { levelAgeMass } from './s4-level-age-mass'
import { worry } from './s9-worry'
import { STARTER_LIBRARY } from '../library/starter-library'

const hurts = (region: CareReport['region'], score: number, more: Partial<CareReport> = {}): CareReport => ({
	kind: 'pain',
	region: region!,
	side: 'left',
	score,
	day: DAY,
	...more,
})

// A closed region bars every load of it, a spared one loads of 2 and 3 and all high and shock work; a noted one nothing.
describe('S1, what hurts', () => {
	it.each([
		// The knee: 1 in an A-run, 3 in a cut; 1 in a sprint, which is high.
		['a-run', 2, null],
		['a-run', 4, null],
		['a-run', 5, 'closed'],
		['cut-90', 2, null],
		['cut-90', 3, 'spared'],
		['standing-start', 2, null],
		['standing-start', 3, 'spared'],
		['slow-split-squat', 4, 'spared'],
		['two-foot-stick', 4, null],
		// A throw from a seat does not load it.
		['seated-chest-push', 9, null],
	])('%s with a left knee of %i', (drillId, score, found) => {
		const finding = pain.read(factsOf({ reports: [hurts('knee', score)] }), form(drillId))
		if (found === null) expect(finding).toBeNull()
		else
			expect(finding).toMatchObject({
				rule: 'S1',
				tier: 'block',
				found: found === 'closed' ? 'left knee closed since Fri 20 Mar' : 'left knee to be spared since Fri 20 Mar',
				limit: found === 'closed' ? 'cleared by a health professional' : 'quiet after the easy form',
			})
	})
	it('names every region that bars it', () => {
		const reports = [hurts('knee', 6), hurts('ankle', 4, { side: 'right' })]
		expect(pain.read(factsOf({ reports }), form('cut-90'))).toMatchObject({
			found: 'right ankle to be spared since Fri 20 Mar, left knee closed since Fri 20 Mar',
			limit: 'cleared by a health professional',
		})
	})
	it('everything closed bars walking, too, and asks for a doctor', () => {
		const facts = factsOf({ reports: [{ kind: 'head', day: DAY }] })
		expect(pain.read(facts, form('range-of-motion'))).toMatchObject({
			found: 'everything closed since Fri 20 Mar',
			limit: 'cleared by a doctor',
		})
	})
	it('a region closed by hand is said as that, once', () => {
		const facts = factsOf({ restrictions: [{ region: 'knee', since: '2026-03-10' }] })
		expect(pain.read(facts, form('cut-90'))).toBeNull()
		expect(restriction.read(facts, form('cut-90'))).toMatchObject({
			rule: 'S2',
			found: 'knee closed by hand since Tue 10 Mar',
		})
	})
	it('places are said as people say them', () => {
		expect(placeOf({ region: 'knee', side: 'both' })).toBe('knee')
		expect(placeOf({ region: 'calf', side: 'right' })).toBe('right calf or Achilles')
		expect(placeOf({ region: 'everything' })).toBe('everything')
	})
})

describe('S2, closed by hand', () => {
	const drill = (id: string) => STARTER_LIBRARY.drills[id]!
	it.each([
		[{ region: 'knee' as const }, 'a-run', true],
		[{ region: 'knee' as const }, 'seated-chest-push', false],
		[{ pattern: 'lateral' as const }, 'lateral-two', true],
		[{ pattern: 'lateral' as const }, 'standing-start', false],
		// Closing a pattern closes moving in it, not preparing or holding still.
		[{ pattern: 'linear' as const }, 'easy-run', false],
		[{ pattern: 'linear' as const }, 'calf-hold', false],
		// Everything bars whatever there is; one drill bars itself alone.
		[{ region: 'everything' as const }, 'calf-hold', true],
		[{ drillId: 'pogo' }, 'pogo', true],
		[{ drillId: 'pogo' }, 'broad-jump', false],
		[{ drillId: 'pogo', pattern: 'lateral' as const }, 'lateral-two', true],
		[{}, 'a-run', false],
	])('%j and %s', (restricted, id, bars) => {
		expect(restrictsDrill(restricted, drill(id))).toBe(bars)
	})
	it('is said by what was closed', () => {
		const found = (one: object) =>
			restriction.read(factsOf({ restrictions: [{ since: '2026-03-10', ...one }] as never }), form('pogo'))?.found
		expect(found({ region: 'everything' })).toBe('everything closed by hand since Tue 10 Mar')
		expect(found({ drillId: 'pogo' })).toBe('pogo closed by hand since Tue 10 Mar')
		expect(found({ region: 'calf', drillId: 'pogo' })).toBe('calf or Achilles and pogo closed by hand since Tue 10 Mar')
	})
	it('counts from its day', () => {
		const read = (since: string) =>
			restriction.read(factsOf({ restrictions: [{ pattern: 'lateral', since }] }), form('cut-90'))
		expect(read('2026-03-20')).toMatchObject({ found: 'lateral work closed by hand since Fri 20 Mar' })
		expect(read('2026-03-21')).toBeNull()
	})
})

describe('S3, unwell', () => {
	it.each([
		['standing-start', true],
		['depth-jump', true],
		['alternate-bounds', true],
		['sixty', true],
		['broad-jump', false],
		['a-run', false],
		['kneeling-chest-push', false],
	])('bars %s: %s', (drillId, barred) => {
		const finding = unwell.read(factsOf({ reports: [{ kind: 'unwell', day: '2026-03-19' }] }), form(drillId))
		expect(finding !== null).toBe(barred)
		expect(unwell.read(factsOf(), form(drillId))).toBeNull()
		if (finding) expect(finding).toMatchObject({ tier: 'block', found: 'unwell since Thu 19 Mar' })
	})
})

// Level 1 or under 16: boxes to 30 cm, no rebound, no pulled speed; over 100 kg no box over 45 cm; unknown is the strictest row.
describe('S4, level, age and mass', () => {
	const read = (more: Parameters<typeof factsOf>[0], ...asked: Parameters<typeof form>) =>
		levelAgeMass.read(factsOf(more), form(...asked))?.found ?? null
	it.each([
		[16, null],
		[15, '15 years old'],
		[null, 'no birth date'],
	])('a rebound at the age of %s', (ageYears, found) => {
		expect(read({ ageYears }, 'depth-jump', { heightCm: 15 })).toBe(found)
		expect(read({ ageYears }, 'assisted-fly')).toBe(found)
	})
	it.each([
		[1, 'level 1'],
		[2, null],
	] as const)('a rebound and a pulled run at level %i', (level, found) => {
		expect(read({ level }, 'depth-jump', { heightCm: 15 })).toBe(found)
		expect(read({ level }, 'assisted-fly')).toBe(found)
	})
	it.each([
		[30, 1, 24, null],
		[31, 1, 24, 'level 1'],
		[30, 3, 15, null],
		[31, 3, 15, '15 years old'],
		[31, 3, null, 'no birth date'],
		[31, 2, 16, null],
	] as const)('a landing from %i cm at level %i, %s years', (heightCm, level, ageYears, found) => {
		expect(read({ level, ageYears }, 'drop-landing', { heightCm })).toBe(found)
		expect(read({ level, ageYears }, 'pause-jump', { heightCm })).toBe(found)
	})
	it.each([
		[45, 101, null],
		[46, 100, null],
		[46, 101, '101 kg'],
		[46, null, 'no body mass'],
	])('a landing from %i cm at %s kg', (heightCm, massKg, found) => {
		expect(read({ massKg }, 'drop-landing', { heightCm })).toBe(found)
	})
	it('says which are blocks, and which number is published', () => {
		expect(levelAgeMass.read(factsOf({ massKg: 104 }), form('drop-landing', { heightCm: 60 }))).toMatchObject({
			tier: 'block',
			firmness: 'published',
			limit: 'no box over 45 cm over 100 kg',
		})
		expect(levelAgeMass.read(factsOf({ level: 1 }), form('drop-landing', { heightCm: 45 }))).toMatchObject({
			firmness: 'our setting',
			limit: 'boxes to 30 cm at level 1 or under 16',
		})
		expect(levelAgeMass.read(factsOf({ level: 1 }), form('assisted-fly'))?.limit).toContain('no assisted speed')
		expect(levelAgeMass.read(factsOf({ level: 1 }), form('depth-jump'))?.limit).toContain('land and pause only')
	})
	it('leaves jumps onto a box and runs alone', () => {
		expect(read({ level: 1, ageYears: 12, massKg: 120 }, 'box-jump', { heightCm: 60 })).toBeNull()
		expect(read({ level: 1, ageYears: 12, massKg: 120 }, 'standing-start')).toBeNull()
	})
})

describe('S9, a worry', () => {
	const reports: CareReport[] = [{ kind: 'worry', drillId: 'fly-10', region: 'back-thigh', day: '2026-03-18' }]
	it('is a caution about its own movement alone', () => {
		expect(worry.read(factsOf({ reports }), form('fly-10'))).toMatchObject({
			tier: 'caution',
			found: 'a worry about the back thigh since Wed 18 Mar',
		})
		expect(worry.read(factsOf({ reports }), form('fly-20'))).toBeNull()
		const { region: _region, ...plain } = reports[0]!
		expect(worry.read(factsOf({ reports: [plain] }), form('fly-10'))?.found).toBe('a worry since Wed 18 Mar')
	})
})
