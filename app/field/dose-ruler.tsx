/** A tape with the usual range as a bracket and the value as a pointer. */
export function DoseRuler({
	label,
	unit,
	value,
	low,
	high,
	done,
}: {
	label: string
	unit: string
	value: number
	low: number
	high: number
	done?: number
}) {
	const shown = done ?? value
	const step = niceStep(Math.max(high * 1.35, value * 1.1, shown * 1.1, 10))
	const max = step * 4
	const at = (x: number) => `${4 + (Math.min(x, max) / max) * 92}%`
	return (
		<div className="mt-2.5">
			<p className="flex items-baseline justify-between gap-3">
				<span>{label}</span>
				<span>
					<b className="num text-[17px]">{Math.round(shown)}</b>{' '}
					<span className="dim">{done === undefined ? unit : `of ${Math.round(value)} ${unit}`}</span>
				</span>
			</p>
			<svg
				className="block w-full"
				height="46"
				role="img"
				aria-label={`${label}: ${Math.round(shown)} ${unit}${done === undefined ? '' : ` of ${Math.round(value)} planned`}; usual range ${low} to ${high}`}
			>
				<line x1="4%" x2="96%" y1="21" y2="21" stroke="var(--color-ink-2)" />
				{Array.from({ length: 21 }, (_, i) => (
					<line
						key={i}
						x1={at((max / 20) * i)}
						x2={at((max / 20) * i)}
						y1="21"
						y2={i % 5 === 0 ? 31 : 26}
						stroke="var(--color-ink-2)"
					/>
				))}
				{[0, 1, 2, 3, 4].map((i) => (
					<text key={i} x={at(step * i)} y="43" fontSize="11.5" textAnchor="middle" fill="var(--color-ink-2)">
						{step * i}
					</text>
				))}
				<line x1={at(low)} x2={at(high)} y1="12" y2="12" stroke="var(--color-ink)" strokeWidth="1.5" />
				<line x1={at(low)} x2={at(low)} y1="12" y2="19" stroke="var(--color-ink)" strokeWidth="1.5" />
				<line x1={at(high)} x2={at(high)} y1="12" y2="19" stroke="var(--color-ink)" strokeWidth="1.5" />
				<svg x={at(shown)} overflow="visible">
					<path d="M0 21l-6 -10h12z" fill="var(--color-ink)" />
				</svg>
				{done !== undefined && (
					<svg x={at(value)} overflow="visible">
						<path d="M0 21v-14" stroke="var(--color-ink)" strokeWidth="2" strokeDasharray="2 2" />
					</svg>
				)}
			</svg>
		</div>
	)
}

/** A quarter of the tape in a round number: 5, 10, 20, 25, 50, 100 … */
function niceStep(reach: number): number {
	const wanted = reach / 4
	const power = 10 ** Math.floor(Math.log10(wanted))
	return (
		[1, 2, 2.5, 5, 10].map((factor) => factor * power).find((step) => step >= wanted && Number.isInteger(step)) ??
		Math.ceil(wanted)
	)
}
