import { RUN_OUT_M } from '../library/make-drill'
import { FINISHERS } from '../library/themes'
import type { Dose, Parameters, Rest } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import { type Family, LEVELS, type Level, QUALITIES } from '../vocabulary/words'
import { daysBetween } from '../calendar/day-count'
import type { Library } from '../vocabulary/library'
import type { DrillPiece, FilledPiece, LadderPiece, Theme, ThemePiece } from '../vocabulary/theme'
import { type FlowEntry, type FlowLine, flowEntry, flowLineOf, simulateEntry } from './flow'
import { type EntryTuning, type Variant, QUANTITIES, type Quantity, QUALITY_OF } from '../vocabulary/entry'
import { type SheetEntry, TARGET_TOLERANCE, countOf, doseSheet, plainLines } from './resolve-sheet'
import { type LimitContext, type LimitedAthlete, TARGET_REACHED, capsFor } from './session-limits'
import { QUALITY_NAMES, type TargetRequest, aboutOf, quantitiesOf, targetOf, targetsByLevel } from './targets'
import { KEEPING_DOSE, themeOn } from './themes'
import { addInto, emptyCount } from '../dose/dose-count'

export interface BuildRequest {
	athletes: readonly LimitedAthlete[]
	minutes: number
	target: TargetRequest
	/** Lanes or stations there is room for, 1 to 6. */
	mostLanes: number
	/** Ladders the block drives on: they come in whatever else does. */
	priorityLadders: readonly string[]
	context: Omit<LimitContext, 'targetOf' | 'light'>
}
/** Where an athlete stays under the target, and what holds it there. */
export interface Shortfall {
	quantity: Quantity
	why: string
	athletes: { id: string; planned: number; target: number }[]
}
export interface Proposal {
	entries: SheetEntry[]
	/** By the flow of the group, set-up and change-over in it. */
	minutes: number
	shortfalls: Shortfall[]
}

/** A piece of the session, and the quantity it is there for; null for what belongs to every session. */
interface Piece {
	entry: SheetEntry
	quantity: Quantity | null
	/** Left out first when minutes are short: 1 before 2. */
	spare?: 1 | 2
}

/** One landing, cut, throw or metre more or less is as near as a whole dose comes. */
const WHOLE_EVENT = 1
/** Weeks are counted from one. */
const A_MONDAY = '2024-01-01'
/** A lane more must save this much, minutes. */
const LANE_WORTH_MIN = 1

/**
 * A session from its targets: parts in the right order, each athlete's own line, topped up to the target of
 * their level and cut where the rules say so, in the minutes there are. What is not reached is said with its
 * reason: never above the target by more than a twentieth, never against S3 to S11.
 *
 * @throws RangeError for nobody, for minutes outside 10 to 240 and lanes outside 1 to 6
 */
export function proposeSession(request: BuildRequest): Proposal {
	const { athletes, minutes, mostLanes, context, target } = request
	if (athletes.length === 0) throw new RangeError('athletes: at least one is expected')
	if (!(minutes >= 10 && minutes <= 240)) throw new RangeError(`minutes: ${minutes} is not from 10 to 240`)
	if (!(Number.isInteger(mostLanes) && mostLanes >= 1 && mostLanes <= 6))
		throw new RangeError(`mostLanes: ${mostLanes} is not a whole number from 1 to 6`)
	const pieces = piecesOf(request)
	const states = shrinking(importance(target), aboutOf(target))
	const looked = new Map<number, Built>()
	const sized = sizing()
	const at = (index: number): Built => {
		const known = looked.get(index) ?? build(pieces, states[index]!, request, sized)
		looked.set(index, known)
		return known
	}
	// States only get smaller: the first that fits is found by halving.
	let [low, high] = [0, states.length - 1]
	while (low < high) {
		const middle = (low + high) >> 1
		if (at(middle).minutes <= minutes) high = middle
		else low = middle + 1
	}
	return {
		entries: at(low).entries,
		minutes: at(low).minutes,
		shortfalls: shortfallsOf(at(low), states[low]!, pieces, request, context.library),
	}
}

