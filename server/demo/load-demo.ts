import { returningOf } from '../../core/care/return-plan'
import { addDays, daysBetween, hoursBetween, mondayOf, weekday } from '../../core/calendar/day-count'
import { dayInZone, instantOf, timeInZone } from '../../core/calendar/days'
import type { LogEvent } from '../../core/vocabulary/events'
import { freshEntry } from '../../core/plan/entry-parts'
import { NO_REST } from '../../core/vocabulary/dose'
import { keptEntry } from '../sheet/save-session'
import { plannedOf } from '../sheet/planned-of'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { Phase, Surface } from '../../core/vocabulary/words'
import type { Stamp } from '../../core/marks/keep-session'
import type { SessionMean } from '../../core/noise/usual'
import { keepMarks } from '../marks/keep-marks'
import { afterStep, permitLine, stepOf } from '../../core/plan/permit-line'
import type { OutsideLoad } from '../../core/judge/outside-load'
import { resolveLine } from '../../core/judge/resolve-line'
import { type BlockPlan, defaultPhases, defaultShape } from '../../core/plan/block'
import { timeAtDistance } from '../../core/measure/sprint/sprint-curve'
import { insertMeasurement } from '../../db/queries/measurements'
import { writeOutside } from '../../db/queries/care'
import { type ClubScope, type Database, inTransaction } from '../../db/connect'
import { insertAthletes, insertClub, insertPerson } from '../../db/queries/clubs'
import { hashOf, installLibrary } from '../../db/queries/library'
import { writeAddress } from '../../db/queries/emergency'
import { insertGround } from '../../db/queries/grounds'
import {
	insertAttending,
	insertEntries,
	insertSession,
	markStarted,
	readEntries,
	readLines,
	readSession,
} from '../../db/queries/sessions'
import { addMembers, insertSquad, readSquad, updateAthleteType, writeLevel, writeState } from '../../db/queries/squads'
import type { Role } from '../../db/schema/people'
import { hashPassword } from '../access/password'
import { concludedOf } from './life-facts'
import { readCalendar } from '../plan/calendar'
import { insertBlock } from '../../db/queries/plan'
import { addBatterySession, insertBattery } from '../../db/queries/record'
import type { BatteryItem } from '../../core/record/battery'
import { writeBlock } from '../plan/make-block'
import { repairInside } from '../plan/repair-sheet'
import { writeLines } from '../sheet/write-lines'
import { Random } from '../../core/chance/random'
import {
	DEMO_ADDRESSES,
	DEMO_ATHLETES,
	DEMO_BENCH,
	DEMO_CONTACTS,
	DEMO_GROUNDS,
	DEMO_PARTS,
	DEMO_PHASES,
	DEMO_SQUADS,
	DEMO_TESTS,
	DEMO_TRIALS,
	type DemoPart,
	type DemoSquadPlan,
} from './scenario'
import { DEMO_SIGN_IN } from './sign-in'
import { DemoTrialLife } from './demo-trial'
import { simulateLine } from './simulate-line'
import { firstStates, type Life, massOf } from './life'
import { DemoLog } from './demo-log'

const DEMO_PEOPLE: { email: string; name: string; role: Role; athlete?: string }[] = [
	{ email: DEMO_SIGN_IN.email, name: 'Marit Solano', role: 'coach' },
	{ email: 'assistant@demo.invalid', name: 'Dov Ferrand', role: 'assistant' },
	{ email: 'physio@demo.invalid', name: 'Hana Brekke', role: 'clinician' },
	{ email: 'ilka@demo.invalid', name: 'Ilka Moreau', role: 'athlete', athlete: 'Ilka Moreau' },
]
const DEMO_TIME_ZONE = 'Atlantic/Madeira'
/** How long ago the session under way began, if the day is old enough. */
const UNDER_WAY_MS = 40 * 60_000
const FIVE_MINUTES_MS = 300_000
const wholeFiveMinutes = (ms: number) => Math.floor(ms / FIVE_MINUTES_MS) * FIVE_MINUTES_MS
/** The block's last session lies within this. */
const DEMO_AHEAD_DAYS = 42

