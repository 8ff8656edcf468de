import { describe, expect, it } from 'vitest'
import { inUnits, wholeYards, writeDistance, writeFeet } from '../words/units'
import { padParts, quantityIn, readParts } from './quantity'
import { readMass } from './read-mass'

// Worked by hand from the international yard and pound agreement of 1959: 1 yd = 0.9144 m, 1 lb = 0.45359237 kg, exactly.

describe('a distance that is run stays as it was laid out', () => {
	it.each([
		[9.144, '10 yd'],
		[36.576, '40 yd'],
		[18.288, '20 yd'],
		// Whole metres, and what is near to no whole yard, are metres.
		[10, '10 m'],
		[1143, '1143 m'],
		[36.5, '36.5 m'],
		[9.146, '9.146 m'],
		[0.5, '0.5 m'],
	])('%s m is %s', (metres, words) => expect(writeDistance(metres)).toBe(words))
	it('hears a millimetre either way, as the file’s rounding leaves it', () => {
		expect(wholeYards(2.743)).toBe(3) // 2.7432
		expect(wholeYards(9.1455)).toBeNull()
	})
})

describe('feet and inches', () => {
	it.each([
		[2.45, '8 ft 0.5 in'], // 96.457 in
		[2.4384, '8 ft 0 in'],
		[0.3048, '1 ft 0 in'],
		[0.12, '4.7 in'], // 4.724 in
		[6.02, '19 ft 9 in'], // 237.008 in
		// 71.8 in is nearer to six feet than to 5 ft 11.5 in.
		[1.8237, '6 ft 0 in'],
		[0, '0 in'],
	])('%s m is %s', (metres, words) => expect(writeFeet(metres)).toBe(words))
	it('half inches come back as they were typed, through the centimetre of the sentences', () => {
		for (let halves = 24; halves <= 1200; halves++) {
			const metres = Number((halves * 0.0127).toFixed(2))
			expect(writeFeet(metres)).toBe(`${Math.floor(halves / 24)} ft ${(halves % 24) / 2} in`)
		}
	})
})

describe('a sentence for who reads inches and pounds', () => {
	it.each([
		['Depth jump from 40 cm', 'Depth jump from 15.7 in'],
		['40 cm box, then 2.45 m', '15.7 in box, then 8 ft 0.5 in'],
		['38.1 cm', '15 in'],
		['2.31–2.45 m', '7 ft 7 in–8 ft 0.5 in'],
		['30 to 40 cm', '11.8 to 15.7 in'],
		['usual 38.2 ± 1.1 cm', 'usual 15 ± 0.4 in'],
		['a ball of 3 kg by body mass', 'a ball of 6.6 lb by body mass'],
		['200 g worn', '7.1 oz worn'],
		// What is run stays, and so do speeds, torques and times.
		['Three-point start 20 m, 2×4', 'Three-point start 20 m, 2×4'],
		['40 yd', '40 yd'],
		['8.93 m/s', '8.93 m/s'],
		['12.3 g m² more to swing', '12.3 g m² more to swing'],
		['18.2 W/kg, 3.12 s, 146 ms', '18.2 W/kg, 3.12 s, 146 ms'],
		['B2.5 m', 'B2.5 m'],
		['until 12 min', 'until 12 min'],
	])('%s', (metric, imperial) => {
		expect(inUnits(metric, 'imperial')).toBe(imperial)
		expect(inUnits(metric, 'metric')).toBe(metric)
	})
})

describe('typed', () => {
	it.each([
		['run', 'imperial', '40', 36.576],
		['run', 'imperial', '20 m', 20],
		['run', 'metric', '40 yd', 36.576],
		['run', 'metric', '20', 20],
		['height', 'imperial', '16', 40.6],
		['height', 'imperial', '40 cm', 40],
		['height', 'metric', '16 in', 40.6],
		['mass', 'imperial', '6', 2.72],
		['mass', 'imperial', '3 kg', 3],
		['mass', 'metric', '142 lb', 64.41],
		['worn', 'imperial', '8', 227],
		['worn', 'metric', '0.2 kg', 200],
		['length', 'imperial', `8' 2"`, 2.489],
		['length', 'imperial', '8', 2.438],
	] as const)('%s in %s: %s', (quantity, units, text, value) =>
		expect(quantityIn(quantity, units).read(text)).toBe(value),
	)
	it.each(['', 'a', '6 stone', '3 m'] as const)('no mass: %s', (text) => {
		expect(quantityIn('mass', 'imperial').read(text)).toBeNull()
		expect(readMass(text)).toBeNull()
	})
	it.each([
		['run', 'imperial', 20, '20 m'],
		['run', 'imperial', 36.576, '40 yd'],
		['run', 'metric', 36.576, '40 yd'],
		['run', 'metric', 20, '20'],
		['height', 'imperial', 40.6, '16'],
		['height', 'metric', 40.6, '40.6'],
		['mass', 'imperial', 2.72, '6'],
		['worn', 'imperial', 227, '8'],
		['length', 'imperial', 2.489, '8 ft 2 in'],
	] as const)('%s in %s: %s is shown as %s', (quantity, units, value, text) =>
		expect(quantityIn(quantity, units).write(value)).toBe(text),
	)
})

describe('on the pad', () => {
	it('a throw is feet and inches, a jump’s height inches, a time what it is everywhere', () => {
		expect(padParts('m', 'imperial').map(({ unit }) => unit)).toEqual(['ft', 'in'])
		expect(padParts('cm', 'imperial').map(({ unit }) => unit)).toEqual(['in'])
		for (const unit of ['s', 'ms']) expect(padParts(unit, 'imperial')).toEqual([])
		for (const unit of ['m', 'cm', 's']) expect(padParts(unit, 'metric')).toEqual([])
	})
	it.each([
		[['8', '2'], 2.489],
		[['8', '0'], 2.438],
		[['0', '6.5'], 0.165],
		[['8', ''], null],
		[['', '2'], null],
		[['0', '0'], null],
	])('%j', (texts, metres) => expect(readParts(padParts('m', 'imperial'), texts)).toBe(metres))
	it('inches are kept as centimetres', () => expect(readParts(padParts('cm', 'imperial'), ['15'])).toBe(38.1))
})
