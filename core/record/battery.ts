import { mean } from 'simple-statistics'
import { type Day, addDays } from '../calendar/day-count'
import { betterOf } from '../marks/keep-session'
import { markKey, measureOfKey, methodOfKey, partsOfKey } from '../marks/mark-key'
import { type MarkKind, type OwnErrors, typicalErrorOf } from '../noise/typical-error'
import { BETWEEN_PERCENT, type SessionMean, defaultsFrom } from '../noise/usual'
import type { Parameters } from '../vocabulary/dose'
import { freshEntry } from '../plan/entry-parts'
import type { SessionEntry } from '../vocabulary/entry'
import type { Library } from '../vocabulary/library'
import type { Drill } from '../vocabulary/drill'
import type { Method } from '../vocabulary/words'

/** One test of a squad: a measured drill, how often, and what of it counts. */
export interface BatteryItem {
	drillId: string
	parameters: Parameters
	kind: MarkKind
	method: Method
	/** 1–6. */
	tries: number
	use: 'best' | 'mean'
	restS: number
}
export const MOST_ITEMS = 6
export const MOST_TRIES = 6

/** A drill that can be tested, with what of it varies. */
export interface Testable {
	drillId: string
	name: string
	kind: MarkKind
	/** The one parameter a test asks for; null where the drill has none. */
	varies: { name: 'distanceM' | 'heightCm' | 'ballKg'; unit: string; usual: number } | null
}

/** How often it is due: in every week, in the last week of a block, or when somebody asks for it. */
export const EVERY = ['week', 'block', 'asked'] as const
export type Every = (typeof EVERY)[number]

/**
 * A battery's tests as they are put on a sheet, in their order; those whose drill is no longer in the library are left
 * out.
 *
 * @param newId makes each entry's id
 */
export const batteryEntries = (
	items: readonly BatteryItem[],
	library: Pick<Library, 'drills' | 'ladders'>,
	newId: () => string,
): SessionEntry[] =>
	items.flatMap((item) => {
		const drill = library.drills[item.drillId]
		const fresh = freshEntry(newId(), { drillId: item.drillId, ladderId: null }, library)
		if (!drill || !fresh) return []
		return [
			{
				...fresh,
				part: `Test: ${drill.name}`.slice(0, 60),
				dose: { sets: 1, reps: item.tries },
				rest: { repsS: item.restS, setsS: item.restS },
				parameters: { ...fresh.parameters, ...item.parameters },
			},
		]
	})

/** Whether a kept mark is one of a test, on whatever ground and with whichever side. */
export function isOfItem(key: string, item: BatteryItem, drill: Drill): boolean {
	const wanted = partsOfKey(markKey(drill, item.parameters, { kind: item.kind, method: item.method }))
	const has = partsOfKey(key)
	return (
		key.split('|')[1] === item.kind &&
		(['drill', 'start', 'way', 'aid', 'carried', 'effort', 'method'] as const).every(
			(part) => has[part] === wanted[part],
		)
	)
}

/** What a test came to on one day, in the mark's unit. */
export interface TestResult {
	sessionId: string
	day: Day
	key: string
	value: number
	tries: number
}
export const resultOf = (item: BatteryItem, one: SessionMean & { sessionId: string; key: string }): TestResult => ({
	sessionId: one.sessionId,
	day: one.day,
	key: one.key,
	value: item.use === 'best' ? one.best : one.mean,
	tries: one.n,
})

/** Of a change between two results, 95 %: 1.96 · √2 · error of one. Source: Weir 2005; Hopkins 2000. */
const MDC = 1.96
/** A season, days: as everywhere. */
const SEASON_DAYS = 182

/**
 * How far one result of a test errs, in the mark's unit: what a day moves and what is left of a rep, the squad's own where
 * it has its own. A best counts as one rep: that it is the best of some moves it less, which nobody has measured.
 *
 * @param tries reps a mean was made of, at least 1
 */
