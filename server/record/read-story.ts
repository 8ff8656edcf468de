import { addTo } from '../../core/lists/group-by'
import { addDays, daysBetween } from '../../core/calendar/day-count'
import { type Episode, episodesOf } from '../../core/care/episodes'
import { placeOf } from '../../core/rules/bars'
import { emptyCount } from '../../core/dose/dose-count'
import { RAMP_FAMILY, RAMP_FLOORS, RAMP_NAMES, type RampQuantity } from '../../core/dose/ramp'
import { addSparseInto } from '../../core/dose/sparse-count'
import { isHard, kindsOf } from '../../core/dose/work-kinds'
import { byTime } from '../../core/events/by-time'
import { isBelowFull, measureOfKey, methodOfKey, partsOfKey } from '../../core/marks/mark-key'
import { betterOf, measuredOf } from '../../core/marks/keep-session'
import { sayKey } from '../../core/marks/say-key'
import { type MarkKind, type SquadErrors, typicalErrorOf } from '../../core/noise/typical-error'
import { defaultsFrom, usualOf } from '../../core/noise/usual'
import type { PlainFacts } from '../../core/permit/plain-facts'
import type { OutsideLoad } from '../../core/judge/outside-load'
import { type StorySession, type StoryMark, aroundOf } from '../../core/record/around'
import { type DayReading, readDay } from '../../core/record/day-reading'
import { effortsOf } from '../../core/record/effort'
import { FORTNIGHT_DAYS, type FortnightDay, familyLoads, fortnightOf, sayOutside } from '../../core/record/fortnight'
import { type Change, changeOf, gapPoints, sayChange, trendPoints } from '../../core/record/trend'
import { type Measure, SPANS, type Span, type Story, type Trend, type WhyDay } from '../../core/record/story'
import { CAUSE_NAMES, type CauseId, FLAT_CAUSES, GOOD_CAUSES, whyOf } from '../../core/record/why'
import type { Library } from '../../core/vocabulary/library'
import type { Family, Leg } from '../../core/vocabulary/words'
import { writeDrill, writeMark } from '../../core/words/write-numbers'
import type { ClubScope } from '../../db/connect'
import type { StoredEvent } from '../../db/queries/log'
import { type KeptMean, meansOfKeys } from '../../db/queries/marks'
import { causesNamed } from '../../db/queries/record'
import type { LineRow, SessionRow } from '../../db/queries/sessions'
import { doneRamp } from '../plan/done-ramp'
import { plannedOf } from '../sheet/planned-of'
import { partAt } from '../../core/vocabulary/line-parts'

/** A day called flat or good is explained for so long. */
const EXPLAINED_DAYS = 14
/** Longer than this without a session is time away, in days. */
const AWAY_BAR_DAYS = 14

/** What the page has read already. */
export interface StoryOf {
	athleteId: string
	today: string
	library: Library
	errors: SquadErrors
	facts: PlainFacts
	/** Down for them, up to today, newest first. */
	sessions: readonly SessionRow[]
	/** Of those sessions, folded. */
	events: readonly StoredEvent[]
	lines: ReadonlyMap<string, LineRow>
	/** Season’s means of all keys. */
	means: readonly KeptMean[]
	/** Every key the athlete ever had. */
	keys: readonly string[]
	outside: readonly (OutsideLoad & { day: string })[]
	illnesses: readonly { since: string; until: string | null }[]
	/** What the bench took, in one line each. */
	bench: readonly { day: string; words: string }[]
	moves: readonly { day: string; verdict: FortnightDay['moves'][number]['verdict']; words: string }[]
	/** The measure and the day that are looked at, and whether pain, worry and illness may be read. */
	asked: { measure: string | null; span: Span; session: string | null; showBody: boolean }
}

const kindOfKey = (key: string) => key.split('|')[1] as MarkKind

