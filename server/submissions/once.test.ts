import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { readSubmission } from '../../db/queries/submissions'
import { onceOnly } from './once'

beforeAll(freshDatabase)
let club: TestClub
let done: number
beforeEach(async () => {
	club = await makeClub('Club')
	done = 0
})
const work = (answer: () => Response) => async () => {
	done += 1
	await new Promise((resolve) => setTimeout(resolve, 150))
	return answer()
}
const made = () => new Response('{"made":1}', { status: 200, headers: { 'content-type': 'application/json' } })
const send = (sent: string, answer = made, now = NOW) => onceOnly(club.coach, sent, work(answer), now)
const said = async (answer: Response) => [answer.status, await answer.text()]

describe('a form sent twice', () => {
	it('is done once, and both are answered alike: one after the other, and at the same moment', async () => {
		const first = await send('/squads\nname=A&submission=1')
		const second = await send('/squads\nname=A&submission=1')
		expect([await said(first), await said(second)]).toEqual([
			[200, '{"made":1}'],
			[200, '{"made":1}'],
		])
		expect(second.headers.get('content-type')).toBe('application/json')
		expect(done).toBe(1)
		const both = await Promise.all(Array.from({ length: 5 }, () => send('/squads\nname=B&submission=2')))
		for (const one of both) expect(await said(one)).toEqual([200, '{"made":1}'])
		expect(done).toBe(2)
	})
	it('leads to the same place', async () => {
		const away = () =>
			new Response(null, { status: 302, headers: { location: '/sessions/7', 'set-cookie': 'secret=1' } })
		const [first, second] = [await send('/new\nsubmission=1', away), await send('/new\nsubmission=1', away)]
		expect([first.headers.get('location'), second.headers.get('location')]).toEqual(['/sessions/7', '/sessions/7'])
		// What signs somebody in is never kept.
		expect(second.headers.get('set-cookie')).toBeNull()
		expect(done).toBe(1)
	})
	it('keeps the answer so that the database alone does not tell it', async () => {
		const invite = () => new Response('{"link":"/join/a-secret-token"}', { status: 200 })
		await send('/club\nsubmission=1', invite)
		const [rows] = (await club.scope.db.execute('select hash, body, headers from submission')) as unknown as [
			{ body: Buffer | null }[],
		]
		const kept = rows.filter((row) => row.body !== null)
		expect(kept.length).toBeGreaterThan(0)
		for (const { body } of kept) expect(body!.toString('latin1')).not.toContain('secret')
		expect(await said(await send('/club\nsubmission=1', invite))).toEqual([200, '{"link":"/join/a-secret-token"}'])
	})
	it('is another form with other words, another id, another place, or from somebody else', async () => {
		await send('/a\nname=A&submission=1')
		await send('/a\nname=B&submission=1')
		await send('/a\nname=A&submission=2')
		await send('/b\nname=A&submission=1')
		await onceOnly({ ...club.coach, personId: randomUUID() }, '/a\nname=A&submission=1', work(made), NOW)
		expect(done).toBe(5)
	})
	it('may be tried again when it was refused, or broke', async () => {
		const refused = () => new Response('{"problems":{}}', { status: 400 })
		await send('/a\nsubmission=1', refused)
		await send('/a\nsubmission=1', refused)
		expect(done).toBe(2)
		const broken = () => {
			throw new Error('away')
		}
		await expect(send('/a\nsubmission=2', broken)).rejects.toThrow('away')
		expect(await said(await send('/a\nsubmission=2'))).toEqual([200, '{"made":1}'])
	})
	it('is forgotten after two days', async () => {
		await send('/a\nsubmission=1')
		await send('/a\nsubmission=2', made, new Date(NOW.getTime() + 2 * 86_400_000 + 1000))
		await send('/a\nsubmission=1')
		expect(done).toBe(3)
		expect(await readSubmission(club.scope, 'nothing')).toBeNull()
	})
})