export function resultError(
	{ kind, use }: Pick<BatteryItem, 'kind' | 'use'>,
	method: Method,
	around: number,
	tries: number,
	errors: OwnErrors | undefined,
): number {
	const own = defaultsFrom(errors, kind, method)
	const between = (around * (own.betweenPercent ?? BETWEEN_PERCENT[kind])) / 100
	const within = own.withinSd ?? typicalErrorOf(kind, method) ?? 0
	return Math.sqrt(between ** 2 + within ** 2 / (use === 'best' ? 1 : tries))
}

export interface Compared {
	/** Above 0 is better, whichever way that is; in the mark's unit. */
	gain: number
	/** The smallest change that is more than noise. */
	mdc: number
	beyond: boolean
}
export interface TestReading extends TestResult {
	/** Against the last result measured alike; null for the first. */
	last: (Compared & { day: Day }) | null
	/** Against the mean of the season's earlier results; null below two of them. */
	season: (Compared & { results: number }) | null
}

/** The newest result against the last and against the season: only what was measured alike, ground and side too. */
export function readTest(
	item: BatteryItem,
	results: readonly TestResult[],
	errors: OwnErrors | undefined,
): TestReading | null {
	const sorted = [...results].sort((a, b) => (a.day < b.day ? -1 : 1))
	const newest = sorted.at(-1)
	if (!newest) return null
	const before = sorted.filter((one) => one !== newest && one.key === newest.key && one.day < newest.day)
	const better = betterOf(item.kind) === 'lower' ? -1 : 1
	const error = (one: TestResult) => resultError(item, methodOfKey(one.key), newest.value, one.tries, errors)
	const compare = (value: number, errorThere: number): Compared => {
		const mdc = MDC * Math.sqrt(error(newest) ** 2 + errorThere ** 2)
		const gain = better * (newest.value - value)
		return { gain, mdc, beyond: Math.abs(gain) > mdc }
	}
	const last = before.at(-1)
	const season = before.filter(({ day }) => day >= addDays(newest.day, -SEASON_DAYS))
	return {
		...newest,
		last: last ? { ...compare(last.value, error(last)), day: last.day } : null,
		season:
			season.length < 2
				? null
				: {
						...compare(
							mean(season.map(({ value }) => value)),
							Math.sqrt(mean(season.map((one) => error(one) ** 2)) / season.length),
						),
						results: season.length,
					},
	}
}

/** A result's measure without its side, so that left and right of one test stand in one row. */
export const measureOfResult = ({ key }: Pick<TestResult, 'key'>): string => measureOfKey(key)

/** A squad's test in a sentence. @example "30 m: 4 of 12 better beyond noise, 1 worse, 7 unchanged; first time for 2; missing: Bo Hartigan" */
export function sayTest(name: string, people: readonly { name: string; reading: TestReading | null }[]): string {
	const compared = people.flatMap(({ reading }) => (reading?.last ? [reading.last] : []))
	const first = people.filter(({ reading }) => reading && !reading.last).length
	const missing = people.filter(({ reading }) => reading === null).map((one) => one.name)
	const better = compared.filter(({ beyond, gain }) => beyond && gain > 0).length
	const worse = compared.filter(({ beyond, gain }) => beyond && gain < 0).length
	const parts = [
		...(compared.length === 0
			? []
			: better + worse === 0
				? [`none of ${compared.length} changed beyond noise`]
				: [
						`${better} of ${compared.length} better beyond noise${worse > 0 ? `, ${worse} worse` : ''}${
							compared.length > better + worse ? `, ${compared.length - better - worse} unchanged` : ''
						}`,
					]),
		...(first > 0 ? [`first time for ${first}`] : []),
		...(missing.length > 0 ? [`missing: ${missing.join(', ')}`] : []),
	]
	return `${name}: ${parts.length > 0 ? parts.join('; ') : 'nobody yet'}`
}
