import { describe, expect, it } from 'vitest'
import { actOn } from './intents'

const sent = (fields: Record<string, string>) =>
	new Request('http://localhost/', { method: 'POST', body: new URLSearchParams(fields) })
const forms = {
	open: async ({ text }: { text(name: string): string }) => `opened ${text('region')}`,
	end: async () => 'ended',
}

describe('the forms of a page', () => {
	it('go to the handler they name', async () => {
		expect(await actOn(sent({ do: 'open', region: 'knee' }), forms)).toBe('opened knee')
		expect(await actOn(sent({ do: 'end', region: 'knee' }), forms)).toBe('ended')
	})
	it('a field that was not sent is empty', async () => {
		expect(await actOn(sent({ do: 'open' }), forms)).toBe('opened ')
	})
	it.each(['', 'close', 'OPEN', 'toString', 'constructor', '__proto__'])(
		'“%s”, which the page does not have, is refused and never taken for another',
		async (name) => {
			await expect(actOn(sent(name === '' ? {} : { do: name }), forms)).rejects.toMatchObject({ status: 400 })
		},
	)
})
