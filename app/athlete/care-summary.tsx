import { Link } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import { placeOf } from '#core/rules/bars'
import type { Closure } from '#core/vocabulary/care'
import { REGION_NAMES, type Region } from '#core/vocabulary/words'
import { useUnits } from '../field/units'
import { ReportForm } from '../ui/report-form'

interface Pain {
	id: string
	region: Region
	side: string
	score: number
	redFlag: boolean
	at: string
	moment: string
}
interface Cleared {
	id: string
	region: Closure['region']
	side: string | null
	clearedBy: string
	clearedByRole: string
	clearedOn: string
}

/** What was reported of late, what stands in the way and what was cleared. */
export function CareSummary({
	athleteId,
	showPain,
	standsInTheWay,
	pains,
	clearances,
	mayReport,
	reportsSaid,
	problem,
}: {
	athleteId: string
	showPain: boolean
	standsInTheWay: readonly string[]
	pains: readonly Pain[]
	clearances: readonly Cleared[]
	/** With the form for it here. */
	mayReport: boolean
	/** How many there are: one that was taken empties the form. */
	reportsSaid: number
	problem: string | undefined
}) {
	const { asRead } = useUnits()
	return (
		<section>
			<h2 className="flex justify-between">
				Care
				{showPain && (
					<Link
						className="link text-[14px] font-normal max-lg:inline-flex max-lg:min-h-[44px] max-lg:items-center"
						to={`/athletes/${athleteId}/care`}
					>
						all of it
					</Link>
				)}
			</h2>
			{standsInTheWay.map((words) => (
				<p key={words} className="rule mt-2 py-2">
					<b>{asRead(words)}</b>
				</p>
			))}
			{showPain && pains.length === 0 && <p className="rule dim mt-2 py-2">No pain reported in ten weeks.</p>}
			<ul className="mt-2">
				{pains.map((pain) => (
					<li key={pain.id} className="rule flex justify-between gap-3 py-1.5">
						<span>
							{pain.side === 'both' ? '' : `${pain.side} `}
							{REGION_NAMES[pain.region]}
							{pain.redFlag && <b>, red flag</b>}
							<span className="dim block text-[13px]">
								{shortDay(pain.at.slice(0, 10))}, {pain.moment.replace('-', ' ')}
							</span>
						</span>
						<b className="num text-[17px]">
							{pain.score} <span className="dim text-[14px] font-normal">of 10</span>
						</b>
					</li>
				))}
			</ul>
			{clearances.map((row) => (
				<p key={row.id} className="rule py-1.5">
					{placeOf(row)} cleared by {row.clearedBy}, {row.clearedByRole}, {shortDay(row.clearedOn)}
				</p>
			))}
			{mayReport && (
				<details className="rule mt-1" open={problem !== undefined}>
					<summary className="link inline-flex min-h-[44px] items-center">Report pain or illness</summary>
					<ReportForm key={reportsSaid} problem={problem} />
				</details>
			)}
			<p className="dim mt-2 text-[13.5px]">Dromos clears nobody: a clinician does, and somebody records it.</p>
		</section>
	)
}
