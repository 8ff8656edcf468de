import { addDays, isBefore, isDay, mondayOf } from '../../core/calendar/day-count'
import { countWork } from '../../core/dose/count-line'
import { type DoseCount, addInto, emptyCount } from '../../core/dose/dose-count'
import { addSparseInto } from '../../core/dose/sparse-count'
import { foldEvents } from '../../core/events/fold'
import { betterOf, byKey } from '../../core/marks/keep-session'
import { isBelowFull, measureOfKey, methodOfKey, partsOfKey } from '../../core/marks/mark-key'
import { sayKey } from '../../core/marks/say-key'
import { asymmetry } from '../../core/noise/asymmetry'
import { type MarkKind, typicalErrorOf } from '../../core/noise/typical-error'
import { concludeFor } from '../../core/permit/plain-facts'
import { isHard } from '../../core/dose/work-kinds'
import { quantitiesOf } from '../../core/plan/targets'
import { sayOutside } from '../../core/record/fortnight'
import { type WeekOf, type WeekRow, sayWeek, weekOf } from '../../core/record/week'
import { placeOf } from '../../core/rules/bars'
import { QUANTITIES, type Quantity } from '../../core/vocabulary/entry'
import type { ClubScope } from '../../db/connect'
import { careOf, outsideLoadOf, outsideOf } from '../../db/queries/care'
import type { StoredEvent } from '../../db/queries/log'
import { keptEvents, keptPage } from '../kept'
import { readLibrary } from '../../db/queries/library'
import { type KeptMean, meansOf, setAsideOf } from '../../db/queries/marks'
import { readAttending, readLines, sessionsBetween } from '../../db/queries/sessions'
import { listMembers, readAthletes, readSquad } from '../../db/queries/squads'
import { seesBody } from '../access/projection'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'
import { readFacts } from '../facts/read-facts'
import { addTo, groupBy } from '../../core/lists/group-by'
import { readErrors } from '../marks/read-errors'
import { testsOfWeek } from './batteries'
import { readDrillsOfLines } from '../sheet/drills-of-lines'

export interface WeekPage {
	squadId: string
	squadName: string
	monday: string
	/** Sessions of the week by day, with whether anything was logged in them. */
	sessions: { id: string; day: string; title: string; held: boolean }[]
	words: string
	rows: WeekRow[]
	/** Regular tests of the squad that nobody has done in this week. */
	due: string[]
	/** Matches and the like that many of them had. */
	outside: string[]
}
/** A gap is looked for so far back. */
const GAP_DAYS = 28

