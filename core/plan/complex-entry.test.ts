import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { SessionEntry } from '../vocabulary/entry'
import { isSound } from '../vocabulary/sound'
import { MOST_PIECES, pieceProblem, withPieceBefore, withoutPiece } from './complex-entry'
import { freshEntry, wholeEntry } from './entry-parts'

const ID = '0190a1b2-0000-7000-8000-000000000001'
const fresh = (drillId: string) => freshEntry(ID, { drillId, ladderId: null }, STARTER_LIBRARY)!
/** Three sets of two repeated jumps, 20 s between reps and 90 s between sets. */
const jumps = { ...fresh('repeated-broad-jump'), dose: { sets: 3, reps: 2 }, rest: { repsS: 20, setsS: 90 } }
const lifted = withPieceBefore(jumps, 'heavy-lift', STARTER_LIBRARY)

describe('a lift, then hops', () => {
	it('is a round for each set, the hops as they were, and they are judged', () => {
		expect(lifted.dose).toEqual({ sets: 3, reps: 1 })
		expect(lifted.rest).toEqual({ repsS: 60, setsS: 90 })
		expect(lifted.pieces!.map(({ drillId, reps, judged, rest }) => [drillId, reps, judged, rest.repsS])).toEqual([
			['heavy-lift', 1, false, 0],
			['repeated-broad-jump', 2, true, 20],
		])
		expect([lifted.drillId, isSound(SessionEntry, lifted), pieceProblem(lifted, STARTER_LIBRARY)]).toEqual([
			'repeated-broad-jump',
			true,
			null,
		])
	})
	it('takes further drills before the judged one, as many as there is room for', () => {
		const three = withPieceBefore(lifted, 'pogo', STARTER_LIBRARY)
		expect(three.pieces!.map(({ drillId, reps }) => `${drillId} ${reps}`)).toEqual([
			'heavy-lift 1',
			'pogo 5',
			'repeated-broad-jump 2',
		])
		let full = three
		for (let turn = 0; turn < 9; turn++) full = withPieceBefore(full, 'pogo', STARTER_LIBRARY)
		expect(full.pieces).toHaveLength(MOST_PIECES)
	})
	it('without the lift is what it was', () => {
		expect(withoutPiece(lifted, 0)).toEqual(jumps)
		expect(withoutPiece(lifted, 1)).toEqual(lifted)
		const three = withPieceBefore(lifted, 'pogo', STARTER_LIBRARY)
		expect(withoutPiece(three, 0).pieces!.map(({ drillId }) => drillId)).toEqual(['pogo', 'repeated-broad-jump'])
	})
	it('is whole with what its drills have, the judged one as the entry has it', () => {
		const start = { ...fresh('standing-start'), parameters: { distanceM: 20 } }
		const pulled = withPieceBefore(start, 'resisted-start', STARTER_LIBRARY)
		const changed = { ...pulled, parameters: { distanceM: 30 } }
		expect(
			wholeEntry(changed, STARTER_LIBRARY).pieces!.map(({ drillId, parameters }) => [drillId, parameters]),
		).toEqual([
			['resisted-start', { distanceM: 15, resistPercent: 25 }],
			['standing-start', { distanceM: 30 }],
		])
	})
	it('is left alone for a ladder, and for a drill nobody knows', () => {
		const ladder = freshEntry(ID, { ladderId: 'bound' }, STARTER_LIBRARY)!
		expect(withPieceBefore(ladder, 'pogo', STARTER_LIBRARY)).toBe(ladder)
		expect(withPieceBefore(jumps, 'nope', STARTER_LIBRARY)).toBe(jumps)
	})
	it('says what is wrong with it', () => {
		const of = (change: Partial<SessionEntry>) => pieceProblem({ ...lifted, ...change }, STARTER_LIBRARY)
		const [lift, hop] = lifted.pieces!
		expect(of({ ladderId: 'bound' as never })).toContain('rungs')
		expect(of({ pieces: [lift!, { ...hop!, judged: false }] })).toContain('One piece')
		expect(of({ pieces: [{ ...lift!, judged: true }, hop!] })).toContain('One piece')
		expect(of({ pieces: [{ ...lift!, drillId: 'nope' as never }, hop!] })).toContain('not in the library')
		expect(pieceProblem(jumps, STARTER_LIBRARY)).toBeNull()
	})
})
