import { type CareerAnswer, type CareerAsk, simulateCareers } from '../core/careers/simulate-careers'
import type { Method } from '../core/vocabulary/words'

const METHODS: Method[] = ['gate', 'phone', 'mat', 'tape', 'stopwatch']
const SPREADS = [0.5, 1, 2]

interface Row {
	says: string
	ask: (method: Method) => Pick<CareerAsk, 'scenario' | 'seed'> & Partial<CareerAsk>
	of: keyof CareerAnswer
}
/** The rows of docs/judgement.md with their seeds. */
const ROWS: Row[] = [
	{ says: 'steady: any ease by P2', ask: () => ({ scenario: 'steady', seed: 11 }), of: 'anyEase' },
	{ says: 'steady: passed within 5 of a usual', ask: () => ({ scenario: 'steady', seed: 11 }), of: 'passedWithin5' },
	{ says: 'falls 5 %: P2 within 3', ask: () => ({ scenario: 'falling', fallPercent: 5, seed: 12 }), of: 'missWithin3' },
	{ says: 'falls 4 %: P2 within 3', ask: () => ({ scenario: 'falling', fallPercent: 4, seed: 13 }), of: 'missWithin3' },
	{ says: 'steady: a slow fall said', ask: () => ({ scenario: 'steady', seed: 11 }), of: 'slowFallSaid' },
	{
		says: '5 % over 20 sessions: a slow fall said',
		ask: () => ({ scenario: 'falling', fallPercent: 5, fallSessions: 20, seed: 15 }),
		of: 'slowFallSaid',
	},
	{ says: 'improves 0.5 % a week: never eased', ask: () => ({ scenario: 'improving', seed: 16 }), of: 'neverEased' },
	{
		says: 'half a point beyond the limit: passed twice within 5',
		ask: (method) => ({
			scenario: 'falling',
			fallPercent: method === 'mat' || method === 'tape' ? 5.5 : 3.5,
			seed: 14,
		}),
		of: 'advancedUnable',
	},
]

/** How often the rules are right: 500 careers of 40 sessions a cell, true spread 1 % (0.5 %, 2 %). */
export function benchCareers(): void {
	const known = new Map<string, CareerAnswer>()
	const cell = (ask: CareerAsk) => {
		const key = JSON.stringify(ask)
		const answer = known.get(key) ?? simulateCareers(ask)
		known.set(key, answer)
		return answer
	}
	console.log(`| What, % | ${METHODS.join(' | ')} |`)
	for (const { says, ask, of } of ROWS) {
		const cells = METHODS.map((method) => {
			const [low, usual, high] = SPREADS.map((trueSpreadPercent) =>
				(
					100 *
					cell({ method, school: 'quality-first', careers: 500, sessions: 40, trueSpreadPercent, ...ask(method) })[of]
				).toFixed(1),
			)
			return `${usual} (${low}, ${high})`
		})
		console.log(`| ${says} | ${cells.join(' | ')} |`)
	}
}
