import { sum } from 'simple-statistics'
import { addDays } from '../calendar/day-count'
import { Random } from '../chance/random'
import { judge } from '../judge/judge'
import { usualName } from '../judge/gather-exposure'
import { readExposure } from '../judge/read-criterion'
import type { Exposure, LadderState } from '../judge/types'
import { repsOf } from '../library/scale-dose'
import { STARTER_LIBRARY, rungOf } from '../library/starter-library'
import { betterOf, historyOf } from '../marks/keep-session'
import { plausibility } from '../marks/plausible'
import {
	type Career,
	type CareerAsk,
	ATTENDANCE,
	FIRST_DAY,
	LEVEL,
	TYPED_WRONG,
	freshCareer,
	inputOf,
	typedWrong,
} from './career'
import { CLIMBED_BY, climbOne } from './climb-boxes'
import { MeasureError, inBounds } from '../measure/measure-error'
import { readSlowFall } from '../noise/slow-fall'
import { type MarkKind, typicalErrorOf } from '../noise/typical-error'
import {
	type DefaultSpreads,
	type SessionMean,
	type Usual,
	ownDayPercent,
	sessionMeanOf,
	usualOf,
} from '../noise/usual'
import type { Method, Region } from '../vocabulary/words'

/** Shares of careers, 0–1; null where the scenario does not ask it. */
export interface CareerAnswer {
	/** Eased by P2 at least once. */
	anyEase: number
	/** The rung passed, twice running, within five sessions after a usual exists. */
	passedWithin5: number
	/** P2 fired within three sessions of the fall. */
	missWithin3: number
	/** Never eased by any rule. */
	neverEased: number
	/** Passed twice running within five sessions of the fall, both after it, against the usual of before. */
	advancedUnable: number
	/** A slow fall was said at least once. */
	slowFallSaid: number
	/** Of all sessions, those in which a typing error inside the plausible range changed what the marks say. */
	changedByTyping: number
	/** Of sessions with such an error, those in which it did. */
	changedWhenTyped: number
	/** Stood at the end within one rung of what true ability passes; null where the line has no contact ceiling. */
	withinOneRung: number | null
}

/** A line of the starter library each method is used on, and what an ordinary athlete does there. */
const LINES: Partial<Record<Method, { ladderId: string; rungId: string; kind: MarkKind; value: number }>> = {
	gate: { ladderId: 'acceleration', rungId: 'three-point-20', kind: 'sprint', value: 3.05 },
	phone: { ladderId: 'acceleration', rungId: 'three-point-20', kind: 'sprint', value: 3.05 },
	stopwatch: { ladderId: 'acceleration', rungId: 'three-point-20', kind: 'sprint', value: 3.05 },
	mat: { ladderId: 'take-off', rungId: 'two-lr-0', kind: 'height', value: 0.4 },
	tape: { ladderId: 'throw', rungId: 'overhead', kind: 'distance', value: 9 },
}
/** Improvement a week, percent. */
const IMPROVES = 0.5
const HURT_SESSIONS = 4
/** Evidence a verdict looks at. */
const EXPOSURES = 3
/** Passes running that advance. */
const PASSES = 2

/**
 * Careers of simulated athletes on one rung of the starter library, judged by the product's own rules. True
 * ability, what a day moves and the method's error are drawn; the rules see the marks alone.
 *
 * @throws MeasureError for an unknown school, a method without a line, or numbers outside: careers 1–20 000,
 * sessions 12–400, fall above 0 to 30 %, spread 0–10 %
 */
