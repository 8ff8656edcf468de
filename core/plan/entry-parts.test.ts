import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { SessionEntry } from '../vocabulary/entry'
import { isSound } from '../vocabulary/sound'
import { entryName, freshEntry, namesOn, partsOf, wholeEntry } from './entry-parts'

const ID = '0190a1b2-0000-7000-8000-000000000001'
const onDrill = (drillId: string) => freshEntry(ID, { drillId, ladderId: null }, STARTER_LIBRARY)
const onLadder = (ladderId: string) => freshEntry(ID, { ladderId }, STARTER_LIBRARY)

describe('a drill or a ladder put on a sheet', () => {
	it('brings a drill’s own dose, rests and parameters', () => {
		expect(onDrill('depth-jump')).toEqual({
			id: ID,
			part: 'Depth jump',
			drillId: 'depth-jump',
			ladderId: null,
			dose: { sets: 5, reps: 2 },
			rest: { repsS: 8, setsS: 150 },
			parameters: { heightCm: 30 },
			doseFactor: 1,
			lanes: 1,
			together: 1,
			tuning: null,
		})
	})
	it('leaves a ladder’s parameters to the rungs, and stands for the drill of the first', () => {
		expect(onLadder('acceleration')).toMatchObject({
			part: 'Acceleration',
			drillId: 'wall-drill',
			ladderId: 'acceleration',
			dose: { sets: 3, reps: 6 },
			parameters: {},
		})
	})
	it('takes the part and the lanes it is given', () => {
		const place = { part: 'Starts', lanes: 3 }
		expect(freshEntry(ID, { drillId: 'pogo', ladderId: null }, STARTER_LIBRARY, place)).toMatchObject(place)
	})
	it('is a sound entry for whatever the library holds, and nothing for what it does not', () => {
		for (const id of Object.keys(STARTER_LIBRARY.drills)) expect(isSound(SessionEntry, onDrill(id)), id).toBe(true)
		for (const id of Object.keys(STARTER_LIBRARY.ladders)) expect(isSound(SessionEntry, onLadder(id)), id).toBe(true)
		expect([onDrill('moonwalk'), onLadder('moonwalk')]).toEqual([null, null])
		// A ladder of a club whose first drill is gone.
		const { 'wall-drill': _gone, ...drills } = STARTER_LIBRARY.drills
		expect(freshEntry(ID, { ladderId: 'acceleration' }, { ...STARTER_LIBRARY, drills })).toBeNull()
	})
})

describe('what an entry speaks of', () => {
	it('is its drill, or its ladder with the drill of the first rung and the ladder’s family', () => {
		expect(partsOf({ drillId: 'pogo', ladderId: null }, STARTER_LIBRARY)).toMatchObject({
			drill: { id: 'pogo' },
			ladder: null,
			family: 'plyometric',
			name: 'Pogo',
		})
		// Capacity begins with an easy run, which prepares; the ladder is what decides.
		const capacity = partsOf({ drillId: 'pogo', ladderId: 'capacity' }, STARTER_LIBRARY)!
		expect([capacity.drill.id, capacity.ladder?.id, capacity.family]).toEqual([
			'easy-run',
			'capacity',
			STARTER_LIBRARY.ladders.capacity!.family,
		])
		expect(partsOf({ drillId: 'pogo', ladderId: 'moonwalk' }, STARTER_LIBRARY)).toBeNull()
	})
	it('is called by its ladder or drill; by its part with a form for each level, and when its documents are gone', () => {
		const name = (change: object) =>
			entryName({ part: 'The part', drillId: 'pogo', ladderId: null, tuning: null, ...change }, STARTER_LIBRARY)
		expect([
			name({}),
			name({ ladderId: 'stiffness' }),
			name({ tuning: { strict: true } }),
			name({ tuning: { variants: {} } }),
			name({ drillId: 'moonwalk' }),
			name({ ladderId: 'moonwalk' }),
		]).toEqual(['Pogo', 'Stiffness', 'Pogo', 'The part', 'The part', 'The part'])
	})
})

describe('what an entry does not say', () => {
	it('is filled from its drill, and nothing it says is touched', () => {
		const fly = onDrill('fly-10')!
		expect(wholeEntry({ ...fly, parameters: { runInM: 30 } }, STARTER_LIBRARY).parameters).toEqual({
			distanceM: 10,
			runInM: 30,
		})
	})
	it('stays open on a ladder, and where the drill is gone', () => {
		const ladder = onLadder('top-speed')!
		expect(wholeEntry(ladder, STARTER_LIBRARY)).toEqual(ladder)
		const gone = { ...onDrill('pogo')!, drillId: 'moonwalk' }
		expect(wholeEntry(gone, STARTER_LIBRARY)).toEqual(gone)
	})
})

it('entries of one sheet that would be called alike are told apart by their parts', () => {
	const entry = (id: string, drillId: string, part: string) => ({ ...onDrill(drillId)!, id: id as never, part })
	const names = namesOn(
		[
			entry('a', 'pogo', 'Before'),
			entry('b', 'depth-jump', 'Main'),
			entry('c', 'pogo', 'After'),
			entry('d', 'pogo', 'Pogo'),
		],
		STARTER_LIBRARY,
	)
	expect([...names]).toEqual([
		['a', 'Before, pogo'],
		['b', 'Depth jump'],
		['c', 'After, pogo'],
		['d', 'Pogo'],
	])
})
