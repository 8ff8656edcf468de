import { v7 as newId } from 'uuid'
import { addDays, mondayOf } from '../../core/calendar/day-count'
import {
	type BatteryItem,
	EVERY,
	type Every,
	MOST_ITEMS,
	batteryEntries,
	MOST_TRIES,
	type TestReading,
	type TestResult,
	type Testable,
	isOfItem,
	readTest,
	resultOf,
	sayTest,
} from '../../core/record/battery'
import { MARK_KINDS } from '../../core/marks/keep-session'
import { partsOfKey } from '../../core/marks/mark-key'
import type { MarkKind, OwnErrors } from '../../core/noise/typical-error'
import { parameterTyped } from '../../core/measure/quantity'
import type { Units } from '../../core/words/units'
import type { Library } from '../../core/vocabulary/library'
import { METHODS_OF, METHOD_NAMES, type Leg, type Method } from '../../core/vocabulary/words'
import { writeDrill } from '../../core/words/write-numbers'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { listBlocks } from '../../db/queries/plan'
import {
	type BatteryRow,
	addBatterySession,
	batteriesOf,
	insertBattery,
	meansOfSessions,
	readBattery,
	retireBattery,
	sessionsOfBatteries,
} from '../../db/queries/record'
import { listMembers, readSquad } from '../../db/queries/squads'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { comingTo } from '../squads/membership'
import { database, scopeOf } from '../database'
import { readErrors } from '../marks/read-errors'
import { makeSession } from '../sheet/save-session'

const VARYING = [
	['distanceM', 'm'],
	['heightCm', 'cm'],
	['ballKg', 'kg'],
] as const

export interface TestCell {
	athleteId: string
	name: string
	/** Of each side that was measured: none named where there is none. */
	readings: { side: Leg | null; reading: TestReading }[]
}
export interface TestItem {
	name: string
	how: string
	kind: MarkKind
	/** Sentence over the last test of it. */
	words: string
	people: TestCell[]
}
export interface BatteryPage {
	id: string
	name: string
	every: Every
	retired: boolean
	/** The last test, and the one to come. */
	lastDay: string | null
	next: { sessionId: string; day: string } | null
	due: boolean
	items: TestItem[]
}
export interface TestsPage {
	squadId: string
	squadName: string
	batteries: BatteryPage[]
	testable: Testable[]
}

/** Drills a test can be made of: those that yield a number. */
export const testableOf = (library: Library): Testable[] =>
	Object.values(library.drills)
		.flatMap((drill): Testable[] => {
			const kind = MARK_KINDS.find((one) => one === drill.measures[0])
			if (!kind) return []
			const found = VARYING.find(([name]) => drill.defaults.parameters[name] !== undefined)
			return [
				{
					drillId: drill.id,
					name: drill.name,
					kind,
					varies: found ? { name: found[0], unit: found[1], usual: drill.defaults.parameters[found[0]]! } : null,
				},
			]
		})
		.sort((a, b) => a.name.localeCompare(b.name))

/** What is measured, as it is typed in a form: a drill, how far or how heavy, and how it is taken. */
export interface MeasuredTyped {
	drillId: string
	/** Empty is as usual. */
	amount: string
	method: string
}
/** The same as it is kept, or which part of it is wrong and what is expected there. */
export function readMeasured(
	testable: readonly Testable[],
	typed: MeasuredTyped,
	units: Units,
):
	| Pick<BatteryItem, 'drillId' | 'parameters' | 'kind' | 'method'>
	| { wrong: 'drill' | 'method' | 'amount'; expected: string } {
	const of = testable.find(({ drillId }) => drillId === typed.drillId)
	if (!of) return { wrong: 'drill', expected: 'no such drill' }
	const method = (METHODS_OF[of.kind] as readonly string[]).find((one) => one === typed.method)
	if (!method) return { wrong: 'method', expected: 'it is not taken this way' }
	const amount =
		typed.amount.trim() === '' || !of.varies
			? of.varies?.usual
			: parameterTyped(of.varies.name, units).read(typed.amount)
	if (of.varies && !(amount && amount > 0 && amount <= 400))
		return {
			wrong: 'amount',
			expected: `a number of ${parameterTyped(of.varies.name, units).unit || 'yards or metres'} is expected`,
		}
	return {
		drillId: of.drillId,
		parameters: of.varies ? { [of.varies.name]: amount } : {},
		kind: of.kind,
		method: method as Method,
	}
}

