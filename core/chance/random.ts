/** What stands for the time in rising UUIDs counts on from here: 2024, before anybody used it. */
const FIRST_TIME = 0x018d_0000_0000

/** A seeded source of numbers (mulberry32), so that the demo is the same for the same day. */
export class Random {
	/** How many UUIDs of it have risen. */
	private risen = 0
	constructor(private state: number) {}

	/** Uniform in [0, 1). */
	next(): number {
		this.state = (this.state + 0x6d2b79f5) | 0
		let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state)
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
		return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
	}

	/** Normal with mean 0 (Box–Muller). */
	normal(sd: number): number {
		return sd * Math.sqrt(-2 * Math.log(1 - this.next())) * Math.cos(2 * Math.PI * this.next())
	}

	chance(probability: number): boolean {
		return this.next() < probability
	}

	/** A version 4 UUID from this source. */
	uuid(): string {
		return this.hexOf(4, '')
	}

	/**
	 * A version 7 UUID from this source, with a count for the time: those of one source rise, as they do elsewhere by the
	 * clock, and rows that are written one after another lie so, which takes two thirds of the room.
	 */
	risingUuid(): string {
		return this.hexOf(7, (FIRST_TIME + this.risen++).toString(16).padStart(12, '0'))
	}

	private hexOf(version: number, time: string): string {
		const chance = Array.from({ length: 32 }, (_, i) =>
			(i === 12 ? version : i === 16 ? 8 + Math.floor(this.next() * 4) : Math.floor(this.next() * 16)).toString(16),
		).join('')
		const hex = time + chance.slice(time.length)
		return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
	}
}
