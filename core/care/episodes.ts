import type { Day } from '../calendar/day-count'
import { addDays } from '../calendar/day-count'
import type { CareReport, Clearance, Grade } from '../vocabulary/care'
import { EVERYTHING, type Leg, REGIONS, type Region, SIDES } from '../vocabulary/words'
import { type CareRecord, closuresOn, mayClear } from './closures'
import { closesEverything, touches } from './grades'

/** One stretch in which a place was spared or closed: what opened it, and what ended it. */
export interface Episode {
	region: Region | typeof EVERYTHING
	/** Absent for everything, and where both sides went the same way. */
	side?: Leg
	grade: Exclude<Grade, 'noted'>
	from: Day
	/** The first day it was so no more; null while it stands. */
	to: Day | null
	/** What was said on the day it began; empty when it was closed by hand. */
	opened: CareReport[]
	/** Cleared by whom, raised by another report, quiet when asked, or lifted by hand; null while it stands. */
	ended: { kind: 'cleared'; clearance: Clearance } | { kind: 'raised' | 'quiet' | 'lifted' } | null
}

interface Place {
	region: Episode['region']
	side?: Leg
}
const PLACES: readonly Place[] = [
	{ region: EVERYTHING },
	...REGIONS.flatMap((region) => SIDES.map((side) => ({ region, side }))),
]

/**
 * Everything that was spared or closed up to a day, the latest first: the same fold, asked on every day on which
 * something was said, cleared or lifted.
 */
export function episodesOf(record: CareRecord, today: Day): Episode[] {
	const lifted = record.lifted ?? []
	const days = [
		...new Set([
			...record.reports.map((one) => one.day),
			...record.clearances.flatMap((one) => [one.day, addDays(one.day, 1)]),
			...(record.restrictions ?? []).map((one) => one.since),
			...lifted.flatMap((one) => [one.since, one.until]),
		]),
	]
		.filter((day) => day <= today)
		.sort()
	const open = new Map<string, Episode>()
	const all: Episode[] = []
	for (const day of days) {
		const held = lifted.filter((one) => one.since <= day && day < one.until)
		const closures = closuresOn(
			{
				...record,
				// What was cleared or said later was not known on the day.
				clearances: record.clearances.filter((one) => one.day <= day),
				restrictions: [...(record.restrictions ?? []), ...held],
			},
			day,
		)
		for (const place of PLACES) {
			const key = `${place.region}/${place.side ?? ''}`
			const found = closures.find(
				(one) => one.region === place.region && (place.side === undefined || touches(one, place.side)),
			)
			const grade = found && found.grade !== 'noted' ? found.grade : null
			const standing = open.get(key)
			if ((standing?.grade ?? null) === grade) continue
			if (standing) {
				standing.to = day
				standing.ended = endOf(standing, grade, record, day)
				open.delete(key)
			}
			if (grade === null) continue
			const episode: Episode = {
				...place,
				grade,
				from: day,
				to: null,
				opened: record.reports.filter((one) => one.day === day && isAbout(one, place)),
				ended: null,
			}
			open.set(key, episode)
			all.push(episode)
		}
	}
	return joined(all).sort((a, b) => (a.from < b.from ? 1 : a.from > b.from ? -1 : 0))
}

const isAbout = (report: CareReport, { region, side }: Place): boolean =>
	region === EVERYTHING
		? closesEverything(report)
		: report.region === region && (side === undefined || touches(report, side)) && !closesEverything(report)

function endOf(
	{ region, side, grade }: Episode,
	next: Episode['grade'] | null,
	{ clearances }: CareRecord,
	day: Day,
): Episode['ended'] {
	const clearance = clearances
		.filter(
			(one) =>
				one.region === region &&
				one.day <= day &&
				mayClear(one.role, one.region) &&
				(side === undefined || touches(one, side)),
		)
		.sort((a, b) => (a.day < b.day ? 1 : -1))[0]
	if (grade === 'spare')
		return next === null ? (clearance ? { kind: 'cleared', clearance } : { kind: 'quiet' }) : { kind: 'raised' }
	return clearance ? { kind: 'cleared', clearance } : { kind: 'lifted' }
}

/** Two sides that went the same way are one episode. */
function joined(all: readonly Episode[]): Episode[] {
	const kept: Episode[] = []
	for (const episode of all) {
		const twin = kept.find(
			(one) =>
				one.side !== undefined &&
				one.side !== episode.side &&
				one.region === episode.region &&
				one.grade === episode.grade &&
				one.from === episode.from &&
				one.to === episode.to,
		)
		if (twin) delete twin.side
		else kept.push(episode)
	}
	return kept
}
