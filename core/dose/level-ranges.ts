import type { Firmness, Level } from '../vocabulary/words'

export interface Range {
	low: number
	high: number
	firmness: Firmness
	source?: string
}

const published = (low: number, high: number): Range => ({
	low,
	high,
	firmness: 'published',
	source: 'Potach & Chu, in Essentials of Strength Training and Conditioning, NSCA',
})
const ours = (low: number, high: number): Range => ({ low, high, firmness: 'our setting' })

/** Usual session totals by level of the athlete. Contacts are moderate + high + shock; low contacts have their own line. */
export const SESSION_RANGES: Record<
	Level,
	{ contacts: Range; lowContacts: Range; shockContacts: Range; fastMetres: Range; cuts60: Range; throws: Range }
> = {
	1: {
		contacts: published(80, 100),
		lowContacts: ours(0, 200),
		shockContacts: ours(0, 0),
		fastMetres: ours(60, 120),
		cuts60: ours(0, 10),
		throws: ours(0, 20),
	},
	2: {
		contacts: published(100, 120),
		lowContacts: ours(0, 200),
		shockContacts: ours(0, 20),
		fastMetres: ours(120, 180),
		cuts60: ours(0, 20),
		throws: ours(0, 30),
	},
	3: {
		contacts: published(120, 140),
		lowContacts: ours(0, 200),
		shockContacts: ours(0, 40),
		fastMetres: ours(150, 240),
		cuts60: ours(0, 30),
		throws: ours(0, 40),
	},
}

/** The level that most of a group train at, the lower of two that are as many; null for nobody. */
export function commonestLevel(levels: readonly Level[]): Level | null {
	const many = (level: Level) => levels.filter((one) => one === level).length
	const [first] = ([1, 2, 3] as const).filter((level) => many(level) > 0).sort((a, b) => many(b) - many(a))
	return first ?? null
}
