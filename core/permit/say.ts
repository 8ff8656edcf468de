import type { Library } from '../vocabulary/library'
import { inSentence, writeDose, writeDrill } from '../words/write-numbers'
import { RULE_NAMES, type Finding } from '../rules/rule'
import type { Answer } from './permit'

/** "Time away: last plyometric work on Mon 2 Mar; 75 % of the dose." */
export const sayFinding = ({ rule, found, limit }: Finding): string => `${RULE_NAMES[rule]}: ${found}; ${limit}.`

/** What was answered, in a sentence, and why. */
export function sayAnswer({ answer, line, findings }: Answer, library: Pick<Library, 'drills'>): string {
	const drill = line && library.drills[line.drillId]
	const what = line && drill ? `${writeDrill(drill, line.parameters)}, ${writeDose(line.dose)}` : null
	const head =
		what === null
			? 'No line.'
			: answer === 'yes'
				? `${what}.`
				: answer === 'less'
					? `Less: ${inSentence(what)}.`
					: `Instead: ${inSentence(what)}.`
	return [head, ...findings.map(sayFinding)].join(' ')
}

/** What was found by these is not everybody's to read: an illness, a worry, an age, a weight. What follows is. */
const KEPT_BACK: readonly Finding['rule'][] = ['S3', 'S4', 'S9']
const CLOSES: readonly Finding['rule'][] = ['S1', 'S2']

/**
 * Why a line is another than the one asked for, in a clause that whoever reads the sheet may read: "left knee closed
 * since Thu 19 Mar until cleared by a health professional", "boxes to 30 cm at level 1 or under 16".
 */
export const sayReason = (findings: readonly Finding[]): string => {
	const said = findings.map(({ rule, found, limit }) =>
		KEPT_BACK.includes(rule) ? limit : CLOSES.includes(rule) ? `${found} until ${limit}` : `${found}: ${limit}`,
	)
	return said.length === 0 ? 'nothing of this is permitted' : said.slice(0, 2).join('; ').slice(0, 200)
}

/** Why a rung is shut, said after its name: "opens at level 2", "3 h after a match: nothing high or maximal before 36 h". */
export const sayLock = ({ rule, found, limit }: Finding): string =>
	CLOSES.includes(rule)
		? `${found} until ${limit}`
		: rule === 'S8' || rule === 'BB' || KEPT_BACK.includes(rule)
			? limit
			: `${found}: ${limit}`
