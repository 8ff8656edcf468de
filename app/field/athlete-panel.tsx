import { useState } from 'react'
import type { Who } from '#core/field/session/taps'
import type { Drill } from '#core/vocabulary/drill'
import type { LineProgress } from '#core/field/line-progress'
import type { DoseLeft } from '#core/field/dose-left'
import { DoseRuler } from './dose-ruler'
import { CHOICE, PANEL_HEADING, SheetPanel } from './sheet-panel'

interface Props {
	name: string
	progress: LineProgress
	dose: DoseLeft
	standIns: Drill[]
	ownDrill: Drill | undefined
	/** How many have not finished here: a change for all of them is asked about once. */
	together: number
	onSwap: (drill: Drill, who: Who) => void
	onEnd: (reason: 'coach' | 'refusal' | 'pain' | 'weather', who: Who) => void
	onGroup: (group: number) => void
	onLeave: () => void
	onClose: () => void
}

const REASONS = [
	['coach', 'Enough, I say'],
	['refusal', 'Does not want to'],
	['pain', 'Because of pain'],
	['weather', 'Weather'],
] as const

/** What can be done about one athlete here and now. */
export function AthletePanel({
	name,
	progress,
	together,
	dose,
	standIns,
	ownDrill,
	onSwap,
	onEnd,
	onGroup,
	onLeave,
	onClose,
}: Props) {
	const [all, setAll] = useState(false)
	const who: Who = all ? { who: 'shown' } : { who: 'one', athleteId: progress.line.athleteId }
	const now = progress.swap?.drillId ?? progress.line.drillId
	return (
		<SheetPanel title={name} onClose={onClose}>
			<div className="mt-3 grid gap-2">
				<DoseRuler
					label="Contacts, moderate and up"
					unit="contacts"
					value={dose.contacts.planned}
					done={dose.contacts.done}
					low={dose.contacts.low}
					high={dose.contacts.high}
				/>
				<DoseRuler
					label="Metres at 95 % and over"
					unit="m"
					value={dose.fastMetres.planned}
					done={dose.fastMetres.done}
					low={dose.fastMetres.low}
					high={dose.fastMetres.high}
				/>
			</div>
			{together > 1 && (
				<div className="mt-4 grid grid-cols-2 gap-1.5" role="group" aria-label="For whom">
					<button type="button" className={CHOICE} aria-pressed={!all} onClick={() => setAll(false)}>
						For {name}
					</button>
					<button type="button" className={CHOICE} aria-pressed={all} onClick={() => setAll(true)}>
						For all {together} here
					</button>
				</div>
			)}
			<h2 className={PANEL_HEADING}>Another drill instead</h2>
			<div className="mt-1 grid grid-cols-2 gap-1.5">
				{[...(ownDrill ? [ownDrill] : []), ...standIns].map((drill) => (
					<button
						key={`${drill.id}/${drill.version}`}
						type="button"
						className={CHOICE}
						aria-pressed={drill.id === now}
						onClick={() => onSwap(drill, who)}
					>
						{drill.name}
						{drill.id === progress.line.drillId && ', as planned'}
					</button>
				))}
			</div>
			{standIns.length === 0 && <p className="mt-1 text-[15px]">The library names no stand-in for this drill.</p>}
			<h2 className={PANEL_HEADING}>End this drill</h2>
			<div className="mt-1 grid grid-cols-2 gap-1.5">
				{REASONS.map(([reason, label]) => (
					<button
						key={reason}
						type="button"
						className={CHOICE}
						disabled={!all && progress.finished}
						onClick={() => onEnd(reason, who)}
					>
						{label}
					</button>
				))}
			</div>
			<h2 className={PANEL_HEADING}>Group</h2>
			<div className="mt-1 grid grid-cols-4 gap-1.5">
				{[0, 1, 2, 3].map((group) => (
					<button key={group} type="button" className={CHOICE} onClick={() => onGroup(group)}>
						{group === 0 ? 'none' : group}
					</button>
				))}
			</div>
			<button type="button" className="btn btn-quiet mt-5 min-h-[64px] w-full" onClick={onLeave}>
				Leaves early
			</button>
		</SheetPanel>
	)
}
