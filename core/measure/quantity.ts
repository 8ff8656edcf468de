import {
	G_AN_OUNCE,
	KG_A_POUND,
	M_AN_INCH,
	M_A_FOOT,
	M_A_YARD,
	type Units,
	wholeYards,
	writeFeet,
} from '../words/units'
import type { ParameterName } from '../vocabulary/parameters'
import { readLength } from './read-length'
import { readMass } from './read-mass'
import { readNumber } from './read-number'

/** What is typed somewhere: a distance to run, a measured length or a ground's side (m), a height (cm), a mass or somebody's own (kg), a weight worn (g). */
export type Quantity = 'run' | 'length' | 'ground' | 'height' | 'mass' | 'body' | 'worn'

/** How a quantity is typed and shown: the unit beside the field, and text to and from the number that is kept. */
export interface Typed {
	unit: string
	/** Null for what is none; a unit that is typed is always heard. */
	read: (text: string) => number | null
	write: (value: number) => string
}

const places = (value: number, digits: number) => Number(value.toFixed(digits))
const or = <T, R>(value: T | null, then: (value: T) => R): R | null => (value === null ? null : then(value))

const METRIC: Record<Quantity, Typed> = {
	// A distance in yards was typed so and stays one.
	run: {
		unit: 'm',
		read: (text) => readLength(text),
		write: (m) => or(wholeYards(m), (yd) => `${yd} yd`) ?? String(m),
	},
	length: { unit: 'm', read: (text) => readLength(text), write: String },
	height: { unit: 'cm', read: (text) => or(readLength(text, 'cm'), (m) => places(m * 100, 1)), write: String },
	ground: { unit: 'm', read: (text) => or(readLength(text), (m) => places(m, 1)), write: String },
	mass: { unit: 'kg', read: (text) => readMass(text), write: String },
	body: { unit: 'kg', read: (text) => or(readMass(text), (kg) => places(kg, 1)), write: String },
	worn: { unit: 'g', read: (text) => or(readMass(text, 'g'), (kg) => places(kg * 1000, 0)), write: String },
}
const IMPERIAL: Record<Quantity, Typed> = {
	run: {
		unit: '',
		read: (text) => readLength(text, 'yd'),
		write: (m) => or(wholeYards(m), (yd) => `${yd} yd`) ?? `${m} m`,
	},
	length: { unit: '', read: (text) => readLength(text, 'ft'), write: writeFeet },
	height: {
		unit: 'in',
		read: (text) => or(readLength(text, 'in'), (m) => places(m * 100, 1)),
		write: (cm) => String(places(cm / 100 / M_AN_INCH, 1)),
	},
	ground: {
		unit: 'yd',
		read: (text) => or(readLength(text, 'yd'), (m) => places(m, 1)),
		write: (m) => String(places(m / M_A_YARD, 1)),
	},
	// A hundred grams is what is kept: whole pounds come back as they were typed.
	body: {
		unit: 'lb',
		read: (text) => or(readMass(text, 'lb'), (kg) => places(kg, 1)),
		write: (kg) => String(Math.round(kg / KG_A_POUND)),
	},
	mass: {
		unit: 'lb',
		read: (text) => or(readMass(text, 'lb'), (kg) => places(kg, 2)),
		write: (kg) => String(places(kg / KG_A_POUND, 1)),
	},
	worn: {
		unit: 'oz',
		read: (text) => or(readMass(text, 'oz'), (kg) => places(kg * 1000, 0)),
		write: (g) => String(places(g / G_AN_OUNCE, 1)),
	},
}

/** @example quantityIn('height', 'imperial').read('16') // 40.6 */
export const quantityIn = (quantity: Quantity, units: Units): Typed =>
	(units === 'metric' ? METRIC : IMPERIAL)[quantity]

const OF_PARAMETER: Partial<Record<ParameterName, Quantity>> = {
	distanceM: 'run',
	heightCm: 'height',
	ballKg: 'mass',
	runInM: 'run',
	radiusM: 'length',
	loadG: 'worn',
}
/** Whether a parameter has another unit for who reads in feet and pounds. */
export const isMeasured = (name: ParameterName): boolean => OF_PARAMETER[name] !== undefined
/** How a parameter of a drill is typed and shown. */
export const parameterTyped = (name: ParameterName, units: Units): Typed =>
	OF_PARAMETER[name] ? quantityIn(OF_PARAMETER[name], units) : { unit: '', read: readNumber, write: String }

/** How the parts of one measured number are typed on a pad, in turn, and what one of each is worth in the slot's unit. */
export interface PadPart {
	unit: string
	worth: number
	/** Decimals it is usually written with. */
	decimals: number
}
/**
 * The parts a number in a slot's unit is typed in: feet and inches for metres, inches for centimetres; what is timed has
 * one unit everywhere.
 *
 * @param unit 'm', 'cm' or another that stays
 */
export function padParts(unit: string, units: Units): PadPart[] {
	if (units === 'imperial' && unit === 'm')
		return [
			{ unit: 'ft', worth: M_A_FOOT, decimals: 0 },
			{ unit: 'in', worth: M_AN_INCH, decimals: 1 },
		]
	if (units === 'imperial' && unit === 'cm') return [{ unit: 'in', worth: 100 * M_AN_INCH, decimals: 1 }]
	return []
}

/** What was typed in the parts, in the slot's unit; null while one of them is no number. @param texts one for each part */
export function readParts(parts: readonly PadPart[], texts: readonly (string | undefined)[]): number | null {
	const numbers = parts.map((_, index) => readNumber(texts[index] ?? ''))
	if (numbers.some((value) => value === null || value < 0)) return null
	const sum = parts.reduce((all, part, index) => all + part.worth * numbers[index]!, 0)
	return sum === 0 ? null : places(sum, 3)
}
