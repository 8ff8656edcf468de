import { describe, expect, it } from 'vitest'
import type { Proposal } from './propose-session'
import { sayProposalChange } from './say-change'

const proposal = (minutes: number, ...pieces: [part: string, sets: number, reps: number][]) =>
	({
		minutes,
		shortfalls: [],
		entries: pieces.map(([part, sets, reps]) => ({ part, dose: { sets, reps } })),
	}) as unknown as Proposal

describe('what another proposal changes', () => {
	const one = proposal(73, ['Warm-up', 1, 1], ['Starts', 1, 6], ['Starts', 1, 3], ['Cuts, kept', 1, 4])
	it('names what goes, what comes, what is dosed otherwise, and the minutes', () => {
		expect(
			sayProposalChange(one, proposal(61, ['Warm-up', 1, 1], ['Starts', 1, 6], ['Starts', 1, 2], ['Jumps', 3, 5])),
		).toBe('Without Cuts, kept; with Jumps; another dose of Starts; 61 minutes instead of 73.')
		expect(sayProposalChange(one, proposal(73.4, ['Starts', 1, 6], ['Starts', 1, 3]))).toBe(
			'Without Warm-up and Cuts, kept.',
		)
	})
	it('says how long the runs are where the ground ends', () => {
		const hall = { ...one, minutes: 87 }
		const short = (mostM: number) => hall.entries.map((entry) => ({ ...entry, tuning: { fill: { mostM } } }))
		expect(sayProposalChange(one, { ...hall, entries: short(15) } as Proposal)).toBe(
			'Runs of 15 m at most; 87 minutes instead of 73.',
		)
		expect(
			sayProposalChange({ ...one, entries: short(15) } as Proposal, { ...one, entries: short(15) } as Proposal),
		).toBe('Nothing changes.')
	})
	it('is nothing where the same comes out', () => expect(sayProposalChange(one, one)).toBe('Nothing changes.'))
})
