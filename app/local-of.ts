import type { Local } from './ui/local'

/** English as it is written in most of the world: day first, Monday first, by 24 hours. */
const PLAIN: Local = { order: 'day-first', separator: '/', twelveHours: false, firstWeekday: 1 }

/**
 * How days and times are written where the browser's language is spoken, by the Unicode locale data (CLDR) that comes
 * with Node; words stay English. A request without a language, or with one nobody knows, is written plainly.
 */
export function localOf(request: Request): Local {
	const asked = (request.headers.get('accept-language') ?? '').split(/[,;]/)[0]!.trim()
	try {
		const locale = new Intl.Locale(asked)
		const parts = new Intl.DateTimeFormat(locale, { year: 'numeric', month: '2-digit', day: '2-digit' }).formatToParts(
			0,
		)
		const first = parts.find(({ type }) => type === 'day' || type === 'month' || type === 'year')?.type
		const { firstDay } = (locale as unknown as { weekInfo: { firstDay: number } }).weekInfo
		return {
			order: first === 'month' ? 'month-first' : first === 'year' ? 'year-first' : 'day-first',
			separator: /[./-]/.exec(parts.find(({ type }) => type === 'literal')?.value ?? '')?.[0] ?? '/',
			twelveHours: new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions().hour12 === true,
			firstWeekday: firstDay,
		}
	} catch {
		return PLAIN
	}
}
