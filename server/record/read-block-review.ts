import { addDays } from '../../core/calendar/day-count'
import { foldEvents } from '../../core/events/fold'
import { isBelowFull, methodOfKey, partsOfKey } from '../../core/marks/mark-key'
import { sayKey } from '../../core/marks/say-key'
import type { MarkKind } from '../../core/noise/typical-error'
import { defaultsFrom } from '../../core/noise/usual'
import {
	type BlockMeasure,
	type BlockPerson,
	blockMeasure,
	sayBlock,
	sayBlockMeasure,
} from '../../core/record/block-review'
import { changeOf, sayChange } from '../../core/record/trend'
import type { ClubScope } from '../../db/connect'
import { bodyReportsOf } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
import { athletesMarkedIn, meansOf } from '../../db/queries/marks'
import { type BlockRow, listBlocks, readBlock, sessionsOfBlock } from '../../db/queries/plan'
import { readAttending } from '../../db/queries/sessions'
import { readAthletes } from '../../db/queries/squads'
import { movesOfSessions } from '../../db/queries/verdicts'
import { seesBody } from '../access/projection'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'
import { readErrors } from '../marks/read-errors'

/** Who changed, each with how much: "Ilka Moreau, faster by 0.09 s" */
interface Told {
	athleteId: string
	name: string
	words: string
}
export interface ReviewedMeasure {
	key: string
	what: string
	how: string
	family: BlockMeasure['family']
	sentence: string
	better: Told[]
	worse: Told[]
	/** The same measure in the block before, in a sentence; null where nobody had it. */
	before: string | null
}
export interface BlockReview {
	words: string
	people: BlockPerson[]
	measures: ReviewedMeasure[]
	/** The block of the squad before this one, in a breath. */
	before: { id: string; start: string; words: string } | null
}

/** Start against end of a block, for everybody and every measure, with the block before beside it; null for a stranger's. */
export async function readBlockReview(who: SignedIn, blockId: string, today: string): Promise<BlockReview | null> {
	const scope = scopeOf(who.clubId)
	const block = await readBlock(scope, blockId)
	if (!block) return null
	const earlier = (await listBlocks(scope))
		.filter((one) => one.squadId === block.squadId && one.start < block.start)
		.at(-1)
	const own = await reviewed(scope, who, block, today)
	const past = earlier ? await reviewed(scope, who, earlier, today) : null
	const said = new Map(past?.measures.map((one) => [one.key, sayBlockMeasure(one)]))
	return {
		words: sayBlock(own.people, own.held),
		people: own.people,
		measures: own.measures.map((one) => ({
			key: one.key,
			what: one.what,
			how: one.how,
			family: one.family,
			sentence: sayBlockMeasure(one),
			better: told(one, one.better, today),
			worse: told(one, one.worse, today),
			before: said.get(one.key) ?? null,
		})),
		before: earlier && past ? { id: earlier.id, start: earlier.start, words: sayBlock(past.people, past.held) } : null,
	}
}
const told = ({ kind }: BlockMeasure, some: BlockMeasure['better'], today: string): Told[] =>
	some.flatMap(({ athleteId, name, change }) =>
		change ? [{ athleteId, name, words: sayChange(change, kind, today).words.split(' since ')[0]! }] : [],
	)

async function reviewed(scope: ClubScope, who: SignedIn, block: BlockRow, today: string) {
	const held = (await sessionsOfBlock(scope, block.id)).filter((session) => session.startedAt !== null)
	const heldIds = held.map(({ id }) => id)
	const attending = await readAttending(scope, heldIds)
	const ids = [...new Set(attending.map(({ athleteId }) => athleteId))]
	const [from, to] = [block.start, addDays(block.start, 7 * block.weeks - 1)]
	const [library, athletes, means, errors, marked, moves, pains] = [
		await readLibrary(scope),
		await readAthletes(scope, ids),
		await meansOf(scope, ids, from, addDays(to < today ? to : today, 1)),
		await readErrors(scope, block.squadId, addDays(to < today ? to : today, 1)),
		await athletesMarkedIn(scope, heldIds),
		await movesOfSessions(scope, heldIds),
		foldEvents(await bodyReportsOf(scope, ids, ['pain'])).current,
	]
	const people = athletes.map((athlete): BlockPerson => {
		const rungs = moves
			.filter((row) => row.athleteId === athlete.id)
			.map((row) => {
				const at = (id: string) => library.ladders[row.ladderId]?.rungs.findIndex((rung) => rung.id === id) ?? -1
				return Math.sign(at(row.to) - at(row.from))
			})
		return {
			athleteId: athlete.id,
			name: athlete.name,
			came: marked.filter((row) => row.athleteId === athlete.id).length,
			down: attending.filter((row) => row.athleteId === athlete.id).length,
			up: rungs.filter((way) => way > 0).length,
			back: rungs.filter((way) => way < 0).length,
			pains: seesBody(who, athlete.id)
				? pains.filter((row) => row.athleteId === athlete.id && !row.void && row.day >= from && row.day <= to).length
				: null,
		}
	})
	const keys = [...new Set(means.filter(({ key }) => !isBelowFull(key)).map(({ key }) => key))]
	const names = new Map(athletes.map(({ id, name }) => [id, name]))
	const measures = keys
		.map((key): BlockMeasure => {
			const kind = key.split('|')[1] as MarkKind
			const rows = means.filter((one) => one.key === key)
			const drill = partsOfKey(key).drill
			const defaults = defaultsFrom(errors[drill], kind, methodOfKey(key))
			return blockMeasure(
				{ key, ...sayKey(key, library), family: library.drills[drill]?.family ?? 'sprint', kind },
				[...new Set(rows.map(({ athleteId }) => athleteId))].map((athleteId) => ({
					athleteId,
					name: names.get(athleteId) ?? '',
					change: changeOf(
						rows.filter((one) => one.athleteId === athleteId),
						kind,
						methodOfKey(key),
						defaults,
					),
				})),
			)
		})
		// What tells most comes first; a measure nobody has enough of tells nothing.
		.filter((one) => one.better.length + one.worse.length + one.unchanged.length > 0)
		.sort(
			(a, b) =>
				b.better.length + b.worse.length - a.better.length - a.worse.length ||
				b.unchanged.length - a.unchanged.length ||
				a.what.localeCompare(b.what),
		)
	return { people, measures, held: held.length }
}