interface State {
	scales: Record<Quantity, number>
	/** How many kinds of spare pieces are left out. */
	without: 0 | 1 | 2
}
/** So far what comes second shrinks before anything is left out [our setting]. */
const SECOND_FIRST = 0.7
const SCALES = [1, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0]

/**
 * From the whole session to the warm-up alone: the spare pieces go first, then the least important quantity by tenths,
 * never far ahead of the others. Of a day with a theme what comes second shrinks a little before anything is left out,
 * and what the day is about only when nothing else is left.
 */
function shrinking(order: readonly Quantity[], day: Theme | null): State[] {
	const full: State = { scales: { fastMetres: 1, contacts: 1, cuts60: 1, throws: 1 }, without: 0 }
	const scales = { ...full.scales }
	const states: State[] = [full]
	const shrink = (quantity: Quantity, floor: number, without: State['without'] = 2) => {
		for (const scale of SCALES) {
			if (scale >= scales[quantity] || scale < floor) continue
			scales[quantity] = scale
			states.push({ scales: { ...scales }, without })
		}
	}
	const isMain = (quantity: Quantity) => QUALITY_OF[quantity] === day?.main
	for (const quantity of order) if (QUALITY_OF[quantity] === day?.second) shrink(quantity, SECOND_FIRST, 0)
	for (const without of [1, 2] as const) states.push({ scales: { ...scales }, without })
	for (const floor of [0.7, 0.4, 0])
		for (const quantity of [...order].reverse()) if (!isMain(quantity)) shrink(quantity, floor)
	for (const quantity of order.filter(isMain)) shrink(quantity, 0)
	return states
}

/** The priority first, what is only kept last. */
function importance(request: TargetRequest): Quantity[] {
	const { priority, kept } = request
	const day = aboutOf(request)
	const [first, last] = day
		? [day.main, QUALITIES.filter((quality) => quality !== day.main && quality !== day.second)]
		: [priority, kept]
	const rank = (quantity: Quantity) =>
		QUALITY_OF[quantity] === first ? 0 : last.includes(QUALITY_OF[quantity]) ? 2 : 1
	return [...QUANTITIES].sort((a, b) => rank(a) - rank(b))
}

interface Built {
	entries: SheetEntry[]
	/** Those too of which nobody has a line. */
	looked: SheetEntry[]
	minutes: number
	lines: Map<string, ReturnType<typeof doseSheet>>
}

/** Pieces at a share of their dose; the same entry for the same share, so that its lines are asked for once. */
function sizing(): (piece: Piece, scale: number) => SheetEntry {
	const known = new Map<Piece, Map<number, SheetEntry>>()
	return (piece, scale) => {
		const sizes = known.get(piece) ?? new Map<number, SheetEntry>()
		known.set(piece, sizes)
		const one = sizes.get(scale) ?? sized(piece, scale)
		sizes.set(scale, one)
		return one
	}
}
function sized({ entry }: Piece, scale: number): SheetEntry {
	const { fill, ...tuning } = entry.tuning ?? {}
	const targets = fill && { 1: fill.targets[1] * scale, 2: fill.targets[2] * scale, 3: fill.targets[3] * scale }
	return {
		...entry,
		doseFactor: Math.max(0.01, Math.round(entry.doseFactor * scale * 100) / 100),
		tuning: { ...tuning, ...(fill ? { fill: { ...fill, targets: targets! } } : {}) },
	}
}

