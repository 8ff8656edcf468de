import { addTo } from '../../core/lists/group-by'
import { returningOf } from '../../core/care/return-plan'
import { daysBetween } from '../../core/calendar/day-count'
import { countMark } from '../../core/dose/count-mark'
import { effortZone } from '../../core/measure/sprint/effort-zone'
import { type SparseCount, toSparse } from '../../core/dose/sparse-count'
import type { LogEvent } from '../../core/vocabulary/events'
import { rungOf, STARTER_LIBRARY } from '../../core/library/starter-library'
import type { Clearance } from '../../core/vocabulary/care'
import type { Phase } from '../../core/vocabulary/words'
import { bulkInsert } from '../../db/bulk-insert'
import { chunks } from '../../db/queries/chunks'
import { insertClearance } from '../../db/queries/verdicts'
import { evidenceFor, gatherInput, type HistorySession } from '../../core/judge/gather-input'
import { judgeAthlete } from '../../core/judge/judge-athlete'
import { keepSession } from '../../core/marks/keep-session'
import { KEY_VERSION } from '../../core/marks/mark-key'
import { AWAY_DAYS } from '../../core/rules/p9-time-away'
import { insertMeans, type KeptMean } from '../../db/queries/marks'
import { enterWayBack } from '../../core/judge/missed-time'
import { pathFor } from '../../core/judge/safety-rules'
import { walkTogether } from '../../core/judge/walk-together'
import { restrictsDrill } from '../../core/rules/bars'
import type { LadderState } from '../../core/judge/types'
import { isHard } from '../../core/dose/work-kinds'
import { insertCare, keepWorkDays } from '../../db/queries/care'
import type { ClubScope } from '../../db/connect'
import { hashOf } from '../../db/queries/library'
import { insertLines } from '../../db/queries/sessions'
import { decision, mark, observation } from '../../db/schema/log'
import { verdict } from '../../db/schema/verdicts'
import { careDayOf } from '../facts/facts-on'
import { concludedOf, levelsOf } from './life-facts'
import type { Random } from '../../core/chance/random'
import type { DemoAthlete } from './scenario'
import type { PlannedLine } from '../../core/vocabulary/line'
import { type Life, standingsOf } from './life'

interface Rows {
	marks: (typeof mark.$inferInsert)[]
	means: KeptMean[]
	observations: (typeof observation.$inferInsert)[]
	decisions: (typeof decision.$inferInsert)[]
	verdicts: (typeof verdict.$inferInsert)[]
	lines: Parameters<typeof insertLines>[1]
	care: Parameters<typeof insertCare>[1][]
	clearances: Parameters<typeof insertClearance>[1][]
}

/** What was logged, judged and opened in the club's past, as the product would have kept it; written a squad at a time. */
export class DemoLog {
	private readonly rows: Rows = {
		marks: [],
		means: [],
		observations: [],
		decisions: [],
		verdicts: [],
		lines: [],
		care: [],
		clearances: [],
	}
	/** Lines of sheets gone by. */
	readonly lines = this.rows.lines
	private seq = 0
	/** Marks of the session somebody is in, until they have their keys. */
	private readonly unstamped: (typeof this.rows.marks)[number][] = []
	/** Days of sessions whose marks are still to be written. */
	readonly days = new Set<string>()

	constructor(
		private readonly scope: ClubScope,
		private readonly random: Random,
		private readonly deviceId: string,
		private readonly coachId: string,
	) {}

	stamp(startedAt: Date) {
		this.seq += 1
		return {
			id: this.random.uuid(),
			deviceId: this.deviceId,
			deviceSeq: this.seq,
			deviceTime: new Date(startedAt.getTime() + (this.seq % 5000) * 1000).toISOString(),
		}
	}

	/** What hurt in a session, so many of the squad's sessions ago. */
	pains(life: Life, sessionId: string, sessionsAgo: number, startedAt: Date, receivedAt: Date): void {
		for (const { ago, region, side, score } of life.demo.pains ?? [])
			if (ago === sessionsAgo)
				this.add(
					life,
					{
						...this.stamp(startedAt),
						sessionId,
						athleteId: life.id,
						type: 'observation',
						kind: 'pain',
						value: { region, side, score, moment: 'during', redFlag: false },
					},
					null,
					null,
					receivedAt,
				)
	}

