import { addTo } from '../../core/lists/group-by'
import { addDays, daysBetween } from '../../core/calendar/day-count'
import { foldEvents } from '../../core/events/fold'
import { byRep } from '../../core/judge/gather-exposure'
import { type MadeOn, type Stamp, keepSession } from '../../core/marks/keep-session'
import { partAt } from '../../core/vocabulary/line-parts'
import { asDone } from '../../core/marks/as-done'
import { KEY_VERSION } from '../../core/marks/mark-key'
import { USUAL_DAYS } from '../../core/noise/usual'
import { AWAY_DAYS } from '../../core/rules/p9-time-away'
import type { Drill } from '../../core/vocabulary/drill'
import type { Mark } from '../../core/vocabulary/events'
import { type ClubScope, type Database, inTransaction } from '../../db/connect'
import { lastWorkOf } from '../../db/queries/care'
import { doneOtherwiseOf } from '../../db/queries/log'
import { readDrills } from '../../db/queries/library'
import { type KeptMean, marksAbout, meansOf, replaceMeans, sessionsToKey, stampMarks } from '../../db/queries/marks'
import { type LineRow, readLinesById, readSession } from '../../db/queries/sessions'
import { readLevels } from '../../db/queries/squads'
import { drillsOfLines, idsOf } from '../sheet/drills-of-lines'
import { plannedOf } from '../sheet/planned-of'

/** Replaced and void marks have no key; the version alone says that they were looked at. */
const NO_KEY = `${KEY_VERSION}|`

/**
 * Gives the marks of some athletes in one session their keys, sets aside what cannot be, and makes the
 * session's means anew, from what stands. In the transaction that takes or corrects a mark.
 */
export async function keepMarks(scope: ClubScope, sessionId: string, athleteIds: string[]): Promise<void> {
	const session = await readSession(scope, sessionId)
	if (!session || athleteIds.length === 0) return
	const stored = await marksAbout(scope, sessionId, athleteIds)
	const standing = foldEvents(stored).current
	const lines = new Map(
		(await readLinesById(scope, [...new Set(standing.map((mark) => mark.lineId))])).map((line) => [line.id, line]),
	)
	const otherwise = foldEvents(await doneOtherwiseOf(scope, sessionId, athleteIds)).current
	const done = [...standing, ...otherwise]
	const drills = await readDrills(scope, [
		...[...lines.values()].flatMap((line) => idsOf(line)),
		...standing.flatMap((mark) => mark.asDrill?.drillId ?? []),
	])
	const before = new Map<string, KeptMean[]>()
	for (const one of await meansOf(scope, athleteIds, addDays(session.day, -USUAL_DAYS), session.day)) {
		const key = `${one.athleteId}/${one.key}`
		addTo(before, key, one)
	}
	const levelOf = await readLevels(scope, athleteIds)
	const lastWork = new Map(
		(await lastWorkOf(scope, athleteIds, session.day)).map((row) => [`${row.athleteId}/${row.family}`, row.day]),
	)
	const stamps = new Map<string, Stamp>(stored.map((mark) => [mark.id, { key: NO_KEY, setAside: false }] as const))
	const means: KeptMean[] = []
	for (const athleteId of athleteIds) {
		const own = standing
			.filter((mark) => mark.athleteId === athleteId)
			.sort(byRep)
			.flatMap((mark) => {
				const line = lines.get(mark.lineId)
				const on = line && madeOn(mark, line, drills)
				return on ? [{ mark, on: asDone(on, line.dose, mark, done) }] : []
			})
		const kept = keepSession(
			{ day: session.day, surface: session.surface, unloading: session.phase === 'unloading' },
			own,
			(key) => before.get(`${athleteId}/${key}`) ?? [],
			{
				levelOf: (family) => levelOf(athleteId, family),
				isFirstDayBack: (family) => {
					const last = lastWork.get(`${athleteId}/${family}`)
					return last != null && daysBetween(last, session.day) > AWAY_DAYS.none
				},
			},
		)
		for (const [id, stamp] of kept.stamps) stamps.set(id, stamp)
		for (const [key, one] of kept.means) means.push({ ...one, athleteId, key, sessionId })
	}
	const asStored = new Map(stored.map((mark) => [mark.id, mark.stamp]))
	for (const [id, { key, setAside }] of [...stamps]) {
		const now = asStored.get(id)
		if (now && now.key === key && now.setAside === setAside) stamps.delete(id)
	}
	await stampMarks(scope, stamps)
	await replaceMeans(scope, sessionId, athleteIds, means)
}

/** What a mark was made on: another drill than the line's, a piece of a complex, or the line. */
function madeOn(mark: Mark, line: LineRow, drills: ReadonlyMap<string, Drill>): MadeOn | null {
	const planned = plannedOf(line)
	if (!planned) return null
	if (mark.asDrill) {
		const drill = drills.get(`${mark.asDrill.drillId}/${mark.asDrill.drillVersion}`)
		// Another drill was done as it is done, not as the line's.
		return drill ? { drill, parameters: drill.defaults.parameters, carried: planned.carried, aid: planned.aid } : null
	}
	const { drillId, parameters, judged } = partAt(planned, mark.piece)
	const drill = drillsOfLines(drills).of(line)(drillId)
	return drill && { drill, parameters, carried: planned.carried, aid: judged ? planned.aid : null }
}

/**
 * Keys every mark that was taken before there were keys, or under an older version of them, session by session in
 * the order of their days, each in a transaction of its own.
 *
 * @param begins told once how many there are, before the first
 * @returns how many sessions were keyed
 */
export async function keyOlderMarks(db: Database, begins: (sessions: number) => void = () => {}): Promise<number> {
	const bySession = new Map<string, { clubId: string; sessionId: string; athleteIds: string[] }>()
	for (const { clubId, sessionId, athleteId } of await sessionsToKey(db, KEY_VERSION)) {
		const known = bySession.get(`${clubId}/${sessionId}`)
		if (known) known.athleteIds.push(athleteId)
		else bySession.set(`${clubId}/${sessionId}`, { clubId, sessionId, athleteIds: [athleteId] })
	}
	if (bySession.size > 0) begins(bySession.size)
	const dated = []
	for (const one of bySession.values())
		dated.push({ ...one, day: (await readSession({ db, clubId: one.clubId }, one.sessionId))?.day ?? '' })
	dated.sort((a, b) => (a.day < b.day ? -1 : 1))
	for (const { clubId, sessionId, athleteIds } of dated)
		await inTransaction(db, clubId, (scope) => keepMarks(scope, sessionId, athleteIds))
	return dated.length
}
