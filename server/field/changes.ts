import type { KeptReading } from '../../core/devices/schema'
import type { ToldEvent } from '../../core/field/pack'
import { readingsSince } from '../../db/queries/devices'
import { eventsOfSessions, idsSince } from '../../db/queries/log'
import type { ClubScope } from '../../db/connect'
import type { Role } from '../../db/schema/people'
import { keptReading } from '../devices/take-readings'
import type { BodyLimits } from '../../core/field/over-today'
import { readLimits, readable, told } from './read-pack'
import { clubChanged } from './watch-clubs'

/** Rows are stamped before they are seen by others; this far back they are read again and told apart by id. */
const OVERLAP_MS = 30_000
const LONGEST_WAIT_MS = 20_000
/** More than these are asked to come again. */
const MOST_HELD = 2_000
let held = 0

/** More phones wait than one process holds. */
export class TooManyHeld extends Error {}

/** Device readings from before this belong to no session that is still going on. */
const READINGS_MS = 12 * 3_600_000

export interface Changes {
	serverNow: string
	events: ToldEvent[]
	readings: KeptReading[]
	/** What limits each athlete's body by now, whoever said it and wherever. */
	limits: Record<string, BodyLimits>
	/** Ids this answer has dealt with, those among them that the role may not read: the next question names them as seen. */
	heard: string[]
}

/**
 * What others have added to a session since a moment, as soon as there is something, else nothing after
 * a while: the asking device holds the connection open. All that is known stands in the database, so that
 * any process can answer.
 *
 * @param since the `serverNow` of the answer before; null for everything
 * @param seen ids the device holds already of the last half minute
 * @param deviceId the asking device, whose own events it need not be told
 * @throws TooManyHeld when more wait than one process holds
 */
export async function waitForChanges(
	scope: ClubScope,
	role: Role,
	sessionId: string,
	since: Date | null,
	seen: ReadonlySet<string>,
	deviceId: string | null,
	signal: AbortSignal,
): Promise<Changes> {
	if (held >= MOST_HELD) throw new TooManyHeld('so many phones wait')
	held++
	try {
		return await holdUntilNews(scope, role, sessionId, since, seen, deviceId, signal)
	} finally {
		held--
	}
}

async function holdUntilNews(
	scope: ClubScope,
	role: Role,
	sessionId: string,
	since: Date | null,
	seen: ReadonlySet<string>,
	deviceId: string | null,
	signal: AbortSignal,
): Promise<Changes> {
	const until = Date.now() + LONGEST_WAIT_MS
	for (let changes: number | null = null; ; ) {
		const now = new Date()
		const from = since ? new Date(since.getTime() - OVERLAP_MS) : undefined
		const ids = from ? (await idsSince(scope, sessionId, from, deviceId)).filter((id) => !seen.has(id)) : undefined
		const news = await eventsOfSessions(scope, [sessionId], ids)
		const events = news.filter((event) => readable(event, role))
		const readings = (await readingsSince(scope, from ?? new Date(now.getTime() - READINGS_MS))).filter(
			(row) => !seen.has(row.id),
		)
		// What was said of a body is told to every phone, as what it closes to those who may not read more.
		if (news.length > 0 || readings.length > 0 || since === null || Date.now() >= until || signal.aborted)
			return {
				serverNow: now.toISOString(),
				events: await told(scope, events),
				readings: readings.map(keptReading),
				limits: await readLimits(scope, sessionId),
				heard: news.map(({ id }) => id),
			}
		changes = await clubChanged(scope.clubId, changes, until, signal)
	}
}
