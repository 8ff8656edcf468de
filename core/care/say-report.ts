import { placeOf } from '../rules/bars'
import type { BodyEvent } from '../vocabulary/events'

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
const noted = ({ value }: BodyEvent): string => ('note' in value && value.note ? `: ${value.note}` : '')
