export const GRADES = [['good', 'Good'], ['not-yet', 'Not yet'], ['poor', 'Poor']] as const
export type Grade = (typeof GRADES)[number][0]

/** Three shapes as well as three words: full, half, empty. */
export function RatingRow({ mayRate, onRate }: { mayRate: boolean; onRate: (grade: Grade) => void }) {
	return (
		<div className="grid grid-cols-3 border-t border-chalk">
			{GRADES.map(([grade, label]) => (
				<button key={grade} type="button" className="num flex min-h-[64px] items-center justify-center gap-2 border-r border-chalk text-[15px] font-semibold last:border-r-0 disabled:text-ink-2" disabled={!mayRate} onClick={() => onRate(grade)}>
					<svg className="glyph" viewBox="0 0 24 16" width="24" height="16" aria-hidden="true"><circle cx="12" cy="8" r="6" fill={grade === 'good' ? 'currentColor' : 'none'} />{grade === 'not-yet' && <path d="M12 2a6 6 0 0 1 0 12z" fill="currentColor" />}</svg>
					{label}
				</button>
			))}
		</div>
	)
}
