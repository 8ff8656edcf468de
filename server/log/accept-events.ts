import { FURTHER_PART } from '../../core/field/session/drills-now'
import { workOf } from '../../core/vocabulary/entry'
import { dayInZone } from '../../core/calendar/days'
import { countMark } from '../../core/dose/count-mark'
import { partAt } from '../../core/vocabulary/line-parts'
import { effortZone } from '../../core/measure/sprint/effort-zone'
import { toSparse } from '../../core/dose/sparse-count'
import { isOfBody } from '../../core/vocabulary/event-kinds'
import type { EventAnswer, LogEvent, Mark } from '../../core/vocabulary/events'
import type { Drill } from '../../core/vocabulary/drill'
import { type Corrects, mayNotCorrect } from '../../core/events/may-correct'
import { isOfTheDay } from '../../core/events/of-the-day'
import { type ClubScope, inTransaction } from '../../db/connect'
import { begins, logsOn } from '../../db/noted-writes'
import { type Author, insertAthletes } from '../../db/queries/clubs'
import { addWorkDays, endCare, insertCareOnce, keepWorkDays } from '../../db/queries/care'
import {
	type DecisionInsert,
	type MarkInsert,
	type ObservationInsert,
	type HeldRow,
	holdCorrections,
	insertDecisions,
	insertMarks,
	insertObservations,
	releaseCorrections,
} from '../../db/queries/log'
import { athletesMarked } from '../../db/queries/marks'
import { hashOf } from '../../db/queries/library'
import {
	type LineRow,
	type SessionRow,
	insertEntries,
	insertFurtherLines,
	joinSession,
	leaveSession,
	lockSession,
	markStarted,
	putInForce,
	readEntries,
	updateSession,
	withdrawEntry,
} from '../../db/queries/sessions'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { database } from '../database'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { drillsOfLines } from '../sheet/drills-of-lines'
import { plannedOf } from '../sheet/planned-of'
import { checkEvent } from './check-event'
import { type Known, linesGiven, lookUp } from './look-up'
import { hasNumber, keyOfMark } from '../../core/marks/keep-session'
import { isFreeRunLike } from '../../core/marks/mark-key'
import type { PlannedLine } from '../../core/vocabulary/line'
import { keepMarks } from '../marks/keep-marks'
import { bringBackHeld } from '../plan/take-off'
import { keepTrials } from '../record/trials'

/**
 * Takes a batch of events into the log. Each event is judged alone: accepted, known already
 * (replayed), or refused with the field and the reason. The same event may be sent any number of
 * times. What is accepted is written in one transaction together with what follows from it, so that
 * a process that ends in the middle leaves nothing half done, and nothing was answered yet.
 */
export async function acceptEvents(who: SignedIn, values: readonly unknown[], now: Date): Promise<EventAnswer[]> {
	const today = dayInZone(now.toISOString(), who.timeZone)
	const checked = values.map((value) => ({
		id: String((value as { id?: unknown } | null)?.id ?? ''),
		...checkEvent(value),
	}))
	const events = checked.flatMap((one) => ('event' in one ? [one.event] : []))
	if (events.length === 0)
		return checked.map((one) => refuse(one.id, 'field' in one ? one.field : '', 'reason' in one ? one.reason : ''))
	return inTransaction(database().db, who.clubId, async (scope) => {
		// Batches about one session queue up, in one order for all; what stands is read after that.
		const locked = new Map<string, SessionRow>()
		const missing: string[] = []
		for (const id of [...new Set(events.map((event) => event.sessionId))].sort()) {
			const session = await lockSession(scope, id)
			if (session) locked.set(id, session)
			else missing.push(id)
		}
		await bringBackHeld(scope, missing)
		const known = await lookUp(scope, events, locked, today)
		const batch = new Batch(known, who, now)
		const answers = checked.map((one) =>
			'event' in one ? batch.accept(one.event) : refuse(one.id, one.field, one.reason),
		)
		await batch.write(scope)
		for (const { day } of known.sessions.values()) logsOn(scope.db, day, batch.wrote)
		if (batch.measured.size > 0) await keepTrials(scope, [...batch.measured.keys()], today, now)
		if (batch.hurt.size > 0) await rewriteUpcoming(scope, [...batch.hurt], today, now)
		return answers
	})
}

type Guest = Extract<LogEvent, { kind: 'guest' }>
type Further = Extract<LogEvent, { kind: 'further' }>

