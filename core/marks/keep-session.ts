import type { Better } from '../noise/drop-off'
import { readStop } from '../noise/one-more'
import { type MarkKind, typicalErrorOf } from '../noise/typical-error'
import { type SessionMean, sessionMeanOf } from '../noise/usual'
import type { Day } from '../calendar/day-count'
import type { Aid, CarriedLoad, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Mark } from '../vocabulary/events'
import type { Family, Level, Method, Surface } from '../vocabulary/words'
import { isBelowFull, markKey } from './mark-key'
import { plausibility } from './plausible'

export const MARK_KINDS = ['sprint', 'contact', 'height', 'distance'] as const satisfies readonly MarkKind[]

/** Marks with a number have a key; ticks and missed reps have none. */
export const hasNumber = (kind: string): boolean =>
	kind === 'release' || (MARK_KINDS as readonly string[]).includes(kind)

/** A time or a contact is better when lower, a height or a distance when higher. */
export const betterOf = (kind: MarkKind): Better => (kind === 'sprint' || kind === 'contact' ? 'lower' : 'higher')

/** The one number a mark is compared by: s for sprint and contact, m for height and distance; null for a tick and a missed rep. */
export function measuredOf(mark: Mark): { kind: MarkKind; value: number; method: Method; distanceM?: number } | null {
	if (mark.kind === 'sprint') {
		const last = mark.value.splits.at(-1)
		return last ? { kind: 'sprint', value: last.timeS, method: mark.value.method, distanceM: last.distanceM } : null
	}
	if (mark.kind === 'contact') return { kind: 'contact', value: mark.value.contactS, method: mark.value.method }
	if (mark.kind === 'height') return { kind: 'height', value: mark.value.heightM, method: mark.value.method }
	if (mark.kind === 'distance') return { kind: 'distance', value: mark.value.distanceM, method: mark.value.method }
	return null
}

/** What a mark was made on: the line's drill and plan, or the piece's of a complex. */
export interface MadeOn {
	drill: Drill
	parameters: Parameters
	carried?: CarriedLoad | null | undefined
	aid?: Aid | null | undefined
}
/** The key of a mark on a session's ground; null where nothing was measured. */
export function keyOfMark(mark: Mark, on: MadeOn, surface: Surface | null): string | null {
	if (mark.kind === 'release')
		return markKey(on.drill, on.parameters, { kind: 'release', method: mark.value.method, side: mark.side, surface })
	const measured = measuredOf(mark)
	if (!measured) return null
	const parameters =
		measured.distanceM === undefined ? on.parameters : { ...on.parameters, distanceM: measured.distanceM }
	return markKey(on.drill, parameters, {
		kind: measured.kind,
		method: measured.method,
		side: mark.side,
		surface,
		carried: mark.carried ?? on.carried,
		aid: on.aid,
	})
}

export interface Stamp {
	key: string
	/** Cannot be, and nobody has said that it is: no evidence, no best, no reference. */
	setAside: boolean
}
export interface KeptSession {
	stamps: Map<string, Stamp>
	/** By key. */
	means: Map<string, SessionMean>
}

/** Means sorted by their keys. */
export function byKey<T extends SessionMean & { key: string }>(means: readonly T[]): Map<string, T[]> {
	const sorted = new Map<string, T[]>()
	for (const one of means) {
		const known = sorted.get(one.key)
		if (known) known.push(one)
		else sorted.set(one.key, [one])
	}
	return sorted
}

/** Falls after which a rep is a tired one, percent: as the passes of page and ladder ask. */
const TIRED_PERCENT: Record<MarkKind, number> = { sprint: 3, contact: 5, height: 5, distance: 5 }

/** Own marks as far as they are kept: every session's mean as often as it had reps. */
export const historyOf = (means: readonly SessionMean[]): number[] =>
	means.flatMap((one) => Array.from({ length: one.n }, () => one.mean))

/**
 * What one athlete's marks of one session come to, made whole each time: the key of each, what is set aside,
 * and the mean of each key without what is set aside and without reps after a stop.
 *
 * @param marks as they stand, in the order of the reps
 * @param before sessions kept by key before that day
 */
export function keepSession(
	session: { day: Day; surface: Surface | null; unloading: boolean },
	marks: readonly { mark: Mark; on: MadeOn }[],
	before: (key: string) => readonly SessionMean[],
	athlete: { levelOf: (family: Family) => Level; isFirstDayBack: (family: Family) => boolean },
): KeptSession {
	const stamps = new Map<string, Stamp>()
	const byKey = new Map<string, { kind: MarkKind; method: Method; family: Family; values: number[] }>()
	for (const { mark, on } of marks) {
		const key = keyOfMark(mark, on, session.surface)
		if (key === null) continue
		const measured = measuredOf(mark)
		const can =
			measured === null ||
			mark.kept === true ||
			plausibility(
				measured.kind,
				on.drill,
				measured.distanceM === undefined ? on.parameters : { ...on.parameters, distanceM: measured.distanceM },
				measured.value,
				historyOf(before(key)),
				athlete.levelOf(on.drill.family),
			).outcome === 'plausible'
		stamps.set(mark.id, { key, setAside: !can })
		if (!can || measured === null) continue
		const known = byKey.get(key)
		if (known) known.values.push(measured.value)
		else
			byKey.set(key, {
				kind: measured.kind,
				method: measured.method,
				family: on.drill.family,
				values: [measured.value],
			})
	}
	const means = new Map<string, SessionMean>()
	for (const [key, { kind, method, family, values }] of byKey) {
		const better = betterOf(kind)
		const stop = isBelowFull(key)
			? null
			: readStop(values, better, TIRED_PERCENT[kind], typicalErrorOf(kind, method), method)
		const unusual = session.unloading || athlete.isFirstDayBack(family)
		const one = sessionMeanOf(
			{ day: session.day, ...(unusual ? { unusual } : {}) },
			values.slice(0, stop?.stopAfter ?? values.length),
			better,
		)
		if (one) means.set(key, one)
	}
	return { stamps, means }
}
