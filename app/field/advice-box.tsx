import type { Advice } from '#core/field/live-advice'
import { useUnits } from './units'

/** One more or stop, and why, with at most one thing to tap. */
export function AdviceBox({ advice, onAct }: { advice: Advice; onAct: () => void }) {
	const { asRead } = useUnits()
	return (
		<div
			data-at="say"
			className="mx-4 mt-2 flex items-center justify-between gap-3 border-2 border-ink px-3 py-2 text-[16px] leading-snug"
			role="status"
			aria-label="Suggestion"
		>
			<p>
				<b>{advice.lead}</b> {asRead(advice.rest)}
			</p>
			{advice.act && (
				<button type="button" className="btn min-h-[64px] shrink-0" onClick={onAct}>
					{advice.act.label}
				</button>
			)}
		</div>
	)
}
