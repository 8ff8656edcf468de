import { useState } from 'react'
import { v7 as newId } from 'uuid'
import type { Stand } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import { CHOICE, PANEL_HEADING, SheetPanel } from './sheet-panel'

/** Somebody who is not on the sheet: of the club, or a guest by name. Their lines are here already, so that no connection is needed. */
export function JoinPanel({ stand, onTap, onClose }: { stand: Stand; onTap: (tap: Tap) => void; onClose: () => void }) {
	const [name, setName] = useState('')
	const { sheet } = stand
	const here = new Set(sheet.athletes.map(({ id }) => id))
	const looked = name.trim().toLowerCase()
	const others = (sheet.others ?? []).filter(({ id }) => !here.has(id))
	const found = others.filter((one) => one.name.toLowerCase().includes(looked))
	const join = (athleteId: string, guest: string | null) =>
		onTap({ tap: 'join', athleteId, name: guest, ids: sheet.entries.map(() => newId()) })
	return (
		<SheetPanel title="Somebody comes" onClose={onClose}>
			{sheet.stranger === undefined ? (
				<p className="mt-3 text-[17px]">
					This session was fetched when it was more than a day ahead, so that nothing is known here of who else may
					come. Open it once with a connection.
				</p>
			) : (
				<>
					<label className="mt-3 grid gap-1 text-[15px]">
						Name
						<input
							className="input min-h-[64px]! text-[20px]!"
							value={name}
							maxLength={80}
							autoComplete="off"
							onChange={(event) => setName(event.target.value)}
						/>
					</label>
					<h2 className={PANEL_HEADING}>Of the club</h2>
					<div className="mt-1 grid grid-cols-2 gap-1.5">
						{found.map((one) => (
							<button key={one.id} type="button" className={CHOICE} onClick={() => join(one.id, null)}>
								{one.name}
								{one.spare.length > 0 && (
									<span className="block text-[14px] font-normal">spare {one.spare.join(', ')}</span>
								)}
							</button>
						))}
					</div>
					{found.length === 0 && (
						<p className="mt-1 text-[15px]">
							{others.length === 0 ? 'Everybody is on the sheet.' : 'Nobody of that name.'}
						</p>
					)}
					<h2 className={PANEL_HEADING}>A guest</h2>
					<button
						type="button"
						className="btn mt-1 min-h-[64px] w-full"
						disabled={looked === ''}
						onClick={() => join(newId(), name.trim())}
					>
						{looked === '' ? 'Type the guest’s name above' : `${name.trim()} is a guest`}
					</button>
					<p className="mt-1 text-[15px]">
						A guest gets what anybody may do: first steps, nothing from a box, nothing pulled. Ask about injuries first.
					</p>
				</>
			)}
		</SheetPanel>
	)
}
