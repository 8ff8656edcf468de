import type { ClubScope } from '../db/connect'

/**
 * What this process keeps of single sessions, the last ones asked for: nearly every day has been written to for the last
 * time, and is not read again for one that is.
 */
export class BySession<T> {
	private readonly kept = new Map<string, { of: number; value: T; size: number }>()
	private held = 0

	/**
	 * @param most that is held of them all
	 * @param sizeOf how much of it one is
	 */
	constructor(
		private readonly most: number,
		private readonly sizeOf: (value: T) => number,
	) {}

	/** @param of how often the session's log has changed (`logChangesUpTo`) */
	get({ clubId }: ClubScope, sessionId: string, of: number): T | undefined {
		const key = `${clubId}/${sessionId}`
		const one = this.kept.get(key)
		if (one?.of !== of) return undefined
		this.kept.delete(key)
		this.kept.set(key, one)
		return one.value
	}

	put({ clubId }: ClubScope, sessionId: string, of: number, value: T): void {
		const key = `${clubId}/${sessionId}`
		const size = this.sizeOf(value)
		this.held += size - (this.kept.get(key)?.size ?? 0)
		this.kept.delete(key)
		this.kept.set(key, { of, value, size })
		for (const [old, { size: freed }] of this.kept) {
			if (this.held <= this.most) return
			this.kept.delete(old)
			this.held -= freed
		}
	}
}
