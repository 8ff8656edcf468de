import { sayCutShort } from '#core/field/session/say-cut-short'
import { CUT_SHORT_REASONS, type CutShortReason } from '#core/vocabulary/event-kinds'
import { GATE_PLACES } from '#core/field/slots'
import { SURFACES } from '#core/vocabulary/words'
import { useState } from 'react'
import { CHOICE, PANEL_HEADING, SheetPanel } from './sheet-panel'
import type { Setting } from './device-store'
import { readNumber } from '#core/measure/read-number'

export type FieldSettings = Pick<Setting, 'lanes' | 'sound' | 'vibration' | 'tick' | 'dusk' | 'gates'>

interface Props {
	settings: FieldSettings
	feed: boolean
	windMps: number | null
	surface: string | null
	cutShort: string | null
	onSettings: (change: Partial<FieldSettings>) => void
	onFeed: (on: boolean) => void
	onConditions: (value: { windMps?: number; surface?: (typeof SURFACES)[number] }) => void
	onCutShort: (reason: CutShortReason) => void
	onGoOn: () => void
	onAllMarks: () => void
	onClose: () => void
}

/** What holds for the whole session: ground, wind, lanes, gates, devices, and its early end. */
export function SessionPanel({
	settings,
	feed,
	windMps,
	surface,
	cutShort,
	onSettings,
	onFeed,
	onConditions,
	onCutShort,
	onGoOn,
	onAllMarks,
	onClose,
}: Props) {
	const [wind, setWind] = useState(windMps === null ? '' : String(windMps))
	const windRead = /^[+-]?\d{1,2}([.,]\d)?$/.test(wind.trim()) ? readNumber(wind) : null
	return (
		<SheetPanel title="This session" onClose={onClose}>
			<button type="button" className={`${CHOICE} mt-3 w-full`} onClick={onAllMarks}>
				All marks of this session
			</button>
			<h2 className={PANEL_HEADING}>On the line at once</h2>
			<div className="mt-1 grid grid-cols-3 gap-1.5">
				{[1, 2, 3].map((lanes) => (
					<button
						key={lanes}
						type="button"
						className={CHOICE}
						aria-pressed={settings.lanes === lanes}
						onClick={() => onSettings({ lanes })}
					>
						{['singles', 'pairs', 'threes'][lanes - 1]}
					</button>
				))}
			</div>
			<h2 className={PANEL_HEADING}>Gates on the way, metres (yards on a line in yards)</h2>
			<div className="mt-1 grid grid-cols-5 gap-1.5">
				{GATE_PLACES.map((metres) => (
					<button
						key={metres}
						type="button"
						className={CHOICE}
						aria-pressed={settings.gates.includes(metres)}
						onClick={() =>
							onSettings({
								gates: settings.gates.includes(metres)
									? settings.gates.filter((one) => one !== metres)
									: [...settings.gates, metres],
							})
						}
					>
						{metres}
					</button>
				))}
			</div>
			<h2 className={PANEL_HEADING}>Devices</h2>
			<button type="button" className={`${CHOICE} mt-1 w-full`} aria-pressed={feed} onClick={() => onFeed(!feed)}>
				{feed ? 'Gates, mat and ball sensor log here' : 'Let gates, mat and ball sensor log here'}
			</button>
			<p className="mt-1 text-[14px]">On one phone only: it gives what the devices see to whoever is on the line.</p>
			<h2 className={PANEL_HEADING}>Ground</h2>
			<div className="mt-1 grid grid-cols-3 gap-1.5">
				{SURFACES.map((one) => (
					<button
						key={one}
						type="button"
						className={CHOICE}
						aria-pressed={surface === one}
						onClick={() => onConditions({ surface: one })}
					>
						{one.replace('-', ' ')}
					</button>
				))}
			</div>
			<form
				className="mt-4 flex items-end gap-2"
				onSubmit={(event) => {
					event.preventDefault()
					if (windRead !== null && Math.abs(windRead) <= 20) onConditions({ windMps: windRead })
				}}
			>
				<label className="grid flex-1 gap-1 text-[15px]">
					Wind along the run, m/s, from behind positive
					<input
						className="input min-h-[64px]! text-[22px]!"
						inputMode="text"
						value={wind}
						placeholder="for example -1.2"
						onChange={(event) => setWind(event.target.value)}
						aria-invalid={wind !== '' && windRead === null}
					/>
				</label>
				<button className="btn min-h-[64px]" disabled={windRead === null || Math.abs(windRead) > 20}>
					Keep
				</button>
			</form>
			<h2 className={PANEL_HEADING}>Screen</h2>
			<div className="mt-1 grid grid-cols-2 gap-1.5">
				{[false, true].map((dusk) => (
					<button
						key={String(dusk)}
						type="button"
						className={CHOICE}
						aria-pressed={settings.dusk === dusk}
						onClick={() => onSettings({ dusk })}
					>
						{dusk ? 'dusk' : 'sun'}
					</button>
				))}
			</div>
			<button
				type="button"
				className={`${CHOICE} mt-1.5 w-full`}
				aria-pressed={settings.tick}
				onClick={() => onSettings({ tick: !settings.tick })}
			>
				a knock for every tap that is kept
			</button>
			<h2 className={PANEL_HEADING}>When a rest is over</h2>
			<div className="mt-1 grid grid-cols-2 gap-1.5">
				<button
					type="button"
					className={CHOICE}
					aria-pressed={settings.sound}
					onClick={() => onSettings({ sound: !settings.sound })}
				>
					sound
				</button>
				<button
					type="button"
					className={CHOICE}
					aria-pressed={settings.vibration}
					onClick={() => onSettings({ vibration: !settings.vibration })}
				>
					vibration
				</button>
			</div>
			<h2 className={PANEL_HEADING}>Cut the session short</h2>
			{cutShort ? (
				<>
					<p className="mt-1 text-[15px]">
						It was ended early, {cutShort}; what was left of each athlete’s dose is noted.
					</p>
					<button type="button" className={`${CHOICE} mt-2 w-full`} onClick={onGoOn}>
						Go on after all
					</button>
				</>
			) : (
				<div className="mt-1 grid grid-cols-2 gap-1.5">
					{CUT_SHORT_REASONS.map((reason) => (
						<button key={reason} type="button" className={CHOICE} onClick={() => onCutShort(reason)}>
							{sayCutShort(reason)}
						</button>
					))}
				</div>
			)}
		</SheetPanel>
	)
}
