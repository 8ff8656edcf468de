import { describe, expect, it } from 'vitest'
import { sayChance } from './say-chance'
import { FIRMNESS_MEANS, sayFirmness } from './say-firmness'

describe('a chance in words', () => {
	it.each([
		[0, 'exceptionally unlikely, under 1 %'],
		[0.0099, 'exceptionally unlikely, under 1 %'],
		[0.01, 'very unlikely, 1 %'],
		[0.0999, 'very unlikely, 10 %'],
		[0.1, 'unlikely, 10 %'],
		[0.3299, 'unlikely, 33 %'],
		[0.33, 'about as likely as not, 33 %'],
		[0.5, 'about as likely as not, 50 %'],
		[0.6599, 'about as likely as not, 66 %'],
		[0.66, 'likely, 66 %'],
		[0.8999, 'likely, 90 %'],
		[0.9, 'very likely, 90 %'],
		[0.9899, 'very likely, 99 %'],
		[0.99, 'virtually certain, 99 % or more'],
		[1, 'virtually certain, 99 % or more'],
	])('%d', (chance, words) => {
		expect(sayChance(chance)).toBe(words)
	})
	it.each([-0.01, 1.01, Number.NaN])('%d is none', (chance) => {
		expect(() => sayChance(chance)).toThrow(RangeError)
	})
})

it('how firm a number is, as people read it, and what each word means', () => {
	expect(['published', 'common practice', 'our setting'].map(sayFirmness)).toEqual([
		'published',
		'common practice',
		'house rule',
	])
	expect(sayFirmness('from before')).toBe('from before')
	for (const word of ['Published', 'Common practice', 'House rule']) expect(FIRMNESS_MEANS).toContain(`${word}:`)
})