/** Where an athlete is going, what happened in fourteen days, and what made the last day out of the ordinary so. */
export async function readStory(scope: ClubScope, of: StoryOf): Promise<Story> {
	const { asked } = of
	const measures = measuresOf(of)
	const chosen = measures.find(({ key }) => key === asked.measure)?.key ?? asked.measure ?? measures[0]?.key ?? null
	const sessions = storySessions(of)
	// What lies longer ago is neither shown day by day nor explained.
	const lately = sessions.filter(({ day }) => daysBetween(day, of.today) <= Math.max(EXPLAINED_DAYS, FORTNIGHT_DAYS))
	const readings = new Map(lately.map((one) => [one.id, readingOf(one, of)] as const))
	return {
		measures,
		trend: chosen === null ? null : await readTrend(scope, of, chosen),
		fortnight: fortnight(of, sessions, readings),
		why: await readWhy(scope, of, sessions, readings),
	}
}

/** @returns null where nobody may say: no usual yet, or no session like it */
function readingOf(session: StorySession, { means: kept, errors }: StoryOf): DayReading | null {
	return readDay(
		kept
			.filter((one) => one.sessionId === session.id && !isBelowFull(one.key))
			.flatMap((one) => {
				const [kind, method] = [kindOfKey(one.key), methodOfKey(one.key)]
				const usual = usualOf(
					kept.filter((other) => other.key === one.key),
					one.day,
					kind,
					method,
					defaultsFrom(errors[partsOfKey(one.key).drill], kind, method),
				)
				return usual ? [{ key: one.key, kind, today: one, usual }] : []
			}),
	)
}

function fortnight(
	{ athleteId, events, outside, facts, bench, moves, asked, today, library }: StoryOf,
	own: readonly StorySession[],
	read: ReadonlyMap<string, DayReading | null>,
): FortnightDay[] {
	const from = addDays(today, 1 - FORTNIGHT_DAYS)
	const counts = new Map<string, ReturnType<typeof emptyCount>>()
	for (const event of events)
		if (event.counts) {
			const known = counts.get(event.sessionId) ?? emptyCount()
			addSparseInto(known, event.counts)
			counts.set(event.sessionId, known)
		}
	const dayOf = new Map(own.map(({ id, day }) => [id, day]))
	const efforts = effortsOf(events, athleteId)
	return fortnightOf(today, {
		sessions: [...own]
			.filter(({ day }) => day >= from && day <= today)
			.reverse()
			.map((one) => {
				const reading = read.get(one.id) ?? null
				return {
					day: one.day,
					what: {
						id: one.id,
						phase: one.phase,
						unlogged: one.marks.length > 0 ? null : one.day < today ? 'missed' : 'to come',
						load: familyLoads(counts.get(one.id) ?? emptyCount()),
						effort: efforts.get(one.id)?.value.rpe ?? null,
						state: reading?.state ?? null,
						reading: reading?.by ? sayReading(reading.by, library) : null,
					},
				}
			}),
		outside: outside.map((load) => ({ day: load.day, what: sayOutside(load) })),
		body: asked.showBody ? bodyOf(facts) : [],
		notes: events.flatMap((event) => {
			const day = dayOf.get(event.sessionId)
			return day && event.type === 'observation' && event.kind === 'note' && event.athleteId !== null
				? [{ day, what: event.value.text }]
				: []
		}),
		bench: bench.map(({ day, words }) => ({ day, what: words })),
		moves: moves.map(({ day, ...what }) => ({ day, what })),
	})
}

function sayReading({ key, kind, mean, usual }: NonNullable<DayReading['by']>, library: Library): string {
	return `${sayKey(key, library).what}: ${writeMark({ kind, value: mean })}, usual ${writeMark({ kind, value: usual })}`
}

