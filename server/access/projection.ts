import type { RuleId } from '../../core/rules/rule'
import type { LineChange } from '../../db/schema/sessions'
import { may } from './roles'
import type { SignedIn } from './sign-in'

/*
 * Who sees what of an athlete's body. Coach and clinician, the athlete and their guardian see it all. Everybody else
 * sees what is closed, spared and allowed, never why: no score, note, name of who cleared, worry, illness or date of
 * birth, and age and mass as the bands the rules use. Whatever goes out, page, data, pack or print, is made here.
 */

/** Whether somebody reads the whole of an athlete's body; without an athlete, of everybody's. */
export const seesBody = (who: Pick<SignedIn, 'role' | 'athleteId'>, athleteId?: string): boolean =>
	may(who.role, 'pain:read') || (athleteId !== undefined && who.athleteId === athleteId)

/** What is said in place of a sentence that a rule about the body wrote. */
const INSTEAD: Partial<Record<RuleId, string>> = {
	S1: 'Changed to spare a region; the coach knows more.',
	S2: 'Changed for what is closed; the coach knows more.',
	S3: 'Nothing high, shock or maximal for now.',
	S4: 'Another form of it is for this athlete.',
	S9: 'Another drill comes first for now.',
	RE: 'A step of the way back.',
}
const KEPT = 'kept for coach and clinician'

/** A verdict as it may be read: what was decided, and by performance why. */
export function judgementFor<
	T extends { decidedBy: RuleId; sentence: string; trace: { rule: RuleId; found: string; question: string }[] },
>(sees: boolean, judgement: T): T {
	if (sees) return judgement
	return {
		...judgement,
		sentence: INSTEAD[judgement.decidedBy] ?? judgement.sentence,
		trace: judgement.trace.map((line) => (INSTEAD[line.rule] ? { ...line, found: KEPT } : line)),
	}
}

/** Why a line is another than the last time, as it may be read. */
export function changeFor(sees: boolean, change: LineChange | null): LineChange | null {
	if (sees || change === null) return change
	// A change written before its rule was kept: whatever took work away may have been the body's.
	const rule = change.rule === undefined ? (LESS.has(change.verdict) ? 'S1' : null) : change.rule
	const why = rule === null ? undefined : INSTEAD[rule]
	return why === undefined ? change : { ...change, why }
}
const LESS: ReadonlySet<LineChange['verdict']> = new Set(['stop', 're-enter', 'swap', 'ease'])

/** Why the coach decided otherwise: of a verdict about the body it stays with who reads that. */
export const reasonFor = (sees: boolean, decidedBy: RuleId, reason: string | null): string | null =>
	sees || INSTEAD[decidedBy] === undefined ? reason : null

/** An athlete's own data: dates and kilograms, or the bands that rules ask for. */
export function personFor<T extends { birthDate: string | null; massKg: number | null }>(
	sees: boolean,
	athlete: T,
	ageYears: number | null,
): Omit<T, 'birthDate' | 'massKg'> & { birthDate: string | null; massKg: number | null; bands: string } {
	const age =
		ageYears === null ? 'age unknown' : sees ? `${ageYears} years` : ageYears < 16 ? 'under 16' : '16 or older'
	const mass =
		athlete.massKg === null
			? 'mass unknown'
			: sees
				? `${athlete.massKg} kg`
				: athlete.massKg > 100
					? 'over 100 kg'
					: 'up to 100 kg'
	return sees
		? { ...athlete, bands: `${age}, ${mass}` }
		: { ...athlete, birthDate: null, massKg: null, bands: `${age}, ${mass}` }
}
