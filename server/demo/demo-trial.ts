import { addDays } from '../../core/calendar/day-count'
import { Random } from '../../core/chance/random'
import { type Condition, type TrialEntries, type TrialPlan, nextCondition } from '../../core/record/trial'
import type { ClubScope } from '../../db/connect'
import { insertTrial, insertTrialSession } from '../../db/queries/record'
import { announcedPairs, keepTrials } from '../record/trials'
import type { DemoPart, DemoTrial } from './scenario'

/** What an entry of a trial's day is for: the reps before, what is tried, the reps after it. */
type Stage = 'before' | 'treatment' | 'after'
/** An entry of a trial in one of the squad's sessions. */
export interface TrialPart {
	entryId: string
	stage: Stage
	trial: DemoTrialLife
	conditions: Readonly<Record<string, Condition>>
}

/** One trial of a squad while its sessions go by. */
export class DemoTrialLife {
	/** Chance of its own, so that nothing else of the demo changes with it. */
	readonly random: Random
	private readonly id: string
	private readonly plan: TrialPlan
	private readonly days: {
		sessionId: string
		day: string
		entries: TrialEntries
		conditions: Record<string, Condition>
	}[] = []
	/** Days on which everything was measured, by athlete: the next condition follows from them. */
	private readonly whole = new Map<string, number>()

	/** @param people ids of those who take part, in the order the scenario names them */
	constructor(
		readonly squadId: string,
		readonly demo: DemoTrial,
		people: readonly { id: string; name: string }[],
	) {
		this.random = new Random(demo.seed)
		this.id = this.random.uuid()
		this.plan = {
			...demo.plan,
			pairs: announcedPairs(demo.plan),
			seed: demo.seed,
			athleteIds: people.filter(({ name }) => name in demo.athletes).map(({ id }) => id),
		}
	}

	parts(): DemoPart[] {
		const { outcome, reps, treatment, waitsMin } = this.plan
		const measured = (part: string): DemoPart => ({
			part,
			of: { drillId: outcome.drillId, ladderId: null },
			dose: { sets: 1, reps },
			parameters: outcome.parameters,
		})
		return [
			measured('Trial: before'),
			...(treatment
				? [
						{
							part: 'Trial: today with',
							of: { drillId: treatment.drillId, ladderId: null },
							dose: treatment.dose,
						},
					]
				: []),
			...waitsMin.map((wait) => measured(wait === 0 ? 'Trial: after' : `Trial: ${wait} min after`)),
		]
	}

	/** Draws the day of a session whose sheet holds the parts. */
	begin(sessionId: string, day: string, entries: readonly { id: string; part: string }[]): TrialPart[] {
		const own = entries.filter(({ part }) => part.startsWith('Trial:'))
		const [before, ...rest] = own.map(({ id }) => id)
		const treatment = this.plan.treatment ? rest.shift()! : null
		const conditions = Object.fromEntries(
			this.plan.athleteIds.map((id) => [id, nextCondition(this.plan, id, this.whole.get(id) ?? 0)]),
		)
		const after = Object.fromEntries(this.plan.waitsMin.map((wait, index) => [wait, rest[index]!]))
		this.days.push({ sessionId, day, entries: { before: before!, treatment, after }, conditions })
		return own.map(({ id }) => ({
			entryId: id,
			stage: id === before ? 'before' : id === treatment ? 'treatment' : 'after',
			trial: this,
			conditions,
		}))
	}

	/** An athlete did everything that the day asked of them. */
	did(athleteId: string): void {
		this.whole.set(athleteId, (this.whole.get(athleteId) ?? 0) + 1)
	}

	/** Writes the trial, once the marks of its sessions are written. */
	async write(scope: ClubScope, openedBy: string, today: string, now: Date): Promise<void> {
		const { squadId, demo, plan } = this
		const [first, last] = [this.days[0]!.day, this.days.at(-1)!.day]
		await insertTrial(scope, {
			id: this.id,
			squadId,
			question: demo.question,
			kind: demo.kind,
			plan,
			openedBy,
			openedAt: new Date(`${addDays(first, -1)}T08:00:00Z`),
			closedAt: demo.ended ? new Date(`${last}T21:00:00Z`) : null,
		})
		for (const { day: _day, ...row } of this.days) await insertTrialSession(scope, { trialId: this.id, ...row })
		await keepTrials(
			scope,
			this.days.map(({ sessionId }) => sessionId),
			today,
			now,
		)
	}
}
