import { validate, version } from 'uuid'
import { expect, it } from 'vitest'
import { Random } from './random'

const some = (kind: 'uuid' | 'risingUuid', seed: number) => {
	const random = new Random(seed)
	return Array.from({ length: 300 }, () => random[kind]())
}
it.each([
	['uuid', 4],
	['risingUuid', 7],
] as const)('%s is a UUID of version %d: the same of the same seed, none of them of another', (kind, of) => {
	const ids = some(kind, 7)
	expect(ids.every((id) => validate(id) && version(id) === of)).toBe(true)
	expect(some(kind, 7)).toEqual(ids)
	expect(new Set([...ids, ...some(kind, 8)]).size).toBe(600)
})
it('rises where it is asked to', () => {
	expect(some('risingUuid', 7)).toEqual(some('risingUuid', 7).sort())
	expect(some('uuid', 7)).not.toEqual(some('uuid', 7).sort())
})
