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

/** Why a line is another than the one asked for, in a clause: "left knee closed since Thu 19 Mar: cleared by a health professional". */
export const sayReason = (findings: readonly Finding[]): string => {
	const said = findings.map(({ found, limit }) => `${found}: ${limit}`)
	return said.length === 0 ? 'nothing of this is permitted' : said.slice(0, 2).join('; ').slice(0, 200)
}
