import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { concluded, upTo } from '../../tests/support/plain-facts'
import type { CareReport } from '../vocabulary/care'
import { type Ask, type Purpose, permit, rungAt } from './permit'
import { sayAnswer, sayReason } from './say'

type More = Parameters<typeof concluded>[0]
const ask = (more: More, asked: Ask, purpose?: Purpose) => permit(concluded(more), asked, purpose)
/** "less: depth-jump 30 5×2, S8" */
function said(more: More, asked: Ask, purpose?: Purpose): string {
	const { answer, line, findings } = ask(more, asked, purpose)
	const { heightCm, distanceM, assistPercent, effortPercent } = line?.parameters ?? {}
	const what = line
		? `: ${line.drillId} ${heightCm ?? assistPercent ?? effortPercent ?? distanceM ?? ''} ${line.dose.sets}×${line.dose.reps}`
		: ''
	return `${answer}${what}${findings.length > 0 ? `, ${[...new Set(findings.map((one) => one.rule))].join(' ')}` : ''}`
}
const jumps = { passed: upTo('shock', 'depth-45') }
const starts = { passed: upTo('acceleration', 'three-point-20') }
const hurt = (region: CareReport['region'], score: number, day = '2026-03-19'): CareReport => ({
	kind: 'pain',
	region: region!,
	side: 'left',
	score,
	day,
})

describe('yes and less', () => {
	it.each([
		[{ drillId: 'depth-jump', parameters: { heightCm: 30 } }, 'yes: depth-jump 30 5×2'],
		[{ drillId: 'depth-jump', parameters: { heightCm: 30 }, dose: { sets: 2, reps: 2 } }, 'yes: depth-jump 30 2×2'],
		[{ drillId: 'depth-jump', parameters: { heightCm: 75 } }, 'less: depth-jump 45 5×2, S8'],
		[
			{ drillId: 'depth-jump', parameters: { heightCm: 75 }, dose: { sets: 2, reps: 2 } },
			'less: depth-jump 45 2×2, S8',
		],
		[{ ladderId: 'shock', rungId: 'depth-60' }, 'less: depth-jump 45 5×2, S8'],
		[{ ladderId: 'shock', rungId: 'double-15' }, 'yes: double-depth-jump 15 3×2'],
		[{ ladderId: 'shock' }, 'yes: double-depth-jump 15 3×2'],
	] as const)('%j: %s', (asked, words) => {
		expect(said(jumps, asked as Ask)).toBe(words)
	})
	it('a drill of a ladder below: another drill, the hardest that is permitted', () => {
		expect(said({ ...jumps, level: 1 }, { drillId: 'depth-jump', parameters: { heightCm: 45 } })).toBe(
			'instead: pause-jump 30 3×3, S4 S8',
		)
	})
	// Level 2: 20 shock contacts a session, level 3: 40; never more than 5 reps a set.
	it.each([
		[3, { sets: 20, reps: 60 }, 'less: depth-jump 30 4×5, S4'],
		[3, { sets: 4, reps: 5 }, 'yes: depth-jump 30 4×5'],
		[3, { sets: 5, reps: 5 }, 'less: depth-jump 30 4×5, S4'],
		[2, { sets: 5, reps: 2 }, 'yes: depth-jump 30 5×2'],
		[2, { sets: 6, reps: 2 }, 'less: depth-jump 30 5×2, S4'],
		[2, { sets: 1, reps: 6 }, 'less: depth-jump 30 1×5, S4'],
	] as const)('rebounds of level %i, %j: %s', (level, dose, words) => {
		expect(said({ ...jumps, level }, { drillId: 'depth-jump', parameters: { heightCm: 30 }, dose })).toBe(words)
	})
})

