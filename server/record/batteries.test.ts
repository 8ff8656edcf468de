import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { readEntries, readLines, readSession } from '../../db/queries/sessions'
import { acceptEvents } from '../log/accept-events'
import { blockBattery, makeBlock } from '../plan/make-block'
import { addBattery, isDue, planBattery, readTests, setRetired, testsOfWeek } from './batteries'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const at = (day: string) => new Date(`${day}T18:30:00Z`)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 3)
})
const row = (more: object = {}) => ({
	drillId: 'three-point-start',
	amount: '20',
	method: 'gate',
	tries: '3',
	use: 'mean',
	...more,
})
const TYPED = { name: '20 m', every: 'block', items: [row()] }
async function made(typed: typeof TYPED = TYPED): Promise<string> {
	const added = await addBattery(club.coach, club.squadId, typed, at('2026-03-01'))
	if (!added || !('id' in added)) throw new Error(JSON.stringify(added))
	return added.id
}
/** The squad does it on a day: times of each athlete, three each. */
async function held(batteryId: string, day: string, times: (number[] | null)[]) {
	const planned = await planBattery(club.coach, club.squadId, batteryId, day, at('2026-03-01'))
	if (!planned || !('sessionId' in planned)) throw new Error(JSON.stringify(planned))
	const lines = await readLines(club.scope, [planned.sessionId])
	for (const [athlete, own] of times.entries()) {
		const line = lines.find((one) => one.athleteId === club.athletes[athlete])!
		const answers = await acceptEvents(
			club.coach,
			(own ?? []).map((timeS, index) =>
				markOf(line, {
					deviceTime: `${day}T17:4${index}:00.000Z`,
					repNo: index + 1,
					kind: 'sprint',
					value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
				}),
			),
			at(day),
		)
		expect(
			answers.every(({ outcome }) => outcome === 'accepted'),
			JSON.stringify(answers),
		).toBe(true)
	}
	return planned.sessionId
}
const page = async (today: string) => (await readTests(club.coach, club.squadId, today))!.batteries[0]!

