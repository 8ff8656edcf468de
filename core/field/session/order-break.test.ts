import { describe, expect, it } from 'vitest'
import { ATHLETES, ENTRIES, Phone, fourBySheet, lineOf } from '../../../tests/support/afternoon'
import { orderBreak } from './order-break'

const [ILKA, AMARU, TOVE, NOOR] = ATHLETES.map(({ id }) => id) as [string, string, string, string]
/** 3.0, 3.2, 3.4 and 3.6 s over 20 m on a usual day. */
const USUAL = [3.0, 3.2, 3.4, 3.6]
let ids = 0

function phone(usual = USUAL) {
	const sheet = fourBySheet()
	const lines = sheet.lines.map((line) => {
		const index = ATHLETES.findIndex(({ id }) => id === line.athleteId)
		return line.entryId === ENTRIES[0]!.id ? { ...line, usuals: { gate: usual[index]! } } : line
	})
	return new Phone({ ...sheet, lines })
}
/** A run by gates that was given to somebody. */
function gave(one: Phone, athleteId: string, timeS: number, repNo = 1) {
	const index = ATHLETES.findIndex(({ id }) => id === athleteId)
	const mark = {
		athleteId,
		entryId: ENTRIES[0]!.id,
		lineId: lineOf(0, index).id,
		setNo: 1,
		repNo,
		source: `0000000d-0000-7000-8000-${String(ids++).padStart(12, '0')}`,
		type: 'mark',
		kind: 'sprint',
		value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
	}
	one.tap({ tap: 'reading', mark: mark as never, words: '' })
}
const asked = (one: Phone, settled: string[] = []) => {
	const broken = orderBreak(one.stand, new Set(settled))
	return broken && { words: broken.words, to: broken.moves.map(({ to }) => to.line.athleteId), key: broken.key }
}

