import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { LogEvent } from '../vocabulary/events'
import { type Ask, toAsk } from './to-ask'

// Not asked is not quiet: asked once after the easy form or the step, of the region it is about.

// The A-skip loads the calf a little, the chest push no leg at all.
const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const line = (id: string, repsDone = 6, finished = true) => ({ drill: drill(id), repsDone, finished })
const said = (kind: 'quiet' | 'pain', region: string, side: string, more: object = {}): LogEvent =>
	({ kind, type: 'observation', athleteId: 'a', value: { region, side, score: 0 }, ...more }) as unknown as LogEvent
const calf: Ask = { region: 'calf', side: 'left' }
const asked = (lines: Parameters<typeof toAsk>[1], events: LogEvent[] = [], ask: Ask[] = [calf]) =>
	toAsk({ id: 'a', ask }, lines, events).map((one) => one.region)

describe('how was it?', () => {
	const easy = Object.values(STARTER_LIBRARY.drills).find((one) => one.regions.calf === 1)!.id
	const other = Object.values(STARTER_LIBRARY.drills).find((one) => one.regions.calf === undefined)!.id
	it('after a line that loads it, and not before it is over', () => {
		expect(asked([line(easy)])).toEqual(['calf'])
		expect(asked([line(easy, 3, false)])).toEqual([])
		expect(asked([])).toEqual([])
	})
	it('not after a line that was ended with nothing done, nor one that loads something else', () => {
		expect(asked([line(easy, 0)])).toEqual([])
		expect(asked([line(other)])).toEqual([])
		expect(asked([line(other), line(easy)])).toEqual(['calf'])
		expect(asked([{ drill: undefined, repsDone: 3, finished: true }])).toEqual([])
	})
	it('after head or chest, after anything', () => {
		expect(asked([line(other)], [], [{ region: 'neck-head', side: 'both', afterAnything: true }])).toEqual([
			'neck-head',
		])
	})
	it.each([
		['asked already', said('quiet', 'calf', 'left'), []],
		['asked of both', said('quiet', 'calf', 'both'), []],
		['asked of the other side', said('quiet', 'calf', 'right'), ['calf']],
		['asked of another region', said('quiet', 'knee', 'left'), ['calf']],
		['another was asked', said('quiet', 'calf', 'left', { athleteId: 'b' }), ['calf']],
		['the answer was taken back', said('quiet', 'calf', 'left', { void: true }), ['calf']],
		['it hurt already today', said('pain', 'calf', 'left'), []],
	] as [string, LogEvent, string[]][])('%s', (_name, event, expected) => {
		expect(asked([line(easy)], [event])).toEqual(expected)
	})
	it('nobody without anything to ask', () => {
		expect(toAsk({ id: 'a' }, [line(easy)], [])).toEqual([])
	})
})
