import { PlainError } from './plain-error'

/** Runs a command's work; what the person at the terminal can act on is said in a sentence, without a stack. */
export async function runCommand(work: () => Promise<void>): Promise<void> {
	try {
		await work()
	} catch (error) {
		console.error(error instanceof PlainError ? `\n${error.message}` : error)
		process.exit(1)
	}
}
