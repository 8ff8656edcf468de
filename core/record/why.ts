import { median } from 'simple-statistics'
import { type Day, daysBetween } from '../calendar/day-count'
import { shortDay } from '../calendar/say-day'
import { WORK_KIND_NAMES } from '../dose/work-kinds'
import { OUTSIDE_NAMES, type OutsideKind } from '../judge/outside-load'
import { betterOf } from '../marks/keep-session'
import { dropOffPercent } from '../noise/drop-off'
import { bestStretches } from '../noise/one-more'
import type { MarkKind } from '../noise/typical-error'
import { AWAY_DAYS } from '../rules/p9-time-away'
import { GRACE_H } from '../rules/spacing'
import { ordinal, writeMark } from '../words/write-numbers'
import { writeClock } from '../words/rests'
import type { WorkKind } from '../vocabulary/words'

/** What may have made a day worse or better than usual. */
export const FLAT_CAUSES = [
	'past-best',
	'new-things',
	'spacing',
	'match',
	'ramp',
	'first-day-back',
	'unwell',
	'short-rests',
	'aided-before',
	'wind',
	'gym',
] as const
export const GOOD_CAUSES = ['unloading', 'fresh', 'aided-before', 'wind', 'improving'] as const
export type FlatCause = (typeof FLAT_CAUSES)[number]
export type GoodCause = (typeof GOOD_CAUSES)[number]
export type CauseId = FlatCause | GoodCause

/** What coaches call them, as they are listed when nothing of the kind was found. */
export const CAUSE_NAMES: Record<CauseId, string> = {
	'past-best': 'reps past the best',
	'new-things': 'two new hard things',
	spacing: 'hard days too close',
	match: 'match',
	ramp: 'the week’s ramp',
	'first-day-back': 'first day back',
	unwell: 'illness',
	'short-rests': 'short rests',
	'aided-before': 'carried or assisted work before',
	wind: 'wind',
	gym: 'heavy or new gym work',
	unloading: 'an unloading week',
	fresh: 'days without hard work',
	improving: 'getting better',
}

/** What is known around a session of one athlete. Null is not known; an empty list is known to be none. */
export interface Around {
	day: Day
	/** Reps past the best in the session before, oldest first from the best on; hours between the starts. */
	past: { what: string; kind: MarkKind; marks: readonly number[]; hoursAgo: number } | null
	/** Hard things done for the first time before it, hours between the starts. */
	newHard: readonly { name: string; hoursAgo: number }[]
	/** The nearest earlier day of hard work of a kind that this day had too, and what the school asks. */
	spacing: { kind: WorkKind; hours: number; askedH: number } | null
	/** Outside work before it, hours from its end. */
	outside: readonly {
		kind: OutsideKind
		hoursAgo: number
		minutes: number
		rpe: number | null
		words?: string
		heavy?: boolean
	}[]
	/** What the week had come to before this day, where a limit is known. */
	ramp: readonly { name: string; done: number; limit: number }[]
	/** Days since any counted work before this one. */
	awayDays: number | null
	/** The last illness: from when, and the first day well again. */
	unwell: { since: Day; until: Day | null } | null
	/** Between reps of this day, by the clock, medians. */
	rests: { askedS: number; tookS: number } | null
	/** Carried or assisted work earlier in the same session, minutes before the reps that are looked at. */
	aidedBefore: { what: string; minutes: number } | null
	/** Over the straight of the sprints, tail positive, mean of the day; null when nobody said. */
	windMps: number | null
	/** An unloading week just before, or now. */
	unloading: boolean
	/** Hours since any hard work, outside too. */
	hoursSinceHard: number | null
	/** The last sessions are better than those before, beyond noise. */
	improving: string | null
}

export interface Cause {
	id: CauseId
	title: string
	evidence: string
	/** Rank only: how much of it there was times how often such a thing is one, 0–1. */
	weight: number
}

