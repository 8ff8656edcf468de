import { describe, expect, it } from 'vitest'
import { MeasureError } from '../measure-error'
import { fitSpeedTrace } from './fit-speed-trace'

/** 9 m/s (1 − e⁻ᵗ⧸¹·²) after one, two and four times 1.2 s: e⁻¹, e⁻² and e⁻⁴ from a table. */
const TRACE = [
	{ timeS: 4.8, speedMps: 9 * (1 - 0.018315639) },
	{ timeS: 1.2, speedMps: 9 * (1 - 0.367879441) },
	{ timeS: 2.4, speedMps: 9 * (1 - 0.135335283) },
]

describe('a speed trace', () => {
	it('gives back the curve it was taken from, in any order, and 9 ÷ 1.2 m/s² at the start', () => {
		const fit = fitSpeedTrace(TRACE)
		expect(fit.mssMps).toBeCloseTo(9, 6)
		expect(fit.tauS).toBeCloseTo(1.2, 6)
		expect(fit.macMps2).toBeCloseTo(7.5, 5)
		expect(fit.residualSdMps).toBeCloseTo(0, 6)
		expect([fit.se.mssMps, fit.se.tauS].map((error) => error!.toFixed(4))).toEqual(['0.0000', '0.0000'])
	})
	it('of two samples goes through both and says nothing of how sure it is', () => {
		const fit = fitSpeedTrace(TRACE.slice(1))
		expect([fit.mssMps, fit.tauS].map((value) => value.toFixed(4))).toEqual(['9.0000', '1.2000'])
		expect([fit.residualSdMps, fit.se.mssMps, fit.se.tauS]).toEqual([null, null, null])
	})
	it('may hold a speed of nothing, as before the first step', () => {
		expect(fitSpeedTrace([...TRACE, { timeS: 0.001, speedMps: 0 }]).mssMps).toBeCloseTo(9, 1)
	})
	it.each<[string, { timeS: number; speedMps: number }[], string, string]>([
		['one sample', TRACE.slice(0, 1), 'samples', 'at least 2 samples'],
		['the moment of the start', [TRACE[0]!, { timeS: 0, speedMps: 1 }], 'samples[1].timeS', 'above 0 s'],
		['a speed backwards', [TRACE[0]!, { timeS: 1, speedMps: -0.1 }], 'samples[1].speedMps', 'm/s'],
		['nobody who moves', TRACE.map(({ timeS }) => ({ timeS, speedMps: 0 })), 'samples', 'a speed above 0 m/s'],
	])('refuses %s', (_, samples, field, expected) => {
		let said: unknown
		try {
			fitSpeedTrace(samples)
		} catch (error) {
			said = error
		}
		expect(said).toBeInstanceOf(MeasureError)
		expect((said as MeasureError).field).toBe(field)
		expect((said as MeasureError).message).toContain(expected)
	})
})