describe('a squad’s tests', () => {
	it('are planned as a session of their own, with a line for each', async () => {
		const id = await made({
			...TYPED,
			items: [row(), row({ drillId: 'broad-jump', amount: '', method: 'tape', tries: '2' })],
		})
		const planned = await planBattery(club.coach, club.squadId, id, '2026-03-12', at('2026-03-01'))
		const sessionId = (planned as { sessionId: string }).sessionId
		expect(await readSession(club.scope, sessionId)).toMatchObject({ title: '20 m', day: '2026-03-12' })
		const entries = await readEntries(club.scope, [sessionId])
		expect(entries.map(({ part, dose, rest }) => [part, dose, rest.repsS])).toEqual([
			['Test: Three-point start', { sets: 1, reps: 3 }, 180],
			['Test: Broad jump and stick', { sets: 1, reps: 2 }, 180],
		])
		expect(await readLines(club.scope, [sessionId])).toHaveLength(6)
		expect((await page('2026-03-10')).next).toMatchObject({ sessionId })
	})
	it('stand on the test day of a block, in the place of what would be proposed, and count as its result', async () => {
		const id = await made({ ...TYPED, items: [row({ drillId: 'broad-jump', amount: '', method: 'tape', tries: '2' })] })
		await makeBlock(
			club.coach,
			club.squadId,
			{
				start: '2026-03-16',
				phases: ['accumulate', 'accumulate', 'unloading'],
				shape: [100, 110, 60],
				days: [{ weekday: 2, startTime: '17:30', minutes: 90 }],
				priority: null,
				kept: [],
				testDay: true,
				content: 'proposed',
				themed: true,
			},
			'2026-03-12',
			at('2026-03-12'),
		)
		// The third Tuesday.
		expect((await page('2026-03-12')).next).toMatchObject({ day: '2026-03-31' })
		const sessionId = (await page('2026-03-12')).next!.sessionId
		const entries = (await readEntries(club.scope, [sessionId])).sort((a, b) => a.position - b.position)
		const measured = entries.filter(({ part }) => part.startsWith('Test'))
		expect(measured.map(({ part, dose }) => [part, dose])).toEqual([
			['Test: Broad jump and stick', { sets: 1, reps: 2 }],
		])
		expect(entries[0]!.family).toBe('prepare')
		// Another squad's block knows nothing of it, nor does one whose battery was taken off.
		await setRetired(club.coach, club.squadId, id, true)
		expect(await blockBattery(club.scope, club.squadId)).toBeNull()
	})
	it('say who changed beyond noise, and name who is missing', async () => {
		const id = await made()
		expect(await page('2026-03-10')).toMatchObject({
			lastDay: null,
			items: [{ words: 'Three-point start 20 m: missing: Athlete 1, Athlete 2, Athlete 3' }],
		})
		await held(id, '2026-03-12', [
			[3.2, 3.2, 3.2],
			[3.2, 3.21, 3.2],
			[3.3, 3.3, 3.3],
		])
		await held(id, '2026-03-26', [[3.08, 3.08, 3.08], [3.2, 3.18, 3.19], null])
		const { items, lastDay } = await page('2026-03-27')
		expect(lastDay).toBe('2026-03-26')
		expect(items[0]!.words).toBe('Three-point start 20 m: 1 of 2 better beyond noise, 1 unchanged; missing: Athlete 3')
		const [first, second, third] = items[0]!.people
		expect(first!.readings[0]!.reading.last).toMatchObject({ day: '2026-03-12', beyond: true })
		expect(first!.readings[0]!.reading.last!.gain).toBeCloseTo(0.12, 9)
		expect(second!.readings[0]!.reading.last!.beyond).toBe(false)
		expect(third!.readings).toEqual([])
	})
	it('count nothing that was measured in another session', async () => {
		const [tested, other] = [await made(), await made({ ...TYPED, name: 'Other' })]
		await held(other, '2026-03-12', [[3.2, 3.2, 3.2], null, null])
		await held(tested, '2026-03-26', [[3.08, 3.08, 3.08], null, null])
		const { batteries } = (await readTests(club.coach, club.squadId, '2026-03-27'))!
		expect(batteries.find(({ name }) => name === '20 m')!.items[0]!.people[0]!.readings[0]!.reading.last).toBeNull()
	})
	it('taken off stay with their results, and can be put back', async () => {
		const id = await made()
		await held(id, '2026-03-12', [[3.2, 3.2, 3.2], null, null])
		expect(await setRetired(club.coach, club.squadId, id, true)).toBe(true)
		expect(await planBattery(club.coach, club.squadId, id, '2026-03-19', at('2026-03-01'))).toBeNull()
		expect(await page('2026-03-13')).toMatchObject({ retired: true, due: false, lastDay: '2026-03-12' })
		expect(await setRetired(club.coach, club.squadId, id, false)).toBe(true)
		expect((await page('2026-03-13')).retired).toBe(false)
	})
	it('of another club are nobody’s here', async () => {
		const id = await made()
		const other = await makeClub('Other', 1)
		expect(await readTests(other.coach, club.squadId, '2026-03-12')).toBeNull()
		expect(await addBattery(other.coach, club.squadId, TYPED, at('2026-03-01'))).toBeNull()
		expect(await planBattery(other.coach, club.squadId, id, '2026-03-12', at('2026-03-01'))).toBeNull()
		expect(await planBattery(other.coach, other.squadId, id, '2026-03-12', at('2026-03-01'))).toBeNull()
		expect(await setRetired(other.coach, other.squadId, id, true)).toBe(false)
	})
	it.each([
		[{ name: ' ' }, 'name'],
		[{ every: 'day' }, 'every'],
		[{ items: [] }, 'items'],
		[{ items: [row({ drillId: '' })] }, 'items'],
		[{ items: [row({ drillId: 'no-such' })] }, 'items'],
		[{ items: [row({ method: 'tape' })] }, 'items'],
		[{ items: [row({ tries: '7' })] }, 'items'],
		[{ items: [row({ tries: '1.5' })] }, 'items'],
		[{ items: [row({ amount: 'far' })] }, 'items'],
		[{ items: [row({ amount: '-20' })] }, 'items'],
		[{ items: [row({ use: 'worst' })] }, 'items'],
		[{ items: Array.from({ length: 7 }, () => row()) }, 'items'],
	])('are not made of %j', async (change, field) => {
		expect(await addBattery(club.coach, club.squadId, { ...TYPED, ...change }, at('2026-03-01'))).toHaveProperty([
			'problems',
			field,
		])
		expect((await readTests(club.coach, club.squadId, '2026-03-12'))!.batteries).toEqual([])
	})
})

describe('when a test is due', () => {
	// Monday 9 March to Sunday 5 April.
	const blocks = [{ start: '2026-03-09', weeks: 4 }]
	it.each([
		['week', null, '2026-03-12', true],
		['week', '2026-03-09', '2026-03-15', false],
		['week', '2026-03-08', '2026-03-09', true],
		['block', null, '2026-03-29', false],
		['block', null, '2026-03-30', true],
		['block', '2026-03-29', '2026-04-05', true],
		['block', '2026-03-30', '2026-04-05', false],
		['block', null, '2026-04-06', false],
		['asked', null, '2026-04-01', false],
	] as const)('%s, last %s, on %s: %s', (every, last, today, due) =>
		expect(isDue(every, last, today, blocks)).toBe(due),
	)
	it('the week says what nobody did, or who missed what was held', async () => {
		const id = await made({ ...TYPED, every: 'week' })
		const of = (today: string, monday = '2026-03-09') => testsOfWeek(club.scope, club.squadId, monday, today)
		expect(await of('2026-03-11')).toEqual({ due: ['20 m'], held: [] })
		const sessionId = await held(id, '2026-03-12', [[3.2], null, null])
		expect(await of('2026-03-13')).toEqual({ due: [], held: [{ name: '20 m', sessionIds: new Set([sessionId]) }] })
		// Of a week gone by nobody says that something is due.
		expect(await of('2026-03-17', '2026-03-02')).toEqual({ due: [], held: [] })
	})
})
