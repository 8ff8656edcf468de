import { expect, it } from 'vitest'
import { ATHLETES, ENTRIES, Phone, fourBySheet } from '../../../tests/support/afternoon'
import { restLeft } from '../line-progress'

const [before, , after] = ENTRIES.map(({ id }) => id) as [string, string, string]
/** The third drill waits five minutes for the first. */
function phone() {
	const sheet = fourBySheet()
	return new Phone({
		...sheet,
		entries: sheet.entries.map((entry) =>
			entry.id === after ? { ...entry, waits: { minutes: 5, after: [before] } } : entry,
		),
	})
}
const logged = (one: Phone) =>
	one.tap({
		tap: 'mark',
		measured: { kind: 'sprint', value: { splits: [{ distanceM: 20, timeS: 3.2 }], method: 'gate' } },
		label: '',
	})
const standing = (one: Phone, athlete: number) =>
	one.stand.everybody.find(({ line }) => line.athleteId === ATHLETES[athlete]!.id)!

it('the clock of what waits runs from the last rep of what it waits for, athlete by athlete', () => {
	const one = phone()
	one.tap({ tap: 'pick', athleteId: ATHLETES[0]!.id })
	logged(one)
	const at = Date.parse(one.current.at(-1)!.deviceTime)
	one.tap({ tap: 'go-to', entryId: after })
	const first = standing(one, 0)
	expect([first.lastAt, first.restS]).toEqual([at, 300])
	expect([restLeft(first, at + 60_000), restLeft(first, at + 299_000), restLeft(first, at + 300_000)]).toEqual([
		240, 1, 0,
	])
	// Who has not begun has no clock.
	expect([standing(one, 1).lastAt, standing(one, 1).restS]).toEqual([null, 0])
})
it('from its own first rep on its own rests count', () => {
	const one = phone()
	one.tap({ tap: 'pick', athleteId: ATHLETES[0]!.id })
	logged(one)
	one.tap({ tap: 'go-to', entryId: after })
	one.tap({ tap: 'pick', athleteId: ATHLETES[0]!.id })
	one.tap({ tap: 'mark', measured: { kind: 'distance', value: { distanceM: 2.3, method: 'tape' } }, label: '' })
	expect(standing(one, 0).restS).toBe(120)
})
it('what waits for nothing has no clock before its first rep', () => {
	const one = new Phone(fourBySheet())
	one.tap({ tap: 'pick', athleteId: ATHLETES[0]!.id })
	logged(one)
	one.tap({ tap: 'go-to', entryId: after })
	expect(standing(one, 0).lastAt).toBeNull()
})
it('the last of several reps is what the clock runs from', () => {
	const one = phone()
	for (let rep = 0; rep < 2; rep++) {
		one.tap({ tap: 'pick', athleteId: ATHLETES[0]!.id })
		logged(one)
	}
	// Somebody else's, later still, is none of theirs.
	const at = Date.parse(one.current.at(-1)!.deviceTime)
	one.tap({ tap: 'pick', athleteId: ATHLETES[1]!.id })
	logged(one)
	one.tap({ tap: 'go-to', entryId: after })
	expect(standing(one, 0).lastAt).toBe(at)
})
