import type { PackAnswer } from '#core/field/pack'
import type { DeviceStore } from './device-store'

/**
 * What a device holds of squads is for whoever it was fetched for. In the hands of somebody else, of their club or of
 * another, or with another role, it is given up; what the server has not taken stays for whoever logged it.
 *
 * @returns whether it was so
 */
export async function giveUpInOtherHands(
	store: Pick<DeviceStore, 'read' | 'clear'>,
	{ id, role }: Pick<PackAnswer['person'], 'id' | 'role'>,
): Promise<boolean> {
	const held = await store.read('person')
	if (!held || (held.id === id && held.role === role)) return false
	await store.clear()
	return true
}
