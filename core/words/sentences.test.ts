import { expect, it } from 'vitest'
import { sayHeld } from './event-words'
import { sentences } from './sentences'

it('phrases become sentences, with one full stop each', () => {
	expect(sentences(['Tall hips', 'Did it hold?', 'Stop!', 'Once more.'])).toBe(
		'Tall hips. Did it hold? Stop! Once more.',
	)
	expect(sentences([])).toBe('')
})

it('a correction that does not stand is said with who sent it, about what and whom, and why', () => {
	const held = { author: 'Jovan Adebayo', key: 'observation/pain' as const, athlete: 'Ilka Moreau', refused: null }
	expect(sayHeld(held)).toBe('Jovan Adebayo’s correction of a pain report of Ilka Moreau waits for what it corrects.')
	expect(
		sayHeld({ ...held, athlete: null, key: 'decision/conditions', refused: 'it belongs to another session' }),
	).toBe('Jovan Adebayo’s correction of wind and ground was not taken: it belongs to another session.')
})
