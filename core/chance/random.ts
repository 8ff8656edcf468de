/** A seeded source of numbers (mulberry32), so that the demo is the same for the same day. */
export class Random {
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
		const hex = Array.from({ length: 32 }, (_, i) =>
			(i === 12 ? 4 : i === 16 ? 8 + Math.floor(this.next() * 4) : Math.floor(this.next() * 16)).toString(16),
		).join('')
		return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
	}
}