const refuse = (id: string, field: string, reason: string): EventAnswer => ({ id, outcome: 'refused', field, reason })

/** An event with what it speaks of. */
interface Read {
	event: LogEvent
	session: SessionRow
	line: LineRow | undefined
	drill: Drill | null
	legLengthM: number | null
}

class Batch {
	/** Athletes whose report changes the lines of the sessions ahead at once. */
	readonly hurt = new Set<string>()
	private readonly marks: MarkInsert[] = []
	private isLoadWorn = false
	private hasOtherDays = false
	private readonly observations: ObservationInsert[] = []
	private readonly decisions: DecisionInsert[] = []
	private readonly started = new Set<string>()
	/** Whose work on which day may have changed. */
	private readonly worked = { athletes: new Set<string>(), days: new Set<string>() }
	/** Work that was done and that nothing logged so far speaks of. */
	private readonly moreWork = new Map<string, { athleteId: string; drillId: string; day: string }>()
	/** Whose marks of which session stand otherwise now. */
	readonly measured = new Map<string, Set<string>>()
	/** Whoever was taken in, before what was logged of them. */
	private readonly joins: ((scope: ClubScope) => Promise<void>)[] = []
	private readonly followUps: ((scope: ClubScope) => Promise<void>)[] = []
	private readonly putBack = new Set<string>()
	private readonly holding: Omit<HeldRow, 'clubId'>[] = []
	private readonly released: string[] = []

	constructor(
		private readonly known: Known,
		private readonly who: SignedIn,
		private readonly now: Date,
	) {}

	accept(event: LogEvent): EventAnswer {
		const { id } = event
		const contentHash = hashOf(event)
		const before = this.known.hashes.get(id) ?? this.known.held.get(id)?.contentHash
		if (before !== undefined && before !== contentHash)
			return refuse(id, 'id', 'id_reused: another event already has this id')
		const refused = this.known.held.get(id)?.refused
		if (refused) return refuse(id, 'replacesId', refused)
		const read = this.read(event, this.who)
		if ('outcome' in read) return read
		if (event.replacesId && before === undefined) {
			const target = this.known.targets.get(event.replacesId)
			if (!target) {
				this.hold(event, contentHash, null)
				return { id, outcome: 'accepted' }
			}
			const reason = this.notTheirs(event, target, this.who)
			if (reason) {
				this.hold(event, contentHash, reason)
				return refuse(id, 'replacesId', reason)
			}
		}
		// It waits, and what it corrects has not come.
		if (this.known.held.has(id)) return { id, outcome: 'replayed' }
		if (before === undefined) this.keep(read, contentHash, this.who)
		// What follows is the same however often it is done, so that a replay mends what a lost answer left open.
		this.follow(read, this.who, before === undefined)
		this.release(event)
		return { id, outcome: before === undefined ? 'accepted' : 'replayed' }
	}

	/** What an event speaks of, or why it cannot be taken. */
	private read(event: LogEvent, who: Author): Read | EventAnswer {
		const { id } = event
		const session = this.known.sessions.get(event.sessionId)
		if (!session) return refuse(id, 'sessionId', 'no such session')
		if (event.athleteId !== null && this.known.erased.has(event.athleteId))
			return refuse(id, 'athleteId', 'this athlete was erased; nothing more is kept of them')
		const athlete = event.athleteId === null ? null : this.known.athletes.get(event.athleteId)
		if (athlete === undefined && !(event.kind === 'guest' && event.value.name !== undefined && !event.replacesId))
			return refuse(id, 'athleteId', 'no such athlete')
		const notAllowed = this.notAllowed(event, session, who)
		if (notAllowed) return refuse(id, 'type', notAllowed)
		if (event.type === 'mark' && !this.known.attending.get(event.sessionId)?.has(event.athleteId))
			return refuse(id, 'athleteId', 'not down for this session')

		const line = 'lineId' in event && event.lineId ? this.known.lines.get(event.lineId) : undefined
		if (
			'lineId' in event &&
			event.lineId &&
			(!line || line.sessionId !== event.sessionId || line.entryId !== event.entryId)
		)
			return refuse(id, 'lineId', 'no such line on this session')
		if (line && line.athleteId !== event.athleteId) return refuse(id, 'lineId', 'this line is another athlete’s')
		const wrong = this.wrongEntry(event)
		if (wrong) return refuse(id, event.kind === 'drill-order' ? 'value.entryIds' : 'value.entryId', wrong)
		const unknown = this.wrongLine(event)
		if (unknown) return refuse(id, 'value.lines', unknown)
		const drill = this.drillOf(event, line)
		if (drill === 'unknown')
			return refuse(
				id,
				event.type === 'mark' ? (event.asDrill ? 'asDrill' : 'lineId') : 'value.drillId',
				'no such drill in this club’s library',
			)
		return { event, session, line, drill, legLengthM: athlete?.legLengthM ?? null }
	}