/**
 * Writes an invented club with nine weeks of history that ends today. What was logged comes from each
 * athlete's own model and seeded noise; every verdict in between is the product's own.
 */
export async function loadDemo(db: Database, now: Date): Promise<void> {
	const random = new Random(15)
	const clubId = random.uuid()
	const passwordHash = await hashPassword(DEMO_SIGN_IN.password)
	await inTransaction(db, clubId, async (scope) => {
		await new DemoClub(scope, random, now).write(passwordHash)
	})
}

class DemoClub {
	private readonly today: string
	private readonly coachId: string
	private readonly log: DemoLog

	constructor(
		private readonly scope: ClubScope,
		private readonly random: Random,
		private readonly now: Date,
	) {
		this.today = dayInZone(now.toISOString(), DEMO_TIME_ZONE)
		const deviceId = random.uuid()
		this.coachId = random.uuid()
		this.log = new DemoLog(scope, random, deviceId, this.coachId)
	}

	async write(passwordHash: string): Promise<void> {
		const { scope, random, now } = this
		await insertClub(scope.db, {
			id: scope.clubId,
			name: 'Saltmarsh Ultimate',
			timeZone: DEMO_TIME_ZONE,
			createdAt: now,
		})
		await installLibrary(scope, now)
		const lives = DEMO_ATHLETES.map((demo, index): Life => {
			const id = random.uuid()
			const plan = DEMO_SQUADS.find((one) => one.key === demo.squad)!
			const [stamps, means] = [new Map<string, Stamp>(), new Map<string, SessionMean[]>()]
			const birthDate = addDays(this.today, -Math.round(demo.age * 365.25 + 20 + random.next() * 300))
			return {
				id,
				demo,
				random: new Random(1500 + index),
				states: firstStates(demo),
				stamps,
				means,
				bests: new Map(),
				worked: {},
				pains: [],
				cleared: [],
				history: {
					athleteId: id,
					birthDate,
					massKg: massOf(demo),
					sessions: [],
					lines: [],
					events: [],
					counts: new Map(),
					stamps,
					means,
					outside: matchesOf(plan, this.today),
					care: [],
					newRungs: [],
				},
			}
		})
		await insertAthletes(
			scope,
			lives.map(({ id, demo, history }, index) => ({
				id,
				name: demo.name,
				birthDate: history.birthDate,
				legLengthMm: Math.round(demo.legM * 1000),
				massKg: history.massKg,
				emergencyContact: `${DEMO_CONTACTS[index % DEMO_CONTACTS.length]}, 0555 010 ${String(100 + index)}`,
				createdAt: now,
			})),
		)
		for (const { id, demo } of lives) if (demo.type) await updateAthleteType(scope, id, demo.type)
		for (const person of DEMO_PEOPLE) {
			const athleteId = lives.find((life) => life.demo.name === person.athlete)?.id ?? null
			await insertPerson(scope, {
				id: person.role === 'coach' ? this.coachId : random.uuid(),
				email: person.email,
				name: person.name,
				role: person.role,
				passwordHash,
				athleteId,
				createdAt: now,
			})
		}
		for (const life of lives)
			for (const family of ['sprint', 'agility', 'plyometric', 'throw'] as const)
				await writeLevel(scope, life.id, family, life.demo.level)
		for (const plan of DEMO_SQUADS)
			await this.writeSquad(
				plan,
				lives.filter((life) => life.demo.squad === plan.key),
			)
		await this.mendSheets()
		await this.writeTests(lives)
		for (const ground of DEMO_GROUNDS) await insertGround(scope, { id: random.uuid(), ...ground })
		for (const { place, address } of DEMO_ADDRESSES)
			await writeAddress(scope, { place, address, changedBy: this.coachId, changedAt: now })
	}

