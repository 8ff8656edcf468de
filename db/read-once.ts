import { AsyncLocalStorage } from 'node:async_hooks'

/** What the database has answered while one value is worked out, by what it was asked. */
export class Answers {
	private known: Map<string, Promise<unknown>> | null = new Map()

	/** @param of whose they are, and how often anything of theirs had changed: what is a part of the value may use them while that is the same */
	constructor(readonly of: string) {}

	/** The answer to a question, asked once. */
	get(question: string, ask: () => Promise<unknown>): Promise<unknown> {
		if (!this.known) return ask()
		const answer = this.known.get(question) ?? ask()
		this.known.set(question, answer)
		return answer
	}

	/** The value is worked out: whatever goes on asks for itself. A connection that was opened meanwhile would hold on to all of it. */
	end(): void {
		this.known = null
	}
}

const reading = new AsyncLocalStorage<Answers>()
/** Those of the value that is being worked out here, if one is. */
export const answersHere = (): Answers | undefined => reading.getStore()

/** Does work in which nothing is read twice. */
export const readOnce = <T>(answers: Answers, work: () => Promise<T>): Promise<T> => reading.run(answers, work)

/**
 * Reads what is kept beyond the value that is being worked out. What that value has read may be of before the count the
 * new answer is kept under, and would stand for as long as nothing else changes.
 */
export const readForKeeping = <T>(read: () => Promise<T>): Promise<T> => reading.run(new Answers(''), read)
