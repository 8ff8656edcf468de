import type { Grade } from '#core/field/session/taps'

const GRADES = [
	['good', 'Good'],
	['not-yet', 'Not yet'],
	['poor', 'Poor'],
] as const

export interface Reports {
	/** False until the device's store is open: nothing could be kept before. */
	ready: boolean
	onWorry: () => void
	onPain: () => void
	onNote: () => void
}

const CELL =
	'num flex min-h-[64px] min-w-0 flex-col items-center justify-center gap-1 border-r border-chalk text-[15px] font-semibold last:border-r-0 disabled:text-ink-2'

/** How it looked, in three shapes as well as three words: full, half, empty; and what somebody says about it. */
export function RatingRow({
	mayRate,
	onRate,
	reports,
}: {
	mayRate: boolean
	onRate: (grade: Grade) => void
	reports: Reports
}) {
	return (
		<div
			data-at="rate"
			className="grid grid-cols-6 border-t border-chalk bg-paper max-[899px]:sticky max-[899px]:bottom-[64px]"
		>
			{GRADES.map(([grade, label]) => (
				<button key={grade} type="button" className={CELL} disabled={!mayRate} onClick={() => onRate(grade)}>
					<svg className="glyph" viewBox="0 0 24 16" width="24" height="16" aria-hidden="true">
						<circle cx="12" cy="8" r="6" fill={grade === 'good' ? 'currentColor' : 'none'} />
						{grade === 'not-yet' && <path d="M12 2a6 6 0 0 1 0 12z" fill="currentColor" />}
					</svg>
					{label}
				</button>
			))}
			<button
				type="button"
				className={`${CELL} border-l-2 border-l-ink`}
				disabled={!reports.ready}
				onClick={reports.onWorry}
			>
				<svg className="glyph" viewBox="0 0 24 16" width="24" height="16" aria-hidden="true">
					<path d="M8 5a4 4 0 1 1 4 4v2M12 14.6v.4" />
				</svg>
				Worry
			</button>
			<button type="button" className={CELL} disabled={!reports.ready} onClick={reports.onNote}>
				<svg className="glyph" viewBox="0 0 24 16" width="24" height="16" aria-hidden="true">
					<path d="M5 3h14M5 8h14M5 13h8" />
				</svg>
				Note
			</button>
			<button type="button" className={`${CELL} text-attn`} disabled={!reports.ready} onClick={reports.onPain}>
				<svg className="glyph" viewBox="0 0 24 16" width="24" height="16" aria-hidden="true">
					<path d="M12 1L20 15H4Z" />
				</svg>
				Pain
			</button>
		</div>
	)
}