describe('shares of the dose', () => {
	const start = { drillId: 'three-point-start', parameters: { distanceM: 20 } }
	it.each([
		// The rung asks for 1×6: three quarters are 4, 60 % are 3; the smallest counts, never a product.
		[{}, 'yes: three-point-start 20 1×6'],
		[{ phase: 'intensify' }, 'less: three-point-start 20 1×4, P6'],
		[{ phase: 'unloading' }, 'less: three-point-start 20 1×3, P6'],
		[{ lastWork: { sprint: '2026-03-12' } }, 'less: three-point-start 20 1×4, P9'],
		[{ lastWork: { sprint: '2026-03-12' }, phase: 'unloading' }, 'less: three-point-start 20 1×3, P6'],
		[{ lastWork: { sprint: '2026-03-05' } }, 'less: three-point-start 10 1×3, P9'],
		[
			{ lastWork: { sprint: '2026-03-05' }, passed: { acceleration: ['wall', 'a-run', 'standing-10'] } },
			'instead: a-run 20 1×2, P9',
		],
		[{ lastWork: {} }, 'less: three-point-start 10 1×6, P9'],
	] as const)('%j: %s', (more, words) => {
		const { passed, ...rest } = more as { passed?: Record<string, string[]> }
		expect(said({ ...starts, ...(passed ? { passed } : {}), ...(rest as More) }, start)).toContain(words.split(',')[0]!)
		expect(said({ ...starts, ...(passed ? { passed } : {}), ...(rest as More) }, start)).toContain(
			words.split(', ')[1] ?? '',
		)
	})
	it('are shares of the rung’s dose, not of what was asked; asked again it is yes', () => {
		const away = { ...starts, lastWork: { sprint: '2026-03-12' } }
		expect(said(away, { ...start, dose: { sets: 3, reps: 6 } })).toBe('less: three-point-start 20 1×4, P9')
		expect(said(away, { ...start, dose: { sets: 1, reps: 5 } })).toBe('less: three-point-start 20 1×4, P9')
		expect(said(away, { ...start, dose: { sets: 1, reps: 4 } })).toBe('yes: three-point-start 20 1×4')
	})
	it('of a drill on no ladder are shares of its dose for the level', () => {
		expect(said({ level: 2, phase: 'intensify' }, { drillId: 'squat-jump' })).toBe('less: squat-jump  1×2, P6')
	})
})

describe('cautions', () => {
	const worried: More = {
		...starts,
		reports: [{ kind: 'worry', drillId: 'three-point-start', region: 'back-thigh', day: '2026-03-18' }],
	}
	const start = { drillId: 'three-point-start', parameters: { distanceM: 20 } }
	it('nobody has answered count like a block; the alternative first', () => {
		expect(said(worried, start)).toBe('instead: wall-drill  3×6, S9')
	})
	it('answered by name with a reason they are said and stand in nobody’s way', () => {
		const answered = { ...worried, acknowledged: [{ rule: 'S9' as const, reason: 'talked it over', by: 'Coach' }] }
		expect(said(answered, start)).toBe('yes: three-point-start 20 1×6, S9')
		for (const empty of [
			{ reason: ' ', by: 'Coach' },
			{ reason: 'why', by: '' },
		])
			expect(said({ ...worried, acknowledged: [{ rule: 'S9' as const, ...empty }] }, start)).toMatch(/^instead/)
		expect(said({ ...worried, acknowledged: [{ rule: 'S8' as const, reason: 'x', by: 'y' }] }, start)).toMatch(
			/^instead/,
		)
	})
	it('a block is not got round', () => {
		const acknowledged = (['S1', 'S4', 'S8'] as const).map((rule) => ({ rule, reason: 'they want to', by: 'Coach' }))
		expect(said({ ...jumps, level: 1, acknowledged }, { drillId: 'depth-jump', parameters: { heightCm: 15 } })).toMatch(
			/^instead/,
		)
		expect(said({ ...starts, reports: [hurt('back-thigh', 6)], acknowledged }, start)).toMatch(/^instead: wall-drill/)
	})
	it('time away and the phase answered leave the whole dose', () => {
		const acknowledged = (['P9', 'P6'] as const).map((rule) => ({ rule, reason: 'trained elsewhere', by: 'Coach' }))
		expect(said({ ...starts, lastWork: { sprint: '2026-02-01' }, phase: 'intensify', acknowledged }, start)).toMatch(
			/^yes: three-point-start 20 1×6/,
		)
	})
})

describe('tests, trials and ready reps', () => {
	it.each(['test', 'trial', 'ready'] as const)('for a %s the answer is yes or no', (purpose) => {
		const asked = { drillId: 'depth-jump', parameters: { heightCm: 45 } }
		expect(said(jumps, asked, purpose)).toBe('yes: depth-jump 45 5×2')
		expect(said(jumps, { ...asked, parameters: { heightCm: 60 } }, purpose)).toBe('no, S8')
		expect(said({ ...jumps, lastWork: { plyometric: '2026-03-10' } }, asked, purpose)).toBe('no, P9')
	})
})

