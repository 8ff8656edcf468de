import { randomUUID } from 'node:crypto'
import { beforeAll, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { readMeasurements } from './read-measurements'
import { saveMeasurement, takeBackMeasurement } from './save-measurement'

let club: TestClub
let other: TestClub
beforeAll(async () => {
	await freshDatabase()
	club = await makeClub('One')
	other = await makeClub('Two')
})

const jump = (change: Record<string, unknown> = {}) => ({
	id: randomUUID(),
	athleteId: club.athletes[0]!,
	takenOn: '2026-03-12',
	calculation: 'rebound',
	method: 'film',
	input: { contact_time_s: 0.2, flight_time_s: 0.5, fps: 240 },
	...change,
})

describe('measurements of the bench', () => {
	it('are kept once, however often they are sent, and read in one line', async () => {
		const one = jump({ athleteId: club.athletes[1]! })
		expect(await saveMeasurement(club.coach, one, NOW)).toEqual({ saved: 'new', athleteName: 'Athlete 2' })
		expect(await saveMeasurement(club.coach, one, NOW)).toMatchObject({ saved: 'again' })
		expect(await saveMeasurement(club.coach, { ...one, takenOn: '2026-03-11' }, NOW)).toMatchObject({ field: 'id' })
		expect(await readMeasurements(club.scope, club.athletes[1]!)).toMatchObject([
			{ takenOn: '2026-03-12', title: 'Contact and rebound', method: 'film', headline: 'RSI 1.53 m/s, 31 cm' },
		])
	})
	it.each<[string, Record<string, unknown>, string]>([
		['a value that is no measurement', { input: { contact_time_s: 0, flight_time_s: 0.5 } }, 'input.contact_time_s'],
		['an unknown field of the input', { input: { contact_time_s: 0.2, flight_time_s: 0.5, note: 'x' } }, 'input.note'],
		['an unknown field', { note: 'x' }, 'note'],
		[
			'a calculation about nobody',
			{ calculation: 'weekly-load', input: { daily_load: [1, 2, 3, 4, 5, 6, 7] } },
			'calculation',
		],
		['a method that cannot take it', { method: 'tape' }, 'method'],
		['a day to come', { takenOn: '2026-03-13' }, 'takenOn'],
		['a day that is none', { takenOn: '2026-02-30' }, 'takenOn'],
		['an athlete of nobody', { athleteId: randomUUID() }, 'athleteId'],
	])('are refused with %s', async (_, change, field) => {
		expect(await saveMeasurement(club.coach, jump(change), NOW)).toMatchObject({ field })
		expect(await readMeasurements(club.scope, club.athletes[0]!)).toEqual([])
	})
	it('stay within the club and the role', async () => {
		expect(await saveMeasurement(other.coach, jump(), NOW)).toMatchObject({ field: 'athleteId' })
		expect(await saveMeasurement(club.as('athlete', club.athletes[0]!), jump(), NOW)).toMatchObject({
			field: 'takenOn',
		})
		expect(await saveMeasurement(club.as('assistant'), jump({ takenOn: '2026-03-11' }), NOW)).toMatchObject({
			reason: 'Assistants log today only.',
		})
		expect(await readMeasurements(club.scope, club.athletes[0]!)).toEqual([])
	})
	it('are taken back by a new row, twice as well as once', async () => {
		const one = jump({ athleteId: club.athletes[2]! })
		await saveMeasurement(club.coach, one, NOW)
		expect(await takeBackMeasurement(other.coach, one.id, randomUUID(), NOW)).toBeNull()
		const somebody = { ...club.as('assistant'), personId: randomUUID() }
		expect(await takeBackMeasurement(somebody, one.id, randomUUID(), NOW)).toBe('not-allowed')
		const newId = randomUUID()
		expect(await takeBackMeasurement(club.coach, one.id, newId, NOW)).toBe('done')
		expect(await takeBackMeasurement(club.coach, one.id, newId, NOW)).toBe('done')
		expect(await readMeasurements(club.scope, club.athletes[2]!)).toEqual([])
	})
})