/** A squad's batteries with what came of them, athlete by athlete; null for a stranger's squad. */
export async function readTests(who: SignedIn, squadId: string, today: string): Promise<TestsPage | null> {
	const scope = scopeOf(who.clubId)
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const batteries = await batteriesOf(scope, squadId)
	const [library, members, sessions, errors, blocks] = [
		await readLibrary(scope),
		(await listMembers(scope)).filter((member) => member.squadId === squadId),
		await sessionsOfBatteries(
			scope,
			batteries.map(({ id }) => id),
		),
		await readErrors(scope, squadId, addDays(today, 1)),
		(await listBlocks(scope)).filter((block) => block.squadId === squadId),
	]
	const means = await meansOfSessions(
		scope,
		sessions.map(({ sessionId }) => sessionId),
	)
	return {
		squadId,
		squadName: squad.name,
		testable: testableOf(library),
		batteries: batteries.map((battery): BatteryPage => {
			const own = sessions.filter((one) => one.batteryId === battery.id)
			const ids = new Set(own.map(({ sessionId }) => sessionId))
			const done = own.filter((one) => one.startedAt !== null)
			const last = done.at(-1) ?? null
			return {
				id: battery.id,
				name: battery.name,
				every: battery.every,
				retired: battery.retired,
				lastDay: last?.day ?? null,
				next: own.find((one) => one.startedAt === null && one.day >= today) ?? null,
				due: !battery.retired && isDue(battery.every, last?.day ?? null, today, blocks),
				items: battery.items.flatMap((item): TestItem[] => {
					const drill = library.drills[item.drillId]
					if (!drill) return []
					const results = means
						.filter((one) => ids.has(one.sessionId) && isOfItem(one.key, item, drill))
						.map((one) => ({ ...resultOf(item, one), athleteId: one.athleteId }))
					const people = members.map((member) => {
						const theirs = results.filter(({ athleteId }) => athleteId === member.id)
						return {
							athleteId: member.id,
							name: member.name,
							readings: readingsOf(item, theirs, errors[drill.id], last),
						}
					})
					const name = writeDrill(drill, item.parameters)
					return [
						{
							name,
							how: `${METHOD_NAMES[item.method]}, ${item.use} of ${item.tries}`,
							kind: item.kind,
							words: sayTest(
								name,
								people.map((one) => ({ name: one.name, reading: worstOf(one.readings) })),
							),
							people,
						},
					]
				}),
			}
		}),
	}
}

/** Each side's own reading of the last test; without one of it nothing is said of an older test. */
function readingsOf(
	item: BatteryItem,
	results: readonly (TestResult & { athleteId: string })[],
	errors: OwnErrors | undefined,
	last: { sessionId: string } | null,
): TestCell['readings'] {
	return ([null, 'left', 'right'] as const).flatMap((side) => {
		const own = results.filter(({ key }) => {
			const [has] = partsOfKey(key).side.split('.')
			return side === null ? has !== 'left' && has !== 'right' : has === side
		})
		const reading = readTest(item, own, errors)
		return reading && reading.sessionId === last?.sessionId ? [{ side, reading }] : []
	})
}
/** Of two sides the one that changed less well stands for the athlete in the count. */
const worstOf = (readings: TestCell['readings']): TestReading | null =>
	[...readings].sort((a, b) => (a.reading.last?.gain ?? 0) - (b.reading.last?.gain ?? 0))[0]?.reading ?? null

/** Due in every week it was not done in, in a block's last week, or never by itself. */
export function isDue(
	every: Every,
	lastDay: string | null,
	today: string,
	blocks: readonly { start: string; weeks: number }[],
): boolean {
	if (every === 'asked') return false
	const monday = mondayOf(today)
	if (every === 'week') return lastDay === null || lastDay < monday
	return blocks.some((block) => {
		const lastMonday = mondayOf(addDays(block.start, 7 * block.weeks - 1))
		return lastMonday === monday && (lastDay === null || lastDay < lastMonday)
	})
}

