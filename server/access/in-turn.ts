/** A queue for work of one kind: one at a time, in the order it came; what fails holds nobody up. */
export function inTurn(): <T>(work: () => Promise<T>) => Promise<T> {
	let last: Promise<unknown> = Promise.resolve()
	return (work) => {
		const turn = last.then(work, work)
		last = turn.catch(() => undefined)
		return turn
	}
}
