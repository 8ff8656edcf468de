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
