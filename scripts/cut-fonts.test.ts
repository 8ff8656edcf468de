import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { FONTS, cut, placeOf } from './cut-fonts.mjs'

test.each(FONTS)('$file is what is cut of the font today', async (font) => {
	const kept = readFileSync(placeOf(font))
	expect(kept.length).toBeGreaterThan(5_000)
	expect((await cut(font)).equals(kept)).toBe(true)
})
