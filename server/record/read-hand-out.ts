import { addTo } from '../../core/lists/group-by'
import { addDays } from '../../core/calendar/day-count'
import { repsOfMark, sidedOf } from '../../core/dose/sides'
import { measuredOf } from '../../core/marks/keep-session'
import { isBelowFull, methodOfKey, partsOfKey } from '../../core/marks/mark-key'
import type { MarkKind } from '../../core/noise/typical-error'
import { defaultsFrom, usualOf } from '../../core/noise/usual'
import { type LineDone, sayLineDone } from '../../core/record/hand-out'
import { writeWhat } from '../../core/words/write-work'
import { meansOf } from '../../db/queries/marks'
import { readLines, readSession, unstartedFor } from '../../db/queries/sessions'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'
import { readErrors } from '../marks/read-errors'
import { plannedOf } from '../sheet/planned-of'
import { readSheet } from '../sheet/read-sheet'
import { writeLine } from '../sheet/write-lines'
import { repsOfRound } from '../../core/vocabulary/line-parts'

export interface HandOut {
	name: string
	squadName: string
	day: string
	title: string
	lines: { what: string; words: string }[]
	/** Words for the athlete apart from any drill. */
	notes: string[]
	/** The next session they are down for, as it stands now. */
	next: { day: string; startTime: string; lines: string[] } | null
}

/** One session for one athlete, in words to hand on; nothing of anybody else. Null where they were not down for it. */
export async function readHandOut(
	who: SignedIn,
	sessionId: string,
	athleteId: string,
	today: string,
): Promise<HandOut | null> {
	const scope = scopeOf(who.clubId)
	const sheet = await readSheet(scope, sessionId)
	const athlete = sheet?.athletes.find(({ id }) => id === athleteId)
	if (!sheet || !athlete) return null
	const { session, library } = sheet
	const own = sheet.events.filter((event) => event.athleteId === athleteId)
	const [means, errors] = [
		await meansOf(scope, [athleteId], addDays(session.day, -84), session.day),
		await readErrors(scope, session.squadId, session.day),
	]
	const lines = athlete.lines.flatMap((line): HandOut['lines'] => {
		if (!line.drill || line.blocked !== null) return []
		const theirs = own.filter((event) => 'entryId' in event && event.entryId === line.entryId)
		const marks = theirs.flatMap((event) => (event.type === 'mark' && event.kind !== 'missed' ? [event] : []))
		// Nobody logs a warm-up: that it is not there says nothing.
		if (line.drill.family === 'prepare' && theirs.length === 0) return []
		const byKey = new Map<string, number[]>()
		for (const mark of marks) {
			const measured = measuredOf(mark)
			if (measured && mark.stamp && !mark.stamp.setAside) addTo(byKey, mark.stamp.key, measured.value)
		}
		const grades = theirs.flatMap((event) =>
			event.kind === 'quality'
				? [{ grade: event.value.grade, reps: event.value.scope === 'set' ? line.dose.reps : 1 }]
				: [],
		)
		const count = (grade: string) => grades.filter((one) => one.grade === grade).reduce((sum, one) => sum + one.reps, 0)
		const done: LineDone = {
			what: writeWhat({ ...line, drillId: line.drill.id }, sheet.drills.of(line)),
			planned: line.dose.sets * line.dose.reps * repsOfRound(line.pieces),
			done: marks.reduce((sum, mark) => sum + repsOfMark(mark, sidedOf(line.drill!)), 0),
			measured: [...byKey].map(([key, values]) => {
				const [kind, method] = [key.split('|')[1] as MarkKind, methodOfKey(key)]
				const [side] = partsOfKey(key).side.split('.')
				return {
					kind,
					side: side === 'left' || side === 'right' ? side : null,
					values,
					usual: isBelowFull(key)
						? null
						: usualOf(
								means.filter((one) => one.key === key),
								session.day,
								kind,
								method,
								defaultsFrom(errors[partsOfKey(key).drill], kind, method),
							),
				}
			}),
			good: count('good'),
			notYet: count('not-yet'),
			poor: count('poor'),
			notes: theirs.flatMap((event) => (event.kind === 'note' ? [event.value.text] : [])),
		}
		return [{ what: done.what, words: sayLineDone(done) }]
	})
	const [ahead] = (await unstartedFor(scope, [athleteId], today)).filter(({ id }) => id !== sessionId)
	const next = ahead ? await readSession(scope, ahead.id) : null
	const nextLines = next ? (await readLines(scope, [next.id])).filter((line) => line.athleteId === athleteId) : []
	return {
		name: athlete.name,
		squadName: session.squadName,
		day: session.day,
		title: session.title,
		lines,
		notes: own.flatMap((event) =>
			event.kind === 'note' && !('entryId' in event && event.entryId) ? [event.value.text] : [],
		),
		next: next && {
			day: next.day,
			startTime: next.startTime,
			lines: nextLines.flatMap((line) =>
				line.blocked === null && line.drillId !== null ? [writeLine(plannedOf(line), library)] : [],
			),
		},
	}
}
