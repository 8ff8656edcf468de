import { useState } from 'react'
import type { Stand } from '#core/field/session/stand'
import { sayEvent } from '#core/field/say-event'
import { CHOICE, SheetPanel } from './sheet-panel'
import { useUnits } from './units'

type About = 'session' | 'athlete' | 'drill' | 'rep'
const LONGEST = 1000

/** A word or a sentence, typed or dictated with the keyboard's own microphone, about what is on the line. */
export function NotePanel({
	stand,
	onSave,
	onClose,
}: {
	stand: Stand
	onSave: (about: About, text: string) => void
	onClose: () => void
}) {
	const { asRead } = useUnits()
	const { shown, lastRep } = stand
	const [about, setAbout] = useState<About>(shown ? 'drill' : 'session')
	const [text, setText] = useState('')
	const choices: [About, string][] = [
		...(shown
			? ([
					['drill', `${shown.athlete.name}, this drill`],
					['athlete', `${shown.athlete.name}, today`],
				] as [About, string][])
			: []),
		...(lastRep
			? ([['rep', `${stand.nameOf(lastRep.athleteId)}, ${asRead(sayEvent(lastRep))}`]] as [About, string][])
			: []),
		['session', 'The session'],
	]
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
					{choices.map(([key, label]) => (
						<button
							key={key}
							type="button"
							className={CHOICE}
							aria-pressed={about === key}
							onClick={() => setAbout(key)}
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
