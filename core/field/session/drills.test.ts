import { describe, expect, it } from 'vitest'
import { ATHLETES, ENTRIES, Phone, fourBySheet } from '../../../tests/support/afternoon'
import { STARTER_LIBRARY } from '../../library/starter-library'
import type { FieldSheet } from '../pack'
import { wasPlanned, withDrills } from './drills-now'
import { drillsToAdd } from './press'
import { drillsOfSession } from './stand'
import type { Tap } from './taps'

const [ILKA, AMARU, TOVE, NOOR] = ATHLETES.map(({ id }) => id) as [string, string, string, string]
const [STARTS, REBOUNDS, JUMPS, POGOS] = ENTRIES.map(({ id }) => id) as [string, string, string, string]
const NEW = '00000007-0000-7000-8000-000000000000'
const ids = (count: number, from = 0) =>
	Array.from({ length: count }, (_, n) => NEW.slice(0, -2) + String(n + from).padStart(2, '0'))
const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const add = (id: string, from = 0): Tap => ({ tap: 'further', drill: drill(id), ids: ids(5, from) })
const order = (phone: Phone) => phone.stand.sheet.entries.map(({ id }) => id)
const phoneWith = (change: (sheet: FieldSheet) => void = () => undefined) => {
	const sheet = fourBySheet()
	change(sheet)
	return new Phone(sheet)
}

describe('a drill that is moved', () => {
	it('is done earlier or later from then on, for every phone, and undone by its name', () => {
		const one = phoneWith()
		const two = new Phone(one.sheet, '00000005-0000-7000-8000-000000000002', one.all)
		one.tap({ tap: 'place', entryId: REBOUNDS, to: 3 })
		expect(order(one)).toEqual([STARTS, JUMPS, POGOS, REBOUNDS])
		expect(order(two)).toEqual(order(one))
		expect(one.stand.undoLabel).toBe('Rebounds moved to place 4')
		// What is shown stays what it was, and the arrows go through the new order.
		expect(one.stand.cursor.entryId).toBe(STARTS)
		one.tap({ tap: 'entry', by: 1 })
		expect(one.stand.cursor.entryId).toBe(JUMPS)
		two.tap({ tap: 'place', entryId: POGOS, to: 0 })
		expect(order(one)).toEqual([POGOS, STARTS, JUMPS, REBOUNDS])
		two.tap({ tap: 'undo' })
		expect(order(one)).toEqual([STARTS, JUMPS, POGOS, REBOUNDS])
		one.tap({ tap: 'undo' })
		expect(order(one)).toEqual([STARTS, REBOUNDS, JUMPS, POGOS])
	})
	it('stays inside the session; where it stands already, or is unknown, nothing is written', () => {
		const one = phoneWith()
		one.tap({ tap: 'place', entryId: REBOUNDS, to: 99 })
		expect(order(one).at(-1)).toBe(REBOUNDS)
		one.tap({ tap: 'place', entryId: REBOUNDS, to: -4 })
		expect(order(one)[0]).toBe(REBOUNDS)
		expect(one.tap({ tap: 'place', entryId: REBOUNDS, to: 0 })).toEqual([])
		expect(one.tap({ tap: 'place', entryId: NEW, to: 1 })).toEqual([])
	})
	it('moves a drill the order did not know with the one it stood behind', () => {
		const one = phoneWith()
		one.tap({ tap: 'place', entryId: STARTS, to: 3 })
		const late = { id: NEW, part: '', name: 'Late' }
		const behind = (at: number) => {
			const entries = [...one.sheet.entries]
			entries.splice(at, 0, late)
			return withDrills({ ...one.sheet, entries }, one.all, one.current).entries.map(({ id }) => id)
		}
		expect(behind(1)).toEqual([REBOUNDS, JUMPS, POGOS, STARTS, NEW])
		expect(behind(2)).toEqual([REBOUNDS, NEW, JUMPS, POGOS, STARTS])
		expect(behind(0)).toEqual([NEW, REBOUNDS, JUMPS, POGOS, STARTS])
	})
})

