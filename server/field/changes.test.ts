import { expect, it } from 'vitest'
import { lookEvery } from './changes'

// Fifty phones are looked after every 400 ms, 125 looks a second; however many more there are, the looks stay as many.
it.each([
	[1, 400],
	[50, 400],
	[51, 408],
	[100, 800],
	[1000, 8000],
])('with %d phones that wait, the next look is in %d ms', (waiting, ms) => expect(lookEvery(waiting)).toBe(ms))