/** A squad's week, athlete by athlete, for whoever may read the plan; null for a stranger's squad. */
export const readWeek = (
	{ clubId, role, athleteId }: SignedIn,
	squadId: string,
	monday: string,
	today: string,
): Promise<WeekPage | null> => {
	const [scope, who] = [scopeOf(clubId), { role, athleteId }]
	return keptPage(scope, ['week', who, squadId, monday, today], (scope) =>
		workOutWeek(scope, who, squadId, monday, today),
	)
}
async function workOutWeek(
	scope: ClubScope,
	who: Pick<SignedIn, 'role' | 'athleteId'>,
	squadId: string,
	monday: string,
	today: string,
): Promise<WeekPage | null> {
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const sunday = addDays(monday, 6)
	const members = (await listMembers(scope)).filter((member) => member.squadId === squadId)
	const sessions = (await sessionsBetween(scope, monday, sunday))
		.filter((session) => session.squadId === squadId)
		.sort((a, b) => (isBefore(a, b) ? -1 : 1))
	const held = sessions.filter((session) => session.startedAt !== null)
	const heldIds = held.map(({ id }) => id)
	const attending = await readAttending(scope, heldIds)
	const ids = [...new Set([...members.map(({ id }) => id), ...attending.map(({ athleteId }) => athleteId)])]
	const upTo = sunday < today ? sunday : today
	const [library, athletes, lines, stored, means, errors, outside, care, facts] = [
		await readLibrary(scope),
		await readAthletes(scope, ids),
		await readLines(scope, heldIds),
		await keptEvents(scope, held),
		await meansOf(scope, ids, addDays(upTo, -GAP_DAYS), addDays(upTo, 1)),
		await readErrors(scope, squadId, addDays(upTo, 1)),
		(await outsideOf(scope, ids, monday)).filter(({ day }) => day <= sunday),
		await careOf(scope, ids),
		await readFacts(
			scope,
			{ day: upTo, startTime: squad.startTime, phase: squad.phase, surface: null },
			{ schoolId: squad.schoolId },
			ids,
			await readLibrary(scope),
			today,
		),
	]
	const meansOfEach = groupBy(means, (one) => one.athleteId)
	const drills = await readDrillsOfLines(scope, lines)
	const tests = await testsOfWeek(scope, squadId, monday, today)
	const common = shared(outside)
	const aside = await setAsideOf(scope, { sessionIds: heldIds })
	const { current } = foldEvents(stored)
	const standing = new Set<string>(current.map(({ id }) => id))
	const legs = new Map(athletes.map((athlete) => [athlete.id, athlete.legLengthM]))
	const people = athletes.map((athlete): WeekOf => {
		const own = current.filter((event) => event.athleteId === athlete.id)
		const [done, asked] = [emptyCount(), emptyCount()]
		for (const event of own) if (event.counts) addSparseInto(done, event.counts)
		for (const line of lines) {
			const work = line.athleteId === athlete.id ? drills.work(line) : null
			const leg = legs.get(athlete.id)
			if (work) addInto(asked, countWork(work, drills.of(line), leg ? { legLengthM: leg } : {}))
		}
		const known = facts.get(athlete.id)
		const concluded = known ? concludeFor(known, library) : null
		const sees = seesBody(who, athlete.id)
		const closures = concluded?.facts.closures.filter(({ grade }) => grade !== 'noted') ?? []
		const step = concluded?.plan.paths.find(({ due }) => due !== null)
		return {
			athleteId: athlete.id,
			name: athlete.name,
			came: new Set(own.filter((event) => event.type === 'mark').map(({ sessionId }) => sessionId)).size,
			down: attending.filter((row) => row.athleteId === athlete.id).length,
			amounts: amountsOf(done, asked),
			outside: outside
				.filter((row) => row.athleteId === athlete.id && !common.has(dated(row)))
				.map((row) => sayOutside(outsideLoadOf(row))),
			gap: gapOf(meansOfEach.get(athlete.id) ?? []),
			comfort: comfortOf(own),
			newThings: [
				...(known?.newRungs ?? []).flatMap(({ day, ladderId, rungId }) => {
					const rung = library.ladders[ladderId]?.rungs.find((one) => one.id === rungId)
					const drill = rung && library.drills[rung.drillId]
					return rung && drill && day >= monday && day <= upTo && isHard(drill, rung.parameters) ? [rung.name] : []
				}),
				...(known?.newOutside ?? []).flatMap(({ day, name }) => (day >= monday && day <= upTo ? [name] : [])),
			],
			body: {
				// What is closed everybody on the field knows; why, and the rest, only who reads it.
				closed: closures.filter(({ grade }) => grade !== 'spare').map(placeOf),
				spared: closures.filter(({ grade }) => grade === 'spare').map(placeOf),
				wayBack: step?.due
					? `way back, step ${step.steps.findIndex((rung) => rung.id === step.due!.rung.id) + 1} of ${step.steps.length}`
					: null,
				read: sees
					? {
							worry: worryOf(
								care.filter((row) => row.athleteId === athlete.id),
								library,
							),
							unwell: concluded?.facts.unwellSince != null,
							pain: painOf(own),
						}
					: null,
			},
			setAside: aside.filter((mark) => mark.athleteId === athlete.id && standing.has(mark.id)).length,
			due: tests.held
				.filter(({ sessionIds }) => !own.some((event) => event.type === 'mark' && sessionIds.has(event.sessionId)))
				.map(({ name }) => name),
		}
	})
	const rows = weekOf(people)
	return {
		squadId,
		squadName: squad.name,
		monday,
		sessions: sessions.map((session) => ({
			id: session.id,
			day: session.day,
			title: session.title,
			held: session.startedAt !== null,
		})),
		words: sayWeek(rows, held.length),
		rows,
		due: tests.due,
		outside: [...common].map(([words, times]) => `${words} (${times} of ${ids.length})`),
	}

	/** The side that lags in whatever was measured on both, the largest that is more than noise, else the largest. */
	function gapOf(own: readonly KeptMean[]): WeekOf['gap'] {
		const measures = new Map<string, KeptMean[]>()
		for (const one of own)
			if (!isBelowFull(one.key) && measureOfKey(one.key) !== one.key) addTo(measures, measureOfKey(one.key), one)
		const gaps = [...measures].flatMap(([measure, all]): NonNullable<WeekOf['gap']>[] => {
			const kind = measure.split('|')[1] as MarkKind
			const keys = byKey(all)
			const [left, right] = (['left', 'right'] as const).map(
				(side) => [...keys].find(([key]) => partsOfKey(key).side.startsWith(side))?.[1] ?? [],
			) as [KeptMean[], KeptMean[]]
			const days = left
				.flatMap((one) => {
					const other = right.find(({ sessionId }) => sessionId === one.sessionId)
					return other ? [{ day: one.day, left: one, right: other }] : []
				})
				.sort((a, b) => (a.day < b.day ? -1 : 1))
			const last = days.at(-1)
			if (!last) return []
			const sd = typicalErrorOf(kind, methodOfKey(measure), errors[partsOfKey(measure).drill])
			const read = asymmetry(
				days.map((one) => ({ left: [one.left.mean], right: [one.right.mean] })),
				betterOf(kind),
				// Of the mean of so many reps, both sides' together.
				sd === null ? undefined : (100 * sd * Math.sqrt(1 / last.left.n + 1 / last.right.n)) / last.left.mean,
			)
			const back = [...read.byDay].reverse()
			const turned = back.findIndex(({ stronger }) => stronger !== read.stronger)
			return read.stronger === null
				? []
				: [
						{
							what: sayKey(measure, library).what,
							percent: read.gapPct,
							ahead: read.stronger,
							beyond: read.real === true,
							times: turned === -1 ? back.length : turned,
						},
					]
		})
		return gaps.sort((a, b) => Number(b.beyond) - Number(a.beyond) || b.percent - a.percent)[0] ?? null
	}
}

