import { describe, expect, it, vi } from 'vitest'
import type { EventAnswer, LogEvent } from '#core/events/schema'
import type { FieldLine } from './field-sheet'
import { memoryOutbox } from './outbox'
import { nextInQueue, progressOf, restLeft, suggestionFor } from './queue'
import { Sender } from './send-waiting'
import { slotsOf, strangeness, valueOf } from './slots'

const line = (athleteId: string, change: Partial<FieldLine> = {}): FieldLine => ({
	id: `line-${athleteId}`, entryId: 'entry', athleteId, words: 'Three-point start 20 m', drillName: 'Three-point start', logs: 'sprint', family: 'sprint', dose: { sets: 1, reps: 6 }, parameters: { distanceM: 20 },
	restS: 120, target: '3.15 s or better', bests: {}, cautions: [], cues: [], lookFor: [], blocked: null, dropOffPercent: 3, ...change,
})
let seq = 0
const rep = (athleteId: string, repNo: number, timeS: number, change: Partial<LogEvent> = {}): LogEvent => ({
	id: `e${seq}`, sessionId: 's', athleteId, deviceId: 'd', deviceSeq: seq++, deviceTime: new Date(Date.UTC(2026, 2, 12, 18, repNo)).toISOString(), entryId: 'entry', lineId: `line-${athleteId}`, setNo: 1, repNo,
	type: 'mark', kind: 'sprint', value: { splits: [{ distanceM: 20, timeS }], method: 'gate' }, ...change,
}) as LogEvent
const after = (athleteId: string, times: number[], change: Partial<FieldLine> = {}) => progressOf(line(athleteId, change), times.map((time, index) => rep(athleteId, index + 1, time)))

describe('the queue', () => {
	it('counts reps into sets', () => {
		const progress = after('a', [3.1, 3.1, 3.1, 3.1], { dose: { sets: 3, reps: 3 } })
		expect(progress).toMatchObject({ repsDone: 4, planned: 9, next: { setNo: 2, repNo: 2 }, finished: false })
	})
	it('moves on round and round past whoever has finished', () => {
		const queue = [after('a', [3]), after('b', [3, 3, 3, 3, 3, 3]), after('c', [])]
		expect(nextInQueue(queue, 'a')).toBe('c')
		expect(nextInQueue(queue, 'c')).toBe('a')
		expect(nextInQueue([after('b', [3, 3, 3, 3, 3, 3])], 'b')).toBeNull()
	})
	it('counts the rest from the last rep', () => {
		const progress = after('a', [3.1])
		const at = Date.UTC(2026, 2, 12, 18, 1)
		expect([restLeft(progress, at + 30_000), restLeft(progress, at + 119_500), restLeft(progress, at + 300_000)]).toEqual([90, 1, 0])
		expect(restLeft(after('a', []), at)).toBe(0)
	})
	it('does not count a missed rep as done, but it is taken', () => {
		const missed = rep('a', 1, 3, { kind: 'missed', value: {} } as Partial<LogEvent>)
		expect(progressOf(line('a'), [missed])).toMatchObject({ repsDone: 0, next: { repNo: 2 } })
	})
})

describe('what the screen says', () => {
	it('ends the set after two reps past the limit, with the numbers', () => {
		expect(suggestionFor(after('a', [3.06, 3.05, 3.18, 3.22]))).toEqual({ lead: 'End the set.', rest: 'The last two were 4.3 % and 5.6 % off 3.05 s; the limit is 3.0 %.', endTheSet: true })
	})
	it('warns after the first and encourages at the best', () => {
		expect(suggestionFor(after('a', [3.06, 3.05, 3.18]))).toMatchObject({ lead: 'Watch the next one.', endTheSet: false })
		expect(suggestionFor(after('a', [3.06, 3.05]))).toMatchObject({ lead: 'One more is fine.', rest: 'Best so far, 4 to go. Two past 3.14 s running: end the set.' })
	})
	it('names the target first, and keeps quiet when the timing is too coarse', () => {
		expect(suggestionFor(after('a', []))).toMatchObject({ lead: 'First one.', rest: 'Target: 3.15 s or better.' })
		const byHand = [3.1, 3.4, 3.5].map((time, index) => rep('a', index + 1, time, { value: { splits: [{ distanceM: 20, timeS: time }], method: 'stopwatch' } } as Partial<LogEvent>))
		expect(suggestionFor(progressOf(line('a'), byHand))).toMatchObject({ endTheSet: false, rest: 'Timing by stopwatch is too coarse to judge fatigue.' })
	})
})

