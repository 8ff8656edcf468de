import { dayInZone } from '../../core/calendar/days'
import { countMark } from '../../core/dose/count-mark'
import { effortZone } from '../../core/measure/sprint/effort-zone'
import { toSparse } from '../../core/dose/sparse-count'
import type { EventAnswer, LogEvent, Mark } from '../../core/events/schema'
import type { Drill } from '../../core/library/types'
import { acceptedHash, bestTimesBefore, insertDecision, insertMark, insertObservation } from '../../db/queries/log'
import { hashOf, readDrills } from '../../db/queries/library'
import { type LineRow, type ListedSession, markStarted, readAttending, readLinesById, readSession } from '../../db/queries/sessions'
import { readAthletes } from '../../db/queries/squads'
import { SWAP_FROM } from '../../core/progress/safety-rules'
import { type ClubScope, inTransaction } from '../../db/connect'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { database, scopeOf } from '../database'
import { rewriteUpcoming } from '../sheet/rewrite-upcoming'
import { plannedOf } from '../sheet/planned-of'
import { checkEvent } from './check-event'

export const MAX_BATCH = 200

/**
 * Takes a batch of events into the log. Each event is judged alone: accepted, known already
 * (replayed), or refused with the field and the reason. The same event may be sent any number of
 * times.
 */
export async function acceptEvents(who: SignedIn, values: readonly unknown[], now: Date): Promise<EventAnswer[]> {
	const batch = new Batch(scopeOf(who.clubId), who, now)
	const answers: EventAnswer[] = []
	for (const value of values) answers.push(await batch.accept(value))
	if (batch.hurt.size > 0) await inTransaction(database().db, who.clubId, (scope) => rewriteUpcoming(scope, [...batch.hurt], dayInZone(now.toISOString(), who.timeZone), now))
	return answers
}

const refuse = (id: string, field: string, reason: string): EventAnswer => ({ id, outcome: 'refused', field, reason })

/** What one batch looks up once. */
class Batch {
	private readonly sessions = new Map<string, ListedSession | null>()
	private readonly attending = new Map<string, Set<string>>()
	/** Athletes whose report changes the lines of the sessions ahead at once. */
	readonly hurt = new Set<string>()
	private readonly bests = new Map<string, Awaited<ReturnType<typeof bestTimesBefore>>>()

	constructor(private readonly scope: ClubScope, private readonly who: SignedIn, private readonly now: Date) {}

	async accept(value: unknown): Promise<EventAnswer> {
		const id = String((value as { id?: unknown } | null)?.id ?? '')
		const checked = checkEvent(value)
		if (!('event' in checked)) return refuse(id, checked.field, checked.reason)
		const { event } = checked
		const contentHash = hashOf(event)
		const known = await acceptedHash(this.scope, event.id)
		if (known !== null) return known === contentHash ? { id, outcome: 'replayed' } : refuse(id, 'id', 'id_reused: another event already has this id')

		const session = await this.sessionOf(event.sessionId)
		if (!session) return refuse(id, 'sessionId', 'no such session')
		const [athlete] = await readAthletes(this.scope, [event.athleteId])
		if (!athlete) return refuse(id, 'athleteId', 'no such athlete')
		const notAllowed = this.notAllowed(event, session)
		if (notAllowed) return refuse(id, 'type', notAllowed)
		if (event.type === 'mark' && !(await this.attendingOf(event.sessionId)).has(event.athleteId)) return refuse(id, 'athleteId', 'not down for this session')

		const line = 'lineId' in event && event.lineId ? (await readLinesById(this.scope, [event.lineId]))[0] : undefined
		if ('lineId' in event && event.lineId && (!line || line.sessionId !== event.sessionId || line.entryId !== event.entryId)) return refuse(id, 'lineId', 'no such line on this session')
		const isNew = await this.insert(event, session, line, contentHash, athlete.legLengthM)
		if (event.type === 'mark' && !session.startedAt) {
			session.startedAt = this.now
			await markStarted(this.scope, session.id, this.now)
		}
		if (isNew && event.type === 'observation' && event.kind === 'pain' && (event.value.score >= SWAP_FROM || event.value.redFlag)) this.hurt.add(event.athleteId)
		if (isNew) return { id, outcome: 'accepted' }
		// Sent by two at once: whoever came first decides which content the id has.
		return (await acceptedHash(this.scope, event.id)) === contentHash ? { id, outcome: 'replayed' } : refuse(id, 'id', 'id_reused: another event already has this id')
	}