function build(
	pieces: readonly Piece[],
	{ scales, without }: State,
	{ athletes, target, mostLanes, context }: BuildRequest,
	sizedTo: ReturnType<typeof sizing>,
): Built {
	const kept = pieces.filter(
		({ quantity, spare }) => (quantity === null || scales[quantity] > 0) && !(spare !== undefined && spare <= without),
	)
	const sized = kept.map((piece) => (piece.quantity === null ? piece.entry : sizedTo(piece, scales[piece.quantity])))
	const limits: LimitContext = {
		...context,
		light: target.role === 'light',
		targetOf:
			target.role === 'test' || target.role === 'tissue'
				? null
				: (quantity, athlete) => targetOf(quantity, athlete.levelOf(QUALITY_OF[quantity]), target),
	}
	// Caps change doses and no drill: what is permitted is asked once.
	const plains = new Map(athletes.map((athlete) => [athlete.id, plainLines(sized, athlete, context.library)]))
	const caps = new Map(athletes.map((athlete) => [athlete.id, capsFor(sized, athlete, limits, plains.get(athlete.id))]))
	const capped = sized.map((entry): SheetEntry => {
		const own = Object.fromEntries(
			athletes.flatMap((athlete) => {
				const cap = caps.get(athlete.id)!.get(entry.id)
				return cap ? [[athlete.id, cap]] : []
			}),
		)
		const tuning: EntryTuning = { ...entry.tuning, ...(Object.keys(own).length > 0 ? { caps: own } : {}) }
		return { ...entry, tuning: Object.keys(tuning).length > 0 ? tuning : null }
	})
	const lines = new Map(
		athletes.map((athlete) => [
			athlete.id,
			doseSheet(capped, plains.get(athlete.id)!, athlete, context.library, caps.get(athlete.id)!),
		]),
	)
	let minutes = 0
	const entries = capped.flatMap((entry): SheetEntry[] => {
		const flow = flowOf(entry, athletes, lines, context.library)
		if (!flow) return []
		const lanes = lanesFor(flow, mostLanes)
		minutes += lanes.minutes
		return [{ ...entry, lanes: lanes.lanes }]
	})
	return { entries, looked: capped, minutes, lines }
}

/** One entry's open lines as the flow sees them; null when nobody has one. */
function flowOf(
	entry: SheetEntry,
	athletes: readonly LimitedAthlete[],
	lines: Built['lines'],
	library: Library,
): FlowEntry | null {
	return flowEntry(
		{ id: entry.id, name: entry.part, lanes: entry.lanes, together: entry.together },
		athletes.flatMap((athlete): FlowLine[] => {
			const line = lines.get(athlete.id)!.get(entry.id)!
			return line.blocked === null ? [flowLineOf(athlete.id, line, (id) => library.drills[id])] : []
		}),
	)
}

/** The fewest lanes from which another saves less than a minute. */
function lanesFor(flow: FlowEntry, most: number): { lanes: number; minutes: number } {
	let best = { lanes: 1, minutes: simulateEntry({ ...flow, lanes: 1 }).minutes }
	if (flow.atOnce) return best
	for (let lanes = 2; lanes <= most; lanes++) {
		const { minutes } = simulateEntry({ ...flow, lanes })
		if (best.minutes - minutes < LANE_WORTH_MIN) break
		best = { lanes, minutes }
	}
	return best
}

