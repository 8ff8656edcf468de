import { v7 as newId } from 'uuid'
import { REGIONS, type Region } from '../../core/vocabulary/words'
import { recentSessionsOf } from '../../db/queries/sessions'
import type { Problems } from '../access/join'
import type { SignedIn } from '../access/sign-in'
import { todayAt } from '../clock'
import { scopeOf } from '../database'
import { acceptEvents } from '../log/accept-events'

/** A pain report away from the field: it goes into the log of the last session the athlete was down for. */
export async function reportPain(
	who: SignedIn,
	athleteId: string,
	typed: { region: string; side: string; score: string; moment: string; redFlag: boolean },
	now: Date,
): Promise<{ reported: true } | { problems: Problems }> {
	const score = Number(typed.score)
	if (!REGIONS.includes(typed.region as Region)) return { problems: { pain: 'Pick where it hurts.' } }
	if (typed.score === '' || !Number.isInteger(score) || score < 0 || score > 10)
		return { problems: { pain: `“${typed.score}”: a whole number from 0 to 10 is expected.` } }
	const [last] = await recentSessionsOf(scopeOf(who.clubId), [athleteId], todayAt(who.timeZone, now), 60)
	if (!last)
		return { problems: { pain: 'There is no session yet that this could belong to. Tell the coach directly.' } }
	const answer = await say(
		who,
		last.session.id,
		athleteId,
		{
			kind: 'pain',
			value: { region: typed.region, side: typed.side, score, moment: typed.moment, redFlag: typed.redFlag },
		},
		now,
	)
	return answer?.outcome === 'refused'
		? { problems: { pain: `${answer.field}: ${answer.reason}` } }
		: { reported: true }
}

/** The answer to "how was it?" after the easy form or a step: up to 1 it ends sparing a region, 2 or more is a report. */
export async function answerAsked(
	who: SignedIn,
	athleteId: string,
	typed: { region: string; side: string; score: string },
	now: Date,
): Promise<{ kept: true } | { problems: Problems }> {
	const score = Number(typed.score)
	if (!REGIONS.includes(typed.region as Region)) return { problems: { asked: 'Say which region was asked about.' } }
	if (typed.score.trim() === '' || !Number.isInteger(score) || score < 0 || score > 10)
		return { problems: { asked: `“${typed.score}”: a whole number from 0 to 10 is expected.` } }
	const [last] = await recentSessionsOf(scopeOf(who.clubId), [athleteId], todayAt(who.timeZone, now), 60)
	if (!last) return { problems: { asked: 'There is no session yet in which the easy form was done.' } }
	const answer = await say(
		who,
		last.session.id,
		athleteId,
		{
			kind: 'quiet',
			value: { region: typed.region, side: typed.side, score },
		},
		now,
	)
	return answer?.outcome === 'refused' ? { problems: { asked: answer.reason } } : { kept: true }
}

/** Puts an observation said at the desk into the log of a session. */
async function say(
	who: SignedIn,
	sessionId: string,
	athleteId: string,
	said: { kind: 'pain' | 'quiet'; value: object },
	now: Date,
) {
	const [answer] = await acceptEvents(
		who,
		[
			{
				id: newId(),
				sessionId,
				athleteId,
				deviceId: newId(),
				deviceSeq: 0,
				deviceTime: now.toISOString(),
				type: 'observation',
				...said,
			},
		],
		now,
	)
	return answer
}