export function simulateCareers(ask: CareerAsk): CareerAnswer {
	inBounds('careers', ask.careers, { from: 1, to: 20_000, whole: true })
	inBounds('sessions', ask.sessions, { from: 12, to: 400, whole: true })
	inBounds('seed', ask.seed, { from: 0, to: 2 ** 31, whole: true })
	inBounds('fallPercent', ask.fallPercent ?? 5, { above: 0, to: 30, unit: '%' })
	inBounds('fallSessions', ask.fallSessions ?? 0, { from: 0, to: 100, whole: true })
	inBounds('trueSpreadPercent', ask.trueSpreadPercent ?? 1, { from: 0, to: 10, unit: '%' })
	const line = LINES[ask.method]
	const methods = [...Object.keys(LINES), ...CLIMBED_BY]
	if (!methods.includes(ask.method)) throw new MeasureError('method', ask.method, `one of ${methods.join(', ')}`)
	const school = STARTER_LIBRARY.schools[ask.school]
	if (!school) throw new MeasureError('school', ask.school, `one of ${Object.keys(STARTER_LIBRARY.schools).join(', ')}`)
	const random = new Random(ask.seed)
	const all = Array.from({ length: ask.careers }, () => (line ? liveOne(ask, line, random) : climbOne(ask, random)))
	const share = (of: (career: Career) => boolean) => all.filter(of).length / all.length
	return {
		anyEase: share((one) => one.eased),
		passedWithin5: share((one) => one.passed !== null && one.passed <= 5),
		missWithin3: share((one) => one.missed),
		neverEased: share((one) => !one.easedByAny),
		advancedUnable: share((one) => one.unable),
		slowFallSaid: share((one) => one.slow),
		changedByTyping: sum(all.map((one) => one.changed)) / sum(all.map((one) => one.sessions)),
		changedWhenTyped: sum(all.map((one) => one.changed)) / Math.max(1, sum(all.map((one) => one.typed))),
		withinOneRung: line ? null : share((one) => one.within === true),
	}
}

/** Days and pairs of a squad of a dozen over twelve weeks. */
const SQUAD_DAYS = 200
/** What such a squad's own spreads come to, where its athletes are like the one that is followed. */
const squadOf = (kind: MarkKind, error: number, spreadPercent: number): DefaultSpreads => ({
	withinSd: error,
	betweenPercent: ownDayPercent(kind, (spreadPercent / 100) ** 2, 0, SQUAD_DAYS) ?? undefined,
})