	add(life: Life, event: LogEvent, line: PlannedLine | null, entryId: string | null, receivedAt: Date): void {
		life.history.events.push(event)
		const day = receivedAt.toISOString().slice(0, 10)
		if (line && event.type === 'mark') life.worked[STARTER_LIBRARY.drills[line.drillId]!.family] = day
		if (event.type === 'observation' && event.kind === 'quiet')
			life.pains.push({ kind: 'pain', ...event.value, day, asked: true })
		if (event.type === 'observation' && event.kind === 'pain') {
			const { region, side, score, redFlag } = event.value
			life.pains.push({ kind: 'pain', region, side, score, redFlag, day })
		}
		const row = {
			clubId: this.scope.clubId,
			id: event.id,
			sessionId: event.sessionId,
			athleteId: event.athleteId,
			authorId: this.coachId,
			deviceId: event.deviceId,
			deviceSeq: event.deviceSeq,
			deviceTime: new Date(event.deviceTime),
			receivedAt,
			replacesId: null,
			isVoid: false,
			contentHash: hashOf(event),
			kind: event.kind,
			value: event.value as Record<string, unknown>,
		}
		const place =
			'lineId' in event
				? { entryId: event.entryId ?? null, lineId: event.lineId ?? null }
				: { entryId: null, lineId: null }
		if (event.type === 'decision') this.rows.decisions.push({ ...row, ...place })
		else if (event.type === 'observation')
			this.rows.observations.push({
				...row,
				...place,
				athleteId: event.athleteId,
				setNo: 'setNo' in event ? event.setNo : null,
				repNo: 'repNo' in event ? event.repNo : null,
				side: null,
			})
		else if (line && entryId) {
			const drill = STARTER_LIBRARY.drills[line.drillId]!
			const last = event.kind === 'sprint' ? event.value.splits.at(-1) : undefined
			const best =
				last && event.kind === 'sprint'
					? life.bests.get(bestKey(drill.start, last.distanceM, event.value.method))
					: undefined
			const count = countMark(event, line, drill, last && best ? effortZone(last.timeS, best) : null, life.demo.legM)
			const counts: SparseCount = toSparse(count)
			life.history.counts.set(event.id, counts)
			const markRow: (typeof this.rows.marks)[number] = {
				entryId,
				lineId: event.lineId,
				setNo: event.setNo,
				repNo: event.repNo,
				side: event.side ?? null,
				drillId: drill.id,
				start: drill.start ?? null,
				distanceM: last?.distanceM ?? null,
				timeS: last?.timeS ?? null,
				method: 'method' in event.value ? event.value.method : null,
				counts,
				...row,
				athleteId: event.athleteId,
			}
			this.rows.marks.push(markRow)
			this.unstamped.push(markRow)
		}
	}

	/** Keys, means and what is set aside, as the log keeps them. */
	keep(life: Life, session: HistorySession, workedBefore: Life['worked']): void {
		const lineOf = new Map(life.history.lines.map((line) => [line.id, line]))
		const marks = life.history.events.flatMap((event) => {
			const line = event.type === 'mark' && event.sessionId === session.id ? lineOf.get(event.lineId) : undefined
			const drill = line && STARTER_LIBRARY.drills[line.drillId]
			return event.type === 'mark' && drill ? [{ mark: event, on: { ...line, drill } }] : []
		})
		const surface = session.surface ?? null
		const kept = keepSession(
			{ day: session.day, surface, unloading: session.phase === 'unloading' },
			marks,
			(key) => life.means.get(key) ?? [],
			{
				levelOf: () => life.demo.level,
				isFirstDayBack: (family) => {
					const last = workedBefore[family]
					return last !== undefined && daysBetween(last, session.day) > AWAY_DAYS.none
				},
			},
		)
		for (const row of this.unstamped.splice(0)) {
			const stamp = kept.stamps.get(row.id)
			if (stamp) Object.assign(row, { markKey: stamp.key, setAside: stamp.setAside })
			else row.markKey ??= `${KEY_VERSION}|`
		}
		for (const [id, stamp] of kept.stamps) life.stamps.set(id, stamp)
		for (const [key, one] of kept.means) {
			addTo(life.means, key, one)
			this.rows.means.push({ ...one, athleteId: life.id, key, sessionId: session.id })
		}
	}