describe('a drill nobody planned', () => {
	it('comes after the one that is shown, asked once, for everybody in the dose their level begins with', () => {
		const one = phoneWith((sheet) => {
			sheet.athletes[0] = { ...sheet.athletes[0]!, level: 1 }
			sheet.athletes[1] = { ...sheet.athletes[1]!, level: 3 }
		}).at(1)
		expect(one.tap(add('pause-jump'))).toEqual([])
		expect(one.stand.cursor.asking?.words).toBe('Pause jump after this drill, for 4 athletes?')
		const [event] = one.tap({ tap: 'sure' })
		expect(event).toMatchObject({
			athleteId: null,
			kind: 'further',
			value: { entryId: NEW, after: REBOUNDS, drillId: 'pause-jump' },
		})
		expect(order(one)).toEqual([STARTS, REBOUNDS, NEW, JUMPS, POGOS])
		expect(one.stand.undoLabel).toBe('Pause jump added for 4 athletes')
		one.tap({ tap: 'go-to', entryId: NEW })
		expect(one.stand.everybody.map(({ line }) => [line.athleteId, line.dose])).toEqual([
			[ILKA, drill('pause-jump').doses[1]],
			[AMARU, drill('pause-jump').doses[3]],
			[TOVE, drill('pause-jump').doses[2]],
			[NOOR, drill('pause-jump').doses[2]],
		])
		expect(one.tap({ tap: 'reps', reps: 3, grade: null })[0]).toMatchObject({
			athleteId: ILKA,
			entryId: NEW,
			lineId: ids(5)[1],
		})
	})
	it('is not for who is barred from it, hurt, or away, and says so before', () => {
		const one = phoneWith((sheet) => {
			sheet.athletes[1] = { ...sheet.athletes[1]!, barred: ['broad-jump'] }
		})
		one.tap({ tap: 'here', athleteId: NOOR, present: false })
		one.limits = {
			[TOVE]: { closures: [{ region: 'knee', side: 'left', grade: 'closed', since: '2026-03-12' }], easyOnly: false },
		}
		one.tap(add('broad-jump'))
		expect(one.stand.cursor.asking?.words).toBe(
			'Broad jump and stick after this drill, for one athlete? Not for Amaru F., Tove B.: it is not for them today.',
		)
		one.tap({ tap: 'sure' })
		expect(one.stand.sheet.lines.filter(({ entryId }) => entryId === NEW).map(({ athleteId }) => athleteId)).toEqual([
			ILKA,
		])
	})
	it('is not offered, and not added, where nobody may: on wet ground, after the end', () => {
		const wet = phoneWith()
		const offered = () => drillsToAdd(wet.stand).map(({ drill: { id }, able }) => [id, able])
		expect(offered()).toContainEqual(['depth-jump', 4])
		wet.tap({ tap: 'conditions', value: { surface: 'wet-grass' } })
		expect(offered().map(([id]) => id)).not.toContain('depth-jump')
		wet.tap(add('depth-jump'))
		expect(wet.stand.cursor.asking).toBeNull()
		const planned = phoneWith((sheet) => {
			sheet.session.surface = 'wet-grass'
		})
		planned.tap(add('depth-jump'))
		expect(planned.stand.cursor.asking).toBeNull()
		const ended = phoneWith()
		ended.tap({ tap: 'cut-short', reason: 'time' })
		ended.tap({ tap: 'sure' })
		ended.tap(add('pogo'))
		expect(ended.stand.cursor.asking).toBeNull()
	})
	it('offers those first that most may do, the newest version of each', () => {
		const one = phoneWith((sheet) => {
			sheet.athletes[1] = { ...sheet.athletes[1]!, barred: ['broad-jump'] }
			const old = { ...drill('pogo'), version: 0, name: 'Old pogo' }
			sheet.drills = { 'pogo/0': old, ...sheet.drills }
		})
		expect(drillsToAdd(one.stand).map(({ drill: { id, version }, able }) => [id, version, able])).toEqual([
			['depth-jump', drill('depth-jump').version, 4],
			['pause-jump', drill('pause-jump').version, 4],
			['pogo', drill('pogo').version, 4],
			['three-point-start', drill('three-point-start').version, 4],
			['broad-jump', drill('broad-jump').version, 3],
		])
	})
	it('needs an id for itself and for every line', () => {
		const one = phoneWith()
		for (const count of [0, 1, 4]) {
			one.tap({ tap: 'further', drill: drill('pogo'), ids: ids(count) })
			expect(one.stand.cursor.asking, `${count} ids`).toBeNull()
		}
		one.tap({ tap: 'further', drill: drill('pogo'), ids: ids(5) })
		expect(one.stand.cursor.asking).not.toBeNull()
		one.tap({ tap: 'further', drill: { id: 'nobody-knows' as never, version: 1 }, ids: ids(5) })
		expect(one.stand.cursor.asking).toBeNull()
	})
	it('taken back is off the sheet, the phone at its first drill, also where a pack has it already', () => {
		const one = phoneWith()
		const wide = new Phone(one.sheet, '00000005-0000-7000-8000-000000000002', one.all)
		one.tap(add('pogo'))
		one.tap({ tap: 'sure' })
		const fetched = { ...one.sheet, entries: [...one.sheet.entries, { id: NEW, part: '', name: 'Pogo' }] }
		const held = () => withDrills(fetched, one.all, one.current).entries.map(({ id }) => id)
		// Fetched since, it stands last: it is shown where it was added all the same, and once.
		expect(held()).toEqual([STARTS, NEW, REBOUNDS, JUMPS, POGOS])
		wide.tap({ tap: 'go-to', entryId: NEW })
		one.tap({ tap: 'undo' })
		expect(order(wide)).toEqual([STARTS, REBOUNDS, JUMPS, POGOS])
		expect(wide.stand.cursor.entryId).toBe(STARTS)
		expect(held()).toEqual([STARTS, REBOUNDS, JUMPS, POGOS])
	})
	it('taken back by one phone while another logs on it stays where a pack has it: a mark is never without its drill', () => {
		const one = phoneWith()
		one.tap(add('pogo'))
		one.tap({ tap: 'sure' })
		const { sheet } = one.stand
		one.tap({ tap: 'go-to', entryId: NEW })
		one.tap({ tap: 'reps', reps: 8, grade: null })
		const [event] = one.all.filter(({ kind }) => kind === 'further')
		one.tap({ tap: 'take-back', events: [event!], label: 'a drill' })
		expect(withDrills(sheet, one.all, one.current).entries.map(({ id }) => id)).toContain(NEW)
	})
	it('added twice, and the first one moved on: each keeps its place', () => {
		const one = phoneWith().at(3)
		one.tap(add('pause-jump'))
		one.tap({ tap: 'sure' })
		one.tap(add('broad-jump', 10))
		one.tap({ tap: 'sure' })
		expect(order(one)).toEqual([STARTS, REBOUNDS, JUMPS, POGOS, ids(1, 10)[0], NEW])
		one.tap({ tap: 'place', entryId: NEW, to: 0 })
		expect(order(one)).toEqual([NEW, STARTS, REBOUNDS, JUMPS, POGOS, ids(1, 10)[0]])
	})
})