function shortfallsOf(
	{ looked, lines }: Built,
	{ scales, without }: State,
	pieces: readonly Piece[],
	{ athletes, target }: BuildRequest,
	library: Library,
): Shortfall[] {
	/** Nothing stands for it because its pieces were the first to go. */
	const isLeftOut = (quantity: Quantity) => {
		const own = pieces.filter((piece) => piece.quantity === quantity)
		return own.length > 0 && own.every(({ spare }) => spare !== undefined && spare <= without)
	}
	const found = new Map<string, Shortfall>()
	for (const athlete of athletes) {
		const sum = emptyCount()
		for (const line of lines.get(athlete.id)!.values())
			if (line.blocked === null) addInto(sum, countOf(line, athlete, library))
		const planned = quantitiesOf(sum)
		for (const quantity of QUANTITIES) {
			const asked = targetOf(quantity, athlete.levelOf(QUALITY_OF[quantity]), target)
			if (planned[quantity] >= asked - Math.max(asked * TARGET_TOLERANCE, WHOLE_EVENT)) continue
			const why =
				isLeftOut(quantity) ||
				planned[quantity] >= asked * scales[quantity] - Math.max(asked * TARGET_TOLERANCE, WHOLE_EVENT)
					? 'the minutes'
					: heldBy(quantity, looked, athlete, lines, library)
			const key = `${quantity}/${why}`
			const shortfall = found.get(key) ?? { quantity, why, athletes: [] }
			shortfall.athletes.push({ id: athlete.id, planned: planned[quantity], target: asked })
			found.set(key, shortfall)
		}
	}
	return [...found.values()].sort((a, b) => b.athletes.length - a.athletes.length)
}

const NO_NEARER = 'no whole dose comes nearer'
/** What keeps an athlete's lines for a quantity small: what closed or cut one, the last that did. */
function heldBy(
	quantity: Quantity,
	entries: readonly SheetEntry[],
	athlete: LimitedAthlete,
	lines: Built['lines'],
	library: Library,
): string {
	const own = entries.filter(
		(entry) => entry.tuning?.fill?.quantity === quantity || entry.family === QUALITY_OF[quantity],
	)
	for (const entry of [...own].reverse()) {
		const line = lines.get(athlete.id)!.get(entry.id)!
		const cap = entry.tuning?.caps?.[athlete.id]
		// What is cut at the target is nearer to it than one more would be.
		if (cap) return cap.why === TARGET_REACHED ? NO_NEARER : cap.why
		if (line.blocked !== null) return line.blocked
		if (entry.tuning?.fill && quantitiesOf(countOf(line, athlete, library))[quantity] === 0)
			return `${library.drills[line.drillId]!.name.toLowerCase()} stands in`
	}
	return own.length === 0 ? 'nobody can do any of it here' : NO_NEARER
}

// What a session is made of

function piecesOf(request: BuildRequest): Piece[] {
	const {
		target: { role },
	} = request
	const maker = new Maker(request)
	const { themes } = request.context.library
	const theme = request.target.theme?.role === role ? request.target.theme : themeOn(themes, { role })
	return theme === null
		? []
		: maker.theme(role === 'hard' && theme.main === null ? forEverything(theme, request) : theme)
}

/**
 * A day for everything a little goes by the block: its priority comes first, throws stay last, because many of them
 * tire, and the ladders it drives on come in beside what else there is of their quality.
 */
function forEverything(theme: Theme, { target: { priority }, priorityLadders, context }: BuildRequest): Theme {
	const there = new Set(theme.pieces.flatMap((piece) => ('ladderId' in piece ? [piece.ladderId] : [])))
	const driven = priorityLadders.flatMap((ladderId): LadderPiece[] => {
		const ladder = context.library.ladders[ladderId]
		const quantity = QUANTITIES.find((one) => QUALITY_OF[one] === ladder?.family)
		return !ladder || !quantity || there.has(ladder.id) ? [] : [{ part: ladder.name, ladderId: ladder.id, quantity }]
	})
	const qualityOf = (piece: ThemePiece) => ('quantity' in piece && piece.quantity ? QUALITY_OF[piece.quantity] : null)
	const rank = (piece: ThemePiece) => {
		const quality = qualityOf(piece)
		return quality === 'throw' ? 2 : quality !== null && quality === priority ? 0 : 1
	}
	// What tops up comes after the ladders of its quality.
	const pieces = driven.reduce<ThemePiece[]>((all, piece) => {
		const at = all.findIndex((one) => 'forms' in one && qualityOf(one) === qualityOf(piece))
		return at < 0 ? [...all, piece] : [...all.slice(0, at), piece, ...all.slice(at)]
	}, theme.pieces)
	return { ...theme, pieces: [...pieces].sort((a, b) => rank(a) - rank(b)) }
}

