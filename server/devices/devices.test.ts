import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { listDevices, readingsSince, unpairDevice } from '../../db/queries/devices'
import { checkPairRequest, checkReadingsRequest } from './check-requests'
import { makePairingCode, pairDevice } from './pair'
import { deviceOfToken, keptReading, takeReadings } from './take-readings'

beforeAll(freshDatabase)

let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club')
})

const beam = (afterS: number, change: Record<string, unknown> = {}) => ({
	id: randomUUID(),
	kind: 'beam',
	time: new Date(NOW.getTime() - 60_000 + afterS * 1000).toISOString(),
	value: { distanceM: 10, lane: 1 },
	...change,
})
async function gates() {
	const { code } = await makePairingCode(club.scope, NOW)
	const paired = await pairDevice(code, 'gates', 'Gates', '203.0.113.9', NOW)
	if (!('token' in paired)) throw new Error(paired.problem)
	return { ...paired, device: (await deviceOfToken(`Bearer ${paired.token}`))! }
}
const take = async (readings: unknown[], sentAt = NOW.toISOString()) => {
	const answers = await takeReadings((await gates()).device, sentAt, readings, NOW)
	return Array.isArray(answers)
		? answers.map((answer) => (answer.outcome === 'refused' ? `${answer.field}: ${answer.reason}` : answer.outcome))
		: `${answers.field}: ${answers.reason}`
}

describe('pairing', () => {
	it('takes a code however it is typed, for an hour, and the newest only', async () => {
		const { code } = await makePairingCode(club.scope, NOW)
		expect(code).toMatch(/^[A-HJ-NP-Z2-9]{4}-[A-HJ-NP-Z2-9]{4}$/)
		expect(await pairDevice(code.toLowerCase().replace('-', ' '), 'mat', 'Mat', '203.0.113.9', NOW)).toHaveProperty(
			'token',
		)
		expect(await pairDevice(code, 'mat', 'Mat', '203.0.113.9', new Date(NOW.getTime() + 3_601_000))).toMatchObject({
			status: 403,
		})
		await makePairingCode(club.scope, NOW)
		expect(await pairDevice(code, 'mat', 'Mat', '203.0.113.9', NOW)).toMatchObject({ status: 403 })
	})
	it('knows a device by its token until it is unpaired', async () => {
		const { device, token } = await gates()
		expect(device).toMatchObject({ clubId: club.coach.clubId, kind: 'gates', name: 'Gates' })
		expect(await deviceOfToken('Bearer of-something-else-altogether')).toBeNull()
		expect(await deviceOfToken(null)).toBeNull()
		await unpairDevice(club.scope, device.id, NOW)
		expect(await deviceOfToken(`Bearer ${token}`)).toBeNull()
		expect((await listDevices(club.scope)).map((row) => row.id)).not.toContain(device.id)
	})
	it('refuses requests of another shape, with the field', () => {
		expect(checkPairRequest({ code: 'ABCD-EFGH', kind: 'camera', name: 'x' })).toEqual({
			problem: 'kind: must be equal to one of the allowed values',
		})
		expect(checkPairRequest({ code: 'ABCD-EFGH', kind: 'mat', name: 'x', extra: 1 })).toHaveProperty('problem')
		expect(checkReadingsRequest({ sentAt: 'yesterday', readings: [1] })).toEqual({
			problem: 'sentAt: must match format "date-time"',
		})
		expect(checkReadingsRequest({ sentAt: NOW.toISOString(), readings: [] })).toHaveProperty('problem')
	})
})

describe('readings', () => {
	it('are kept once however often they come', async () => {
		const reading = beam(0)
		expect(await take([reading, reading])).toEqual(['accepted', 'replayed'])
		expect(await take([reading])).toEqual(['replayed'])
		expect(await take([{ ...reading, value: { distanceM: 20, lane: 1 } }])).toEqual([
			'id: id_reused: another reading already has this id',
		])
	})
	it('get right times from a clock that is hours off; what lies between them stays as it was', async () => {
		const off = 7 * 3_600_000
		const shifted = [beam(0), beam(1.84)].map((reading) => ({
			...reading,
			time: new Date(Date.parse(reading.time) + off).toISOString(),
		}))
		expect(await take(shifted, new Date(NOW.getTime() + off).toISOString())).toEqual(['accepted', 'accepted'])
		const kept = (await readingsSince(club.scope, NOW)).map(keptReading)
		expect(kept.map((reading) => reading.at)).toEqual([
			new Date(NOW.getTime() - 60_000).toISOString(),
			new Date(NOW.getTime() - 60_000 + 1840).toISOString(),
		])
	})
	it('are refused one by one, with a reason', async () => {
		expect(
			await take([
				beam(0),
				beam(0, { kind: 'mat', value: { feet: 'down' } }),
				beam(0, { value: { distanceM: -1, lane: 1 } }),
				beam(0, { time: '2020-01-01T00:00:00Z' }),
				beam(0, { time: '2031-01-01T00:00:00Z' }),
				null,
			]),
		).toEqual([
			'accepted',
			'kind: "beam" is expected of this device',
			'value.distanceM: must be >= 0',
			'time: neither of the last two weeks nor now',
			'time: neither of the last two weeks nor now',
			'kind: "beam" is expected of this device',
		])
		expect(await take([beam(0)], '1970-01-01T00:00:00Z')).toContain('sentAt: ')
	})
	it('stay in their club', async () => {
		await take([beam(0)])
		expect(await readingsSince((await makeClub('Other')).scope, new Date(0))).toEqual([])
	})
})
