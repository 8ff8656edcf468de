import { describe, expect, it } from 'vitest'
import { concluded } from '../../tests/support/plain-facts'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { ResolvedLine } from '../judge/resolve-line'
import type { CareReport } from '../vocabulary/care'
import type { PlannedLine } from '../vocabulary/line'
import { afterLoad, afterStep, permitLine, permitWork, stepOf, wearsLoad } from './permit-line'

// A line as it may be written: itself, less of it, another drill, or none; what belongs to the drill that was asked for
// goes with it. What fires is the rules' own matter and tested there.

type More = Parameters<typeof concluded>[0]
type Open = Extract<ResolvedLine, { blocked: null }>
const library = STARTER_LIBRARY
const all = Object.fromEntries(
	Object.values(library.ladders).map(({ id, rungs }) => [id, rungs.map((rung) => rung.id)]),
)
const sore = (region: string, score: number): CareReport =>
	({ kind: 'pain', region, score, day: '2026-03-19' }) as CareReport
const line = (drillId: string, change: Partial<PlannedLine> = {}): Open => {
	const drill = library.drills[drillId]!
	return {
		blocked: null,
		note: null,
		drillId: drillId as PlannedLine['drillId'],
		drillVersion: drill.version,
		ladderId: null,
		rungId: null,
		...drill.defaults,
		...change,
	}
}
const onRung = (ladderId: string, rungId: string, change: Partial<PlannedLine> = {}): Open => {
	const rung = library.ladders[ladderId]!.rungs.find(({ id }) => id === rungId)!
	const { drillId, dose, parameters, rest } = rung
	return line(drillId, { ladderId, rungId, dose, parameters, rest, ...change } as Partial<PlannedLine>)
}
const written = (asked: ResolvedLine, more: More, put = false) =>
	permitLine(asked, concluded({ passed: all, ...more }), library, put)
const open = (asked: ResolvedLine, more: More, put = false): Open => {
	const found = written(asked, more, put)
	if (found.blocked !== null) throw new Error(found.blocked)
	return found
}

describe('a line that is permitted', () => {
	it('is the very line, whatever it carries', () => {
		const asked = onRung('acceleration', 'three-point-20', {
			sides: { left: { sets: 1, reps: 3 } },
			aid: { kind: 'rope', setting: 3 },
		})
		expect(written(asked, {})).toBe(asked)
		const blocked: ResolvedLine = { blocked: 'why', ladderId: 'cut' }
		expect(written(blocked, { reports: [sore('knee', 9)] })).toBe(blocked)
	})
	it('is answered once for one athlete, and anew for another', () => {
		const [known, asked] = [concluded({ passed: all }), onRung('shock', 'depth-30')]
		expect(permitLine(asked, known, library)).toBe(permitLine(asked, known, library))
		const unwell = written(asked, { reports: [{ kind: 'unwell', day: '2026-03-19' }] })
		expect(unwell).not.toBe(asked)
	})
})

