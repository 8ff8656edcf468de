import { expect, it } from 'vitest'
import { processesFor } from './web-workers'

const GB = 1024 ** 3

it('serves from as many processes as there are cores, each with two gigabytes, and from one at least', () => {
	expect(processesFor(2, 16 * GB)).toBe(2)
	expect(processesFor(8, 16 * GB)).toBe(8)
	expect(processesFor(8, 16 * GB - 1)).toBe(7)
	expect(processesFor(8, 4 * GB)).toBe(2)
	expect(processesFor(4, 1 * GB)).toBe(1)
	expect(processesFor(1, 64 * GB)).toBe(1)
})