describe('what was added since a pack was fetched', () => {
	const added = () => {
		const one = phoneWith()
		one.tap(add('pogo'))
		one.tap({ tap: 'sure' })
		return one
	}
	it('is planned by nobody, and shown under its drill’s name; under none where the phone does not know it', () => {
		const one = added()
		const entry = (sheet = one.sheet) => withDrills(sheet, one.all, one.current).entries.find(({ id }) => id === NEW)!
		expect(entry()).toEqual({ id: NEW, part: 'added on the spot', name: 'Pogo' })
		expect([wasPlanned(entry()), wasPlanned(one.sheet.entries[0]!)]).toEqual([false, true])
		expect(entry({ ...one.sheet, drills: {} }).name).toBe('')
	})
	it('has the lines that were shown, each once, also where the pack brings some of them', () => {
		const one = added()
		const lines = (sheet: FieldSheet) =>
			withDrills(sheet, one.all, one.current).lines.filter(({ entryId }) => entryId === NEW)
		const shown = lines(one.sheet)
		expect(shown.map(({ athleteId }) => athleteId)).toEqual([ILKA, AMARU, TOVE, NOOR])
		expect(
			lines({ ...one.sheet, lines: [...one.sheet.lines, shown[1]!] })
				.map(({ id }) => id)
				.sort(),
		).toEqual(shown.map(({ id }) => id).sort())
		// The others keep theirs.
		expect(withDrills(one.sheet, one.all, one.current).lines).toHaveLength(one.sheet.lines.length + 4)
	})
	it('taken back leaves no line behind where a pack brought them, nor takes another drill’s', () => {
		const one = added()
		const fetched = withDrills(one.sheet, one.all, one.current)
		one.tap({ tap: 'undo' })
		const after = withDrills(fetched, one.all, one.current)
		expect(after.lines.map(({ id }) => id).sort()).toEqual(one.sheet.lines.map(({ id }) => id).sort())
		expect(after.entries.map(({ id }) => id)).toEqual([STARTS, REBOUNDS, JUMPS, POGOS])
	})
	it('stays for a mark of its own, not for one of another drill', () => {
		const one = added()
		const { sheet } = one.stand
		one.tap({ tap: 'reps', reps: 4, grade: null })
		const [event] = one.all.filter(({ kind }) => kind === 'further')
		one.tap({ tap: 'take-back', events: [event!], label: 'a drill' })
		expect(withDrills(sheet, one.all, one.current).entries.map(({ id }) => id)).not.toContain(NEW)
	})
	it('of two added after one drill stands in the order of their times, whatever order they came in', () => {
		const one = added()
		one.tap(add('broad-jump', 10))
		one.tap({ tap: 'sure' })
		const [first, second] = [
			order(one),
			withDrills(one.sheet, one.all, [...one.current].reverse()).entries.map(({ id }) => id),
		]
		expect(second).toEqual(first)
		expect(first).toEqual([STARTS, ids(1, 10)[0], NEW, REBOUNDS, JUMPS, POGOS])
	})
	it('without anything added or moved the sheet is the pack’s own', () => {
		const one = phoneWith()
		expect(withDrills(one.sheet, one.all, one.current)).toBe(one.sheet)
	})
})

