import { useEffect } from 'react'
import { useMatches, useRevalidator } from 'react-router'

const AGAIN_MS = 1500

/** Says that a page is of a moment ago, while marks that have come in since are worked out, and asks again until it is not. */
export function CatchingUp() {
	const isBehind = useMatches().some(
		({ loaderData }) => (loaderData as { behind?: unknown } | undefined)?.behind === true,
	)
	const { revalidate, state } = useRevalidator()
	useEffect(() => {
		if (!isBehind || state !== 'idle') return
		const timer = setTimeout(() => void revalidate(), AGAIN_MS)
		return () => clearTimeout(timer)
	}, [isBehind, state, revalidate])
	return (
		<p
			aria-live="polite"
			// Over the page, so that nothing moves under a finger when it comes and goes.
			className={
				isBehind
					? 'dim pointer-events-none fixed right-4 bottom-[66px] z-20 border border-chalk bg-paper px-3 py-1.5 text-[14px] lg:bottom-4 print:hidden'
					: 'sr-only'
			}
		>
			{isBehind ? 'Marks have just come in; they are being worked out …' : ''}
		</p>
	)
}
