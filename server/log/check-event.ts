import { EVENT_SCHEMAS, type EventKey, type LogEvent } from '../../core/vocabulary/events'
import { unsound } from '../../core/events/unsound'
import { type ShapeCheck, shapeCheck } from '../check-shape'

const checks = Object.fromEntries(
	Object.entries(EVENT_SCHEMAS).map(([key, schema]) => [key, shapeCheck(schema)]),
) as Record<EventKey, ShapeCheck<unknown>>

export type Checked = { event: LogEvent } | { field: string; reason: string }

/** Checks one event of a batch against its schema and the rules a schema cannot say. */
export function checkEvent(value: unknown): Checked {
	if (typeof value !== 'object' || value === null) return { field: '', reason: 'an object is expected' }
	const { type, kind } = value as { type?: unknown; kind?: unknown }
	const key = `${String(type)}/${String(kind)}`
	const check = checks[key as EventKey] as ShapeCheck<unknown> | undefined
	if (!check) return { field: 'kind', reason: `${JSON.stringify(key)} is not a kind of event` }
	if (!check(value)) return sayFirstProblem(check, (field, reason) => ({ field, reason }))
	const broken = brokenText(value)
	if (broken !== null) return { field: broken, reason: 'half a character: text must be whole' }
	const event = value as LogEvent
	return unsound(event) ?? { event }
}

/** Where a text is cut in the middle of a character, which no database keeps; null when all are whole. */
export function brokenText(value: unknown, at = ''): string | null {
	// Half of a pair of surrogates is what a cut leaves behind.
	if (typeof value === 'string') return /\p{Cs}/u.test(value) ? at : null
	if (typeof value !== 'object' || value === null) return null
	for (const [key, inner] of Object.entries(value)) {
		const found = brokenText(inner, at ? `${at}.${key}` : key)
		if (found !== null) return found
	}
	return null
}

/** The first thing wrong with a value, as the field and what is expected of it. */
export function sayFirstProblem<T>(check: ShapeCheck<unknown>, say: (field: string, reason: string) => T): T {
	const [error] = check.errors ?? []
	const extra =
		error?.keyword === 'additionalProperties'
			? `: ${String((error.params as { additionalProperty: string }).additionalProperty)}`
			: ''
	const place =
		(error?.instancePath ?? '').slice(1).replaceAll('/', '.') ||
		String((error?.params as { missingProperty?: string } | undefined)?.missingProperty ?? '')
	return say(place, `${error?.message ?? 'not understood'}${extra}`)
}