async function readWhy(
	scope: ClubScope,
	story: StoryOf,
	own: readonly StorySession[],
	read: ReadonlyMap<string, DayReading | null>,
): Promise<WhyDay | null> {
	const called = own.filter((one) => {
		const state = read.get(one.id)?.state
		return (state === 'flat' || state === 'good') && daysBetween(one.day, story.today) <= EXPLAINED_DAYS
	})
	const session = called.find(({ id }) => id === story.asked.session) ?? called[0]
	const by = session && read.get(session.id)?.by
	const state = session && read.get(session.id)?.state
	if (!session || !by || (state !== 'flat' && state !== 'good')) return null
	const { facts, errors, athleteId, library, means } = story
	const family = familyOf(by.key, library)
	const before = means.filter((one) => one.key === by.key && one.day < session.day)
	const [kind, method] = [kindOfKey(by.key), methodOfKey(by.key)]
	const change = changeOf(before, kind, method, defaultsFrom(errors[partsOfKey(by.key).drill], kind, method))
	const ramp = (await doneRamp(scope, [athleteId], session.day)).get(athleteId)
	const around = aroundOf(
		session,
		{
			key: by.key,
			family,
			improving: change?.beyond && change.gain > 0 ? sayChange(change, kind, session.day).words : null,
		},
		own,
		{
			spacingH: Math.max(...facts.schools.map((one) => one.numbers.spacingH)),
			outside: story.outside,
			newHard: [
				...facts.newRungs.flatMap(({ day, ladderId, rungId }) => {
					const rung = library.ladders[ladderId]?.rungs.find((one) => one.id === rungId)
					const drill = rung && library.drills[rung.drillId]
					return rung && drill && isHard(drill, rung.parameters) ? [{ day, name: rung.name }] : []
				}),
				...(facts.newOutside ?? []),
			],
			ramp: (Object.keys(RAMP_NAMES) as RampQuantity[]).map((quantity) => ({
				name: RAMP_NAMES[quantity],
				days: ramp?.[quantity] ?? [],
				floor: RAMP_FLOORS[facts.levels[RAMP_FAMILY[quantity]] ?? 1][quantity],
				percent: Math.min(...facts.schools.map((one) => one.numbers.rampPercent)),
			})),
			lastWork: (which, day) =>
				own
					.filter(
						(one) =>
							one.day < day &&
							one.marks.some(
								(mark) => mark.key !== null && library.drills[partsOfKey(mark.key).drill]?.family === which,
							),
					)
					.map((one) => one.day)
					.sort()
					.at(-1) ?? null,
			illnesses: story.illnesses,
		},
	)
	const named = await causesNamed(scope, athleteId)
	const ids: readonly CauseId[] = state === 'flat' ? FLAT_CAUSES : GOOD_CAUSES
	// What is known of illness is read by those who may; for others it is not looked for.
	const why = whyOf(
		state,
		story.asked.showBody ? around : { ...around, unwell: null },
		named.filter((one) => one.day < session.day),
	)
	const unread = story.asked.showBody ? [] : [CAUSE_NAMES.unwell]
	return {
		...why,
		notFound: why.notFound.filter((name) => !unread.includes(name)),
		sessionId: session.id,
		day: session.day,
		state,
		reading: sayReading(by, library),
		ticked: named.filter((one) => one.sessionId === session.id).map(({ cause }) => cause),
		nameable: ids
			.filter((cause) => story.asked.showBody || cause !== 'unwell')
			.map((cause) => ({ cause, name: CAUSE_NAMES[cause] })),
	}
}

