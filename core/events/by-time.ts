/** By the device's time, then by its own order: never by id. */
export const byTime = (
	a: { deviceTime: string; deviceId: string; deviceSeq: number },
	b: { deviceTime: string; deviceId: string; deviceSeq: number },
): number =>
	Date.parse(a.deviceTime) - Date.parse(b.deviceTime) ||
	(a.deviceId < b.deviceId ? -1 : a.deviceId > b.deviceId ? 1 : a.deviceSeq - b.deviceSeq)
