import { describe, expect, it } from 'vitest'
import { findCalculation } from '#core/calc/calculations'
import { MEASURED } from '#core/calc/measured'
import { frameAt, playableFormats, storedRateOf, timeOf } from './film-frames'
import { roundTicks } from '../ui/plot-frame'
import { type FormSpec, readForm, readPasted, readTyped } from './read-form'

const SPEC: FormSpec = {
	fields: [{ key: 'contact_ceiling_s', label: 'Goal', unit: 'ms', scale: 0.001 }],
	rows: {
		key: 'jumps',
		label: 'Jumps',
		atLeast: 1,
		columns: [
			{ key: 'box_m', label: 'Box', unit: 'cm', scale: 0.01 },
			{ key: 'contact_time_s', label: 'Contact', unit: 'ms', scale: 0.001 },
			{ key: 'flight_time_s', label: 'Flight', unit: 'ms', scale: 0.001 },
		],
	},
}
const series = findCalculation('drop-jump-series')!
const row = (box_m: string, contact_time_s: string, flight_time_s: string) => ({ box_m, contact_time_s, flight_time_s })
const read = (values: Record<string, string>, rows: Record<string, string>[]) =>
	readForm(SPEC, { values, rows }, series)

describe('what is typed', () => {
	it.each([
		['3,12', 3.12],
		[' 3.12 ', 3.12],
		['.5', 0.5],
		['−2', -2],
		['-2', -2],
		['12.', 12],
		['0', 0],
	])('%j is %d', (text, value) => {
		expect(readTyped(text)).toBe(value)
	})
	it.each(['abc', '1e9', '3.1.2', '3,1,2', '--2', '1 2'])('%j is not a number', (text) => {
		expect(readTyped(text)).toBeNaN()
	})
	it('is nothing when it is empty', () => {
		expect([readTyped(''), readTyped('  '), readTyped(undefined)]).toEqual([null, null, null])
	})
})

describe('a form of the bench', () => {
	it('computes in SI units from what is typed in others, and skips empty rows', () => {
		const done = read({ contact_ceiling_s: '150' }, [row('40', '147', '470'), row('', '', ''), row('0', '160', '400')])
		expect(done).toMatchObject({
			state: 'done',
			input: {
				contact_ceiling_s: 0.15,
				jumps: [{ box_m: 0.4, contact_time_s: 0.147, flight_time_s: 0.47 }, { box_m: 0 }],
			},
			output: { best_box_m: 0.4 },
		})
	})
	it('waits without a word while boxes are empty', () => {
		expect(read({}, [row('40', '147', '')])).toEqual({ state: 'incomplete', problems: {} })
		expect(read({ contact_ceiling_s: '150' }, [row('', '', '')])).toEqual({ state: 'incomplete', problems: {} })
	})
	it('says at its box what cannot be read or cannot be', () => {
		expect(read({ contact_ceiling_s: 'x' }, [row('40', 'y', '470')]).problems).toEqual({
			contact_ceiling_s: 'x is not a number.',
			'rows[0].contact_time_s': 'y is not a number.',
		})
		// The empty row above it does not count, and the box shown third is the one named.
		expect(
			read({ contact_ceiling_s: '150' }, [row('40', '147', '470'), row('', '', ''), row('40', '0', '470')]).problems,
		).toEqual({ 'rows[2].contact_time_s': 'Expected a number above 0 and below 3 s.' })
	})
	it('says at the whole what belongs to no box', () => {
		const spec: FormSpec = {
			fields: [],
			rows: {
				key: 'splits',
				label: '',
				atLeast: 2,
				columns: [
					{ key: 'distance_m', label: '', unit: '' },
					{ key: 'time_s', label: '', unit: '' },
				],
			},
			fixed: { correction: 'time' },
		}
		expect(
			readForm(
				spec,
				{
					values: {},
					rows: [
						{ distance_m: '10', time_s: '2' },
						{ distance_m: '20', time_s: '3.2' },
					],
				},
				findCalculation('sprint-profile')!,
			).problems[''],
		).toContain('at least 4 splits')
	})
	it('leaves its own fixed parts as they are', () => {
		const fixed = { right: { time_10_s: 1.8 } }
		readForm(
			{ fields: [{ key: 'right.time_505_s', label: '', unit: '' }], fixed },
			{ values: { 'right.time_505_s': '2.4' }, rows: [] },
			{ compute: (input) => input as Record<string, unknown> },
		)
		expect(fixed).toEqual({ right: { time_10_s: 1.8 } })
	})
})

describe('pasted text', () => {
	it.each([
		[
			'5\t1,33\n10\t2,05',
			[
				['5', '1,33'],
				['10', '2,05'],
			],
		],
		[
			'5;1.33\r\n10;2.05\n',
			[
				['5', '1.33'],
				['10', '2.05'],
			],
		],
		[
			'5 1.33\n10 2.05',
			[
				['5', '1.33'],
				['10', '2.05'],
			],
		],
		['1,33', [['1,33']]],
	])('%j has its cells', (text, cells) => {
		expect(readPasted(text)).toEqual(cells)
	})
})

describe('frames of a film', () => {
	const shown = (fps: number, frames: number[]) => frames.map((frame) => Number((frame / fps).toFixed(6)))
	it('give the stored rate, also when a browser left some out', () => {
		expect(storedRateOf(shown(240, [0, 1, 2, 3, 4, 5, 6, 7]))).toBe(240)
		expect(storedRateOf(shown(29.97, [0, 1, 3, 4, 6, 7, 8, 11]))).toBe(29.97)
		expect(storedRateOf(shown(30, [0, 1, 2, 3, 5, 6, 7, 9]))).toBe(30)
		expect(storedRateOf(shown(37, [0, 1, 2, 3, 5, 6, 7, 9]))).toBe(37)
		expect(storedRateOf(shown(240, [0, 1, 2]))).toBeNull()
	})
	it('are found again from where they were sought', () => {
		for (const fps of [23.976, 30, 59.94, 240])
			for (const frame of [0, 1, 24, 287, 9999]) expect(frameAt(Number((frame / fps).toFixed(6)), fps)).toBe(frame)
		expect(timeOf(24, 240)).toBeCloseTo(24.5 / 240, 12)
	})
	it('name what the browser plays', () => {
		expect(playableFormats((type) => (type.includes('vp') ? 'probably' : ''))).toEqual([
			'WebM with VP9',
			'WebM with VP8',
		])
	})
})

describe('axes', () => {
	it.each([
		[0, 9.4, [0, 2, 4, 6, 8, 10]],
		[0, 199, [0, 50, 100, 150, 200]],
		[0, 0.8, [0, 0.2, 0.4, 0.6, 0.8]],
	])('hold %d to %d in round steps', (from, to, ticks) => {
		expect(roundTicks(from, to)).toEqual(ticks)
	})
})

describe('what can be kept', () => {
	it('is a calculation that exists, with a line of its own', () => {
		for (const name of Object.keys(MEASURED)) expect(findCalculation(name)).toBeDefined()
		expect(MEASURED['drop-jump-series']!.headline({ best_box_m: null, by_box: [] })).toBe(
			'none within the contact ceiling',
		)
		expect(MEASURED.cod!.headline({ deficit_s: 0.65, asymmetry_pct: 17.2, quicker: 'left' })).toBe(
			'the turn costs 0.65 s, left quicker by 17 %',
		)
		expect(MEASURED.plants!.headline({ best: 'both-run-in', lagging: 'left' })).toBe('best both run-in, left lags')
	})
})
