import { Link } from 'react-router'
import { type SegmentReading, ladderOfWeakPart, weakPartInWords } from '#core/measure/sprint/where-time-goes'

const LADDER_NAMES = { acceleration: 'acceleration', 'top-speed': 'top speed' } as const

/** Where a run loses its time, and which ladder works on it. */
export function WhereTimeGoes({
	segments: { segments, sessions, mssMps },
	squadId,
	mayChange,
}: {
	segments: { segments: readonly SegmentReading[]; sessions: number; mssMps: number }
	squadId: string | null
	mayChange: boolean
}) {
	const ladder = ladderOfWeakPart(segments)
	return (
		<section>
			<h2>Where the time goes</h2>
			<p className="rule mt-2 py-1.5">
				{weakPartInWords(segments)}{' '}
				<span className="dim">
					{sessions} sessions by gates, top speed {mssMps.toFixed(1)} m/s.
				</span>
			</p>
			<Segments segments={segments} />
			{ladder && (
				<p className="mt-1 text-[14px]">
					The ladder for it is {LADDER_NAMES[ladder]}
					{squadId && mayChange ? (
						<>
							{': '}
							<Link className="link" to={`/squads/${squadId}/ladders/${ladder}`}>
								make it the squad’s priority
							</Link>
						</>
					) : (
						'.'
					)}
				</p>
			)}
		</section>
	)
}

/** Each segment as wide as it is long, its mean speed as its height; the weak one filled. */
function Segments({
	segments,
}: {
	segments: readonly { fromM: number; toM: number; speedMps: number; offCurveS: number; weak: boolean }[]
}) {
	const [end, top] = [segments.at(-1)!.toM, Math.max(...segments.map(({ speedMps }) => speedMps))]
	return (
		<ol className="flex h-[86px] items-end gap-[2px]" aria-label="Mean speed by segment">
			{segments.map(({ fromM, toM, speedMps, offCurveS, weak }) => (
				<li key={fromM} className="text-center text-[12.5px]" style={{ width: `${(100 * (toM - fromM)) / end}%` }}>
					<span className="num block">{speedMps.toFixed(1)}</span>
					<i
						className={`block border border-sprint ${weak ? 'bg-sprint' : ''}`}
						style={{ height: 44 * (speedMps / top) }}
						title={`${fromM}–${toM} m: ${offCurveS >= 0 ? '+' : '−'}${Math.abs(offCurveS).toFixed(2)} s against the own curve`}
					/>
					<span className="dim block truncate">
						{fromM}–{toM}
					</span>
				</li>
			))}
		</ol>
	)
}
