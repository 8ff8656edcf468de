import { addDays, daysBetween, mondayOf } from '../../core/calendar/day-count'
import { addInto, type DoseCount, emptyCount } from '../../core/dose/dose-count'
import { fromSparse } from '../../core/dose/sparse-count'
import { foldEvents } from '../../core/events/fold'
import type { Phase } from '../../core/vocabulary/words'
import { completePlan, replanShape } from '../../core/plan/block'
import { quantitiesOf, targetOf } from '../../core/plan/targets'
import { QUANTITIES, type Quantity, QUALITY_OF } from '../../core/vocabulary/entry'
import { countWork } from '../../core/dose/count-line'
import { type ClubScope, inTransaction } from '../../db/connect'
import { keptEvents } from '../kept'
import { readLibrary } from '../../db/queries/library'
import { type BlockRow, readBlock, sessionsOfBlock, unstartedOfBlock, updateBlockPlan } from '../../db/queries/plan'
import { readAttending, readEntries, readLines, updateEntry, updateSession } from '../../db/queries/sessions'
import { readAthletes, readLevels, readSquad } from '../../db/queries/squads'
import { themeOn } from '../../core/plan/themes'
import type { SignedIn } from '../access/sign-in'
import { database } from '../database'
import { type SquadSession, writeSheets } from '../sheet/write-lines'
import { countSave } from '../submissions/take-version'
import { readDrillsOfLines } from '../sheet/drills-of-lines'

type Sums = Record<Quantity, number>
export interface BlockWeek {
	/** 1 for the first. */
	week: number
	monday: string
	phase: Phase
	/** Percent of the first week. */
	load: number
	sessions: number
	held: number
	/** Gone by without anybody training. */
	missed: boolean
	/** An athlete's mean over the week: what was asked, what stands on the sheets, what was done. */
	asked: Sums
	written: Sums
	done: Sums
}
export interface BlockProgress {
	block: BlockRow
	squadName: string
	weeks: BlockWeek[]
	/** Loads for the weeks ahead after missed ones; null when nothing was missed last. */
	replan: number[] | null
}

const none = (): Sums => ({ fastMetres: 0, contacts: 0, cuts60: 0, throws: 0 })

/** A block week by week, plan against done; null for a stranger's. */
export async function readBlockProgress(
	scope: ClubScope,
	blockId: string,
	today: string,
): Promise<BlockProgress | null> {
	const block = await readBlock(scope, blockId)
	const squad = block && (await readSquad(scope, block.squadId))
	if (!block || !squad) return null
	const plan = completePlan(block.plan)
	const [sessions, library] = [await sessionsOfBlock(scope, blockId), await readLibrary(scope)]
	const ids = sessions.map((session) => session.id)
	const [attending, lines] = [await readAttending(scope, ids), await readLines(scope, ids)]
	const athleteIds = [...new Set(attending.map((row) => row.athleteId))]
	const [levelOf, athletes, drills, stored] = [
		await readLevels(scope, athleteIds),
		await readAthletes(scope, athleteIds),
		await readDrillsOfLines(scope, lines),
		await keptEvents(
			scope,
			sessions.filter((session) => session.startedAt !== null),
		),
	]
	const legs = new Map(athletes.map((athlete) => [athlete.id, athlete.legLengthM]))
	const { current } = foldEvents(stored)
	const add = (into: Map<string, DoseCount>, sessionId: string, count: DoseCount) => {
		const sum = into.get(sessionId) ?? emptyCount()
		addInto(sum, count)
		into.set(sessionId, sum)
	}
	const [written, done] = [new Map<string, DoseCount>(), new Map<string, DoseCount>()]
	for (const line of lines) {
		const work = drills.work(line)
		const leg = legs.get(line.athleteId)
		if (work) add(written, line.sessionId, countWork(work, drills.of(line), leg ? { legLengthM: leg } : {}))
	}
	for (const event of current) if (event.counts) add(done, event.sessionId, fromSparse(event.counts))
	const weeks = plan.phases.map((phase, index): BlockWeek => {
		const monday = addDays(plan.start, index * 7)
		const own = sessions.filter((session) => mondayOf(session.day) === monday)
		const people = new Set(
			own.flatMap((session) => attending.filter((row) => row.sessionId === session.id).map((row) => row.athleteId)),
		)
		const mean = (total: (quantity: Quantity) => number): Sums =>
			Object.fromEntries(
				QUANTITIES.map((quantity) => [quantity, people.size === 0 ? 0 : Math.round(total(quantity) / people.size)]),
			) as Sums
		const summed = (of: Map<string, DoseCount>): Sums => {
			const sums = own.map((session) => (of.has(session.id) ? quantitiesOf(of.get(session.id)!) : none()))
			return mean((quantity) => sums.reduce((total, sum) => total + sum[quantity], 0))
		}
		const held = own.filter((session) => session.startedAt !== null).length
		return {
			week: index + 1,
			monday,
			phase,
			load: plan.shape[index]!,
			sessions: own.length,
			held,
			missed: held === 0 && own.length > 0 && addDays(monday, 6) < today,
			asked: mean((quantity) =>
				own.reduce(
					(total, session) =>
						total +
						attending
							.filter((row) => row.sessionId === session.id)
							.reduce(
								(sum, row) =>
									sum +
									targetOf(quantity, levelOf(row.athleteId, QUALITY_OF[quantity]), {
										share: session.share,
										phase: session.phase,
										role: session.role,
										priority: plan.priority,
										kept: plan.kept,
										surface: session.surface,
										theme: themeOn(library.themes, session),
									}),
								0,
							),
					0,
				),
			),
			written: summed(written),
			done: summed(done),
		}
	})
	const gone = weeks.filter((week) => addDays(week.monday, 6) < today)
	const shape = replanShape(
		plan.shape,
		gone.map((week) => !week.missed),
		library.schools[squad.schoolId]?.numbers.rampPercent ?? 15,
	)
	return {
		block,
		squadName: squad.name,
		weeks,
		replan: JSON.stringify(shape) === JSON.stringify(plan.shape) ? null : shape,
	}
}

