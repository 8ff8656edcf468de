import { v7 as newId } from 'uuid'
import { MARK_KINDS, measuredOf } from '../../core/marks/keep-session'
import { sayKey } from '../../core/marks/say-key'
import { FEWEST_OWN, aroundOwn, plausibility } from '../../core/marks/plausible'
import { readNumber } from '../../core/measure/read-number'
import type { MarkKind } from '../../core/noise/typical-error'
import type { Mark } from '../../core/vocabulary/events'
import type { Library } from '../../core/vocabulary/library'
import { writeMark } from '../../core/words/write-numbers'
import type { ClubScope } from '../../db/connect'
import { type StoredMark, eventsById } from '../../db/queries/log'
import { setAsideOf } from '../../db/queries/marks'
import { readAthletes } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'
import { acceptEvents } from '../log/accept-events'
import { readUsuals } from './read-usuals'

/** A number that can hardly be, as somebody settles it. */
export interface SetAside {
	id: string
	sessionId: string
	athleteId: string
	name: string
	/** "Three-point start, 20 m, gate · set 1, rep 3" */
	where: string
	typed: string
	usual: string | null
	/** What was probably meant, in the unit it is typed in. */
	likely: { value: string; label: string } | null
	unit: string
}

/** What a mark is typed in: seconds, milliseconds, centimetres, metres. */
const TYPED: Record<MarkKind, { unit: string; perSi: number; digits: number }> = {
	sprint: { unit: 's', perSi: 1, digits: 2 },
	contact: { unit: 'ms', perSi: 1000, digits: 0 },
	height: { unit: 'cm', perSi: 100, digits: 1 },
	distance: { unit: 'm', perSi: 1, digits: 2 },
}

/** Marks that are set aside, of a session or an athlete, oldest first. */
export async function listSetAside(
	scope: ClubScope,
	of: { athleteIds?: string[]; sessionIds?: string[] },
	day: string,
	library: Pick<Library, 'drills'>,
): Promise<SetAside[]> {
	const marks = await setAsideOf(scope, of)
	if (marks.length === 0) return []
	const athleteIds = [...new Set(marks.map((mark) => mark.athleteId))]
	const names = new Map((await readAthletes(scope, athleteIds)).map((row) => [row.id, row.name]))
	const usuals = await readUsuals(scope, athleteIds, day)
	return marks
		.sort((a, b) => (a.deviceTime < b.deviceTime ? -1 : 1))
		.flatMap((mark): SetAside[] => {
			const measured = measuredOf(mark)
			if (!measured || !mark.stamp || !(MARK_KINDS as readonly string[]).includes(mark.kind)) return []
			const { what, how } = sayKey(mark.stamp.key, library)
			const usual = usuals.usualOf(mark.athleteId, mark.stamp.key)
			const { unit, perSi, digits } = TYPED[measured.kind]
			const likely = likelyOf(measured, usual?.value ?? null, library.drills[mark.stamp.key.split('|')[2] ?? ''])
			return [
				{
					id: mark.id,
					sessionId: mark.sessionId,
					athleteId: mark.athleteId,
					name: names.get(mark.athleteId) ?? '',
					where: `${what}, ${how} · set ${mark.setNo}, rep ${mark.repNo}`,
					typed: writeMark(measured),
					usual: usual && writeMark({ kind: measured.kind, value: usual.value }),
					likely:
						likely === null
							? null
							: {
									value: (likely * perSi).toFixed(digits),
									label: writeMark({ kind: measured.kind, value: likely }),
								},
					unit,
				},
			]
		})
}

function likelyOf(
	{ kind, value, distanceM }: { kind: MarkKind; value: number; distanceM?: number },
	usual: number | null,
	drill: Library['drills'][string] | undefined,
): number | null {
	if (!drill) return null
	const own = usual === null ? [] : Array.from({ length: FEWEST_OWN }, () => usual)
	const parameters = { ...drill.defaults.parameters, ...(distanceM === undefined ? {} : { distanceM }) }
	const { likely } = plausibility(kind, drill, parameters, value, own, 3)
	return likely !== undefined && (usual === null || inRange(likely, aroundOwn(kind, own))) ? likely : null
}
const inRange = (value: number, range: { low: number; high: number } | null) =>
	range === null || (value >= range.low && value <= range.high)

/**
 * Settles a mark that was set aside: it is what was seen, or it was another number. A correction like any
 * other, by whoever may correct it.
 *
 * @param typed the right number in the unit it is typed in; empty keeps it as it is
 * @returns null for a stranger's mark, a sentence when it cannot be taken
 */
export async function settleMark(
	who: SignedIn,
	markId: string,
	typed: string,
	now: Date,
): Promise<{ settled: true } | { problem: string } | null> {
	const [stored] = await eventsById(scopeOf(who.clubId), [markId])
	if (stored?.type !== 'mark') return null
	const { authorId: _author, receivedAt: _received, counts: _counts, stamp: _stamp, ...bare } = stored as StoredMark
	const mark = bare as Mark
	const measured = measuredOf(mark)
	if (!measured) return null
	let value: object = mark.value
	if (typed.trim() !== '') {
		const number = readNumber(typed)
		if (number === null) return { problem: 'A number is expected, such as 3.02.' }
		const si = Number((number / TYPED[measured.kind].perSi).toFixed(4))
		value = withNumber(mark, si)
	}
	const [answer] = await acceptEvents(
		who,
		[
			{
				...mark,
				id: newId(),
				deviceId: who.personId,
				deviceSeq: 0,
				deviceTime: now.toISOString(),
				replacesId: mark.id,
				value,
				...(typed.trim() === '' ? { kept: true } : {}),
			},
		],
		now,
	)
	return answer?.outcome === 'refused' ? { problem: `${answer.field}: ${answer.reason}` } : { settled: true }
}

function withNumber(mark: Mark, si: number): object {
	if (mark.kind === 'sprint')
		return { ...mark.value, splits: [...mark.value.splits.slice(0, -1), { ...mark.value.splits.at(-1)!, timeS: si }] }
	if (mark.kind === 'contact') return { ...mark.value, contactS: si }
	if (mark.kind === 'height') return { ...mark.value, heightM: Number(si.toFixed(3)) }
	return mark.kind === 'distance' ? { ...mark.value, distanceM: Number(si.toFixed(3)) } : mark.value
}
