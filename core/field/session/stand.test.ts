import { describe, expect, it } from 'vitest'
import { ATHLETES, ENTRIES, Phone, fourBySheet, lineOf } from '../../../tests/support/afternoon'
import type { FieldLine } from '../pack'
import { opened } from './stand'

// What a phone shows where it stands: who is there, who starts together, and what a tap there is about.

const [ILKA, AMARU, TOVE, NOOR] = ATHLETES.map(({ id }) => id) as [string, string, string, string]
const changed = (change: (line: FieldLine) => Partial<FieldLine>) => {
	const sheet = fourBySheet()
	return new Phone({ ...sheet, lines: sheet.lines.map((line) => ({ ...line, ...change(line) })) })
}
const there = (one: Phone) => one.stand.everybody.map(({ line }) => line.athleteId)
const together = (one: Phone) => one.stand.onLine.map(({ line }) => line.athleteId)

describe('a number is taken', () => {
	it('where the line takes one, and the drill on it is the line’s', () => {
		expect(new Phone(fourBySheet()).stand.shown?.measured).toBe(true)
		expect(new Phone(fourBySheet()).at(3).stand.shown?.measured).toBe(false)
	})
	it('not of a drill that was swapped in', () => {
		const one = new Phone(fourBySheet())
		one.tap({ tap: 'swap', drill: { id: 'pogo' as never, version: 1, name: 'Pogo' }, who: 'one' })
		expect(one.stand.shown?.measured).toBe(false)
	})
})

describe('who is there', () => {
	it('are those with a line that is not closed', () => {
		const one = changed(({ athleteId }) => (athleteId === TOVE ? { blocked: 'the knee is to be spared' } : {}))
		expect(there(one)).toEqual([ILKA, AMARU, NOOR])
	})
	it('nobody where every line is closed: nothing is shown, and nobody starts', () => {
		const one = changed(() => ({ blocked: 'rain' }))
		expect([there(one), one.stand.shown, together(one)]).toEqual([[], null, []])
	})
})

describe('who starts together', () => {
	const two = () => {
		const one = new Phone(fourBySheet())
		one.lanes = 2
		return one
	}
	it('are pairs down the queue, whoever of them is shown', () => {
		const one = two()
		expect(together(one)).toEqual([ILKA, AMARU])
		for (const athleteId of [TOVE, NOOR]) {
			one.tap({ tap: 'pick', athleteId })
			expect(together(one)).toEqual([TOVE, NOOR])
		}
	})
	it('leave out who is done, but not who was picked though done', () => {
		const one = two()
		one.tap({ tap: 'pick', athleteId: AMARU })
		one.tap({ tap: 'end', reason: 'coach', who: 'one' })
		one.tap({ tap: 'pick', athleteId: ILKA })
		expect(together(one)).toEqual([ILKA, TOVE])
		one.tap({ tap: 'pick', athleteId: AMARU })
		expect(together(one)).toEqual([ILKA, AMARU])
	})
})

it('a session opens at the first drill that is more than preparation, at the first of all where none is', () => {
	const { entries } = fourBySheet()
	const lines = (families: FieldLine['family'][]) => families.map((family, entry) => lineOf(entry, 0, { family }))
	expect(opened({ entries, lines: lines(['prepare', 'prepare', 'plyometric', 'sprint']) }).entryId).toBe(ENTRIES[2]!.id)
	expect(opened({ entries, lines: lines(['prepare', 'prepare', 'prepare', 'prepare']) }).entryId).toBe(ENTRIES[0]!.id)
	expect(opened({ entries: [], lines: [] })).toMatchObject({ entryId: '', athleteId: null, group: 0, later: [] })
})
