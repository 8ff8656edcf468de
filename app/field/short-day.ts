/** By the browser itself: the calendar package would cost the field more than its own code. */
export const shortDay = (day: string) =>
	new Date(`${day}T12:00:00Z`)
		.toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })
		.replace(',', '')
