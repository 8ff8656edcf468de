import type { SheetPreview } from '#core/plan/preview-sheet'
import type { PreviewAsked, PreviewGround } from '../workers/preview-worker'

export type Question = PreviewGround & PreviewAsked
/** What is used of a worker. */
export type PreviewWorker = Pick<Worker, 'postMessage' | 'terminate' | 'onmessage' | 'onerror'>

/**
 * Asks the worker what a sheet comes to, one question at a time: of those that come meanwhile the newest, with the ground
 * they stand on only where it is another than before.
 */
export class PreviewLink {
	private underWay: Question | null = null
	private next: Question | null = null
	private ground: PreviewGround | null = null

	constructor(
		private readonly worker: PreviewWorker,
		on: { answer: (preview: SheetPreview, of: Question) => void; failure: () => void },
	) {
		worker.onmessage = ({ data }: MessageEvent<SheetPreview>) => {
			const asked = this.underWay!
			this.underWay = null
			this.askNext()
			on.answer(data, asked)
		}
		worker.onerror = () => {
			// What comes after a question it broke on may be answered.
			this.underWay = null
			on.failure()
			this.askNext()
		}
	}
	ask(question: Question): void {
		this.next = question
		if (!this.underWay) this.askNext()
	}
	end(): void {
		this.next = null
		this.worker.terminate()
	}
	private askNext(): void {
		const question = this.next
		if (!question) return
		this.next = null
		this.underWay = question
		const { pack, library, entries, role, theme, priority } = question
		if (this.ground?.pack !== pack || this.ground.library !== library) {
			this.ground = { pack, library }
			this.worker.postMessage(this.ground satisfies PreviewGround)
		}
		this.worker.postMessage({ entries, role, theme, priority } satisfies PreviewAsked)
	}
}
