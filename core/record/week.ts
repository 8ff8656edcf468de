import type { Leg } from '../vocabulary/words'
import { QUANTITIES, type Quantity } from '../vocabulary/entry'
import { SPARE_FROM } from '../care/grades'
import { capital, writePercent } from '../words/write-numbers'

/** Beyond these shares of what was asked a week is over, or under [our setting]. */
export const OVER_SHARE = 1.15
export const UNDER_SHARE = 0.75
/** Amounts too small for a share to say anything: a set of jumps, a run, a turn, a throw [our setting]. */
const SMALL: Record<Quantity, number> = { contacts: 10, fastMetres: 20, cuts60: 3, throws: 3 }
/** Worst comfort, 0–5, from which assisted work is talked about [our setting]. */
const UNEASY = 3
/** New hard things of one week that are one too many. */
const TOO_MANY_NEW = 2

const WORDS: Record<Quantity, string> = {
	contacts: 'contacts',
	fastMetres: 'fast metres',
	cuts60: 'cuts',
	throws: 'throws',
}

export interface WeekAmount {
	done: number
	/** What the sheets of the sessions held asked of this athlete. */
	asked: number
}
export type Against = 'over' | 'under' | 'as asked' | 'nothing asked'

/** Done against asked, in words: amounts within a set's worth of each other are as asked. */
export function against(quantity: Quantity, { done, asked }: WeekAmount): Against {
	if (asked === 0 && done <= SMALL[quantity]) return 'nothing asked'
	// Equal decimals can come out a rounding below.
	if (done > asked * OVER_SHARE + 1e-9 && done - asked > SMALL[quantity]) return 'over'
	return done < asked * UNDER_SHARE - 1e-9 && asked - done > SMALL[quantity] ? 'under' : 'as asked'
}

/** What a week was for one athlete. */
export interface WeekOf {
	athleteId: string
	name: string
	/** Sessions with something logged, of those held that the athlete was down for. */
	came: number
	down: number
	amounts: Record<Quantity, WeekAmount>
	/** What was done outside that not most of the squad did. */
	outside: string[]
	/** The latest gap between the sides within four weeks: percent, who is ahead, and whether it is more than noise. */
	gap: { what: string; percent: number; ahead: Leg; beyond: boolean; times: number } | null
	/** Of assisted work. */
	comfort: { worst: number; braking: boolean } | null
	newThings: string[]
	/** What is closed or spared and the way back, for everybody; worry, illness and the worst pain for those who read them. */
	body: {
		closed: string[]
		spared: string[]
		wayBack: string | null
		read: { worry: string | null; unwell: boolean; pain: { place: string; score: number } | null } | null
	}
	setAside: number
	/** Tests of the squad that are due, and not done. */
	due: string[]
}
export interface WeekRow extends WeekOf {
	against: Record<Quantity, Against>
	/** The one thing to think about; null where nothing is. */
	thought: string | null
	/** What is said of the body in a cell. */
	bodyWords: string
}

const NUMBERS = [
	'nobody',
	'one',
	'two',
	'three',
	'four',
	'five',
	'six',
	'seven',
	'eight',
	'nine',
	'ten',
	'eleven',
	'twelve',
]
const count = (value: number): string => NUMBERS[value] ?? String(value)

