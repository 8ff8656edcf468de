import { inSentence } from '../words/write-numbers'
import type { Judgement } from './types'

/** A verdict of one ladder among several of one athlete that have one cause. */
export interface OneOfMany {
	ladderName: string
	judgement: Judgement
	/** Name of the drill that stands in. */
	instead: string | null
}

/**
 * One cause, several ladders: what was found is said once, then what stands in where. Null where each ladder has a
 * sentence of its own to say.
 */
export function sayTogether(rows: readonly OneOfMany[]): { cause: string; where: string } | null {
	const [first] = rows
	if (!first || rows.length < 2 || first.judgement.verdict !== 'swap') return null
	const { decidedBy, trace } = first.judgement
	const found = trace.find((line) => line.rule === decidedBy && line.fired)?.found
	if (found === undefined) return null
	return {
		cause: `Swap: ${found}.`,
		where: rows
			.map(({ ladderName, instead }) => `${ladderName} → ${instead === null ? 'nothing' : inSentence(instead)}`)
			.join(' · '),
	}
}
