import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Drill } from './drill'
import { contactsOf, metresOf, totalOf } from '../dose/dose-count'
import { countWork } from '../dose/count-line'
import { type AskedWork, isOfJudged, linePartsOf, paceOf, partAt, piecesOfRung, repsOfRound } from './line-parts'

const straight = { repsS: 0, setsS: 0 }
const drillOf = (id: string): Drill | undefined => STARTER_LIBRARY.drills[id]
/** Two rounds of a heavy 10 m, then two free ones of 20 m. */
const contrast: AskedWork = {
	drillId: 'contrast-start',
	parameters: { distanceM: 20 },
	dose: { sets: 2, reps: 1 },
	pieces: [
		{
			drillId: 'resisted-start',
			reps: 1,
			parameters: { distanceM: 10, resistPercent: 50 },
			rest: straight,
			judged: false,
		},
		{
			drillId: 'contrast-start',
			reps: 2,
			parameters: { distanceM: 20 },
			rest: { repsS: 60, setsS: 60 },
			judged: true,
		},
	],
}
const rebounds: AskedWork = { drillId: 'depth-jump', parameters: { heightCm: 30 }, dose: { sets: 5, reps: 2 } }

describe('the drills of a line', () => {
	it('are one of a plain line, and every piece of a complex over all its rounds', () => {
		expect(linePartsOf(rebounds)).toEqual([
			{ drillId: 'depth-jump', parameters: { heightCm: 30 }, dose: { sets: 5, reps: 2 }, piece: null, judged: true },
		])
		expect(linePartsOf(contrast).map(({ drillId, dose, piece, judged }) => [drillId, dose, piece, judged])).toEqual([
			['resisted-start', { sets: 2, reps: 1 }, 1, false],
			['contrast-start', { sets: 2, reps: 2 }, 2, true],
		])
		// Sets and reps of a complex are rounds, however they are written.
		expect(linePartsOf({ ...contrast, dose: { sets: 2, reps: 3 } }).map(({ dose }) => dose.sets)).toEqual([6, 6])
	})
	it('cost what they cost together', () => {
		// Two pulls of 10 m, four free starts of 20 m: 80 m at full effort, 20 m of tempo, four maximal starts.
		const count = countWork(contrast, drillOf)
		expect([metresOf(count, ['maximal']), metresOf(count, ['tempo']), count.maximalStarts]).toEqual([80, 20, 4])
		// 5×2 rebounds are 10 jumps and 20 contacts.
		expect(totalOf(contactsOf(countWork(rebounds, drillOf), ['shock']))).toBe(20)
		expect(
			totalOf(
				contactsOf(
					countWork(rebounds, () => null),
					['shock'],
				),
			),
		).toBe(0)
	})
	it('are found by the piece something is about; without one it is the judged', () => {
		expect(partAt(contrast, 1).drillId).toBe('resisted-start')
		expect(partAt(contrast, 2).drillId).toBe('contrast-start')
		expect(partAt(contrast, undefined).drillId).toBe('contrast-start')
		expect(partAt(contrast, 3).drillId).toBe('contrast-start')
		expect(partAt(rebounds, 1).drillId).toBe('depth-jump')
		expect([1, 2, null, undefined].map((piece) => isOfJudged(contrast, piece))).toEqual([false, true, true, true])
		expect(isOfJudged(rebounds, 1)).toBe(true)
	})
	it('are of a rung as the rung has its drill, and the same ones each time', () => {
		const rung = { drillId: 'contrast-start', parameters: { distanceM: 30 }, pieces: [...contrast.pieces!] }
		expect(piecesOfRung(rung)!.map(({ drillId, parameters }) => [drillId, parameters.distanceM])).toEqual([
			['resisted-start', 10],
			['contrast-start', 30],
		])
		expect(piecesOfRung(rung)).toBe(piecesOfRung(rung))
		expect(piecesOfRung({ drillId: 'pogo', parameters: {} })).toBeUndefined()
	})
	it('go in turns: a piece a turn, as long as its reps and what lies between them', () => {
		expect(paceOf(rebounds, drillOf)).toEqual({ dose: { sets: 5, reps: 2 } })
		// A pull of 6 s; two starts of 4 s with a minute between.
		const seconds = (id: string) => ({ defaults: { repS: id === 'resisted-start' ? 6 : 4 } }) as Drill
		expect(paceOf(contrast, seconds)).toEqual({ dose: { sets: 2, reps: 2 }, repS: (6 + 68) / 2 })
		expect([repsOfRound(contrast.pieces), repsOfRound(undefined)]).toEqual([3, 1])
	})
})