/** Each with what makes it worth a thought, the first that holds. Smaller ranks come first. */
function thoughtOf(week: WeekOf, sides: Record<Quantity, Against>): { rank: number; words: string } | null {
	const { body, gap } = week
	const over = QUANTITIES.filter((quantity) => sides[quantity] === 'over')
	const under = QUANTITIES.filter((quantity) => sides[quantity] === 'under')
	const read = body.read
	if (body.closed.length > 0 && body.wayBack === null)
		return { rank: 1, words: `closed: ${body.closed.join(', ')}; nothing there until cleared` }
	if (read?.unwell) return { rank: 2, words: 'unwell: nothing hard until well again' }
	if (read?.worry) return { rank: 3, words: `talk before the next one: ${read.worry}` }
	if (body.spared.length > 0 && body.wayBack === null)
		return { rank: 4, words: `spare the ${body.spared.join(' and the ')}; ask how it is` }
	if (read?.pain && read.pain.score >= SPARE_FROM) return { rank: 4, words: `ask about the ${read.pain.place}` }
	if (over.length > 0)
		return {
			rank: 5,
			words: `over in ${over.map((quantity) => WORDS[quantity]).join(' and ')}: less next time`,
		}
	if (week.newThings.length >= TOO_MANY_NEW)
		return { rank: 6, words: `${count(week.newThings.length)} new hard things in one week` }
	if (week.comfort && (week.comfort.braking || week.comfort.worst >= UNEASY))
		return { rank: 7, words: week.comfort.braking ? 'braked when assisted' : 'not at ease when assisted' }
	if (week.setAside > 0)
		return {
			rank: 8,
			words: week.setAside === 1 ? 'one number to settle' : `${count(week.setAside)} numbers to settle`,
		}
	if (gap && gap.beyond && gap.times >= 2)
		return {
			rank: 9,
			words: `${gap.ahead === 'left' ? 'right' : 'left'} behind by ${writePercent(gap.percent)}, ${gap.times} times`,
		}
	if (week.due.length > 0) return { rank: 10, words: `${week.due.join(', ')} due` }
	if (body.wayBack) return { rank: 11, words: body.wayBack }
	if (week.down > 0 && week.came === 0) return { rank: 12, words: 'did not come: nothing to make up' }
	if (under.length > 0)
		return {
			rank: 13,
			words: `under in ${under.map((quantity) => WORDS[quantity]).join(' and ')}: nothing to make up`,
		}
	return null
}

function bodyWordsOf({ body: { closed, spared, wayBack, read } }: WeekOf): string {
	const words = [
		...(wayBack
			? ['way back']
			: [...closed.map((place) => `${place} closed`), ...spared.map((place) => `${place} spared`)]),
		...(read?.worry ? ['worry open'] : []),
		...(read?.unwell ? ['unwell'] : []),
		...(read?.pain ? [`${read.pain.place} ${read.pain.score}`] : []),
	]
	// Nothing known is not quiet.
	return words.length > 0 ? words.join(', ') : read ? 'quiet' : ''
}

/** The squad's week, whoever needs a thought first; the others by name. */
export function weekOf(people: readonly WeekOf[]): WeekRow[] {
	return people
		.map((week) => {
			const sides = Object.fromEntries(
				QUANTITIES.map((quantity) => [quantity, against(quantity, week.amounts[quantity])]),
			) as Record<Quantity, Against>
			const thought = thoughtOf(week, sides)
			return {
				row: { ...week, against: sides, thought: thought?.words ?? null, bodyWords: bodyWordsOf(week) },
				rank: thought?.rank ?? Number.POSITIVE_INFINITY,
			}
		})
		.sort((a, b) => (a.rank === b.rank ? a.row.name.localeCompare(b.row.name) : a.rank - b.rank))
		.map(({ row }) => row)
}

/** The week in a breath. @example "Eleven of twelve came to all. One is over, two numbers to settle." */
export function sayWeek(rows: readonly WeekRow[], sessions: number): string {
	if (sessions === 0) return 'No session was held in this week.'
	const down = rows.filter((row) => row.down > 0)
	const all = down.filter((row) => row.came === row.down).length
	const over = rows.filter((row) => Object.values(row.against).includes('over')).length
	const closed = rows.filter(({ body }) => body.closed.length + body.spared.length > 0).length
	const aside = rows.reduce((sum, row) => sum + row.setAside, 0)
	const rest = [
		...(over > 0 ? [`${count(over)} ${over === 1 ? 'is' : 'are'} over`] : []),
		...(closed > 0 ? [`${count(closed)} ${closed === 1 ? 'has' : 'have'} a region closed or spared`] : []),
		...(aside > 0 ? [`${count(aside)} ${aside === 1 ? 'number waits' : 'numbers wait'} to be settled`] : []),
	]
	const came =
		down.length > 0 && all === down.length
			? `All ${count(down.length)} came to ${sessions === 1 ? 'it' : 'all'}.`
			: `${capital(count(all))} of ${count(down.length)} came to ${sessions === 1 ? 'it' : 'all'}.`
	const others = rest.length > 0 ? ` ${capital(rest.join(', '))}.` : ' Nobody is over, nothing is closed.'
	return came + others
}