	/** What of the entries an event names cannot be; null when all can. */
	private wrongEntry(event: LogEvent): string | null {
		const { entries } = this.known
		if (event.kind === 'drill-order')
			return event.value.entryIds.every((id) => entries.get(id) === event.sessionId)
				? null
				: 'no such entry on this session'
		if (event.kind !== 'further') return null
		const known = entries.get(event.value.entryId)
		if (event.replacesId || this.known.hashes.has(event.id)) return null
		return known === undefined ? null : 'id_reused: another entry has this id'
	}

	/** What of the lines an event brings cannot be; null when all can. */
	private wrongLine(event: LogEvent): string | null {
		const { entries, lines, drills, attending } = this.known
		for (const { entryId, athleteId, lineId, planned } of linesGiven(event)) {
			if (event.kind === 'guest' && entries.get(entryId) !== event.sessionId) return 'no such entry on this session'
			if (event.kind === 'further' && !event.replacesId && !attending.get(event.sessionId)?.has(athleteId))
				return 'not down for this session'
			const known = lines.get(lineId)
			if (known && (known.athleteId !== athleteId || known.entryId !== entryId))
				return 'id_reused: another line has this id'
			if (!drills.has(`${planned.drillId}/${planned.drillVersion}`)) return 'no such drill in this club’s library'
		}
		return null
	}

	/** Why a correction is not theirs to make; null when it is. */
	private notTheirs(event: LogEvent, target: { event: LogEvent; authorId: string }, who: Author): string | null {
		const session = this.known.sessions.get(event.sessionId)
		const asks: Corrects = {
			author: target.authorId === who.personId,
			// When a correction was made it does not say; what others logged is theirs once the day is over as it comes in.
			logs:
				may(who.role, 'marks:write') ||
				(may(who.role, 'marks:write-today') &&
					session !== undefined &&
					isOfTheDay(session, this.now.toISOString(), this.known.today)),
			care: may(who.role, 'care:write'),
			own: target.event.athleteId !== null && target.event.athleteId === who.athleteId,
		}
		return mayNotCorrect(event, target.event, asks)
	}

	private hold(event: LogEvent, contentHash: string, refused: string | null): void {
		if (!event.replacesId) return
		const row = {
			id: event.id,
			sessionId: event.sessionId,
			replacesId: event.replacesId,
			authorId: this.who.personId,
			receivedAt: this.now,
			contentHash,
			event,
			refused,
		}
		this.known.held.set(event.id, { ...row, clubId: this.who.clubId })
		this.holding.push(row)
		if (refused === null) {
			const waiting = this.known.waiting.get(event.replacesId) ?? []
			this.known.waiting.set(event.replacesId, [...waiting, { ...row, clubId: this.who.clubId }])
			this.known.authors.set(this.who.personId, this.who)
		}
	}

	/** What waited for an event is held against it now: taken, or not, with the reason. */
	private release(target: LogEvent): void {
		const waiting = this.known.waiting.get(target.id) ?? []
		const stands = this.known.targets.get(target.id)
		if (!stands) return
		this.known.waiting.delete(target.id)
		for (const { event, contentHash, authorId, ...row } of waiting) {
			const author = this.known.authors.get(authorId)
			const read = author
				? this.read(event, author)
				: refuse(event.id, 'authorId', 'its author is of this club no longer')
			const reason =
				'outcome' in read
					? 'reason' in read
						? read.reason
						: ''
					: author
						? this.notTheirs(event, stands, author)
						: null
			if (reason !== null || 'outcome' in read || !author) {
				this.holding.push({ ...row, event, contentHash, authorId, refused: reason ?? '' })
				continue
			}
			this.known.held.delete(event.id)
			this.released.push(event.id)
			this.keep(read, contentHash, author)
			this.follow(read, author, true)
			this.release(event)
		}
	}

