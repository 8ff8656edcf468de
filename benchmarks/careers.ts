import type { CareerAsk } from '../core/careers/career'
import { type CareerAnswer, simulateCareers } from '../core/careers/simulate-careers'
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
	{
		says: 'a typing error changed what a session says',
		ask: () => ({ scenario: 'steady', seed: 11 }),
		of: 'changedByTyping',
	},
	{ says: 'the same, of sessions with one', ask: () => ({ scenario: 'steady', seed: 11 }), of: 'changedWhenTyped' },
	{
		says: 'hurt and said so: any ease by P2',
		ask: () => ({ scenario: 'hurt', fallPercent: 8, seed: 18 }),
		of: 'anyEase',
	},
	{
		says: 'steady, squad known: any ease by P2',
		ask: () => ({ scenario: 'steady', squad: true, seed: 11 }),
		of: 'anyEase',
	},
	{
		says: 'steady, squad known: a slow fall said',
		ask: () => ({ scenario: 'steady', squad: true, seed: 11 }),
		of: 'slowFallSaid',
	},
	{
		says: '5 % over 20 sessions, squad known: a slow fall said',
		ask: () => ({ scenario: 'falling', fallPercent: 5, fallSessions: 20, squad: true, seed: 15 }),
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

const SCHOOLS = ['quality-first', 'jump-ladder', 'capacity-base', 'return-and-protect']

/** How often the rules are right: 500 careers of 40 sessions a cell, true spread 1 % (0.5 %, 2 %); then presets by gate, and boxes by film. */
export function benchCareers(): void {
	const known = new Map<string, CareerAnswer>()
	const cell = (ask: Omit<CareerAsk, 'careers' | 'sessions'>, of: keyof CareerAnswer): string => {
		const key = JSON.stringify(ask)
		const answer = known.get(key) ?? simulateCareers({ careers: 500, sessions: 40, ...ask })
		known.set(key, answer)
		return (100 * (answer[of] ?? Number.NaN)).toFixed(1)
	}
	const spread = (of: keyof CareerAnswer, ask: Omit<CareerAsk, 'careers' | 'sessions'>) => {
		const [low, usual, high] = SPREADS.map((trueSpreadPercent) => cell({ ...ask, trueSpreadPercent }, of))
		return `${usual} (${low}, ${high})`
	}
	console.log(`| What, % | ${METHODS.join(' | ')} |`)
	for (const { says, ask, of } of ROWS)
		console.log(
			`| ${says} | ${METHODS.map((method) => spread(of, { method, school: 'quality-first', ...ask(method) })).join(' | ')} |`,
		)
	console.log(`\n| By gate, % | ${SCHOOLS.join(' | ')} |`)
	for (const { says, ask, of } of ROWS)
		console.log(
			`| ${says} | ${SCHOOLS.map((school) => cell({ method: 'gate', school, ...ask('gate'), trueSpreadPercent: 1 }, of)).join(' | ')} |`,
		)
	console.log(`\n| Boxes, % | ${SCHOOLS.slice(0, 3).join(' | ')} |`)
	for (const method of ['film-240', 'film-120'] as const)
		console.log(
			`| within one rung, ${method} | ${SCHOOLS.slice(0, 3)
				.map((school) => spread('withinOneRung', { method, school, scenario: 'steady', seed: 17 }))
				.join(' | ')} |`,
		)
}