/** Gives the weeks ahead their loads after missed ones, and everybody their lines anew. Null for a stranger's block. */
export async function replanBlock(
	who: SignedIn,
	blockId: string,
	today: string,
	now: Date,
): Promise<{ replanned: number } | { problem: string } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const progress = await readBlockProgress(scope, blockId, today)
		const squad = progress && (await readSquad(scope, progress.block.squadId))
		if (!progress || !squad) return null
		if (progress.replan === null)
			return { problem: 'No week was missed since the last plan: there is nothing to change.' }
		const plan = completePlan(progress.block.plan)
		const [library, shape] = [await readLibrary(scope), progress.replan]
		// What was the whole dose stays the whole dose: the heaviest week of the plan as it was.
		const heaviest = Math.max(...plan.shape)
		await updateBlockPlan(scope, blockId, { ...plan, shape })
		const ahead = (await unstartedOfBlock(scope, blockId)).filter((session) => session.day >= today)
		const replanned: SquadSession[] = []
		for (const session of ahead) {
			const week = Math.floor(daysBetween(plan.start, mondayOf(session.day)) / 7)
			const load = shape[week]
			if (load === undefined) continue
			const share = Math.min(1, Math.round((100 * load) / heaviest) / 100)
			if (share === session.share) continue
			const ratio = share / session.share
			await updateSession(scope, session.id, { share })
			await countSave(scope, who, 'session', session.id, now)
			for (const entry of await readEntries(scope, [session.id])) {
				if (entry.family === 'prepare' || entry.family === 'tissue') continue
				const { fill } = entry.tuning ?? {}
				const targets = fill && { 1: fill.targets[1] * ratio, 2: fill.targets[2] * ratio, 3: fill.targets[3] * ratio }
				await updateEntry(scope, entry.id, {
					doseFactor: Math.min(1, Math.max(0.01, Math.round(entry.doseFactor * ratio * 100) / 100)),
					tuning: fill && targets ? { ...entry.tuning, fill: { ...fill, targets } } : entry.tuning,
				})
			}
			replanned.push({ session: { ...session, share }, squad })
		}
		await writeSheets(scope, replanned, library, now)
		return { replanned: replanned.length }
	})
}
