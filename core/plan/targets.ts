import { type DoseCount, cutsOf, metresOf, rangedContacts, totalOf } from '../dose/dose-count'
import { LOAD } from '../dose/line-load'
import { type Range, SESSION_RANGES } from '../dose/level-ranges'
import type { Level, Phase, Quality, Surface } from '../vocabulary/words'
import { QUALITY_OF, type Quantity } from '../vocabulary/entry'
import type { DayRole } from '../vocabulary/session'
import type { Theme } from '../vocabulary/theme'
import { KEPT_SHARE } from '../judge/effective-dose'
import { KEEPING_SHARE, SECOND_SHARE } from './themes'
import { HARD_GROUND, HARD_GROUND_SHARE } from './hard-ground'

export const QUANTITY_NAMES: Record<Quantity, string> = {
	contacts: 'contacts',
	fastMetres: 'm fast',
	cuts60: 'cuts of 60° and more',
	throws: 'throws',
}

export const QUALITY_NAMES: Record<Quality, string> = {
	sprint: 'sprint',
	plyometric: 'jumps',
	agility: 'agility',
	throw: 'throws',
}

export interface TargetRequest {
	/** Share of the heaviest week, above 0 to 1. */
	share: number
	phase: Phase
	role: DayRole
	/** What the block drives on; null when nothing stands out. */
	priority: Quality | null
	/** What the block only keeps. */
	kept: readonly Quality[]
	surface: Surface | null
	/** What a hard day is for; without one every quality gets its part of it. */
	theme?: Theme | null
}

/** What a day is about, where it is about something. */
export const aboutOf = ({ role, theme = null }: Pick<TargetRequest, 'role' | 'theme'>): Theme | null =>
	theme?.role === role && theme.main !== null ? theme : null

/** Contacts fall while the class rises [our setting]. */
const PHASE_CONTACTS: Record<Phase, number> = { accumulate: 1, intensify: 0.75, peaking: 0.6, unloading: 1 }
/** An unloading session has at most this share of a full one, whatever its week says [our setting]. */
const UNLOADING_MOST = 0.6
/** A light day's contacts against a hard one's [our setting]. */
const LIGHT_SHARE = 0.5
/** Metres are run in tens. */
const WHOLE_M = 10

export const rangeOf = (quantity: Quantity, level: Level): Range => SESSION_RANGES[level][quantity]

/** The most a session may hold for a level: the upper end of the range, contacts less on hard ground. */
export function mostOf(quantity: Quantity, level: Level, surface: Surface | null): number {
	const { high } = rangeOf(quantity, level)
	return quantity === 'contacts' && surface !== null && HARD_GROUND.includes(surface)
		? Math.floor(high * HARD_GROUND_SHARE)
		: high
}

/**
 * What a session should cost an athlete of a level: the middle of the level's range, its upper end for the
 * priority, two thirds of the middle for what is only kept, times the week's share [our setting; ranges as they say].
 * A recipe that asks less than a full day gets its share of it. Of a day with a theme its main quality gets the upper end, its second two thirds of the middle, and the rest what
 * keeps it.
 *
 * @returns contacts, metres (whole tens), cuts or throws; never above the level's range
 * @throws RangeError for a share outside 0 to 1
 * @example targetOf('contacts', 1, { share: 1, phase: 'accumulate', role: 'hard', priority: 'plyometric', kept: [], surface: null }) // 100
 */
export function targetOf(
	quantity: Quantity,
	level: Level,
	{ share, phase, role, priority, kept, surface, theme = null }: TargetRequest,
): number {
	if (!(share > 0 && share <= 1)) throw new RangeError(`share: ${share} is not above 0 and at most 1`)
	if (role === 'tissue' || role === 'test') return 0
	if (role === 'light' && (quantity === 'fastMetres' || quantity === 'cuts60')) return 0
	const { low, high } = rangeOf(quantity, level)
	const quality = QUALITY_OF[quantity]
	const middle = (low + high) / 2
	const day = aboutOf({ role, theme })
	const whole = day
		? day.main === quality
			? high
			: middle * (day.second === quality ? SECOND_SHARE : KEEPING_SHARE)
		: priority === quality
			? high
			: kept.includes(quality)
				? middle * KEPT_SHARE
				: middle
	const week =
		(phase === 'unloading' ? Math.min(share, UNLOADING_MOST) : share) * (theme?.role === role ? (theme.share ?? 1) : 1)
	const own =
		whole * week * (quantity === 'contacts' ? PHASE_CONTACTS[phase] * (role === 'light' ? LIGHT_SHARE : 1) : 1)
	const ground =
		quantity === 'contacts' && surface !== null && HARD_GROUND.includes(surface) ? own * HARD_GROUND_SHARE : own
	return quantity === 'fastMetres' ? Math.round(ground / WHOLE_M) * WHOLE_M : Math.round(ground)
}

/** How much of each quantity a count holds. */
export const quantitiesOf = (count: DoseCount): Record<Quantity, number> => ({
	contacts: totalOf(rangedContacts(count)),
	fastMetres: metresOf(count, ['fast', 'maximal']),
	cuts60: cutsOf(count, ['60-90', '90-135', '135-180']),
	throws: totalOf(count.throws),
})

/** Where a load holds each quantity. */
export const QUANTITY_AT: Record<Quantity, number> = {
	contacts: LOAD.contacts,
	fastMetres: LOAD.fastMetres,
	cuts60: LOAD.cuts60,
	throws: LOAD.throws,
}

/** Targets of all levels, as an entry that tops the session up carries them. */
export const targetsByLevel = (quantity: Quantity, request: TargetRequest): Record<Level, number> => ({
	1: targetOf(quantity, 1, request),
	2: targetOf(quantity, 2, request),
	3: targetOf(quantity, 3, request),
})
