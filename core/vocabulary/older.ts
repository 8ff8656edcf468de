import type { Rest } from './dose'
import type { Drill } from './drill'
import type { EntryTuning, SessionEntry } from './entry'
import type { Ladder } from './ladder'
import { PLANTS, type School, assistedSide } from './school'
import type { Family } from './words'

/**
 * Documents as they were kept before a line had two rests. What is kept never changes; it is read as what
 * it meant: one number was the rest between sets, and between reps where the family rests after each.
 */

/** Families that rest after every rep. */
const RESTS_BETWEEN_REPS: readonly Family[] = ['sprint', 'agility', 'throw']
/** Between two rebounds from a box, s: 5–10 s [published: Potach & Chu, Essentials of Strength Training and Conditioning, NSCA]. */
const REBOUND_S = 8

/** What one rest meant, s. */
export const restOfOlder = (restS: number, sets: number, family: Family | null, shock = false): Rest => ({
	repsS: sets <= 1 || (family !== null && RESTS_BETWEEN_REPS.includes(family)) ? restS : shock ? REBOUND_S : 0,
	setsS: restS,
})

interface OlderDefaults {
	sets: number
	reps: number
	restS: number
	repS: number
	[parameter: string]: number
}
/** A drill as it is used now, from how it is kept. */
export function drillFromKept(kept: Drill | (Omit<Drill, 'defaults'> & { defaults: OlderDefaults })): Drill {
	if (!('restS' in kept.defaults)) return kept as Drill
	const { sets, reps, restS, repS, ...parameters } = kept.defaults
	return {
		...kept,
		defaults: {
			dose: { sets, reps },
			rest: restOfOlder(restS, sets, kept.family, kept.intensity === 'shock'),
			parameters,
			repS,
		},
	}
}

type OlderRung = Omit<Ladder['rungs'][number], 'rest'> & { restS: number }
/** A ladder as it is used now, from how it is kept. */
export function ladderFromKept(kept: Ladder | (Omit<Ladder, 'rungs'> & { rungs: OlderRung[] })): Ladder {
	return {
		...kept,
		rungs: kept.rungs.map((rung) => {
			if (!('restS' in rung)) return rung
			const { restS, ...rest } = rung
			const rebounds = rung.gates.some((gate) => gate.kind === 'depth-phase')
			return { ...rest, rest: restOfOlder(restS, rung.dose.sets, kept.family, rebounds) }
		}),
	}
}

interface OlderSchool extends Omit<School, 'choices' | 'numbers' | 'plants'> {
	choices: Partial<School['choices']>
	numbers: School['numbers'] & { assistedCapPercent?: number }
	plants?: School['plants']
	/** A hard part at the end of the session; which was not asked. */
	finisher?: boolean
}
/**
 * A school as it is used now, from how it is kept: before the questions were asked everybody ran free, by the clock,
 * beginners did less and took off in all ways. The cap of assisted speed was a number: it is never read as more.
 */
export function schoolFromKept(kept: School | OlderSchool): School {
	const { finisher, plants = [...PLANTS], choices, numbers, ...rest } = kept as OlderSchool
	const { assistedCapPercent = 0, ...others } = numbers
	return {
		...rest,
		plants,
		numbers: others,
		choices: {
			returnPulls: 'free',
			shapes: 'clock',
			assisted: assistedSide(assistedCapPercent),
			beginners: 'fewer',
			plants: 'all',
			finisher: finisher ? (choices.conditioning === 'shuttles' ? 'shuttles' : 'runs') : 'none',
			slowWork: 'everybody',
			...choices,
		} as School['choices'],
	}
}

type OlderVariant = { drillId: string; dose: { sets: number; reps: number }; parameters: object; restS: number }
/** An entry's tuning as it is used now, from how it is kept. */
export function tuningFromKept(kept: EntryTuning | null, family: Family | null): EntryTuning | null {
	if (!kept?.variants) return kept
	return {
		...kept,
		variants: Object.fromEntries(
			Object.entries(kept.variants).map(([level, variant]) => {
				const older = variant as unknown as OlderVariant
				if (!variant || !('restS' in older)) return [level, variant]
				const { restS, ...rest } = older
				return [level, { ...rest, rest: restOfOlder(restS, older.dose.sets, family) }]
			}),
		),
	}
}

/** The first version of a template: one rest, a drill or a ladder, and what it tunes beside them. */
interface OlderTemplateEntry extends Omit<SessionEntry, 'id' | 'drillId' | 'ladderId' | 'rest' | 'tuning'> {
	drillId?: string
	ladderId?: string
	restS: number
	variants?: EntryTuning['variants']
	fill?: EntryTuning['fill']
}
/**
 * A template as it is read now. Anything that is no template of an older version is given back as it is, for
 * the schema to say what is wrong with it.
 *
 * @param familyOf the family of a drill or ladder, when this club knows it; without it nothing rests between reps of a set
 * @param firstDrillOf the drill of a ladder's first rung
 */
export function templateFromKept(
	kept: unknown,
	familyOf: (id: { drillId?: string | undefined; ladderId?: string | undefined }) => Family | null,
	firstDrillOf: (ladderId: string) => string | null,
): unknown {
	if (typeof kept !== 'object' || kept === null || (kept as { version?: unknown }).version !== 1) return kept
	const older = kept as { entries?: unknown }
	if (!Array.isArray(older.entries)) return kept
	return {
		...older,
		version: 2,
		entries: older.entries.map((value: unknown) => {
			if (typeof value !== 'object' || value === null) return value
			const { restS, drillId, ladderId, variants, fill, ...entry } = value as OlderTemplateEntry
			const family = familyOf({ drillId, ladderId })
			const tuning =
				variants || fill
					? tuningFromKept({ ...(variants ? { variants } : {}), ...(fill ? { fill } : {}) }, family)
					: null
			return {
				...entry,
				drillId: drillId ?? (ladderId === undefined ? undefined : (firstDrillOf(ladderId) ?? undefined)),
				ladderId: ladderId ?? null,
				rest: restOfOlder(restS, entry.dose?.sets ?? 1, family),
				tuning,
			}
		}),
	}
}
