import { setTimeout as wait } from 'node:timers/promises'
import { changesOfClubs } from '../../db/noted-writes'
import { database } from '../database'

const LOOK_EVERY_MS = 400
/** So many phones that wait are told as soon as that; of more, each is told a little later. */
const WAITING_AT_FULL = 50

/** How long until the next look, when so many wait. */
export const lookEvery = (waiting: number): number => LOOK_EVERY_MS * Math.max(1, waiting / WAITING_AT_FULL)

interface Waiter {
	clubId: string
	/** How often the club had changed when it last looked. */
	known: number | null
	wake: (changes: number | null) => void
	fail: (error: unknown) => void
}
const waiters = new Set<Waiter>()
let isLooking = false

/** Asks for all that wait at once, however many they are, as long as somebody does. */
async function look(): Promise<void> {
	isLooking = true
	while (waiters.size > 0) {
		await wait(lookEvery(waiters.size))
		if (waiters.size === 0) break
		const asked = [...waiters]
		try {
			const changes = await changesOfClubs(database().db, [...new Set(asked.map(({ clubId }) => clubId))])
			for (const waiter of asked) {
				const now = changes(waiter.clubId)
				if (now !== waiter.known) waiter.wake(now)
			}
		} catch (error) {
			for (const waiter of asked) waiter.fail(error)
		}
	}
	isLooking = false
}

/**
 * Waits until a club has changed, or until it is time or the asker has gone.
 *
 * @param known how often it had changed before the asker last looked, as this said it; null when that is not known: then
 * the next look is news, because something may have come between
 * @param until milliseconds of the clock
 * @returns how often it has changed; what is read afterwards holds all that is counted
 * @throws what the database throws
 */
export function clubChanged(
	clubId: string,
	known: number | null,
	until: number,
	signal: AbortSignal,
): Promise<number | null> {
	return new Promise((resolve, reject) => {
		const leave = () => {
			clearTimeout(late)
			signal.removeEventListener('abort', gone)
			waiters.delete(waiter)
		}
		const wake = (changes: number | null) => {
			leave()
			resolve(changes)
		}
		const gone = () => wake(known)
		const waiter: Waiter = {
			clubId,
			known,
			wake,
			fail: (error) => {
				leave()
				reject(error instanceof Error ? error : new Error(String(error)))
			},
		}
		const late = setTimeout(gone, Math.max(0, until - Date.now()))
		if (signal.aborted) return gone()
		signal.addEventListener('abort', gone)
		waiters.add(waiter)
		if (!isLooking) void look()
	})
}