/** A match no longer explains a day after so many hours; reps past the best, after so many [our setting]. */
const MATCH_H = 48
const PAST_H = 120
const NEW_H = 72
const GYM_H = 48
/** Days after an illness that still count [our setting]. */
const AFTER_ILLNESS_DAYS = 7
/** Shorter than this share of what is asked is a short rest; wind over this is felt [our setting; 1 m/s common practice]. */
const SHORT_REST = 0.75
const WIND_MPS = 1
/** Minutes in which work before is still in the legs. */
const AIDED_MIN = 60
/** Hours without hard work after which somebody is fresh. */
const FRESH_H = 90
/** How often such a thing is one, when there is enough of it [our setting]: for the order alone. */
const OFTEN: Record<CauseId, number> = {
	unwell: 1,
	'first-day-back': 0.95,
	match: 0.9,
	'past-best': 0.85,
	'new-things': 0.8,
	'short-rests': 0.8,
	spacing: 0.75,
	wind: 0.75,
	ramp: 0.7,
	gym: 0.7,
	'aided-before': 0.6,
	unloading: 0.9,
	improving: 0.8,
	fresh: 0.7,
}
const between = (value: number): number => Math.max(0, Math.min(1, value))
/** Half for just enough, one for plenty. */
const half = (share: number): number => 0.5 + between(share) / 2

type Found = { title: string; evidence: string; strength: number } | null
const hours = (value: number): string => `${Math.round(value)} h`

const FLAT: Record<FlatCause, (around: Around) => Found> = {
	'past-best': ({ past }) => {
		if (!past || past.hoursAgo > PAST_H || past.marks.length < 2) return null
		const over = past.marks.length - 1
		return {
			title: `${over === 1 ? 'One rep' : over === 2 ? 'Two reps' : `${over} reps`} past the best the last time`,
			evidence: `${past.what}: ${past.marks.map((value) => writeMark({ kind: past.kind, value })).join(', then ')}`,
			strength: half((over - 1) / 3),
		}
	},
	'new-things': ({ newHard }) => {
		const recent = newHard.filter(({ hoursAgo }) => hoursAgo > 0 && hoursAgo <= NEW_H)
		return recent.length < 2
			? null
			: {
					title: `${recent.length === 2 ? 'Two' : recent.length} new hard things within 72 h`,
					evidence: recent.map(({ name, hoursAgo }) => `${name}, ${hours(hoursAgo)} before`).join('; '),
					strength: half((recent.length - 1) / 2),
				}
	},
	spacing: ({ spacing }) =>
		spacing && spacing.hours < spacing.askedH - GRACE_H
			? {
					title: 'Hard days closer than the school asks',
					evidence: `${WORK_KIND_NAMES[spacing.kind]} ${hours(spacing.hours)} before; asked are ${hours(spacing.askedH)}`,
					strength: half(1 - spacing.hours / (spacing.askedH - GRACE_H)),
				}
			: null,
	match: ({ outside }) => {
		const played = outside
			.filter(({ kind, hoursAgo }) => (kind === 'match' || kind === 'tournament') && hoursAgo <= MATCH_H)
			.sort((a, b) => a.hoursAgo - b.hoursAgo)[0]
		return played
			? {
					title: `${OUTSIDE_NAMES[played.kind]} ${hours(played.hoursAgo)} before`,
					evidence: [`${played.minutes} minutes`, ...(played.rpe === null ? [] : [`effort ${played.rpe}`])].join(', '),
					strength: half(1 - played.hoursAgo / MATCH_H),
				}
			: null
	},
	ramp: ({ ramp }) => {
		const over = ramp.filter(({ done, limit }) => done > limit).sort((a, b) => b.done / b.limit - a.done / a.limit)[0]
		return over
			? {
					title: 'A big week already',
					evidence: `${Math.round(over.done)} ${over.name} in seven days; ${Math.floor(over.limit)} was the limit`,
					strength: half((over.done / over.limit - 1) / 0.5),
				}
			: null
	},
	'first-day-back': ({ awayDays }) =>
		awayDays !== null && awayDays > AWAY_DAYS.none
			? {
					title: 'First day back',
					evidence: `${awayDays} days without such work`,
					strength: half((awayDays - AWAY_DAYS.none) / 14),
				}
			: null,
	unwell: ({ unwell, day }) => {
		if (!unwell || unwell.since > day) return null
		const well = unwell.until === null || unwell.until > day ? 0 : daysBetween(unwell.until, day)
		return well > AFTER_ILLNESS_DAYS
			? null
			: {
					title: well === 0 ? 'Unwell' : 'Just well again',
					evidence:
						unwell.until === null || unwell.until > day
							? `since ${shortDay(unwell.since)}`
							: `from ${shortDay(unwell.since)}, well from ${shortDay(unwell.until)}`,
					strength: half(1 - well / AFTER_ILLNESS_DAYS),
				}
	},
	'short-rests': ({ rests }) =>
		rests && rests.tookS < SHORT_REST * rests.askedS
			? {
					title: 'Short rests',
					evidence: `${writeClock(rests.tookS)} between reps by the clock, ${writeClock(rests.askedS)} asked`,
					strength: half((SHORT_REST - rests.tookS / rests.askedS) / 0.5),
				}
			: null,
	'aided-before': ({ aidedBefore }) =>
		aidedBefore && aidedBefore.minutes <= AIDED_MIN
			? {
					title: 'Carried or assisted work before',
					evidence: `${aidedBefore.what}, ${Math.round(aidedBefore.minutes)} min before`,
					strength: half(1 - aidedBefore.minutes / AIDED_MIN),
				}
			: null,
	wind: ({ windMps }) =>
		windMps !== null && windMps <= -WIND_MPS
			? { title: 'Head wind', evidence: `${(-windMps).toFixed(1)} m/s`, strength: half((-windMps - WIND_MPS) / 3) }
			: null,
	gym: ({ outside }) => {
		const lifted = outside
			.filter(({ kind, hoursAgo, heavy }) => kind === 'gym' && heavy === true && hoursAgo <= GYM_H)
			.sort((a, b) => a.hoursAgo - b.hoursAgo)[0]
		return lifted
			? {
					title: 'Heavy or new gym work',
					evidence: `${lifted.words ?? 'gym'}, ${hours(lifted.hoursAgo)} before`,
					strength: half(1 - lifted.hoursAgo / GYM_H),
				}
			: null
	},
}

