import { type DoseCount, cutsOf, loadOfLeg, metresOf, rangedContacts, totalOf } from '../../core/dose/dose-count'
import { entryName } from '../../core/plan/entry-parts'
import { sayTurns } from '../../core/record/session-done'
import { writeRests, writeWork } from '../../core/words/write-work'
import type { ClubScope } from '../../db/connect'
import { changeFor, seesBody } from '../access/projection'
import type { SignedIn } from '../access/sign-in'
import { bodiesOf } from '../care/read-bodies'
import { keptPage } from '../kept'
import { clockOf } from '../record/read-done'
import { readCautions } from './read-cautions'
import { readSheet } from './read-sheet'
import { readTargets } from './read-targets'

type Reader = Pick<SignedIn, 'role' | 'athleteId' | 'timeZone'>
export type SheetPage = NonNullable<Awaited<ReturnType<typeof readSheetPage>>>

/** A sheet as one who reads the plan sees it: with its targets, its cautions while it is not reviewed, and whose bodies limit what; kept as long as nothing changes. Null for a stranger’s id. */
export const readSheetPage = (
	scope: ClubScope,
	sessionId: string,
	today: string,
	{ role, athleteId, timeZone }: Reader,
) =>
	keptPage(scope, ['sheet page', sessionId, today, role, athleteId, timeZone], (scope) =>
		workOutSheetPage(scope, sessionId, today, { role, athleteId, timeZone }),
	)

const totals = (count: DoseCount) => {
	const contacts = rangedContacts(count)
	return {
		left: loadOfLeg(contacts, 'left'),
		right: loadOfLeg(contacts, 'right'),
		both: contacts.both,
		contacts: totalOf(contacts),
		low: totalOf(count.contacts.low),
		metres: Math.round(metresOf(count)),
		fastMetres: Math.round(metresOf(count, ['fast', 'maximal'])),
		cuts: cutsOf(count, ['60-90', '90-135', '135-180']),
		throws: totalOf(count.throws),
	}
}

async function workOutSheetPage(scope: ClubScope, sessionId: string, today: string, who: Reader) {
	const sheet = await readSheet(scope, sessionId)
	if (!sheet) return null
	const [targets, cautions, bodies] = [
		await readTargets(scope, sheet),
		sheet.session.reviewedAt === null ? await readCautions(scope, sheet) : [],
		await bodiesOf(scope, sheet, today, who.role),
	]
	return {
		// An answer to a caution is the coach's, in the coach's words.
		cautions: seesBody(who)
			? cautions
			: cautions.map((one) => ({ ...one, answered: one.answered && { ...one.answered, reason: '' } })),
		session: sheet.session,
		turns: sayTurns(sheet.events, clockOf(who.timeZone)),
		strip: sheet.strip,
		bodies,
		entries: sheet.entries.map((entry) => ({
			id: entry.id,
			part: entry.part,
			family: entry.family,
			name: entryName(entry, sheet.library),
			isLadder: entry.ladderId !== null,
		})),
		athletes: sheet.athletes.map((athlete) => ({
			id: athlete.id,
			name: athlete.name,
			level: athlete.level,
			minutes: athlete.minutes,
			planned: totals(athlete.planned),
			done: totals(athlete.done),
			lines: athlete.lines.map((line) => ({
				id: line.id,
				entryId: line.entryId,
				blocked: line.blocked,
				over: line.over,
				words: line.drill && line.drillId ? writeWork({ ...line, drillId: line.drillId }, sheet.drills.of(line)) : '',
				dose: line.dose,
				rest: writeRests(line),
				origin: line.origin,
				change: changeFor(seesBody(who, athlete.id), line.change),
				wouldBe: line.wouldBe,
				cautions: line.drill?.intensity === 'shock' ? line.drill.cautions : [],
				target: targets.get(line.id)?.words ?? '',
				own: targets.get(line.id)?.own.map(({ words }) => words) ?? [],
			})),
		})),
	}
}