describe('sending', () => {
	const newId = () => `00000000-0000-4000-8000-${String(seq++).padStart(12, '0')}`
	const reply = (events: LogEvent[], answer: (event: LogEvent) => EventAnswer = ({ id }) => ({ id, outcome: 'accepted' })) => new Response(JSON.stringify({ answers: events.map(answer) }))
	const sent = (body: string) => (JSON.parse(body) as { events: LogEvent[] }).events
	async function outboxWith(n: number) {
		const outbox = memoryOutbox(newId)
		for (let i = 0; i < n; i++) await outbox.add((deviceSeq) => [rep('a', i + 1, 3.1, { deviceSeq, id: newId() })])
		return outbox
	}
	const statuses = async (outbox: ReturnType<typeof memoryOutbox>) => (await outbox.ofSession('s')).map((kept) => kept.status)

	it('sends in order, in batches, and settles event by event', async () => {
		const outbox = await outboxWith(60)
		const batches: number[][] = []
		const sender = new Sender(outbox, () => {}, (body) => {
			batches.push(sent(body).map((event) => event.deviceSeq))
			return Promise.resolve(reply(sent(body), ({ id, deviceSeq }) => (deviceSeq === 3 ? { id, outcome: 'refused', field: 'lineId', reason: 'no such line' } : { id, outcome: 'accepted' })))
		})
		await sender.send()
		expect(batches.map((batch) => batch.length)).toEqual([50, 10])
		expect(batches.flat()).toEqual(Array.from({ length: 60 }, (_, i) => i))
		expect((await statuses(outbox)).filter((status) => status === 'refused')).toHaveLength(1)
		expect((await outbox.ofSession('s'))[3]).toMatchObject({ status: 'refused', reason: 'lineId: no such line' })
		expect(await outbox.waiting(9)).toEqual([])
	})

	it('keeps everything and tries again, slower each time, until the server answers', async () => {
		vi.useFakeTimers()
		const outbox = await outboxWith(2)
		const states: string[] = []
		let tries = 0
		const sender = new Sender(outbox, (state) => states.push(state), (body) => {
			tries += 1
			return tries < 4 ? Promise.reject(new Error('offline')) : Promise.resolve(reply(sent(body)))
		})
		await sender.send()
		expect(await statuses(outbox)).toEqual(['waiting', 'waiting'])
		await vi.advanceTimersByTimeAsync(1000)
		await vi.advanceTimersByTimeAsync(1999)
		expect(tries).toBe(2)
		await vi.advanceTimersByTimeAsync(10_000)
		expect(tries).toBe(4)
		expect(await statuses(outbox)).toEqual(['safe', 'safe'])
		expect(states.at(-1)).toBe('idle')
		sender.stop()
		vi.useRealTimers()
	})

	it('asks to sign in again and keeps the queue', async () => {
		const outbox = await outboxWith(1)
		const states: string[] = []
		const sender = new Sender(outbox, (state) => states.push(state), () => Promise.resolve(new Response('{}', { status: 401 })))
		await sender.send()
		sender.stop()
		expect(states.at(-1)).toBe('sign-in-again')
		expect(await statuses(outbox)).toEqual(['waiting'])
	})

	it('does not ask for ever when an answer settles nothing', async () => {
		const outbox = await outboxWith(1)
		let tries = 0
		const sender = new Sender(outbox, () => {}, () => {
			tries += 1
			return Promise.resolve(new Response('{"answers":[]}'))
		})
		await sender.send()
		sender.stop()
		expect(tries).toBe(1)
		expect(await statuses(outbox)).toEqual(['waiting'])
	})
})

describe('the numbers of a rep', () => {
	it('asks for 10 m and the whole distance of a longer sprint, contact and flight of a rebound', () => {
		expect(slotsOf(line('a')).map((slot) => slot.name)).toEqual(['10 m', '20 m'])
		expect(slotsOf(line('a', { parameters: { distanceM: 10 } })).map((slot) => slot.name)).toEqual(['10 m'])
		expect(slotsOf(line('a', { logs: 'contact' })).map((slot) => `${slot.name}, ${slot.unit}`)).toEqual(['contact, ms', 'flight, ms'])
		expect(slotsOf(line('a', { logs: 'done' }))).toEqual([])
	})
	it('keeps them in SI, and leaves out a split that was not taken', () => {
		const methods = { sprint: 'gate', contact: 'mat', height: 'mat', distance: 'tape' }
		const of = (logs: FieldLine['logs'], ...reads: (number | null)[]) => valueOf({ logs }, slotsOf(line('a', { logs })), reads, methods)
		expect(of('sprint', null, 3.12)).toEqual({ kind: 'sprint', value: { splits: [{ distanceM: 20, timeS: 3.12 }], method: 'gate' } })
		expect(of('sprint', 1.84, 3.12)).toMatchObject({ value: { splits: [{ distanceM: 10, timeS: 1.84 }, { distanceM: 20, timeS: 3.12 }] } })
		expect(of('contact', 146, 512)).toEqual({ kind: 'contact', value: { contactS: 0.146, flightS: 0.512, method: 'mat' } })
		expect(of('height', 34.5)).toEqual({ kind: 'height', value: { heightM: 0.345, method: 'mat' } })
		expect(of('distance', 11.8)).toEqual({ kind: 'distance', value: { distanceM: 11.8, method: 'tape' } })
	})
	it('asks about a number that would surprise, and not about a usual one', () => {
		const slots = slotsOf(line('a'))
		expect(strangeness({ logs: 'sprint' }, slots, [null, 2.8], 3)).toBe('2.8 s would be the best by 0.2 s.')
		expect(strangeness({ logs: 'sprint' }, slots, [null, 4], 3)).toBe('4 s is 1 s off the best of 3 s.')
		expect(strangeness({ logs: 'sprint' }, slots, [null, 3.02], 3)).toBeNull()
		expect(strangeness({ logs: 'sprint' }, slots, [null, 31], undefined)).toBe('31 s is far from what is usual.')
		expect(strangeness({ logs: 'contact' }, slotsOf(line('a', { logs: 'contact' })), [146, 5120], undefined)).toContain('far from what is usual')
	})
})