	/** What it has written: nothing but marks that correct nothing and were made with no load worn, or more. */
	get wrote(): 'marks' | 'first marks' | 'all' {
		const others = [this.observations, this.decisions, this.joins, this.followUps, this.holding, this.released]
		if (this.isLoadWorn || others.some((rows) => rows.length > 0)) return 'all'
		if (this.marks.some(({ replacesId }) => replacesId !== null)) return 'all'
		return this.hasOtherDays ? 'first marks' : 'marks'
	}

	async write(scope: ClubScope): Promise<void> {
		for (const join of this.joins) await join(scope)
		await insertMarks(scope, this.marks)
		await insertObservations(scope, this.observations)
		await insertDecisions(scope, this.decisions)
		const hasMore = await addWorkDays(scope, [...this.moreWork.values()])
		const hasOther = await keepWorkDays(scope, [...this.worked.athletes], [...this.worked.days])
		this.hasOtherDays = hasMore || hasOther
		for (const [sessionId, athleteIds] of this.measured) await keepMarks(scope, sessionId, [...athleteIds])
		await holdCorrections(scope, this.holding)
		await releaseCorrections(scope, this.released)
		for (const id of this.started) await begins(scope.db, () => markStarted(scope, id, this.now))
		for (const followUp of this.followUps) await followUp(scope)
	}

	private notAllowed(event: LogEvent, session: SessionRow, who: Author): string | null {
		if (isOfBody(event))
			return may(who.role, 'pain:write') || who.athleteId === event.athleteId ? null : 'only about yourself'
		// How hard it was nobody knows better; of a session to come nobody knows it.
		if (event.kind === 'effort' && who.athleteId === event.athleteId)
			return session.day <= this.known.today ? null : 'that session is still to come'
		if (may(who.role, 'marks:write')) return null
		if (!may(who.role, 'marks:write-today')) return 'your role does not log'
		return isOfTheDay(session, event.deviceTime, this.known.today) ? null : 'assistants log the sessions of today'
	}

	/** The drill an event is about; null where it is about none. */
	private drillOf(event: LogEvent, line: LineRow | undefined): Drill | 'unknown' | null {
		if (event.kind === 'swap' || event.kind === 'further')
			return this.known.drills.get(`${event.value.drillId}/${event.value.drillVersion}`) ?? 'unknown'
		if (event.type !== 'mark')
			return line?.drillId ? (this.known.drills.get(`${line.drillId}/${line.drillVersion}`) ?? null) : null
		if (event.asDrill)
			return this.known.drills.get(`${event.asDrill.drillId}/${event.asDrill.drillVersion}`) ?? 'unknown'
		const planned = line && plannedOf(line)
		if (!planned) return 'unknown'
		return drillsOfLines(this.known.drills).of(line)(partAt(planned, event.piece).drillId) ?? 'unknown'
	}

