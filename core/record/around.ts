import { addTo } from '../lists/group-by'
import { type Day, daysBetween, hoursBetween } from '../calendar/day-count'
import { type DayDose, readRamp } from '../dose/ramp'
import { type OutsideLoad, isHeavyGym, outsideWork, sayLift } from '../judge/outside-load'
import type { MarkKind } from '../noise/typical-error'
import { metFromH } from '../rules/spacing'
import type { Family, Phase, WorkKind } from '../vocabulary/words'
import { type Around, medianGapS, pastBestOf } from './why'

/** A rep of the story: in its session's order. */
export interface StoryMark {
	/** When it was logged on the field, ms; null where it was written afterwards. */
	at: number | null
	lineId: string
	setNo: number
	/** What it may be compared with; null without a number. */
	key: string | null
	kind: MarkKind | null
	/** In the mark's unit. */
	value: number | null
	/** Cannot be, and nobody said that it is. */
	aside: boolean
	/** "Three-point start 20 m" */
	what: string
	/** Kinds of hard work it is. */
	kinds: readonly WorkKind[]
	/** Pulled, assisted or carrying. */
	aided: boolean
	/** Asked before the next one, seconds. */
	restS: number
	/** Of one rep by its method, in its unit; null when the method has none. */
	typicalError: number | null
}
/** A session of one athlete, with what they did in it. */
export interface StorySession {
	id: string
	day: Day
	startTime: string
	phase: Phase
	/** Mean of what was said of the wind over the straight, tail positive; null when nobody said. */
	windMps: number | null
	marks: readonly StoryMark[]
}

/** What else is known of the athlete, whenever it was. */
export interface StoryFacts {
	/** Hours asked between two days of one kind: the most of the athlete's schools. */
	spacingH: number
	outside: readonly OutsideLoad[]
	/** Hard rungs and lifts that were new, by the day. */
	newHard: readonly { day: Day; name: string }[]
	/** What the week is watched by: days done, and the limits of the athlete's level and school. */
	ramp: readonly { name: string; days: readonly DayDose[]; floor: number; percent: number }[]
	/** Last day of work of a family before a day; null when none is on record. */
	lastWork: (family: Family, before: Day) => Day | null
	illnesses: readonly { since: Day; until: Day | null }[]
}

const NEW_DAYS = 3
/** An unloading session within so many days before makes the next one rested. */
const AFTER_UNLOADING_DAYS = 9
/** Gaps shorter than this are no rests: marks that were typed one after the other. */
const TYPED_S = 5

const startOf = ({ day, startTime }: Pick<StorySession, 'day' | 'startTime'>) => ({ day, startTime })
/** From the end of what was done outside to a start; below 0 it is yet to come. */
const hoursSinceEnd = (load: OutsideLoad, at: { day: Day; startTime: string }): number =>
	hoursBetween(load, at) - load.minutes / 60

/**
 * What is known around a session, for the reps of one key of it: of the session itself, the days before and the week.
 *
 * @param sessions the athlete's sessions of at least two weeks before, any order; that one may be among them
 * @param about the key the day was called by, and what a trend says of it up to that day
 */
