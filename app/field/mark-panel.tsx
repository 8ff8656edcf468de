import { useState } from 'react'
import type { LogEvent, Mark } from '#core/vocabulary/events'
import { lineAt } from '#core/field/complex'
import { asksFor, readTyped, retyped, slotsOfMark, typedOf } from '#core/field/typed-mark'
import type { FieldLine, ToldEvent } from '#core/field/pack'
import { sayHistory } from '#core/field/session-marks'
import { hourAndMinute } from './hour-and-minute'
import { SIDES } from '#core/vocabulary/words'
import { CHOICE, PANEL_HEADING, SheetPanel } from './sheet-panel'
import { sayEvent } from '#core/field/say-event'
import { useUnits } from './units'

interface Props {
	mark: Mark
	/** Whose it is. */
	name: string
	line: FieldLine
	/** Every event of the session: where the mark's history is. */
	all: readonly ToldEvent[]
	deviceId: string
	athletes: { id: string; name: string; lineId: string }[]
	onCorrect: (change: Partial<LogEvent>) => void
	onTakeBack: () => void
	onClose: () => void
}

/** One mark: what it was before, another number, another athlete, or taken back. What stood before stays in its history. */
export function MarkPanel({ mark, name, line: whole, all, deviceId, athletes, onCorrect, onTakeBack, onClose }: Props) {
	const { asRead, units } = useUnits()
	const line = lineAt(whole, mark.piece)
	const measured = slotsOfMark(line, mark)
	const [typed, setTyped] = useState<string[]>(() => measured.map((slot) => typedOf(mark, slot, units)))
	const reads = measured.map((slot, index) => readTyped(typed[index] ?? '', slot, line, units))
	const change = retyped(line, mark, typed, units)
	return (
		<SheetPanel title={`${name}, ${asRead(sayEvent(mark))}${mark.side ? ` ${mark.side}` : ''}`} onClose={onClose}>
			<p className="mt-2 text-[15px]">
				Set {mark.setNo}, rep {mark.repNo}. {sayHistory(mark, all, deviceId, hourAndMinute)}
				{mark.source && ', by device'}
			</p>
			{measured.length > 0 && (
				<form
					className="mt-3 grid grid-cols-2 gap-2"
					onSubmit={(event) => {
						event.preventDefault()
						if (change) onCorrect(change)
					}}
				>
					{measured.map((slot, index) => (
						<label key={slot.name} className="grid gap-1 text-[15px]">
							{asksFor(slot, units)}
							<input
								className="input min-h-[64px]! text-[24px]!"
								inputMode="decimal"
								value={typed[index]}
								onChange={(event) => setTyped(typed.map((text, at) => (at === index ? event.target.value : text)))}
								aria-invalid={reads[index] === null}
							/>
						</label>
					))}
					<button className="btn col-span-2 min-h-[64px]" disabled={change === null}>
						Correct
					</button>
				</form>
			)}
			{line.sided && (
				<>
					<h2 className={PANEL_HEADING}>{line.sided === 'plant' ? 'Foot that was planted' : 'Side'}</h2>
					<div className="mt-1 grid grid-cols-2 gap-1.5">
						{SIDES.map((side) => (
							<button
								key={side}
								type="button"
								className={CHOICE}
								aria-pressed={mark.side === side}
								disabled={mark.side === side}
								onClick={() => onCorrect({ side })}
							>
								{side}
							</button>
						))}
					</div>
				</>
			)}
			<h2 className={PANEL_HEADING}>It was somebody else</h2>
			<div className="mt-1 grid grid-cols-2 gap-1.5">
				{athletes
					.filter((athlete) => athlete.id !== mark.athleteId)
					.map((athlete) => (
						<button
							key={athlete.id}
							type="button"
							className={CHOICE}
							onClick={() => onCorrect({ athleteId: athlete.id, lineId: athlete.lineId } as Partial<LogEvent>)}
						>
							{athlete.name}
						</button>
					))}
			</div>
			<button type="button" className="btn btn-quiet mt-5 min-h-[64px] w-full" onClick={onTakeBack}>
				Take it back
			</button>
		</SheetPanel>
	)
}
