import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Family } from '../vocabulary/words'
import { QUALITY_FIRST } from '../library/schools'
import { gate, next, pain, run, runIn, stateAt, usual } from '../../tests/support/verdict-fixture'
import { enterWayBack } from './missed-time'
import { walkTogether } from './walk-together'
import type { Exposure, LadderState, VerdictInput, WorkDay } from './types'
import type { Region } from '../vocabulary/words'

// P9, days since any done work of the family: 0–7 nothing; 8–14 dose 75 %; 15–28 one rung down, 60 %; over 28
// re-enter. Then 60 → 75 → 90 → 100 % by week. The first day back is no evidence. Our setting.

const start = (change: Partial<LadderState> = {}) => stateAt('acceleration', 'three-point-10', change)
const work = (day: string, ...families: Family[]): WorkDay => ({
	day,
	startTime: '17:30',
	families: families.length > 0 ? families : ['sprint'],
	kinds: [],
	outside: false,
})
const passing: Partial<Exposure> = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } }
const absent: Partial<Exposure> = { repsDone: 0 }
/** Thursday 12 March was missed; the next session is Monday the 16th. */
const missed = (lastDay: string, more: Partial<VerdictInput> = {}, state = start()) =>
	run('acceleration', state, null, absent, { work: [work(lastDay)], ...more })

describe('days to the next session, when this one was missed', () => {
	it.each([
		['2026-03-09', 7, null, null],
		['2026-03-08', 8, 'hold', 75],
		['2026-03-02', 14, 'hold', 75],
		['2026-03-01', 15, 'ease', 60],
		['2026-02-16', 28, 'ease', 60],
		['2026-02-15', 29, 're-enter', 60],
		['2025-06-01', 288, 're-enter', 60],
	] as [string, number, string | null, number | null][])(
		'last trained %s, %d days: %s',
		(lastDay, days, verdict, percent) => {
			const judged = missed(lastDay)
			if (verdict === null) expect(judged.decidedBy).not.toBe('P9')
			else {
				expect(judged).toMatchObject({ verdict, decidedBy: 'P9', next: { back: { percent } } })
				expect(judged.sentence).toContain(`${days} days`)
			}
		},
	)
	it('15 to 28 days: one rung down, over 28 the first step of the way back', () => {
		expect(missed('2026-03-01').next.rungId).toBe('standing-10')
		expect(missed('2026-02-15').next.reentry).toMatchObject({ pathId: 're-entry-run' })
		expect(missed('2026-03-08').next.rungId).toBe('three-point-10')
	})
	it('at the bottom of the ladder there is no rung below', () => {
		const [first] = STARTER_LIBRARY.ladders.acceleration!.rungs
		const bottom = stateAt('acceleration', first!.id)
		expect(run('acceleration', bottom, null, absent, { work: [work('2026-03-01')] }).next.rungId).toBe(first!.id)
	})
})

describe('what counts as work', () => {
	it('any of the ladder’s family, the latest of it, in any order', () => {
		const days = [work('2026-01-10'), work('2026-03-09'), work('2026-02-01')]
		expect(missed('x', { work: days }).decidedBy).not.toBe('P9')
		expect(missed('x', { work: [...days].reverse() }).decidedBy).not.toBe('P9')
	})
	it('no other family', () => {
		expect(missed('x', { work: [work('2026-03-10', 'throw', 'plyometric'), work('2026-03-01')] })).toMatchObject({
			verdict: 'ease',
			decidedBy: 'P9',
		})
	})
	it('nothing on record is unknown, not away', () => {
		expect(missed('x', { work: [] }).decidedBy).not.toBe('P9')
	})
	it('what happened on the day itself or later is not earlier work', () => {
		expect(missed('x', { work: [work('2026-03-12'), work('2026-03-01')] })).toMatchObject({ decidedBy: 'P9' })
	})
})

