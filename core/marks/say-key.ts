import type { Library } from '../vocabulary/library'
import { METHOD_NAMES, type Method } from '../vocabulary/words'
import { partsOfKey } from './mark-key'
import { writeDistance } from '../words/units'

const WAY: Record<string, (value: string) => string> = {
	d: (value) => writeDistance(Number(value)),
	in: (value) => `${writeDistance(Number(value))} run-in`,
	a: (value) => `${value}°`,
	r: (value) => `radius ${value} m`,
	box: (value) => `${value} cm`,
	steps: (value) => `${value} steps`,
	kg: (value) => `${value} kg`,
}
const AID: Record<string, (value: string) => string> = {
	pulled: (value) => `pulled, ${value} % over own top speed`,
	held: (value) => `${value} % speed lost to the pull`,
	kg: (value) => `${value} kg`,
	set: (value) => `set at ${value}`,
}
/** "d20.in10" → the pieces' names and numbers; a decimal point stands between two digits. */
const pieces = (part: string): [name: string, value: string][] =>
	part === '-'
		? []
		: part
				.split(/\.(?![0-9])/)
				.map((piece) => /^([a-z-]+?)([0-9.]*)$/.exec(piece))
				.flatMap((found) => (found ? [[found[1]!, found[2]!] as [string, string]] : []))

/** A key for people: "Three-point start, 20 m" and "gate, on grass". */
export function sayKey(key: string, library: Pick<Library, 'drills'>): { what: string; how: string } {
	const parts = partsOfKey(key)
	const what = [
		library.drills[parts.drill]?.name ?? parts.drill,
		...pieces(parts.way).map(([name, value]) => WAY[name]?.(value) ?? name),
		...pieces(parts.aid).map(([name, value]) => AID[name]?.(value) ?? `with ${name}`),
		...(parts.carried === '-' ? [] : [`${/^g([0-9]+)/.exec(parts.carried)?.[1] ?? ''} g worn`]),
		...(parts.effort === '-' ? [] : [`at ${parts.effort} %`]),
	]
	const how = [
		METHOD_NAMES[parts.method as Method] ?? parts.method,
		...(parts.side === '-' ? [] : [parts.side.replace('.', ', ').replace('plant-', 'take-off ')]),
		...(parts.surface === '-' ? [] : [parts.surface]),
	]
	return { what: what.join(', '), how: how.join(', ') }
}
