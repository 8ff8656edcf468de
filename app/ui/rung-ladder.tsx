/** One athlete on one ladder in miniature: passed rungs filled, the current one ringed. */
export function MiniLadder({
	ladder,
	rungIndex,
	closed = false,
	substitute = false,
}: {
	ladder: { name: string; rungs: readonly { id: string; name: string }[] }
	rungIndex: number
	closed?: boolean
	substitute?: boolean
}) {
	const rungs = ladder.rungs.length
	// A long ladder gets finer steps, not more room.
	const step = Math.min(13, 112 / rungs)
	const width = rungs * step
	const state = closed
		? 'closed'
		: substitute
			? 'on an alternative'
			: `rung ${rungIndex + 1} of ${rungs}, ${ladder.rungs[rungIndex]?.name ?? ''}`
	return (
		<svg viewBox={`0 0 ${width} 26`} width={width} height="26" role="img" aria-label={`${ladder.name}: ${state}`}>
			{ladder.rungs.map((rung, i) => {
				const y = 23 - i * (18 / Math.max(rungs - 1, 1))
				return (
					<line
						key={rung.id}
						x1={i * step + 1}
						x2={i * step + step * 0.85}
						y1={y}
						y2={y}
						stroke={i <= rungIndex ? 'var(--color-ink)' : 'var(--color-chalk)'}
						strokeWidth={i === rungIndex ? 5 : 2.5}
						strokeDasharray={i === rungIndex && (closed || substitute) ? '2 2' : undefined}
					/>
				)
			})}
		</svg>
	)
}
