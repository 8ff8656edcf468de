import { expect, test } from 'vitest'
import type { BuildPack } from '#core/plan/build-pack'
import type { SheetPreview } from '#core/plan/preview-sheet'
import type { Library } from '#core/vocabulary/library'
import { PreviewLink, type PreviewWorker, type Question } from './preview-link'

/** A worker that answers when it is told to. */
function stillWorker() {
	const posted: string[] = []
	const worker: PreviewWorker = {
		postMessage: (message: object) => posted.push('pack' in message ? 'ground' : (message as Question).role),
		terminate: () => posted.push('end'),
		onmessage: null,
		onerror: null,
	}
	const asWorker = worker as Worker
	return {
		worker,
		posted,
		answer: (minutes: number) =>
			asWorker.onmessage?.(new MessageEvent('message', { data: { minutes } as SheetPreview })),
		breakOn: () => asWorker.onerror?.(new Event('error') as ErrorEvent),
	}
}
const [monday, tuesday] = [{ day: '2026-11-02' } as BuildPack, { day: '2026-11-03' } as BuildPack]
const library = {} as Library
/** Told apart by their role alone. */
const asked = (role: Question['role'], pack = monday): Question => ({
	pack,
	library,
	entries: [],
	role,
	theme: null,
	priority: null,
})
function linked() {
	const still = stillWorker()
	const heard: string[] = []
	const link = new PreviewLink(still.worker, {
		answer: ({ minutes }, of) => heard.push(`${minutes} for ${of.role} on ${of.pack.day}`),
		failure: () => heard.push('failure'),
	})
	return { ...still, link, heard }
}

test('the ground is sent once, and again when it is another', () => {
	const { link, posted, answer, heard } = linked()
	link.ask(asked('hard'))
	answer(10)
	link.ask(asked('light'))
	answer(20)
	link.ask(asked('light', tuesday))
	answer(30)
	expect(posted).toEqual(['ground', 'hard', 'light', 'ground', 'light'])
	expect(heard).toEqual(['10 for hard on 2026-11-02', '20 for light on 2026-11-02', '30 for light on 2026-11-03'])
})

test('of what is asked while an answer is on its way, the newest is asked and the rest never', () => {
	const { link, posted, answer, heard } = linked()
	link.ask(asked('hard'))
	link.ask(asked('light', tuesday))
	link.ask(asked('tissue'))
	expect(posted).toEqual(['ground', 'hard'])
	answer(10)
	expect(posted).toEqual(['ground', 'hard', 'tissue'])
	answer(20)
	expect(heard).toEqual(['10 for hard on 2026-11-02', '20 for tissue on 2026-11-02'])
})

test('a question it breaks on is said, and the next is asked', () => {
	const { link, posted, answer, breakOn, heard } = linked()
	link.ask(asked('hard'))
	link.ask(asked('light'))
	breakOn()
	answer(20)
	link.ask(asked('hard'))
	expect(posted).toEqual(['ground', 'hard', 'light', 'hard'])
	expect(heard).toEqual(['failure', '20 for light on 2026-11-02'])
})

test('at its end the worker ends, and nothing more is asked', () => {
	const { link, posted, answer } = linked()
	link.ask(asked('hard'))
	link.ask(asked('light'))
	link.end()
	answer(10)
	expect(posted).toEqual(['ground', 'hard', 'end'])
})