	private keep({ event, session, line, drill, legLengthM }: Read, contentHash: string, who: Author): void {
		this.known.hashes.set(event.id, contentHash)
		this.known.targets.set(event.id, { event, authorId: who.personId })
		const row = {
			id: event.id,
			sessionId: event.sessionId,
			authorId: who.personId,
			deviceId: event.deviceId,
			deviceSeq: event.deviceSeq,
			deviceTime: new Date(event.deviceTime),
			receivedAt: this.now,
			replacesId: event.replacesId ?? null,
			isVoid: event.void ?? false,
			contentHash,
			kind: event.kind,
			value: event.value as Record<string, unknown>,
		}
		if (event.kind === 'guest' && !event.replacesId) this.takeIn(event)
		if (event.kind === 'further' && !event.replacesId && drill) this.addDrill(event, drill)
		if (event.type === 'decision') {
			this.decisions.push({
				athleteId: event.athleteId,
				entryId: 'entryId' in event ? event.entryId : null,
				lineId: 'lineId' in event ? event.lineId : null,
				...row,
			})
			return
		}
		if (event.type === 'observation') {
			const place = {
				setNo: ('setNo' in event && event.setNo) || null,
				repNo: ('repNo' in event && event.repNo) || null,
				side: ('side' in event && event.side) || null,
				piece: ('piece' in event && event.piece) || null,
			}
			this.observations.push({
				athleteId: event.athleteId,
				entryId: 'entryId' in event ? (event.entryId ?? null) : null,
				lineId: 'lineId' in event ? (event.lineId ?? null) : null,
				...row,
				...place,
			})
			return
		}
		const whole = line ? plannedOf(line) : null
		const planned = whole && { ...whole, parameters: partAt(whole, event.piece).parameters }
		if (!planned || !drill) throw new Error(`line ${event.lineId} has no plan`)
		if (event.carried !== undefined || [whole, planned].some(({ parameters }) => (parameters.loadG ?? 0) > 0))
			this.isLoadWorn = true
		const last = event.kind === 'sprint' ? event.value.splits.at(-1) : undefined
		// The row last: a name behind what is spread costs as much as all of them before it, for thousands of marks at once.
		this.marks.push({
			athleteId: event.athleteId,
			entryId: event.entryId,
			lineId: event.lineId,
			setNo: event.setNo,
			repNo: event.repNo,
			side: event.side ?? null,
			drillId: drill.id,
			start: drill.start ?? null,
			distanceM: last?.distanceM ?? null,
			timeS: last?.timeS ?? null,
			method: 'method' in event.value ? event.value.method : null,
			source: event.source ?? null,
			piece: event.piece ?? null,
			carried: event.carried ?? null,
			asDrillVersion: event.asDrill?.drillVersion ?? null,
			kept: event.kept ?? false,
			markKey: null,
			setAside: false,
			counts: toSparse(countMark(event, planned, drill, this.zoneOf(event, session, drill, planned), legLengthM)),
			...row,
		})
	}

	/** Somebody comes who is not on the sheet: they are down for the session from now on, with the lines they were shown. */
	private takeIn(event: Guest): void {
		const { sessionId, athleteId, value } = event
		const { known } = this
		const lines = this.newLines(event)
		known.attending.get(sessionId)?.add(athleteId)
		const stranger = known.athletes.has(athleteId) ? null : (value.name ?? null)
		if (stranger !== null)
			known.athletes.set(athleteId, {
				id: athleteId,
				name: stranger,
				birthDate: null,
				legLengthM: null,
				massKg: null,
				away: null,
			})
		this.joins.push(async (scope) => {
			if (stranger !== null)
				await insertAthletes(scope, [
					{ id: athleteId, name: stranger, birthDate: null, legLengthMm: null, createdAt: this.now },
				])
			await joinSession(scope, sessionId, athleteId)
			await insertFurtherLines(scope, lines)
		})
	}

	/** A drill nobody planned is on the sheet from now on, behind all others, with the lines that were shown. */
	private addDrill(event: Further, drill: Drill): void {
		const { sessionId, value } = event
		const { entryId } = value
		this.known.entries.set(entryId, sessionId)
		const lines = this.newLines(event)
		this.joins.push(async (scope) => {
			const before = await readEntries(scope, [sessionId])
			await insertEntries(scope, [
				{
					id: entryId,
					sessionId,
					part: FURTHER_PART,
					family: drill.family,
					position: Math.max(-1, ...before.map(({ position }) => position)) + 1,
					drillId: drill.id,
					drillVersion: drill.version,
					ladderId: null,
					...workOf({ sides: null, pieces: null, carried: null, aid: null, ...value.lines[0]!.planned }),
					doseFactor: 1,
					lanes: 1,
					together: 1,
					tuning: null,
					retired: false,
				},
			])
			await insertFurtherLines(scope, lines)
		})
	}

	/** The lines an event brings that nobody knows yet. */
	private newLines(event: Guest | Further): LineRow[] {
		const { lines } = this.known
		const made = linesGiven(event)
			.filter(({ lineId }) => !lines.has(lineId))
			.map(
				({ entryId, athleteId, lineId, planned }): LineRow => ({
					clubId: this.who.clubId,
					id: lineId,
					sessionId: event.sessionId,
					entryId,
					athleteId,
					version: 1,
					current: true,
					origin: 'resolved',
					blocked: null,
					change: null,
					wouldBe: null,
					createdAt: this.now,
					sides: null,
					pieces: null,
					carried: null,
					aid: null,
					...planned,
				}),
			)
		for (const line of made) lines.set(line.id, line)
		return made
	}