export function aroundOf(
	session: StorySession,
	about: { key: string; family: Family; improving: string | null },
	sessions: readonly StorySession[],
	facts: StoryFacts,
): Around {
	const at = startOf(session)
	const before = sessions
		.filter((one) => one.marks.length > 0 && one.id !== session.id && hoursBetween(one, at) > 0)
		.sort((a, b) => hoursBetween(b, at) - hoursBetween(a, at))
	const outside = facts.outside
		.map((load) => ({ load, hoursAgo: hoursSinceEnd(load, at) }))
		.filter(({ hoursAgo }) => hoursAgo > 0)
	const own = session.marks.filter((mark) => mark.key === about.key)
	const last = facts.lastWork(about.family, session.day)
	const hard = [
		...before.flatMap((one) => (one.marks.some(({ kinds }) => kinds.length > 0) ? [hoursBetween(one, at)] : [])),
		...outside.flatMap(({ load, hoursAgo }) => (outsideWork(load).kinds.length > 0 ? [hoursAgo] : [])),
	]
	const latest = before.at(-1)
	return {
		day: session.day,
		past: latest ? pastOf(latest, hoursBetween(latest, at)) : null,
		newHard: facts.newHard
			.filter(({ day }) => day <= session.day && daysBetween(day, session.day) <= NEW_DAYS)
			.flatMap(({ day, name }) => {
				// On the day itself it was before this one only in an earlier session.
				const then = before.find((one) => one.day === day)
				const hoursAgo = then ? hoursBetween(then, at) : daysBetween(day, session.day) * 24
				return hoursAgo > 0 ? [{ name, hoursAgo }] : []
			}),
		spacing: spacingOf(session, before, facts),
		outside: outside.map(({ load, hoursAgo }) => ({
			kind: load.kind,
			hoursAgo,
			minutes: load.minutes,
			rpe: load.rpe,
			...(load.lifts && load.lifts.length > 0 ? { words: load.lifts.map(sayLift).join('; ') } : {}),
			...(isHeavyGym(load) ? { heavy: true } : {}),
		})),
		ramp: facts.ramp.flatMap(({ name, days, floor, percent }) => {
			const earlier = days.filter((one) => one.day < session.day)
			if (earlier.length === 0) return []
			const { done, limit } = readRamp(earlier, session.day, floor, percent)
			return [{ name, done, limit }]
		}),
		awayDays: last === null ? null : daysBetween(last, session.day),
		unwell:
			facts.illnesses.filter(({ since }) => since <= session.day).sort((a, b) => (a.since < b.since ? 1 : -1))[0] ??
			null,
		rests: restsOf(own),
		aidedBefore: aidedBefore(session, own),
		windMps: session.windMps,
		unloading:
			session.phase === 'unloading' ||
			before.some((one) => one.phase === 'unloading' && daysBetween(one.day, session.day) <= AFTER_UNLOADING_DAYS),
		hoursSinceHard: hard.length === 0 ? null : Math.min(...hard),
		improving: about.improving,
	}
}

/** Of a session's lines by one key, the one that went farthest past its best. */
function pastOf(session: StorySession, hoursAgo: number): Around['past'] {
	const lines = new Map<string, StoryMark[]>()
	for (const mark of session.marks)
		if (mark.key !== null && mark.value !== null && !mark.aside && !mark.aided) addTo(lines, mark.key, mark)
	let most: Around['past'] = null
	for (const marks of lines.values()) {
		const [{ kind, what, typicalError }] = marks as [StoryMark]
		if (kind === null) continue
		const told = pastBestOf(
			marks.map(({ value }) => value!),
			kind,
			typicalError,
		)
		if (told && (most === null || told.length > most.marks.length)) most = { what, kind, marks: told, hoursAgo }
	}
	return most
}

/** The nearest hard work of a kind the session had too, before it. */
function spacingOf(session: StorySession, before: readonly StorySession[], facts: StoryFacts): Around['spacing'] {
	const kinds = new Set(session.marks.flatMap((mark) => mark.kinds))
	const work = [
		...before.map((one) => ({ ...startOf(one), kinds: [...new Set(one.marks.flatMap((mark) => mark.kinds))] })),
		...facts.outside.map(outsideWork),
	]
	let nearest: Around['spacing'] = null
	for (const one of work)
		for (const kind of one.kinds) {
			const hours = hoursBetween(one, session)
			if (!kinds.has(kind) || hours <= 0 || hours >= metFromH(facts.spacingH)) continue
			if (nearest === null || hours < nearest.hours) nearest = { kind, hours, askedH: facts.spacingH }
		}
	return nearest
}

/** Between reps of one set, by the clock, against what was asked. */
function restsOf(marks: readonly StoryMark[]): Around['rests'] {
	const [first] = marks
	if (!first) return null
	const sets = new Map<string, number[]>()
	for (const { at, lineId, setNo } of marks) if (at !== null) addTo(sets, `${lineId}/${setNo}`, at)
	// Sets one after the other would put the long rest between them among the short ones.
	const [longest] = [...sets.values()].sort((a, b) => b.length - a.length)
	const tookS = longest ? medianGapS([...longest].sort((a, b) => a - b)) : null
	return tookS === null || tookS < TYPED_S || first.restS <= 0 ? null : { askedS: first.restS, tookS }
}

/** The last carried, pulled or assisted rep before the first one that is looked at. */
function aidedBefore(session: StorySession, own: readonly StoryMark[]): Around['aidedBefore'] {
	const begins = Math.min(...own.flatMap(({ at }) => (at === null ? [] : [at])))
	if (!Number.isFinite(begins) || own.some(({ aided }) => aided)) return null
	const [last] = session.marks
		.filter(({ aided, at }) => aided && at !== null && at < begins)
		.sort((a, b) => b.at! - a.at!)
	return last ? { what: last.what, minutes: (begins - last.at!) / 60_000 } : null
}
