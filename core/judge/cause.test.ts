import { expect, it } from 'vitest'
import { pain, run, stateAt } from '../../tests/support/verdict-fixture'
import { sayTogether } from './cause'

const sore = { pains: [pain({ region: 'back-thigh', score: 3 })] }
const starts = {
	ladderName: 'Acceleration',
	judgement: run('acceleration', stateAt('acceleration', 'three-point-10'), null, {}, sore),
	instead: 'A-run',
}
const cuts = { ladderName: 'Cut', judgement: run('cut', stateAt('cut', 'cut-90'), null, {}, sore), instead: null }

it('says one cause once, and what stands in on each ladder', () => {
	expect(sayTogether([starts, cuts])).toEqual({
		cause: 'Swap: left back thigh 3 of 10.',
		where: 'Acceleration → A-run · Cut → nothing',
	})
	expect(sayTogether([starts, { ...cuts, instead: 'Wall drill and march' }])?.where).toBe(
		'Acceleration → A-run · Cut → wall drill and march',
	)
})
it('one ladder, and what is no swap, has its own sentence', () => {
	expect(sayTogether([starts])).toBeNull()
	expect(sayTogether([])).toBeNull()
	const closed = { pains: [pain({ region: 'back-thigh', score: 6 })] }
	const stop = {
		...starts,
		judgement: run('acceleration', stateAt('acceleration', 'three-point-10'), null, {}, closed),
	}
	expect(sayTogether([stop, stop])).toBeNull()
	expect(sayTogether([{ ...starts, judgement: { ...starts.judgement, trace: [] } }, cuts])).toBeNull()
})