function liveOne(ask: CareerAsk, line: NonNullable<(typeof LINES)[Method]>, random: Random): Career {
	const { scenario, method, sessions, fallPercent = 5, fallSessions = 0, trueSpreadPercent = 1 } = ask
	const { kind, value } = line
	const better = betterOf(kind)
	const ladder = STARTER_LIBRARY.ladders[line.ladderId]!
	const school = STARTER_LIBRARY.schools[ask.school]!
	const { rung } = rungOf(ladder, line.rungId)
	const drill = STARTER_LIBRARY.drills[rung.drillId]!
	const error = typicalErrorOf(kind, method) ?? 0
	// Where it hurts is where the drill loads most.
	const [sore] = (Object.entries(drill.regions) as [Region, number][]).sort(([, a], [, b]) => b - a)[0]!
	const reps = repsOf(rung.dose)
	const defaults = ask.squad ? squadOf(kind, error, trueSpreadPercent) : {}
	const state: LadderState = {
		ladderId: ladder.id,
		rungId: rung.id,
		dose: rung.dose,
		substitute: null,
		passed: false,
		easedBy: null,
	}
	const documents = { ladder, school, drills: STARTER_LIBRARY.drills, paths: STARTER_LIBRARY.ladders }
	const fallsAt = Math.floor(sessions / 2)
	/** Ability as a share worse than at first. */
	const worseAt = (session: number, day: number): number => {
		if (scenario === 'improving') return -(IMPROVES / 100) * (day / 7)
		if (session < fallsAt || scenario === 'steady') return 0
		if (scenario === 'hurt') return session < fallsAt + HURT_SESSIONS ? fallPercent / 100 : 0
		return (fallPercent / 100) * Math.min(1, (session - fallsAt + 1) / Math.max(1, fallSessions))
	}
	const own = value * Math.exp(random.normal(0.06))
	const means: SessionMean[] = []
	let exposures: Exposure[] = []
	let day = 0
	const career = freshCareer(sessions)
	let withUsual = 0
	let afterFall = 0
	let passesAfter = 0
	let before: Usual | null = null
	for (let session = 0; session < sessions; session++) {
		// Two days a week; a session missed is a longer gap.
		do day += session % 2 === 0 ? 3 : 4
		while (!(random.next() < ATTENDANCE))
		const on = addDays(FIRST_DAY, day)
		const truth =
			own *
			(better === 'lower' ? 1 + worseAt(session, day) : 1 - worseAt(session, day)) *
			(1 + random.normal(trueSpreadPercent / 100))
		const history = historyOf(means.slice(-8))
		const typed = Array.from({ length: reps }, () => {
			const taken = Math.max(0.01, Number((truth + random.normal(error)).toFixed(kind === 'height' ? 3 : 2)))
			return { taken, mark: random.chance(TYPED_WRONG) ? typedWrong(taken, random) : taken }
		}).filter(({ mark }) => plausibility(kind, drill, rung.parameters, mark, history, LEVEL).outcome === 'plausible')
		const marks = typed.map(({ mark }) => mark)
		const usual = usualOf(means, on, kind, method, defaults)
		if (session === fallsAt) before = usual
		const exposure: Exposure = {
			sessionId: `s${session}`,
			day: on,
			rungId: rung.id,
			onRung: true,
			phase: 'accumulate',
			planned: rung.dose,
			repsDone: reps,
			endReason: null,
			marks: marks.map((mark) => ({ kind, value: mark, method })),
			quality: { good: reps, notYet: 0, poor: 0, setTaps: 1 },
			...(usual ? { usual: { [usualName({ method })]: usual } } : {}),
		}
		exposures = [...exposures, exposure].slice(-EXPOSURES)
		if (usual && typed.some(({ taken, mark }) => mark !== taken)) {
			const right = { ...exposure, marks: typed.map(({ taken }) => ({ kind, value: taken, method })) }
			const read = (one: Exposure) => readExposure(one, [], rung, LEVEL, school).outcome
			career.typed += 1
			if (read(right) !== read(exposure)) career.changed += 1
		}
		const hurt = scenario === 'hurt' && session >= fallsAt && session < fallsAt + HURT_SESSIONS ? sore : null
		const today = sessionMeanOf({ day: on }, marks, better)
		const slow = today ? readSlowFall([...means, today], on, kind, method, better, defaults) : null
		const input = inputOf(ask, state, exposures, on, hurt, slow && { kind, percent: slow.percent, fallen: slow.fallen })
		const judgement = judge(input, documents)
		if (today) means.push(today)

		if (judgement.verdict === 'ease') {
			career.easedByAny = true
			if (judgement.decidedBy === 'P2') career.eased = true
			// Put back on the rung, to see whether it happens again: what was seen counts no longer.
			exposures = []
		}
		if (slow?.fallen) career.slow = true
		const firedNow = (rule: string) => judgement.trace.some((one) => one.rule === rule && one.fired)
		if (usual) withUsual += 1
		if (career.passed === null && usual && firedNow('P1')) career.passed = withUsual
		if ((scenario === 'falling' || scenario === 'hurt') && session >= fallsAt) {
			afterFall += 1
			if (afterFall <= 3 && firedNow('P2')) career.missed = true
			if (scenario === 'falling' && fallSessions === 0 && afterFall <= 5 && before) {
				// Against the usual of before the fall, which has not drifted along yet.
				const held = { ...exposure, usual: { [usualName({ method })]: before } }
				passesAfter = readExposure(held, [], rung, LEVEL, school).outcome === 'pass' ? passesAfter + 1 : 0
				if (passesAfter >= PASSES) career.unable = true
			}
		}
	}
	return career
}
