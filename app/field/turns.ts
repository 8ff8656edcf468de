/** No thumb means the same control twice so soon after the screen has moved under it: it shook, ms [our setting]. */
const SHAKES_MS = 150
/** So soon after a device has moved the line nobody has seen it: what is pressed was for whoever stood there, ms [our setting]. */
const UNSEEN_MS = 300

/** What a press is about: what the line shows; the number being taken there, which takes several; or what it names itself. */
export type About = 'line' | 'number' | 'named'

interface Turn {
	what: string
	run: () => void
	drop: () => void
}

/**
 * Presses, one after the other: while one is being kept on the device, the screen still shows what was before it. What
 * is pressed then waits until the screen has moved, so that no digit is lost and none lands on the number before; a
 * control pressed twice in one go is pressed once, and one on a line that a device has just moved is not pressed.
 * `redraw` has the screen drawn and `drawn` called.
 */
export class Turns {
	private state: 'idle' | 'keeping' | 'kept' = 'idle'
	private waiting: Turn[] = []
	/** The press that was done last, whether it wrote, and when the screen had moved after it. */
	private last: { what: string; wrote: boolean; drawnAt: number } | null = null
	private inside = false
	/** What is being kept, or was last, came from a device; and when the screen had moved after it. */
	private byDevice = false
	private movedAt = -Infinity

	constructor(
		private readonly redraw: () => void,
		private readonly now: () => number = () => performance.now(),
	) {}

	/** Whether something was pressed while another press was being kept. */
	get ahead(): boolean {
		return this.waiting.length > 0
	}
	/** Nothing is being kept, and the screen shows what was. */
	get idle(): boolean {
		return this.state === 'idle' && !this.ahead
	}
	/** A device moves the line now, or has just moved it: what is pressed there was meant for what stood there before. */
	get unseen(): boolean {
		return (this.state !== 'idle' && this.byDevice) || this.now() - this.movedAt < UNSEEN_MS
	}

	/**
	 * Does what was pressed, now or in its turn. What a press sets off is part of it.
	 *
	 * @param what the control, with what it says
	 * @param drop told when it is not done after all: the press before it could not be kept
	 * @returns false where it is not done: it is the press before, or was meant for a line that is gone
	 */
	press(what: string, run: () => void, about: About, drop: () => void = () => {}): boolean {
		if (this.inside) {
			run()
			return true
		}
		if (about === 'line' && this.unseen) return false
		if (about !== 'number' && this.isTwice(what)) return false
		const turn = { what, run, drop }
		if (this.idle) this.go(turn)
		else this.waiting.push(turn)
		return true
	}

	/** The press that is being done writes something; nobody pressed it where a device did. */
	keeping(byDevice = false): void {
		this.state = 'keeping'
		this.byDevice = byDevice
		if (this.last) this.last.wrote = true
	}

	/** It is kept, or could not be; then nothing that was pressed after it is done. */
	over(kept: boolean): void {
		if (!kept) {
			for (const turn of this.waiting.splice(0)) turn.drop()
			this.last = null
			this.byDevice = false
		}
		this.state = 'kept'
		this.redraw()
	}

	/** The screen shows what was pressed so far. */
	drawn(): void {
		if (this.state === 'keeping') return
		if (this.state === 'kept' && this.last) this.last.drawnAt = this.now()
		if (this.state === 'kept' && this.byDevice) this.movedAt = this.now()
		this.state = 'idle'
		const next = this.waiting.shift()
		if (!next) return
		this.go(next)
		// A press that keeps nothing has moved the screen all the same: the next is for what it shows then.
		if (this.state === 'idle') this.redraw()
	}

	private isTwice(what: string): boolean {
		const before = this.waiting.at(-1)
		if (before) return before.what === what
		if (!this.last?.wrote || this.last.what !== what) return false
		return this.state !== 'idle' || this.now() - this.last.drawnAt < SHAKES_MS
	}

	private go({ what, run }: Turn): void {
		this.last = { what, wrote: false, drawnAt: 0 }
		this.inside = true
		try {
			run()
		} finally {
			this.inside = false
		}
	}
}
