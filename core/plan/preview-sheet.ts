import { addInto, emptyCount } from '../dose/dose-count'
import { RAMP_NAMES, type RampQuantity, rampValue } from '../dose/ramp'
import type { Library } from '../vocabulary/library'
import type { ResolvedLine } from '../judge/resolve-line'
import type { Surface } from '../vocabulary/words'
import { entryName } from './entry-parts'
import { type FlowEntry, flowEntry, flowLineOf, simulateEntry } from './flow'
import { type SheetEntry, countOf, resolveSheet } from './resolve-sheet'
import { type Caution, type CheckedEntry, checkGround, checkLine, checkOrder, checkedOf } from './session-checks'
import type { LimitedAthlete } from './session-limits'
import { type TargetRequest, quantitiesOf, rangeOf, targetOf } from './targets'
import { QUANTITIES, type Quantity, QUALITY_OF } from '../vocabulary/entry'

export interface PreviewAthlete {
	id: string
	name: string
	lines: Map<string, ResolvedLine>
	planned: Record<Quantity, number>
	targets: Record<Quantity, number>
	/** The level's range, low and high. */
	ranges: Record<Quantity, readonly [number, number]>
}
export interface SheetPreview {
	athletes: PreviewAthlete[]
	/** By entry, by the flow of the group. */
	minutesOf: Map<string, number>
	minutes: number
	cautions: { rule: Caution['rule']; sentence: string; names: string[] }[]
}
export interface PreviewContext {
	library: Library
	day: string
	startTime: string
	surface: Surface | null
	target: TargetRequest
}

/** What a sheet comes to as it is edited: everybody's lines and totals, the minutes, and what the rules say about it. */
export function previewSheet(
	entries: readonly SheetEntry[],
	athletes: readonly LimitedAthlete[],
	{ library, day, startTime, surface, target }: PreviewContext,
): SheetPreview {
	const cautions = new Map<string, SheetPreview['cautions'][number]>()
	const say = ({ rule, sentence }: Pick<Caution, 'rule' | 'sentence'>, name: string) => {
		const known = cautions.get(rule + sentence) ?? { rule, sentence, names: [] }
		if (!known.names.includes(name)) known.names.push(name)
		cautions.set(rule + sentence, known)
	}
	const people = athletes.map((athlete): PreviewAthlete => {
		const lines = resolveSheet(entries, athlete, library)
		const sum = emptyCount()
		const checked: CheckedEntry[] = []
		for (const entry of entries) {
			const line = lines.get(entry.id)!
			if (line.blocked !== null) continue
			addInto(sum, countOf(line, athlete, library))
			checked.push(...checkedOf(entry.id, line, (id) => library.drills[id]))
		}
		for (const caution of [
			...checkOrder(checked),
			...checkGround(sum, athlete.levelOf('plyometric'), surface),
			...checked.flatMap((line) => checkLine(line, { day, startTime }, athlete.work, athlete.concluded.facts)),
		])
			say(caution, athlete.name)
		for (const quantity of Object.keys(RAMP_NAMES) as RampQuantity[]) {
			const room = athlete.rooms[quantity]
			if (room !== undefined && rampValue(sum, quantity) > room + 1e-6)
				say({ rule: 'S7', sentence: `More ${RAMP_NAMES[quantity]} than the week’s ramp leaves.` }, athlete.name)
		}
		const of = <T>(read: (quantity: Quantity) => T) =>
			Object.fromEntries(QUANTITIES.map((quantity) => [quantity, read(quantity)])) as Record<Quantity, T>
		return {
			id: athlete.id,
			name: athlete.name,
			lines,
			planned: quantitiesOf(sum),
			targets: of((quantity) => targetOf(quantity, athlete.levelOf(QUALITY_OF[quantity]), target)),
			ranges: of((quantity) => {
				const { low, high } = rangeOf(quantity, athlete.levelOf(QUALITY_OF[quantity]))
				return [low, high] as const
			}),
		}
	})
	const minutesOf = new Map(
		entries.flatMap((entry) => {
			const flow: FlowEntry | null = flowEntry(
				{ id: entry.id, name: entryName(entry, library), lanes: entry.lanes, together: entry.together },
				people.flatMap((person) => {
					const line = person.lines.get(entry.id)!
					return line.blocked === null ? [flowLineOf(person.id, line, (id) => library.drills[id])] : []
				}),
			)
			return flow ? [[entry.id, simulateEntry(flow).minutes] as const] : []
		}),
	)
	return {
		athletes: people,
		minutesOf,
		minutes: [...minutesOf.values()].reduce((sum, value) => sum + value, 0),
		cautions: [...cautions.values()],
	}
}
