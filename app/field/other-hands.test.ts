import { describe, expect, it } from 'vitest'
import type { LogEvent } from '#core/vocabulary/events'
import type { Pack } from '#core/field/pack'
import { memoryStore } from './device-store'
import { giveUpInOtherHands } from './other-hands'

const COACH = { id: 'p1', name: 'Sol', role: 'coach', clubName: 'Quarry' }
const holding = async (person?: typeof COACH) => {
	const store = memoryStore()
	await store.putPacks([{ sheet: { session: { id: 's' } }, events: [] } as unknown as Pack], 0)
	await store.add('p1', (deviceSeq) => [{ id: 'e', sessionId: 's', deviceSeq } as unknown as LogEvent])
	if (person) await store.write('person', person)
	return store
}

describe('what a device holds of squads', () => {
	it.each<[string, Partial<typeof COACH>]>([
		['somebody else', { id: 'p2' }],
		['the same coach as an assistant', { role: 'assistant' }],
	])('goes in the hands of %s, but for what was not sent', async (_, change) => {
		const store = await holding(COACH)
		expect(await giveUpInOtherHands(store, { ...COACH, ...change })).toBe(true)
		expect(await store.packs()).toEqual([])
		expect(await store.read('person')).toBeUndefined()
		expect(await store.waitingCount()).toBe(1)
	})
	it.each<[string, typeof COACH | undefined]>([
		['for whom it was fetched, whatever they and their club are called by now', COACH],
		['on a device that does not know yet whose it is', undefined],
	])('stays %s', async (_, person) => {
		const store = await holding(person)
		const renamed = { ...COACH, name: 'Sol Ray', clubName: 'Harbour' }
		expect(await giveUpInOtherHands(store, renamed)).toBe(false)
		expect(await store.packs()).toHaveLength(1)
	})
})