describe('the first day back', () => {
	it.each([
		['2026-03-05', 7, null],
		['2026-03-04', 8, 75],
		['2026-02-26', 14, 75],
		['2026-02-25', 15, 60],
		['2026-02-12', 28, 60],
	] as [string, number, number | null][])(
		'trained today after %s, %d days: the dose next time',
		(lastDay, _, percent) => {
			const judged = run('acceleration', start(), null, passing, { work: [work(lastDay)] })
			if (percent === null) expect(judged.decidedBy).not.toBe('P9')
			else expect(judged.next.back).toMatchObject({ percent, since: '2026-03-12' })
		},
	)
	it('says nothing either way, however fast it was', () => {
		const back: LadderState['back'] = { percent: 60, since: null, stage: 'long' }
		const judged = run(
			'acceleration',
			start({ back }),
			null,
			{ ...passing, firstDayBack: true },
			{
				work: [work('2026-02-23')],
			},
		)
		expect(judged).toMatchObject({
			verdict: 'hold',
			decidedBy: 'P9',
			next: { back: { percent: 60, since: '2026-03-12' } },
		})
	})
	it('a lay-off that was answered is answered again only when it has grown', () => {
		const answered = (stage: 'short' | 'long', lastDay: string) =>
			missed(lastDay, {}, start({ back: { percent: stage === 'short' ? 75 : 60, since: null, stage } }))
		expect(answered('short', '2026-03-05')).toMatchObject({ verdict: 'hold', next: { back: { percent: 75 } } })
		expect(answered('short', '2026-03-05').sentence).toContain('for the first day back')
		expect(answered('short', '2026-03-01')).toMatchObject({ verdict: 'ease', next: { back: { percent: 60 } } })
		expect(answered('long', '2026-02-20')).toMatchObject({ verdict: 'hold', next: { back: { percent: 60 } } })
		expect(answered('long', '2026-02-15')).toMatchObject({ verdict: 're-enter' })
	})
})

describe('the weeks after: 60, 75, 90, 100 %', () => {
	const after = (percent: 60 | 75 | 90, since: string) =>
		run('acceleration', start({ back: { percent, since, stage: 'long' } }), null, passing, {
			work: [work('2026-03-09')],
		})
	it.each([
		// To Monday 16 March.
		[60, '2026-03-10', 60],
		[60, '2026-03-09', 75],
		[60, '2026-02-20', 75],
		[75, '2026-03-10', 75],
		[75, '2026-03-09', 90],
		[90, '2026-03-10', 90],
	] as [60 | 75 | 90, string, number][])('%d %% since %s: %d %% next', (percent, since, then) => {
		expect(after(percent, since)).toMatchObject({ verdict: 'hold', decidedBy: 'P9', next: { back: { percent: then } } })
	})
	it('after 90 % the full dose, and nothing is left of the time away', () => {
		expect(after(90, '2026-03-09')).toMatchObject({ verdict: 'hold', next: { back: null } })
		expect(after(90, '2026-03-09').sentence).toContain('the full dose again')
	})
	it('the next step is counted from the next session', () => {
		expect(after(60, '2026-03-09').next.back).toMatchObject({ since: '2026-03-16' })
	})
})

