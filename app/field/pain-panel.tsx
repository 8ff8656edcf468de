import { useState } from 'react'
import { REGIONS, REGION_NAMES, type Region } from '#core/vocabulary/words'
import { CHOICE, SheetPanel } from './sheet-panel'

export interface PainText {
	region: Region
	side: 'left' | 'right' | 'both'
	score: number
	redFlag: boolean
}
/** What has no region. */
export type Whole = 'head' | 'chest' | 'unwell'

const WHOLE: { kind: Whole; label: string; words: string }[] = [
	{ kind: 'head', label: 'Blow to the head', words: 'Any blow, or strong pain of head or neck' },
	{ kind: 'chest', label: 'Chest, fainting', words: 'Chest pain, a faint, breath that does not settle' },
	{ kind: 'unwell', label: 'Unwell', words: 'Fever, illness' },
]

/** Head and chest first and in one tap more; else where, which side, how much, and save. */
export function PainPanel({
	name,
	onSave,
	onWhole,
	onClose,
}: {
	name: string
	onSave: (pain: PainText) => void
	onWhole: (kind: Whole) => void
	onClose: () => void
}) {
	const [whole, setWhole] = useState<Whole | null>(null)
	const [region, setRegion] = useState<Region | null>(null)
	const [side, setSide] = useState<PainText['side'] | null>(null)
	const [score, setScore] = useState<number | null>(null)
	const [redFlag, setRedFlag] = useState(false)
	const complete = region !== null && side !== null && score !== null
	const picked = WHOLE.find((one) => one.kind === whole)
	return (
		<SheetPanel title={`${name}: what is it?`} onClose={onClose}>
			<div className="mt-3 grid grid-cols-3 gap-1.5" role="group" aria-label="Of the whole body">
				{WHOLE.map(({ kind, label }) => (
					<button
						key={kind}
						type="button"
						className={`num min-h-[64px] border-2 px-2 text-[16px] leading-tight font-bold aria-pressed:bg-ink aria-pressed:text-paper ${kind === 'unwell' ? 'border-ink' : 'border-attn bg-attn text-paper'}`}
						aria-pressed={whole === kind}
						onClick={() => setWhole(whole === kind ? null : kind)}
					>
						{label}
					</button>
				))}
			</div>
			{picked ? (
				<div className="mt-4">
					<p className="text-[18px]">{picked.words}.</p>
					{picked.kind === 'unwell' ? (
						<p className="mt-2 text-[18px]">
							Nothing high, shock or maximal until {name} is well again, tomorrow at the earliest.
						</p>
					) : (
						<p className="mt-3 border-l-4 border-attn pl-3 text-[22px] leading-tight font-bold text-attn">
							Take {name} out now and get professional help. Everything is closed until a doctor has cleared it.
						</p>
					)}
					<button type="button" className="btn mt-5 min-h-[64px] w-full" onClick={() => onWhole(picked.kind)}>
						Save
					</button>
				</div>
			) : (
				<>
					<p className="num mt-4 font-semibold">Or pain: where?</p>
					<div className="mt-1 grid grid-cols-3 gap-1.5">
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
							<button
								key={key}
								type="button"
								className={CHOICE}
								aria-pressed={side === key}
								onClick={() => setSide(key)}
							>
								{key === 'both' ? 'both, middle' : key}
							</button>
						))}
					</div>
					<p className="num mt-4 font-semibold">How much, 0 to 10</p>
					<Scale picked={score} onPick={setScore} />
					<label className="mt-4 flex min-h-[52px] items-center gap-3">
						<input
							type="checkbox"
							className="size-7 accent-black"
							checked={redFlag}
							onChange={(event) => setRedFlag(event.target.checked)}
						/>{' '}
						Sharp, gives way, locks or is numb
					</label>
					<button
						type="button"
						className="btn mt-4 min-h-[64px] w-full"
						disabled={!complete}
						onClick={() => complete && onSave({ region, side, score, redFlag })}
					>
						Save
					</button>
				</>
			)}
		</SheetPanel>
	)
}

/** 0 none to 10. */
export function Scale({ picked, onPick }: { picked: number | null; onPick: (score: number) => void }) {
	return (
		<div className="mt-1 grid grid-cols-6 gap-1.5" role="group" aria-label="0 none to 10">
			{Array.from({ length: 11 }, (_, value) => (
				<button
					key={value}
					type="button"
					className={CHOICE}
					aria-pressed={picked === value}
					onClick={() => onPick(value)}
				>
					{value}
				</button>
			))}
		</div>
	)
}