/** Measures with what changed over the season, those the athlete trains most lately first. */
function measuresOf({ means, library, errors, today }: StoryOf): Measure[] {
	const sorted = new Map<string, KeptMean[]>()
	for (const one of means) if (!isBelowFull(one.key)) addTo(sorted, measureOfKey(one.key), one)
	const lately = (rows: readonly KeptMean[]) =>
		new Set(rows.filter(({ day }) => daysBetween(day, today) <= 42).map((one) => one.sessionId)).size
	return [...sorted.entries()]
		.sort(
			([a, one], [b, other]) =>
				Number(lately(other) >= LATELY_SESSIONS) - Number(lately(one) >= LATELY_SESSIONS) ||
				ORDER.indexOf(familyOf(a, library)) - ORDER.indexOf(familyOf(b, library)) ||
				lastOf(other).localeCompare(lastOf(one)) ||
				other.length - one.length ||
				(a < b ? -1 : 1),
		)
		.map(([key, rows]): Measure => {
			const keys = [...new Set(rows.map((one) => one.key))]
			const [kind, method] = [kindOfKey(key), methodOfKey(key)]
			const changes = keys.flatMap((own) => {
				const change = changeOf(
					rows.filter((one) => one.key === own),
					kind,
					method,
					defaultsFrom(errors[partsOfKey(own).drill], kind, method),
				)
				return change ? [{ change, side: sideOf(own) }] : []
			})
			const [most] = changes.sort(
				(a, b) =>
					Number(b.change.beyond) - Number(a.change.beyond) || Math.abs(b.change.gain) - Math.abs(a.change.gain),
			)
			return {
				key,
				...sayKey(key, library),
				sessions: new Set(rows.map((one) => one.sessionId)).size,
				lastDay: lastOf(rows),
				points: [...rows]
					.sort((a, b) => (a.day < b.day ? -1 : 1))
					.map((one) => ({ day: one.day, side: sideOf(one.key), mean: one.mean })),
				family: familyOf(key, library),
				better: betterOf(kind),
				change: most ? { ...said(most.change, kind, today), side: most.side } : null,
			}
		})
}
const lastOf = (rows: readonly KeptMean[]): string => rows.reduce((last, one) => (one.day > last ? one.day : last), '')
const familyOf = (key: string, library: Library): Family => library.drills[partsOfKey(key).drill]?.family ?? 'sprint'
/** What is trained of late comes first, and of that what a speed and jump coach asks about first. */
const ORDER: readonly Family[] = ['sprint', 'plyometric', 'agility', 'throw', 'prepare', 'tissue']
const LATELY_SESSIONS = 3
const sideOf = (key: string): Leg | null => {
	const [side] = partsOfKey(key).side.split('.')
	return side === 'left' || side === 'right' ? side : null
}
const said = (change: Change, kind: MarkKind, today: string) => ({
	...sayChange(change, kind, today),
	gain: change.gain,
	beyond: change.beyond,
})

/** The points of one measure, by side, with what lay under them. */
async function readTrend(
	scope: ClubScope,
	{ athleteId, today, library, errors, sessions, outside, facts, bench, asked, keys }: StoryOf,
	measure: string,
): Promise<Trend | null> {
	const kept = await meansOfKeys(
		scope,
		athleteId,
		keys.filter((key) => measureOfKey(key) === measure),
		addDays(today, 1),
	)
	if (kept.length === 0) return null
	const [kind, method] = [kindOfKey(measure), methodOfKey(measure)]
	const defaults = defaultsFrom(errors[partsOfKey(measure).drill], kind, method)
	const days = SPANS[asked.span]
	const from = days === null ? '' : addDays(today, -days)
	const series = ([null, 'left', 'right'] as const).flatMap((side) => {
		const own = kept.filter((one) => sideOf(one.key) === side)
		const points = trendPoints(own, from, kind, method, defaults)
		if (points.length === 0) return []
		const change = changeOf(
			own.filter(({ day }) => day >= from),
			kind,
			method,
			defaults,
		)
		return [{ side, points, change: change && sayChange(change, kind, today) }]
	})
	const first = series.flatMap(({ points }) => points.map(({ day }) => day)).sort()[0]
	if (first === undefined) return null
	const of = (side: Leg) => series.find((one) => one.side === side)?.points ?? []
	const trained = [...sessions]
		.filter(({ day }) => day >= first && day <= today)
		.sort((a, b) => (a.day < b.day ? -1 : 1))
	return {
		key: measure,
		...sayKey(measure, library),
		family: familyOf(measure, library),
		kind,
		better: betterOf(kind),
		span: asked.span,
		series,
		gap: gapPoints(of('left'), of('right'), kind),
		phases: phasesOf(trained),
		matches: outside.flatMap(({ kind: what, day }) =>
			(what === 'match' || what === 'tournament') && day >= first && day <= today ? [day] : [],
		),
		bench: bench.filter(({ day }) => day >= first && day <= today),
		bars: [
			...(asked.showBody ? careBars(episodesOf(facts, today), first, today) : []),
			...awayBars(kept.map(({ day }) => day).filter((day) => day >= first)),
		],
	}
}
function phasesOf(sessions: readonly SessionRow[]): Trend['phases'] {
	const runs: Trend['phases'] = []
	for (const { day, phase } of sessions) {
		const last = runs.at(-1)
		if (last?.phase === phase) last.to = day
		else {
			if (last) last.to = day
			runs.push({ from: day, to: day, phase })
		}
	}
	return runs
}
const careBars = (episodes: readonly Episode[], from: string, today: string): Trend['bars'] =>
	episodes
		.filter(({ to }) => to === null || to >= from)
		.map((one) => ({
			from: one.from < from ? from : one.from,
			to: one.to ?? today,
			words: `${placeOf(one)}, ${one.grade === 'spare' ? 'spared' : 'closed'}`,
			isCare: true,
		}))
