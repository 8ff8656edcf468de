import type { Expectation } from '../measure/read-digits'
import { timeAtDistance } from '../measure/sprint/sprint-curve'
import { FEWEST_OWN, plausibility } from '../marks/plausible'
import type { Drill } from '../vocabulary/drill'
import type { Level, Method } from '../vocabulary/words'
import { expectationOf } from './expectation'
import type { FieldAthlete, FieldLine } from './pack'
import { M_A_YARD, wholeYards, writeDistance } from '../words/units'

/** One number to type for a rep: what it is called, in what unit, and what is expected. */
export interface Slot {
	name: string
	unit: string
	kind: 'sprint' | 'contact' | 'flight' | 'height' | 'distance'
	distanceM?: number
}

/** Where gates usually stand; the line's own distance is always the last. */
export const GATE_PLACES = [5, 10, 20, 30, 40] as const

/**
 * Where gates stand for a line, m. They stand on its own tape: set at 10 and 20 they are at ten and twenty yards of forty
 * yards.
 *
 * @param places numbers on the tape
 */
export const gatesFor = ({ parameters }: Pick<FieldLine, 'parameters'>, places: readonly number[]): number[] =>
	wholeYards(parameters.distanceM ?? 0) === null
		? [...places]
		: places.map((yards) => Number((yards * M_A_YARD).toFixed(3)))

/** @param gates distances at which splits are taken on the way, m */
export function slotsOf(line: Pick<FieldLine, 'logs' | 'parameters'>, gates: readonly number[] = [10]): Slot[] {
	const distance = line.parameters.distanceM ?? 10
	if (line.logs === 'sprint')
		return [...gates.filter((metres) => metres < distance).sort((a, b) => a - b), distance].map((metres) => ({
			name: writeDistance(metres),
			unit: 's',
			kind: 'sprint',
			distanceM: metres,
		}))
	if (line.logs === 'contact')
		return [
			{ name: 'contact', unit: 'ms', kind: 'contact' },
			{ name: 'flight', unit: 'ms', kind: 'flight' },
		]
	if (line.logs === 'height') return [{ name: 'height', unit: 'cm', kind: 'height' }]
	return line.logs === 'distance' ? [{ name: 'distance', unit: 'm', kind: 'distance' }] : []
}

/** What a number is expected to be: by the own best, else by the athlete's own curve, else by what people run. */
export function expectedAt(
	at: Slot,
	line: Pick<FieldLine, 'parameters'>,
	best: number | undefined,
	curve: FieldAthlete['curve'],
): Expectation {
	if (at.kind === 'sprint' && at.distanceM !== undefined) {
		if (at.distanceM === line.parameters.distanceM && best !== undefined)
			return expectationOf('sprint', at.distanceM, best)
		if (curve) {
			// Bests make the curve, so that an ordinary rep lies a little above it.
			const time = timeAtDistance(curve.mssMps, curve.tauS, at.distanceM)
			return { low: time * 0.95, high: time * 1.15, decimals: 2 }
		}
	}
	return expectationOf(at.kind, at.distanceM, undefined)
}

const round = (value: number, places: number) => Number(value.toFixed(places))

/** A number that would surprise: said once, kept when saved again. */
export function strangeness(
	line: Pick<FieldLine, 'logs'>,
	slots: Slot[],
	reads: (number | null)[],
	best: number | undefined,
): string | null {
	const value = reads.at(-1)
	const at = slots.at(-1)
	if (value === null || value === undefined || !at) return null
	// A device says more digits than anybody reads.
	const shown = round(value, 2)
	if (line.logs === 'sprint' && best !== undefined && value < best * 0.95)
		return `${shown} s for ${writeDistance(at.distanceM ?? 0)} would be the best by ${round(best - value, 2)} s.`
	if (line.logs === 'sprint' && best !== undefined && value > best * 1.3)
		return `${shown} s is ${round(value - best, 2)} s off the best of ${best} s.`
	const { low, high } = expectationOf(at.kind, at.distanceM, undefined)
	return value < low * 0.6 || value > high * 1.6 ? `${shown} ${at.unit} is far from what is usual.` : null
}

