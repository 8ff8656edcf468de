import { describe, expect, it } from 'vitest'
import { countLine } from '../dose/count-line'
import { lockOf } from '../progress/locks'
import { QUALITY_FIRST } from './schools'
import { STARTER_LIBRARY, rungOf } from './starter-library'
import { PHASES, type Region } from './types'

const drills = Object.values(STARTER_LIBRARY.drills)
const ladders = Object.values(STARTER_LIBRARY.ladders)

describe('the starter library', () => {
	it('has at least twenty drills over sprint, agility, plyometric and throw, and the four ladders', () => {
		expect(drills.length).toBeGreaterThanOrEqual(20)
		for (const family of ['sprint', 'agility', 'plyometric', 'throw']) expect(drills.filter((drill) => drill.family === family).length, family).toBeGreaterThanOrEqual(4)
		expect(ladders.map((ladder) => ladder.id).sort()).toEqual(['acceleration', 'cut', 'shock', 'stiffness'])
	})

	it('gives every drill a cue, something to look for, a fault with its correction, and a way to measure', () => {
		for (const drill of drills) {
			for (const list of [drill.cues, drill.lookFor, drill.faults, drill.measures]) expect(list.length, drill.id).toBeGreaterThan(0)
		}
	})

	it('offers only alternatives that exist and spare the region', () => {
		for (const drill of drills) {
			for (const [region, id] of Object.entries(drill.alternatives)) {
				const alternative = STARTER_LIBRARY.drills[id]
				expect(alternative, `${drill.id} → ${id}`).toBeDefined()
				expect(alternative?.regions[region as Region] ?? 0, `${drill.id} → ${id} loads the ${region}`).toBe(0)
			}
		}
	})

	it('names only drills that exist on its rungs, with ids of their own and levels that never fall', () => {
		for (const ladder of ladders) {
			expect(new Set(ladder.rungs.map((rung) => rung.id)).size).toBe(ladder.rungs.length)
			for (const [index, rung] of ladder.rungs.entries()) {
				const drill = STARTER_LIBRARY.drills[rung.drillId]
				expect(drill, rung.drillId).toBeDefined()
				expect(() => countLine(drill!, rung.parameters, rung.dose)).not.toThrow()
				expect(rung.level).toBeGreaterThanOrEqual(ladder.rungs[index - 1]?.level ?? 1)
				if (rung.pass.kind === 'contact-ceiling') expect(drill?.measures).toContain('contact')
				if (rung.pass.kind === 'time-within') expect(drill?.start, rung.id).toBeDefined()
				if (rung.drillId === 'depth-jump') expect(rung.dose.reps).toBeLessThanOrEqual(5)
			}
		}
	})

	it('opens every rung to somebody: at level 3, grown up, in some phase', () => {
		for (const ladder of ladders) for (const rung of ladder.rungs) {
			const opens = PHASES.some((phase) => lockOf(rung, { level: 3, ageYears: 25, phase, school: QUALITY_FIRST }) === null)
			expect(opens, `${ladder.id} ${rung.id}`).toBe(true)
		}
	})

	it('lets nobody under 16, of unknown age or at level 1 rebound from a box', () => {
		for (const rung of STARTER_LIBRARY.ladders.shock!.rungs.filter((item) => item.drillId === 'depth-jump')) {
			expect(lockOf(rung, { level: 3, ageYears: 15, phase: 'peaking', school: QUALITY_FIRST })).toContain('under 16')
			expect(lockOf(rung, { level: 3, ageYears: null, phase: 'peaking', school: QUALITY_FIRST })).toContain('birth date is unknown')
			expect(lockOf(rung, { level: 1, ageYears: 25, phase: 'peaking', school: QUALITY_FIRST })).toContain('opens at level')
			expect(lockOf(rung, { level: 3, ageYears: 25, phase: 'accumulate', school: QUALITY_FIRST })).toContain('peaking')
		}
	})

	it('says which rung is unknown', () => {
		expect(() => rungOf(STARTER_LIBRARY.ladders.cut!, 'nope')).toThrow('rungId: "nope" is not a rung of ladder cut')
	})
})