	private notAllowed(event: LogEvent, session: ListedSession): string | null {
		const { role, athleteId, timeZone } = this.who
		if (event.type === 'observation' && event.kind === 'pain') {
			return may(role, 'pain:write') || athleteId === event.athleteId ? null : 'only about yourself'
		}
		if (may(role, 'marks:write')) return null
		if (!may(role, 'marks:write-today')) return 'your role does not log'
		return session.day === dayInZone(this.now.toISOString(), timeZone) ? null : 'assistants log the sessions of today'
	}

	private async insert(event: LogEvent, session: ListedSession, line: LineRow | undefined, contentHash: string, legLengthM: number | null): Promise<boolean> {
		const row = {
			id: event.id, sessionId: event.sessionId, athleteId: event.athleteId, authorId: this.who.personId, deviceId: event.deviceId, deviceSeq: event.deviceSeq,
			deviceTime: new Date(event.deviceTime), receivedAt: this.now, replacesId: event.replacesId ?? null, isVoid: event.void ?? false, contentHash,
			kind: event.kind, value: event.value as Record<string, unknown>,
		}
		const place = 'setNo' in event ? { setNo: event.setNo, repNo: event.repNo, side: event.side ?? null } : {}
		if (event.type === 'decision') return insertDecision(this.scope, { ...row, entryId: 'entryId' in event ? event.entryId : null, lineId: 'lineId' in event ? event.lineId : null })
		if (event.type === 'observation') return insertObservation(this.scope, { ...row, entryId: 'entryId' in event ? (event.entryId ?? null) : null, lineId: 'lineId' in event ? (event.lineId ?? null) : null, ...place })
		const drill = line && (await readDrills(this.scope, [line.drillId ?? ''])).get(`${line.drillId}/${line.drillVersion}`)
		const planned = line ? plannedOf(line) : null
		if (!line || !planned || !drill) throw new Error(`line ${event.lineId} cites a drill that is not in the library`)
		const last = event.kind === 'sprint' ? event.value.splits.at(-1) : undefined
		return insertMark(this.scope, {
			...row, entryId: event.entryId, lineId: event.lineId, setNo: event.setNo, repNo: event.repNo, side: event.side ?? null,
			drillId: drill.id, start: drill.start ?? null, distanceM: last?.distanceM ?? null, timeS: last?.timeS ?? null,
			method: 'method' in event.value ? event.value.method : null,
			counts: toSparse(countMark(event, planned, drill, await this.zoneOf(event, session, drill), legLengthM)),
		})
	}

	private async zoneOf(event: Mark, session: ListedSession, drill: Drill) {
		const last = event.kind === 'sprint' ? event.value.splits.at(-1) : undefined
		if (event.kind !== 'sprint' || !last) return null
		const key = `${event.sessionId}/${event.athleteId}`
		const bests = this.bests.get(key) ?? (await bestTimesBefore(this.scope, [event.athleteId], session.day))
		this.bests.set(key, bests)
		const best = bests.find((known) => known.start === (drill.start ?? null) && known.distanceM === last.distanceM && known.method === event.value.method)
		return best ? effortZone(last.timeS, best.timeS) : null
	}

	private async sessionOf(id: string): Promise<ListedSession | null> {
		const known = this.sessions.get(id)
		if (known !== undefined) return known
		const session = await readSession(this.scope, id)
		this.sessions.set(id, session)
		return session
	}
	private async attendingOf(sessionId: string): Promise<Set<string>> {
		const known = this.attending.get(sessionId)
		if (known) return known
		const ids = new Set((await readAttending(this.scope, [sessionId])).map((row) => row.athleteId))
		this.attending.set(sessionId, ids)
		return ids
	}
}
