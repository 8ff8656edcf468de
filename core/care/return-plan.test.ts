import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { form } from '../../tests/support/plain-facts'
import type { CareReport, Clearance, ReturnStand } from '../vocabulary/care'
import type { Region } from '../vocabulary/words'
import { covers, dueAt, exitShare, isLowWork, openedBy, pathsOf, returnPlanOn } from './return-plan'

const DAY = '2026-03-20'
const pain = (day: string, score: number, more: Partial<CareReport> = {}): CareReport => ({
	kind: 'pain',
	region: 'knee',
	side: 'left',
	score,
	day,
	...more,
})
const clear = (day: string, more: Partial<Clearance> = {}): Clearance => ({
	region: 'knee',
	day,
	by: 'S. Lindqvist',
	role: 'physiotherapist',
	...more,
})
const opened = (reports: CareReport[], clearances: Clearance[], stands: ReturnStand[] = [], day = DAY) =>
	openedBy({ reports, clearances }, stands, [], day)
const plan = (
	stands: ReturnStand[],
	paths: Record<string, string | null>,
	day = DAY,
	regions: Region[] = [],
	refuse: string[] = [],
) =>
	returnPlanOn(
		{ regions: new Set(regions), everything: false, paths: new Map(Object.entries(paths)) },
		stands,
		STARTER_LIBRARY,
		day,
		({ drill }) => refuse.includes(drill.id),
		({ id }) => id === 'pulls',
	)
const due = (stand: Partial<ReturnStand> | null, path = 're-entry-run', day = DAY, refuse: string[] = []) =>
	plan(stand ? [{ path, step: 'walk', ...stand }] : [], { [path]: null }, day, [], refuse).paths[0]!.due?.rung.id ??
	'done'

// Foot to knee: landing and running; thigh, groin, hip, abdomen, back: running (back and abdomen also throwing); arm: throwing, and running from 60 %.
describe('which paths lead back', () => {
	it.each([
		['knee', ['re-entry-land', 're-entry-run']],
		['foot', ['re-entry-land', 're-entry-run']],
		['back-thigh', ['re-entry-run']],
		['groin', ['re-entry-run']],
		['back', ['re-entry-run', 're-entry-throw']],
		['abdomen', ['re-entry-run', 're-entry-throw']],
		['shoulder', ['re-entry-throw', 're-entry-run']],
		['neck-head', ['re-entry-run']],
	] as const)('%s', (region, paths) => {
		expect(pathsOf(region).map(({ path }) => path)).toEqual(paths)
	})
})