	/** A best counts from the next session on. */
	rememberBests(life: Life, sessionId: string): void {
		for (const event of life.history.events) {
			if (event.sessionId !== sessionId || event.type !== 'mark' || event.kind !== 'sprint') continue
			const line = life.history.lines.find((candidate) => candidate.entryId === event.entryId)
			const last = event.value.splits.at(-1)
			if (!line || !last) continue
			const key = bestKey(STARTER_LIBRARY.drills[line.drillId]?.start, last.distanceM, event.value.method)
			life.bests.set(key, Math.min(life.bests.get(key) ?? Number.POSITIVE_INFINITY, last.timeS))
		}
	}

	/** What the scenario opens and ends before a session; a clearance leads onto the way back. */
	takeCare(life: Life, sessionsAgo: number, day: string, at: Date): void {
		for (const one of life.demo.care ?? []) {
			if (one.opened === sessionsAgo) {
				life.history.care.push(recordOf(one, day))
				this.rows.care.push({
					id: this.random.uuid(),
					athleteId: life.id,
					kind: one.kind,
					region: one.region,
					pattern: null,
					drillId: one.drillId ?? null,
					note: one.note,
					fromDay: day,
					setBy: one.kind === 'restriction' ? 'Hana Brekke' : 'Marit Solano',
					setByRole: one.kind === 'restriction' ? 'physiotherapist' : 'coach',
					recordedBy: this.coachId,
					recordedAt: at,
				})
			}
			const open = life.history.care.find((record) => record.kind === one.kind && record.until === null)
			if (one.ended !== sessionsAgo || !open || open.kind !== 'restriction') continue
			open.until = day
			Object.assign(this.rows.care.find((row) => row.athleteId === life.id && row.kind === one.kind)!, {
				endedOn: day,
				endedBy: 'Hana Brekke',
				endedByRole: 'physiotherapist',
				endRecordedBy: this.coachId,
				endRecordedAt: at,
			})
			if (open.region)
				life.cleared.push({ region: open.region, day, by: 'Hana Brekke', role: 'physiotherapist', injury: true })
			if (open.region)
				this.rows.clearances.push(clearedBy(life.id, open.region, day, this.random.uuid(), this.coachId, at))
			for (const [ladderId, state] of life.states) {
				const ladder = STARTER_LIBRARY.ladders[ladderId]!
				const drill = STARTER_LIBRARY.drills[rungOf(ladder, state.rungId).rung.drillId]!
				const path = STARTER_LIBRARY.ladders[pathFor(ladder, drill) ?? '']
				if (path && restrictsDrill({ region: open.region }, drill))
					life.states.set(ladderId, enterWayBack(state, path, day))
			}
		}
	}