/** What a week says of a squad's regular tests: those nobody has done that are due, and those that were held, with their sessions. */
export async function testsOfWeek(
	scope: ClubScope,
	squadId: string,
	monday: string,
	today: string,
): Promise<{ due: string[]; held: { name: string; sessionIds: Set<string> }[] }> {
	const batteries = (await batteriesOf(scope, squadId)).filter(({ retired, every }) => !retired && every !== 'asked')
	const sessions = await sessionsOfBatteries(
		scope,
		batteries.map(({ id }) => id),
	)
	const blocks = (await listBlocks(scope)).filter((block) => block.squadId === squadId)
	const [due, held]: [string[], { name: string; sessionIds: Set<string> }[]] = [[], []]
	for (const { id, name, every } of batteries) {
		const own = sessions.filter((one) => one.batteryId === id && one.startedAt !== null)
		const within = own.filter(({ day }) => day >= monday && day <= addDays(monday, 6))
		if (within.length > 0) held.push({ name, sessionIds: new Set(within.map(({ sessionId }) => sessionId)) })
		// Of a week gone by nobody says that something is due.
		else if (mondayOf(today) === monday && isDue(every, own.at(-1)?.day ?? null, today, blocks)) due.push(name)
	}
	return { due, held }
}

export interface BatteryTyped {
	name: string
	every: string
	/** In order; those without a drill are left out. */
	items: (MeasuredTyped & { tries: string; use: string })[]
}

/** A new battery of a squad. */
export async function addBattery(
	who: SignedIn,
	squadId: string,
	typed: BatteryTyped,
	now: Date,
): Promise<{ id: string } | { problems: Problems } | null> {
	const problems: Problems = {}
	const name = typed.name.trim()
	if (name === '' || name.length > 80) problems.name = 'A name of up to 80 letters is expected.'
	const every = EVERY.find((one) => one === typed.every)
	if (!every) problems.every = 'Every week, at the end of a block, or when asked.'
	return inTransaction(database().db, who.clubId, async (scope) => {
		if (!(await readSquad(scope, squadId))) return null
		const testable = testableOf(await readLibrary(scope))
		const rows = typed.items.filter(({ drillId }) => drillId !== '')
		if (rows.length === 0) problems.items = 'Pick at least one drill to test.'
		if (rows.length > MOST_ITEMS) problems.items = `At most ${MOST_ITEMS} tests stand together.`
		const items = rows.flatMap((row, index): BatteryItem[] => {
			const measured = readMeasured(testable, row, who.units)
			const tries = Number(row.tries)
			const { use } = row
			const problem =
				'wrong' in measured
					? measured.expected
					: !Number.isInteger(tries) || tries < 1 || tries > MOST_TRIES
						? `1 to ${MOST_TRIES} tries are expected`
						: use !== 'best' && use !== 'mean'
							? 'best or mean is expected'
							: null
			if (problem) problems.items = `Test ${index + 1}: ${problem}.`
			if (problem || 'wrong' in measured) return []
			return [{ ...measured, tries, use: use as BatteryItem['use'], restS: 180 }]
		})
		if (Object.keys(problems).length > 0) return { problems }
		const id = newId()
		await insertBattery(scope, {
			id,
			squadId,
			name,
			every: every!,
			items,
			retired: false,
			madeBy: who.personId,
			madeAt: now,
		})
		return { id }
	})
}

/** Takes a battery off, or puts it back; its results stay. False for a stranger's. */
export async function setRetired(who: SignedIn, squadId: string, id: string, retired: boolean): Promise<boolean> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const battery = await readBattery(scope, id)
		return battery?.squadId === squadId ? retireBattery(scope, id, retired) : false
	})
}

/** A session in which the squad does a battery, as its sheet would be written for any other. Null for a stranger's. */
export async function planBattery(
	who: SignedIn,
	squadId: string,
	batteryId: string,
	day: string,
	now: Date,
): Promise<{ sessionId: string } | { problems: Problems } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const [squad, battery] = [await readSquad(scope, squadId), await readBattery(scope, batteryId)]
		if (!squad || !battery || battery.squadId !== squadId || battery.retired) return null
		const library = await readLibrary(scope)
		const members = await comingTo(scope, squadId, day)
		const made = await makeSession(
			scope,
			who.timeZone,
			{
				squadId,
				day,
				startTime: squad.startTime,
				title: battery.name,
				place: squad.place,
				surface: null,
				plannedMinutes: minutesOf(battery, members.length),
				role: 'hard',
				share: 1,
				athleteIds: members,
				entries: batteryEntries(battery.items, library, newId),
			},
			now,
		)
		if ('sessionId' in made) await addBatterySession(scope, batteryId, made.sessionId)
		return made
	})
}
/** A minute for each try of each athlete, five between the tests, a quarter of an hour to warm up. */
const minutesOf = ({ items }: BatteryRow, athletes: number): number =>
	Math.min(180, 15 + items.reduce((sum, item) => sum + 5 + Math.ceil((item.tries * Math.max(athletes, 4)) / 2), 0))
