import type { MarkKind } from '../noise/typical-error'
import type { Family } from '../vocabulary/words'
import { type Change, changeWord } from './trend'

/** What one athlete's sessions by one measure did over a block. */
export interface AthleteChange {
	athleteId: string
	name: string
	change: Change | null
}
/** One measure of a block, everybody who has it. */
export interface BlockMeasure {
	key: string
	what: string
	how: string
	family: Family
	kind: MarkKind
	better: AthleteChange[]
	worse: AthleteChange[]
	unchanged: AthleteChange[]
	/** Too few sessions by it to say. */
	unknown: AthleteChange[]
}

/** Sorts who changed beyond noise, each way, from who did not. Those who changed most come first. */
export function blockMeasure(
	about: Pick<BlockMeasure, 'key' | 'what' | 'how' | 'family' | 'kind'>,
	athletes: readonly AthleteChange[],
): BlockMeasure {
	const by = (test: (change: Change | null) => boolean) =>
		athletes
			.filter(({ change }) => test(change))
			.sort((a, b) => Math.abs(b.change?.gain ?? 0) - Math.abs(a.change?.gain ?? 0) || a.name.localeCompare(b.name))
	return {
		...about,
		better: by((change) => change !== null && change.beyond && change.gain > 0),
		worse: by((change) => change !== null && change.beyond && change.gain < 0),
		unchanged: by((change) => change !== null && !change.beyond),
		unknown: by((change) => change === null),
	}
}

/** A measure in a sentence. @example "30 m: 4 of 12 faster beyond noise, 1 slower, 7 unchanged" */
export function sayBlockMeasure({ what, kind, better, worse, unchanged, unknown }: BlockMeasure): string {
	const known = better.length + worse.length + unchanged.length
	if (known === 0) return `${what}: too few sessions to say`
	if (unchanged.length === known && known > 1) return `${what}: none of ${known} changed beyond noise`
	const parts = [
		`${better.length} of ${known} ${changeWord(kind, true)} beyond noise`,
		...(worse.length > 0 ? [`${worse.length} ${changeWord(kind, false)}`] : []),
		...(unchanged.length > 0 ? [`${unchanged.length} unchanged`] : []),
		...(unknown.length > 0 ? [`${unknown.length} with too few sessions`] : []),
	]
	return `${what}: ${parts.join(', ')}`
}

/** What a block was for one athlete beside its measures. */
export interface BlockPerson {
	athleteId: string
	name: string
	came: number
	down: number
	/** Rungs gone up and back by verdicts. */
	up: number
	back: number
	/** Reports of pain of 1 and more; null for those who may not read them. */
	pains: number | null
}

const count = (pains: number): string => `${pains} ${pains === 1 ? 'report' : 'reports'} of pain`
/** The block in a breath. @example "Ten of twelve missed none of eight sessions or one. 14 rungs up, 3 down; 5 reports of pain." */
export function sayBlock(people: readonly BlockPerson[], held: number): string {
	if (held === 0) return 'No session of it was held.'
	const down = people.filter((one) => one.down > 0)
	const few = down.filter((one) => one.down - one.came <= 1).length
	const [up, back] = [people.reduce((sum, one) => sum + one.up, 0), people.reduce((sum, one) => sum + one.back, 0)]
	const pains = people.every((one) => one.pains === null)
		? ''
		: `; ${count(people.reduce((sum, one) => sum + (one.pains ?? 0), 0))}`
	return `${few} of ${down.length} missed at most one of ${held} ${held === 1 ? 'session' : 'sessions'}. ${up} ${up === 1 ? 'rung' : 'rungs'} up, ${back} down${pains}.`
}
