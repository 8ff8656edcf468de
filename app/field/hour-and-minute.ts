/** "17:42", as people here write it. */
export const hourAndMinute = (instant: string): string =>
	new Date(instant).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