	/** What an event brings about beside its row. */
	private follow({ event, session, line, drill }: Read, who: Author, isNew: boolean): void {
		if (event.type === 'mark') {
			const target = event.replacesId ? this.known.targets.get(event.replacesId)?.event : undefined
			const from = target?.athleteId
			const numbered = hasNumber(event.kind) || (target !== undefined && hasNumber(target.kind))
			const isPlain = isNew && !event.replacesId && !event.void
			for (const athleteId of [event.athleteId, ...(from ? [from] : [])]) {
				if (!isPlain) this.worked.athletes.add(athleteId)
				if (numbered) this.measured.set(session.id, (this.measured.get(session.id) ?? new Set()).add(athleteId))
			}
			if (!isPlain) this.worked.days.add(session.day)
			else if (event.kind !== 'missed' && drill) {
				const work = { athleteId: event.athleteId, drillId: drill.id, day: session.day }
				this.moreWork.set(`${work.athleteId}/${work.drillId}/${work.day}`, work)
			}
			if (!session.startedAt) this.started.add(session.id)
			// A phone that was away logged an older version of the line: what was done is what stands, as long as nothing was done on the newer one.
			if (line && !line.current && !event.void && !this.putBack.has(line.id)) {
				this.putBack.add(line.id)
				if (!session.startedAt) this.followUps.push((scope) => putInForce(scope, line))
			}
			return
		}
		// Whatever is said of the body, or taken back, is asked of every line ahead.
		if (isOfBody(event)) {
			this.hurt.add(event.athleteId)
			// A report that was another athlete's after all is asked of the lines of both.
			const of = event.replacesId ? this.known.targets.get(event.replacesId)?.event.athleteId : null
			if (of) this.hurt.add(of)
		}
		if ((event.kind === 'worry' && drill) || event.kind === 'unwell') {
			const { replacesId, athleteId } = event
			const kind = event.kind === 'worry' ? ('worry' as const) : ('illness' as const)
			const target = replacesId ? this.known.targets.get(replacesId)?.event.athleteId : null
			// A record that is corrected or taken back ends what it opened, and no record of another kind.
			if (replacesId)
				this.followUps.push(async (scope) => {
					await endCare(scope, kind, replacesId, target ?? athleteId, {
						endedOn: this.known.today,
						endedBy: who.name,
						endedByRole: who.role,
						endRecordedBy: who.personId,
						endRecordedAt: this.now,
					})
				})
			if (!event.void)
				this.followUps.push((scope) =>
					insertCareOnce(scope, {
						id: event.id,
						athleteId,
						kind,
						region: event.kind === 'worry' ? event.value.region : null,
						pattern: null,
						drillId: event.kind === 'worry' ? drill!.id : null,
						note: event.value.note ?? 'said on the field',
						fromDay: session.day,
						setBy: who.name,
						setByRole: who.role,
						recordedBy: who.personId,
						recordedAt: this.now,
					}),
				)
		}
		// What was done after the weight came off, or as a rehearsal, or was not, compares with others.
		if ((event.kind === 'load-off' || event.kind === 'fast-day') && event.athleteId !== null)
			this.measured.set(session.id, (this.measured.get(session.id) ?? new Set()).add(event.athleteId))
		// Taken in by mistake: off the list again, unless something was logged of them.
		if (event.kind === 'guest' && event.void)
			this.followUps.push((scope) =>
				leaveSession(
					scope,
					session.id,
					event.athleteId,
					(event.value.lines ?? []).map(({ lineId }) => lineId),
				),
			)
		if (event.kind === 'further' && event.void)
			this.followUps.push((scope) => withdrawEntry(scope, session.id, event.value.entryId))
		if (event.kind === 'conditions' && !event.void && event.value.surface) {
			const { surface } = event.value
			this.followUps.push(async (scope) => {
				await updateSession(scope, session.id, { surface })
				// On another ground the marks compare with others.
				await keepMarks(scope, session.id, await athletesMarked(scope, session.id))
			})
		}
	}

	private zoneOf(event: Mark, session: SessionRow, drill: Drill, planned: PlannedLine) {
		const last = event.kind === 'sprint' ? event.value.splits.at(-1) : undefined
		const key = keyOfMark(event, { drill, parameters: planned.parameters }, session.surface)
		if (!last || key === null) return null
		const bests = (this.known.bests.get(session.id) ?? [])
			.filter((known) => known.athleteId === event.athleteId && isFreeRunLike(known.key, key))
			.map((known) => known.lowest)
		return bests.length > 0 ? effortZone(last.timeS, Math.min(...bests)) : null
	}
}
