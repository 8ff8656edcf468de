import { useId, useRef, useState } from 'react'
import type { Drill } from '#core/vocabulary/drill'
import type { Ladder } from '#core/vocabulary/ladder'

export interface Pick {
	pick: string
	name: string
	about: string
	words: string
}
/** Everything a sheet may hold, ladders first, with the words it is found by. */
export function picksOf(drills: readonly Drill[], ladders: readonly Ladder[]): Pick[] {
	return [
		...ladders.map((ladder) => ({
			pick: `ladder:${ladder.id}`,
			name: `${ladder.name} ladder`,
			about: 'each athlete’s own rung',
			words: `${ladder.name} ladder ${ladder.family}`.toLowerCase(),
		})),
		...drills.map((drill) => ({
			pick: `drill:${drill.id}`,
			name: drill.name,
			about: [drill.family, drill.intensity, ...drill.kit].join(', '),
			words: `${drill.name} ${drill.family} ${drill.intensity} ${drill.kit.join(' ')} ${drill.pattern}`.toLowerCase(),
		})),
	]
}
const SHOWN = 12

/** Finds a drill or a ladder by any of its words; arrows and Enter, or a tap. */
export function DrillSearch({
	label,
	picks,
	value = '',
	invalid = false,
	placeholder = 'Find a drill or a ladder',
	onPick,
}: {
	label: string
	picks: readonly Pick[]
	value?: string
	invalid?: boolean
	placeholder?: string
	onPick: (pick: string) => void
}) {
	const id = useId()
	const input = useRef<HTMLInputElement>(null)
	const [typed, setTyped] = useState<string | null>(null)
	const [at, setAt] = useState(0)
	const asked = (typed ?? '').toLowerCase().split(/\s+/).filter(Boolean)
	const found =
		typed === null ? [] : picks.filter((one) => asked.every((word) => one.words.includes(word))).slice(0, SHOWN)
	const choose = (pick: Pick | undefined) => {
		if (!pick) return
		onPick(pick.pick)
		setTyped(null)
	}
	return (
		<div className="relative min-w-0 flex-1">
			<input
				ref={input}
				role="combobox"
				aria-label={label}
				aria-expanded={found.length > 0}
				aria-controls={`${id}-list`}
				aria-autocomplete="list"
				aria-activedescendant={found[at] ? `${id}-${at}` : undefined}
				aria-invalid={invalid}
				className="input"
				placeholder={placeholder}
				autoComplete="off"
				value={typed ?? value}
				onFocus={(event) => event.target.select()}
				onBlur={() => setTyped(null)}
				onChange={(event) => {
					setTyped(event.target.value)
					setAt(0)
				}}
				onKeyDown={(event) => {
					if (event.key === 'Escape') return setTyped(null)
					if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
						event.preventDefault()
						if (typed === null) return setTyped('')
						return setAt(Math.max(0, Math.min(found.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1))))
					}
					if (event.key === 'Enter') {
						event.preventDefault()
						choose(found[at])
					}
				}}
			/>
			{found.length > 0 && (
				<ul
					id={`${id}-list`}
					role="listbox"
					aria-label={label}
					className="absolute z-20 mt-0.5 max-h-[320px] w-full min-w-[260px] overflow-auto border-[1.5px] border-ink bg-surface"
				>
					{found.map((one, index) => (
						<li
							key={one.pick}
							id={`${id}-${index}`}
							role="option"
							aria-selected={index === at}
							className={`flex min-h-[44px] cursor-pointer flex-wrap items-baseline gap-x-2 px-3 py-2 ${index === at ? 'bg-ink text-paper' : ''}`}
							onPointerEnter={() => setAt(index)}
							onPointerDown={(event) => {
								event.preventDefault()
								choose(one)
							}}
						>
							<b>{one.name}</b>
							<span className={`text-[13px] ${index === at ? '' : 'dim'}`}>{one.about}</span>
						</li>
					))}
				</ul>
			)}
			{typed !== null && asked.length > 0 && found.length === 0 && (
				<p
					className="dim absolute z-20 mt-0.5 w-full border border-chalk bg-surface px-3 py-2 text-[14px]"
					role="status"
				>
					Nothing in the library has these words.
				</p>
			)}
		</div>
	)
}
