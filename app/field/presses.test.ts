import { expect, it } from 'vitest'
import { keyPress, tapPress } from './presses'

it('a control on the line is the same one whoever stands there; what it says makes it another', () => {
	const set = (athleteId: string, grade: 'good' | 'poor') => tapPress({ tap: 'reps', athleteId, reps: 8, grade })
	expect(set('ilka', 'good')).toEqual(set('amaru', 'good'))
	expect(set('ilka', 'good').what).not.toBe(set('ilka', 'poor').what)
	expect(tapPress({ tap: 'undo' }).about).toBe('line')
})

it('what names whom it is about is another one for somebody else', () => {
	const hurt = (athleteId: string) => tapPress({ tap: 'report', athleteId, report: { kind: 'head' } })
	expect(hurt('ilka').what).not.toBe(hurt('amaru').what)
	expect(hurt('ilka').about).toBe('named')
})

it('Save and Same are one place; what the number is made of may come twice', () => {
	expect(keyPress({ key: 'same', label: '181 ms' })).toEqual(keyPress({ key: 'save' }))
	expect(keyPress({ key: 'missed' }).what).not.toBe(keyPress({ key: 'save' }).what)
	expect(keyPress({ key: 'missed' }).about).toBe('line')
	for (const key of [
		{ key: 'digit', digit: '1' },
		{ key: 'delete' },
		{ key: 'side', side: 'left' },
		{ key: 'box', at: 1 },
		{ key: 'watch', atMs: 12 },
	] as const)
		expect(keyPress(key).about).toBe('number')
})