describe('what opens it', () => {
	it.each([
		// Closed for eight days, for seven, and not at all.
		[[pain('2026-03-01', 5)], '2026-03-09', undefined, true],
		[[pain('2026-03-01', 5)], '2026-03-08', undefined, false],
		[[pain('2026-03-01', 4)], '2026-03-15', undefined, false],
		// An injury, said or as severe as one.
		[[pain('2026-03-01', 5)], '2026-03-03', true, true],
		[[pain('2026-03-01', 7)], '2026-03-03', undefined, true],
		[[pain('2026-03-01', 6)], '2026-03-03', undefined, false],
		[[pain('2026-03-01', 1, { redFlag: true })], '2026-03-03', undefined, true],
		[[pain('2026-03-01', 9)], '2026-03-03', false, false],
		[[pain('2026-03-01', 9)], '2026-03-09', false, true],
		[[], '2026-03-09', true, true],
	] as const)('%j cleared on %s, injury %s: %s', (reports, day, injury, opens) => {
		const found = opened([...reports], [clear(day, injury === undefined ? {} : { injury })])
		expect(found.regions.has('knee')).toBe(opens)
		expect([...found.paths.keys()].sort()).toEqual(opens ? ['re-entry-land', 're-entry-run'] : [])
	})
	it('no coach’s word, no clearance of another day or side', () => {
		const hurt = [pain('2026-03-01', 8)]
		expect(opened(hurt, [clear('2026-03-05', { role: 'coach' })]).paths.size).toBe(0)
		expect(opened(hurt, [clear('2026-03-21')]).paths.size).toBe(0)
		expect(opened(hurt, [clear('2026-03-05', { side: 'right' })]).paths.size).toBe(0)
		expect(opened(hurt, [clear('2026-03-05', { side: 'left' })]).paths.size).toBe(2)
		expect(opened(hurt, [clear('2026-03-05', { side: 'both' })]).paths.size).toBe(2)
		expect(opened([pain('2026-03-05', 8)], [clear('2026-03-05')]).paths.size).toBe(0)
	})
	it('reports that an earlier clearance ended count no more', () => {
		const twice = [clear('2026-03-03', { injury: false }), clear('2026-03-10')]
		expect(opened([pain('2026-03-01', 8)], twice).regions.size).toBe(0)
		expect(opened([pain('2026-03-01', 8), pain('2026-03-03', 8)], twice).regions.size).toBe(1)
	})
	it('always after head or chest, by a doctor', () => {
		const everything = (role: Clearance['role']) => [clear('2026-03-05', { region: 'everything', role })]
		expect(opened([{ kind: 'head', day: '2026-03-04' }], everything('doctor'))).toMatchObject({ everything: true })
		expect([...opened([], everything('doctor')).paths.keys()]).toEqual(['re-entry-run'])
		expect(opened([], everything('physiotherapist')).everything).toBe(false)
	})
	// A lift after more than 7 days opens the way back as a clearance does.
	it.each([
		['knee', '2026-03-01', '2026-03-09', ['re-entry-land', 're-entry-run'], false],
		['knee', '2026-03-01', '2026-03-08', [], false],
		['shoulder', '2026-03-01', '2026-03-09', ['re-entry-run', 're-entry-throw'], false],
		['everything', '2026-03-01', '2026-03-09', ['re-entry-run'], true],
		['everything', '2026-03-01', '2026-03-08', [], false],
		// Not yet lifted on the day asked about.
		['knee', '2026-03-01', '2026-03-21', [], false],
		['knee', '2026-03-01', '2026-03-20', ['re-entry-land', 're-entry-run'], false],
	] as const)('%s closed by hand from %s, lifted on %s: %j', (region, since, until, paths, everything) => {
		const found = openedBy({ reports: [], clearances: [], lifted: [{ region, since, until }] }, [], [], DAY)
		expect([...found.paths.keys()].sort()).toEqual(paths)
		expect(found.everything).toBe(everything)
		expect([...found.regions]).toEqual(paths.length === 0 || everything ? [] : [region])
	})
	it('over four weeks away, each family by its path; an arm begins at 60 % unless something else begins sooner', () => {
		expect([...openedBy({ reports: [], clearances: [] }, [], ['sprint', 'throw'], DAY).paths.keys()]).toEqual([
			're-entry-run',
			're-entry-throw',
		])
		const arm = [clear('2026-03-05', { region: 'shoulder', injury: true })]
		expect(opened([], arm).paths.get('re-entry-run')).toBe('run-60')
		expect(opened([], [...arm, clear('2026-03-05', { injury: true })]).paths.get('re-entry-run')).toBeNull()
		expect(openedBy({ reports: [], clearances: arm }, [], ['sprint'], DAY).paths.get('re-entry-run')).toBeNull()
	})
	it('and where somebody says the athlete stands on one', () => {
		expect([...opened([], [], [{ path: 're-entry-throw', step: 'toss-70' }]).paths.keys()]).toEqual(['re-entry-throw'])
	})
})