const GOOD: Record<GoodCause, (around: Around) => Found> = {
	unloading: ({ unloading }) =>
		unloading ? { title: 'After an unloading week', evidence: 'less was done on purpose', strength: 1 } : null,
	fresh: ({ hoursSinceHard, awayDays }) =>
		hoursSinceHard !== null && hoursSinceHard >= FRESH_H && (awayDays === null || awayDays <= AWAY_DAYS.none)
			? {
					title: 'Days without hard work',
					evidence: `${Math.round(hoursSinceHard / 24)} days since anything hard`,
					strength: half((hoursSinceHard - FRESH_H) / 72),
				}
			: null,
	'aided-before': ({ aidedBefore }) => {
		const found = FLAT['aided-before']({ aidedBefore } as Around)
		return found && { ...found, title: 'Heavy or assisted work before' }
	},
	wind: ({ windMps }) =>
		windMps !== null && windMps >= WIND_MPS
			? { title: 'Tail wind', evidence: `${windMps.toFixed(1)} m/s`, strength: half((windMps - WIND_MPS) / 3) }
			: null,
	improving: ({ improving }) =>
		improving === null
			? null
			: { title: 'Getting better', evidence: `${improving}: the usual lags behind`, strength: 0.75 },
}

/** What was not looked for because nobody logged it. */
const UNKNOWN: Partial<Record<CauseId, (around: Around) => boolean>> = {
	'short-rests': ({ rests }) => rests === null,
	wind: ({ windMps }) => windMps === null,
	'first-day-back': ({ awayDays }) => awayDays === null,
	fresh: ({ hoursSinceHard }) => hoursSinceHard === null,
}

