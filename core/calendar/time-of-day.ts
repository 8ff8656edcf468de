/**
 * A time of day as people type it: "17:30", "17.30", "17h30", "1730", "9", "5:30 pm", "5p". Null for what is none.
 *
 * @returns "17:30"
 */
export function readTimeOfDay(text: string): string | null {
	const found = /^(\d{1,2})(?:\s*[:.h]\s*|(?=\d{2}\b))?(\d{2})?\s*(?:([ap])\.?\s*m?\.?)?$/.exec(
		text.trim().toLowerCase(),
	)
	if (!found) return null
	const [hours, minutes, half] = [Number(found[1]), Number(found[2] ?? 0), found[3]]
	if (minutes > 59 || (half ? hours < 1 || hours > 12 : hours > 23)) return null
	const hour = half ? (hours % 12) + (half === 'p' ? 12 : 0) : hours
	return `${String(hour).padStart(2, '0')}:${String(minutes).padStart(2, '0')}`
}

/** @param time "17:30" @example writeTimeOfDay('17:30', true) // "5:30 pm" */
export function writeTimeOfDay(time: string, twelveHours: boolean): string {
	const [hours, minutes] = [Number(time.slice(0, 2)), time.slice(3, 5)]
	return twelveHours ? `${hours % 12 || 12}:${minutes} ${hours < 12 ? 'am' : 'pm'}` : time
}
