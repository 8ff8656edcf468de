import { isBefore } from '../calendar/day-count'
import { countLine } from '../dose/count-line'
import { addInto, emptyCount } from '../dose/dose-count'
import {
	type DayDose,
	RAMP_FAMILY,
	RAMP_FLOORS,
	RAMP_NAMES,
	type RampQuantity,
	eachQuantity,
	planInto,
	rampValue,
} from '../dose/ramp'
import type { Dose, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Family, Level, Phase, Surface } from '../vocabulary/words'
import type { Library } from '../vocabulary/library'
import { lockOf } from '../judge/locks'
import { least } from '../rules/facts'
import type { Concluded } from '../permit/known'
import { checkGround, checkOrder } from './session-checks'

export interface SheetLineAhead {
	entryId: string
	drill: Drill
	parameters: Parameters
	dose: Dose
	ladderId: string | null
	rungId: string | null
	/** Set by hand: no repair touches it. */
	handSet: boolean
}
/** One athlete's sheet of a session that nobody has begun. */
export interface SheetAhead {
	sessionId: string
	day: string
	startTime: string
	phase: Phase
	surface: Surface | null
	athlete: {
		id: string
		name: string
		legLengthM: number | null
		levelOf: (family: Family) => Level
		/** On the session's day. */
		concluded: Concluded
	}
	/** In the order of the sheet; what is blocked is left out. */
	lines: readonly SheetLineAhead[]
}
/** What a rule says about a session's own sheet, and what would repair it. */
export interface SheetClash {
	rule: 'S5' | 'S7' | 'S8' | 'S10'
	sessionId: string
	sentence: string
	names: string[]
	/** Another order, less of it, or the rung below; null where only the coach can. */
	repair: 'reorder' | 'trim' | 'lower' | null
}

type Entry = { id: string; family: Family; drill: Drill | null; position: number }

/** Tiring work after hard work, whatever prepares first and whatever closes last: the order S5 asks for. */
export function orderForFreshness<T extends Entry>(entries: readonly T[]): T[] {
	const firstWork = entries.findIndex((entry) => entry.family !== 'prepare')
	const rank = (entry: T, index: number) =>
		index < firstWork
			? 0
			: entry.drill?.repeatSpeed
				? 3
				: entry.family === 'throw'
					? 2
					: entry.family === 'prepare' || entry.family === 'tissue'
						? 4
						: 1
	return entries
		.map((entry, index) => ({ entry, rank: rank(entry, index), index }))
		.sort((a, b) => a.rank - b.rank || a.index - b.index)
		.map(({ entry }) => entry)
}

/**
 * S5, S7, S8 and S10 over every sheet ahead: what is planned earlier counts as done for what comes later.
 *
 * @param done by athlete, what the ramp counts of the days gone by, and of what is planned before these sheets
 */
export function sheetClashes(
	sheets: readonly SheetAhead[],
	done: ReadonlyMap<string, Record<RampQuantity, readonly DayDose[]>>,
	library: Library,
): SheetClash[] {
	const found = new Map<string, SheetClash>()
	const worst = new Map<string, number>()
	/** One row for a session, a rule and what it is about; the sentence is of whom it hits hardest. */
	const say = (
		rule: SheetClash['rule'],
		sheet: SheetAhead,
		about: string,
		sentence: string,
		repair: SheetClash['repair'],
		by = 0,
	) => {
		const key = `${sheet.sessionId}/${rule}/${about}`
		const known = found.get(key)
		if (!known) found.set(key, { rule, sessionId: sheet.sessionId, sentence, names: [sheet.athlete.name], repair })
		else {
			if (by > (worst.get(key) ?? 0)) known.sentence = sentence
			known.names.push(sheet.athlete.name)
			// A repair is offered only where it mends everybody it is about.
			if (known.repair !== repair) known.repair = null
		}
		worst.set(key, Math.max(by, worst.get(key) ?? 0))
	}
	const ramps = new Map<string, Record<RampQuantity, DayDose[]>>()
	for (const sheet of [...sheets].sort((a, b) => (isBefore(a, b) ? -1 : 1))) {
		const { athlete, lines, day } = sheet
		const free = lines.every((line) => !line.handSet)
		const inOrder = (those: readonly SheetLineAhead[]) =>
			those.map(({ entryId, drill, parameters, dose }) => ({ entryId, drill, parameters, dose }))
		for (const caution of checkOrder(inOrder(lines))) {
			const reordered = orderForFreshness(
				lines.map((line, position) => ({ ...line, id: line.entryId, family: line.drill.family, position })),
			)
			say(
				'S5',
				sheet,
				caution.sentence,
				caution.sentence,
				checkOrder(inOrder(reordered)).length === 0 ? 'reorder' : null,
			)
		}
		const count = emptyCount()
		for (const line of lines)
			addInto(
				count,
				countLine(
					line.drill,
					line.parameters,
					line.dose,
					athlete.legLengthM === null ? {} : { legLengthM: athlete.legLengthM },
				),
			)
		for (const caution of checkGround(count, athlete.levelOf('plyometric'), sheet.surface))
			say('S10', sheet, 'ground', caution.sentence, free ? 'trim' : null)
		for (const line of lines) {
			// A step of the way back is no rung of its ladder.
			const rung = library.ladders[line.ladderId ?? '']?.rungs.find((one) => one.id === line.rungId)
			if (!rung) continue
			if (rung.drillId !== line.drill.id) continue
			const lock = lockOf(athlete.concluded.facts, rung)
			if (lock?.rule === 'S8') say('S8', sheet, rung.id, `${rung.name}: ${lock.words}.`, line.handSet ? null : 'lower')
		}
		const ramp = ramps.get(athlete.id) ?? eachQuantity((quantity) => [...(done.get(athlete.id)?.[quantity] ?? [])])
		ramps.set(athlete.id, ramp)
		for (const quantity of Object.keys(RAMP_NAMES) as RampQuantity[]) {
			const value = rampValue(count, quantity)
			const room = planInto(
				ramp[quantity],
				{ day, unloading: sheet.phase === 'unloading', value },
				RAMP_FLOORS[athlete.levelOf(RAMP_FAMILY[quantity])][quantity],
				least(athlete.concluded.facts, 'rampPercent'),
			)
			if (value > room + 1e-6)
				say(
					'S7',
					sheet,
					quantity,
					`${Math.round(value)} ${RAMP_NAMES[quantity]}, and the week’s ramp leaves ${Math.floor(room)}.`,
					free ? 'trim' : null,
					value - room,
				)
		}
	}
	return [...found.values()]
}
