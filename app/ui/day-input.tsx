import { type ComponentProps, Suspense, lazy, useEffect, useRef, useState } from 'react'
import { Popover } from 'radix-ui'
import { readTimeOfDay, writeTimeOfDay } from '#core/calendar/time-of-day'
import { isDay } from '#core/calendar/day-count'
import { useLocal } from './local'

const DayCalendar = lazy(() => import('./day-calendar'))

interface Props extends Omit<ComponentProps<'input'>, 'value' | 'defaultValue' | 'onChange' | 'type' | 'min' | 'max'> {
	/** "2026-11-27"; empty for none. Without it the field keeps its own. */
	value?: string
	defaultValue?: string
	/** What was typed: the day or time, or the text as it stands, for the check to say what is wrong with it. */
	onValue?: (value: string) => void
}

/**
 * A field whose text is one thing to people and another to the form: what is sent stands in a hidden field, so that the
 * server gets one form of it, a draft is kept and brought back, and every browser shows the same.
 */
function useTyped(
	{ name, value, defaultValue = '', onValue }: Pick<Props, 'name' | 'value' | 'defaultValue' | 'onValue'>,
	read: (text: string) => string | null,
	write: (value: string) => string,
) {
	const shown = (one: string) => (read(one) === null ? one : write(read(one)!))
	const [text, setText] = useState(() => shown(value ?? defaultValue))
	const [isTyping, setTyping] = useState(false)
	const hidden = useRef<HTMLInputElement>(null)
	const current = read(text) ?? text
	// Another value came from outside: what was typed no longer stands for it.
	const visible = isTyping || value === undefined || value === current ? text : shown(value)
	const set = (typed: string) => {
		setText(typed)
		const meant = read(typed) ?? typed
		if (hidden.current) hidden.current.value = meant
		onValue?.(meant)
	}
	const latest = useRef(setText)
	useEffect(() => {
		// A draft that is brought back fills in the hidden field.
		const field = hidden.current
		const back = () => latest.current(field!.value)
		const again = () => latest.current(field!.defaultValue)
		const form = field?.form
		field?.addEventListener('change', back)
		form?.addEventListener('reset', again)
		return () => {
			field?.removeEventListener('change', back)
			form?.removeEventListener('reset', again)
		}
	}, [])
	return {
		visible,
		current: value ?? current,
		set,
		typing: (typed: string) => {
			setTyping(true)
			set(typed)
		},
		settle: () => {
			setTyping(false)
			setText(shown(value ?? text))
		},
		hiddenField: name ? (
			<input ref={hidden} type="hidden" data-typed="" name={name} defaultValue={value ?? current} key="sent" />
		) : null,
	}
}

/** A day, typed in any common form or picked from a calendar; the same in every browser. */
export function DayInput({
	name,
	value,
	defaultValue,
	onValue,
	min,
	max,
	className = '',
	...rest
}: Props & { min?: string; max?: string }) {
	const { readDay, writeDay, firstWeekday } = useLocal()
	const { visible, current, set, typing, settle, hiddenField } = useTyped(
		{ name, value, defaultValue, onValue },
		readDay,
		writeDay,
	)
	const [isOpen, setOpen] = useState(false)
	return (
		<span className="relative flex w-[172px] max-w-full">
			<input
				className={`input num min-w-0 pr-11! ${className}`}
				autoComplete="off"
				placeholder={writeDay('yyyy-mm-dd')}
				{...rest}
				value={visible}
				onInput={(event) => typing(event.currentTarget.value)}
				onBlur={settle}
			/>
			{hiddenField}
			<Popover.Root open={isOpen} onOpenChange={setOpen}>
				<Popover.Trigger
					type="button"
					className="absolute top-0 right-0 flex h-full min-h-[40px] w-11 items-center justify-center text-ink-2 hover:text-ink"
					aria-label="Calendar"
				>
					<svg
						width="18"
						height="18"
						viewBox="0 0 18 18"
						fill="none"
						stroke="currentColor"
						strokeWidth="1.5"
						aria-hidden="true"
					>
						<path d="M2 4.5h14v11.5h-14zM2 8h14M5.5 2v4M12.5 2v4" />
					</svg>
				</Popover.Trigger>
				<Popover.Portal>
					<Popover.Content align="end" sideOffset={4} className="z-30 border border-ink bg-paper p-3">
						<Suspense fallback={<p role="status">Opening …</p>}>
							<DayCalendar
								day={isDay(current) ? current : null}
								min={min}
								max={max}
								firstWeekday={firstWeekday}
								onPick={(day) => {
									set(writeDay(day))
									setOpen(false)
								}}
							/>
						</Suspense>
					</Popover.Content>
				</Popover.Portal>
			</Popover.Root>
		</span>
	)
}

/** A time of day, typed in any common form; the same in every browser. */
export function ClockInput({ name, value, defaultValue, onValue, className = '', ...rest }: Props) {
	const { twelveHours } = useLocal()
	const { visible, typing, settle, hiddenField } = useTyped(
		{ name, value, defaultValue, onValue },
		readTimeOfDay,
		(time) => writeTimeOfDay(time, twelveHours),
	)
	return (
		<>
			<input
				className={`input num w-[118px]! ${className}`}
				autoComplete="off"
				placeholder={twelveHours ? '5:30 pm' : '17:30'}
				{...rest}
				value={visible}
				onInput={(event) => typing(event.currentTarget.value)}
				onBlur={settle}
			/>
			{hiddenField}
		</>
	)
}