describe('a line of which less is permitted', () => {
	it('keeps drill, rung, rest and aid, says why, and loses what was meant for the whole dose', () => {
		// In an unloading week three fifths: of five reps three.
		const aid = { kind: 'band' as const }
		const sides = { left: { sets: 1, reps: 5 }, right: { sets: 1, reps: 3 } }
		const less = open(onRung('acceleration', 'standing-10', { aid, sides }), { phase: 'unloading' })
		expect(less).toMatchObject({
			drillId: 'standing-start',
			rungId: 'standing-10',
			dose: { sets: 1, reps: 3 },
			rest: { repsS: 90, setsS: 180 },
			aid,
			note: 'the phase is unloading: 60 % of the dose',
		})
		expect(less.sides).toBeUndefined()
	})
	it('goes to a lower rung of its drill, with that rung’s name and rest', () => {
		// A box of 75 cm is not for who weighs over 100 kg: 45 cm is (published: NSCA, from memory).
		const lower = open(onRung('shock', 'pause-75'), { massKg: 101 })
		const rung = library.ladders.shock!.rungs.find(({ id }) => id === 'pause-45')!
		expect([lower.drillId, lower.parameters.heightCm, lower.rungId, lower.rest]).toEqual([
			'pause-jump',
			45,
			'pause-45',
			rung.rest,
		])
	})
	it('a heavy pull, then free: whole rounds of it', () => {
		const { pieces } = library.ladders.contrast!.rungs[0]!
		const four = onRung('contrast', 'heavy-free-10', { dose: { sets: 4, reps: 1 }, pieces: pieces! })
		const less = open(four, { contrastHelps: true, phase: 'unloading' })
		// The rung’s own dose is two rounds; three fifths of it are never under two reps, and of the pulls three fit.
		expect([less.dose, less.pieces, less.rest]).toEqual([{ sets: 2, reps: 1 }, pieces, four.rest])
		expect(less.note).toBe('the phase is unloading: 60 % of the dose')
		expect(open(four, { contrastHelps: true, phase: 'peaking' })).toBe(four)
	})
	it('as many rounds as the piece permits of which there is least', () => {
		// Ten days away: three quarters. Of the rung’s five starts three, so that of six pulls, two a round, one round is left.
		const { pieces } = library.ladders.contrast!.rungs[0]!
		const two = [{ ...pieces![0]!, reps: 2 }, pieces![1]!]
		const asked = onRung('contrast', 'heavy-free-10', { dose: { sets: 3, reps: 1 }, pieces: two })
		const less = open(asked, { contrastHelps: true, lastWork: { sprint: '2026-03-10' } })
		expect([less.dose, less.pieces]).toEqual([{ sets: 1, reps: 1 }, two])
	})
	it('the judged piece alone, for as many reps, where another is not permitted at all', () => {
		const { pieces } = library.ladders.contrast!.rungs[0]!
		const rebound = { ...pieces![0]!, drillId: 'depth-jump' as never, parameters: { heightCm: 30 } }
		const asked = onRung('contrast', 'heavy-free-10', {
			dose: { sets: 2, reps: 1 },
			pieces: [rebound, { ...pieces![1]!, reps: 2 }],
		})
		const alone = open(asked, { contrastHelps: true, phase: 'accumulate' })
		expect([alone.drillId, alone.pieces, alone.dose]).toEqual(['contrast-start', undefined, { sets: 2, reps: 2 }])
		expect(alone.rest).toEqual(library.drills['contrast-start']!.defaults.rest)
		expect(alone.note).toMatch(/^without depth jump: /)
		const gone = { ...pieces![0]!, drillId: 'gone' as never }
		expect(open({ ...asked, pieces: [gone, pieces![1]!] }, { contrastHelps: true }).note).toBe(
			'without a piece: the library does not hold it',
		)
	})
	it('on a lower rung of it, the pieces of that rung', () => {
		// Heavy, then free over 20 m stands on level 3.
		const asked = onRung('contrast', 'heavy-free-20', { pieces: library.ladders.contrast!.rungs[1]!.pieces! })
		const lower = open(asked, { contrastHelps: true, level: 2 })
		expect([lower.rungId, lower.pieces]).toEqual(['heavy-free-10', library.ladders.contrast!.rungs[0]!.pieces])
	})
})

describe('a line in the place of which another drill stands', () => {
	const hurt: More = { reports: [sore('back-thigh', 4)] }
	it('is that drill, with its own rests, and nothing of the one asked for', () => {
		const asked = onRung('acceleration', 'three-point-20', {
			aid: { kind: 'sled', kg: 20 },
			sides: { left: { sets: 1, reps: 6 } },
		})
		const other = open(asked, hurt)
		// The highest rung below that spares the back of the thigh is none; the a-run loads it a little and may.
		expect([other.drillId, other.drillVersion, other.ladderId]).toEqual([
			'a-run',
			library.drills['a-run']!.version,
			'acceleration',
		])
		expect([other.rungId, other.rest, other.parameters]).toEqual([
			'a-run',
			library.ladders.acceleration!.rungs.find(({ id }) => id === 'a-run')!.rest,
			{ distanceM: 20 },
		])
		for (const own of ['aid', 'sides', 'pieces', 'carried'] as const) expect(other[own], own).toBeUndefined()
		expect(other.note).toContain('back thigh to be spared')
	})
	it('without a ladder has the drill’s own rest and no rung', () => {
		const other = open(line('broad-jump', { rungId: null }), { reports: [sore('knee', 4)] })
		expect([other.drillId, other.rungId, other.rest]).toEqual([
			'seated-chest-push',
			null,
			library.drills['seated-chest-push']!.defaults.rest,
		])
	})
	it('is none where nothing is permitted, with the reason', () => {
		const none = written(onRung('shock', 'depth-30'), { reports: [{ kind: 'head', day: '2026-03-19' }] })
		expect(none).toMatchObject({ ladderId: 'shock' })
		expect(none.blocked).toContain('until')
	})
})

describe('a rung somebody was put on', () => {
	// The dead stop from 10 m opens 90° cuts: a caution, answered by having put the athlete there.
	const noStops: More = { passed: { ...all, brake: [] } }
	const asked = onRung('cut', 'cut-90')
	it('stands although its gate is shut, for who was put there alone', () => {
		expect(open(asked, noStops, true)).toBe(asked)
		expect(open(asked, noStops, false).drillId).not.toBe('cut-90')
	})
	it('does not stand against anything else', () => {
		expect(open(asked, { ...noStops, reports: [sore('knee', 4)] }, true).drillId).not.toBe('cut-90')
	})
})