export interface Why {
	/** Likeliest first; empty when nothing is known. */
	causes: Cause[]
	/** Looked for, and not there. */
	notFound: string[]
	/** Not logged, so not known. */
	notKnown: string[]
}

/**
 * What may have made a day flat, or good, of what is known around it: ranked, each with its evidence. More than that is
 * never said; what it was, the coach says.
 *
 * @param ticked causes the coach named for earlier days of this athlete
 */
export function whyOf(which: 'flat' | 'good', around: Around, ticked: readonly { cause: CauseId }[] = []): Why {
	const looks = (which === 'flat' ? FLAT : GOOD) as Partial<Record<CauseId, (around: Around) => Found>>
	const ids = (which === 'flat' ? FLAT_CAUSES : GOOD_CAUSES) as readonly CauseId[]
	const causes: Cause[] = []
	const notFound: string[] = []
	const notKnown: string[] = []
	for (const id of ids) {
		const found = looks[id]!(around)
		if (!found) {
			;(UNKNOWN[id]?.(around) === true ? notKnown : notFound).push(CAUSE_NAMES[id])
			continue
		}
		const times = ticked.filter(({ cause }) => cause === id).length
		causes.push({
			id,
			title: found.title,
			evidence: times === 0 ? found.evidence : `${found.evidence}; ${ordinal(times + 1)} time for this athlete`,
			// What it was before is likelier again, without drowning what is plainly there.
			weight: OFTEN[id] * found.strength * (1 + 0.1 * Math.min(times, 3)),
		})
	}
	return { causes: causes.sort((a, b) => b.weight - a.weight), notFound, notKnown }
}

/** The last rep is so many standard errors off the best stretch before it [our setting]. */
const PAST_ERRORS = 3
/** So many reps at the end may have fallen together. */
const FALLEN = 3
/** Falls that matter, percent: as everywhere. */
const PAST_PERCENT: Record<MarkKind, number> = { sprint: 3, contact: 5, height: 5, distance: 5 }

/**
 * Reps past the best: whether a line's last rep fell off its best stretch of up to four reps beyond the limit and beyond
 * what its method errs. Weaker than a stop, which costs a rep that may be good: this only explains a later day.
 *
 * @param marks of one key in order, above 0
 * @param typicalError of one rep, in the mark's unit; null when the method has none
 * @returns the marks from the best on, or null
 */
export function pastBestOf(marks: readonly number[], kind: MarkKind, typicalError: number | null): number[] | null {
	if (typicalError === null || marks.length < 3) return null
	const better = betterOf(kind)
	const last = marks.at(-1)!
	// One rep, two or three may have been past it: what fell is no part of what it fell from.
	const stretches = bestStretches(marks.slice(0, -1), better).slice(1).slice(-FALLEN)
	const fell = stretches.some((stretch) => {
		const off = dropOffPercent(last, stretch.mean, better)
		const error = (100 * typicalError * Math.sqrt(1 + 1 / stretch.reps)) / stretch.mean
		return off >= PAST_PERCENT[kind] - 1e-9 && off >= PAST_ERRORS * error
	})
	if (!fell) return null
	const best = better === 'lower' ? Math.min(...marks) : Math.max(...marks)
	const from = marks.lastIndexOf(best)
	// A best that lies far back: only the reps at the end that were past the limit are told.
	const isPast = (value: number) => dropOffPercent(value, best, better) >= PAST_PERCENT[kind] / 2 - 1e-9
	let first = marks.length - 1
	while (first - 1 > from && isPast(marks[first - 1]!)) first--
	return [best, ...marks.slice(first)]
}

/** Median of what lay between reps, seconds; null with fewer than three gaps. @param times of one line's reps in order, ms */
export function medianGapS(times: readonly number[]): number | null {
	const gaps = times.slice(1).map((time, index) => (time - times[index]!) / 1000)
	if (gaps.length < 3) return null
	return median(gaps)
}
