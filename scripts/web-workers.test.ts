import { describe, expect, it } from 'vitest'
import { beginUntilItDoes, processesFor } from './web-workers'

const GB = 1024 ** 3

it('serves from as many processes as there are cores, each with two gigabytes, and from one at least', () => {
	expect(processesFor(2, 16 * GB)).toBe(2)
	expect(processesFor(8, 16 * GB)).toBe(8)
	expect(processesFor(8, 16 * GB - 1)).toBe(7)
	expect(processesFor(8, 4 * GB)).toBe(2)
	expect(processesFor(4, 1 * GB)).toBe(1)
	expect(processesFor(1, 64 * GB)).toBe(1)
})

describe('a web process in the place of one that has ended', () => {
	const tried = async (failing: number, wantedFor = Number.POSITIVE_INFINITY) => {
		const [said, pauses]: [string[], number[]] = [[], []]
		let begun = 0
		await beginUntilItDoes(
			async () => {
				begun++
				if (begun <= failing) throw new Error('it ended')
			},
			() => pauses.length < wantedFor,
			(sentence) => said.push(sentence),
			async (ms) => void pauses.push(ms),
		)
		return { begun, said, pauses }
	}
	it('begins at once, and nothing is said', async () =>
		expect(await tried(0)).toEqual({ begun: 1, said: [], pauses: [] }))
	it('that does not begin is said each time, and tried again after longer and longer, half a minute at most', async () => {
		const { begun, said, pauses } = await tried(7)
		expect(begun).toBe(8)
		expect(pauses).toEqual([1000, 2000, 4000, 8000, 16_000, 30_000, 30_000])
		expect(said).toHaveLength(7)
		expect(said[1]).toBe('A web process has ended before it served; another one in 2 s …')
	})
	it('is not begun any more once nobody wants it', async () => {
		expect((await tried(9, 2)).begun).toBe(2)
		expect((await tried(9, 0)).begun).toBe(0)
	})
})
