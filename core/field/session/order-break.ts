import type { Mark } from '../../vocabulary/events'
import { byTime } from '../../events/by-time'
import type { LineProgress } from '../line-progress'
import { shortName } from '../say-event'
import type { Stand } from './stand'
import { expectRun } from './whose-run'

/** Runs that were given out by order and fit better one place on, or with two of them changed. */
export interface OrderBreak {
	/** Names the question, so that an answer holds: the marks it is about. */
	key: string
	words: string
	/** Each mark with the line it belongs to after all. */
	moves: { mark: Mark; to: LineProgress }[]
}

/**
 * Against the order as it was kept: how often somebody is left out, and how often two change places; where the one
 * who would get a run was passed over anyhow, and where the one who has it has run twice [our setting].
 */
const ODDS = { out: 0.025, changed: 0.01, passed: 0.5, twice: 5 } as const
/** Asked about when it is so many times likelier than the order as it was kept [our setting]. */
const ASKED_FROM = 3
/** So many runs are looked back on. */
const LOOK_BACK = 12

type Ran = Extract<Mark, { kind: 'sprint' }>

/**
 * Whether the last runs by gates look as if somebody did not run, or two changed places: one run between people who
 * run alike says little, several together do. Null where the order as it was kept is as likely.
 *
 * @param settled questions that were answered with no
 */
export function orderBreak(stand: Stand, settled: ReadonlySet<string>): OrderBreak | null {
	const { everybody, sheet, nameOf } = stand
	const runs = everybody
		.flatMap(({ marks }) => marks.flatMap((mark): Ran[] => (mark.kind === 'sprint' && mark.source ? [mark] : [])))
		.sort(byTime)
		.slice(-LOOK_BACK)
	const place = new Map(everybody.map((progress, index) => [progress.line.athleteId, index]))
	const nextOf = (index: number) => everybody[(index + 1) % everybody.length]!
	const fits = runs.map(({ athleteId, value }) => {
		const likelihood = (progress: LineProgress): number => {
			const distanceM = progress.line.parameters.distanceM
			const timeS = value.splits.find((split) => split.distanceM === distanceM)?.timeS
			if (distanceM === undefined || timeS === undefined) return Number.NEGATIVE_INFINITY
			const curve = sheet.athletes.find(({ id }) => id === progress.line.athleteId)?.curve ?? null
			// What was given out today may be somebody else's: it is weighed by what was known before.
			const { timeS: mean, sdS } = expectRun({ ...progress, marks: [] }, { curve }, distanceM)
			return -((timeS - mean) ** 2) / (2 * sdS ** 2) - Math.log(sdS)
		}
		const own = place.get(athleteId)!
		return { own, as: likelihood(everybody[own]!), next: likelihood(nextOf(own)), likelihood }
	})
	const done = ({ marks }: LineProgress) => marks.length
	/** Before the times are looked at. */
	const oddsOf = (has: LineProgress, gets: LineProgress): number => {
		const after = nextOf(place.get(gets.line.athleteId)!)
		const passed = after !== has && done(after) > done(gets)
		if (done(has) > done(gets) + 1) return ODDS.twice
		return passed && done(has) > done(gets) ? ODDS.passed : ODDS.out
	}
	let best: { odds: number; moves: OrderBreak['moves']; words: string } | null = null
	const weigh = (odds: number, moves: OrderBreak['moves'], words: string) => {
		if (odds >= ASKED_FROM && odds > (best?.odds ?? 0)) best = { odds, moves, words }
	}
	for (let from = 0; from < runs.length; from++) {
		let gain = 0
		for (let to = from; to < runs.length; to++) {
			gain += fits[to]!.next - fits[to]!.as
			const last = nextOf(fits[to]!.own)
			const taken = runs.some(
				(run, index) =>
					(index < from || index > to) &&
					run.athleteId === last.line.athleteId &&
					run.setNo === runs[to]!.setNo &&
					run.repNo === runs[to]!.repNo,
			)
			if (taken) continue
			const count = to - from + 1
			weigh(
				oddsOf(everybody[fits[from]!.own]!, last) * Math.exp(gain),
				runs.slice(from, to + 1).map((mark, index) => ({ mark, to: nextOf(fits[from + index]!.own) })),
				`It looks as if ${shortName(nameOf(runs[from]!.athleteId))} did not run: ${count === 1 ? 'that time' : `${count} times`} one place on?`,
			)
		}
		const [one, other] = [fits[from]!, fits[from + 1]]
		if (!other || one.own === other.own) continue
		const [first, second] = [everybody[one.own]!, everybody[other.own]!]
		const changed = one.likelihood(second) + other.likelihood(first) - one.as - other.as
		weigh(
			ODDS.changed * Math.exp(changed),
			[
				{ mark: runs[from]!, to: second },
				{ mark: runs[from + 1]!, to: first },
			],
			`It looks as if ${shortName(nameOf(first.line.athleteId))} and ${shortName(nameOf(second.line.athleteId))} changed places: change their times?`,
		)
	}
	if (best === null) return null
	const { moves, words } = best as { moves: OrderBreak['moves']; words: string }
	const key = `order ${moves.map(({ mark, to }) => `${mark.id}>${to.line.athleteId}`).join(' ')}`
	return settled.has(key) ? null : { key, words, moves }
}
