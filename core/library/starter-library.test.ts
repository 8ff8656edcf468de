import { describe, expect, it } from 'vitest'
import { countLine } from '../dose/count-line'
import { repsOf } from './scale-dose'
import { TISSUE_HOURS } from '../plan/session-checks'
import { factsOf } from '../../tests/support/plain-facts'
import { lockOf } from '../judge/locks'
import { formOf } from '../rules/form'
import { levelAgeMass } from '../rules/s4-level-age-mass'
import { NUMBER_BOUNDS, QUALITY_FIRST, QUESTIONS, SCHOOLS } from './schools'
import { STARTER_LIBRARY, rungOf } from './starter-library'
import { FAMILIES, PHASES, type Region } from '../vocabulary/words'
import { PARAMETERS } from '../vocabulary/parameters'

const drills = Object.values(STARTER_LIBRARY.drills)
const ladders = Object.values(STARTER_LIBRARY.ladders)

describe('the starter library', () => {
	it('has about a hundred drills over all families, and twenty ladders, the way back in three paths', () => {
		expect(drills.length).toBeGreaterThanOrEqual(100)
		for (const family of FAMILIES)
			expect(drills.filter((drill) => drill.family === family).length, family).toBeGreaterThanOrEqual(7)
		expect(ladders.filter((ladder) => ladder.path === undefined)).toHaveLength(19)
		expect(
			ladders
				.filter((ladder) => ladder.path === 're-entry')
				.map((ladder) => ladder.id)
				.sort(),
		).toEqual(['re-entry-land', 're-entry-run', 're-entry-throw'])
	})

	it('gives every drill two to four cues, two or three faults with what to say, something to look for and a way to measure', () => {
		for (const drill of drills) {
			expect(drill.cues.length >= 2 && drill.cues.length <= 4, `${drill.id}: ${drill.cues.length} cues`).toBe(true)
			expect(drill.faults.length >= 2 && drill.faults.length <= 3, `${drill.id}: faults`).toBe(true)
			for (const list of [drill.cues, drill.faults.map(({ fault }) => fault), drill.cautions])
				expect(new Set(list).size, `${drill.id}: said twice`).toBe(list.length)
			for (const list of [drill.lookFor, drill.measures]) expect(list.length, drill.id).toBeGreaterThan(0)
		}
	})

	it('warns of every high and shock drill', () => {
		for (const drill of drills.filter(({ intensity }) => intensity === 'high' || intensity === 'shock'))
			expect(drill.cautions.length, drill.id).toBeGreaterThan(0)
	})

	it('counts what was added by the convention, and knows what stands apart', () => {
		const count = (id: string) => {
			const { counting } = STARTER_LIBRARY.drills[id]!
			const { contacts, cuts, metres } = counting
			return [
				contacts?.by === 'rep' ? `${contacts.feet} ${contacts.perRep}` : null,
				cuts?.perRep ?? null,
				metres?.kind ?? null,
			]
		}
		// A bunny hop is a landing on both feet, five of them a rep; a zig-zag lands on one foot after the other.
		expect(count('bunny-hop')).toEqual(['both 5', null, null])
		expect(count('zigzag-push')).toEqual(['alternating 6', null, null])
		expect(count('swerve')).toEqual([null, 1, null])
		expect(count('resisted-turn')).toEqual([null, 1, null])
		expect(count('hill-run')).toEqual([null, null, 'resisted'])
		// Holds, lifts and knees on the spot are no contacts.
		for (const id of ['heavy-lift', 'high-knees-spot', 'calf-hold-bent', 'floating-heel-hold', 'push-up-hold'])
			expect(STARTER_LIBRARY.drills[id]!.counting, id).toEqual({})
		// From blocks is a start of its own: no mark of it is held against a three-point one.
		expect(STARTER_LIBRARY.drills['block-start']!.start).toBe('blocks')
	})

	it('changes one thing of a carried load from rung to rung, 100–200 g at most on a limb', () => {
		const rungs = STARTER_LIBRARY.ladders['carried-load']!.rungs
		for (const [index, rung] of rungs.entries()) {
			const before = rungs[index - 1]
			if (!before) continue
			const grams = rung.parameters.loadG! - before.parameters.loadG!
			const changed = [
				grams !== 0,
				rung.wornAt!.segment !== before.wornAt!.segment,
				rung.wornAt!.fromJointCm !== before.wornAt!.fromJointCm && rung.wornAt!.segment === before.wornAt!.segment,
			].filter(Boolean).length
			expect(changed <= 1 || rung.wornAt!.segment === 'trunk', rung.id).toBe(true)
			if (rung.wornAt!.segment !== 'trunk') expect(grams >= 0 && grams <= 200, rung.id).toBe(true)
			// One to two weeks before the next.
			expect(
				rung.gates.some((gate) => gate.kind === 'days-below' && gate.days >= 7),
				rung.id,
			).toBe(true)
		}
		expect(rungs.map((rung) => rung.wornAt!.fromJointCm)).toEqual([10, 25, 25, 25, 25, ...Array(4).fill(undefined)])
	})

	it('rests five to ten minutes between a heavy and a free effort, and judges the free one', () => {
		for (const rung of STARTER_LIBRARY.ladders.contrast!.rungs) {
			expect(rung.rest.repsS >= 300 && rung.rest.repsS <= 600, rung.id).toBe(true)
			const judged = rung.pieces!.filter((piece) => piece.judged)
			expect(judged.map(({ drillId, parameters }) => [drillId, parameters])).toEqual([[rung.drillId, rung.parameters]])
			expect(rung.pieces!.indexOf(judged[0]!), rung.id).toBe(rung.pieces!.length - 1)
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

	it('gives every loaded region an alternative, every used parameter a range that holds the default, and doses that grow with the level', () => {
		for (const drill of drills) {
			for (const region of Object.keys(drill.regions))
				expect(drill.alternatives[region as Region], `${drill.id}: ${region}`).toBeDefined()
			for (const name of PARAMETERS) {
				const [value, range] = [drill.defaults.parameters[name], drill.ranges[name]]
				expect(range === undefined, `${drill.id} ${name}`).toBe(value === undefined)
				if (value !== undefined && range)
					expect(value >= range[0] && value <= range[1], `${drill.id} ${name}`).toBe(true)
			}
			expect(repsOf(drill.doses[1])).toBeLessThanOrEqual(repsOf(drill.doses[2]))
			expect(repsOf(drill.doses[2])).toBeLessThanOrEqual(repsOf(drill.doses[3]))
			expect(drill.space.lengthM).toBeGreaterThan(0)
			// Common practice: 15 m to slow down after a maximal sprint.
			if (drill.family === 'sprint' && drill.counting.metres?.plannedZone === 'maximal')
				expect(drill.space.runOutM, drill.id).toBeGreaterThanOrEqual(15)
		}
	})

	it('names only drills that exist on its rungs, with ids of their own and levels that never fall', () => {
		for (const ladder of ladders) {
			expect(new Set(ladder.rungs.map((rung) => rung.id)).size).toBe(ladder.rungs.length)
			for (const [index, rung] of ladder.rungs.entries()) {
				const drill = STARTER_LIBRARY.drills[rung.drillId]
				expect(drill, rung.drillId).toBeDefined()
				expect(() => countLine(drill!, rung.parameters, rung.dose)).not.toThrow()
				for (const piece of rung.pieces ?? [])
					expect(STARTER_LIBRARY.drills[piece.drillId], piece.drillId).toBeDefined()
				expect(rung.level).toBeGreaterThanOrEqual(ladder.rungs[index - 1]?.level ?? 1)
				if (rung.pass.kind === 'contact-ceiling') expect(drill?.measures).toContain('contact')
				if (rung.pass.kind === 'time-within') expect(drill?.start, rung.id).toBeDefined()
				if (rung.pass.kind === 'not-below') expect(drill?.measures, rung.id).toContain(rung.pass.of)
				if (rung.drillId.endsWith('depth-jump')) expect(rung.dose.reps).toBeLessThanOrEqual(5)
				for (const gate of rung.gates)
					if (gate.kind === 'passed')
						expect(() => rungOf(STARTER_LIBRARY.ladders[gate.ladderId]!, gate.rungId)).not.toThrow()
				for (const variation of rung.variations ?? [])
					expect(STARTER_LIBRARY.drills[variation.drillId], variation.name).toBeDefined()
			}
		}
	})

	it('keeps the trade’s own steps (common practice, no source)', () => {
		const shock = STARTER_LIBRARY.ladders.shock!
		const inches = (kind: string) =>
			shock.rungs
				.filter((rung) => rung.id.startsWith(kind))
				.map((rung) => Math.round((rung.parameters.heightCm ?? 0) / 2.5))
		// Boxes of 6, 12, 18, 24 and 30 inches.
		expect(inches('pause')).toEqual([6, 12, 18, 24, 30])
		expect(inches('depth')).toEqual([6, 12, 18, 24, 30])
		// 3×5 landings, 5×2 (10 jumps, 20 contacts) or 3×3 rebounds.
		expect(
			shock.rungs
				.filter((rung) => rung.drillId === 'drop-landing')
				.every((rung) => rung.dose.sets === 3 && rung.dose.reps === 5),
		).toBe(true)
		expect(
			shock.rungs
				.filter((rung) => rung.drillId === 'depth-jump')
				.every((rung) => rung.dose.sets === 5 && rung.dose.reps === 2),
		).toBe(true)
		// Assisted speed 5 → 10 → 15–20 % in two-week steps, never over 20.
		const assisted = STARTER_LIBRARY.ladders.assisted!.rungs
		expect(assisted.map((rung) => rung.parameters.assistPercent)).toEqual([5, 10, 15, 20])
		expect(
			assisted.slice(1).every((rung) => rung.gates.some((gate) => gate.kind === 'days-below' && gate.days === 14)),
		).toBe(true)
		// Slow work: 25–35 s holds, to about two minutes a side, 5–10 minutes, six hours from fast work.
		for (const rung of STARTER_LIBRARY.ladders.tissue!.rungs) {
			const drill = STARTER_LIBRARY.drills[rung.drillId]!
			const seconds = drill.defaults.repS * repsOf(rung.dose)
			expect(seconds, rung.id).toBeGreaterThanOrEqual(75)
			expect(seconds, rung.id).toBeLessThanOrEqual(150)
			expect(drill.cautions.join()).toContain('six hours')
		}
		expect(TISSUE_HOURS).toBe(6)
		// Turning goes from a small angle to 180°.
		const angles = STARTER_LIBRARY.ladders.cut!.rungs.map((rung) => rung.parameters.angleDeg ?? 0)
		expect(angles).toEqual([...angles].sort((a, b) => a - b))
		expect(angles.at(-1)).toBe(180)
		// Skips 2×20 m there and back.
		for (const rung of STARTER_LIBRARY.ladders['skip-rhythm']!.rungs)
			expect([rung.dose, rung.parameters.distanceM]).toEqual([{ sets: 2, reps: 2 }, 20])
	})

	it('keeps the published and the common rests', () => {
		for (const ladder of ladders)
			for (const rung of ladder.rungs) {
				const drill = STARTER_LIBRARY.drills[rung.drillId]!
				// Potach & Chu, in Essentials of Strength Training and Conditioning, NSCA (from memory): 5–10 s between depth jumps, 2–3 minutes between their sets.
				if (rung.drillId === 'depth-jump') {
					expect(rung.rest.repsS >= 5 && rung.rest.repsS <= 10, rung.id).toBe(true)
					expect(rung.rest.setsS >= 120 && rung.rest.setsS <= 180, rung.id).toBe(true)
				}
				// Common practice: 2–3 minutes between runs of 150 m and more, 8–12 between their sets.
				if (rung.drillId === 'repeat-run') {
					expect(rung.rest.repsS >= 120 && rung.rest.repsS <= 180, rung.id).toBe(true)
					expect(rung.rest.setsS >= 480 && rung.rest.setsS <= 720, rung.id).toBe(true)
				}
				// Common practice: about a minute for ten metres of maximal sprinting, half to one and a half here.
				if (
					drill.family === 'sprint' &&
					drill.counting.metres?.plannedZone === 'maximal' &&
					drill.counting.metres.kind === undefined &&
					!rung.drillId.startsWith('contrast') &&
					!drill.start?.startsWith('roll')
				) {
					expect(rung.rest.repsS / ((rung.parameters.distanceM ?? 10) / 10) / 60, rung.id).toBeGreaterThanOrEqual(0.5)
				}
				// The same source: work to rest of 1:5 and more for plyometric sets (a set's own seconds against its rest).
				if (drill.family === 'plyometric' && ['high', 'shock'].includes(drill.intensity) && rung.dose.sets > 1)
					expect(rung.rest.setsS / (drill.defaults.repS * rung.dose.reps), rung.id).toBeGreaterThanOrEqual(5)
			}
	})

	it('opens every rung to somebody: level 3, grown up, in some phase of some school, a preset or a squad’s own', () => {
		const own = { ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, returnPulls: 'pulls-first' as const } }
		const everything = Object.fromEntries(ladders.map((ladder) => [ladder.id, ladder.rungs.map((rung) => rung.id)]))
		for (const ladder of ladders)
			for (const rung of ladder.rungs) {
				const opens = [...SCHOOLS, own].some((school) =>
					PHASES.some((phase) => {
						const facts = factsOf({
							phase,
							passed: everything,
							day: '2026-06-01',
							contrastHelps: true,
							schools: [{ ...school, choices: { ...school.choices, assisted: 'to-20', plants: 'all' } }],
							lastWork: { sprint: '2026-05-31', agility: '2026-05-31', plyometric: '2026-05-31', throw: '2026-05-31' },
						})
						return lockOf(facts, rung) === null
					}),
				)
				expect(opens, `${ladder.id} ${rung.id}`).toBe(true)
			}
	})

	it('lets nobody under 16, of unknown age or at level 1 rebound from a box, nor be pulled', () => {
		for (const drill of drills.filter((one) => one.intensity === 'shock' || one.counting.metres?.kind === 'assisted')) {
			const lock = (level: 1 | 3, ageYears: number | null) =>
				levelAgeMass.read(factsOf({ level, ageYears }), formOf(drill, drill.defaults.parameters, STARTER_LIBRARY))
			expect(lock(3, 15)?.limit).toContain('under 16')
			expect(lock(3, null)?.limit).toContain('until the birth date is known')
			expect(lock(1, 25)?.limit).toContain('at level 1')
			expect(lock(3, 16)).toBeNull()
			expect([lock(3, 15)?.tier, lock(3, 15)?.rule]).toEqual(['block', 'S4'])
		}
	})

	it('says which rung is unknown', () => {
		expect(() => rungOf(STARTER_LIBRARY.ladders.cut!, 'nope')).toThrow('rungId: "nope" is not a rung of ladder cut')
	})

	it('keeps every preset inside the bounds, and every choice one of its question’s sides', () => {
		for (const school of SCHOOLS) {
			for (const bound of NUMBER_BOUNDS) {
				const value = school.numbers[bound.id]
				// A cap of 0 means none at all.
				expect(value >= bound.low && value <= bound.high, `${school.id} ${bound.id} ${value}`).toBe(true)
			}
			for (const question of QUESTIONS)
				expect(
					question.sides.map((side) => side.id),
					`${school.id} ${question.id}`,
				).toContain(school.choices[question.id])
		}
		expect(QUESTIONS.map((question) => question.id).sort()).toEqual(Object.keys(QUALITY_FIRST.choices).sort())
		expect(NUMBER_BOUNDS.map((bound) => bound.id).sort()).toEqual(Object.keys(QUALITY_FIRST.numbers).sort())
	})
})
