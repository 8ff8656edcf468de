import { type MessagePort, workerData } from 'node:worker_threads'
import type { Changes } from '../db/noted-writes'

/**
 * What one of several processes behind one port has worked out, on its way to the others. It goes from memory to memory
 * and nowhere else.
 */
export interface Told {
	keptAs: string
	of: Changes
	/** The value as the engine writes it. */
	packed: Uint8Array
}
export const isTold = (message: unknown): message is Told =>
	typeof message === 'object' && message !== null && 'keptAs' in message

/** The way to the other processes; null where there is none, or none was given to this thread. */
export const wayToOthers = (): MessagePort | null => (workerData as { told?: MessagePort } | null)?.told ?? null