	private async writeSquad(plan: DemoSquadPlan, lives: Life[]): Promise<void> {
		const { scope, random } = this
		const squadId = random.uuid()
		const ids = lives.map((life) => life.id)
		const trainingDays = plan.offsets.map((ago) => weekday(addDays(this.today, -ago))).sort()
		await insertSquad(scope, {
			id: squadId,
			name: plan.name,
			schoolId: 'quality-first',
			schoolVersion: STARTER_LIBRARY.schools['quality-first']!.version,
			phase: plan.phaseNow,
			trainingDays,
			startTime: plan.startTime,
			place: plan.place,
		})
		await addMembers(scope, squadId, ids, addDays(this.today, -7 * DEMO_PHASES.length))

		// The squad's sessions, oldest first: days ago, and how many sessions ago that is.
		const past = DEMO_PHASES.flatMap((phase, week) =>
			plan.offsets.map((ago) => ({ phase, ago: ago + 7 * (DEMO_PHASES.length - 1 - week) })),
		)
			.filter(({ ago }) => ago > 0)
			.sort((a, b) => b.ago - a.ago)
		const nextAhead = Math.min(...plan.offsets.map((ago) => (ago === 0 ? 0 : 7 - ago)))
		for (const demo of DEMO_TRIALS.filter((one) => one.squad === plan.key))
			this.trials.push(
				new DemoTrialLife(
					squadId,
					demo,
					lives.map((life) => ({ id: life.id, name: life.demo.name })),
				),
			)
		if (plan.pastBlocks) await this.writePastBlocks(plan, squadId, addDays(this.today, -past[0]!.ago))
		for (const [index, { phase, ago }] of past.entries()) {
			const sessionsAgo = past.length - index
			const waits = plan.key === 'u17' && sessionsAgo === 1
			await this.writePast(
				plan,
				squadId,
				lives,
				phase,
				ago,
				sessionsAgo,
				index / (past.length - 1),
				past[index + 1]?.ago ?? -nextAhead,
				past[index + 1]?.phase ?? plan.phaseNow,
				waits,
			)
		}
		if (plan.pastBlocks) await this.writeBattery(squadId)
		await this.writeMatches(plan, lives)
		await this.log.write()
		for (const trial of this.trials.filter((one) => one.squadId === squadId))
			await trial.write(scope, this.coachId, this.today, this.now)
		for (const life of lives)
			for (const state of life.states.values())
				await writeState(scope, life.id, state, addDays(this.today, -1), this.now)
		await this.writeAhead(plan, squadId, lives)
	}

	/** A battery of what everybody does anyhow, done three times: at the start, in between, and last week. */
	private async writeBattery(squadId: string): Promise<void> {
		const own = this.past.filter((one) => one.squadId === squadId)
		const id = this.random.uuid()
		const item = (drillId: string, parameters: BatteryItem['parameters']): BatteryItem => ({
			drillId,
			parameters,
			kind: 'distance',
			method: 'tape',
			tries: 3,
			use: 'mean',
			restS: 120,
		})
		await insertBattery(this.scope, {
			id,
			squadId,
			name: 'Jump and throw',
			every: 'block',
			items: [item('broad-jump', {}), item('overhead-throw', { ballKg: 3 })],
			retired: false,
			madeBy: this.coachId,
			madeAt: new Date(`${own[0]!.day}T08:00:00Z`),
		})
		for (const at of [0, Math.floor(own.length / 2), own.length - 2])
			await addBatterySession(this.scope, id, own[at]!.sessionId)
	}

	/** The block with its unloading week and the one after it, as their plans would stand there. */
	private async writePastBlocks(plan: DemoSquadPlan, squadId: string, first: string): Promise<void> {
		// The first ends with its unloading week.
		const [weeks, begins] = [DEMO_PHASES.indexOf('unloading') + 1, mondayOf(first)]
		for (const at of [0, 1]) {
			const start = addDays(begins, at * weeks * 7)
			const block = { id: this.random.uuid(), squadId, start, end: addDays(start, weeks * 7 - 1) }
			// Weeks of the demo end with today, those of a block with a Sunday: the last one takes what is left.
			const count = at === 0 ? weeks : Math.floor(daysBetween(start, this.today) / 7) + 1
			this.blocks.push({ ...block, end: at === 0 ? block.end : this.today })
			await insertBlock(this.scope, {
				id: block.id,
				squadId,
				start,
				weeks: count,
				plan: {
					start,
					phases: Array.from(
						{ length: count },
						(_, week) => DEMO_PHASES[Math.min(at * weeks + week, DEMO_PHASES.length - 1)]!,
					),
					shape: defaultShape(count),
					days: plan.offsets.map((ago) => ({
						weekday: weekday(addDays(this.today, -ago)),
						startTime: plan.startTime,
						minutes: plan.minutes,
					})),
				},
				madeBy: this.coachId,
				madeAt: new Date(`${start}T08:00:00Z`),
			})
		}
	}

