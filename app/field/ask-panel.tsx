import { placeOf } from '#core/rules/bars'
import type { Ask } from '#core/field/to-ask'
import { Scale } from './pain-panel'
import { SheetPanel } from './sheet-panel'

/** "How was it?", once after the easy form or a step of the way back: one tap on a number answers. */
export function AskPanel({
	name,
	ask,
	onAnswer,
	onLater,
}: {
	name: string
	ask: Ask
	onAnswer: (score: number) => void
	onLater: () => void
}) {
	return (
		<SheetPanel title={`${name}: how was it?`} onClose={onLater}>
			<p className="mt-4 text-[20px] font-semibold">
				{ask.afterAnything ? 'Head, dizziness, breath' : `The ${placeOf(ask)}`}, while doing it
			</p>
			<p className="mt-1 text-[16px]">0 is nothing at all. 2 or more is a report.</p>
			<Scale picked={null} onPick={onAnswer} />
			<button type="button" className="btn btn-quiet mt-5 min-h-[64px] w-full" onClick={onLater}>
				Not now, the review asks
			</button>
		</SheetPanel>
	)
}
