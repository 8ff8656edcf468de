/** A moment as people say it, on this device's clock: "27 Nov, 17:42". */
export const writeMoment = (iso: string): string =>
	new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