	/** What comes: the next two sessions, or those until a block begins, written the way the product writes them. */
	private async writeAhead(plan: DemoSquadPlan, squadId: string, lives: Life[]): Promise<void> {
		const squad = await readSquad(this.scope, squadId)
		const blockStart = addDays(mondayOf(this.today), 7)
		const days = plan.offsets
			.map((ago) => addDays(this.today, ago === 0 ? 0 : 7 - ago))
			.filter((day) => !plan.block || day < blockStart)
			.sort()
		for (const day of days) {
			const underWay = plan.underWay === true && day === this.today
			const startedAt = underWay
				? new Date(Math.max(this.midnight(), wholeFiveMinutes(this.now.getTime() - UNDER_WAY_MS)))
				: null
			const { sessionId } = await this.writeSheet(
				startedAt ? { ...plan, startTime: timeInZone(startedAt.toISOString(), DEMO_TIME_ZONE) } : plan,
				squadId,
				day,
				plan.phaseNow,
				null,
				null,
				lives.map((life) => life.id),
			)
			const session = await readSession(this.scope, sessionId)
			if (squad && session) await writeLines(this.scope, session, squad, STARTER_LIBRARY, this.now)
			if (startedAt) await this.begin(sessionId, startedAt, lives)
		}
		if (plan.block) await this.writeBlock(plan, squadId, blockStart)
	}

	/** The instant today began at the club. */
	private midnight = () => instantOf(this.today, '00:00', DEMO_TIME_ZONE).getTime()

	/** The first part of a session is done, the second half done: everybody's stiffness, and the first three starts. */
	private async begin(sessionId: string, startedAt: Date, lives: Life[]): Promise<void> {
		await markStarted(this.scope, sessionId, startedAt)
		const entries = await readEntries(this.scope, [sessionId])
		const begun = entries.filter(({ ladderId }) => ladderId === 'stiffness' || ladderId === 'acceleration')
		const lines = await readLines(this.scope, [sessionId])
		const elapsed = this.now.getTime() - startedAt.getTime()
		for (const [place, entry] of begun.entries())
			for (const life of lives) {
				const line = lines.find((one) => one.entryId === entry.id && one.athleteId === life.id)
				const drill = line?.drillId ? STARTER_LIBRARY.drills[line.drillId] : undefined
				if (!line || !drill) continue
				const planned = plannedOf(line)
				if (!planned) continue
				const events = simulateLine(
					life.demo,
					planned,
					drill,
					{
						sessionId,
						athleteId: life.id,
						entryId: entry.id,
						lineId: line.id,
						stamp: () => this.log.stamp(startedAt),
						progress: 1,
						sessionsAgo: 0,
					},
					life.random,
				)
				const done = entry.ladderId === 'acceleration' ? events.slice(0, 3) : events
				for (const [at, event] of done.entries()) {
					const share = (place + (at + 1) / done.length) / begun.length
					const deviceTime = new Date(startedAt.getTime() + share * 0.9 * elapsed).toISOString()
					this.log.add(life, { ...event, deviceTime }, planned, entry.id, this.now)
				}
			}
		for (const life of lives) this.log.pains(life, sessionId, 0, startedAt, this.now)
		await this.log.write()
		await keepMarks(
			this.scope,
			sessionId,
			lives.map((life) => life.id),
		)
	}

	/** What the calendar would name on the sheets ahead is repaired as it offers, each once, soonest first: what is mended weighs on what follows. */
	private async mendSheets(): Promise<void> {
		const tried = new Set<string>()
		for (;;) {
			const { sessions, sheetClashes } = await readCalendar(
				this.scope,
				this.today,
				addDays(this.today, DEMO_AHEAD_DAYS),
				this.today,
			)
			const place = (id: string) => sessions.findIndex((session) => session.id === id)
			const [first] = sheetClashes
				.filter(({ sessionId, repair }) => repair && sessions[place(sessionId)]?.startedAt === null)
				.filter(({ sessionId, repair }) => !tried.has(`${sessionId}/${repair}`))
				.sort((a, b) => place(a.sessionId) - place(b.sessionId))
			if (!first?.repair) return
			tried.add(`${first.sessionId}/${first.repair}`)
			await repairInside(this.scope, first.sessionId, first.repair, this.today, this.now)
		}
	}

