import { useEffect } from 'react'
import type { PadKey } from './presses'

interface Props {
	onKey: (key: PadKey) => void
	undoLabel: string | null
	saveLabel: string
	/** The number before, to be saved again in one tap; null when there is none. */
	same: string | null
	disabled: boolean
}

const KEY =
	'num flex min-h-[64px] items-center justify-center bg-paper text-[30px] font-medium active:bg-chalk disabled:text-ink-2'

/** One thumb: digits left, what to do with them right. */
export function NumberPad({ onKey, undoLabel, saveLabel, same, disabled }: Props) {
	// A tablet with keys, or a desk.
	useEffect(() => {
		const typed = (event: KeyboardEvent) => {
			const { key, target } = event
			if (disabled || event.ctrlKey || event.metaKey || event.altKey || document.querySelector('[role="dialog"]'))
				return
			if (target instanceof HTMLElement && target.closest('input, textarea, select')) return
			if (/^[0-9]$/.test(key)) onKey({ key: 'digit', digit: key })
			else if (key === '.' || key === ',') onKey({ key: 'digit', digit: '.' })
			else if (key === 'Backspace') onKey({ key: 'delete' })
			else if (key === 'Enter' && !(target instanceof HTMLButtonElement)) onKey({ key: 'save' })
			else return
			event.preventDefault()
		}
		document.addEventListener('keydown', typed)
		return () => document.removeEventListener('keydown', typed)
	})
	return (
		<div
			data-at="pad"
			className="field-pad grid flex-1 grid-cols-[repeat(3,1fr)_96px] grid-rows-4 gap-px border-y border-chalk bg-chalk"
			role="group"
			aria-label="Number pad"
		>
			{['1', '2', '3'].map((digit) => (
				<button
					key={digit}
					type="button"
					data-key={digit}
					className={KEY}
					onClick={() => onKey({ key: 'digit', digit })}
					disabled={disabled}
				>
					{digit}
				</button>
			))}
			<button
				type="button"
				data-key="undo"
				className={`${KEY} flex-col px-1 text-[15px]! leading-tight font-semibold`}
				onClick={() => onKey({ key: 'undo' })}
				disabled={undoLabel === null}
			>
				Undo{undoLabel && <span className="text-[13px] font-normal">{undoLabel}</span>}
			</button>
			{['4', '5', '6'].map((digit) => (
				<button
					key={digit}
					type="button"
					data-key={digit}
					className={KEY}
					onClick={() => onKey({ key: 'digit', digit })}
					disabled={disabled}
				>
					{digit}
				</button>
			))}
			<button
				type="button"
				data-key="missed"
				className={`${KEY} px-1 text-[15px]! leading-tight font-semibold`}
				onClick={() => onKey({ key: 'missed' })}
				disabled={disabled}
			>
				Missed
				<br />
				rep
			</button>
			{['7', '8', '9'].map((digit) => (
				<button
					key={digit}
					type="button"
					data-key={digit}
					className={KEY}
					onClick={() => onKey({ key: 'digit', digit })}
					disabled={disabled}
				>
					{digit}
				</button>
			))}
			<button
				type="button"
				data-key="untimed"
				className={`${KEY} px-1 text-[15px]! leading-tight font-semibold`}
				onClick={() => onKey({ key: 'untimed' })}
				disabled={disabled}
			>
				Done, no
				<br />
				number
			</button>
			<button
				type="button"
				data-key="point"
				className={KEY}
				onClick={() => onKey({ key: 'digit', digit: '.' })}
				disabled={disabled}
				aria-label="Decimal point"
			>
				.
			</button>
			<button
				type="button"
				data-key="0"
				className={KEY}
				onClick={() => onKey({ key: 'digit', digit: '0' })}
				disabled={disabled}
			>
				0
			</button>
			<button
				type="button"
				data-key="delete"
				className={KEY}
				onClick={() => onKey({ key: 'delete' })}
				disabled={disabled}
				aria-label="Delete the last digit"
			>
				⌫
			</button>
			{same !== null ? (
				<button
					type="button"
					data-key="save"
					className={`${KEY} flex-col bg-act! px-1 text-[17px]! leading-tight font-semibold text-act-ink`}
					onClick={() => onKey({ key: 'same', label: same })}
					disabled={disabled}
				>
					Same<span className="text-[13px] font-normal">{same}</span>
				</button>
			) : (
				<button
					type="button"
					data-key="save"
					className={`${KEY} bg-act! px-1 text-[19px]! leading-tight font-semibold text-act-ink disabled:opacity-55`}
					onClick={() => onKey({ key: 'save' })}
					disabled={disabled}
				>
					{saveLabel}
				</button>
			)}
		</div>
	)
}
