import type { PackAnswer } from '#core/field/pack'
import type { DeviceStore } from './device-store'

export type Reach = 'fetched' | 'no-connection' | 'sign-in' | 'not-allowed'

/** Asks the server for this device's sessions and keeps them; what is on the device stays when it cannot be reached. */
export async function fetchPacks(
	store: DeviceStore,
	sessionId: string | null,
	timeoutMs = 15_000,
): Promise<{ reach: Reach; answer: PackAnswer | null }> {
	try {
		const asked = Date.now()
		const response = await fetch(`/api/field${sessionId ? `?session=${encodeURIComponent(sessionId)}` : ''}`, {
			signal: AbortSignal.timeout(timeoutMs),
		})
		if (response.status === 401) return { reach: 'sign-in', answer: null }
		if (response.status === 403) return { reach: 'not-allowed', answer: null }
		if (!response.ok) return { reach: 'no-connection', answer: null }
		const answer = (await response.json()) as PackAnswer
		await store.putPacks(answer.packs, Date.now())
		await store.write('person', answer.person)
		await store.write('clockOffsetMs', Date.parse(answer.serverNow) - (asked + Date.now()) / 2)
		return { reach: 'fetched', answer }
	} catch {
		return { reach: 'no-connection', answer: null }
	}
}
