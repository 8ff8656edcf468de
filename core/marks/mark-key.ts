import type { Aid, CarriedLoad, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Leg, Method, Start, Surface } from '../vocabulary/words'

/** Raised whenever the same mark gets another key: what is stored is then keyed anew. */
export const KEY_VERSION = 1

/** How a mark was taken, beside the drill and its parameters. */
export interface Taken {
	kind: 'sprint' | 'contact' | 'height' | 'distance' | 'release'
	method: Method | 'ball-sensor'
	/** Where it is not the drill's own. */
	start?: Start | undefined
	/** The leg of a jump or cut, the side of a throw. */
	side?: Leg | undefined
	/** The foot or feet of a take-off after an approach. */
	plant?: Leg | 'both' | undefined
	surface?: Surface | null | undefined
	carried?: CarriedLoad | null | undefined
	aid?: Aid | null | undefined
}

const NONE = '-'
/**
 * Surfaces that feel alike are one: a coach who does not say is one more class, compared with itself. Throws do not
 * ask what is under foot.
 */
const SURFACE_CLASS: Record<Surface, string> = {
	grass: 'grass',
	'wet-grass': 'wet',
	track: 'track',
	'hard-court': 'hard',
	gravel: 'gravel',
	indoor: 'indoor',
}

/** How a key names a ground. */
export const surfaceClass = (surface: Surface | null | undefined): string => (surface ? SURFACE_CLASS[surface] : NONE)

/** From here on a run counts as one at full effort [our setting]. */
export const FULL_EFFORT_PERCENT = 98

const PARTS = ['drill', 'start', 'way', 'aid', 'carried', 'effort', 'side', 'surface', 'method'] as const
type Part = (typeof PARTS)[number]
type Parts = Record<Part, string>
export type KeyedDrill = Pick<Drill, 'id' | 'family' | 'start' | 'comparableAs'>

/** Numbers as they are, whatever unit or spelling they came in: 3 and 3.0000001 are one ball. */
const figure = (value: number): string => String(Math.round(value * 1000) / 1000)
const named = (name: string, value: number | undefined): string[] =>
	value === undefined ? [] : [`${name}${figure(value)}`]

function aidOf({ assistPercent, resistPercent }: Parameters, aid: Aid | null | undefined): string {
	const parts = [
		...(assistPercent ? named('pulled', assistPercent) : []),
		...(resistPercent ? named('held', resistPercent) : []),
		...(aid ? [aid.kind, ...named('kg', aid.kg), ...named('set', aid.setting)] : []),
	]
	return parts.length === 0 ? NONE : parts.join('.')
}

function carriedOf({ loadG }: Parameters, carried: CarriedLoad | null | undefined): string {
	if (carried)
		return [
			'g' + figure(carried.grams),
			carried.segment,
			carried.side ?? 'each',
			...named('joint', carried.fromJointCm),
		].join('.')
	return loadG ? `g${figure(loadG)}` : NONE
}

function partsOf(drill: KeyedDrill, parameters: Parameters, taken: Taken): Parts {
	const { effortPercent } = parameters
	const way = [
		...named('d', parameters.distanceM),
		// No run-in is a run-in of nothing.
		...(parameters.runInM ? named('in', parameters.runInM) : []),
		...named('a', parameters.angleDeg),
		...named('r', parameters.radiusM),
		...named('box', parameters.heightCm),
		...(parameters.approachSteps ? named('steps', parameters.approachSteps) : []),
		...named('kg', parameters.ballKg),
	]
	return {
		drill: drill.comparableAs ?? drill.id,
		start: taken.start ?? drill.start ?? NONE,
		way: way.length === 0 ? NONE : way.join('.'),
		aid: aidOf(parameters, taken.aid),
		carried: carriedOf(parameters, taken.carried),
		effort: effortPercent !== undefined && effortPercent < FULL_EFFORT_PERCENT ? figure(effortPercent) : NONE,
		side: [taken.side ?? '', taken.plant ? `plant-${taken.plant}` : ''].filter(Boolean).join('.') || NONE,
		surface: drill.family === 'throw' ? NONE : surfaceClass(taken.surface),
		method: taken.method,
	}
}

const written = (kind: Taken['kind'], parts: Parts): string =>
	[`${KEY_VERSION}`, kind, ...PARTS.map((part) => parts[part])].join('|')

/**
 * What a mark may be compared with: marks of one key, and no others. Made of the drill (or the one it
 * declares itself comparable as), start, distance and run-in, angle, box, approach, ball, aid, load, effort,
 * side, surface and method.
 *
 * @param parameters in the units of their names
 */
