import { describe, expect, it } from 'vitest'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import { drillNamed, makeLine } from './make-line'

const place = { id: 'l', entryId: 'e', athleteId: 'a' }
const planned = { dose: { sets: 2, reps: 3 }, parameters: {}, rest: { repsS: 60, setsS: 120 } }
const of = (id: string, change: Partial<typeof planned> & { sides?: object | null } = {}, own = {}) =>
	makeLine(place, { ...planned, ...change } as typeof planned, STARTER_LIBRARY.drills[id]!, QUALITY_FIRST, own)

describe('a line as the field shows it', () => {
	it('takes the number its drill yields first; what is judged by eye is ticked off', () => {
		expect(of('three-point-start', { parameters: { distanceM: 20 } })).toMatchObject({
			...place,
			...planned,
			parameters: { distanceM: 20 },
			words: 'Three-point start 20 m',
			drillId: 'three-point-start',
			drillVersion: STARTER_LIBRARY.drills['three-point-start']!.version,
			logs: 'sprint',
			family: 'sprint',
			target: '',
			blocked: null,
			over: null,
			bests: {},
			usuals: {},
			cues: STARTER_LIBRARY.drills['three-point-start']!.cues,
			lookFor: STARTER_LIBRARY.drills['three-point-start']!.lookFor,
		})
		expect(of('broad-jump').logs).toBe('distance')
		expect(of('relaxed-skip')).toMatchObject({ logs: 'done', target: 'good by eye' })
	})
	it('has the school’s limit of its kind: times 3 %, jumps 5 %, contacts 10 %', () => {
		expect(of('three-point-start').dropOffPercent).toBe(3)
		expect(of('broad-jump').dropOffPercent).toBe(5)
		expect(of('depth-jump').dropOffPercent).toBe(10)
	})
	it('says the cautions of what is dangerous, and of nothing else', () => {
		expect(of('depth-jump').cautions).toEqual(STARTER_LIBRARY.drills['depth-jump']!.cautions)
		expect(of('depth-jump').cautions.length).toBeGreaterThan(0)
		expect(of('three-point-start').cautions).toEqual([])
		const cautious = { ...STARTER_LIBRARY.drills['three-point-start']!, cautions: ['Stop when it pulls.'] }
		const pulled = (assistPercent?: number) =>
			makeLine(place, { ...planned, parameters: assistPercent ? { assistPercent } : {} }, cautious, QUALITY_FIRST)
				.cautions
		expect(pulled(5)).toEqual(['Stop when it pulls.'])
		expect(pulled()).toEqual([])
	})
	it('asks sides where a number is taken of each, with unlike doses', () => {
		const sides = { left: { sets: 1, reps: 2 }, right: { sets: 1, reps: 4 } }
		expect(of('single-leg-pogo', { sides })).toMatchObject({ sided: 'each', sides })
		expect(of('single-leg-pogo', { sides: null })).not.toHaveProperty('sides')
		expect(of('broad-jump', { sides })).not.toHaveProperty('sided')
		expect(of('broad-jump', { sides })).not.toHaveProperty('sides')
		// Ticked off by eye: a set is of both.
		expect(of('step-and-stick')).not.toHaveProperty('sided')
	})
	it('wears a weight where the plan says so', () => {
		const carried = { segment: 'shank' as const, fromJointCm: 10, grams: 200 }
		const wearing = (worn: typeof carried | null) =>
			makeLine(place, { ...planned, carried: worn }, STARTER_LIBRARY.drills['three-point-start']!, QUALITY_FIRST)
		expect(wearing(carried).carried).toEqual(carried)
		expect(wearing(null)).not.toHaveProperty('carried')
	})
	it('a complex has its other pieces from the drills the sheet brings, the newest of each', () => {
		const [squat, start] = [STARTER_LIBRARY.drills['slow-split-squat']!, STARTER_LIBRARY.drills['three-point-start']!]
		const drills = {
			'slow-split-squat/1': { ...squat, version: 1, name: 'Old squat' },
			'slow-split-squat/7': { ...squat, version: 7, name: 'New squat' },
			'slow-split-squat/3': { ...squat, version: 3, name: 'Squat' },
			[`${start.id}/${start.version}`]: start,
		}
		expect(drillNamed(drills, 'slow-split-squat')?.name).toBe('New squat')
		expect(drillNamed(drills, start.id)).toBe(start)
		expect(drillNamed(drills, 'pogo')).toBeNull()
		const piece = (drillId: string, judged: boolean) => ({
			drillId,
			judged,
			reps: 3,
			parameters: {},
			rest: { repsS: 0, setsS: 0 },
		})
		const made = (first: string) =>
			makeLine(
				place,
				{ ...planned, pieces: [piece(first, false), piece(start.id, true)] as never },
				start,
				QUALITY_FIRST,
				{ target: '1.90 s' },
				(id) => drillNamed(drills, id),
			)
		expect(
			made(squat.id).pieces?.map(({ drillName, target, judged, reps }) => [drillName, target, judged, reps]),
		).toEqual([
			['New squat', 'good by eye', false, 3],
			['Three-point start', '1.90 s', true, 3],
		])
		// With a piece nobody knows it is the judged one alone.
		expect(made('nobody-knows')).not.toHaveProperty('pieces')
		const alone = makeLine(
			place,
			{ ...planned, pieces: [piece(squat.id, false), piece(start.id, true)] as never },
			start,
			QUALITY_FIRST,
		)
		expect(alone).not.toHaveProperty('pieces')
	})
	it('is what its athlete’s own says, and empty where it is closed', () => {
		expect(of('broad-jump', {}, { target: '2.40 m', over: 'left knee' })).toMatchObject({
			target: '2.40 m',
			over: 'left knee',
		})
		expect(makeLine(place, planned, null, QUALITY_FIRST, { blocked: 'left knee' })).toMatchObject({
			words: '',
			drillName: '',
			drillId: '',
			drillVersion: 0,
			logs: 'done',
			family: 'prepare',
			cautions: [],
			cues: [],
			lookFor: [],
			dropOffPercent: 0,
			blocked: 'left knee',
		})
	})
})
