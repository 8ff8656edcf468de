import { expect, it } from 'vitest'
import { reviewHead, sayReviewHead } from './review-head'

const row = (athleteId: string, more: Partial<{ needsYou: boolean; absent: boolean }> = {}) => ({
	athleteId,
	needsYou: false,
	absent: false,
	...more,
})
const of = (...rows: ReturnType<typeof row>[]) => reviewHead(rows)

it('counts people once, where they weigh most', () => {
	expect(
		of(
			row('a'),
			row('a', { needsYou: true }),
			row('b'),
			row('b'),
			row('c', { absent: true }),
			row('c', { absent: true }),
		),
	).toEqual({
		needYou: ['a'],
		readWell: ['b'],
		absent: ['c'],
	})
	// Who did not come and needs a look all the same, as after weeks away, is one who needs a look.
	expect(of(row('a', { absent: true }), row('a', { absent: true, needsYou: true }))).toEqual({
		needYou: ['a'],
		readWell: [],
		absent: [],
	})
	expect(of()).toEqual({ needYou: [], readWell: [], absent: [] })
})
it('is said in one line, without what nobody is', () => {
	const say = (needYou: number, readWell: number, absent: number) => {
		const ids = (count: number) => Array.from({ length: count }, (_, index) => String(index))
		return sayReviewHead({ needYou: ids(needYou), readWell: ids(readWell), absent: ids(absent) })
	}
	expect(say(3, 16, 1)).toBe('3 need you, 16 read well, 1 did not come')
	expect(say(0, 1, 19)).toBe('None needs you, 1 reads well, 19 did not come')
	expect(say(1, 0, 0)).toBe('One needs you')
	expect(say(0, 0, 20)).toBe('None needs you, 20 did not come')
})