/** What is asked before a number is kept. */
export interface Question {
	words: string
	/** It cannot be: kept as typed it is set aside, unless somebody says that it is what was seen. */
	aside: boolean
	/** What was probably meant, with the numbers typed put right. */
	likely: { label: string; reads: (number | null)[] } | null
}

/**
 * Whether a number should be asked about: what cannot be, with what was probably meant, and what would
 * surprise. Its own usual says so where there is one, else what the athlete's level can do.
 *
 * @param drill what was done; unknown drills are asked about as what surprises only
 */
export function questionAbout(
	line: Pick<FieldLine, 'logs' | 'parameters' | 'usuals'>,
	drill: Pick<Drill, 'family' | 'start' | 'counting'> | undefined,
	level: Level,
	method: Method,
	slots: Slot[],
	reads: (number | null)[],
	best: number | undefined,
): Question | null {
	const measured = line.logs === 'contact' ? 0 : reads.length - 1
	const [value, at] = [reads[measured], slots[measured]]
	if (drill && value != null && at && line.logs !== 'done') {
		const unit = UNITS[at.unit] ?? 1
		const usual = line.usuals?.[method]
		// The usual of sessions stands for as many marks as it takes to say what can be.
		const own = usual === undefined ? [] : Array.from({ length: FEWEST_OWN }, () => usual)
		const can = plausibility(line.logs, drill, line.parameters, value / unit, own, level)
		if (can.outcome === 'set-aside') {
			const meant =
				can.likely === undefined ? null : round(can.likely * unit, at.unit === 's' || at.unit === 'm' ? 2 : 1)
			return {
				words: `${showRead(value, at)} ${at.unit} can hardly be${usual === undefined ? '' : `: the usual is ${showRead(round(usual * unit, 2), at)} ${at.unit}`}.`,
				aside: true,
				likely:
					meant === null
						? null
						: {
								label: `${showRead(meant, at)} ${at.unit}`,
								reads: reads.map((read, index) => (index === measured ? meant : read)),
							},
			}
		}
	}
	const words = strangeness(line, slots, reads, best)
	return words === null ? null : { words, aside: false, likely: null }
}
/** Units typed in one SI unit. */
const UNITS: Record<string, number> = { s: 1, m: 1, ms: 1000, cm: 100 }

/** What is kept of the numbers typed, in SI. */
export function valueOf(
	line: Pick<FieldLine, 'logs'>,
	slots: Slot[],
	reads: (number | null)[],
	methods: { sprint: string; contact: string; height: string; distance: string },
	windMps: number | null = null,
) {
	const value = reads.at(-1) ?? 0
	if (line.logs === 'sprint')
		return {
			kind: 'sprint',
			value: {
				splits: slots.flatMap((at, index) =>
					reads[index] == null ? [] : [{ distanceM: at.distanceM, timeS: reads[index] }],
				),
				method: methods.sprint,
				...(windMps === null ? {} : { windMps }),
			},
		}
	if (line.logs === 'contact')
		return {
			kind: 'contact',
			value: {
				contactS: round((reads[0] ?? 0) / 1000, 4),
				flightS: round((reads[1] ?? 0) / 1000, 4),
				method: methods.contact,
			},
		}
	if (line.logs === 'height')
		return { kind: 'height', value: { heightM: round(value / 100, 3), method: methods.height } }
	return { kind: 'distance', value: { distanceM: round(value, 3), method: methods.distance } }
}

export const showRead = (value: number, at: Slot) =>
	at.unit === 's' || at.unit === 'm' ? value.toFixed(2) : String(value)
export const expectLabel = ({ low, high }: { low: number; high: number }, unit: string) =>
	`${unit === 's' || unit === 'm' ? `${low.toFixed(1)}–${high.toFixed(1)}` : `${Math.round(low)}–${Math.round(high)}`} ${unit}`