describe('the way back', () => {
	const path = 're-entry-run'
	const back: More = { stands: [{ path, step: 'run-60', lastDone: '2026-03-18' }] }
	it('writes its step in the place of what is asked, as the step has it', () => {
		const { dose, rest, parameters } = library.ladders[path]!.rungs.find(({ id }) => id === 'run-60')!
		const step = open(onRung('acceleration', 'three-point-20'), back)
		expect([step.rungId, step.drillId, step.dose, step.rest, step.parameters]).toEqual([
			'run-60',
			'build-run',
			dose,
			rest,
			parameters,
		])
		expect(stepOf(step, concluded({ passed: all, ...back }), library)).toBe(path)
	})
	it('writes it once: after it what is low stands, and is no step', () => {
		const known = afterStep(concluded({ passed: all, ...back }), path)
		const again = permitLine(onRung('acceleration', 'three-point-20'), known, library)
		if (again.blocked !== null) throw new Error(again.blocked)
		expect(again.rungId).not.toBe('run-60')
		expect(afterStep(concluded({ passed: all, ...back }), 'another').plan.paths.some(({ waits }) => waits)).toBe(false)
	})
	it('low work in the place of a step is no step', () => {
		const stale = onRung(path, 'run-70', { ladderId: 'acceleration' as never })
		const known = afterStep(concluded({ passed: all, ...back }), path)
		const low = permitLine(stale, known, library)
		expect(low.blocked !== null || low.rungId !== 'run-70').toBe(true)
	})
	it('is nothing for who is on none', () => {
		expect(stepOf(line('build-run'), concluded({ passed: all }), library)).toBeNull()
	})
})

describe('a weight', () => {
	const run = line('carried-run', { parameters: { distanceM: 30, loadG: 100 } })
	it('is worn where a drill has one and the line says grams', () => {
		expect(wearsLoad(run, library)).toBe(true)
		expect(wearsLoad(line('carried-run', { parameters: { distanceM: 30 } }), library)).toBe(false)
		expect(wearsLoad(line('carried-run', { parameters: { distanceM: 30, loadG: 0 } }), library)).toBe(false)
		expect(wearsLoad(line('build-run', { parameters: { loadG: 100 } }), library)).toBe(false)
		expect(wearsLoad(line('gone' in library.drills ? 'gone' : 'pogo'), library)).toBe(false)
		const [pull] = library.ladders.contrast!.rungs[0]!.pieces!
		const after = { ...pull!, drillId: 'carried-run' as never, parameters: { distanceM: 30, loadG: 100 } }
		expect(wearsLoad({ ...line('standing-start'), pieces: [after, { ...pull!, judged: true }] }, library)).toBe(true)
	})
	it('is not worn again that day; known once for one athlete', () => {
		const known = concluded({ passed: all })
		expect(afterLoad(known)).toBe(afterLoad(known))
		expect(afterLoad(known).facts.loadsOn).toEqual([known.facts.day])
		expect(afterLoad(concluded({ loadsOn: ['2026-03-18'] })).facts.loadsOn).toEqual(['2026-03-18', known.facts.day])
		const again = permitLine(run, afterLoad(known), library)
		expect(again.blocked !== null || !wearsLoad(again, library)).toBe(true)
	})
	it('stays where it is worn when there is less of the same drill', () => {
		const carried = { segment: 'shank', fromJointCm: 25, grams: 100 } as const
		const less = open({ ...run, carried, dose: { sets: 2, reps: 3 } }, { lastWork: { sprint: '2026-03-10' } })
		expect([less.drillId, less.carried]).toEqual(['carried-run', carried])
	})
})

describe('a line that stands as it is', () => {
	const [pull, free] = library.ladders.contrast!.rungs[0]!.pieces!
	const complex = { ...line('contrast-start'), dose: { sets: 2, reps: 1 }, pieces: [pull!, free!] }
	it('is permitted when all its drills are, and tells what was found of any', () => {
		expect(permitWork(concluded({ passed: all, contrastHelps: true }), complex)).toEqual({ yes: true, findings: [] })
		const shut = permitWork(concluded({ passed: all }), complex)
		expect([shut.yes, shut.findings.map(({ rule }) => rule)]).toEqual([false, ['S8']])
		const rebound = { ...pull!, drillId: 'depth-jump' as never, parameters: { heightCm: 30 } }
		const early = permitWork(concluded({ passed: all, contrastHelps: true, phase: 'accumulate' }), {
			...complex,
			pieces: [rebound, free!],
		})
		expect(early.yes).toBe(false)
	})
})