export const markKey = (drill: KeyedDrill, parameters: Parameters, taken: Taken): string =>
	written(taken.kind, partsOf(drill, parameters, taken))

/**
 * What a line says of what its marks may be compared with: the key without what each mark says for itself, its kind, side
 * and method.
 *
 * @param parameters in the units of their names
 */
export function lineKey(
	drill: KeyedDrill,
	parameters: Parameters,
	how: Pick<Taken, 'surface' | 'carried' | 'aid'>,
): string {
	const parts = partsOf(drill, parameters, { ...how, kind: 'sprint', method: 'gate' })
	return [
		`${KEY_VERSION}`,
		...PARTS.filter((part) => part !== 'side' && part !== 'method').map((part) => parts[part]),
	].join('|')
}

/** The key with one part another: the only comparisons between keys there are, and always named. */
function withPart(key: string, part: Part, value: string): string {
	const parts = key.split('|')
	parts[2 + PARTS.indexOf(part)] = value
	return parts.join('|')
}
/** The parts of a key as it was written. */
export function partsOfKey(key: string): Parts {
	const written = key.split('|')
	return Object.fromEntries(PARTS.map((part, at) => [part, written[2 + at] ?? NONE])) as Parts
}
/** One of them: of ten thousands of keys that is sooner than all. */
export const partOf = (key: string, part: Part): string => key.split('|')[2 + PARTS.indexOf(part)] ?? NONE

/** What is asked when marks of one day are put together: the key without the side, since each leg has its own. */
export const sidelessKey = (key: string): string => withPart(key, 'side', NONE)
/** The key of the other leg or throwing side; null where no side was said. */
export function otherSideKey(key: string): string | null {
	const side = partOf(key, 'side')
	if (!side.startsWith('left') && !side.startsWith('right')) return null
	return withPart(key, 'side', side.startsWith('left') ? side.replace('left', 'right') : side.replace('right', 'left'))
}
/** Both sides of one thing together: the key without its leg or throwing side; the foot of a take-off stays. */
export const measureOfKey = (key: string): string =>
	withPart(key, 'side', partOf(key, 'side').replace(/^(left|right)(\.|$)/, '') || NONE)
/** The free run an aided or loaded one is held against; null where it is free. */
export function freeKey(key: string): string | null {
	if (partOf(key, 'aid') === NONE && partOf(key, 'carried') === NONE) return null
	return withPart(withPart(key, 'aid', NONE), 'carried', NONE)
}
/** Hand and electronic times convert by a stated difference. */
export function convertedKey(key: string): string | null {
	const method = partOf(key, 'method')
	if (method === 'stopwatch') return withPart(key, 'method', 'gate')
	return method === 'gate' && key.split('|')[1] === 'sprint' ? withPart(key, 'method', 'stopwatch') : null
}
/** The keys a key may be held against, each by its one named difference; its own first. */
export const comparableWith = (key: string): string[] => [
	key,
	...[otherSideKey(key), freeKey(key), convertedKey(key)].filter((one) => one !== null),
]
/** A free run at full effort from the same start, over the same way, by the same method, whatever the drill: what a share of the own speed is a share of. */
export const isFreeRunLike = (key: string, like: string): boolean =>
	key.split('|')[1] === 'sprint' &&
	(['aid', 'carried', 'effort'] as const).every((part) => partOf(key, part) === NONE) &&
	(['start', 'way', 'method'] as const).every((part) => partOf(key, part) === partOf(like, part))
/** Start, metres and method of a free run from a standstill at full effort, as far as a key is one. */
export function plainRun(key: string): { start: string; distanceM: number; method: Method } | null {
	const metres = /^d([0-9.]+)$/.exec(partOf(key, 'way'))
	return metres && isFreeRunLike(key, key)
		? { start: partOf(key, 'start'), distanceM: Number(metres[1]), method: methodOfKey(key) }
		: null
}
/**
 * What the first metres of a plain run may be held against, whatever its distance and method: drill, start and ground.
 * Null for a run that is aided, loaded, below full effort, without a start, with a run-in, turns or a curve, and for what
 * is no run.
 */
export const firstMetresOf = (key: string): string | null =>
	plainRun(key) && partOf(key, 'start') !== NONE
		? (['drill', 'start', 'surface'] as const).map((part) => partOf(key, part)).join('|')
		: null
/** Whether the reps were planned below full effort. */
export const isBelowFull = (key: string): boolean => partOf(key, 'effort') !== NONE
export const methodOfKey = (key: string): Method => partOf(key, 'method') as Method
