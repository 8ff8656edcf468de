import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import type { LineProgress } from './line-progress'
import { restLabel, sayEvent, shortName } from './say-event'

const say = (kind: string, value: object, type = 'observation', more: object = {}) =>
	sayEvent({ type, kind, value, ...more } as unknown as LogEvent)

describe('an event in a breath', () => {
	it.each([
		['sprint', { splits: [{ distanceM: 20, timeS: 3.1 }], method: 'gate' }, '3.10 s'],
		['contact', { contactS: 0.181, flightS: 0.4, method: 'mat' }, '181 ms'],
		['height', { heightM: 0.345, method: 'mat' }, '34.5 cm'],
		['distance', { distanceM: 2.4, method: 'tape' }, '2.40 m'],
		['release', { speedMps: 9.04 }, '9.0 m/s'],
		['done', { reps: 1 }, '1 rep'],
		['done', { reps: 8 }, '8 reps'],
		['missed', {}, 'missed'],
		['missed', { reason: 'false-start' }, 'false start'],
		['missed', { reason: 'no-time' }, 'no time taken'],
		['missed', { reason: 'aborted' }, 'aborted'],
	])('a mark, %s %j', (kind, value, words) => {
		expect(say(kind, value, 'mark')).toBe(words)
	})
	it.each([
		['pain', { score: 4 }, 'pain 4 of 10'],
		['head', {}, 'head: get help'],
		['chest', {}, 'chest: get help'],
		['quiet', { score: 1 }, 'asked, 1 of 10'],
		['worry', { region: 'back-thigh' }, 'worry, back thigh'],
		['comfort', { worst: 2, braking: false }, 'comfort 2 of 5'],
		['comfort', { worst: 2, braking: true }, 'comfort 2 of 5, braking'],
		['effort', { rpe: 6.5 }, 'effort 6.5 of 10'],
		['quality', { grade: 'not-yet' }, 'not yet'],
		['unwell', {}, 'unwell'],
	])('what was said, %s %j', (kind, value, words) => {
		expect(say(kind, value)).toBe(words)
	})
	it.each([
		['attendance', { present: true }, 'here'],
		['attendance', { present: false }, 'not here'],
		['end-set', {}, 'set ended'],
		['load-off', {}, 'load off'],
	])('what was decided, %s %j', (kind, value, words) => {
		expect(say(kind, value, 'decision')).toBe(words)
	})
	it('taken back, whatever it was', () => {
		expect(say('pain', { score: 4 }, 'observation', { void: true })).toBe('taken back')
	})
})

it('a rest is minutes and seconds, ready, or done; before the clock is known it is ready', () => {
	const at = Date.UTC(2026, 2, 12, 18)
	const progress = (change: object) => ({ finished: false, lastAt: at, restS: 125, ...change }) as LineProgress
	expect(restLabel(progress({}), at + 60_000)).toBe('1:05')
	expect(restLabel(progress({}), at + 124_000)).toBe('0:01')
	expect(restLabel(progress({}), at + 125_000)).toBe('ready')
	expect(restLabel(progress({}), 0)).toBe('ready')
	expect(restLabel(progress({ finished: true }), at)).toBe('done')
})

it('a name is the first one and a letter', () => {
	expect(['Ilka Moreau', 'Ada', 'Jan van der Berg', 'Ruadhán Okonjo'].map(shortName)).toEqual([
		'Ilka M.',
		'Ada',
		'Jan v.',
		'Ruadhán O.',
	])
})
