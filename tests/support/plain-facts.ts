import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { concludeFor, type PlainFacts } from '../../core/permit/plain-facts'
import type { Facts } from '../../core/rules/facts'
import { type Form, formOf } from '../../core/rules/form'
import type { Parameters as Asked } from '../../core/vocabulary/dose'
import type { Level } from '../../core/vocabulary/words'
import { PLAIN_FACTS } from './plain-squad'

export const DAY = '2026-03-20'
const levels = (level: Level) => ({ sprint: level, agility: level, plyometric: level, throw: level })

/** All rungs of a ladder up to and with one. */
export function upTo(ladderId: string, rungId: string): Record<string, string[]> {
	const { rungs } = STARTER_LIBRARY.ladders[ladderId]!
	return { [ladderId]: rungs.slice(0, rungs.findIndex((rung) => rung.id === rungId) + 1).map((rung) => rung.id) }
}

/** A grown athlete of level 3 in a peaking phase, trained the day before, of whom nothing else is known. */
export const plainFacts = (more: Partial<PlainFacts> & { level?: Level; school?: string } = {}): PlainFacts => {
	const { level = 3, school = 'quality-first', ...rest } = more
	return {
		...PLAIN_FACTS,
		day: DAY,
		phase: 'peaking',
		levels: levels(level),
		schools: [STARTER_LIBRARY.schools[school]!],
		lastWork: { sprint: '2026-03-19', agility: '2026-03-19', plyometric: '2026-03-19', throw: '2026-03-19' },
		...rest,
	}
}
export const concluded = (more: Parameters<typeof plainFacts>[0] = {}) => concludeFor(plainFacts(more), STARTER_LIBRARY)
export const factsOf = (more: Parameters<typeof plainFacts>[0] = {}): Facts => concluded(more).facts
export const form = (drillId: string, parameters: Asked = {}): Form =>
	formOf(STARTER_LIBRARY.drills[drillId]!, parameters, STARTER_LIBRARY)