function awayBars(days: readonly string[]): Trend['bars'] {
	const sorted = [...new Set(days)].sort()
	return sorted.slice(1).flatMap((day, index) => {
		const before = sorted[index]!
		return daysBetween(before, day) > AWAY_BAR_DAYS
			? [{ from: before, to: day, words: `not measured for ${daysBetween(before, day)} days`, isCare: false }]
			: []
	})
}

/** What was said of the body, on its days. */
const bodyOf = (facts: PlainFacts): { day: string; what: string }[] =>
	facts.reports.flatMap((one) => {
		if (one.kind === 'pain' && one.region)
			return [
				{
					day: one.day,
					what: `${placeOf({ region: one.region, ...(one.side ? { side: one.side } : {}) })} ${one.score ?? ''}`.trim(),
				},
			]
		if (one.kind === 'unwell') return [{ day: one.day, what: 'unwell' }]
		return one.kind === 'worry' ? [{ day: one.day, what: 'a worry' }] : []
	})

/** The athlete's sessions with their marks, newest first. */
function storySessions({ sessions, events, lines, library, errors, athleteId }: StoryOf): StorySession[] {
	const bySession = new Map<string, StoredEvent[]>()
	for (const event of events) addTo(bySession, event.sessionId, event)
	return sessions.map((session): StorySession => {
		const own = [...(bySession.get(session.id) ?? [])].sort(byTime)
		const winds = own.flatMap((event) =>
			event.kind === 'conditions' && event.value.windMps !== undefined ? [event.value.windMps] : [],
		)
		return {
			id: session.id,
			day: session.day,
			startTime: session.startTime,
			phase: session.phase,
			windMps: winds.length === 0 ? null : winds.reduce((sum, one) => sum + one, 0) / winds.length,
			marks: own.flatMap((event): StoryMark[] => {
				if (event.type !== 'mark' || event.kind === 'missed' || event.athleteId !== athleteId) return []
				const line = lines.get(event.lineId)
				const planned = line && plannedOf(line)
				const drill = library.drills[event.asDrill?.drillId ?? (planned ? partAt(planned, event.piece).drillId : '')]
				if (!planned || !drill) return []
				const measured = measuredOf(event)
				const key = event.stamp?.key ?? null
				const parts = key === null ? null : partsOfKey(key)
				const method = measured?.method
				return [
					{
						// At a desk it was written, not seen.
						at: event.deviceId === (event.authorId as string) ? null : Date.parse(event.deviceTime),
						lineId: event.lineId,
						setNo: event.setNo,
						key: measured ? key : null,
						kind: measured?.kind ?? null,
						value: measured?.value ?? null,
						aside: event.stamp?.setAside === true,
						what: writeDrill(
							drill,
							event.asDrill ? drill.defaults.parameters : partAt(planned, event.piece).parameters,
						),
						kinds: kindsOf(drill, partAt(planned, event.piece).parameters),
						aided: parts !== null && (parts.aid !== '-' || parts.carried !== '-'),
						restS: planned.dose.reps > 1 ? planned.rest.repsS : planned.rest.setsS,
						typicalError: measured && method ? typicalErrorOf(measured.kind, method, errors[parts?.drill ?? '']) : null,
					},
				]
			}),
		}
	})
}
