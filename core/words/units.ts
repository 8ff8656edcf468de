/** How lengths and masses are written for one person. What is stored and reckoned with is metres and kilograms. */
export const UNITS = ['metric', 'imperial'] as const
export type Units = (typeof UNITS)[number]

/** International yard and pound agreement of 1959, exactly. */
export const M_A_FOOT = 0.3048
export const M_A_YARD = 0.9144
export const M_AN_INCH = 0.0254
export const KG_A_POUND = 0.453_592_37
export const G_AN_OUNCE = 28.349_523_125

/** Whole yards that a distance is; null for one laid out in metres. @param metres a distance run, m */
export function wholeYards(metres: number): number | null {
	const yards = Math.round(metres / M_A_YARD)
	return yards > 0 && !Number.isInteger(metres) && Math.abs(yards * M_A_YARD - metres) < 0.0015 ? yards : null
}

/**
 * A distance that is run, as it was laid out: yards stay yards and metres stay metres, for everybody, because twenty
 * metres are not a distance anybody lays out in yards.
 *
 * @param metres over 0
 * @example writeDistance(36.576) // "40 yd"
 */
export function writeDistance(metres: number): string {
	const yards = wholeYards(metres)
	return yards === null ? `${Number(metres.toFixed(3))} m` : `${yards} yd`
}

const plain = (value: number, places = 1) => String(Number(value.toFixed(places)))
const inches = (metres: number) => plain(metres / M_AN_INCH)

/**
 * A measured length in feet and inches, to half an inch: what was typed so comes back as it was typed, although
 * centimetres lie between. Under a foot in inches, to a tenth.
 *
 * @param metres 0 or more
 * @example writeFeet(2.45) // "8 ft 0.5 in"
 */
export function writeFeet(metres: number): string {
	const all = Math.round((metres / M_AN_INCH) * 2) / 2
	return all < 12 ? `${inches(metres)} in` : `${Math.floor(all / 12)} ft ${plain(all % 12)} in`
}

/** "40 cm", "2.31 to 2.45 m", "3 kg"; not "8.1 m/s", "12 g m²" nor what is a part of a longer word. */
const WRITTEN = /(?<![\w.,/:])(\d+(?:\.\d+)?)(?:( ?– ?| to | ± | → )(\d+(?:\.\d+)?))? (m|cm|kg|g)(?![\w/²³·°]| m²)/g

/**
 * A sentence of ours for somebody who reads in other units: heights in inches, measured lengths in feet and inches,
 * masses in pounds and ounces. Distances that are run stay as they were laid out. Metric sentences stay as they are.
 *
 * @param text a sentence this application composed, never one that somebody typed
 * @example inUnits('Depth jump from 40 cm', 'imperial') // "Depth jump from 15.7 in"
 */
export function inUnits(text: string, units: Units): string {
	if (units === 'metric') return text
	return text.replace(WRITTEN, (all, first: string, between: string | undefined, second: string | undefined, unit) => {
		const numbers = [first, ...(second === undefined ? [] : [second])]
		if (unit === 'm') {
			// Hundredths are measured; whole metres are laid out.
			if (!numbers.some((one) => one.includes('.'))) return all
			return numbers.map((one) => writeFeet(Number(one))).join(between ?? '')
		}
		const [per, word] = { cm: [100 * M_AN_INCH, 'in'], kg: [KG_A_POUND, 'lb'], g: [G_AN_OUNCE, 'oz'] }[
			unit as 'cm' | 'kg' | 'g'
		] as [number, string]
		return `${numbers.map((one) => plain(Number(one) / per)).join(between ?? '')} ${word}`
	})
}