describe('what hurts', () => {
	it('another drill that spares all of it and is itself permitted', () => {
		expect(said({ reports: [hurt('knee', 6)] }, { drillId: 'broad-jump' })).toMatch(/^instead: seated-chest-push/)
		const both = [hurt('knee', 6), hurt('shoulder', 6)]
		const { line } = ask({ reports: both }, { drillId: 'broad-jump' })
		for (const region of ['knee', 'shoulder'] as const)
			expect(STARTER_LIBRARY.drills[line!.drillId]!.regions[region] ?? 0).toBe(0)
	})
	it('none left, no line; everything closed, none at all', () => {
		const all = (['knee', 'shoulder', 'calf', 'back-thigh', 'hip', 'abdomen'] as const).map((region) => hurt(region, 6))
		expect(said({ reports: all }, { drillId: 'broad-jump' })).toBe('no, S1')
		expect(said({ reports: [{ kind: 'chest', day: '2026-03-20' }] }, { drillId: 'range-of-motion' })).toBe('no, S1')
	})
})

describe('on the way back', () => {
	const back = (step: string, more: object = {}): More => ({
		...starts,
		reports: [hurt('knee', 8, '2026-03-01')],
		clearances: [{ region: 'knee', day: '2026-03-15', by: 'S. Lindqvist', role: 'physiotherapist' }],
		stands: [
			{ path: 're-entry-land', step, ...more },
			{ path: 're-entry-run', step: 'run-60', lastDone: '2026-03-18' },
		],
	})
	it.each([
		[{ drillId: 'broad-jump' }, 'instead: two-foot-stick  2×3, RE'],
		[{ drillId: 'two-foot-stick' }, 'yes: two-foot-stick  2×3'],
		[{ drillId: 'two-foot-stick', dose: { sets: 5, reps: 5 } }, 'less: two-foot-stick  2×3, RE'],
		[{ drillId: 'standing-start' }, 'instead: build-run 60 1×5, RE'],
		// An arm's throw goes on; so does preparing.
		[{ drillId: 'kneeling-chest-push' }, 'yes: kneeling-chest-push  2×4'],
		[{ drillId: 'leg-swings' }, 'yes: leg-swings  1×10'],
		// Low work that loads the knee a little and is no later step.
		[{ drillId: 'relaxed-skip' }, 'yes: relaxed-skip 20 2×2'],
		[{ drillId: 'pogo' }, 'instead: two-foot-stick  2×3, RE'],
	] as const)('with the stick on two feet due, %j: %s', (asked, words) => {
		expect(said(back('stick-two'), asked as Ask)).toBe(words)
	})
	it('a step needs no ladder’s gates, but the caps hold and the clearance', () => {
		expect(said({ ...back('cut-45'), level: 1, passed: {} }, { drillId: 'cut-90' })).toBe(
			'instead: wide-cut 10 2×2, S8 RE',
		)
		const closed = back('stick-two')!
		expect(
			said({ ...closed, reports: [...closed.reports!, hurt('knee', 6)] }, { drillId: 'two-foot-stick' }),
		).not.toMatch(/two-foot/)
	})
	it('a region sore again is walked by the easy step, which may load it', () => {
		const sore = back('stick-one')!
		expect(said({ ...sore, reports: [...sore.reports!, hurt('knee', 3)] }, { drillId: 'broad-jump' })).toBe(
			'instead: one-foot-stick  2×2, S1 RE',
		)
	})
	it('the step was done today: low work, or nothing', () => {
		expect(said(back('stick-two', { lastDone: '2026-03-20' }), { drillId: 'two-foot-stick' })).toBe(
			'yes: two-foot-stick  3×5',
		)
		expect(said(back('stick-two', { lastDone: '2026-03-20' }), { drillId: 'broad-jump' })).not.toMatch(/broad-jump/)
	})
	it('just done, the ladders go on two rungs below the highest passed, at 60, 75, 90 %', () => {
		const walked = (lastDone: string): More => ({
			...starts,
			stands: [{ path: 're-entry-run', step: 'run-100', answers: [0], lastDone }],
		})
		const start = { drillId: 'three-point-start', parameters: { distanceM: 20 } }
		expect(said(walked('2026-03-18'), start)).toBe('instead: standing-start 10 1×3, RE')
		expect(said(walked('2026-03-10'), { drillId: 'standing-start' })).toBe('less: standing-start 10 1×3, RE')
		expect(said(walked('2026-03-05'), { drillId: 'standing-start' })).toBe('less: standing-start 10 1×4, RE')
		expect(said(walked('2026-02-26'), start)).toBe('yes: three-point-start 20 1×6')
	})
	it('over four weeks away leads back without a clearance', () => {
		expect(said({ ...starts, lastWork: { sprint: '2026-02-19' } }, { drillId: 'standing-start' })).toBe(
			'instead: walk-through 20 1×4, RE',
		)
	})
})