type Options = {
	quantity?: Quantity
	spare?: 1 | 2
	/** Of the rung's dose, where a piece only keeps what it is of. */
	doseShare?: number
	dose?: Dose
	parameters?: Parameters
	rest?: Rest
	tuning?: EntryTuning
}

/** Makes pieces; null for what the library or the kit does not hold. */
class Maker {
	private made = 0
	private readonly library: Library
	constructor(private readonly request: BuildRequest) {
		this.library = request.context.library
	}

	drill(part: string, drillId: string, options: Options = {}): Piece | null {
		const drill = this.library.drills[drillId]
		if (!drill || !this.hasKit(drill)) return null
		const { dose, rest, parameters } = drill.defaults
		return this.piece(part, drill, drill.family, null, {
			dose,
			rest,
			parameters,
			...options,
		})
	}

	ladder(part: string, ladderId: string, options: Options = {}): Piece | null {
		const ladder = this.library.ladders[ladderId]
		const drill = this.library.drills[ladder?.rungs[0]?.drillId ?? '']
		if (!ladder || !drill) return null
		const { dose, rest } = drill.defaults
		return this.piece(part, drill, ladder.family, ladder.id, {
			dose,
			rest,
			parameters: {},
			...options,
		})
	}

	/** What the ground leaves for a start and the way to slow down behind it. */
	private get mostRun(): { mostM?: number } {
		const { roomM = null } = this.request.context
		return roomM === null ? {} : { mostM: Math.max(1, roomM - RUN_OUT_M) }
	}

	/** Which of several forms of a level has its week; the first always where the school keeps to one. */
	private get turn(): number {
		const { school, day } = this.request.context
		return school.choices.variety === 'rotate' ? Math.floor(daysBetween(A_MONDAY, day) / 7) : 0
	}

	/** A drill in a form for each level, dosed up to the target. */
	private fill(name: string, quantity: Quantity, forms: FilledPiece['forms'], share: number): Piece | null {
		const variants: Partial<Record<Level, Variant>> = {}
		for (const level of LEVELS) {
			const able = forms.flatMap((form) => {
				const drill = form.level === level ? this.library.drills[form.drillId] : undefined
				return drill && this.hasKit(drill) ? [drill] : []
			})
			const drill = able[this.turn % able.length]
			if (!drill) continue
			const { dose, rest, parameters } = drill.defaults
			variants[level] = { drillId: drill.id, dose, parameters, rest }
		}
		const [first] = Object.values(variants)
		const drill = first && this.library.drills[first.drillId]
		if (!drill) return null
		return this.piece(name, drill, QUALITY_OF[quantity], null, {
			...first,
			quantity,
			tuning: {
				variants,
				fill: { quantity, targets: targetsByLevel(quantity, this.request.target), part: share, ...this.mostRun },
			},
		})
	}

	/** A piece of a recipe that is no filled one; its quantity counts where the piece is there for it. */
	fixed(piece: LadderPiece | DrillPiece, options: Options = {}): Piece | null {
		if ('drillId' in piece) {
			const { dose, parameters, rest, quantity } = piece
			return this.drill(piece.part, piece.drillId, {
				...(quantity ? { quantity } : {}),
				...(dose ? { dose } : {}),
				...(parameters ? { parameters } : {}),
				...(rest ? { rest } : {}),
				...options,
			})
		}
		return this.ladder(piece.part, piece.ladderId, {
			...(piece.quantity === null ? {} : { quantity: piece.quantity }),
			...options,
		})
	}