describe('the list of drills', () => {
	it('says how far everybody is who is here', () => {
		const one = phoneWith((sheet) => {
			sheet.lines = sheet.lines
				.filter(({ entryId }) => entryId !== POGOS)
				.map((line) => (line.entryId === JUMPS && line.athleteId === ILKA ? { ...line, blocked: 'knee' } : line))
		})
		const far = () => drillsOfSession(one.stand).map(({ people, done, over }) => [people, done, over])
		expect(far()).toEqual([
			[4, 0, false],
			[4, 0, false],
			[3, 0, false],
			[0, 0, true],
		])
		one.tap({ tap: 'end', reason: 'coach', who: 'one' })
		expect(far()[0]).toEqual([4, 1, false])
		one.tap({ tap: 'here', athleteId: NOOR, present: false })
		one.tap({ tap: 'end', reason: 'coach', who: 'shown' })
		one.tap({ tap: 'sure' })
		expect(far()[0]).toEqual([3, 3, true])
		expect(far()[1]).toEqual([3, 0, false])
	})
	it('goes to one of them, and nowhere else', () => {
		const one = phoneWith()
		one.tap({ tap: 'pick', athleteId: TOVE })
		one.tap({ tap: 'go-to', entryId: JUMPS })
		expect([one.stand.cursor.entryId, one.name]).toEqual([JUMPS, 'Ilka Moreau'])
		one.tap({ tap: 'go-to', entryId: NEW })
		expect(one.stand.cursor.entryId).toBe(JUMPS)
	})
})