	private async writeBlock(plan: DemoSquadPlan, squadId: string, start: string): Promise<void> {
		const days = plan.offsets
			.map((ago) => weekday(addDays(this.today, -ago)))
			.sort()
			.map((day): BlockPlan['days'][number] => ({
				weekday: day,
				startTime: plan.startTime,
				minutes: plan.minutes,
			}))
		const made = await writeBlock(
			this.scope,
			{ clubId: this.scope.clubId, personId: this.coachId, timeZone: DEMO_TIME_ZONE },
			squadId,
			{
				start,
				phases: defaultPhases(4, 'accumulate'),
				shape: defaultShape(4),
				days,
				priority: 'sprint',
				kept: [],
				testDay: true,
				content: 'proposed',
				themed: true,
			},
			this.today,
			this.now,
		)
		if (!made || 'problem' in made) throw new Error(`the demo's block: ${made?.problem ?? 'no squad'}`)
	}

	/** Sprint tests at the gates, from each athlete's own model: a little better each time; and what else the bench took. */
	private async writeTests(lives: Life[]): Promise<void> {
		for (const [time, ago] of DEMO_TESTS.daysAgo.entries())
			for (const life of lives.filter(({ demo }) => DEMO_TESTS.athletes.includes(demo.name))) {
				const mss = life.demo.mss * (0.985 + 0.0075 * time)
				const input = {
					correction: 'none',
					splits: [5, 10, 20, 30].map((distance_m) => ({
						distance_m,
						time_s: Number((timeAtDistance(mss, life.demo.tau, distance_m) + life.random.normal(0.008)).toFixed(2)),
					})),
				}
				await this.keepMeasured(this.random.uuid(), life, ago, 'sprint-profile', 'gate', input)
			}
		// Ids of their own, so that nothing else of the demo changes with them.
		const ids = new Random(77)
		for (const { athlete, daysAgo, calculation, method, input } of DEMO_BENCH) {
			const life = lives.find(({ demo }) => demo.name === athlete)
			if (life) await this.keepMeasured(ids.uuid(), life, daysAgo, calculation, method, input)
		}
	}

	private async keepMeasured(
		id: string,
		life: Life,
		ago: number,
		calculation: string,
		method: string,
		input: Record<string, unknown>,
	): Promise<void> {
		const takenOn = addDays(this.today, -ago)
		await insertMeasurement(this.scope, {
			id,
			athleteId: life.id,
			authorId: this.coachId,
			takenOn,
			calculation,
			method,
			input,
			replacesId: null,
			isVoid: false,
			contentHash: hashOf({ athleteId: life.id, takenOn, calculation, method, input }),
			receivedAt: new Date(`${takenOn}T19:00:00Z`),
		})
	}

	private async writeSheet(
		plan: DemoSquadPlan,
		squadId: string,
		day: string,
		phase: Phase,
		startedAt: Date | null,
		reviewedAt: Date | null,
		athleteIds: string[],
		blockId: string | null = null,
		trials: readonly DemoPart[] = [],
	) {
		const { scope, random } = this
		const sessionId = random.uuid()
		const title = phase === 'unloading' ? 'Unloading, all at 60 %' : 'Speed, jumps and cuts'
		this.log.days.add(day)
		await insertSession(scope, {
			id: sessionId,
			squadId,
			day,
			startTime: plan.startTime,
			timeZone: DEMO_TIME_ZONE,
			title,
			place: plan.place,
			phase,
			surface: groundOf(plan),
			plannedMinutes: plan.minutes,
			startedAt,
			reviewedAt,
			blockId,
		})
		await insertAttending(scope, sessionId, athleteIds)
		const usual = DEMO_PARTS.filter((part) => !(part.seniorOnly && plan.key === 'u17'))
		// The close stays the last.
		const parts = [...usual.slice(0, -1), ...trials, ...usual.slice(-1)]
		const entries = parts.map(({ part, of, dose, parameters = {}, lanes = 1 }, position) => {
			const fresh = freshEntry(random.uuid(), of, STARTER_LIBRARY, { part, lanes })
			if (!fresh) throw new Error(`the demo names an unknown drill in ${part}`)
			const kept = keptEntry(sessionId, { ...fresh, dose, parameters }, position, STARTER_LIBRARY)
			return {
				...kept,
				id: fresh.id,
				doseFactor: phase === 'unloading' && kept.family !== 'prepare' ? 0.6 : 1,
			}
		})
		await insertEntries(scope, entries)
		return { sessionId, entries }
	}

