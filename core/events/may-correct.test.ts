import { describe, expect, it } from 'vitest'
import { CORRECTED_BY, EVENT_SCHEMAS, type LogEvent } from '../vocabulary/events'
import { type Corrects, mayNotCorrect } from './may-correct'

const [ana, bo] = ['ana', 'bo']
const event = (key: string, change: Partial<LogEvent> = {}): LogEvent => {
	const [type, kind] = key.split('/')
	return {
		id: 'x',
		sessionId: 'monday',
		athleteId: ana,
		type,
		kind,
		value: { lines: [] },
		...change,
	} as unknown as LogEvent
}
const nobody: Corrects = { author: false, logs: false, care: false, own: false }
const asks = (key: string, who: Partial<Corrects>, change: Partial<LogEvent> = {}, targetKey = key) =>
	mayNotCorrect(event(key, change), event(targetKey), { ...nobody, ...who })

describe('who may correct what', () => {
	it('declares it beside every kind of event', () => {
		expect(Object.keys(CORRECTED_BY).sort()).toEqual(Object.keys(EVENT_SCHEMAS).sort())
	})
	it.each(Object.keys(EVENT_SCHEMAS))('%s: its author may, a stranger to it may not', (key) => {
		expect(asks(key, { author: true })).toBeNull()
		expect(asks(key, {})).toBe('only its author may correct it, or who is responsible for it')
	})
	// A mark, a grade, a decision of the afternoon belong to who logs the session; a report of pain to who has the care.
	it.each([
		['mark/sprint', { logs: true }, true],
		['mark/sprint', { care: true }, false],
		['mark/sprint', { own: true }, false],
		['observation/quality', { logs: true }, true],
		['observation/quality', { own: true }, false],
		['observation/note', { logs: true }, true],
		['observation/note', { care: true }, false],
		['observation/pain', { care: true }, true],
		['observation/pain', { logs: true }, false],
		['observation/pain', { own: true }, false],
		['observation/quiet', { care: true }, true],
		['observation/quiet', { logs: true }, false],
		['observation/worry', { care: true }, true],
		['observation/worry', { own: true }, true],
		['observation/worry', { logs: true }, false],
		['observation/effort', { own: true }, true],
		['observation/comfort', { own: true }, false],
		['decision/end-set', { logs: true }, true],
		['decision/end-set', { care: true }, false],
		['decision/conditions', { logs: true }, true],
		['decision/guest', { logs: true }, true],
		['decision/piece', { own: true }, false],
	] as const)('%s, %j: %s', (key, who, may) => {
		expect(asks(key, who) === null).toBe(may)
	})
})

const BODY = ['pain', 'head', 'chest', 'unwell', 'quiet', 'worry'].map((kind) => `observation/${kind}`)
// "Wrong athlete" moves a report: by its author, a clinician or a coach; nobody moves their own onto another.
it.each(BODY)('%s of the wrong athlete', (key) => {
	const moved = { athleteId: bo } as Partial<LogEvent>
	expect(asks(key, { author: true, logs: true }, moved)).toBeNull()
	expect(asks(key, { care: true }, moved)).toBeNull()
	expect(asks(key, { care: true, logs: true, author: true }, { ...moved, void: true })).toBe(
		'what it corrects is about another athlete',
	)
	for (const who of [{ logs: true }, { own: true }, { author: true, own: true }, {}])
		expect(asks(key, who, moved), JSON.stringify(who)).toBe('what it corrects is about another athlete')
})

describe('what may replace what', () => {
	const all = { author: true, logs: true, care: true, own: true }
	it('the same kind alone', () => {
		for (const [key, target] of [
			['observation/pain', 'mark/sprint'],
			['observation/worry', 'observation/pain'],
			['observation/quiet', 'observation/pain'],
			['decision/attendance', 'decision/end-set'],
			['observation/note', 'decision/conditions'],
			['mark/done', 'observation/quality'],
			['decision/queue', 'mark/done'],
		] as const) {
			expect(asks(key, all, {}, target), `${key} for ${target}`).toContain('does not replace')
			expect(asks(target, all, {}, key), `${target} for ${key}`).toContain('does not replace')
		}
	})
	it('what brought lines or a drill onto the sheet by what brings the same', () => {
		const given = (...ids: string[]) => ({ lines: ids.map((lineId) => ({ lineId })) })
		for (const key of ['decision/guest', 'decision/further'])
			for (const [value, may] of [
				[given('a', 'b'), true],
				[given('a'), false],
				[given('a', 'c'), false],
				[given(), false],
			] as const) {
				const said = mayNotCorrect(
					event(key, { value, void: true } as unknown as Partial<LogEvent>),
					event(key, { value: given('a', 'b') } as unknown as Partial<LogEvent>),
					all,
				)
				expect(said === null, `${key} ${JSON.stringify(value)}`).toBe(may)
			}
		const added = (entryId: string) =>
			event('decision/further', { value: { entryId, ...given('a') } } as unknown as Partial<LogEvent>)
		expect(mayNotCorrect(added('x'), added('x'), all)).toBeNull()
		expect(mayNotCorrect(added('y'), added('x'), all)).toBe('what it corrects brought something else onto the sheet')
	})
	it('a mark by another kind of mark: a rep that was missed, or only done', () => {
		for (const key of ['mark/missed', 'mark/done', 'mark/contact'])
			expect(asks(key, { logs: true }, {}, 'mark/sprint')).toBeNull()
	})
	it('in its own session alone', () => {
		for (const key of Object.keys(EVENT_SCHEMAS))
			expect(asks(key, all, { sessionId: 'tuesday' }), key).toBe('what it corrects belongs to another session')
	})
	it('about the same athlete; a mark may turn out to be somebody else’s, for who logs', () => {
		for (const key of Object.keys(EVENT_SCHEMAS).filter((one) => !one.startsWith('mark/') && !BODY.includes(one)))
			expect(asks(key, all, { athleteId: bo }), key).toBe('what it corrects is about another athlete')
		expect(asks('mark/sprint', { logs: true }, { athleteId: bo })).toBeNull()
		expect(asks('mark/sprint', { author: true }, { athleteId: bo })).toBe('what it corrects is about another athlete')
	})
})
