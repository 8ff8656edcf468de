import { v7 as newId } from 'uuid'
import { dayInZone } from '../../core/calendar/days'
import { concludeFor } from '../../core/permit/plain-facts'
import { permitWork } from '../../core/plan/permit-line'
import { sayFinding } from '../../core/permit/say'
import { readNumber } from '../../core/measure/read-number'
import { Reps, Sets } from '../../core/vocabulary/dose'
import { isSound } from '../../core/vocabulary/sound'
import { inTransaction } from '../../db/connect'
import { insertAcknowledgement } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
import { lockSession, readLines } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { database } from '../database'
import { readFacts } from '../facts/read-facts'
import { setLineByHand } from './write-lines'

/**
 * Sets one athlete's dose by hand on an unstarted sheet. It passes the same rules as any other line: a block is
 * not got round, a caution is answered with a reason, kept with the name.
 *
 * @returns null for a stranger's id
 */
export async function changeLineByHand(
	who: SignedIn,
	sessionId: string,
	lineId: string,
	typed: { sets: string; reps: string; reason: string },
	now: Date,
): Promise<{ saved: true } | { problem: string; asksWhy?: boolean } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		const squad = session && (await readSquad(scope, session.squadId))
		const line = (await readLines(scope, [sessionId])).find((row) => row.id === lineId)
		if (!session || !squad || !line) return null
		if (session.startedAt) return { problem: 'This session has begun: its sheet is frozen.' }
		if (line.blocked || !line.drillId) return { problem: `No line is written here: ${line.blocked}.` }
		const [sets, reps] = [readNumber(typed.sets), readNumber(typed.reps)]
		if (sets === null || !isSound(Sets, sets))
			return { problem: `“${typed.sets}”: whole sets from 1 to 20 are expected.` }
		if (reps === null || !isSound(Reps, reps))
			return { problem: `“${typed.reps}”: whole reps from 1 to 100 are expected.` }
		const library = await readLibrary(scope)
		const today = dayInZone(now.toISOString(), session.timeZone)
		const facts = await readFacts(scope, session, squad, [line.athleteId], library, today)
		const asked = { ...line, drillId: line.drillId, dose: { sets, reps } }
		const answer = permitWork(concludeFor(facts.get(line.athleteId)!, library), asked)
		const [block] = answer.findings.filter((finding) => finding.tier === 'block')
		if (!answer.yes) {
			if (block) return { problem: `Not set. ${sayFinding(block)}` }
			const cautions = answer.findings.map(sayFinding)
			if (typed.reason.trim().length < 3)
				return { problem: `${cautions.join(' ')} Say why it is right all the same.`, asksWhy: true }
			for (const finding of answer.findings)
				await insertAcknowledgement(scope, {
					id: newId(),
					sessionId,
					rule: finding.rule,
					sentence: sayFinding(finding).slice(0, 500),
					reason: typed.reason.trim().slice(0, 500),
					personId: who.personId,
					at: now,
				})
		}
		await setLineByHand(scope, line, { sets, reps }, line.parameters, now)
		return { saved: true as const }
	})
}
