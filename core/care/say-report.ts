import { placeOf } from '../rules/bars'
import type { BodyEvent } from '../vocabulary/events'
import type { Region } from '../vocabulary/words'

/** A report as those read it who may: "left knee 4 of 10, sharp, gives way, locks or is numb". */
export function sayReport(event: BodyEvent): string {
	switch (event.kind) {
		case 'pain':
			return `${placeOf(event.value)} ${event.value.score} of 10${event.value.redFlag ? ', sharp, gives way, locks or is numb' : ''}${noted(event)}`
		case 'quiet':
			return `asked how the ${placeOf(event.value)} was: ${event.value.score} of 10`
		case 'worry':
			return `a worry about the ${placeOf({ region: event.value.region })}${noted(event)}`
		case 'head':
			return `a blow to the head, or strong pain there${noted(event)}`
		case 'chest':
			return `chest pain, a faint, or breath that did not settle${noted(event)}`
		case 'unwell':
			return `unwell or feverish${noted(event)}`
	}
}
/** What was said at the desk, in the same words. */
export function saySaid({ kind, region, side, score, redFlag, note }: SaidAtDesk): string {
	const more = note === '' ? '' : `: ${note}`
	if (kind === 'head') return `a blow to the head, or strong pain there${more}`
	if (kind === 'chest') return `chest pain, a faint, or breath that did not settle${more}`
	const place = region ? placeOf({ region, side }) : ''
	if (kind === 'soreness') return `${place} sore after new work${more}`
	return `${place} ${score ?? '?'} of 10${redFlag ? ', sharp, gives way, locks or is numb' : ''}${more}`
}
interface SaidAtDesk {
	kind: string
	region: Region | null
	side: string | null
	score: number | null
	redFlag: boolean
	note: string
}

const noted = ({ value }: BodyEvent): string => ('note' in value && value.note ? `: ${value.note}` : '')
