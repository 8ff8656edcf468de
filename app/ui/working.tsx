import { useNavigation } from 'react-router'

/** A line along the top while something pressed is under way: every press has an answer at once, whatever the server does. */
export function Working() {
	const { state } = useNavigation()
	const words = state === 'submitting' ? 'Saving …' : state === 'loading' ? 'Loading …' : ''
	return (
		<div
			className="pointer-events-none fixed inset-x-0 top-0 z-30 h-[4px] overflow-hidden print:hidden"
			data-working={state}
		>
			{words && <div className="working h-full w-full bg-act" />}
			<span className="sr-only" aria-live="polite">
				{words}
			</span>
		</div>
	)
}
