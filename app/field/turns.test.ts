import { beforeEach, describe, expect, it } from 'vitest'
import { type About, Turns } from './turns'

let now = 0
let drawings = 0
let done: string[] = []
let turns: Turns
const plain = (what: string, about: About = 'named', drop?: () => void) =>
	turns.press(what, () => void done.push(what), about, drop)
/** A press that is kept: it writes until `over` is called. */
const keep = (what: string, byDevice = false) =>
	turns.press(
		what,
		() => {
			done.push(what)
			turns.keeping(byDevice)
		},
		'named',
	)
/** What the screen does once it was asked to draw. */
const draw = () => {
	for (let asked = drawings; asked > 0; asked = drawings) {
		drawings = 0
		turns.drawn()
	}
}
beforeEach(() => {
	now = 1000
	drawings = 0
	done = []
	turns = new Turns(
		() => void drawings++,
		() => now,
	)
})

describe('presses', () => {
	it('are done at once while nothing is being kept', () => {
		plain('1')
		plain('2')
		expect(done).toEqual(['1', '2'])
	})
	it('wait for what is being kept, and for the screen that follows it, in their order', () => {
		keep('save')
		for (const digit of ['1', '7', '7', '0']) plain(digit, 'number')
		expect(done).toEqual(['save'])
		expect(turns.ahead).toBe(true)
		// Drawn for another reason: it is not kept yet.
		turns.drawn()
		expect(done).toEqual(['save'])
		turns.over(true)
		expect(done).toEqual(['save'])
		draw()
		expect(done).toEqual(['save', '1', '7', '7', '0'])
		expect(turns.ahead).toBe(false)
	})
	it('are done one a drawing: each is for the screen the one before has left', () => {
		keep('save')
		plain('1')
		plain('2')
		turns.over(true)
		turns.drawn()
		expect(done).toEqual(['save', '1'])
		turns.drawn()
		expect(done).toEqual(['save', '1', '2'])
	})
	it('between the keeping and the drawing wait as well', () => {
		keep('save')
		turns.over(true)
		plain('1')
		expect(done).toEqual(['save'])
		draw()
		expect(done).toEqual(['save', '1'])
	})
	it('that are kept in their turn are waited for again', () => {
		keep('save')
		plain('1')
		keep('missed')
		plain('2')
		turns.over(true)
		draw()
		expect(done).toEqual(['save', '1', 'missed'])
		turns.over(true)
		draw()
		expect(done).toEqual(['save', '1', 'missed', '2'])
	})
	it('after one that could not be kept are dropped, and told so', () => {
		let dropped = 0
		keep('save')
		plain('1', 'number', () => dropped++)
		turns.over(false)
		draw()
		expect([done, dropped]).toEqual([['save'], 1])
		plain('2')
		expect(done).toEqual(['save', '2'])
	})
	it('that a press sets off are part of it', () => {
		turns.press(
			'key',
			() => {
				turns.press('tap', () => void done.push('tap'), 'line')
				turns.keeping()
			},
			'line',
		)
		expect(done).toEqual(['tap'])
		// The key pressed again while that is kept is the same press.
		expect(plain('key')).toBe(false)
	})
})

describe('a control pressed twice in one go', () => {
	it('is pressed once, while it is being kept and until 0.15 s after the screen has moved', () => {
		keep('good')
		expect(keep('good')).toBe(false)
		turns.over(true)
		expect(keep('good')).toBe(false)
		now = 1050
		draw()
		now = 1199
		expect(keep('good')).toBe(false)
		expect(done).toEqual(['good'])
		now = 1200
		expect(keep('good')).toBe(true)
		expect(done).toEqual(['good', 'good'])
	})
	it('is once in what waits, too; a digit is as often as it was pressed', () => {
		keep('reading')
		expect([plain('same'), plain('same')]).toEqual([true, false])
		expect([plain('1', 'number'), plain('1', 'number')]).toEqual([true, true])
		turns.over(true)
		draw()
		expect(done).toEqual(['reading', 'same', '1', '1'])
	})
	it('is another press once something else was pressed between', () => {
		keep('save')
		turns.over(true)
		draw()
		plain('1')
		expect(keep('save')).toBe(true)
		expect(done).toEqual(['save', '1', 'save'])
	})
	it('that writes nothing is pressed twice', () => {
		expect([plain('next'), plain('next')]).toEqual([true, true])
	})
	it('may be pressed again at once after it could not be kept', () => {
		keep('save')
		turns.over(false)
		draw()
		expect(keep('save')).toBe(true)
	})
})

describe('a line that a device moves', () => {
	it('hears nothing about what it showed until it was seen: a number waits, and what says whom it is about', () => {
		keep('reading', true)
		expect(plain('poor', 'line')).toBe(false)
		expect([plain('3', 'number'), plain('pain of Ilka')]).toEqual([true, true])
		turns.over(true)
		expect(plain('poor', 'line')).toBe(false)
		now = 2000
		draw()
		now = 2299
		expect(plain('poor', 'line')).toBe(false)
		expect(plain('1', 'number')).toBe(true)
		now = 2300
		expect(plain('poor', 'line')).toBe(true)
		expect(done).toEqual(['reading', '3', 'pain of Ilka', '1', 'poor'])
	})
	it('hears it at once after a press of the coach: the screen moved by their own thumb', () => {
		keep('reading', true)
		turns.over(true)
		draw()
		now += 300
		keep('save')
		expect(plain('poor', 'line')).toBe(true)
		turns.over(true)
		draw()
		expect(done).toEqual(['reading', 'save', 'poor'])
	})
	it('is known while it moves and until it was seen', () => {
		expect([turns.unseen, turns.idle]).toEqual([false, true])
		keep('reading', true)
		expect([turns.unseen, turns.idle]).toEqual([true, false])
		turns.over(true)
		expect([turns.unseen, turns.idle]).toEqual([true, false])
		draw()
		expect([turns.unseen, turns.idle]).toEqual([true, true])
		now += 300
		expect(turns.unseen).toBe(false)
		keep('save')
		expect([turns.unseen, turns.idle]).toEqual([false, false])
	})
	it('that did not move, because it could not be kept, hears everything', () => {
		keep('reading', true)
		turns.over(false)
		draw()
		expect(plain('poor', 'line')).toBe(true)
	})
})
