import { expect, it } from 'vitest'
import type { ClubScope } from '../db/connect'
import { BySession } from './by-session'

const club = (clubId: string) => ({ clubId }) as ClubScope

it('has what was kept of a session as long as its log has not changed, and of that club alone', () => {
	const kept = new BySession<string>(10, (value) => value.length)
	kept.put(club('a'), 's', 3, 'abc')
	expect(kept.get(club('a'), 's', 3)).toBe('abc')
	expect(kept.get(club('a'), 's', 4)).toBeUndefined()
	expect(kept.get(club('b'), 's', 3)).toBeUndefined()
	kept.put(club('a'), 's', 4, 'd')
	expect(kept.get(club('a'), 's', 4)).toBe('d')
	expect(kept.get(club('a'), 's', 3)).toBeUndefined()
})

it('lets go of what was not asked for the longest once it holds more than it may', () => {
	const kept = new BySession<string>(10, (value) => value.length)
	const has = () => ['one', 'two', 'three'].filter((id) => kept.get(club('a'), id, 1) !== undefined)
	kept.put(club('a'), 'one', 1, '12345')
	kept.put(club('a'), 'two', 1, '12345')
	expect(has()).toEqual(['one', 'two'])
	// Asked for last, the first stays.
	kept.get(club('a'), 'one', 1)
	kept.put(club('a'), 'three', 1, '1')
	expect(has()).toEqual(['one', 'three'])
	// Six now: what takes the place of another counts once.
	kept.put(club('a'), 'one', 1, '123456789')
	expect(has()).toEqual(['one', 'three'])
	kept.put(club('a'), 'two', 1, '1')
	expect(has()).toEqual(['two', 'three'])
})
