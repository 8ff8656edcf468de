import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { quantitiesOf } from '../plan/targets'
import { countLine } from './count-line'
import { LOAD, lineLoad, loadOf } from './line-load'
import { rampValue } from './ramp'

describe('a line’s load', () => {
	it('is the same as the count it is short for, for every drill, leg length and number of reps', () => {
		for (const drill of Object.values(STARTER_LIBRARY.drills))
			for (const legLengthM of [null, 0.8, 1])
				for (const reps of [1, 2, 5, 12]) {
					const { parameters } = drill.defaults
					const count = countLine(drill, parameters, { sets: 1, reps }, legLengthM === null ? {} : { legLengthM })
					const load = lineLoad(drill, parameters, reps, legLengthM)
					expect([...load], `${drill.id} × ${reps}`).toEqual([...loadOf(count)])
					expect(quantitiesOf(count)).toEqual({
						contacts: load[LOAD.contacts],
						fastMetres: load[LOAD.fastMetres],
						cuts60: load[LOAD.cuts60],
						throws: load[LOAD.throws],
					})
					expect(rampValue(count, 'hardContacts')).toBe(Math.max(load[LOAD.hardLeft]!, load[LOAD.hardRight]!))
					expect([
						rampValue(count, 'sharpCuts'),
						rampValue(count, 'maximalStarts'),
						rampValue(count, 'fastMetres'),
					]).toEqual([load[LOAD.sharpCuts], load[LOAD.maximalStarts], load[LOAD.metresOver90]])
				}
	})
})
