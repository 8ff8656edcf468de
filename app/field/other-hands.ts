import type { PackAnswer } from '#core/field/pack'
import type { DeviceStore } from './device-store'

/**
 * What a device holds of squads is for whoever it was fetched for. In the hands of somebody else, in another club or with
 * another role, it is given up; what was not sent stays for whoever logged it.
 *
 * @returns whether it was so
 */
export async function giveUpInOtherHands(
	store: Pick<DeviceStore, 'read' | 'clear'>,
	{ id, role, clubName }: Pick<PackAnswer['person'], 'id' | 'role' | 'clubName'>,
): Promise<boolean> {
	const held = await store.read('person')
	if (!held || (held.id === id && held.role === role && held.clubName === clubName)) return false
	await store.clear()
	return true
}
