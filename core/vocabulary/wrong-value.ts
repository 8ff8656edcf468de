/** A value that cannot be worked with: which one, and why. */
export class WrongValue extends RangeError {
	constructor(
		/** Its name, as the caller knows it. */
		readonly field: string,
		readonly reason: string,
	) {
		super(`${field}: ${reason}`)
		this.name = 'WrongValue'
	}
}
