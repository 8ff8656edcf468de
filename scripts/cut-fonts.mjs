// Cuts the fonts down to what the pages use of them: npm run fonts
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import subsetFont from 'subset-font'

const FROM = new URL('../node_modules/@fontsource-variable/', import.meta.url)
const TO = new URL('../app/ui/fonts/', import.meta.url)

/** Weights and widths that the styles ask for; what lies outside the browser would draw at the border. */
const WEIGHTS = { min: 400, max: 700 }
const WIDTHS = { min: 100, max: 112 }
/** First and last code points, as `app/ui/tokens.css` says for which text each file is fetched. */
const LATIN = [
	[0x0020, 0x00ff],
	[0x2000, 0x206f],
	[0x20ac, 0x20ac],
	[0x2190, 0x21ff],
	[0x2212, 0x2212],
	[0x2215, 0x2215],
	[0x00d7, 0x00d7],
]
const LATIN_EXT = [
	[0x0100, 0x024f],
	[0x1e00, 0x1eff],
]

export const FONTS = [
	{ file: 'archivo-latin.woff2', of: 'archivo/files/archivo-latin-standard-normal.woff2', letters: LATIN, wide: true },
	{
		file: 'archivo-latin-ext.woff2',
		of: 'archivo/files/archivo-latin-ext-standard-normal.woff2',
		letters: LATIN_EXT,
		wide: true,
	},
	{
		file: 'atkinson-latin.woff2',
		of: 'atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
		letters: LATIN,
		wide: false,
	},
	{
		file: 'atkinson-latin-ext.woff2',
		of: 'atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2',
		letters: LATIN_EXT,
		wide: false,
	},
]

/** Where the cut file lies. @param {{ file: string }} font */
export const placeOf = (font) => fileURLToPath(new URL(font.file, TO))

/** The font as it is to be. @param {(typeof FONTS)[number]} font */
export const cut = (font) =>
	subsetFont(
		readFileSync(new URL(font.of, FROM)),
		font.letters
			.flatMap(([first = 0, last = 0]) => Array.from({ length: last - first + 1 }, (_, i) => first + i))
			.map((point) => String.fromCodePoint(point))
			.join(''),
		{ targetFormat: 'woff2', variationAxes: { wght: WEIGHTS, ...(font.wide ? { wdth: WIDTHS } : {}) } },
	)

if (process.argv[1] === fileURLToPath(import.meta.url)) {
	mkdirSync(TO, { recursive: true })
	for (const font of FONTS) {
		const bytes = await cut(font)
		writeFileSync(placeOf(font), bytes)
		console.log(`${font.file}: ${bytes.length} bytes`)
	}
}
