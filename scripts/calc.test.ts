import { spawnSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'

const calc = (args: string[], input = '') =>
	spawnSync(process.execPath, ['scripts/run.mjs', 'calc', ...args], { input, encoding: 'utf8' })

describe('calc command', () => {
	it('answers on standard output', () => {
		const { status, stdout, stderr } = calc(['energy'], '{"mass_kg":2,"speed_mps":3}')
		expect([status, JSON.parse(stdout), stderr]).toEqual([0, { kinetic_energy_j: 9 }, ''])
	})
	it('says a bad number on standard error with exit 1, bad input with exit 2', () => {
		const bad = calc(['jump-height'], '{"flight_time_s":0}')
		expect([bad.status, bad.stdout]).toEqual([1, ''])
		expect(JSON.parse(bad.stderr)).toMatchObject({
			error: { field: 'flight_time_s', value: 0, expected: 'a number above 0 and below 1.5 s' },
		})
		for (const [name, input] of [
			['jump-height', '{"flight_time_s":NaN}'],
			['jump-height', '{"flight_time_s":"0.5"}'],
			['jump-height', ''],
			['no-such', '{}'],
			['jump-height', '{"flight_time_s":1e999}'],
		] as const) {
			const refused = calc([name], input)
			expect([refused.status, refused.stdout]).toEqual([2, ''])
			expect(JSON.parse(refused.stderr)).toHaveProperty('error.expected')
		}
	})
	it('reads JSON lines and keeps them side by side', () => {
		const { status, stdout } = calc(
			['curve', '--batch'],
			'{"radius_m":10,"speed_mps":5}\n{"radius_m":0,"speed_mps":5}\n\nnot json\n{"radius_m":20,"speed_mps":5}\n',
		)
		const lines = stdout
			.trim()
			.split('\n')
			.map((line) => JSON.parse(line) as Record<string, unknown>)
		expect(status).toBe(2)
		expect(
			lines.map((line) => ('error' in line ? (line.error as { field: string }).field : line.centripetal_mps2)),
		).toEqual([2.5, 'radius_m', '', 1.25])
	})
	it('says nothing to who reads the first line only', () => {
		// Five thousand lines are more than a pipe holds.
		const input = '{"mass_kg":2,"speed_mps":3}\n'.repeat(5000)
		const command = `"${process.execPath}" scripts/run.mjs calc energy --batch | head -1`
		const { stdout, stderr } = spawnSync('bash', ['-c', command], { input, encoding: 'utf8' })
		expect([JSON.parse(stdout), stderr]).toEqual([{ kinetic_energy_j: 9 }, ''])
	})
	it('lists the names and prints schemas', () => {
		expect(
			calc(['--list'])
				.stdout.split('\n')
				.filter(Boolean)
				.map((line) => line.split(' ')[0]),
		).toContain('sprint-profile')
		expect(JSON.parse(calc(['cod', '--schema']).stdout)).toMatchObject({
			name: 'cod',
			input: { type: 'object', additionalProperties: false },
			output: { type: 'object' },
		})
		expect(calc([]).status).toBe(2)
		expect(calc(['cod', '--nope']).status).toBe(2)
	})
})