	private async writePast(
		plan: DemoSquadPlan,
		squadId: string,
		lives: Life[],
		phase: Phase,
		ago: number,
		sessionsAgo: number,
		progress: number,
		nextAgo: number,
		nextPhase: Phase,
		waits: boolean,
	): Promise<void> {
		const day = addDays(this.today, -ago)
		const startedAt = new Date(`${day}T${plan.startTime}:00Z`)
		const trials = this.trials.filter((one) => one.squadId === squadId && sessionsAgo <= one.demo.sessions)
		const { sessionId, entries } = await this.writeSheet(
			plan,
			squadId,
			day,
			phase,
			startedAt,
			waits ? null : new Date(startedAt.getTime() + 7_200_000),
			lives.map((life) => life.id),
			this.blocks.find((one) => one.squadId === squadId && day >= one.start && day <= one.end)?.id ?? null,
			trials.flatMap((one) => one.parts()),
		)
		const tries = trials.flatMap((one) => one.begin(sessionId, day, entries))
		this.past.push({ squadId, sessionId, day })
		const session = { id: sessionId, day, startTime: plan.startTime, phase, surface: groundOf(plan) }
		for (const life of lives) this.log.takeCare(life, sessionsAgo, day, startedAt)
		const school = STARTER_LIBRARY.schools['quality-first']!
		for (const life of lives) {
			life.history.sessions.push(session)
			const { demo } = life
			const workedBefore = { ...life.worked }
			const away = demo.away !== undefined && sessionsAgo >= demo.away[0] && sessionsAgo <= demo.away[1]
			const absent = away || life.random.chance(sessionsAgo > 2 ? 0.07 : 0)
			let concluded = concludedOf(life, { day, startTime: plan.startTime, phase, surface: null }, school)
			const spoilt = new Set<DemoTrialLife>()
			for (const entry of entries) {
				const tried = tries.find(({ entryId }) => entryId === entry.id)
				// A trial is nobody else's.
				if (tried && !(life.id in tried.conditions)) continue
				const state = entry.ladderId ? (life.states.get(entry.ladderId) ?? null) : null
				const asked = resolveLine(entry, state, STARTER_LIBRARY, concluded.facts)
				const put = asked.blocked === null && asked.rungId !== null && state?.rungId === asked.rungId
				const without = tried?.stage === 'treatment' && tried.conditions[life.id] === 'control'
				const resolved = without
					? { blocked: 'without it today: rest as long', ladderId: null }
					: permitLine(asked, concluded, STARTER_LIBRARY, put)
				// What stands in the place of what is tried makes the day none of the trial.
				const isWhole =
					without || (resolved.blocked === null && asked.blocked === null && resolved.drillId === asked.drillId)
				if (tried && !isWhole) spoilt.add(tried.trial)
				const step = resolved.blocked === null ? stepOf(resolved, concluded, STARTER_LIBRARY) : null
				if (step !== null) concluded = afterStep(concluded, step)
				const lineId = this.random.uuid()
				const common = {
					id: lineId,
					sessionId,
					entryId: entry.id,
					athleteId: life.id,
					version: 1,
					current: true,
					origin: 'resolved' as const,
					change: null,
					wouldBe: null,
					createdAt: startedAt,
				}
				if (resolved.blocked !== null) {
					this.log.lines.push({
						...common,
						blocked: resolved.blocked,
						drillId: null,
						drillVersion: null,
						ladderId: resolved.ladderId,
						rungId: null,
						dose: { sets: 0, reps: 0 },
						parameters: {},
						rest: NO_REST,
					})
					continue
				}
				const { note: _note, ...line } = resolved
				this.log.lines.push({ ...common, ...line })
				life.history.lines.push({ ...line, id: lineId, entryId: entry.id, sessionId })
				const drill = STARTER_LIBRARY.drills[resolved.drillId]
				if (absent || !drill || drill.family === 'prepare') continue
				const place = {
					sessionId,
					athleteId: life.id,
					entryId: entry.id,
					lineId,
					stamp: () => this.log.stamp(startedAt),
					progress,
					sessionsAgo,
					afterMatch: life.history.outside.some((load) => {
						const hours = hoursBetween(load, { day, startTime: plan.startTime })
						return load.kind === 'match' && hours > 0 && hours <= 48
					}),
					...(tried?.stage === 'after' && tried.conditions[life.id] === 'treatment'
						? { helped: tried.trial.demo.athletes[demo.name]! }
						: {}),
				}
				for (const event of simulateLine(demo, resolved, drill, place, tried?.trial.random ?? life.random)) {
					const typed =
						waits && demo.mistypes && event.kind === 'sprint' && event.repNo === 2 ? aSecondLess(event) : event
					this.log.add(life, typed, resolved, entry.id, startedAt)
				}
			}
			if (!absent)
				for (const trial of new Set(tries.map((one) => one.trial)))
					if (life.demo.name in trial.demo.athletes && !spoilt.has(trial)) trial.did(life.id)
			if (!absent) this.log.pains(life, sessionId, sessionsAgo, startedAt, startedAt)
			// Whoever is on the way back was asked after the step; of the session that waits the review asks.
			const stepped = life.history.events.some((event) => event.sessionId === sessionId && event.type === 'mark')
			if (!waits && !absent && stepped)
				for (const region of returningOf(concluded.plan))
					this.log.add(
						life,
						{
							...this.log.stamp(startedAt),
							sessionId,
							athleteId: life.id,
							type: 'observation',
							kind: 'quiet',
							value: { region, side: 'both', score: 0 },
						},
						null,
						null,
						startedAt,
					)
			this.log.keep(life, session, workedBefore)
			if (!waits) this.log.judge(life, session, entries, addDays(this.today, -nextAgo), nextPhase, startedAt)
		}
		for (const life of lives) this.log.rememberBests(life, sessionId)
	}

