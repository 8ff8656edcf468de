import { v7 as newId } from 'uuid'
import { addDays } from '../../core/calendar/day-count'
import { NEAR_DAYS } from '../../core/dose/work-kinds'
import { type Caution, type CheckedEntry, checkGround, checkLine, checkOrder } from '../../core/plan/session-checks'
import type { RuleId } from '../../core/rules/rule'
import type { ClubScope } from '../../db/connect'
import { acknowledgementsOf, insertAcknowledgement } from '../../db/queries/care'
import { listPeople } from '../../db/queries/clubs'
import { readLevels, readSquad } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'
import { type Sheet, knownOf, readSheet } from './read-sheet'
import { readNearWork, workNear } from './work-near'

export interface SheetCaution {
	rule: RuleId
	/** What an answer is kept for. */
	finding: string
	sentence: string
	/** Whom it is about; empty when it is about the session. */
	names: string[]
	/** Who answered it, why and when; null while nobody has. */
	answered: { by: string; reason: string; at: string } | null
}

/** What a coach should see before the session: order, spacing, ground, matches. Each is answered by name and time, with a reason, or the sheet is changed. */
export async function readCautions(scope: ClubScope, sheet: Sheet): Promise<SheetCaution[]> {
	const { session, athletes, entries, library } = sheet
	const squad = await readSquad(scope, session.squadId)
	const school = squad ? library.schools[squad.schoolId] : undefined
	if (!squad || !school) return []
	const ids = athletes.map((athlete) => athlete.id)
	const [known, levelOf, near, answers, people] = [
		await knownOf(scope, sheet),
		await readLevels(scope, ids),
		await readNearWork(scope, ids, { from: session.day, done: addDays(session.day, NEAR_DAYS) }, library),
		await acknowledgementsOf(scope, session.id),
		await listPeople(scope),
	]
	const found = new Map<string, { caution: Caution; names: string[] }>()
	const note = (caution: Caution, name: string | null) => {
		const known = found.get(caution.finding) ?? { caution, names: [] }
		if (name !== null && !known.names.includes(name)) known.names.push(name)
		found.set(caution.finding, known)
	}
	for (const athlete of athletes) {
		const lines = athlete.lines.flatMap((line): CheckedEntry[] =>
			line.drill && line.blocked === null
				? [{ entryId: line.entryId, drill: line.drill, parameters: line.parameters, dose: line.dose }]
				: [],
		)
		const { concluded } = known.get(athlete.id)!
		// Held, or only matches.
		const work = workNear(near.get(athlete.id)!, session)
		for (const caution of checkOrder(lines)) note(caution, athlete.name)
		for (const caution of checkGround(athlete.planned, levelOf(athlete.id, 'plyometric'), session.surface))
			note(caution, athlete.name)
		for (const line of lines)
			for (const caution of checkLine(line, session, work, concluded.facts)) note(caution, athlete.name)
	}
	const order = new Map(entries.map((entry) => [entry.id, entry.position]))
	return [...found.values()]
		.sort((a, b) => (order.get(a.caution.entryId ?? '') ?? -1) - (order.get(b.caution.entryId ?? '') ?? -1))
		.map(({ caution, names }) => {
			const answer = answers.find(
				(row) =>
					row.finding === caution.finding ||
					// Of the version before only the words are kept.
					(row.finding === '' && row.rule === caution.rule && row.sentence === caution.sentence.slice(0, 500)),
			)
			return {
				rule: caution.rule,
				finding: caution.finding,
				sentence: caution.sentence,
				names,
				answered: answer
					? {
							by: people.find((person) => person.id === answer.personId)?.name ?? 'somebody',
							reason: answer.reason,
							at: answer.at.toISOString().slice(0, 16).replace('T', ' '),
						}
					: null,
			}
		})
}

/** Answers a caution: who, when and why are kept. Null for a stranger's session. */
export async function acknowledge(
	who: SignedIn,
	sessionId: string,
	finding: string,
	reason: string,
	now: Date,
): Promise<{ kept: true } | { problem: string } | null> {
	if (reason.trim().length < 3) return { problem: 'Say why, in a few words.' }
	const scope = scopeOf(who.clubId)
	const sheet = await readSheet(scope, sessionId)
	if (!sheet) return null
	const caution = (await readCautions(scope, sheet)).find((one) => one.finding === finding)
	if (!caution) return { problem: 'The sheet has changed meanwhile: this caution is no longer said.' }
	await insertAcknowledgement(scope, {
		id: newId(),
		sessionId,
		rule: caution.rule,
		finding,
		sentence: caution.sentence.slice(0, 500),
		reason: reason.trim().slice(0, 500),
		personId: who.personId,
		at: now,
	})
	return { kept: true }
}
