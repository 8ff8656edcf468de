import { describe, expect, it } from 'vitest'
import { canonicalAddress, isAddress } from './address'
import { passwordProblem } from './choose-password'

const about = ['ada.sorli@example.org', 'Ada Sørli', 'Saltmarsh Ultimate']

describe('a password that is chosen', () => {
	it.each([
		'chalk-on-the-ground',
		'three wet grass hurdles',
		'fünfzehn Zeichen!', // 17
		'violin harbour spoon', // no figures asked for
		'aBcdefgh river 55',
	])('%s is taken', (password) => expect(passwordProblem(password, about)).toBeNull())
	it.each([
		['fourteen chars', 'too few'],
		['𝒳𝒳𝒳𝒳𝒳𝒳𝒳𝒳', 'too few'], // eight, however many units they take
		['a'.repeat(201), 'At most 200'],
		['aaaaaaaaaaaaaaaaaa', 'over and over'],
		['sandsandsandsandsand', 'over and over'],
		['123456789012345678', 'guessed first|row of figures|over and over'],
		['1234567890abcdefgh', 'row of figures|guessed first'],
		['password1234567', 'guessed first'],
		['P@ssw0rd!P@55w0rd', 'guessed first'],
		['qwertyuiopasdfghjkl', 'guessed first'],
		['letmein-letmein-2026', 'guessed first|over and over'],
		['correcthorsebatterystaple', 'guessed first'],
		['ada.sorli@example.org', 'own address'],
		['ada.sorli2026!!', 'own address'],
		['AdaSørli-Ada Sørli', 'own address|over and over'],
		['Saltmarsh Ultimate1', 'own address'],
	])('%s is not: %s', (password, why) => expect(passwordProblem(password, about)).toMatch(new RegExp(why)))
	it('fifteen are enough and fourteen are not', () => {
		expect(passwordProblem('violin harbour!', about)).toBeNull()
		expect(passwordProblem('violin harbour', about)).toContain('14 characters')
	})
})

describe('an address', () => {
	it.each([
		[' Ada@Example.ORG ', 'ada@example.org'],
		['ada@exam\u200bple.org', 'ada@example.org'], // a blank of no width
		['\u202eada@example.org', 'ada@example.org'], // turned round by a mark nobody sees
		['ａｄａ@example.org', 'ada@example.org'], // full width
		['jose\u0301@example.org', 'josé@example.org'], // composed or not
		['ada @example.org', 'ada@example.org'],
	])('%j is %j', (typed, one) => expect(canonicalAddress(typed)).toBe(one))
	it('an accent makes another', () =>
		expect(canonicalAddress('josé@example.org')).not.toBe(canonicalAddress('jose@example.org')))
	it.each(['a@b.c', 'ada+x@example.org', 'josé@exämple.org'])('%s could be one', (text) =>
		expect(isAddress(text)).toBe(true),
	)
	it.each([
		'',
		'ada',
		'@example.org',
		'ada@',
		'ada@example',
		'ada@@example.org',
		'ada@.org',
		'ada@example.',
		`${'a'.repeat(250)}@b.cd`,
	])('%j could not', (text) => expect(isAddress(canonicalAddress(text))).toBe(false))
	it('sixty kilobytes are read at once', () => {
		for (const long of ['a@'.repeat(30_000), `a@${'.'.repeat(60_000)}`, `${' '.repeat(60_000)}@`, 'a'.repeat(60_000)]) {
			const began = performance.now()
			expect(isAddress(canonicalAddress(long))).toBe(false)
			// Each pair of its characters looked at would take several seconds; a busy machine may lose some tenths.
			expect(performance.now() - began).toBeLessThan(1000)
		}
	})
})