// Walk-through → drills → 60 → 70 → 80 → 90 → 95 → full; one step a session, 48 h from 90 % up, met from 44.
// Discomfort of 1 or more repeats the step.
describe('the way back to running', () => {
	const on = (rungId: string) => start({ reentry: { pathId: 're-entry-run', rungId, since: '2026-03-09' } })
	const done: Partial<Exposure> = { onRung: false, planned: { sets: 1, reps: 5 }, repsDone: 5 }
	const step = (rungId: string, now: Partial<Exposure> | null = done, more: Partial<VerdictInput> = {}) =>
		run('acceleration', on(rungId), null, now, { work: [work('2026-03-10')], ...more })
	it('a step done without discomfort leads to the next', () => {
		expect(step('run-60').next.reentry?.rungId).toBe('run-70')
		expect(step('run-70').next.reentry?.rungId).toBe('run-80')
	})
	it.each([
		[0, 'run-80'],
		[1, 'run-70'],
		[2, 'run-70'],
	])('discomfort of %d where it hurt: %s next', (score, rungId) => {
		expect(step('run-70', done, { pains: [pain({ score })] }).next.reentry?.rungId).toBe(rungId)
	})
	// Asked "how was it?": 0 goes on, 1–2 repeat, 3 or more one back; not asked is not quiet.
	it.each([
		[undefined, [], 'run-80'],
		[['back-thigh'], [], 'run-70'],
		[['back-thigh'], [['back-thigh', 0]], 'run-80'],
		[['back-thigh'], [['back-thigh', 1]], 'run-70'],
		[['back-thigh'], [['back-thigh', 2]], 'run-70'],
		[['back-thigh'], [['back-thigh', 3]], 'run-60'],
		[['back-thigh', 'knee'], [['back-thigh', 0]], 'run-70'],
		[
			['back-thigh', 'knee'],
			[
				['knee', 0],
				['back-thigh', 0],
			],
			'run-80',
		],
		[
			['back-thigh', 'knee'],
			[
				['knee', 4],
				['back-thigh', 0],
			],
			'run-60',
		],
		[['back-thigh'], [['calf', 0]], 'run-70'],
	] as [Region[] | undefined, [Region, number][], string][])(
		'on the way back from %j, answers %j: %s next',
		(returning, said, rungId) => {
			const answers = said.map(([region, score]) => ({ region, side: 'left' as const, score }))
			expect(step('run-70', done, { answers, ...(returning ? { returning } : {}) }).next.reentry?.rungId).toBe(rungId)
		},
	)
	// A clinician may accept "known 1–2" for a region: it repeats nothing there, and 3 is never known.
	it.each([
		[['back-thigh'], [['back-thigh', 1]], 'run-80', 'a known 1'],
		[['back-thigh'], [['back-thigh', 2]], 'run-80', 'a known 2'],
		[['back-thigh'], [['back-thigh', 3]], 'run-60', 'discomfort 3'],
		[['knee'], [['back-thigh', 1]], 'run-70', 'discomfort 1'],
		[[], [['back-thigh', 1]], 'run-70', 'discomfort 1'],
		[
			['back-thigh'],
			[
				['back-thigh', 2],
				['knee', 1],
			],
			'run-70',
			'discomfort 1',
		],
	] as [Region[], [Region, number][], string, string][])(
		'known in %j, answers %j: %s next',
		(accepted, said, rungId, found) => {
			const answers = said.map(([region, score]) => ({ region, side: 'left' as const, score }))
			const judged = step('run-70', done, { answers, accepted, returning: said.map(([region]) => region) })
			expect(judged.next.reentry?.rungId).toBe(rungId)
			expect(judged.trace.find((line) => line.rule === 'RE')?.found).toContain(found)
		},
	)
	it('a red flag is never a known discomfort', () => {
		const flagged = { pains: [pain({ score: 1, redFlag: true })], accepted: ['back-thigh' as const] }
		expect(step('run-70', done, flagged).next.reentry?.rungId).toBe('run-70')
	})
	// After three repeats the coach is told.
	it.each([
		[undefined, 1, false],
		[1, 2, false],
		[2, 3, true],
		[3, 4, true],
	])('repeated %s times before, and once more: %d, told: %s', (before, repeats, told) => {
		const state = start({
			reentry: {
				pathId: 're-entry-run',
				rungId: 'run-70',
				since: '2026-03-09',
				...(before ? { repeats: before } : {}),
			},
		})
		const judged = run('acceleration', state, null, done, { work: [work('2026-03-10')], pains: [pain({ score: 1 })] })
		expect(judged.next.reentry).toEqual({ ...state.reentry, repeats })
		expect(judged.sentence.includes('a health professional decides')).toBe(told)
	})
	it('a step that was only not done is not one of them, and the next step begins at none', () => {
		const state = start({ reentry: { pathId: 're-entry-run', rungId: 'run-70', since: '2026-03-09', repeats: 2 } })
		const with2 = (now: Partial<Exposure> | null) =>
			run('acceleration', state, null, now, { work: [work('2026-03-10')] }).next.reentry
		expect(with2(null)?.repeats).toBe(2)
		expect(with2(done)).toEqual({ pathId: 're-entry-run', rungId: 'run-80', since: '2026-03-16' })
	})
	it('pulls come before free running where the school says so', () => {
		const shapes = (returnPulls: 'free' | 'pulls-first') =>
			runIn(
				{ ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, returnPulls } },
				'acceleration',
				on('shapes'),
				null,
				done,
				{ work: [work('2026-03-10')] },
			).next.reentry?.rungId
		expect(shapes('free')).toBe('run-60')
		expect(shapes('pulls-first')).toBe('pulls')
	})
	// Over 28 days away from the start, 15 to 28 one back: what was written and done is where it goes on from.
	it.each([
		['walk', 0, 'shapes'],
		['walk', 1, 'walk'],
		['walk', 3, 'walk'],
		['run-60', 0, 'run-70'],
		['run-60', 2, 'run-60'],
		['run-60', 3, 'shapes'],
	])('stood on 80 %%, %s was written and done, answer %d: %s next', (rungId, score, then) => {
		const answers = [{ region: 'knee' as const, side: 'left' as const, score }]
		const judged = step('run-80', { ...done, rungId }, { answers, returning: ['knee'] })
		expect(judged.next.reentry?.rungId).toBe(then)
	})
	it('a lower step that nobody was asked about, or that was hardly done, is the one to repeat', () => {
		expect(step('run-80', { ...done, rungId: 'walk' }, { returning: ['knee'] }).next.reentry?.rungId).toBe('walk')
		expect(step('run-80', { ...done, rungId: 'walk', repsDone: 1 }).next.reentry?.rungId).toBe('walk')
		expect(step('run-80', { ...done, rungId: 'walk', repsDone: 0 }).next.reentry?.rungId).toBe('run-80')
	})
	// Steps that the athlete's gates would have refused before are left out: then the path ends before them.
	it.each([
		[{}, null],
		[{ brake: ['stop-10', 'dead-10'] }, 'cut-90'],
	])('passed %j: after the small cut %s', (standings, then) => {
		const land = (rungId: string) =>
			run(
				'shock',
				stateAt('shock', 'pause-30', { reentry: { pathId: 're-entry-land', rungId, since: '2026-03-09' } }),
				null,
				{ ...done, rungId: 'cut-45', planned: { sets: 2, reps: 2 }, repsDone: 4 },
				{ work: [work('2026-03-10', 'agility', 'plyometric')], standings },
			).next.reentry?.rungId ?? null
		expect(land('cut-45')).toBe(then)
		// Whoever was led to a step that is left out goes on, too.
		expect(land('cut-90')).toBe(then)
	})
	it('low work that is no step moves nobody on', () => {
		expect(step('run-70', { ...done, rungId: '' }).next.reentry?.rungId).toBe('run-70')
		expect(step('run-70', { ...done, rungId: 'run-90' }).next.reentry?.rungId).toBe('run-70')
	})
	it('who was not asked reads why it is repeated', () => {
		expect(step('run-70', done, { returning: ['back-thigh', 'knee'] }).sentence).toContain(
			'nobody has asked yet how the back thigh and the knee was.',
		)
	})
	it('a step that was not done asks nothing', () => {
		expect(step('run-70', null, { returning: ['knee'] }).sentence).toContain('not been done')
	})
	it('discomfort of another session is not of this step', () => {
		expect(
			step('run-70', done, { pains: [pain({ score: 2, sessionId: 's0', day: '2026-03-05' })] }).next.reentry?.rungId,
		).toBe('run-80')
	})
	it.each([
		[5, 'run-80'],
		[4, 'run-80'],
		[3, 'run-70'],
		[0, 'run-70'],
	])('%d of 5 reps done: %s next', (repsDone, rungId) => {
		expect(step('run-70', { ...done, repsDone }).next.reentry?.rungId).toBe(rungId)
	})
	it('a session that never was repeats the step', () => {
		expect(step('run-70', null).next.reentry?.rungId).toBe('run-70')
	})
	it.each([
		[{ good: 2, notYet: 0, poor: 1, setTaps: 0 }, 'run-80'],
		[{ good: 1, notYet: 1, poor: 2, setTaps: 0 }, 'run-70'],
		[{ good: 0, notYet: 0, poor: 2, setTaps: 0 }, 'run-80'],
	])('judged %j: %s next', (quality, rungId) => {
		expect(step('run-70', { ...done, quality }).next.reentry?.rungId).toBe(rungId)
	})
	it.each([
		['run-80', '2026-03-14', '13:29', 'run-80'],
		['run-80', '2026-03-14', '13:30', 'run-90'],
		['run-70', '2026-03-13', '09:00', 'run-80'],
	])('%s, next session %s %s: %s', (rungId, day, startTime, then) => {
		expect(step(rungId, done, { next: next({ day, startTime }) }).next.reentry?.rungId).toBe(then)
	})
	// Wall, A-run, standing 10, three-point 10: who stood on the last had passed standing 10.
	it.each([
		[{}, 'wall', 'wall drill and march'],
		[{ passed: true }, 'a-run', 'a-run 20 m'],
		[{ done: ['wall', 'a-run', 'standing-10', 'three-point-10'] }, 'a-run', 'a-run 20 m'],
		[{ done: [] }, 'wall', 'wall drill and march'],
	] as [Partial<LadderState>, string, string][])(
		'after the last step, with %j: two rungs below the last passed, at 60 %%',
		(more, rungId, name) => {
			const path = STARTER_LIBRARY.ladders['re-entry-run']!
			const reentry = { pathId: 're-entry-run', rungId: path.rungs.at(-1)!.id, since: '2026-03-09' }
			const judged = run('acceleration', start({ reentry, ...more }), null, done, { work: [work('2026-03-10')] })
			expect(judged).toMatchObject({
				verdict: 'ease',
				next: { rungId, reentry: null, back: { percent: 60, stage: 'path' } },
			})
			expect(judged.sentence.toLowerCase()).toContain(`on to ${name}, two rungs below the last passed`)
		},
	)
})