	judge(
		life: Life,
		session: { id: string; day: string; startTime: string; phase: Phase },
		entries: { ladderId: string | null }[],
		nextDay: string,
		nextPhase: Phase,
		at: Date,
	): void {
		const school = STARTER_LIBRARY.schools['quality-first']!
		const drillOf = (id: string) => STARTER_LIBRARY.drills[id]!
		const evidence = evidenceFor(session, life.history, drillOf)
		const standings = standingsOf(life)
		const care = careDayOf(session.day, nextDay)
		const concluded = concludedOf(
			life,
			{ day: care, startTime: session.startTime, phase: nextPhase, surface: null },
			school,
		)
		const inputs = entries.flatMap(({ ladderId }) => {
			const ladder = ladderId ? STARTER_LIBRARY.ladders[ladderId] : undefined
			const state = ladderId ? life.states.get(ladderId) : undefined
			return ladder && state
				? [
						gatherInput(
							{
								session: {
									...session,
									next: { day: nextDay, startTime: session.startTime, phase: nextPhase, surface: null },
								},
								ladder,
								state,
								level: life.demo.level,
								school,
								focus: null,
								standings,
								closures: concluded.facts.closures,
								returning: returningOf(concluded.plan),
								levels: levelsOf(life),
							},
							evidence,
							drillOf,
						),
					]
				: []
		})
		const walks: { before: LadderState; after: LadderState }[] = []
		for (const { input, judgement } of judgeAthlete(inputs, (one) => ({
			ladder: STARTER_LIBRARY.ladders[one.ladder.id]!,
			school,
			drills: STARTER_LIBRARY.drills,
			paths: STARTER_LIBRARY.ladders,
		}))) {
			const ladderId = input.ladder.id
			life.states.set(ladderId, judgement.next)
			walks.push({ before: input.state, after: judgement.next })
			if (judgement.verdict === 'advance' && judgement.next.rungId !== input.state.rungId) {
				const { rung } = rungOf(STARTER_LIBRARY.ladders[ladderId]!, judgement.next.rungId)
				life.history.newRungs = [
					...life.history.newRungs.slice(-3),
					{ ladderId, rungId: rung.id, day: nextDay, hard: isHard(drillOf(rung.drillId), rung.parameters) },
				]
			}
			this.rows.verdicts.push({
				clubId: this.scope.clubId,
				id: this.random.risingUuid(),
				sessionId: session.id,
				athleteId: life.id,
				ladderId,
				day: session.day,
				proposed: judgement.verdict,
				decided: judgement.verdict,
				reason: null,
				sentence: judgement.sentence,
				judgement,
				before: input.state,
				after: judgement.next,
				input,
				inputHash: hashOf(input),
				rulesVersion: input.rulesVersion,
				decidedBy: this.coachId,
				decidedAt: new Date(at.getTime() + 7_200_000),
			})
		}
		for (const next of walkTogether(life.states.values(), walks, STARTER_LIBRARY, session.day))
			life.states.set(next.ladderId, next)
	}

	async write(): Promise<void> {
		const { db } = this.scope
		const { rows } = this
		for (const row of rows.care.splice(0)) await insertCare(this.scope, row)
		for (const row of rows.clearances.splice(0)) await insertClearance(this.scope, row)
		for (const some of chunks(rows.lines.splice(0), 500)) await insertLines(this.scope, some)
		const worked = new Set(rows.marks.map((row) => row.athleteId))
		for (const some of chunks(rows.marks.splice(0), 500)) await bulkInsert(db, mark, some)
		for (const some of chunks(rows.means.splice(0), 500)) await insertMeans(this.scope, some)
		for (const some of chunks(rows.observations.splice(0), 500)) await bulkInsert(db, observation, some)
		for (const some of chunks(rows.decisions.splice(0), 500)) await bulkInsert(db, decision, some)
		await keepWorkDays(this.scope, [...worked], [...this.days])
		this.days.clear()
		for (const some of chunks(rows.verdicts.splice(0), 200)) await bulkInsert(db, verdict, some)
	}
}

const bestKey = (start: string | undefined, distanceM: number, method: string) => `${start}/${distanceM}/${method}`

/** What the scenario opens, as the judging reads it. */
const recordOf = (
	{ kind, region, drillId }: NonNullable<DemoAthlete['care']>[number],
	from: string,
): Life['history']['care'][number] =>
	kind === 'illness'
		? { kind, from, until: null }
		: kind === 'worry'
			? { kind, from, until: null, drillId: drillId ?? '', region: region! }
			: { kind, from, until: null, region, pattern: null, setBy: 'Hana Brekke' }

/** What the physiotherapist has cleared, as it is recorded. */
const clearedBy = (
	athleteId: string,
	region: Clearance['region'],
	clearedOn: string,
	id: string,
	recordedBy: string,
	recordedAt: Date,
): Rows['clearances'][number] => ({
	id,
	athleteId,
	region,
	side: null,
	clearedBy: 'Hana Brekke',
	clearedByRole: 'physiotherapist',
	role: 'physiotherapist',
	injury: true,
	clearedOn,
	recordedBy,
	recordedAt,
})
