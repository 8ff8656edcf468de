import { text as readAll } from 'node:stream/consumers'
import { CALCULATIONS, findCalculation } from '../core/calc/calculations'
import { type CalculationAnswer, runCalculation } from '../server/calc/run-calculation'

const USAGE = 'npm run -s calc -- --list | NAME [--schema | --batch] (JSON on standard input)'
/** Exit codes: a value that cannot be a measurement, and input that cannot be read at all. */
const BAD_VALUE = 1
const BAD_INPUT = 2

const codeOf = (answer: CalculationAnswer) =>
	'output' in answer ? 0 : answer.error.kind === 'value' ? BAD_VALUE : BAD_INPUT
const say = (value: unknown) => process.stdout.write(`${JSON.stringify(value)}\n`)
const complain = (error: Record<string, unknown>) => process.stderr.write(`${JSON.stringify({ error })}\n`)

function answerText(name: string, text: string): CalculationAnswer {
	const one = findCalculation(name)!
	let input: unknown
	try {
		input = JSON.parse(text)
	} catch (error) {
		return {
			error: {
				kind: 'shape',
				field: '',
				value: text.slice(0, 200),
				expected: 'JSON',
				message: `not JSON: ${(error as Error).message}`,
			},
		}
	}
	return runCalculation(one, input)
}

async function main(args: string[]): Promise<number> {
	const flags = args.filter((arg) => arg.startsWith('--'))
	const [name, ...rest] = args.filter((arg) => !arg.startsWith('--'))
	const unknown = flags.find((flag) => !['--list', '--schema', '--batch'].includes(flag))
	if (unknown || rest.length > 0 || (!name && !flags.includes('--list'))) {
		complain({ kind: 'shape', field: '', value: args.join(' '), expected: USAGE, message: `expected ${USAGE}` })
		return BAD_INPUT
	}
	if (flags.includes('--list')) {
		for (const one of CALCULATIONS) process.stdout.write(`${one.name.padEnd(18)} ${one.title}\n`)
		return 0
	}
	const one = findCalculation(name!)
	if (!one) {
		complain({
			kind: 'shape',
			field: 'NAME',
			value: name,
			expected: `one of ${CALCULATIONS.map((known) => known.name).join(', ')}`,
			message: `no calculation is called ${name}; --list shows them`,
		})
		return BAD_INPUT
	}
	if (flags.includes('--schema')) {
		say({
			$schema: 'https://json-schema.org/draft/2020-12/schema',
			name: one.name,
			title: one.title,
			input: one.input,
			output: one.output,
		})
		return 0
	}
	const text = await readAll(process.stdin)
	if (!flags.includes('--batch')) {
		const answer = answerText(one.name, text)
		if ('output' in answer) say(answer.output)
		else complain({ ...answer.error })
		return codeOf(answer)
	}
	// One line out for each line in, so that the two stay side by side; a refused one says so in its place.
	let worst = 0
	for (const line of text.split('\n').filter((line) => line.trim() !== '')) {
		const answer = answerText(one.name, line)
		say('output' in answer ? answer.output : { error: answer.error })
		worst = Math.max(worst, codeOf(answer))
	}
	return worst
}

// Whoever reads the first lines only has what they wanted.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
	if (error.code !== 'EPIPE') throw error
	process.exit(0)
})
process.exitCode = await main(process.argv.slice(2))
