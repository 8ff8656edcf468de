import { v7 as newId } from 'uuid'
import { useState } from 'react'
import { drillsToAdd } from '#core/field/session/press'
import { type Stand, drillsOfSession } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import { CHOICE, PANEL_HEADING, SheetPanel } from './sheet-panel'

const MOVE = 'min-h-[64px] min-w-[52px] border border-ink text-[20px] disabled:border-chalk disabled:text-ink-2'

/** The drills of the session in the order they are done: go to one, move it, skip it, add another. */
export function DrillsPanel({
	stand,
	onTap,
	onDone,
	onClose,
}: {
	stand: Stand
	onTap: (tap: Tap) => void
	/** A tap after which the line is what is wanted. */
	onDone: (tap: Tap) => void
	onClose: () => void
}) {
	const [adding, setAdding] = useState(false)
	if (adding) return <AddDrill stand={stand} onDone={onDone} onClose={() => setAdding(false)} />
	const { cursor } = stand
	const drills = drillsOfSession(stand)
	return (
		<SheetPanel title="Drills" onClose={onClose}>
			<div className="mt-3 grid grid-cols-2 gap-1.5">
				<button
					type="button"
					className={CHOICE}
					onClick={() => onDone({ tap: 'end', reason: 'coach', who: 'shown' })}
					disabled={drills.find(({ entry }) => entry.id === cursor.entryId)?.over ?? true}
				>
					Skip the drill that is shown
				</button>
				<button type="button" className={CHOICE} onClick={() => setAdding(true)}>
					Add a drill after it
				</button>
			</div>
			<ol className="mt-3">
				{drills.map(({ entry, done, people, over }, index) => (
					<li key={entry.id} className="flex items-center gap-1.5 border-t border-chalk py-1">
						<button
							type="button"
							className="min-h-[64px] min-w-0 flex-1 px-2 text-left aria-pressed:bg-ink aria-pressed:text-paper"
							aria-pressed={entry.id === cursor.entryId}
							onClick={() => onDone({ tap: 'go-to', entryId: entry.id })}
						>
							<span className="num block text-[17px] leading-tight font-semibold">{entry.name}</span>
							<span className="block text-[14px]">
								{over
									? people === 0
										? 'nobody has a line'
										: 'done or ended for everybody'
									: `${done} of ${people} through it`}
							</span>
						</button>
						<button
							type="button"
							className={MOVE}
							aria-label={`${entry.name}: earlier`}
							disabled={index === 0}
							onClick={() => onTap({ tap: 'place', entryId: entry.id, to: index - 1 })}
						>
							↑
						</button>
						<button
							type="button"
							className={MOVE}
							aria-label={`${entry.name}: later`}
							disabled={index === drills.length - 1}
							onClick={() => onTap({ tap: 'place', entryId: entry.id, to: index + 1 })}
						>
							↓
						</button>
					</li>
				))}
			</ol>
			{stand.undoLabel && (
				<button type="button" className={`${CHOICE} mt-4 w-full`} onClick={() => onTap({ tap: 'undo' })}>
					Undo: {stand.undoLabel}
				</button>
			)}
		</SheetPanel>
	)
}

/** Drills this phone knows, those first that most may do; who may not is said before anything is added. */
function AddDrill({ stand, onDone, onClose }: { stand: Stand; onDone: (tap: Tap) => void; onClose: () => void }) {
	const [looked, setLooked] = useState('')
	const here = stand.sheet.athletes.filter(({ id }) => !stand.away.has(id)).length
	const known = drillsToAdd(stand)
	const found = known.filter(({ drill }) => drill.name.toLowerCase().includes(looked.trim().toLowerCase()))
	return (
		<SheetPanel title="Add a drill" onClose={onClose}>
			<label className="mt-3 grid gap-1 text-[15px]">
				Name
				<input
					className="input min-h-[64px]! text-[20px]!"
					value={looked}
					maxLength={80}
					autoComplete="off"
					onChange={(event) => setLooked(event.target.value)}
				/>
			</label>
			<h2 className={PANEL_HEADING}>Drills of this sheet, and what may stand in for them</h2>
			<div className="mt-1 grid gap-1.5">
				{found.map(({ drill, able }) => (
					<button
						key={`${drill.id}/${drill.version}`}
						type="button"
						className={`${CHOICE} flex items-center justify-between gap-3 px-3! text-left`}
						onClick={() => onDone({ tap: 'further', drill, ids: Array.from({ length: here + 1 }, () => newId()) })}
					>
						<span>{drill.name}</span>
						<span className="shrink-0 text-[14px] font-normal">
							{able === here ? 'for everybody' : `for ${able} of ${here}`}
						</span>
					</button>
				))}
			</div>
			{found.length === 0 && (
				<p className="mt-1 text-[15px]">
					{known.length === 0
						? 'There is none that anybody here may do now.'
						: 'No drill of that name is on this phone.'}
				</p>
			)}
		</SheetPanel>
	)
}