describe('which rung is meant', () => {
	it.each([
		[{}, 'wall'],
		[{ passed: upTo('acceleration', 'standing-10') }, 'three-point-10'],
		[{ passed: upTo('acceleration', 'reaction-20') }, 'reaction-20'],
	])('%j: %s', (more, rungId) => {
		expect(rungAt(concluded(more).facts, 'acceleration')).toBe(rungId)
	})
	it('refuses what the library does not hold', () => {
		expect(() => rungAt(concluded().facts, 'nothing')).toThrow('not in the library')
		expect(() => ask({}, { ladderId: 'nothing' })).toThrow('ask.ladderId')
		expect(() => ask({}, { ladderId: 'shock', rungId: 'nothing' })).toThrow('ask.rungId')
		expect(() => ask({}, { drillId: 'nothing' })).toThrow('ask.drillId')
	})
})

describe('in words', () => {
	it('says what is given and why', () => {
		const say = (more: More, asked: Ask) => sayAnswer(ask(more, asked), STARTER_LIBRARY)
		expect(say(jumps, { drillId: 'depth-jump', parameters: { heightCm: 30 } })).toBe('Depth jump 30 cm, 5×2.')
		expect(say(jumps, { drillId: 'depth-jump', parameters: { heightCm: 75 } })).toBe(
			'Less: depth jump 45 cm, 5×2. Gates: 75 cm; the school’s highest box is 45 cm.',
		)
		expect(say({ reports: [hurt('knee', 6)] }, { drillId: 'broad-jump' })).toMatch(
			/^Instead: chest push from a seat 2 kg, /,
		)
		expect(say({ reports: [{ kind: 'head', day: '2026-03-20' }] }, { drillId: 'pogo' })).toBe(
			'No line. Pain: everything closed since Fri 20 Mar; cleared by a doctor.',
		)
	})
	it('a reason keeps back what is not everybody’s to read', () => {
		const reason = (more: More, asked: Ask) => sayReason(ask(more, asked).findings)
		expect(reason({ ...jumps, ageYears: 13 }, { drillId: 'depth-jump', parameters: { heightCm: 15 } })).toBe(
			'land and pause only at level 1 or under 16',
		)
		expect(reason({ reports: [{ kind: 'unwell', day: '2026-03-20' }], ...starts }, { drillId: 'standing-start' })).toBe(
			'nothing high, shock or maximal until well again',
		)
		const worry = { kind: 'worry' as const, drillId: 'standing-start', region: 'groin' as const, day: '2026-03-20' }
		expect(reason({ reports: [worry], ...starts }, { drillId: 'standing-start' })).toBe('the alternative first')
	})
	it('a reason says until when something is closed', () => {
		expect(sayReason(ask({ reports: [hurt('knee', 6)] }, { drillId: 'broad-jump' }).findings)).toBe(
			'left knee closed since Thu 19 Mar until cleared by a health professional',
		)
	})
	it('a reason is one clause, two at most', () => {
		const finding = (found: string) => ({
			rule: 'S8' as const,
			tier: 'block' as const,
			firmness: 'our setting' as const,
			found,
			limit: 'x',
		})
		expect(sayReason([finding('a'), finding('b'), finding('c')])).toBe('a: x; b: x')
		expect(sayReason([])).toBe('nothing of this is permitted')
		expect(sayReason([finding('y'.repeat(300))])).toHaveLength(200)
	})
})
