import { expect, it } from 'vitest'
import { breathe } from './breathe'

const hold = (ms: number) => {
	for (const until = performance.now() + ms; performance.now() < until; );
}

it('long work lets go what others have asked for meanwhile, and short work goes on', async () => {
	const order: string[] = []
	const work = async () => {
		await breathe()
		setImmediate(() => order.push('another'))
		await breathe()
		order.push('short')
		hold(20)
		await breathe()
		order.push('long')
	}
	await work()
	expect(order).toEqual(['short', 'another', 'long'])
})