it('a clearance leads to the first step, whatever had been earned, with 60 % after it', () => {
	const path = STARTER_LIBRARY.ladders['re-entry-run']!
	expect(enterWayBack(start({ passed: true, easedBy: 'ramp' }), path, '2026-03-12')).toMatchObject({
		passed: false,
		easedBy: null,
		reentry: { pathId: 're-entry-run', rungId: path.rungs[0]!.id, since: '2026-03-12' },
		back: { percent: 60, since: null, stage: 'path' },
	})
})

describe('walking together', () => {
	const { ladders } = STARTER_LIBRARY
	const on = (ladderId: string, rungId: string, step: string | null) =>
		stateAt(ladderId, rungId, {
			done: [],
			reentry: step ? { pathId: 're-entry-run', rungId: step, since: '2026-03-01' } : null,
		})
	const topRungs = ladders['top-speed']!.rungs.map((rung) => rung.id)
	const sprint = (step: string | null) => on('acceleration', 'three-point-20', step)
	const top = (step: string | null) => on('top-speed', topRungs.at(-1)!, step)
	const steps = (walks: [string, string | null][], others: LadderState[]) =>
		walkTogether(
			others,
			walks.map(([from, to]) => ({ before: sprint(from), after: sprint(to) })),
			{ ladders },
			'2026-03-12',
		).map(({ ladderId, reentry }) => `${ladderId} ${reentry?.rungId ?? 'done'}`)
	it('a step taken on one ladder is taken on all of the path', () => {
		expect(steps([['run-60', 'run-70']], [top('run-60')])).toEqual(['top-speed run-70'])
		expect(steps([['run-60', 'run-70']], [top('run-70'), top(null)])).toEqual([])
	})
	it('its end ends it for all, two rungs below the last each had passed', () => {
		const [left] = walkTogether(
			[{ ...top('full'), done: topRungs.slice(0, -1) }],
			[{ before: sprint('full'), after: sprint(null) }],
			{ ladders },
			'2026-03-12',
		)
		expect(left).toMatchObject({ reentry: null, back: { percent: 60 }, rungId: topRungs.at(-4) })
	})
	it('of several walks the furthest counts, and a step back outweighs any on', () => {
		const stay: [string, string] = ['run-60', 'run-60']
		expect(steps([stay, ['run-60', 'run-70']], [top('run-60')])).toEqual(['top-speed run-70'])
		expect(steps([['run-60', 'run-70'], stay], [top('run-60')])).toEqual(['top-speed run-70'])
		const back: [string, string] = ['run-70', 'run-60']
		const ahead: [string, string] = ['run-70', 'run-80']
		expect(steps([ahead, back, ['run-70', 'run-70']], [top('run-70')])).toEqual(['top-speed run-60'])
		expect(steps([back, ahead], [top('run-70')])).toEqual(['top-speed run-60'])
	})
	it('of several back, the furthest back counts, in whatever order', () => {
		const [far, near]: [string, string][] = [
			['run-80', 'run-60'],
			['run-80', 'run-70'],
		]
		expect(steps([far!, near!], [top('run-80')])).toEqual(['top-speed run-60'])
		expect(steps([near!, far!], [top('run-80')])).toEqual(['top-speed run-60'])
		const [one, two]: [string, string][] = [
			['run-60', 'run-70'],
			['run-70', 'run-80'],
		]
		expect(steps([one!, two!], [top('run-60')])).toEqual(['top-speed run-80'])
		expect(steps([two!, one!], [top('run-60')])).toEqual(['top-speed run-80'])
	})
	it('who is on another path stays there', () => {
		const landing = stateAt('shock', 'landing-15', {
			reentry: { pathId: 're-entry-land', rungId: 'stick-two', since: '2026-03-01' },
		})
		expect(steps([['run-60', 'run-70']], [landing])).toEqual([])
	})
})
