import { G_AN_OUNCE, KG_A_POUND } from '../words/units'
import { readNumber } from './read-number'

const KG = { kg: 1, g: 0.001, lb: KG_A_POUND, oz: G_AN_OUNCE / 1000 } as const
export type MassUnit = keyof typeof KG
const WORDS: readonly [MassUnit, RegExp][] = [
	['kg', /^(kgs?|kilos?|kilograms?)$/],
	['g', /^(g|grams?)$/],
	['lb', /^(lbs?|pounds?)$/],
	['oz', /^(oz|ounces?)$/],
]

/**
 * Kilograms from a mass as people write it: "64.5", "64,5 kg", "142 lb", "8 oz"; to the gram. Null for what is none.
 *
 * @param bare the unit of a number that stands alone
 * @example readMass('142 lb') // 64.41
 */
export function readMass(text: string, bare: MassUnit = 'kg'): number | null {
	const found = /^(.*?)\s*([a-z]*)\.?$/i.exec(text.trim().toLowerCase())!
	const value = readNumber(found[1]!)
	const unit = found[2] === '' ? bare : WORDS.find(([, words]) => words.test(found[2]!))?.[0]
	return value === null || unit === undefined ? null : Math.round(value * KG[unit] * 1000) / 1000
}
