import { cutsOf, metresOf, rangedContacts, totalOf } from '../../core/dose/dose-count'
import { commonestLevel } from '../../core/dose/level-ranges'
import { effortsOf } from '../../core/record/effort'
import { BODY_KINDS } from '../../core/vocabulary/event-kinds'
import type { EventKey } from '../../core/vocabulary/events'
import { sayHeld } from '../../core/words/event-words'
import type { ClubScope } from '../../db/connect'
import { judgementFor, reasonFor, seesBody } from '../access/projection'
import { may } from '../access/roles'
import type { SignedIn } from '../access/sign-in'
import { keptPage } from '../kept'
import { listSetAside } from '../marks/set-aside'
import { type Review, readReview } from './read-review'

type Reader = Pick<SignedIn, 'role' | 'athleteId'>
const BODY_KEYS: ReadonlySet<EventKey> = new Set(BODY_KINDS.map((kind) => `observation/${kind}` as const))

/** The review of one session as one who reads verdicts sees it; kept as long as nothing changes. Null for a stranger's id. */
export const readReviewPage = (scope: ClubScope, sessionId: string, { role, athleteId }: Reader) =>
	keptPage(scope, ['review page', sessionId, role, athleteId], (scope) =>
		workOutReviewPage(scope, sessionId, { role, athleteId }),
	)

async function workOutReviewPage(scope: ClubScope, sessionId: string, who: Reader) {
	const review = await readReview(scope, sessionId)
	if (!review) return null
	const { sheet } = review
	const showPain = seesBody(who)
	const came = sheet.athletes.filter((athlete) =>
		sheet.events.some((event) => event.athleteId === athlete.id && event.type === 'mark'),
	)
	const mean = (read: (athlete: (typeof came)[number]) => number) =>
		came.length === 0 ? 0 : came.reduce((sum, athlete) => sum + read(athlete), 0) / came.length
	const level = commonestLevel(came.map((athlete) => athlete.level)) ?? 2
	return {
		session: sheet.session,
		strip: sheet.strip,
		done: doneShares(sheet),
		attending: sheet.athletes.length,
		came: came.length,
		level,
		group: {
			contacts: {
				planned: mean((a) => totalOf(rangedContacts(a.planned))),
				done: mean((a) => totalOf(rangedContacts(a.done))),
			},
			metres: {
				planned: mean((a) => metresOf(a.planned, ['fast', 'maximal'])),
				done: mean((a) => metresOf(a.done, ['fast', 'maximal'])),
			},
			cuts: {
				planned: mean((a) => cutsOf(a.planned, ['60-90', '90-135', '135-180'])),
				done: mean((a) => cutsOf(a.done, ['60-90', '90-135', '135-180'])),
			},
		},
		conflicts: sheet.conflicts.length,
		// What a report was about stays with coach and clinician.
		held: review.held
			.filter(({ key }) => showPain || !BODY_KEYS.has(key))
			.map((one) => ({ id: one.id, words: sayHeld(one) })),
		people: came.map(({ id, name }) => ({
			id,
			name,
			rpe: effortsOf(sheet.events, id).get(sheet.session.id)?.value.rpe ?? null,
		})),

		bodies: review.bodies.map((body) => ({ ...body, said: showPain ? body.said : [] })),
		rows: review.rows.map((row) => ({
			athleteId: row.athleteId,
			ladderId: row.ladderId,
			name: row.name,
			ladderName: row.ladderName,
			inputHash: row.inputHash,
			judgement: judgementFor(showPain, row.decided?.judgement ?? row.judgement),
			decided: row.decided
				? {
						word: row.decided.decided,
						turn: row.decided.turn,
						reason: reasonFor(showPain, row.decided.judgement.decidedBy, row.decided.reason),
					}
				: null,
			needsYou: row.needsYou,
			absent: row.absent,
			wouldNowBe: showPain ? row.wouldNowBe : null,
			before: review.before
				.filter((one) => one.athleteId === row.athleteId && one.ladderId === row.ladderId)
				.map(({ word, at, reason }) => ({ word, at, reason: showPain ? reason : null })),
			instead: insteadOf(row.decided?.judgement ?? row.judgement, sheet.library),
		})),
		setAside: await listSetAside(scope, { sessionIds: [sessionId] }, sheet.session.day, sheet.library),
		attendance: may(who.role, 'verdict:write') ? sheet.athletes.map(({ id, name }) => ({ id, name })) : [],
		reviewed: sheet.session.reviewedAt !== null,
	}
}

/** The drill that stands in; a judgement of before says it only in its sentence. */
const insteadOf = (
	{ instead }: { instead?: string | null },
	{ drills }: { drills: Record<string, { name: string }> },
) => (instead ? (drills[instead]?.name ?? null) : null)

/** Share of each part's planned reps that has been done. */
function doneShares(sheet: Review['sheet']): number[] {
	return sheet.strip.map((part) => {
		const ids = new Set(sheet.entries.filter((entry) => entry.part === part.name).map((entry) => entry.id))
		let planned = 0
		let done = 0
		for (const athlete of sheet.athletes)
			for (const line of athlete.lines)
				if (ids.has(line.entryId) && line.drill?.family !== 'prepare') planned += line.dose.sets * line.dose.reps
		for (const event of sheet.events)
			if (event.type === 'mark' && ids.has(event.entryId) && event.kind !== 'missed')
				done += event.kind === 'done' ? event.value.reps : 1
		return planned === 0 ? 0 : Math.min(1, done / planned)
	})
}