describe('the step that is due', () => {
	it.each([
		[null, 'walk'],
		[{ step: 'run-60' }, 'run-60'],
		[{ step: 'run-60', answers: [0] }, 'run-70'],
		[{ step: 'run-60', answers: [0, 1] }, 'run-60'],
		[{ step: 'run-60', answers: [2] }, 'run-60'],
		[{ step: 'run-60', answers: [0, 3] }, 'shapes'],
		[{ step: 'walk', answers: [5] }, 'walk'],
		[{ step: 'run-100', answers: [0] }, 'done'],
		[{ step: 'run-100', answers: [] }, 'run-100'],
		[{ step: 'no-step', answers: [0] }, 'shapes'],
	])('%j: %s', (stand, step) => {
		expect(due(stand)).toBe(step)
	})
	it.each([
		[7, 'run-80'],
		[8, 'run-70'],
		[14, 'run-70'],
		[15, 'run-60'],
		[28, 'run-60'],
		[29, 'walk'],
	])('%i days after 70 %% went well', (days, step) => {
		const day = new Date(Date.UTC(2026, 2, 1 + days)).toISOString().slice(0, 10)
		expect(due({ step: 'run-70', answers: [0], lastDone: '2026-03-01' }, 're-entry-run', day)).toBe(step)
	})
	it('steps the athlete’s gates would have refused are left out, never those to 80 %', () => {
		expect(due({ step: 'run-80', answers: [0] }, 're-entry-run', DAY, ['return-run'])).toBe('done')
		expect(due({ step: 'run-70', answers: [0] }, 're-entry-run', DAY, ['build-run'])).toBe('run-80')
		expect(due({ step: 'stick-one', answers: [0] }, 're-entry-land', DAY, ['pogo'])).toBe('cut-45')
		expect(due({ step: 'pogo', answers: [0] }, 're-entry-land', DAY, ['pogo'])).toBe('cut-45')
		expect(due({ step: 'stick-two', answers: [0] }, 're-entry-land', DAY, ['one-foot-stick'])).toBe('stick-one')
	})
	it.each([
		['run-80', '2026-03-20', true],
		['run-80', '2026-03-19', false],
		['run-90', '2026-03-19', true],
		['run-90', '2026-03-18', false],
	])('%s waits when the last was done on %s: %s', (step, lastDone, waits) => {
		expect(plan([{ path: 're-entry-run', step, lastDone }], { 're-entry-run': null }).paths[0]!.waits).toBe(waits)
	})
	it('is not the hard one where the region is to be spared', () => {
		const spared = returnPlanOn(
			{ regions: new Set(['back-thigh'] as const), everything: false, paths: new Map([['re-entry-run', null]]) },
			[{ path: 're-entry-run', step: 'run-95' }],
			STARTER_LIBRARY,
			DAY,
			() => false,
			({ id }) => id === 'pulls',
			new Set(['back-thigh'] as const),
		)
		expect(spared.paths[0]!.due?.rung.id).toBe('run-80')
	})
	it('begins where the arm may', () => {
		expect(plan([], { 're-entry-run': 'run-60' }).paths[0]!.due?.rung.id).toBe('run-60')
	})
	it('landing comes before running, however they were opened', () => {
		expect(plan([], { 're-entry-run': null, 're-entry-land': null }).paths.map(({ ladder }) => ladder.id)).toEqual([
			're-entry-land',
			're-entry-run',
		])
	})
})

