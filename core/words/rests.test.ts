import { describe, expect, it } from 'vitest'
import { readClock, writeClock, writeRest } from './rests'

describe('rests are written one way', () => {
	it('minutes and seconds', () => {
		expect([0, 8, 59, 60, 80, 600, 1800].map(writeClock)).toEqual([
			'0:00',
			'0:08',
			'0:59',
			'1:00',
			'1:20',
			'10:00',
			'30:00',
		])
	})
	it('reads what it writes, and plain seconds', () => {
		expect([readClock('1:20'), readClock('80'), readClock(' 10:00 '), readClock('0')]).toEqual([80, 80, 600, 0])
		for (const text of ['', 'a', '1:60', '1:2', '1.5', '-3', '1:20:00', ':30']) expect(readClock(text), text).toBeNull()
	})
	// The rests of the domain page: 2 sets of 3×150 m, 2 min and 10 min; depth jumps 5×2, 5–10 s and 2–3 min.
	it.each([
		[{ repsS: 120, setsS: 600 }, { sets: 2, reps: 3 }, 'rest 2:00, 10:00 between sets'],
		[{ repsS: 8, setsS: 150 }, { sets: 5, reps: 2 }, 'rest 0:08, 2:30 between sets'],
		[{ repsS: 120, setsS: 240 }, { sets: 1, reps: 6 }, 'rest 2:00'],
		[{ repsS: 0, setsS: 60 }, { sets: 3, reps: 15 }, 'straight on, 1:00 between sets'],
		[{ repsS: 30, setsS: 60 }, { sets: 3, reps: 1 }, 'rest 1:00'],
		[{ repsS: 45, setsS: 45 }, { sets: 2, reps: 4 }, 'rest 0:45'],
		[{ repsS: 120, setsS: 600 }, { sets: 1, reps: 1 }, ''],
		[{ repsS: 0, setsS: 0 }, { sets: 2, reps: 4 }, ''],
	])('%j at %j: %s', (rest, dose, words) => expect(writeRest(rest, dose)).toBe(words))
})
