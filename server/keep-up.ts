import { setTimeout as wait } from 'node:timers/promises'
import { editsOfClubs } from '../db/noted-writes'
import { database } from './database'
import { workOutLater } from './later'

/** A page nobody has looked at for longer is worked out when somebody does. */
const LATELY_MS = 300_000
/** So many of a club, those looked at last: a coach goes to and fro between a few. */
const MOST_PAGES = 6
const LOOK_EVERY_MS = 1_000

interface Look {
	clubId: string
	/** Milliseconds of the clock. */
	at: number
	/** Works the page out, where anything of it has changed. */
	again: () => Promise<unknown>
}

/**
 * Has pages that were looked at lately made anew behind the edits that made them old, so that whoever looks next need not
 * wait. It goes by the counts of what was changed, whoever wrote it, here, in another process or on another machine. While
 * one edit follows another it holds still: whoever edits looks, and each edit would make all of them anew.
 */
export class KeepingUp {
	private readonly looks = new Map<string, Look>()
	private readonly clubs = new Map<string, { edits: number; isBehind: boolean }>()

	/**
	 * @param editsOf how often clubs were edited
	 * @param later has a page worked out when nobody is kept waiting by it
	 */
	constructor(
		private readonly editsOf: (clubIds: string[]) => Promise<(clubId: string) => number>,
		private readonly later: (key: string, again: Look['again']) => void,
	) {}

	note(key: string, look: Look): void {
		this.looks.delete(key)
		this.looks.set(key, look)
	}
	/** Whether any page is kept up with. */
	get hasLooks(): boolean {
		return this.looks.size > 0
	}
	/**
	 * Asks once what was edited. What was edited before the round of before, and not since, is worked off.
	 *
	 * @param now milliseconds of the clock
	 * @throws what the database throws
	 */
	async round(now: number): Promise<void> {
		for (const [key, { at }] of this.looks) if (now - at > LATELY_MS) this.looks.delete(key)
		const asked = new Set([...this.looks.values()].map(({ clubId }) => clubId))
		for (const clubId of this.clubs.keys()) if (!asked.has(clubId)) this.clubs.delete(clubId)
		if (asked.size === 0) return
		const editsOf = await this.editsOf([...asked])
		for (const clubId of asked) {
			const edits = editsOf(clubId)
			const club = this.clubs.get(clubId)
			// Of a club that was not looked at before nobody knows what came in between.
			if (club?.edits !== edits) this.clubs.set(clubId, { edits, isBehind: true })
			else if (club.isBehind) {
				club.isBehind = false
				const pages = [...this.looks].filter(([, look]) => look.clubId === clubId).reverse()
				for (const [key, { again }] of pages.slice(0, MOST_PAGES)) this.later(key, again)
			}
		}
	}
}

let keepingUp: KeepingUp | undefined
let isGoing = false

/**
 * From now on pages that are looked at are kept up with; without it, as in a command, nothing goes on by itself.
 *
 * @returns what ends it
 */
export function keepUpWithEdits(): () => void {
	keepingUp ??= new KeepingUp((clubIds) => editsOfClubs(database().db, clubIds), workOutLater)
	return () => (keepingUp = undefined)
}

/** Somebody looks at a page; `again` works it out where anything of it has changed. */
export function noteLook(key: string, clubId: string, again: () => Promise<unknown>): void {
	if (!keepingUp) return
	keepingUp.note(key, { clubId, at: Date.now(), again })
	if (!isGoing) void goOn()
}
async function goOn(): Promise<void> {
	isGoing = true
	while (keepingUp?.hasLooks) {
		await wait(LOOK_EVERY_MS, undefined, { ref: false })
		// A database that is away is asked again.
		await keepingUp?.round(Date.now()).catch(() => undefined)
	}
	isGoing = false
}
