import { useState } from 'react'
import { REGIONS, REGION_NAMES, type Region } from '#core/vocabulary/words'
import { CHOICE, SheetPanel } from './sheet-panel'

export interface PainText {
	region: Region
	side: 'left' | 'right' | 'both'
	score: number
	redFlag: boolean
}

/** Where, which side, how much: three taps and save. */
export function PainPanel({
	name,
	onSave,
	onClose,
}: {
	name: string
	onSave: (pain: PainText) => void
	onClose: () => void
}) {
	const [region, setRegion] = useState<Region | null>(null)
	const [side, setSide] = useState<PainText['side'] | null>(null)
	const [score, setScore] = useState<number | null>(null)
	const [redFlag, setRedFlag] = useState(false)
	const complete = region !== null && side !== null && score !== null
	return (
		<SheetPanel title={`${name}: where does it hurt?`} onClose={onClose}>
			<div className="mt-3 grid grid-cols-3 gap-1.5">
				{REGIONS.map((key) => (
					<button
						key={key}
						type="button"
						className={CHOICE}
						aria-pressed={region === key}
						onClick={() => setRegion(key)}
					>
						{REGION_NAMES[key]}
					</button>
				))}
			</div>
			<div className="mt-4 grid grid-cols-3 gap-1.5">
				{(['left', 'right', 'both'] as const).map((key) => (
					<button key={key} type="button" className={CHOICE} aria-pressed={side === key} onClick={() => setSide(key)}>
						{key === 'both' ? 'both, middle' : key}
					</button>
				))}
			</div>
			<p className="num mt-4 font-semibold">How much, 0 to 10</p>
			<div className="mt-1 grid grid-cols-6 gap-1.5">
				{Array.from({ length: 11 }, (_, value) => (
					<button
						key={value}
						type="button"
						className={CHOICE}
						aria-pressed={score === value}
						onClick={() => setScore(value)}
					>
						{value}
					</button>
				))}
			</div>
			<label className="mt-4 flex min-h-[52px] items-center gap-3">
				<input
					type="checkbox"
					className="size-7 accent-black"
					checked={redFlag}
					onChange={(event) => setRedFlag(event.target.checked)}
				/>{' '}
				Sharp, gives way, locks, numb, or a blow to the head
			</label>
			{redFlag && region === 'neck-head' && (
				<p className="mt-2 border-l-4 border-attn pl-3 font-bold">
					Take the athlete out now and get professional help.
				</p>
			)}
			<button
				type="button"
				className="btn mt-4 min-h-[64px] w-full"
				disabled={!complete}
				onClick={() => complete && onSave({ region, side, score, redFlag })}
			>
				Save
			</button>
		</SheetPanel>
	)
}
