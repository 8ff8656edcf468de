import { useState } from 'react'
import type { FieldAthlete } from '#core/field/pack'
import type { About } from '#core/field/session/taps'
import type { Mark } from '#core/vocabulary/events'
import { sayEvent } from '#core/field/say-event'
import { CHOICE, SheetPanel } from './sheet-panel'
import { useUnits } from './units'

const LONGEST = 1000

/** A word or a sentence, typed or dictated with the keyboard's own microphone, about what is on the line. */
export function NotePanel({
	athlete,
	lastRep,
	nameOf,
	onSave,
	onClose,
}: {
	/** Whoever was on the line; null where nobody was. */
	athlete: FieldAthlete | null
	lastRep: Mark | null
	nameOf: (athleteId: string) => string
	onSave: (about: About, text: string) => void
	onClose: () => void
}) {
	const { asRead } = useUnits()
	// As it was when the panel was opened: what comes in while somebody writes is not what they write about.
	const [choices] = useState((): [About, string][] => [
		...(athlete
			? ([
					[{ about: 'drill', athleteId: athlete.id }, `${athlete.name}, this drill`],
					[{ about: 'athlete', athleteId: athlete.id }, `${athlete.name}, today`],
				] as [About, string][])
			: []),
		...(lastRep
			? ([[{ about: 'rep', rep: lastRep }, `${nameOf(lastRep.athleteId)}, ${asRead(sayEvent(lastRep))}`]] as [
					About,
					string,
				][])
			: []),
		[{ about: 'session' }, 'The session'],
	])
	const [about, setAbout] = useState(choices[0]![0])
	const [text, setText] = useState('')
	return (
		<SheetPanel title="Note" onClose={onClose}>
			<form
				className="mt-3 grid gap-3"
				onSubmit={(event) => {
					event.preventDefault()
					if (text.trim() !== '') onSave(about, text.trim())
				}}
			>
				<div className="grid grid-cols-2 gap-1.5" role="group" aria-label="About">
					{choices.map(([one, label]) => (
						<button
							key={one.about}
							type="button"
							className={CHOICE}
							aria-pressed={about === one}
							onClick={() => setAbout(one)}
						>
							{label}
						</button>
					))}
				</div>
				<label className="grid gap-1 text-[15px]">
					What was seen; the keyboard’s microphone writes it, too
					<textarea
						className="input min-h-[120px]! text-[18px]!"
						value={text}
						maxLength={LONGEST}
						onChange={(event) => setText(event.target.value)}
						autoFocus
					/>
				</label>
				<button className="btn min-h-[64px]" disabled={text.trim() === ''}>
					Keep
				</button>
			</form>
		</SheetPanel>
	)
}