describe('the order of runs by gates', () => {
	it('that was kept is not asked about, nor are runs that were typed', () => {
		const one = phone()
		for (const [index, id] of [ILKA, AMARU, TOVE, NOOR].entries()) gave(one, id, USUAL[index]! + 0.02)
		expect(asked(one)).toBeNull()
		expect(asked(phone())).toBeNull()
		const typed = phone()
		typed.tap({
			tap: 'mark',
			measured: { kind: 'sprint', value: { splits: [{ distanceM: 20, timeS: 3.2 }], method: 'gate' } },
			label: '',
		})
		expect(asked(typed)).toBeNull()
	})
	it('with somebody left out moves what came after one place on, in one question and one undo', () => {
		const one = phone()
		// Ilka did not run: Amaru's, Tove's and Noor's runs were given to Ilka, Amaru and Tove.
		for (const [index, id] of [ILKA, AMARU, TOVE].entries()) gave(one, id, USUAL[index + 1]!)
		const question = asked(one)!
		expect(question.words).toBe('It looks as if Ilka M. did not run: 3 times one place on?')
		expect(question.to).toEqual([AMARU, TOVE, NOOR])
		const before = one.current.length
		one.tap({ tap: 'reorder', moves: orderBreak(one.stand, new Set())!.moves })
		expect(one.stand.undoLabel).toBe('3 times moved')
		// The last of them went to Noor: Ilka is next.
		expect(one.name).toBe('Ilka Moreau')
		expect(
			one.current.map(({ athleteId, value }) => [
				athleteId,
				(value as { splits: { timeS: number }[] }).splits[0]!.timeS,
			]),
		).toEqual([
			[AMARU, 3.2],
			[TOVE, 3.4],
			[NOOR, 3.6],
		])
		expect(
			one.current.every(
				(event) =>
					'lineId' in event &&
					one.sheet.lines.some(({ id, athleteId }) => id === event.lineId && athleteId === event.athleteId),
			),
		).toBe(true)
		expect(one.current).toHaveLength(before)
		expect(asked(one)).toBeNull()
		one.tap({ tap: 'undo' })
		expect(one.current.map(({ athleteId }) => athleteId).sort()).toEqual([ILKA, AMARU, TOVE])
	})
	it('with two changed is asked about as that, and not again after a no', () => {
		const one = phone([3.0, 3.2, 3.6, 3.4])
		for (const [id, timeS] of [
			[ILKA, 3.0],
			[AMARU, 3.6],
			[TOVE, 3.2],
			[NOOR, 3.4],
		] as const)
			gave(one, id, timeS)
		const question = asked(one)!
		expect(question.words).toBe('It looks as if Amaru F. and Tove B. changed places: change their times?')
		expect(question.to).toEqual([TOVE, AMARU])
		expect(asked(one, [question.key])).toBeNull()
	})
	it('is not asked about where two run alike: a run says nothing then', () => {
		const one = phone([3.2, 3.21, 3.2, 3.21])
		for (const id of [ILKA, AMARU, TOVE, NOOR]) gave(one, id, 3.2)
		expect(asked(one)).toBeNull()
	})
	it('gives nobody a second run of the same round', () => {
		const one = phone()
		// Amaru's run stands with Ilka, and Amaru has their own already.
		gave(one, ILKA, 3.2)
		gave(one, AMARU, 3.2)
		gave(one, TOVE, 3.4)
		expect(asked(one)?.to ?? []).not.toEqual([AMARU])
	})
	it('takes two runs of one while the next has none for the next one’s', () => {
		const one = phone([3.2, 3.24, 3.6, 3.6])
		gave(one, ILKA, 3.24)
		gave(one, ILKA, 3.2, 2)
		expect(asked(one)).toMatchObject({
			to: [AMARU],
			words: 'It looks as if Ilka M. did not run: that time one place on?',
		})
	})
	it('weighs by the own curve where there is no usual, and says nothing without a distance or a split at it', () => {
		// Curves that make 3.0, 3.2, 3.4 and 3.6 s of 20 m, near enough; each spread is 5 %, so that it takes people far apart.
		const far = [2.7, 3.3, 4.0, 4.9]
		const curveOf = (timeS: number) => {
			let mssMps = 4
			while (mssMps * (timeS - 0.9 * (1 - Math.exp(-timeS / 0.9))) < 20) mssMps += 0.001
			return { mssMps, tauS: 0.9 }
		}
		const sheet = fourBySheet()
		const athletes = sheet.athletes.map((athlete, index) => ({ ...athlete, curve: curveOf(far[index]!) }))
		const one = new Phone({ ...sheet, athletes })
		for (const [index, id] of [ILKA, AMARU, TOVE].entries()) gave(one, id, far[index + 1]!)
		expect(asked(one)).toMatchObject({ to: [AMARU, TOVE, NOOR] })
		const none = new Phone({ ...sheet, athletes, lines: sheet.lines.map((line) => ({ ...line, parameters: {} })) })
		for (const [index, id] of [ILKA, AMARU, TOVE].entries()) gave(none, id, far[index + 1]!)
		expect(asked(none)).toBeNull()
		const longer = new Phone({
			...sheet,
			athletes,
			lines: sheet.lines.map((line) => ({ ...line, parameters: { distanceM: 30 } })),
		})
		for (const [index, id] of [ILKA, AMARU, TOVE].entries()) gave(longer, id, far[index + 1]!)
		expect(asked(longer)).toBeNull()
	})
	it('looks at no more than the last twelve runs, in the order they were run', () => {
		const one = phone()
		// A round out of order, then three rounds in order: it lies too far back.
		for (const [index, id] of [ILKA, AMARU, TOVE].entries()) gave(one, id, USUAL[index + 1]!)
		expect(asked(one)).not.toBeNull()
		for (const round of [2, 3, 4])
			for (const [index, id] of [ILKA, AMARU, TOVE, NOOR].entries()) gave(one, id, USUAL[index]!, round)
		expect(asked(one)).toBeNull()
	})
	it('of somebody’s reps of another round is none of this one', () => {
		const one = phone()
		for (const round of [1, 2])
			for (const [index, id] of [ILKA, AMARU, TOVE, NOOR].entries()) gave(one, id, USUAL[index]!, round)
		// Third round: Ilka is left out.
		for (const [index, id] of [ILKA, AMARU, TOVE].entries()) gave(one, id, USUAL[index + 1]!, 3)
		const question = asked(one)!
		expect(question.words).toBe('It looks as if Ilka M. did not run: 3 times one place on?')
		expect(question.to).toEqual([AMARU, TOVE, NOOR])
		// Answered with no, the same is not asked again; after one more run it is another question.
		expect(asked(one, [question.key])).toBeNull()
		expect(question.key).toMatch(/^order \S+>\S+ \S+>\S+ \S+>\S+$/)
	})
	it('changed places of two who did not run one after the other are not guessed at', () => {
		const one = phone([3.0, 3.2, 3.4, 3.6])
		for (const [id, timeS] of [
			[ILKA, 3.4],
			[AMARU, 3.2],
			[TOVE, 3.0],
			[NOOR, 3.6],
		] as const)
			gave(one, id, timeS)
		expect(asked(one)?.words ?? '').not.toContain('Ilka M. and Tove B.')
	})
	it('is asked from three times likelier on, with how often somebody is left out in it', () => {
		// One run between two who are known to 0.02 s of the gate and 0.8 % of the day: near neither, nobody asks.
		const between = (timeS: number) => {
			const one = phone([3.0, 3.2, 3.9, 4.4])
			gave(one, ILKA, timeS)
			return asked(one)
		}
		expect(between(3.1)).toBeNull()
		expect(between(3.2)).toMatchObject({ to: [AMARU] })
	})
	it('a run at another distance than the line asks says nothing of either', () => {
		const one = phone([3.0, 3.2, 3.4, 3.6])
		const lines = one.sheet.lines.map((line) =>
			line.athleteId === ATHLETES[1]!.id ? { ...line, parameters: { distanceM: 30 } } : line,
		)
		const mixed = new Phone({ ...one.sheet, lines })
		// Ilka's 20 m, much slower than hers: Amaru runs 30 m, so it is none of his.
		gave(mixed, ILKA, 3.2)
		expect(asked(mixed)).toBeNull()
	})
	it('of one athlete twice in a row is no change of places', () => {
		const one = phone()
		gave(one, ILKA, 3.0)
		gave(one, ILKA, 3.02, 2)
		expect(asked(one)).toBeNull()
	})
})