describe('what it covers', () => {
	const walking = plan([], { 're-entry-run': null }, DAY, ['back-thigh'])
	it.each([
		['standing-start', true],
		['cut-90', true],
		['broad-jump', false],
		// It loads the thigh 2, whatever its family.
		['alternate-bounds', true],
		['bridge-hold', true],
		['kneeling-chest-push', false],
		['easy-run', false],
	])('%s: %s', (drillId, covered) => {
		expect(covers(walking, form(drillId))).toBe(covered)
	})
	it('after head or chest all above low; nothing once it is walked', () => {
		const head = { ...plan([], { 're-entry-run': null }), everything: true }
		expect(covers(head, form('broad-jump'))).toBe(true)
		expect(covers(head, form('kneeling-chest-push'))).toBe(true)
		expect(covers(head, form('pogo'))).toBe(false)
		const walked = plan([{ path: 're-entry-run', step: 'run-100', answers: [0] }], { 're-entry-run': null }, DAY, [
			'back-thigh',
		])
		expect(covers(walked, form('standing-start'))).toBe(false)
	})
	it('beside the step low work that spares what was hurt and is no later step', () => {
		expect(isLowWork(walking, form('wall-drill'))).toBe(true)
		// A later step, though low; and one that loads the thigh 2.
		expect(isLowWork(walking, form('a-run'))).toBe(false)
		expect(isLowWork(walking, form('straight-leg-run'))).toBe(false)
		expect(isLowWork(walking, form('standing-start'))).toBe(false)
		const running = plan([{ path: 're-entry-run', step: 'run-70' }], { 're-entry-run': null }, DAY, ['knee'])
		expect(isLowWork(running, form('a-run', { distanceM: 20 }))).toBe(true)
		expect(isLowWork(running, form('build-run', { effortPercent: 60 }))).toBe(true)
		expect(isLowWork(running, form('build-run', { effortPercent: 80 }))).toBe(false)
	})
	it('the step itself, at no more than it asks', () => {
		const running = plan([{ path: 're-entry-run', step: 'run-70' }], { 're-entry-run': null })
		expect(dueAt(running, form('build-run', { effortPercent: 70 }))?.ladder.id).toBe('re-entry-run')
		expect(dueAt(running, form('build-run', { effortPercent: 75 }))).toBeNull()
		expect(dueAt(running, form('a-run'))).toBeNull()
		const done = plan([{ path: 're-entry-run', step: 'run-70', lastDone: DAY }], { 're-entry-run': null })
		expect(dueAt(done, form('build-run', { effortPercent: 70 }))).toBeNull()
	})
})

describe('after the last step', () => {
	it.each([
		[0, 0.6],
		[6, 0.6],
		[7, 0.75],
		[13, 0.75],
		[14, 0.9],
		[20, 0.9],
		[21, null],
	])('%i days: %s', (days, share) => {
		expect(exitShare('2026-03-01', new Date(Date.UTC(2026, 2, 1 + days)).toISOString().slice(0, 10))).toBe(share)
	})
})

// Pulled work is a form of the first running steps, by the school's switch: before free running below full effort.
describe('pulls before the first free runs', () => {
	const steps = (unused: (id: string) => boolean, stand: Partial<ReturnStand>) =>
		returnPlanOn(
			{ regions: new Set(), everything: false, paths: new Map([['re-entry-run', null]]) },
			[{ path: 're-entry-run', step: 'walk', ...stand }],
			STARTER_LIBRARY,
			DAY,
			() => false,
			({ id }) => unused(id),
		).paths[0]!
	it('are a step of their own between the drills and 60 %, where the school pulls first', () => {
		expect(steps(() => false, { step: 'shapes', answers: [0] }).due?.rung.id).toBe('pulls')
		expect(steps(() => false, { step: 'pulls', answers: [0] }).due?.rung.id).toBe('run-60')
		expect(
			steps(() => false, {})
				.steps.map(({ id }) => id)
				.slice(0, 4),
		).toEqual(['walk', 'shapes', 'pulls', 'run-60'])
	})
	it('are walked past where it runs free', () => {
		const free = (id: string) => id === 'pulls'
		expect(steps(free, { step: 'shapes', answers: [0] }).due?.rung.id).toBe('run-60')
		expect(steps(free, {}).steps.map(({ id }) => id)).not.toContain('pulls')
		// Whoever stood on them when the school changed its mind does the drills once more.
		expect(steps(free, { step: 'pulls' }).due?.rung.id).toBe('shapes')
	})
	it('say how often a step was repeated', () => {
		expect(steps(() => false, { repeats: 3 }).repeats).toBe(3)
		expect(steps(() => false, {}).repeats).toBe(0)
	})
})
