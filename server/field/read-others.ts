import { daysBetween } from '../../core/calendar/day-count'
import type { GuestLine } from '../../core/field/pack'
import type { Concluded } from '../../core/permit/known'
import { type PlainFacts, concludeFor } from '../../core/permit/plain-facts'
import type { Level } from '../../core/vocabulary/words'
import { workOf } from '../../core/vocabulary/entry'
import type { ClubScope } from '../../db/connect'
import { linesOf } from '../../db/queries/sessions'
import { type AthleteRow, type SquadRow, listComing } from '../../db/queries/squads'
import { factsOf } from '../facts/read-facts'
import { readRecords } from '../facts/records'
import type { Sheet } from '../sheet/read-sheet'
import { linesFor } from '../sheet/write-lines'

/** Who else may come travels with the sessions of today and tomorrow: what is known of them grows old. */
const DAYS_AHEAD = 1
/** Somebody without a squad is offered again this long after they came last. */
const KNOWN_DAYS = 90

/** Somebody nobody knows: of unknown age and mass, at level 1, with nothing earned and nothing said. */
const STRANGER: AthleteRow = { id: 'stranger', name: '', birthDate: null, legLengthM: null, massKg: null, away: null }

/** Somebody who may come without being on the sheet, with what they would do. */
export interface Coming {
	athlete: AthleteRow
	level: Level
	plain: PlainFacts
	concluded: Concluded
	lines: GuestLine[]
}

/** Everybody of the club who may come to a session without being on its sheet, and a stranger; null further ahead. */
export async function readOthers(
	scope: ClubScope,
	sheet: Sheet,
	squad: SquadRow,
	today: string,
): Promise<{ others: Coming[]; stranger: Coming } | null> {
	const { session, entries, library } = sheet
	if (daysBetween(today, session.day) > DAYS_AHEAD) return null
	const here = new Set(sheet.athletes.map(({ id }) => id))
	const people = (await listComing(scope, session.day, KNOWN_DAYS)).filter(({ id }) => !here.has(id))
	const ids = people.map(({ id }) => id)
	const records = await readRecords(scope, ids, session.day, today)
	const facts = factsOf({ ...records, athletes: [...people, STRANGER] }, session, squad, library)
	const before = await linesOf(scope, ids, session.day, session.day)
	const of = (athlete: AthleteRow): Coming => {
		const plain = facts.get(athlete.id)!
		const own = concludeFor(plain, library)
		const { concluded, lines } = linesFor(session, entries, athlete, records, squad, own, library, before)
		return {
			athlete,
			level: records.levelOf(athlete.id, 'plyometric'),
			plain,
			concluded,
			lines: [...lines].flatMap(([entryId, line]): GuestLine[] => {
				if (line.blocked !== null) return []
				const { drillId, drillVersion, ladderId, rungId } = line
				const whole = { sides: null, pieces: null, carried: null, aid: null, ...line }
				return [{ entryId, planned: { drillId, drillVersion, ladderId, rungId, ...workOf(whole) } }]
			}),
		}
	}
	return { others: people.map(of), stranger: of(STRANGER) }
}