	private readonly trials: DemoTrialLife[] = []
	private readonly past: { squadId: string; sessionId: string; day: string }[] = []
	/** Blocks gone by, with the days their sessions lie in. */
	private readonly blocks: { id: string; squadId: string; start: string; end: string }[] = []

	/** Every second week a match two days after the squad's later session, and the one that comes next. */
	private async writeMatches(plan: DemoSquadPlan, lives: Life[]): Promise<void> {
		await writeOutside(
			this.scope,
			lives.flatMap((life) =>
				matchesOf(plan, this.today).map((load) => ({
					id: this.random.uuid(),
					athleteId: life.id,
					...load,
					isVoid: false,
					recordedBy: this.coachId,
					recordedAt: this.now,
				})),
			),
		)
	}
}

/** Matches in the evening, two days after the later session of the week: far enough from both. */
function matchesOf(plan: DemoSquadPlan, today: string): OutsideLoad[] {
	const later = 7 - Math.max(...plan.offsets)
	return [-8, -6, -4, -2, 0].map((weeks) => ({
		kind: 'match',
		day: addDays(today, later + 2 + weeks * 7),
		startTime: '19:00',
		minutes: 90,
		rpe: weeks < 0 ? 7 : null,
		hardRunning: true,
		hardCutting: true,
	}))
}

/** 2.02 for 3.02: what a thumb does on a phone. */
const aSecondLess = (mark: Extract<LogEvent, { kind: 'sprint' }>): LogEvent => ({
	...mark,
	value: {
		...mark.value,
		splits: mark.value.splits.map((split, at) =>
			at === mark.value.splits.length - 1 ? { ...split, timeS: Number((split.timeS - 1).toFixed(2)) } : split,
		),
	},
})
const groundOf = (plan: DemoSquadPlan): Surface => (plan.key === 'u17' ? 'gravel' : 'grass')