const amountsOf = (done: DoseCount, asked: DoseCount): WeekOf['amounts'] => {
	const [did, wanted] = [quantitiesOf(done), quantitiesOf(asked)]
	return Object.fromEntries(
		QUANTITIES.map((quantity) => [quantity, { done: Math.round(did[quantity]), asked: Math.round(wanted[quantity]) }]),
	) as Record<Quantity, { done: number; asked: number }>
}
function comfortOf(events: readonly StoredEvent[]): WeekOf['comfort'] {
	const said = events.flatMap((event) => (event.kind === 'comfort' ? [event.value] : []))
	return said.length === 0
		? null
		: { worst: Math.max(...said.map(({ worst }) => worst)), braking: said.some(({ braking }) => braking) }
}
function painOf(events: readonly StoredEvent[]): NonNullable<WeekOf['body']['read']>['pain'] {
	const [worst] = events
		.flatMap((event) => (event.kind === 'pain' ? [event.value] : []))
		.sort((a, b) => b.score - a.score)
	return worst
		? {
				place: placeOf({ region: worst.region, ...(worst.side === 'both' ? {} : { side: worst.side }) }),
				score: worst.score,
			}
		: null
}
function worryOf(
	care: Awaited<ReturnType<typeof careOf>>,
	library: { drills: Record<string, { name: string }> },
): string | null {
	const open = care.find((row) => row.kind === 'worry' && row.endedOn === null)
	return open ? (library.drills[open.drillId ?? '']?.name ?? open.region ?? 'a worry').toString().toLowerCase() : null
}
const dated = (row: Awaited<ReturnType<typeof outsideOf>>[number]): string =>
	`${row.day} ${sayOutside(outsideLoadOf(row))}`
/** What more than one had alike, with how many: said once for all. */
function shared(rows: Awaited<ReturnType<typeof outsideOf>>): Map<string, number> {
	const counts = new Map<string, number>()
	for (const row of rows) counts.set(dated(row), (counts.get(dated(row)) ?? 0) + 1)
	return new Map([...counts].filter(([, times]) => times > 1))
}

/** The Monday a page asks for, or that of today's week. */
export const mondayAsked = (asked: string | null, today: string): string => mondayOf(isDay(asked) ? asked : today)
