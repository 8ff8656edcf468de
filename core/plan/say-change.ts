import { writeDose } from '../words/write-numbers'
import type { Proposal } from './propose-session'

const sum = (entries: Proposal['entries'], part: string) =>
	entries.filter((entry) => entry.part === part).map(({ dose }) => writeDose(dose))
const list = (words: readonly string[]) =>
	words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}` : words.join('')

/**
 * What another proposal would change, in one line: pieces that go and that come, and the minutes.
 *
 * @example "Without Cuts, kept and Throws, kept; 61 minutes instead of 73."
 */
export function sayProposalChange(before: Proposal, after: Proposal): string {
	const parts = ({ entries }: Proposal) => [...new Set(entries.map(({ part }) => part))]
	const [old, now] = [parts(before), parts(after)]
	const [gone, come] = [old.filter((part) => !now.includes(part)), now.filter((part) => !old.includes(part))]
	const changed = now.filter(
		(part) => old.includes(part) && sum(before.entries, part).join() !== sum(after.entries, part).join(),
	)
	const runs = ({ entries }: Proposal) =>
		Math.min(...entries.map(({ tuning }) => tuning?.fill?.mostM ?? Number.POSITIVE_INFINITY))
	const [was, is] = [Math.round(before.minutes), Math.round(after.minutes)]
	const words = [
		...(gone.length > 0 ? [`without ${list(gone)}`] : []),
		...(come.length > 0 ? [`with ${list(come)}`] : []),
		...(changed.length > 0 ? [`another dose of ${list(changed)}`] : []),
		...(runs(after) < runs(before) ? [`runs of ${runs(after)} m at most`] : []),
		...(was === is ? [] : [`${is} minutes instead of ${was}`]),
	]
	const said = words.join('; ')
	return said === '' ? 'Nothing changes.' : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`
}
