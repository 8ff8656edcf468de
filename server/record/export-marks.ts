import { stringify } from 'csv-stringify/sync'
import { byTime } from '../../core/events/by-time'
import { foldEvents } from '../../core/events/fold'
import type { Mark } from '../../core/vocabulary/events'
import { METHOD_NAMES, type Method } from '../../core/vocabulary/words'
import { writeDrill } from '../../core/words/write-numbers'
import type { ClubScope } from '../../db/connect'
import { eventsOfAthlete } from '../../db/queries/log'
import { readLibrary } from '../../db/queries/library'
import { readLinesById, recentSessionsOf } from '../../db/queries/sessions'
import { readAthletes } from '../../db/queries/squads'
import { plannedOf } from '../sheet/planned-of'
import { clockOf } from './read-done'
import { partAt } from '../../core/vocabulary/line-parts'

/** Longer than the product is old. */
const EVER_DAYS = 36_500
/** One number of a mark, in its unit. */
interface Value {
	quantity: 'time' | 'contact' | 'flight' | 'height' | 'distance' | 'reps'
	value: number
	unit: 's' | 'm' | 'reps'
	/** Of a time: at how many metres it was taken. */
	atM?: number
}
function valuesOf(mark: Mark): Value[] {
	switch (mark.kind) {
		case 'sprint':
			return mark.value.splits.map(({ distanceM, timeS }) => ({
				quantity: 'time',
				value: timeS,
				unit: 's',
				atM: distanceM,
			}))
		case 'contact':
			return [
				{ quantity: 'contact', value: mark.value.contactS, unit: 's' },
				...(mark.value.flightS === undefined
					? []
					: [{ quantity: 'flight', value: mark.value.flightS, unit: 's' } as const]),
			]
		case 'height':
			return [{ quantity: 'height', value: mark.value.heightM, unit: 'm' }]
		case 'distance':
			return [{ quantity: 'distance', value: mark.value.distanceM, unit: 'm' }]
		case 'done':
			return [{ quantity: 'reps', value: mark.value.reps, unit: 'reps' }]
		default:
			return []
	}
}

const COLUMNS = [
	'day',
	'time',
	'session',
	'drill_id',
	'drill',
	'set',
	'rep',
	'side',
	'quantity',
	'value',
	'unit',
	'at_m',
	'method',
	'set_aside',
	'mark_id',
] as const

/**
 * Everything measured of an athlete, a line a number, oldest first: text by RFC 4180, in UTF-8, numbers with a point, in
 * seconds and metres; days and times are the club's.
 *
 * @returns null for a stranger's id
 */
export async function exportMarks(
	scope: ClubScope,
	athleteId: string,
	today: string,
	timeZone: string,
): Promise<{ name: string; text: string } | null> {
	const [athlete] = await readAthletes(scope, [athleteId])
	if (!athlete) return null
	const library = await readLibrary(scope)
	const sessions = new Map(
		(await recentSessionsOf(scope, [athleteId], today, EVER_DAYS)).map(({ session }) => [
			session.id as string,
			session,
		]),
	)
	const { current, conflicts } = foldEvents(await eventsOfAthlete(scope, athleteId, [...sessions.keys()]))
	const marks = [...current, ...conflicts.flat()]
		.flatMap((event) => (event.type === 'mark' && event.athleteId === athleteId && !event.void ? [event] : []))
		.sort(byTime)
	const lines = new Map(
		(await readLinesById(scope, [...new Set(marks.map(({ lineId }) => lineId))])).map((line) => [
			line.id as string,
			line,
		]),
	)
	const clock = clockOf(timeZone)
	const rows = marks.flatMap((mark) => {
		const session = sessions.get(mark.sessionId)
		const line = lines.get(mark.lineId)
		const planned = line && plannedOf(line)
		const part = planned && partAt(planned, mark.piece)
		const drill = library.drills[mark.asDrill?.drillId ?? part?.drillId ?? '']
		const method = 'method' in mark.value ? (mark.value.method as Method) : null
		return valuesOf(mark).map(({ quantity, value, unit, atM }) => ({
			day: session?.day ?? '',
			time: clock(mark.deviceTime),
			session: session?.title ?? '',
			drill_id: drill?.id ?? '',
			drill: drill && part ? writeDrill(drill, mark.asDrill ? drill.defaults.parameters : part.parameters) : '',
			set: mark.setNo,
			rep: mark.repNo,
			side: mark.side ?? '',
			quantity,
			value,
			unit,
			at_m: atM ?? '',
			method: method === null ? '' : METHOD_NAMES[method],
			set_aside: mark.stamp?.setAside ? 'yes' : 'no',
			mark_id: mark.id,
		}))
	})
	return {
		name: athlete.name,
		// A spreadsheet runs what begins with a sign as a formula: what people typed stays text.
		text: stringify(rows, { header: true, columns: [...COLUMNS], record_delimiter: 'windows', escape_formulas: true }),
	}
}
