import type { PackAnswer } from '#core/field/pack'
import type { DeviceStore } from './device-store'
import { giveUpInOtherHands } from './other-hands'

export type Reach = 'fetched' | 'no-connection' | 'sign-in' | 'signed-out' | 'not-allowed'

/**
 * Asks the server for this device's sessions and keeps them; what is on the device stays when it cannot be reached. A
 * device that was signed out from elsewhere, or is in other hands than those it was fetched for, gives up what it holds
 * of squads, but for what was not sent.
 */
export async function fetchPacks(store: DeviceStore, sessionId: string | null, timeoutMs = 15_000): Promise<Reach> {
	try {
		const asked = Date.now()
		const response = await fetch(`/api/field${sessionId ? `?session=${encodeURIComponent(sessionId)}` : ''}`, {
			signal: AbortSignal.timeout(timeoutMs),
		})
		if (response.status === 401) {
			const { ended } = (await response.json()) as { ended: boolean }
			if (ended) await store.clear()
			return ended ? 'signed-out' : 'sign-in'
		}
		if (response.status === 403) {
			await store.clear()
			return 'not-allowed'
		}
		if (!response.ok) return 'no-connection'
		const answer = (await response.json()) as PackAnswer
		await giveUpInOtherHands(store, answer.person)
		await store.putPacks(answer.packs, Date.now())
		await store.write('person', answer.person)
		await store.write('clockOffsetMs', Date.parse(answer.serverNow) - (asked + Date.now()) / 2)
		return 'fetched'
	} catch {
		return 'no-connection'
	}
}
