import { addDays } from '../calendar/day-count'
import type { Random } from '../chance/random'
import { usualName } from '../judge/gather-exposure'
import { judge } from '../judge/judge'
import { contactCeilingS } from '../judge/read-criterion'
import { startingAt } from '../judge/resolve-line'
import type { Exposure, LadderState } from '../judge/types'
import { repsOf } from '../library/scale-dose'
import { STARTER_LIBRARY, rungOf } from '../library/starter-library'
import { historyOf } from '../marks/keep-session'
import { plausibility } from '../marks/plausible'
import { typicalErrorOf } from '../noise/typical-error'
import { type SessionMean, sessionMeanOf, usualOf } from '../noise/usual'
import type { Rung } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import type { Method } from '../vocabulary/words'
import {
	ATTENDANCE,
	type Career,
	type CareerAsk,
	FIRST_DAY,
	LEVEL,
	TYPED_WRONG,
	freshCareer,
	inputOf,
	typedWrong,
} from './career'

/** Methods a contact is measured by; careers by them climb the ladder of boxes. */
export const CLIMBED_BY: readonly Method[] = ['film-240', 'film-120']
const CLIMBED = 'shock'
/** Contact from 15 cm, s, from the best to the worst of a squad, and how much longer 15 cm more of box make it. */
const CONTACT_15_S = [0.14, 0.23] as const
const LONGER = 0.06
/** Two boxes at once ask as much as one so much higher, cm: the ladder gets harder rung by rung. */
const SECOND_BOX_CM = 45

/** True contact on a rung, s; null on one that is judged by eye. */
function trueContact(rung: Rung, contact15S: number): number | null {
	if (rung.pass.kind !== 'contact-ceiling') return null
	const height = (rung.parameters.heightCm ?? 15) + (rung.drillId === 'double-depth-jump' ? SECOND_BOX_CM : 0)
	return contact15S * (1 + (LONGER * (height - 15)) / 15)
}

/**
 * An athlete of steady ability on the ladder of boxes, from its first rebound up, whom nothing stands in the way but
 * contact. It ends right within one rebound of the highest that true ability passes.
 */
export function climbOne(ask: CareerAsk, random: Random): Career {
	const { method, trueSpreadPercent = 1, sessions } = ask
	const ladder = STARTER_LIBRARY.ladders[CLIMBED]!
	const school = STARTER_LIBRARY.schools[ask.school]!
	const documents = { ladder, school, drills: STARTER_LIBRARY.drills, paths: STARTER_LIBRARY.ladders }
	const [best, worst] = CONTACT_15_S
	const contact15S = best + random.next() * (worst - best)
	const error = typicalErrorOf('contact', method) ?? 0
	const ceiling = contactCeilingS(LEVEL, school)
	let state: LadderState = startingAt(STARTER_LIBRARY, ladder.id, 'depth-15')
	const career = freshCareer(sessions)
	const means = new Map<string, SessionMean[]>()
	let exposures: Exposure[] = []
	let day = 0
	for (let session = 0; session < sessions; session++) {
		do day += session % 2 === 0 ? 3 : 4
		while (!(random.next() < ATTENDANCE))
		const on = addDays(FIRST_DAY, day)
		const { rung } = rungOf(ladder, state.rungId)
		const drill = STARTER_LIBRARY.drills[rung.drillId]!
		const truth = trueContact(rung, contact15S)
		const known = means.get(rung.id) ?? []
		const reps = repsOf(state.dose)
		const today = truth === null ? null : truth * (1 + random.normal(trueSpreadPercent / 100))
		const marks =
			today === null
				? []
				: Array.from({ length: reps }, () => {
						const taken = Math.max(0.01, Number((today + random.normal(error)).toFixed(3)))
						return random.chance(TYPED_WRONG) ? typedWrong(taken, random) : taken
					}).filter(
						(mark) =>
							plausibility('contact', drill, rung.parameters, mark, historyOf(known.slice(-8)), LEVEL).outcome ===
							'plausible',
					)
		const usual = usualOf(known, on, 'contact', method)
		exposures = [
			...exposures,
			{
				sessionId: `s${session}`,
				day: on,
				rungId: rung.id,
				onRung: true,
				phase: 'peaking' as const,
				planned: state.dose,
				repsDone: reps,
				endReason: null,
				marks: marks.map((value) => ({ kind: 'contact' as const, value, method })),
				quality: { good: reps, notYet: 0, poor: 0, setTaps: 1 },
				...(usual ? { usual: { [usualName({ method })]: usual } } : {}),
			},
		].slice(-8)
		const judgement = judge(inputOf(ask, state, exposures, on, null, null, 'peaking'), documents)
		const kept = sessionMeanOf({ day: on }, marks, 'lower')
		if (kept) means.set(rung.id, [...known, kept])
		if (judgement.verdict === 'ease') {
			career.easedByAny = true
			if (judgement.decidedBy === 'P2') career.eased = true
		}
		const passes = truth !== null && judgement.trace.some((one) => one.rule === 'P1' && one.fired)
		if (passes && career.passed === null) career.passed = session + 1
		if (passes && truth > ceiling * (1 + BEYOND)) career.unable = true
		state = judgement.next
	}
	const rebounds = ladder.rungs.filter((one) => one.pass.kind === 'contact-ceiling' && !gonePast(one, school))
	// Where a school stays low, a box is left for a higher one only by the sprint goal.
	const asked = (rung: Rung) =>
		school.choices.boxHeight === 'low' &&
		rebounds.some(
			(one) => one.drillId === rung.drillId && (one.parameters.heightCm ?? 0) > (rung.parameters.heightCm ?? 0),
		)
			? Math.min(ceiling, school.numbers.sprintGoalMs / 1000)
			: ceiling
	const fails = rebounds.findIndex((one) => trueContact(one, contact15S)! > asked(one))
	const able = fails === -1 ? rebounds.length : fails
	const at = ladder.rungs.findIndex((one) => one.id === state.rungId)
	// Whoever stands between two rebounds is on the way to the next.
	const stands = rebounds.filter((one) => ladder.rungs.indexOf(one) <= at).length
	return { ...career, within: Math.abs(stands - able) <= 1 }
}
/** Half a point beyond the limit is beyond it. */
const BEYOND = 0.005
const gonePast = ({ parameters }: Rung, { numbers }: School): boolean =>
	(parameters.heightCm ?? 0) > numbers.highestBoxCm