	/** A recipe's own pieces between what prepares and what closes, then what keeps the other qualities. */
	theme({ role, opening, pieces, kept, closing }: Theme): Piece[] {
		return [
			...opening.map((piece) => this.ofTheme(piece, opening, 'ladderId' in piece ? { spare: 2 } : {})),
			...pieces.map((piece) => this.ofTheme(piece, pieces)),
			...kept.map((piece) => this.fixed(piece, { spare: 2, doseShare: KEEPING_DOSE })),
			role === 'hard' ? this.finisher() : null,
			...closing.map((piece) => this.ofTheme(piece, closing)),
		].flatMap((piece) => piece ?? [])
	}
	/** The hard part the school wants at the end: the first to go when minutes are short. */
	finisher(): Piece | null {
		const piece = FINISHERS[this.request.context.school.choices.finisher]
		return piece && this.fixed(piece, { spare: 1 })
	}
	private ofTheme(piece: ThemePiece, among: readonly ThemePiece[], options: Options = {}): Piece | null {
		if (!('forms' in piece)) return this.fixed(piece, options)
		// Of what is left to the target each takes its part, the last all of it.
		const stillToCome = among
			.slice(among.indexOf(piece))
			.filter((other) => 'forms' in other && other.quantity === piece.quantity).length
		return this.fill(piece.part, piece.quantity, piece.forms, 1 / stillToCome)
	}
	private hasKit(drill: Drill): boolean {
		const { kit } = this.request.context
		return kit === null || drill.kit.every((one) => kit.has(one))
	}
	private piece(
		part: string,
		drill: Drill,
		family: Family,
		ladderId: string | null,
		{ quantity, spare, doseShare = 1, dose, parameters, rest, tuning }: Options,
	): Piece {
		this.made += 1
		const week =
			family === 'prepare' || family === 'tissue' || this.request.target.role === 'test' ? 1 : this.request.target.share
		return {
			quantity: quantity ?? null,
			...(spare === undefined ? {} : { spare }),
			entry: {
				id: `entry-${this.made}`,
				part,
				family,
				drillId: drill.id,
				ladderId,
				dose: dose!,
				parameters: parameters!,
				rest: rest!,
				doseFactor: Math.max(0.01, Math.round(week * doseShare * 100) / 100),
				tuning: tuning ?? null,
				lanes: 1,
				together: 1,
			},
		}
	}
}

/** "Jumps: 12 athletes stay under 90 contacts because of the minutes." */
export function sayShortfall({ quantity, why, athletes }: Shortfall, nameOf: (id: string) => string): string {
	const [least, most] = [
		Math.min(...athletes.map((one) => one.planned)),
		Math.max(...athletes.map((one) => one.planned)),
	]
	const targets = [...new Set(athletes.map((one) => one.target))].sort((a, b) => a - b)
	const who = athletes.length > 3 ? `${athletes.length} athletes` : athletes.map((one) => nameOf(one.id)).join(', ')
	const quality = QUALITY_NAMES[QUALITY_OF[quantity]]
	return `${quality.charAt(0).toUpperCase()}${quality.slice(1)}: ${who} ${least === most ? least : `${least} to ${most}`} of ${targets.join(' or ')}: ${why}.`
}

/**
 * All that did not fit in one line: of how many, and what holds most of it.
 *
 * @example "sprint for 8, jumps for 3; mostly: the minutes."
 */
export function sayShortfalls(shortfalls: readonly Shortfall[]): string {
	const short = QUALITIES.flatMap((quality) => {
		const ids = new Set(
			shortfalls
				.filter(({ quantity }) => QUALITY_OF[quantity] === quality)
				.flatMap(({ athletes }) => athletes.map(({ id }) => id)),
		)
		return ids.size === 0 ? [] : [`${QUALITY_NAMES[quality]} for ${ids.size}`]
	})
	const causes = new Map<string, number>()
	for (const { why, athletes } of shortfalls) causes.set(why, (causes.get(why) ?? 0) + athletes.length)
	const [most] = [...causes].sort((a, b) => b[1] - a[1])
	if (!most) return ''
	return `${short.join(', ')}; ${causes.size === 1 ? most[0] : `mostly: ${most[0]}`}.`
}
