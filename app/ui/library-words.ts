import { inSentence } from '#core/words/write-numbers'
import type { Drill } from '#core/vocabulary/drill'
import type { Gate, Ladder, Rung } from '#core/vocabulary/ladder'

/** How a drill is counted, in words. */
export function countingOf(drill: Drill): string {
	const { contacts, cuts, deadStops, metres, throws } = drill.counting
	const said: string[] = []
	if (contacts) {
		const feet =
			contacts.feet === 'both'
				? 'on both feet'
				: contacts.feet === 'alternating'
					? 'left and right in turn'
					: 'on each leg'
		said.push(
			contacts.by === 'rep'
				? `${contacts.perRep} ${drill.intensity} ${contacts.perRep === 1 ? 'contact' : 'contacts'} a rep, ${feet}`
				: `${contacts.perStep === 1 ? 'a contact' : `${contacts.perStep} contacts`} every ${contacts.stepLengthLegLengths} leg lengths, ${feet}`,
		)
	}
	if (cuts) said.push(cuts.perRep === 1 ? '1 cut a rep' : `${cuts.perRep} cuts a rep`)
	if (deadStops) said.push(deadStops.perRep === 1 ? '1 dead stop a rep' : `${deadStops.perRep} dead stops a rep`)
	if (metres) said.push(`metres run, planned ${metres.plannedZone}${metres.kind ? `, ${metres.kind}` : ''}`)
	if (throws) said.push(throws.sides === 'both' ? '1 throw a rep' : '1 throw a side')
	return said.length > 0 ? said.join('; ') : 'Minutes only'
}

/** What a rung asks before the next one opens. */
export function passWords({ pass }: Pick<Rung, 'pass'>): string {
	if (pass.kind === 'quality') return 'good by eye'
	if (pass.kind === 'contact-ceiling') return 'contact under the ceiling'
	if (pass.kind === 'comfort') return 'comfortable, no braking'
	if (pass.kind === 'not-below') return `${pass.of} kept`
	return `within ${pass.percent} % of the usual`
}

/** What a rung waits for, in words; the level stands apart. */
export function gateWords(gate: Gate, ladders: Record<string, Pick<Ladder, 'name' | 'rungs'>>): string | null {
	if (gate.kind === 'level') return null
	if (gate.kind === 'depth-phase') return 'in the phase the school says'
	if (gate.kind === 'school')
		return {
			volume: 'where the school builds capacity',
			conditioning:
				gate.side === 'shuttles'
					? 'where the school conditions by shuttles'
					: 'where the school conditions by long runs',
			contrast: 'after an own trial, or where the school uses it',
			returnPulls: 'where the school pulls first',
			plants: 'where the school trains this take-off',
		}[gate.question]
	if (gate.kind === 'days-below') return `after ${gate.days} days on the rung below`
	const ladder = ladders[gate.ladderId]
	return `after ${inSentence(ladder?.rungs.find((rung) => rung.id === gate.rungId)?.name ?? gate.rungId)}`
}
